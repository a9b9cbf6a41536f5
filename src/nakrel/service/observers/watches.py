"""What the desktop is watched by: made, used and closed on the observer's thread."""

from __future__ import annotations

import contextlib
import os
from typing import TYPE_CHECKING

from nakrel.backends.processes import ProcessWatch
from nakrel.backends.protocols import BackendUnavailable, ProgramWatch, WindowWatch
from nakrel.service.observers.desktop import Finders
from nakrel.service.options import Options

if TYPE_CHECKING:
    from nakrel.backends.x11.screens import X11Screens

__all__ = ["finders"]


def finders(options: Options) -> Finders:
    """How programs, windows and screens are watched here."""
    return Finders(_programs, lambda: _windows(options), lambda: _screens(options))


def _programs() -> ProgramWatch:
    return ProcessWatch()


def _windows(options: Options) -> WindowWatch | None:
    """Word of the windows, where a Wayland compositor or an X server tells of them."""
    if options.backend == "stand-in":
        return None
    if os.environ.get("WAYLAND_DISPLAY"):
        from nakrel.backends.wayland.windows import WaylandWindows

        with contextlib.suppress(BackendUnavailable):
            return WaylandWindows()
        from nakrel.backends.wayland.kwin import KWinWindows

        with contextlib.suppress(BackendUnavailable):
            return KWinWindows()
    display = options.display or os.environ.get("DISPLAY")
    if not display:
        return None
    from nakrel.backends.x11.windows import X11Windows

    try:
        return X11Windows(display)
    except BackendUnavailable:
        return None


def _screens(options: Options) -> X11Screens | None:
    """Word of the screens, the pointer and the windows' places, where an X server tells of them truly."""
    display = options.display or os.environ.get("DISPLAY")
    if not display or options.backend == "stand-in" or os.environ.get("WAYLAND_DISPLAY"):
        return None
    from nakrel.backends.x11.screens import X11Screens

    try:
        return X11Screens(display)
    except BackendUnavailable:
        return None
