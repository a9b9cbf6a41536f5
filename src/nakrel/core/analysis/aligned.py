"""Takes of the same thing side by side: aligned by their events, with what differs and how much times vary.

Two takes are aligned by the edit distance of their presses, releases and turns of the wheel in time order (V. I.
Levenshtein, 1966; the matrix is filled as R. A. Wagner and M. J. Fischer did, 1974): the fewest events that are added,
left out or exchanged to make one of the other. All are aligned with the take that is nearest to all others.

This module needs NumPy: the service never loads it.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from nakrel.core.analysis.takes import Aligned, Difference, Gap, event_words, events_of, gaps_of, quantile
from nakrel.core.model.errors import DataError
from nakrel.core.model.takes import Take
from nakrel.words import shown_number, tr

__all__ = ["MOST_EVENTS", "align", "distance", "pairs"]

# Longer takes make a matrix that is too large.
MOST_EVENTS = 3_000
# A gap is an outlier so many times the median deviation from the median (B. Iglewicz, D. C. Hoaglin, How to detect and
# handle outliers, 1993: 3.5, with 1.4826 for a normal distribution), and at least so far from it.
_OUTLIER = 3.5
_NORMAL = 1.4826
_LEAST_OUTLIER_US = 10_000


# Two takes


def _matrix(a: Sequence[object], b: Sequence[object]) -> NDArray[np.int32]:
    """The distance between the first i of `a` and the first j of `b`, for all i and j."""
    numbers = {each: number for number, each in enumerate(dict.fromkeys((*a, *b)))}
    second = np.array([numbers[each] for each in b], dtype=np.int32)
    places = np.arange(len(b) + 1, dtype=np.int32)
    matrix = np.empty((len(a) + 1, len(b) + 1), dtype=np.int32)
    matrix[0] = places
    for row, each in enumerate(a, 1):
        before = matrix[row - 1]
        best = before + 1
        np.minimum(best[1:], before[:-1] + (second != numbers[each]), out=best[1:])
        # From the left, one more for each place: the least of all that stand before, each with its way.
        matrix[row] = np.minimum.accumulate(best - places) + places
    return matrix


def distance(a: Sequence[object], b: Sequence[object]) -> int:
    """How many of `a` are added, left out or exchanged at least to make `b`."""
    return int(_matrix(a, b)[-1, -1])


def pairs(a: Sequence[object], b: Sequence[object]) -> list[tuple[int | None, int | None]]:
    """The places of both that belong together, in order; None where the other one has nothing."""
    matrix = _matrix(a, b)
    i, j = len(a), len(b)
    found: list[tuple[int | None, int | None]] = []
    while i or j:
        here = matrix[i, j]
        if i and j and here == matrix[i - 1, j - 1] + (a[i - 1] != b[j - 1]):
            i, j = i - 1, j - 1
            found.append((i, j))
        elif i and here == matrix[i - 1, j] + 1:
            i -= 1
            found.append((i, None))
        else:
            j -= 1
            found.append((None, j))
    return found[::-1]


# All takes


def align(takes: Sequence[Take]) -> Aligned:
    """Put the takes side by side. Raises `DataError` for fewer than two with events, and for one that is too long."""
    events = {take.number: events_of(take.steps) for take in takes}
    events = {number: found for number, found in events.items() if found}
    if len(events) < 2:
        raise DataError(tr("there are fewer than two takes with presses in them; record the same thing once more"))
    for number, found in events.items():
        if len(found) > MOST_EVENTS:
            raise DataError(
                tr("take {take} has {events} events; takes of up to {most} can be compared").format(
                    take=number, events=shown_number(len(found)), most=shown_number(MOST_EVENTS)
                )
            )
    whats = {number: [each.what for each in found] for number, found in events.items()}
    centre = min(whats, key=lambda number: (sum(distance(whats[number], each) for each in whats.values()), -number))
    times: dict[int, tuple[int | None, ...]] = {}
    differences: list[Difference] = []
    for number, found in events.items():
        at: list[int | None] = [None] * len(events[centre])
        for mine, its in pairs(whats[centre], whats[number]):
            if mine is not None and its is not None and whats[centre][mine] == whats[number][its]:
                at[mine] = found[its].at_us
        times[number] = tuple(at)
        differences += _differences(number, whats[centre], whats[number])
    gaps = tuple(_gap(times, number) for number in range(len(events[centre])))
    return Aligned(centre, tuple(events[centre]), times, gaps, tuple(differences))


def _differences(number: int, wanted: list[tuple[str, int]], found: list[tuple[str, int]]) -> list[Difference]:
    missing: list[int] = []
    more: list[int] = []
    for mine, its in pairs(wanted, found):
        if mine is not None and its is not None and wanted[mine] == found[its]:
            continue
        missing += [mine] if mine is not None else []
        more += [its] if its is not None else []
    told: list[Difference] = []
    for mine in missing:
        moved = next((its for its in more if found[its] == wanted[mine]), None)
        if moved is None:
            told.append(Difference(number, tr("{wanted} is missing").format(wanted=event_words(wanted[mine]))))
        else:
            more.remove(moved)
            told.append(
                Difference(
                    number,
                    (tr("{wanted} comes later") if moved > mine else tr("{wanted} comes earlier")).format(
                        wanted=event_words(wanted[mine])
                    ),
                )
            )
    return told + [
        Difference(number, tr("{found} is there as well").format(found=event_words(found[its]))) for its in more
    ]


def _gap(times: dict[int, tuple[int | None, ...]], number: int) -> Gap:
    if not number:
        return Gap(0, 0)
    takes, found = gaps_of(times, number)
    if not found:
        return Gap(0, 0)
    middle = quantile(found, 0.5)
    low, high = quantile(found, 0.25), quantile(found, 0.75)
    far = max(_OUTLIER * _NORMAL * quantile([abs(us - middle) for us in found], 0.5), _LEAST_OUTLIER_US)
    outliers = tuple(take for take, us in zip(takes, found, strict=True) if abs(us - middle) > far)
    return Gap(round(middle), round(high - low), outliers)
