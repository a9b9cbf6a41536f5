"""The permission fix from the window: what it does is said first, and the password is asked for by the system."""

from __future__ import annotations

import sys

from PyQt6.QtCore import QObject, QProcess, pyqtSignal
from PyQt6.QtWidgets import QMessageBox, QWidget

__all__ = ["Fix"]

_TOLD = (
    "This gives you, when you sit at this computer, access to its keyboards and mice and to virtual ones, for good. "
    "Every program that you start gets it, too. It is installed as root: the system asks for a password."
)


class Fix(QObject):
    """`ask` says what is done and does it; `ended` gives '' where it worked, else what went wrong."""

    ended = pyqtSignal(str)

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self._parent = parent
        self._process = QProcess(self)
        self._process.setProcessChannelMode(QProcess.ProcessChannelMode.MergedChannels)
        self._process.finished.connect(lambda code, status: self._finished(code))
        self._process.errorOccurred.connect(lambda error: self._failed())
        self.command = [sys.executable, "-m", "nakrel", "doctor", "--fix", "--yes"]
        self.question: QMessageBox | None = None

    def ask(self) -> None:
        """Say what would be done, and do it if that is wanted."""
        if self._process.state() is not QProcess.ProcessState.NotRunning:
            return
        self.question = box = QMessageBox(self._parent)
        box.setWindowTitle("Fix the permissions")
        box.setText(_TOLD)
        go = box.addButton("Install", QMessageBox.ButtonRole.AcceptRole)
        box.addButton("Cancel", QMessageBox.ButtonRole.RejectRole)
        box.buttonClicked.connect(lambda clicked: self._start() if clicked is go else None)
        box.open()

    def _start(self) -> None:
        self._process.start(self.command[0], self.command[1:])

    def _finished(self, code: int) -> None:
        said = bytes(self._process.readAll().data()).decode("utf-8", "replace").strip().splitlines()
        self.ended.emit("" if code == 0 else f"The permissions were not changed: {said[-1] if said else 'it failed'}.")

    def _failed(self) -> None:
        if self._process.error() is QProcess.ProcessError.FailedToStart:
            self.ended.emit("The permissions were not changed: the fix can't be started. Type: nakrel doctor --fix")
