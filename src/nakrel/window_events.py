"""Which control a window's own event is about, for windows that count what reaches them."""

from __future__ import annotations

from PyQt6 import sip
from PyQt6.QtCore import QObject, Qt
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QWheelEvent, QWindow

from nakrel.core.model.controls import Control, by_number

__all__ = ["button_of", "key_number", "key_of", "letter_of", "notches_of", "watch_instead"]

# X11 and Wayland both number keys 8 above the kernel's codes (the XKB convention for evdev).
_KEYCODE_OFFSET = 8
# X11's buttons 8 and 9 are a mouse's side buttons, which Qt numbers as extra buttons.
_BUTTONS = {
    Qt.MouseButton.LeftButton: "BTN_LEFT",
    Qt.MouseButton.RightButton: "BTN_RIGHT",
    Qt.MouseButton.MiddleButton: "BTN_MIDDLE",
    Qt.MouseButton.XButton1: "BTN_SIDE",
    Qt.MouseButton.XButton2: "BTN_EXTRA",
    Qt.MouseButton.TaskButton: "BTN_FORWARD",
}
# Eighths of a degree (QWheelEvent::angleDelta).
_NOTCH = 120


def key_number(event: QKeyEvent) -> int:
    """The key's event code in the kernel's counting; below 0 where the event has none."""
    return event.nativeScanCode() - _KEYCODE_OFFSET


def key_of(event: QKeyEvent) -> Control | None:
    """The key; None for one without a name."""
    return by_number(key_number(event))


def letter_of(event: QKeyEvent) -> str:
    """The letter of a key that means something by itself, A to Z: where letters of another alphabet are typed, the one
    that stands beside it; '' for any other key."""
    if Qt.Key.Key_A <= event.key() <= Qt.Key.Key_Z:
        return chr(event.key())
    key = key_of(event) if event.text().isalpha() and not event.text().isascii() else None
    name = key.code.removeprefix("KEY_") if key else ""
    return name if len(name) == 1 and name.isalpha() else ""


def button_of(event: QMouseEvent) -> str | None:
    """The code of the mouse button; None for one beyond those that windows tell apart."""
    return _BUTTONS.get(event.button())


def notches_of(event: QWheelEvent) -> list[tuple[str, int]]:
    """The wheel's directions in this event, each with its whole notches."""
    turned = event.angleDelta()
    found = []
    for delta, above, below in ((turned.y(), "WHEEL_UP", "WHEEL_DOWN"), (turned.x(), "WHEEL_LEFT", "WHEEL_RIGHT")):
        if notches := abs(delta) // _NOTCH:
            found.append((above if delta > 0 else below, notches))
    return found


def watch_instead(watcher: QObject, before: QWindow | None, window: QWindow | None) -> None:
    """Let it see this window's events, by its `eventFilter`, instead of those of the one before. A filter of the whole
    program would be asked of every event of every part of it, also of parts that are just being made."""
    if before is not None and not sip.isdeleted(before):
        before.removeEventFilter(watcher)
    if window is not None:
        window.installEventFilter(watcher)
