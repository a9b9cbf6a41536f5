"""Tune: find the shortest time that works in a game, by trying it there."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial

import msgspec
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from nakrel.core.edit.tuned import can_be_tuned, target_words
from nakrel.core.model.cells import RunMacro
from nakrel.core.model.controls import label as control_label
from nakrel.core.model.errors import DataError
from nakrel.core.model.tuning import Question, Target, Tuning
from nakrel.core.model.units import parse_time, shown_ms
from nakrel.ui.macro.tuning_plot import TuningPlot
from nakrel.ui.macro.tuning_session import TuningSession
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, clear_layout, label
from nakrel.ui.widgets.capture import Capture
from nakrel.ui.widgets.sentence import Figure, OneOf, Sentence, value_button
from nakrel.words import sentence, tr

__all__ = ["Tune"]

# A button: its text, what it does, its look.
Action = tuple[str, Callable[[], object], str]

_SURE = ((0.9, tr("90 of 100 times")), (0.95, tr("95 of 100 times")), (0.99, tr("99 of 100 times")))
_TARGETS = ((Target.STEP, tr("the selected step")), (Target.WAITS, tr("all waits")))


def _read_trials(text: str) -> int:
    if not text.strip().isdigit():
        raise DataError(tr("how many trials are made at most is a whole number, such as 40"))
    return int(text)


class Tune(QWidget):
    """What is asked, the trials with their picture, and what comes of it."""

    def __init__(self, store: Store, shown: Shown, selected: Callable[[], list[int]]) -> None:
        super().__init__()
        self._store, self._shown, self._selected = store, shown, selected
        self.session = TuningSession(store, shown)
        # What is asked the next time.
        self.wanted = Tuning()
        self.target = OneOf(tr("what is tuned"), _TARGETS)
        time = lambda us: tr("{time} ms").format(time=shown_ms(us))  # noqa: E731
        self.least, self.most = (
            Figure(tr("shortest time"), parse_time, time),
            Figure(tr("longest time"), parse_time, time),
        )
        self.sure = OneOf(tr("how sure it must be"), _SURE)
        self.trials = Figure(tr("trials at most"), _read_trials, str)
        self._judges = [
            value_button(tr("the button that says it worked")),
            value_button(tr("the button that says it didn't")),
        ]
        self.capture = Capture(store, tr("Press the button that says it…"))
        self._judging = ""
        self.sentence = Sentence()
        self.sentence.may_say(self.target, self.least, self.most, self.sure, self.trials, *self._judges)
        self.plot, self.text = TuningPlot(), label("", "", wrap=True)
        self.buttons: dict[str, QPushButton] = {}
        self._lines = QVBoxLayout()
        self._state, self._possible = "", False
        self._build()
        self.session.changed.connect(self.refresh)
        shown.profile_changed.connect(self.refresh)
        store.profile_changed.connect(lambda key: self.refresh())
        store.macro_changed.connect(self._edited)
        self.refresh()

    def _build(self) -> None:
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(6)
        for part in (self.sentence, self.capture, self.text, self.plot):
            layout.addWidget(part)
        self._lines.setSpacing(6)
        layout.addLayout(self._lines)
        self.target.chosen.connect(lambda target: self._want(target=target))
        self.sure.chosen.connect(lambda sure: self._ask(sure=sure))
        self.least.changed.connect(lambda us: self._ask(least_us=us))
        self.most.changed.connect(lambda us: self._ask(most_us=us))
        self.trials.changed.connect(lambda most: self._ask(most_trials=most))
        for each, which in zip(self._judges, ("worked", "failed"), strict=True):
            each.clicked.connect(partial(self._choose_judge, which))
        self.capture.captured.connect(self._judge_chosen)

    # What is asked

    def _want(self, **values: object) -> None:
        try:
            self.wanted = msgspec.structs.replace(self.wanted, **values)
        except DataError as error:
            self._store.fault.emit(str(error))
        self.refresh()

    def _ask(self, **values: object) -> None:
        try:
            question: Question = msgspec.structs.replace(self.wanted.question, **values)
        except DataError as error:
            self._store.fault.emit(str(error))
            self.refresh()
            return
        self._want(question=question)

    def _choose_judge(self, which: str) -> None:
        self._judging = which
        self.capture.arm()

    def _judge_chosen(self, control: str) -> None:
        self._want(**{self._judging: control})

    def start(self) -> None:
        """Begin to search."""
        rows = self._selected()
        if self.wanted.target is Target.STEP and not rows:
            self._store.fault.emit(
                tr("Select the step first whose time is to be found: a wait, a tap or a combination.")
            )
            return
        try:
            self.session.begin(msgspec.structs.replace(self.wanted, row=rows[0] if rows else 0, trials=()))
        except DataError as error:
            self._store.fault.emit(str(error))

    # What is shown

    def refresh(self) -> None:
        """Show how the search stands."""
        session = self.session
        here = session.macro is not None and self._shown.macro is not None and session.macro.id == self._shown.macro.id
        searched = here and session.tuning is not None and session.found is not None
        self._possible = self._can_be_tuned()
        self.plot.setVisible(searched)
        self.sentence.setVisible(self._possible and not searched and not session.on)
        if searched:
            self.plot.show_search(session.tuning, session.found)
            self._show_search()
        elif session.on and session.macro:
            self._show(
                "tuned elsewhere",
                tr("{name} is tuned now.").format(name=session.macro.name),
                (((tr("Leave"), session.leave, ""),),),
            )
        elif not self._possible:
            self._show(
                "nothing",
                tr("Tuning finds the shortest wait or hold that works in a game. This macro has no fixed one yet."),
                (),
            )
        else:
            self._say_question()
            self._show("idle", "", (((tr("Start"), self.start, "act"),),))

    def _can_be_tuned(self) -> bool:
        return self._shown.macro is not None and can_be_tuned(self._shown.macro)

    def _edited(self, key: str) -> None:
        """An edit of the macro that is shown may have taken the time away that is looked for, or given it one."""
        shown = self._shown.macro
        if shown and shown.id == key and (self.session.tuning or self._possible != self._can_be_tuned()):
            self.refresh()

    def _say_question(self) -> None:
        wanted, question = self.wanted, self.wanted.question
        self.target.set_value(wanted.target)
        self.least.set_value(question.least_us)
        self.most.set_value(question.most_us)
        self.sure.set_value(question.sure)
        self.trials.set_value(question.most_trials)
        for each, control, name in zip(
            self._judges,
            (wanted.worked, wanted.failed),
            (tr("says that it worked"), tr("says that it didn't")),
            strict=True,
        ):
            each.setText(control_label(control))
            each.setAccessibleName(f"{control_label(control)} {name}")
        yes, no = self._judges
        self.sentence.fill(
            tr(
                "Find the shortest time of {target} from {least} to {most} that works {sure}. In the game, {yes} says "
                "that it worked, {no} that it didn't; {trials} trials at most."
            ),
            target=self.target,
            least=self.least,
            most=self.most,
            sure=self.sure,
            yes=yes,
            no=no,
            trials=self.trials,
        )

    def _show_search(self) -> None:
        session = self.session
        tuning, found, macro = session.tuning, session.found, session.macro
        assert tuning is not None
        assert found is not None
        assert macro is not None
        count = len(tuning.trials)
        try:
            what = target_words(macro, tuning)
        except DataError as error:
            self._show("gone", sentence(str(error)), (((tr("Start over"), session.forget, ""),),))
            return
        lies = tr("The shortest time that works lies between {time} and {time2} ms (90 % sure).").format(
            time=shown_ms(found.low_us), time2=shown_ms(found.high_us)
        )
        if session.on:
            yes, no = control_label(tuning.worked), control_label(tuning.failed)
            now = tr("Trial {value}: {time} ms for {what}.").format(
                value=count + 1, time=shown_ms(found.next_us), what=what
            )
            todo = (
                tr("{yes} if it worked, {no} if it didn't.").format(yes=yes, no=no)
                if session.played
                else tr("Play it in the game; then press {yes} if it worked, {no} if it didn't.").format(yes=yes, no=no)
            )
            text = f"{now} {todo} {lies if count else ''}"
            lines: list[list[Action]] = []
            if session.played:
                worked: Action = tr("It worked"), partial(session.judge, True), "act"
                lines.append([worked, (tr("It didn't"), partial(session.judge, False), "")])
            lines.append([(tr("Take the last back"), session.take_back, "link")] if count else [])
            lines[-1].append((tr("Leave"), session.leave, "link"))
            self._show(f"on {session.played} {bool(count)}", text, lines)
            return
        use = tr("Use {time} ms").format(time=shown_ms(found.high_us))
        lines = []
        # What wasn't reached works for nobody.
        if found.reached and count:
            lines.append([(use, session.use, "act")])
        profile = self._shown.profile
        plays = profile and any(isinstance(cell, RunMacro) and cell.macro == macro.id for *_, cell in profile.cells())
        if lines and profile and plays:
            lines.append(
                [(tr("Use it in {name} alone").format(name=profile.name), partial(session.use_in, profile), "link")]
            )
        if not session.done:
            lines.append([(tr("Go on"), partial(session.begin, tuning), "")])
        lines.append([(tr("Start over"), session.forget, "link")])
        state = f"left {use} {profile and profile.id} {len(lines)}"
        self._show(state, f"{what[0].upper()}{what[1:]}: {session.result}. {lies}", lines)

    def _show(self, state: str, text: str, lines: Sequence[Sequence[Action]]) -> None:
        """Show a text and lines of buttons; while these are the same they stay, so that none goes from under the
        pointer."""
        self.text.setText(text)
        self.text.setVisible(bool(text))
        if state == self._state:
            return
        self._state = state
        clear_layout(self._lines)
        self.buttons = {}
        for actions in lines:
            line = QHBoxLayout()
            self._lines.addLayout(line)
            for name, does, style in actions:
                self.buttons[name] = button(name, does, style)
                line.addWidget(self.buttons[name])
            if all(style == "link" for *_, style in actions):
                line.addStretch(1)
