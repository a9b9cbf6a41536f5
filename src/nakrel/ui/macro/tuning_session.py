"""A search for the shortest time that works, as it goes on: what is on trial, what came out, what is known."""

from __future__ import annotations

import time

import msgspec
from PyQt6.QtCore import QObject, pyqtSignal

from nakrel import protocol as m
from nakrel import worker_process
from nakrel.core.analysis.trials import Found, is_done
from nakrel.core.edit.tuned import with_time
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import Profile
from nakrel.core.model.tuning import Trial, Tuning
from nakrel.core.model.units import shown_ms
from nakrel.ui import commands
from nakrel.ui.background import Background
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.words import counted, plain, tr

__all__ = ["TuningSession"]


class TuningSession(QObject):
    """The search of the macro that is shown, kept by the service with every trial. While it is `on`, the service plays
    the macro with the time on trial, whatever else the window shows.

    A trial counts once the macro has played with its time, and is judged by one of two buttons, by a game that says it,
    or in the window.
    """

    changed = pyqtSignal()

    def __init__(self, store: Store, shown: Shown) -> None:
        super().__init__()
        self._store, self._shown = store, shown
        self._background = Background(self)
        self._macro = ""
        self.tuning: Tuning | None = None
        self.found: Found | None = None
        self.on = False
        # Whether the macro has played with the time on trial, and so can be judged.
        self.played = False
        # Since when the service plays it with that time, in monotonic microseconds; None while it doesn't yet.
        self.ready_us: int | None = None
        shown.macro_changed.connect(self.look)
        store.library_changed.connect(self._look_again)
        store.macro_changed.connect(self._edited)
        store.seen.connect(self._see)
        store.judged.connect(self._hear)
        store.gone.connect(self._gone)
        # The page is made when it is first shown, and a macro is shown by then.
        self.look()

    @property
    def macro(self) -> Macro | None:
        """The macro that is tuned, as it is saved."""
        return self._store.macros.get(self._macro)

    @property
    def done(self) -> bool:
        """Whether enough is known."""
        return bool(self.tuning and self.found) and is_done(self.tuning.question, len(self.tuning.trials), self.found)  # type: ignore[union-attr, arg-type]

    # Which macro

    def look(self) -> None:
        """Fetch the search of the macro that is shown; one that is on goes on, with its own macro."""
        macro = self._shown.macro
        if self.on or (macro.id if macro else "") == self._macro:
            self.changed.emit()
            return
        self._look_at(macro.id if macro else "")

    def _look_again(self) -> None:
        if not self.on:
            self._look_at(self._shown.macro.id if self._shown.macro else "")

    def _look_at(self, key: str) -> None:
        self._background.cancel()
        self._macro, self.tuning, self.found, self.played = key, None, None, False
        self.changed.emit()
        if not key:
            return

        def fetched(answer: m.AnswerBody) -> None:
            if key == self._macro and not self.on and isinstance(answer, m.TuningIs) and answer.tuning:
                self.tuning = answer.tuning
                self._work_out()

        self._store.ask(m.GetTuning(key), fetched)

    def _edited(self, key: str) -> None:
        if key == self._macro and self.on and self.macro is None:
            self._end(tr("its macro was deleted"))
            self.look()

    def _gone(self) -> None:
        """The service has ended, and the trial with it; what was tried is kept."""
        if self.on:
            self.on = self.played = False
            self.changed.emit()

    # How it goes

    def begin(self, tuning: Tuning) -> None:
        """Search from now on, for the macro that is shown. Raises `DataError` where it has no such time."""
        macro = self._shown.macro
        if macro is None:
            return
        with_time(macro, tuning, tuning.question.least_us)
        self._macro, self.tuning, self.on = macro.id, tuning, True
        self._keep()
        self._work_out()

    def leave(self) -> None:
        """Stop here; it can be taken up again."""
        self._end("left")
        self.look()

    def forget(self) -> None:
        """Take the search away."""
        self._end("left")
        self.tuning = self.found = None
        self._store.ask(m.PutTuning(self._macro, None))
        self.changed.emit()

    def judge(self, worked: bool) -> None:
        """The time on trial worked, or didn't."""
        if not (self.on and self.played and self.tuning and self.found):
            return
        self.played, self.ready_us = False, None
        trials = (*self.tuning.trials, Trial(self.found.next_us, worked))
        self.tuning = msgspec.structs.replace(self.tuning, trials=trials)
        self._keep()
        self._work_out()

    def take_back(self) -> None:
        """The last trial was judged wrongly."""
        if self.tuning and self.tuning.trials:
            self.tuning = msgspec.structs.replace(self.tuning, trials=self.tuning.trials[:-1])
            self.played, self.ready_us = False, None
            self._keep()
            self._work_out()

    def _keep(self) -> None:
        self._store.ask(m.PutTuning(self._macro, self.tuning), self._refused)

    def _work_out(self) -> None:
        assert self.tuning
        job = worker_process.WorkOutTrials(self.tuning.question, self.tuning.trials)
        self._background.ask(job, Found, self._worked_out)

    def _worked_out(self, found: Found) -> None:
        self.found = found
        if self.on and self.done:
            self._end(self.result)
        elif self.on:
            self._try(found.next_us)
        self.changed.emit()

    def _try(self, time_us: int) -> None:
        """Have the macro played with this time."""
        macro, tuning = self.macro, self.tuning
        if macro is None or tuning is None:
            return
        try:
            tried = with_time(macro, tuning, time_us)
        except DataError as error:
            self._end(str(error))
            self._store.fault.emit(str(error))
            return
        self.ready_us = None
        self._store.ask(m.TryMacro(tried, (tuning.worked, tuning.failed)), self._in_effect)

    def _in_effect(self, answer: m.AnswerBody) -> None:
        self._refused(answer)
        if self.on:
            self.ready_us = time.monotonic_ns() // 1_000

    def _refused(self, answer: m.AnswerBody) -> None:
        if isinstance(answer, m.Refused):
            self._end(answer.error)
            self._store.fault.emit(answer.error)

    def _end(self, result: str) -> None:
        if self.on:
            self.on = self.played = False
            self._store.ask(m.EndTrial(result))
            self.changed.emit()

    @property
    def result(self) -> str:
        """What was found, in words."""
        tuning, found = self.tuning, self.found
        if tuning is None or found is None:
            return ""
        count = counted(len(tuning.trials), "{n} trial", "{n} trials")
        share = tr("{value} of 100 times").format(value=plain(tuning.question.sure * 100))
        if not found.reached:
            return tr("no time up to {time} ms is sure to work {share}; {count}").format(
                time=shown_ms(tuning.question.most_us), share=share, count=count
            )
        works = (
            tr("{time} ms works {share}").format(time=shown_ms(found.high_us), share=share)
            if self.done
            else tr("so far {time} ms").format(time=shown_ms(found.high_us))
        )
        return f"{works}; {count}"

    # What is heard

    def _see(self, seen: m.Seen) -> None:
        if not self.on or self.tuning is None:
            return
        for event in seen.events:
            on_trial = self.ready_us is not None and event.at_us >= self.ready_us
            if event.by == self._macro and event.value and on_trial and not self.played:
                self.played = True
                self.changed.emit()
            elif event.by == "in" and event.value and event.control in (self.tuning.worked, self.tuning.failed):
                self.judge(event.control == self.tuning.worked)

    def _hear(self, worked: bool) -> None:
        self.judge(worked)

    # What comes of it

    def tuned(self) -> Macro | None:
        """The macro with the time that is suggested."""
        if self.macro is None or self.tuning is None or self.found is None:
            return None
        try:
            return with_time(self.macro, self.tuning, self.found.high_us)
        except DataError as error:
            self._store.fault.emit(str(error))
            return None

    def use(self) -> None:
        """Give the macro the time that is suggested."""
        if macro := self.tuned():
            commands.edit_macro(self._store, tr("tuned time of {name}").format(name=macro.name), macro)

    def use_in(self, profile: Profile) -> None:
        """Give it to a copy that this profile plays, and leave the macro as it is for all others."""
        if macro := self.tuned():
            commands.give_own(self._store, profile, macro)
