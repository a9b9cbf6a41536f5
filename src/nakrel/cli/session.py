"""What every command shares: where the data lies, the service there, and how names are found."""

from __future__ import annotations

import json
import sys
import unicodedata
from pathlib import Path
from typing import TYPE_CHECKING, Any, Literal, NoReturn, TypeVar

import click

from nakrel import protocol as m
from nakrel.cli.completing import profile_names
from nakrel.client.connection import ClientError, NoService, ServiceConnection
from nakrel.client.launch import ensure_service
from nakrel.core.model.controls import label
from nakrel.core.model.errors import DataError
from nakrel.core.model.game_keys import named_in, resolve
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import Profile
from nakrel.storage.home import Home
from nakrel.words import tr

if TYPE_CHECKING:
    from nakrel.storage.library import Library

__all__ = ["Session", "fail", "json_option", "of_profile", "pick", "print_rows", "resolved", "tell_unreached"]

T = TypeVar("T", Profile, Macro)
# Of more names than these the nearest are told.
_MOST_NAMES = 12


class Session:
    """Where the data lies, and the service there."""

    def __init__(self, home: str | None) -> None:
        if home and Path(home).exists() and not Path(home).is_dir():
            fail(tr("{path} is a file; --home takes a folder").format(path=home))
        self.folder = home
        self.home = Home.find(home)

    def library(self) -> Library:
        """The stored profiles and macros, read only; what is damaged is reported and left alone."""
        # Most commands ask the service, and don't wait until what reads files is loaded.
        from nakrel.storage.library import Library

        library = Library(self.home, read_only=True)
        library.load()
        for fault in library.faults:
            click.echo(f"nakrel: {fault}", err=True)
        return library

    def call(self, body: m.Body) -> m.AnswerBody:
        """Ask the service, starting it when there is none; ends the program with a message where it refuses."""
        try:
            connection = ensure_service(self.home.socket, self.folder, "nakrel")
            try:
                return connection.call(body)
            finally:
                connection.close()
        except ClientError as error:
            fail(str(error))

    def call_running(self, body: m.Body) -> m.AnswerBody | None:
        """Ask the service that runs; None where none does. Ends the program with a message where it refuses."""
        try:
            connection = ServiceConnection.connect(self.home.socket, "nakrel")
            try:
                return connection.call(body)
            finally:
                connection.close()
        except NoService:
            return None
        except ClientError as error:
            fail(str(error))

    def status(self) -> m.Status:
        """What the service says of itself."""
        answer = self.call(m.GetStatus())
        assert isinstance(answer, m.StatusIs)
        return answer.status


def fail(message: str) -> NoReturn:
    """End the program with this message and 1."""
    click.echo(f"nakrel: {message}", err=True)
    sys.exit(1)


def pick(items: dict[str, T], text: str, what: Literal["macro", "profile"]) -> T:
    """The item with this id or name; ends the program with the names there are where none or several fit."""
    if text in items:
        return items[text]
    fits = [item for item in items.values() if item.name.casefold() == text.casefold()]
    if len(fits) == 1:
        return fits[0]
    if fits:
        several = {
            "macro": tr("{count} macros are called {name!r}; name one by its id: {ids}"),
            "profile": tr("{count} profiles are called {name!r}; name one by its id: {ids}"),
        }[what]
        fail(several.format(count=len(fits), name=text, ids=", ".join(each.id for each in fits)))
    if not items:
        fail({"macro": tr("there is no macro yet"), "profile": tr("there is no profile yet")}[what])
    names = sorted(each.name for each in items.values())
    missing = {
        "macro": tr("there is no macro {name!r}; there are: {names}"),
        "profile": tr("there is no profile {name!r}; there are: {names}"),
    }
    if len(names) > _MOST_NAMES:
        names = _nearest(text, names)
        missing = {
            "macro": tr("there is no macro {name!r}; nakrel macros lists them. Nearest to it: {names}"),
            "profile": tr("there is no profile {name!r}; nakrel profiles lists them. Nearest to it: {names}"),
        }
    fail(missing[what].format(name=text, names=", ".join(names)))


def _nearest(text: str, names: list[str]) -> list[str]:
    # Only a slip needs it.
    import difflib

    by_folded = {name.casefold(): name for name in names}
    return [by_folded[each] for each in difflib.get_close_matches(text.casefold(), by_folded, n=5, cutoff=0)]


def tell_unreached(status: m.Status) -> None:
    """Say, beside the command's own output, why what is played or typed reaches no program, where it doesn't."""
    if status.warning:
        click.echo(f"nakrel: {status.warning}", err=True)


def print_rows(rows: list[dict[str, Any]], as_json: bool, *columns: tuple[str, int]) -> None:
    """Print rows as JSON, or as a table of these columns, each with its least width in cells of a terminal."""
    if as_json:
        click.echo(json.dumps(rows, ensure_ascii=False, indent=2))
        return
    for row in rows:
        click.echo(" ".join(_cell(str(row[key]), width) for key, width in columns).rstrip())


def _cell(text: str, width: int) -> str:
    """Text as wide as a column: signs of East Asia and pictures take two cells, accents none. What is written from
    right to left is set apart, so that it doesn't turn the columns round (Unicode Standard Annex 9, isolates)."""
    # Commands that print no table don't load its tables.
    from wcwidth import wcswidth

    taken = wcswidth(text)
    filled = " " * (width - (taken if taken >= 0 else len(text)))
    turned = any(unicodedata.bidirectional(each) in ("R", "AL") for each in text)
    return f"\u2068{text}\u2069{filled}" if turned else f"{text}{filled}"


def resolved(session: Session, name: str, profile: str | None) -> Macro:
    """The macro with a profile's keys for the game keys that it names."""
    library = session.library()
    macro = pick(library.macros, name, "macro")
    if not profile:
        if named := named_in(macro):
            fail(
                tr("{macro} names game keys ({keys}); say whose with --profile").format(
                    macro=macro.name, keys=", ".join(map(label, named))
                )
            )
        return macro
    chosen = pick(library.profiles, profile, "profile")
    try:
        return resolve(macro, chosen.key_table(), chosen.name)
    except DataError as error:
        fail(str(error))


of_profile = click.option(
    "--profile", metavar="NAME", shell_complete=profile_names, help="Profile whose game keys count."
)
json_option = click.option("--json", "as_json", is_flag=True, help="Print JSON.")
