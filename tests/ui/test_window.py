"""The window without a screen: models, edits and undo, choosing by pressing, and what it says of faults."""

from __future__ import annotations

import itertools
import re
from pathlib import Path

import msgspec
import pytest
from PyQt6.QtCore import QAbstractItemModel, QMimeData, QModelIndex, QPoint, QPointF, Qt
from PyQt6.QtGui import QColor, QImage, QWheelEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QAbstractButton, QApplication, QComboBox, QLabel, QLineEdit, QListView, QTableView, QWidget
from pytestqt.modeltest import ModelTester
from pytestqt.qtbot import QtBot

from nakrel import protocol as m
from nakrel.client.connection import ServiceConnection
from nakrel.core.model.cells import Nothing, RunMacro, ToControl
from nakrel.core.model.macro import LetGo, Mode
from nakrel.core.model.profile import EVERYDAY
from nakrel.core.model.settings import SettingsPatch
from nakrel.core.model.steps import Tap, Wait
from nakrel.ui import commands, theme
from nakrel.ui.application import scaled_environment
from nakrel.ui.dragged import MACRO_MIME
from nakrel.ui.sheet.model import CODE, PLAIN
from nakrel.ui.shown import PAGES
from nakrel.ui.widgets.basics import NumberField, TimeEdit
from nakrel.ui.widgets.shield import shielded
from tests.ui.conftest import Ui

MOUSE = "standin:halyard-12"
KEYBOARD = "standin:bollard"
THUMB_10 = "BTN_TRIGGER_HAPPY10"


def press(ui: Ui, control: str, value: int, device: str = MOUSE) -> None:
    ui.store.ask(m.PressStandIn(device, control, value))


def show(ui: Ui, profile: str = "tidewardens", macro: str = "reel-in") -> None:
    ui.window.shown.show_profile(profile)
    ui.window.shown.show_macro(macro, open_page=False)


def test_models_keep_qts_rules(ui: Ui, qtmodeltester: ModelTester):
    show(ui)
    column = ui.window.column
    models: list[QAbstractItemModel] = [
        column.profiles,
        column.macros,
        ui.window.sheet.model,
        ui.window.macro.model,
        ui.window.journal.model,
    ]
    for model in models:
        assert model.rowCount() > 0
        qtmodeltester.check(model)


def test_a_rename_is_saved_by_itself_and_undone(ui: Ui):
    profiles = ui.window.column.profiles
    profiles.setData(profiles.index(profiles.row_of("tidewardens")), "Tidewardens II")
    path = ui.service.home.profiles / "Tidewardens II.json"
    ui.wait(path.exists, "the file under its new name")
    ui.wait(lambda: ui.window.column.saved.text() == "saved")
    ui.undo()
    ui.wait(lambda: not path.exists() and (ui.service.home.profiles / "Tidewardens.json").exists(), "the old name")
    ui.redo()
    ui.wait(path.exists, "the new name again")


def test_deleting_a_macro_frees_its_buttons_and_undo_brings_both_back(ui: Ui):
    before = dict(ui.store.profiles), dict(ui.store.macros)
    commands.delete_macro(ui.store, ui.store.macros["reel-in"])
    assert "reel-in" not in ui.store.macros
    assert "BTN_SIDE" not in ui.store.profiles["tidewardens"].setups[0].cells
    ui.undo()
    assert (ui.store.profiles, ui.store.macros) == before
    ui.wait((ui.service.home.macros / "Reel in.json").exists, "the file")


def test_a_profile_deleted_while_shown_gives_way_to_everyday(ui: Ui):
    show(ui)
    commands.delete_profile(ui.store, ui.store.profiles["tidewardens"])
    assert ui.window.shown.profile.id == EVERYDAY
    ui.undo()
    assert "tidewardens" in ui.store.profiles


def test_typed_times_become_waits_of_all_selected_steps(ui: Ui):
    show(ui)
    model = ui.window.macro.model
    model.selected = [3, 5, 7]
    assert model.setData(model.index(3, 3), "2f@60")
    waits = [step.wait_us for step in ui.store.macros["reel-in"].loop if isinstance(step, Wait)]
    assert waits == [33_333] * 3
    assert not model.setData(model.index(3, 3), "soon")
    assert "'soon' is not a time" in ui.window.messages.text.full_text
    ui.undo()
    assert [s.wait_us for s in ui.store.macros["reel-in"].loop if isinstance(s, Wait)] == [7_000, 11_000, 7_000]


def test_steps_are_added_moved_switched_off_and_deleted(ui: Ui):
    show(ui)
    page = ui.window.macro
    before = ui.store.macros["reel-in"]
    page.select([2])
    page.add_step.kind.setCurrentText("tap")
    page.add_step.control.setCurrentIndex(page.add_step.control.findData("KEY_F13"))
    page.add_step.add_button.click()
    assert ui.store.macros["reel-in"].loop[1] == Tap(control="KEY_F13", hold_us=50_000)
    assert page.selected() == [3]
    page.step_actions.move_selected(1)
    assert ui.store.macros["reel-in"].loop[2].control == "KEY_F13"
    assert page.selected() == [4]
    page.step_actions.switch_selected()
    assert ui.store.macros["reel-in"].loop[2].off
    page.step_actions.delete_selected()
    assert ui.store.macros["reel-in"] == before
    for _ in range(4):
        ui.undo()
    assert ui.store.macros["reel-in"] == before


def test_dragging_a_macro_to_a_row_attaches_it(ui: Ui):
    show(ui)
    sheet = ui.window.sheet.model
    data = QMimeData()
    data.setData(MACRO_MIME, b"cast-far")
    target = sheet.index(sheet.row_of(THUMB_10), 2)
    assert sheet.dropMimeData(data, Qt.DropAction.CopyAction, -1, -1, target)
    assert ui.store.profiles["tidewardens"].setups[0].cells[THUMB_10] == RunMacro("cast-far")
    ui.undo()
    assert ui.store.profiles["tidewardens"].setups[0].cells[THUMB_10] == RunMacro("weigh-the-catch")


def test_the_last_click_is_kept_and_the_reason_is_said(ui: Ui):
    show(ui)
    profile = ui.store.profiles["tidewardens"]
    refused = commands.set_cell(ui.store, profile, profile.setups[0].name, "BTN_LEFT", Nothing())
    assert "no way to click" in refused
    assert ui.store.profiles["tidewardens"] == profile
    assert not commands.set_cell(ui.store, profile, profile.setups[0].name, THUMB_10, ToControl("BTN_LEFT"))
    assert not commands.set_cell(ui.store, ui.store.profiles["tidewardens"], "Healer", "BTN_LEFT", Nothing())


def test_pressing_a_button_lights_and_chooses_its_row(ui: Ui):
    show(ui)
    press(ui, THUMB_10, 1)
    ui.wait(lambda: ui.window.shown.control == THUMB_10, "the row to be chosen")
    sheet = ui.window.sheet.model
    row = sheet.row_of(THUMB_10)
    assert sheet.data(sheet.index(row, 0), theme_role("LIT"))
    assert ui.window.sheet.table.currentIndex().data(CODE) == THUMB_10
    press(ui, THUMB_10, 0)
    ui.wait(lambda: not sheet.data(sheet.index(row, 0), theme_role("LIT")), "the light to go out")


def theme_role(name: str) -> int:
    from nakrel.ui.widgets import rows

    return int(getattr(rows, name))


def test_attaching_by_pressing_takes_the_press_and_plays_nothing(ui: Ui):
    show(ui)
    ui.window.shown.show_page("macro")
    ui.store.pin("tidewardens")
    details = ui.window.macro_details
    details.attach_button.click()
    ui.wait(lambda: ui.store.status.listening, "attachments to rest")
    press(ui, "BTN_TRIGGER_HAPPY4", 1)
    press(ui, "BTN_TRIGGER_HAPPY4", 0)
    cells = lambda: ui.store.profiles["tidewardens"].setups[0].cells  # noqa: E731
    ui.wait(lambda: cells()["BTN_TRIGGER_HAPPY4"] == RunMacro("reel-in"), "the attachment")
    ui.wait(lambda: not ui.store.status.listening, "attachments to work again")
    assert "undo brings that back" in details._message.text()
    assert not any(entry.kind == "run" for entry in ui.store.journal)
    ui.undo()
    assert cells()["BTN_TRIGGER_HAPPY4"] == RunMacro("storm-volley")


def test_cancelling_a_capture_leaves_all_as_it_was(ui: Ui):
    show(ui)
    ui.window.shown.show_page("macro")
    before = dict(ui.store.profiles)
    capture = ui.window.macro_details.capture
    ui.window.macro_details.attach_button.click()
    capture.cancel_button.click()
    assert not capture.armed
    assert ui.window.macro_details.attach_button.isVisible()
    press(ui, THUMB_10, 1)
    press(ui, THUMB_10, 0)
    ui.wait(lambda: not ui.store.status.listening)
    assert ui.store.profiles == before


def test_the_way_to_play_shows_only_its_own_fields(ui: Ui):
    show(ui)
    ui.window.shown.show_page("macro")
    fields = ui.window.macro_details.play
    every = ("start_on", "again", "runs", "pause", "let_go", "limit_runs", "limit_us")
    for mode, shown in [
        (Mode.SINGLE, {"start_on", "again"}),
        (Mode.COUNTED, {"start_on", "again", "runs", "pause"}),
        (Mode.HELD, {"let_go", "pause"}),
        (Mode.TOGGLE, {"pause", "limit_runs", "limit_us"}),
    ]:
        fields.mode.buttons[mode].click()
        assert ui.store.macros["reel-in"].play.mode is mode
        assert {name for name in every if getattr(fields, name).isVisibleTo(fields)} == shown
    for typed, told, us in (
        ("3600s", "60 min", 3_600_000_000),
        ("90s", "90 s", 90_000_000),
        ("1500", "1500 ms", 1_500_000),
    ):
        # What is shown can be taken as it is.
        for text in (typed, told):
            fields.limit_us.edit()
            QTest.keyClicks(fields.limit_us.line, text)
            QTest.keyClick(fields.limit_us.line, Qt.Key.Key_Return)
            assert (fields.limit_us.shown.text(), ui.store.macros["reel-in"].play.limit_us) == (told, us)


def test_the_values_of_the_sentence_are_typed_chosen_and_refused_in_place(ui: Ui):
    show(ui)
    ui.window.shown.show_page("macro")
    fields = ui.window.macro_details.play
    play = lambda: ui.store.macros["reel-in"].play  # noqa: E731
    for figure, typed, wanted in (
        (fields.pause, "40/s", ("pause_us", 25_000)),
        (fields.pause, "2f@60", ("pause_us", 33_333)),
    ):
        figure.edit()
        QTest.keyClicks(figure.line, typed)
        QTest.keyClick(figure.line, Qt.Key.Key_Return)
        assert getattr(play(), wanted[0]) == wanted[1]
    # What is no time stays where it is, marked, with the reason; Esc brings the old one back.
    fields.pause.edit()
    QTest.keyClicks(fields.pause.line, "soon")
    QTest.keyClick(fields.pause.line, Qt.Key.Key_Return)
    assert fields.pause.editing
    assert "not a time" in fields.pause.line.toolTip()
    QTest.keyClick(fields.pause.line, Qt.Key.Key_Escape)
    assert not fields.pause.editing
    assert play().pause_us == 33_333
    # Up and Down go through a short list, Return shows it.
    QTest.keyClick(fields.let_go, Qt.Key.Key_Up)
    assert play().let_go is LetGo.AT_ONCE
    QTest.keyClick(fields.let_go, Qt.Key.Key_Down)
    assert play().let_go is LetGo.AFTER_RUN
    fields.mode.buttons[Mode.TOGGLE].click()
    for typed, runs in (("40", 40), ("no limit", None), ("0", None)):
        fields.limit_runs.edit()
        QTest.keyClicks(fields.limit_runs.line, typed)
        QTest.keyClick(fields.limit_runs.line, Qt.Key.Key_Return)
        assert play().limit_runs == runs


def test_a_cell_can_play_its_own_way_and_the_macro_keeps_its_own(ui: Ui):
    show(ui)
    ui.window.shown.show_control("BTN_TRIGGER_HAPPY3")
    details = ui.window.sheet_details
    details.own_play.click()
    details.play.mode.buttons["toggle"].click()
    cell = ui.store.profiles["tidewardens"].setups[0].cells["BTN_TRIGGER_HAPPY3"]
    assert isinstance(cell, RunMacro)
    assert cell.play
    assert cell.play.mode is Mode.TOGGLE
    assert ui.store.macros["reel-in"].play.mode is Mode.HELD


def test_live_changes_move_nothing_that_is_shown(ui: Ui):
    show(ui)
    ui.window.shown.show_control(THUMB_10)
    ui.store.pin("orrery-post")
    ui.wait(lambda: ui.window.strip.live.text() == "Orrery Post", "the live strip")
    assert ui.window.shown.profile.id == "tidewardens"
    assert ui.window.shown.control == THUMB_10
    assert ui.window.head.title.full_text == "Tidewardens"
    assert not ui.window.column.follow.isChecked()


def test_another_clients_edit_shows_up(ui: Ui):
    show(ui)
    profile = ui.store.profiles["tidewardens"]
    ui.service.call(m.PutProfile(type(profile)(id=profile.id, name="From elsewhere")))
    ui.wait(lambda: ui.window.head.title.full_text == "From elsewhere", "the other client's edit")


def test_the_window_comes_back_when_the_service_is_killed(ui: Ui, tmp_path: Path):
    show(ui)
    ui.service.process.kill()
    ui.service.process.wait()
    ui.wait(lambda: "started again" in ui.window.messages.text.full_text, "the word of it")
    from tests.loaded import LoadedService

    ui.service.client.close()
    ui.service = LoadedService(ui.service.folder, "--backend", "stand-in")
    ui.wait(lambda: ui.window.messages.text.full_text == "", "the connection")
    commands.delete_profile(ui.store, ui.store.profiles["orrery-post"])
    ui.wait(lambda: not (ui.service.home.profiles / "Orrery Post.json").exists(), "an edit after it")


def test_recording_with_the_button_leaves_its_own_click_out(ui: Ui):
    show(ui)
    ui.window.shown.show_page("macro")
    page = ui.window.macro
    before = ui.store.macros["reel-in"]
    page.recording.button.click()
    ui.wait(lambda: ui.store.status.recording, "the recording")
    for control in ("BTN_RIGHT", "BTN_LEFT"):
        press(ui, control, 1)
        press(ui, control, 0)
    ui.wait(lambda: page.model.rowCount() >= len(before.loop) + 6, "live steps")
    # The click that ends it arrives as input, too, and is the last one.
    page.recording.button.click()
    ui.wait(lambda: not page.recording.recording and not shielded(), "the end")
    added = [s for s in ui.store.macros["reel-in"].loop[len(before.loop) :] if not isinstance(s, Wait)]
    assert [s.control for s in added] == ["BTN_RIGHT"] * 2
    ui.undo()
    assert ui.store.macros["reel-in"] == before


def test_where_a_macro_is_shown_it_is_the_one_that_stands_out_in_the_list(ui: Ui):
    column, shown = ui.window.column, ui.window.shown
    shown.show_macro("haul-the-net")
    assert column.macro_view.key() == "haul-the-net"
    QTest.keyClick(column.macro_view, Qt.Key.Key_Down)
    assert shown.macro is ui.store.macros["hop-step"]
    assert ui.window.macro.model.line.macro is shown.macro
    column.search.setText("reel")
    assert not column.macro_view.key()
    assert not column.macro_view.selectedIndexes()
    column.search.setText("")
    assert column.macro_view.key() == "hop-step"
    # Elsewhere one can look for another without leaving the page.
    shown.show_page("sheet")
    QTest.keyClick(column.macro_view, Qt.Key.Key_Up)
    assert (column.macro_view.key(), shown.macro, shown.page) == ("haul-the-net", ui.store.macros["hop-step"], "sheet")
    QTest.keyClick(column.macro_view, Qt.Key.Key_Return)
    assert (shown.macro, shown.page) == (ui.store.macros["haul-the-net"], "macro")


def test_search_finds_profiles_macros_and_controls(ui: Ui):
    show(ui)
    column = ui.window.column
    column.search.setText("orr")
    assert [p.id for p in column.profiles.items] == ["orrery-post"]
    assert column.macros.items == []
    column.search.setText("")
    ui.window.sheet.search.setText("reel")
    names = [ui.window.sheet.model.index(n, 0).data(CODE) for n in range(ui.window.sheet.model.rowCount())]
    assert names == ["BTN_TRIGGER_HAPPY3", "BTN_SIDE"]
    ui.window.sheet.search.setText("")
    ui.window.sheet.only_changed.setChecked(True)
    assert ui.window.sheet.model.rowCount() == len(ui.store.profiles["tidewardens"].setups[0].cells)


def test_stop_everything_in_the_strip(ui: Ui):
    ui.store.pin("tidewardens")
    ui.wait(lambda: ui.store.status.live == "tidewardens")
    press(ui, "BTN_TRIGGER_HAPPY6", 1)
    press(ui, "BTN_TRIGGER_HAPPY6", 0)
    ui.wait(lambda: "running" in ui.window.strip._count.text(), "the toggle")
    ui.window.strip.stop.click()
    ui.wait(lambda: ui.window.strip._count.text() == "no macro runs", "its end")


def test_every_control_of_the_window_has_a_name_and_can_be_reached(ui: Ui):
    show(ui)
    for page in ("sheet", "macro", "devices", "journal"):
        ui.window.shown.show_page(page)
        for kind in (QAbstractButton, QComboBox, QLineEdit, QListView, QTableView):
            for widget in ui.window.findChildren(kind):
                inner = isinstance(widget.parent(), QComboBox) or "qt_" in widget.objectName() or not widget.isVisible()
                if inner or type(widget).__name__ in ("QLineEditIconButton", "QTableCornerButton", "QComboBoxListView"):
                    continue
                name = widget.accessibleName() or (widget.text() if isinstance(widget, QAbstractButton) else "")
                assert name, f"a {type(widget).__name__} on the {page} page has no name"
                # Of a group of which one is chosen, Tab lands on that one.
                group = widget.group() if isinstance(widget, QAbstractButton) else None
                chosen = group.checkedButton() if group is not None and group.exclusive() else None
                reached = widget.focusPolicy() | (chosen.focusPolicy() if chosen else Qt.FocusPolicy.NoFocus)
                assert reached & Qt.FocusPolicy.TabFocus or not widget.isEnabled(), name


def test_every_widget_belongs_to_a_window(ui: Ui):
    """One without a parent would be ended by whatever thread collects it, and the program with it."""
    show(ui)
    for page in ("sheet", "macro", "devices", "journal"):
        ui.window.shown.show_page(page)
        QApplication.processEvents()
    alone = [widget for widget in QApplication.allWidgets() if widget.parent() is None and widget is not ui.window]
    assert [f"{type(w).__name__} {w.objectName()} {w.accessibleName()}" for w in alone] == []


def test_shortcuts_are_unique_and_all_on_the_sheet(ui: Ui, qtbot: QtBot):
    actions = [action for group in ui.window.actions_by_group.values() for action in group]
    keys = [action.shortcut().toString() for action in actions if not action.shortcut().isEmpty()]
    assert len(keys) == len(set(keys))
    sheet = ui.window.open_shortcuts()
    from PyQt6.QtWidgets import QLabel

    words = {label.text() for label in sheet.findChildren(QLabel)}
    assert {action.statusTip() or action.text() for action in actions if not action.shortcut().isEmpty()} <= words
    sheet.close()


@pytest.mark.parametrize(
    ("look", "least"),
    [(theme.DAY, 4.5), (theme.NIGHT, 4.5), (theme.DAY_HIGH, 7), (theme.NIGHT_HIGH, 7)],
    ids=["day", "night", "day high", "night high"],
)
def test_texts_have_contrast(look: theme.Palette, least: float):
    """At least 4.5:1, and 7:1 where more is asked for (WCAG 2.2, success criteria 1.4.3 and 1.4.6; the formula is its
    definition of contrast ratio)."""

    def luminance(colour: str) -> float:
        parts = [part / 255 for part in QColor(colour).getRgb()[:3]]
        linear = [p / 12.92 if p <= 0.04045 else ((p + 0.055) / 1.055) ** 2.4 for p in parts]
        return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]

    def contrast(one: str, other: str) -> float:
        light, dark = sorted((luminance(one), luminance(other)), reverse=True)
        return (light + 0.05) / (dark + 0.05)

    texts = (look.ink, look.soft, look.alarm, look.key, look.button, look.wheel)
    for text in (*texts, look.brass):
        for ground in (look.paper, look.shade, look.field):
            assert contrast(text, ground) >= least, (text, ground)
    assert contrast(look.on_brass, look.brass) >= least


def test_what_a_time_field_cannot_read_stays_and_is_marked(qtbot: QtBot):
    field = TimeEdit(25_000)
    qtbot.addWidget(field)
    got: list[int] = []
    field.changed.connect(got.append)
    for text in ("soon", "40/s"):
        field.selectAll()
        qtbot.keyClicks(field, text)
        qtbot.keyClick(field, Qt.Key.Key_Return)
        if text == "soon":
            assert field.text() == "soon"
            assert "not a time" in field.toolTip()
            assert field.property("wrong")
    assert got == []
    field.selectAll()
    qtbot.keyClicks(field, "20/s")
    qtbot.keyClick(field, Qt.Key.Key_Return)
    assert got == [50_000]
    assert field.text() == "50 ms"


def test_index_of_nothing_is_nothing(ui: Ui):
    for model in (ui.window.sheet.model, ui.window.macro.model, ui.window.column.profiles):
        assert model.data(QModelIndex()) is None


def test_no_screen_says_a_word_it_should_not():
    """The window's own texts stay clear of what only developers say."""
    source = "".join(path.read_text() for path in (Path(__file__).parents[2] / "src/nakrel/ui").rglob("*.py"))
    shown = re.findall(r'\btr\(\s*"([^"]+)"', source)
    assert len(shown) > 800
    assert not [text for text in shown if re.search(r"\b(evdev|XTEST|socket|JSON|traceback|None)\b", text)]


def test_what_is_being_typed_stays_whatever_happens_meanwhile(ui: Ui):
    """A game comes up, and another client edits, while a profile's name is typed."""
    view = ui.window.column.profile_view
    row = ui.window.column.profiles.row_of("orrery-post")
    view.setCurrentIndex(ui.window.column.profiles.index(row))
    view.edit(view.currentIndex())
    editor = view.findChild(QLineEdit)
    assert editor is not None
    editor.selectAll()
    QTest.keyClicks(editor, "Orrery Mai")
    live = ui.store.status.since
    other = ServiceConnection.connect(ui.service.home.socket, "other")
    other.call(m.Pin("tidewardens"))
    changed = msgspec.structs.replace(ui.store.profiles["orrery-post"], note="A trade simulator")
    other.call(m.PutProfile(changed))
    ui.wait(lambda: ui.store.status.live == "tidewardens" and ui.store.status.since != live, "the switch")
    ui.wait(lambda: ui.store.profiles["orrery-post"].note == "A trade simulator", "the other's edit")
    assert view.findChild(QLineEdit) is editor
    QTest.keyClicks(editor, "l")
    QTest.keyClick(editor, Qt.Key.Key_Return)
    ui.wait(lambda: ui.store.profiles["orrery-post"].name == "Orrery Mail", "the name")
    assert ui.store.profiles["orrery-post"].note == "A trade simulator"
    other.close()


def test_the_look_follows_the_desktop_while_it_runs(ui: Ui, qapp: QApplication, monkeypatch: pytest.MonkeyPatch):
    hints = qapp.styleHints()
    assert hints is not None
    # The offscreen platform has no scheme of its own to change; Qt's word of a change is what counts here.
    for dark, high, wanted in (
        (True, False, theme.NIGHT),
        (True, True, theme.NIGHT_HIGH),
        (False, True, theme.DAY_HIGH),
        (False, False, theme.DAY),
    ):
        monkeypatch.setattr(theme, "_is_dark", lambda look, d=dark: d)
        monkeypatch.setattr(theme, "_wants_contrast", lambda h=high: h)
        hints.colorSchemeChanged.emit(Qt.ColorScheme.Dark)
        assert theme.palette() is wanted


def test_larger_texts_of_the_desktop_make_all_of_the_window_larger():
    assert scaled_environment(96, {}) == {}
    assert scaled_environment(97, {}) == {}
    assert scaled_environment(144, {}) == {"QT_FONT_DPI": "96", "QT_SCALE_FACTOR": "1.5"}
    assert scaled_environment(192, {"QT_SCALE_FACTOR": "2"})["QT_SCALE_FACTOR"] == "4"
    # It has started anew like this already.
    assert scaled_environment(96, {"QT_FONT_DPI": "96", "QT_SCALE_FACTOR": "1.5"}) == {}


@pytest.mark.parametrize(("width", "height"), [(1280, 800), (1024, 768), (960, 600)])
def test_stop_everything_and_the_page_are_seen_at_every_size(ui: Ui, width: int, height: int):
    show(ui)
    ui.window.resize(width, height)
    ui.wait(lambda: (ui.window.width(), ui.window.height()) == (width, height), "the size")
    for page in ("sheet", "macro", "devices", "journal"):
        ui.window.shown.show_page(page)
        QApplication.processEvents()
        stop = ui.window.strip.stop
        corner = stop.mapTo(ui.window, stop.rect().bottomRight())
        assert stop.isVisible()
        assert corner.x() < width
        assert corner.y() < height
        assert ui.window._pages.width() >= 560
    if width < 1200:
        ui.window.shown.show_page("sheet")
        assert not ui.window._side.isVisible()
        ui.window.head.details_button.click()
        assert ui.window._side.isVisible()


def test_what_is_shown_stays_in_sight_in_the_lists_when_the_window_shrinks(ui: Ui):
    ui.window.shown.show_profile("tidewardens")
    ui.window.shown.show_macro("weigh-the-catch")
    ui.window.shown.show_page("sheet")
    ui.window.shown.show_control("BTN_TRIGGER_HAPPY9")
    for view in (ui.window.column.profile_view, ui.window.column.macro_view, ui.window.sheet.table):
        ground = view.viewport()
        assert ground
        ui.window.resize(1280, 1_100)
        QApplication.processEvents()
        assert ground.rect().contains(view.visualRect(view.currentIndex()))
        ui.window.resize(900, 500)
        QApplication.processEvents()
        assert ground.rect().contains(view.visualRect(view.currentIndex()))


def test_place_and_size_are_remembered(ui: Ui):
    ui.window.resize(1111, 777)
    ui.wait(lambda: ui.window.width() == 1111, "the size")
    ui.window.shown.set_diagram(300)
    ui.window.close()
    shown = lambda: ui.service.call(m.GetLibrary()).settings.shown  # noqa: E731
    ui.wait(lambda: shown().place is not None, "the place")
    assert shown().place[2:] == (1111, 777)
    assert shown().diagram_px == 300


def test_only_a_change_of_the_look_styles_the_window_anew(ui: Ui, monkeypatch: pytest.MonkeyPatch):
    """It takes as long as the window's start does."""
    applied: list[str] = []
    apply = theme.apply
    monkeypatch.setattr(theme, "apply", lambda app, look: applied.append(look) or apply(app, look))
    ui.window.toggle_notices()
    ui.store.change_settings(SettingsPatch(notch_us=40_000))
    ui.window.set_look("light")
    assert applied == []
    ui.window.set_look("night")
    assert applied == ["night"]
    ui.undo()
    assert applied[1:] == [ui.store.settings.look]


@pytest.mark.parametrize("kind", ["profiles", "macros"])
def test_a_name_that_is_being_typed_does_not_bring_back_what_is_undone_meanwhile(ui: Ui, kind: str):
    column, store = ui.window.column, ui.store
    add, view = {
        "profiles": (column.new_profile, column.profile_view),
        "macros": (column.new_macro, column.macro_view),
    }[kind]
    things = lambda: dict(getattr(store, kind))  # noqa: E731
    before = things()
    add()
    made = things()
    editor = view.findChild(QLineEdit)
    assert editor is not None
    # With nothing typed yet, Ctrl+Z in the field takes back what was made, and Redo brings it again.
    QTest.keyClick(editor, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    ui.wait(lambda: things() == before, "the undo")
    QApplication.processEvents()
    ui.redo()
    assert things() == made
    (key,) = made.keys() - before.keys()
    getattr(ui.window.shown, f"show_{kind[:-1]}")(key)
    view.edit(view.currentIndex())
    editor = view.findChildren(QLineEdit)[-1]
    QTest.keyClicks(editor, "Buoy")
    ui.undo()
    QApplication.processEvents()
    assert things() == before
    ui.redo()
    assert things() == made


def test_pages_are_made_when_they_are_first_shown(ui: Ui):
    window = ui.window
    made = lambda: {"macro", "macro_details", "devices", "journal", "range"} & vars(window).keys()  # noqa: E731
    assert made() == set()
    for page in ("journal", "devices", "range", "macro"):
        window.shown.show_page(page)
        assert getattr(window, page).isVisible()
    assert window.macro_details.isVisible()
    assert made() == {"macro", "macro_details", "devices", "journal", "range"}


def test_pages_that_were_not_shown_are_made_ahead_one_at_a_time(ui: Ui):
    window = ui.window
    counts: list[int] = []
    window._ahead.timeout.connect(
        lambda: counts.append(len({"macro", "macro_details", "devices", "journal", "range"} & vars(window).keys()))
    )
    window.make_ahead()
    ui.wait(lambda: not window._ahead.isActive(), "the last page")
    assert counts == [1, 2, 3, 4, 5, 5]
    assert window.shown.page == "sheet"
    assert window.sheet.isVisible()


def test_a_key_begins_a_recording_although_the_macro_s_page_was_never_shown(ui: Ui):
    macro = ui.window.shown.macro
    assert macro
    ui.store.change_settings(SettingsPatch(record_key="KEY_F9"))
    ui.wait(lambda: not ui.store.saving, "the key")
    assert "macro" not in vars(ui.window)
    ui.store.set_front(False)
    for value in (1, 0):
        ui.service.call(m.PressStandIn(KEYBOARD, "KEY_F9", value))
    ui.wait(lambda: ui.store.status.recording, "the recording")
    for value in (1, 0):
        ui.service.call(m.PressStandIn(KEYBOARD, "KEY_J", value))
    for value in (1, 0):
        ui.service.call(m.PressStandIn(KEYBOARD, "KEY_F9", value))
    ui.wait(lambda: ui.store.macros[macro.id] != macro, "the steps")
    assert any(getattr(step, "control", "") == "KEY_J" for step in ui.store.macros[macro.id].loop)


def tabbed(ui: Ui, key: Qt.Key = Qt.Key.Key_Tab) -> list[QWidget]:
    """Where a key goes from the search on, until it is there again."""
    found: list[QWidget] = []
    ui.window.column.search.setFocus()
    while len(found) < 300:
        QTest.keyClick(QApplication.focusWidget(), key)
        focus = QApplication.focusWidget()
        assert focus
        if focus is ui.window.column.search:
            break
        found.append(focus)
    return found


@pytest.mark.parametrize("page", ["sheet", "macro", "devices", "journal"])
def test_tab_goes_from_the_column_through_page_and_details_to_the_strip(ui: Ui, page: str):
    window = ui.window
    # Made in another order than they are shown in.
    for each in ("journal", "macro", "devices", page):
        window.shown.show_page(each)
    parts = [window.column, getattr(window, page)]
    if page in ("sheet", "macro"):
        parts.append(getattr(window, f"{page}_details"))
    parts.append(window.strip)
    reached = tabbed(ui)
    where = [next((n for n, part in enumerate(parts) if part.isAncestorOf(each)), None) for each in reached]
    # The column has more after the search, and before it the button that is reached last.
    order = [n for n, _ in itertools.groupby(n for n in where if n is not None)]
    assert order == [*range(len(parts)), 0]
    assert tabbed(ui, Qt.Key.Key_Backtab) == reached[::-1]


def test_tab_reaches_what_was_made_late_where_it_stands(ui: Ui):
    def names() -> list[str]:
        return [each.accessibleName() or getattr(each, "text", str)() for each in tabbed(ui)]

    ui.window.shown.show_profile("tidewardens")
    ui.window.shown.show_page("sheet")
    ui.wait(lambda: "Link a program" in names(), "the links")
    found = names()
    # The profile's links stand in the head, before the page; its variants above its buttons.
    assert found.index("Menu") < found.index("Link a program") < found.index("Variant Netter") < found.index("Buttons")
    ui.window.shown.show_macro("reel-in")
    ui.wait(lambda: "Thumb 3 in Tidewardens, Healer" in names(), "the places")
    found = names()
    place = found.index("Thumb 3 in Tidewardens, Healer")
    assert found.index("Attach in Tidewardens…") < place < found.index("Frames a second")


def test_nothing_is_left_on_the_screen_of_rows_that_stood_out(ui: Ui):
    ui.window.shown.show_profile("tidewardens")
    ui.window.shown.show_macro("reel-in")
    for page, view in (
        ("macro", ui.window.column.macro_view),
        ("macro", ui.window.macro.steps),
        ("sheet", ui.window.sheet.table),
        ("sheet", ui.window.column.profile_view),
    ):
        ui.window.shown.show_page(page)
        view.setFocus()
        model, ground, screen = view.model(), view.viewport(), ui.window.screen()
        assert model
        assert ground
        assert screen
        for row, keys in ((1, (Qt.Key.Key_Down,) * 2), (3, (Qt.Key.Key_Up,) * 2)):
            view.setCurrentIndex(model.index(row, 0))
            for key in keys:
                # The window is drawn between one press and the next.
                QApplication.processEvents()
                QTest.keyClick(view, key)
            QApplication.processEvents()
            at = ground.mapTo(ui.window, QPoint(0, 0))
            seen = screen.grabWindow(ui.window.winId(), at.x(), at.y(), ground.width(), ground.height())
            pictures = [each.toImage().convertToFormat(QImage.Format.Format_RGB32) for each in (seen, ground.grab())]
            assert pictures[0] == pictures[1], (page, view.accessibleName(), row)


def test_a_row_lights_from_end_to_end_while_its_button_is_down(ui: Ui):
    ui.window.shown.show_profile("tidewardens")
    table = ui.window.sheet.table
    ui.window.sheet.show_control("BTN_LEFT")
    ground, screen, row = table.viewport(), ui.window.screen(), ui.window.sheet.model.row_of("BTN_TRIGGER_HAPPY1")
    assert ground
    assert screen
    right = table.visualRect(ui.window.sheet.model.index(row, PLAIN + 1)).topRight() - QPoint(20, -3)
    at = ground.mapTo(ui.window, right)
    colours = []
    for pressed in ({"BTN_TRIGGER_HAPPY1"}, set()):
        ui.window.sheet.model.set_pressed(pressed)
        QApplication.processEvents()
        colours.append(screen.grabWindow(ui.window.winId(), at.x(), at.y(), 1, 1).toImage().pixelColor(0, 0).name())
    assert colours == [theme.palette().field.lower(), theme.palette().paper.lower()]


@pytest.mark.parametrize("width", [1280, 1700, 960])
def test_the_tabs_stay_where_they_are_from_page_to_page(ui: Ui, width: int):
    ui.window.resize(width, 800)
    places = set()
    for page in PAGES:
        ui.window.shown.show_page(page)
        QApplication.processEvents()
        places.add(tuple(tab.mapTo(ui.window, QPoint(0, 0)).x() for tab in ui.window.head.tabs.values()))
    assert len(places) == 1


def test_the_button_that_stops_a_macro_stays_while_it_is_told_how_far_that_is(ui: Ui):
    strip = ui.window.strip
    ui.store.ask(m.Play_("stamp-40-parcels"))
    ui.wait(lambda: ui.store.status.running, "the macro")
    [stop] = strip._stops.values()
    stop.setFocus()
    QTest.mousePress(stop, Qt.MouseButton.LeftButton)
    before = stop.full_text, ui.store.status.running[0].run
    ui.wait(lambda: ui.store.status.running[0].run > before[1] + 1, "two more runs")
    assert [*strip._stops.values()] == [stop]
    assert f"run {ui.store.status.running[0].run} of 40" in stop.text()
    assert stop.hasFocus()
    QTest.mouseRelease(stop, Qt.MouseButton.LeftButton)
    ui.wait(lambda: not ui.store.status.running, "its end")
    assert not strip._stops
    assert "no macro runs" in [each.text() for each in strip.findChildren(QLabel)]


def test_the_wheel_changes_no_choice_on_its_way_over_the_details(ui: Ui):
    ui.window.shown.show_macro("reel-in")
    rate = ui.window.macro_details.frame_check.rate
    before = rate.currentText(), ui.window.shown.frames
    for focus in (False, True):
        if focus:
            rate.setFocus()
        # It goes on to what scrolls.
        assert not turn(rate, -120)
        assert (rate.currentText(), ui.window.shown.frames) == before
    assert not rate.focusPolicy() & ~Qt.FocusPolicy.StrongFocus


def test_a_number_is_turned_with_the_wheel_only_where_one_is_at_it(ui: Ui):
    ui.window.shown.show_macro("reel-in")
    recording = ui.window.macro.recording
    recording.options_button.click()
    field = next(each for each in recording.options.findChildren(NumberField) if each.isVisible() and each.isEnabled())
    before = field.value()
    ui.window.macro.steps.setFocus()
    assert not turn(field, 120)
    assert (field.value(), field.hasFocus()) == (before, False)
    recording.options_button.click()
    recording.options_button.setChecked(True)
    field.setFocus()
    assert turn(field, 120)
    assert field.value() > before


def turn(widget: QWidget, eighths: int) -> bool:
    """Turn the wheel over it; whether it has taken that."""
    at = QPointF(widget.rect().center())
    overall = QPointF(widget.mapToGlobal(widget.rect().center()))
    event = QWheelEvent(
        at, overall, QPoint(), QPoint(0, eighths), Qt.MouseButton.NoButton, Qt.KeyboardModifier.NoModifier,
        Qt.ScrollPhase.NoScrollPhase, False,
    )  # fmt: skip
    QApplication.sendEvent(widget, event)
    return event.isAccepted()
