"""Files that strangers, other versions and accidents leave: a clear error each, and nothing is lost or waited for."""

from __future__ import annotations

import json
import os
import random
import stat
from collections.abc import Callable
from pathlib import Path

import pytest

from nakrel.backends.applications import applications
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import EVERYDAY, Profile
from nakrel.core.model.settings import Settings
from nakrel.core.model.steps import Tap
from nakrel.core.play.simulate import plan
from nakrel.storage import files
from nakrel.storage.files import StorageError
from nakrel.storage.home import Home
from nakrel.storage.library import Library
from nakrel.storage.recordings import read_recording, to_libinput

TAP = Macro(id="m", name="M", loop=(Tap(control="KEY_Q", hold_us=20_000),))
LIBINPUT = to_libinput(TAP, plan(TAP, TAP.play))
EVENTS = "devices:\n- events:\n  - evdev:\n    - [{}]\n"


def error_of(path: Path) -> str:
    """The error of the recording, '' where it is read; any other exception goes on."""
    try:
        read_recording(path)
    except DataError as error:
        return str(error)
    return ""


def many_aliases() -> str:
    lines = ["a0: &a0 [x, x, x, x, x, x, x, x, x, x]"]
    lines += [f"a{n}: &a{n} [{', '.join([f'*a{n - 1}'] * 10)}]" for n in range(1, 12)]
    return "\n".join([*lines, "devices: *a11"])


@pytest.mark.parametrize(
    "text",
    [
        "\n" * 80_000,
        "E:" + "\n" * 80_000,
        "devices:\n" + "  " * 40_000,
        many_aliases(),
        "devices: " + "[" * 5_000 + "]" * 5_000,
        "devices: &a\n- events: *a\n",
        EVENTS.format(f"0, {'9' * 5_000}, 1, 16, 1"),
        EVENTS.format(".inf, 0, 1, 16, 1"),
        EVENTS.format(".nan, 0, 1, 16, 1"),
        f"E: {'9' * 5_000}.000001 0001 0010 0001",
        "E: 0.000001 0001 0010 " + "9" * 5_000,
        "time_us,control,value\n1,KEY_Q," + "1" * 140_000,
        'time_us,control,value\n"1\n' * 3,
        "time_us,control,valued\n1,KEY_Q,1",
        "time_us,control,value\n1,KEY_Q",
        f"time_us,control,value\n1,KEY_Q,{'9' * 5_000}",
        "time_us,control,value\n1,KEY_Q,1,2,3,4",
        "",
        "\0" * 100,
    ],
)
def test_a_recording_that_is_none_is_told_shortly(tmp_path: Path, text: str):
    path = tmp_path / "take.txt"
    path.write_text(text)
    error = error_of(path)
    # A table with more columns than are used is none the worse for it.
    assert text.endswith("2,3,4") or str(path) in error
    assert len(error) < 500


@pytest.mark.parametrize("seed", range(20))
def test_damage_of_a_recording_is_an_error_or_fewer_steps_and_nothing_else(tmp_path: Path, seed: int):
    chance, path = random.Random(seed), tmp_path / "take.yml"
    for _ in range(15):
        content = bytearray(LIBINPUT.encode())
        for _ in range(chance.randint(1, 8)):
            at = chance.randrange(len(content))
            match chance.randrange(3):
                case 0:
                    content[at] = chance.randrange(256)
                case 1:
                    del content[at : at + chance.randrange(40)]
                case _:
                    content[at:at] = chance.choice([b"*a", b"&a ", b"- [", b"\n\n", b": ", b"9" * 50, b"!!python/x "])
        path.write_bytes(content)
        error = error_of(path)
        assert not error or str(path) in error


def test_a_byte_order_mark_is_read_over(tmp_path: Path):
    path = tmp_path / "take.yml"
    path.write_bytes(b"\xef\xbb\xbf" + LIBINPUT.encode())
    assert read_recording(path)


def put_pipe(path: Path) -> None:
    os.mkfifo(path)


def put_endless(path: Path) -> None:
    path.symlink_to("/dev/zero")


def put_folder(path: Path) -> None:
    path.mkdir()


@pytest.mark.parametrize("put", [put_pipe, put_endless, put_folder])
def test_what_is_no_ordinary_file_is_neither_waited_for_nor_read_to_its_end(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, put: Callable[[Path], None]
):
    put(tmp_path / "take.yml")
    with pytest.raises(DataError, match="take.yml"):
        read_recording(tmp_path / "take.yml")
    home = Home.find(tmp_path / "home")
    home.macros.mkdir(parents=True)
    put(home.macros / "Endless.json")
    library = Library(home)
    library.load()
    assert any("Endless.json" in fault for fault in library.faults)
    folder = tmp_path / "share" / "applications"
    folder.mkdir(parents=True)
    put(folder / "endless.desktop")
    (folder / "lantern.desktop").write_text("[Desktop Entry]\nType=Application\nName=Lantern\nExec=sh\n")
    (folder / "nul.desktop").write_bytes(b"[Desktop Entry]\nType=Application\nName=N\0ul\nExec=s\0h\n")
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "share"))
    monkeypatch.setenv("XDG_DATA_DIRS", str(tmp_path / "none"))
    assert "Lantern" in [each.name for each in applications()]


def library_in(tmp_path: Path) -> Library:
    library = Library(Home.find(tmp_path / "home"))
    library.load()
    return library


def test_a_file_of_a_later_version_is_left_where_it_is(tmp_path: Path):
    library = library_in(tmp_path)
    library.put_macro(Macro(id="m", name="Reel"))
    library.put_settings(Settings(layout="de"))
    for path in (library.home.macros / "Reel.json", library.home.settings):
        content = json.loads(path.read_text()) | {"version": files.VERSION + 1, "tide": "high"}
        path.write_text(json.dumps(content))
    before = {path: path.read_bytes() for path in (library.home.macros / "Reel.json", library.home.settings)}
    again = library_in(tmp_path)
    assert [fault for fault in again.faults if "later Nakrel wrote it" in fault and "left where it is" in fault]
    assert len(again.faults) == 2
    # Nothing is written over it, whatever is saved.
    again.put_macro(Macro(id="other", name="Reel"))
    with pytest.raises(StorageError, match="can't be saved"):
        again.put_settings(Settings(layout="us"))
    assert {path: path.read_bytes() for path in before} == before


@pytest.mark.skipif(os.getuid() == 0, reason="root may read everything")
def test_a_file_without_permission_is_left_where_it_is(tmp_path: Path):
    library = library_in(tmp_path)
    library.put_macro(Macro(id="m", name="Reel"))
    path = library.home.macros / "Reel.json"
    path.chmod(0)
    again = library_in(tmp_path)
    assert "left where it is" in again.faults[0]
    path.chmod(stat.S_IRUSR | stat.S_IWUSR)
    assert "m" in library_in(tmp_path).macros


def test_a_folder_without_permission_is_told_of_and_the_rest_is_loaded(tmp_path: Path, monkeypatch: pytest.MonkeyPatch):
    library = library_in(tmp_path)
    library.put_macro(Macro(id="m", name="Reel"))
    real = os.listdir

    def listdir(path: Path) -> list[str]:
        if path == library.home.macros:
            raise PermissionError(13, "Permission denied")
        return real(path)

    monkeypatch.setattr(os, "listdir", listdir)
    again = library_in(tmp_path)
    assert again.faults == [f"{library.home.macros}: can't be read: no permission."]
    assert EVERYDAY in again.profiles
    monkeypatch.undo()
    assert "m" in library_in(tmp_path).macros


def test_what_cut_short_saves_left_is_taken_away_at_the_start(tmp_path: Path):
    library = library_in(tmp_path)
    library.put_macro(Macro(id="m", name="Reel"))
    home = library.home
    left = [home.config, home.macros, home.profiles, home.history / "macros" / "m", home.takes, home.tunings]
    for folder in left:
        folder.mkdir(exist_ok=True)
        (folder / ".saving-x1y2z3").write_text("{")
    library_in(tmp_path)
    assert not [path for folder in left for path in folder.glob(".saving-*")]


def test_a_stray_file_in_a_history_fails_no_edit(tmp_path: Path):
    library = library_in(tmp_path)
    library.put_macro(Macro(id="m", name="Reel"))
    (library.home.history / "macros" / "m" / "notes.json").write_text("{}")
    library.put_macro(Macro(id="m", name="Reel", note="newer"))
    assert [item.note for _, item in library.kept(Macro, "m")] == ["newer", ""]


def test_ids_that_look_alike_as_names_have_a_history_each(tmp_path: Path):
    library = library_in(tmp_path)
    for key in ("a\\b", "a-b", "a:b"):
        library.put_macro(Macro(id=key, name=f"Macro {key}"))
    for key in ("a\\b", "a-b", "a:b"):
        assert [item.id for _, item in library.kept(Macro, key)] == [key]


def test_an_error_text_is_short(tmp_path: Path):
    path = tmp_path / "m.json"
    path.write_text(json.dumps({"format": "nakrel-macro", "version": 1, "id": "m", "name": "M", "x" * 100_000: 1}))
    with pytest.raises(StorageError) as caught:
        files.read(path, Macro)
    assert len(str(caught.value)) < 600


def test_a_library_with_a_byte_order_mark_is_read(tmp_path: Path):
    library = library_in(tmp_path)
    library.put_profile(Profile(id="kiln", name="Kiln"))
    path = library.home.profiles / "Kiln.json"
    path.write_bytes(b"\xef\xbb\xbf" + path.read_bytes())
    assert set(library_in(tmp_path).profiles) == {EVERYDAY, "kiln"}
