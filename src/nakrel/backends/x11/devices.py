"""The devices that the X server has, as people see them."""

from __future__ import annotations

from collections.abc import Iterable

from nakrel.backends.x11.codes import control_of_button, number_of
from nakrel.backends.x11.wire import Slave
from nakrel.core.model.controls import CONTROLS, KNOWN, Control, Kind
from nakrel.core.model.devices import THUMB_KEYS, Device, KeysAs, is_named

__all__ = ["controls_of", "devices_of"]

_THUMBS = tuple(dict.fromkeys(THUMB_KEYS.values()))
# Those that X has a number for.
_KEYS = tuple(c.code for c in CONTROLS.values() if c.kind is Kind.KEY and number_of(c.code))


def devices_of(slaves: Iterable[Slave]) -> tuple[Device, ...]:
    """One for each physical device, with the controls of all its parts; where nobody knows what belongs together, one
    for each of the server's."""
    groups: dict[str, list[Slave]] = {}
    for slave in slaves:
        if slave.buttons or slave.keys:
            groups.setdefault(slave.device, []).append(slave)
    alone = {device: controls_of(parts[0]) for device, parts in groups.items() if not parts[0].part}
    _give_thumbs_to_mice([groups[device][0] for device in alone], alone)
    found = (_device(device, parts, alone.get(device)) for device, parts in groups.items())
    return tuple(device for device in found if device.controls)


def _device(device: str, parts: list[Slave], controls: tuple[str, ...] | None) -> Device:
    have = controls or {code for part in parts for code in controls_of(part)}
    first = min(parts, key=lambda part: len(part.name))
    nodes = sorted({part.node for part in parts} - {""})
    where = first.part.by_id or first.node if first.part else ""
    return Device(
        f"x11:{device}", first.name, tuple(code for code in KNOWN if code in have), "X11", where=where,
        nodes=tuple(nodes) if first.part else (),
    )  # fmt: skip


def _give_thumbs_to_mice(slaves: list[Slave], controls: dict[str, tuple[str, ...]]) -> None:
    """Thumb buttons are the mouse's, although X has them on a keyboard of its own, which goes by the mouse's name."""
    pads = [slave for slave in slaves if slave.keys_as is KeysAs.THUMBS and slave.keys]
    mice = [slave for slave in slaves if slave.keys_as is KeysAs.THUMBS and slave.buttons and not slave.keys]
    for pad, mouse in ((pad, mouse) for pad in pads for mouse in mice if is_named(pad.name, (mouse.name,))):
        controls[pad.device] = tuple(code for code in controls[pad.device] if code not in _THUMBS)
        controls[mouse.device] = tuple(dict.fromkeys((*controls[mouse.device], *_THUMBS)))


def controls_of(slave: Slave) -> tuple[str, ...]:
    """The controls of one of the server's devices. The server gives each all the keys that X knows, and each mouse a
    wheel that tilts; those that it has by the system's word count."""
    buttons = [control_of_button(slave.button(number)) for number in range(1, slave.buttons + 1)]
    keys = _KEYS if slave.keys else ()
    have = dict.fromkeys(code for code in (*buttons, *keys) if code and _has(slave, CONTROLS[code]))
    return tuple(map(slave.keys_as.called, have))


def _has(slave: Slave, control: Control) -> bool:
    if slave.part and control.kind is Kind.KEY:
        return control.number in slave.part.keys
    if slave.part and control.kind is Kind.WHEEL:
        # A touchpad scrolls without axes of a wheel.
        return control.number in slave.part.axes or not slave.part.axes
    return True
