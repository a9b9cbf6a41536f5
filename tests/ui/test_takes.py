"""After a recording: the strip decides how it is used, as one edit, and earlier takes can be used again."""

from __future__ import annotations

import os
import stat

from PyQt6.QtWidgets import QApplication

from nakrel import protocol as m
from nakrel.core.model.macro import Macro
from nakrel.core.model.recording import Waits, Where
from nakrel.core.model.steps import Press, Release, Tap, Wait
from nakrel.storage.files import VERSION
from nakrel.ui import commands
from tests.ui.conftest import Ui

KEYBOARD = "standin:bollard"


def record(ui: Ui, *keys: str) -> None:
    """Record these keys, one after the other, into the macro that is shown."""
    bar = ui.window.macro.recording
    bar.button.click()
    ui.wait(lambda: ui.store.status.recording, "the recording")
    for key in keys:
        for value in (1, 0):
            ui.service.call(m.PressStandIn(KEYBOARD, key, value))
    ui.wait(lambda: len(bar._steps) >= 2 * len(keys), "the steps")
    bar.button.click()
    ui.wait(lambda: not bar.recording, "the end")


def fresh_macro(ui: Ui) -> Macro:
    macro = commands.new_macro(ui.store, "Sounding")
    ui.window.shown.show_macro(macro.id)
    return macro


def test_a_recording_is_used_as_the_strip_says_as_one_edit(ui: Ui):
    macro = fresh_macro(ui)
    count = ui.store.undo_stack.count()
    record(ui, "KEY_W", "KEY_E")
    strip = ui.window.macro.take_strip
    ui.wait(strip.isVisible, "the strip")
    assert "Take 1" in strip._head.text()
    loop = lambda: ui.store.macros[macro.id].loop  # noqa: E731
    assert [s.control for s in loop() if isinstance(s, Press | Release)] == ["KEY_W", "KEY_W", "KEY_E", "KEY_E"]
    strip.taps.chosen.emit(True)
    assert [s.control for s in loop() if isinstance(s, Tap)] == ["KEY_W", "KEY_E"]
    strip.delays.chosen.emit(Waits.EVEN)
    strip.even.changed.emit(40_000)
    assert {s.wait_us for s in loop() if isinstance(s, Wait)} <= {40_000}
    assert ui.store.undo_stack.count() == count + 1
    ui.undo()
    assert loop() == ()
    assert not strip.isVisible()
    # The last choice is what the next take is used by.
    ui.redo()
    record(ui, "KEY_Q")
    assert isinstance(loop()[-1], Tap)
    assert "joined into taps" in strip.taps.text()


def test_the_strip_goes_when_anything_else_is_edited_and_the_take_stays_as_it_is(ui: Ui):
    macro = fresh_macro(ui)
    record(ui, "KEY_W")
    strip = ui.window.macro.take_strip
    ui.wait(strip.isVisible, "the strip")
    after = ui.store.macros[macro.id]
    commands.edit_macro(ui.store, "note", Macro(id=macro.id, name="Deep sounding", loop=after.loop))
    assert not strip.isVisible()
    assert ui.store.macros[macro.id].loop == after.loop


def test_an_earlier_take_is_used_again_and_replaces_or_follows(ui: Ui):
    macro = fresh_macro(ui)
    record(ui, "KEY_W")
    record(ui, "KEY_E")
    strip = ui.window.macro.take_strip
    strip.list_takes()
    ui.wait(lambda: strip.menu is not None, "the list")
    texts = [action.text() for action in strip.menu.actions()]
    assert [text.partition(" ·")[0] for text in texts if text] == ["Take 2", "Take 1", "Compare them…"]
    strip.menu.actions()[1].trigger()
    strip.menu.close()
    controls = lambda: [s.control for s in ui.store.macros[macro.id].loop if isinstance(s, Press | Tap)]  # noqa: E731
    assert controls() == ["KEY_W", "KEY_W"]
    strip.where.chosen.emit(Where.REPLACE)
    assert controls() == ["KEY_W"]
    strip.where.chosen.emit(Where.CURSOR)
    # They are for their user's eyes alone, and still there in a new window.
    [path] = (ui.service.home.state / "takes").glob("*.json")
    assert stat.S_IMODE(os.stat(path).st_mode) == 0o600
    answer = ui.service.call(m.GetTakes(macro.id))
    assert isinstance(answer, m.TakesAre)
    assert [take.number for take in answer.takes] == [1, 2]
    QApplication.processEvents()


def test_the_strip_stays_with_its_macro_and_out_of_the_way_of_the_text(ui: Ui):
    macro = fresh_macro(ui)
    ui.window.show()
    record(ui, "KEY_W")
    page = ui.window.macro
    strip = page.take_strip
    ui.wait(strip.isVisible, "the strip")
    assert strip.geometry().top() == page.steps.geometry().top()
    page.show_view("notation")
    QApplication.processEvents()
    assert strip.geometry().top() > page.notation.editor.geometry().center().y()
    ui.window.shown.show_macro("reel-in")
    assert not strip.isVisible()
    assert isinstance(ui.store.macros[macro.id].loop[0], Press)


def test_what_is_wrong_with_a_text_isnt_covered_by_the_strip(ui: Ui):
    fresh_macro(ui)
    record(ui, "KEY_W")
    page = ui.window.macro
    page.show_view("notation")
    ui.wait(page.take_strip.isVisible, "the strip")
    page.notation.editor.insertPlainText("nonsense ")
    assert not page.take_strip.isVisible()
    ui.wait(lambda: "Line 1" in page.notation.message.text(), "the reason")


def test_takes_lie_faintly_under_the_macro_while_one_is_used(ui: Ui):
    macro = fresh_macro(ui)
    record(ui, "KEY_W")
    diagram, strip = ui.window.macro.diagram, ui.window.macro.take_strip
    ui.wait(strip.isVisible, "the strip")
    assert diagram._takes == []
    record(ui, "KEY_W")
    ui.wait(lambda: len(diagram._takes) == 2, "both takes")
    line = ui.window.macro.model.line
    assert [step.control for step in line.macro.loop if isinstance(step, Press)] == ["KEY_W", "KEY_W"]
    # Both begin where the second recording was put, and that one lies under the macro exactly.
    second = line.spans["KEY_W"][1]
    assert [take["KEY_W"][0][0] for take in diagram._takes] == [second.start_us] * 2
    assert diagram._takes[1]["KEY_W"] == [(second.start_us, second.end_us)]
    commands.edit_macro(ui.store, "name", Macro(id=macro.id, name="Deep", loop=ui.store.macros[macro.id].loop))
    assert diagram._takes == []


def test_takes_that_cannot_be_read_are_told_and_left(ui: Ui):
    macro = fresh_macro(ui)
    record(ui, "KEY_W")
    # The file comes under its name when all of it is written.
    ui.wait(lambda: list((ui.service.home.state / "takes").glob("*.json")), "their file")
    [path] = (ui.service.home.state / "takes").glob("*.json")
    newer = path.read_text().replace(f'"version": {VERSION}', '"version": 99')
    path.write_text(newer)
    faults: list[str] = []
    ui.store.fault.connect(faults.append)
    ui.window.macro.take_strip.list_takes()
    ui.wait(lambda: any("A later Nakrel wrote it" in each for each in faults), "the reason")
    # What was recorded is in the macro all the same, and the file as it was.
    faults.clear()
    record(ui, "KEY_E")
    ui.wait(lambda: any("A later Nakrel wrote it" in each for each in faults), "the reason again")
    assert ui.store.macros[macro.id].loop[-1] == Release(control="KEY_E")
    assert path.read_text() == newer


def test_nothing_recorded_offers_nothing(ui: Ui):
    macro = fresh_macro(ui)
    record(ui)
    assert not ui.window.macro.take_strip.isVisible()
    assert ui.store.macros[macro.id].loop == ()


def test_a_key_begins_and_ends_a_recording_in_a_game(ui: Ui):
    macro = fresh_macro(ui)
    keys = ui.window.devices.keys
    ui.window.shown.show_page("devices")
    keys.buttons["record_key"].click()
    ui.wait(lambda: ui.store.status.listening, "the listening")
    for value in (1, 0):
        ui.service.call(m.PressStandIn(KEYBOARD, "KEY_F9", value))
    ui.wait(lambda: ui.store.settings.record_key == "KEY_F9", "the key")
    ui.wait(lambda: not ui.store.status.listening and not ui.store.saving, "the end of the capture")
    ui.window.shown.show_page("macro")
    ui.store.set_front(False)
    for key in ("KEY_F9", "KEY_W", "KEY_F9"):
        for value in (1, 0):
            ui.service.call(m.PressStandIn(KEYBOARD, key, value))
        if key == "KEY_F9" and not ui.store.macros[macro.id].loop:
            ui.wait(lambda: ui.store.status.recording or ui.store.macros[macro.id].loop, "the recording")
    ui.wait(lambda: ui.store.macros[macro.id].loop, "the steps")
    # The key itself is no part of it.
    assert {s.control for s in ui.store.macros[macro.id].loop if isinstance(s, Press | Release)} == {"KEY_W"}


def test_a_key_that_stops_everything_does_nothing_else(ui: Ui):
    keys = ui.window.devices.keys
    keys._set("record_key", "KEY_PAUSE")
    assert "is taken: Stop everything" in keys._said.text()
    keys._set("record_key", "BTN_LEFT")
    assert ui.store.settings.record_key == ""
