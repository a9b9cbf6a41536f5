"""Makes manuals and completions from the commands, and the icons from the drawing; see scripts/desktop-data."""

from __future__ import annotations

import re
from collections.abc import Iterator
from datetime import date
from pathlib import Path

import click
from click.shell_completion import BashComplete, FishComplete, ShellComplete, ZshComplete

import nakrel
from nakrel.cli.main import main
from nakrel.desktop.names import APP_ID, SHARE
from nakrel.practice.__main__ import make_parser

ICON_SIZES = (16, 22, 24, 32, 48, 64, 128, 256)
# Of the day on which the version was made, and not of today: what is made twice is the same.
DATED = date(2026, 11, 28)

_FILES = """\
.TP
.I ~/.config/nakrel
profiles, macros and settings, as JSON
.TP
.I ~/.local/state/nakrel
the journal, earlier versions, takes and logs
.TP
.I $XDG_RUNTIME_DIR/nakrel
the socket of the service"""
_ENVIRONMENT = """\
.TP
.B NAKREL_HOME
keep everything in this folder instead, as with \\fB\\-\\-home\\fR
"""
_EXIT = """\
0 where all went well, 1 where something was refused or can't be done; standard error says what and why. 2 where the
command itself isn't understood. \\fBplan\\fR and \\fBdoctor\\fR say with 1 that a plan ends early, or that something
is broken."""


def plain(text: str) -> str:
    """Text as roff: lines that begin with a dot, and its special signs, are taken literally."""
    text = text.replace("\\", "\\e").replace("-", "\\-").replace("'", "\\(aq")
    return re.sub(r"^\.", "\\&.", text, flags=re.M)


def page(name: str, what: str, parts: Iterator[tuple[str, str]]) -> str:
    """A manual page of section 1."""
    lines = [f'.TH {name.upper()} 1 {DATED.isoformat()} "Nakrel {nakrel.__version__}" "User Commands"']
    lines += [".SH NAME", f"{plain(name)} \\- {what}"]
    for head, text in parts:
        lines += [f".SH {head}", text]
    return "\n".join(lines) + "\n"


def option_lines(command: click.Command) -> Iterator[str]:
    """Its options, each with what it means."""
    context = click.Context(command, help_option_names=["-h", "--help"])
    for parameter in command.get_params(context):
        if isinstance(parameter, click.Option) and (found := parameter.get_help_record(context)):
            names, says = found
            yield f".TP\n.B {plain(names)}\n{plain(' '.join(says.split()))}"


def command_lines(group: click.Group) -> Iterator[str]:
    """All commands, each with its arguments and options."""
    for name in sorted(group.commands):
        command = group.commands[name]
        if command.hidden:
            continue
        arguments = " ".join(
            f"[{argument.make_metavar(click.Context(command)).strip('[]')}]" if not argument.required
            else argument.make_metavar(click.Context(command))
            for argument in command.params if isinstance(argument, click.Argument)
        )  # fmt: skip
        yield f".SS {plain(f'nakrel {name} {arguments}'.strip())}"
        yield plain(" ".join((command.help or "").split()))
        yield from (line for line in option_lines(command) if "\\-\\-help" not in line)


def nakrel_page() -> str:
    """The manual of `nakrel`."""
    what = "record, time and attach keystroke and click macros, per game"
    described = (
        "Nakrel records keys, clicks, the wheel and the pointer, plays them again to the millisecond, and attaches "
        "them to buttons in a profile for each game, which loads when the game starts.\n"
        "Without a command the window opens. A service in the background does the work; it is started where it "
        "doesn't run."
    )
    return page(
        "nakrel",
        what,
        iter((
            ("SYNOPSIS", ".B nakrel\n[\\fIOPTIONS\\fR] [\\fICOMMAND\\fR [\\fIARGUMENTS\\fR]]"),
            ("DESCRIPTION", plain(described)),
            ("OPTIONS", "\n".join(option_lines(main))),
            ("COMMANDS", "\n".join(command_lines(main))),
            ("FILES", _FILES),
            ("ENVIRONMENT", _ENVIRONMENT),
            ("EXIT STATUS", _EXIT),
            ("SEE ALSO", ".BR nakrel\\-practice (1)"),
        )),
    )  # fmt: skip


def practice_page() -> str:
    """The manual of the practice game."""
    options = []
    for action in make_parser()._actions:
        names = ", ".join(action.option_strings)
        value = f" {action.metavar or action.dest.upper()}" if action.nargs != 0 and action.option_strings else ""
        options.append(f".TP\n.B {plain(names + value)}\n{plain(' '.join((action.help or '').split()))}")
    described = (
        "A small window that looks at its input once a frame, as games do, and shows which presses it saw and which "
        "it lost. Its rules can be chosen, and it says for each attempt whether that worked."
    )
    return page(
        "nakrel-practice",
        "a window that behaves like a game, to practise timing",
        iter((
            ("SYNOPSIS", ".B nakrel\\-practice\n[\\fIOPTIONS\\fR]"),
            ("DESCRIPTION", plain(described)),
            ("OPTIONS", "\n".join(options)),
            ("SEE ALSO", ".BR nakrel (1)"),
        )),
    )  # fmt: skip


def completion(kind: type[ShellComplete]) -> str:
    """The completion for a shell; the names of macros, profiles and variants come from the program as they are."""
    return kind(main, {}, "nakrel", "_NAKREL_COMPLETE").source() + "\n"


def texts() -> dict[Path, str]:
    """Every text file that is made, by its path below the shared data."""
    return {
        Path("man/man1/nakrel.1"): nakrel_page(),
        Path("man/man1/nakrel-practice.1"): practice_page(),
        Path("bash-completion/completions/nakrel"): completion(BashComplete),
        Path("zsh/site-functions/_nakrel"): completion(ZshComplete),
        Path("fish/vendor_completions.d/nakrel.fish"): completion(FishComplete),
    }


def draw_icons() -> None:
    """The icon in the sizes that desktops ask for."""
    from PyQt6.QtCore import Qt
    from PyQt6.QtGui import QGuiApplication, QImage, QPainter
    from PyQt6.QtSvg import QSvgRenderer

    application = QGuiApplication([])
    drawing = QSvgRenderer(str(SHARE / "icons/hicolor/scalable/apps" / f"{APP_ID}.svg"))
    for size in ICON_SIZES:
        image = QImage(size, size, QImage.Format.Format_ARGB32)
        image.fill(Qt.GlobalColor.transparent)
        painter = QPainter(image)
        drawing.render(painter)
        painter.end()
        path = SHARE / f"icons/hicolor/{size}x{size}/apps/{APP_ID}.png"
        path.parent.mkdir(parents=True, exist_ok=True)
        image.save(str(path))
    del application


if __name__ == "__main__":
    for path, text in texts().items():
        (SHARE / path).parent.mkdir(parents=True, exist_ok=True)
        (SHARE / path).write_text(text, encoding="utf-8")
    draw_icons()
