"""What the chosen control does, and how to change it."""

from __future__ import annotations

import re
import shlex
from collections.abc import Callable

import msgspec
from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QShowEvent
from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from nakrel import protocol as m
from nakrel.core.edit.checks import circle
from nakrel.core.edit.timeline import lay_out
from nakrel.core.model.cells import (
    ACTION_LABELS,
    Cell,
    ChangeSpeed,
    GoTo,
    HoldLayer,
    Nothing,
    RunMacro,
    RunSystemAction,
    StartProgram,
    SystemAction,
    ToChord,
    ToControl,
    TypeText,
)
from nakrel.core.model.controls import CONTROLS, GAME, Kind, game_key
from nakrel.core.model.controls import label as control_label
from nakrel.core.model.errors import DataError
from nakrel.core.model.fair_play import cell_beyond
from nakrel.core.model.game_keys import named_in, unused
from nakrel.core.model.macro import Macro, Play, cycle_us
from nakrel.core.model.names import name_of, read_control
from nakrel.core.model.profile import SetUp
from nakrel.core.model.units import format_ms, format_runs
from nakrel.ui import commands
from nakrel.ui.sheet.choices import CellChoice, places, speeds
from nakrel.ui.sheet.model import SheetModel, off_hint
from nakrel.ui.sheet.profile_details import ProfileDetails
from nakrel.ui.sheet.thumb import ThumbGrid
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.theme import SMALL_PX, font, hue, palette
from nakrel.ui.widgets.basics import button, choice, form_row, label, searchable
from nakrel.ui.widgets.capture import Capture
from nakrel.ui.widgets.control_choice import ControlChoice
from nakrel.ui.widgets.play import PlayFields
from nakrel.ui.widgets.traces import draw_trace

__all__ = ["Preview", "SheetDetails"]

_DOES: dict[str, type] = {
    "unchanged": type(None),
    "nothing": Nothing,
    "a key or button": ToControl,
    "combination": ToChord,
    "macro": RunMacro,
    "text": TypeText,
    "program": StartProgram,
    "layer": HoldLayer,
    "variant or profile": GoTo,
    "pointer speed": ChangeSpeed,
    "system or media key": RunSystemAction,
}
# What is typed in words: an example of each.
_WORDS: dict[type, str] = {
    ToChord: "Left Ctrl + C",
    TypeText: "Good evening, harbour!",
    StartProgram: "program and arguments",
}


class Preview(QWidget):
    """The macro's loop as small traces, as long as two runs with their pause."""

    def __init__(self) -> None:
        super().__init__()
        self._macro: Macro | None = None
        self._cycle_us = 0
        self.setAccessibleName("How the macro reads in time")

    def sizeHint(self) -> QSize:
        """Room for a few traces and the ruler."""
        return QSize(200, 16 + 20 * min(4, len(self._spans()) or 1) + 8)

    def show_macro(self, macro: Macro | None, play: Play) -> None:
        """Draw this macro."""
        self._macro = macro
        self._cycle_us = cycle_us(macro, play) if macro else 0
        self.setFixedHeight(self.sizeHint().height())
        self.update()

    def _spans(self) -> dict[str, list[tuple[int, int]]]:
        if self._macro is None:
            return {}
        line = lay_out(Macro(id="preview", name="preview", loop=self._macro.loop))
        return {code: [(span.start_us, span.end_us) for span in spans] for code, spans in line.spans.items()}

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw the traces and a ruler with the length of a run."""
        painter, p = QPainter(self), palette()
        spans, cycle = self._spans(), self._cycle_us
        painter.setFont(font(SMALL_PX))
        if not spans or not cycle:
            painter.setPen(QColor(p.soft))
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignLeft, "no step that takes time yet")
            return
        end = 2 * cycle
        for n, (code, own) in enumerate(list(spans.items())[:4]):
            area = QRectF(0, 6 + 20 * n, self.width() - 1, 13)
            draw_trace(painter, area, [*own, *((a + cycle, b + cycle) for a, b in own)], 0, end, hue(code), 1.3)
        painter.setPen(QColor(p.soft))
        bottom = self.height() - 3
        for n, text in enumerate(("0", f"{format_ms(cycle)} ms")):
            painter.drawText(int(n * self.width() / 2), bottom, text)


class SheetDetails(QWidget):
    """The details column beside the sheet."""

    def __init__(self, store: Store, shown: Shown, model: SheetModel) -> None:
        super().__init__()
        self._store, self._shown = store, shown
        self.thumb = ThumbGrid(model, shown)
        self.thumb.chosen.connect(lambda code: shown.show_control(code, shown.layer))
        self._title, self._code = label("", "heading"), label("", "soft", wrap=True)
        self.does = choice("does")
        self.does.addItems(list(_DOES))
        self.does.setMinimumContentsLength(16)
        self.macro = searchable("Macro")
        self.control = ControlChoice("Control")
        self.typed = QLineEdit()
        self.layer = choice("Layer")
        self._places, self._speeds = CellChoice("Go to"), CellChoice("Pointer speed")
        self.go, self.speed = self._places.box, self._speeds.box
        self.action = choice("System or media key")
        for action in SystemAction:
            self.action.addItem(ACTION_LABELS[action], action)
        self.layer_name = QLineEdit()
        self.layer_name.setAccessibleName("Name of the layer")
        self.delete_layer = button("Delete the layer", self._delete_layer, "link")
        self.press_control = Capture(store)
        self.finder = Capture(store, "Press the button to find its row…")
        self.play = PlayFields()
        self.own_play = button("Change it for this button only", self._give_own_play, "link")
        self.preview = Preview()
        self._rate, self._error = label(), label("", "alarm", wrap=True)
        self._beyond = label("", "alarm", wrap=True)
        self.profile = ProfileDetails(store, shown)
        self._shown_once = False
        self._listed: object = None
        self._macros_listed: tuple[tuple[str, str], ...] = ()
        self._wanted: type = type(None)
        self._build()
        self._connect()
        self.refresh()

    def _build(self) -> None:
        layout = QVBoxLayout(self)
        layout.setContentsMargins(16, 12, 14, 12)
        layout.setSpacing(6)
        layout.addWidget(self._title)
        layout.addWidget(self._code)
        layout.addWidget(form_row("does", self.does))
        layout.addWidget(self.macro)
        layout.addWidget(self.control)
        for field in (self.typed, self.layer, self.layer_name, self.delete_layer, self.go, self.speed, self.action):
            layout.addWidget(field)
        self._press_button = button("Press to choose", self.press_control.arm)
        layout.addWidget(self._press_button)
        layout.addWidget(self.press_control)
        layout.addWidget(self._error)
        layout.addWidget(self._beyond)
        self._plays = label("plays", "soft")
        layout.addWidget(self._plays)
        layout.addWidget(self.play)
        layout.addWidget(self.own_play)
        self._reads = label("preview", "soft")
        layout.addWidget(self._reads)
        layout.addWidget(self.preview)
        self._rate_row = form_row("runs", self._rate)
        layout.addWidget(self._rate_row)
        actions = QHBoxLayout()
        self.open_button = button("Open macro", self._open)
        self.try_button = button("Try it", self._try, tip="Play it now, to the window in front")
        self.detach_button = button("Detach", lambda: self._set(None))
        for made in (self.open_button, self.try_button, self.detach_button):
            actions.addWidget(made)
        actions.addStretch(1)
        layout.addLayout(actions)
        layout.addStretch(1)
        layout.addWidget(self.thumb)
        layout.addWidget(self.finder)
        self.find_button = button("Press a button to find it", self.finder.arm)
        layout.addWidget(self.find_button)
        layout.addSpacing(10)
        layout.addWidget(self.profile)

    def _connect(self) -> None:
        self.does.activated.connect(self._does_chosen)
        self.macro.activated.connect(lambda n: self._set(RunMacro(self._macros_listed[n][1])))
        self.control.chosen.connect(lambda code: self._set(ToControl(code)))
        self.control.refused.connect(self._say)
        self.typed.editingFinished.connect(self._text_typed)
        self.layer.activated.connect(self._layer_chosen)
        self.go.activated.connect(lambda n: self._set(self._places.cell(n)))
        self.speed.activated.connect(lambda n: self._set(self._speeds.cell(n)))
        self.action.activated.connect(lambda n: self._set(RunSystemAction(self.action.itemData(n))))
        self.layer_name.editingFinished.connect(self._rename_layer)
        self.press_control.caught.connect(self._control_pressed)
        self.play.changed.connect(self._play_changed)
        for signal in (
            self._store.library_changed,
            self._shown.profile_changed,
            self._shown.control_changed,
        ):
            signal.connect(self.refresh)
        self._store.profile_changed.connect(lambda key: self.refresh())
        self._store.macro_changed.connect(lambda key: self.refresh())

    def _say(self, message: str) -> None:
        self._error.setText(message)
        self._error.setVisible(bool(message))

    def _cell(self) -> Cell | None:
        setup = self._shown.setup
        return setup.of_layer(self._shown.layer).get(self._shown.control) if setup else None

    def _macro(self) -> Macro | None:
        cell = self._cell()
        return self._store.macros.get(cell.macro) if isinstance(cell, RunMacro) else None

    def showEvent(self, event: QShowEvent | None) -> None:
        """Show what has changed meanwhile."""
        super().showEvent(event)
        self.refresh()

    def refresh(self) -> None:
        """Show the chosen control."""
        if not self.isVisible() and self._shown_once:
            # What isn't seen isn't worked out; `showEvent` makes good for it.
            return
        self._shown_once = True
        code, cell, macro = self._shown.control, self._cell(), self._macro()
        layer = self._shown.layer
        where = f", while {layer} is held" if layer else ", base"
        self._title.setText(f"{control_label(code)}{where}" if code else "No button chosen")
        self._code.setText(code or "Choose a row, or press a button of your mouse.")
        self._say("")
        self.does.setEnabled(bool(code))
        self.does.setItemText(0, "as in base" if layer else "unchanged")
        self.does.setCurrentIndex(list(_DOES.values()).index(type(cell)))
        self._fill_macros(cell.macro if isinstance(cell, RunMacro) else "")
        # Long lists are filled when they are seen.
        if isinstance(cell, ToControl):
            self._fill_controls(cell.control)
        self._fill_cells(cell)
        if isinstance(cell, RunSystemAction):
            self.action.setCurrentIndex(list(SystemAction).index(cell.action))
        profile = self._shown.profile
        beyond = cell_beyond(cell, macro, profile.fair_play) if cell and profile else ""
        self._beyond.setText(beyond or off_hint(cell) or self._unknown_keys(cell, macro) or self._circle(macro))
        self._beyond.setVisible(bool(self._beyond.text()))
        if not self.typed.hasFocus():
            self.typed.setText(_as_text(cell))
        self._fill_layers(cell.layer if isinstance(cell, HoldLayer) else "")
        self._show(type(cell), macro, cell)

    def _show(self, kind: type, macro: Macro | None, cell: Cell | None) -> None:
        self.macro.setVisible(kind is RunMacro)
        self.control.setVisible(kind is ToControl)
        self._press_button.setVisible(kind is ToControl)
        self.typed.setVisible(kind in _WORDS)
        self.typed.setPlaceholderText(_WORDS.get(kind, ""))
        self.typed.setAccessibleName(kind.__name__)
        self.layer.setVisible(kind is HoldLayer)
        self.go.setVisible(kind is GoTo)
        self.speed.setVisible(kind is ChangeSpeed)
        self.action.setVisible(kind is RunSystemAction)
        for part in (self.layer_name, self.delete_layer):
            part.setVisible(isinstance(cell, HoldLayer))
        for widget in (self._plays, self.play, self._reads, self.preview, self._rate_row, self.open_button):
            widget.setVisible(macro is not None)
        self.try_button.setVisible(macro is not None)
        self.own_play.setVisible(macro is not None)
        self.detach_button.setVisible(cell is not None)
        if macro and isinstance(cell, RunMacro):
            play = cell.play or macro.play
            self.play.set_play(play)
            self._plays.setText("plays differently here" if cell.play else "plays as the macro says")
            self.own_play.setText("Back to what the macro says" if cell.play else "Change it for this button only")
            self.preview.show_macro(macro, play)
            cycle = cycle_us(macro, play)
            self._rate.setText(format_runs(cycle) if cycle else "once")

    def _fill_controls(self, code: str) -> None:
        """The profile's game keys, keys that its game leaves free, then all others."""
        profile = self._shown.profile
        keys = profile.keys if profile else ()
        if (keys, profile and profile.id) != self._listed:
            self._listed = (keys, profile and profile.id)
            free = unused(profile)[:12] if profile else []
            others = [c for c in CONTROLS.values() if c.kind is not Kind.WHEEL and c.code not in free]
            self.control.set_items(
                (
                    *((f"“{k.name}”  (game key: {control_label(k.control)})", game_key(k.name)) for k in keys),
                    *((f"{control_label(code)}  (not used by the game)", code) for code in free),
                    *((f"{known.label}  ({known.code})", known.code) for known in others),
                )
            )
        self.control.show_code(code)

    def _fill_cells(self, cell: Cell | None, kind: type | None = None) -> None:
        """List what can be gone to, where that is seen."""
        profile, kind = self._shown.profile, kind or type(cell)
        if profile and kind is GoTo:
            self._places.offer(places(profile, self._store.profile_names), cell)
        elif profile and kind is ChangeSpeed:
            known = CONTROLS.get(self._shown.control)
            self._speeds.offer(speeds(profile, wheel=known is not None and known.kind is Kind.WHEEL), cell)

    def _unknown_keys(self, cell: Cell | None, macro: Macro | None) -> str:
        """What the cell names that is no game key of the profile."""
        profile = self._shown.profile
        if profile is None:
            return ""
        named = list(cell.controls) if isinstance(cell, ToChord) else [getattr(cell, "control", "")]
        named += named_in(macro) if macro else []
        stages = [stage.name for stage in profile.pointer.stages]
        if isinstance(cell, ChangeSpeed) and cell.to and cell.to not in stages:
            return f"{profile.name} has no pointer speed {cell.to!r}; add it under Pointer speed…."
        table = profile.key_table()
        missing = [control_label(code) for code in named if code.startswith(GAME) and code not in table]
        return f"{profile.name} has no game key {' and no '.join(missing)}; add it to its game keys." if missing else ""

    def _circle(self, macro: Macro | None) -> str:
        """Where this macro and another one of the sheet would fire each other."""
        profile, setup, known = self._shown.profile, self._shown.setup, self._store.macros
        if profile is None or setup is None or macro is None:
            return ""
        found = ((code, cell) for _, code, cell in setup.every() if isinstance(cell, RunMacro))
        others = {code: known[cell.macro] for code, cell in found if cell.macro in known}
        return circle(self._shown.control, macro, others, profile.key_table())

    def _fill_macros(self, key: str) -> None:
        names = self._store.macro_names
        if names is not self._macros_listed:
            self._macros_listed = names
            self.macro.clear()
            self.macro.addItems([name for name, _ in names])
        self.macro.setCurrentIndex(next((n for n, (_, each) in enumerate(names) if each == key), -1) if key else -1)

    def _does_chosen(self, number: int) -> None:
        kind = list(_DOES.values())[number]
        if kind is type(None):
            self._set(None)
        elif kind is Nothing:
            self._set(Nothing())
        elif kind is RunMacro and not self._store.macros:
            self._say("There is no macro yet. Make one with + New in the left column.")
        elif kind is ChangeSpeed and self._shown.profile and not self._shown.profile.pointer.stages:
            self._say(
                f"{self._shown.profile.name} has no pointer speeds yet. Make some with Pointer speed… at the foot."
            )
        else:
            if kind is ToControl:
                self._fill_controls("")
            self._fill_cells(None, kind)
            self._show(kind, None, self._cell())
            fields: dict[type, QComboBox] = {
                ToControl: self.control,
                RunMacro: self.macro,
                HoldLayer: self.layer,
                GoTo: self.go,
                ChangeSpeed: self.speed,
                RunSystemAction: self.action,
            }
            field = fields.get(kind)
            if field is None:
                self._wanted = kind
                self.typed.clear()
                self.typed.setFocus()
            else:
                field.setCurrentIndex(-1)
                field.setFocus()
                if kind is not ToControl:
                    field.showPopup()

    def _text_typed(self) -> None:
        """Take what was typed as a combination, a text, or a program."""
        if not self.typed.isModified():
            return
        self.typed.setModified(False)
        cell, text = self._cell(), self.typed.text().strip()
        kind = type(cell) if type(cell) in _WORDS else self._wanted
        if not text or kind not in _WORDS:
            return
        try:
            self._set(_from_text(kind, text))
        except (DataError, ValueError) as error:
            self._say(str(error))

    def _fill_layers(self, name: str) -> None:
        self.layer.clear()
        layers = self._shown.setup.layers if self._shown.setup else ()
        for each in layers:
            self.layer.addItem(each.name, each.name)
        self.layer.addItem("a new layer", "")
        self.layer.setCurrentIndex(self.layer.findData(name) if name else -1)
        if not self.layer_name.hasFocus():
            self.layer_name.setText(name)

    def _layer_chosen(self, number: int) -> None:
        name, control = self.layer.itemData(number), self._shown.control
        if not name and self._shown.profile and self._shown.setup:
            name = commands.new_layer(self._store, self._shown.profile, self._shown.setup.name)
            self._shown.show_control(control, self._shown.layer)
        if name:
            self._set(HoldLayer(name))

    def _rename_layer(self) -> None:
        cell, name = self._cell(), self.layer_name.text().strip()
        if isinstance(cell, HoldLayer) and name and name != cell.layer:
            self._edit(f"rename {cell.layer}", lambda sheet: sheet.with_layer_named(cell.layer, name))

    def _edit(self, text: str, change: Callable[[SetUp], SetUp]) -> None:
        profile, setup = self._shown.profile, self._shown.setup
        if profile and setup:
            refused = commands.edit_setup(self._store, profile, setup.name, text, change)
            self.refresh()
            self._say(refused)

    def _delete_layer(self) -> None:
        cell = self._cell()
        if isinstance(cell, HoldLayer):
            self._edit(f"delete {cell.layer}", lambda sheet: sheet.without_layer(cell.layer))

    def _set(self, cell: Cell | None) -> None:
        shown = self._shown
        if shown.profile and shown.setup and shown.control:
            refused = commands.set_cell(self._store, shown.profile, shown.setup.name, shown.control, cell, shown.layer)
            self.refresh()
            self._say(refused)

    def _control_pressed(self, codes: tuple[str, ...]) -> None:
        if any(CONTROLS[code].kind is Kind.WHEEL for code in codes):
            self._say("A button can act as a key or another button, not as a turn of the wheel.")
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
                commands.edit_macro(self._store, f"{what} of {macro.name}", after)

    def _give_own_play(self) -> None:
        cell, macro = self._cell(), self._macro()
        if isinstance(cell, RunMacro) and macro:
            self._set(msgspec.structs.replace(cell, play=None if cell.play else macro.play))

    def _open(self) -> None:
        if macro := self._macro():
            self._shown.show_macro(macro.id)

    def _try(self) -> None:
        cell, macro = self._cell(), self._macro()
        if macro and isinstance(cell, RunMacro):
            self._store.ask(m.Play_(macro.id, cell.play))


def _as_text(cell: Cell | None) -> str:
    match cell:
        case ToChord(controls=codes):
            return " + ".join(map(name_of, codes))
        case TypeText(text=text):
            return text
        case StartProgram(command=command):
            return shlex.join(command)
    return ""


def _from_text(kind: type, text: str) -> Cell:
    """The cell that the text says. Raises `DataError`, and `ValueError` for a quote that isn't closed."""
    if kind is ToChord:
        return ToChord(tuple(read_control(name) for name in re.split(r"\s*\+\s*|\s*,\s*", text) if name))
    if kind is TypeText:
        return TypeText(text)
    return StartProgram(tuple(shlex.split(text)))
