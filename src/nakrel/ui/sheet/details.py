"""What the chosen button does, and the settings of that."""

from __future__ import annotations

from collections.abc import Callable, Mapping

import msgspec
from PyQt6.QtGui import QShowEvent
from PyQt6.QtWidgets import QHBoxLayout, QWidget

from nakrel import protocol as m
from nakrel.core.edit.checks import circle
from nakrel.core.model.cells import Cell, ChangeSpeed, RunMacro, ToChord, ToControl
from nakrel.core.model.controls import CONTROLS, GAME, Kind, second
from nakrel.core.model.controls import label as control_label
from nakrel.core.model.devices import THUMB_KEYS
from nakrel.core.model.errors import DataError
from nakrel.core.model.fair_play import cell_beyond
from nakrel.core.model.game_keys import named_in
from nakrel.core.model.macro import Macro, Mode, Play, cycle_us
from nakrel.core.model.profile import EVERYDAY, SetUp
from nakrel.core.model.units import format_runs
from nakrel.ui import commands
from nakrel.ui.devices.second_keyboards import second_keyboard_with
from nakrel.ui.devices.thumb_keys import count_as_thumbs, mice_with_number_keys, thumb_mouse
from nakrel.ui.sheet.cell_settings import CellSettings
from nakrel.ui.sheet.model import cell_text, falling_in, holder_of, off_hint
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, label, literal
from nakrel.ui.widgets.capture import Capture
from nakrel.ui.widgets.flow import ScrolledColumn
from nakrel.ui.widgets.play_now import PlayNow
from nakrel.ui.widgets.plays import HowItPlays, PlayPreview
from nakrel.words import sentence, tr

__all__ = ["SheetDetails"]


# Keys among letters and digits that many have do something else.
_SELDOM_TYPED = frozenset({"KEY_CAPSLOCK", "KEY_COMPOSE", "KEY_RIGHTCTRL", "KEY_RIGHTMETA", "KEY_102ND"})


class SheetDetails(QWidget):
    """The details column beside the button list."""

    def __init__(self, store: Store, shown: Shown) -> None:
        super().__init__()
        self._store, self._shown = store, shown
        self.edit_requested: Callable[[], object] = lambda: None
        self._title, self._code = label("", "heading", wrap=True), label("", "soft", wrap=True)
        self.does = button("", lambda: self.edit_requested(), "does", tr("Change what it does (Enter)"))
        self.press_button = button(tr("Press to choose"), self._arm, tip=tr("Press the key, button or combination"))
        self.press_control = Capture(store, tr("Press the key, button or combination…"), to_be_sent=True)
        self.clear_button = button(tr("Clear"), lambda: self._set(None), tip=tr("Leave the button unchanged (Del)"))
        self._error, self._beyond = label("", "alarm", wrap=True), label("", "alarm", wrap=True)
        self.kept = label("", "soft", wrap=True)
        self.settings = CellSettings(store)
        self._plays = label("", "soft")
        self.play = HowItPlays()
        self.own_play = button(tr("Change it for this button only"), self._give_own_play, "link")
        self.preview, self._rate = PlayPreview(), label("", "soft")
        self.open_button = button(tr("Open"), self._open, tip=tr("Open the macro"))
        self.play_now = PlayNow(store, self._what_plays)
        self.finder = Capture(store, tr("Press the button to find its row…"))
        self.find_button = button(tr("Press a button to find it"), self.finder.arm)
        self.of_device = label("", "soft", wrap=True)
        self.thumbs_button = button(tr("Make its number keys thumb buttons"), self._make_thumbs, "link")
        self.move_button = button("", self._move_apart, "link")
        self._mouse = self._apart = ""
        self._shown_once = False
        self._build()
        self._connect()
        self.refresh()

    def _build(self) -> None:
        layout = ScrolledColumn(self)
        layout.setContentsMargins(16, 12, 14, 12)
        layout.setSpacing(6)
        head: tuple[QWidget, ...] = (self._title, self._code, self.does)
        told: tuple[QWidget, ...] = (
            self.of_device,
            self.thumbs_button,
            self.move_button,
            self.press_control,
            self._error,
            self._beyond,
            self.kept,
            self.settings,
        )
        plays: tuple[QWidget, ...] = (self._plays, self.play, self.own_play, self.preview, self._rate)
        for part in head:
            layout.addWidget(part)
        row = QHBoxLayout()
        row.addWidget(self.press_button)
        row.addWidget(self.clear_button)
        row.addWidget(self.open_button)
        row.addStretch(1)
        layout.addLayout(row)
        for part in told:
            layout.addWidget(part)
        layout.addSpacing(6)
        for part in plays:
            layout.addWidget(part)
        layout.addWidget(self.play_now)
        layout.addStretch(1)
        layout.addWidget(self.finder)
        layout.addWidget(self.find_button)

    def _connect(self) -> None:
        self.press_control.caught.connect(self._control_pressed)
        self.press_control.ended.connect(self.refresh)
        self.play.changed.connect(self._play_changed)
        self.settings.changed.connect(self._set)
        self.settings.refused.connect(self._say)
        self.settings.layer_renamed.connect(
            lambda old, new: self._edit(
                tr("rename {old}").format(old=old), lambda sheet: sheet.with_layer_named(old, new)
            )
        )
        self.settings.layer_deleted.connect(
            lambda name: self._edit(tr("delete {name}").format(name=name), lambda sheet: sheet.without_layer(name))
        )
        for signal in (self._store.library_changed, self._shown.profile_changed, self._shown.control_changed):
            signal.connect(self.refresh)
        self._store.devices_changed.connect(self.refresh)
        self._store.settings_changed.connect(self.refresh)
        self._store.profile_changed.connect(lambda key: self.refresh())
        self._store.macro_changed.connect(lambda key: self.refresh())

    def _say(self, message: str) -> None:
        self._error.setText(sentence(message))
        self._error.setVisible(bool(message))

    def _cells(self) -> Mapping[str, Cell]:
        setup = self._shown.setup
        return setup.of_layer(self._shown.layer) if setup else {}

    def _cell(self) -> Cell | None:
        return self._cells().get(self._shown.control)

    def _macro(self) -> Macro | None:
        cell = self._cell()
        return self._store.macros.get(cell.macro) if isinstance(cell, RunMacro) else None

    def showEvent(self, event: QShowEvent | None) -> None:
        """Show what has changed meanwhile."""
        super().showEvent(event)
        self.refresh()

    def refresh(self) -> None:
        """Show the chosen button."""
        if not self.isVisible() and self._shown_once:
            # What isn't seen isn't worked out; `showEvent` makes good for it.
            return
        self._shown_once = True
        code, cell, macro, setup = self._shown.control, self._cell(), self._macro(), self._shown.setup
        layer = self._shown.layer
        if not code:
            self._title.setText(tr("No button chosen"))
        elif setup and layer:
            held = tr("{button}, while {holder} is held")
            self._title.setText(held.format(button=control_label(code), holder=holder_of(setup, layer) or layer))
        else:
            self._title.setText(control_label(code))
        self._code.setText(code or tr("Choose a row, or press a button of your mouse."))
        self._say("")
        fallen = None if cell or layer else falling_in(self._store, self._shown).get(code)
        _, text, soft = cell_text(self._store, cell or fallen)
        soft = f"{soft}{tr(' · from Everyday')}" if fallen else soft if macro is None else ""
        self.does.setText(tr("as in base") if layer and cell is None else f"{text}{soft}")
        self.does.setAccessibleName(
            tr("What {button} does: {does}").format(button=control_label(code), does=self.does.text())
            if code
            else tr("What it does: {does}").format(does=self.does.text())
        )
        for part in (self.does, self.press_button):
            part.setEnabled(bool(code))
        self.press_button.setVisible(not self.press_control.armed)
        self.clear_button.setVisible(cell is not None)
        profile = self._shown.profile
        beyond = cell_beyond(cell, macro, profile.fair_play) if cell and profile else ""
        self._beyond.setText(beyond or off_hint(cell) or self._unknown_keys(cell, macro) or self._circle(macro))
        self._beyond.setVisible(bool(self._beyond.text()))
        told = tr("Outside games no program gets {key}: {name} is live then.")
        self.kept.setVisible(taken := self._takes_a_letter(code, cell))
        self.kept.setText(told.format(key=control_label(code), name=profile.name) if taken and profile else "")
        self.settings.show_cell(cell, code)
        self._show_apart(code)
        self._show_play(cell, macro)

    def _show_apart(self, code: str) -> None:
        """A number key may be a mouse's thumb button, which the list can't tell from the keyboard's; and a key may be
        a control of its own on another device by now."""
        mice = mice_with_number_keys(self._store) if code in THUMB_KEYS else []
        self._mouse = mice[0] if mice else ""
        device, apart = self._apart_on(code) if self._cell() and not mice else ("", "")
        # Where that control does something by now, the key is meant to do this, too.
        self._apart = "" if apart in self._cells() else apart
        if self._apart:
            told = tr("On {device} this key is {button} now.")
            self.of_device.setText(told.format(device=device, button=control_label(self._apart)))
            self.move_button.setText(literal(tr("Move it to {button}").format(button=control_label(self._apart))))
        else:
            told = tr("On {mouse} this may be a thumb button: many mice send number keys.")
            self.of_device.setText(told.format(mouse=self._mouse))
        self.of_device.setVisible(bool(mice or self._apart))
        self.thumbs_button.setVisible(bool(mice))
        self.move_button.setVisible(bool(self._apart))

    def _takes_a_letter(self, code: str, cell: Cell | None) -> bool:
        """Whether a key that people type with does something else in all of their programs."""
        known, profile = CONTROLS.get(code), self._shown.profile
        typed = known is not None and known.part == "keys" and code not in _SELDOM_TYPED
        everywhere = profile is not None and profile.id == EVERYDAY and not self._shown.layer
        # One that acts as another key is meant to.
        return typed and everywhere and cell is not None and not isinstance(cell, ToControl | ToChord)

    def _apart_on(self, code: str) -> tuple[str, str]:
        """A device on which the key is a control of its own, and that control; '' for none."""
        if (thumb := THUMB_KEYS.get(code)) and (mouse := thumb_mouse(self._store)):
            return mouse, thumb
        keyboard = second_keyboard_with(self._store, code)
        return keyboard, second(code) if keyboard else ""

    def _make_thumbs(self) -> None:
        code = THUMB_KEYS.get(self._shown.control)
        free = self._cell() is None
        count_as_thumbs(self._store, self._mouse, True)
        if code and free:
            self._shown.show_control(code, self._shown.layer)

    def _move_apart(self) -> None:
        profile, setup, layer = self._shown.profile, self._shown.setup, self._shown.layer
        code, cell, apart = self._shown.control, self._cell(), self._apart
        if profile is None or setup is None or cell is None or not apart:
            return
        text = tr("move {button} to {button2}").format(button=control_label(code), button2=control_label(apart))
        cells = {(layer, code): None, (layer, apart): cell}
        if refused := commands.set_cells(self._store, profile, setup.name, cells, text):
            self._say(refused)
        else:
            self._shown.show_control(apart, layer)

    def _show_play(self, cell: Cell | None, macro: Macro | None) -> None:
        parts = (self._plays, self.play, self.own_play, self.preview, self._rate, self.open_button, self.play_now)
        for part in parts:
            part.setVisible(macro is not None)
        self.play_now.refresh()
        if macro is None or not isinstance(cell, RunMacro):
            return
        play = cell.play or macro.play
        self.play.set_play(play)
        self._plays.setText(tr("plays differently here") if cell.play else tr("plays as the macro says"))
        self.own_play.setText(tr("Back to what the macro says") if cell.play else tr("Change it for this button only"))
        self.preview.show_macro(macro, play)
        cycle = cycle_us(macro, play)
        self._rate.setText(format_runs(cycle))
        self._rate.setVisible(play.mode is not Mode.SINGLE and cycle > 0)

    def _unknown_keys(self, cell: Cell | None, macro: Macro | None) -> str:
        """What the cell names that is no game key of the profile."""
        profile = self._shown.profile
        if profile is None:
            return ""
        if isinstance(cell, ChangeSpeed) and cell.to and cell.to not in (s.name for s in profile.pointer.stages):
            return tr("{name} has no pointer speed {to!r}; add it under Pointer speed….").format(
                name=profile.name, to=cell.to
            )
        named = list(cell.controls) if isinstance(cell, ToChord) else [getattr(cell, "control", "")]
        named += named_in(macro) if macro else []
        table = profile.key_table()
        missing = [control_label(code) for code in named if code.startswith(GAME) and code not in table]
        return (
            tr("{name} has no game key {value}; add it to its game keys.").format(
                name=profile.name, value=tr(" and no ").join(missing)
            )
            if missing
            else ""
        )

    def _circle(self, macro: Macro | None) -> str:
        """Where this macro and another one of the profile would fire each other."""
        profile, setup, known = self._shown.profile, self._shown.setup, self._store.macros
        if profile is None or setup is None or macro is None:
            return ""
        found = ((code, cell) for _, code, cell in setup.every() if isinstance(cell, RunMacro))
        others = {code: known[cell.macro] for code, cell in found if cell.macro in known}
        return circle(self._shown.control, macro, others, profile.key_table())

    def _edit(self, text: str, change: Callable[[SetUp], SetUp]) -> None:
        profile, setup = self._shown.profile, self._shown.setup
        if profile and setup:
            refused = commands.edit_setup(self._store, profile, setup.name, text, change)
            self.refresh()
            self._say(refused)

    def _set(self, cell: Cell | None) -> None:
        shown = self._shown
        if shown.profile and shown.setup and shown.control:
            refused = commands.set_cell(self._store, shown.profile, shown.setup.name, shown.control, cell, shown.layer)
            self.refresh()
            self._say(refused)

    def _arm(self) -> None:
        self.press_control.arm()
        self.press_button.hide()

    def _control_pressed(self, codes: tuple[str, ...]) -> None:
        if any(CONTROLS[code].kind is Kind.WHEEL for code in codes):
            self._say(tr("A button can act as a key or another button, not as a turn of the wheel."))
        elif len(codes) == 1:
            self._set(ToControl(codes[0]))
        else:
            try:
                self._set(ToChord(codes))
            except DataError as error:
                self._say(str(error))

    def _play_changed(self, play: Play, what: str) -> None:
        cell, macro = self._cell(), self._macro()
        if isinstance(cell, RunMacro) and macro:
            if cell.play:
                self._set(msgspec.structs.replace(cell, play=play))
            else:
                after = msgspec.structs.replace(macro, play=play)
                commands.edit_macro(self._store, tr("{what} of {name}").format(what=what, name=macro.name), after)

    def _give_own_play(self) -> None:
        cell, macro = self._cell(), self._macro()
        if isinstance(cell, RunMacro) and macro:
            self._set(msgspec.structs.replace(cell, play=None if cell.play else macro.play))

    def _open(self) -> None:
        if macro := self._macro():
            self._shown.show_macro(macro.id)

    def _what_plays(self) -> m.Play_ | None:
        cell, macro = self._cell(), self._macro()
        return m.Play_(macro.id, cell.play) if macro and isinstance(cell, RunMacro) else None
