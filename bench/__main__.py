"""Measure what docs/figures.md states, and print it as a table; `--json FILE` writes it, too."""

from __future__ import annotations

import argparse
import json
import os
import random
import signal
import statistics
import struct
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from functools import partial
from pathlib import Path

from bench.against import compare
from bench.devices import TRIGGER, TRIGGER_NUMBER, Devices, forwarded
from bench.editing import edit_times
from bench.following import PROCESSES, RATE, live_times, starts_beside
from bench.hostile import hostile_times
from bench.pace import measured_at
from bench.playing import shares_while_playing
from bench.rig import IN, Rig, build_reference
from bench.scale import scale_times
from bench.standing import starved, stopped
from bench.tuning import LIMITS_MS, outcomes
from nakrel.backends.kernel.abi import EV_KEY, report
from nakrel.core.analysis.tuning import work_out
from nakrel.core.model.cells import RunMacro
from nakrel.core.model.conditioning import Pointing, SpeedStage
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.steps import Press, Tap, Wait
from nakrel.core.model.tuning import Question, Trial
from nakrel.core.play.engine import Engine
from nakrel.core.play.events import Pressed, Released, SetSheet
from nakrel.core.play.operations import compile_macro
from nakrel.core.play.sheet import Sheet
from nakrel.demo.seed import seed
from nakrel.storage.home import Home

Row = tuple[str, str, str, str]
# When the C program answered, in ns.
_ANSWER = struct.Struct("=q")
# Of fifty macros each presses one of its own.
KEYS = [f"KEY_{each}" for each in (*"QWERTYUIOPASDFGHJKLZXCVBNM1234567890", *(f"F{n}" for n in range(1, 15)))]


def quantiles(values: list[float]) -> tuple[float, float]:
    """Median and 99th percentile."""
    ordered = sorted(values)
    return statistics.median(ordered), ordered[min(len(ordered) - 1, int(len(ordered) * 0.99))]


def shown(values: list[float]) -> str:
    median, p99 = quantiles(values)
    return f"median {median:.0f} µs, p99 {p99:.0f} µs"


# When an event left, in ns, and its value; as many as there are, waited for so many seconds.
Came = Callable[[float], list[tuple[int, int]]]


def _presses(press: Callable[[int], int], came: Came, count: int, burst: int) -> list[float]:
    """How long each press takes to its macro's first event, in microseconds: so many at once on each other, and some
    milliseconds to the next ones."""
    took = []
    for number in range(1, count + 1):
        start = press(1)
        events: list[tuple[int, int]] = []
        while not events:
            events = came(1)
        # What the press before has left behind would be there at once.
        assert events[0][1] == 1, "this is not the answer to the press"
        took.append((events[0][0] - start) / 1_000)
        press(0)
        while events[-1][1]:
            events += came(1)
        if number % burst == 0:
            time.sleep(random.uniform(0.001, 0.004))
    return took


def _press_row(what: str, press: Callable[[int], int], came: Came, reference: list[float], count: int) -> Row:
    # No hand presses more than ten at once.
    apart, at_once = (_presses(press, came, count, burst) for burst in (1, 10))
    return (
        f"press → first output, {what}",
        f"1 to 4 ms apart: {shown(apart)}; ten at once on each other: {shown(at_once)}",
        f"C answer: {shown(reference)}",
        "median ≤ 100 and ≤ 40, p99 ≤ 250 µs",
    )


def latency(reference: Path, count: int) -> Row:
    """Input event to first output event in the service, and to the answer of a C program that does nothing else."""
    rig = Rig(Macro(id="one", name="One", loop=(Press(control="KEY_Q"),)))
    (button,) = rig.buttons(1)

    def came(limit_s: float) -> list[tuple[int, int]]:
        return [(at_ns, value) for _, at_ns, value in rig.read(limit_s)]

    answers = _echo(reference, lambda now: IN.pack(0, 0, 1, now), count)
    row = _press_row("simulated device", partial(rig.press, button), came, answers, count)
    rig.end()
    return row


def kernel_latency(reference: Path, count: int) -> Row:
    """The same through the kernel backend, on a mouse made of a pipe."""
    devices = Devices(Macro(id="one", name="One", loop=(Press(control="KEY_Q"),)))
    answers = _echo(reference, lambda now: report((EV_KEY, TRIGGER_NUMBER, 1)), count)
    row = _press_row("kernel backend", devices.press, devices.came, answers, count)
    devices.end()
    return row


def _echo(reference: Path, question: Callable[[int], bytes], count: int) -> list[float]:
    """How long a C program takes from each of these records to its answer, in microseconds."""
    size = str(len(question(0)))
    process = subprocess.Popen([reference, "echo", size], stdin=subprocess.PIPE, stdout=subprocess.PIPE, bufsize=0)
    assert process.stdin
    assert process.stdout
    took = []
    for _ in range(count):
        start = time.monotonic_ns()
        process.stdin.write(question(start))
        took.append((_ANSWER.unpack(process.stdout.read(_ANSWER.size))[0] - start) / 1_000)
        time.sleep(random.uniform(0.001, 0.004))
    process.stdin.close()
    process.wait()
    process.stdout.close()
    return took


def motion(reference: Path, rate: int, seconds: float, changed: bool = False) -> Row:
    """Motion through a grabbed mouse: what it costs and how late it comes; `changed`: made faster, with its buttons
    debounced."""
    macro = Macro(id="one", name="One", loop=(Press(control="KEY_Q"),))
    faster = Pointing((SpeedStage("Fast", 160, 160), SpeedStage("Slow", 60, 60))) if changed else Pointing()
    devices = Devices(macro, pointer=faster, debounce={"BTN_LEFT": 20_000, TRIGGER: 20_000} if changed else {})
    late, share = forwarded(reference, devices.mouse, devices.clone, devices.pid, rate, seconds)
    devices.end()
    mouse_in, mouse = os.pipe()
    clone, clone_out = os.pipe()
    plain = subprocess.Popen([reference, "answer"], stdin=mouse_in, stdout=clone_out)
    os.close(mouse_in)
    os.close(clone_out)
    plain_late, plain_share = forwarded(reference, mouse, clone, plain.pid, rate, seconds)
    plain.wait()
    return (
        f"motion{' at another speed, debounced' if changed else ''}, {rate} reports/s, {seconds:.0f} s",
        f"{share:.1%} of a core, {shown(late)}, none lost of {len(late)}",
        f"C forwarder: {plain_share:.1%}, {shown(plain_late)}",
        f"≤ {20 if changed else 12} % of a core, ≤ 60 µs median added" if rate == 8_000 else "",
    )


def lateness(reference: Path, seconds: float, busy: int) -> Row:
    """How late each event leaves at a cadence of 2 ms, beside C's clock_nanosleep to absolute deadlines."""
    loads = [subprocess.Popen([sys.executable, "-c", "while True: pass"]) for _ in range(busy)]
    try:
        loop = Macro(
            id="m", name="M", play=Play(Mode.TOGGLE, pause_us=2_000), loop=(Tap(control="KEY_Q", hold_us=2_000),)
        )
        late = [(came - due) / 1_000 for due, came, _ in _played(loop, seconds=seconds)]
        command = [str(reference), "sleep", str(int(seconds * 500)), "2000000"]
        printed = subprocess.run(command, capture_output=True, text=True, check=True).stdout
    finally:
        for load in loads:
            load.kill()
            load.wait()
    theirs = [int(line) / 1_000 for line in printed.split()]
    early = sum(value < 0 for value in late)
    name = f"event against its plan, 2 ms{f', {busy} busy processes' if busy else ''}"
    target = "median ≤ 100 µs, p99 ≤ 3 ms" if busy else "median ≤ 20, p99 ≤ 300 µs, never early"
    return name, f"{shown(late)}, {early} early of {len(late)}", f"clock_nanosleep: {shown(theirs)}", target


def _played(*macros: Macro, seconds: float) -> list[tuple[int, int, int]]:
    rig = Rig(*macros)
    buttons = rig.buttons(len(macros))
    found: list[tuple[int, int, int]] = []
    for button in buttons:
        rig.press(button, 1)
        rig.press(button, 0)
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        time.sleep(0.05)
        found += rig.read()
    for button in buttons:
        rig.press(button, 1)
        rig.press(button, 0)
    time.sleep(0.1)
    found += rig.read(0.1)
    rig.end()
    return found


def fastest(seconds: float) -> Row:
    """1 ms down, 1 ms up: none lost, none merged, counted at the sink."""
    loop = Macro(id="m", name="M", play=Play(Mode.TOGGLE, pause_us=1_000), loop=(Tap(control="KEY_Q", hold_us=1_000),))
    events = _played(loop, seconds=seconds)
    values = [value for _, _, value in events]
    taps = values.count(1)
    balanced = values == [1, 0] * taps
    span = (events[-1][0] - events[0][0]) / 1e9
    return (
        f"1 ms down, 1 ms up, {seconds:.0f} s",
        f"{taps} taps, {taps / span:.1f}/s, {'none lost or merged' if balanced else 'NOT BALANCED'}",
        "",
        "500/s, none lost or merged",
    )


def crowd(reference: Path, seconds: float) -> Row:
    """How late events leave while 50 macros tap, each a key of its own, and each 50 times a second."""
    play = Play(Mode.TOGGLE, pause_us=10_000)
    taps = [
        Macro(id=f"m{n}", name=f"M{n}", play=play, loop=(Tap(control=key, hold_us=10_000),))
        for n, key in enumerate(KEYS)
    ]
    late = sorted((came - due) / 1_000 for due, came, _ in _played(*taps, seconds=seconds))
    command = [str(reference), "sleep", str(int(seconds * 100)), "10000000"]
    printed = subprocess.run(command, capture_output=True, text=True, check=True).stdout
    theirs = [int(line) / 1_000 for line in printed.split()]
    return (
        f"50 macros, {len(late) / seconds:.0f} events/s, {seconds:.0f} s",
        f"{shown(late)}, worst {late[-1] / 1_000:.1f} ms",
        f"clock_nanosleep: {shown(theirs)}, worst {max(theirs) / 1_000:.1f} ms",
        "worst ≤ 5 ms",
    )


def stop_everything(rounds: int) -> Row:
    """From the stop key to the last release, with 50 macros running and holding."""
    wait = Wait(wait_us=600_000_000)
    macros = [
        Macro(id=f"m{n}", name=f"M{n}", play=Play(Mode.TOGGLE), loop=(Press(control=key), wait))
        for n, key in enumerate(KEYS)
    ]
    took = []
    for _ in range(rounds):
        rig = Rig(*macros)
        for button in rig.buttons(50):
            # Every button is on some simulated device; the index in the record is only its name there.
            rig.press(button, 1)
            rig.press(button, 0)
        held: list[tuple[int, int, int]] = []
        while len(held) < 50:
            held += rig.read()
        start = rig.press("KEY_PAUSE", 1)
        freed: list[tuple[int, int, int]] = []
        while len(freed) < 50:
            freed += [event for event in rig.read() if event[2] == 0]
        took.append((freed[-1][1] - start) / 1_000)
        rig.end()
    return "Stop everything, 50 macros", shown(took), "", "p99 ≤ 10 ms"


def idle(seconds: float) -> Row:
    """What the service uses while nothing happens, with the demo's profiles and devices open."""
    with tempfile.TemporaryDirectory() as folder:
        seed(Home.find(folder))
        process = subprocess.Popen([sys.executable, "-m", "nakrel.service", "--home", folder, "--backend", "stand-in"])
        time.sleep(6)
        before, woken = _ticks(process.pid), _switches(process.pid)
        time.sleep(seconds)
        used = (_ticks(process.pid) - before) / os.sysconf("SC_CLK_TCK") / seconds
        wakes = (_switches(process.pid) - woken) / seconds
        status = Path(f"/proc/{process.pid}/status").read_text()
        resident = int(next(line.split()[1] for line in status.splitlines() if line.startswith("VmRSS"))) / 1024
        process.send_signal(signal.SIGTERM)
        process.wait()
    target = "0.0 % CPU, ≤ 1 wake-up/s, ≤ 32 MB"
    return f"idle service, {seconds:.0f} s", f"{used:.1%} CPU, {wakes:.1f} wake-ups/s, {resident:.1f} MB", "", target


def _ticks(pid: int) -> int:
    fields = Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()
    return int(fields[11]) + int(fields[12])


def _switches(pid: int) -> int:
    tasks = Path(f"/proc/{pid}/task").iterdir()
    lines = [line for task in tasks for line in (task / "status").read_text().splitlines()]
    return sum(int(line.split()[1]) for line in lines if line.startswith("voluntary_ctxt"))


_EMPTY = """
from PyQt6.QtWidgets import QApplication, QWidget
from PyQt6.QtCore import QTimer
app = QApplication([]); w = QWidget(); w.resize(1280, 800); w.show()
QTimer.singleShot(0, app.quit); app.exec()
"""
_WINDOW = """
import sys
from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QApplication
qt = QApplication([])
QTimer.singleShot(0, qt.quit)
from nakrel.cli.main import main
main(["--home", sys.argv[1], "window"])
"""


def window_start(rounds: int) -> Row:
    """From the start of the command until the window is shown and its loop free, and an empty window's time."""
    environment = {**os.environ, "QT_QPA_PLATFORM": os.environ.get("QT_QPA_PLATFORM", "offscreen")}

    def timed(*arguments: str) -> float:
        start = time.monotonic()
        subprocess.run([sys.executable, "-c", *arguments], check=True, env=environment)
        return time.monotonic() - start

    with tempfile.TemporaryDirectory() as folder:
        seed(Home.find(folder))
        process = subprocess.Popen([sys.executable, "-m", "nakrel.service", "--home", folder, "--backend", "stand-in"])
        time.sleep(2)
        warm = statistics.median(timed(_WINDOW, folder) for _ in range(rounds))
        process.send_signal(signal.SIGTERM)
        process.wait()
    empty = statistics.median(timed(_EMPTY) for _ in range(rounds))
    return "window, start to usable", f"median {warm:.2f} s", f"empty window: {empty:.2f} s", "≤ 0.5 s"


def editing(rounds: int) -> Row:
    """An edit of a macro of 10,000 steps in the window, repaint included, and the same of one of 20 steps."""
    found = edit_times(rounds)
    return (
        "an edit of 10,000 steps, repaint included",
        ", ".join(f"{name} {large:.0f} ms" for name, (_, large, _) in found.items())
        + "; with formulas "
        + ", ".join(f"{by_formulas:.0f} ms" for _, _, by_formulas in found.values()),
        "20 steps: " + ", ".join(f"{small:.0f} ms" for small, _, _ in found.values()),
        "≤ 16 ms",
    )


def playing(seconds: float) -> Row:
    """What the window costs while a macro runs."""
    found = shares_while_playing(seconds)
    return (
        "window while a macro runs: in front; behind a game",
        ", ".join(f"{page} {front:.1f}; {behind:.1f} % of a core" for page, (front, behind) in found.items()),
        "",
        "",
    )


def large_library(rounds: int) -> list[Row]:
    """Service and window with 1,000 profiles and 5,000 macros."""
    found, few = scale_times(rounds), scale_times(0, 4, 14)
    what = "1,000 profiles, 5,000 macros: "
    return [
        (
            f"{what}service, start to its first answer",
            f"{found['service']:.2f} s",
            f"4 and 14: {few['service']:.2f} s",
            "≤ 1.5 s",
        ),
        (f"{what}window, start to usable", f"{found['start']:.2f} s", f"4 and 14: {few['start']:.2f} s", "≤ 1.2 s"),
        (f"{what}a search", f"{found['search']:.0f} ms", "", "≤ 30 ms"),
        (f"{what}another profile shown", f"{found['switch']:.0f} ms", "", "≤ 50 ms"),
    ]


def starts(reference: Path, seconds: int) -> list[Row]:
    """What following costs while many programs start, and what becomes of a macro's times beside it."""
    bare, bare_late = starts_beside(reference, seconds, "yes", linked=False)
    rows = []
    for told, name in (("yes", "told by the kernel"), ("no", "by looking")):
        share, late = starts_beside(reference, seconds, told, linked=True)
        rows.append(
            (
                f"{RATE} starts a second, {PROCESSES} processes, {name}",
                f"{share - bare:.1%} of a core; 500 taps/s: {shown(late)}",
                f"nothing linked: {shown(bare_late)}",
                "≤ 2 % of a core, p99 ≤ 1.2 of that without",
            )
        )
    return rows


def following(rounds: int) -> list[Row]:
    """A program that starts, and a window that comes to the front, until the profile is live."""
    starts, fronts = live_times(rounds)
    words = lambda found: f"median {quantiles(found)[0]:.1f} ms, p99 {quantiles(found)[1]:.1f} ms"  # noqa: E731
    return [
        ("a program starts, its profile is live", words(starts), "", "p99 ≤ 250 ms"),
        ("its window comes to the front (X11), its profile is live", words(fronts), "", "≤ 30 ms"),
    ]


def tuned(games: int) -> list[Row]:
    """How well the shortest time is found in simulated games."""
    return [
        (
            f"shortest time that works {each.sure:.0%} of the time, {games:,} games, {each.shape}",
            f"median error {each.error_ms:.2f} ms; held {each.held:.1%}; works {each.works:.1%}",
            f"interval {each.width_ms:.1f} ms",
            f"error ≤ {LIMITS_MS[each.sure]} ms; held 88 to 94 %; works in 95 % of the games",
        )
        for each in outcomes(games)
    ]


def trial(count: int) -> Row:
    """How long the window takes to work out what to try next, after forty trials."""
    trials = [Trial(40_000 + n % 7 * 1_000, n % 3 > 0) for n in range(40)]
    took = []
    for _ in range(count + 1):
        began = time.perf_counter()
        work_out(Question(), trials)
        took.append((time.perf_counter() - began) * 1_000)
    # The first one makes the grid.
    median, p99 = quantiles(took[1:])
    return "the next trial of a search, worked out", f"median {median:.1f} ms, p99 {p99:.1f} ms", "", "≤ 20 ms"


def event_cost(count: int) -> Row:
    """The cost of one input event with 10 and with 10,000 attachments and steps."""

    def engine(size: int) -> Engine:
        macro = Macro(
            id="m", name="M", play=Play(Mode.HELD), loop=(Press(control="KEY_Q"), Wait(wait_us=1)) * (size // 2)
        )
        plan = compile_macro(macro)
        cells = {f"X{n}": RunMacro("m") for n in range(size - 1)} | {"BTN_SIDE": RunMacro("m")}
        made = Engine()
        made.step(SetSheet(Sheet.build("p", cells, lambda key: (plan, macro.play))), 0)  # type: ignore[arg-type]
        return made

    def cost(made: Engine, now_us: int) -> int:
        start = time.perf_counter_ns()
        made.step(Pressed("BTN_SIDE"), now_us)
        made.step(Released("BTN_SIDE"), now_us)
        return time.perf_counter_ns() - start

    # Turn about, so that a machine that changes its pace changes it for both.
    pair = engine(10), engine(10_000)
    took = [[cost(made, n * 1_000) for made in pair] for n in range(count)]
    small, large = (statistics.median(column) / 2_000 for column in zip(*took, strict=True))
    return (
        "one event, 10 and 10,000 cells and steps",
        f"{small:.1f} and {large:.1f} µs",
        "",
        f"ratio ≤ 1.2: {large / small:.2f}",
    )


def hostile(rounds: int) -> Row:
    """Macros made to take long."""
    told = "; ".join(
        f"{name}: {laid:.0f}, {first:.0f} and {last:.0f} ms"
        for name, (laid, first, last) in hostile_times(rounds).items()
    )
    return (
        "macros made to take long: laid out; checked in the process beside, first and whole answer",
        told,
        "",
        "≤ 200 ms",
    )


def main() -> int:
    """Run the chosen measurements."""
    parser = argparse.ArgumentParser(prog="scripts/bench", description=__doc__)
    parser.add_argument("--quick", action="store_true", help="a tenth of the time; figures are rougher")
    parser.add_argument("--only", metavar="TEXT", help="only the measurements whose name has this in it")
    parser.add_argument("--json", metavar="FILE", help="write the rows to this file, too")
    parser.add_argument("--against", metavar="REV", help="compare with this commit, in turns")
    parser.add_argument(
        "--pace",
        type=float,
        metavar="S",
        help="measure each once the machine is as fast as that: three million turns of an empty Python loop in S s",
    )
    parser.add_argument("--within", type=float, default=10, metavar="MIN", help="and wait no longer (default: 10)")
    parser.add_argument("--turns", type=int, default=3, help="how many, with --against (default: 3)")
    chosen = parser.parse_args()
    # Python keeps what it has compiled, as it does with users, whatever is set on this machine.
    os.environ.pop("PYTHONDONTWRITEBYTECODE", None)
    if chosen.against and chosen.pace:
        parser.error("--against measures both in turns, whatever the pace is; leave --pace out")
    scale = 0.1 if chosen.quick else 1.0
    reference = build_reference()
    measurements: dict[str, Callable[[], Row | list[Row]]] = {
        "latency": lambda: latency(reference, int(2_000 * scale)),
        "kernel": lambda: kernel_latency(reference, int(2_000 * scale)),
        "motion 1000": lambda: motion(reference, 1_000, 10 * max(scale, 0.3)),
        "motion 8000": lambda: motion(reference, 8_000, 10 * max(scale, 0.3)),
        "motion changed": lambda: motion(reference, 8_000, 10 * max(scale, 0.3), changed=True),
        "lateness": lambda: lateness(reference, 20 * scale, 0),
        "lateness busy": lambda: lateness(reference, 20 * scale, 2),
        "crowd": lambda: crowd(reference, 20 * max(scale, 0.2)),
        "fastest": lambda: fastest(10 * max(scale, 0.3)),
        "stop": lambda: stop_everything(max(3, int(20 * scale))),
        "idle": lambda: idle(30 * max(scale, 0.2)),
        "window": lambda: window_start(max(3, int(9 * scale))),
        "editing": lambda: editing(max(5, int(15 * scale))),
        "playing": lambda: playing(10 * max(scale, 0.3)),
        "hostile": lambda: hostile(max(3, int(7 * scale))),
        "scale": lambda: large_library(max(6, int(12 * scale))),
        "starts": lambda: starts(reference, int(10 * max(scale, 0.5))),
        "following": lambda: following(max(10, int(60 * scale))),
        "cost": lambda: event_cost(int(20_000 * scale)),
        "trial": lambda: trial(max(10, int(40 * scale))),
        "tuning": lambda: tuned(int(1_000 * scale)),
        # These take long, and are measured only when they are asked for by name.
        "alarms stopped": lambda: stopped(max(10, int(200 * scale))),
        "alarms starved": lambda: starved(30 * scale),
    }
    if chosen.only and not any(chosen.only in name for name in measurements):
        parser.error(f"no measurement has {chosen.only!r} in its name; there are: {', '.join(measurements)}")
    if chosen.against:
        passed = [*(["--quick"] if chosen.quick else []), *(["--only", chosen.only] if chosen.only else [])]
        return compare(chosen.against, chosen.turns, passed)
    long = ("alarms", "tuning")
    rows = []
    for name, measure in measurements.items():
        if chosen.only and chosen.only not in name:
            continue
        if name.startswith(long) and not (chosen.only or "").startswith(long):
            continue
        found, at = measured_at(measure, chosen.pace, chosen.within * 60)
        for row in found if isinstance(found, list) else [found]:
            rows.append((*row, str(at)))
            lines = (
                row[0],
                f"measured   {row[1]}",
                f"reference  {row[2] or '–'}",
                f"target     {row[3]}",
                f"pace       {at}",
            )
            print("\n    ".join(lines), flush=True)
    if chosen.json:
        names = ("what", "measured", "reference", "target", "pace")
        Path(chosen.json).write_text(json.dumps([dict(zip(names, row, strict=True)) for row in rows], indent=2) + "\n")
    return 0


if __name__ == "__main__":
    sys.exit(main())
