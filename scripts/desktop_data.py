"""Makes manuals and completions from the commands, and the icons from the drawing; see scripts/desktop-data."""

from __future__ import annotations

import json
import os
import re
import subprocess
import sys
from collections.abc import Iterator
from datetime import date
from pathlib import Path

import click
from click.shell_completion import BashComplete, FishComplete, ShellComplete, ZshComplete

import nakrel
from nakrel.cli.main import main
from nakrel.command_help import all_commands, translate, words_of_click
from nakrel.desktop.names import APP_ID, SHARE
from nakrel.language import FOLDER, use
from nakrel.practice.__main__ import main as practice
from nakrel.words import tr

ICON_SIZES = (16, 22, 24, 32, 48, 64, 128, 256)
# Of the day on which the version was made, and not of today: what is made twice is the same.
DATED = date(2026, 11, 28)


def plain(text: str) -> str:
    """Text as roff: lines that begin with a dot, and its special signs, are taken literally."""
    text = text.replace("\\", "\\e").replace("-", "\\-").replace("'", "\\(aq")
    return re.sub(r"^\.", "\\&.", text, flags=re.M)


def page(name: str, what: str, *parts: tuple[str, str]) -> str:
    """A manual page of section 1."""
    kind = tr("User Commands", "manual")
    lines = [f'.TH {name.upper()} 1 {DATED.isoformat()} "Nakrel {nakrel.__version__}" "{kind}"']
    lines += [f".SH {tr('NAME', 'manual')}", f"{plain(name)} \\- {what}"]
    for head, text in parts:
        lines += [f".SH {head}", text]
    return "\n".join(lines) + "\n"


def entries(*found: tuple[str, str]) -> str:
    """Names, each with what it means."""
    return "\n".join(f".TP\n.B {plain(name)}\n{plain(' '.join(says.split()))}" for name, says in found)


def options_of(command: click.Command) -> Iterator[tuple[str, str]]:
    """Its options, each with what it means."""
    context = click.Context(command, help_option_names=["-h", "--help"])
    for parameter in command.get_params(context):
        if isinstance(parameter, click.Option) and (found := parameter.get_help_record(context)):
            yield found


def command_lines(group: click.Group) -> Iterator[str]:
    """All commands, each with its arguments and options."""
    for name, command in all_commands(group).items():
        if command.hidden:
            continue
        context = click.Context(command)
        arguments = [each.make_metavar(context) for each in command.params if isinstance(each, click.Argument)]
        yield f".SS {plain(' '.join(('nakrel', name, *arguments)))}"
        yield plain(" ".join((command.help or "").split()))
        if own := [each for each in options_of(command) if "--help" not in each[0]]:
            yield entries(*own)


def nakrel_page() -> str:
    """The manual of `nakrel`."""
    described = tr(
        "Nakrel records keys, clicks, the wheel and the pointer, plays them again to the millisecond, and attaches "
        "them to buttons in a profile for each game, which loads when the game starts."
    )
    window = tr(
        "Without a command the window opens. A service in the background does the work; it is started where it "
        "doesn't run."
    )
    files = entries(
        ("~/.config/nakrel", tr("profiles, macros and settings, as JSON")),
        ("~/.local/state/nakrel", tr("the journal, earlier versions, takes and logs")),
        ("$XDG_RUNTIME_DIR/nakrel", tr("the socket of the service")),
    )
    variables = entries(
        ("NAKREL_HOME", tr("keep everything in this folder instead, as with --home")),
        ("NAKREL_LANGUAGE", tr("the language of all texts, en or de; without it, that of the session")),
    )
    codes = tr(
        "0 where all went well, 1 where something was refused or can't be done; standard error says what and why. 2 "
        "where the command itself isn't understood. plan and doctor say with 1 that a plan ends early, or that "
        "something is broken."
    )
    return page(
        "nakrel",
        tr("record, time and attach keystroke and click macros, per game"),
        (tr("SYNOPSIS", "manual"), synopsis(main)),
        (tr("DESCRIPTION", "manual"), f"{plain(described)}\n{plain(window)}"),
        (tr("OPTIONS", "manual"), entries(*options_of(main))),
        (tr("COMMANDS", "manual"), "\n".join(command_lines(main))),
        (tr("FILES", "manual"), files),
        (tr("ENVIRONMENT", "manual"), variables),
        (tr("EXIT STATUS", "manual"), plain(codes)),
        (tr("SEE ALSO", "manual"), ".BR nakrel\\-practice (1)"),
    )


def practice_page() -> str:
    """The manual of the practice game."""
    described = tr(
        "A small window that looks at its input once a frame, as games do, and shows which presses it saw and which "
        "it lost. Its rules can be chosen, and it says for each attempt whether that worked."
    )
    return page(
        "nakrel-practice",
        tr("a window that behaves like a game, to practise timing"),
        (tr("SYNOPSIS", "manual"), synopsis(practice)),
        (tr("DESCRIPTION", "manual"), plain(described)),
        (tr("OPTIONS", "manual"), entries(*options_of(practice))),
        (tr("SEE ALSO", "manual"), ".BR nakrel (1)"),
    )


def synopsis(command: click.Command) -> str:
    """How it is typed."""
    rest = f" {command.subcommand_metavar}" if isinstance(command, click.Group) else ""
    return f".B {plain(command.name or '')}\n{plain(f'{command.options_metavar}{rest}')}"


def completion(kind: type[ShellComplete]) -> str:
    """The completion for a shell; the names of macros, profiles and variants come from the program as they are."""
    return kind(main, {}, "nakrel", "_NAKREL_COMPLETE").source() + "\n"


def texts() -> dict[Path, str]:
    """Every text file that is made, by its path below the shared data."""
    made = {
        Path("bash-completion/completions/nakrel"): completion(BashComplete),
        Path("zsh/site-functions/_nakrel"): completion(ZshComplete),
        Path("fish/vendor_completions.d/nakrel.fish"): completion(FishComplete),
        **manuals(Path("man/man1")),
    }
    for path in sorted(FOLDER.glob("nakrel_*.mo")):
        language = path.stem.partition("_")[2]
        # The commands' texts are exchanged in their place, so that each language is done by a process of its own.
        done = subprocess.run(
            [sys.executable, __file__, language],
            capture_output=True,
            check=True,
            env={**os.environ, "LANGUAGE": language},
        )
        made |= {Path(name): text for name, text in json.loads(done.stdout).items()}
    return made


def manuals(folder: Path) -> dict[Path, str]:
    """The manuals in the language in use."""
    return {folder / "nakrel.1": nakrel_page(), folder / "nakrel-practice.1": practice_page()}


def print_manuals(language: str) -> None:
    """The manuals in another language, as JSON."""
    use(language)
    for each in (main, practice):
        translate(each)
    words_of_click()
    made = manuals(Path("man", language, "man1"))
    sys.stdout.write(json.dumps({str(path): text for path, text in made.items()}))


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
    if len(sys.argv) > 1:
        print_manuals(sys.argv[1])
        sys.exit()
    for path, text in texts().items():
        (SHARE / path).parent.mkdir(parents=True, exist_ok=True)
        (SHARE / path).write_text(text, encoding="utf-8")
    draw_icons()
