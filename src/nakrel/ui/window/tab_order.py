"""Where Tab goes: through the parts of the window as they stand, whichever was made last.

Qt goes through widgets in the order in which they came into the window, so what is made later would come after the
strip at the foot.
"""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QWidget

__all__ = ["tab_order"]

# What stands beside each other isn't at the same height to the pixel.
_ROW_PX = 8


def tab_order(window: QWidget, parts: Sequence[QWidget], read: QWidget) -> list[QWidget]:
    """What Tab can go to at present: the window's `parts` in their order, what is in none of them after the first.
    Inside a part it goes in the order in which things were made, but in `read`, a column of which much changes, as it
    is read."""
    first, *rest = parts
    found: dict[QWidget | None, list[QWidget]] = {part: [] for part in (first, None, *rest)}
    at = window.nextInFocusChain()
    while at is not None and at is not window:
        if _can_be_reached(at, window):
            found[next((part for part in parts if part.isAncestorOf(at)), None)].append(at)
        at = at.nextInFocusChain()
    found[read] = _as_read(read, found[read])
    return [each for part in found.values() for each in part]


def _can_be_reached(widget: QWidget, window: QWidget) -> bool:
    """As Qt decides it. What has a proxy, as the line of a list that can be typed into, is reached with that."""
    return bool(
        widget.focusPolicy() & Qt.FocusPolicy.TabFocus
        and widget.focusProxy() is None
        and widget.isEnabled()
        and widget.isVisibleTo(window)
        and widget.window() is window
    )


def _as_read(inside: QWidget, widgets: list[QWidget]) -> list[QWidget]:
    """From the top, and each row from the left."""
    spots = {each: each.mapTo(inside, each.rect().center()) for each in widgets}
    rows: list[list[QWidget]] = []
    for each in sorted(widgets, key=lambda each: spots[each].y()):
        if rows and spots[each].y() - spots[rows[-1][0]].y() < _ROW_PX:
            rows[-1].append(each)
        else:
            rows.append([each])
    return [each for row in rows for each in sorted(row, key=lambda each: spots[each].x())]
