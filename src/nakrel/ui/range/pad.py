"""The field to press, click, scroll and type in, with the traces of the last seconds."""

from __future__ import annotations

import math
import time
from collections.abc import Callable

from PyQt6.QtCore import QEvent, QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QFocusEvent, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QWheelEvent
from PyQt6.QtWidgets import QWidget

from nakrel.core.analysis.practice_range import FINGER, Lane, Range
from nakrel.core.model.controls import label as control_label
from nakrel.ui.theme import SMALL_PX, colour, font, hue
from nakrel.ui.widgets import glyphs
from nakrel.ui.widgets.lettering import fitted, write
from nakrel.ui.widgets.traces import draw_trace
from nakrel.window_events import button_of, key_of, notches_of
from nakrel.words import tr

__all__ = ["Pad"]

SPAN_US = 5_000_000
_NAMES, _LANE, _RULER = 150, 24, 20
_FEWEST_LANES, _MOST_LANES, _EDGES = 3, 8, 8
_NO_TEXT = Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.AltModifier
# Who presses what a button acts as, in front of that button.
_ACTING = "finger "
_INVITE = tr("Click here; then press, click, scroll and type. Esc leaves.")


class Pad(QWidget):
    """Takes all keys, clicks and notches while it has the focus, so that none of them does anything else; Esc leaves.
    `typed` gives the text of each key as it arrives, `changed` each key, button (1 down, 0 up) and wheel (its notches)
    by its code, `moved` each way of the pointer."""

    typed = pyqtSignal(str)
    changed = pyqtSignal(str, int)
    # How far the pointer went, in pixels.
    moved = pyqtSignal(float)
    focused = pyqtSignal(bool)

    def __init__(self, counts: Callable[[], Range], name_of: Callable[[Lane], str]) -> None:
        super().__init__()
        self._counts, self._name_of = counts, name_of
        # Where the traces stand still; None while they run.
        self.held_us: int | None = None
        self.lanes: list[Lane] = []
        self._pointer: QPointF | None = None
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMinimumHeight(_FEWEST_LANES * _LANE + _RULER + _EDGES)
        self.setMaximumHeight(_MOST_LANES * _LANE + _RULER + _EDGES)
        self.setAccessibleName(tr("Press, click, scroll and type here; Esc leaves"))

    def sizeHint(self) -> QSize:
        """Wide, and high enough for all lanes."""
        return QSize(640, self.maximumHeight())

    def show_lanes(self, lanes: list[Lane]) -> None:
        """Draw the newest of these lanes."""
        self.lanes = lanes[-_MOST_LANES:]
        self.setAccessibleDescription("; ".join(map(self._name_of, self.lanes)))
        self.update()

    def move_on(self) -> None:
        """Draw the present moment, where there is something to move."""
        if self.lanes and self.held_us is None:
            self.update()

    # What it takes

    def event(self, event: QEvent | None) -> bool:
        """No shortcut fires here, and Tab is a key like any other."""
        if event and event.type() == QEvent.Type.ShortcutOverride:
            event.accept()
            return True
        return super().event(event)

    def focusNextPrevChild(self, next: bool) -> bool:
        """Tab stays."""
        return False

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Esc leaves; anything else is here to be looked at."""
        if event is None:
            return
        if event.key() == Qt.Key.Key_Escape:
            self.clearFocus()
            return
        self._key_changed(event, 1)
        if event.text().isprintable() and event.text() and not event.modifiers() & _NO_TEXT:
            self.typed.emit(event.text())

    def keyReleaseEvent(self, event: QKeyEvent | None) -> None:
        """It went up."""
        if event:
            self._key_changed(event, 0)

    def _key_changed(self, event: QKeyEvent, value: int) -> None:
        if not event.isAutoRepeat() and (key := key_of(event)):
            self.changed.emit(key.code, value)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Clicks stay here."""
        self._button_changed(event, 1)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        """The button went up."""
        self._button_changed(event, 0)

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        """The second press of a quick pair is a press like any other."""
        self._button_changed(event, 1)

    def _button_changed(self, event: QMouseEvent | None, value: int) -> None:
        if event:
            event.accept()
            if code := button_of(event):
                self.changed.emit(code, value)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Motion counts as fingers do: while the field has the focus."""
        if event is None:
            return
        before, self._pointer = self._pointer, event.position()
        if before is not None and self.hasFocus():
            way = self._pointer - before
            self.moved.emit(math.hypot(way.x(), way.y()))

    def leaveEvent(self, event: QEvent | None) -> None:
        """Where it comes in again is no way that it went here."""
        self._pointer = None

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        """So do the wheel's notches."""
        if event:
            event.accept()
            for code, notches in notches_of(event):
                self.changed.emit(code, notches)

    def contextMenuEvent(self, event: object) -> None:
        """The right button is a button like any other."""

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        """From now on fingers count."""
        self.focused.emit(True)
        self.update()

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        """They don't any more."""
        self.focused.emit(False)
        self.update()

    # What it shows

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw a lane for each control, the newest time at the right."""
        painter = QPainter(self)
        painter.setFont(font(SMALL_PX))
        area = QRectF(0, 0, self.width() - 1, self.height() - 1)
        painter.fillRect(area, colour("field"))
        painter.setPen(QPen(colour("brass" if self.hasFocus() else "line"), 1))
        painter.drawRect(area)
        now = self.held_us if self.held_us is not None else time.monotonic_ns() // 1_000
        room = (self.height() - _RULER - _EDGES) // _LANE
        field = QRectF(_NAMES, 6, self.width() - _NAMES - 14, room * _LANE)
        if not self.lanes:
            painter.setPen(colour("soft"))
            text = _INVITE if not self.hasFocus() else tr("Press, click, scroll and type.")
            painter.drawText(area, Qt.AlignmentFlag.AlignCenter, text)
            return
        counts = self._counts()
        for number, lane in enumerate(self.lanes[-room:]):
            top = field.top() + number * _LANE
            own = hue(lane.control)
            glyphs.draw(painter, lane.control, QRectF(10, top + 5, 14, 16))
            painter.setPen(own)
            write(painter, 28, top + 13, fitted(self._name_of(lane), _NAMES - 36))
            spans = counts.spans(lane, now - SPAN_US, now)
            draw_trace(painter, QRectF(field.left(), top + 5, field.width(), 14), spans, now - SPAN_US, now, own)
        painter.setPen(colour("soft"))
        y = field.bottom() + 3
        painter.drawText(QRectF(field.left(), y, 60, 16), Qt.AlignmentFlag.AlignLeft, "−5 s")
        right = Qt.AlignmentFlag.AlignRight
        painter.drawText(
            QRectF(field.right() - 60, y, 60, 16), right, tr("now") if self.held_us is None else tr("paused")
        )


def lane_name(lane: Lane, macro_names: dict[str, str]) -> str:
    """What a lane is called: its control, and the macro that presses it, or the button that acts as it."""
    name = control_label(lane.control)
    if lane.by == FINGER:
        return name
    if lane.by.startswith(_ACTING):
        button = control_label(lane.by.removeprefix(_ACTING))
        return tr("{control}, by {button}").format(control=name, button=button)
    return f"{name}, {macro_names.get(lane.by, tr('a macro'))}"
