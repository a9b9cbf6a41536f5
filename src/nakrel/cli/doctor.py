"""`nakrel doctor`: what stands between a finger and a program here, and mending it."""

from __future__ import annotations

import shutil
import subprocess
import sys

import click
import msgspec

from nakrel import protocol as m
from nakrel.client.connection import ClientError, ServiceConnection, ServiceGone
from nakrel.service import doctor as service_doctor
from nakrel.service.doctor import System
from nakrel.service.rules import fix_script, take_back_script
from nakrel.storage.home import Home
from nakrel.words import tr

__all__ = ["examine", "mend", "take_back"]

_SIGNS = {m.CheckState.OK: "ok  ", m.CheckState.NOTE: "note", m.CheckState.BAD: "BAD "}


def examine(home: Home, as_json: bool) -> int:
    """Print every link; 1 where one is broken."""
    checks = service_doctor.examine(System(), _status(home))
    if as_json:
        click.echo(msgspec.json.format(msgspec.json.encode(checks), indent=2).decode())
    else:
        for check in checks:
            click.echo(f"{_SIGNS[check.state]}  {tr(check.link, 'check')}: {check.found}")
            if check.state is not m.CheckState.OK:
                if check.why:
                    click.echo("      " + tr("why it matters: {why}").format(why=check.why))
                if check.remedy:
                    click.echo("      " + tr("what to do: {remedy}").format(remedy=check.remedy))
    return int(any(check.state is m.CheckState.BAD for check in checks))


def mend(home: Home, yes: bool) -> int:
    """Show what would be installed, ask, install it with root's rights, and let a running service look again."""
    told = tr(
        "This gives the user at this machine access to its keyboards and mice, and to virtual ones, for good.\n"
        "Every program of that user gets it, too: docs/permissions.md says what that means."
    )
    if code := _as_root(fix_script(), told, tr("Install it?"), yes):
        return code
    click.echo(tr("Installed. To take it back:  nakrel doctor --take-back"))
    _look_again(home)
    return examine(home, as_json=False)


def take_back(home: Home, yes: bool) -> int:
    """The opposite of `mend`."""
    told = tr("This removes what `nakrel doctor --fix` installed: macros then reach what X11 lets them reach.")
    if code := _as_root(take_back_script(), told, tr("Remove it?"), yes):
        return code
    click.echo(tr("Removed. What has the devices open keeps them until you log out."))
    _look_again(home)
    return 0


def _as_root(script: str, told: str, question: str, yes: bool) -> int:
    """Show a script, ask, and run it with root's rights; returns the exit code."""
    click.echo(told)
    click.echo(tr("It is run as root:") + "\n")
    click.echo("".join(f"    {line}\n" for line in script.splitlines()))
    if not yes and not click.confirm(question):
        click.echo(tr("Nothing was changed."))
        return 1
    command = _with_rights(System().user)
    if command is None:
        click.echo("nakrel: " + tr("neither pkexec nor sudo is here; run the lines above as root"), err=True)
        return 1
    done = subprocess.run([*command, "/bin/sh", "-c", script])
    if done.returncode:
        click.echo(
            "nakrel: "
            + tr("that failed (exit code {code}); what was said above tells why").format(code=done.returncode),
            err=True,
        )
        return 1
    return 0


def _with_rights(user: int) -> list[str] | None:
    """What runs a command as root here, nothing for root itself; None where nothing does."""
    if user == 0:
        return []
    # pkexec asks in a window; over a plain terminal sudo asks there.
    order = ("sudo", "pkexec") if sys.stdin.isatty() else ("pkexec", "sudo")
    return next(([found] for name in order if (found := shutil.which(name))), None)


def _status(home: Home) -> m.Status | None:
    try:
        connection = ServiceConnection.connect(home.socket, "nakrel doctor")
    except (ServiceGone, ClientError):
        return None
    try:
        answer = connection.call(m.GetStatus())
        return answer.status if isinstance(answer, m.StatusIs) else None
    finally:
        connection.close()


def _look_again(home: Home) -> None:
    try:
        connection = ServiceConnection.connect(home.socket, "nakrel doctor")
    except (ServiceGone, ClientError):
        return
    try:
        connection.call(m.ChooseRoute())
    finally:
        connection.close()
