"""The timing diagram by mouse and by keyboard, and what stands beside it."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtGui import QColor, QImage, QPainter, QWheelEvent
from PyQt6.QtTest import QTest

from nakrel import protocol as m
from nakrel.core.edit.timeline import lay_out
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.steps import Press, Release, Repeat, Step, Tap, Wait
from nakrel.ui.macro.diagram import Diagram
from nakrel.ui.macro.diagram.paint import draw
from nakrel.ui.macro.diagram.pen import Pen
from nakrel.ui.macro.diagram.view import MOST_STEPS, TRACE, View
from nakrel.ui.theme import colour
from tests.ui.conftest import Ui

MS = 1_000
LEFT, RIGHT, UP, DOWN = Qt.Key.Key_Left, Qt.Key.Key_Right, Qt.Key.Key_Up, Qt.Key.Key_Down
ALT = Qt.KeyboardModifier.AltModifier
Q = Tap(control="KEY_Q", hold_us=40 * MS)
W = Tap(control="KEY_W", hold_us=40 * MS)
LOOP = (Q, Wait(wait_us=60 * MS), W, Wait(wait_us=60 * MS))


def shown(ui: Ui, *loop: Step, play: Play | None = None) -> Diagram:
    made = Macro(id="storm-volley", name="Storm volley", play=play or Play(), loop=loop)
    ui.store.put_macro(made)
    ui.window.shown.show_macro("storm-volley")
    ui.window.shown.show_page("macro")
    diagram = ui.window.macro.diagram
    diagram.setFocus()
    diagram.focusInEvent(None)
    return diagram


def loop(ui: Ui) -> tuple[Step, ...]:
    return ui.store.macros["storm-volley"].loop


def spot(diagram: Diagram, trace: int, ms: float) -> QPoint:
    return QPoint(round(diagram.view.x_of(ms * MS)), round(diagram.view.top_of(trace) + TRACE / 2))


def drag(diagram: Diagram, start: QPoint, end: QPoint, *, drop: bool = True) -> None:
    ground = diagram.viewport()
    QTest.mousePress(ground, Qt.MouseButton.LeftButton, pos=start)
    QTest.mouseMove(ground, start + (end - start) / 2)
    QTest.mouseMove(ground, end)
    if drop:
        QTest.mouseRelease(ground, Qt.MouseButton.LeftButton, pos=end)


def test_an_edge_is_dragged_to_the_grid(ui: Ui):
    diagram = shown(ui, *LOOP)
    drag(diagram, spot(diagram, 0, 40), spot(diagram, 0, 55.3))
    assert loop(ui) == (Tap(control="KEY_Q", hold_us=55 * MS), Wait(wait_us=45 * MS), W, Wait(wait_us=60 * MS))
    assert ui.window.macro.selected() == [0]
    ui.undo()
    assert loop(ui) == LOOP


def test_frames_are_a_grid_too(ui: Ui):
    diagram = shown(ui, *LOOP)
    bar = ui.window.macro.bar
    bar.snap.setCurrentText("snap frames")
    bar.snap.activated.emit(bar.snap.currentIndex())
    drag(diagram, spot(diagram, 0, 40), spot(diagram, 0, 51))
    assert loop(ui)[0].hold_us == 50_000
    ui.window.shown.set_frames(30)
    drag(diagram, spot(diagram, 0, 50), spot(diagram, 0, 60))
    assert loop(ui)[0].hold_us == 66_667


def test_a_span_of_time_is_selected_and_moved_together(ui: Ui):
    diagram = shown(ui, *LOOP)
    # From empty ground to empty ground, around all of both holds.
    drag(diagram, spot(diagram, 1, 20), spot(diagram, 1, 150))
    assert {edge.row for edge in diagram.selection.picks} == {0, 2}
    drag(diagram, spot(diagram, 1, 120), spot(diagram, 1, 130))
    # The first hold's beginning isn't in it: it goes down when it did.
    assert loop(ui)[0].hold_us == 50 * MS
    assert lay_out(ui.store.macros["storm-volley"]).spans["KEY_W"][0][:2] == (110 * MS, 150 * MS)


def test_esc_during_a_drag_leaves_all_as_it_was(ui: Ui):
    diagram = shown(ui, *LOOP)
    drag(diagram, spot(diagram, 0, 20), spot(diagram, 0, 40), drop=False)
    QTest.keyClick(diagram, Qt.Key.Key_Escape)
    QTest.mouseRelease(diagram.viewport(), Qt.MouseButton.LeftButton, pos=spot(diagram, 0, 40))
    assert loop(ui) == LOOP


def test_what_is_in_the_way_is_said_and_the_last_good_place_kept(ui: Ui):
    diagram = shown(ui, Q, Wait(wait_us=30 * MS), Q, Wait(wait_us=30 * MS))
    drag(diagram, spot(diagram, 0, 20), spot(diagram, 0, 95))
    assert "two holds of Q would overlap" in ui.window.macro.bar.message.text()
    assert len(loop(ui)) == 4


def test_all_of_it_by_keyboard(ui: Ui):
    diagram = shown(ui, *LOOP)
    bar = ui.window.macro.bar
    QTest.keyClick(diagram, RIGHT)
    assert "Q is released at 40 ms" in bar.message.text()
    QTest.keyClick(diagram, RIGHT, ALT)
    assert loop(ui)[0].hold_us == 41 * MS
    QTest.keyClick(diagram, Qt.Key.Key_H)
    assert "Q from 0 ms, for 41 ms" in bar.message.text()
    for _ in range(3):
        QTest.keyClick(diagram, RIGHT, ALT)
    assert loop(ui)[:2] == (Wait(wait_us=3 * MS), Tap(control="KEY_Q", hold_us=41 * MS))
    QTest.keyClick(diagram, LEFT, ALT | Qt.KeyboardModifier.ControlModifier)
    assert "no time before the beginning" in bar.message.text()
    QTest.keyClick(diagram, Qt.Key.Key_C)
    QTest.keyClick(diagram, DOWN)
    assert diagram.selection.here is not None
    assert diagram.selection.here.control == "KEY_W"
    QTest.keyClick(diagram, Qt.Key.Key_C)
    assert bar.field.isVisible()
    QTest.keyClick(diagram, UP, ALT)
    assert diagram.view.order == ["KEY_W", "KEY_Q"]
    QTest.keyClick(diagram, Qt.Key.Key_A, Qt.KeyboardModifier.ControlModifier)
    assert len(diagram.selection.picks) == 4
    QTest.keyClick(diagram, Qt.Key.Key_Escape)
    assert not diagram.selection.picks
    assert not bar.field.isVisible()


def test_calipers_read_ms_rate_and_frames_and_take_a_distance(ui: Ui):
    diagram = shown(ui, *LOOP)
    bar = ui.window.macro.bar
    for trace, ms in ((0, 0), (1, 100)):
        QTest.mouseClick(diagram.viewport(), Qt.MouseButton.LeftButton, pos=spot(diagram, trace, ms))
    assert bar.field.text() == "100 ms"
    for typed, wait_ms in (("20/s", 10), ("6f@60", 60), ("0.2s", 160)):
        bar.field.setText(typed)
        QTest.keyClick(bar.field, Qt.Key.Key_Return)
        assert loop(ui)[1] == Wait(wait_us=wait_ms * MS)
    bar.field.setText("20")
    QTest.keyClick(bar.field, Qt.Key.Key_Return)
    assert "earlier at most" in bar.message.text()
    bar.field.setText("soon")
    QTest.keyClick(bar.field, Qt.Key.Key_Return)
    assert "is not a time" in bar.message.text()
    QTest.mouseClick(diagram.viewport(), Qt.MouseButton.LeftButton, pos=spot(diagram, 0, 250))
    assert not bar.field.isVisible()


def test_the_wheel_zooms_about_the_pointer_and_shift_moves_along(ui: Ui):
    diagram = shown(ui, *LOOP)
    view, ground = diagram.view, diagram.viewport()
    assert ground is not None
    x = view.x_of(100 * MS)

    def turn(by: int, keys: Qt.KeyboardModifier = Qt.KeyboardModifier.NoModifier) -> None:
        where = QPointF(x, 60)
        nothing, none = QPoint(), Qt.MouseButton.NoButton
        event = QWheelEvent(where, where, nothing, QPoint(0, by), none, keys, Qt.ScrollPhase.NoScrollPhase, False)
        diagram.wheelEvent(event)

    before = view.length_us
    turn(360)
    assert view.length_us < before * 0.6
    assert view.us_at(x) == pytest.approx(100 * MS, abs=1)
    since = view.since_us
    turn(-120, Qt.KeyboardModifier.ShiftModifier)
    assert view.since_us > since
    QTest.keyClick(diagram, Qt.Key.Key_0)
    assert view.fitted
    assert view.length_us == before


def test_a_long_macro_shows_as_much_as_can_be_told_apart_and_follows_the_selection(ui: Ui):
    diagram = shown(ui, *(LOOP * 1_000))
    view = diagram.view
    assert diagram.line.count_between(int(view.since_us), int(view.until_us)) <= MOST_STEPS + 1
    diagram.clearFocus()
    ui.window.macro.select([3_000])
    assert view.since_us <= diagram.line.start_us(3_000) <= view.until_us
    bar = diagram.horizontalScrollBar()
    assert bar is not None
    bar.setValue(0)
    assert view.since_us == 0


def test_traces_are_put_in_order_by_their_names(ui: Ui):
    diagram = shown(ui, *LOOP)
    drag(diagram, QPoint(30, spot(diagram, 0, 0).y()), QPoint(30, spot(diagram, 1, 0).y()))
    assert diagram.view.order == ["KEY_W", "KEY_Q"]


def test_a_held_trace_is_found_anywhere_along_its_hold(ui: Ui):
    diagram = shown(ui, Press(control="KEY_LEFTSHIFT"), *(LOOP * 600), Release(control="KEY_LEFTSHIFT"))
    view = diagram.view
    view.look(diagram.line, 50_000 * MS, 2_000 * MS)
    found = view.find(diagram.line, view.x_of(51_000 * MS), view.top_of(0) + TRACE / 2)
    assert found is not None
    assert found.control == "KEY_LEFTSHIFT"


def test_the_pen_keeps_to_the_drawing_when_chance_makes_a_run_longer():
    macro = Macro(id="m", name="M", loop=(Wait(wait_us=10 * MS, most_us=90 * MS), Q, Wait(wait_us=10 * MS)))
    line = lay_out(macro)
    pen = Pen()
    assert pen.at_us(0) is None
    pen.start(line, 1_000)
    assert pen.at_us(11_000) == 10 * MS
    # The press is planned at the mean, 50 ms; it came after 85.
    pen.follow([m.SeenEvent("m", "KEY_Q", 1, 86_000)])
    assert pen.at_us(86_000 + 5 * MS) == 55 * MS
    pen.follow([m.SeenEvent("m", "KEY_Q", 0, 126_000)])
    assert pen.at_us(126_000) == 90 * MS
    # The next run began: its press puts the pen back.
    pen.follow([m.SeenEvent("m", "KEY_Q", 1, 200_000)])
    assert pen.at_us(200_000) == 50 * MS
    pen.stop()
    assert not pen.running


def test_a_run_leaves_its_lateness_and_its_actual_trace(ui: Ui):
    diagram = shown(ui, *LOOP, play=Play(Mode.COUNTED, runs=3))
    last = ui.window.macro_details.last_run
    assert not last.isVisible()
    # What plays while the window is in front is for show; its times are as real.
    ui.store.ask(m.Play_("storm-volley"))
    ui.wait(lambda: last.record is not None and last.record.runs == 3, "the record")
    assert last.isVisible()
    assert "3 runs, 12 events; ended: finished" in last.message.text()
    assert last.median.text().endswith(" ms")
    assert sum(last.histogram.counts) == 12
    assert {code: len(spans) for code, spans in diagram.actual.items()} == {"KEY_Q": 1, "KEY_W": 1}
    down, up = diagram.actual["KEY_Q"][0]
    assert 0 <= down < up
    assert up >= 40 * MS
    check = ui.window.macro_details.frame_check
    ui.wait(lambda: "as the last run showed" in check.jitter.accessibleName(), "the measured timing in the frame check")
    ui.window.shown.show_macro("reel-in")
    ui.wait(lambda: not last.isVisible(), "no record of a macro that hasn't run")


def test_a_repeat_is_drawn_with_its_turns_and_only_the_first_moves(ui: Ui):
    diagram = shown(ui, Repeat(times=3, steps=LOOP))
    assert len(diagram.line.spans["KEY_Q"]) == 3
    drag(diagram, spot(diagram, 0, 40), spot(diagram, 0, 50))
    assert loop(ui)[0].steps[0].hold_us == 50 * MS
    assert diagram.view.find(diagram.line, spot(diagram, 0, 220).x(), spot(diagram, 0, 220).y()) is None


def test_the_view_has_one_place_for_each_time():
    view, line = View(), lay_out(Macro(id="m", name="M", loop=LOOP))
    view.width, view.height = 700, 200
    view.show(line)
    for ms in (0, 33, 150):
        assert view.us_at(view.x_of(ms * MS)) == pytest.approx(ms * MS)
    # Above the first trace, and on it.
    assert view.trace_at(5) is None
    assert view.trace_at(25) == 0


@pytest.mark.parametrize("scale", [1.0, 1.5, 2.0])
def test_every_pixel_is_painted_at_every_scale(ui: Ui, scale: float):
    ui.window.shown.show_macro("reel-in")
    diagram = ui.window.macro.diagram
    ground = diagram.viewport()
    assert ground is not None
    size = ground.size()
    picture = QImage(round(size.width() * scale), round(size.height() * scale), QImage.Format.Format_RGB32)
    picture.setDevicePixelRatio(scale)
    never = QColor("#FF00FF")
    picture.fill(never)
    painter = QPainter(picture)
    draw(painter, diagram.view, diagram.selection.shown, diagram._signs(), "")
    painter.end()
    edges = [(picture.width() - 1, y) for y in range(picture.height())]
    edges += [(x, picture.height() - 1) for x in range(picture.width())]
    assert not [spot for spot in edges if picture.pixelColor(*spot) == never]


def test_a_run_that_goes_on_when_the_page_is_first_shown_leaves_its_record_at_its_end(ui: Ui):
    loop = (Tap(control="KEY_Q", hold_us=5 * MS), Wait(wait_us=5 * MS))
    macro = Macro(id="m", name="M", play=Play(Mode.TOGGLE), loop=loop)
    ui.store.put_macro(macro)
    ui.store.ask(m.Play_("m"))
    ui.wait(lambda: ui.store.status.running, "the run")
    ui.window.shown.show_macro("m")
    last = ui.window.macro_details.last_run
    ui.store.ask(m.Stop(""))
    ui.wait(lambda: last.record is not None and last.record.reason, "its end")


def test_how_many_games_see_of_the_last_press_is_written_whole(ui: Ui):
    """Where there is no room after it, before it."""
    diagram = shown(ui, W, Wait(wait_us=900 * MS), W)
    alarm, inside = colour("alarm"), diagram.view.field.toRect()
    columns = []
    for row in (0, 2):
        diagram.show_worst({row: 0.42})
        picture = diagram.viewport().grab(inside).toImage()
        spots = ((x, y) for x in range(picture.width()) for y in range(40))
        columns.append([x for x, y in spots if _near(picture.pixelColor(x, y), alarm)])
    first, last = columns
    assert len(first) > 100
    assert len(last) == pytest.approx(len(first), rel=0.1)
    assert min(last) < diagram.view.x_of(940 * MS) - inside.left() - 30


def _near(one: QColor, other: QColor) -> bool:
    return all(abs(a - b) < 40 for a, b in zip(one.getRgb(), other.getRgb(), strict=True))
