"""The board: the keys of a keyboard as they lie, a mouse as tiles, each with what it does in the chosen layer."""

from __future__ import annotations

from PyQt6.QtCore import QRect, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QHelpEvent, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QToolTip, QWidget

from nakrel.core.model.board import Board, Place, board_of, neighbour
from nakrel.core.model.controls import CONTROLS, Control, key_of, label
from nakrel.ui.sheet.model import SheetModel
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.theme import colour, hue
from nakrel.ui.widgets import glyphs
from nakrel.ui.widgets.lettering import fitted, width_of, write
from nakrel.words import tr

__all__ = ["BoardView"]

# A usual key at 1280 pixels, and the least that can be read.
_UNIT_PX, _LEAST_PX = 47.0, 30.0
_LEGEND_PX, _WORD_PX = 10.0, 10.5
_SHORT = {
    "KEY_BACKSPACE": tr("Back"),
    "KEY_LEFTSHIFT": tr("Shift"),
    "KEY_RIGHTSHIFT": tr("Shift R"),
    "KEY_LEFTCTRL": tr("Ctrl"),
    "KEY_RIGHTCTRL": tr("Ctrl R"),
    "KEY_LEFTALT": tr("Alt"),
    "KEY_RIGHTALT": tr("Alt R"),
    "KEY_LEFTMETA": tr("Super"),
    "KEY_RIGHTMETA": tr("Super R"),
    "KEY_COMPOSE": tr("Menu"),
    "KEY_CAPSLOCK": tr("Caps"),
    "KEY_SCROLLLOCK": tr("Scroll"),
    "KEY_SYSRQ": tr("Print"),
    "KEY_PAGEUP": tr("PgUp"),
    "KEY_PAGEDOWN": tr("PgDn"),
    "KEY_INSERT": tr("Ins"),
    "KEY_DELETE": tr("Del"),
    "KEY_UP": tr("Up"),
    "KEY_DOWN": tr("Down"),
    "KEY_LEFT": tr("Left"),
    "KEY_RIGHT": tr("Right"),
    "KEY_NUMLOCK": tr("Num"),
    "KEY_KPENTER": tr("Ent"),
    "KEY_KPSLASH": "/",
    "KEY_KPASTERISK": "*",
    "KEY_KPMINUS": "-",
    "KEY_KPPLUS": "+",
    "KEY_KPDOT": ".",
}


class BoardView(QWidget):
    """One key or button is always chosen; `field_wanted` asks for the field at it, with what was typed."""

    field_wanted = pyqtSignal(str)
    cleared = pyqtSignal()
    menu_wanted = pyqtSignal(object)

    def __init__(self, store: Store, shown: Shown, model: SheetModel) -> None:
        super().__init__()
        self._store, self._shown, self._model = store, shown, model
        self.board = Board((), (), 1, 1, "")
        self._controls: tuple[str, ...] = ()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(False)
        self.setAccessibleName(tr("Board"))
        for signal in (model.modelReset, model.dataChanged, shown.control_changed, shown.profile_changed):
            signal.connect(self.refresh)
        store.keyboard.changed.connect(self.update)
        self.refresh()

    def refresh(self) -> None:
        """Show the buttons as they are now."""
        controls = self._model.device_controls()
        if controls != self._controls:
            self._controls = controls
            self.board = board_of(controls)
            self.updateGeometry()
        if self.isVisible():
            self._describe()
            self.update()

    def showEvent(self, event: object) -> None:
        """It is drawn as it is to be now."""
        super().showEvent(event)  # type: ignore[arg-type]
        self.refresh()

    def sizeHint(self) -> QSize:
        """Room for keys of the usual size."""
        return QSize(round(self.board.width * _UNIT_PX), round(self.board.height * _UNIT_PX))

    def minimumSizeHint(self) -> QSize:
        """The keys can be smaller."""
        return QSize(200, 120)

    @property
    def _unit(self) -> float:
        across, down = self.width() / max(1.0, self.board.width), self.height() / max(1.0, self.board.height)
        return max(_LEAST_PX, min(_UNIT_PX, across, down))

    def rect_of(self, place: Place) -> QRectF:
        """Where a key is drawn."""
        unit = self._unit
        return QRectF(place.x * unit, place.y * unit, place.width * unit - 3, place.height * unit - 3)

    def place_of(self, code: str) -> QRect:
        """Where the field goes for a key: beneath its legend."""
        place = next((each for each in self.board.places if each.code == code), None)
        return self.rect_of(place).toRect() if place else QRect(0, 0, 430, 28)

    def at(self, x: float, y: float) -> str:
        """The key at a point, '' for none."""
        return next((place.code for place in self.board.places if self.rect_of(place).contains(x, y)), "")

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw every key."""
        painter = QPainter(self)
        for place in self.board.places:
            self._key(painter, place)

    def _key(self, painter: QPainter, place: Place) -> None:
        area, code = self.rect_of(place), place.code
        glyph, text, _, weak = self._model.shown_in(code, self._shown.layer)
        changed = bool(glyph) and not weak
        pressed = code in self._model.pressed
        matches = self._model.matches(code)
        painter.setOpacity(1.0 if matches else 0.35)
        if pressed:
            painter.fillRect(area, colour("brass"))
        elif changed:
            painter.fillRect(area, colour("field"))
        chosen = code == self._shown.control
        painter.setPen(QPen(colour("brass" if chosen else "soft" if changed else "line"), 2 if chosen else 1))
        painter.drawRect(area.adjusted(0.5, 0.5, -0.5, -0.5))
        if chosen and self.hasFocus():
            painter.setPen(QPen(colour("brass"), 1))
            painter.drawRect(area.adjusted(3, 3, -3, -3))
        ink = colour("on_brass") if pressed else colour("soft")
        painter.setPen(ink)
        inside = area.adjusted(5, 3, -3, -3)
        write(
            painter,
            inside.left(),
            inside.top() + 6,
            fitted(self.legend(code), int(inside.width()), _LEGEND_PX),
            _LEGEND_PX,
        )
        if glyph:
            painter.setPen(colour("on_brass") if pressed else self._ink(glyph, weak))
            self._words(painter, inside, glyph, text)
        painter.setOpacity(1.0)

    def _words(self, painter: QPainter, inside: QRectF, glyph: str, text: str) -> None:
        """What it does, in up to two lines; its glyph where there is room."""
        top = inside.top() + 13
        lines = 2 if inside.height() >= 33 else 1
        wide = inside.width() >= 80
        if wide:
            glyphs.draw(painter, glyph, QRectF(inside.left() - 2, top, 14, 12))
        left = inside.left() + (15 if wide else 0)
        room = int(inside.right() - left)
        for n, line in enumerate(_wrapped(_brief(text), room, lines)):
            write(painter, left, top + 6 + 11 * n, line, _WORD_PX)

    def _ink(self, glyph: str, weak: bool) -> QColor:
        if weak:
            return colour("soft")
        return colour("brass") if glyph in (glyphs.MACRO, glyphs.LAYER, glyphs.GO) else hue(glyph)

    def legend(self, code: str) -> str:
        """What is printed on the key, in the layout in use."""
        key = key_of(code)
        if found := self._store.keyboard.legends.get(key):
            # A digit that comes with Shift is what the key is called by.
            return name if (name := label(key)).isdigit() else found
        known = CONTROLS.get(key)
        return _SHORT.get(key) or (_short(known) if known else key)

    def _describe(self) -> None:
        code = self._shown.control
        text, soft = self._model.shown_in(code, self._shown.layer)[1:3] if code else ("", "")
        chosen = f"{label(code)}: {text}{soft}. " if code else ""
        # The chosen key first, then all that do something.
        does = [
            f"{label(each)}: {found}"
            for each in (place.code for place in self.board.places)
            if each != code and not (shown := self._model.shown_in(each, self._shown.layer))[3] and (found := shown[1])
        ]
        self.setAccessibleDescription(f"{chosen}{'; '.join(does)}")

    # The hand

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Choose the key."""
        if event and (code := self.at(event.position().x(), event.position().y())):
            self._shown.show_control(code, self._shown.layer)
            if event.button() == Qt.MouseButton.RightButton:
                self.menu_wanted.emit(event.globalPosition().toPoint())

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        """Open the field at it."""
        if event and self.at(event.position().x(), event.position().y()):
            self.field_wanted.emit("")

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Arrows move by place, Enter and letters open the field, Delete leaves the key unchanged."""
        if event is None:
            return
        steps = {
            Qt.Key.Key_Left: (-1, 0),
            Qt.Key.Key_Right: (1, 0),
            Qt.Key.Key_Up: (0, -1),
            Qt.Key.Key_Down: (0, 1),
        }
        plain = not event.modifiers() & ~(Qt.KeyboardModifier.ShiftModifier | Qt.KeyboardModifier.KeypadModifier)
        if event.key() in steps and plain:
            there = neighbour(self.board, self._shown.control, *steps[Qt.Key(event.key())])
            self._shown.show_control(there, self._shown.layer)
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.field_wanted.emit("")
        elif event.key() in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace):
            self.cleared.emit()
        elif plain and event.text().isprintable() and event.text().strip():
            self.field_wanted.emit(event.text())
        else:
            super().keyPressEvent(event)

    def event(self, event: object) -> bool:
        """Tell what the key under the pointer does in full."""
        if isinstance(event, QHelpEvent):
            code = self.at(event.pos().x(), event.pos().y())
            text, soft = self._model.shown_in(code, self._shown.layer)[1:3] if code else ("", "")
            QToolTip.showText(event.globalPos(), f"{label(code)}: {text}{soft}" if code else "", self)
            return True
        return super().event(event)  # type: ignore[arg-type]


def _brief(text: str) -> str:
    """What it does without the verb, which the glyph says as well."""
    for verb in (tr("opens "), tr("types "), tr("goes to "), tr("holds "), tr("pointer: ")):
        text = text.removeprefix(verb)
    return text


def _wrapped(text: str, room: int, most: int) -> list[str]:
    """The text in so many lines at most, the last one cut where there is more."""
    lines: list[str] = []
    words = text.split()
    while words and len(lines) < most:
        line = words.pop(0)
        if len(lines) == most - 1:
            line = " ".join([line, *words])
            words = []
        else:
            while words and width_of(f"{line} {words[0]}", _WORD_PX) <= room:
                line += f" {words.pop(0)}"
        lines.append(fitted(line, room, _WORD_PX))
    return lines


def _short(known: Control) -> str:
    """A key of the number pad is called as what stands on it, since it lies there."""
    return known.label.removeprefix("Keypad ") if known.label.startswith("Keypad ") else label(known.code)
