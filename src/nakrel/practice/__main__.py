"""`nakrel-practice`: the practice game's command."""

from __future__ import annotations

import ctypes
import sys

import click

from nakrel.command_help import Amount, Translated
from nakrel.practice.rules import Rules, read_pair
from nakrel.words import tr

# prctl(2): the name by which programs that run are listed, 15 characters at most.
_PR_SET_NAME = 15
PROCESS_NAME = "nakrel-practice"


def _judge(home: str | None) -> tuple[str, ...]:
    """The command that tells Nakrel of an attempt, without its last word."""
    return (sys.executable, "-m", "nakrel", *(("--home", home) if home else ()), "judge")


@click.command(name=PROCESS_NAME, cls=Translated, context_settings={"help_option_names": ["-h", "--help"]})
@click.option("--fps", type=click.IntRange(1, 1_000), default=60, show_default=True, metavar="N",
              help="Frames a second.")  # fmt: skip
@click.option("--log", metavar="FILE", help="Write what arrives and what is seen to this file, a JSON object a line.")
@click.option("--title", metavar="TEXT", help="The window's title.")
@click.option("--name", metavar="NAME", default=PROCESS_NAME, help="The process's name, as if it were another game.")
@click.option("--spread", type=Amount(0, 60_000), default=0.0, metavar="MS", help="How much the frame times vary.")
@click.option("--tick", type=Amount(0, 60_000), default=0.0, metavar="N",
              help="Ticks a second of its server: it looks then.")  # fmt: skip
@click.option("--events", is_flag=True, help="It goes by the events' own times, and not by frames.")
@click.option("--hold", type=Amount(0, 60_000), default=0.0, metavar="MS",
              help="A press counts when it is held so long.")  # fmt: skip
@click.option("--quiet", type=Amount(0, 60_000), default=0.0, metavar="MS",
              help="Nothing counts so soon after a press.")  # fmt: skip
@click.option("--pair", metavar="'A B 40 90'", help="B counts only from 40 to 90 ms after A.")
@click.option("--judge", is_flag=True, help="Tell Nakrel of each attempt whether it worked.")
@click.option("--home", metavar="DIR", help="Where Nakrel keeps everything, if not in the XDG folders.")
def main(
    fps: int, log: str | None, title: str | None, name: str, spread: float, tick: float, events: bool, hold: float,
    quiet: float, pair: str | None, judge: bool, home: str | None,
) -> None:  # fmt: skip
    """A practice game that shows what a game sees of your presses."""
    try:
        found = read_pair(pair) if pair else None
    except ValueError as error:
        raise click.UsageError(str(error)) from None
    rules = Rules(hold / 1_000, quiet / 1_000, found)
    ctypes.CDLL(None).prctl(_PR_SET_NAME, name.encode(), 0, 0, 0)
    # Qt is loaded only now, so that the process has its name from the first moment.
    from nakrel.practice.window import Game, run

    game = Game(fps, spread / 1_000, tick, events, rules, _judge(home) if judge else ())
    sys.exit(run(game, log, title or tr("Practice game")))


if __name__ == "__main__":
    main()
