"""The window's process ends in good order, also where PyQt's own way out is gone."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path

import pytest

from nakrel import protocol as m
from nakrel.client.connection import ServiceConnection
from nakrel.demo.seed import seed
from nakrel.storage.home import Home
from nakrel.storage.library import Library
from tests.support import LIMIT_S, ServiceProcess, XServer, wait_for

# It uses all pages before.
_WORK = """
import os, sys
from PyQt6.QtCore import QObject, QTimer
from PyQt6.QtWidgets import QApplication
from nakrel.cli.main import main
from nakrel.ui import app as program

app = QApplication(["nakrel"])

def work():
    window = next(each for each in app.topLevelWidgets() if isinstance(each, program.MainWindow))
    for page in ("macro", "devices", "journal", "range", "macro"):
        window.shown.show_page(page)
        app.processEvents()
    leave(window)

QTimer.singleShot(0, work)
"""
_COPIED = """
def leave(window):
    app.clipboard().setText("tap Q for 20 ms")
    app.processEvents()
    assert app.clipboard().ownsClipboard()
    window.close()

main(["--home", sys.argv[1], "window"])
"""
# In copies of the process, since where it went wrong goes by how many objects there are.
_TAKEN_DOWN = """
def leave(window):
    window.close()
    for more in range(0, 1500, 12):
        copy = os.fork()
        if not copy:
            kept = [QObject() for _ in range(more)]
            program.take_down(app)
            os._exit(0)
        _, ended = os.waitpid(copy, 0)
        if ended:
            print(f"with {more} objects more it ends with {ended}", flush=True)
    os._exit(0)

main(["--home", sys.argv[1], "window"])
"""
# The session ends while it is at work.
_TOLD = """
import signal
from nakrel.core.model.macro import Macro
from nakrel.ui import commands

# Tests may have been started where signals are ignored, as with nohup.
signal.signal(getattr(signal, sys.argv[2]), signal.SIG_DFL)

def leave(window):
    window.shown.show_page("journal")
    commands.edit_macro(window.store, "test", Macro(id="last", name="Last edit"))
    os.kill(os.getpid(), getattr(signal, sys.argv[2]))

main(["--home", sys.argv[1], "window"])
"""
# The X server goes away under it while somebody types.
_LEFT_ALONE = """
import signal
from PyQt6.QtTest import QTest
from nakrel.ui import commands

def leave(window):
    macro = commands.new_macro(window.store, "Typed at last")
    window.shown.show_macro(macro.id)
    window.activateWindow()
    note = window.macro_details.note
    note.setFocus()
    QTest.keyClicks(note, "with a fair wind")
    assert note.hasFocus()
    assert not window.store.macros[macro.id].note
    os.kill(int(sys.argv[2]), signal.SIGKILL)

main(["--home", sys.argv[1], "window"])
"""


def window(
    home: Path, leave: str, environment: dict[str, str] | None = None, *arguments: str
) -> subprocess.CompletedProcess[str]:
    """Open one, and wait until it has ended."""
    command = [sys.executable, "-c", _WORK + leave, str(home), *arguments]
    return subprocess.run(command, env=environment, capture_output=True, text=True, timeout=12 * LIMIT_S)


def end_its_service(home: Path) -> None:
    """A window of an X server has a service of that session, whichever there was before. It has saved everything once
    its socket is gone."""
    place = Home.find(home).socket
    last = ServiceConnection.connect(place, "end")
    last.call(m.Shutdown())
    last.close()
    wait_for(lambda: not place.exists(), "the end of the service")


@pytest.mark.timeout(300)
def test_however_many_objects_there_are_the_application_is_taken_down(tmp_path: Path):
    seed(Home.find(tmp_path))
    service = ServiceProcess(tmp_path, "--backend", "stand-in")
    ended = window(tmp_path, _TAKEN_DOWN)
    assert service.end() == 0
    assert (ended.returncode, ended.stdout) == (0, ""), ended.stderr[-2_000:]


@pytest.mark.x11
@pytest.mark.skipif(bool(XServer.missing()), reason=f"needs {XServer.missing()}")
def test_a_window_that_owns_the_clipboard_ends_in_good_order(tmp_path: Path):
    seed(Home.find(tmp_path))
    server = XServer()
    try:
        # It starts the service, which belongs to that session.
        ended = window(tmp_path, _COPIED, {**server.environment, "NAKREL_AS_ROOT": "1"})
    finally:
        end_its_service(tmp_path)
        server.end_server()
    assert ended.returncode == 0, ended.stderr[-2_000:]


def test_a_window_that_is_not_to_end_with_its_terminal_goes_on(tmp_path: Path):
    seed(Home.find(tmp_path))
    service = ServiceProcess(tmp_path, "--backend", "stand-in")
    then = "\n    os.kill(os.getpid(), signal.SIGHUP)\n    QTimer.singleShot(500, lambda: app.exit(7))\n"
    told = _TOLD.replace("\n    os.kill(os.getpid(), getattr(signal, sys.argv[2]))\n", then)
    ended = window(tmp_path, told.replace("SIG_DFL", "SIG_IGN"), None, "SIGHUP")
    assert service.end() == 0
    assert ended.returncode == 7, ended.stderr[-2_000:]


@pytest.mark.parametrize(("name", "code"), [("SIGTERM", 0), ("SIGHUP", 0), ("SIGINT", 130)])
def test_a_window_that_is_told_to_end_keeps_what_was_done_last_and_what_it_shows(tmp_path: Path, name: str, code: int):
    seed(Home.find(tmp_path))
    service = ServiceProcess(tmp_path, "--backend", "stand-in")
    ended = window(tmp_path, _TOLD, None, name)
    assert service.end() == 0
    assert ended.returncode == code, ended.stderr[-2_000:]
    library = Library(Home.find(tmp_path))
    library.load()
    assert library.macros["last"].name == "Last edit"
    assert library.settings.shown.page == "journal"


@pytest.mark.x11
@pytest.mark.skipif(bool(XServer.missing()), reason=f"needs {XServer.missing()}")
def test_a_window_whose_display_goes_away_keeps_what_was_typed_and_what_it_shows(tmp_path: Path):
    """Where a session is its window manager, that ends, and the X server with it: nobody tells its windows before."""
    seed(Home.find(tmp_path))
    server = XServer()
    try:
        ended = window(tmp_path, _LEFT_ALONE, {**server.environment, "NAKREL_AS_ROOT": "1"}, str(server.pid))
    finally:
        server.end_server()
        end_its_service(tmp_path)
    assert ended.returncode == 1, ended.stderr[-2_000:]
    library = Library(Home.find(tmp_path))
    library.load()
    (kept,) = (macro for macro in library.macros.values() if macro.name == "Typed at last")
    assert kept.note == "with a fair wind"
    assert (library.settings.shown.page, library.settings.shown.macro) == ("macro", kept.id)
