"""How a macro plays: four pictures to choose from, and a sentence whose values are edited where they stand."""

from __future__ import annotations

import re
from functools import partial
from typing import Any

import msgspec
from PyQt6.QtCore import QRectF, QSize, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import QAbstractButton, QButtonGroup, QHBoxLayout, QVBoxLayout, QWidget

from nakrel import worker_process
from nakrel.core.edit.example import Example, example
from nakrel.core.edit.sketch import Sketch, sketch
from nakrel.core.model.errors import DataError
from nakrel.core.model.limits import MAX_COUNT, MAX_LIMIT_US, MAX_WAIT_US
from nakrel.core.model.macro import MODE_LABELS, Again, LetGo, Macro, Mode, Play, StartOn
from nakrel.core.model.steps import Step
from nakrel.core.model.units import parse_time, shown_ms
from nakrel.ui.background import Background, rest_ms
from nakrel.ui.theme import SMALL_PX, colour, hue
from nakrel.ui.widgets.lettering import width_of, write
from nakrel.ui.widgets.sentence import Figure, OneOf, Sentence
from nakrel.ui.widgets.traces import draw_trace
from nakrel.words import noted, shown_number, tr

__all__ = ["HowItPlays", "PlayPreview"]

_STARTS = ((StartOn.PRESS, tr("press")), (StartOn.RELEASE, tr("release")))
_LETS_GO = ((LetGo.AT_ONCE, tr("ends it at once")), (LetGo.AFTER_RUN, tr("finishes the run")))
_AGAIN = (
    (Again.IGNORE, tr("is ignored")),
    (Again.STOP, tr("stops it")),
    (Again.RESTART, tr("starts it again")),
    (Again.QUEUE, tr("plays it once more afterwards")),
)
# What the four pictures are drawn from: a run of 30 ms, and 20 ms to the next.
_RUN_US, _PAUSE_US = 30_000, 20_000
_PICTURE_PX = 64
_TELLS = {
    Mode.SINGLE: tr("one run for each press"),
    Mode.COUNTED: tr("so many runs for each press"),
    Mode.HELD: tr("runs as long as the button is held"),
    Mode.TOGGLE: tr("runs from one press to the next"),
}


class _Picture(QAbstractButton):
    """One way to play: above the finger, below the runs."""

    def __init__(self, mode: Mode) -> None:
        super().__init__()
        self._mode = mode
        self.setCheckable(True)
        self.setText(tr(MODE_LABELS[mode]))
        self.setAccessibleName(tr("Plays: {value}").format(value=tr(MODE_LABELS[mode])))
        self.setToolTip(_TELLS[mode])
        self.setFixedHeight(_PICTURE_PX)
        self.setMinimumWidth(56)
        play = Play(mode, runs=3, pause_us=0 if mode is Mode.SINGLE else _PAUSE_US)
        self._example = example(_RUN_US * 3 if mode is Mode.SINGLE else _RUN_US, play)

    def sizeHint(self) -> QSize:
        """As wide as its name at least."""
        return QSize(64, _PICTURE_PX)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw the two lines and the name; the chosen one in ink and with a bar of brass."""
        painter, chosen = QPainter(self), self.isChecked()
        area = QRectF(self.rect())
        painter.fillRect(area, colour("field" if chosen else "shade"))
        painter.setPen(colour("ink" if chosen else "line"))
        painter.drawRect(area.adjusted(0, 0, -1, -1))
        if chosen:
            painter.fillRect(QRectF(0, 0, area.width(), 3), colour("brass"))
        if self.hasFocus():
            painter.setPen(colour("brass"))
            painter.drawRect(area.adjusted(2, 5, -3, -3))
        shown, width = self._example, area.width() - 12
        for spans, top, name in ((shown.finger, 12.0, "button"), (shown.runs, 28.0, "key")):
            ink = colour(name if chosen else "soft")
            draw_trace(painter, QRectF(6, top, width, 9), spans, 0, shown.end_us, ink, 1.5 if chosen else 1)
        painter.setPen(colour("ink" if chosen else "soft"))
        text = self.text()
        write(
            painter,
            (area.width() - width_of(text, SMALL_PX, bold=chosen)) / 2,
            area.height() - 12,
            text,
            SMALL_PX,
            bold=chosen,
        )

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """The arrows go to the next picture, as in any group of which one is chosen."""
        steps = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}
        group = self.group()
        if event and event.key() in steps and group:
            buttons = group.buttons()
            there = buttons.index(self) + steps[Qt.Key(event.key())]
            if 0 <= there < len(buttons):
                buttons[there].click()
                buttons[there].setFocus()
        else:
            super().keyPressEvent(event)


class Pictures(QWidget):
    """The four ways to play; Tab lands on the chosen one."""

    chosen = pyqtSignal(object)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName(tr("Plays"))
        group = QButtonGroup(self)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(4)
        self.buttons = {mode: _Picture(mode) for mode in Mode}
        for mode, picture in self.buttons.items():
            group.addButton(picture)
            row.addWidget(picture, 1)
            picture.clicked.connect(partial(self.chosen.emit, mode))

    def set_value(self, mode: Mode) -> None:
        """Show which is chosen."""
        for each, picture in self.buttons.items():
            picture.setChecked(each is mode)
            picture.setFocusPolicy(Qt.FocusPolicy.StrongFocus if each is mode else Qt.FocusPolicy.ClickFocus)


_SENTENCES = {
    Mode.SINGLE: noted("Each {start_on} plays it once; a press meanwhile {again}."),
    Mode.COUNTED: noted("Each {start_on} plays it {runs} times, {pause} apart; a press meanwhile {again}."),
    Mode.HELD: noted("It plays while you hold, {pause} apart; letting go {let_go}."),
    Mode.TOGGLE: noted(
        "A press starts it, the next one stops it; runs are {pause} apart. Runs at most: {limit_runs}. "
        "Time at most: {limit_us}."
    ),
}


class HowItPlays(QWidget):
    """Shows a `Play` and gives out each change of it, with a word for what was changed."""

    changed = pyqtSignal(object, str)

    def __init__(self) -> None:
        super().__init__()
        self._play = Play()
        self.mode = Pictures()
        self.sentence = Sentence()
        self.start_on = OneOf(tr("starts on"), _STARTS)
        self.let_go = OneOf(tr("letting go"), _LETS_GO)
        self.again = OneOf(tr("a press meanwhile"), _AGAIN)
        self.runs = Figure(tr("number of runs"), _read_count, str)
        self.pause = Figure(tr("time between runs"), _read_time, _time)
        self.limit_runs = Figure(tr("runs at most"), _read_limit, lambda runs: str(runs) if runs else tr("no limit"))
        self.limit_us = Figure(tr("time at most"), _read_time_limit, _limit)
        self.sentence.may_say(
            *(self.start_on, self.let_go, self.again, self.runs, self.pause, self.limit_runs, self.limit_us)
        )
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(8)
        layout.addWidget(self.mode)
        layout.addWidget(self.sentence)
        self.mode.chosen.connect(lambda mode: self._set(mode=mode))
        self.start_on.chosen.connect(lambda edge: self._set(start_on=edge))
        self.let_go.chosen.connect(lambda way: self._set(let_go=way))
        self.again.chosen.connect(lambda way: self._set(again=way))
        self.runs.changed.connect(lambda runs: self._set(runs=runs))
        self.pause.changed.connect(lambda us: self._set(pause_us=us))
        self.limit_runs.changed.connect(lambda runs: self._set(limit_runs=runs))
        self.limit_us.changed.connect(lambda us: self._set(limit_us=us))

    def set_play(self, play: Play) -> None:
        """Show this way to play."""
        self._play = play
        self.mode.set_value(play.mode)
        self.start_on.set_value(play.start_on)
        self.let_go.set_value(play.let_go)
        self.again.set_value(play.again)
        self.runs.set_value(play.runs)
        self.pause.set_value(play.pause_us)
        self.limit_runs.set_value(play.limit_runs)
        self.limit_us.set_value(play.limit_us)
        self.sentence.fill(
            tr(_SENTENCES[play.mode]),
            start_on=self.start_on,
            let_go=self.let_go,
            again=self.again,
            runs=self.runs,
            pause=self.pause,
            limit_runs=self.limit_runs,
            limit_us=self.limit_us,
        )

    def _set(self, **values: Any) -> None:
        ((field, value),) = values.items()
        if getattr(self._play, field) != value:
            self._play = msgspec.structs.replace(self._play, **values)
            self.set_play(self._play)
            self.changed.emit(self._play, field.removesuffix("_us").replace("_", " "))


def _time(micros: int) -> str:
    return tr("{time} ms").format(time=shown_ms(micros))


def _limit(micros: int) -> str:
    """The longest that a macro may play, which is some seconds to hours; what is read back is the same."""
    if not micros:
        return tr("no limit")
    if micros % 60_000_000 == 0:
        return tr("{time} min").format(time=micros // 60_000_000)
    return tr("{time} s").format(time=micros // 1_000_000) if micros % 1_000_000 == 0 else _time(micros)


def _read_time(text: str) -> int:
    return parse_time(text, most_us=MAX_WAIT_US)


def _read_count(text: str) -> int:
    # Marks between the figures of a large number are of no account, whatever they are.
    figures = re.sub(r"[\s.,’'\u202f]", "", text)
    if not figures.isdecimal() or not 1 <= int(figures) <= MAX_COUNT:
        raise DataError(
            tr("{value!r} is no number of runs; write 1 to {most}").format(value=text, most=shown_number(MAX_COUNT))
        )
    return int(figures)


def _read_limit(text: str) -> int | None:
    return None if text.casefold() in _NO_LIMIT else _read_count(text)


def _read_time_limit(text: str) -> int | None:
    micros = 0 if text.casefold() in _NO_LIMIT else parse_time(text, most_us=MAX_LIMIT_US)
    return max(micros, 1_000) if micros else None


_NO_LIMIT = ("", "0", tr("no limit").casefold(), tr("none"), tr("no"), tr("never"))


# Longer loops are worked out beside the window, once their edits rest.
_STEPS_AT_ONCE = 300


class PlayPreview(QWidget):
    """This macro's runs on a press, to scale: the finger above, what the macro presses below."""

    def __init__(self) -> None:
        super().__init__()
        self._macro = ""
        self._loop: tuple[Step, ...] = ()
        self._play = Play()
        # None while that of another macro is worked out.
        self._sketch: Sketch | None = Sketch(0)
        self._example: Example | None = None
        self._background = Background(self)
        self._rest = QTimer(self)
        self._rest.setSingleShot(True)
        self._rest.timeout.connect(self._work_out)
        self.setAccessibleName(tr("Preview"))
        self._lay_out()

    def show_macro(self, macro: Macro | None, play: Play) -> None:
        """Draw this macro, played like this."""
        before, played, drawn = self._macro, self._play, self._loop
        self._macro, self._play, self._loop = (macro.id, play, macro.loop) if macro else ("", play, ())
        if self._loop is not drawn:
            self._background.cancel()
            if len(loop := self._loop) > _STEPS_AT_ONCE:
                if self._macro != before:
                    self._sketch = None
                    self._lay_out()
                self._rest.start(rest_ms(len(loop)))
            else:
                self._rest.stop()
                self._show(sketch(loop))
        if play != played:
            self._lay_out()

    def _work_out(self) -> None:
        job = worker_process.SketchLoop(self._loop)
        self._background.ask(job, Sketch, self._show)

    def _show(self, found: Sketch) -> None:
        self._sketch = found
        self._lay_out()

    def _lay_out(self) -> None:
        made = self._sketch
        self._example = example(made.loop_us, self._play) if made and made.loop_us else None
        # What is to come has the height of most.
        traces = len(made.traces) if made else 1
        self.setFixedHeight(20 if made and not self._example else 20 * (1 + max(1, traces)) + 18)
        self.setAccessibleDescription(
            tr("{time} ms in all").format(time=round(self._example.end_us / 1000)) if self._example else ""
        )
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw the finger's trace, those of the macro, and a ruler."""
        painter, shown = QPainter(self), self._example
        painter.setPen(colour("soft"))
        if self._sketch is None:
            return
        if shown is None:
            write(painter, 0, 10, tr("No step that takes time yet."), SMALL_PX)
            return
        left = 62.0
        width = self.width() - left - 1
        write(painter, 0, 11, tr("your finger"), SMALL_PX)
        draw_trace(painter, QRectF(left, 5, width, 12), shown.finger, 0, shown.end_us, colour("button"), 1.3)
        painter.setPen(colour("soft"))
        write(painter, 0, 31, tr("runs") + " …" * shown.more, SMALL_PX)
        for n, (code, spans) in enumerate(self._sketch.traces or [("", ())]):
            played = [
                (start + a, min(start + b, end)) for start, end in shown.runs for a, b in spans if start + a < end
            ]
            area = QRectF(left, 25 + 20 * n, width, 12)
            draw_trace(painter, area, played, 0, shown.end_us, hue(code), 1.3)
        painter.setPen(colour("soft"))
        text = tr("{time} ms").format(time=round(shown.end_us / 1000))
        write(painter, left, self.height() - 8, "0", SMALL_PX)
        write(painter, self.width() - width_of(text, SMALL_PX), self.height() - 8, text, SMALL_PX)
