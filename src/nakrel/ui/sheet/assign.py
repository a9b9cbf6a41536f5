"""Giving a button what it should do: the field at its cell, and what can be begun there."""

from __future__ import annotations

from collections.abc import Callable, Sequence

import msgspec
from PyQt6.QtCore import QObject, QRect, pyqtSignal
from PyQt6.QtWidgets import QWidget

from nakrel.core.edit.builders import RAPID_FIRE, build
from nakrel.core.edit.offers import Begin, Beginning, Group, Known, Offer, offers
from nakrel.core.library import free_name
from nakrel.core.model.cells import Cell, ChangeSpeed, GoTo, HoldLayer, RunMacro, ToControl, What
from nakrel.core.model.conditioning import SpeedStage
from nakrel.core.model.controls import KNOWN, Kind, label
from nakrel.core.model.macro import Macro
from nakrel.core.model.names import shown_name
from nakrel.core.model.profile import Layer, SetUp
from nakrel.ui import commands
from nakrel.ui.programs import Programs
from nakrel.ui.sheet.field import Field
from nakrel.ui.sheet.model import holder_of
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.words import tr

__all__ = ["Assign"]


class Assign(QObject):
    """Opens the field for the button and the layer that are shown, and does what is chosen there. `recording_wanted`,
    `clicks_wanted` and `speeds_wanted` ask for what other places of the window do; `done`: the field is gone."""

    recording_wanted = pyqtSignal()
    clicks_wanted = pyqtSignal()
    speeds_wanted = pyqtSignal()
    done = pyqtSignal()

    def __init__(self, store: Store, shown: Shown, over: QWidget) -> None:
        super().__init__(over)
        self._store, self._shown = store, shown
        self.programs = Programs(store, self)
        self.field = Field(store, self.programs, over)
        self._place = QRect()
        # What was shown when the field was opened; what is taken is for that.
        self._about = self._shown_now()
        # What is done with the next thing that is taken.
        self._then: Callable[[Cell | Beginning | None], object] = self._choose
        self.field.taken.connect(self._taken)
        self.field.left.connect(self.done)
        shown.profile_changed.connect(self._look_elsewhere)
        shown.control_changed.connect(self._look_elsewhere)

    def open(self, place: QRect, typed: str = "") -> None:
        """Ask at that place of the page what the button that is shown should do."""
        if (known := self._known()) is None:
            return
        self._place, self._then, self._about = place, self._choose, self._shown_now()
        self.programs.look()
        where = (
            tr(" while {value} is held").format(value=holder_of(known.setup, known.layer) or known.layer)
            if known.layer
            else ""
        )
        question = tr("What should {button} do{where}?").format(button=label(known.control), where=where)
        now = known.setup.of_layer(known.layer).get(known.control)
        self.field.open(place, question, self._offered, now, typed)

    def open_rapid_fire(self, place: QRect) -> None:
        """Ask which key the button that is shown should fire."""
        self._place, self._about = place, self._shown_now()
        self._begin(Beginning(Begin.RAPID_FIRE, ""))

    def open_for_holder(self, place: QRect, question: str, then: Callable[[Cell | Beginning | None], object]) -> None:
        """Ask for a button of the device alone, by pressing it or by its name."""
        self._place, self._then, self._about = place, then, self._shown_now()
        self.field.open(place, question, lambda typed: self._buttons(typed))
        self.field.press()

    def set(self, cell: Cell | None) -> str:
        """Let the button that is shown do this; returns the reason where that is refused."""
        shown = self._shown
        if not (shown.profile and shown.setup and shown.control):
            return ""
        return commands.set_cell(self._store, shown.profile, shown.setup.name, shown.control, cell, shown.layer)

    def _shown_now(self) -> tuple[str, str, str, str]:
        """What is shown: profile, variant, button and layer."""
        shown = self._shown
        profile, setup = shown.profile, shown.setup
        return profile.id if profile else "", setup.name if setup else "", shown.control, shown.layer

    def _look_elsewhere(self) -> None:
        """Another profile, variant or button is shown, maybe since somebody else has deleted that one."""
        if self.field.isVisible() and self._shown_now() != self._about:
            self.field.leave()

    def _known(self) -> Known | None:
        shown, store = self._shown, self._store
        if shown.profile is None or shown.setup is None or not shown.control:
            return None
        profiles = [(key, name) for name, key in store.profile_names]
        return Known(
            shown.profile,
            shown.setup,
            shown.control,
            shown.layer,
            tuple(store.macros.values()),
            profiles,
            self.programs.known(),
        )

    def _offered(self, typed: str) -> Sequence[Offer]:
        known = self._known()
        return offers(typed, known) if known else ()

    def _buttons(self, typed: str) -> Sequence[Offer]:
        """Keys and buttons alone; the mouse's main ones where nothing is typed."""
        if not typed.strip():
            return [
                Offer(Group.KEYS, label(code), ToControl(code), tr("mouse button"))
                for code in ("BTN_LEFT", "BTN_RIGHT", "BTN_MIDDLE")
            ]
        return [offer for offer in self._offered(typed) if isinstance(offer.does, ToControl)]

    def _taken(self, does: Cell | Beginning | None) -> None:
        then, self._then = self._then, self._choose
        then(does)
        if not self.field.isVisible():
            self.done.emit()

    def _choose(self, does: Cell | Beginning | None) -> None:
        if isinstance(does, Beginning):
            self._begin(does)
        elif refused := self.set(does):
            self._store.fault.emit(refused)

    # Beginnings

    def _begin(self, beginning: Beginning) -> None:
        name = beginning.name
        match beginning.what:
            case Begin.RAPID_FIRE:
                self._then = lambda does: self._rapid_fire(name, does)
                self.field.open(self._place, tr("Rapid fire of which key or button?"), self._buttons)
            case Begin.MACRO:
                self._new_macro(name)
            case Begin.RECORD:
                if self._new_macro(name):
                    self.recording_wanted.emit()
            case Begin.CLICKS:
                if self._new_macro(name or tr("Click sequence")):
                    self.clicks_wanted.emit()
            case Begin.LAYER:
                self.hold_new_layer(self._shown.control, name)
            case Begin.VARIANT:
                self._new_variant(name)
            case Begin.PROFILE:
                self._new_profile(name)
            case Begin.SPEED:
                self._new_speed(name)

    def _new_macro(self, name: str, made: Callable[[Macro], Macro] | None = None) -> bool:
        """Make a macro and let the button play it, as one edit; show it where it is still empty."""
        self._store.undo_stack.beginMacro(tr("new macro {name}").format(name=name).strip())
        macro = commands.new_macro(self._store, name or tr("New macro"))
        if made is not None:
            commands.edit_macro(self._store, tr("steps"), made(macro))
        refused = self.set(RunMacro(macro.id))
        self._store.undo_stack.endMacro()
        if refused:
            self._store.undo_stack.undo()
            self._store.fault.emit(refused)
        elif made is None:
            self._shown.show_macro(macro.id)
        return not refused

    def _rapid_fire(self, name: str, does: Cell | Beginning | None) -> None:
        if not isinstance(does, ToControl):
            self._store.fault.emit(tr("Rapid fire takes one key or button; press only that one."))
            return
        figures = [figure.example for figure in RAPID_FIRE.figures]
        known = tr("Rapid fire {button}").format(button=label(does.control))
        self._new_macro(name or known, lambda macro: build(macro, RAPID_FIRE, shown_name(does.control), figures))

    def hold_new_layer(self, code: str, name: str = "") -> str:
        """Make a layer that this button of the base holds, as one edit; returns its name, '' where that is refused."""
        profile, setup = self._shown.profile, self._shown.setup
        if profile is None or setup is None:
            return ""
        name = free_name(name or tr("{button} held").format(button=label(code)), (layer.name for layer in setup.layers))

        def changed(sheet: SetUp) -> SetUp:
            layers = (*sheet.layers, Layer(name))
            return msgspec.structs.replace(sheet, layers=layers, cells={**sheet.cells, code: HoldLayer(name)})

        refused = commands.edit_setup(
            self._store, profile, setup.name, tr("new layer {name}").format(name=name), changed
        )
        if refused:
            self._store.fault.emit(refused)
        return "" if refused else name

    def _new_variant(self, name: str) -> None:
        profile, setup = self._shown.profile, self._shown.setup
        assert profile
        assert setup
        name = free_name(name or tr("New variant"), (each.name for each in profile.setups))
        cell = GoTo(What.SETUP, name)
        here = setup.with_cell(self._shown.layer, self._shown.control, cell)
        setups = (*(here if each is setup else each for each in profile.setups), SetUp(name))
        if refused := commands.edit_setups(self._store, profile, tr("new variant {name}").format(name=name), setups):
            self._store.fault.emit(refused)

    def _new_profile(self, name: str) -> None:
        self._store.undo_stack.beginMacro(tr("new profile {name}").format(name=name).strip())
        made = commands.new_profile(self._store, name or tr("New profile"))
        refused = self.set(GoTo(What.PROFILE, made.id))
        self._store.undo_stack.endMacro()
        if refused:
            self._store.undo_stack.undo()
            self._store.fault.emit(refused)

    def _new_speed(self, name: str) -> None:
        """A slower pointer while the button is held; the speed that is there at first stays what it is."""
        profile = self._shown.profile
        assert profile
        known = KNOWN.get(self._shown.control)
        stages = profile.pointer.stages or (SpeedStage(tr("Normal")),)
        name = free_name(name or tr("Slow"), (each.name for each in stages))
        pointer = msgspec.structs.replace(profile.pointer, stages=(*stages, SpeedStage(name, 50, 50)))
        self._store.undo_stack.beginMacro(tr("new pointer speed {name}").format(name=name))
        refused = commands.set_pointer(
            self._store, profile, pointer, tr("new pointer speed {name}").format(name=name), {}
        )
        refused = refused or self.set(ChangeSpeed(name, held=known is None or known.kind is not Kind.WHEEL))
        self._store.undo_stack.endMacro()
        if refused:
            self._store.undo_stack.undo()
            self._store.fault.emit(refused)
        else:
            self.speeds_wanted.emit()
