"""Where the keys of a keyboard lie, and the buttons of a mouse as tiles.

Keys are placed by ISO/IEC 9995-1 (sections, zones and the rows A to F; in row E is the row of digits) with the usual
key of one unit and the widths that common full-size keyboards have (common practice, no published source). Function
keys stand above; the editing and the numeric section stand beneath the alphanumeric one, so that a board is no wider
than that.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping
from typing import NamedTuple

from nakrel.core.model.controls import KNOWN, Kind, key_of
from nakrel.words import tr

__all__ = ["Board", "Place", "board_of", "is_usual", "neighbour"]


class Place(NamedTuple):
    """A key or button at its place, in units of a usual key, from the top left."""

    code: str
    x: float
    y: float
    width: float = 1.0
    height: float = 1.0

    @property
    def middle(self) -> tuple[float, float]:
        """Its middle."""
        return self.x + self.width / 2, self.y + self.height / 2


class Board(NamedTuple):
    """What has a place, what has none and is only listed, how wide and high all is, and what kind it is, in words."""

    places: tuple[Place, ...]
    more: tuple[str, ...]
    width: float
    height: float
    kind: str


# Rows as (code, width); a number alone is a gap.
_Row = tuple[tuple[str, float] | float, ...]


def _keys(names: str, width: float = 1.0) -> tuple[tuple[str, float], ...]:
    return tuple((f"KEY_{name}", width) for name in names.split())


_FUNCTION: _Row = (
    *_keys("ESC"), 0.5, *_keys("F1 F2 F3 F4"), 0.5, *_keys("F5 F6 F7 F8"), 0.5, *_keys("F9 F10 F11 F12"),
)  # fmt: skip
_ROW_E: _Row = (*_keys("GRAVE 1 2 3 4 5 6 7 8 9 0 MINUS EQUAL"), ("KEY_BACKSPACE", 2))
_ROW_D: _Row = (("KEY_TAB", 1.5), *_keys("Q W E R T Y U I O P LEFTBRACE RIGHTBRACE"))
_ROW_C: _Row = (("KEY_CAPSLOCK", 1.75), *_keys("A S D F G H J K L SEMICOLON APOSTROPHE"))
_ROW_B: _Row = (*_keys("Z X C V B N M COMMA DOT SLASH"), ("KEY_RIGHTSHIFT", 2.75))
_ROW_A: _Row = (
    ("KEY_LEFTCTRL", 1.25), ("KEY_LEFTMETA", 1.25), ("KEY_LEFTALT", 1.25), ("KEY_SPACE", 6.25),
    ("KEY_RIGHTALT", 1.25), ("KEY_RIGHTMETA", 1.25), ("KEY_COMPOSE", 1.25), ("KEY_RIGHTCTRL", 1.25),
)  # fmt: skip
# ISO has one key more beside the left shift, and an Enter of two rows; ANSI a wide backslash above a wide Enter.
_ISO: tuple[_Row, ...] = (
    _ROW_E,
    (*_ROW_D, 0.25, ("KEY_ENTER", 1.25)),
    (*_ROW_C, ("KEY_BACKSLASH", 1)),
    (("KEY_LEFTSHIFT", 1.25), ("KEY_102ND", 1), *_ROW_B),
    _ROW_A,
)
_ANSI: tuple[_Row, ...] = (
    _ROW_E,
    (*_ROW_D, ("KEY_BACKSLASH", 1.5)),
    (*_ROW_C, ("KEY_ENTER", 2.25)),
    (("KEY_LEFTSHIFT", 2.25), *_ROW_B),
    _ROW_A,
)
_EDITING: tuple[_Row, ...] = (
    _keys("SYSRQ SCROLLLOCK PAUSE"),
    _keys("INSERT HOME PAGEUP"),
    _keys("DELETE END PAGEDOWN"),
    (1.0, *_keys("UP")),
    _keys("LEFT DOWN RIGHT"),
)
_NUMERIC: tuple[_Row, ...] = (
    _keys("NUMLOCK KPSLASH KPASTERISK KPMINUS"),
    _keys("KP7 KP8 KP9 KPPLUS"),
    _keys("KP4 KP5 KP6"),
    _keys("KP1 KP2 KP3 KPENTER"),
    (("KEY_KP0", 2), ("KEY_KPDOT", 1)),
)
_TALL = {"KEY_KPPLUS": 2.0, "KEY_KPENTER": 2.0}
_GAP = 0.2
_UPPER_F = tuple(f"KEY_F{number}" for number in range(13, 25))
_PLACED = frozenset(
    entry[0] for row in (_FUNCTION, *_ISO, *_EDITING, *_NUMERIC) for entry in row if isinstance(entry, tuple)
)
# Tiles of a mouse: so many in a row, each so wide; its thumb grid has three in a row.
_TILE_WIDTH, _TILES, _GRID = 2.9, 5, 3
_LEAST_GRID = 6
# And a keypad has its ten digits.
_LEAST_KEYPAD = 10


def is_usual(code: str) -> bool:
    """Whether keyboards have it at a place that everybody knows, or have it for macros; others are listed under *more
    keys*."""
    known = KNOWN.get(code)
    return known is None or known.kind is not Kind.KEY or key_of(code) in _PLACED or known.part == "macro"


def board_of(controls: Collection[str]) -> Board:
    """The board of a device with these controls."""
    have = {key_of(code): code for code in controls}
    keys = [code for code in controls if code in KNOWN and KNOWN[code].kind is Kind.KEY]
    others = [code for code in controls if code not in keys and code in KNOWN]
    thumbs = [code for code in others if KNOWN[code].part == "thumb"]
    if len(_PLACED & have.keys()) < 20:
        numeric = () if others else _put(_NUMERIC, have, 0.0, 0.0)
        if len(numeric) < _LEAST_KEYPAD:
            return _tiles(controls)
        placed = {place.code for place in numeric}
        return _whole(list(numeric), tuple(code for code in keys if code not in placed), tr("keypad"))
    if len(thumbs) >= _LEAST_GRID:
        # A mouse with a thumb grid may tell of a whole keyboard, which nobody sees on it.
        return _tiles(others, tuple(keys))
    places: list[Place] = []
    top = 0.0
    for rows in ((_FUNCTION,), _ISO if "KEY_102ND" in have else _ANSI):
        block = _put(rows, have, 0.0, top)
        if block:
            places += block
            top = max(place.y + place.height for place in block) + _GAP
    editing = _put(_EDITING, have, 0.0, top)
    numeric = _put(_NUMERIC, have, 4.2 if editing else 0.0, top)
    places += editing + numeric + _mouse(others, 9.4, top)
    more = tuple(code for code in keys if key_of(code) not in _PLACED)
    size = tr("full size") if numeric and editing else tr("without keypad") if editing else tr("small")
    return _whole(places, more, f"{'ISO' if 'KEY_102ND' in have else 'ANSI'}, {size}")


def _put(rows: tuple[_Row, ...], have: Mapping[str, str], left: float, top: float) -> list[Place]:
    """The keys of these rows that there are, each at its place; `have` tells what each key goes by."""
    found = []
    for number, row in enumerate(rows):
        x = left
        for entry in row:
            if not isinstance(entry, tuple):
                x += entry
                continue
            code, width = entry
            if code in have:
                tall = 2.0 if code == "KEY_ENTER" and width == 1.25 else _TALL.get(code, 1.0)
                found.append(Place(have[code], x, top + number, width, tall))
            x += width
    return found


def _tiles(controls: Collection[str], more: tuple[str, ...] = ()) -> Board:
    """A mouse: its thumb grid, and all other buttons as tiles of one size."""
    known = [code for code in controls if code in KNOWN]
    grid = [code for code in known if KNOWN[code].part == "thumb"]
    if len(grid) < _LEAST_GRID:
        grid = []
    others = [code for code in known if code not in grid]
    places = [
        Place(code, number % _TILES * (_TILE_WIDTH + 0.1), number // _TILES * 1.15, _TILE_WIDTH)
        for number, code in enumerate(others)
    ]
    top = max((place.y + place.height for place in places), default=0.0) + 0.6
    places += [
        Place(code, number % _GRID * (_TILE_WIDTH + 0.1), top + number // _GRID * 1.15, _TILE_WIDTH)
        for number, code in enumerate(grid)
    ]
    return _whole(places, more, tr("mouse") if grid or others else "")


def _mouse(codes: list[str], left: float, top: float) -> list[Place]:
    """Buttons and a wheel that a keyboard has besides, as tiles beside its lower sections."""
    return [Place(code, left + n % 2 * 2.8, top + n // 2 * 1.1, 2.7) for n, code in enumerate(codes[:8])]


def _whole(places: list[Place], more: tuple[str, ...], kind: str) -> Board:
    width = max((place.x + place.width for place in places), default=1.0)
    height = max((place.y + place.height for place in places), default=1.0)
    return Board(tuple(places), more, width, height, kind)


def neighbour(board: Board, code: str, dx: int, dy: int) -> str:
    """The nearest key in a direction (one of dx and dy is 1 or -1, the other 0); the same one where there is none."""
    here = next((place for place in board.places if place.code == code), None)
    if here is None:
        return board.places[0].code if board.places else ""
    x, y = here.middle

    def distance(place: Place) -> float | None:
        across, down = place.middle[0] - x, place.middle[1] - y
        ahead, aside = (across * dx, abs(down)) if dx else (down * dy, abs(across))
        if ahead <= 0.3 or (dx and aside > 0.8):
            return None
        return ahead + 2 * aside

    found = [(d, place.code) for place in board.places if place is not here and (d := distance(place)) is not None]
    return min(found)[1] if found else code
