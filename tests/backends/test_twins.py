"""A virtual device gets what people have set in the X server for the device that it stands for."""

from __future__ import annotations

import io
import re
import shutil
import struct
import subprocess
import threading
from collections.abc import Iterator

import pytest
import xcffib.xkb

from nakrel.backends.protocols import BackendUnavailable
from nakrel.backends.x11.twins import CORE, make_alike
from nakrel.backends.x11.wire import ALL_DEVICES, XConnection
from tests.support import wait_for
from tests.xorg import XorgServer

pytestmark = [
    pytest.mark.x11,
    pytest.mark.skipif(bool(XorgServer.missing()), reason=f"needs {XorgServer.missing()}"),
    pytest.mark.skipif(not all(map(shutil.which, ("xinput", "xkbcomp", "setxkbmap"))), reason="needs xinput, xkbcomp"),
]
PAIRS = [("/dev/input/event3", "/dev/input/event13"), ("/dev/input/event4", "/dev/input/event14")]
NODES = dict(zip(("keyboard", "twin keyboard", "mouse", "twin mouse"), [*PAIRS[0], *PAIRS[1]], strict=True))


class Desk:
    """The devices of the server, with the event nodes that they would have on a kernel's."""

    def __init__(self, server: XorgServer) -> None:
        self.server = server
        self.conn, self.xi, _ = XConnection.open(server.display)
        self.xkb = self.conn(xcffib.xkb.key)
        self.xkb.UseExtension(1, 0).reply()
        infos = self.xi.XIQueryDevice(ALL_DEVICES).reply().infos
        self.ids = {bytes(info.name.buf()).decode(): info.deviceid for info in infos}
        for name, node in NODES.items():
            self.put(name, "Device Node", "STRING", 8, node.encode())

    def put(self, device: str, name: str, kind: str, bits: int, data: bytes) -> None:
        """Give a device a property, as drivers do."""
        atom, of = (self.conn.core.InternAtom(False, len(each), each).reply().atom for each in (name, kind))
        head = struct.pack("=4xHBBIII", self.ids[device], 0, bits, atom, of, len(data) * 8 // bits)
        body = io.BytesIO(head + data + bytes(-len(data) % 4))
        self.xi.send_request(57, body, is_checked=True).check()

    def run(self, *command: str) -> str:
        """A tool that people use; "<name>" stands for that device's number."""
        words = [str(self.ids[word[1:-1]]) if word[:1] == "<" else word for word in command]
        ran = subprocess.run(words, env=self.server.environment, capture_output=True, text=True, check=True)
        return ran.stdout

    def property(self, device: str, name: str) -> str:
        """Its values, as xinput tells them."""
        lines = self.run("xinput", "list-props", f"<{device}>").splitlines()
        return next(line.partition(":")[2].strip() for line in lines if line.strip().startswith(f"{name} ("))

    def keymap(self, device: str) -> str:
        """What its keys make."""
        text = self.run("xkbcomp", "-xkb", "-i", f"<{device}>", self.server.display, "-")
        return re.sub(r'(?s).*xkb_symbols ".*?"', "", text)

    def rate(self, device: str) -> tuple[int, int, int]:
        told = self.xkb.GetControls(self.ids[device]).reply()
        return told.repeatDelay, told.repeatInterval, told.enabledControls & 1


@pytest.fixture
def desk() -> Iterator[Desk]:
    server = XorgServer(twins=True)
    made = Desk(server)
    yield made
    made.conn.disconnect()
    server.end_server()


_TWICE = ("2", "0", "0", "0", "2", "0", "0", "0", "1")


def set_by_hand(desk: Desk) -> None:
    """What somebody's login script does."""
    desk.run("setxkbmap", "-device", "<keyboard>", "-layout", "de,us", "-option", "caps:escape")
    repeat_keys, per_key = 1, 1 << 30
    off_for_a = [255] * 4 + [255 & ~(1 << 6)] + [255] * 27
    desk.xkb.SetControls(
        desk.ids["keyboard"], *[0] * 11, repeat_keys, 1, repeat_keys | per_key, 200, 25, *[0] * 12, off_for_a,
        is_checked=True,
    ).check()  # fmt: skip
    desk.run("xinput", "set-button-map", "<mouse>", "3", "2", "1", "5", "4")
    desk.run("xinput", "set-prop", "<mouse>", "Coordinate Transformation Matrix", *_TWICE)
    for device, speed, flat in (("mouse", -0.5, 1), ("twin mouse", 0.0, 0)):
        desk.put(device, "libinput Accel Speed", "FLOAT", 32, struct.pack("=f", speed))
        desk.put(device, "libinput Accel Profile Enabled", "INTEGER", 8, bytes((1 - flat, flat)))
        # What a device has by itself.
        desk.put(device, "libinput Accel Speed Default", "FLOAT", 32, struct.pack("=f", speed))


def test_a_twin_is_set_as_the_device_that_it_stands_for(desk: Desk):
    set_by_hand(desk)
    assert desk.keymap("keyboard") != desk.keymap("twin keyboard")
    make_alike(desk.server.display, PAIRS)
    assert desk.keymap("keyboard") == desk.keymap("twin keyboard")
    made = desk.keymap("twin keyboard")
    # Both groups, and the option.
    assert re.search(r"key <AC11> {[^}]*adiaeresis[^}]*apostrophe", made)
    assert re.search(r"key <CAPS> {[^}]*Escape", made)
    assert desk.rate("twin keyboard") == (200, 25, 1)
    off = [desk.xkb.GetControls(desk.ids[each]).reply().perKeyRepeat.list for each in ("keyboard", "twin keyboard")]
    assert off[0] == off[1]
    # The twin has twelve buttons and the mouse twenty.
    assert desk.run("xinput", "get-button-map", "<twin mouse>").strip() == "3 2 1 5 4 6 7 8 9 10 11 12"
    assert desk.property("twin mouse", "Coordinate Transformation Matrix").startswith("2.000000, 0.000000")
    assert desk.property("twin mouse", "libinput Accel Speed") == "-0.500000"
    assert desk.property("twin mouse", "libinput Accel Profile Enabled") == "0, 1"
    assert desk.property("twin mouse", "libinput Accel Speed Default") == "0.000000"
    # Nobody else's device was touched.
    assert desk.run("xinput", "get-button-map", "<Virtual core XTEST pointer>").split()[:3] == ["1", "2", "3"]


def test_a_twin_that_the_server_has_yet_to_open_is_waited_for(desk: Desk):
    set_by_hand(desk)
    for name in ("twin keyboard", "twin mouse"):
        desk.run("xinput", "disable", f"<{name}>")
    errors: list[BaseException] = []

    def work() -> None:
        try:
            make_alike(desk.server.display, PAIRS, 30)
        except BaseException as error:
            errors.append(error)

    thread = threading.Thread(target=work)
    thread.start()
    desk.run("xinput", "enable", "<twin mouse>")
    wait_for(lambda: desk.property("twin mouse", "libinput Accel Speed") == "-0.500000", "the mouse's settings")
    assert thread.is_alive()
    desk.run("xinput", "enable", "<twin keyboard>")
    thread.join(15)
    assert not thread.is_alive()
    assert not errors
    assert desk.rate("twin keyboard") == (200, 25, 1)
    assert desk.keymap("keyboard") == desk.keymap("twin keyboard")


def test_what_the_server_does_not_know_is_not_waited_for_in_vain(desk: Desk):
    set_by_hand(desk)
    before = desk.keymap("twin keyboard")
    # A device that the server has no use for has no settings there, and a twin that doesn't come is given up.
    make_alike(desk.server.display, [("/dev/input/event77", PAIRS[0][1])], 30)
    make_alike(desk.server.display, [(PAIRS[0][0], "/dev/input/event78")], 0.05)
    assert desk.keymap("twin keyboard") == before
    # Of several devices that one stands for the first counts.
    make_alike(desk.server.display, [PAIRS[0], ("/dev/input/event77", PAIRS[0][1]), (PAIRS[1][0], PAIRS[0][1])], 0.05)
    assert desk.keymap("keyboard") == desk.keymap("twin keyboard")


def test_where_no_keyboard_is_known_the_keys_are_as_on_all_together(desk: Desk):
    set_by_hand(desk)
    desk.run("setxkbmap", "fr")
    # One that comes after that.
    desk.run("setxkbmap", "-device", "<twin keyboard>", "us")
    make_alike(desk.server.display, [("/dev/input/event77", PAIRS[0][1]), (CORE, PAIRS[0][1])])
    assert re.search(r"key <AD01> {[^}]*a,", desk.keymap("twin keyboard"))


def test_without_a_server_it_says_so():
    with pytest.raises(BackendUnavailable, match="no X server answers"):
        make_alike(":987", PAIRS)


def test_the_node_of_each_device_is_known(desk: Desk):
    assert {each.name: each.node for each in desk.conn.slaves(desk.xi) if each.node} == NODES
