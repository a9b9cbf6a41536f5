"""The guarding process: a program of its own, that loads nothing until there is something to let go.

    python -S -E guarding.py ALIVE READY PAGE LEFT DISPLAY [PATH…]

The first three are descriptors: ALIVE is a pipe whose other end the service has, READY one that is written to when
nothing is down any more at the start, and PAGE the memory that says what is down (see `holds.py`). LEFT is what was
there before the service began, in hexadecimal figures: its own comes there while this process is still starting.
DISPLAY is the X server's, and each PATH one where modules are.
"""

import mmap
import os
import sys

__all__ = ["HOME"]

# Written to ALIVE when all is let go; its end without a word says that the service was killed.
HOME, _READY = b".", b"r"


def _let_go(page: int, left: bytes, display: str, path: list[str]) -> None:
    """Let go what was left; where nothing was, there is nothing to load for it."""
    if not any(left):
        return
    sys.path[:] = path
    from nakrel.backends.x11.holds import Left, Page
    from nakrel.backends.x11.release import let_go

    let_go(Page(page), Left(left), display or None)


def main() -> None:
    """Guard, until told to go home."""
    alive, ready, page = map(int, sys.argv[1:4])
    left, display, *path = sys.argv[4:]
    memory = mmap.mmap(page, 0)
    _let_go(page, bytes.fromhex(left), display, path)
    # A service that was killed meanwhile hears nothing any more.
    try:  # noqa: SIM105 - contextlib would be one more module to hold
        os.write(ready, _READY)
    except OSError:
        pass
    os.close(ready)
    if os.read(alive, 1) != HOME:
        _let_go(page, memory[:], display, path)


if __name__ == "__main__":
    main()
