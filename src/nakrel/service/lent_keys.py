"""Keys that are lent to characters which the layout lacks, for as long as a text is typed."""

from __future__ import annotations

import os
import threading
from collections.abc import Callable
from typing import TYPE_CHECKING

from nakrel.service.options import Options

if TYPE_CHECKING:
    from nakrel.backends.x11.spare import SpareKeys

__all__ = ["LentKeys"]


class LentKeys:
    """May be used from any thread; `can` says whether the route to the programs can make such keys now."""

    def __init__(self, options: Options, can: Callable[[], bool]) -> None:
        self._options, self._can = options, can
        self._lock = threading.Lock()
        self._spare: SpareKeys | None = None

    @property
    def lends(self) -> bool:
        """Whether keys can be had for characters that the layout lacks."""
        return self._can() and not os.environ.get("WAYLAND_DISPLAY")

    def lend(self, chars: str) -> dict[str, str]:
        """Keys for these characters, as far as there are any. Raises `BackendUnavailable`."""
        # What speaks to X takes 7 MB, which a service without an X server spares (so in `routes` and `watches`).
        from nakrel.backends.x11.spare import SpareKeys

        with self._lock:
            if self._spare is None:
                self._spare = SpareKeys(self._options.display)
        return self._spare.lend(chars)

    def reclaim(self) -> None:
        """No text is being typed any more."""
        if self._spare is not None:
            self._spare.take_back()

    def close(self) -> None:
        """Take all back."""
        if self._spare is not None:
            self._spare.close()
