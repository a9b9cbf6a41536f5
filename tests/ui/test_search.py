"""Searching with the keyboard alone: from the field to what it found, and back to all."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QAbstractItemView, QApplication

from nakrel.ui.help.reader import Reader
from nakrel.ui.profiles.link import LinkDialog
from nakrel.ui.widgets.search_field import SearchField
from tests.ui.conftest import Ui


@pytest.fixture
def front(ui: Ui) -> Ui:
    ui.window.activateWindow()
    ui.wait(ui.window.isActiveWindow, "the window in front")
    return ui


def go(field: SearchField, typed: str, key: Qt.Key = Qt.Key.Key_Down) -> None:
    field.setFocus()
    QTest.keyClicks(field, typed)
    QApplication.processEvents()
    QTest.keyClick(field, key)
    QApplication.processEvents()


def test_buttons_are_found_and_chosen(front: Ui):
    sheet = front.window.sheet
    front.window.shown.show_page("sheet")
    front.window.shown.show_profile("tidewardens")
    front.window.shown.show_control("BTN_LEFT")
    go(sheet.search, "storm")
    assert sheet.table.hasFocus()
    assert front.window.shown.control == "BTN_TRIGGER_HAPPY4"
    sheet.search.setFocus()
    QTest.keyClick(sheet.search, Qt.Key.Key_Escape)
    assert sheet.search.text() == ""
    sheet.show_view("board")
    go(sheet.search, "reel", Qt.Key.Key_Return)
    assert sheet.board.hasFocus() or sheet.board.isAncestorOf(front.window.focusWidget())


@pytest.mark.parametrize(("typed", "page"), [("orrery", "sheet"), ("parcels", "macro")])
def test_profiles_and_macros_are_found_in_either_list(front: Ui, typed: str, page: str):
    column, shown = front.window.column, front.window.shown
    shown.show_page(page)
    go(column.search, typed)
    view: QAbstractItemView = column.profile_view if page == "sheet" else column.macro_view
    assert view.hasFocus()
    QTest.keyClick(column.search, Qt.Key.Key_Escape)
    assert column.search.text() == ""
    named = shown.profile if page == "sheet" else shown.macro
    assert named
    assert typed in named.name.lower()


def test_what_finds_nothing_stays_where_it_is(front: Ui):
    column = front.window.column
    go(column.search, "zzz")
    assert column.search.hasFocus()


def test_dialogs_begin_in_their_search_and_enter_is_no_end_of_them(front: Ui):
    front.window.shown.show_profile("tidewardens")
    dialog, reader = LinkDialog(front.store, "tidewardens", front.window), Reader(front.window)
    for each, field, view in ((dialog, dialog.search, dialog.table), (reader, reader.field, reader.list)):
        each.show()
        each.activateWindow()
        front.wait(field.hasFocus, "the focus")
        front.wait(lambda v=view: v.model().rowCount(), "something in the list")
        QTest.keyClick(field, Qt.Key.Key_Return)
        assert view.hasFocus()
        assert view.currentIndex().isValid()
        assert each.isVisible()
        each.reject()
