"""The live strip: the last seconds of what came in and went out, what is live, what runs, and Stop everything."""

from __future__ import annotations

import time
from collections import deque
from collections.abc import Sequence
from functools import partial
from typing import NamedTuple

from PyQt6.QtCore import QRectF, Qt, QTimer
from PyQt6.QtGui import QColor, QPainter, QPaintEvent
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from nakrel import protocol as m
from nakrel.core.model.controls import OTHERS
from nakrel.core.model.controls import label as control_label
from nakrel.ui.store import Store, live_name
from nakrel.ui.theme import SMALL_PX, font, hue, palette
from nakrel.ui.widgets.basics import button, label
from nakrel.ui.widgets.elided import Elided, ElidedButton
from nakrel.ui.widgets.frames import Frames
from nakrel.ui.widgets.lettering import fitted, write
from nakrel.ui.widgets.shield import keep_open
from nakrel.ui.widgets.traces import draw_trace
from nakrel.words import counted, noted, plain, tr

__all__ = ["LiveStrip"]

SPAN_US = 3_000_000
_FRAME_MS = 40
_MOST_RUNS = 2
# How often it is asked how far counted macros are.
_PROGRESS_MS = 300
# Room for the names, how many lines there are, and the height of each.
_GUTTER, _LANE_PX, _LINES, _LINE_PX = 124, 28, 5, 13
# What the lanes are called: what fingers press, and what macros do.
_LANES = (noted("in", "lane"), noted("out", "lane"))
# A wheel notch, a move of the pointer, and the beginning of a text have no length; each is drawn this long.
_NOTCH_US = 20_000


class _Span(NamedTuple):
    control: str
    down_us: int
    up_us: int | None


class _Lane:
    """One direction's events as spans."""

    def __init__(self) -> None:
        self.spans: deque[_Span] = deque()

    def add(self, event: m.SeenEvent) -> None:
        if event.control.startswith("WHEEL") or event.control in OTHERS:
            self.spans.append(_Span(event.control, event.at_us, event.at_us + _NOTCH_US))
        elif event.value:
            self.spans.append(_Span(event.control, event.at_us, None))
        else:
            self._close(event)

    def _close(self, event: m.SeenEvent) -> None:
        for n in range(len(self.spans) - 1, -1, -1):
            span = self.spans[n]
            if span.control == event.control and span.up_us is None:
                self.spans[n] = _Span(span.control, span.down_us, event.at_us)
                return

    def forget(self, before_us: int) -> None:
        if any(span.up_us is not None and span.up_us < before_us for span in self.spans):
            self.spans = deque(span for span in self.spans if span.up_us is None or span.up_us >= before_us)


class _Line(NamedTuple):
    """A trace of its own: a control's, coming in or going out."""

    lane: str
    control: str


class _Traces(QWidget):
    """The newest few controls of both lanes, a line each with its name in a column of their own. A line keeps its place
    while there is something on it; it moves only while there is something to see."""

    def __init__(self) -> None:
        super().__init__()
        self.lanes = {name: _Lane() for name in _LANES}
        # What each line shows, and when something last happened there.
        self.lines: list[_Line | None] = [None] * _LINES
        self._last_us = [0] * _LINES
        self._frames = Frames(self, _FRAME_MS)
        self._frames.timeout.connect(self._tick)
        self.setAccessibleName(tr("The last three seconds, in and out"))
        self.setMinimumWidth(240)

    def add(self, notice: m.Seen) -> None:
        for event in notice.events:
            lane = "in" if event.by == "in" else "out"
            self.lanes[lane].add(event)
            self._give_line(_Line(lane, event.control), event.at_us)
        if not self._frames.isActive():
            self._frames.start()
            self.update()
        elif self._frames.in_front:
            self.update()

    def _give_line(self, line: _Line, at_us: int) -> None:
        """Give it a free line, or that on which nothing has happened for the longest."""
        if line in self.lines:
            number = self.lines.index(line)
        elif None in self.lines:
            number = self.lines.index(None)
        else:
            number = min(range(_LINES), key=lambda n: (self._down(self.lines[n]), self._last_us[n]))
        self.lines[number] = line
        self._last_us[number] = at_us
        self._speak()

    def _speak(self) -> None:
        """Tell screen readers which lines there are, when those change."""
        told = "; ".join(f"{tr(line.lane, 'lane')}: {control_label(line.control)}" for line in self.lines if line)
        if told != self.accessibleDescription():
            self.setAccessibleDescription(told)

    def _down(self, line: _Line | None) -> bool:
        """Whether the control is down now: that isn't taken away."""
        lane = self.lanes[line.lane] if line else None
        return lane is not None and any(s.control == line.control and s.up_us is None for s in lane.spans if line)

    def _tick(self) -> None:
        before = time.monotonic_ns() // 1_000 - SPAN_US
        for lane in self.lanes.values():
            lane.forget(before)
        for number, line in enumerate(self.lines):
            if line and not any(span.control == line.control for span in self.lanes[line.lane].spans):
                self.lines[number] = None
        if not any(lane.spans for lane in self.lanes.values()):
            self._frames.stop()
        if self.isVisible():
            self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter, p = QPainter(self), palette()
        now = time.monotonic_ns() // 1_000
        painter.setFont(font(SMALL_PX))
        field = QRectF(_GUTTER, 1, self.width() - _GUTTER - 6, _LINES * _LINE_PX)
        painter.setPen(QColor(p.line))
        for number in range(_LINES):
            low = int(field.top() + (number + 1) * _LINE_PX) - 2
            painter.drawLine(int(field.left()), low, int(field.right()), low)
        for number, line in enumerate(self.lines):
            if line:
                place = QRectF(field.left(), field.top() + number * _LINE_PX, field.width(), _LINE_PX)
                self._line(painter, place, line, now, self._last_us[number])
        painter.setPen(QColor(p.soft))
        foot = QRectF(_GUTTER, self.height() - 14, field.width(), 14)
        for text, flag in (
            ("−3 s", Qt.AlignmentFlag.AlignLeft),
            (f"−{plain(1.5)}", Qt.AlignmentFlag.AlignHCenter),
            (tr("now"), Qt.AlignmentFlag.AlignRight),
        ):
            painter.drawText(foot, flag, text)

    def _line(self, painter: QPainter, place: QRectF, line: _Line, now: int, last_us: int) -> None:
        start = now - SPAN_US
        own = [(s.down_us, s.up_us or now + 1) for s in self.lanes[line.lane].spans if s.control == line.control]
        old = now - last_us > SPAN_US // 2 and not self._down(line)
        painter.setOpacity(0.5 if old else 1)
        painter.setPen(QColor(palette().soft))
        write(painter, 0, place.center().y(), tr(line.lane, "lane"), SMALL_PX)
        painter.setPen(hue(line.control))
        label_px = _GUTTER - _LANE_PX - 6
        write(painter, _LANE_PX, place.center().y(), fitted(control_label(line.control), label_px, SMALL_PX), SMALL_PX)
        draw_trace(painter, place.adjusted(0, 2, 0, -3), own, start, now, hue(line.control), 1)
        painter.setOpacity(1)


class LiveStrip(QWidget):
    """The foot of the window."""

    def __init__(self, store: Store) -> None:
        super().__init__()
        self.setObjectName("strip")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFixedHeight(92)
        self._store = store
        self.live, self._since = Elided("heading"), Elided("soft")
        self._head = label(tr("live"), "soft")
        self.traces = _Traces()
        self._count = label("", "heading")
        self._runs = QVBoxLayout()
        self._runs.setSpacing(0)
        self._stops: dict[tuple[str, str], ElidedButton] = {}
        self._more = label("", "soft")
        self.stop = button(tr("Stop everything"), self._stop, "stop")
        keep_open(self.stop)
        self.stop.setMinimumHeight(46)
        self._build()
        self._progress = QTimer(self)
        self._progress.setInterval(_PROGRESS_MS)
        self._progress.timeout.connect(lambda: store.ask(m.GetStatus(), store.take_status))
        store.status_changed.connect(self.refresh)
        store.progress_changed.connect(lambda: self._show_stops(store.status.running[:_MOST_RUNS]))
        store.library_changed.connect(self.refresh)
        store.settings_changed.connect(self.refresh)
        store.profile_changed.connect(lambda key: self.refresh())
        store.seen.connect(self.traces.add)
        self.refresh()

    def _build(self) -> None:
        layout = QHBoxLayout(self)
        layout.setContentsMargins(14, 6, 16, 6)
        layout.setSpacing(12)
        live = QWidget()
        live.setFixedWidth(196)
        left = QVBoxLayout(live)
        left.setContentsMargins(0, 4, 0, 4)
        left.setSpacing(2)
        for text in (self._head, self.live, self._since):
            left.addWidget(text)
        left.addStretch(1)
        layout.addWidget(live)
        layout.addWidget(self.traces, 1)
        runs = QWidget()
        runs.setFixedWidth(170)
        right = QVBoxLayout(runs)
        right.setContentsMargins(0, 2, 0, 2)
        right.setSpacing(0)
        right.addWidget(self._count)
        right.addLayout(self._runs)
        right.addWidget(self._more)
        right.addStretch(1)
        layout.addWidget(runs)
        layout.addWidget(self.stop)

    def refresh(self) -> None:
        """Show the status as it is now."""
        status = self._store.status
        name = live_name(self._store)
        self.live.set_text(name)
        self.live.setAccessibleName(tr("Live profile: {name}").format(name=name))
        self._head.setText(self._state())
        self._head.setToolTip(
            tr("While Nakrel's window is in front, macros show here and reach no window.") if status.for_show else ""
        )
        since = time.strftime("%H:%M", time.localtime(status.since)) if status.since else ""
        self._since.set_text(
            tr("since {since}, {reason}").format(since=since, reason=status.reason) if since else status.reason
        )
        key = control_label(self._store.settings.stop_key)
        self.stop.setText(tr("Stop everything\n{key}").format(key=key))
        count = len(status.running)
        self._count.setText(counted(count, "{n} running", "{n} running") if count else tr("no macro runs"))
        self._follow_runs()
        self._show_stops(status.running[:_MOST_RUNS])
        self._more.setText(tr("and {value} more").format(value=count - _MOST_RUNS))
        self._more.setVisible(count > _MOST_RUNS)

    def _show_stops(self, running: Sequence[m.Running]) -> None:
        """A button a run. It stays the same one for as long as that goes on: how far it is comes several times a second
        and would take the button away from under a click."""
        shown = {(run.macro, run.trigger): run for run in running}
        for key in self._stops.keys() - shown.keys():
            gone = self._stops.pop(key)
            self._runs.removeWidget(gone)
            gone.hide()
            gone.deleteLater()
        for at, (key, run) in enumerate(shown.items()):
            trigger = f", {control_label(run.trigger)}" if run.trigger else ""
            far = tr(" · run {run} of {of}").format(run=run.run, of=run.of) if run.of > 1 else ""
            if (made := self._stops.get(key)) is None:
                stop = partial(self._store.ask, m.Stop(run.macro))
                made = self._stops[key] = ElidedButton("", stop, "link", tr("Stop this one"))
            made.set_text(f"■ {run.name}", far or trigger)
            made.setAccessibleName(tr("Stop {name}").format(name=run.name))
            if self._runs.indexOf(made) != at:
                self._runs.insertWidget(at, made)

    def _follow_runs(self) -> None:
        """How far runs are isn't told with each of them: it is asked for now and then while a counted macro runs."""
        if any(run.of > 1 for run in self._store.status.running):
            if not self._progress.isActive():
                self._progress.start()
        else:
            self._progress.stop()

    def _state(self) -> str:
        status = self._store.status
        if status.recording:
            return tr("recording")
        if status.listening:
            return tr("choosing a button")
        text = tr("preview: nothing is sent") if status.for_show else tr("live")
        profile = self._store.profiles.get(status.live)
        others = profile.pointer.stages[1:] if profile else ()
        return (
            tr("{value} · pointer: {stage}").format(value=text, stage=status.stage)
            if status.stage in [each.name for each in others]
            else text
        )

    def _stop(self) -> None:
        self._store.ask(m.Stop())
