"""Languages: every text of the window can have one, and has room for it; tables are looked up by Qt's rules."""

from __future__ import annotations

import json
import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

from nakrel import words
from nakrel.ui import language
from nakrel.ui.help.documents import document
from tests.support import LIMIT_S, ServiceProcess

# What a German session says of itself.
SESSION = {
    "LANG": "de_DE.UTF-8",
    "NAKREL_LANGUAGE": "",
    "LANGUAGE": "",
    "LC_ALL": "",
    "LC_MESSAGES": "",
    "LC_NUMERIC": "",
}


@pytest.fixture(autouse=True)
def _english_again() -> object:
    yield
    words.install(lambda text, about, count: None, "en", words.Marks())


def test_every_text_can_have_a_language_and_has_room(seeded: Path, tmp_path: Path):
    """In a language that is longer by two fifths, of the window, the service and the process for long work."""
    home = shutil.copytree(seeded, tmp_path / "home")
    service = ServiceProcess(home, "--backend", "stand-in", NAKREL_LANGUAGE="pseudo")
    command = [sys.executable, "-m", "tests.ui.pseudo", str(home)]
    done = subprocess.run(command, capture_output=True, text=True, timeout=6 * LIMIT_S)
    assert service.end() == 0
    assert done.returncode == 0, done.stderr
    assert json.loads(done.stdout) == {"untold": {}, "cut": {}, "large": {}, "unknown": []}


def test_english_has_its_own_plural():
    assert [words.counted(count, "{n} step", "{n} steps") for count in (0, 1, 2, 1_000)] == [
        "0 steps", "1 step", "2 steps", "1,000 steps",
    ]  # fmt: skip


def test_a_language_without_a_table_is_english():
    assert language.choose("xx") == "en"
    assert language.choose("en_GB") == "en"
    assert words.tr("Close") == "Close"


_ENGLISH, _GERMAN = words.Marks(), words.Marks(",", ".")


@pytest.mark.parametrize(
    ("session", "name", "marks"),
    [
        ({}, "en", _ENGLISH),
        ({"LANG": "en_US.UTF-8"}, "en", _ENGLISH),
        ({"LANG": "de_DE.UTF-8"}, "de", _GERMAN),
        ({"LC_ALL": "de_DE@euro", "LANG": "C"}, "de", _GERMAN),
        ({"LC_MESSAGES": "de_DE.UTF-8", "LANG": "C"}, "de", _GERMAN),
        ({"LANG": "de_DE.UTF-8", "LC_NUMERIC": "C"}, "de", _ENGLISH),
        ({"LANG": "en_US.UTF-8", "LC_NUMERIC": "de_DE.UTF-8"}, "en", _GERMAN),
        ({"LC_ALL": "C.UTF-8", "LANG": "de_DE.UTF-8"}, "en", _ENGLISH),
        ({"LANG": "C", "NAKREL_LANGUAGE": "de_AT"}, "de", _GERMAN),
    ],
)
def test_a_session_has_its_language_and_its_numbers(
    session: dict[str, str], name: str, marks: words.Marks, monkeypatch: pytest.MonkeyPatch
):
    for each in ("NAKREL_LANGUAGE", "LANGUAGE", "LC_ALL", "LC_MESSAGES", "LC_NUMERIC", "LANG"):
        monkeypatch.delenv(each, raising=False)
    for each, value in session.items():
        monkeypatch.setenv(each, value)
    assert language.choose() == words.language() == name
    assert words.marks() == marks
    # What there is in the language beside its table goes by the same name.
    questions = document("questions")
    assert questions is not None
    assert questions.title == {"en": "Questions", "de": "Fragen"}[name]


def test_another_session_writes_numbers_as_qt_knows_it():
    """Unicode CLDR 45: de_AT groups by a no-break space. In a process of its own, since Qt asks the session once."""
    command = (
        "import nakrel.ui; from nakrel.words import language, shown_number; print(language(), shown_number(12345.6, 1))"
    )
    done = subprocess.run(
        [sys.executable, "-c", command],
        capture_output=True, text=True, encoding="utf-8", timeout=LIMIT_S,
        env={**os.environ, **SESSION, "LANG": "de_AT.UTF-8", "PYTHONUTF8": "1"},
    )  # fmt: skip
    assert (done.stdout, done.stderr) == ("de 12\xa0345,6\n", "")


def test_the_pseudo_language_leaves_what_is_filled_in():
    assert language.choose("pseudo") == "pseudo"
    text = words.tr("Stop {name} now")
    assert "{name}" in text
    assert text.startswith("⟦")
    assert len(text) >= len("Stop {name} now") * 1.4


def test_the_window_works_in_german(seeded: Path, tmp_path: Path):
    """Nothing goes by what something is called, and times are read and shown with a comma."""
    home = shutil.copytree(seeded, tmp_path / "home")
    service = ServiceProcess(home, "--backend", "stand-in", **SESSION)
    command = [sys.executable, "-m", "tests.ui.german", str(home)]
    done = subprocess.run(command, capture_output=True, text=True, timeout=6 * LIMIT_S, env={**os.environ, **SESSION})
    assert service.end() == 0
    assert done.returncode == 0, done.stderr
    found = json.loads(done.stdout)
    assert found["kinds"] == [
        "Tap", "Press", "Release", "Chord", "Wait", "Wait", "Wheel", "Pointer", "Text", "Open", "If", "Set", "Repeat",
        "PickOne", "Note",
    ]  # fmt: skip
    assert found["times"] == [[17_500, None], [250_000, None], [180_000, 420_000]]
    assert found["shown"] == "180 bis 420 ms"
    assert sorted(found["began"]) == ["record", "steps", "text"]
    assert found["of_qt"] == "Abbrechen"
    assert found["range"] == ["26,5", "12,2", "1.240,0", "30,0"]
