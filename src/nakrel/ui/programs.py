"""The programs that can be started, of those that run and those that are installed, with their pictures."""

from __future__ import annotations

import os

from PyQt6.QtCore import QLocale, QObject, pyqtSignal
from PyQt6.QtGui import QIcon, QImage, QPixmap

from nakrel import protocol as m
from nakrel.core.edit.offers import Startable
from nakrel.core.model.programs import Application, Icon, Program, called, file_of, is_background
from nakrel.ui.store import Store

__all__ = ["Programs", "application_icon", "window_icon"]


class Programs(QObject):
    """`look` asks for them; `changed` says that they are there, or others."""

    changed = pyqtSignal()

    def __init__(self, store: Store, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self._running: tuple[Program, ...] = ()
        self._installed: tuple[Application, ...] = ()
        self._icons: dict[str, Icon] = {}

    def look(self) -> None:
        """Ask which there are now; installed ones are asked for once."""
        self._store.ask(m.GetPrograms(icons=True), self._answered)
        if not self._installed:
            self._store.ask(m.GetApplications(QLocale().name().partition("_")[0]), self._answered)

    def known(self) -> list[Startable]:
        """Those with a window first, then what is installed; each file once."""
        found: dict[str, Startable] = {}
        for program in self._running:
            file = file_of(program)
            if program.title and not is_background(program) and os.access(file, os.X_OK):
                found.setdefault(file, Startable(called(program) or os.path.basename(file), (file,), running=True))
        for each in self._installed:
            if each.program:
                found.setdefault(each.program, Startable(each.name, (each.program,)))
        return list(found.values())

    def icon(self, program: str) -> QIcon:
        """The picture of the program with this file; an empty one where it has none."""
        for each in self._running:
            if file_of(each) == program and (icon := self._icons.get(str(each.pid))):
                return window_icon(icon)
        return next((application_icon(each) for each in self._installed if each.program == program), QIcon())

    def _answered(self, answer: m.AnswerBody) -> None:
        if isinstance(answer, m.Programs):
            self._running = tuple(each for each in answer.programs if each.pid != os.getpid())
            self._icons = dict(answer.icons)
        elif isinstance(answer, m.Applications):
            self._installed = answer.applications
        self.changed.emit()


def window_icon(icon: Icon) -> QIcon:
    """The picture that a program's window has."""
    image = QImage(icon.argb, icon.width, icon.height, QImage.Format.Format_ARGB32)
    return QIcon(QPixmap.fromImage(image))


def application_icon(application: Application) -> QIcon:
    """The picture that an installed application names."""
    return QIcon(application.icon) if os.path.isabs(application.icon) else QIcon.fromTheme(application.icon)
