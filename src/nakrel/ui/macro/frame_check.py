"""The frame check: what a game sees of the macro, and the fastest timing that it can't miss."""

from __future__ import annotations

import re
from functools import partial

from PyQt6.QtCore import Qt, QTimer, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from nakrel import worker_process
from nakrel.core.analysis.frame_answer import JITTER_US, FrameAnswer, WorstPress, format_seen
from nakrel.core.analysis.seen import IN_ORDER, Game, low_of_spread, spread_of_low
from nakrel.core.edit.safe import make_safe
from nakrel.core.model.controls import label as control_label
from nakrel.core.model.errors import DataError, LimitError
from nakrel.core.model.macro import Macro
from nakrel.core.model.units import FRAME_RATES, parse_time, shown_ms
from nakrel.ui import commands
from nakrel.ui.background import Background, rest_ms
from nakrel.ui.macro.frame_plot import FramePlot
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import Segments, button, label, refilling, searchable
from nakrel.ui.widgets.pending import Pending
from nakrel.ui.widgets.sentence import Figure, OneOf, Sentence
from nakrel.words import plain, tr

__all__ = ["FrameCheck"]

_LEAST_FPS, _MOST_FPS = 10, 1_000
_LEAST_LOW = 5
_MOST_SPREAD_US = 50_000
# Ticks a second of a game's server. Common practice, no published source.
TICKS = (20.0, 30.0, 64.0, 128.0)
_MOST_WORST = 3


def _read_spread(text: str) -> int:
    return parse_time(text, most_us=_MOST_SPREAD_US)


def _read_low(text: str) -> float:
    found = re.search(r"\d+(\.\d+)?", text)
    if not found or not _LEAST_LOW <= float(found.group()) <= _MOST_FPS:
        raise DataError(
            tr("a 1 % low rate is a number of frames a second from {least} to {most}").format(
                least=_LEAST_LOW, most=_MOST_FPS
            )
        )
    return float(found.group())


class FrameCheck(QWidget):
    """Answers two questions: how many of my presses does a game at F frames see? What is the fastest safe timing?

    It is worked out beside the window; what has been asked meanwhile is worked out anew. `show_row` asks for a step to
    be shown; `worst_changed` has the rows of the worst presses with their chance to be seen.
    """

    show_row = pyqtSignal(int)
    worst_changed = pyqtSignal(dict)

    def __init__(self, store: Store, shown: Shown) -> None:
        super().__init__()
        self._store, self._shown = store, shown
        self._macro: Macro | None = None
        self._least_us: int | None = None
        self._worst: tuple[WorstPress, ...] = ()
        self._background = Background(self)
        self._measured_us: float | None = None
        self.rate = searchable(tr("Frames a second"))
        for fps in FRAME_RATES:
            self.rate.addItem(tr("{fps} frames/s").format(fps=fps), fps)
        self.rate.addItem(tr("events, no frames"), IN_ORDER)
        self.rate.setCurrentIndex(FRAME_RATES.index(60))
        self.against = Segments((("rate", tr("frame rate")), ("hold", tr("hold"))), tr("Presses seen against"))
        self.against.set_value("rate")
        self._against = "rate"
        self.plot = FramePlot()
        self.pending = Pending()
        self.pending.late.connect(self._late)
        self.answer, self.advice = label("", "", wrap=True), label("", "soft", wrap=True)
        # One standard deviation, in microseconds.
        self._spread_us = 0
        self.spread = Figure(
            tr("how much frame times vary"), _read_spread, lambda us: tr("{time} ms").format(time=shown_ms(us))
        )
        self.low = Figure(tr("1 % low frame rate"), _read_low, lambda fps: f"{fps:.0f}")
        # How often a server looks at what the game has seen, 0 for none.
        self._tick = 0.0
        self.tick = OneOf(
            tr("server ticks"),
            [
                (0.0, tr("has no ticks")),
                *((each, tr("ticks {each} times a second").format(each=plain(each))) for each in TICKS),
            ],
        )
        self.jitter = Sentence()
        self.jitter.may_say(self.spread, self.low, self.tick)
        self.order = label("", "", wrap=True)
        self.worst = QVBoxLayout()
        self.use_button = button(tr("Use it"), self._use, "act")
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self.refresh)
        self.rate.currentIndexChanged.connect(lambda index: self._rate_chosen())
        self.against.chosen.connect(self._against_chosen)
        shown.frames_changed.connect(self._frames_changed)
        if line := self.rate.lineEdit():
            line.editingFinished.connect(self._rate_typed)
        self.spread.changed.connect(self._spread_changed)
        self.low.changed.connect(lambda fps: self._spread_changed(round(spread_of_low(self.rate.currentData(), fps))))
        self.tick.chosen.connect(self._tick_chosen)
        self._build()

    def _build(self) -> None:
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(6)
        # What to do about it stands where it is seen without scrolling.
        layout.addWidget(self.answer)
        layout.addWidget(self.advice)
        layout.addWidget(self.use_button, 0, Qt.AlignmentFlag.AlignLeft)
        layout.addLayout(self.worst)
        layout.addWidget(self.order)
        for part in (self.against, self.plot, self.jitter, self.pending):
            layout.addWidget(part)
        layout.addStretch(1)

    def _rate_chosen(self) -> None:
        if fps := self.rate.currentData():
            self._shown.set_frames(fps)
        self.refresh()

    def _rate_typed(self) -> None:
        """Take a rate that isn't in the list, too."""
        text = self.rate.currentText()
        if self.rate.findText(text, Qt.MatchFlag.MatchFixedString) >= 0:
            return
        found = re.search(r"\d+", text)
        if found and _LEAST_FPS <= int(found.group()) <= _MOST_FPS:
            self._choose_rate(int(found.group()))
        else:
            self._store.fault.emit(
                tr("A frame rate is a number from {least} to {most}.").format(least=_LEAST_FPS, most=_MOST_FPS)
            )
            self.rate.setEditText(self.rate.itemText(self.rate.currentIndex()))

    def _choose_rate(self, fps: int) -> None:
        if self.rate.findData(fps) < 0:
            rates = [self.rate.itemData(n) for n in range(self.rate.count() - 1)]
            self.rate.insertItem(sum(rate < fps for rate in rates), tr("{fps} frames/s").format(fps=fps), fps)
        self.rate.setCurrentIndex(self.rate.findData(fps))

    def _spread_changed(self, us: int) -> None:
        self._spread_us = us
        self.refresh()

    def _tick_chosen(self, tick: float) -> None:
        self._tick = tick
        self.refresh()

    def _frames_changed(self) -> None:
        self._choose_rate(self._shown.frames)
        self.refresh()

    def _against_chosen(self, against: str) -> None:
        self._against = against
        self.refresh()

    def set_macro(self, macro: Macro | None) -> None:
        """Look at this macro, once edits rest."""
        if macro is not self._macro:
            edited = (macro and macro.id) == (self._macro and self._macro.id)
            if not edited:
                # What stands below stays there until it is known how much room the answer takes.
                self.setMinimumHeight(self.height() if self.isVisible() else 0)
                # What was suggested for another one must not be done to this one.
                self._show_worst(())
                self.use_button.setEnabled(False)
            self._macro = macro
            self._background.cancel()
            self._begin_later(edited=edited)

    def set_jitter(self, spread_us: float | None) -> None:
        """Go by the timing that a run showed: its standard deviation in microseconds; None for the usual."""
        if spread_us != self._measured_us:
            self._measured_us = spread_us
            self._begin_later()

    @property
    def jitter_us(self) -> float:
        """The timing's jitter that is reckoned with, in microseconds."""
        return JITTER_US if self._measured_us is None else self._measured_us

    @property
    def game(self) -> Game:
        """The game that is thought of."""
        return Game(float(self.rate.currentData()), self.jitter_us, self._spread_us, self._tick)

    def refresh(self) -> None:
        """Work it out anew."""
        self.pending.expect(self._of())
        job = worker_process.CheckFrames(self._macro, self.game, self._against)
        self._background.ask(job, FrameAnswer, self._show_answer)

    def show_names(self) -> None:
        """Keys are called otherwise than before."""
        self._show_worst(())
        self._begin_later()

    def _begin_later(self, *, edited: bool = True) -> None:
        rest = rest_ms(self._shown.line.size if edited else 0)
        self.pending.expect(self._of(), rest)
        self._timer.start(rest)

    def _of(self) -> str:
        return self._macro.id if self._macro else ""

    def _late(self, of_another: bool) -> None:
        for part in (self.answer, self.advice, self.order, self.use_button):
            part.setEnabled(False)
        if of_another:
            self._show_parts(FrameAnswer(""))

    def _show_answer(self, result: FrameAnswer) -> None:
        self.pending.answered()
        for part in (self.answer, self.advice, self.order, self.use_button):
            part.setEnabled(True)
        self._show_parts(result)
        self.setMinimumHeight(0)

    def _show_parts(self, result: FrameAnswer) -> None:
        self._least_us = result.least_us
        self.plot.show_result(result)
        self.plot.setAccessibleName(
            tr("Presses seen, by frame rate") if result.against == "rate" else tr("Presses seen, by hold")
        )
        self.plot.update()
        self.answer.setText(result.answer)
        self.advice.setText(result.advice)
        self.order.setText(result.order)
        if result.points:
            self._show_game()
        self._show_worst(result.worst)
        for part in (self.plot, self.against, self.jitter):
            part.setVisible(bool(result.points))
        self.answer.setVisible(bool(result.answer))
        self.advice.setVisible(bool(result.advice))
        self.order.setVisible(bool(result.order))
        self.use_button.setVisible(result.least_us is not None)

    def _show_game(self) -> None:
        game = self.game
        self.spread.set_value(self._spread_us)
        self.low.set_value(low_of_spread(game.fps or 60, game.spread_us))
        self.tick.set_value(self._tick)
        if self._measured_us is None:
            error = tr("The macro's timing varies by {time} ms, as is typical.")
        else:
            error = tr("The macro's timing varies by {time} ms, as the last run showed.")
        error = error.format(time=shown_ms(round(self.jitter_us)))
        frames = tr("Its frame times vary by {spread}, 1 % low {low}; its server {tick}.")
        self.jitter.fill(f"{frames} {error}", spread=self.spread, low=self.low, tick=self.tick)
        told = frames.format(spread=self.spread.shown.text(), low=self.low.shown.text(), tick=self.tick.text())
        self.jitter.setAccessibleName(f"{told} {error}")

    def _show_worst(self, worst: tuple[WorstPress, ...]) -> None:
        if worst == self._worst:
            return
        self._worst = worst
        with refilling(self.worst):
            for each in worst[:_MOST_WORST]:
                line = QHBoxLayout()
                text = tr("Worst of {button}: step {step}, {seen}").format(
                    button=control_label(each.control), step=each.step, seen=format_seen(each.seen)
                )
                line.addWidget(label(text, "", wrap=True), 1)
                show = button(tr("Show"), partial(self.show_row.emit, each.row), "link", tr("Select the step"))
                line.addWidget(show, 0, Qt.AlignmentFlag.AlignTop)
                self.worst.addLayout(line)
            if len(worst) > _MOST_WORST:
                self.worst.addWidget(label(tr("and {value} more").format(value=len(worst) - _MOST_WORST), "soft"))
        self.worst_changed.emit({each.row: each.seen for each in worst})

    def _use(self) -> None:
        if self._macro is None or self._least_us is None:
            return
        try:
            safe = make_safe(self._macro, self._least_us)
        except LimitError as error:
            self._store.fault.emit(str(error))
            return
        commands.edit_macro(self._store, tr("timing of {name} for its game").format(name=safe.name), safe)
