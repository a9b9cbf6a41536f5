"""Names as long as they may be, and with signs that Qt takes for something else."""

from __future__ import annotations

import msgspec
import pytest
from PyQt6.QtCore import QRect
from PyQt6.QtWidgets import QApplication, QMenu, QScrollArea, QWidget

from nakrel import protocol as m
from nakrel.core.model.limits import MAX_NAME
from nakrel.core.model.profile import MatchBy, ProgramRule
from nakrel.ui.widgets.elided import Elided, ElidedButton
from nakrel.ui.window.programs import LinkedPrograms
from tests.ui.conftest import Ui

RULES = tuple(ProgramRule(MatchBy.NAME, f"harbour_keeper_client_{number}.x86_64") for number in range(6))


def long(name: str) -> str:
    return (name + " of the seven harbours and all their nets" * 9)[:MAX_NAME].strip()


@pytest.fixture
def named(ui: Ui) -> Ui:
    """The profile, its variants and the macro that are shown have the longest names, and it has many programs."""
    profile, macro = ui.store.profiles["tidewardens"], ui.store.macros["reel-in"]
    setups = tuple(msgspec.structs.replace(each, name=long(each.name)) for each in profile.setups)
    ui.store.put_macro(msgspec.structs.replace(macro, name=long("Reel in")))
    ui.store.put_profile(msgspec.structs.replace(profile, name=long("Tidewardens"), setups=setups, programs=RULES))
    ui.window.resize(1280, 800)
    ui.window.shown.show_profile("tidewardens")
    ui.window.shown.show_macro("reel-in")
    return ui


def cut_off(window: QWidget) -> list[str]:
    """What is seen only in part, though it isn't scrolled away."""
    found = []
    for widget in window.findChildren(QWidget):
        parent = widget.parentWidget()
        if not isinstance(widget, Elided | ElidedButton) or not widget.isVisible() or parent is None:
            continue
        whole = QRect(widget.mapTo(window, widget.rect().topLeft()), widget.size())
        if whole.left() < 0 or whole.right() > window.width() or widget.width() > parent.width():
            found.append(widget.full_text)
    return found


@pytest.mark.parametrize("page", ["sheet", "macro"])
def test_long_names_are_cut_with_a_sign_and_push_nothing_away(named: Ui, page: str):
    window = named.window
    window.shown.show_page(page)
    named.service.call(m.Play_("reel-in"))
    QApplication.processEvents()
    assert window.width() == 1280
    assert window.head.title.text().endswith("…")
    assert window.head.title.toolTip() == (long("Reel in") if page == "macro" else long("Tidewardens"))
    assert cut_off(window) == []
    for area in window.findChildren(QScrollArea):
        inside, seen = area.widget(), area.viewport()
        if area.isVisible() and inside and seen:
            assert inside.width() <= seen.width(), inside


def laid_out(ui: Ui) -> LinkedPrograms:
    """The line of programs; where news of the service puts another in its place, that one."""

    def there() -> LinkedPrograms | None:
        programs = ui.window.head.programs
        return programs if programs and programs.buttons[0].isVisible() else None

    ui.wait(there, "the line to be laid out")
    programs = there()
    assert programs
    return programs


def test_where_programs_have_no_room_a_menu_has_the_others(named: Ui):
    window = named.window
    window.shown.show_page("sheet")

    programs = laid_out(named)
    assert [each.isVisible() for each in programs.buttons] == [True, True, False, False, False, False]
    assert programs.more.text() == "and 4 more"
    assert "…" in programs.buttons[0].text()
    assert programs.buttons[0].text().endswith("  ×")
    programs.more.click()
    [menu] = [each for each in programs.findChildren(QMenu) if each.isVisible()]
    unlink = menu.actions()[-1]
    assert unlink.text() == "Unlink harbour_keeper_client_5.x86_64"
    menu.close()
    unlink.trigger()
    named.wait(lambda: named.store.profiles["tidewardens"].programs == RULES[:5], "it to be unlinked")


def test_a_short_name_takes_no_more_room_than_it_needs(ui: Ui):
    profile = ui.store.profiles["tidewardens"]
    ui.store.put_profile(msgspec.structs.replace(profile, programs=(ProgramRule(MatchBy.NAME, "oar"),)))
    ui.window.shown.show_profile("tidewardens")
    programs = laid_out(ui)
    ui.wait(lambda: programs.width() == programs.buttons[0].sizeHint().width(), "nothing between it and what follows")
    assert programs.buttons[0].text() == "oar  ×"


def test_few_programs_are_told_whole(ui: Ui):
    profile = ui.store.profiles["tidewardens"]
    ui.store.put_profile(msgspec.structs.replace(profile, programs=(RULES[0],)))
    ui.window.resize(1280, 800)
    ui.window.shown.show_profile("tidewardens")
    programs = laid_out(ui)
    assert programs.buttons[0].text() == "harbour_keeper_client_0.x86_64  ×"
    assert not programs.more.isVisible()


def test_an_ampersand_in_a_name_is_shown(ui: Ui):
    """Qt shows one for two, and none for one: it marks a shortcut (QAbstractButton, QAction)."""
    profile = ui.store.profiles["tidewardens"]
    first, *rest = profile.setups
    renamed = msgspec.structs.replace(first, name="Nets & oars")
    ui.store.put_profile(msgspec.structs.replace(profile, name="Tide & wardens", setups=(renamed, *rest)))
    ui.window.shown.show_profile("tidewardens")
    setups = ui.window.sheet.setups
    made = setups.buttons["Nets & oars"]
    assert made.text() == "Nets && oars"
    made.customContextMenuRequested.emit(made.rect().center())
    [menu] = [each for each in setups.findChildren(QMenu) if each.isVisible()]
    assert menu.actions()[-1].text() == "Delete Nets && oars"
    menu.close()
    assert ui.window.head.title.full_text == "Tide & wardens"
    ui.window.shown.show_page("macro")
    assert ui.window.macro_details.attach_button.text() == "Attach in Tide && wardens…"
    ui.window.column.duplicate_profile(ui.store.profiles["tidewardens"])
    undo = ui.window.actions_by_group["Edit"][0]
    assert "Tide && wardens" in undo.text()


@pytest.mark.parametrize("name", ["link", "tab", "act"])
def test_a_button_that_has_the_room_it_asks_for_cuts_nothing(ui: Ui, name: str):
    """Also after it had less."""
    holder = QWidget(ui.window)
    made = [ElidedButton(f"Thumb {'b' * number}ack in Tidewardens", lambda: None, name) for number in range(1, 40)]
    for each in made:
        each.setParent(holder)
        each.resize(70, 30)
        each.show()
    holder.show()
    QApplication.processEvents()
    assert all("…" in each.text() for each in made)
    for each in made:
        each.resize(each.sizeHint())
    assert [each.text() for each in made] == [each.full_text for each in made]
    holder.deleteLater()
