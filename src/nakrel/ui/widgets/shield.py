"""A shield before the whole window: while a capture or a recording runs, what is pressed is meant for that alone.

No shortcut fires then, no field takes a letter, no button is clicked, but for the widgets that end it by mouse.
"""

from __future__ import annotations

from PyQt6 import sip
from PyQt6.QtCore import QEvent, QObject, Qt, QTimer
from PyQt6.QtGui import QFocusEvent
from PyQt6.QtWidgets import QApplication, QWidget

__all__ = ["Shield", "shielded"]

# A press that ended it is still on its way through Qt's queue, and a key that is down repeats itself.
_AFTER_MS = 150
_KEYS = {QEvent.Type.KeyPress, QEvent.Type.KeyRelease, QEvent.Type.ShortcutOverride}
_MOUSE = {
    QEvent.Type.MouseButtonPress,
    QEvent.Type.MouseButtonRelease,
    QEvent.Type.MouseButtonDblClick,
    QEvent.Type.Wheel,
    QEvent.Type.ContextMenu,
}
_up: set[Shield] = set()
_always_open: list[QWidget] = []


def keep_open(widget: QWidget) -> None:
    """The mouse reaches this widget whatever shield is up."""
    _always_open.append(widget)
    widget.destroyed.connect(lambda: _always_open.remove(widget))


def shielded() -> bool:
    """Whether what is pressed now is meant for a capture or a recording, and for nothing else in the window."""
    return bool(_up)


class Shield(QObject):
    """`open_to` are the widgets that the mouse still reaches."""

    def __init__(self, owner: QWidget, *open_to: QWidget) -> None:
        super().__init__(owner)
        self.open_to = open_to
        # What had the focus gets it back.
        self._before: QWidget | None = None
        # What a click, which moves the focus before it can be kept away, took it from.
        self._robbed: QWidget | None = None
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(_AFTER_MS)
        self._timer.timeout.connect(self._drop)
        # Its owner may be closed while it is up.
        owner.destroyed.connect(lambda: _up.discard(self))

    def raise_it(self) -> None:
        """Keep presses from the window, and close what is being edited: what was typed there is taken."""
        self._timer.stop()
        if self not in _up and (app := QApplication.instance()):
            _up.add(self)
            app.installEventFilter(self)
            self._before = QApplication.focusWidget()
        if self.open_to:
            self.open_to[0].setFocus()

    def lower(self) -> None:
        """Let presses through again, in a moment."""
        if self in _up:
            self._timer.start()

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Keep the press from the window."""
        if event is None or not isinstance(watched, QWidget):
            return False
        if isinstance(event, QFocusEvent) and event.type() == QEvent.Type.FocusOut:
            self._robbed = watched if event.reason() == Qt.FocusReason.MouseFocusReason else None
        if event.type() not in _KEYS | _MOUSE:
            return False
        robbed, self._robbed = self._robbed, None
        open_to = (*self.open_to, *_always_open)
        if event.type() in _MOUSE and any(watched is each or each.isAncestorOf(watched) for each in open_to):
            return False
        if event.type() == QEvent.Type.MouseButtonPress and robbed is not None and not sip.isdeleted(robbed):
            robbed.setFocus()
        # An accepted override makes a key a plain key press, which then ends here and not in a shortcut.
        event.accept()
        return True

    def _drop(self) -> None:
        _up.discard(self)
        if app := QApplication.instance():
            app.removeEventFilter(self)
        before, self._before = self._before, None
        now = QApplication.focusWidget()
        if before is not None and not sip.isdeleted(before) and (now is None or now in self.open_to):
            before.setFocus()
