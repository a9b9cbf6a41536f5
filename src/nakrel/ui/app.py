"""The window from its first moment to its last."""

from __future__ import annotations

import contextlib
import gc
import os
import signal
import socket
import sys
import traceback
from datetime import datetime
from pathlib import Path
from types import TracebackType
from typing import NoReturn

from PyQt6 import sip
from PyQt6.QtCore import QSocketNotifier
from PyQt6.QtWidgets import QApplication

from nakrel import protocol as m
from nakrel import worker_process
from nakrel.client.connection import ClientError, ServiceConnection
from nakrel.client.launch import Launch, ensure_service
from nakrel.core.model.errors import DataError
from nakrel.private import open_private
from nakrel.storage.home import Home
from nakrel.ui import theme
from nakrel.ui.background import wait_for_work
from nakrel.ui.store import Store
from nakrel.ui.window.bus import Bus
from nakrel.ui.window.main_window import MainWindow
from nakrel.ui.window.to_front import ToFront
from nakrel.ui.window.tray import Tray
from nakrel.words import tr

# So many objects more than there were are looked through.
_GARBAGE = 10_000

__all__ = ["close_in_order", "leave", "open_window", "run", "spare_the_collector", "take_down", "tell_of_bugs"]


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
        with contextlib.suppress(RuntimeError):
            # The store may have gone with its window.
            store.alarm.emit(
                tr("Something unexpected happened in the window ({error!r}); {log} has the details.").format(
                    error=error, log=log
                )
            )

    sys.excepthook = report


def run(app: QApplication, home: str | None, launch: Launch, asked: m.OpenWindow, *, for_bus: bool = False) -> int:
    """Open the window on the home's service, whose first connection is in the making, do what is `asked` and stay until
    it closes, which ends the process; where none can be opened, the exit code is returned. Started `for_bus` it is
    shown when the session bus asks for it."""
    place = Home.find(home)
    first = [launch]

    def connect() -> ServiceConnection:
        # Later ones start anew.
        return first.pop().finish() if first else ensure_service(place.socket, home, "window")

    store = Store(connect, lambda: ServiceConnection.connect(place.socket, "window"))
    store.is_window = True
    try:
        store.open()
    except ClientError as error:
        sys.stderr.write(f"nakrel: {error}\n")
        return 1
    window = open_window(app, store)
    tell_of_bugs(store, place.window_log)
    front = ToFront(window)
    bus = Bus(front) if place == Home.find(None) and not os.environ.get("NAKREL_HOME") else None
    if Tray.is_there():
        Tray(front)
    if not (for_bus and bus and bus.is_there):
        window.show()
    spare_the_collector()
    window.make_ahead()
    close_in_order(app, window)
    front.do(asked.files, record=asked.record)
    code = app.exec()
    # Where the display has gone, as at the end of a session whose windows end with their X server, Qt ends the loop.
    window.leave()
    if bus:
        bus.finish()
    return leave(app, code)


def close_in_order(app: QApplication, window: MainWindow) -> None:
    """Close the window when the process is told to end, and keep what it shows when its session is about to: what was
    done last is no less saved then."""
    app.commitDataRequest.connect(lambda manager: window.keep())
    ours, theirs = socket.socketpair()
    for end in (ours, theirs):
        end.setblocking(False)

    def told() -> None:
        number = ours.recv(1)[0]
        window.leave()
        app.exit(128 + number if number == signal.SIGINT else 0)

    # Python's own handlers wait until something else is done in Python, which may be never.
    signal.set_wakeup_fd(theirs.detach(), warn_on_full_buffer=False)
    for number in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP):
        # What whoever started it has it ignore stays so, as with nohup.
        if signal.getsignal(number) != signal.SIG_IGN:
            signal.signal(number, lambda number, frame: None)
    notifier = QSocketNotifier(ours.fileno(), QSocketNotifier.Type.Read, window)  # type: ignore[call-overload]
    notifier.activated.connect(told)


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
