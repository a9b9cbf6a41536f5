"""Bundles: the round trip, what is told before anything lands, and archives made to do harm."""

from __future__ import annotations

import io
import itertools
import random
import stat
import tempfile
import zipfile
from pathlib import Path

import pytest
from hypothesis import given
from msgspec.structs import replace

from nakrel.core.edit.bundle import Bundle, Clash, Contents, bundle_of, look_through, merge, visible
from nakrel.core.model.cells import RunMacro, StartProgram
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.profile import EVERYDAY, MatchBy, Profile, ProgramRule, SetUp
from nakrel.core.model.steps import Chord, Open, Press, Release, Repeat, Step, Tap, Text, walk
from nakrel.core.play.sheet import Sheet
from nakrel.demo.data import MACROS, PROFILES
from nakrel.storage import bundles, files
from nakrel.storage.bundles import read_bundle, write_bundle
from nakrel.storage.files import StorageError
from tests.strategies import macros, profiles

LIBRARY = {macro.id: macro for macro in MACROS}
OPEN = Open(command=("tide-map", "--chart"))
STRANGER = Macro(
    id="stranger",
    name="Reel in",
    play=Play(Mode.TOGGLE),
    loop=(Repeat(times=2, steps=(OPEN,)), OPEN, Text(text="hello"), Text(secret="oar")),
)
THEIRS = Profile(
    id="theirs",
    name="Tidewardens",
    programs=(ProgramRule(MatchBy.NAME, "tide"),),
    setups=(SetUp("Main", {"BTN_SIDE": RunMacro("stranger")}),),
)


@pytest.fixture
def path(tmp_path: Path) -> Path:
    return tmp_path / "shared.nakrel.zip"


def test_export_wipe_import_gives_everything_back(path: Path):
    made = bundle_of(PROFILES, LIBRARY)
    write_bundle(path, made)
    back = merge(read_bundle(path), {}, {}, Clash.KEEP, lambda: "new", live=[p.id for p in PROFILES])
    assert {p.id: p for p in back.profiles} == {p.id: p for p in PROFILES}
    used = {cell.macro for p in PROFILES for *_, cell in p.cells() if isinstance(cell, RunMacro)}
    assert {macro.id: macro for macro in back.macros} == {key: LIBRARY[key] for key in used}
    write_bundle(path.with_name("again"), made)
    assert path.read_bytes() == path.with_name("again").read_bytes()


@given(profiles, macros)
def test_any_bundle_makes_the_round_trip(profile: Profile, macro: Macro):
    cells = {"BTN_SIDE": RunMacro(macro.id), "BTN_EXTRA": RunMacro(f"{macro.id} gone")}
    some = (replace(profile, setups=(*profile.setups, SetUp("More", cells))),)
    made = bundle_of(some, {macro.id: macro})
    assert made.profiles[0].setups[-1].cells == {"BTN_SIDE": RunMacro(macro.id)}
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "b.zip"
        write_bundle(path, made)
        back = read_bundle(path)
    assert back == made


def test_what_is_inside_is_told_before_anything_lands():
    here = {p.id: p for p in PROFILES}
    found = look_through(Bundle((THEIRS,), (STRANGER,)), here, LIBRARY)
    assert found.profiles == ("Tidewardens",)
    assert [each.command for each in found.opens] == [OPEN.command] * 2
    assert found.types == (("Reel in", "hello"), ("Reel in", "the secret oar"))
    assert found.unattended == (("Reel in", "runs until it is stopped"),)
    assert found.clashes == ("Tidewardens", "Reel in")
    assert "tide" in found.programs[0]
    # What is the same in all is no clash.
    assert look_through(bundle_of(PROFILES, LIBRARY), here, LIBRARY).clashes == ()


def opens(macro: Macro) -> list[bool]:
    inside = [step for block in macro.loop if isinstance(block, Repeat) for step in block.steps]
    return [step.off for step in (*inside, *macro.loop) if isinstance(step, Open)]


@pytest.mark.parametrize(
    ("clash", "profile", "macro"),
    [
        (Clash.KEEP, ("theirs", "Tidewardens 2"), ("stranger", "Reel in 2")),
        (Clash.REPLACE, ("tidewardens", "Tidewardens"), ("reel-in", "Reel in")),
        (Clash.SKIP, None, None),
    ],
)
def test_clashes_are_kept_replaced_or_skipped(clash: Clash, profile: tuple | None, macro: tuple | None):
    bundle = Bundle((THEIRS,), (STRANGER,))
    merged = merge(bundle, {p.id: p for p in PROFILES}, LIBRARY, clash, lambda: "new")
    assert [(p.id, p.name) for p in merged.profiles] == ([profile] if profile else [])
    assert [(m.id, m.name) for m in merged.macros] == ([macro] if macro else [])
    for each in merged.profiles:
        assert each.setups[0].cells["BTN_SIDE"] == RunMacro(macro[0])  # type: ignore[index]


def test_an_id_that_is_taken_gets_another_and_the_cells_follow():
    ours = {"stranger": Macro(id="stranger", name="Ours")}
    merged = merge(Bundle((THEIRS,), (STRANGER,)), {}, ours, Clash.KEEP, lambda: "new")
    assert merged.macros[0].id == "new"
    assert merged.profiles[0].setups[0].cells["BTN_SIDE"] == RunMacro("new")
    everyday = Profile(id=EVERYDAY, name="Everyday", note="theirs")
    here = {EVERYDAY: Profile(id=EVERYDAY, name="Everyday")}
    kept = merge(Bundle((everyday,), ()), here, {}, Clash.KEEP, lambda: "new")
    assert [(p.id, p.name) for p in kept.profiles] == [("new", "Everyday 2")]


def test_steps_that_open_programs_are_off_until_they_are_allowed():
    bundle = Bundle((), (STRANGER,))
    assert opens(merge(bundle, {}, {}, Clash.KEEP, lambda: "n").macros[0]) == [True, True]
    allowed = merge(bundle, {}, {}, Clash.KEEP, lambda: "n", {OPEN.command}).macros[0]
    assert opens(allowed) == [False, False]
    assert not any(isinstance(s, Open) for s in walk(merge(bundle, {}, {}, Clash.KEEP, lambda: "n").macros[0].loop))


def archive(path: Path, *entries: tuple[str, bytes], attributes: int = 0, flags: int = 0) -> None:
    with zipfile.ZipFile(path, "w", zipfile.ZIP_DEFLATED) as out:
        for name, content in entries:
            info = zipfile.ZipInfo(name)
            info.compress_type = zipfile.ZIP_DEFLATED
            info.external_attr = attributes << 16
            info.flag_bits |= flags
            out.writestr(info, content)


HEAD = ("bundle.json", b'{"format": "nakrel-bundle", "version": 1}')
TAP = files.encode(Macro(id="m", name="M", loop=(Tap(control="KEY_Q", hold_us=5),)))


@pytest.mark.parametrize(
    ("entries", "reason"),
    [
        ([("../../.bashrc", b"x"), HEAD], "does not belong in a bundle"),
        ([("/etc/passwd", b"x"), HEAD], "does not belong in a bundle"),
        ([("macros/../../x.json", TAP), HEAD], "does not belong in a bundle"),
        ([("macros\\x.json", TAP), HEAD], "does not belong in a bundle"),
        ([("run.sh", b"x"), HEAD], "does not belong in a bundle"),
        ([("macros/" + "x" * 60_000 + ".json", TAP), HEAD], "does not belong in a bundle"),
        ([("macros/a.json", TAP)], "no bundle.json"),
        ([("bundle.json", b"{"), ("macros/a.json", TAP)], "bundle.json"),
        ([("bundle.json", b'{"format": "nakrel-bundle", "version": 9}')], "reads version 1"),
        ([("bundle.json", b'{"format": "else", "version": 1}')], "reads version 1"),
        ([HEAD, ("macros/a.json", b"[]")], "expected a JSON object"),
        ([HEAD, ("macros/a.json", TAP), ("macros/b.json", TAP)], "two things in it have the id 'm'"),
        ([HEAD, ("profiles/a.json", files.encode(THEIRS))], "plays 'stranger', which isn't in it"),
        ([HEAD, ("macros/a.json", b"[" * 100_000)], "macros/a.json"),
    ],
)
def test_hostile_and_damaged_archives_are_refused_with_the_reason(path: Path, entries: list, reason: str):
    archive(path, *entries)
    with pytest.raises(StorageError, match=reason):
        read_bundle(path)
    assert [each.name for each in path.parent.iterdir()] == [path.name]


def test_links_duplicates_bombs_and_encryption_are_refused(path: Path, monkeypatch: pytest.MonkeyPatch):
    archive(path, HEAD, ("macros/a.json", b"/etc/passwd"), attributes=stat.S_IFLNK | 0o777)
    with pytest.raises(StorageError, match="is a link"):
        read_bundle(path)
    with pytest.warns(UserWarning, match="Duplicate"):
        archive(path, HEAD, ("macros/a.json", TAP), ("macros/a.json", TAP))
    with pytest.raises(StorageError, match="is in it twice"):
        read_bundle(path)
    archive(path, HEAD, ("macros/a.json", b" " * (bundles.MAX_UNPACKED + 1)))
    assert path.stat().st_size < 1_000_000
    with pytest.raises(StorageError, match="unpacked it would be larger than 128 MB"):
        read_bundle(path)
    monkeypatch.setattr(bundles, "MAX_ENTRIES", 2)
    archive(path, HEAD, ("macros/a.json", TAP), ("macros/b.json", TAP))
    with pytest.raises(StorageError, match="more than the 2"):
        read_bundle(path)
    monkeypatch.setattr(bundles, "MAX_ARCHIVE", 10)
    with pytest.raises(StorageError, match="so it is not opened"):
        read_bundle(path)


def test_a_size_that_lies_is_not_believed(path: Path, monkeypatch: pytest.MonkeyPatch):
    monkeypatch.setattr(bundles, "MAX_UNPACKED", 5_000)
    archive(path, HEAD, ("macros/a.json", b" " * 40_000))
    content = path.read_bytes()
    # The sizes in the directory say 40 bytes.
    lying = content.replace((40_000).to_bytes(4, "little"), (40).to_bytes(4, "little"))
    assert lying != content
    path.write_bytes(lying)
    with pytest.raises(StorageError):
        read_bundle(path)


def test_damage_anywhere_is_an_error_that_names_the_file_or_leaves_what_is_read_as_it_was(path: Path):
    """A zip archive has checksums: nothing that has changed is ever read as if it were whole."""
    write_bundle(path, bundle_of(PROFILES, LIBRARY))
    original = read_bundle(path)
    refusals: list[str] = []
    whole = path.read_bytes()
    chance = random.Random(4)
    for number in range(300):
        broken = bytearray(whole)
        for _ in range(1 + number % 4):
            broken[chance.randrange(len(broken))] = chance.randrange(256)
        if number % 3 == 0:
            del broken[chance.randrange(len(broken)) :]
        path.write_bytes(bytes(broken))
        try:
            found = read_bundle(path)
        except StorageError as error:
            refusals.append(str(error))
        else:
            assert all(each in original.profiles for each in found.profiles)
            assert all(each in original.macros for each in found.macros)
    assert 200 < len(refusals) < 300
    assert all(path.name in each and len(each) < 1_000 for each in refusals)
    assert [each.name for each in path.parent.iterdir()] == [path.name]


def test_what_is_no_archive_is_told(path: Path):
    for content in (b"", b"words", io.BytesIO(TAP).getvalue()):
        path.write_bytes(content)
        with pytest.raises(StorageError, match="no zip archive, or it is damaged"):
            read_bundle(path)
    with pytest.raises(StorageError, match="can't be read: it isn't there"):
        read_bundle(path.with_name("gone"))
    assert len(list(itertools.islice(path.parent.iterdir(), 5))) == 1


def look(*steps: Step, play: Play = Play(), **profile: object) -> Contents:  # noqa: B008 - frozen
    macro = Macro(id="m", name="M", play=play, loop=steps)
    return look_through(Bundle((Profile(id="p", name="P", **profile),), (macro,)), {}, {})  # type: ignore[arg-type]


def test_signs_that_mislead_are_written_out():
    """Direction overrides and isolates, and other format signs (Unicode 15, UAX 9)."""
    found = look(Text(text="rm \u202egnihton\u202c \u200b\x1b[2J\n~"))
    assert found.types == (("M", "rm ‹U+202E›gnihton‹U+202C› ‹U+200B›‹U+001B›[2J‹U+000A›~"),)
    assert visible("Ærøskøbing 漁 🐟") == "Ærøskøbing 漁 🐟"


def test_what_is_switched_off_is_told_too_and_comes_off():
    off = Open(command=("harpoon",), off=True)
    inside = Repeat(times=2, off=True, steps=(Text(text="hidden"), Open(command=("anchor",))))
    found = look(off, inside)
    assert [(each.where, each.command) for each in found.opens] == [
        ("M, off", ("harpoon",)),
        ("M, off", ("anchor",)),
    ]
    assert found.types == (("M, off", "hidden"),)
    macro = Macro(id="m", name="M", loop=(off, inside))
    merged = merge(Bundle((), (macro,)), {}, {}, Clash.KEEP, lambda: "new", allowed=[("harpoon",), ("anchor",)])
    assert merged.macros == (macro,)


@pytest.mark.parametrize(
    ("play", "told"),
    [
        (Play(Mode.COUNTED, runs=1_000_000), "plays 1,000,000 times"),
        (Play(Mode.TOGGLE), "runs until it is stopped"),
        (Play(Mode.TOGGLE, limit_runs=50_000), "plays up to 50,000 times"),
        (Play(Mode.COUNTED, runs=5), ""),
    ],
)
def test_what_goes_on_without_anybody_is_told_for_macros_and_buttons(play: Play, told: str):
    found = look(Tap(control="KEY_Q", hold_us=1_000), play=play)
    assert [why for _, why in found.unattended] == [told] * bool(told)
    found = look(setups=(SetUp("Main", {"BTN_SIDE": RunMacro("m", play)}),))
    assert [why for _, why in found.unattended] == [told] * bool(told)


@pytest.mark.parametrize(
    ("steps", "told"),
    [
        ((Chord(controls=("KEY_LEFTALT", "KEY_F2"), hold_us=1_000), Text(text="xterm")), "Alt + F2"),
        ((Press(control="KEY_LEFTALT"), Tap(control="KEY_F2", hold_us=1), Release(control="KEY_LEFTALT")), "Alt + F2"),
        ((Tap(control="KEY_LEFTMETA", hold_us=1_000),), "the Super key"),
        ((Chord(controls=("KEY_LEFTCTRL", "KEY_LEFTALT", "KEY_T"), hold_us=1),), "Ctrl + Alt and another key"),
        ((Tap(control="KEY_F2", hold_us=1_000),), ""),
    ],
)
def test_keys_that_work_the_desktop_are_told(steps: tuple[Step, ...], told: str):
    assert [what for _, what in look(*steps).desktop] == [f"presses {told}"] * bool(told)


def test_links_to_what_always_runs_are_pointed_out():
    always = [ProgramRule(MatchBy.NAME, name) for name in ("bash", "gnome-shell", "plasmashell", "kwin_x11", "python3")]
    found = look(programs=(*always, ProgramRule(MatchBy.PATH, "/opt/kiln/kiln")))
    assert ["nearly all the time" in line for line in found.programs] == [True] * 5 + [False]


def test_a_profile_from_outside_waits_and_a_program_that_is_not_allowed_stays_as_a_button_that_is_off():
    cells = {"BTN_SIDE": StartProgram(("harpoon", "--now")), "BTN_EXTRA": StartProgram(("anchor",))}
    rule = ProgramRule(MatchBy.NAME, "kiln")
    theirs = Profile(id="kiln", name="Kiln", programs=(rule,), setups=(SetUp("Main", cells),))
    merged = merge(Bundle((theirs,), ()), {}, {}, Clash.KEEP, lambda: "new", allowed=[("anchor",)])
    (landed,) = merged.profiles
    assert not landed.allowed
    assert (landed.programs, landed.live_with) == ((rule,), ())
    assert landed.setups[0].cells == {
        "BTN_SIDE": StartProgram(("harpoon", "--now"), off=True),
        "BTN_EXTRA": cells["BTN_EXTRA"],
    }
    sheet = Sheet.build("p", landed.setups[0].cells, lambda key: None)
    assert sheet.actions["BTN_SIDE"].plan is None
    assert sheet.actions["BTN_EXTRA"].plan is not None
    allowed = merge(Bundle((theirs,), ()), {}, {}, Clash.KEEP, lambda: "new", live=["kiln"])
    assert allowed.profiles[0].live_with == (rule,)
    # What is there already stays as it is, and as allowed as it was.
    again = merge(Bundle((theirs,), ()), {"kiln": theirs}, {}, Clash.REPLACE, lambda: "new")
    assert again.profiles == ()


def test_nobody_elses_everyday_takes_the_place_of_ones_own_unless_it_may_be_live():
    mine = Profile(id=EVERYDAY, name="Everyday")
    theirs = Profile(id=EVERYDAY, name="Everyday", note="theirs")
    merged = merge(Bundle((theirs,), ()), {EVERYDAY: mine}, {}, Clash.REPLACE, lambda: "new")
    assert [(each.id, each.name) for each in merged.profiles] == [("new", "Everyday 2")]
    merged = merge(Bundle((theirs,), ()), {EVERYDAY: mine}, {}, Clash.REPLACE, lambda: "new", live=[EVERYDAY])
    assert [each.id for each in merged.profiles] == [EVERYDAY]
