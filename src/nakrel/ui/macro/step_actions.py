"""What is done to the selected steps: each an edit that can be undone."""

from __future__ import annotations

from collections.abc import Callable
from typing import Protocol

import msgspec
from PyQt6.QtCore import QModelIndex
from PyQt6.QtWidgets import QApplication, QMenu

from nakrel.core import notation
from nakrel.core.edit import edits
from nakrel.core.edit.pairs import other_ends
from nakrel.core.edit.rows import Place, place_after, row_at
from nakrel.core.model.macro import Macro, Section
from nakrel.core.model.steps import Branch, If, Option, PickOne, Pointer, Release, Repeat, Step, Wait
from nakrel.ui import commands
from nakrel.ui.macro.recording import RecordingBar
from nakrel.ui.macro.screen_places import ScreenPlaces
from nakrel.ui.macro.steps_model import SECTION_WORDS, TIME, WHAT, StepsModel
from nakrel.ui.macro.steps_table import StepsTable
from nakrel.ui.store import Store
from nakrel.ui.widgets.capture import Capture
from nakrel.words import counted, tr

__all__ = ["StepActions"]


class Host(Protocol):
    """The page, as actions on steps need it."""

    model: StepsModel
    steps: StepsTable
    recording: RecordingBar
    places: ScreenPlaces
    rebind: Capture

    def selected(self) -> list[int]: ...
    def select(self, rows: list[int], place: tuple[int, int] | None = None) -> None: ...
    def edit_row(self, index: QModelIndex) -> None: ...


class StepActions:
    """Goes by what is selected on the page."""

    def __init__(self, store: Store, host: Host) -> None:
        self._store, self._host = store, host

    def insert(self, step: Step) -> None:
        """Put a step in after the selected one, or at the end of the loop, and select it."""
        if macro := self._host.model.macro:
            place = place_after(macro, self._host.recording.row_after)
            commands.edit_macro(
                self._store, tr("add a step to {name}").format(name=macro.name), edits.insert(macro, place, [step])
            )
            self._host.select([self._host.model.line.row_of(place)])

    def pick_places(self) -> None:
        """Pick places on the screen, one after the other; each becomes a pointer step after the selected one."""
        self._host.places.pick(self.insert)

    def pick_again(self, row: int) -> None:
        """Pick the place of this pointer step anew."""

        def taken(new: Pointer) -> None:
            macro, step = self._host.model.macro, self._host.model.step(row)
            if macro and isinstance(step, Pointer):
                changed = msgspec.structs.replace(step, x=new.x, y=new.y, origin=new.origin, size=new.size)
                commands.edit_macro(
                    self._store, tr("place in {name}").format(name=macro.name), edits.change(macro, row, changed)
                )

        self._host.places.pick(taken, single=True)

    def show_places(self) -> None:
        """Draw on the screen where the selected pointer steps go; without one of them, where all go."""
        every = [
            (row, step) for row, (_, step, *_) in enumerate(self._host.model.line.rows()) if isinstance(step, Pointer)
        ]
        chosen = [step for row, step in every if row in self._host.selected()] or [step for _, step in every]
        self._host.places.show([step for step in chosen if not step.off])

    def delete_selected(self) -> None:
        """Delete the selected steps; the row after them is selected."""
        macro, rows = self._host.model.macro, self._host.selected()
        if macro and rows:
            commands.edit_macro(
                self._store, tr("delete steps of {name}").format(name=macro.name), edits.delete(macro, rows)
            )
            if self._host.model.rowCount():
                self._host.select([min(rows[0], self._host.model.rowCount() - 1)])

    def copy_selected(self) -> None:
        """Put the selected steps on the clipboard, in the notation."""
        macro, clipboard = self._host.model.macro, QApplication.clipboard()
        if macro and clipboard and (steps := edits.steps_of(macro, self._host.selected())):
            clipboard.setText(notation.write_steps(steps))

    def cut_selected(self) -> None:
        """Copy the selected steps, and delete them."""
        self.copy_selected()
        self.delete_selected()

    def paste(self) -> None:
        """Put in the steps on the clipboard, after the selected one; text that is no steps is refused in words."""
        macro, clipboard = self._host.model.macro, QApplication.clipboard()
        if macro is None or clipboard is None:
            return
        try:
            steps = notation.read_steps(clipboard.text())
        except notation.NotationError as error:
            self._store.fault.emit(tr("The clipboard holds no steps: {error}").format(error=error))
            return
        if steps:
            place = place_after(macro, self._host.recording.row_after)
            commands.edit_macro(
                self._store, tr("paste steps into {name}").format(name=macro.name), edits.insert(macro, place, steps)
            )
            places = (place._replace(at=place.at + n) for n in range(len(steps)))
            self._host.select([self._host.model.line.row_of(each) for each in places])

    def move_selected(self, by: int) -> None:
        """Move the selected steps by one row up (-1) or down (1)."""
        rows = self._host.selected()
        if rows and rows[0] + by >= 0 and rows[-1] + by < self._host.model.rowCount():
            self._host.model.move(rows, rows[0] - 1 if by < 0 else rows[-1] + 2)
            self._host.select([row + by for row in rows])

    def edit_selected(self, text: str, edit: object) -> None:
        """Apply a pure edit `edit(macro, rows)` to the selected steps."""
        macro, rows = self._host.model.macro, self._host.selected()
        if macro and rows:
            said = tr("{what} in {name}").format(what=text, name=macro.name)
            commands.edit_macro(self._store, said, edit(macro, rows))  # type: ignore[operator]

    def menu_for(self, rows: list[int]) -> QMenu:
        """What can be done with these rows."""
        menu = QMenu(self._host.steps)
        menu.addAction(
            tr("Edit\tEnter"), lambda: self._host.edit_row(self._host.steps.currentIndex().siblingAtColumn(TIME))
        )
        menu.addAction(
            tr("Edit as text\tF2"), lambda: self._host.steps.edit(self._host.steps.currentIndex().siblingAtColumn(WHAT))
        )
        menu.addAction(tr("Cut\tCtrl+X"), self.cut_selected)
        menu.addAction(tr("Copy\tCtrl+C"), self.copy_selected)
        menu.addAction(tr("Paste\tCtrl+V"), self.paste)
        menu.addAction(tr("Duplicate\tCtrl+D"), self.duplicate_selected)
        menu.addAction(tr("Turn off or on"), self.switch_selected)
        menu.addAction(tr("Pick places on the screen…\tCtrl+K"), self.pick_places)
        if isinstance(self._host.model.step(rows[-1]), Pointer):
            menu.addAction(tr("Pick again…"), lambda: self.pick_again(rows[-1]))
            menu.addAction(tr("Show on screen\tCtrl+Shift+K"), self.show_places)
        menu.addAction(tr("Change the key…"), self._host.rebind.arm)
        menu.addSeparator()
        menu.addAction(tr("Split taps"), lambda: self.edit_selected(tr("split taps"), edits.to_pairs))
        menu.addAction(tr("Join into taps\tCtrl+T"), self.to_taps)
        menu.addAction(
            tr("Join into a combination"), lambda: self.edit_selected(tr("join into a combination"), edits.to_chord)
        )
        menu.addAction(tr("Repeat…"), lambda: self.wrap(tr("repeat steps"), lambda inner: Repeat(times=2, steps=inner)))
        menu.addAction(tr("Random choice of them"), lambda: self.wrap(tr("random choice"), _options))
        menu.addAction(
            tr("Only if…"), lambda: self.wrap(tr("only if"), lambda inner: If(condition="run > 1", steps=inner))
        )
        menu.addSeparator()
        for section in Section:
            menu.addAction(
                tr("Move to section: {value}").format(value=SECTION_WORDS[section]), lambda s=section: self.move_to(s)
            )
        menu.addSeparator()
        menu.addAction(tr("Delete\tDel"), self.delete_selected)
        menu.addAction(tr("Clear all steps"), self.clear)
        return menu

    def retime(self, change: Callable[[int], int], text: str) -> None:
        """Change the times of the selected steps, or of all where none is."""
        if macro := self._host.model.macro:
            chosen = self._host.selected() or range(self._host.model.size())
            commands.edit_macro(
                self._store,
                tr("{value} in {name}").format(value=text, name=macro.name),
                edits.retime(macro, chosen, change),
            )

    def clear(self) -> None:
        """Take all steps out; the way to play stays."""
        if macro := self._host.model.macro:
            empty = msgspec.structs.replace(macro, lead_in=(), loop=(), lead_out=())
            commands.edit_macro(self._store, tr("clear {name}").format(name=macro.name), empty)

    def rebound(self, code: str) -> None:
        """Give the selected steps this control."""
        macro, rows = self._host.model.macro, self._host.selected()
        others = other_ends(macro, rows) if macro else []
        self.edit_selected(tr("another key"), lambda macro, rows: edits.rebind(macro, rows, code))
        if others:
            count = len(others)
            if isinstance(self._host.model.step(others[0]), Release):
                still = tr("The release of the old key is still there.")
                change = counted(count, "Change the release, too", "Change the {n} releases, too")
            else:
                still = tr("The press of the old key is still there.")
                change = counted(count, "Change the press, too", "Change the {n} presses, too")
            self._store.offer.emit(still, change, lambda: self._rebind_rows(others, code))

    def _rebind_rows(self, rows: list[int], code: str) -> None:
        if macro := self._host.model.macro:
            commands.edit_macro(
                self._store, tr("another key in {name}").format(name=macro.name), edits.rebind(macro, rows, code)
            )

    def trim(self) -> None:
        """Take out the waits at both ends of the loop."""
        if macro := self._host.model.macro:
            commands.edit_macro(self._store, tr("trim {name}").format(name=macro.name), edits.trim(macro))

    def duplicate_selected(self) -> None:
        """Repeat each selected step after itself."""
        self.edit_selected(tr("duplicate steps"), edits.duplicate)

    def switch_selected(self) -> None:
        """Switch the selected steps off, or on where the first is off."""
        rows = self._host.selected()
        if rows:
            first = self._host.model.step(rows[0])
            off = isinstance(first, Option) or not first.off
            self.edit_selected(tr("switch steps"), lambda macro, chosen: _switch(macro, chosen, off))

    def wrap(self, text: str, block: Callable[[tuple[Step, ...]], Step]) -> None:
        """Put the selected steps into a block."""
        self.edit_selected(text, lambda macro, rows: edits.wrap(macro, rows, block))

    def move_to(self, section: Section) -> None:
        """Move the selected steps to the end of a section."""
        self.edit_selected(
            tr("move steps to section {value}").format(value=SECTION_WORDS[section]),
            lambda macro, rows: edits.move(macro, rows, Place(section, len(macro.section(section)))),
        )

    def to_taps(self) -> None:
        """Turn presses, waits and releases of one control into taps."""
        if macro := self._host.model.macro:
            commands.edit_macro(self._store, tr("taps in {name}").format(name=macro.name), edits.to_taps(macro))


def _options(steps: tuple[Step, ...]) -> Step:
    """A way for each step that isn't a wait; a wait goes with the step before it."""
    options: list[list[Step]] = []
    for step in steps:
        if isinstance(step, Wait) and options:
            options[-1].append(step)
        else:
            options.append([step])
    return PickOne(branches=tuple(Branch(steps=tuple(option)) for option in options))


def _switch(macro: Macro, rows: list[int], off: bool) -> Macro:
    for row in rows:
        found = row_at(macro, row)
        if found and not isinstance(found.step, Option):
            macro = edits.change(macro, row, msgspec.structs.replace(found.step, off=off))
    return macro
