"""A macro on trial: a window has it played with a time that is tried, and is told whether it worked."""

from __future__ import annotations

from typing import TYPE_CHECKING, NamedTuple

from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro
from nakrel.service.reporter import Reporter
from nakrel.service.state import State
from nakrel.words import tr

if TYPE_CHECKING:
    from nakrel.service.server import Client

__all__ = ["OnTrial", "Trials"]


class OnTrial(NamedTuple):
    """The macro as it is played for now, and the controls that say how it went: no program gets these."""

    macro: Macro
    judges: tuple[str, ...]


class Trials:
    """At most one macro is on trial, and as long as the client that wants it is there."""

    def __init__(self, state: State, reporter: Reporter) -> None:
        self._state, self._reporter = state, reporter
        self.now: OnTrial | None = None
        self._owner: Client | None = None

    def begin(self, client: Client, macro: Macro, judges: tuple[str, ...]) -> None:
        """Play this in place of the macro with its id. Raises `DataError` where there is none, and where another
        window has a macro on trial."""
        if macro.id not in self._state.macros:
            raise DataError(tr("{macro} isn't there any more, so it can't be tried").format(macro=macro.name))
        if self._owner not in (None, client):
            raise DataError(tr("another window tunes a macro; end that first"))
        if self._owner is None:
            self._reporter.add(
                "tuning",
                tr("{macro} is tuned").format(macro=macro.name),
                tr("each press plays it with a time on trial"),
            )
        self._owner, self.now = client, OnTrial(macro, judges)

    def end(self, client: Client, result: str) -> bool:
        """Play the macro as it is saved again; `result` goes into the journal. Whether this client had one on trial."""
        if client is not self._owner or self.now is None:
            return False
        self._reporter.add("tuning", tr("Tuning of {macro} ended").format(macro=self.now.macro.name), result)
        self._owner = self.now = None
        return True
