"""Choosing a control by pressing it."""

from __future__ import annotations

import time

from PyQt6.QtCore import QTimer, pyqtSignal
from PyQt6.QtGui import QCursor, QHideEvent
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from nakrel import protocol as m
from nakrel.core.model.controls import KNOWN, Kind
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, label
from nakrel.ui.widgets.shield import Shield
from nakrel.words import noted, tr

__all__ = ["Capture"]

LIMIT_S = 15
# Why a button may not have arrived, by the route.
_NOTHING_CAME = {
    "kernel": noted("Nothing arrived: some buttons stay inside the mouse. Its own settings may give them a key."),
    "standin": noted("Nothing arrived: no real device is read here (see Devices)."),
}
_NOTHING_CAME_UNDER_X = noted(
    "Nothing arrived: some buttons stay inside the mouse, others need kernel input (see Devices)."
)


class Capture(QWidget):
    """Shows "press the key or button", takes the next control that is pressed on any device, and gives it out.

    Attachments rest meanwhile, and the window takes nothing, until all that was pressed is up again. Cancel ends it by
    mouse, and so does waiting too long.
    """

    captured = pyqtSignal(str)
    # All that went down until all was up again, in that order: a combination where there are several.
    caught = pyqtSignal(tuple)
    ended = pyqtSignal()

    def __init__(self, store: Store, text: str = "", *, to_be_sent: bool = False) -> None:
        """With `to_be_sent` it is for macros to press: of a thumb button that sends a number key it is that key."""
        super().__init__()
        self._store, self._to_be_sent = store, to_be_sent
        self._armed = self._listening = False
        self._left = LIMIT_S
        self._since_us = 0
        # What went down since it was armed, and what of that is down yet.
        self._pressed: dict[str, None] = {}
        self._down: set[str] = set()
        self._timer = QTimer(self)
        self._timer.setInterval(1000)
        self._timer.timeout.connect(self._second)
        self._text = text or tr("Press the key or button…")
        self._label = label(self._text, "live", wrap=True)
        self.cancel_button: QPushButton = button(tr("Cancel"), self.cancel)
        self._shield = Shield(self, self.cancel_button)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 4, 0, 4)
        layout.addWidget(self._label, 1)
        layout.addWidget(self.cancel_button)
        self.hide()

    @property
    def armed(self) -> bool:
        """Whether it waits for a press."""
        return self._armed

    def arm(self) -> None:
        """Wait for a press from now on; until it is over nothing else in the window takes keys or clicks."""
        if self._armed:
            return
        self._armed, self._left = True, LIMIT_S
        self._since_us = time.monotonic_ns() // 1_000
        self._down.clear()
        self._pressed.clear()
        self._timer.stop()
        if not self._listening:
            self._listening = True
            self._store.seen.connect(self._seen)
        self._store.ask(m.Listen(LIMIT_S))
        self.show()
        self._shield.raise_it()
        self._second()
        self._timer.start()

    def cancel(self) -> None:
        """Wait no longer."""
        if self._armed:
            self._take_no_more()
            self._end()

    def _take_no_more(self) -> None:
        self._armed = False
        self.hide()
        self.ended.emit()

    def _end(self) -> None:
        """What was pressed is over."""
        self._timer.stop()
        self._listening = False
        self._store.seen.disconnect(self._seen)
        self._store.ask(m.Listen(0))
        self._shield.lower()
        if self._pressed:
            self.caught.emit(tuple(self._pressed))

    def hideEvent(self, event: QHideEvent | None) -> None:
        """What asks for a press out of sight asks nobody."""
        super().hideEvent(event)
        self.cancel()

    def _second(self) -> None:
        self._label.setText(f"{self._text} {self._left} s")
        self._left -= 1
        if self._left < 0:
            if self._armed:
                self._take_no_more()
                self._store.fault.emit(tr(_NOTHING_CAME.get(self._store.status.backend, _NOTHING_CAME_UNDER_X)))
            self._end()

    def _seen(self, notice: m.Seen) -> None:
        for event in notice.events:
            # Notices come gathered: the click or key that armed it may arrive only now.
            if event.by == "in" and event.control in KNOWN and event.at_us > self._since_us:
                self._heard(event)

    def _heard(self, event: m.SeenEvent) -> None:
        code, turns = event.control, KNOWN[event.control].kind is Kind.WHEEL
        if self._to_be_sent and event.sent:
            code = event.sent
        if not event.value:
            self._down.discard(code)
        elif not (code == "BTN_LEFT" and self._armed and self._on_cancel()):
            self._pressed[code] = None
            if not turns:
                self._down.add(code)
            if self._armed:
                self._take_no_more()
                self.captured.emit(code)
        if not self._armed and self._listening and not self._down:
            self._end()

    def _on_cancel(self) -> bool:
        spot = self.cancel_button.mapFromGlobal(QCursor.pos())
        return self.cancel_button.isVisible() and self.cancel_button.rect().contains(spot)
