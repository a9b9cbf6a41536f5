"""What macros do besides pressing controls: the pointer goes somewhere, a text is typed, a program is opened.

Whatever has to be found out first is found out on other threads, and the engine gets it as an event.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Protocol

from nakrel.backends.layout import find_layout
from nakrel.backends.protocols import BackendLost, BackendUnavailable, CannotEmit, OutputBackend
from nakrel.backends.typist import Typist
from nakrel.core.model.errors import DataError
from nakrel.core.model.places import place_of
from nakrel.core.model.steps import Origin
from nakrel.core.play.acts import AskPlace, AskPointer, AskText, MovePointer, OpenProgram, Stroke, Whereabouts
from nakrel.core.play.events import PlaceReady, PointerReady, SideEffect, TextReady
from nakrel.service.loop import Loop, monotonic_us
from nakrel.service.observers.desktop import Desktop
from nakrel.service.opener import Opener
from nakrel.service.reporter import Reporter
from nakrel.service.routes import Routes
from nakrel.service.state import State
from nakrel.service.worker import Outcome, Worker
from nakrel.storage import secrets
from nakrel.storage.secrets import SecretError
from nakrel.words import tr

__all__ = ["Host", "SideEffects", "UnknownCharacters", "strokes_of"]


# A server that is busy takes a move up within this time; a finger gets hardly anywhere in it.
_BELIEVED_US = 30_000
# How long a key stays lent to a character after the text is typed.
SPARE_US = 500_000

Place = tuple[int, int]


class UnknownCharacters(Exception):
    """The layout has no keys for some characters; the message names them and what would help."""


def strokes_of(text: str, setting: str = "") -> tuple[Stroke, ...]:
    """The keys that type the text, for the layout in use. `setting` is the user's own choice of a layout.

    Raises `UnknownCharacters`, and `BackendUnavailable` for a layout that can't be had.
    """
    typist = Typist(find_layout(setting))
    strokes, missing = typist.strokes(text)
    if missing:
        raise UnknownCharacters(_unknown(typist, missing))
    return tuple(strokes)


def _unknown(typist: Typist, missing: str) -> str:
    return tr(
        "the keyboard layout {layout!r} (from {source}) has no keys for {missing}; switch to a "
        "layout that has them, or set one on the Devices page"
    ).format(layout=typist.layout.layout, source=typist.layout.source, missing=" ".join(missing))


class Host(Protocol):
    """What side effects need of the service."""

    routes: Routes
    state: State

    def step(self, event: TextReady | PlaceReady | PointerReady) -> None:
        """Hand the engine an answer, on the loop's thread."""


class SideEffects:
    """Does them. A keyring may ask its user for a password, so it has a thread of its own."""

    def __init__(
        self, loop: Loop, desktop: Desktop, worker: Worker, keyring: Worker, reporter: Reporter, host: Host
    ) -> None:
        self._loop, self._desktop, self._worker, self._keyring = loop, desktop, worker, keyring
        self._host, self._fault = host, reporter.fault_once
        # The macros that type with keys lent to characters.
        self._spare_users: set[str] = set()
        self.opener = Opener(loop, desktop, worker, reporter.fault_once)
        # Where the pointer was put last, and how long that is believed.
        self._put: tuple[Place | None, int] = (None, 0)

    def start(self, effect: SideEffect, output: OutputBackend, *, preview: bool) -> None:
        """Start it, or for a preview only answer as if it were done. Raises `BackendLost`."""
        what, by = effect.what, effect.by
        match what:
            case MovePointer() if not preview:
                self.move(what, output)
            case OpenProgram() if not preview:
                self.opener.open(what)
            case AskPointer():
                self.find_pointer(by, what)
            case AskPlace() if not preview:
                self.find_place(by, what, output)
            case AskPlace(ticket=ticket):
                self._loop.post(lambda: self._host.step(PlaceReady(by, ticket, None)))
            case AskText():
                self.type(by, what, preview=preview)

    def run_ended(self, macro: str) -> None:
        """A macro has ended: keys that it had lent are given back."""
        if macro in self._spare_users:
            # Programs read a key's character a while after the key came.
            self._spare_users.discard(macro)
            until_us = None if self._spare_users else monotonic_us() + SPARE_US
            self._loop.at("spare keys", until_us, lambda: self._worker.do(self._host.routes.keys.reclaim))

    # The pointer

    def move(self, move: MovePointer, output: OutputBackend) -> None:
        """Move the pointer now; what can't be done is told once. Raises `BackendLost`."""
        try:
            if move.screen is None:
                output.move_by(move.x, move.y)
                self._put = (None, 0)
            else:
                output.move_to(move.x, move.y, *move.screen)
                self._put = ((move.x, move.y), monotonic_us() + _BELIEVED_US)
        except CannotEmit as error:
            self._fault(tr("The pointer was not moved: {reason}.").format(reason=error))

    def _believed(self) -> Place | None:
        """Where we have just put the pointer. Moves go to the X server by another connection than questions: for a
        moment after a move the answer may still be where the pointer was before."""
        place, until_us = self._put
        return place if monotonic_us() < until_us else None

    def find_pointer(self, macro: str, ask: AskPointer) -> None:
        """Find out where the pointer is; (0, 0) where nobody knows."""
        believed = self._believed()

        def found(outcome: Outcome[Place | None]) -> None:
            self._host.step(PointerReady(macro, ask.ticket, outcome.result or (0, 0)))

        self._desktop.ask(lambda: believed or self._desktop.about_screens(lambda screens: screens.pointer()), found)

    def find_place(self, macro: str, ask: AskPlace, output: OutputBackend) -> None:
        """Find out where a pointer step leads."""
        if ask.origin is Origin.POINTER and output.moves_by_pixels:
            # It goes so far from wherever the pointer is.
            way = Whereabouts(None, (ask.x, ask.y), None)
            self._loop.post(lambda: self._host.step(PlaceReady(macro, ask.ticket, way)))
            return
        believed = self._believed()

        def found(outcome: Outcome[tuple[Whereabouts, str]]) -> None:
            if outcome.error is not None:
                self._fault(tr("The pointer was not moved: {reason}.").format(reason=outcome.error))
                self._host.step(PlaceReady(macro, ask.ticket, None))
                return
            where, note = outcome.get()
            if note:
                self._fault(note)
            self._host.step(PlaceReady(macro, ask.ticket, where))

        self._desktop.ask(lambda: self._whereabouts(ask, believed), found)

    def _whereabouts(self, ask: AskPlace, believed: Place | None) -> tuple[Whereabouts, str]:
        """Where the step leads, and what is to be said of that. Raises `DataError`. On the observer's thread."""
        look = self._desktop.about_screens
        # A game that turns its view by the mouse has the pointer to itself, hidden: it takes a place for a way.
        if ask.origin is Origin.POINTER and look(lambda screens: screens.pointer_is_hidden()):
            return Whereabouts(None, (ask.x, ask.y), None), ""
        screen = look(lambda screens: screens.size())
        place = believed or look(lambda screens: screens.pointer())
        if ask.origin is Origin.POINTER:
            if place is None or screen is None:
                return Whereabouts(None, (ask.x, ask.y), None), ""
            return Whereabouts(place, _within((place[0] + ask.x, place[1] + ask.y), screen), screen), ""
        size = screen or (ask.size if ask.origin is Origin.SCREEN else None)
        if size is None:
            raise DataError(
                tr("this desktop doesn't tell how large the screen is; pick the place again, so that the step knows it")
            )
        window = look(lambda screens: screens.front_window()) if ask.origin is Origin.WINDOW else None
        target = place_of(ask.x, ask.y, ask.origin, ask.size, screen, window)
        inside = _within(target, size)
        note = (
            ""
            if inside == target
            else (
                tr(
                    "A pointer step goes to {target}, {target2}, off the screen of {size} x {size2}; it went to "
                    "the edge."
                ).format(target=target[0], target2=target[1], size=size[0], size2=size[1])
            )
        )
        return Whereabouts(place, inside, size), note

    # Texts

    def refusal_of(self, text: str) -> str:
        """What keeps the text from being typed, '' for nothing; on a worker's thread."""
        try:
            strokes_of(text, self._host.state.settings.layout)
        except UnknownCharacters as error:
            return "" if self._host.routes.keys.lends else f"{error}."
        except BackendUnavailable as error:
            return f"{error}."
        return ""

    def type(self, macro: str, ask: AskText, *, preview: bool) -> None:
        """Find the keys that type the text, and answer. A preview reads no secret and lends no key."""
        layout, spare = (
            self._host.state.settings.layout,
            self._host.routes.keys.lend if self._host.routes.keys.lends else None,
        )

        def work() -> TextReady:
            if preview:
                return TextReady(macro, ask.ticket, _strokes_to_show(ask.text, layout))
            try:
                text = secrets.get(ask.secret) if ask.secret else ask.text
                return TextReady(macro, ask.ticket, _strokes(text, layout, spare))
            except (SecretError, UnknownCharacters, BackendUnavailable, BackendLost) as error:
                return TextReady(macro, ask.ticket, (), tr("a text was not typed: {reason}").format(reason=error))

        def found(outcome: Outcome[TextReady]) -> None:
            ready = outcome.result or TextReady(
                macro, ask.ticket, (), tr("a text was not typed: {reason}").format(reason=outcome.error)
            )
            if any(stroke.control.startswith("SPARE") for stroke in ready.strokes):
                self._spare_users.add(macro)
            self._host.step(ready)

        (self._keyring if ask.secret and not preview else self._worker).do(work, found)


def _within(place: Place, size: tuple[int, int]) -> Place:
    return max(0, min(place[0], size[0] - 1)), max(0, min(place[1], size[1] - 1))


def _strokes_to_show(text: str, layout: str) -> tuple[Stroke, ...]:
    """The keys of a text as far as there are any; the time of a character passes all the same."""
    try:
        typist = Typist(find_layout(layout))
    except BackendUnavailable:
        return (Stroke(""),) * len(text)
    return tuple(stroke for char in text for stroke in (typist.strokes(char)[0] or [Stroke("")]))


def _strokes(text: str, layout: str, spare: Callable[[str], dict[str, str]] | None) -> tuple[Stroke, ...]:
    if spare is None:
        return strokes_of(text, layout)
    typist = Typist(find_layout(layout))
    missing = typist.strokes(text)[1]
    if not missing:
        return tuple(typist.strokes(text)[0])
    made = spare(missing)
    if any(char not in made for char in missing):
        raise UnknownCharacters(_unknown(typist, "".join(char for char in missing if char not in made)))
    return tuple(
        stroke for char in text for stroke in ([Stroke(made[char])] if char in made else typist.strokes(char)[0])
    )
