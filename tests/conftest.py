"""Settings that every test shares: no test reads or writes the user's own files."""

from __future__ import annotations

import logging
import os
import shutil
from collections.abc import Iterator
from pathlib import Path

import pytest
from hypothesis import HealthCheck, settings

from nakrel.core.model.controls import use_labels
from tests.standstill import Standstill, tries_again
from tests.support import start_bus

# Test machines are often root's own.
os.environ.setdefault("NAKREL_AS_ROOT", "1")
# Windows of this process need no screen; those that are tested on an X server are processes of their own.
os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
# As many tests run at a time as there are processors: NumPy's threads would only stand in each other's way.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
# Whatever keyboard this machine has, keys are called as on one of the US layout.
os.environ["XKB_DEFAULT_LAYOUT"] = "us"
# A screen that is locked meanwhile must not keep services from playing.
os.environ["DBUS_SYSTEM_BUS_ADDRESS"] = "unix:path=/nonexistent"
# Tests read the texts as they stand in the sources.
os.environ.setdefault("NAKREL_LANGUAGE", "en")
settings.register_profile("default", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.register_profile("long", parent=settings.get_profile("default"), max_examples=5_000, stateful_step_count=100)
settings.load_profile(os.environ.get("NAKREL_HYPOTHESIS", "default"))


_LONGEST = "end_to_end/test_window.py"
_standstill = Standstill()


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Tests of real time get another try where the machine stood still meanwhile. What takes longest comes
    first, or one process would be at it by itself in the end."""
    items.sort(key=lambda item: not item.path.as_posix().endswith(_LONGEST))
    for item in items:
        if tries_again(item):
            item.add_marker(pytest.mark.flaky(reruns=2, condition=_standstill.excuses))


def pytest_runtest_setup(item: pytest.Item) -> None:
    """What the machine did before a test is of no account to it."""
    if tries_again(item):
        _standstill.forget()


def pytest_unconfigure() -> None:
    """No witness outlives the tests."""
    _standstill.end()


@pytest.fixture(autouse=True)
def _own_home(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """Point every way to a home at the test's own folder."""
    monkeypatch.setenv("NAKREL_HOME", str(tmp_path / "nakrel"))
    for name in ("XDG_CONFIG_HOME", "XDG_STATE_HOME", "XDG_DATA_HOME"):
        monkeypatch.setenv(name, str(tmp_path / name.lower()))


@pytest.fixture(autouse=True)
def _us_names() -> Iterator[None]:
    """Every test begins with keys that are called as on a keyboard of the US layout."""
    yield
    use_labels({})


class _Unexpected(logging.Handler):
    """Keeps every warning that is logged while a test runs."""

    def __init__(self) -> None:
        super().__init__(logging.WARNING)
        self.said: list[str] = []

    def emit(self, record: logging.LogRecord) -> None:
        self.said.append(record.getMessage())


@pytest.fixture(autouse=True)
def _no_unexpected_logs() -> Iterator[None]:
    """A warning or error in a log that no test asked for fails the test."""
    handler = _Unexpected()
    logging.getLogger().addHandler(handler)
    yield
    logging.getLogger().removeHandler(handler)
    assert not handler.said


@pytest.fixture
def bus(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Iterator[str]:
    """The address of a bus of its own that is both the system's and the session's, with nobody on it."""
    if not shutil.which("dbus-daemon"):
        pytest.skip("needs dbus-daemon")
    address = f"unix:path={tmp_path / 'bus'}"
    process = start_bus(address)
    for which in ("SYSTEM", "SESSION"):
        monkeypatch.setenv(f"DBUS_{which}_BUS_ADDRESS", address)
    yield address
    process.terminate()
    process.wait(10)
