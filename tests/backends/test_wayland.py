"""Word of the windows by Wayland's wire format, from a compositor that follows the specification in Python, and from a
real one where there is one."""

from __future__ import annotations

import contextlib
import os
import shutil
import socket
import struct
import subprocess
import tempfile
import threading
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest

from nakrel.backends.layout import Layout, find_layout
from nakrel.backends.protocols import BackendLost, BackendUnavailable, WindowInfo
from nakrel.backends.typist import Typist
from nakrel.backends.wayland.keyboard import keymap
from nakrel.backends.wayland.windows import WaylandWindows
from nakrel.backends.wayland.wire import Wire
from nakrel.core.model.programs import Front
from tests.support import wait_for


def text(words: str) -> bytes:
    data = words.encode() + b"\0"
    return struct.pack("=I", len(data)) + data + b"\0" * (-len(data) % 4)


class Compositor:
    """Answers the registry and syncs, and sends what a test tells it to."""

    def __init__(self, folder: Path, offers: bool = True) -> None:
        self._listening = socket.socket(socket.AF_UNIX)
        self._listening.bind(os.fspath(folder / "wayland-7"))
        self._listening.listen()
        self._offers = offers
        self.manager = 0
        self.got: list[tuple[int, int]] = []
        self._thread = threading.Thread(target=self._run, daemon=True)
        self._thread.start()

    def _run(self) -> None:
        # The client may be gone in the midst of it.
        with contextlib.suppress(OSError):
            self._serve()

    def close(self) -> None:
        """Be gone."""
        with contextlib.suppress(OSError, AttributeError):
            self.sock.shutdown(socket.SHUT_RDWR)
        self._listening.close()
        self._thread.join(5)
        with contextlib.suppress(AttributeError):
            self.sock.close()

    def _serve(self) -> None:
        self.sock, _ = self._listening.accept()
        buffer = b""
        while data := self.sock.recv(4096):
            buffer += data
            while len(buffer) >= 8 and len(buffer) >= (size := struct.unpack_from("=II", buffer)[1] >> 16):
                self._request(buffer[:size])
                buffer = buffer[size:]

    def _request(self, message: bytes) -> None:
        target, head = struct.unpack_from("=II", message)
        body, opcode = message[8:], head & 0xFFFF
        self.got.append((target, opcode))
        if (target, opcode) == (1, 1):
            self.send(2, 0, struct.pack("=I", 1) + text("wl_compositor") + struct.pack("=I", 5))
            if self._offers:
                self.send(2, 0, struct.pack("=I", 2) + text("zwlr_foreign_toplevel_manager_v1") + struct.pack("=I", 3))
        elif (target, opcode) == (1, 0):
            self.send(struct.unpack_from("=I", body)[0], 0, struct.pack("=I", 1))
        elif (target, opcode) == (2, 0):
            assert struct.unpack_from("=I", body)[0] == 2
            self.manager = struct.unpack_from("=I", body, len(body) - 4)[0]

    def send(self, target: int, opcode: int, body: bytes = b"") -> None:
        # In two pieces, since a stream keeps no borders.
        data = struct.pack("=II", target, (8 + len(body)) << 16 | opcode) + body
        self.sock.sendall(data[:5])
        self.sock.sendall(data[5:])

    def window(self, handle: int, title: str, app_id: str, *states: int) -> None:
        self.send(self.manager, 0, struct.pack("=I", handle))
        self.send(handle, 0, text(title))
        self.send(handle, 1, text(app_id))
        self.state(handle, *states)

    def state(self, handle: int, *states: int) -> None:
        self.send(handle, 4, struct.pack(f"=I{len(states)}I", 4 * len(states), *states))
        self.send(handle, 5)


@pytest.fixture
def compositor(folder: Path) -> Iterator[Compositor]:
    made = Compositor(folder)
    yield made
    made.close()


@pytest.fixture
def folder(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    monkeypatch.setenv("XDG_RUNTIME_DIR", str(tmp_path))
    return tmp_path


def test_windows_come_to_the_front_and_go(compositor: Compositor):
    windows = WaylandWindows("wayland-7")
    assert windows.front() == Front()
    assert not windows.changed()
    compositor.window(0xFF000001, "Kiln Race", "org.example.Kiln", 0, 2)
    compositor.window(0xFF000002, "Kelp – Ω", "kelp")
    wait_for(lambda: windows.changed() or windows.front() != Front(), "the first window")
    wait_for(lambda: windows.changed() or len(windows.shown()) == 2, "the second")
    assert windows.front() == Front(0, "org.example.Kiln")
    assert windows.shown() == [(0, WindowInfo("Kiln Race", "org.example.Kiln")), (0, WindowInfo("Kelp – Ω", "kelp"))]
    compositor.state(0xFF000001)
    compositor.state(0xFF000002, 2)
    wait_for(lambda: windows.changed() or windows.front() == Front(0, "kelp"), "the other in front")
    compositor.send(0xFF000002, 6)
    wait_for(lambda: windows.changed() or windows.front() == Front(), "its end")
    wait_for(lambda: (0xFF000002, 7) in compositor.got, "the handle to be given back")
    windows.close()


def test_a_compositor_that_tells_nothing_is_named(folder: Path):
    silent = Compositor(folder, offers=False)
    with pytest.raises(BackendUnavailable, match="doesn't tell programs which window is in front"):
        WaylandWindows("wayland-7")
    with pytest.raises(BackendUnavailable, match="no Wayland compositor answers"):
        WaylandWindows("wayland-8")
    silent.close()


@pytest.mark.parametrize(
    "data",
    [
        struct.pack("=II", 9, 4 << 16),
        struct.pack("=IIII", 2, 16 << 16, 7, 99),
        struct.pack("=III", 1, 32 << 16, 1) + struct.pack("=I", 1) + text("no such") + b"\0" * 4,
    ],
)
def test_nonsense_is_the_end_of_it_and_no_crash(compositor: Compositor, data: bytes):
    windows = WaylandWindows("wayland-7")
    compositor.sock.sendall(data)

    def lost() -> bool:
        try:
            windows.changed()
        except BackendLost:
            return True
        return False

    wait_for(lost, "the loss to be told")
    windows.close()


class Sway:
    """wlroots' own implementation of the protocols, in sway without a screen."""

    def __init__(self, folder: Path, config: str = "") -> None:
        # sway doesn't run as root, and another user doesn't reach into root's folders.
        as_root = os.getuid() == 0
        self._other = ["setpriv", "--reuid=nobody", "--regid=nogroup", "--clear-groups", "--"] if as_root else []
        if as_root:
            shutil.chown(folder, "nobody")
        self._folder, self._started = folder, []
        file = folder / "config"
        file.write_text(f"xwayland disable\noutput HEADLESS-1 resolution 1280x800\n{config}")
        self._environment = {
            **{key: value for key, value in os.environ.items() if key not in ("DISPLAY", "HOME")},
            "HOME": str(folder),
            "WLR_BACKENDS": "headless",
            "WLR_RENDERER": "pixman",
            "WLR_LIBINPUT_NO_DEVICES": "1",
        }
        self.start("sway", "--unsupported-gpu", "-c", str(file))
        self.display = wait_for(lambda: next((p.name for p in folder.glob("wayland-?")), ""), "sway's socket")

    def start(self, *command: str, **more: str) -> None:
        """Start a program in it."""
        quiet = {"stdout": subprocess.DEVNULL, "stderr": subprocess.DEVNULL}
        environment = {**self._environment, **more}
        self._started.append(subprocess.Popen([*self._other, *command], env=environment, cwd=self._folder, **quiet))

    def end_last(self) -> None:
        """End what was started last."""
        process = self._started.pop()
        process.terminate()
        process.wait(10)

    def close(self) -> None:
        """End all of it."""
        while self._started:
            self.end_last()


@pytest.fixture
def sway(monkeypatch: pytest.MonkeyPatch) -> Iterator[Sway]:
    with tempfile.TemporaryDirectory() as name:
        monkeypatch.setenv("XDG_RUNTIME_DIR", name)
        made = Sway(Path(name))
        yield made
        made.close()


@pytest.mark.skipif(not (shutil.which("sway") and shutil.which("foot")), reason="needs sway and foot")
def test_a_real_compositor_tells_the_same(sway: Sway):
    windows = WaylandWindows(sway.display)
    for app in ("kiln", "kelp"):
        sway.start("foot", "--app-id", app, "--title", f"The {app}", "sleep", "60", WAYLAND_DISPLAY=sway.display)
        wait_for(lambda app=app: windows.changed() or windows.front() == Front(0, app), f"{app} in front")
    assert sorted(shown.window_class for _, shown in windows.shown()) == ["kelp", "kiln"]
    sway.end_last()
    wait_for(lambda: windows.changed() or windows.front() == Front(0, "kiln"), "the first in front again")
    windows.close()


# The keyboard


def german() -> bytes:
    """A keymap of the German layout in XKB's text format, by libxkbcommon's own tool."""
    command = ["xkbcli", "compile-keymap", "--layout", "de"]
    return subprocess.run(command, capture_output=True, check=True).stdout + b"\0"


def in_memory(data: bytes) -> int:
    file = os.memfd_create("keymap")
    os.write(file, data)
    return file


needs_tool = pytest.mark.skipif(not shutil.which("xkbcli"), reason="needs xkbcli (libxkbcommon-tools)")


class SeatedCompositor(Compositor):
    """Has a seat with a keyboard of this keymap; without one, a seat alone."""

    def __init__(
        self, folder: Path, keymap: bytes = b"", form: int = 1, size: int | None = None, *, file: bool = True
    ) -> None:
        self._keymap, self._form, self._file = keymap, form, file
        self._size = len(keymap) if size is None else size
        self._seat = 0
        super().__init__(folder)

    def _request(self, message: bytes) -> None:
        target, head = struct.unpack_from("=II", message)
        body, opcode = message[8:], head & 0xFFFF
        if (target, opcode) == (1, 1):
            self.send(2, 0, struct.pack("=I", 3) + text("wl_seat") + struct.pack("=I", 7))
        elif (target, opcode) == (2, 0) and struct.unpack_from("=I", body)[0] == 3:
            self._seat = struct.unpack_from("=I", body, len(body) - 4)[0]
            self.send(self._seat, 0, struct.pack("=I", 2 if self._keymap else 1))
            return
        elif self._seat and (target, opcode) == (self._seat, 1):
            keyboard = struct.unpack_from("=I", body)[0]
            event = struct.pack("=IIII", keyboard, 16 << 16, self._form, self._size)
            file = in_memory(self._keymap)
            socket.send_fds(self.sock, [event], [file] if self._file else [])
            os.close(file)
            return
        super()._request(message)


@needs_tool
def test_the_compositors_keymap_is_the_layout_in_use(folder: Path, monkeypatch: pytest.MonkeyPatch):
    monkeypatch.setenv("PATH", str(folder), prepend=":")
    made = SeatedCompositor(folder, german())
    try:
        found = find_layout(
            "", {"WAYLAND_DISPLAY": "wayland-7", "XDG_RUNTIME_DIR": str(folder), "XDG_CURRENT_DESKTOP": "sway"}, folder
        )
    finally:
        made.close()
    assert (found.layout, found.source) == ("German", "the compositor")
    # What libxkbcommon makes of the layout's name it makes of the keymap.
    keymap, name = Typist(found), Typist(Layout("de"))
    assert (keymap.legends, keymap.levels) == (name.legends, name.levels)
    assert keymap.strokes("Grüße @é") == name.strokes("Grüße @é")


@needs_tool
def test_settings_of_another_desktop_dont_count_where_the_compositor_tells(
    folder: Path, monkeypatch: pytest.MonkeyPatch
):
    """Somebody who had GNOME before."""
    gsettings = folder / "gsettings"
    gsettings.write_text("#!/bin/sh\necho \"[('xkb', 'gb')]\"\n")
    gsettings.chmod(0o755)
    keymap = german()
    monkeypatch.setenv("PATH", str(folder))
    made = SeatedCompositor(folder, keymap)
    try:
        session = {"WAYLAND_DISPLAY": "wayland-7", "XDG_RUNTIME_DIR": str(folder), "XDG_CURRENT_DESKTOP": "sway"}
        assert find_layout("", session, folder).layout == "German"
    finally:
        made.close()
    (folder / "wayland-7").unlink()
    assert find_layout("", {**session, "XDG_CURRENT_DESKTOP": "ubuntu:GNOME"}, folder).layout == "gb"


@pytest.mark.parametrize(
    "told",
    [
        {},
        {"keymap": b"of another kind\0", "form": 0},
        {"keymap": b"shorter than it says\0", "size": 40_000},
        {"keymap": b"larger than any\0", "size": 1 << 31},
        {"keymap": b"never sent\0", "file": False},
    ],
)
def test_a_seat_without_a_keymap_tells_nothing(folder: Path, told: dict[str, Any], monkeypatch: pytest.MonkeyPatch):
    monkeypatch.setenv("PATH", str(folder))
    made = SeatedCompositor(folder, **told)
    try:
        session = {"WAYLAND_DISPLAY": "wayland-7", "XDG_RUNTIME_DIR": str(folder)}
        assert find_layout("", session, folder) == Layout("us")
    finally:
        made.close()


def test_a_keymap_that_isnt_one_is_refused_like_a_layout_that_isnt_one():
    with pytest.raises(BackendUnavailable, match="no keyboard layout"):
        Typist(Layout("German", source="the compositor", keymap="xkb_keymap { nonsense"))


@needs_tool
@pytest.mark.skipif(not shutil.which("sway"), reason="needs sway")
def test_a_real_compositor_gives_its_keymap(sway: Sway):
    """The one of a virtual keyboard (virtual-keyboard-unstable-v1), since there are no devices."""
    assert keymap(sway.display) == ""
    told: list[tuple[int, int]] = []
    wire = Wire(sway.display, lambda source, opcode, body: told.append((source, opcode)))
    seat, manager = wire.bind("wl_seat", 1), wire.bind("zwp_virtual_keyboard_manager_v1", 1)
    assert manager
    virtual = wire.new()
    wire.send(manager, 0, struct.pack("=II", seat, virtual))
    file = in_memory(german())
    head = struct.pack("=IIII", virtual, 16 << 16, 1, len(german()))
    socket.send_fds(wire._sock, [head], [file])
    os.close(file)
    wire.round_trip()
    found = wait_for(lambda: keymap(sway.display), "the keymap")
    assert 'name[1]="German"' in found or 'name[Group1]="German"' in found
    session = {
        "WAYLAND_DISPLAY": sway.display,
        "XDG_RUNTIME_DIR": os.environ["XDG_RUNTIME_DIR"],
        "XDG_CURRENT_DESKTOP": "sway",
    }
    assert find_layout("", session).layout == "German"
    wire.close()
