"""`nakrel bundle` and `unpack`: profiles with all their macros, out to one file and in from it."""

from __future__ import annotations

import shlex
from pathlib import Path

import click

from nakrel import protocol as m
from nakrel.cli.completing import profile_names
from nakrel.cli.session import Session, fail, pick
from nakrel.client.ids import new_id
from nakrel.core.edit.bundle import Clash, bundle_of, look_through, merge, visible
from nakrel.storage.bundles import read_bundle, write_bundle
from nakrel.storage.files import StorageError
from nakrel.words import counted, tr

__all__ = ["bundle", "unpack"]


@click.command()
@click.argument("profiles", nargs=-1, required=True, shell_complete=profile_names)
@click.option("--output", "-o", metavar="FILE", type=click.Path(path_type=Path), required=True, help="The file.")
@click.pass_obj
def bundle(session: Session, profiles: tuple[str, ...], output: Path) -> None:
    """Write PROFILES with all their macros to one file that can be shared."""
    library = session.library()
    chosen = tuple(pick(library.profiles, name, "profile") for name in profiles)
    made = bundle_of(chosen, library.macros)
    try:
        write_bundle(output, made)
    except StorageError as error:
        fail(str(error))
    click.echo(f"{output}: {_amounts(len(made.profiles), len(made.macros))}")


@click.command()
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
        fail(str(error))
    inside = look_through(found, library.profiles, library.macros)
    for head, lines in (
        (tr("profiles"), inside.profiles),
        (tr("macros"), inside.macros),
        (tr("linked to"), inside.programs),
        (
            tr("opens (off until allowed)"),
            [f"{each.where}: {visible(shlex.join(each.command))}" for each in inside.opens],
        ),
        (tr("types", "a text"), [f"{macro}: {text}" for macro, text in inside.types]),
        (tr("runs until stopped"), [f"{macro} {reason}" for macro, reason in inside.unattended]),
        (tr("controls the desktop"), [f"{where} {what}" for where, what in inside.desktop]),
        (tr("exists already"), inside.clashes),
    ):
        if lines:
            click.echo(f"{head}:")
            for line in lines:
                click.echo(f"  {line}")
    if not take:
        click.echo(tr("Nothing imported; add --take."))
        return
    allowed = {tuple(shlex.split(command)) for command in allow}
    lives = [profile.id for profile in found.profiles] if live else []
    merged = merge(found, library.profiles, library.macros, Clash(clash), new_id, allowed, lives)
    for macro in merged.macros:
        session.call(m.PutMacro(macro))
    for profile in merged.profiles:
        session.call(m.PutProfile(profile))
    amounts = _amounts(len(merged.profiles), len(merged.macros))
    click.echo(tr("Imported: {amounts}.").format(amounts=amounts))


def _amounts(profiles: int, macros: int) -> str:
    return f"{counted(profiles, '{n} profile', '{n} profiles')}, {counted(macros, '{n} macro', '{n} macros')}"
