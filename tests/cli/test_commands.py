"""The command line, against a service of its own."""

from __future__ import annotations

import csv
import io
import json
import socket
import subprocess
import sys
import threading
from collections.abc import Iterator
from pathlib import Path

import msgspec
import pytest
from click.testing import CliRunner, Result
from wcwidth import wcswidth

from nakrel import protocol as m
from nakrel.cli.main import main
from nakrel.core.model.cells import RunMacro
from nakrel.core.model.controls import CONTROLS
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.names import read_control
from nakrel.core.model.profile import MatchBy, Profile, ProgramRule
from nakrel.core.model.steps import Branch, Open, PickOne, Pointer, Tap, Text, Wait
from nakrel.core.play.simulate import plan
from nakrel.demo.data import MACROS, PROFILES
from nakrel.demo.seed import seed
from nakrel.storage import files
from nakrel.storage.home import Home
from nakrel.storage.library import Library
from tests.loaded import LoadedService
from tests.support import ServiceProcess


@pytest.fixture
def home(tmp_path: Path) -> Path:
    seed(Home.find(tmp_path / "home"))
    return tmp_path / "home"


@pytest.fixture
def service(home: Path) -> Iterator[ServiceProcess]:
    process = LoadedService(home, "--backend", "stand-in")
    yield process
    process.end()


def run(home: Path, *arguments: str, code: int = 0) -> Result:
    result = CliRunner().invoke(main, ["--home", str(home), *arguments])
    assert result.exit_code == code, result.output
    return result


def test_lists_are_complete_and_as_json(home: Path):
    assert [row["name"] for row in json.loads(run(home, "profiles", "--json").stdout)] == sorted(
        p.name for p in PROFILES
    )
    rows = json.loads(run(home, "macros", "--json").stdout)
    assert {row["id"] for row in rows} == {x.id for x in MACROS}
    assert next(row for row in rows if row["id"] == "hop-step")["rate"] == "20/s"
    assert "Reel in" in run(home, "macros").stdout


def test_plan_prints_what_the_core_plays(home: Path):
    printed = list(csv.DictReader(io.StringIO(run(home, "plan", "Storm volley").stdout)))
    volley = next(x for x in MACROS if x.id == "storm-volley")
    told = [(int(r["time_us"]), r["control"], int(r["value"]), r["words"]) for r in printed]
    assert told == plan(volley, volley.play)
    # Worked by hand: five runs of three taps, a run every 3 * 34 + 2 * 66 + 120 = 354 ms.
    downs = [int(r["time_us"]) for r in printed if r["value"] == "1"]
    assert downs == [run * 354_000 + tap * 100_000 for run in range(5) for tap in range(3)]
    assert len(json.loads(run(home, "plan", "storm-volley", "--runs", "2", "--json").stdout)) == 12


def test_use_follow_live_play_and_stop(home: Path, service: ServiceProcess):
    run(home, "pin", "orrery post")
    assert "Orrery Post is live: pinned" in run(home, "live").stdout
    run(home, "play", "Steady oar")
    service.hear(lambda: service.status().running, "the run")
    assert "running: Steady oar" in run(home, "live").stdout
    assert run(home, "stop", "Steady oar").stdout == "Steady oar is ended.\n"
    service.hear(lambda: not service.status().running, "its end")
    assert run(home, "stop", "Steady oar").stdout == "Steady oar doesn't run.\n"
    run(home, "play", "Steady oar")
    run(home, "stop")
    assert json.loads(run(home, "live", "--json").stdout)["pinned"] == "orrery-post"
    run(home, "unpin")
    assert "Everyday is live" in run(home, "live").stdout


def test_a_held_macro_played_without_a_finger_plays_one_run(home: Path, service: ServiceProcess):
    run(home, "play", "Hop step")
    service.hear(lambda: service.seen("hop-step") == [("KEY_SPACE", 1), ("KEY_SPACE", 0)], "one tap")


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (("pin", "Tidewarden"), "there is no profile 'Tidewarden'; there are: Brackenfall Arena, Everyday"),
        (("plan", "Reel out"), "there is no macro 'Reel out'"),
    ],
)
def test_an_unknown_name_gets_the_names_there_are(home: Path, arguments: tuple[str, ...], words: str):
    assert words in run(home, *arguments, code=1).stderr


def test_of_many_names_the_nearest_are_told(home: Path):
    library = Library(Home.find(home))
    library.load()
    for number in range(300):
        library.put_macro(Macro(id=f"m{number}", name=f"Number {number}"))
    told = run(home, "plan", "reel inn", code=1).stderr
    assert "there is no macro 'reel inn'; nakrel macros lists them. Nearest to it: Reel in, " in told
    assert told.count(",") == 4


@pytest.mark.parametrize("arguments", [("play", "Steady oar"), ("type", "Good tide"), ("live",)])
def test_where_nothing_reaches_a_program_it_is_said_beside_the_answer(home: Path, arguments: tuple[str, ...]):
    process = ServiceProcess(home, DISPLAY="", WAYLAND_DISPLAY="")
    try:
        if not process.status().warning:
            pytest.skip("the kernel's input can be used here")
        assert "Nothing reaches other windows" in run(home, *arguments).stderr
        process.call(m.Stop(""))
    finally:
        process.end()


def test_a_home_that_is_a_file_is_refused(tmp_path: Path):
    path = tmp_path / "file"
    path.touch()
    assert run(path, "macros", code=1).stderr == f"nakrel: {path} is a file; --home takes a folder\n"


def test_where_there_is_none_yet_it_says_so(tmp_path: Path):
    assert run(tmp_path / "new", "plan", "Reel in", code=1).stderr == "nakrel: there is no macro yet\n"
    assert run(tmp_path / "new", "pin", "Tidewarden", code=1).stderr == "nakrel: there is no profile yet\n"


def test_no_name_that_fits_is_said(home: Path):
    assert "KEY_Q" in run(home, "controls", "key_q").stdout
    assert "no key or button has 'foo' in its name" in run(home, "controls", "foo", code=1).stderr
    assert json.loads(run(home, "controls", "foo", "--json").stdout) == []


@pytest.mark.parametrize("value", ["nan", "inf", "-1", "9", "1001", "sixty", ""])
def test_a_rate_that_is_none_is_refused(home: Path, value: str):
    wrong = run(home, "frames", "Reel in", "--rate", value, code=2).stderr
    assert f"{value!r} is no number from 10 to 1000" in wrong


def test_the_answer_is_json_without_frames_too(home: Path):
    def refuse(word: str) -> None:
        raise AssertionError(f"{word} is no JSON")

    out = run(home, "frames", "Reel in", "--events", "--json").stdout
    found = json.loads(out, parse_constant=refuse)
    assert (found["fps"], found["seen"]) == (None, 1.0)
    assert json.loads(run(home, "frames", "Reel in", "--json").stdout, parse_constant=refuse)["fps"] == 60


def test_a_damaged_file_is_reported_and_left_alone(home: Path):
    path = Home.find(home).macros / "Reel in.json"
    path.write_text("{")
    assert f"{path}: this is not JSON" in run(home, "macros").stderr
    assert path.read_text() == "{"


def test_two_macros_of_one_name_are_told_apart_by_id(home: Path):
    macro = Macro(id="other", name="Reel in", play=Play(Mode.SINGLE), loop=(Tap(control="KEY_Q", hold_us=1_000),))
    files.write(Home.find(home).macros / "Reel in 2.json", files.encode(macro))
    assert "reel-in" in run(home, "plan", "Reel in", code=1).stderr
    assert run(home, "plan", "other").stdout.splitlines() == [
        "time_us,control,value,words",
        "0,KEY_Q,1,",
        "1000,KEY_Q,0,",
    ]


def test_what_ends_something_starts_no_service_for_it(home: Path):
    assert run(home, "shutdown").stdout == "No service runs.\n"
    for macro in ((), ("Steady oar",)):
        assert run(home, "stop", *macro).stdout == "No service runs, and so no macro does.\n"
    assert not Home.find(home).socket.exists()


def test_a_service_that_does_not_answer_is_not_taken_for_none(home: Path):
    path = Home.find(home).socket
    path.parent.mkdir(parents=True, exist_ok=True)
    with socket.socket(socket.AF_UNIX) as deaf:
        deaf.bind(str(path))
        deaf.listen()
        ends = threading.Thread(target=lambda: deaf.accept()[0].close())
        ends.start()
        assert "the service" in run(home, "stop", code=1).stderr
        ends.join()


def test_doctor_examines_with_and_without_a_service(home: Path):
    links = {row["link"]: row for row in json.loads(CliRunner().invoke(main, ["doctor", "--json"]).stdout)}
    assert links["service"]["found"] == "no service runs"
    told = CliRunner().invoke(main, ["doctor"]).stdout
    for row in links.values():
        assert row["found"] in told
        assert row["state"] == "ok" or f"why it matters: {row['why']}" in told


def test_doctor_names_the_way_of_the_service_that_runs(home: Path, service: ServiceProcess):
    result = CliRunner().invoke(main, ["--home", str(home), "doctor"])
    assert result.exit_code == 1
    assert "BAD   service: the service runs and reaches no window" in result.stdout


def test_the_fix_is_shown_first_and_nothing_is_done_without_a_yes(home: Path, monkeypatch: pytest.MonkeyPatch):
    monkeypatch.setattr("nakrel.cli.doctor.subprocess.run", lambda *a, **k: pytest.fail("something was run"))
    result = CliRunner().invoke(main, ["--home", str(home), "doctor", "--fix"], input="n\n")
    assert 'KERNEL=="uinput", SUBSYSTEM=="misc"' in result.stdout
    assert "Nothing was changed." in result.stdout
    assert result.exit_code == 1


def test_a_text_is_typed_from_the_command_line(home: Path, service: ServiceProcess):
    run(home, "type", "--rate", "200", "hi")
    service.hear(lambda: [c for c, v in service.seen("typed-text") if v] == ["TEXT", "KEY_H", "KEY_I"], "both letters")
    assert "has no keys for" in run(home, "type", "字", code=1).output


def test_a_macro_goes_out_as_a_recording_and_comes_back(home: Path, service: ServiceProcess, tmp_path: Path):
    volley = next(x for x in MACROS if x.id == "storm-volley")
    for form in ("evemu", "libinput"):
        path = tmp_path / f"volley-{form}"
        run(home, "export", "Storm volley", "--as", form, "-o", str(path), "--runs", "1")
        told = run(home, "import", str(path), "--name", f"Back from {form}").stdout
        assert told.startswith(f"Back from {form}: ")
        rows = run(home, "plan", f"Back from {form}", "--json").stdout
        assert [tuple(row.values()) for row in json.loads(rows)] == plan(volley, volley.play, 1)
    assert run(home, "export", "Storm volley", "--as", "vcd").stdout.startswith("$version Nakrel $end")
    assert run(home, "export", "Storm volley", "--as", "csv").stdout.startswith("section,depth,step")
    assert "no recording of evemu-record" in run(home, "import", str(home / "config" / "settings.json"), code=1).output


def test_a_bundle_is_told_then_taken_and_opens_nothing(home: Path, service: ServiceProcess, tmp_path: Path):
    path = tmp_path / "shared.zip"
    opener = Macro(id="opener", name="Opener", loop=(Open(command=("tide-map",)),))
    service.call(m.PutMacro(opener))
    profile = next(p for p in PROFILES if p.id == "orrery-post")
    cells = {**profile.setups[0].cells, "BTN_SIDE": RunMacro("opener")}
    setup = msgspec.structs.replace(profile.setups[0], cells=cells)
    service.call(m.PutProfile(msgspec.structs.replace(profile, setups=(setup,))))
    assert "1 profile," in run(home, "bundle", "Orrery Post", "-o", str(path)).stdout
    told = run(home, "unpack", str(path)).stdout
    assert "opens (off until allowed):\n  Opener: tide-map" in told
    assert "Nothing imported" in told
    other = tmp_path / "other"
    seed(Home.find(other))
    fresh = ServiceProcess(other, "--backend", "stand-in")
    try:
        run(other, "unpack", str(path), "--take", "--clash", "replace")
        assert "Opener" in [x["name"] for x in json.loads(run(other, "macros", "--json").stdout)]
        assert run(other, "plan", "Opener").stdout.splitlines() == ["time_us,control,value,words"]
        run(other, "unpack", str(path), "--take", "--clash", "replace", "--allow", "tide-map")
        assert "open tide-map" in run(other, "plan", "Opener").stdout
    finally:
        fresh.end()
    assert "no zip archive" in run(home, "unpack", str(home / "config" / "settings.json"), code=1).output


def test_set_ups_are_listed_and_put_in_use(home: Path, service: ServiceProcess):
    assert run(home, "variant", "--profile", "tidewardens").stdout == "* Healer\n  Netter\n"
    assert run(home, "variant", "netter", "--profile", "Tidewardens").stdout == "Tidewardens plays as Netter\n"
    assert service.status().setups["tidewardens"] == "Netter"
    assert run(home, "variant", "--next", "--profile", "Tidewardens").stdout == "Tidewardens plays as Healer\n"
    run(home, "variant", "--previous", "--profile", "Tidewardens")
    assert service.status().setups["tidewardens"] == "Netter"
    wrong = run(home, "variant", "Bosun", "--profile", "Tidewardens", code=1)
    assert "Tidewardens has no variant 'Bosun'; it has Healer, Netter" in wrong.output
    # Everyday is live, and has one.
    assert run(home, "variant").stdout == "* Main\n"


def test_the_set_up_in_use_outlives_the_service(home: Path):
    first = ServiceProcess(home, "--backend", "stand-in")
    run(home, "variant", "Netter", "--profile", "Tidewardens")
    assert first.end() == 0
    second = ServiceProcess(home, "--backend", "stand-in")
    assert second.status().setups["tidewardens"] == "Netter"
    assert second.end() == 0


def test_game_keys_are_planned_with_a_profiles_keys(home: Path):
    told = run(home, "plan", "Haul the net", code=1)
    assert "names game keys (“Haul”, “Brace”); say whose with --profile" in told.output
    printed = run(home, "plan", "Haul the net", "--profile", "Tidewardens", "--runs", "1").stdout
    assert [row["control"] for row in csv.DictReader(io.StringIO(printed))][::2] == ["KEY_R", "KEY_LEFTCTRL", "KEY_R"]
    missing = run(home, "export", "Haul the net", "--as", "vcd", "--profile", "Everyday", code=1)
    assert "Everyday has no game key “Haul” and no “Brace”" in missing.output


def test_the_pointers_speed_stages_are_listed_and_chosen(home: Path, service: ServiceProcess):
    run(home, "use", "Brackenfall Arena")
    told = run(home, "speed")
    assert "* Walk: 100 % horizontal, 100 % vertical\n  Turn: 160 %" in told.stdout
    # The stand-ins have no motion.
    assert "No effect yet: this needs kernel input" in told.output
    run(home, "speed", "aim")
    assert service.status().stage == "Aim"
    run(home, "speed", "--next")
    assert service.status().stage == "Walk"
    run(home, "speed", "--previous")
    assert service.status().stage == "Aim"
    wrong = run(home, "speed", "Sprint", code=1)
    assert "Brackenfall Arena has no pointer speed 'Sprint'; it has Walk, Turn, Aim" in wrong.output
    run(home, "follow")


def keep(home: Path, macro: Macro) -> None:
    """Write a macro into the home, as the service would."""
    library = Library(Home.find(home))
    library.load()
    library.put_macro(macro)


def test_a_plan_that_ends_early_says_why(home: Path):
    tap = Tap(control="KEY_Q", hold_us=10_000)
    late = (tap, Wait(wait_us="100 - 60 * run"))
    keep(home, Macro(id="slip", name="Slip", play=Play(Mode.COUNTED, runs=5), loop=late))
    result = run(home, "plan", "slip", code=1)
    assert "Slip ends early, after 1 complete run: the formula '100 - 60 * run' gives -20 ms" in result.stderr
    # What came before is printed all the same.
    assert len(list(csv.DictReader(io.StringIO(result.stdout)))) == 4
    heavy = PickOne(branches=(Branch(weight="0 * run", steps=(tap,)), Branch(weight="run - run", steps=(tap,))))
    keep(home, Macro(id="none", name="None", loop=(heavy,)))
    assert "None ends early, after 0 complete runs: " in run(home, "plan", "none", code=1).stderr
    assert "every weight is 0" in run(home, "plan", "none", code=1).stderr
    keep(home, Macro(id="long", name="Long", play=Play(Mode.TOGGLE, limit_us=95_000, pause_us=10_000), loop=(tap,)))
    for runs in ((), ("--runs", "40")):
        result = run(home, "plan", "long", *runs)
        # Worked by hand: a run every 20 ms, the fifth of them begun at 80 ms and done at 90 ms.
        downs = [int(r["time_us"]) for r in csv.DictReader(io.StringIO(result.stdout)) if r["value"] == "1"]
        assert downs == [0, 20_000, 40_000, 60_000, 80_000]
        assert "Long ends early, after 5 complete runs: its time limit of 95 ms" in result.stderr
    assert len(run(home, "plan", "long", "--runs", "2").stdout.splitlines()) == 5
    assert run(home, "plan", "long", "--runs", "2").stderr == ""


def test_every_seed_is_one_of_its_own(home: Path):
    keep(home, Macro(id="sway", name="Sway", loop=(Wait(wait_us=1, most_us=10**8), Tap(control="KEY_Q", hold_us=1))))
    plans = {run(home, "plan", "sway", "--seed", seed).stdout for seed in ("0", "1", "-1", "12345678901234567890")}
    assert len(plans) == 4
    assert run(home, "plan", "sway", "--seed", "-1").stdout in plans


def test_an_export_says_what_it_leaves_out(home: Path):
    tap, move = Tap(control="KEY_Q", hold_us=10_000), Pointer(x=5, y=6)
    keep(home, Macro(id="all", name="All", loop=(tap, move, move, Text(text="hi"), Open(command=("true",)))))
    wanted = "2 moves of the pointer, 1 text, 1 program"
    for form, words in (("evemu", "Left out"), ("libinput", "Left out"), ("vcd", "Where to and what is left out of")):
        result = run(home, "export", "all", "--as", form)
        assert words in result.stderr
        assert wanted in result.stderr
        assert wanted in result.stdout
    assert run(home, "export", "all", "--as", "events").stderr == ""
    keep(home, Macro(id="plain", name="Plain", loop=(tap,)))
    assert run(home, "export", "plain", "--as", "evemu").stderr == ""


def test_the_names_of_all_controls_are_listed(home: Path):
    rows = json.loads(run(home, "controls", "--json").stdout)
    assert {row["code"] for row in rows} == set(CONTROLS)
    assert [row["name"] for row in json.loads(run(home, "controls", "page u", "--json").stdout)] == ["Page Up"]
    with pytest.raises(DataError, match="names are such as Q, Left Shift or Thumb back"):
        read_control("xyzzy key")
    assert {"Q", "Left Shift", "Thumb back"} <= {row["name"] for row in rows}


def test_the_frame_check_answers_on_the_command_line(home: Path):
    taps = Tap(control="KEY_Q", hold_us=5_000)
    keep(home, Macro(id="quick", name="Quick", play=Play(Mode.COUNTED, runs=10, pause_us=500_000), loop=(taps,)))
    assert "A game at 60 frames sees 30 % of the presses" in run(home, "frames", "quick", "--error", "0").stdout
    told = json.loads(run(home, "frames", "quick", "--rate", "100", "--error", "0", "--json").stdout)
    # min(1, h / T): a sample every T falls into a span of h (geometry).
    assert told["seen"] == pytest.approx(0.5)
    assert told["lost"] == pytest.approx(0.5)
    wide = json.loads(run(home, "frames", "quick", "--rate", "150", "--spread", "2", "--json").stdout)
    assert 0.7 < wide["seen"] < 0.75
    low = json.loads(run(home, "frames", "quick", "--rate", "150", "--low", "88.4", "--json").stdout)
    assert low["seen"] == pytest.approx(wide["seen"], abs=0.001)
    assert wide["worst"] == [{"control": "KEY_Q", "row": 0, "step": 1, "seen": pytest.approx(wide["seen"])}]
    assert "Worst of Q: step 1, 30 % seen" in run(home, "frames", "quick", "--error", "0").stdout
    ticks = json.loads(run(home, "frames", "quick", "--rate", "1000", "--tick", "20", "--error", "0", "--json").stdout)
    assert ticks["seen"] == pytest.approx(5 / 50, abs=0.01)
    assert "takes events in order sees all" in run(home, "frames", "quick", "--events").stdout
    keep(home, Macro(id="none", name="None", loop=(Wait(wait_us=5),)))
    assert "no press in it" in run(home, "frames", "none").stdout


@pytest.mark.parametrize("name", ["海潮", "שדה גלים", "Ключ 🔑", "Café", "plain"])
def test_columns_are_aligned_whatever_names_are_written_in(tmp_path: Path, name: str):
    """A terminal's cells: two for signs of East Asia and for pictures, none for accents (Unicode Standard Annex 11)."""
    library = Library(Home.find(tmp_path))
    library.put_profile(Profile(id="one", name=name, programs=(ProgramRule(match=MatchBy.NAME, value="game"),)))
    [line] = [each for each in run(tmp_path, "profiles").stdout.splitlines() if each.endswith("game")]
    assert name in line
    isolates = dict.fromkeys((0x2068, 0x2069))
    assert wcswidth(line.removesuffix("game").translate(isolates)) == 33


@pytest.mark.parametrize(
    ("module", "left_out"),
    [
        ("nakrel.cli.main", ("PyQt6", "xcffib", "numpy", "wcwidth", "nakrel.core.play.engine", "nakrel.demo.data")),
        ("nakrel.ui.app", ("xcffib", "numpy", "nakrel.ui.macro.page", "nakrel.ui.range.page", "nakrel.demo.data")),
    ],
)
def test_what_takes_long_to_load_is_loaded_by_what_needs_it(module: str, left_out: tuple[str, ...]):
    """A key that stops everything runs a command, and people wait for the window."""
    code = f"import sys, {module}; print(*(name for name in {left_out!r} if name in sys.modules))"
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert done.stdout.split() == []
