"""What the service does for requests about a macro on trial."""

from __future__ import annotations

from nakrel import protocol as m
from nakrel.core.model.errors import DataError
from nakrel.service.later import Found, Later
from nakrel.service.server import Client
from nakrel.service.service import Service
from nakrel.service.worker import Outcome
from nakrel.words import tr

__all__ = ["TrialRequests"]


class TrialRequests:
    """Handles them."""

    def __init__(self, service: Service) -> None:
        self._service = service

    def try_macro(self, client: Client, number: int, body: m.TryMacro) -> Found:
        """Play it from now on."""
        self._service.live.trials.begin(client, body.macro, body.judges)
        self._service.refresh_sheet(tr("a macro is on trial"))
        return self._once_in_effect()

    def end_trial(self, client: Client, number: int, body: m.EndTrial) -> Found:
        """Play the macro as it is saved again."""
        if self._service.live.trials.end(client, body.result):
            self._service.refresh_sheet(tr("the trial ended"))
        return self._once_in_effect()

    def judge(self, client: Client, number: int, body: m.Judge) -> Found:
        """Tell the windows how a trial went; raises `DataError` where there is none."""
        if self._service.live.trials.now is None:
            raise DataError(tr("no macro is on trial; begin with Tune on its page"))
        if server := self._service.server:
            server.broadcast(m.Judged(body.worked))
        return m.Done()

    def _once_in_effect(self) -> Later:
        """Done once the next press plays by it."""
        service = self._service
        return Later(lambda done: service.when_in_effect(lambda: done(Outcome(m.Done()))), lambda found: found)
