"""`nakrel`: the command line for scripts, shortcuts and people who like to type."""

from __future__ import annotations

import copy
import sys
from importlib import import_module
from pathlib import Path

import click
import msgspec

import nakrel
from nakrel import protocol as m
from nakrel.cli.completing import macro_names, profile_names, variant_names
from nakrel.cli.session import Session, fail, json_option, pick, print_rows, tell_unreached
from nakrel.client.ids import new_id
from nakrel.command_help import Translated, translate
from nakrel.core.model.cells import GoTo, What
from nakrel.core.model.controls import CONTROLS
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro, cycle_us, describe_play
from nakrel.core.model.names import name_of
from nakrel.core.model.profile import EVERYDAY, new_everyday
from nakrel.core.model.programs import describe_rule
from nakrel.core.model.units import format_rate
from nakrel.service import BACKENDS
from nakrel.words import counted, language, order_of, tr

__all__ = ["main"]

# Commands with a module of their own. It is loaded when one of them is called: a key that stops everything doesn't
# wait for what writes files.
_ELSEWHERE = {
    "bundle": "bundles",
    "export": "plans",
    "frames": "plans",
    "install": "desktop",
    "judge": "trials",
    "last-run": "plans",
    "login": "desktop",
    "plan": "plans",
    "uninstall": "desktop",
    "unpack": "bundles",
    "window": "window",
}


class _Commands(Translated, click.Group):
    """What somebody typed that can't be ends every command with the reason, before anything is sent."""

    def list_commands(self, ctx: click.Context) -> list[str]:
        """The names of all commands."""
        return sorted({*super().list_commands(ctx), *_ELSEWHERE})

    def get_command(self, ctx: click.Context, cmd_name: str) -> click.Command | None:
        """One command; None where there is none of this name."""
        if cmd_name in _ELSEWHERE and cmd_name not in self.commands:
            module = import_module(f"nakrel.cli.{_ELSEWHERE[cmd_name]}")
            self.add_command(getattr(module, cmd_name.replace("-", "_")), cmd_name)
            if language() != "en":
                # As the others are, before the command line is read.
                translate(self.commands[cmd_name])
        return super().get_command(ctx, cmd_name)

    def invoke(self, ctx: click.Context) -> object:
        """Run the command."""
        try:
            return super().invoke(ctx)
        except DataError as error:
            fail(str(error))


@click.group(
    name="nakrel", cls=_Commands, invoke_without_command=True, context_settings={"help_option_names": ["-h", "--help"]}
)
@click.version_option(nakrel.__version__)
@click.option("--home", metavar="DIR", help="Keep everything in this folder instead of the XDG folders.")
@click.pass_context
def main(context: click.Context, home: str | None) -> None:
    """Record, time and attach macros, per game. Without a command, open the window."""
    context.obj = Session(home)
    if context.invoked_subcommand is None:
        command = main.get_command(context, "window")
        assert command
        context.invoke(command)


@main.command()
@click.option(
    "--backend", type=click.Choice(BACKENDS), default="auto", show_default=True, help="How programs are reached."
)
@click.option("--with-session", is_flag=True, help="End with this login session; one of an earlier session makes room.")
@click.pass_obj
def service(session: Session, backend: str, with_session: bool) -> None:
    """Run the service here, until it is told to end."""
    from nakrel.service.start import serve

    if with_session:
        from nakrel.cli.desktop import end_of_earlier_session

        end_of_earlier_session(session.home)
    sys.exit(serve(session.folder, backend, with_session=with_session))


@main.command(name="import")
@click.argument("recording", type=click.Path(path_type=Path))
@click.option("--name", metavar="NAME", help="The macro's name; default: the file's.")
@click.pass_obj
def import_(session: Session, recording: Path, name: str | None) -> None:
    """Make a macro of a RECORDING by evemu-record or libinput record, or of a table of events."""
    from nakrel.storage.recordings import read_recording

    try:
        steps = read_recording(recording)
    except DataError as error:
        fail(str(error))
    macro = Macro(id=new_id(), name=name or recording.stem, loop=tuple(steps))
    session.call(m.PutMacro(macro))
    click.echo(f"{macro.name}: {counted(len(steps), '{n} step', '{n} steps')}")


@main.command()
@click.option("--fix", is_flag=True, help="Show, then install what gives you access to the devices.")
@click.option("--take-back", "back", is_flag=True, help="Show, then remove what --fix installed.")
@click.option("--yes", is_flag=True, help="With --fix or --take-back: don't ask.")
@json_option
@click.pass_obj
def doctor(session: Session, fix: bool, back: bool, yes: bool, as_json: bool) -> None:
    """Examine what stands between your fingers and the programs, and say what to do about it."""
    # It loads what speaks to the X server, for which the other commands don't wait.
    from nakrel.cli.doctor import examine, mend, take_back

    if back:
        sys.exit(take_back(session.home, yes))
    sys.exit(mend(session.home, yes) if fix else examine(session.home, as_json))


@main.command()
@click.pass_obj
def shutdown(session: Session) -> None:
    """End the service that runs."""
    if session.call_running(m.Shutdown()) is None:
        click.echo(tr("No service runs."))
    else:
        click.echo(tr("The service has ended; all macros were ended with it."))


@main.command()
@json_option
@click.pass_obj
def profiles(session: Session, as_json: bool) -> None:
    """List the profiles."""
    found = sorted(session.library().profiles.values(), key=lambda p: order_of(p.name))
    rows = [{"id": p.id, "name": p.name, "programs": ", ".join(describe_rule(r) for r in p.programs)} for p in found]
    print_rows(rows, as_json, ("name", 32), ("programs", 0))


@main.command()
@json_option
@click.argument("part", required=False, default="")
def controls(part: str, as_json: bool) -> None:
    """List the names of keys and buttons, with their codes; with PART those that have it in them."""
    rows = [
        {"name": name_of(code), "code": code, "part": known.part}
        for code, known in CONTROLS.items()
        if part.casefold() in f"{name_of(code)} {code}".casefold()
    ]
    if not rows and not as_json:
        fail(tr("no key or button has {part!r} in its name; `nakrel controls` lists all").format(part=part))
    print_rows(rows, as_json, ("name", 24), ("code", 24), ("part", 0))


@main.command()
@json_option
@click.pass_obj
def macros(session: Session, as_json: bool) -> None:
    """List the macros."""
    found = sorted(session.library().macros.values(), key=lambda p: order_of(p.name))
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
    if not as_json:
        rows = [
            {
                **row,
                "rate": f"{row['rate']:>10}",
                "steps": f" {counted(int(str(row['steps'])), '{n} step', '{n} steps')}",
            }
            for row in rows
        ]
    print_rows(rows, as_json, ("name", 32), ("plays", 12), ("rate", 10), ("steps", 0))


@main.command()
@json_option
@click.pass_obj
def live(session: Session, as_json: bool) -> None:
    """Say which profile is live, why, and what runs."""
    status = session.status()
    if as_json:
        click.echo(msgspec.json.format(msgspec.json.encode(status), indent=2).decode())
        return
    # Where Everyday couldn't be saved yet it has no file.
    known = {EVERYDAY: new_everyday(), **session.library().profiles}.get(status.live)
    live_now = tr("{name} is live: {reason}")
    click.echo(live_now.format(name=known.name if known else status.live, reason=status.reason))
    for run in status.running:
        click.echo("  " + tr("running: {name}").format(name=run.name))
    tell_unreached(status)


@main.command()
@click.argument("profile", required=False, shell_complete=profile_names)
@click.pass_obj
def pin(session: Session, profile: str | None) -> None:
    """Keep PROFILE live until `unpin`; without a name the one that is."""
    if profile is None:
        profile = session.status().live
    # Only now: the service makes what an empty home lacks.
    chosen = pick(session.library().profiles, profile, "profile")
    session.call(m.Pin(chosen.id))
    click.echo(tr("{name} is live, and stays so.").format(name=chosen.name))


@main.command()
@click.argument("name", required=False, shell_complete=variant_names)
@click.option("--profile", metavar="NAME", shell_complete=profile_names, help="Of this profile; default: the live one.")
@click.option("--next", "by", flag_value=1, type=int, help="The next one; wraps around.")
@click.option("--previous", "by", flag_value=-1, type=int, help="The one before.")
@click.pass_obj
def variant(session: Session, name: str | None, profile: str | None, by: int | None) -> None:
    """Switch to the variant NAME; without a name list them."""
    library, status = session.library(), session.status()
    key = pick(library.profiles, profile, "profile").id if profile else status.live
    chosen = library.profiles[key]
    now = chosen.setup(status.setups.get(key, "")).name
    if not name and not by:
        for each in chosen.setups:
            click.echo(f"{'*' if each.name == now else ' '} {each.name}")
        return
    from nakrel.core.play.live import next_setup

    wanted = name or next_setup(chosen, now, GoTo(What.SETUP, by=1 if by == 1 else -1))
    fits = [each.name for each in chosen.setups if each.name.casefold() == wanted.casefold()]
    session.call(m.UseSetUp(key, fits[0] if fits else wanted))
    click.echo(tr("{profile} plays as {setup}").format(profile=chosen.name, setup=fits[0] if fits else wanted))


@main.command()
@click.argument("stage", required=False)
@click.option("--next", "by", flag_value=1, type=int, help="The next one; wraps around.")
@click.option("--previous", "by", flag_value=-1, type=int, help="The one before.")
@click.pass_obj
def speed(session: Session, stage: str | None, by: int | None) -> None:
    """Give the pointer the live profile's speed STAGE; without a name tell which there are."""
    status = session.status()
    profile = session.library().profiles[status.live]
    if stage or by:
        fits = [each.name for each in profile.pointer.stages if stage and each.name.casefold() == stage.casefold()]
        session.call(m.UseStage(fits[0] if fits else stage or "", -1 if by == -1 else 1))
        click.echo(tr("The pointer's speed is {name}.").format(name=session.status().stage))
        return
    for each in profile.pointer.stages:
        now = "*" if each.name == status.stage else " "
        speeds = tr("{name}: {across} % horizontal, {down} % vertical")
        click.echo(f"{now} {speeds.format(name=each.name, across=each.across, down=each.down)}")
    if not status.changes_motion:
        click.echo(tr("No effect yet: this needs kernel input (see `nakrel doctor`)."), err=True)


@main.command()
@click.pass_obj
def unpin(session: Session) -> None:
    """Load with games again: profiles go live when their game starts."""
    session.call(m.Pin(""))
    click.echo(tr("Profiles go live with their games again."))


@main.command()
@click.argument("macro", shell_complete=macro_names)
@click.pass_obj
def play(session: Session, macro: str) -> None:
    """Play MACRO now; a Toggle goes on until `stop`, one that plays while held plays one run."""
    chosen = pick(session.library().macros, macro, "macro")
    session.call(m.Play_(chosen.id))
    click.echo(tr("{name} plays.").format(name=chosen.name))
    tell_unreached(session.status())


@main.command(name="type")
@click.argument("text")
@click.option(
    "--rate", metavar="N", type=click.IntRange(1, 250), default=30, show_default=True, help="Characters a second."
)
@click.pass_obj
def type_(session: Session, text: str, rate: int) -> None:
    """Type TEXT into the window in front, right for the keyboard layout in use; - reads it from the input."""
    session.call(m.TypeText(sys.stdin.read() if text == "-" else text, rate))
    tell_unreached(session.status())


@main.command()
@click.argument("macro", required=False, shell_complete=macro_names)
@click.pass_obj
def stop(session: Session, macro: str | None) -> None:
    """End MACRO, or without a name stop everything."""
    chosen = pick(session.library().macros, macro, "macro") if macro else None
    # None is started to end nothing.
    status = session.call_running(m.GetStatus()) if chosen else None
    if session.call_running(m.Stop(chosen.id if chosen else "")) is None:
        click.echo(tr("No service runs, and so no macro does."))
    elif chosen is None:
        click.echo(tr("Everything is stopped."))
    else:
        ran = isinstance(status, m.StatusIs) and any(run.macro == chosen.id for run in status.status.running)
        click.echo((tr("{name} is ended.") if ran else tr("{name} doesn't run.")).format(name=chosen.name))


# Their names of before, which scripts and shortcuts of desktops may use.
for _name, _command in (("set-up", variant), ("use", pin), ("follow", unpin)):
    _alias = copy.copy(_command)
    _alias.hidden = True
    main.add_command(_alias, _name)
