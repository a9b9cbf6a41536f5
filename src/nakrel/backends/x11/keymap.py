"""The keymap of an X server as libxkbcommon reads it, with every key that was changed since the layout was set.

Both libraries are called directly, as in `typist`; a window under X11 needs them anyway (Qt's xcb platform).
"""

from __future__ import annotations

import contextlib
import ctypes
from collections.abc import Iterator

__all__ = ["keymap_of"]

_POINTER, _SMALL = ctypes.c_void_p, ctypes.c_uint16
_XKB, _TEXT_V1, _LOG_NOTHING = (1, 0), 1, 0


def keymap_of(display: str) -> str:
    """The keymap of all keyboards together, in XKB's text format; '' where nobody can tell."""
    try:
        xcb, common, x11 = _libraries()
    except (OSError, AttributeError):
        return ""
    with _connection(xcb, display) as connection:
        if not connection or x11.xkb_x11_setup_xkb_extension(connection, *_XKB, 0, None, None, None, None) != 1:
            return ""
        context = common.xkb_context_new(0)
        if not context:
            return ""
        common.xkb_context_set_log_level(context, _LOG_NOTHING)
        try:
            device = x11.xkb_x11_get_core_keyboard_device_id(connection)
            keymap = x11.xkb_x11_keymap_new_from_device(context, connection, device, 0) if device >= 0 else None
            return _text(common, keymap) if keymap else ""
        finally:
            common.xkb_context_unref(context)


def _text(common: ctypes.CDLL, keymap: int) -> str:
    text = common.xkb_keymap_get_as_string(keymap, _TEXT_V1)
    try:
        return ctypes.string_at(text).decode("utf-8", "replace") if text else ""
    finally:
        _libc.free(text)
        common.xkb_keymap_unref(keymap)


@contextlib.contextmanager
def _connection(xcb: ctypes.CDLL, display: str) -> Iterator[int | None]:
    connection = xcb.xcb_connect(display.encode(), None)
    try:
        yield None if xcb.xcb_connection_has_error(connection) else connection
    finally:
        xcb.xcb_disconnect(connection)


def _libraries() -> tuple[ctypes.CDLL, ctypes.CDLL, ctypes.CDLL]:
    xcb, common, x11 = map(ctypes.CDLL, ("libxcb.so.1", "libxkbcommon.so.0", "libxkbcommon-x11.so.0"))
    xcb.xcb_connect.restype = _POINTER
    xcb.xcb_connect.argtypes = [ctypes.c_char_p, _POINTER]
    xcb.xcb_connection_has_error.argtypes = xcb.xcb_disconnect.argtypes = [_POINTER]
    common.xkb_context_new.restype = common.xkb_keymap_get_as_string.restype = _POINTER
    common.xkb_context_set_log_level.argtypes = common.xkb_keymap_get_as_string.argtypes = [_POINTER, ctypes.c_int]
    common.xkb_context_unref.argtypes = common.xkb_keymap_unref.argtypes = [_POINTER]
    x11.xkb_x11_setup_xkb_extension.argtypes = [_POINTER, _SMALL, _SMALL, ctypes.c_int, *[_POINTER] * 4]
    x11.xkb_x11_get_core_keyboard_device_id.argtypes = [_POINTER]
    x11.xkb_x11_keymap_new_from_device.restype = _POINTER
    x11.xkb_x11_keymap_new_from_device.argtypes = [_POINTER, _POINTER, ctypes.c_int32, ctypes.c_int]
    return xcb, common, x11


_libc = ctypes.CDLL(None)
_libc.free.argtypes = [_POINTER]
_libc.free.restype = None
