"""What clients ask to know: it is found where nothing waits for it."""

from __future__ import annotations

import time
from functools import lru_cache, partial
from typing import Any

import msgspec

from nakrel import protocol as m
from nakrel.backends.batteries import batteries
from nakrel.backends.layout import Layout, find_layout
from nakrel.backends.protocols import BackendUnavailable
from nakrel.backends.typist import Typist
from nakrel.core.model.controls import use_labels
from nakrel.core.model.keyboard import labels_by
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import Profile
from nakrel.core.model.programs import Icon, Program
from nakrel.protocol.wire import encode_line
from nakrel.service.later import Found, Later, on
from nakrel.service.observers.desktop import Spots
from nakrel.service.opener import missing_program
from nakrel.service.server import Client
from nakrel.service.service import Service
from nakrel.storage import secrets
from nakrel.storage.secrets import SecretError
from nakrel.storage.takes import add_take, takes_of
from nakrel.storage.tunings import put_tuning, tuning_of

__all__ = ["Queries"]


@lru_cache(maxsize=1)
def _legends_of(layout: Layout) -> m.Legends:
    typist = Typist(layout)
    return m.Legends(typist.legends, typist.levels)


class Queries:
    """Each method answers one kind of request."""

    def __init__(self, service: Service) -> None:
        self._service = service

    def library(self, client: Client, number: int, body: m.GetLibrary) -> Found:
        state = self._service.state
        profiles, macros = tuple(state.profiles.values()), tuple(state.macros.values())
        settings, faults = state.settings, tuple(state.library.faults)

        def written() -> bytes:
            # One by one, so that the engine's thread comes to its turn in between.
            written_profiles: Any = tuple(msgspec.Raw(msgspec.json.encode(each)) for each in profiles)
            written_macros: Any = tuple(msgspec.Raw(msgspec.json.encode(each)) for each in macros)
            return encode_line(m.Answer(number, m.Library(written_profiles, written_macros, settings, faults)))

        return on(self._service.worker, written, lambda line: line)

    def checks(self, client: Client, number: int, body: m.GetChecks) -> Found:
        layout, status = self._service.state.settings.layout, self._service.status()

        def work() -> m.Checks:
            # Only who asks for it pays for it.
            from nakrel.service.doctor import System, examine

            return m.Checks(examine(System(layout=layout), status))

        return on(self._service.worker, work, lambda checks: checks)

    def programs(self, client: Client, number: int, body: m.GetPrograms) -> Found:
        def then(found: tuple[tuple[Program, ...], dict[int, Icon]]) -> Found:
            programs, icons = found
            return m.Programs(programs, {str(pid): icon for pid, icon in icons.items()} if body.icons else {})

        return Later(self._service.desktop.programs, then)

    def applications(self, client: Client, number: int, body: m.GetApplications) -> Found:
        def work() -> m.Applications:
            # Only who links profiles pays for it.
            from nakrel.backends.applications import applications

            return m.Applications(applications(body.language))

        return on(self._service.worker, work, lambda found: found)

    def takes(self, client: Client, number: int, body: m.GetTakes) -> Found:
        home = self._service.state.library.home
        return on(self._service.saver, lambda: m.TakesAre(takes_of(home, body.macro).takes), lambda found: found)

    def add_take(self, client: Client, number: int, body: m.AddTake) -> Found:
        home, now = self._service.state.library.home, time.time()

        def work() -> m.TakesAre:
            return m.TakesAre(add_take(home, body.macro, body.steps, now).takes)

        return on(self._service.saver, work, lambda found: found)

    def tuning(self, client: Client, number: int, body: m.GetTuning) -> Found:
        home = self._service.state.library.home
        return on(self._service.saver, lambda: m.TuningIs(tuning_of(home, body.macro)), lambda found: found)

    def put_tuning(self, client: Client, number: int, body: m.PutTuning) -> Found:
        home = self._service.state.library.home

        def work() -> m.TuningIs:
            put_tuning(home, body.macro, body.tuning)
            return m.TuningIs(body.tuning)

        return on(self._service.saver, work, lambda found: found)

    def batteries(self, client: Client, number: int, body: m.GetBatteries) -> Found:
        # A mouse that sleeps keeps who asks for it waiting.
        return on(self._service.opener, lambda: m.Batteries(batteries()), lambda found: found)

    def legends(self, client: Client, number: int, body: m.GetLegends) -> Found:
        def work() -> tuple[m.Legends, dict[str, str]]:
            try:
                found = _legends_of(find_layout(body.layout)._replace(caps=False))
                return found, labels_by(found.legends, found.levels)
            except BackendUnavailable:
                # The labels of the table will do; the doctor says what is wrong with the layout.
                return m.Legends({}), {}

        def then(found: tuple[m.Legends, dict[str, str]]) -> m.Legends:
            # What the service tells calls keys as the window does.
            use_labels(found[1])
            return found[0]

        return on(self._service.worker, work, then)

    def versions(self, client: Client, number: int, body: m.GetVersions) -> Found:
        library = self._service.state.library

        def work() -> m.Versions:
            if body.kind == "profile":
                versions = [m.Version(at, profile=item) for at, item in library.kept(Profile, body.id)]
            else:
                versions = [m.Version(at, macro=item) for at, item in library.kept(Macro, body.id)]
            return m.Versions(tuple(versions))

        # Behind what is being saved, so that the last version is among them.
        return on(self._service.saver, work, lambda found: found)

    def facts(self, client: Client, number: int, body: m.GetFacts) -> Found:
        refusal_of = self._service.side_effects.refusal_of

        def work() -> m.Facts:
            texts = {text: refusal for text in body.texts if (refusal := refusal_of(text))}
            programs = {name: f"{wrong}." for name in body.programs if (wrong := missing_program(name))}
            secret = {name: wrong for name in body.secrets if (wrong := _wrong_with_secret(name))}
            return m.Facts(texts, programs, secret, None)

        def with_screen(facts: m.Facts) -> Found:
            def then(spots: Spots) -> Found:
                return msgspec.structs.replace(facts, screen=spots.size)

            return Later(partial(self._service.desktop.spots, ""), then)

        # A keyring that is locked may ask for a password.
        worker = self._service.keyring if body.secrets else self._service.worker
        return on(worker, work, with_screen)

    def places(self, client: Client, number: int, body: m.GetPlaces) -> Found:
        def then(spots: Spots) -> Found:
            return m.Places(spots.monitors, spots.size, spots.pointer, spots.window)

        return Later(partial(self._service.desktop.spots, body.profile), then)


def _wrong_with_secret(name: str) -> str:
    try:
        secrets.get(name)
    except SecretError as error:
        return f"{error}."
    return ""
