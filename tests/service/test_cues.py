"""Cues: what is heard and seen over a game, how soon, and that nothing fails where there is no sound or screen."""

from __future__ import annotations

import json
import os
import shutil
import statistics
import subprocess
import sys
import threading
import time
import wave
from array import array
from collections.abc import Iterator
from pathlib import Path
from unittest.mock import Mock

import pytest

from nakrel import protocol as m
from nakrel.core.model.cues import Cue, CueSettings
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.settings import SettingsPatch
from nakrel.core.model.steps import Tap
from nakrel.core.play.events import RunEnded, RunStarted
from nakrel.cues import sounds
from nakrel.service.cues import Cues
from nakrel.service.loop import Loop
from nakrel.service.worker import Worker
from tests.support import LIMIT_S, ServiceProcess, XServer, wait_for

TOGGLE = Macro(id="reel", name="Reel in", play=Play(Mode.TOGGLE), loop=(Tap(control="KEY_F13", hold_us=20_000),))
WAV = Path(sounds.__file__).parent / "wav"


def test_every_cue_has_a_sound_and_all_are_small():
    assert {path.stem for path in WAV.glob("*.wav")} == {cue.value for cue in Cue}
    assert sum(path.stat().st_size for path in WAV.iterdir()) <= 100_000
    for path in WAV.glob("*.wav"):
        with wave.open(str(path)) as file:
            samples = array("h", file.readframes(file.getnframes()))
            assert file.getnframes() / file.getframerate() < 0.35
        # It begins and ends in silence, so that nothing clicks, and is heard between.
        assert abs(samples[0]) < 400
        assert abs(samples[-1]) < 400
        assert max(samples) > 20_000


@pytest.fixture
def server() -> Iterator[XServer]:
    if missing := XServer.missing():
        pytest.skip(f"needs {missing}")
    found = XServer()
    yield found
    found.end_server()


def lines(server: XServer) -> list[str]:
    """The windows that say something over the others."""
    command = ["xdotool", "search", "--onlyvisible", "--name", "^Nakrel says$"]
    return subprocess.run(command, env=server.environment, capture_output=True, text=True).stdout.split()


def test_a_line_is_shown_over_everything_and_goes_again(server: XServer, tmp_path: Path):
    service = ServiceProcess(tmp_path / "home", "--backend", "stand-in", DISPLAY=server.display)
    try:
        service.call(m.PutMacro(TOGGLE))
        service.call(m.ChangeSettings(SettingsPatch(cues=CueSettings(lines=(Cue.ON, Cue.STOP)))))
        # It begins with the first that comes once its process is ready.
        for _ in range(100):
            service.call(m.Play_("reel"))
            service.call(m.Stop("reel"))
            if lines(server):
                break
            threading.Event().wait(0.1)
        assert lines(server)
        before = subprocess.run(
            ["xdotool", "getwindowfocus"], env=server.environment, capture_output=True, text=True
        ).stdout
        wait_for(lambda: not lines(server), "the line to go")
        service.call(m.Stop())
        wait_for(lambda: lines(server), "the line of the stop")
        after = subprocess.run(
            ["xdotool", "getwindowfocus"], env=server.environment, capture_output=True, text=True
        ).stdout
        assert after == before
        # A name that isn't chosen shows nothing.
        wait_for(lambda: not lines(server), "the line to go")
        service.call(m.ChangeSettings(SettingsPatch(cues=CueSettings(lines=(Cue.FAULT,)))))
        service.call(m.Stop())
        assert not lines(server)
        service.call(m.ChangeSettings(SettingsPatch(cues=CueSettings())))
    finally:
        service.end()


def test_without_sound_and_screen_nothing_fails():
    told = [{"cue": "stop", "volume": 50, "text": "x"}, {"cue": "nothing", "volume": 50}]
    text = "".join(json.dumps(each) + "\n" for each in told)
    environment = {name: value for name, value in os.environ.items() if name not in ("DISPLAY", "PULSE_SERVER")}
    command = [sys.executable, "-m", "nakrel.cues", "--sounds", "--lines"]
    done = subprocess.run(command, input=text.encode(), env=environment, capture_output=True, timeout=LIMIT_S)
    assert done.returncode == 0
    # The sound libraries say in their own words what they miss.
    assert b"Traceback" not in done.stderr


class Speaker:
    """A sound server of its own with a silent output, and what is heard there."""

    RATE = 44_100

    def __init__(self, folder: Path) -> None:
        folder.mkdir()
        self.environment = {
            **os.environ,
            "PULSE_RUNTIME_PATH": str(folder),
            "HOME": str(folder),
            "XDG_RUNTIME_DIR": str(folder),
        }
        self.environment["PULSE_SERVER"] = f"unix:{folder / 'native'}"
        protocol = f"module-native-protocol-unix socket={folder / 'native'} auth-anonymous=1"
        modules = ("module-null-sink rate=44100 channels=1 sink_name=ear", protocol)
        command = ["pulseaudio", "-n", "--daemonize=no", "--exit-idle-time=-1", "--use-pid-file=no", "--system=no"]
        command += [part for module in modules for part in ("-L", module)]
        quiet = subprocess.DEVNULL
        self._server = subprocess.Popen(command, env=self.environment, stdout=quiet, stderr=quiet)
        wait_for((folder / "native").exists, "the sound server")
        record = ["parec", "-d", "ear.monitor", "--raw", "--format=s16le", "--channels=1", "--rate=44100"]
        self._ear = subprocess.Popen(
            [*record, "--latency-msec=5"], env=self.environment, stdout=subprocess.PIPE, stderr=quiet
        )
        self.loud_at: list[float] = []
        self._thread = threading.Thread(target=self._listen, daemon=True)
        self._thread.start()

    def _listen(self) -> None:
        assert self._ear.stdout
        while data := self._ear.stdout.read(220 * 2):
            if max(map(abs, array("h", data))) > 300:
                self.loud_at.append(time.monotonic())

    def end(self) -> None:
        for process in (self._ear, self._server):
            process.terminate()
            process.wait(LIMIT_S)
        self._thread.join(LIMIT_S)
        assert self._ear.stdout
        self._ear.stdout.close()


@pytest.mark.skipif(not shutil.which("pulseaudio") or not shutil.which("parec"), reason="needs pulseaudio, parec")
def test_a_sound_is_heard_soon(tmp_path: Path):
    """By a sound server's own monitor: from the request to the first loud sample. 50 ms are wanted; the limit here is
    wide, so that a busy machine doesn't fail it."""
    speaker = Speaker(tmp_path / "pulse")
    environment = {name: value for name, value in speaker.environment.items() if name.startswith(("PULSE", "XDG_R"))}
    service = ServiceProcess(tmp_path / "home", "--backend", "stand-in", **environment)
    try:
        service.call(m.ChangeSettings(SettingsPatch(cues=CueSettings(sounds=(Cue.STOP,), volume=90))))
        for _ in range(100):
            service.call(m.Stop())
            if speaker.loud_at:
                break
            threading.Event().wait(0.1)
        assert speaker.loud_at, "no sound"
        took = []
        for _ in range(7):
            wait_for(lambda: time.monotonic() - speaker.loud_at[-1] > 0.3, "silence")
            count, began = len(speaker.loud_at), time.monotonic()
            service.call(m.Stop())
            wait_for(lambda: len(speaker.loud_at) > count, "the sound")  # noqa: B023
            took.append(speaker.loud_at[count] - began)
        sys.stdout.write(f"heard after {[round(each * 1_000) for each in took]} ms\n")
        assert statistics.median(took) < 0.25
    finally:
        service.end()
        speaker.end()


class Told:
    """A host with a light, that notes it."""

    in_front = False

    def __init__(self) -> None:
        self.light: list[bool] = []
        self.loop = Loop(lambda error: None)
        self.cues = Cues(Worker(self.loop, "worker"), self, lambda text, why: None, self.light.append)


def test_the_light_shows_what_was_chosen_for_it():
    told = Told()
    cues = told.cues
    cues.change(CueSettings(light="toggle"))
    cues.tell(Cue.RECORDING, "Recording")
    cues.run_started(RunStarted("a", "", Mode.SINGLE), "A")
    assert told.light == []
    for macro in ("b", "c"):
        cues.run_started(RunStarted(macro, "", Mode.TOGGLE), macro)
    cues.run_ended(RunEnded("b", 1, "", 0), "b")
    assert told.light == [True]
    cues.run_ended(RunEnded("c", 1, "", 0), "c")
    assert told.light == [True, False]
    cues.change(CueSettings(light="recording"))
    assert told.light == [True, False, True]
    cues.tell(Cue.RECORDED, "Recorded")
    cues.tell(Cue.RECORDING, "Recording")
    cues.end()
    assert told.light == [True, False, True, False, True, False]
    told.loop.close()


def test_a_cue_that_is_tried_is_heard_and_seen_though_none_is_chosen(monkeypatch: pytest.MonkeyPatch):
    monkeypatch.setenv("DISPLAY", ":99")
    monkeypatch.delenv("WAYLAND_DISPLAY", raising=False)
    # What the process is started with, in place of starting it.
    started = Mock()
    monkeypatch.setattr("nakrel.service.cues.subprocess.Popen", started)
    monkeypatch.setattr("nakrel.service.cues.os.set_blocking", Mock())
    worker = Mock()
    worker.do.side_effect = lambda work, done: work()
    Cues(worker, Mock(in_front=False), Mock(), Mock()).attempt(Cue.LIVE)
    assert started.call_args.args[0][-2:] == ["--sounds", "--lines"]
