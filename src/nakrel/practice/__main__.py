"""`nakrel-practice`: the practice game's command."""

from __future__ import annotations

import argparse
import ctypes
import sys

from nakrel.language import use
from nakrel.practice.rules import Rules, read_pair

# prctl(2): the name by which programs that run are listed, 15 characters at most.
_PR_SET_NAME = 15
PROCESS_NAME = "nakrel-practice"


def _judge(home: str | None) -> tuple[str, ...]:
    """The command that tells Nakrel of an attempt, without its last word."""
    return (sys.executable, "-m", "nakrel", *(("--home", home) if home else ()), "judge")


def make_parser() -> argparse.ArgumentParser:
    """The options of the practice game."""
    parser = argparse.ArgumentParser(prog=PROCESS_NAME, description="A practice game that shows what a game sees.")
    parser.add_argument("--fps", type=int, default=60, choices=range(1, 1001), metavar="1-1000", help="frames a second")
    parser.add_argument("--log", help="write what arrives and what is seen to this file, a JSON object a line")
    parser.add_argument("--title", default="Practice game", help="the window's title")
    parser.add_argument("--name", default=PROCESS_NAME, help="the process's name, as if it were another game")
    parser.add_argument("--spread", type=float, default=0.0, metavar="MS", help="how much the frame times vary")
    parser.add_argument(
        "--tick", type=float, default=0.0, metavar="N", help="ticks a second of its server: it looks then"
    )
    parser.add_argument("--events", action="store_true", help="it goes by the events' own times, and not by frames")
    parser.add_argument("--hold", type=float, default=0.0, metavar="MS", help="a press counts when it is held so long")
    parser.add_argument("--quiet", type=float, default=0.0, metavar="MS", help="nothing counts so soon after a press")
    parser.add_argument("--pair", metavar="'A B 40 90'", help="B counts only from 40 to 90 ms after A")
    parser.add_argument("--judge", action="store_true", help="tell Nakrel of each attempt whether it worked")
    parser.add_argument("--home", help="where Nakrel keeps everything, if not in the XDG folders")
    return parser


def main(arguments: list[str] | None = None) -> int:
    """Play; returns the exit code."""
    use()
    parser = make_parser()
    chosen = parser.parse_args(arguments)
    try:
        pair = read_pair(chosen.pair) if chosen.pair else None
    except ValueError as error:
        parser.error(str(error))
    rules = Rules(chosen.hold / 1_000, chosen.quiet / 1_000, pair)
    ctypes.CDLL(None).prctl(_PR_SET_NAME, chosen.name.encode(), 0, 0, 0)
    # Qt is loaded only now, so that the process has its name from the first moment.
    from nakrel.practice.window import Game, run

    judge = _judge(chosen.home) if chosen.judge else ()
    game = Game(chosen.fps, chosen.spread / 1_000, chosen.tick, chosen.events, rules, judge)
    return run(game, chosen.log, chosen.title)


if __name__ == "__main__":
    sys.exit(main())
