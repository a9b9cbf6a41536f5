"""Programs that run, the rules that link profiles to them, and the choice of the live profile."""

from __future__ import annotations

import re
import shlex
from collections.abc import Iterable, Mapping, Sequence
from typing import NamedTuple

import msgspec

from nakrel.core.model.profile import EVERYDAY, MatchBy, ProgramRule
from nakrel.words import tr

__all__ = [
    "LOCKERS",
    "Application",
    "Choice",
    "Front",
    "Icon",
    "Links",
    "Program",
    "called",
    "choose",
    "describe_rule",
    "file_of",
    "is_background",
    "launched_by",
    "matches",
    "rule_for_application",
    "rule_for_file",
    "suggest_rule",
    "value_of",
    "what_runs",
]

# Screen lockers that tell nobody when they are on: they run just as long as the screen is locked.
LOCKERS = frozenset({"gtklock", "hyprlock", "i3lock", "swaylock", "waylock", "xsecurelock"})
# Programs that run other programs: their own path says nothing about which game it is.
_INTERPRETERS = (
    "python",
    "java",
    "mono",
    "wine",
    "node",
    "nodejs",
    "ruby",
    "perl",
    "sh",
    "bash",
    "dash",
    "zsh",
    "love",
    "electron",
)

# As their files are called, such as python3.11, wine64-preloader and mono-sgen. A shovel is no sh.
_INTERPRETER = re.compile(rf"({'|'.join(_INTERPRETERS)})(64)?[\d.]*(-preloader|-sgen)?")

# Options of interpreters that the next word belongs to, and those that bring code instead of a file (from memory).
_WITH_VALUE = frozenset(
    {
        *("-X", "-W", "-cp", "-classpath", "--class-path", "--module-path"),
        *("--add-modules", "--add-opens", "--add-exports", "--add-reads"),
    }
)
_CODE = frozenset({"-c", "-e"})

# The kernel cuts the names of processes to so many characters (proc(5)).
_COMM = 15
_IN_ANY_CASE = (MatchBy.WINDOW, MatchBy.WINDOWS_PROGRAM)


class Program(msgspec.Struct, frozen=True, omit_defaults=True):
    """A running process: `name` is the kernel's name for it (15 characters at most), `started_us` its start in
    microseconds since the machine was started, `parent` the process that started it, `application` an id that
    its environment has from a store or a sandbox (`FLATPAK_ID=org.example.Game`), and `title` and
    `window_class` its window's, where one is known."""

    pid: int
    name: str
    path: str = ""
    command: tuple[str, ...] = ()
    started_us: int = 0
    title: str = ""
    parent: int = 0
    application: str = ""
    window_class: str = ""

    @property
    def windows_program(self) -> str:
        """The Windows executable that a compatibility layer runs here, '' for none: it stands in the command line."""
        for part in self.command[:3]:
            if part.lower().endswith(".exe"):
                return part.replace("\\", "/").rpartition("/")[2]
        return ""


class Application(msgspec.Struct, frozen=True):
    """An installed application: the file it runs, its window's class and the name of its icon, '' where it tells none,
    and whether that file is a script."""

    name: str
    program: str
    window_class: str
    icon: str
    script: bool


def rule_for_application(application: Application) -> ProgramRule:
    """The rule that most likely finds the application: by its window where it tells the class, else by its file. What
    its file is a script for, is found by the file's name."""
    if application.window_class:
        return ProgramRule(MatchBy.WINDOW, application.window_class)
    if application.script:
        return ProgramRule(MatchBy.NAME, application.program.rpartition("/")[2])
    return ProgramRule(MatchBy.PATH, application.program)


class Icon(msgspec.Struct, frozen=True):
    """A program's picture: `argb` has four bytes a pixel, the lowest first, by rows from the top."""

    width: int
    height: int
    argb: bytes


class Choice(NamedTuple):
    """Which profile is live and why; `pid` is the program that decided it, 0 for none, and `in_front` says that it has
    the window in front."""

    profile: str
    reason: str
    pid: int
    in_front: bool = False


def matches(rule: ProgramRule, program: Program) -> bool:
    """Whether the rule names this program.

    A name is compared with the process's name (which the kernel cuts at 15 characters, proc(5)) and with the file
    names of its executable and of its first argument.
    """
    match rule.match:
        case MatchBy.PATH:
            return program.path == rule.value
        case MatchBy.COMMAND:
            return rule.value in shlex.join(program.command)
        case MatchBy.WINDOW:
            return bool(program.window_class) and program.window_class.casefold() == rule.value.casefold()
        case MatchBy.WINDOWS_PROGRAM:
            # Windows tells no small letters from big ones in file names.
            return bool(program.windows_program) and program.windows_program.casefold() == rule.value.casefold()
        case MatchBy.APPLICATION:
            return program.application == rule.value
    return (
        program.name == rule.value
        or rule.value in _files(program)
        or (len(program.name) == _COMM and rule.value.startswith(program.name))
    )


def _files(program: Program) -> set[str]:
    """The file names that the program is known by."""
    return {program.path.rpartition("/")[2], *(part.rpartition("/")[2] for part in program.command[:1])} - {""}


def suggest_rule(program: Program) -> ProgramRule:
    """The rule that most likely finds this program again: its Windows executable or its path, or for an interpreted
    program its name."""
    file = program.path.rpartition("/")[2]
    if program.windows_program:
        return ProgramRule(MatchBy.WINDOWS_PROGRAM, program.windows_program)
    if program.path and not _is_interpreted(program):
        return ProgramRule(MatchBy.PATH, program.path)
    if program.name == file[:_COMM] or _INTERPRETER.fullmatch(program.name):
        # Named like its interpreter, as all that this runs, so only what it runs tells it from others.
        told = ProgramRule(MatchBy.COMMAND, what_runs(program) or program.name)
        if told.value != program.name and matches(told, program):
            return told
        if program.window_class:
            return ProgramRule(MatchBy.WINDOW, program.window_class)
    return ProgramRule(MatchBy.NAME, program.name)


def value_of(program: Program, by: MatchBy) -> str:
    """What a rule of this kind would compare, '' where the program has nothing of it."""
    return {
        MatchBy.PATH: program.path,
        MatchBy.NAME: program.name,
        MatchBy.COMMAND: shlex.join(program.command),
        MatchBy.WINDOW: program.window_class,
        MatchBy.WINDOWS_PROGRAM: program.windows_program,
        MatchBy.APPLICATION: program.application,
    }[by]


def rule_for_file(path: str, is_script: bool) -> ProgramRule:
    """The rule for a program's file: a script runs in its interpreter, and a .exe in a compatibility layer."""
    if path.lower().endswith(".exe"):
        return ProgramRule(MatchBy.WINDOWS_PROGRAM, path.rpartition("/")[2])
    return ProgramRule(MatchBy.COMMAND if is_script else MatchBy.PATH, path)


def what_runs(program: Program) -> str:
    """Its executable; or in an interpreter the script, archive, module (with its `-m`) or class, as the command line
    names it, '' where that names none."""
    if not _is_interpreted(program):
        return program.path
    words = iter(program.command[1:])
    for word in words:
        if word == "-m":
            return f"-m {next(words, '')}"
        if word in _CODE:
            # For a shell that is a flag, and a script's file may follow.
            code = next(words, "")
            return code if code.startswith("/") and " " not in code else ""
        if word in _WITH_VALUE:
            next(words, "")
        elif not word.startswith("-"):
            return word
    return ""


def called(program: Program) -> str:
    """What people call it: its process's name, or where that is only its interpreter's, the name of what that runs."""
    if not _INTERPRETER.fullmatch(program.name) or not _is_interpreted(program):
        return program.name
    runs = program.windows_program or what_runs(program).removeprefix("-m ")
    return runs.rpartition("/")[2] or program.name


def file_of(program: Program) -> str:
    """The file that starts the program again: its executable, or the script that an interpreter runs; '' where no one
    file does, as with a Windows program."""
    found = "" if program.windows_program else what_runs(program)
    return found if found.startswith("/") else ""


def launched_by(program: Program, programs: Iterable[Program]) -> Program | None:
    """What a launcher has started: among the programs that the picked one started, or these in turn, the one with a
    window, else the latest; None where it started none."""
    known = list(programs)
    family, found = {program.pid}, []
    grown = True
    while grown:
        grown = False
        for each in known:
            if each.pid not in family and each.parent in family:
                family.add(each.pid)
                found.append(each)
                grown = True
    # What a game starts for itself (a crash handler, a web view) is no other program.
    others = [each for each in found if each.path != program.path or _is_interpreted(each)]
    return max(others, key=lambda each: (bool(each.title), each.started_us), default=None)


def _is_interpreted(program: Program) -> bool:
    return _INTERPRETER.fullmatch(program.path.rpartition("/")[2]) is not None


def is_background(program: Program) -> bool:
    """Whether it is the desktop's own, or Nakrel's: nobody looks for a game there (common practice, no published
    source)."""
    if program.title:
        return False
    ours = any("nakrel" in part for part in program.command)
    desktops = program.path.startswith(_SYSTEM_FOLDERS) or program.name.startswith(_SYSTEM_PROGRAMS)
    return ours or desktops or program.name in _SHELLS


_SYSTEM_FOLDERS = ("/usr/lib/", "/usr/libexec/", "/usr/sbin/", "/sbin/", "/lib/")
_SYSTEM_PROGRAMS = (
    *("systemd", "(sd-pam)", "dbus-", "pipewire", "wireplumber", "pulseaudio", "gvfs", "Xorg", "Xwayland", "Xvfb"),
    *("ssh-agent", "gpg-agent", "at-spi", "gnome-keyring", "gnome-session", "plasma", "kwin", "xdg-", "dconf"),
    "sshd",
)
_SHELLS = ("bash", "sh", "zsh", "fish", "dash", "login")


def describe_rule(rule: ProgramRule) -> str:
    """The rule in a few words, for the page's head."""
    if rule.match is MatchBy.COMMAND and rule.value.startswith("/") and " " not in rule.value:
        # What an interpreter runs.
        return rule.value.rpartition("/")[2] or rule.value
    return {
        MatchBy.PATH: rule.value.rpartition("/")[2],
        MatchBy.NAME: rule.value,
        MatchBy.COMMAND: tr("command with {rule!r}").format(rule=rule.value),
        MatchBy.WINDOW: tr("window {rule}").format(rule=rule.value),
        MatchBy.WINDOWS_PROGRAM: rule.value,
        MatchBy.APPLICATION: rule.value,
    }[rule.match]


class Front(NamedTuple):
    """The window in front: its process, 0 where nobody says, and its class."""

    pid: int = 0
    window_class: str = ""


class Links:
    """The rules of all profiles, put in order so that a program's profiles are found without trying each rule."""

    def __init__(self, rules: Mapping[str, Sequence[ProgramRule]]) -> None:
        self._exact: dict[tuple[MatchBy, str], dict[str, None]] = {}
        self._cut: dict[str, dict[str, None]] = {}
        self._parts: list[tuple[str, str]] = []
        # Whether any rule goes by the application's id.
        self.by_application = any(rule.match is MatchBy.APPLICATION for some in rules.values() for rule in some)
        self._order = {key: number for number, key in enumerate(rules)}
        for key, some in rules.items():
            for rule in some:
                if rule.match is MatchBy.COMMAND:
                    self._parts.append((rule.value, key))
                    continue
                value = rule.value.casefold() if rule.match in _IN_ANY_CASE else rule.value
                self._exact.setdefault((rule.match, value), {})[key] = None
                if rule.match is MatchBy.NAME:
                    self._cut.setdefault(rule.value[:_COMM], {})[key] = None

    def of(self, program: Program) -> list[str]:
        """The profiles with a rule that matches the program (see `matches`), in their order."""
        found: set[str] = set()
        for by, value in (
            (MatchBy.PATH, program.path),
            *((MatchBy.NAME, name) for name in {program.name, *_files(program)}),
            (MatchBy.WINDOW, program.window_class.casefold()),
            (MatchBy.WINDOWS_PROGRAM, program.windows_program.casefold()),
            (MatchBy.APPLICATION, program.application),
        ):
            if value:
                found.update(self._exact.get((by, value), ()))
        if len(program.name) == _COMM:
            found.update(self._cut.get(program.name, ()))
        if self._parts:
            command = shlex.join(program.command)
            found.update(key for value, key in self._parts if value in command)
        return sorted(found, key=self._order.__getitem__)


def choose(links: Links, linked: Sequence[tuple[str, Program]], front: Front, pinned: str) -> Choice:
    """Which profile should be live; `linked` are the programs that run with the profiles of each.

    A pinned profile stays. Else the linked program in front wins, else the linked program started last, else Everyday.
    """
    if pinned:
        return Choice(pinned, tr("pinned"), 0)
    for key, program in linked:
        if front.pid and program.pid == front.pid:
            return Choice(key, tr("{program} is in front").format(program=called(program)), program.pid, in_front=True)
    # A window that doesn't tell its process is told by its class, or by the application's id, whose last part mostly is
    # the program's name (org.example.Game).
    if not front.pid and front.window_class:
        name = front.window_class.rpartition(".")[2]
        for key in links.of(Program(0, name, command=(front.window_class,), window_class=front.window_class)):
            return Choice(key, tr("{program} is in front").format(program=front.window_class), 0, in_front=True)
    if not linked:
        return Choice(EVERYDAY, tr("no linked program runs"), 0)
    key, program = max(linked, key=lambda found: (found[1].started_us, found[1].pid))
    return Choice(key, tr("{program} runs").format(program=called(program)), program.pid)
