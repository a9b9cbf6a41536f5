"""How a macro on trial did, told by a game or a script."""

from __future__ import annotations

import click

from nakrel import protocol as m
from nakrel.cli.session import Session

__all__ = ["judge"]


@click.command()
@click.argument("verdict", type=click.Choice(["worked", "failed"]))
@click.pass_obj
def judge(session: Session, verdict: str) -> None:
    """Say whether what the macro on trial just did worked in the game; see Tune on the macro's page."""
    session.call(m.Judge(verdict == "worked"))
