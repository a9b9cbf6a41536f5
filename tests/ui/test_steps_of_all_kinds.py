"""Every kind of step in the list: added, typed, shown, checked; files in and out."""

from __future__ import annotations

import json
import subprocess
import sys
from pathlib import Path

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QLabel, QLineEdit

from nakrel import protocol as m
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.places import Window
from nakrel.core.model.recording import Moves
from nakrel.core.model.steps import If, Open, Origin, Pointer, Repeat, Set, Step, Tap, Text, Wait
from nakrel.ui.macro.steps_model import REMARK, TIME, WHAT
from nakrel.ui.screen import Picker
from nakrel.ui.screen.pointing import spots_of
from tests.ui.conftest import Ui

Q = Tap(control="KEY_Q", hold_us=20_000)
# Without a screen there is no keyboard to be held, and nothing to be raised.
no_grab = pytest.mark.qt_log_ignore("This plugin does not support")


def shown(ui: Ui, *loop: Step, play: Play | None = None):
    ui.store.put_macro(Macro(id="storm-volley", name="Storm volley", play=play or Play(), loop=loop))
    ui.window.shown.show_macro("storm-volley")
    ui.window.shown.show_page("macro")
    return ui.window.macro


def loop(ui: Ui) -> tuple[Step, ...]:
    return ui.store.macros["storm-volley"].loop


def told(ui: Ui) -> list[str]:
    return [each.text() for each in ui.window.macro_details.findChildren(QLabel) if not each.isHidden()]


@pytest.mark.parametrize(
    ("kind", "words", "wanted"),
    [
        ("pointer", "640, 400 over 200 ms", Pointer(x=640, y=400, over_us=200_000)),
        ("text", "Good evening", Text(text="Good evening")),
        ("open", 'tide-map "harbour chart"', Open(command=("tide-map", "harbour chart"))),
        ("if", "run > 3", If(condition="run > 3")),
        ("set", "count to count + 1", Set(variable="count", value="count + 1")),
    ],
)
def test_steps_told_by_words_are_added(ui: Ui, kind: str, words: str, wanted: Step):
    fields = shown(ui, Q).add_step
    fields.kind.setCurrentText(kind)
    fields.add_button.click()
    assert "Write something first" in fields._message.text()
    fields.typed.setText(words)
    QTest.keyClick(fields.typed, Qt.Key.Key_Return)
    assert loop(ui) == (Q, wanted)
    ui.undo()
    assert loop(ui) == (Q,)


def test_a_wrong_formula_is_told_beside_the_field(ui: Ui):
    fields = shown(ui, Q).add_step
    fields.kind.setCurrentText("set")
    fields.typed.setText("count to count +")
    fields.add_button.click()
    assert "formula" in fields._message.text()
    assert fields._message.isVisible()
    assert loop(ui) == (Q,)


def test_a_secret_goes_to_the_keyring_first_and_where_there_is_none_no_step_is_made(ui: Ui):
    fields = shown(ui, Q).add_step
    fields.kind.setCurrentText("text")
    fields.secret.setChecked(True)
    fields.typed.setText("hawser")
    fields.add_button.click()
    assert "a name" in fields._message.text()
    fields.secret_name.setText("oar")
    fields.add_button.click()
    ui.wait(lambda: "keyring" in fields._message.text(), "the reason")
    assert loop(ui) == (Q,)
    assert "hawser" not in "".join(path.read_text() for path in ui.service.folder.rglob("*.json"))


def test_a_step_is_typed_anew_in_its_row_and_keeps_its_remark_and_what_is_inside(ui: Ui):
    made = shown(ui, Tap(control="KEY_Q", hold_us=5_000, remark="kept"), Repeat(times=2, steps=(Q,)))
    model = made.model
    assert model.index(0, WHAT).data(Qt.ItemDataRole.EditRole) == "tap Q for 5 ms"
    assert model.setData(model.index(0, WHAT), "move to 3, 4 in the window")
    assert loop(ui)[0] == Pointer(x=3, y=4, origin=Origin.WINDOW, remark="kept")
    assert model.setData(model.index(1, WHAT), "if run % 2 == 0")
    assert loop(ui)[1] == If(condition="run % 2 == 0", steps=(Q,))
    for text, reason in (
        ("tap Qqq for 5 ms", "no key or button 'Qqq'"),
        ("tap Q for 1 ms\ntap W for 1 ms", "one step"),
    ):
        assert not model.setData(model.index(0, WHAT), text)
        assert reason in model.refused
    assert not model.setData(model.index(1, WHAT), "wait 5 ms:")
    assert isinstance(loop(ui)[1], If)


@no_grab
def test_names_are_completed_while_a_step_is_typed(ui: Ui):
    made = shown(ui, Q)
    made.steps.setCurrentIndex(made.model.index(0, TIME))
    made.steps.setFocus()
    QTest.keyClick(made.steps, Qt.Key.Key_F2)
    editor = made.steps.findChild(QLineEdit)
    assert editor is not None
    editor.clear()
    QTest.keyClicks(editor, "tap left s")
    completer = editor.completer()
    assert completer is not None
    model = completer.model()
    offered = [model.index(row, 0).data() for row in range(model.rowCount())]
    assert offered[0] == "tap Left Shift"
    editor.setText("tap Left Shift for 30 ms")
    QTest.keyClick(editor, Qt.Key.Key_Return)
    ui.wait(lambda: loop(ui) == (Tap(control="KEY_LEFTSHIFT", hold_us=30_000),), "the step")


def test_the_control_of_the_selected_steps_is_changed_by_pressing_another(ui: Ui):
    made = shown(ui, Q, Wait(wait_us=9), Q)
    made.select([0, 2])
    actions = {action.text().split("\t")[0]: action for action in made.step_actions.menu_for([0, 2]).actions()}
    actions["Change the key…"].trigger()
    assert made.rebind.armed
    made.rebind.captured.emit("KEY_W")
    assert [step.control for step in loop(ui) if isinstance(step, Tap)] == ["KEY_W", "KEY_W"]
    made.rebind.cancel()
    actions["Split taps"].trigger()
    assert len(loop(ui)) == 7
    actions["Clear all steps"].trigger()
    assert loop(ui) == ()
    ui.undo()
    assert len(loop(ui)) == 7


def test_figures_of_all_kinds_are_typed_and_take_formulas(ui: Ui):
    made = shown(ui, Pointer(x=1, y=2), Text(text="a"), Wait(wait_us=5), Set(variable="n", value="2"))
    model = made.model
    assert [model.index(row, TIME).data() for row in range(4)] == ["at once", "30/s", "0.005 ms", ""]
    for row, text in ((0, "200"), (1, "12/s"), (2, "(20 + run * 5) ms")):
        assert model.setData(model.index(row, TIME), text), model.refused
    assert loop(ui)[:3] == (Pointer(x=1, y=2, over_us=200_000), Text(text="a", rate=12), Wait(wait_us="20 + run * 5"))
    assert not model.setData(model.index(2, TIME), "(20 +) ms")
    assert "formula" in model.refused
    assert not model.setData(model.index(1, TIME), "9999/s")
    # Enter goes to where a row is changed most.
    assert model.best_column(3) == WHAT
    assert model.setData(model.index(3, REMARK), "why")
    assert loop(ui)[3].remark == "why"


def test_the_page_tells_what_bad_input_will_get(ui: Ui):
    shown(
        ui,
        Wait(wait_us="1 / 0"),
        Text(text="字"),
        Pointer(x=9_000, y=10, size=(1280, 800)),
        Open(command=("no-such-tide",)),
        Set(variable="n", value="missing + 1"),
        Q,
    )
    for words in (
        "It can't be computed: the formula '1 / 0' divides by zero. The macro ends here.",
        "has no keys for",
        "9000, 10 lies outside the screen of 1280 x 800 pixels.",
        "no-such-tide",
        "Nothing sets 'missing', so it is 0",
    ):
        ui.wait(lambda w=words: any(w in each for each in told(ui)), words)
    shown(ui, Text(text="a"), play=Play(Mode.TOGGLE))
    ui.wait(lambda: any("types a text again and again" in each for each in told(ui)), "the word about its limit")


def test_a_recording_comes_in_and_what_the_macro_plays_goes_out(ui: Ui, tmp_path: Path):
    made = shown(ui, Q, Wait(wait_us=30_000), Q)
    exchange, macro = made.exchange, ui.store.macros["storm-volley"]
    for suffix in (".txt", ".csv", ".events.csv", ".vcd", ".evemu", ".yml"):
        path = tmp_path / f"out{suffix}"
        exchange.write(macro, path)
        ui.wait(path.exists, suffix)
    assert (tmp_path / "out.txt").read_text() == "tap Q for 20 ms\nwait 30 ms\ntap Q for 20 ms\n"
    for name in ("out.txt", "out.events.csv", "out.evemu", "out.yml"):
        before = set(ui.store.macros)
        exchange.read(tmp_path / name)
        ui.wait(lambda b=before: set(ui.store.macros) - b, name)
        (key,) = set(ui.store.macros) - before
        ends = [type(step).__name__ for step in ui.store.macros[key].loop if not isinstance(step, Wait)]
        assert ends in (["Tap", "Tap"], ["Press", "Release"] * 2)
        assert ui.window.shown.macro == ui.store.macros[key]
        ui.undo()
        assert set(ui.store.macros) == before


def test_a_file_that_cannot_be_read_is_named_with_the_reason_and_the_rest_goes_on(
    ui: Ui, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
):
    exchange, faults = shown(ui, Q).exchange, []
    ui.store.fault.connect(faults.append)
    bad = tmp_path / "bad.txt"
    bad.write_text("tap Q for 5 ms\ndance")
    exchange.read(bad)
    ui.wait(lambda: faults, "the reason")
    assert "bad.txt, line 2, column 1: 'dance' starts no step" in faults.pop()
    big = tmp_path / "big.csv"
    with big.open("w") as out:
        out.write("time_us,control,value\n")
        # A hundred megabytes of it.
        line = "1000,KEY_Q,1\n1000,KEY_Q,0\n" * 40_000
        for _ in range(100):
            out.write(line)
    exchange.read(big)
    ui.wait(lambda: faults, "the reason")
    assert "larger than 64 MB; record a shorter time" in faults.pop()
    assert made_still_works(ui)
    exchange.read(tmp_path / "gone.evemu")
    ui.wait(lambda: faults, "the reason")
    assert "can't be read: it isn't there" in faults.pop()
    # What is cancelled is forgotten.
    before = set(ui.store.macros)
    exchange.read(tmp_path / "big.csv")
    exchange.cancel()
    assert not ui.window.macro._busy.isVisible()
    assert set(ui.store.macros) == before


def made_still_works(ui: Ui) -> bool:
    model = ui.window.macro.model
    return model.setData(model.index(0, TIME), "33") and loop(ui)[0].hold_us == 33_000


def test_a_macro_too_long_for_text_says_so(ui: Ui, monkeypatch: pytest.MonkeyPatch):
    monkeypatch.setattr("nakrel.ui.macro.notation_view.MOST_STEPS", 3)
    made = shown(ui, Q, Q, Q, Q)
    made.show_view("notation")
    assert made.notation.editor.isReadOnly()
    assert "has 4 steps, more than the 3" in made.notation.message.text()
    made.notation.apply()
    assert len(loop(ui)) == 4
    shown(ui, Q)
    assert not made.notation.editor.isReadOnly()
    assert made.notation.editor.toPlainText() == "tap Q for 20 ms\n"


def test_the_pointer_is_among_what_is_recorded(ui: Ui):
    bar = shown(ui, Q).recording
    options = bar.options
    options.moves.setCurrentIndex(2)
    options.moves.activated.emit(2)
    options.tolerance.setValue(5)
    assert ui.store.settings.recording.moves is Moves.PATH
    assert ui.store.settings.recording.tolerance_px == 5
    assert "pointer path" in bar._words.full_text


PLACES = m.Places((), (800, 600), (100, 90), Window(50, 40, 400, 300, 7, "Tide map"))


def key(code: Qt.Key, keys: Qt.KeyboardModifier = Qt.KeyboardModifier.NoModifier) -> QKeyEvent:
    return QKeyEvent(QKeyEvent.Type.KeyPress, code, keys)


@no_grab
def test_places_are_picked_by_pixels_and_counted_from_the_window_they_are_in(ui: Ui):
    picker, taken, ended = Picker(), [], []
    picker.taken.connect(taken.append)
    picker.ended.connect(ended.append)
    picker.start(PLACES)
    assert picker.views
    assert picker.lines()[:2] == ["50, 50", "in the window “Tide map”"]
    picker.press(key(Qt.Key.Key_Right))
    picker.press(key(Qt.Key.Key_Down, Qt.KeyboardModifier.ShiftModifier))
    picker.press(key(Qt.Key.Key_Return))
    picker.press(key(Qt.Key.Key_W))
    picker.press(key(Qt.Key.Key_Return))
    QTest.mouseClick(picker.views[0], Qt.MouseButton.LeftButton, pos=QPoint(600, 500))
    assert taken == [
        Pointer(x=51, y=60, origin=Origin.WINDOW, size=(400, 300)),
        Pointer(x=101, y=100, size=(800, 600)),
        Pointer(x=600, y=500, size=(800, 600)),
    ]
    assert "3 taken" in picker.lines()[-1]
    # It ends at the border of the screens.
    for _ in range(100):
        picker.press(key(Qt.Key.Key_Right, Qt.KeyboardModifier.ShiftModifier))
    assert picker.spot.x() == 799
    picker.press(key(Qt.Key.Key_Escape))
    assert ended == [True]
    assert not picker.views


@no_grab
def test_a_place_is_picked_anew_in_its_row(ui: Ui):
    made = shown(ui, Pointer(x=1, y=2, over_us=9_000, remark="buoy"))
    made.step_actions.pick_again(0)
    ui.wait(lambda: made.places.picker and made.places.picker.views, "the dimmed screen")
    QTest.mouseClick(made.places.picker.views[0], Qt.MouseButton.LeftButton, pos=QPoint(70, 80))
    assert made.places.picker is None
    step = loop(ui)[0]
    assert (step.x, step.y, step.over_us, step.remark) == (70, 80, 9_000, "buoy")
    assert ui.window.isVisible()


def test_where_steps_go_is_told_for_every_kind_of_place():
    steps = [
        Pointer(x=10, y=20, size=(400, 300)),
        Pointer(x=5, y=-5, origin=Origin.POINTER),
        Pointer(x=40, y=30, origin=Origin.WINDOW, size=(200, 150)),
        Pointer(x="run * 100", y=7),
    ]
    found = [(spot.x(), spot.y()) for spot in spots_of(steps, PLACES, (1, 1))]
    assert found == [(20, 40), (25, 35), (130, 100), (100, 7)]
    with pytest.raises(DataError, match="no window is in front"):
        spots_of(steps[2:], m.Places((), None, None, None), (800, 600))
    with pytest.raises(DataError, match="can't be worked out"):
        spots_of([Pointer(x="1 / 0", y=1)], PLACES, (1, 1))


_TWO_SCREENS = """
import sys
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication
from nakrel import protocol as m
from nakrel.core.model.places import Monitor
from nakrel.ui.screen import Picker

app = QApplication([])
monitors = (Monitor("west", 0, 0, 800, 600), Monitor("east", 800, 0, 1600, 1200))
picker = Picker()
taken = []
picker.taken.connect(lambda step: taken.append((step.x, step.y, step.size)))
picker.start(m.Places(monitors, (2400, 1200), (10, 10), None))
by_place = {view.place.x(): view for view in picker.views}
QTest.mouseClick(by_place[0], Qt.MouseButton.LeftButton, pos=QPoint(30, 40))
QTest.mouseClick(by_place[800], Qt.MouseButton.LeftButton, pos=QPoint(30, 40))
print(taken)
"""


def test_all_monitors_are_picked_on_in_the_pixels_that_programs_count_in(tmp_path: Path):
    """The second monitor has two pixels a point, as desktops with fine screens set it."""
    config = tmp_path / "screens.json"
    screens = [
        {"name": name, "x": x, "y": 0, "width": 800, "height": 600, "logicalDpi": 96, "logicalBaseDpi": 96, "dpr": dpr}
        for name, x, dpr in (("west", 0, 1), ("east", 800, 2))
    ]
    config.write_text(json.dumps({"screens": screens}))
    run = subprocess.run(
        [sys.executable, "-c", _TWO_SCREENS],
        env={"QT_QPA_PLATFORM": f"offscreen:configfile={config}", "PATH": "/usr/bin", "HOME": str(tmp_path)},
        capture_output=True,
        text=True,
        timeout=60,
    )
    assert run.stdout.strip() == "[(30, 40, (2400, 1200)), (860, 80, (2400, 1200))]", run.stderr
