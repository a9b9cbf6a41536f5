"""Notices, on a bus of our own with a notification server that keeps what it gets."""

from __future__ import annotations

import threading
from pathlib import Path
from typing import Any

import pytest
from jeepney import HeaderFields, MessageType, new_method_return
from jeepney.bus_messages import message_bus
from jeepney.io.blocking import open_dbus_connection

from nakrel.backends.notices import Notices
from tests.desktop.panel import Panel
from tests.support import wait_for

NAME = "org.freedesktop.Notifications"


def test_a_notice_is_shown_and_the_next_takes_its_place(bus: str):
    got: list[tuple[Any, ...]] = []
    server = open_dbus_connection(bus)
    server.send_and_get_reply(message_bus.RequestName(NAME))

    def serve() -> None:
        while len(got) < 2:
            message = server.receive()
            if message.header.message_type is MessageType.method_call:
                assert message.header.fields[HeaderFields.member] == "Notify"
                assert message.header.fields[HeaderFields.signature] == "susssasa{sv}i"
                got.append(message.body)
                server.send(new_method_return(message, "u", (41,)))

    thread = threading.Thread(target=serve, daemon=True)
    thread.start()
    notices = Notices()
    assert notices.show("Kiln Race is live", "kiln-race is in front")
    assert notices.show("Everyday is live", "no linked program runs")
    thread.join(10)
    server.close()
    notices.close()
    assert [body[1] for body in got] == [0, 41]
    assert got[0][3:5] == ("Kiln Race is live", "kiln-race is in front")
    assert got[0][6] == {"urgency": ("y", 0), "transient": ("b", True)}


def test_a_desktop_without_notices_is_no_fault(bus: str, monkeypatch: pytest.MonkeyPatch):
    assert not Notices().show("x")
    monkeypatch.setenv("DBUS_SESSION_BUS_ADDRESS", "unix:path=/nowhere")
    assert not Notices().show("x")


def test_a_button_of_a_notice_is_heard_and_the_bus_may_come_back(bus: str, tmp_path: Path):
    panel, pressed = Panel(bus), []
    notices = Notices("an-icon", "org.nakrel.Nakrel", pressed.append)
    assert notices.show("Kiln Race is live", "it is in front", (("stop", "Stop everything"),))
    replaced, summary, _, actions, hints, icon = panel.notices[-1]
    assert (replaced, summary, actions, icon) == (0, "Kiln Race is live", ["stop", "Stop everything"], "an-icon")
    assert hints["desktop-entry"] == ("s", "org.nakrel.Nakrel")
    panel.press_action(77, "stop")
    panel.press_action(1, "stop")
    wait_for(lambda: pressed == ["stop"], "the press")
    assert notices.show("Everyday is live", "no linked program runs")
    assert panel.notices[-1][0] == 1
    notices.close()
    assert notices.show("Once more")
    assert panel.notices[-1][0] == 0
    notices.close()
    panel.leave()
