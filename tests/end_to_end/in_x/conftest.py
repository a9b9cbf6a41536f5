"""A window under a hand, with a service that ends with the test."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest
from pytestqt.qtbot import QtBot

from nakrel import protocol as m
from nakrel.client.connection import ServiceConnection
from nakrel.storage.home import Home
from tests.end_to_end.in_x.driver import Driver


@pytest.fixture
def driver(qtbot: QtBot, tmp_path: Path) -> Iterator[Driver]:
    yield from _driven(Driver(qtbot, tmp_path / "home"), tmp_path)


@pytest.fixture
def newcomer(qtbot: QtBot, tmp_path: Path) -> Iterator[Driver]:
    """On an empty home."""
    yield from _driven(Driver(qtbot, tmp_path / "home", seeded=False), tmp_path)


def _driven(made: Driver, tmp_path: Path) -> Iterator[Driver]:
    yield made
    made.close()
    end = ServiceConnection.connect(Home.find(tmp_path / "home").socket, "end")
    end.call(m.Shutdown())
    end.close()
