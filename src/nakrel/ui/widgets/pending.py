"""A line that says that an answer is still being worked out."""

from __future__ import annotations

from PyQt6.QtCore import QTimer, pyqtSignal
from PyQt6.QtWidgets import QLabel, QWidget

from nakrel.words import tr

__all__ = ["Pending"]

# What takes no longer than that is there at once, to people.
_AT_ONCE_MS = 200


class Pending(QLabel):
    """Appears once an answer has been waited for longer than people take for at once. It stands after the answer, in
    room of its own: nothing moves when it comes or goes.

    `late` says that it does; with True when what is shown is the answer for something else, and has to go.
    """

    late = pyqtSignal(bool)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("soft")
        self.setWordWrap(True)
        self.setText(tr("Still being worked out."))
        policy = self.sizePolicy()
        policy.setRetainSizeWhenHidden(True)
        self.setSizePolicy(policy)
        self.hide()
        self._of, self._answered_of = "", ""
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self._say)

    def expect(self, of: str, begins_ms: int = 0) -> None:
        """From now on an answer is waited for; `of` is what it is about, edited or not, and the work on it begins in so
        many milliseconds: edits that follow on each other put it off."""
        if of != self._of:
            self.hide()
        self._of = of
        if self.isHidden():
            self._timer.start(begins_ms + _AT_ONCE_MS)

    def answered(self) -> None:
        """The answer is there."""
        self._timer.stop()
        self.hide()
        self._answered_of = self._of

    def answered_in_part(self) -> bool:
        """What is known before the answer is there; returns whether it should be shown, with the line that says that
        there is more to come. An answer from before an edit tells more, and stands until the next whole one."""
        if self._of == self._answered_of:
            return False
        self._timer.stop()
        self.setText(tr("Still being worked out."))
        self.show()
        return True

    def _say(self) -> None:
        other = self._of != self._answered_of
        if other:
            self._answered_of = ""
            self.setText(tr("Still being worked out."))
        else:
            self.setText(tr("Being updated; this is from before."))
        self.show()
        self.late.emit(other)
