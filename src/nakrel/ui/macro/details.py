"""How the macro plays, and where it is attached."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

import msgspec
from PyQt6.QtCore import Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QShowEvent
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from nakrel import protocol as m
from nakrel import worker_process
from nakrel.core.edit.findings import NO_FACTS, Attached, Facts
from nakrel.core.model.cells import RunMacro
from nakrel.core.model.controls import label as control_label
from nakrel.core.model.macro import Macro, Mode, Play, Section
from nakrel.core.model.profile import Profile
from nakrel.core.model.steps import Open, Pointer, Text, walk
from nakrel.core.model.units import format_runs, shown_ms
from nakrel.ui import commands
from nakrel.ui.background import Background, rest_ms
from nakrel.ui.macro.frame_check import FrameCheck
from nakrel.ui.macro.last_run import LastRun
from nakrel.ui.macro.tune import Tune
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, form_row, label, refilling
from nakrel.ui.widgets.capture import Capture
from nakrel.ui.widgets.elided import ElidedButton
from nakrel.ui.widgets.flow import ScrolledColumn
from nakrel.ui.widgets.fold import Fold
from nakrel.ui.widgets.paragraph import Paragraph
from nakrel.ui.widgets.pending import Pending
from nakrel.ui.widgets.play_now import PlayNow
from nakrel.ui.widgets.plays import HowItPlays, PlayPreview
from nakrel.words import noted, order_of, sentence, shown_number, tr

__all__ = ["MacroDetails"]


# More are told by their number: whoever has that many looks at the first ones first.
_MOST_CHECKS = 6


class MacroDetails(QWidget):
    """The details column beside the macro's page; `show_row` asks for a step to be shown."""

    show_row = pyqtSignal(int)

    def __init__(self, store: Store, shown: Shown) -> None:
        super().__init__()
        self._store, self._shown = store, shown
        self.play, self.preview = HowItPlays(), PlayPreview()
        self.note = Paragraph(tr("Note"), tr("A note for yourself"))
        self._length, self._rate = label(), label("", "soft")
        self.attach_button = ElidedButton("", self._arm, "act", tr("Choose the button by pressing it (Ctrl+B)"))
        self.capture = Capture(store, tr("Press the button that should play it…"))
        self.frame_check = FrameCheck(store, shown)
        self.frame_check.show_row.connect(self.show_row)
        # The page knows which steps are selected.
        self.selected: Callable[[], list[int]] = list
        self.tune = Tune(store, shown, lambda: self.selected())
        self.last_run = LastRun(store, shown)
        self.checks = QVBoxLayout()
        self.checks.setSpacing(4)
        self.checks_pending = Pending()
        self.checks_pending.late.connect(self._checks_late)
        self._message = label("", "soft", wrap=True)
        self._slips: worker_process.Slips | None = None
        # The macro that is looked through for them, or will be.
        self._looked_at: Macro | None = None
        # What the message speaks of: it goes with that.
        self._message_of: object = None
        self._places_shown: object = None
        self._places = QVBoxLayout()
        self._places.setSpacing(0)
        self.play_now = PlayNow(store, self._what_plays)
        # Edits come fast while something is typed or dragged; what they lead to is worked out when they rest.
        self._rest = QTimer(self)
        self._rest.setSingleShot(True)
        self._rest.timeout.connect(self._ask_facts)
        self._facts = NO_FACTS
        self._background = Background(self)
        self._asked: m.GetFacts | None = None
        self._build()
        self.last_run.measured.connect(self._measured)
        self.play.changed.connect(self._play_changed)
        self.note.committed.connect(self._note_changed)
        self.capture.captured.connect(self._captured)
        self.capture.ended.connect(self.refresh)
        for signal in (store.library_changed, shown.macro_changed, shown.profile_changed):
            signal.connect(self.refresh)
        store.macro_changed.connect(lambda key: self.refresh())
        store.profile_changed.connect(lambda key: self.refresh())
        store.keyboard.renamed.connect(self._show_names)
        self.refresh()

    def _build(self) -> None:
        layout = ScrolledColumn(self)
        layout.setContentsMargins(16, 12, 14, 12)
        layout.setSpacing(2)
        self._length_row = form_row(tr("one run lasts"), self._length)
        plays = (self.play, self.preview, self._length_row, self._rate, self.play_now)
        # The button for attaching stands before the places: its own place stays the same however many there are.
        attached = (self.attach_button, self.capture, self._message, _column(self._places))
        self.last_run_fold = self._fold(noted("Last run"), self.last_run)
        self.checks_fold = self._fold(noted("Checks"), _stack(_column(self.checks), self.checks_pending))
        for fold in (
            self._fold(noted("How it plays"), _stack(*plays)),
            self._fold(noted("Attached to"), _stack(*attached)),
            self._fold(noted("Frame check"), self.frame_check, self.frame_check.rate),
            self._fold(noted("Tune"), self.tune),
            self.last_run_fold,
            self.checks_fold,
            self._fold(noted("Note"), self.note),
        ):
            layout.addWidget(fold)
        layout.addStretch(1)
        self.last_run_fold.hide()

    def _fold(self, title: str, content: QWidget, extra: QWidget | None = None) -> Fold:
        # What is kept of it is the same in every language.
        key = f"macro: {title.lower()}"
        return Fold(
            tr(title),
            content,
            folded=key in self._shown.folded,
            remember=lambda on: self._shown.fold(key, on),
            extra=extra,
        )

    def showEvent(self, event: QShowEvent | None) -> None:
        """Show what has changed meanwhile."""
        super().showEvent(event)
        self.refresh()

    def refresh(self) -> None:
        """Show the macro as it is now."""
        if not self.isVisible():
            # What isn't seen isn't worked out; `showEvent` makes good for it.
            return
        macro, profile = self._shown.macro, self._shown.profile
        if self._message_of != self._subject():
            self._say("")
        self.setEnabled(macro is not None)
        if macro is None:
            return
        self.play.set_play(macro.play)
        self.note.show_text(macro.note)
        run = self._shown.line.loop_us
        cycle = run + macro.play.pause_us
        self._length.setText(tr("{time} ms").format(time=shown_ms(run)))
        self.preview.show_macro(macro, macro.play)
        self._rate.setVisible(macro.play.mode is not Mode.SINGLE and cycle > 0)
        self._rate.setText(format_runs(cycle))
        self.attach_button.set_text(tr("Attach in {name}…").format(name=profile.name) if profile else tr("Attach…"))
        self.attach_button.setVisible(not self.capture.armed)
        if macro is not self._looked_at or not self._rest.isActive():
            edited = self._looked_at is not None and self._looked_at.id == macro.id
            if macro is not self._looked_at:
                # What is still found in the one before isn't about this one.
                self._looked_at = macro
                self._background.cancel()
            rest = rest_ms(self._shown.line.size if edited else 0)
            self.checks_pending.expect(macro.id, rest)
            self._rest.start(rest)
        # It takes longest, so the process beside the window does it last.
        self.frame_check.set_macro(macro)
        self._show_places()
        self.play_now.refresh()

    def _show_names(self) -> None:
        """Show anew what names keys, which are called otherwise than before."""
        self._places_shown = None
        self.frame_check.show_names()
        self.refresh()

    def show_checks(self) -> None:
        """Look for slips in the macro, with what is known of this machine."""
        if (macro := self._shown.macro) is None:
            return
        triggers = {
            code
            for profile in self._store.profiles.values()
            for _, _, code, cell in profile.cells()
            if isinstance(cell, RunMacro) and cell.macro == macro.id
        }
        places = [place for each in self._store.profiles.values() for place in self._attached(each, macro)]
        job = worker_process.LookForSlips(macro, _MOST_CHECKS, tuple(triggers), self._facts, tuple(places))
        self._background.ask(job, worker_process.Slips, self._show_slips)

    def _attached(self, profile: Profile, macro: Macro) -> list[Attached]:
        """The profile's attachments of the macro, each way to play once."""
        cells = [(code, cell) for *_, code, cell in profile.cells() if isinstance(cell, RunMacro)]
        plays = dict.fromkeys(cell.play or macro.play for _, cell in cells if cell.macro == macro.id)
        known = self._store.macros
        others = {c: known[cell.macro] for c, cell in cells if cell.macro in known and cell.macro != macro.id}
        return [Attached(profile.name, profile.fair_play, profile.key_table(), play, others) for play in plays]

    def _checks_late(self, of_another: bool) -> None:
        if of_another:
            self._list_slips(worker_process.Slips(0, ()))
        self.checks_fold.show()

    def _show_slips(self, found: worker_process.Slips) -> None:
        if found.whole:
            self.checks_pending.answered()
        elif not self.checks_pending.answered_in_part():
            return
        self._list_slips(found)
        self.checks_fold.setVisible(found.count > 0 or not found.whole)

    def _list_slips(self, found: worker_process.Slips) -> None:
        if found == self._slips:
            return
        self._slips = found
        title = tr("Checks ({count})") if found.whole else tr("Checks ({count} so far)")
        self.checks_fold.set_title(title.format(count=shown_number(found.count)) if found.count else tr("Checks"))
        with refilling(self.checks):
            for finding in found.first:
                row = QHBoxLayout()
                row.addWidget(label(finding.message, "", wrap=True), 1)
                if finding.row is not None:
                    show = button(tr("Show"), partial(self.show_row.emit, finding.row), "link", tr("Select the step"))
                    row.addWidget(show, 0, Qt.AlignmentFlag.AlignTop)
                self.checks.addLayout(row)
            if more := found.count - len(found.first):
                self.checks.addWidget(label(tr("and {value} more").format(value=shown_number(more)), "soft"))

    def _ask_facts(self) -> None:
        """Ask the service about texts, programs and secrets, where they aren't those that it was asked about last."""
        macro = self._shown.macro
        if macro is None:
            return
        steps = [step for section in Section for step in walk(macro.section(section))]
        asked = m.GetFacts(
            tuple(sorted({step.text for step in steps if isinstance(step, Text) and step.text})),
            tuple(sorted({step.command[0] for step in steps if isinstance(step, Open)})),
            tuple(sorted({step.secret for step in steps if isinstance(step, Text) and step.secret})),
        )
        # Nothing waits for the service, which may be gone: where it answers, it is looked at once more.
        self.show_checks()
        pointed = any(isinstance(step, Pointer) for step in steps)
        if asked == self._asked or not (pointed or any((asked.texts, asked.programs, asked.secrets))):
            return

        def answered(answer: m.AnswerBody) -> None:
            if isinstance(answer, m.Facts):
                self._asked = asked
                self._facts = Facts(answer.texts, answer.programs, answer.secrets, answer.screen)
            self.show_checks()

        self._store.ask(asked, answered)

    def _show_places(self) -> None:
        macro = self._shown.macro
        found = [
            (profile, setup.name, layer, code)
            for profile in sorted(self._store.profiles.values(), key=lambda p: order_of(p.name))
            for setup, layer, code, cell in profile.cells()
            if macro and isinstance(cell, RunMacro) and cell.macro == macro.id
        ]
        shown = (
            macro.id if macro else "",
            tuple((profile.id, profile.name, len(profile.setups), *rest) for profile, *rest in found),
        )
        if shown == self._places_shown:
            return
        self._places_shown = shown
        with refilling(self._places):
            for profile, setup, layer, code in found:
                text = tr("{button} in {name}").format(button=control_label(code, layer), name=profile.name)
                text += f", {setup}" if len(profile.setups) > 1 else ""
                line = QHBoxLayout()
                line.addWidget(ElidedButton(text, partial(self._go, profile.id, setup, layer, code), "link"))
                line.addStretch(1)
                self._places.addLayout(line)
            if not found:
                self._places.addWidget(label(tr("No button plays it yet."), "soft"))

    def _go(self, profile: str, setup: str, layer: str, code: str) -> None:
        self._shown.show_profile(profile)
        self._shown.show_setup(setup)
        self._shown.show_page("sheet")
        self._shown.show_control(code, layer)

    def _play_changed(self, play: Play, what: str) -> None:
        if macro := self._shown.macro:
            commands.edit_macro(
                self._store,
                tr("{what} of {name}").format(what=what, name=macro.name),
                msgspec.structs.replace(macro, play=play),
            )

    def _note_changed(self, note: str) -> None:
        if macro := self._shown.macro:
            commands.edit_macro(
                self._store, tr("note of {name}").format(name=macro.name), msgspec.structs.replace(macro, note=note)
            )

    def _measured(self, record: object, spread_us: float | None) -> None:
        self.last_run_fold.setVisible(record is not None)
        self.frame_check.set_jitter(spread_us)

    def _subject(self) -> object:
        return (self._shown.macro and self._shown.macro.id, self._shown.profile)

    def _say(self, message: str) -> None:
        self._message.setText(sentence(message))
        self._message.setVisible(bool(message))
        self._message_of = self._subject()

    def _arm(self) -> None:
        self._say("")
        self.capture.arm()
        self.attach_button.setVisible(False)

    def _captured(self, code: str) -> None:
        macro, profile, setup = self._shown.macro, self._shown.profile, self._shown.setup
        if macro and profile and setup:
            before = setup.cells.get(code)
            refused = commands.attach(self._store, profile, setup.name, code, macro)
            if before:
                plays = tr("{button} plays it now in {name}. It did something else before; undo brings that back.")
            else:
                plays = tr("{button} plays it now in {name}.")
            self._say(refused or plays.format(button=control_label(code), name=profile.name))

    def _what_plays(self) -> m.Play_ | None:
        return m.Play_(self._shown.macro.id) if self._shown.macro else None


def _stack(*parts: QWidget) -> QWidget:
    """The parts, one beneath the other."""
    layout = QVBoxLayout()
    layout.setSpacing(6)
    for part in parts:
        layout.addWidget(part)
    return _column(layout)


def _column(layout: QVBoxLayout) -> QWidget:
    made = QWidget()
    layout.setContentsMargins(0, 0, 0, 0)
    made.setLayout(layout)
    return made
