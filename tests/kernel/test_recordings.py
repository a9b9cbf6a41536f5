"""Recordings with the tools that others use: evemu's and libinput's, on real devices."""

from __future__ import annotations

import re
import shutil
import signal
import subprocess
from pathlib import Path

import pytest

from nakrel.core.model.macro import Macro, Play
from nakrel.core.model.steps import Press, Release, Repeat, Tap, Wait
from nakrel.core.play.simulate import plan
from nakrel.storage.recordings import read_recording, to_evemu
from tests.kernel.injector import HidKeyboard
from tests.kernel.witness import Witness
from tests.support import pause, wait_for

pytestmark = pytest.mark.skipif(not shutil.which("evemu-play"), reason="needs evemu-tools")


@pytest.mark.parametrize("tool", ["evemu-record", "libinput"])
def test_what_their_tools_record_is_read(tool: str, tmp_path: Path):
    keyboard = HidKeyboard()
    recording = tmp_path / "recording"
    options = [tool] if tool == "evemu-record" else [tool, "record", "--show-keycodes"]
    # Line by line: into a file they would write in blocks.
    command = ["stdbuf", "-oL", *options, keyboard.path]
    with recording.open("w") as out:
        process = subprocess.Popen(command, stdout=out, stderr=subprocess.DEVNULL)
    try:
        ready = "Waiting for events" if tool == "evemu-record" else "events:"
        wait_for(lambda: ready in recording.read_text() or process.poll() is not None, "the tool to be ready")
        pause(1)
        keyboard.tap("KEY_A")
        keyboard.tap("KEY_S")
        wait_for(lambda: re.search(r"KEY_S\s+0", recording.read_text()), "the recording")
    finally:
        process.send_signal(signal.SIGINT)
        process.wait()
        keyboard.unplug()
    found = [step for step in read_recording(recording) if not isinstance(step, Wait)]
    wanted = [kind(control=f"KEY_{key}") for key in "AS" for kind in (Press, Release)]
    assert found == wanted


def test_evemu_plays_what_we_write(witness: Witness, tmp_path: Path):
    thrice = Repeat(times=3, steps=(Tap(control="KEY_Q", hold_us=20_000), Wait(wait_us=30_000)))
    macro = Macro(id="m", name="Three", loop=(thrice, Tap(control="KEY_W", hold_us=0)))
    path = tmp_path / "three"
    path.write_text(to_evemu(macro, plan(macro, Play())))
    device = subprocess.Popen(["evemu-device", str(path)], stdout=subprocess.PIPE, text=True)
    try:
        assert device.stdout
        node = device.stdout.readline().split()[-1]
        witness.knows(Path(node).name)
        with path.open() as recording:
            subprocess.run(["evemu-play", node], stdin=recording, check=True)
        wait_for(lambda: len(witness.seen) == 8, "eight edges")
    finally:
        device.terminate()
        device.wait()
        device.stdout.close()
    assert [(seen.control, seen.value) for seen in witness.seen] == [
        *[("KEY_Q", 1), ("KEY_Q", 0)] * 3,
        *[("KEY_W", 1), ("KEY_W", 0)],
    ]
