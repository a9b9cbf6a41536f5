"""What all commands have in common: what they say of themselves when they are asked with `--help`, in the reader's
language, and numbers that are checked.

Click looks up its own words (`Usage:`, `Error:`) through gettext's present domain; those of each command stand in the
source in English, as they do with click, and are exchanged before the command line is read.
"""

from __future__ import annotations

import gettext
import math
import os
from collections.abc import Iterator
from typing import Any

import click

from nakrel.language import FOLDER, use
from nakrel.words import plain, tr

__all__ = ["Amount", "Translated", "all_commands", "texts_of", "translate", "words_of_click"]

# What the words in capitals are about, for translators: they stand for what is to be typed.
_VALUE = "value"
_DOMAIN = "click"


class Translated(click.Command):
    """A command that says everything in the language of the user's session."""

    def main(self, *args: Any, **kwargs: Any) -> Any:
        """Run as a program."""
        if (language := use()) != "en":
            translate(self)
            words_of_click()
            if "NAKREL_LANGUAGE" in os.environ:
                # It comes before what gettext goes by.
                os.environ["LANGUAGE"] = language
        return super().main(*args, **kwargs)


class Amount(click.FloatRange):
    """A number within bounds; `nan`, which click's own lets through, is none."""

    def __init__(self, least: float, most: float) -> None:
        super().__init__(least, most)
        self._bounds = {"least": plain(least), "most": plain(most)}

    def convert(self, value: Any, param: click.Parameter | None, ctx: click.Context | None) -> float:
        """The number. Says what it can be and ends the program where it isn't."""
        try:
            number = float(value)
        except ValueError:
            number = math.nan
        if not self.min <= number <= self.max:  # type: ignore[operator]
            self.fail(
                tr("{value!r} is no number from {least} to {most}").format(value=value, **self._bounds), param, ctx
            )
        return number


def all_commands(group: click.Group) -> dict[str, click.Command]:
    """The commands that a command has, by their names in order; those that aren't loaded yet are."""
    context = click.Context(group)
    found = ((name, group.get_command(context, name)) for name in group.list_commands(context))
    return {name: command for name, command in found if command is not None}


def texts_of(command: click.Command) -> Iterator[tuple[str, str]]:
    """Each text of a command and of those that it has, with what it is about ('' for a sentence)."""
    yield command.help or "", ""
    yield command.options_metavar or "", _VALUE
    for parameter in command.params:
        if isinstance(parameter, click.Option):
            yield parameter.help or "", ""
        yield _word(parameter), _VALUE
    if isinstance(command, click.Group):
        yield command.subcommand_metavar, _VALUE
        for each in all_commands(command).values():
            yield from texts_of(each)


def translate(command: click.Command) -> None:
    """Exchange them for those of the language in use; a command that is loaded later is translated then."""
    context = click.Context(command)
    command.help = tr(command.help) if command.help else None
    command.options_metavar = tr(command.options_metavar, _VALUE) if command.options_metavar else None
    for parameter in command.params:
        if isinstance(parameter, click.Option) and parameter.help:
            parameter.help = tr(parameter.help)
        if word := _word(parameter):
            # With its brackets and dots, where it may be left out or repeated.
            parameter.metavar = parameter.make_metavar(context).replace(word, tr(word, _VALUE))
    if isinstance(command, click.Group):
        command.subcommand_metavar = tr(command.subcommand_metavar, _VALUE)
        for each in command.commands.values():
            translate(each)


def words_of_click() -> None:
    """Have click find its own words, in the session's language by gettext's rules."""
    gettext.bindtextdomain(_DOMAIN, str(FOLDER))
    gettext.textdomain(_DOMAIN)


def _word(parameter: click.Parameter) -> str:
    """The word that stands for the parameter's value; '' where it has none, or shows what there is to choose from."""
    if isinstance(parameter.type, click.Choice) or (isinstance(parameter, click.Option) and parameter.is_flag):
        return ""
    return parameter.metavar or (parameter.name or "").upper()
