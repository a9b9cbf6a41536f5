"""Points in time, as lists show them."""

from __future__ import annotations

import time

from PyQt6.QtCore import QDateTime, QLocale

from nakrel.words import language, tr

__all__ = ["moment"]


def moment(at: float) -> str:
    """When that was (seconds since 1970): the time for today, else with the date before it."""
    when = time.localtime(at)
    clock = time.strftime("%H:%M:%S", when)
    if when[:3] == time.localtime()[:3]:
        return clock
    date = QLocale(language()).toString(QDateTime.fromSecsSinceEpoch(int(at)), tr("d MMM yyyy", "a date"))
    return tr("{date}, {time}").format(date=date, time=clock)
