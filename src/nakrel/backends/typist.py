"""Text to keys for a keyboard layout, by libxkbcommon, which desktops interpret keys with.

The library is called directly: its Python package has to be compiled on each machine.
"""

from __future__ import annotations

import ctypes
import ctypes.util
import itertools
import unicodedata
from collections.abc import Iterable, Iterator, Sequence

from nakrel.backends.layout import Layout
from nakrel.backends.protocols import BackendUnavailable
from nakrel.core.model.controls import Levels, by_number
from nakrel.core.play.acts import Stroke
from nakrel.words import tr

__all__ = ["Typist"]

# XKB key codes are evdev's plus eight (X11's lowest key code).
_OFFSET = 8
# Combining characters and the dead key that makes each (X11/keysymdef.h).
_DEAD = {
    "\u0300": b"dead_grave",
    "\u0301": b"dead_acute",
    "\u0302": b"dead_circumflex",
    "\u0303": b"dead_tilde",
    "\u0304": b"dead_macron",
    "\u0306": b"dead_breve",
    "\u0307": b"dead_abovedot",
    "\u0308": b"dead_diaeresis",
    "\u030a": b"dead_abovering",
    "\u030b": b"dead_doubleacute",
    "\u030c": b"dead_caron",
    "\u0327": b"dead_cedilla",
    "\u0328": b"dead_ogonek",
}
# What a dead key makes with the space bar: the accent by itself.
_ALONE = {"`": "\u0300", "´": "\u0301", "^": "\u0302", "~": "\u0303", "¨": "\u0308", "°": "\u030a", "¸": "\u0327"}
# What is on the keys that choose among a key's characters (X11/keysymdef.h).
_SHIFTS, _THIRDS, _FIFTHS = (b"Shift_L", b"Shift_R"), (b"ISO_Level3_Shift",), (b"ISO_Level5_Shift",)
# Which modifiers are down by keys that are held, which until the next key, and which until the same key again.
_DEPRESSED, _LATCHED, _LOCKED = 1 << 0, 1 << 1, 1 << 2
# What is printed on the dead keys: the accents by themselves.
_PRINTED = {
    b"dead_grave": "`", b"dead_acute": "´", b"dead_circumflex": "^", b"dead_tilde": "~", b"dead_macron": "¯",
    b"dead_breve": "˘", b"dead_abovedot": "˙", b"dead_diaeresis": "¨", b"dead_abovering": "°",
    b"dead_doubleacute": "˝", b"dead_caron": "ˇ", b"dead_cedilla": "¸", b"dead_ogonek": "˛",
}  # fmt: skip
# What goes wrong is told by us; the library would write to our output.
_LOG_NOTHING = 0
_TEXT_V1 = 1
_SPECIAL = {"\n": "\r"}
_DOWN = 1


class _Names(ctypes.Structure):
    _fields_ = [(name, ctypes.c_char_p) for name in ("rules", "model", "layout", "variant", "options")]  # noqa: RUF012


def _library() -> ctypes.CDLL:
    try:
        lib = ctypes.CDLL("libxkbcommon.so.0")
    except OSError:
        raise BackendUnavailable(
            tr("libxkbcommon is missing, which knows the layouts; install libxkbcommon0")
        ) from None
    pointer, number = ctypes.c_void_p, ctypes.c_uint32
    lib.xkb_context_new.restype = pointer
    lib.xkb_keymap_new_from_names.restype = pointer
    lib.xkb_keymap_new_from_names.argtypes = [pointer, ctypes.POINTER(_Names), ctypes.c_int]
    lib.xkb_keymap_new_from_string.restype = pointer
    lib.xkb_keymap_new_from_string.argtypes = [pointer, ctypes.c_char_p, ctypes.c_int, ctypes.c_int]
    for name in ("xkb_keymap_min_keycode", "xkb_keymap_max_keycode"):
        getattr(lib, name).argtypes = [pointer]
        getattr(lib, name).restype = number
    lib.xkb_keymap_mod_get_index.argtypes = [pointer, ctypes.c_char_p]
    lib.xkb_keymap_mod_get_index.restype = number
    lib.xkb_keysym_to_utf32.argtypes = [number]
    lib.xkb_keysym_to_utf32.restype = number
    lib.xkb_keysym_from_name.argtypes = [ctypes.c_char_p, ctypes.c_int]
    lib.xkb_keysym_from_name.restype = number
    lib.xkb_state_new.restype = pointer
    lib.xkb_state_new.argtypes = [pointer]
    lib.xkb_state_update_mask.argtypes = [pointer, *[number] * 6]
    lib.xkb_state_key_get_one_sym.argtypes = [pointer, number]
    lib.xkb_state_key_get_one_sym.restype = number
    lib.xkb_state_update_key.argtypes = [pointer, number, ctypes.c_int]
    lib.xkb_state_serialize_mods.argtypes = [pointer, ctypes.c_int]
    lib.xkb_state_serialize_mods.restype = number
    lib.xkb_state_unref.argtypes = [pointer]
    lib.xkb_keymap_unref.argtypes = [pointer]
    lib.xkb_context_unref.argtypes = [pointer]
    lib.xkb_context_set_log_level.argtypes = [pointer, ctypes.c_int]
    return lib


class Typist:
    """Knows which keys make which characters. Raises `BackendUnavailable` for a layout that nobody knows."""

    def __init__(self, layout: Layout) -> None:
        self.layout = layout
        self._by_sym: dict[int, Stroke] = {}
        self._by_char: dict[str, Stroke] = {}
        # Where Caps Lock is on: its key, and how characters are typed once it is off.
        self._caps: Stroke | None = None
        self._without: dict[str, Stroke] = {}
        # What is printed on each key for what it makes by itself.
        self.legends: dict[str, str] = {}
        # What each makes by itself, with Shift, with AltGr, and with both.
        self._levels: dict[str, list[str]] = {}
        # The key that holds each modifier which chooses among a key's characters, by the modifier's bit.
        self._holders: dict[int, str] = {}
        self._shift = self._third = ""
        self._lib = lib = _library()
        names = _Names(None, None, *(part.encode() for part in (layout.layout, layout.variant, layout.options)))
        context = lib.xkb_context_new(0)
        lib.xkb_context_set_log_level(context, _LOG_NOTHING)
        try:
            if not context:
                keymap = None
            elif layout.keymap:
                keymap = lib.xkb_keymap_new_from_string(context, layout.keymap.encode(), _TEXT_V1, 0)
            else:
                keymap = lib.xkb_keymap_new_from_names(context, ctypes.byref(names), 0)
            if not keymap:
                shown = f"{layout.layout}:{layout.variant}" if layout.variant else layout.layout
                raise BackendUnavailable(
                    tr("there is no keyboard layout {shown!r} (from {source}); set another in the settings").format(
                        shown=shown, source=layout.source
                    )
                )
            try:
                self._find_holders(keymap)
                self._read(keymap)
                if layout.caps:
                    self._read_with_caps(keymap)
            finally:
                lib.xkb_keymap_unref(keymap)
        finally:
            lib.xkb_context_unref(context)

    @property
    def levels(self) -> dict[str, Levels]:
        """The characters of each key, as far as it has any."""
        return {code: (own[0], own[1], own[2], own[3]) for code, own in self._levels.items()}

    def strokes(self, text: str) -> tuple[list[Stroke], str]:
        """The keys that type the text, and the characters of it that this layout has no keys for."""
        found: list[Stroke] = []
        missing = ""
        for char in unicodedata.normalize("NFC", text):
            keys = self._keys(char)
            if not keys and char not in missing:
                missing += char
            found += keys
        return found, missing

    def _keys(self, char: str) -> list[Stroke]:
        if stroke := self._by_char.get(_SPECIAL.get(char, char)):
            return [stroke]
        parts = f" {_ALONE[char]}" if char in _ALONE else unicodedata.normalize("NFD", char)
        if len(parts) == 2 and parts[1] in _DEAD:
            dead = self._by_sym.get(self._lib.xkb_keysym_from_name(_DEAD[parts[1]], 0))
            base = self._by_char.get(parts[0])
            if dead and base:
                return [dead, base]
        if self._caps and (stroke := self._without.get(char)):
            return [self._caps, stroke, self._caps]
        return []

    def _find_holders(self, keymap: int) -> None:
        """Find the keys that hold the modifiers: the third level is held by right Alt in most layouts, by Caps Lock in
        some, by none in others, and people choose yet another."""
        lib = self._lib
        signs = {lib.xkb_keysym_from_name(name, 0): kind for kind in (_SHIFTS, _THIRDS, _FIFTHS) for name in kind}
        for code in range(lib.xkb_keymap_min_keycode(keymap), lib.xkb_keymap_max_keycode(keymap) + 1):
            control = by_number(code - _OFFSET)
            state = lib.xkb_state_new(keymap) if control else None
            if not control or not state:
                continue
            lib.xkb_state_update_mask(state, 0, 0, 0, 0, 0, self.layout.group)
            kind = signs.get(lib.xkb_state_key_get_one_sym(state, code))
            if kind:
                lib.xkb_state_update_key(state, code, _DOWN)
                held = lib.xkb_state_serialize_mods(state, _DEPRESSED)
                stays = lib.xkb_state_serialize_mods(state, _LATCHED | _LOCKED)
                if held and not held & held - 1 and not stays and held not in self._holders:
                    self._holders[held] = control.code
                    self._shift = self._shift or (control.code if kind is _SHIFTS else "")
                    self._third = self._third or (control.code if kind is _THIRDS else "")
            lib.xkb_state_unref(state)

    def _read(self, keymap: int) -> None:
        accents = {self._lib.xkb_keysym_from_name(name, 0): sign for name, sign in _PRINTED.items()}
        for sym, stroke in self._made(keymap, 0):
            self._learn(sym, stroke)
            self._note(sym, stroke)
            if not stroke.held and sym in accents:
                self.legends[stroke.control] = accents[sym]
        self.legends |= {code: legend for code, own in self._levels.items() if (legend := _legend(own))}

    def _read_with_caps(self, keymap: int) -> None:
        """Learn the ways to type while Caps Lock is on."""
        self._caps = self._by_sym.get(self._lib.xkb_keysym_from_name(b"Caps_Lock", 0))
        self._by_sym, self._by_char, self._without = {}, {}, self._by_char
        for sym, stroke in self._made(keymap, 1 << self._lib.xkb_keymap_mod_get_index(keymap, b"Lock")):
            self._learn(sym, stroke)

    def _made(self, keymap: int, locked: int) -> Iterator[tuple[int, Stroke]]:
        """What each key makes with each choice of modifiers held, and these locked: key by key, as programs find out.
        (To ask with which modifiers a key makes a character has answers that other modifiers are before.)"""
        lib = self._lib
        state = lib.xkb_state_new(keymap)
        try:
            for mods in _some_of(self._holders):
                held = tuple(self._holders[each] for each in mods)
                lib.xkb_state_update_mask(state, sum(mods), 0, locked, 0, 0, self.layout.group)
                for code in range(lib.xkb_keymap_min_keycode(keymap), lib.xkb_keymap_max_keycode(keymap) + 1):
                    sym = lib.xkb_state_key_get_one_sym(state, code)
                    # A key that holds one of them makes nothing.
                    if sym and (control := by_number(code - _OFFSET)) and control.code not in held:
                        yield sym, Stroke(control.code, held)
        finally:
            lib.xkb_state_unref(state)

    def _note(self, sym: int, stroke: Stroke) -> None:
        number = self._lib.xkb_keysym_to_utf32(sym)
        known = {self._shift, self._third}.issuperset(stroke.held)
        if number and known and chr(number).isprintable() and not stroke.control.startswith("KEY_KP"):
            level = (self._shift in stroke.held) + 2 * (self._third in stroke.held)
            self._levels.setdefault(stroke.control, [""] * 4)[level] = chr(number)

    def _learn(self, sym: int, stroke: Stroke) -> None:
        """Keep the way with the fewest keys held; of two, the one that comes first."""
        known = self._by_sym.get(sym)
        if known is None or len(stroke.held) < len(known.held):
            self._by_sym[sym] = stroke
        number = self._lib.xkb_keysym_to_utf32(sym)
        # The keypad's characters come with Num Lock only.
        if number and not stroke.control.startswith("KEY_KP"):
            char = chr(number)
            best = self._by_char.get(char)
            if best is None or len(stroke.held) < len(best.held):
                self._by_char[char] = stroke


def _some_of(mods: Iterable[int]) -> Iterator[tuple[int, ...]]:
    """All choices of them, the small ones first."""
    known = list(mods)
    return itertools.chain.from_iterable(itertools.combinations(known, count) for count in range(len(known) + 1))


def _legend(made: Sequence[str]) -> str:
    """What is printed for the character that a key makes by itself, '' where it makes none: letters stand there as
    capitals where Shift makes those of them."""
    own, shifted = made[0], made[1]
    # In Turkey an i has a dot as a capital, too.
    capital = shifted.isupper() and (own.upper() == shifted or (own, shifted) == ("i", "İ"))
    return "" if own.isspace() else shifted if capital else own
