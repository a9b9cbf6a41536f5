"""Recordings: the round trip, files by the real tools, an independent reader of VCD, and damaged files."""

from __future__ import annotations

import csv
import io
import signal
import tempfile
from pathlib import Path

import pytest
import yaml
from hypothesis import example, given
from hypothesis import strategies as st
from vcdvcd import VCDVCD

from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro, Play
from nakrel.core.model.runs import RunEvent, RunRecord
from nakrel.core.model.steps import Branch, Note, PickOne, Press, Release, Repeat, Tap, Text, Wait, Wheel
from nakrel.core.play.simulate import plan
from nakrel.storage.recordings import (
    WRITERS,
    events_csv,
    read_recording,
    run_csv,
    run_vcd,
    steps_csv,
    to_evemu,
    to_libinput,
    to_vcd,
)
from tests.strategies import steps

# The VCD reader lets a broken pipe end the process; Python, and so Nakrel, takes it for an error.
signal.signal(signal.SIGPIPE, signal.SIG_IGN)

MACRO = Macro(
    id="m",
    name="Reel in",
    loop=(
        Repeat(times=2, steps=(Tap(control="KEY_Q", hold_us=20_000), Wait(wait_us=30_000))),
        Press(control="BTN_SIDE"),
        Wait(wait_us=1_500_001),
        Wheel(control="WHEEL_DOWN", notches=3),
        Release(control="BTN_SIDE"),
    ),
)
PLAN = plan(MACRO, Play())
# Written by evemu-record 2.7 and by libinput record 1.22 in their documentation's form, for keys A and S; from memory.
EVEMU = """\
# EVEMU 1.3
N: AT Translated Set 2 keyboard
I: 0011 0001 0001 ab41
E: 0.000001 0004 0004 0030	# EV_MSC / MSC_SCAN             30
E: 0.000001 0001 001e 0001	# EV_KEY / KEY_A                1
E: 0.000001 0000 0000 0000	# ------------ SYN_REPORT (0) ----------
E: 0.250001 0001 001e 0002	# EV_KEY / KEY_A                2
E: 0.264010 0001 001e 0000	# EV_KEY / KEY_A                0
E: 1.264010 0002 0008 -001	# EV_REL / REL_WHEEL            -1
"""
LIBINPUT = """\
version: 1
ndevices: 1
devices:
- node: /dev/input/event3
  evdev:
    name: "Some keyboard"
  events:
  # Current time is 12:00:00
  - evdev:
    - [  0,      0,   4,   4,      30] # EV_MSC / MSC_SCAN             30
    - [  0,      0,   1,  30,       1] # EV_KEY / KEY_A                 1
    - [  0,      0,   0,   0,       0] # ------------ SYN_REPORT (0) ---------- +0ms
  - evdev:
    - [  0,  64010,   1,  30,       0] # EV_KEY / KEY_A                 0
"""


def saved(folder: Path, text: str) -> Path:
    path = folder / "recording"
    path.write_text(text, encoding="utf-8")
    return path


def test_a_recording_by_evemu_is_read(tmp_path: Path):
    assert read_recording(saved(tmp_path, EVEMU)) == [
        Press(control="KEY_A"),
        Wait(wait_us=264_009),
        Release(control="KEY_A"),
        Wait(wait_us=1_000_000),
        Wheel(control="WHEEL_DOWN"),
    ]


def test_a_recording_by_libinput_is_read(tmp_path: Path):
    wanted = [Press(control="KEY_A"), Wait(wait_us=64_010), Release(control="KEY_A")]
    assert read_recording(saved(tmp_path, LIBINPUT)) == wanted


@pytest.mark.parametrize("write", [to_evemu, to_libinput, events_csv])
def test_what_was_written_is_read_with_the_same_events_at_the_same_times(write, tmp_path: Path):
    found = read_recording(saved(tmp_path, write(MACRO, PLAN)))
    assert plan(Macro(id="x", name="X", loop=tuple(found)), Play()) == PLAN


@given(st.lists(steps(["KEY_Q", "KEY_W", "BTN_LEFT"], st.integers(0, 9_000)), max_size=8))
# Readers of tables take a carriage return for the end of a row, unless it is quoted.
@example([Tap(control="KEY_Q", hold_us=1), Text(secret="\r0")])
def test_any_plan_makes_the_trip_from_its_first_event_on(some: list):
    macro = Macro(id="m", name="M", loop=tuple(some))
    # What a pointer on a screen, a text and a program do is no event of an input device.
    every = plan(macro, Play())
    rows = [row for row in every if not row.text]
    for write in (to_evemu, to_libinput, events_csv):
        with tempfile.TemporaryDirectory() as folder:
            found = read_recording(saved(Path(folder), write(macro, every))) if rows else []
        back = plan(Macro(id="x", name="X", loop=tuple(found)), Play())
        first = rows[0].time_us if rows else 0
        assert back == [row._replace(time_us=row.time_us - first) for row in rows]


def test_an_independent_reader_finds_every_edge_in_the_vcd():
    found = VCDVCD(vcd_string=to_vcd(MACRO, PLAN))
    assert found.timescale["magnitude"] == 1
    assert found.timescale["unit"] == "us"
    for name in ("KEY_Q", "BTN_SIDE"):
        changes = [(at, int(value)) for at, value in found[f"Reel_in.{name}"].tv]
        edges = [(row.time_us, row.value) for row in PLAN if row.control == name]
        # At 0 everything is up, before what happens there.
        assert [change for change in changes if change != (0, 0)] == edges
    wheel = found["Reel_in.WHEEL_DOWN"].tv
    assert [(at, int(value, 2)) for at, value in wheel] == [(0, 0), (1_600_001, 3)]


def test_the_libinput_recording_is_yaml_with_what_replay_needs():
    loaded = yaml.safe_load(to_libinput(MACRO, PLAN))
    (device,) = loaded["devices"]
    assert device["evdev"]["codes"] == {0: [0], 1: [16, 272, 275], 2: [0, 1, 8]}
    assert loaded["ndevices"] == 1


def test_steps_as_csv():
    macro = Macro(
        id="m", name="M", loop=(Note(text="a, b"), PickOne(branches=(Branch(weight=2, steps=(Wait(wait_us=5),)),)))
    )
    assert list(csv.reader(io.StringIO(steps_csv(macro, [])))) == [
        ["section", "depth", "step", "length_ms", "on", "remark"],
        ["loop", "0", "note", "0", "1", "a, b"],
        ["loop", "0", "random choice", "0.005", "1", ""],
        ["loop", "1", "option of weight 2", "", "1", ""],
        ["loop", "2", "wait 0.005 ms", "0.005", "1", ""],
    ]


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "no recording of evemu-record or libinput record"),
        ("E: 0.1 0001 001e 0001\nE: now", "line 2: 'E: now' is no event"),
        ("devices:\n- events:\n  - evdev:\n    - [1, 2]", "is not built like a recording"),
        ("devices: 5", "is not built like a recording"),
        ("devices: [", "no proper YAML"),
        ("devices:\n- events:\n  - evdev:\n    - [1, 2, x, 4, 5]", "is not built like a recording"),
    ],
)
def test_damaged_files_are_named_with_the_reason(text: str, words: str, tmp_path: Path):
    with pytest.raises(DataError, match=words):
        read_recording(saved(tmp_path, text))


def test_files_that_are_no_text_or_too_large_or_not_there_are_named(tmp_path: Path, monkeypatch: pytest.MonkeyPatch):
    path = tmp_path / "binary"
    path.write_bytes(b"\xff\xfe\x00E:")
    with pytest.raises(DataError, match="is not text"):
        read_recording(path)
    with pytest.raises(DataError, match="can't be read: it isn't there"):
        read_recording(tmp_path / "nothing")
    monkeypatch.setattr("nakrel.storage.recordings.MOST_BYTES", 2)
    with pytest.raises(DataError, match="larger than"):
        read_recording(path)
    assert set(WRITERS) == {"vcd", "csv", "events", "evemu", "libinput"}


RUN = RunRecord(
    "m", 5, (RunEvent("KEY_Q", 1, 0, 12), RunEvent("WHEEL_UP", 3, 40, 44), RunEvent("KEY_Q", 0, 50, 55)), 0, 1, ""
)


def test_a_run_goes_out_as_a_table_of_planned_and_sent_times():
    assert run_csv(RUN).splitlines() == [
        "control,value,planned_us,sent_us,late_us",
        "KEY_Q,1,0,12,12",
        "WHEEL_UP,3,40,44,4",
        "KEY_Q,0,50,55,5",
    ]


def test_an_independent_reader_finds_what_a_run_planned_and_sent():
    found = VCDVCD(vcd_string=run_vcd(MACRO, RUN))
    assert [(at, int(value)) for at, value in found["Reel_in.planned.KEY_Q"].tv] == [(0, 0), (0, 1), (50, 0)]
    assert [(at, int(value)) for at, value in found["Reel_in.sent.KEY_Q"].tv] == [(0, 0), (12, 1), (55, 0)]
    assert [(at, int(value, 2)) for at, value in found["Reel_in.sent.WHEEL_UP"].tv][-1] == (44, 3)


@pytest.mark.parametrize("line", ["x,KEY_Q,1,", "5,KEY_NONE,1,", "5,KEY_Q,down,"])
def test_a_table_with_a_wrong_line_is_named_with_its_number(line: str, tmp_path: Path):
    with pytest.raises(DataError, match="line 3: .* is no event; it should read 1000,KEY_Q,1"):
        read_recording(saved(tmp_path, f"time_us,control,value,words\n1,KEY_Q,1,\n{line}\n"))
