"""What every backend offers. One contract test suite checks all of them against these protocols.

Times are microseconds of CLOCK_MONOTONIC. Every method may raise `BackendLost`, after which only `close` may be
called.
"""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable, Sequence
from typing import NamedTuple, Protocol, TypeVar

from nakrel.core.model.devices import Device
from nakrel.core.model.places import Monitor, Window
from nakrel.core.model.programs import Front, Icon, Program
from nakrel.core.play.events import Emit, InputsLost, Pressed, Released, Turned

__all__ = [
    "BackendLost",
    "BackendUnavailable",
    "CannotEmit",
    "Host",
    "InputBackend",
    "InputEvent",
    "OutputBackend",
    "ProgramWatch",
    "Screens",
    "WindowWatch",
]


T = TypeVar("T")


class BackendUnavailable(Exception):
    """The backend can't be had here; the message says why and what would help."""


class BackendLost(Exception):
    """The backend worked and is gone (server ended, device vanished); the message says what was lost."""


class CannotEmit(Exception):
    """This output has no way to send that control; nothing of the call's later events was left out."""


class Host(Protocol):
    """What a backend may ask of the one that runs it."""

    def now_us(self) -> int:
        """The present time."""

    def at(self, name: str, when_us: int | None, call: Callable[[], object]) -> None:
        """Call back at that time; a name has one time, None takes it away."""

    def aside(self, work: Callable[[], T], done: Callable[[T], object]) -> None:
        """Do what may have to wait on another thread, and hand what came of it to `done` on this one. Work is done in
        the order it came, also what is left when the backend is closed."""

    def fault(self, error: str) -> None:
        """Tell the user of something that went wrong; the same words are told once."""

    def devices_changed(self) -> None:
        """Tell the user which devices there are now."""

    def drain(self) -> None:
        """Read all input soon, although no descriptor is readable."""

    def introduce(self, twin: str, like: Sequence[str], known: Callable[[], object]) -> None:
        """A virtual device is there that stands for others (event nodes, the first of a kind counts; '' is what all
        keyboards have in common): have the desktop set it as it has set those, and call `known` when it has, or where
        there is nothing to be done."""

    def first_of(self, control: str, /) -> str:
        """What a press of this control, which reaches no program, is sure to put down before all else; '' where that
        isn't sure. A backend that is about to tell that press may send it before it takes the press apart, to save
        time, and says so by `answered`."""

    def answered(self, control: str, first: str, /) -> None:
        """The press of this control is told next, and what it puts down first has been sent already."""


class InputEvent(NamedTuple):
    """What a finger did, when, and on which device; or that the device is gone."""

    event: Pressed | Released | Turned | InputsLost
    at_us: int
    device: str


class InputBackend(Protocol):
    """Reads what fingers do."""

    def fileno(self) -> int:
        """A descriptor that is readable when `read` may have something."""

    def devices(self) -> tuple[Device, ...]:
        """The devices that are there now."""

    def capture(self, controls: Collection[str], repeats_itself: Collection[str] = ()) -> None:
        """Keep exactly these controls from reaching the programs; `read` reports them all the same.

        `repeats_itself` are those among them whose macro presses the very same control.
        """

    def read(self) -> Iterable[InputEvent]:
        """What happened since the last call, in order, without waiting. Our own output is never in it.

        Each is to be dealt with before the next is taken: what passes to the programs keeps its place that way.
        """

    def close(self) -> None:
        """Give every control back and close; never raises."""


class ProgramWatch(Protocol):
    """Knows which of this user's programs run, by process id."""

    programs: dict[int, Program]

    @property
    def unsettled(self) -> bool:
        """Whether it should be asked again soon, since a program has only just started."""

    def scan(self, *, all_of_them: bool = False, by_application: bool = True) -> bool:
        """Look again; True when something changed. With `all_of_them` also whether each is still what it was.
        `by_application` says whether their application's id is of use."""

    def look(self, pids: Collection[int], wanted: Callable[[Program], object], *, by_application: bool = True) -> bool:
        """Look at these processes alone, and keep those that are wanted; True when something changed.
        `by_application` says whether their application's id bears on that."""

    def watch(self, pids: Collection[int]) -> tuple[list[int], list[int]]:
        """Watch the ends of exactly these processes: the descriptors that are new, and those no longer used."""

    def ended(self, handle: int) -> None:
        """One of the descriptors is readable: its process has ended, also where its parent hasn't collected it."""

    def close(self) -> None:
        """Close all descriptors; never raises."""


class WindowInfo(NamedTuple):
    """A window's title and class."""

    title: str
    window_class: str


class WindowWatch(Protocol):
    """Knows the windows."""

    def fileno(self) -> int:
        """A descriptor that is readable when `changed` may have news."""

    def changed(self) -> bool:
        """Whether another window came to the front, or windows opened or closed, since the last call."""

    def front(self) -> Front:
        """The window in front."""

    def shown(self) -> list[tuple[int, WindowInfo]]:
        """All windows with their processes, 0 where nobody tells."""

    def icon(self, pid: int) -> Icon | None:
        """The picture of the process's first window; None where it has none."""

    def close(self) -> None:
        """Close; never raises."""


class OutputBackend(Protocol):
    """Sends events to the programs. `moves_by_pixels` says that no pointer speed applies to `move_by`."""

    name: str
    note: str
    moves_by_pixels: bool

    def emit(self, events: Sequence[Emit]) -> None:
        """Send the events in order, now. Raises `CannotEmit` once all that can be sent was sent."""

    def move_by(self, dx: int, dy: int) -> None:
        """Move the pointer by so much; the desktop's pointer speed may apply."""

    def move_to(self, x: int, y: int, width: int, height: int) -> None:
        """Move the pointer to a pixel of all screens together, which are so wide and high."""

    def close(self) -> None:
        """Let go of everything that is down and close; never raises."""


class Screens(Protocol):
    """Knows where things are on the screens, in pixels of all of them together."""

    def pointer(self) -> tuple[int, int]:
        """Where the pointer is."""

    def pointer_is_hidden(self) -> bool:
        """Whether the pointer can't be seen: a game that turns its view by the mouse has it to itself then."""

    def size(self) -> tuple[int, int]:
        """The width and height of all screens together."""

    def monitors(self) -> tuple[Monitor, ...]:
        """Every monitor."""

    def front_window(self) -> Window | None:
        """The window in front."""

    def window_of(self, pids: Collection[int]) -> Window | None:
        """The first window of one of these processes."""

    def bring_to_front(self, pids: Collection[int], classes: Collection[str] = ()) -> bool:
        """Bring the first window of one of these processes to the front, else the first that tells no process and is
        of one of these classes (in small letters); False where there is none."""

    def close(self) -> None:
        """Close; never raises."""
