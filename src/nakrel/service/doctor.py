"""The doctor: each link between a finger and a program, what is wrong with it, why that matters, and what to do."""

from __future__ import annotations

import os
import resource
from collections.abc import Callable, Mapping
from pathlib import Path

from msgspec.structs import replace

from nakrel.backends.kernel.nodes import OWN_PHYS
from nakrel.backends.layout import find_layout
from nakrel.backends.protocols import BackendUnavailable
from nakrel.backends.typist import Typist
from nakrel.backends.x11.clicks import looks_at_clicks
from nakrel.backends.x11.wire import XConnection
from nakrel.protocol import Check, CheckState, Status
from nakrel.rights import AS_ROOT
from nakrel.service.rules import PACKAGED_QUIRKS, PACKAGED_RULES, QUIRKS_PATH, RULES_PATH
from nakrel.words import noted, tr

__all__ = ["System", "examine"]

_FIX = "nakrel doctor --fix"
_OK, _NOTE, _BAD = CheckState.OK, CheckState.NOTE, CheckState.BAD


class System:
    """What the doctor looks at; tests bring a system of their own under `root`. `layout` is the user's setting."""

    def __init__(
        self,
        root: Path = Path("/"),
        environment: Mapping[str, str] = os.environ,
        user: int | None = None,
        layout: str = "",
    ) -> None:
        self.root, self.environment, self.layout = root, environment, layout
        self.user = os.geteuid() if user is None else user

    def at(self, path: str) -> Path:
        """A path on this system."""
        return self.root / path.lstrip("/")

    def may(self, path: Path, mode: int) -> bool:
        """Whether this user may open the file so."""
        return os.access(path, mode)

    def x_server(self) -> str:
        """'' where an X server answers with all that is needed, else what is wrong."""
        try:
            connection, _, _ = XConnection.open(None)
        except BackendUnavailable as error:
            return str(error)
        connection.disconnect()
        return ""

    def looks_at_clicks(self) -> bool:
        """Whether the window manager looks at each click before the window in front gets it, as far as can be seen."""
        return bool(looks_at_clicks())


# The links of the kernel's route: worth knowing and no more where an X server does the work.
_KERNELS = (noted("virtual devices", "check"), noted("input devices", "check"), noted("fast clicks", "check"))


def examine(system: System, status: Status | None) -> tuple[Check, ...]:
    """All checks; `status` is the running service's, None where none runs."""
    looks: tuple[Callable[[System], Check], ...] = (
        _user, _uinput, _devices, _captured_mice, _clicks, _session, _x11, _layout, _keyring, _priority,
    )  # fmt: skip
    checks = [look(system) for look in looks]
    if all(_state(checks, link) is _OK for link in ("session", "X server")):
        checks = [replace(c, state=_NOTE) if c.state is _BAD and c.link in _KERNELS else c for c in checks]
    return (*checks, *_window_manager(system), _service(status))


def _state(checks: list[Check], link: str) -> CheckState:
    return next(check.state for check in checks if check.link == link)


def _user(system: System) -> Check:
    if system.user != 0:
        return Check(noted("user", "check"), _OK, tr("Nakrel runs as an ordinary user"))
    return Check(
        noted("user", "check"),
        _NOTE if system.environment.get(AS_ROOT) == "1" else _BAD,
        tr("this is root"),
        tr("macros and the programs that they open would have every right on this machine"),
        tr("run Nakrel as the user who plays"),
    )


def _uinput(system: System) -> Check:
    node = system.at("/dev/uinput")
    why = tr("without virtual devices macros can reach programs only through the X server, if there is one")
    if not node.exists():
        found = tr("the kernel's module uinput isn't loaded: there is no /dev/uinput")
        return Check(noted("virtual devices", "check"), _BAD, found, why, _FIX)
    if system.may(node, os.W_OK):
        return Check(
            noted("virtual devices", "check"),
            _OK,
            tr("the kernel's module uinput is loaded, and /dev/uinput can be written"),
        )
    return Check(
        noted("virtual devices", "check"),
        _BAD,
        tr("/dev/uinput can't be written by this user"),
        why,
        _rules_remedy(system),
    )


def _devices(system: System) -> Check:
    nodes = [node for node in sorted(system.at("/dev/input").glob("event*")) if not _is_ours(system, node.name)]
    readable = [node for node in nodes if system.may(node, os.R_OK)]
    if not nodes:
        return Check(
            noted("input devices", "check"),
            _BAD,
            tr("the kernel shows no input device: there is nothing under /dev/input"),
            tr("no key and no button can be seen through the kernel"),
            tr("plug in a keyboard or a mouse; in a container, hand /dev/input to it"),
        )
    if not readable:
        return Check(
            noted("input devices", "check"),
            _BAD,
            tr("none of the {nodes} devices under /dev/input can be read by this user").format(nodes=len(nodes)),
            tr("attached buttons can't be seen, or kept from the game, through the kernel"),
            _rules_remedy(system),
        )
    return Check(
        noted("input devices", "check"),
        _OK,
        tr("{readable} of {nodes} devices can be read").format(readable=len(readable), nodes=len(nodes)),
    )


def _is_ours(system: System, node: str) -> bool:
    """Whether it is a virtual device of Nakrel's own."""
    try:
        return system.at(f"/sys/class/input/{node}/device/phys").read_text(errors="replace").startswith(OWN_PHYS)
    except OSError:
        return False


def _clicks(system: System) -> Check:
    if "Nakrel keyboard and mouse" in _text(system, QUIRKS_PATH, PACKAGED_QUIRKS):
        return Check(
            noted("fast clicks", "check"), _OK, tr("the desktop is told that our clicks are no bouncing switch")
        )
    return Check(
        noted("fast clicks", "check"),
        _NOTE,
        tr("{quirks_path} doesn't name our virtual mouse").format(quirks_path=QUIRKS_PATH),
        tr(
            "through the kernel's input, desktops with libinput leave out clicks that come within 25 ms "
            "of each other; keys aren't concerned"
        ),
        tr("{fix}, then log out and in").format(fix=_FIX),
    )


def _captured_mice(system: System) -> Check:
    """The desktop reckons a mouse's speed by its resolution, and udev knows that of many."""
    if "IMPORT{builtin}" in _text(system, RULES_PATH, PACKAGED_RULES):
        return Check(
            noted("captured mice", "check"),
            _OK,
            tr("what the system knows of a mouse counts while it is captured, too"),
        )
    return Check(
        noted("captured mice", "check"),
        _NOTE,
        tr("what the system knows of a mouse doesn't count while it is captured"),
        tr("the pointer may be faster or slower then, with mice whose resolution the system knows"),
        _FIX,
    )


def _text(system: System, *paths: str) -> str:
    """What the first of these files says that there is; '' where there is none."""
    found = (system.at(path) for path in paths)
    return next((path.read_text(errors="replace") for path in found if path.exists()), "")


def _rules_remedy(system: System) -> str:
    if not (system.at(RULES_PATH).exists() or system.at(PACKAGED_RULES).exists()):
        return _FIX
    return tr(
        "the rules are installed ({rules_path}) but give nothing to this session: sit at the machine "
        "itself (they don't count over the network), or log out and in; without logind, add this "
        "user to the group input and give /dev/uinput to that group"
    ).format(rules_path=RULES_PATH)


def _session(system: System) -> Check:
    env = system.environment
    kind = env.get("XDG_SESSION_TYPE", "")
    if env.get("WAYLAND_DISPLAY") or kind == "wayland":
        return Check(
            noted("session", "check"),
            _NOTE,
            tr("this is a Wayland session"),
            tr(
                "only the kernel's input reaches all windows here; the X server of such a session reaches X "
                "programs alone"
            ),
        )
    if env.get("DISPLAY") or kind == "x11":
        return Check(noted("session", "check"), _OK, tr("this is an X11 session"))
    return Check(
        noted("session", "check"),
        _NOTE,
        tr("there is no graphical session here ({kind})").format(kind=kind or tr("type unknown")),
        tr("which window is in front can't be seen, so the linked program started last has the say"),
    )


def _x11(system: System) -> Check:
    if not system.environment.get("DISPLAY"):
        return Check(
            noted("X server", "check"),
            _NOTE,
            tr("none ($DISPLAY is empty)"),
            tr("without it the kernel's input is the only way"),
        )
    if wrong := system.x_server():
        return Check(
            noted("X server", "check"),
            _NOTE,
            wrong,
            tr("it can't be used in place of the kernel's input"),
            tr("xhost, or log in again"),
        )
    return Check(
        noted("X server", "check"),
        _OK,
        tr("{environment} answers, with XInput 2.2 and XTEST").format(environment=system.environment["DISPLAY"]),
    )


def _window_manager(system: System) -> tuple[Check, ...]:
    if not system.environment.get("DISPLAY") or not system.looks_at_clicks():
        return ()
    return (
        Check(
            noted("window manager", "check"),
            _NOTE,
            tr("it looks at each click before the window in front gets it"),
            tr("it can lose clicks that come within 10 ms of each other; keys aren't concerned"),
            tr("let 10 ms pass from click to click"),
        ),
    )


def _layout(system: System) -> Check:
    layout = find_layout(system.layout, system.environment, system.root)
    shown = f"{layout.layout} {layout.variant}".strip()
    try:
        Typist(layout)
    except BackendUnavailable as error:
        return Check(
            noted("keyboard layout", "check"),
            _BAD,
            str(error),
            tr("texts can't be typed"),
            tr("set one on the Devices page"),
        )
    return Check(
        noted("keyboard layout", "check"),
        _OK,
        tr("texts are typed for {shown}, from {source}").format(shown=shown, source=layout.source),
    )


def _keyring(system: System) -> Check:
    bus = system.environment.get("DBUS_SESSION_BUS_ADDRESS") or system.at(f"/run/user/{system.user}/bus").exists()
    services = system.at("/usr/share/dbus-1/services").glob("*.service")
    if bus and any("org.freedesktop.secrets" in path.read_text(errors="replace") for path in services):
        return Check(noted("keyring", "check"), _OK, tr("the desktop has a keyring (org.freedesktop.secrets)"))
    return Check(
        noted("keyring", "check"),
        _NOTE,
        tr("no keyring answers to org.freedesktop.secrets")
        if bus
        else tr("there is no session bus, and so no keyring"),
        tr("secret texts of macros have nowhere to be kept; all else works"),
        tr("install your desktop's keyring (gnome-keyring or kwalletmanager)"),
    )


def _priority(system: System) -> Check:
    limit = resource.getrlimit(resource.RLIMIT_RTPRIO)[1]
    if limit or system.user == 0:
        return Check(noted("priority", "check"), _OK, tr("a real-time priority may be asked for"))
    return Check(
        noted("priority", "check"),
        _NOTE,
        tr("no real-time priority for this user"),
        tr("on a busy machine a macro's events may be some milliseconds late"),
        tr('to allow it:  echo "$USER - rtprio 10" | sudo tee /etc/security/limits.d/nakrel.conf'),
    )


def _service(status: Status | None) -> Check:
    if status is None:
        return Check(
            noted("service", "check"),
            _NOTE,
            tr("no service runs"),
            tr("it starts with the window or any command"),
            "nakrel live",
        )
    routes = {"kernel": tr("the kernel's input"), "x11": tr("the X server"), "xwayland": "Xwayland"}
    route = routes.get(status.backend)
    if route is None:
        remedy = tr("fix the problems above; then press Check again for kernel input on the Devices page")
        return Check(
            noted("service", "check"),
            _BAD,
            tr("the service runs and reaches no window"),
            status.backend_note.rstrip("."),
            remedy,
        )
    state = _OK if status.backend == "kernel" else _NOTE
    return Check(
        noted("service", "check"),
        state,
        tr("the service runs, through {route}").format(route=route),
        status.backend_note.rstrip("."),
    )
