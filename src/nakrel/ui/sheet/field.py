"""The field: one line at a cell, with what fits beneath it."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from PyQt6.QtCore import QEvent, QObject, QRect, Qt, pyqtSignal
from PyQt6.QtGui import QFocusEvent, QKeyEvent
from PyQt6.QtWidgets import QApplication, QBoxLayout, QFrame, QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from nakrel.core.edit.offers import Offer
from nakrel.core.model.cells import Cell, ToChord, ToControl
from nakrel.core.model.errors import DataError
from nakrel.ui.programs import Programs
from nakrel.ui.sheet.offer_list import OfferList
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, label, style_anew
from nakrel.ui.widgets.capture import Capture
from nakrel.ui.widgets.shield import shielded
from nakrel.words import sentence, tr

__all__ = ["Field"]

_LINE_PX = 30
# Narrower than this, lines can't be read.
_LEAST_PX, _MOST_PX = 430, 620
# With less room than the first beneath it the list goes upwards, and then no higher than the second.
_ROOM_PX, _HIGHEST_PX = 180, 380
_UPWARDS, _DOWNWARDS = QBoxLayout.Direction.BottomToTop, QBoxLayout.Direction.TopToBottom
_PAGE = 8


class Field(QFrame):
    """Opened at a place with a question; `taken` gives what was chosen, an `Offer`'s cell or beginning."""

    taken = pyqtSignal(object)
    left = pyqtSignal()

    def __init__(self, store: Store, programs: Programs, parent: QWidget) -> None:
        super().__init__(parent)
        self.setObjectName("assign")
        self._offers: Callable[[str], Sequence[Offer]] = lambda typed: ()
        self._now: object = None
        # While it opens and closes the focus moves, and nobody left it.
        self._moving = False
        self.line = QLineEdit()
        self.line.setFrame(False)
        self.line.setFixedHeight(_LINE_PX - 2)
        self.line.setMaxLength(4_000)
        self.list = OfferList(store, programs)
        self.press_button = button(
            tr("press it  Ctrl+Space"), self.press, "link", tr("Press the key, button or combination")
        )
        self.press_button.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.capture = Capture(store, tr("Press the key, button or combination…"), to_be_sent=True)
        self._error = label("", "alarm", wrap=True)
        self._error.hide()
        head = QHBoxLayout()
        head.setContentsMargins(0, 0, 0, 0)
        head.addWidget(self.line, 1)
        head.addWidget(self.press_button)
        self._parts = layout = QVBoxLayout(self)
        layout.setContentsMargins(1, 1, 1, 1)
        layout.setSpacing(0)
        layout.addLayout(head)
        for part in (self.capture, self._error):
            part.setContentsMargins(8, 0, 4, 0)
            layout.addWidget(part)
        layout.addWidget(self.list)
        self.hide()
        self.line.textEdited.connect(lambda text: self.refresh())
        self.line.installEventFilter(self)
        self.list.clicked.connect(lambda index: self.take())
        self.capture.caught.connect(self._pressed)
        self.capture.ended.connect(self._capture_ended)
        programs.changed.connect(self._programs_came)
        store.keyboard.changed.connect(lambda: self.refresh() if self.isVisible() else None)

    def open(
        self, place: QRect, question: str, offers: Callable[[str], Sequence[Offer]], now: object = None, typed: str = ""
    ) -> None:
        """Ask at a place of the parent's; `now` is what is chosen at first, `typed` stands in the line already."""
        self._offers, self._now = offers, now
        self.line.setPlaceholderText(question)
        self.line.setAccessibleName(question)
        self.line.setText(typed)
        self._tell("")
        self._moving = True
        self.refresh()
        self._put(place)
        self.show()
        self.raise_()
        self.line.setFocus()
        self._moving = False

    def _put(self, place: QRect) -> None:
        parent = self.parentWidget()
        assert parent
        width = min(max(_LEAST_PX, min(_MOST_PX, place.width())), parent.width())
        left = max(0, min(place.left(), parent.width() - width))
        wanted, beneath, above = _LINE_PX + self.list.height_of_all() + 4, parent.height() - place.top(), place.bottom()
        # Near the foot its list stands above the line, which stays where it was asked for.
        upwards = beneath < min(wanted, _ROOM_PX) and above > beneath
        height = max(_LINE_PX + 60, min(wanted, above, _HIGHEST_PX) if upwards else min(wanted, beneath))
        self._turn(upwards)
        self.setGeometry(left, above - height + 1 if upwards else place.top(), width, height)

    def _turn(self, upwards: bool) -> None:
        self._parts.setDirection(_UPWARDS if upwards else _DOWNWARDS)
        if upwards != self.list.property("upwards"):
            self.list.setProperty("upwards", upwards)
            style_anew(self.list)

    def refresh(self) -> None:
        """Offer what fits the line now."""
        typed = self.line.text()
        self.list.show_offers(self._offers(typed), None if typed.strip() else self._now)
        self._tell("")

    def take(self) -> None:
        """Take the chosen line."""
        if self.list.currentIndex().isValid():
            offer = self.list.offer()
            self._close()
            self.taken.emit(offer.does)

    def leave(self) -> None:
        """Leave everything as it is."""
        if self.isVisible():
            self._close()
            self.left.emit()

    def press(self) -> None:
        """Take what is pressed next."""
        self.press_button.hide()
        self.capture.arm()

    def fail(self, message: str) -> None:
        """Say why what was chosen can't be taken."""
        self._tell(message)

    def _close(self) -> None:
        self._moving = True
        self.capture.cancel()
        self.hide()
        self._moving = False

    def _tell(self, message: str) -> None:
        self._error.setText(sentence(message))
        self._error.setVisible(bool(message))

    def _pressed(self, codes: tuple[str, ...]) -> None:
        if not self.isVisible():
            return
        try:
            cell: Cell = ToControl(codes[0]) if len(codes) == 1 else ToChord(codes)
        except DataError as error:
            self._tell(str(error))
            return
        self._close()
        self.taken.emit(cell)

    def _capture_ended(self) -> None:
        self.press_button.show()
        if self.isVisible():
            self.line.setFocus()

    def _programs_came(self) -> None:
        if self.isVisible() and self.line.text().strip():
            chosen = self.list.offer().does if self.list.currentIndex().isValid() else None
            self.list.show_offers(self._offers(self.line.text()), chosen)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Keys of the line that work the list."""
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            return self._key(event)
        if isinstance(event, QFocusEvent) and event.type() == QEvent.Type.FocusOut:
            self._focus_gone(event.reason())
        return False

    def _key(self, event: QKeyEvent) -> bool:
        steps = {
            Qt.Key.Key_Down: 1,
            Qt.Key.Key_Up: -1,
            Qt.Key.Key_PageDown: _PAGE,
            Qt.Key.Key_PageUp: -_PAGE,
        }
        if event.key() in steps:
            self.list.step(steps[Qt.Key(event.key())])
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.take()
        elif event.key() == Qt.Key.Key_Escape:
            self.leave()
        elif event.key() == Qt.Key.Key_Space and event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self.press()
        elif event.key() in (Qt.Key.Key_Tab, Qt.Key.Key_Backtab):
            self.take()
        else:
            return False
        return True

    def _focus_gone(self, reason: Qt.FocusReason) -> None:
        elsewhere = reason not in (Qt.FocusReason.ActiveWindowFocusReason, Qt.FocusReason.PopupFocusReason)
        now = QApplication.focusWidget()
        if elsewhere and not self._moving and not shielded() and not (now and self.isAncestorOf(now)):
            self.leave()
