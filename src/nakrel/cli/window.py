"""`nakrel window`: there is one window, however often it is asked for."""

from __future__ import annotations

import gc
import os
import sys
from pathlib import Path

import click

from nakrel import protocol as m
from nakrel.cli.session import Session, fail
from nakrel.client.connection import ClientError, ServiceConnection
from nakrel.client.launch import Launch
from nakrel.rights import refusal_reason
from nakrel.session import Session as DesktopSession
from nakrel.words import tr

__all__ = ["window"]


@click.command()
@click.argument("files", nargs=-1, type=click.Path(path_type=Path, exists=True))
@click.option("--demo", is_flag=True, help="Fill an empty home with the demo's data first.")
@click.option("--record", is_flag=True, help="Begin a recording.")
@click.option("--for-bus", is_flag=True, hidden=True)
@click.pass_obj
def window(
    session: Session, files: tuple[Path, ...] = (), demo: bool = False, record: bool = False, for_bus: bool = False
) -> None:
    """Open the window, and look through profile FILES; one that is open already comes to the front."""
    if demo:
        from nakrel.demo.seed import seed

        seed(session.home)
    if refused := refusal_reason() or _no_display():
        fail(refused)
    token = os.environ.pop("XDG_ACTIVATION_TOKEN", "") or os.environ.get("DESKTOP_STARTUP_ID", "")
    asked = m.OpenWindow(tuple(str(each.absolute()) for each in files), record, token)
    try:
        # The service starts while Qt is loaded.
        launch = Launch(session.home.socket, session.folder, "window")
        if launch.ready and _is_open(launch.ready, asked):
            click.echo(tr("Nakrel is open already; its window comes to the front."))
            return
    except ClientError as error:
        fail(str(error))
    # What is made until the window is there stays; looking through it for garbage takes a tenth of the start.
    gc.disable()
    from nakrel.ui.application import make_application

    app = make_application()
    from nakrel.ui.app import run

    sys.exit(run(app, session.folder, launch, asked, for_bus=for_bus))


def _is_open(connection: ServiceConnection, asked: m.OpenWindow) -> bool:
    """Whether a window is open, which then has been asked."""
    answer = connection.call(asked)
    open_already = isinstance(answer, m.WindowIs) and answer.open_already
    if open_already:
        connection.close()
    return open_already


def _no_display() -> str:
    """Why no window can be shown, '' where one can: Qt would end with a page of its own words."""
    if os.environ.get("QT_QPA_PLATFORM"):
        return ""
    session = DesktopSession.of(os.environ)
    if session == DesktopSession():
        return tr("there is no display here: neither DISPLAY nor WAYLAND_DISPLAY is set; start it in a desktop session")
    if not session.answers(os.environ.get("XDG_RUNTIME_DIR", "")):
        return tr("no display answers at {session}; start it in a desktop session").format(session=session)
    return ""
