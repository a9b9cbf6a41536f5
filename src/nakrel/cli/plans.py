"""What a macro plays, played, and would show a game: plans, exports, the frame check and the last run."""

from __future__ import annotations

import json
from pathlib import Path

import click

from nakrel import protocol as m
from nakrel.cli.completing import macro_names
from nakrel.cli.session import Session, fail, json_option, of_profile, pick, resolved
from nakrel.command_help import Amount
from nakrel.core.analysis.frame_answer import JITTER_US, answer_for, format_seen
from nakrel.core.analysis.seen import IN_ORDER, Game, spread_of_low
from nakrel.core.model.controls import label
from nakrel.core.model.errors import DataError
from nakrel.core.model.limits import MAX_COUNT
from nakrel.core.model.macro import Macro
from nakrel.core.play.simulate import Planned, planned
from nakrel.storage import files
from nakrel.storage.files import StorageError
from nakrel.storage.recordings import WRITERS, left_out, run_csv, run_left_out, run_vcd
from nakrel.words import counted, tr

__all__ = ["export", "frames", "last_run", "plan"]

to_file = click.option(
    "--output", "-o", metavar="FILE", type=click.Path(path_type=Path), help="The file; default: standard output."
)


@click.command()
@click.argument("macro", shell_complete=macro_names)
@click.option("--as", "form", type=click.Choice(sorted(WRITERS)), required=True, help="The format.")
@to_file
@click.option("--runs", metavar="N", type=click.IntRange(1, MAX_COUNT), help="Play so many runs.")
@click.option("--seed", metavar="N", type=int, default=0, show_default=True, help="Random seed.")
@of_profile
@click.pass_obj
def export(
    session: Session, macro: str, form: str, output: Path | None, runs: int | None, seed: int, profile: str | None
) -> None:
    """Write what MACRO plays for other tools: a waveform viewer, a table, evemu-play or libinput replay."""
    found = resolved(session, macro, profile)
    try:
        made = planned(found, found.play, runs, seed)
        text = WRITERS[form](found, made.rows)
        if output is None:
            click.echo(text, nl=False)
        else:
            files.write(output, text.encode())
    except (DataError, StorageError) as error:
        fail(str(error))
    if missing := left_out(form, made.rows):
        click.echo(f"nakrel: {missing}", err=True)
    _tell_end(found, made)


@click.command()
@click.argument("macro", shell_complete=macro_names)
@click.option("--runs", metavar="N", type=click.IntRange(1, MAX_COUNT), help="Play so many runs.")
@click.option("--seed", metavar="N", type=int, default=0, show_default=True, help="Random seed.")
@json_option
@of_profile
@click.pass_obj
def plan(session: Session, macro: str, runs: int | None, seed: int, as_json: bool, profile: str | None) -> None:
    """Print what MACRO will emit, as CSV: time_us, control, value (1 down, 0 up, or notches), words."""
    found = resolved(session, macro, profile)
    try:
        made = planned(found, found.play, runs, seed)
    except DataError as error:
        fail(str(error))
    if as_json:
        click.echo(json.dumps([row._asdict() for row in made.rows]))
    else:
        click.echo(WRITERS["events"](found, made.rows), nl=False)
    _tell_end(found, made)


def _tell_end(macro: Macro, made: Planned) -> None:
    """Say why a plan ended before its last run; where the macro itself is the reason, the program ends with 1."""
    if not made.ended:
        return
    message = counted(
        made.runs,
        "{name} ends early, after {n} complete run: {reason}",
        "{name} ends early, after {n} complete runs: {reason}",
        name=macro.name,
        reason=made.ended,
    )
    if made.failed:
        fail(message)
    click.echo(f"nakrel: {message}", err=True)


@click.command()
@click.argument("macro", shell_complete=macro_names)
@click.option("--rate", type=Amount(10, 1_000), default=60.0, show_default=True, metavar="N", help="Frames a second.")
@click.option(
    "--spread",
    type=Amount(0, 50),
    default=0.0,
    show_default=True,
    metavar="MS",
    help="How much the frame times vary: their standard deviation.",
)
@click.option(
    "--error",
    type=Amount(0, 50),
    default=JITTER_US / 1_000,
    show_default=True,
    metavar="MS",
    help="How much the macro's own timing varies.",
)
@click.option(
    "--low",
    type=Amount(5, 1_000),
    metavar="RATE",
    help="How much the frame times vary, as their 1 % low rate instead.",
)
@click.option("--tick", type=Amount(1, 1_000), metavar="RATE", help="The ticks a second of its server.")
@click.option("--events", is_flag=True, help="The game takes its events in order, without frames.")
@json_option
@of_profile
@click.pass_obj
def frames(
    session: Session,
    macro: str,
    rate: float,
    spread: float,
    error: float,
    low: float | None,
    tick: float | None,
    events: bool,
    as_json: bool,
    profile: str | None,
) -> None:
    """Say how many presses of MACRO a game sees that looks at its input once a frame."""
    found = resolved(session, macro, profile)
    spread_us = spread_of_low(rate, low) if low else spread * 1_000
    game = Game(IN_ORDER if events else rate, error * 1_000, spread_us, tick or 0.0)
    answer = answer_for(found, game, "rate")
    if as_json:
        seen = answer.seen._asdict() if answer.seen else {}
        if events and seen:
            # Without frames there is no rate, and JSON has no word for one without end (RFC 8259).
            seen["fps"] = None
        worst = [each._asdict() for each in answer.worst]
        parts = {"answer": answer.answer, "advice": answer.advice, "order": answer.order, **seen, "worst": worst}
        click.echo(json.dumps(parts, ensure_ascii=False, indent=2, allow_nan=False))
        return
    worst_of = tr("Worst of {button}: step {step}, {seen}")
    lines = [
        worst_of.format(button=label(each.control), step=each.step, seen=format_seen(each.seen))
        for each in answer.worst
    ]
    click.echo("\n".join(filter(None, (answer.answer, answer.advice, *lines, answer.order))))


@click.command(name="last-run")
@click.argument("macro", shell_complete=macro_names)
@click.option("--as", "form", type=click.Choice(["csv", "vcd"]), default="csv", show_default=True, help="The format.")
@to_file
@click.pass_obj
def last_run(session: Session, macro: str, form: str, output: Path | None) -> None:
    """Write what the last run of MACRO really sent, and when, beside what was planned."""
    found = pick(session.library().macros, macro, "macro")
    answer = session.call(m.GetRun(found.id))
    record = answer.record if isinstance(answer, m.RunIs) else None
    if record is None:
        fail(tr("{name} hasn't run since the service started; play it first").format(name=found.name))
    text = run_csv(record) if form == "csv" else run_vcd(found, record)
    if missing := run_left_out(record):
        click.echo(f"nakrel: {missing}", err=True)
    try:
        if output is None:
            click.echo(text, nl=False)
        else:
            files.write(output, text.encode())
    except StorageError as error:
        fail(str(error))
