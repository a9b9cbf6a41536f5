"""`nakrel`: the command line for scripts, shortcuts and people who like to type."""

from __future__ import annotations

import copy
import json
import shlex
import sys
from pathlib import Path
from typing import Any, NoReturn, TypeVar

import click
import msgspec

import nakrel
from nakrel import protocol as m
from nakrel.cli.doctor import examine, mend
from nakrel.client.connection import ClientError, ServiceConnection, ServiceGone
from nakrel.client.ids import new_id
from nakrel.client.launch import ensure_service
from nakrel.core.edit.bundle import Clash, bundle_of, look_through, merge, visible
from nakrel.core.model.cells import GoTo, What
from nakrel.core.model.controls import CONTROLS, label
from nakrel.core.model.errors import DataError
from nakrel.core.model.game_keys import named_in, resolve
from nakrel.core.model.limits import MAX_COUNT
from nakrel.core.model.macro import Macro, cycle_us, describe_play
from nakrel.core.model.names import name_of
from nakrel.core.model.profile import Profile
from nakrel.core.model.programs import describe_rule
from nakrel.core.model.units import format_rate
from nakrel.core.play.live import next_setup
from nakrel.core.play.simulate import Planned, planned
from nakrel.demo.seed import seed
from nakrel.service import BACKENDS
from nakrel.storage import files
from nakrel.storage.bundles import read_bundle, write_bundle
from nakrel.storage.files import StorageError
from nakrel.storage.home import Home
from nakrel.storage.library import Library
from nakrel.storage.recordings import WRITERS, left_out, read_recording, run_csv, run_left_out, run_vcd

__all__ = ["main"]

T = TypeVar("T", Profile, Macro)


class Session:
    """What every command shares: where the data lies, and the service there."""

    def __init__(self, home: str | None) -> None:
        self.folder = home
        self.home = Home.find(home)

    def library(self) -> Library:
        """The stored profiles and macros, read only; what is damaged is reported and left alone."""
        library = Library(self.home, read_only=True)
        library.load()
        for fault in library.faults:
            click.echo(f"nakrel: {fault}", err=True)
        return library

    def call(self, body: m.Body) -> m.AnswerBody:
        """Ask the service, starting it when there is none; ends the program with a message where it refuses."""
        try:
            connection = ensure_service(self.home.socket, self.folder, "nakrel")
            try:
                return connection.call(body)
            finally:
                connection.close()
        except ClientError as error:
            _fail(str(error))


def _fail(message: str) -> NoReturn:
    click.echo(f"nakrel: {message}", err=True)
    sys.exit(1)


def _pick(items: dict[str, T], text: str, what: str) -> T:
    """The item with this id or name; ends the program with the names there are where none or several fit."""
    if text in items:
        return items[text]
    fits = [item for item in items.values() if item.name.casefold() == text.casefold()]
    if len(fits) == 1:
        return fits[0]
    if fits:
        _fail(f"{len(fits)} {what}s are called {text!r}; name one by its id: {', '.join(i.id for i in fits)}")
    _fail(f"there is no {what} {text!r}; there are: {', '.join(sorted(i.name for i in items.values())) or 'none'}")


def _print(rows: list[dict[str, Any]], as_json: bool, line: str) -> None:
    if as_json:
        click.echo(json.dumps(rows, ensure_ascii=False, indent=2))
    else:
        for row in rows:
            click.echo(line.format(**row))


def _resolved(session: Session, name: str, profile: str | None) -> Macro:
    """The macro with a profile's keys for the game keys that it names."""
    library = session.library()
    macro = _pick(library.macros, name, "macro")
    if not profile:
        if named := named_in(macro):
            _fail(f"{macro.name} names game keys ({', '.join(map(label, named))}); say whose with --profile")
        return macro
    chosen = _pick(library.profiles, profile, "profile")
    try:
        return resolve(macro, chosen.key_table(), chosen.name)
    except DataError as error:
        _fail(str(error))


_profile = click.option("--profile", metavar="NAME", help="Profile whose game keys count.")
_json = click.option("--json", "as_json", is_flag=True, help="Print JSON.")


class _Commands(click.Group):
    """What somebody typed that can't be ends every command with the reason, before anything is sent."""

    def invoke(self, ctx: click.Context) -> object:
        """Run the command."""
        try:
            return super().invoke(ctx)
        except DataError as error:
            _fail(str(error))


@click.group(cls=_Commands, invoke_without_command=True)
@click.version_option(nakrel.__version__)
@click.option("--home", metavar="DIR", help="Keep everything in this folder instead of the XDG folders.")
@click.pass_context
def main(context: click.Context, home: str | None) -> None:
    """Record, time and attach macros, per game. Without a command, open the window."""
    context.obj = Session(home)
    if context.invoked_subcommand is None:
        context.invoke(window)


@main.command()
@click.option("--demo", is_flag=True, help="Fill an empty home with the demo's data first.")
@click.pass_obj
def window(session: Session, demo: bool = False) -> None:
    """Open the window."""
    if demo:
        seed(session.home)
    from nakrel.ui.app import run

    sys.exit(run(session.folder))


@main.command()
@click.option(
    "--backend", type=click.Choice(BACKENDS), default="auto", show_default=True, help="How programs are reached."
)
@click.pass_obj
def service(session: Session, backend: str) -> None:
    """Run the service here, until it is told to end."""
    from nakrel.service.start import serve

    sys.exit(serve(session.folder, backend))


@main.command()
@click.argument("macro")
@click.option("--as", "form", type=click.Choice(sorted(WRITERS)), required=True, help="The format.")
@click.option("--output", "-o", type=click.Path(path_type=Path), help="The file; default: standard output.")
@click.option("--runs", type=click.IntRange(1, MAX_COUNT), help="Play so many runs.")
@click.option("--seed", type=int, default=0, show_default=True, help="Random seed.")
@_profile
@click.pass_obj
def export(
    session: Session, macro: str, form: str, output: Path | None, runs: int | None, seed: int, profile: str | None
) -> None:
    """Write what MACRO plays for other tools: a waveform viewer, a table, evemu-play or libinput replay."""
    found = _resolved(session, macro, profile)
    try:
        made = planned(found, found.play, runs, seed)
        text = WRITERS[form](found, made.rows)
        if output is None:
            click.echo(text, nl=False)
        else:
            files.write(output, text.encode())
    except (DataError, StorageError) as error:
        _fail(str(error))
    if missing := left_out(form, made.rows):
        click.echo(f"nakrel: {missing}", err=True)
    _tell_end(found, made)


@main.command(name="import")
@click.argument("recording", type=click.Path(path_type=Path))
@click.option("--name", help="The macro's name; default: the file's.")
@click.pass_obj
def import_(session: Session, recording: Path, name: str | None) -> None:
    """Make a macro of a RECORDING by evemu-record or libinput record, or of a table of events."""
    try:
        steps = read_recording(recording)
    except DataError as error:
        _fail(str(error))
    macro = Macro(id=new_id(), name=name or recording.stem, loop=tuple(steps))
    session.call(m.PutMacro(macro))
    click.echo(f"{macro.name}: {len(steps)} steps")


@main.command()
@click.argument("profiles", nargs=-1, required=True)
@click.option("--output", "-o", type=click.Path(path_type=Path), required=True, help="The file.")
@click.pass_obj
def bundle(session: Session, profiles: tuple[str, ...], output: Path) -> None:
    """Write PROFILES with all their macros to one file that can be shared."""
    library = session.library()
    chosen = tuple(_pick(library.profiles, name, "profile") for name in profiles)
    made = bundle_of(chosen, library.macros)
    try:
        write_bundle(output, made)
    except StorageError as error:
        _fail(str(error))
    click.echo(f"{output}: {len(made.profiles)} profiles, {len(made.macros)} macros")


@main.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option("--take", is_flag=True, help="Import it; without this only what is inside is shown.")
@click.option("--clash", type=click.Choice([each.value for each in Clash]), default="keep", show_default=True,
              help="If it exists already.")  # fmt: skip
@click.option("--allow", multiple=True, metavar="COMMAND", help="Allow steps that open this; the others stay off.")
@click.option("--live", is_flag=True, help="Let its profiles go live with their programs; without it they wait.")
@click.pass_obj
def unpack(session: Session, file: Path, take: bool, clash: str, allow: tuple[str, ...], live: bool) -> None:
    """Tell what is inside a bundle FILE, and with --take bring it in."""
    library = session.library()
    try:
        found = read_bundle(file)
    except StorageError as error:
        _fail(str(error))
    inside = look_through(found, library.profiles, library.macros)
    for head, lines in (
        ("profiles", inside.profiles),
        ("macros", inside.macros),
        ("linked to", inside.programs),
        ("opens (off until allowed)", [f"{each.where}: {visible(shlex.join(each.command))}" for each in inside.opens]),
        ("types", [f"{macro}: {text}" for macro, text in inside.types]),
        ("runs until stopped", [f"{macro} {reason}" for macro, reason in inside.unattended]),
        ("controls the desktop", [f"{where} {what}" for where, what in inside.desktop]),
        ("exists already", inside.clashes),
    ):
        if lines:
            click.echo(f"{head}:")
            for line in lines:
                click.echo(f"  {line}")
    if not take:
        click.echo("Nothing imported; add --take.")
        return
    allowed = {tuple(shlex.split(command)) for command in allow}
    lives = [profile.id for profile in found.profiles] if live else []
    merged = merge(found, library.profiles, library.macros, Clash(clash), new_id, allowed, lives)
    for macro in merged.macros:
        session.call(m.PutMacro(macro))
    for profile in merged.profiles:
        session.call(m.PutProfile(profile))
    click.echo(f"imported: {len(merged.profiles)} profiles, {len(merged.macros)} macros")


@main.command()
@click.option("--fix", is_flag=True, help="Show, then install what gives you access to the devices.")
@click.option("--yes", is_flag=True, help="With --fix: don't ask.")
@_json
@click.pass_obj
def doctor(session: Session, fix: bool, yes: bool, as_json: bool) -> None:
    """Examine what stands between your fingers and the programs, and say what to do about it."""
    sys.exit(mend(session.home, yes) if fix else examine(session.home, as_json))


@main.command()
@click.pass_obj
def shutdown(session: Session) -> None:
    """End the service that runs."""
    try:
        ServiceConnection.connect(session.home.socket, "nakrel").call(m.Shutdown())
    except ServiceGone:
        click.echo("No service runs.")


@main.command()
@_json
@click.pass_obj
def profiles(session: Session, as_json: bool) -> None:
    """List the profiles."""
    found = sorted(session.library().profiles.values(), key=lambda p: p.name.casefold())
    rows = [{"id": p.id, "name": p.name, "programs": ", ".join(describe_rule(r) for r in p.programs)} for p in found]
    _print(rows, as_json, "{name:32} {programs}")


@main.command()
@_json
@click.argument("part", required=False, default="")
def controls(part: str, as_json: bool) -> None:
    """List the names of keys and buttons, with their codes; with PART those that have it in them."""
    rows = [
        {"name": name_of(code), "code": code, "part": known.part}
        for code, known in CONTROLS.items()
        if part.casefold() in f"{name_of(code)} {code}".casefold()
    ]
    _print(rows, as_json, "{name:24} {code:24} {part}")


@main.command()
@_json
@click.pass_obj
def macros(session: Session, as_json: bool) -> None:
    """List the macros."""
    found = sorted(session.library().macros.values(), key=lambda p: p.name.casefold())
    rows = [
        {
            "id": x.id,
            "name": x.name,
            "plays": describe_play(x.play),
            "rate": format_rate(cycle_us(x, x.play)),
            "steps": len(x.lead_in) + len(x.loop) + len(x.lead_out),
        }
        for x in found
    ]
    _print(rows, as_json, "{name:32} {plays:12} {rate:>10}  {steps} steps")


@main.command()
@_json
@click.pass_obj
def live(session: Session, as_json: bool) -> None:
    """Say which profile is live, why, and what runs."""
    answer = session.call(m.GetStatus())
    assert isinstance(answer, m.StatusIs)
    status = answer.status
    if as_json:
        click.echo(msgspec.json.format(msgspec.json.encode(status), indent=2).decode())
        return
    known = session.library().profiles.get(status.live)
    click.echo(f"{known.name if known else status.live} is live: {status.reason}")
    for run in status.running:
        click.echo(f"  running: {run.name}")


@main.command()
@click.argument("profile")
@click.pass_obj
def pin(session: Session, profile: str) -> None:
    """Keep PROFILE live until `unpin`."""
    session.call(m.Pin(_pick(session.library().profiles, profile, "profile").id))


@main.command()
@click.argument("name", required=False)
@click.option("--profile", metavar="NAME", help="Of this profile; default: the live one.")
@click.option("--next", "by", flag_value=1, type=int, help="The next one; wraps around.")
@click.option("--previous", "by", flag_value=-1, type=int, help="The one before.")
@click.pass_obj
def variant(session: Session, name: str | None, profile: str | None, by: int | None) -> None:
    """Switch to the variant NAME; without a name list them."""
    library, status = session.library(), session.call(m.GetStatus())
    assert isinstance(status, m.StatusIs)
    key = _pick(library.profiles, profile, "profile").id if profile else status.status.live
    chosen = library.profiles[key]
    now = chosen.setup(status.status.setups.get(key, "")).name
    if not name and not by:
        for each in chosen.setups:
            click.echo(f"{'*' if each.name == now else ' '} {each.name}")
        return
    wanted = name or next_setup(chosen, now, GoTo(What.SETUP, by=1 if by == 1 else -1))
    fits = [each.name for each in chosen.setups if each.name.casefold() == wanted.casefold()]
    session.call(m.UseSetUp(key, fits[0] if fits else wanted))
    click.echo(f"{chosen.name} plays as {fits[0] if fits else wanted}")


@main.command()
@click.argument("stage", required=False)
@click.option("--next", "by", flag_value=1, type=int, help="The next one; wraps around.")
@click.option("--previous", "by", flag_value=-1, type=int, help="The one before.")
@click.pass_obj
def speed(session: Session, stage: str | None, by: int | None) -> None:
    """Give the pointer the live profile's speed STAGE; without a name tell which there are."""
    status = session.call(m.GetStatus())
    assert isinstance(status, m.StatusIs)
    profile = session.library().profiles[status.status.live]
    if stage or by:
        fits = [each.name for each in profile.pointer.stages if stage and each.name.casefold() == stage.casefold()]
        session.call(m.UseStage(fits[0] if fits else stage or "", -1 if by == -1 else 1))
        return
    for each in profile.pointer.stages:
        now = "*" if each.name == status.status.stage else " "
        click.echo(f"{now} {each.name}: {each.across} % horizontal, {each.down} % vertical")
    if not status.status.changes_motion:
        click.echo("No effect yet: this needs kernel input (see `nakrel doctor`).", err=True)


@main.command()
@click.pass_obj
def unpin(session: Session) -> None:
    """Load with games again: profiles go live when their game starts."""
    session.call(m.Pin(""))


@main.command()
@click.argument("macro")
@click.pass_obj
def play(session: Session, macro: str) -> None:
    """Play MACRO now; a Toggle goes on until `stop`, a Held one plays one run."""
    session.call(m.Play_(_pick(session.library().macros, macro, "macro").id))


@main.command(name="type")
@click.argument("text")
@click.option("--rate", type=click.IntRange(1, 250), default=30, show_default=True, help="Characters a second.")
@click.pass_obj
def type_(session: Session, text: str, rate: int) -> None:
    """Type TEXT into the window in front, right for the keyboard layout in use; - reads it from the input."""
    session.call(m.TypeText(sys.stdin.read() if text == "-" else text, rate))


@main.command()
@click.argument("macro", required=False)
@click.pass_obj
def stop(session: Session, macro: str | None) -> None:
    """End MACRO, or without a name stop everything."""
    session.call(m.Stop(_pick(session.library().macros, macro, "macro").id if macro else ""))


@main.command()
@click.argument("macro")
@click.option("--runs", type=click.IntRange(1, MAX_COUNT), help="Play so many runs.")
@click.option("--seed", type=int, default=0, show_default=True, help="Random seed.")
@_json
@_profile
@click.pass_obj
def plan(session: Session, macro: str, runs: int | None, seed: int, as_json: bool, profile: str | None) -> None:
    """Print what MACRO will emit, as CSV: time_us, control, value (1 down, 0 up, or notches), words."""
    found = _resolved(session, macro, profile)
    try:
        made = planned(found, found.play, runs, seed)
    except DataError as error:
        _fail(str(error))
    if as_json:
        click.echo(json.dumps([row._asdict() for row in made.rows]))
    else:
        click.echo(WRITERS["events"](found, made.rows), nl=False)
    _tell_end(found, made)


def _tell_end(macro: Macro, made: Planned) -> None:
    """Say why a plan ended before its last run; where the macro itself is the reason, the program ends with 1."""
    if not made.ended:
        return
    after = f"after {made.runs} complete run{'s' * (made.runs != 1)}"
    message = f"{macro.name} ends early, {after}: {made.ended}"
    if made.failed:
        _fail(message)
    click.echo(f"nakrel: {message}", err=True)


@main.command(name="last-run")
@click.argument("macro")
@click.option("--as", "form", type=click.Choice(["csv", "vcd"]), default="csv", show_default=True, help="The format.")
@click.option("--output", "-o", type=click.Path(path_type=Path), help="The file; default: standard output.")
@click.pass_obj
def last_run(session: Session, macro: str, form: str, output: Path | None) -> None:
    """Write what the last run of MACRO really sent, and when, beside what was planned."""
    found = _pick(session.library().macros, macro, "macro")
    answer = session.call(m.GetRun(found.id))
    record = answer.record if isinstance(answer, m.RunIs) else None
    if record is None:
        _fail(f"{found.name} hasn't run since the service started; play it first")
    text = run_csv(record) if form == "csv" else run_vcd(found, record)
    if missing := run_left_out(record):
        click.echo(f"nakrel: {missing}", err=True)
    try:
        if output is None:
            click.echo(text, nl=False)
        else:
            files.write(output, text.encode())
    except StorageError as error:
        _fail(str(error))


# Their names of before, which scripts and shortcuts of desktops may use.
for _name, _command in (("set-up", variant), ("use", pin), ("follow", unpin)):
    _alias = copy.copy(_command)
    _alias.hidden = True
    main.add_command(_alias, _name)
