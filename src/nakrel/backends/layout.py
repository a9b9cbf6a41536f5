"""Which keyboard layout the desktop uses: asked from where each kind of desktop keeps it."""

from __future__ import annotations

import ast
import configparser
import contextlib
import os
import re
import shlex
import subprocess
from collections.abc import Callable, Mapping
from pathlib import Path
from typing import NamedTuple

from nakrel.backends.bus import Bus
from nakrel.backends.protocols import BackendUnavailable
from nakrel.words import noted, tr

__all__ = ["Layout", "find_layout", "parse_layout"]

_LIMIT_S = 2
# Desktops that keep the layout in settings, and which of several is on now.
_WITH_SETTINGS = ("GNOME", "Unity", "Budgie", "KDE")
# Where the core protocol's state of keys and buttons has Lock (X11/X.h, LockMask), and the group of the keyboard (The X
# Keyboard Extension: Protocol Specification, 2.2.2): two bits from here on.
_LOCK, _GROUP = 1 << 1, 13


class Layout(NamedTuple):
    """An XKB layout by its names, and who said so; whether Caps Lock is on; and where a compositor or an X server has
    it, the keymap itself, whose name stands for the layout's, and which of its layouts is on."""

    layout: str
    variant: str = ""
    source: str = noted("the default")
    options: str = ""
    caps: bool = False
    keymap: str = ""
    group: int = 0


def parse_layout(text: str, source: str) -> Layout:
    """A layout as people write it: `de`, `de:nodeadkeys` or `de(nodeadkeys)`, `de+nodeadkeys`."""
    layout, _, variant = re.sub(r"[(+]", ":", text.strip().rstrip(")")).partition(":")
    return Layout(layout.strip(), variant.strip(), source)


def find_layout(setting: str = "", environment: Mapping[str, str] = os.environ, root: Path = Path("/")) -> Layout:
    """The layout in use: the user's setting, else what the session says, else the system's, else `us`."""
    looks: list[Callable[[], Layout | None]] = [lambda: _default(environment), lambda: _system(root)]
    caps = False
    if environment.get("WAYLAND_DISPLAY"):
        settings: list[Callable[[], Layout | None]] = [_gnome, lambda: _kde(environment)]
        told_by = [lambda: _compositor(environment)]
        # Settings of a desktop that isn't the one of this session may be there as well.
        desktop = environment.get("XDG_CURRENT_DESKTOP", "")
        known = not desktop or any(name in desktop for name in _WITH_SETTINGS)
        if "KDE" in desktop:
            settings.reverse()
        looks = [*settings, *told_by, *looks] if known else [*told_by, *settings, *looks]
        caps = _lights(root)
    elif display := environment.get("DISPLAY"):
        told = _x11(display)
        looks = [lambda: told, *looks]
        caps = told is not None and told.caps
    if setting:
        looks = [lambda: parse_layout(setting, tr("the settings"))]
    found = next((found for look in looks if (found := look()) is not None and found.layout), Layout("us"))
    return found._replace(caps=caps)


def _lights(root: Path) -> bool:
    """Whether the light of Caps Lock is on on any keyboard (Documentation/leds in the Linux kernel): a desktop keeps
    those of all alike."""
    for light in root.glob("sys/class/leds/*::capslock/brightness"):
        with contextlib.suppress(OSError, ValueError):
            if int(light.read_text()):
                return True
    return False


def _x11(display: str) -> Layout | None:
    """The server's keymap, the group of it that is on now, and Caps Lock. Only where nobody reads that, it goes by the
    names on the root window: they don't tell of single keys that were changed, and are those of the keyboard that came
    last."""
    # Only where there is an X server.
    import xcffib
    import xcffib.xproto

    import nakrel.backends.x11  # noqa: F401 - before anybody connects
    from nakrel.backends.x11.keymap import keymap_of

    try:
        conn = xcffib.connect(display)
        root = conn.get_setup().roots[conn.pref_screen].root
        name = b"_XKB_RULES_NAMES"
        atom = conn.core.InternAtom(True, len(name), name).reply().atom
        found = conn.core.GetProperty(False, root, atom, xcffib.xproto.Atom.STRING, 0, 1024).reply()
        # The extension that has these by themselves would make the service larger for good.
        mask = conn.core.QueryPointer(root).reply().mask
        group, caps = mask >> _GROUP & 3, bool(mask & _LOCK)
        conn.disconnect()
    except (xcffib.XcffibException, xcffib.ConnectionException, OSError):
        return None
    fields = bytes(found.value.raw).decode("utf-8", "replace").split("\0")
    names, variants = (fields[2].split(","), fields[3].split(",")) if len(fields) >= 5 else ([""], [""])
    chosen = group if group < len(names) else 0
    if keymap := keymap_of(display):
        # Once single keys were changed a keymap has no name any more.
        shown = _name_in(keymap, group) or names[chosen] or "?"
        return Layout(shown, "", tr("the X server"), "", caps, keymap, group)
    variant = variants[chosen] if chosen < len(variants) else ""
    return Layout(names[chosen], variant, tr("the X server"), fields[4] if names[chosen] else "", caps)


def _name_in(keymap: str, group: int = 0) -> str:
    """What a keymap calls one of its layouts."""
    name = re.search(rf'\bname\[(?:[Gg]roup)?{group + 1}\]\s*=\s*"([^"]*)"', keymap)
    return name[1] if name else ""


def _compositor(environment: Mapping[str, str]) -> Layout | None:
    """The keymap that the compositor gives its windows; of several layouts in it the first."""
    if not (folder := environment.get("XDG_RUNTIME_DIR")):
        return None
    # Only where there is a Wayland session.
    from nakrel.backends.wayland.keyboard import keymap

    try:
        found = keymap(os.path.join(folder, environment["WAYLAND_DISPLAY"]))
    except BackendUnavailable:
        return None
    return Layout(_name_in(found) or "?", source=tr("the compositor"), keymap=found) if found else None


def _gnome() -> Layout | None:
    """The input source used last, after gsettings, and the options of all of them."""
    for key in ("mru-sources", "sources"):
        for source in _gsetting(key):
            match source:
                case ("xkb", str() as name):
                    options = ",".join(each for each in _gsetting("xkb-options") if isinstance(each, str))
                    return parse_layout(name, tr("the desktop's settings (gsettings)"))._replace(options=options)
    return None


def _gsetting(key: str) -> list[object]:
    """A list among GNOME's settings of input; empty where there are none."""
    command = ["gsettings", "get", "org.gnome.desktop.input-sources", key]
    try:
        told = subprocess.run(command, capture_output=True, text=True, timeout=_LIMIT_S, check=True).stdout
        found = ast.literal_eval(re.sub(r"^@a\S+ ", "", told.strip()))
    except (OSError, subprocess.SubprocessError, ValueError, SyntaxError):
        return []
    return found if isinstance(found, list) else []


def _kde(environment: Mapping[str, str]) -> Layout | None:
    """The layout in kxkbrc that is on now."""
    config = Path(environment.get("XDG_CONFIG_HOME") or Path(environment.get("HOME", "/")) / ".config") / "kxkbrc"
    parser = configparser.ConfigParser(interpolation=None)
    try:
        parser.read_string(config.read_text(encoding="utf-8"))
        section = parser["Layout"]
    except (OSError, KeyError, configparser.Error, UnicodeDecodeError):
        return None
    layouts, variants = (section.get(f"{name}List", "").split(",") for name in ("Layout", "Variant"))
    chosen = _kde_chosen() if len(layouts) > 1 else 0
    layout = layouts[chosen] if chosen < len(layouts) else layouts[0]
    variant = variants[chosen] if chosen < len(variants) else ""
    return Layout(layout, variant, tr("the desktop's settings (kxkbrc)"), section.get("Options", ""))


def _kde_chosen() -> int:
    """Which of its layouts Plasma has on, by number: 0 where nobody says so. As KWin 5.27 has it."""
    from jeepney import DBusAddress, new_method_call

    asks = new_method_call(DBusAddress("/Layouts", "org.kde.keyboard", "org.kde.KeyboardLayouts"), "getLayout")
    try:
        with contextlib.closing(Bus("SESSION", lambda message: None)) as bus:
            return int(bus.ask(asks)[0])
    except Exception:
        # No bus, nobody on it, or one that misbehaves: the first layout is as good as any.
        return 0


def _default(environment: Mapping[str, str]) -> Layout | None:
    """What libxkbcommon takes where it isn't told (its documentation, on `xkb_rule_names`), and with it compositors
    that have no settings of their own."""
    names = [environment.get(f"XKB_DEFAULT_{name}", "") for name in ("LAYOUT", "VARIANT", "OPTIONS")]
    layout, variant = (each.split(",")[0] for each in names[:2])
    return Layout(layout, variant, "XKB_DEFAULT_LAYOUT", names[2]) if layout else None


def _system(root: Path) -> Layout | None:
    """What the system starts with: Debian's /etc/default/keyboard, or the file that localectl writes."""
    try:
        text = (root / "etc/default/keyboard").read_text(encoding="utf-8")
    except (OSError, UnicodeDecodeError):
        text = ""
    found = dict(part.split("=", 1) for part in shlex.split(text, comments=True) if "=" in part)
    if found.get("XKBLAYOUT"):
        variant = found.get("XKBVARIANT", "").split(",")[0]
        return Layout(found["XKBLAYOUT"].split(",")[0], variant, "/etc/default/keyboard")
    try:
        text = (root / "etc/X11/xorg.conf.d/00-keyboard.conf").read_text(encoding="utf-8")
    except (OSError, UnicodeDecodeError):
        return None
    options = dict(re.findall(r'Option\s+"(\w+)"\s+"([^"]*)"', text))
    variant = options.get("XkbVariant", "").split(",")[0]
    return Layout(options.get("XkbLayout", "").split(",")[0], variant, "localectl")
