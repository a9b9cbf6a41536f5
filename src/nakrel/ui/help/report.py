"""A report of a problem: a text that is looked at and copied. Nothing is sent."""

from __future__ import annotations

import os
import platform
import time
from collections.abc import Iterable, Sequence

from PyQt6.QtCore import PYQT_VERSION_STR, Qt, qVersion
from PyQt6.QtWidgets import QApplication, QCheckBox, QDialog, QHBoxLayout, QPlainTextEdit, QVBoxLayout, QWidget

import nakrel
from nakrel import protocol as m
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, label
from nakrel.words import tr

__all__ = ["Report", "report_text"]

_MOST_LINES = 40
_HIDDEN = "(name)"
_WORDS = tr(
    "Copy this text to where you report the problem, and say what you did and what you expected. Nothing is sent."
)


def _system() -> str:
    try:
        return platform.freedesktop_os_release().get("PRETTY_NAME", "Linux")
    except OSError:
        return "Linux"


def report_text(store: Store, checks: Sequence[m.Check], *, with_names: bool) -> str:
    """Versions, the session, the route, what the doctor says, and the journal's last lines."""
    status = store.status
    session = os.environ.get("XDG_SESSION_TYPE") or ("wayland" if os.environ.get("WAYLAND_DISPLAY") else "x11")
    desktop = os.environ.get("XDG_CURRENT_DESKTOP", "unknown")
    lines = [
        f"Nakrel {nakrel.__version__}, Python {platform.python_version()}, Qt {qVersion()}, PyQt {PYQT_VERSION_STR}",
        f"{_system()}, kernel {platform.release()}, {platform.machine()}",
        f"session: {session}, desktop: {desktop}",
        f"route: {status.backend}",
        *(f"  {said}" for said in dict.fromkeys((status.backend_note, status.warning)) if said),
        "",
        tr("Input check:"),
        *(f"  {check.state.value:4}  {tr(check.link, 'check')}: {check.found}" for check in checks),
        "",
        tr("The end of the journal:"),
    ]
    for entry in store.journal[-_MOST_LINES:]:
        at = time.strftime("%H:%M:%S", time.localtime(entry.at))
        # Why a profile went live names programs and windows.
        why = f" ({entry.why})" if entry.why and (with_names or entry.kind != "switch") else ""
        lines.append(f"  {at}  {entry.kind}: {entry.what}{why}")
    text = "\n".join(lines) + "\n"
    return text if with_names else _without(text, _names(store))


def _names(store: Store) -> Iterable[str]:
    """What people and programs are told by."""
    for profile in store.profiles.values():
        yield profile.name
        yield from (rule.value for rule in profile.programs)
        yield from (setup.name for setup in profile.setups)
    yield from (macro.name for macro in store.macros.values())
    yield from (device.name for device in store.devices if not device.standin)
    yield os.path.expanduser("~")


def _without(text: str, names: Iterable[str]) -> str:
    # Longer ones first, so that no part of one is left.
    for name in sorted({each for each in names if len(each) > 2}, key=len, reverse=True):
        text = text.replace(name, _HIDDEN)
    return text


class Report(QDialog):
    """The text, with names of programs, profiles and macros only where that is wanted."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self._checks: tuple[m.Check, ...] = ()
        self.setWindowTitle(tr("Report a problem"))
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.resize(760, 560)
        self.names = QCheckBox(tr("With the names of programs, profiles, macros and devices"))
        self.text = QPlainTextEdit()
        self.text.setReadOnly(True)
        self.text.setAccessibleName(tr("The report"))
        self.copied = label("", "soft")
        layout = QVBoxLayout(self)
        layout.addWidget(label(_WORDS, "soft", wrap=True))
        layout.addWidget(self.names)
        layout.addWidget(self.text, 1)
        row = QHBoxLayout()
        row.addWidget(self.copied)
        row.addStretch(1)
        self.copy_button = button(tr("Copy"), self.copy, "act")
        row.addWidget(button(tr("Close"), self.accept))
        row.addWidget(self.copy_button)
        layout.addLayout(row)
        self.names.clicked.connect(lambda on: self._show())
        self._show()
        store.ask(m.GetChecks(), self._answered)

    def _answered(self, answer: m.AnswerBody) -> None:
        if isinstance(answer, m.Checks):
            self._checks = answer.checks
            self._show()

    def _show(self) -> None:
        self.text.setPlainText(report_text(self._store, self._checks, with_names=self.names.isChecked()))

    def copy(self) -> None:
        """Put the text on the clipboard."""
        if clipboard := QApplication.clipboard():
            clipboard.setText(self.text.toPlainText())
            self.copied.setText(tr("Copied."))
