"""Links between profiles and programs, and the choice of the live profile."""

from __future__ import annotations

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from nakrel.core.model.profile import EVERYDAY, MatchBy, ProgramRule
from nakrel.core.model.programs import (
    Application,
    Front,
    Links,
    Program,
    called,
    choose,
    file_of,
    is_background,
    launched_by,
    matches,
    rule_for_application,
    rule_for_file,
    suggest_rule,
    value_of,
)

GAME = Program(10, "tidewardens.x86", "/games/tide/tidewardens.x86_64", ("./tidewardens.x86_64", "-w"), 1_000)
OTHER = Program(11, "orrery-post", "/usr/bin/python3.11", ("python3", "/opt/orrery-post"), 2_000)


NOTHING = Front()


def by_name(name: str) -> tuple[ProgramRule, ...]:
    return (ProgramRule(MatchBy.NAME, name),)


def test_rules():
    assert matches(ProgramRule(MatchBy.PATH, GAME.path), GAME)
    assert matches(ProgramRule(MatchBy.COMMAND, "/opt/orrery"), OTHER)
    # The kernel cuts a process's name at 15 characters (proc(5), /proc/pid/comm).
    assert matches(*by_name("tidewardens.x86_64"), GAME)
    assert not matches(*by_name("tidewardens"), GAME)
    assert not matches(*by_name("orrery-post-2"), OTHER)


def test_a_suggested_rule_finds_its_program_and_not_its_interpreter():
    assert suggest_rule(GAME) == ProgramRule(MatchBy.PATH, GAME.path)
    assert suggest_rule(OTHER) == ProgramRule(MatchBy.NAME, "orrery-post")
    assert matches(suggest_rule(OTHER), OTHER)


@pytest.mark.parametrize(
    ("path", "command", "expected"),
    [
        # Called by a link to it: neither its name nor its file's is the game's.
        ("/usr/bin/python3.11", "python /games/keel/keel_duel.py", "/games/keel/keel_duel.py"),
        ("/usr/bin/python3.11", "python -X dev -u keel_duel.py --fast", "keel_duel.py"),
        ("/usr/bin/python3.11", "python -W ignore -m keel.duel", "-m keel.duel"),
        ("/usr/lib/jvm/bin/java", "java -Xmx2G -jar /games/kiln.jar", "/games/kiln.jar"),
        ("/usr/lib/jvm/bin/java", "java -cp a.jar:b.jar -Dx=y kiln.client.Main --demo", "kiln.client.Main"),
    ],
)
def test_what_an_interpreter_runs_tells_it_from_others_of_its_name(path: str, command: str, expected: str):
    words = tuple(command.split())
    program = Program(20, words[0], path, words, window_class="Keel")
    rule = suggest_rule(program)
    assert rule == ProgramRule(MatchBy.COMMAND, expected)
    assert called(program) == expected.removeprefix("-m ").rpartition("/")[2]
    assert matches(rule, program)
    assert not matches(rule, Program(21, words[0], path, (words[0], "other.py")))


def test_an_interpreted_program_whose_command_says_nothing_is_found_by_its_window():
    program = Program(20, "python", "/usr/bin/python3.11", ("python", "-c", "import keel"), window_class="Keel")
    assert suggest_rule(program) == ProgramRule(MatchBy.WINDOW, "Keel")
    assert suggest_rule(msgspec.structs.replace(program, window_class="")) == ProgramRule(MatchBy.NAME, "python")
    assert (called(program), called(GAME), called(OTHER)) == ("python", GAME.name, OTHER.name)


def test_what_starts_a_program_again_is_no_interpreter_alone():
    assert file_of(GAME) == GAME.path
    assert file_of(OTHER) == "/opt/orrery-post"
    windows = Program(12, "game.exe", "/usr/bin/wine64-preloader", ("C:\\games\\game.exe",))
    archive = Program(13, "java", "/usr/bin/java", ("java", "-cp", "game.jar", "Main"))
    assert file_of(windows) == file_of(archive) == ""
    # For a shell -e is a flag.
    assert file_of(Program(16, "kiln", "/usr/bin/dash", ("/bin/sh", "-e", "/games/kiln"))) == "/games/kiln"
    assert file_of(Program(16, "perl", "/usr/bin/perl", ("perl", "-e", "print 1"))) == ""
    # Its name only begins as that of one that runs others.
    shovel = Program(14, "shovel", "/games/shovel", ("./shovel",))
    assert file_of(shovel) == shovel.path
    assert suggest_rule(shovel) == ProgramRule(MatchBy.PATH, shovel.path)
    for name in ("python3.11", "wine64-preloader", "mono-sgen", "nodejs", "java", "sh"):
        assert file_of(Program(15, name, f"/usr/bin/{name}", (name, "/opt/game"))) == "/opt/game"


def chosen(rules, programs, front=NOTHING, pinned=""):
    links = Links(rules)
    return choose(links, [(key, program) for program in programs for key in links.of(program)], front, pinned)


def test_pinned_then_in_front_then_started_last_then_everyday():
    rules = {"tide": by_name("tidewardens.x86_64"), "post": by_name("orrery-post"), EVERYDAY: ()}
    assert chosen(rules, [GAME, OTHER], Front(10), "post")[:2] == ("post", "pinned")
    assert chosen(rules, [GAME, OTHER], Front(10)).profile == "tide"
    assert chosen(rules, [GAME, OTHER], Front(99)).profile == "post"
    assert chosen(rules, [GAME], Front(99)).profile == "tide"
    assert chosen(rules, []).profile == EVERYDAY


# A compatibility layer starts the game's .exe; the path has a drive letter and backslashes, and the process's own
# executable is the layer's loader (common practice, no published source).
WINDOWS = Program(
    12, "Kiln.exe", "/opt/layer/bin/loader64", (r"Z:\games\kiln\Kiln.exe", "-fullscreen"), 3_000, title="Kiln Race"
)
LAYER = Program(13, "loader64", "/opt/layer/bin/loader64", ("/opt/layer/bin/loader64", "C:/windows/system32/sys.exe"))
BOXED = Program(14, "kelp", "/app/bin/kelp", ("kelp",), 4_000, application="FLATPAK_ID=org.example.Kelp")
WINDOWED = msgspec.structs.replace(BOXED, window_class="Kelp-Garden")


def test_rules_for_windows_programs_applications_and_windows():
    assert WINDOWS.windows_program == "Kiln.exe"
    assert LAYER.windows_program == "sys.exe"
    assert GAME.windows_program == ""
    exe = ProgramRule(MatchBy.WINDOWS_PROGRAM, "kiln.EXE")
    assert matches(exe, WINDOWS)
    assert not matches(exe, LAYER)
    assert suggest_rule(WINDOWS) == ProgramRule(MatchBy.WINDOWS_PROGRAM, "Kiln.exe")
    assert matches(ProgramRule(MatchBy.APPLICATION, "FLATPAK_ID=org.example.Kelp"), BOXED)
    assert not matches(ProgramRule(MatchBy.WINDOW, "kelp-garden"), BOXED)
    assert matches(ProgramRule(MatchBy.WINDOW, "kelp-garden"), WINDOWED)
    for by in MatchBy:
        value = value_of(WINDOWED if by is not MatchBy.WINDOWS_PROGRAM else WINDOWS, by)
        assert matches(ProgramRule(by, value), WINDOWED if by is not MatchBy.WINDOWS_PROGRAM else WINDOWS)


def test_a_window_that_hides_its_process_is_known_by_its_class():
    rules = {"kelp": (ProgramRule(MatchBy.WINDOW, "Kelp-Garden"),)}
    assert chosen(rules, [GAME], Front(0, "Kelp-Garden"))[:2] == ("kelp", "Kelp-Garden is in front")
    assert chosen(rules, [GAME], Front(0, "other")).profile == EVERYDAY


words = st.sampled_from(["kelp", "kiln", "tidewardens.x86_64", "tidewardens.x86", "Kiln.exe", "KILN.exe", "/app/kelp"])
programs = st.builds(
    Program,
    st.integers(1, 9),
    words,
    words,
    st.lists(words, max_size=3).map(tuple),
    window_class=words,
    application=words,
)
rules = st.dictionaries(
    st.sampled_from("abcd"), st.lists(st.builds(ProgramRule, st.sampled_from(MatchBy), words), max_size=4), max_size=4
)


@given(rules, programs)
def test_links_find_what_trying_each_rule_finds(some: dict[str, list[ProgramRule]], program: Program):
    slow = [key for key, own in some.items() if any(matches(rule, program) for rule in own)]
    assert Links(some).of(program) == slow


def test_a_launcher_is_told_by_what_it_has_started():
    launcher = Program(20, "kiln-launcher", "/usr/bin/dash", ("/bin/sh", "/opt/kiln-launcher"), 1)
    helper = Program(21, "updater", "/opt/updater", ("updater",), 9, parent=20)
    game = Program(22, "kiln", "/opt/kiln", ("kiln",), 5, parent=21, title="Kiln Race")
    reporter = Program(23, "kiln", "/opt/kiln", ("kiln", "--report"), 12, parent=22)
    everything = [launcher, helper, game, reporter, GAME]
    assert launched_by(launcher, everything) == game
    # What a game starts of itself is no other game.
    assert launched_by(game, everything) is None
    assert launched_by(GAME, everything) is None


def test_the_desktops_own_programs_are_folded_away():
    assert is_background(Program(1, "dbus-daemon", "/usr/bin/dbus-daemon"))
    assert is_background(Program(1, "helper", "/usr/libexec/helper"))
    assert is_background(Program(1, "python3", "/usr/bin/python3.11", ("python3", "-m", "nakrel.service")))
    assert not is_background(Program(1, "helper", "/usr/libexec/helper", title="A window"))
    assert is_background(Program(1, "sh", "/usr/bin/dash"))
    assert not is_background(Program(1, "shoal-race", "/games/shoal-race"))
    assert not is_background(GAME)


def test_rules_for_files_and_installed_applications():
    assert rule_for_file("/games/kiln", False) == ProgramRule(MatchBy.PATH, "/games/kiln")
    assert rule_for_file("/games/kiln.sh", True) == ProgramRule(MatchBy.COMMAND, "/games/kiln.sh")
    assert rule_for_file("/games/Kiln.EXE", False) == ProgramRule(MatchBy.WINDOWS_PROGRAM, "Kiln.EXE")
    made = Application("Kiln", "/usr/games/kiln", "", "kiln", False)
    assert rule_for_application(made) == ProgramRule(MatchBy.PATH, "/usr/games/kiln")
    script = msgspec.structs.replace(made, script=True)
    assert rule_for_application(script) == ProgramRule(MatchBy.NAME, "kiln")
    windowed = msgspec.structs.replace(made, window_class="Kiln")
    assert rule_for_application(windowed) == ProgramRule(MatchBy.WINDOW, "Kiln")
