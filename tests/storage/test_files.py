"""Files: saved and loaded they are the same, damaged ones are named and set aside, and a save is all or nothing."""

from __future__ import annotations

import json
import os
from pathlib import Path

import jsonschema
import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from nakrel.core.model.cells import RunSystemAction, SystemAction, ToControl
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import EVERYDAY, FairPlay, Profile, SetUp
from nakrel.core.model.settings import Settings
from nakrel.core.model.steps import Tap
from nakrel.demo.data import MACROS, PROFILES
from nakrel.demo.seed import seed
from nakrel.storage import files
from nakrel.storage.files import StorageError
from nakrel.storage.home import Home
from nakrel.storage.library import KEPT_VERSIONS, Library
from nakrel.storage.schemas import schemas
from tests.strategies import macros, profiles

DOCS = Path(__file__).parents[2] / "docs" / "schemas"


@given(macros)
def test_a_macro_reads_back_as_it_was(macro: Macro):
    assert files.decode(files.encode(macro), Macro, "x") == macro


@given(profiles)
def test_a_profile_reads_back_as_it_was(profile: Profile):
    assert files.decode(files.encode(profile), Profile, "x") == profile


json_values = st.recursive(
    st.none() | st.booleans() | st.integers(-(2**70), 2**70) | st.floats() | st.text(max_size=8),
    lambda inner: st.lists(inner, max_size=4) | st.dictionaries(st.sampled_from(["id", "name", "loop", "x"]), inner),
    max_leaves=12,
)


@given(st.binary(max_size=80) | json_values.map(lambda value: json.dumps(value).encode()))
def test_any_bytes_load_or_raise_the_one_error(content: bytes):
    for kind in (Macro, Profile, Settings):
        with pytest.raises(StorageError, match="^somewhere: "):
            files.decode(content, kind, "somewhere")


def macro_text(**changes: object) -> bytes:
    body = {"format": "nakrel-macro", "version": 1, "id": "m", "name": "M", "loop": [{"step": "wait", "wait_us": 5}]}
    return json.dumps(body | changes).encode()


@pytest.mark.parametrize(
    ("changes", "complaint"),
    [
        (
            {"loop": [{"step": "tap", "control": "KEY_ENTR", "hold_us": 5}]},
            r"unknown key or button 'KEY_ENTR'.*KEY_ENTER.*\$\.loop\[0\]",
        ),
        ({"loop": [{"step": "wait", "wait_us": -1}]}, r">= 0 - at `\$\.loop\[0\]\.wait_us`"),
        ({"loop": [{"step": "wait", "wait_us": 600_000_001}]}, r"<= 600000000 - at `\$\.loop\[0\]\.wait_us`"),
        (
            {"loop": [{"step": "wait", "wait_us": True}]},
            r"Expected `int \| str`, got `bool` - at `\$\.loop\[0\]\.wait_us`",
        ),
        ({"loop": [{"step": "wait", "wait_us": "5 +"}]}, r"formula.*\$\.loop\[0\]"),
        ({"loop": [{"step": "wobble"}]}, r"'wobble' - at `\$\.loop\[0\]\.step`"),
        ({"loop": [{"step": "press", "control": "WHEEL_UP"}]}, r"wheel direction.*\$\.loop\[0\]"),
        ({"play": {"mode": "counted", "runs": 0}}, r">= 1 - at `\$\.play\.runs`"),
        ({"play": {"mode": "counted", "runs": 1_000_001}}, r"<= 1000000 - at `\$\.play\.runs`"),
        ({"nmae": "x"}, "nmae"),
        ({"version": 6}, r"reads version 5.*6.*\$\.version"),
        ({"format": "else"}, r"\$\.format"),
    ],
)
def test_a_wrong_file_is_named_with_the_place_and_what_was_expected(changes: dict[str, object], complaint: str):
    with pytest.raises(StorageError, match=r"^M\.json: .*" + complaint):
        files.decode(macro_text(**changes), Macro, "M.json")


def test_the_last_click_cannot_be_taken_away():
    with pytest.raises(msgspec.ValidationError, match="no way to click"):
        msgspec.convert({"name": "S", "cells": {"BTN_LEFT": {"does": "nothing"}}}, SetUp)
    msgspec.convert(
        {
            "name": "S",
            "cells": {"BTN_LEFT": {"does": "nothing"}, "BTN_SIDE": {"does": "control", "control": "BTN_LEFT"}},
        },
        SetUp,
    )


def test_damaged_files_are_set_aside_and_the_rest_is_loaded(tmp_path: Path):
    home = Home.find(tmp_path)
    seed(home)
    (home.macros / "Reel in.json").write_text("{ not json")
    (home.profiles / "Orrery Post.json").write_bytes(b"\xff\xfe")
    home.settings.write_text('{"format": "nakrel-settings", "version": 1, "look": "pink"}')
    library = Library(home)
    library.load()
    assert set(library.macros) == {m.id for m in MACROS} - {"reel-in"}
    assert set(library.profiles) == {p.id for p in PROFILES} - {"orrery-post"}
    assert len(library.faults) == 3
    assert all("set aside as" in fault for fault in library.faults)
    assert (home.macros / "Reel in.json.damaged").read_text() == "{ not json"
    # A new macro of the same name doesn't touch what was set aside, and a second damage gets a name of its own.
    library.put_macro(MACROS[0])
    (home.macros / "Reel in.json").write_text("broken again")
    Library(home).load()
    assert (home.macros / "Reel in.json.damaged-2").read_text() == "broken again"


def test_two_files_with_one_id_do_not_overwrite_each_other(tmp_path: Path):
    home = Home.find(tmp_path)
    for name in ("A", "B"):
        files.write(home.macros / f"{name}.json", macro_text(name=name))
    library = Library(home)
    library.load()
    assert library.macros["m"].name == "A"
    assert "has the id 'm' of A.json" in library.faults[0]


@pytest.mark.parametrize("name", ["ほうき", "a/b", "..", ".hidden", "x" * 120, "𝔫" * 120, "C:\\CON", "tab\there", "  "])
def test_names_in_any_script_get_a_file_of_their_own(tmp_path: Path, name: str):
    home = Home.find(tmp_path)
    library = Library(home)
    library.load()
    for key in ("one", "two"):
        library.put_macro(Macro(id=key, name=name))
    again = Library(home)
    again.load()
    assert {key: m.name for key, m in again.macros.items()} == {"one": name, "two": name}
    assert all(path.parent == home.macros for path in home.config.rglob("*.json") if path.parent.name != "profiles")


def test_renaming_moves_the_file_and_deleting_keeps_the_versions(tmp_path: Path):
    home = Home.find(tmp_path)
    library = Library(home)
    library.load()
    for n in range(KEPT_VERSIONS + 5):
        library.put_macro(Macro(id="m", name=f"Name {n}", loop=(Tap(control="KEY_Q", hold_us=n),)))
    assert [path.name for path in home.macros.iterdir()] == [f"Name {KEPT_VERSIONS + 4}.json"]
    library.delete_macro("m")
    assert list(home.macros.iterdir()) == []
    kept = [files.read(path, Macro).loop[0].hold_us for path in library.versions(Macro, "m")]
    assert kept == list(range(5, KEPT_VERSIONS + 5))


def test_a_file_that_can_not_get_its_new_name_has_the_new_content_all_the_same(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
):
    """Never are there two files of one thing, of which the older might be read at the next start."""
    home = Home.find(tmp_path)
    library = Library(home)
    library.load()
    library.put_macro(Macro(id="m", name="A", note="old"))
    replace, calls = os.replace, []

    def fail_at_the_second(*arguments: object, **more: object) -> None:
        calls.append(arguments)
        if len(calls) == 2:
            raise OSError(30, "Read-only file system")
        replace(*arguments, **more)

    monkeypatch.setattr(os, "replace", fail_at_the_second)
    library.put_macro(Macro(id="m", name="B", note="new"))
    monkeypatch.undo()
    assert [path.name for path in home.macros.iterdir()] == ["A.json"]
    again = Library(home)
    again.load()
    assert (again.macros["m"].note, again.faults) == ("new", [])
    again.put_macro(Macro(id="m", name="B", note="newer"))
    assert [path.name for path in home.macros.iterdir()] == ["B.json"]


def test_everyday_is_always_there(tmp_path: Path):
    library = Library(Home.find(tmp_path))
    library.load()
    assert EVERYDAY in library.profiles


@pytest.mark.parametrize("broken", ["write", "fsync", "replace"])
def test_an_interrupted_save_leaves_the_old_content(tmp_path: Path, monkeypatch: pytest.MonkeyPatch, broken: str):
    home = Home.find(tmp_path)
    library = Library(home)
    library.load()
    library.put_macro(Macro(id="m", name="M", note="old"))

    def fail(*arguments: object, **more: object) -> None:
        raise OSError(28, "No space left on device")

    if broken == "write":
        monkeypatch.setattr("tempfile.mkstemp", fail)
    else:
        monkeypatch.setattr(os, broken, fail)
    with pytest.raises(StorageError, match=r"M\.json: can't be saved: the disk is full.*earlier version is untouched"):
        library.put_macro(Macro(id="m", name="M", note="new"))
    assert library.macros["m"].note == "old"
    monkeypatch.undo()
    assert files.read(home.macros / "M.json", Macro).note == "old"
    assert [path.name for path in home.macros.iterdir()] == ["M.json"]


@pytest.mark.parametrize(("kind", "items"), [("macro", MACROS), ("profile", PROFILES)])
def test_saved_files_fit_the_published_schema(kind: str, items: tuple[Macro | Profile, ...]):
    """Checked by an independent reader of JSON Schema (draft 2020-12), which also finds what is wrong."""
    validator = jsonschema.Draft202012Validator(json.loads((DOCS / f"{kind}.schema.json").read_text()))
    for item in items:
        validator.validate(json.loads(files.encode(item)))
    broken = json.loads(files.encode(items[-1])) | {"name": ""}
    assert not validator.is_valid(broken)


@pytest.mark.parametrize("name", sorted(schemas()))
def test_the_published_schemas_are_those_of_the_code(name: str):
    assert json.loads((DOCS / name).read_text()) == json.loads(json.dumps(schemas()[name]))


def test_what_a_button_does_with_the_desktop_is_read_from_the_words_of_version_3(tmp_path: Path):
    """Up to version 3 a file had the window's own words for it (values from memory of what that version wrote)."""
    words = {"BTN_SIDE": "louder", "BTN_EXTRA": "lock the screen", "KEY_F13": "stop everything"}
    cells = {code: {"does": "action", "deed": deed} for code, deed in words.items()}
    setups = [{"name": "Main", "cells": cells, "layers": [{"name": "Up", "cells": {"KEY_Q": cells["BTN_SIDE"]}}]}]
    path = tmp_path / "Old.json"
    path.write_text(
        json.dumps({"format": "nakrel-profile", "version": 3, "id": "old", "name": "Old", "setups": setups})
    )
    setup = files.read(path, Profile).setups[0]
    found = [setup.cells[code] for code in words]
    assert found == [RunSystemAction(a) for a in (SystemAction.LOUDER, SystemAction.LOCK, SystemAction.STOP)]
    assert setup.layers[0].cells == {"KEY_Q": RunSystemAction(SystemAction.LOUDER)}
    assert b'"action": "lock"' in files.encode(files.read(path, Profile))


def test_a_profile_of_the_first_version_is_read_as_it_was_meant(tmp_path: Path):
    """A file as the first version wrote it: without what came later, and with two variants of one name."""
    path = tmp_path / "old.json"
    setups = [{"name": "Main", "cells": {"BTN_SIDE": {"does": "control", "control": "KEY_Q"}}}, {"name": "Main"}]
    body = {"format": "nakrel-profile", "version": 1, "id": "old", "name": "Old", "setups": setups}
    path.write_text(json.dumps(body))
    found = files.read(path, Profile)
    assert [setup.name for setup in found.setups] == ["Main", "Main 2"]
    assert found.setups[0].cells == {"BTN_SIDE": ToControl("KEY_Q")}
    assert (found.keys, found.fair_play, found.falls_through) == ((), FairPlay.ANYTHING, False)
    # Written anew it is of this version, and the same.
    path.write_bytes(files.encode(found))
    assert json.loads(path.read_text())["version"] == files.VERSION
    assert files.read(path, Profile) == found
