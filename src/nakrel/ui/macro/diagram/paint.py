"""Drawing the timing diagram."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from typing import NamedTuple

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QBrush, QColor, QPainter, QPen, QPolygonF

from nakrel.core.analysis.frame_answer import format_seen
from nakrel.core.edit.shaping import Edge, edges_of
from nakrel.core.edit.timeline import Span, Timeline
from nakrel.core.model.controls import label
from nakrel.core.model.units import shown_ms
from nakrel.ui.macro.diagram.view import LANE, LEFT, RULER, TRACE, View, nice_step
from nakrel.ui.macro.steps_model import SECTION_WORDS
from nakrel.ui.theme import SMALL_PX, colour, font, hue
from nakrel.ui.widgets import glyphs
from nakrel.ui.widgets.lettering import fitted, width_of, write
from nakrel.ui.widgets.traces import draw_trace
from nakrel.words import plain, shown_number, tr

__all__ = ["Signs", "draw", "gap_words"]

# A control held by the traces' heights: where in its row the line runs high and low.
_HIGH, _LOW, _ACTUAL = 9, 30, 36
# Ruler marks of frames closer than this are left out.
_LEAST_FRAME_PX = 6
# How strong the traces of takes are beneath the macro's.
_FAINT = 0.3
# How strong the ground is on which words stand over traces.
_PALE = 0.85


class Signs(NamedTuple):
    """What is drawn over the traces. Times are in microseconds of the timeline."""

    marked: tuple[int, int] | None = None
    rubber: tuple[float, float] | None = None
    picked: Collection[Edge] = ()
    cursor: tuple[str, int] | None = None
    calipers: Sequence[int] = ()
    pen_us: float | None = None
    fps: float = 60.0
    refused: bool = False
    actual: dict[str, list[tuple[int, int]]] = {}
    focused: bool = False
    worst: dict[int, float] = {}
    takes: Sequence[dict[str, list[tuple[int, int]]]] = ()


def gap_words(gap_us: int, fps: float) -> str:
    """A distance in time as people read it: milliseconds, how many a second, game frames."""
    rate = f" · {shown_number(1_000_000 / gap_us, 1)}/s" if gap_us else ""
    return f"{shown_ms(gap_us)} ms{rate} · {shown_number(gap_us * fps / 1_000_000, 1)} f"


def draw(painter: QPainter, view: View, line: Timeline, signs: Signs, text: str) -> None:
    """Draw all of it; `words` stand there while there is nothing to draw."""
    # At 150 or 200 % the frame leaves a pixel of the screen beside it.
    painter.fillRect(QRectF(0, 0, view.width, view.height), colour("paper"))
    area = QRectF(0, 0, view.width - 1, view.height - 1)
    painter.setPen(colour("line"))
    painter.setBrush(colour("field"))
    painter.drawRect(area)
    painter.setFont(font(SMALL_PX))
    if not line.controls:
        painter.setPen(colour("soft"))
        painter.drawText(area, Qt.AlignmentFlag.AlignCenter, text)
        return
    _zones(painter, view, line)
    _marked(painter, view, signs)
    _ruler(painter, view, signs.fps)
    painter.save()
    painter.setClipRect(QRectF(0, view.field.top(), view.width, view.field.height()))
    spans = view.spans(line)
    for trace, control in enumerate(view.order):
        top = view.top_of(trace)
        if -TRACE < top - view.field.top() < view.field.height():
            _trace(painter, view, control, top, spans.get(control, []), signs)
    painter.restore()
    _hatch(painter, view, line)
    _calipers(painter, view, signs)
    _pen(painter, view, signs)
    if signs.focused:
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(colour("brass"))
        painter.drawRect(area)


def _trace(painter: QPainter, view: View, control: str, top: float, spans: list[Span], signs: Signs) -> None:
    own = hue(control)
    glyphs.draw(painter, control, QRectF(10, top + 12, 14, 16))
    painter.setPen(own)
    write(painter, 28, top + 20, fitted(label(control), LEFT - 36))
    field = view.field
    place = QRectF(field.left(), top + _HIGH, field.width(), _LOW - _HIGH + 2)
    drawn = [(span.start_us, span.end_us) for span in spans]
    painter.save()
    painter.setClipRect(QRectF(field.left() - 1, top, field.width() + 2, TRACE), Qt.ClipOperation.IntersectClip)
    faint = QColor(own)
    faint.setAlphaF(_FAINT)
    for take in signs.takes:
        draw_trace(painter, place, take.get(control, ()), view.since_us, view.until_us, faint, 1.0)
    draw_trace(painter, place, drawn, view.since_us, view.until_us, own)
    if (actual := signs.actual.get(control)) is not None:
        beneath = QRectF(field.left(), top + _ACTUAL - 3, field.width(), 4)
        draw_trace(painter, beneath, actual, view.since_us, view.until_us, colour("soft"), 1.0)
    _worst(painter, view, top, spans, signs)
    _picked(painter, view, control, top, spans, signs)
    painter.restore()


def _worst(painter: QPainter, view: View, top: float, spans: list[Span], signs: Signs) -> None:
    """The presses that a game sees least have a red line above them, and the share that it sees beside them."""
    if not signs.worst:
        return
    painter.setPen(QPen(colour("alarm"), 2))
    high, ground = top + _HIGH - 4, QColor(colour("field"))
    ground.setAlphaF(_PALE)
    for span in spans:
        if (share := signs.worst.get(span.down)) is not None:
            since, words = view.x_of(span.start_us), format_seen(share)
            until = max(view.x_of(span.end_us), since + 3)
            painter.drawLine(QPointF(since, high), QPointF(until, high))
            # At the end of the diagram there is room before the press only.
            left, width = until + 4, width_of(words)
            if left + width > view.field.right():
                left = since - 4 - width
            # Where presses follow on each other closely the words stand over some: those pale there.
            painter.fillRect(QRectF(left - 1, top + _HIGH - 2, width + 2, 16), ground)
            write(painter, left, top + _HIGH + 6, words)


def _picked(painter: QPainter, view: View, control: str, top: float, spans: list[Span], signs: Signs) -> None:
    """Picked edges are thick, in brass, and the one that the keyboard is at has a handle."""
    painter.setPen(QPen(colour("alarm" if signs.refused else "brass"), 3))
    rows = {edge.row for edge in signs.picked}
    for span in spans:
        if not rows or (span.down not in rows and span.up not in rows):
            continue
        own = edges_of(control, span) & set(signs.picked)
        for edge in own:
            x = view.x_of(span.start_us if edge.down else span.end_us)
            painter.drawLine(QPointF(x, top + _HIGH), QPointF(x, top + _LOW))
        if len(own) == 2:
            high = top + _HIGH
            painter.drawLine(QPointF(view.x_of(span.start_us), high), QPointF(view.x_of(span.end_us), high))
    if signs.cursor and signs.cursor[0] == control and signs.focused:
        x = view.x_of(signs.cursor[1])
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(colour("brass"), 1.5))
        painter.setBrush(colour("field"))
        painter.drawEllipse(QPointF(x, top + (_HIGH + _LOW) / 2), 4.5, 4.5)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)


def _zones(painter: QPainter, view: View, line: Timeline) -> None:
    field = view.field
    free = field.left()
    for zone in line.zones:
        left, right = view.x_of(zone.start_us), view.x_of(zone.end_us)
        if zone.section != "loop":
            ground = QRectF(left, field.top(), max(2, right - left), field.height())
            painter.fillRect(ground & field, colour("shade"))
        if right < field.left() or left > field.right():
            continue
        # Names of narrow zones stand beside each other, and none beyond the frame.
        text = SECTION_WORDS[zone.section]
        width = painter.fontMetrics().horizontalAdvance(text)
        at = max(free, min(left, view.width - width - 4))
        painter.setPen(colour("soft"))
        painter.drawText(QRectF(at, 3, width + 2, 15), Qt.AlignmentFlag.AlignLeft, text)
        free = at + width + 8


def _marked(painter: QPainter, view: View, signs: Signs) -> None:
    field = view.field
    for stretch, strong in ((signs.marked, True), (signs.rubber, False)):
        if stretch is None:
            continue
        left = max(field.left(), min(field.right(), view.x_of(min(stretch))))
        right = max(field.left(), min(field.right(), view.x_of(max(stretch))))
        ground = QColor(colour("brass"))
        ground.setAlphaF(0.13 if strong else 0.2)
        painter.fillRect(QRectF(left, field.top(), max(1.0, right - left), field.height()), ground)


def _ruler(painter: QPainter, view: View, fps: float) -> None:
    field, soft = view.field, colour("soft")
    dots = QPen(colour("line"), 1, Qt.PenStyle.DotLine)
    foot = field.bottom() + LANE
    step = nice_step(view.length_us)
    at = int(view.since_us // step) * step
    while at <= view.until_us:
        x = int(view.x_of(at))
        if x >= field.left() - 1:
            painter.setPen(dots)
            painter.drawLine(x, int(field.top()), x, int(foot))
            painter.setPen(soft)
            painter.drawLine(x, int(foot), x, int(foot) + 4)
            # At the right end the unit stands.
            if x + 24 <= view.width - 24:
                text = shown_ms(at)
                write(painter, x - width_of(text, SMALL_PX) / 2, foot + 12, text, SMALL_PX)
        at += step
    painter.setPen(soft)
    write(painter, view.width - 24, foot + 12, "ms", SMALL_PX)
    _frames(painter, view, fps)


def _frames(painter: QPainter, view: View, fps: float) -> None:
    """Beneath the milliseconds, a tick where a game at this rate that began with the macro would look."""
    frame_us = 1_000_000 / fps
    foot, y = view.field, view.height - RULER + 22
    painter.setPen(colour("soft"))
    text = tr("{fps} frames/s").format(fps=plain(fps))
    write(painter, LEFT - 6 - width_of(text, SMALL_PX), y + 2, text, SMALL_PX)
    if frame_us * foot.width() / view.length_us < _LEAST_FRAME_PX:
        write(painter, foot.left() + 8, y + 2, tr("zoom in to see the frames"), SMALL_PX)
        return
    frame = int(view.since_us // frame_us)
    painter.setPen(colour("brass"))
    while frame * frame_us <= view.until_us:
        x = int(view.x_of(frame * frame_us))
        if x >= foot.left():
            painter.drawLine(x, y, x, y + (8 if frame % 10 == 0 else 5))
        frame += 1


def _hatch(painter: QPainter, view: View, line: Timeline) -> None:
    """What is left to chance: hatched, as drawings of instruments show what isn't certain."""
    field = view.field
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(QBrush(colour("soft"), Qt.BrushStyle.BDiagPattern))
    for start, stop in line.unsure_between(int(view.since_us), int(view.until_us) + 1):
        left = max(field.left(), view.x_of(start))
        right = min(field.right(), max(left + 2, view.x_of(stop)))
        if right > left:
            painter.drawRect(QRectF(left, field.bottom() + LANE - 7, right - left, 7))


def _calipers(painter: QPainter, view: View, signs: Signs) -> None:
    field = view.field
    painter.setFont(font(SMALL_PX, bold=True))
    brass = colour("brass")
    places = [view.x_of(at) for at in signs.calipers]
    for x in places:
        if field.left() - 1 <= x <= field.right() + 1:
            painter.setPen(QPen(brass, 1))
            painter.drawLine(QPointF(x, field.top() - 4), QPointF(x, field.bottom() + LANE))
    if len(places) < 2:
        return
    left, right = (max(field.left(), min(field.right(), x)) for x in sorted(places))
    y = field.bottom() + LANE / 2
    painter.setPen(QPen(brass, 1))
    painter.drawLine(QPointF(left, y), QPointF(right, y))
    for x, direction in ((left, 1), (right, -1)):
        painter.drawLine(QPointF(x, y), QPointF(x + 5 * direction, y - 3))
        painter.drawLine(QPointF(x, y), QPointF(x + 5 * direction, y + 3))
    text = gap_words(abs(signs.calipers[0] - signs.calipers[1]), signs.fps)
    width = painter.fontMetrics().horizontalAdvance(text) + 12
    middle = max(field.left() + width / 2, min(field.right() - width / 2, (left + right) / 2))
    place = QRectF(middle - width / 2, y - 7, width, 14)
    painter.fillRect(place, colour("field"))
    painter.drawText(place, Qt.AlignmentFlag.AlignCenter, text)


def _pen(painter: QPainter, view: View, signs: Signs) -> None:
    if signs.pen_us is None or not view.since_us <= signs.pen_us <= view.until_us:
        return
    x, field = view.x_of(signs.pen_us), view.field
    painter.setPen(QPen(colour("ink"), 1))
    painter.drawLine(QPointF(x, field.top()), QPointF(x, field.bottom()))
    painter.setBrush(colour("ink"))
    tip = (QPointF(x - 4, field.top() - 6), QPointF(x + 4, field.top() - 6), QPointF(x, field.top()))
    painter.drawPolygon(QPolygonF(tip))
