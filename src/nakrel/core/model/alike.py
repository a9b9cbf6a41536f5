"""What two long rows of things have in common, as before and after an edit."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

__all__ = ["in_common", "shared"]

# They are compared in stretches of at most so many.
_STRETCH = 1024


class _Compared(NamedTuple):
    """What was found of two long ones."""

    old: tuple[object, ...]
    new: tuple[object, ...]
    counts: tuple[int, int]


# Of those that were compared last: for one edit several ask for the same.
_KEPT = 2
_lately: tuple[_Compared, ...] = ()


def shared(old: tuple[object, ...], new: tuple[object, ...]) -> tuple[int, int]:
    """`in_common` of two that others may ask about as well; what was found of long ones is remembered."""
    global _lately
    # Bound to a name, since other threads may put another in its place.
    lately = _lately
    for known in lately:
        if known.old is old and known.new is new:
            return known.counts
    counts = in_common(old, new)
    if len(new) > _STRETCH:
        _lately = (_Compared(old, new, counts), *lately)[:_KEPT]
    return counts


def in_common(old: tuple[object, ...], new: tuple[object, ...]) -> tuple[int, int]:
    """How many are the same at the beginning and, after those, at the end."""
    most = min(len(old), len(new))
    first = _same(most, lambda at, end: old[at:end] == new[at:end])
    size, new_size = len(old), len(new)

    def alike(at: int, end: int) -> bool:
        return old[size - end : size - at] == new[new_size - end : new_size - at]

    return first, _same(most - first, alike)


def _same(most: int, alike: Callable[[int, int], bool]) -> int:
    """How many of the first `most` are the same: `alike` tells it of a stretch. Long stretches first, since comparing
    one takes next to no time."""
    at, stretch = 0, _STRETCH
    while at < most and stretch:
        if alike(at, min(most, at + stretch)):
            at += stretch
        else:
            stretch //= 4
    return min(at, most)
