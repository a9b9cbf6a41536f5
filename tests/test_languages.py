"""The tables of texts: complete, in step with the sources, and the same for the window and for all other processes."""

from __future__ import annotations

import ast
import gettext
import os
import re
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import click
import msgspec
import polib
import pytest
from PyQt6.QtCore import QTranslator

from nakrel import language, words
from nakrel.core import notation
from nakrel.core.edit.offers import read_combination
from nakrel.core.model.cells import RunMacro
from nakrel.core.model.controls import CONTROLS, Kind, label
from nakrel.core.model.errors import DataError, LimitError
from nakrel.core.model.formulas import compiled
from nakrel.core.model.macro import Again, Macro, Mode, Play
from nakrel.core.model.names import read_control, shown_name
from nakrel.core.model.step_words import describe
from nakrel.core.model.steps import If, Tap, Wait
from nakrel.core.model.units import parse_span, parse_time, shown_ms
from nakrel.core.notation import read_steps, write
from nakrel.core.play.engine import Engine
from nakrel.core.play.events import Event, Pressed, Released, RunEnded, SetSheet, StopMacro
from nakrel.core.play.operations import compile_macro
from nakrel.core.play.sheet import Sheet
from nakrel.core.play.simulate import PlanRow
from nakrel.demo.data import MACROS
from nakrel.storage import files
from nakrel.storage.recordings import left_out
from nakrel.words import sentence

sys.path.insert(0, str(Path(__file__).parent.parent / "scripts"))

import languages  # noqa: E402 - a script, which lies beside the project's rooms

TEXTS = languages.all_texts()
TABLES = {each: languages.known(languages.FOLDER / f"nakrel_{each}.ts") for each in languages.FORMS}


@pytest.fixture
def german() -> Iterator[None]:
    assert language.use("de") == "de"
    yield
    words.install(lambda text, about, count: None, "en", words.Marks())


@pytest.mark.parametrize("name", languages.FORMS)
def test_a_table_has_every_text_and_no_other(name: str):
    """`scripts/languages` brings them up to date."""
    assert set(TABLES[name]) == set(TEXTS)
    path = languages.FOLDER / f"nakrel_{name}.ts"
    assert path.read_text(encoding="utf-8") == languages.table(name, TEXTS, TABLES[name])[0]


def _names(text: str) -> set[str]:
    return set(re.findall(r"\{[^{}]*\}", text))


@pytest.mark.parametrize("name", languages.FORMS)
def test_what_is_filled_in_is_the_same_in_each_language(name: str):
    for text, forms in TABLES[name].items():
        assert len(forms) == (languages.FORMS[name][0] if text.counts else 1)
        for form in forms:
            # In a text for one thing its number may be a word.
            assert _names(text.text) - _names(form) <= ({"{n}"} if text.counts else set()), (text, form)
            assert _names(form) <= _names(text.text), (text, form)
            assert form.strip()
            assert text.text.endswith(" ") == form.endswith(" "), (text, form)
            assert text.text.count("\t") == form.count("\t"), (text, form)


@pytest.mark.parametrize("name", languages.FORMS)
def test_both_compiled_tables_say_what_the_translators_one_says(name: str):
    qt = QTranslator()
    assert qt.load(str(language.FOLDER / f"nakrel_{name}.qm"))
    with open(language.FOLDER / f"nakrel_{name}.mo", "rb") as file:
        other = gettext.GNUTranslations(file)
    for text, forms in TABLES[name].items():
        for count, form in zip((1, 5) if text.counts else (-1,), forms, strict=True):
            parts = languages.CONTEXT.encode(), text.text.encode(), text.about.encode() or None, count
            assert qt.translate(*parts) == form
            if text.counts:
                assert other.ngettext(text.text, text.text, count) == form
            else:
                found = other.pgettext(text.about, text.text) if text.about else other.gettext(text.text)
                assert found == form


def test_which_language_the_user_wants(monkeypatch: pytest.MonkeyPatch):
    """GNU gettext manual, 2.3: the session's language by $LC_ALL, $LC_MESSAGES and $LANG; $LANGUAGE before it, unless
    the session speaks none."""
    for name in ("NAKREL_LANGUAGE", "LANGUAGE", "LC_ALL", "LC_MESSAGES", "LANG"):
        monkeypatch.delenv(name, raising=False)
    assert list(language.wanted()) == []
    monkeypatch.setenv("LANG", "de_AT.UTF-8")
    assert list(language.wanted()) == ["de_AT", "de"]
    monkeypatch.setenv("LANG", "de_DE@euro")
    assert list(language.wanted()) == ["de_DE", "de"]
    monkeypatch.setenv("LC_MESSAGES", "en_GB.UTF-8")
    assert list(language.wanted()) == ["en_GB", "en"]
    monkeypatch.setenv("LC_ALL", "fr_FR.UTF-8")
    monkeypatch.setenv("LANGUAGE", "de:en")
    assert list(language.wanted()) == ["de", "de", "en", "en", "fr_FR", "fr"]
    monkeypatch.setenv("LC_ALL", "C")
    assert list(language.wanted()) == []
    monkeypatch.setenv("NAKREL_LANGUAGE", "de")
    assert list(language.wanted()) == ["de"]
    monkeypatch.setenv("NAKREL_LANGUAGE", "de_AT")
    assert list(language.wanted()) == ["de_AT", "de"]


@pytest.mark.usefixtures("german")
def test_the_core_says_it_in_german_with_german_numbers():
    assert shown_ms(17_500) == "17,5"
    assert words.counted(2_000, "{n} step", "{n} steps") == "2.000 Schritte"
    assert words.counted(1, "{n} step", "{n} steps") == "1 Schritt"
    with pytest.raises(LimitError, match="die Zahl der Durchläufe ist 0; möglich ist mindestens 1"):
        Play(runs=0)
    assert label("KEY_SPACE") == "Leertaste"


@pytest.mark.usefixtures("german")
def test_what_is_shown_in_german_can_be_typed_and_english_stays_readable():
    assert parse_time("17,5 ms") == parse_time("17.5") == 17_500
    assert parse_span("180 bis 420") == parse_span("180 to 420") == (180_000, 420_000)
    assert [read_control(name) for name in ("Leertaste", "umschalt links", "Space", "KEY_SPACE")] == [
        "KEY_SPACE", "KEY_LEFTSHIFT", "KEY_SPACE", "KEY_SPACE",
    ]  # fmt: skip
    labels = [label(code) for code in CONTROLS]
    for code in CONTROLS:
        if labels.count(label(code)) == 1 and label(code).casefold() not in ("links", "rechts", "runter", "hoch"):
            assert read_control(label(code)) == code, label(code)
    with pytest.raises(DataError, match="keine Zeit"):
        parse_time("bald")


@pytest.mark.usefixtures("german")
def test_combinations_are_typed_in_german_and_in_english():
    for typed in ("strg+umschalt+links", "Ctrl + Shift + Left", "steuerung + shift + links"):
        assert read_combination(typed) == ("KEY_LEFTCTRL", "KEY_LEFTSHIFT", "KEY_LEFT")
    assert read_combination("strg + linksklick") == ("KEY_LEFTCTRL", "BTN_LEFT")
    assert read_combination("alt+entf") == ("KEY_LEFTALT", "KEY_DELETE")
    assert read_combination("bild ab") == ("KEY_PAGEDOWN",)


@pytest.mark.usefixtures("german")
def test_the_notation_and_files_are_the_same_in_every_language():
    texts = {macro.id: write(macro) for macro in MACROS}
    words.install(lambda text, about, count: None, "en", words.Marks())
    assert {macro.id: write(macro) for macro in MACROS} == texts
    assert write(MACROS[0]).count(",") == write(MACROS[0]).count(", ")
    assert read_steps("wait 17.5 ms") == read_steps("wait 17,5 ms")


@pytest.mark.usefixtures("german")
def test_a_formula_with_german_names_is_read_everywhere():
    step = If(condition='held("Leertaste") and held("up") and held("KEY_Q") and held("Umschalt links")')
    kept = 'held("Space") and held("up") and held("KEY_Q") and held("Left Shift")'
    assert step.condition == kept
    assert describe(step) == 'wenn held("Leertaste") and held("Pfeil hoch") and held("Q") and held("Umschalt links")'
    [typed] = notation.read_shown_steps(notation.shown_line(step))
    assert compiled(typed.condition).controls == compiled(kept).controls  # type: ignore[union-attr]
    # A file that an earlier version wrote in a German session.
    macro = Macro(id="m", name="M", loop=(step,))
    content = files.encode(macro).replace(b"Space", b"Leertaste")
    assert b"Leertaste" in content
    assert files.decode(content, Macro, "m.json") == macro


def test_the_command_line_and_the_service_speak_the_sessions_language(tmp_path: Path):
    environment = {name: value for name, value in os.environ.items() if name not in ("LC_ALL", "NAKREL_LANGUAGE")}
    environment |= {"LANG": "de_DE.UTF-8"}

    def said(*arguments: str) -> str:
        command = [sys.executable, "-m", "nakrel", "--home", str(tmp_path), *arguments]
        done = subprocess.run(command, env=environment, capture_output=True, text=True)
        return done.stdout + done.stderr

    assert said("play", "Nope") == "nakrel: es gibt noch kein Makro\n"
    try:
        assert said("live").startswith("Everyday ist aktiv: nichts Verknüpftes läuft\n")
        assert said("pin", "everyday") == "Everyday ist aktiv und bleibt es.\n"
        # The service refuses in its own words.
        assert "kein Zeigertempo 'Aim'" in said("speed", "Aim")
    finally:
        assert said("shutdown") == "Der Dienst ist beendet, und alle Makros mit ihm.\n"


@pytest.mark.usefixtures("german")
def test_why_a_macro_ended_is_said_in_german():
    def ends(macro: Macro, *events: Event) -> list[str]:
        """Each event comes a millisecond after the one before."""
        engine, plan = Engine(), compile_macro(macro)
        cells = {"BTN_SIDE": RunMacro(macro.id)}
        sheet = Sheet.build("p", cells, lambda key: (plan, macro.play))
        told = [
            each
            for at, event in enumerate((SetSheet(sheet), *events))
            for each in engine.step(event, at * 1_000)[0]
            if isinstance(each, RunEnded)
        ]
        return [each.reason for each in told]

    down, up = Pressed("BTN_SIDE"), Released("BTN_SIDE")
    long = Macro(id="m", name="M", loop=(Wait(wait_us=1_000_000),))
    held, toggle = (msgspec.structs.replace(long, play=Play(mode)) for mode in (Mode.HELD, Mode.TOGGLE))
    again = msgspec.structs.replace(long, play=Play(Mode.SINGLE, again=Again.RESTART))
    assert ends(msgspec.structs.replace(long, loop=()), down) == ["fertig"]
    assert ends(held, down, up) == ["losgelassen"]
    assert ends(toggle, down, up, down) == ["noch einmal gedrückt"]
    assert ends(long, down, StopMacro("m")) == ["gestoppt"]
    assert ends(again, down, up, down) == ["neu begonnen"]
    assert ends(long, down, up, SetSheet(Sheet("p", {}))) == ["bearbeitet"]
    rows = [PlanRow(0, control, 1, "") for control in ("POINTER", "POINTER", "OPEN")]
    assert left_out("evemu", rows).startswith("Weggelassen: 2 Zeigerbewegungen, 1 Programm; ")


@pytest.mark.usefixtures("german")
def test_each_name_that_is_offered_is_read_back():
    assert [shown_name(code) for code in ("KEY_SPACE", "KEY_LEFT", "BTN_LEFT", "KEY_Q")] == [
        "Leertaste", "Pfeil links", "Maus links", "Q",
    ]  # fmt: skip
    assert {read_control(shown_name(code)) for code in CONTROLS} == set(CONTROLS)
    for code, control in CONTROLS.items():
        if control.kind is not Kind.WHEEL:
            step = Tap(control=code, hold_us=1_500)
            assert notation.read_shown_steps(notation.shown_line(step)) == [step], code


def _said(*arguments: str, module: str = "nakrel", **environment: str) -> str:
    ours = {name: value for name, value in os.environ.items() if name not in ("LC_ALL", "LANGUAGE", "NAKREL_LANGUAGE")}
    command = [sys.executable, "-m", module, *arguments]
    done = subprocess.run(command, env=ours | environment, capture_output=True, text=True)
    return done.stdout + done.stderr


def _without_space(text: str) -> str:
    return "".join(text.split())


def test_help_and_what_is_typed_wrongly_are_said_in_the_sessions_language():
    for setting in ({"LANG": "de_DE.UTF-8"}, {"LANG": "C", "NAKREL_LANGUAGE": "de"}):
        told = _said("type", "--help", **setting)
        assert told.startswith("Aufruf: nakrel type [OPTIONEN] TEXT\n")
        # Lines are broken where they are too long.
        assert _without_space("Zeichen in der Sekunde. [Vorgabe: 30; 1<=x<=250]") in _without_space(told)
        assert "Diesen Text zeigen und enden." in told
        assert "Fehler: Es fehlt 'MAKRO'." in _said("play", **setting)
        assert _said("window", "--help", **setting).startswith("Aufruf: nakrel window [OPTIONEN] [DATEIEN]...\n")
    assert "Übungsspiel" in _said("--help", module="nakrel.practice", LANG="de_DE.UTF-8")
    assert _said("type", "--help", LANG="en_GB.UTF-8").startswith("Usage: nakrel type [OPTIONS] TEXT\n")


@pytest.mark.parametrize("name", languages.FORMS)
def test_the_table_of_clicks_words_is_in_step_with_click(name: str):
    sources = "".join(path.read_text() for path in Path(click.__file__).parent.glob("*.py"))
    known = {
        node.value for node in ast.walk(ast.parse(sources.replace("from __future__ import annotations", "")))
        if isinstance(node, ast.Constant) and isinstance(node.value, str)
    }  # fmt: skip
    table = polib.pofile(languages.FOLDER / f"click_{name}.po")
    assert [entry.msgid for entry in table if entry.msgid not in known] == []
    assert table.untranslated_entries() == []
    for entry in table:
        for form in (entry.msgstr, *entry.msgstr_plural.values()):
            assert _names(form) <= _names(entry.msgid) | _names(entry.msgid_plural), entry.msgid
    compiled = polib.mofile(languages.FOLDER / name / "LC_MESSAGES" / "click.mo")
    assert {(each.msgid, each.msgstr) for each in compiled} == {(each.msgid, each.msgstr) for each in table}


def test_an_error_stands_by_itself_as_a_sentence():
    assert sentence("the hold is 700 s; at most 600 s") == "The hold is 700 s; at most 600 s."
    assert sentence("Done.") == "Done."
    assert sentence("keys.csv: line 1: expected a name") == "keys.csv: line 1: expected a name."
    assert sentence("such as: run > 3", stop=False) == "Such as: run > 3"
    assert sentence("") == ""
