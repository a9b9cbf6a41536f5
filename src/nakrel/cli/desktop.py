"""`nakrel install`, `uninstall` and `login`: Nakrel as a program of the desktop."""

from __future__ import annotations

import contextlib
import fcntl
import os
import select
import shutil
import time
from collections.abc import Iterator
from pathlib import Path

import click

from nakrel.cli.session import Session, fail
from nakrel.client.connection import ClientError, ServiceConnection, ServiceGone
from nakrel.core.model.cells import TypeText
from nakrel.core.model.macro import Section
from nakrel.core.model.steps import Text, walk
from nakrel.desktop import install as desktop
from nakrel.desktop import login as at_login
from nakrel.desktop.install import InstallError
from nakrel.desktop.login import LoginError
from nakrel.desktop.places import Places, for_all_users
from nakrel.protocol import Shutdown
from nakrel.service.rules import RULES_PATH
from nakrel.storage import secrets
from nakrel.storage.home import Home
from nakrel.storage.secrets import SecretError
from nakrel.words import counted, tr

__all__ = ["end_of_earlier_session", "install", "login", "uninstall"]

# How long a service that was told to end may take.
_END_S, _LOOK_S = 10.0, 0.02


@click.command()
def install() -> None:
    """Put Nakrel into the desktop's menu and its commands into the search path, for you alone."""
    try:
        done = desktop.install()
    except InstallError as error:
        fail(str(error))
    click.echo(tr("Nakrel is in the menu now ({count} files).").format(count=len(done.files)))
    for note in done.notes:
        click.echo(tr("Note: {note}.").format(note=note))
    click.echo(tr("To take it back:  nakrel uninstall"))


@click.command()
@click.option("--purge", is_flag=True, help="Take away your profiles, macros, settings and secrets, too.")
@click.option("--yes", is_flag=True, help="With --purge: don't ask.")
@click.pass_obj
def uninstall(session: Session, purge: bool, yes: bool) -> None:
    """Take Nakrel out of the menu and the search path, and end its service; your macros stay."""
    home, demo = session.home, Places.of_user().data / "nakrel-demo"
    if purge and not yes:
        click.echo(tr("This deletes your profiles, macros, settings, journal and secrets for good:"))
        for folder in (home.config, home.state, demo):
            click.echo(f"  {folder}")
        if os.path.exists(RULES_PATH):
            click.echo(tr("It takes back the permissions for kernel input, too, which needs root."))
        click.confirm(tr("Delete them?"), abort=True)
    # Where none runs there is none to end.
    with contextlib.suppress(ClientError):
        connection = ServiceConnection.connect(home.socket, "nakrel")
        connection.call(Shutdown())
        connection.close()
    if not for_all_users():
        try:
            gone = desktop.uninstall()
            click.echo(
                tr("Nakrel is out of the menu and doesn't start at login ({count} files).").format(
                    count=len(gone.files)
                )
            )
        except InstallError as error:
            if not purge:
                fail(str(error))
            click.echo(tr("Note: {note}.").format(note=error))
    if purge:
        _purge(session, demo)
    else:
        click.echo(
            tr("Your profiles, macros and settings stay, in {config} and {state}.").format(
                config=home.config, state=home.state
            )
        )
        click.echo(tr("To delete these as well:  nakrel uninstall --purge"))
    if purge and os.path.exists(RULES_PATH):
        from nakrel.cli.doctor import take_back

        take_back(home, yes=True)
    elif os.path.exists(RULES_PATH):
        click.echo(tr("The permissions for kernel input stay. To take them back:  nakrel doctor --take-back"))


def _secrets(session: Session) -> Iterator[str]:
    """The names of all secrets that macros and buttons type."""
    library = session.library()
    found = [
        *(step for macro in library.macros.values() for part in Section for step in walk(macro.section(part))),
        *(cell for profile in library.profiles.values() for _, _, _, cell in profile.cells()),
    ]
    yield from sorted({each.secret for each in found if isinstance(each, Text | TypeText) and each.secret})


def _purge(session: Session, demo: Path) -> None:
    home = session.home
    forgotten, kept = 0, ""
    for name in _secrets(session):
        try:
            secrets.put(name, "")
            forgotten += 1
        except SecretError as error:
            kept = str(error)
    for folder in (home.config, home.state, home.runtime, demo):
        shutil.rmtree(str(folder), ignore_errors=True)
    if forgotten:
        gone = counted(
            forgotten,
            "Your profiles, macros and settings and {n} secret are deleted.",
            "Your profiles, macros and settings and {n} secrets are deleted.",
        )
    else:
        gone = tr("Your profiles, macros and settings are deleted.")
    click.echo(gone)
    if kept:
        click.echo(tr("Note: secrets may be left in the keyring: {reason}.").format(reason=kept))


def end_of_earlier_session(home: Home) -> None:
    """End a service that was left by an earlier login: it knows the display of that one. One of this login stays."""
    try:
        pid = int(home.lock.read_text().strip())
        variables = Path(f"/proc/{pid}/environ").read_bytes().split(b"\0")
    except (OSError, ValueError):
        return
    own = f"XDG_SESSION_ID={os.environ.get('XDG_SESSION_ID', '')}".encode()
    if own in variables or not os.environ.get("XDG_SESSION_ID"):
        return
    with contextlib.suppress(ClientError):
        connection = ServiceConnection.connect(home.socket, "nakrel")
        connection.call(Shutdown())
        # It says goodbye by closing the connection, with everything saved, and holds its lock a moment longer.
        with contextlib.suppress(ServiceGone):
            while True:
                connection.receive()
        connection.close()
        end = time.monotonic() + _END_S
        while _is_held(home.lock) and time.monotonic() < end:
            select.select([], [], [], _LOOK_S)


def _is_held(lock: Path) -> bool:
    """Whether a process holds the lock that lets only one service run."""
    try:
        with open(lock, "rb") as file:
            fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError:
        return True
    except OSError:
        return False
    return False


@click.command()
@click.argument("switch", type=click.Choice(["on", "off"]), required=False)
def login(switch: str | None) -> None:
    """Let the service start when you log in, or not; without a word say which."""
    try:
        if switch == "on":
            by = at_login.turn_on()
            told = {
                "systemd": tr("Nakrel starts when you log in, by a unit of your systemd."),
                "autostart": tr("Nakrel starts when you log in, by an entry of the desktop's autostart."),
            }
            click.echo(told[by])
        elif switch == "off":
            at_login.turn_off()
            click.echo(tr("Nakrel doesn't start when you log in."))
        else:
            starts = tr("Nakrel starts when you log in.")
            click.echo(starts if at_login.is_on() else tr("Nakrel doesn't start when you log in."))
    except LoginError as error:
        fail(str(error))
