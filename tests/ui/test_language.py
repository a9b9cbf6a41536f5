"""Languages: every text of the window can have one, and has room for it; tables are looked up by Qt's rules."""

from __future__ import annotations

import json
import os
import subprocess
import sys

import pytest

from nakrel import words
from nakrel.ui import language
from tests.support import LIMIT_S
from tests.ui.conftest import Ui


@pytest.fixture(autouse=True)
def _english_again() -> object:
    yield
    words.install(lambda text, number: None)


def test_every_text_of_the_window_can_have_a_language_and_has_room(ui: Ui):
    """In a language that is longer by two fifths. What the core and the service say isn't among them yet."""
    environment = {name: value for name, value in os.environ.items() if name != "NAKREL_LANGUAGE"}
    command = [sys.executable, "-m", "tests.ui.pseudo", str(ui.service.folder)]
    done = subprocess.run(command, env=environment, capture_output=True, text=True, timeout=6 * LIMIT_S)
    assert done.returncode == 0, done.stderr
    assert json.loads(done.stdout) == {"untold": {}, "cut": {}}


def test_english_has_its_own_plural():
    assert [words.counted(count, "{n} step", "{n} steps") for count in (0, 1, 2, 1_000)] == [
        "0 steps", "1 step", "2 steps", "1,000 steps",
    ]  # fmt: skip


def test_a_language_without_a_table_is_english():
    assert language.choose("xx") == "en"
    assert language.choose("en_GB") == "en"
    assert words.tr("Close") == "Close"


def test_the_pseudo_language_leaves_what_is_filled_in():
    assert language.choose("pseudo") == "pseudo"
    text = words.tr("Stop {name} now")
    assert "{name}" in text
    assert text.startswith("⟦")
    assert len(text) >= len("Stop {name} now") * 1.4
