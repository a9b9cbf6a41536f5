"""Every command in README and docs is one that the program takes."""

from __future__ import annotations

import re
import shlex
import subprocess
import sys
from pathlib import Path

import click
import pytest
from click.testing import CliRunner

from nakrel.cli.main import main
from nakrel.command_help import all_commands
from nakrel.demo.seed import seed
from nakrel.practice.__main__ import main as practice
from nakrel.storage.home import Home
from tests.support import wait_for

ROOT = Path(__file__).parents[2]
PAGES = [ROOT / "README.md", ROOT / "CONTRIBUTING.md", *sorted((ROOT / "docs").rglob("*.md"))]
# What stands for a value of one's own.
VALUES = {
    "PROFILE": "Tidewardens", "PROFILE…": "Tidewardens", "MACRO": "Hop step", "NAME": "Healer", "STAGE": "Aim",
    "TEXT": "aye", "FILE": "out", "FILE…": "out", "RECORDING": "taps.csv", "FORMAT": "csv", "PART": "thumb",
    "COMMAND": "firefox", "ROUTE": "auto", "DIR": "elsewhere", "N": "3", "MS": "2", "RATE": "48",
    "PROFIL": "Tidewardens", "PROFIL…": "Tidewardens", "MAKRO": "Hop step", "TEMPO": "Aim", "DATEI": "out",
    "DATEI…": "out", "AUFZEICHNUNG": "taps.csv", "TEIL": "thumb", "BEFEHL": "firefox", "WEG": "auto",
    "ORDNER": "elsewhere",
}  # fmt: skip
COMMAND = re.compile(r"(\.venv/bin/)?(nakrel( |$)|nakrel-practice|scripts/\w)")


def commands() -> list[tuple[str, str]]:
    """Each command that is written as one, with its page."""
    found = []
    for page in PAGES:
        text = page.read_text()
        blocks = "\n".join(re.findall(r"```\w*\n(.*?)```", text, re.S))
        lines = [line.strip().removeprefix("$ ").split("   #")[0].strip() for line in blocks.splitlines()]
        inline = re.findall(r"`([^`\n]+)`", re.sub(r"```.*?```", "", text, flags=re.S))
        found += [(str(page.relative_to(ROOT)), each) for each in (*lines, *inline) if COMMAND.match(each)]
    return sorted(set(found))


def words_of(text: str) -> list[str]:
    """The command with values of our own, and all that may be left out in it."""
    text = text.replace("\\|", "|").replace("[", " ").replace("]", " ").replace(".venv/bin/", "")
    words = []
    for word in shlex.split(text):
        if word in ("or", "oder"):
            continue
        words.append(VALUES.get(word, word.split("|")[0]))
    return words


@pytest.mark.parametrize(("page", "text"), commands())
def test_it_is_a_command_that_is_understood(page: str, text: str):
    words = words_of(text)
    if words[0].startswith("scripts/"):
        assert (ROOT / words[0]).exists()
        return
    if words[0] == "nakrel-practice":
        practice.make_context(words[0], words[1:])
        return
    assert words[0] == "nakrel"
    command: click.Command = main
    rest = words[1:]
    if rest and not rest[0].startswith("-"):
        assert rest[0] in all_commands(main), text
        command, rest = all_commands(main)[rest[0]], rest[1:]
    # Read as the program reads it; what is missing of it is no matter of a mention, what it doesn't know is.
    try:
        command.make_context("nakrel", list(rest))
    except (click.MissingParameter, click.BadOptionUsage, click.BadParameter) as error:
        found = error
    else:
        found = None
    assert found is None or isinstance(found, click.MissingParameter) or "does not exist" in str(found) or (
        "requires an argument" in str(found)
    ), (text, found)  # fmt: skip


# Those that can be tried anywhere do something, too.
SHOWN = (
    "profiles", "macros", "live", "controls thumb", 'frames "Hop step"', 'plan "Hop step" --runs 2', "doctor", "login",
    "variant", "pin", "unpin", "stop", 'export "Hop step" --as vcd', "shutdown",
)  # fmt: skip


def test_those_that_can_be_tried_anywhere_say_something(tmp_path: Path):
    home = tmp_path / "home"
    seed(Home.find(home))
    service = subprocess.Popen(
        [sys.executable, "-m", "nakrel", "--home", str(home), "service", "--backend", "stand-in"]
    )
    try:
        wait_for(Home.find(home).socket.exists, "the service")
        for text in SHOWN:
            done = CliRunner().invoke(main, ["--home", str(home), *shlex.split(text)])
            assert done.exit_code in (0, 1), (text, done.output)
            assert done.output.strip(), text
        assert service.wait(15) == 0
    finally:
        if service.poll() is None:
            service.kill()
            service.wait()


def test_the_example_of_a_plan_is_what_it_prints(tmp_path: Path):
    seed(Home.find(tmp_path))
    for page in (ROOT / "docs").rglob("command-line.md"):
        [(command, shown)] = re.findall(r"\$ nakrel (plan[^\n]*)\n(.*?)```", page.read_text(), re.S)
        done = CliRunner().invoke(main, ["--home", str(tmp_path), *shlex.split(command)])
        assert done.output == shown


def test_every_picture_is_linked_from_the_readme():
    readme = (ROOT / "README.md").read_text()
    pictures = sorted((ROOT / "docs" / "screenshots").glob("*.png"))
    assert len(pictures) < 20
    assert [each.name for each in pictures if f"docs/screenshots/{each.name}" not in readme] == []
