"""The permission fix from the window: what it does is said first, and the password is asked for by the system."""

from __future__ import annotations

import shlex

from PyQt6.QtCore import QObject, QProcess, pyqtSignal
from PyQt6.QtWidgets import QMessageBox, QWidget

from nakrel.desktop.places import own_command
from nakrel.words import tr

__all__ = ["Fix"]

_TOLD = tr(
    "This gives you, when you sit at this computer, access to its keyboards and mice and to virtual ones, for good. "
    "Every program that you start gets it, too. It is installed as root: the system asks for a password."
)
_TOLD_BACK = tr(
    "This removes what the fix installed. Macros then reach what they reach without it: the windows of an X11 session, "
    "and none under Wayland. It is done as root: the system asks for a password."
)


class Fix(QObject):
    """`ask` says what is done and does it; `ended` gives '' where it worked, else what went wrong."""

    ended = pyqtSignal(str)

    def __init__(self, parent: QWidget, *, back: bool = False) -> None:
        """With `back` it takes away what it installed before."""
        super().__init__(parent)
        self._parent, self._back = parent, back
        self._process = QProcess(self)
        self._process.setProcessChannelMode(QProcess.ProcessChannelMode.MergedChannels)
        self._process.finished.connect(lambda code, status: self._finished(code))
        self._process.errorOccurred.connect(lambda error: self._failed())
        self.command = [*own_command(), "doctor", "--take-back" if back else "--fix", "--yes"]
        self.question: QMessageBox | None = None

    def ask(self) -> None:
        """Say what would be done, and do it if that is wanted."""
        if self._process.state() is not QProcess.ProcessState.NotRunning:
            return
        self.question = box = QMessageBox(self._parent)
        box.setWindowTitle(tr("Take the permissions back") if self._back else tr("Fix the permissions"))
        box.setText(_TOLD_BACK if self._back else _TOLD)
        go = box.addButton(tr("Remove") if self._back else tr("Install"), QMessageBox.ButtonRole.AcceptRole)
        box.addButton(tr("Cancel"), QMessageBox.ButtonRole.RejectRole)
        box.buttonClicked.connect(lambda clicked: self._start() if clicked is go else None)
        box.open()

    def _start(self) -> None:
        self._process.start(self.command[0], self.command[1:])

    def _finished(self, code: int) -> None:
        said = bytes(self._process.readAll().data()).decode("utf-8", "replace").strip().splitlines()
        failed = tr("The permissions were not changed: {value}.").format(value=said[-1] if said else tr("it failed"))
        self.ended.emit("" if code == 0 else f"{failed} {self._by_hand()}")

    def _failed(self) -> None:
        if self._process.error() is QProcess.ProcessError.FailedToStart:
            self.ended.emit(
                tr("The permissions were not changed: the command can't be started. {value}").format(
                    value=self._by_hand()
                )
            )

    def _by_hand(self) -> str:
        """The line that does the same in a terminal, wherever this Nakrel is."""
        return tr("Type in a terminal: {value}").format(value=shlex.join(self.command[:-1]))
