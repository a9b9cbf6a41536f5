"""The window calls keys by what is printed on them, wherever it names one."""

from __future__ import annotations

import msgspec
import pytest
from PyQt6.QtCore import QEvent, Qt
from PyQt6.QtGui import QGuiApplication, QKeyEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QLabel

from nakrel import protocol as m
from nakrel.core import notation
from nakrel.core.model.cells import ToControl
from nakrel.core.model.controls import label, printed_beside
from nakrel.core.model.errors import DataError
from nakrel.core.model.names import read_shown
from nakrel.core.model.profile import GameKey
from nakrel.core.model.settings import SettingsPatch
from nakrel.core.model.steps import If, Step, Tap, Wait
from nakrel.ui import commands
from nakrel.ui.macro.steps_model import TIME, WHAT
from nakrel.ui.sheet.game_keys import GameKeys
from nakrel.ui.sheet.model import CONTROL
from nakrel.window_events import letter_of
from tests.ui.conftest import Ui, assign, type_into, type_letters


def use(ui: Ui, layout: str, name: str) -> None:
    """Use a layout, and wait until the key right of Tab is called so."""
    commands.change_settings(ui.store, "layout", SettingsPatch(layout=layout))
    ui.wait(lambda: label("KEY_Q") == name, f"the names of {layout}")


def show_keyboard(ui: Ui) -> None:
    ui.window.shown.show_profile("tidewardens")
    ui.window.shown.show_page("sheet")
    sheet = ui.window.sheet
    sheet.device.setCurrentIndex([each.name for each in ui.store.devices].index("Bollard keyboard"))


def test_every_place_that_names_keys_follows_the_layout(ui: Ui):
    show_keyboard(ui)
    sheet, page = ui.window.sheet, ui.window.macro
    macro = commands.new_macro(ui.store, "Tack")
    steps = (Tap(control="KEY_Q", hold_us=4_000), Tap(control="KEY_W", hold_us=4_000))
    commands.edit_macro(ui.store, "steps", msgspec.structs.replace(macro, loop=steps))
    ui.window.shown.show_macro(macro.id)
    # xkeyboard-config, symbols/fr: A and Z stand where the US layout has Q and W.
    for layout, first, second in (("fr", "A", "Z"), ("us", "Q", "W")):
        use(ui, layout, first)
        ui.window.shown.show_page("sheet")
        sheet.show_control("KEY_Q")
        assert sheet.model.index(sheet.model.row_of("KEY_Q"), CONTROL).data() == first
        ui.wait(lambda name=first: ui.window.sheet_details._title.text() == name, "the title of the details")
        ui.window.shown.show_page("macro")
        page.show_view("steps")
        shown = [page.model.index(row, WHAT).data() for row in range(page.model.rowCount())]
        assert shown == [f"tap {first}", f"tap {second}"]
        assert page.add_step.control.itemData(page.add_step.control.findText(first)) == "KEY_Q"
        # What the process beside the window works out says so, too.
        check = ui.window.macro_details.frame_check
        ui.wait(
            lambda name=first, check=check: any(f"of {name}:" in each.text() for each in check.findChildren(QLabel)),
            "the frame check",
        )
        page.show_view("notation")
        # Text is the same on every keyboard, and says what that means on this one.
        assert page.notation.editor.toPlainText().startswith("tap Q")
        assert ("A is Q, Z is W" in page.notation.message.text()) is (layout == "fr")


def test_a_step_is_retyped_in_the_list_as_it_is_shown(ui: Ui):
    macro = commands.new_macro(ui.store, "Tack")
    inside: tuple[Step, ...] = (Tap(control="KEY_Q", hold_us=4_000), Wait(wait_us=2_000))
    loop = (If(condition='held("Q")', steps=inside),)
    commands.edit_macro(ui.store, "steps", msgspec.structs.replace(macro, loop=loop))
    ui.window.shown.show_macro(macro.id)
    use(ui, "fr", "A")
    model = ui.window.macro.model
    assert [model.index(row, WHAT).data() for row in range(2)] == ['if held("A")', "tap A"]
    typed = {(0, WHAT): 'if held("z")', (1, WHAT): "tap z for 4 ms", (1, TIME): '(held("q") * 5)'}
    for (row, column), text in typed.items():
        cell = model.index(row, column)
        before = cell.data(Qt.ItemDataRole.EditRole)
        assert model.setData(cell, text), model.refused
        assert cell.data(Qt.ItemDataRole.EditRole) != before
    assert model.index(1, TIME).data() == '(held("Q") * 5) ms'
    # symbols/fr: Z is where the US layout has W, and Q where it has A.
    tapped = Tap(control="KEY_W", hold_us='held("A") * 5')
    assert ui.store.macros[macro.id].loop == (If(condition='held("W")', steps=(tapped, inside[1])),)
    add = ui.window.macro.add_step
    add.kind.setCurrentIndex(add.kind.findData("if"))
    add.typed.setText('held("m")')
    add.add()
    assert ui.store.macros[macro.id].loop[1] == If(condition='held("Semicolon")')


def test_what_is_typed_for_a_key_is_what_is_printed_on_it(ui: Ui):
    show_keyboard(ui)
    use(ui, "fr", "A")
    ui.window.sheet.show_control("KEY_F9")
    assign(ui, "ctrl+a", "Left Ctrl + A")
    assert ui.window.sheet_details.does.text() == "Left Ctrl + A"
    assign(ui, "q", "Q")
    assert ui.store.profiles["tidewardens"].setups[0].cells["KEY_F9"] == ToControl("KEY_A")
    commands.set_keys(ui.store, ui.store.profiles["tidewardens"], (GameKey("Reef", "KEY_R"),))
    dialog = GameKeys(ui.store, ui.store.profiles["tidewardens"].id, ui.window)
    dialog.show()
    type_into(dialog, 0, 1, "a")
    assert ui.store.profiles["tidewardens"].keys == (GameKey("Reef", "KEY_Q"),)
    dialog.name.setText("Furl")
    dialog.control.lineEdit().clear()
    QTest.keyClicks(dialog.control.lineEdit(), "z")
    QTest.keyClick(dialog.control.lineEdit(), Qt.Key.Key_Return)
    dialog.add()
    assert ui.store.profiles["tidewardens"].keys[1] == GameKey("Furl", "KEY_W")
    dialog.accept()


def test_a_letter_of_another_alphabet_finds_its_key(ui: Ui):
    show_keyboard(ui)
    ui.window.sheet.show_control("KEY_F9")
    # xkeyboard-config, symbols/ru: short i and tse stand beside Q and W.
    use_letters(ui, "ru", "й", "KEY_Q")
    assert ui.window.sheet.model.index(ui.window.sheet.model.row_of("KEY_Q"), CONTROL).data() == "Q"
    assign(ui, "й", "Q")
    assert ui.store.profiles["tidewardens"].setups[0].cells["KEY_F9"] == ToControl("KEY_Q")
    assign(ui, "ctrl+Ц", "Left Ctrl + W")
    [step] = notation.read_shown_steps("wait (held('й') * 2) ms")
    assert step == Wait(wait_us='held("Q") * 2')
    commands.set_keys(ui.store, ui.store.profiles["tidewardens"], (GameKey("Reef", "KEY_R"),))
    dialog = GameKeys(ui.store, ui.store.profiles["tidewardens"].id, ui.window)
    dialog.show()
    dialog.control.lineEdit().clear()
    type_letters(dialog.control.lineEdit(), "ц")
    completer = dialog.control.completer()
    assert completer
    assert completer.completionModel().index(0, 0).data().startswith("W")
    QTest.keyClick(dialog.control.lineEdit(), Qt.Key.Key_Return)
    assert dialog.control.code() == "KEY_W"
    dialog.accept()
    use_letters(ui, "us", "й", "")
    with pytest.raises(DataError):
        read_shown("й")


def use_letters(ui: Ui, layout: str, letter: str, code: str) -> None:
    commands.change_settings(ui.store, "layout", SettingsPatch(layout=layout))
    ui.wait(lambda: printed_beside(letter) == code, f"the letters of {layout}")


def press(ui: Ui, code: int, text: str, key: int = 0) -> None:
    """Press a key in the window as X11 tells of it: by its number, and by the letter that it makes now."""
    kinds = (QEvent.Type.KeyPress, QEvent.Type.KeyRelease)
    for kind in kinds:
        event = QKeyEvent(kind, key, Qt.KeyboardModifier.NoModifier, code + 8, key, 0, text)
        QGuiApplication.sendEvent(ui.window.windowHandle(), event)


def test_a_layout_that_is_changed_while_one_types_is_found_by_what_a_key_makes(ui: Ui):
    use(ui, "us", "Q")
    asked: list[m.Body] = []
    keyboard = ui.store.keyboard
    ui.wait(lambda: QGuiApplication.focusWindow() is ui.window.windowHandle(), "the window to have the keyboard")
    really, keyboard._ask = keyboard._ask, lambda body, then: asked.append(body)
    # linux/input-event-codes.h: KEY_Q is 16.
    for text in ("q", "Q", "й", "й", "1", "ctrl"):
        press(ui, 16, text)
    assert asked == [m.GetLegends("us")]
    # Once something has been learned, the same would be something new.
    keyboard._ask = really
    use_letters(ui, "ru", "й", "KEY_Q")
    keyboard._ask = lambda body, then: asked.append(body)
    press(ui, 16, "й")
    press(ui, 16, "q")
    assert asked == [m.GetLegends("us"), m.GetLegends("ru")]


def test_a_letter_that_means_something_is_found_in_every_alphabet():
    # linux/input-event-codes.h: KEY_H is 35.
    for code, key, text, letter in (
        (35, Qt.Key.Key_H, "h", "H"),
        # xkeyboard-config, symbols/ru, gr: er and eta stand beside H.
        (35, 0x420, "р", "H"),  # noqa: RUF001
        (35, 0x397, "η", "H"),
        (35, Qt.Key.Key_D, "d", "D"),
        (28, Qt.Key.Key_Return, "\r", ""),
        (2, Qt.Key.Key_1, "1", ""),
    ):
        event = QKeyEvent(QEvent.Type.KeyPress, key, Qt.KeyboardModifier.NoModifier, code + 8, key, 0, text)
        assert letter_of(event) == letter


def test_the_service_calls_keys_so_in_what_it_tells(ui: Ui):
    commands.change_settings(ui.store, "stop", SettingsPatch(stop_key="KEY_Q"))
    use(ui, "fr", "A")
    ui.service.call(m.Play_("steady-oar"))
    ui.wait(lambda: ui.store.status.running, "the macro")
    for value in (1, 0):
        ui.service.call(m.PressStandIn("standin:bollard", "KEY_Q", value))
    ui.wait(lambda: any("A pressed" in f"{entry.what} {entry.why}" for entry in ui.store.journal), "the journal")


def test_the_desktops_layout_is_looked_at_whenever_the_window_comes_to_the_front(ui: Ui):
    asked: list[m.Body] = []
    ui.store.keyboard._ask = lambda body, then: asked.append(body)
    ui.store.set_front(False)
    for front in (False, True, True, False):
        ui.store.set_front(front)
    assert asked == [m.GetLegends("")]


def test_where_digits_need_shift_pages_come_by_the_keys_alone(ui: Ui):
    pages = {
        each.shortcut().toString(): each for each in ui.window.actions() if each.shortcut().toString()[5:].isdigit()
    }
    assert list(pages) == [f"Ctrl+{n}" for n in range(1, 6)]
    # xkeyboard-config, symbols/fr: & é " ' ( are on the keys of 1 to 5.
    for layout, name, alone in (("fr", "A", list("&É\"'(")), ("us", "Q", list("12345"))):
        use(ui, layout, name)
        for n, sign in enumerate(alone, 1):
            keys = [key.toString() for key in pages[f"Ctrl+{n}"].shortcuts()]
            assert keys == list(dict.fromkeys([f"Ctrl+{n}", f"Ctrl+{sign}"]))
    use(ui, "fr", "A")
    ui.window.shown.show_page("sheet")
    QTest.keyClick(ui.window, Qt.Key.Key_Eacute, Qt.KeyboardModifier.ControlModifier)
    ui.wait(lambda: ui.window.shown.page == "macro", "the second page")
