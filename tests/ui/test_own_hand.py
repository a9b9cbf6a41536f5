"""Where the service reads no real device, the window's own keys and clicks are one's hand: in recordings, where a
control is chosen by a press, on the Range, and for Stop everything; and nowhere else."""

from __future__ import annotations

import msgspec
import pytest
from PyQt6.QtCore import QEvent, QPoint, QPointF, Qt
from PyQt6.QtGui import QGuiApplication, QKeyEvent, QMouseEvent, QWheelEvent
from PyQt6.QtWidgets import QApplication

from nakrel import protocol as m
from nakrel.core.model.cells import RunMacro
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.profile import EVERYDAY, Profile, SetUp
from nakrel.core.model.steps import Press, Release, Wait, Wheel
from nakrel.ui.widgets.shield import shielded
from tests.ui.conftest import Ui

# linux/input-event-codes.h
KEY_W, KEY_K, KEY_PAUSE, KEY_SCROLLLOCK = 17, 37, 119, 70
NONE = Qt.KeyboardModifier.NoModifier
HOLD = Macro(id="hold", name="Hold", play=Play(Mode.TOGGLE), loop=(Wait(wait_us=60_000_000),))


def key(ui: Ui, number: int, *, down: bool, again: bool = False, text: str = "") -> None:
    """A key by the kernel's number, as a display server tells the window of it."""
    kind = QEvent.Type.KeyPress if down else QEvent.Type.KeyRelease
    QApplication.sendEvent(ui.window.windowHandle(), QKeyEvent(kind, 0, NONE, number + 8, 0, 0, text, again))


def click(ui: Ui, which: Qt.MouseButton) -> None:
    """A click on the table of buttons or steps, by the display server."""
    spot = QPointF(ui.window.width() / 2, ui.window.height() / 2)
    for kind, held in (
        (QEvent.Type.MouseButtonPress, which),
        (QEvent.Type.MouseButtonRelease, Qt.MouseButton.NoButton),
    ):
        QApplication.sendEvent(ui.window.windowHandle(), QMouseEvent(kind, spot, spot, which, held, NONE))


def turn(ui: Ui, notches: int) -> None:
    spot = QPointF(ui.window.width() / 2, ui.window.height() / 2)
    turned = QPoint(0, 120 * notches)
    event = QWheelEvent(
        spot, spot, QPoint(), turned, Qt.MouseButton.NoButton, NONE, Qt.ScrollPhase.NoScrollPhase, False
    )
    QApplication.sendEvent(ui.window.windowHandle(), event)


@pytest.fixture
def front(ui: Ui) -> Ui:
    ui.window.shown.show_macro("reel-in")
    ui.window.activateWindow()
    ui.wait(lambda: ui.window.isActiveWindow() and ui.store.devices, "the window in front")
    return ui


def test_a_recording_gets_keys_clicks_and_notches(front: Ui):
    ui, bar, before = front, front.window.macro.recording, front.store.macros["reel-in"]
    bar.button.click()
    ui.wait(lambda: ui.store.status.recording, "the recording")
    key(ui, KEY_W, down=True)
    key(ui, KEY_W, down=True, again=True)
    key(ui, KEY_W, down=False)
    click(ui, Qt.MouseButton.RightButton)
    turn(ui, -2)
    assert "in this window" in bar._words.text()
    key(ui, KEY_SCROLLLOCK, down=True)
    key(ui, KEY_SCROLLLOCK, down=False)
    ui.wait(lambda: ui.store.macros["reel-in"] != before, "the steps in the macro")
    new = [step for step in ui.store.macros["reel-in"].loop[len(before.loop) :] if not isinstance(step, Wait)]
    assert new == [
        Press(control="KEY_W"),
        Release(control="KEY_W"),
        Press(control="BTN_RIGHT"),
        Release(control="BTN_RIGHT"),
        Wheel(control="WHEEL_DOWN", notches=2),
    ]
    ui.wait(lambda: not shielded(), "the window to be free again")


def test_a_control_is_chosen_by_its_key(front: Ui):
    ui, adds = front, front.window.macro.add_step
    caught: list[str] = []
    adds.capture.captured.connect(caught.append)
    adds.capture.arm()
    ui.wait(lambda: ui.store.status.listening, "the service to listen")
    key(ui, KEY_K, down=True)
    key(ui, KEY_K, down=False)
    ui.wait(lambda: caught == ["KEY_K"], "the key")
    ui.wait(lambda: not shielded(), "the window to be free again")


def test_nothing_else_gets_out(front: Ui):
    ui = front
    everyday = ui.store.profiles[EVERYDAY]
    cells = {"KEY_K": RunMacro("reel-in"), "BTN_RIGHT": RunMacro("reel-in")}
    ui.service.call(m.PutProfile(_with_cells(everyday, cells)))
    heard: list[m.SeenEvent] = []
    ui.store.seen.connect(lambda seen: heard.extend(seen.events))
    key(ui, KEY_K, down=True, text="k")
    key(ui, KEY_K, down=False)
    click(ui, Qt.MouseButton.RightButton)
    turn(ui, 1)
    # What comes afterwards has come by then, too.
    ui.service.call(m.PressStandIn("standin:bollard", "KEY_W", 1))
    ui.service.call(m.PressStandIn("standin:bollard", "KEY_W", 0))
    ui.wait(lambda: any(event.control == "KEY_W" for event in heard), "the simulated key")
    assert {event.control for event in heard} == {"KEY_W"}
    for popup in QApplication.topLevelWidgets():
        if popup.windowType() == Qt.WindowType.Popup:
            popup.close()


def _with_cells(profile: Profile, cells: dict[str, RunMacro]) -> Profile:
    first = profile.setups[0]
    return msgspec.structs.replace(profile, setups=(SetUp(first.name, {**first.cells, **cells}),))


def test_stop_everything_is_heard(front: Ui):
    ui = front
    ui.service.call(m.PutMacro(HOLD))
    ui.service.call(m.Play_("hold"))
    ui.wait(lambda: ui.store.status.running, "the macro to run")
    key(ui, KEY_PAUSE, down=True)
    key(ui, KEY_PAUSE, down=False)
    ui.wait(lambda: not ui.store.status.running, "its end")


def test_nothing_stays_down_when_the_window_is_left(front: Ui):
    ui = front
    ui.window.macro.recording.button.click()
    ui.wait(lambda: ui.store.status.recording, "the recording")
    heard: list[m.SeenEvent] = []
    ui.store.seen.connect(lambda seen: heard.extend(seen.events))
    key(ui, KEY_W, down=True)
    ui.wait(lambda: [event.value for event in heard if event.by == "in"] == [1], "the key")
    ui.window.hand._left(Qt.ApplicationState.ApplicationInactive)
    ui.wait(lambda: [event.value for event in heard if event.by == "in"] == [1, 0], "its release")
    # It comes elsewhere, or here and again.
    key(ui, KEY_W, down=False)
    ui.window.macro.recording.button.click()
    ui.wait(lambda: not shielded(), "the window to be free again")


@pytest.mark.parametrize(
    ("route", "platform", "needed"),
    [
        ("standin", "xcb", True),
        ("standin", "wayland", True),
        # The service hears of presses in windows under Xwayland, and of no other program's.
        ("xwayland", "wayland", True),
        ("xwayland", "xcb", False),
        ("x11", "xcb", False),
        ("kernel", "wayland", False),
    ],
)
def test_it_is_needed_only_where_nobody_else_sees_the_hand(
    front: Ui, monkeypatch: pytest.MonkeyPatch, route: str, platform: str, needed: bool
):
    monkeypatch.setattr(QGuiApplication, "platformName", lambda: platform)
    front.store.status = msgspec.structs.replace(front.store.status, backend=route)
    front.store.status_changed.emit()
    assert front.window.hand.needed is needed
    heard: list[m.SeenEvent] = []
    front.store.seen.connect(lambda seen: heard.extend(seen.events))
    key(front, KEY_PAUSE, down=True)
    key(front, KEY_PAUSE, down=False)
    front.service.call(m.PressStandIn("standin:bollard", "KEY_W", 1))
    front.service.call(m.PressStandIn("standin:bollard", "KEY_W", 0))
    front.wait(lambda: any(event.control == "KEY_W" and not event.value for event in heard), "the simulated key")
    assert any(event.control == "KEY_PAUSE" for event in heard) is needed
