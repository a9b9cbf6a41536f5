"""Which window is in front in Plasma under Wayland: KWin tells no program, but runs scripts, and ours tells us."""

from __future__ import annotations

import contextlib
import os
import tempfile
from typing import Any

import msgspec

from nakrel.backends.bus import Bus
from nakrel.backends.protocols import BackendLost, BackendUnavailable, WindowInfo
from nakrel.core.model.programs import Front, Icon
from nakrel.words import tr

__all__ = ["KWinWindows"]

_NAME = "org.kde.KWin"
_OURS, _PATH = "org.nakrel.Windows", "/org/nakrel/Windows"
# Names as in KWin 5.27 and, behind them, as in 6 (develop.kde.org, KWin scripting API).
_SCRIPT = """
const windows = () => (workspace.windowList ? workspace.windowList() : workspace.clientList());
const front = () => (workspace.activeClient === undefined ? workspace.activeWindow : workspace.activeClient);
const told = (w) => ({pid: w.pid || 0, title: String(w.caption), name: String(w.resourceClass)});
function tell() {
    const shown = windows().filter((w) => w.normalWindow || w.dialog || w.fullScreen).map(told);
    const now = JSON.stringify({front: front() ? told(front()) : null, shown: shown});
    callDBus("%(to)s", "%(path)s", "%(interface)s", "Told", now);
}
const signals = ["clientActivated", "clientAdded", "clientRemoved", "windowActivated", "windowAdded", "windowRemoved"];
signals.filter((name) => workspace[name]).forEach((name) => workspace[name].connect(tell));
tell();
"""


class _Window(msgspec.Struct, frozen=True):
    """A window: its process, 0 where nobody knows, its title and its class."""

    pid: int
    title: str
    name: str


class _Told(msgspec.Struct, frozen=True):
    """The window in front, and all there are."""

    front: _Window | None = None
    shown: tuple[_Window, ...] = ()


class KWinWindows:
    """Implements `WindowWatch`. Raises `BackendUnavailable` where no KWin is on the session bus."""

    def __init__(self) -> None:
        self._told: _Told | None = None
        self._changed = self._gone = False
        # Of its own: others of this user may run as well.
        self._plugin = f"nakrel-{os.getpid()}-{id(self):x}"
        self._bus = Bus("SESSION", self._take)
        try:
            self._begin()
        except Exception as error:
            self.close()
            raise BackendUnavailable(str(error)) from None

    def _begin(self) -> None:
        if not self._bus.has(_NAME):
            raise BackendUnavailable(tr("this desktop doesn't tell programs which window is in front"))
        self._bus.tell_owner(_NAME)
        with tempfile.NamedTemporaryFile("w", suffix=".js", dir=os.environ.get("XDG_RUNTIME_DIR")) as script:
            script.write(_SCRIPT % {"to": self._bus.name, "path": _PATH, "interface": _OURS})
            script.flush()
            (number,) = self._ask("loadScript", "ss", script.name, self._plugin)
            if number < 0:
                raise OSError(f"KWin loads no script of ours ({number})")
            self._ask("start")
            while self._told is None and not self._gone:
                self._bus.wait()

    def _ask(self, what: str, signature: str = "", *arguments: str) -> Any:
        from jeepney import DBusAddress, new_method_call

        scripting = DBusAddress("/Scripting", _NAME, "org.kde.kwin.Scripting")
        return self._bus.ask(new_method_call(scripting, what, signature, arguments))

    def fileno(self) -> int:
        """The bus's socket."""
        return self._bus.fileno()

    def changed(self) -> bool:
        """Whether another window came to the front, or windows opened or closed, since the last call."""
        if not self._bus.read() or self._gone:
            raise BackendLost(tr("the window manager is gone"))
        found, self._changed = self._changed, False
        return found

    def front(self) -> Front:
        """The window in front."""
        front = self._told.front if self._told else None
        return Front(front.pid, front.name) if front else Front()

    def shown(self) -> list[tuple[int, WindowInfo]]:
        """All windows with their processes."""
        return [(each.pid, WindowInfo(each.title, each.name)) for each in (self._told.shown if self._told else ())]

    def icon(self, pid: int) -> Icon | None:
        """None: KWin tells no pictures."""
        return None

    def close(self) -> None:
        """Take the script back and leave the bus; never raises."""
        if not self._gone:
            with contextlib.suppress(Exception):
                self._ask("unloadScript", "s", self._plugin)
        self._bus.close()

    def _take(self, message: Any) -> None:
        from jeepney import HeaderFields, MessageType, new_method_return

        fields = message.header.fields
        member = fields.get(HeaderFields.member)
        if member == "NameOwnerChanged":
            self._gone = self._gone or not message.body[2]
        elif message.header.message_type is MessageType.method_call and member == "Told":
            self._bus.send(new_method_return(message))
            # Anybody on the bus may call us; what can't be read changes nothing.
            with contextlib.suppress(msgspec.MsgspecError):
                told = msgspec.json.decode(message.body[0], type=_Told)
                self._changed = self._changed or told != self._told
                self._told = told
