"""The main job on the kernel's own input devices, with libinput as the witness of what programs see."""

from __future__ import annotations

import contextlib
import fcntl
import os
import signal
import struct
import subprocess
import sys
import threading
import time
from collections.abc import Callable
from pathlib import Path

import pytest

from nakrel import protocol as m
from nakrel.backends.kernel import abi
from nakrel.backends.kernel.output import HANDS_NAME, Output
from nakrel.client.connection import ClientError, ServiceConnection
from nakrel.core.model.cells import Cell, ChangeSpeed, RunMacro
from nakrel.core.model.conditioning import Pointing, SpeedStage
from nakrel.core.model.macro import Macro, Mode, Play, StartOn
from nakrel.core.model.profile import EVERYDAY, Profile, SetUp
from nakrel.core.model.settings import SettingsPatch
from nakrel.core.model.steps import Press, Tap, Wait
from nakrel.core.play.events import Emit
from tests.kernel.conftest import MS, Bench, on, shot
from tests.kernel.injector import HidKeyboard, HidMouse, HidThumbPad, UsbKeyboard, UsbMouse
from tests.kernel.remapper import NAME
from tests.kernel.witness import Witness
from tests.support import pause, wait_for

Start = Callable[..., Bench]
Mouse = UsbMouse | HidMouse
Keyboard = UsbKeyboard | HidKeyboard
FOREVER = Wait(wait_us=600_000_000)


def ready(bench: Bench, witness: Witness) -> None:
    """Wait until the witness reads every virtual device."""
    wait_for(lambda: "Nakrel keyboard and mouse" in witness.names.values(), "the witness to know our devices")
    names = [d.name for d in bench.devices() if d.note.startswith("captured")]
    wait_for(lambda: all(list(witness.names.values()).count(name) >= 2 for name in names), "the clones to be known")


def test_devices_are_listed_with_what_they_have_and_ours_are_not(mouse: Mouse, keyboard: Keyboard, start: Start):
    wide = HidMouse()
    try:
        bench = start()
        found = {device.where: set(device.controls) for device in bench.devices()}
        assert {"BTN_LEFT", "BTN_SIDE", "WHEEL_UP"} <= found.pop(next(w for w in found if _is(w, mouse)))
        assert {"KEY_Q", "KEY_ESC"} <= found.pop(next(w for w in found if _is(w, keyboard)))
        assert {f"BTN_0x11{n}" for n in "89abcdef"} <= found.pop(wide.path)
        assert not any("Nakrel" in device.name for device in bench.devices())
        assert bench.service.status().backend == "kernel"
    finally:
        wide.unplug()


def _is(where: str, device: Mouse | Keyboard) -> bool:
    return os.path.realpath(where) == device.path


def test_held_fires_at_its_rate_and_never_after(mouse: Mouse, start: Start, witness: Witness):
    bench = start()
    bench.attach(on(BTN_SIDE="shot"), shot(Play(Mode.HELD, pause_us=45 * MS)))
    ready(bench, witness)
    began = time.monotonic()
    mouse.edge("BTN_SIDE", 1)
    wait_for(lambda: witness.count("KEY_Q") >= 30, "taps")
    mouse.edge("BTN_SIDE", 0)
    bench.idle()
    held_s = time.monotonic() - began

    def planned() -> int:
        return bench.service.seen("shot").count(("KEY_Q", 1))

    # What the service says that it sent may come after word of the end.
    bench.service.hear(lambda: planned() and witness.count("KEY_Q", 0) == planned(), "every tap")
    # 5 ms down, 45 ms pause: 20 a second, and one more than there are pauses.
    assert planned() <= held_s / 0.05 + 1
    pause(0.3)
    assert witness.count("KEY_Q") == witness.count("KEY_Q", 0) == planned()
    # The trigger itself reached nobody.
    assert witness.count("BTN_SIDE") == 0


def test_toggle_counted_and_single_do_what_they_say(mouse: Mouse, start: Start, witness: Witness):
    bench = start()
    for play, wanted in [(Play(Mode.COUNTED, runs=5, pause_us=25 * MS), 5), (Play(Mode.SINGLE), 1)]:
        bench.attach(on(BTN_SIDE="shot"), shot(play))
        ready(bench, witness)
        before = witness.count("KEY_Q")
        mouse.tap("BTN_SIDE")
        wait_for(lambda b=before, w=wanted: witness.count("KEY_Q", 0) == b + w, f"{wanted} taps")
        bench.idle()
    pause(0.2)
    assert witness.count("KEY_Q") == 6
    bench.attach(on(BTN_SIDE="shot"), shot(Play(Mode.TOGGLE, pause_us=25 * MS)))
    mouse.tap("BTN_SIDE")
    wait_for(lambda: witness.count("KEY_Q") > 14, "the toggle to run by itself")
    mouse.tap("BTN_SIDE")
    bench.idle()
    wait_for(lambda: not witness.down(), "everything up")


def test_motion_wheel_and_other_buttons_pass_without_loss(mouse: Mouse, start: Start, witness: Witness):
    bench = start()
    bench.attach(on(BTN_SIDE="shot"), shot(Play(Mode.TOGGLE, pause_us=15 * MS)))
    ready(bench, witness)
    mouse.tap("BTN_SIDE")
    for n in range(30):
        mouse.move(7, -3)
        if n % 10 == 0:
            mouse.tap("BTN_LEFT")
    mouse.tap("BTN_SIDE")
    bench.idle()
    wait_for(lambda: witness.moved == [210.0, -90.0], "all motion")
    assert witness.count("BTN_LEFT") == witness.count("BTN_LEFT", 0) == 3
    assert witness.count("KEY_Q") >= 20


def test_a_thousand_reports_a_second_pass_exactly(start: Start, witness: Witness):
    wide = HidMouse()
    try:
        bench = start()
        bench.attach(on(BTN_0x11f="shot"), shot(Play(Mode.HELD, pause_us=15 * MS)))
        ready(bench, witness)
        wide.edge("BTN_0x11f", 1)
        for n in range(3_000):
            wide.move(1, -1, wheel=1 if n % 100 == 0 else 0)
            pause(0.0005)
            # The kernel keeps 64 events (some 16 of these reports) for a reader that is busy, and throws all away when
            # one more comes: a reader that the computer keeps waiting for 31 ms loses motion that no program can save.
            if n % 15 == 14:
                wait_for(lambda sent=n + 1.0: witness.moved == [sent, -sent], "the motion so far")
        wide.edge("BTN_0x11f", 0)
        bench.idle()
        wait_for(lambda: abs(witness.wheel) == 30, "all notches")
        assert witness.count("KEY_Q") >= 20
    finally:
        wide.unplug()


def test_the_pointer_goes_at_the_profiles_speed_and_at_a_held_one_while_that_is_held(start: Start, witness: Witness):
    wide = HidMouse()
    try:
        bench = start()
        stages = (SpeedStage("Walk", 200, 100), SpeedStage("Aim", 40, 15))
        cells: dict[str, Cell] = {"BTN_SIDE": ChangeSpeed("Aim", held=True), "BTN_EXTRA": ChangeSpeed()}
        pointer = Pointing(stages, wheel=300)
        everyday = Profile(id=EVERYDAY, name="Everyday", setups=(SetUp("Main", cells),), pointer=pointer)
        bench.call(m.PutProfile(everyday))
        bench.settled({"BTN_SIDE"})
        ready(bench, witness)

        def moved_by(x: float, y: float) -> None:
            """Reports of one unit, up and to the right; at 15 % no single one makes a whole unit."""
            for _ in range(5):
                wanted = [witness.moved[0] + x, witness.moved[1] + y]
                # No more than the kernel keeps for a reader that is busy.
                for _ in range(20):
                    wide.move(1, -1)
                wait_for(lambda wanted=wanted: witness.moved == wanted, f"{x} and {y} units for twenty reports")

        moved_by(40, -20)
        wide.edge("BTN_SIDE", 1)
        bench.service.hear(lambda: bench.service.status().stage == "Aim", "the held stage")
        moved_by(8, -3)
        wide.edge("BTN_SIDE", 0)
        bench.service.hear(lambda: bench.service.status().stage == "Walk", "the stage before")
        moved_by(40, -20)
        wide.tap("BTN_EXTRA")
        bench.service.hear(lambda: bench.service.status().stage == "Aim", "the next stage")
        moved_by(8, -3)
        wide.move(0, 0, wheel=1)
        wait_for(lambda: abs(witness.wheel) == 3, "three notches for one")
        bench.call(m.PutProfile(Profile(id=EVERYDAY, name="Everyday", setups=(SetUp("Main", {}),))))
        bench.settled(set())
        moved_by(20, -20)
    finally:
        wide.unplug()


def test_reports_of_motion_are_timed_by_the_kernel(start: Start):
    wide = HidMouse()
    stop = threading.Event()

    def move() -> None:
        while not stop.is_set():
            wide.move(1, 0)
            pause(0.002)

    mover = threading.Thread(target=move)
    try:
        bench = start()
        device = next(device.id for device in bench.devices() if device.where == wide.path)
        mover.start()
        answer = bench.call(m.MeasureMotion(device, 2))
        assert isinstance(answer, m.MotionTimes)
        # How often the emulator gets to it is its own affair.
        assert len(answer.times_us) > 50
        assert list(answer.times_us) == sorted(answer.times_us)
        assert 1_000_000 < answer.times_us[-1] - answer.times_us[0] < 2_500_000
    finally:
        stop.set()
        if mover.ident:
            mover.join()
        wide.unplug()


def test_what_a_worn_switch_adds_reaches_nobody(start: Start, witness: Witness):
    wide = HidMouse()
    try:
        bench = start()
        name = next(device.name for device in bench.devices() if device.where == wide.path)
        bench.call(m.ChangeSettings(SettingsPatch(debounce={name: {"BTN_LEFT": 50_000}})))
        wait_for(lambda: any(d.note.startswith("captured") for d in bench.devices() if d.name == name), "the grab")
        ready(bench, witness)
        clicks = 0
        for _ in range(20):
            began = time.monotonic()
            for value in (1, 0, 1):
                wide.edge("BTN_LEFT", value)
            # On a busy computer a bounce may last longer than any switch's; that one tells nothing.
            clicks += time.monotonic() - began < 0.03
            pause(0.1)
            wide.edge("BTN_LEFT", 0)
            pause(0.1)
            if clicks == 5:
                break
        wait_for(lambda: "BTN_LEFT" not in witness.down(), "the last release")
        assert clicks == 5
        bounced = next(d.note for d in bench.devices() if d.name == name)
        assert int(bounced.split("; ")[1].split()[0]) >= 10
        assert witness.count("BTN_LEFT") == witness.count("BTN_LEFT", 0)
        # The slow ones may have passed; a click that bounced is one.
        assert witness.count("BTN_LEFT") <= 2 * 20 - clicks
    finally:
        wide.unplug()


QUIRKS = Path("/etc/libinput/local-overrides.quirks")


@pytest.fixture
def told_libinput(mended: str) -> None:
    """In the test machine the doctor has told it; elsewhere the user must have."""
    if not QUIRKS.exists():
        pytest.skip(f"libinput isn't told of our device here: no {QUIRKS}")


@pytest.mark.usefixtures("told_libinput")
def test_fast_clicks_are_not_taken_for_a_bouncing_switch(mouse: Mouse, start: Start, witness: Witness):
    """Common practice, no published source: press, 5 ms, release, 5 ms works in most games. Desktops filter what looks
    like a bouncing switch; a virtual device must not look like one."""
    bench = start()
    bench.attach(on(BTN_SIDE="shot"), shot(Play(Mode.COUNTED, runs=50, pause_us=5 * MS), control="BTN_LEFT"))
    ready(bench, witness)
    mouse.tap("BTN_SIDE")
    bench.idle()
    wait_for(lambda: witness.count("BTN_LEFT", 0) == 50, "50 clicks")
    assert [s.value for s in witness.seen if s.control == "BTN_LEFT"] == [1, 0] * 50


def test_unplugged_it_lets_go_and_plugged_in_again_it_works(start: Start, witness: Witness):
    mouse = HidMouse(uniq="7")
    bench = start()
    held = Macro(id="hold", name="Hold", play=Play(Mode.TOGGLE), loop=(Press(control="KEY_W"), FOREVER))
    bench.attach(on(BTN_SIDE="shot", BTN_EXTRA="hold"), shot(Play(Mode.HELD, pause_us=45 * MS)), held)
    ready(bench, witness)
    mouse.tap("BTN_EXTRA")
    mouse.edge("BTN_SIDE", 1)
    mouse.edge("BTN_LEFT", 1)
    wait_for(lambda: witness.count("KEY_Q") > 3 and "BTN_LEFT" in witness.down(), "everything to run")
    mouse.unplug()
    wait_for(lambda: not witness.down(), "everything up")
    bench.idle()
    mouse = HidMouse(uniq="7")
    try:
        bench.settled({"BTN_SIDE"})
        before = witness.count("KEY_Q")
        mouse.edge("BTN_SIDE", 1)
        wait_for(lambda: witness.count("KEY_Q") > before + 3, "the macro again")
        mouse.edge("BTN_SIDE", 0)
        bench.idle()
        assert witness.count("BTN_SIDE") == 0
    finally:
        mouse.unplug()


def test_kill_9_with_keys_down_leaves_nothing_down_and_every_device_working(
    mouse: Mouse, start: Start, witness: Witness
):
    bench = start()
    keys = (Press(control="KEY_W"), Press(control="KEY_LEFTSHIFT"), Press(control="BTN_RIGHT"))
    bench.attach(on(BTN_SIDE="hold"), Macro(id="hold", name="Hold", play=Play(Mode.TOGGLE), loop=(*keys, FOREVER)))
    ready(bench, witness)
    mouse.tap("BTN_SIDE")
    wait_for(lambda: witness.down() == {"KEY_W", "KEY_LEFTSHIFT", "BTN_RIGHT"}, "all three down")
    bench.service.end(signal.SIGKILL)
    wait_for(lambda: not witness.down(), "everything up")
    mouse.tap("BTN_SIDE")
    wait_for(lambda: witness.count("BTN_SIDE", 0) == 1, "the button as an ordinary one")


def test_the_grab_waits_for_a_key_that_is_down(keyboard: Keyboard, start: Start, witness: Witness):
    bench = start()
    keyboard.edge("KEY_W", 1)
    wait_for(lambda: witness.count("KEY_W") == 1, "the key")
    bench.call(m.PutMacro(shot(Play(Mode.SINGLE), control="KEY_X")))
    cells = on(KEY_Q="shot")
    bench.call(m.PutProfile(_everyday(cells)))

    def note() -> str:
        return next(d.note for d in bench.devices() if "KEY_Q" in d.controls)

    bench.service.hear(lambda: note() == "waits until its keys are released", "the note of the wait")
    keyboard.edge("KEY_W", 0)
    bench.settled({"KEY_Q"})
    ready(bench, witness)
    keyboard.tap("KEY_Q")
    keyboard.tap("KEY_E")
    wait_for(lambda: witness.count("KEY_X", 0) == 1 and witness.count("KEY_E", 0) == 1, "the macro, and a plain key")
    assert witness.count("KEY_Q") == 0
    assert not witness.down()


def _everyday(cells: dict[str, Cell]) -> Profile:
    return Profile(id=EVERYDAY, name="Everyday", setups=(SetUp("Main", cells),))


def test_two_devices_at_once(mouse: Mouse, keyboard: Keyboard, start: Start, witness: Witness):
    bench = start()
    bench.attach(
        on(BTN_SIDE="one", KEY_E="two"),
        shot(Play(Mode.HELD, pause_us=45 * MS), control="KEY_X", key="one"),
        shot(Play(Mode.HELD, pause_us=45 * MS), control="KEY_Y", key="two"),
    )
    ready(bench, witness)
    mouse.edge("BTN_SIDE", 1)
    keyboard.edge("KEY_E", 1)
    keyboard.tap("KEY_A")
    wait_for(lambda: witness.count("KEY_X") > 5 and witness.count("KEY_Y") > 5, "both macros")
    mouse.edge("BTN_SIDE", 0)
    before = witness.count("KEY_Y")
    wait_for(lambda: witness.count("KEY_Y") > before + 5, "the other to go on")
    keyboard.edge("KEY_E", 0)
    bench.idle()
    wait_for(lambda: not witness.down(), "everything up")
    assert witness.count("KEY_A", 0) == 1
    assert witness.count("BTN_SIDE") == witness.count("KEY_E") == 0


def test_what_else_sends_digits_is_told_from_the_keyboards_keys(keyboard: Keyboard, start: Start, witness: Witness):
    """A mouse's thumb buttons, and a second keyboard."""
    others = HidThumbPad(), HidKeyboard()
    try:
        bench = start()
        chosen = SettingsPatch(thumb_keys=(HidThumbPad.name,), second_keyboards=(HidKeyboard.name,))
        bench.call(m.ChangeSettings(chosen))
        bench.attach(on(**{"BTN_TRIGGER_HAPPY1": "shot", "SECOND:KEY_1": "shot"}), shot(Play(Mode.SINGLE)))
        ready(bench, witness)
        keyboard.tap("KEY_1")
        for other in others:
            other.tap("KEY_2")
        wait_for(lambda: (witness.count("KEY_1", 0), witness.count("KEY_2", 0)) == (1, 2), "what passes")
        assert witness.count("KEY_Q") == 0
        for number, other in enumerate(others, 1):
            other.tap("KEY_1")
            wait_for(lambda number=number: witness.count("KEY_Q", 0) == number, "the macro")
            bench.idle()
        assert witness.count("KEY_1") == 1
        bench.call(m.ChangeSettings(SettingsPatch(thumb_keys=(), second_keyboards=())))
        bench.settled(set())
        others[0].tap("KEY_1")
        wait_for(lambda: witness.count("KEY_1", 0) == 2, "a digit again")
        assert witness.count("KEY_Q") == 2
    finally:
        for other in others:
            other.unplug()


def test_the_stop_key_of_any_keyboard_stops_everything(
    mouse: Mouse, keyboard: Keyboard, start: Start, witness: Witness
):
    bench = start()
    bench.call(m.ChangeSettings(SettingsPatch(stop_key="KEY_P")))
    bench.attach(on(BTN_SIDE="shot"), shot(Play(Mode.TOGGLE, pause_us=25 * MS)))
    ready(bench, witness)
    mouse.tap("BTN_SIDE")
    wait_for(lambda: witness.count("KEY_Q") > 3, "the toggle")
    # This keyboard isn't grabbed: nothing of it is attached.
    keyboard.tap("KEY_P")
    bench.idle()
    wait_for(lambda: not witness.down(), "everything up")


def test_events_that_the_kernel_dropped_are_made_up_for(start: Start, witness: Witness):
    """The service is stopped while more happens than the kernel keeps: 64 events for a device of this kind."""
    wide = HidMouse()
    try:
        bench = start()
        bench.attach(on(BTN_SIDE="shot"), shot(Play(Mode.SINGLE)))
        ready(bench, witness)
        wide.edge("BTN_LEFT", 1)
        wide.edge("BTN_RIGHT", 1)
        wait_for(lambda: witness.down() == {"BTN_LEFT", "BTN_RIGHT"}, "both buttons")
        bench.service.process.send_signal(signal.SIGSTOP)
        wide.edge("BTN_LEFT", 0)
        wide.edge("BTN_MIDDLE", 1)
        for _ in range(1_000):
            wide.move(1, 1)
        bench.service.process.send_signal(signal.SIGCONT)
        wait_for(lambda: witness.down() == {"BTN_RIGHT", "BTN_MIDDLE"}, "what is down now")
        wide.edge("BTN_RIGHT", 0)
        wide.edge("BTN_MIDDLE", 0)
        wait_for(lambda: not witness.down(), "everything up")
    finally:
        wide.unplug()


def test_esc_at_the_start_grabs_nothing(mouse: Mouse, keyboard: Keyboard, start: Start, witness: Witness):
    witness.knows(keyboard.node)
    keyboard.edge("KEY_ESC", 1)
    wait_for(lambda: witness.count("KEY_ESC") == 1, "the key")
    bench = start()
    keyboard.edge("KEY_ESC", 0)
    bench.call(m.PutMacro(shot(Play(Mode.SINGLE))))
    bench.call(m.PutProfile(_everyday(on(BTN_SIDE="shot"))))
    assert "Esc was down at the start" in bench.service.status().backend_note
    witness.knows(mouse.node)
    mouse.tap("BTN_SIDE")
    wait_for(lambda: witness.count("BTN_SIDE", 0) == 1, "the button as an ordinary one")
    assert witness.count("KEY_Q") == 0


def test_a_device_that_another_program_has_for_itself_is_told(start: Start):
    wide = HidMouse()
    # EVIOCGRAB as a number of its own.
    code = "import fcntl, sys; f = open(sys.argv[1]); fcntl.ioctl(f, 0x40044590, 1); print('has', flush=True); input()"
    command = [sys.executable, "-S", "-c", code, wide.path]
    other = subprocess.Popen(command, stdin=subprocess.PIPE, stdout=subprocess.PIPE)
    try:
        assert other.stdout
        assert other.stdout.readline() == b"has\n"
        bench = start()
        bench.call(m.PutMacro(shot(Play(Mode.SINGLE))))
        bench.call(m.PutProfile(_everyday(on(BTN_SIDE="shot"))))
        told = bench.service.hear(
            lambda: [n.error for n in bench.service.notices if isinstance(n, m.Fault)], "the fault"
        )
        assert "another program has it for itself" in told[0]
        assert f"process {other.pid}" in told[0]
        other.communicate(b"\n")
        bench.settled({"BTN_SIDE"})
    finally:
        if other.poll() is None:
            other.kill()
            other.wait()
        wide.unplug()


def test_the_virtual_keyboard_repeats_at_the_keyboards_own_rate(start: Start):
    """EVIOCGREP (linux/input.h): the delay and the period in milliseconds."""
    keyboard = HidKeyboard()
    try:
        with open(keyboard.path, "r+b", buffering=0) as node:
            node.write(abi.report((abi.EV_REP, abi.REP_DELAY, 400), (abi.EV_REP, abi.REP_PERIOD, 50)))
        bench = start()
        bench.attach(on(KEY_F="shot"), shot(Play(Mode.SINGLE)))
        name = (Path("/sys/class/input") / Path(keyboard.path).name / "device/name").read_text()

        def clones() -> list[Path]:
            devices = Path("/sys/class/input").glob("event*/device")
            return [
                d
                for d in devices
                if (d / "phys").read_text().startswith("nakrel/") and (d / "name").read_text() == name
            ]

        wait_for(clones, "the clone")
        (clone,) = clones()
        with open(Path("/dev/input") / clone.parent.name, "rb", buffering=0) as node:
            assert abi.REP.unpack(fcntl.ioctl(node, abi.EVIOCGREP, bytes(abi.REP.size))) == (400, 50)
    finally:
        keyboard.unplug()


def test_a_toggle_ends_with_the_mouse_that_started_it_though_another_has_that_button(start: Start, witness: Witness):
    first, second = HidMouse(), HidMouse()
    try:
        bench = start()
        bench.attach(on(BTN_SIDE="shot"), shot(Play(Mode.TOGGLE, pause_us=25 * MS)))
        ready(bench, witness)
        first.tap("BTN_SIDE")
        wait_for(lambda: witness.count("KEY_Q") > 5, "the toggle")
        first.unplug()
        bench.idle()
        wait_for(lambda: not witness.down(), "everything up")
        second.tap("BTN_SIDE")
        before = witness.count("KEY_Q")
        wait_for(lambda: witness.count("KEY_Q") > before + 5, "the toggle by the other one")
    finally:
        second.unplug()


def test_a_remapper_that_sends_our_output_back_is_told_and_the_macro_ends(
    keyboard: Keyboard, start: Start, witness: Witness
):
    """It has our virtual keyboard for itself, so that a macro on F which taps F goes round."""
    bench = start()
    tap = Tap(control="KEY_F", hold_us=5 * MS)
    bench.attach(
        {"KEY_F": RunMacro("round")}, Macro(id="round", name="Round", play=Play(start_on=StartOn.RELEASE), loop=(tap,))
    )
    ready(bench, witness)
    names = {d.parent.name: (d / "name").read_text().strip() for d in Path("/sys/class/input").glob("event*/device")}
    ours = next(node for node, name in names.items() if name == "Nakrel keyboard and mouse")
    command = [sys.executable, "-m", "tests.kernel.remapper", f"/dev/input/{ours}"]
    remapper = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)

    def faults() -> list[str]:
        answer = bench.call(m.GetJournal())
        assert isinstance(answer, m.Journal)
        return [entry.what for entry in answer.entries if entry.kind == "fault"]

    try:
        assert remapper.stdout
        assert remapper.stdout.readline() == "ready\n"
        wait_for(
            lambda: any(d.name == NAME and d.note.startswith("captured") for d in bench.devices()), "the remapper's"
        )
        keyboard.tap("KEY_F")
        wait_for(lambda: any(f"{NAME} sends back what macros press" in fault for fault in faults()), "the fault")
        bench.idle()
        [device] = [each for each in bench.devices() if each.name == NAME]
        assert device.trouble
        assert "sends back what macros press" in device.note
    finally:
        remapper.kill()
        remapper.wait()
        remapper.stdout.close()


@pytest.mark.parametrize("which", ["ours", "the clone"])
def test_a_program_that_has_a_virtual_device_for_itself_is_told_until_it_ends(
    keyboard: Keyboard, start: Start, witness: Witness, which: str
):
    bench = start()
    bench.attach(on(KEY_E="shot"), shot(Play(Mode.SINGLE)))
    ready(bench, witness)
    ours = which == "ours"
    name = HANDS_NAME if ours else witness.names[keyboard.node]
    node = next(n for n, each in witness.names.items() if each == name and (ours or n != keyboard.node))
    key = "KEY_E" if ours else "KEY_K"

    def note() -> str:
        keyboard.tap(key)
        return next((d.note for d in bench.devices() if d.name == name and d.trouble), "")

    for _ in range(3):
        assert not note()
        pause(1)
    command = [sys.executable, "-m", "tests.kernel.remapper", f"/dev/input/{node}"]
    remapper = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
    try:
        assert remapper.stdout
        assert remapper.stdout.readline() == "ready\n"
        wait_for(lambda: "for itself" in note(), "Devices to tell")
        assert f"process {remapper.pid}" in note()
    finally:
        remapper.kill()
        remapper.wait()
        remapper.stdout.close()
    wait_for(lambda: not note(), "Devices to tell no more")


@pytest.mark.parametrize("lit", [1, 0])
def test_lights_set_by_the_desktop_reach_the_keyboard(start: Start, witness: Witness, lit: int):
    keyboard = HidKeyboard()
    try:
        bench = start()
        bench.attach(on(KEY_E="shot"), shot(Play(Mode.SINGLE)))
        ready(bench, witness)
        clone = next(n for n, name in witness.names.items() if name == keyboard.name and n != keyboard.node)
        with open(f"/dev/input/{clone}", "wb", buffering=0) as desktop:
            # EV_LED, LED_CAPSL
            for value in (1 - lit, lit):
                desktop.write(struct.pack("@llHHi", 0, 0, 0x11, 1, value) + struct.pack("@llHHi", 0, 0, 0, 0, 0))
        lights = Path(f"/sys/class/input/{keyboard.node}/device").glob("*::capslock")
        light = next(iter(lights)) / "brightness"
        wait_for(lambda: light.read_text().strip() == str(lit), "the keyboard's light")
    finally:
        keyboard.unplug()


@pytest.mark.usefixtures("told_libinput")
def test_a_chord_arrives_in_order_with_the_modifier_first(mouse: Mouse, start: Start, witness: Witness):
    bench = start()
    chord = Macro(
        id="chord",
        name="Chord",
        loop=(Press(control="KEY_LEFTCTRL"), Tap(control="BTN_LEFT", hold_us=0), Tap(control="KEY_X", hold_us=0)),
    )
    bench.attach(on(BTN_SIDE="chord"), chord)
    ready(bench, witness)
    mouse.tap("BTN_SIDE")
    wanted = [
        *[("KEY_LEFTCTRL", 1), ("BTN_LEFT", 1), ("BTN_LEFT", 0)],
        *[("KEY_X", 1), ("KEY_X", 0), ("KEY_LEFTCTRL", 0)],
    ]
    wait_for(lambda: len(witness.seen) == len(wanted), "the chord")
    assert [(s.control, s.value) for s in witness.seen] == wanted


def test_positions_and_the_fine_wheel_arrive(witness: Witness):
    output = Output()
    try:
        wait_for(
            lambda: {"Nakrel positions", "Nakrel keyboard and mouse"} <= set(witness.names.values()), "our devices"
        )
        for (x, y), wanted in (
            ((0, 0), (0, 0)),
            ((2559, 1439), (100, 100)),
            ((2559, 1439), (100, 100)),
            ((640, 1079), (25, 75)),
        ):
            before = len(witness.positions)
            output.move_to(x, y, 2560, 1440)
            wait_for(lambda b=before: len(witness.positions) >= b + 2, "the position")
            assert witness.positions[-1] == pytest.approx(wanted, abs=0.1)
        output.move_by(12, -7)
        output.emit([Emit("WHEEL_DOWN", 3, 0, "m")])
        wait_for(lambda: witness.moved == [12, -7] and witness.wheel == 3, "the motion and the wheel")
    finally:
        output.close()


_STALL = """
import sys
from nakrel.service import start
from nakrel.service.requests import Requests

def stall(self, connection, number, body):
    while True:
        pass

Requests._stop = stall
sys.exit(start.main(sys.argv[1:]))
"""


def test_a_stalled_service_lets_the_devices_go_and_is_started_anew(mouse: Mouse, start: Start, witness: Witness):
    """In the middle of an endless loop, and without any window: what was held goes up, and it works again."""
    bench = start("-c", _STALL)
    service = bench.service
    hold = Macro(id="hold", name="Hold", play=Play(Mode.TOGGLE), loop=(Press(control="KEY_W"), FOREVER))
    bench.attach(on(BTN_SIDE="hold"), hold)
    ready(bench, witness)
    mouse.tap("BTN_SIDE")
    wait_for(lambda: witness.down() == {"KEY_W"}, "the hold")
    # The mouse itself stays; its clone and our own device come anew.
    again = {HANDS_NAME, witness.names[mouse.node]}
    for name in again:
        witness.forget(name)
    service.client.send(m.Stop("hold"))
    wait_for(lambda: not witness.down(), "everything up")
    service.client.close()

    def back() -> ServiceConnection | None:
        with contextlib.suppress(ClientError):
            return ServiceConnection.connect(service.home.socket, "test", 5.0)
        return None

    client = wait_for(back, "the service that was started anew")
    assert client
    service.client = client
    client.on_notice = service.notices.append
    client.call(m.Subscribe(seen=True))
    assert service.process.poll() is None
    bench.settled({"BTN_SIDE"})
    wait_for(lambda: again <= set(witness.names.values()), "the witness to know the devices of the second start")
    mouse.tap("BTN_SIDE")
    wait_for(lambda: witness.down() == {"KEY_W"}, "the hold once more")
    assert "in stall" in service.home.log.read_text()
    assert service.end() == 0
    wait_for(lambda: not witness.down(), "everything up")
