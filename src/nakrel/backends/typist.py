"""Text to keys for a keyboard layout, by libxkbcommon, which desktops interpret keys with.

The library is called directly: its Python package has to be compiled on each machine.
"""

from __future__ import annotations

import ctypes
import ctypes.util
import unicodedata
from collections.abc import Iterable, Sequence

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
# The key that each modifier is held by. LevelThree is on Mod5 in all of xkeyboard-config.
_HELD_BY = {b"Shift": "KEY_LEFTSHIFT", b"Mod5": "KEY_RIGHTALT"}
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
    lib.xkb_keymap_num_levels_for_key.argtypes = [pointer, number, number]
    lib.xkb_keymap_num_levels_for_key.restype = number
    lib.xkb_keymap_key_get_syms_by_level.argtypes = [pointer, number, number, number, ctypes.POINTER(pointer)]
    lib.xkb_keymap_key_get_mods_for_level.argtypes = [
        pointer, number, number, number, ctypes.POINTER(number), ctypes.c_size_t,
    ]  # fmt: skip
    lib.xkb_keymap_key_get_mods_for_level.restype = ctypes.c_size_t
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

    def _read(self, keymap: int) -> None:
        lib = self._lib
        accents = {lib.xkb_keysym_from_name(name, 0): sign for name, sign in _PRINTED.items()}
        bits = {lib.xkb_keymap_mod_get_index(keymap, name): key for name, key in _HELD_BY.items()}
        for code in range(lib.xkb_keymap_min_keycode(keymap), lib.xkb_keymap_max_keycode(keymap) + 1):
            control = by_number(code - _OFFSET)
            if control is None:
                continue
            for level in range(lib.xkb_keymap_num_levels_for_key(keymap, code, 0)):
                held = self._held(keymap, code, level, bits)
                for sym in self._syms(keymap, code, level) if held is not None else ():
                    self._learn(sym, Stroke(control.code, held or ()))
                    self._note(sym, Stroke(control.code, held or ()))
                    if level == 0 and sym in accents:
                        self.legends[control.code] = accents[sym]
        self.legends |= {code: legend for code, own in self._levels.items() if (legend := _legend(own))}

    def _read_with_caps(self, keymap: int) -> None:
        """Learn the ways to type while Caps Lock is on: what each key makes then is asked key by key."""
        lib = self._lib
        self._caps = self._by_sym.get(lib.xkb_keysym_from_name(b"Caps_Lock", 0))
        self._by_sym, self._by_char, self._without = {}, {}, self._by_char
        bits = {key: 1 << lib.xkb_keymap_mod_get_index(keymap, name) for name, key in _HELD_BY.items()}
        lock = 1 << lib.xkb_keymap_mod_get_index(keymap, b"Lock")
        state = lib.xkb_state_new(keymap)
        try:
            for held in ((), *((key,) for key in bits), tuple(bits)):
                lib.xkb_state_update_mask(state, sum(bits[key] for key in held), 0, lock, 0, 0, 0)
                for code in range(lib.xkb_keymap_min_keycode(keymap), lib.xkb_keymap_max_keycode(keymap) + 1):
                    sym = lib.xkb_state_key_get_one_sym(state, code)
                    if sym and (control := by_number(code - _OFFSET)):
                        self._learn(sym, Stroke(control.code, held))
        finally:
            lib.xkb_state_unref(state)

    def _syms(self, keymap: int, code: int, level: int) -> Iterable[int]:
        found = ctypes.c_void_p()
        count = self._lib.xkb_keymap_key_get_syms_by_level(keymap, code, 0, level, ctypes.byref(found))
        # Several symbols on one level type a string; a character is what is looked for here.
        return (ctypes.cast(found, ctypes.POINTER(ctypes.c_uint32))[0],) if count == 1 else ()

    def _held(self, keymap: int, code: int, level: int, bits: dict[int, str]) -> tuple[str, ...] | None:
        """The fewest keys to hold for the level, None where none of ours make it."""
        masks = (ctypes.c_uint32 * 32)()
        count = self._lib.xkb_keymap_key_get_mods_for_level(keymap, code, 0, level, masks, 32)
        found = []
        for mask in masks[:count]:
            held = tuple(key for bit, key in bits.items() if mask >> bit & 1)
            if mask == sum(1 << bit for bit in bits if mask >> bit & 1):
                found.append(held)
        return min(found, key=len, default=None)

    def _note(self, sym: int, stroke: Stroke) -> None:
        number = self._lib.xkb_keysym_to_utf32(sym)
        if number and chr(number).isprintable() and not stroke.control.startswith("KEY_KP"):
            level = ("KEY_LEFTSHIFT" in stroke.held) + 2 * ("KEY_RIGHTALT" in stroke.held)
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


def _legend(made: Sequence[str]) -> str:
    """What is printed for the character that a key makes by itself, '' where it makes none: letters stand there as
    capitals where Shift makes those of them."""
    own, shifted = made[0], made[1]
    # In Turkey an i has a dot as a capital, too.
    capital = shifted.isupper() and (own.upper() == shifted or (own, shifted) == ("i", "İ"))
    return "" if own.isspace() else shifted if capital else own
