"""The live strip: the last seconds of what came in and went out, what is live, what runs, and Stop everything."""

from __future__ import annotations

import time
from collections import deque
from functools import partial
from typing import NamedTuple

from PyQt6.QtCore import QRectF, Qt, QTimer
from PyQt6.QtGui import QColor, QPainter, QPaintEvent
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from nakrel import protocol as m
from nakrel.core.model.controls import OTHERS
from nakrel.core.model.controls import label as control_label
from nakrel.ui.store import Store
from nakrel.ui.theme import SMALL_PX, font, hue, palette
from nakrel.ui.widgets.basics import button, clear_layout, label
from nakrel.ui.widgets.shield import keep_open
from nakrel.ui.widgets.traces import draw_trace

__all__ = ["LiveStrip"]

SPAN_US = 3_000_000
_FRAME_MS = 40
_MOST_RUNS = 2
# Room for the lanes' names, the height of a lane, and the traces in it.
_GUTTER, _LANE_PX, _MOST_TRACES = 34, 33, 3
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


class _Traces(QWidget):
    """Two lanes of time, in and out; it moves only while there is something to see."""

    def __init__(self) -> None:
        super().__init__()
        self.lanes = {"in": _Lane(), "out": _Lane()}
        self._timer = QTimer(self)
        self._timer.setInterval(_FRAME_MS)
        self._timer.timeout.connect(self._tick)
        self.setAccessibleName("The last three seconds, in and out")
        self.setMinimumWidth(300)

    def add(self, notice: m.Seen) -> None:
        for event in notice.events:
            self.lanes["in" if event.by == "in" else "out"].add(event)
        self._timer.start()
        self.update()

    def _tick(self) -> None:
        before = time.monotonic_ns() // 1_000 - SPAN_US
        for lane in self.lanes.values():
            lane.forget(before)
        if not any(lane.spans for lane in self.lanes.values()):
            self._timer.stop()
        if self.isVisible():
            self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter, p = QPainter(self), palette()
        now = time.monotonic_ns() // 1_000
        painter.setFont(font(SMALL_PX))
        field = QRectF(_GUTTER, 2, self.width() - _GUTTER - 6, 2 * _LANE_PX)
        for n, (name, lane) in enumerate(self.lanes.items()):
            top = field.top() + n * _LANE_PX
            painter.setPen(QColor(p.soft))
            painter.drawText(QRectF(0, top + 9, _GUTTER, 16), Qt.AlignmentFlag.AlignLeft, name)
            self._lane(painter, QRectF(field.left(), top, field.width(), _LANE_PX - 3), lane, now)
        painter.setPen(QColor(p.soft))
        foot = QRectF(_GUTTER, self.height() - 14, field.width(), 14)
        for text, flag in (
            ("−3 s", Qt.AlignmentFlag.AlignLeft),
            ("−1.5", Qt.AlignmentFlag.AlignHCenter),
            ("now", Qt.AlignmentFlag.AlignRight),
        ):
            painter.drawText(foot, flag, text)

    def _lane(self, painter: QPainter, area: QRectF, lane: _Lane, now: int) -> None:
        """A trace for each of the first few controls, one above the other; further ones share the lowest."""
        start = now - SPAN_US
        spans = [span for span in lane.spans if span.up_us is None or span.up_us > start]
        codes = list(dict.fromkeys(span.control for span in spans))
        painter.setPen(QColor(palette().line))
        painter.drawLine(area.bottomLeft(), area.bottomRight())
        if not codes:
            return
        height = area.height() / min(len(codes), _MOST_TRACES)
        for n, code in enumerate(codes):
            row = min(n, _MOST_TRACES - 1)
            trace = QRectF(area.left(), area.top() + row * height + 1, area.width(), height - 3)
            own = [(s.down_us, s.up_us or now + 1) for s in spans if s.control == code]
            draw_trace(painter, trace, own, start, now, hue(code), 1)
            self._name(painter, trace, code, own[0][0] - start)

    def _name(self, painter: QPainter, trace: QRectF, code: str, first_us: int) -> None:
        """The control's name beside its first edge: before it where there is room, else within the trace."""
        text = control_label(code)
        edge = trace.left() + max(0.0, first_us / SPAN_US) * trace.width()
        width = painter.fontMetrics().horizontalAdvance(text) + 6
        box = QRectF(
            edge - width if edge - width > trace.left() else trace.left() + 2, trace.center().y() - 7, width, 14
        )
        painter.fillRect(box.adjusted(0, 1, 0, -1), QColor(palette().shade))
        painter.setPen(hue(code))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)


class LiveStrip(QWidget):
    """The foot of the window."""

    def __init__(self, store: Store) -> None:
        super().__init__()
        self.setObjectName("strip")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFixedHeight(92)
        self._store = store
        self.live, self._since = label("", "heading"), label("", "soft")
        self._head = label("live", "soft")
        self.traces = _Traces()
        self._count = label("", "heading")
        self._runs = QVBoxLayout()
        self._runs.setSpacing(0)
        self.stop = button("Stop everything", self._stop, "stop")
        keep_open(self.stop)
        self.stop.setMinimumHeight(46)
        self._build()
        store.status_changed.connect(self.refresh)
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
        right.addStretch(1)
        layout.addWidget(runs)
        layout.addWidget(self.stop)

    def refresh(self) -> None:
        """Show the status as it is now."""
        status = self._store.status
        profile = self._store.profiles.get(status.live)
        name = profile.name if profile else status.live
        if profile and len(profile.setups) > 1:
            name += f" · {profile.setup(status.setups.get(profile.id, '')).name}"
        self.live.setText(name)
        self.live.setAccessibleName(f"Live profile: {name}")
        self._head.setText(self._state())
        self._head.setToolTip(
            "While Nakrel's window is in front, macros show here and reach no window." if status.for_show else ""
        )
        since = time.strftime("%H:%M", time.localtime(status.since)) if status.since else ""
        self._since.setText(f"since {since}, {status.reason}" if since else status.reason)
        self._since.setToolTip(status.reason)
        key = control_label(self._store.settings.stop_key)
        self.stop.setText(f"Stop everything\n{key}")
        count = len(status.running)
        self._count.setText(f"{count} running" if count else "no macro runs")
        clear_layout(self._runs)
        for run in status.running[:_MOST_RUNS]:
            trigger = f", {control_label(run.trigger)}" if run.trigger else ""
            made = button(
                f"■ {run.name}{trigger}", partial(self._store.ask, m.Stop(run.macro)), "link", "Stop this one"
            )
            made.setAccessibleName(f"Stop {run.name}")
            self._runs.addWidget(made)
        if count > _MOST_RUNS:
            self._runs.addWidget(label(f"and {count - _MOST_RUNS} more", "soft"))

    def _state(self) -> str:
        status = self._store.status
        if status.recording:
            return "recording"
        if status.listening:
            return "choosing a button"
        text = "preview: nothing is sent while this window is in front" if status.for_show else "live"
        profile = self._store.profiles.get(status.live)
        others = profile.pointer.stages[1:] if profile else ()
        return f"{text} · pointer: {status.stage}" if status.stage in [each.name for each in others] else text

    def _stop(self) -> None:
        self._store.ask(m.Stop())
