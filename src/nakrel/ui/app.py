"""The application: it finds the service, and opens the window."""

from __future__ import annotations

import contextlib
import gc
import os
import sys
import traceback
from collections.abc import Mapping
from datetime import datetime
from pathlib import Path
from types import TracebackType
from typing import NoReturn

from PyQt6 import sip
from PyQt6.QtGui import QIcon
from PyQt6.QtWidgets import QApplication

from nakrel import protocol as m
from nakrel import worker_process
from nakrel.client.connection import ClientError, ServiceConnection
from nakrel.client.launch import Launch, ensure_service
from nakrel.core.model.errors import DataError
from nakrel.desktop.names import APP_ID, icon_file
from nakrel.private import open_private
from nakrel.rights import refusal_reason
from nakrel.session import Session
from nakrel.storage.home import Home
from nakrel.ui import theme
from nakrel.ui.background import wait_for_work
from nakrel.ui.language import translate_qt
from nakrel.ui.store import Store
from nakrel.ui.window.bus import Bus
from nakrel.ui.window.main_window import MainWindow
from nakrel.ui.window.to_front import ToFront
from nakrel.ui.window.tray import Tray
from nakrel.words import tr

# Pixels to the inch where texts are of the usual size, and how much of a difference is none.
_USUAL_DPI, _ALIKE = 96, 0.04

# So many objects more than there were are looked through.
_GARBAGE = 10_000

__all__ = ["connector", "leave", "open_window", "run", "spare_the_collector", "take_down", "tell_of_bugs"]


def connector(home: str | None) -> Launch:
    """Begin to connect to the home's service, starting it where it doesn't run."""
    return Launch(Home.find(home).socket, home, "window")


def open_window(app: QApplication, store: Store) -> MainWindow:
    """Make the window on an open store, in the look of its settings.

    The typeface comes before the widgets, which take it when they are made; the colours come after them: styled while
    they are put together, each would be polished many times, and the window take six times as long.
    """
    # Where there was a window before, its look is still there.
    app.setStyleSheet("")
    theme.begin(app)
    window = MainWindow(store)
    theme.apply(app, store.settings.look)
    return window


def scaled_environment(dpi: float, environment: Mapping[str, str]) -> dict[str, str]:
    """What a desktop whose texts are larger or smaller than usual asks of Qt: all of the window is scaled like them,
    its rows and fields as well. Empty where nothing is to be changed."""
    factor = dpi / _USUAL_DPI
    if "QT_FONT_DPI" in environment or abs(factor - 1) < _ALIKE:
        return {}
    before = float(environment.get("QT_SCALE_FACTOR") or 1)
    return {"QT_FONT_DPI": str(_USUAL_DPI), "QT_SCALE_FACTOR": f"{before * factor:.4g}"}


def _scale_like_desktop(app: QApplication) -> None:
    """Start anew with the desktop's scale, where it has one: Qt reads it only at the start."""
    screen = app.primaryScreen()
    if wanted := scaled_environment(screen.logicalDotsPerInch() if screen else _USUAL_DPI, os.environ):
        os.environ.update(wanted)
        os.execv(sys.executable, [sys.executable, *sys.orig_argv[1:]])


def tell_of_bugs(store: Store, log: Path) -> None:
    """From now on a fault of ours, on whatever thread, goes to the log and is told in the window, which goes on: Qt
    would end it. All edits are with the service by then."""

    def report(kind: type[BaseException], error: BaseException | None, trace: TracebackType | None) -> None:
        if isinstance(error, DataError):
            # What somebody typed can't be; it isn't a fault of ours, and what was there stays.
            with contextlib.suppress(RuntimeError):
                store.fault.emit(str(error))
            return
        message = "".join(traceback.format_exception(kind, error, trace))
        sys.stderr.write(message)
        with contextlib.suppress(OSError):
            log.parent.mkdir(parents=True, exist_ok=True)
            with open(log, "a", encoding="utf-8", opener=open_private) as file:
                file.write(f"{datetime.now().astimezone():%Y-%m-%d %H:%M:%S %z} {message}")
        if issubclass(kind, KeyboardInterrupt):
            QApplication.exit(1)
            return
        with contextlib.suppress(RuntimeError):
            # The store may have gone with its window.
            store.alarm.emit(
                tr("Something unexpected happened in the window ({error!r}); {log} has the details.").format(
                    error=error, log=log
                )
            )

    sys.excepthook = report


def run(home: str | None = None, asked: m.OpenWindow | None = None, *, for_bus: bool = False) -> int:
    """Open the window and stay until it closes, which ends the process. Where one is open already, that comes to the
    front, and does what is `asked`: then, and where none can be opened, it returns the exit code. Started `for_bus` it
    is shown when the session bus asks for it."""
    if refused := refusal_reason() or _no_display():
        sys.stderr.write(f"nakrel: {refused}\n")
        return 1
    asked = asked or m.OpenWindow()
    socket = Home.find(home).socket
    launch: list[Launch] = []

    def connect() -> ServiceConnection:
        # The first connection has been in the making since before Qt was ready; later ones start anew.
        return launch.pop().finish() if launch else ensure_service(socket, home, "window")

    try:
        launch.append(connector(home))
        if launch[0].ready and _is_open(launch[0].ready, asked):
            sys.stdout.write(tr("Nakrel is open already; its window comes to the front.") + "\n")
            return 0
    except ClientError as error:
        sys.stderr.write(f"nakrel: {error}\n")
        return 1
    # A session without portals is none of the user's worries.
    os.environ.setdefault("QT_LOGGING_RULES", "qt.qpa.services.warning=false")
    app = QApplication.instance() or QApplication(["nakrel"])
    assert isinstance(app, QApplication)
    translate_qt()
    app.setApplicationName("nakrel")
    app.setDesktopFileName(APP_ID)
    app.setWindowIcon(QIcon(str(icon_file())))
    _scale_like_desktop(app)
    store = Store(connect, lambda: ServiceConnection.connect(socket, "window"))
    store.is_window = True
    try:
        store.open()
    except ClientError as error:
        sys.stderr.write(f"nakrel: {error}\n")
        return 1
    window = open_window(app, store)
    tell_of_bugs(store, Home.find(home).window_log)
    front = ToFront(window)
    bus = Bus(front) if Home.find(home) == Home.find(None) and not os.environ.get("NAKREL_HOME") else None
    if Tray.is_there():
        Tray(front)
    if not (for_bus and bus and bus.is_there):
        window.show()
    spare_the_collector()
    window.make_ahead()
    front.do(asked.files, record=asked.record)
    return leave(app, app.exec())


def spare_the_collector() -> None:
    """From now on Python looks through what is made anew for garbage, not through the window and the library, which
    stay; and less often: a macro of ten thousand steps makes as many objects."""
    gc.freeze()
    gc.set_threshold(_GARBAGE, 10, 10)
    gc.enable()


def leave(app: QApplication, code: int) -> NoReturn:
    """End the process; everything is saved by now, so PyQt's own way out is left to where it is needed."""
    wait_for_work()
    worker_process.end()
    clipboard = app.clipboard()
    if app.platformName() == "xcb" and clipboard and clipboard.ownsClipboard():
        # What was copied goes to whoever keeps it on this desktop as the application goes.
        take_down(app)
    sys.stdout.flush()
    sys.stderr.flush()
    os._exit(code)


def take_down(app: QApplication) -> None:
    """End the application, the windows before it.

    As the application goes, PyQt goes through sip's table of all objects and ends those that are Python's. Were windows
    among them, events would come of it, and reach what is written in Python; that makes objects, for which the table
    may have to grow. It is given back then while it is gone through, and the process crashes (sip 13.13,
    `sip_api_visit_wrappers`).
    """
    for window in app.topLevelWidgets():
        if not sip.isdeleted(window):
            sip.delete(window)
    sip.delete(app)


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
    session = Session.of(os.environ)
    if session == Session():
        return tr("there is no display here: neither DISPLAY nor WAYLAND_DISPLAY is set; start it in a desktop session")
    if not session.answers(os.environ.get("XDG_RUNTIME_DIR", "")):
        return tr("no display answers at {session}; start it in a desktop session").format(session=session)
    return ""
