"""Keyboards and keypads whose keys are apart from those of other keyboards."""

from __future__ import annotations

from nakrel.core.model.controls import key_of, second
from nakrel.core.model.devices import Device, is_named
from nakrel.core.model.settings import SettingsPatch
from nakrel.ui import commands
from nakrel.ui.devices.thumb_keys import has_number_keys
from nakrel.ui.store import Store
from nakrel.words import tr

__all__ = ["count_as_second", "is_second", "may_be_second", "second_keyboard_with"]

# One of these has a keyboard, or a keypad by itself; a mouse or a lamp with some keys hasn't.
_TYPED_ON = frozenset({"KEY_A", "KEY_KP1"})


def may_be_second(store: Store, device: Device) -> bool:
    """Whether it is one of several keyboards that can be told from each other by their names, or is apart already."""
    mice = [each.name for each in store.devices if has_number_keys(store, each)]
    keyboards = [each for each in store.devices if _is_keyboard(each) and not is_named(each.name, mice)]
    if device not in keyboards:
        return False
    others = [each.name for each in keyboards if each is not device]
    return is_second(store, device) or bool(others) and device.name not in others


def _is_keyboard(device: Device) -> bool:
    # Keyboards for games often tell of a mouse, too.
    mouse = "BTN_LEFT" in device.controls and "keyboard" not in device.name.casefold()
    return not (device.standin or mouse) and not _TYPED_ON.isdisjoint(map(key_of, device.controls))


def is_second(store: Store, device: Device) -> bool:
    """Whether the keyboard's keys are apart from others'."""
    return device.name in store.settings.second_keyboards


def second_keyboard_with(store: Store, code: str) -> str:
    """The name of a keyboard that has this key apart, '' for none."""
    apart = second(code)
    return next((each.name for each in store.devices if apart != code and apart in each.controls), "")


def count_as_second(store: Store, name: str, on: bool) -> None:
    """Have the keyboard's keys apart from others', or not."""
    names = tuple(each for each in store.settings.second_keyboards if each != name)
    patch = SettingsPatch(second_keyboards=(*names, name) if on else names)
    commands.change_settings(store, tr("keys of {keyboard}").format(keyboard=name), patch)
