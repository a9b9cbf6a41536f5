"""Places on the screen: where a pointer step goes, given the screens and windows that there are.

Pixels count from the top left one (0, 0), x to the right and y downwards.
"""

from __future__ import annotations

import msgspec

from nakrel.core.model.errors import DataError
from nakrel.core.model.steps import Origin
from nakrel.words import tr

__all__ = ["Monitor", "Window", "place_of"]


class Monitor(msgspec.Struct, frozen=True):
    """A monitor by its output's name, and its place among all of them, in pixels."""

    name: str
    x: int
    y: int
    width: int
    height: int


class Window(msgspec.Struct, frozen=True):
    """The inside of a window on the screen, in pixels, the process it belongs to (0 for unknown), and its title."""

    x: int
    y: int
    width: int
    height: int
    pid: int = 0
    title: str = ""


def place_of(
    x: int,
    y: int,
    origin: Origin,
    size: tuple[int, int] | None,
    screen: tuple[int, int] | None,
    window: Window | None,
) -> tuple[int, int]:
    """The pixel of the screen that a place of a pointer step means now.

    `size` is what it was picked on; where the screen or window has another size, the place is scaled, so that the
    same thing is hit. Raises `DataError` for a place in a window that isn't there.
    """
    if origin is Origin.WINDOW:
        if window is None:
            raise DataError(tr("this place is counted from a window, and no window is in front whose place is known"))
        across, down = _scaled(x, y, size, (window.width, window.height))
        return window.x + across, window.y + down
    return _scaled(x, y, size, screen)


def _scaled(x: int, y: int, picked: tuple[int, int] | None, now: tuple[int, int] | None) -> tuple[int, int]:
    if picked is None or now is None or picked == now:
        return x, y
    return round(x * now[0] / picked[0]), round(y * now[1] / picked[1])
