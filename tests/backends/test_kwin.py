"""Which window is in front in Plasma under Wayland: with a KWin that is played by the test, and with a real one."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

from nakrel.backends.protocols import BackendLost, BackendUnavailable, WindowInfo
from nakrel.backends.wayland.kwin import KWinWindows
from nakrel.core.model.programs import Front
from tests.on_a_bus import KWin
from tests.support import LIMIT_S, wait_for

GAME, CHAT = (41, "Kelp Harbour", "org.example.Kelp"), (0, "Chat", "org.example.Chat")


@pytest.fixture(autouse=True)
def runtime(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """KWin reads the script from the user's runtime folder."""
    monkeypatch.setenv("XDG_RUNTIME_DIR", str(tmp_path))


def told(windows: KWinWindows, front: Front) -> None:
    def so() -> bool:
        windows.changed()
        return windows.front() == front

    wait_for(so, f"{front}")


def test_the_window_in_front_and_all_others_are_told(bus: str, tmp_path: Path):
    kwin = KWin(bus)
    kwin.show(GAME, GAME)
    windows = KWinWindows()
    assert (windows.front(), windows.shown()) == (Front(41, GAME[2]), [(41, WindowInfo(*GAME[1:]))])
    # The script that told it needs its file no longer.
    assert [each.name for each in tmp_path.iterdir() if each.suffix == ".js"] == []
    kwin.show(CHAT, GAME, CHAT)
    told(windows, Front(0, CHAT[2]))
    assert windows.shown() == [(41, WindowInfo(*GAME[1:])), (0, WindowInfo(*CHAT[1:]))]
    kwin.show(None)
    told(windows, Front())
    assert windows.shown() == []
    assert windows.icon(41) is None
    # What says the same again changes nothing, nor does what nobody can read.
    kwin.show(None)
    kwin.tell('{"front": {"pid": "none"}}')
    kwin.show(GAME, GAME)
    told(windows, Front(41, GAME[2]))
    windows.close()
    wait_for(lambda: kwin.plugins == {}, "the script to be taken back")


def test_two_that_watch_have_a_script_each(bus: str):
    kwin = KWin(bus)
    one, other = KWinWindows(), KWinWindows()
    assert len(kwin.plugins) == 2
    one.close()
    kwin.show(GAME, GAME)
    told(other, Front(41, GAME[2]))
    other.close()


def test_where_kwin_isn_t_there_or_ends_that_is_said(bus: str, monkeypatch: pytest.MonkeyPatch):
    with pytest.raises(BackendUnavailable, match="doesn't tell programs which window is in front"):
        KWinWindows()
    kwin = KWin(bus)
    windows = KWinWindows()
    kwin.leave()
    with pytest.raises(BackendLost, match="the window manager is gone"):
        wait_for(lambda: windows.changed() and False, "the loss")
    windows.close()
    monkeypatch.setenv("DBUS_SESSION_BUS_ADDRESS", "unix:path=/nowhere")
    with pytest.raises(BackendUnavailable):
        KWinWindows()


_WINDOW = """
import sys
from PyQt6.QtWidgets import QApplication, QLabel
app = QApplication(sys.argv[:1])
app.setDesktopFileName(sys.argv[1])
window = QLabel("hello")
window.setWindowTitle(sys.argv[2])
window.show()
app.exec()
"""


@pytest.mark.skipif(not shutil.which("kwin_wayland"), reason="needs kwin_wayland")
def test_a_real_kwin_tells_its_windows_with_their_processes(bus: str, tmp_path: Path, monkeypatch: pytest.MonkeyPatch):
    # Without the rights that its file gives it, which a container may not give.
    program = shutil.copy(shutil.which("kwin_wayland") or "", tmp_path / "kwin_wayland")
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path / "config"))
    monkeypatch.delenv("QT_QPA_PLATFORM")
    quiet = subprocess.DEVNULL
    command = [program, "--virtual", "--no-lockscreen", "--socket", "wayland-9"]
    kwin = subprocess.Popen(command, stdout=quiet, stderr=quiet)
    opened: list[subprocess.Popen[bytes]] = []

    def watch() -> KWinWindows | None:
        try:
            return KWinWindows()
        except BackendUnavailable:
            return None

    def open_window(name: str, title: str) -> subprocess.Popen[bytes]:
        environment = {**os.environ, "QT_QPA_PLATFORM": "wayland", "WAYLAND_DISPLAY": "wayland-9"}
        command = [sys.executable, "-c", _WINDOW, name, title]
        opened.append(subprocess.Popen(command, env=environment, stdout=quiet, stderr=quiet))
        return opened[-1]

    try:
        windows = wait_for(watch, "KWin", 30)
        game = open_window(GAME[2], GAME[1])
        told(windows, Front(game.pid, GAME[2]))
        chat = open_window(CHAT[2], CHAT[1])
        told(windows, Front(chat.pid, CHAT[2]))
        assert windows.shown() == [(game.pid, WindowInfo(*GAME[1:])), (chat.pid, WindowInfo(*CHAT[1:]))]
        chat.terminate()
        told(windows, Front(game.pid, GAME[2]))
        windows.close()
    finally:
        for each in (*opened, kwin):
            each.terminate()
            each.wait(LIMIT_S)
