"""`nakrel-practice`: the practice game's command."""

from __future__ import annotations

import argparse
import ctypes
import sys

# prctl(2): the name by which programs that run are listed, 15 characters at most.
_PR_SET_NAME = 15
PROCESS_NAME = "nakrel-practice"


def main(arguments: list[str] | None = None) -> int:
    """Play; returns the exit code."""
    parser = argparse.ArgumentParser(prog=PROCESS_NAME, description="A practice game that shows what a game sees.")
    parser.add_argument("--fps", type=int, default=60, choices=range(1, 1001), metavar="1-1000", help="frames a second")
    parser.add_argument("--log", help="write what arrives and what is seen to this file, a JSON object a line")
    parser.add_argument("--title", default="Practice game", help="the window's title")
    parser.add_argument("--name", default=PROCESS_NAME, help="the process's name, as if it were another game")
    chosen = parser.parse_args(arguments)
    ctypes.CDLL(None).prctl(_PR_SET_NAME, chosen.name.encode(), 0, 0, 0)
    # Qt is loaded only now, so that the process has its name from the first moment.
    from nakrel.practice.window import run

    return run(chosen.fps, chosen.log, chosen.title)


if __name__ == "__main__":
    sys.exit(main())
