"""Mice whose thumb buttons send number keys."""

from __future__ import annotations

from functools import partial

from nakrel.core.library import on_thumb_buttons
from nakrel.core.model.devices import Device, is_named
from nakrel.core.model.settings import SettingsPatch
from nakrel.ui import commands
from nakrel.ui.store import Store
from nakrel.words import tr

__all__ = ["as_thumb_buttons", "count_as_thumbs", "has_number_keys", "mice_with_number_keys", "thumb_mouse"]


def has_number_keys(store: Store, device: Device) -> bool:
    """Whether it is a mouse that has number keys, which X lists as a device of its own, or that had before they counted
    as thumb buttons."""
    # Keyboards for games often tell of a mouse, too.
    if device.standin or "BTN_LEFT" not in device.controls or "keyboard" in device.name.casefold():
        return False
    # Where nodes are known, all of a mouse is one device.
    parts = (
        each for each in store.devices if each is device or not device.nodes and is_named(each.name, (device.name,))
    )
    return as_thumb_buttons(store, device.name) or any("KEY_1" in part.controls for part in parts)


def mice_with_number_keys(store: Store) -> list[str]:
    """The names of mice whose number keys may be thumb buttons, and don't count as those."""
    mice = (device.name for device in store.devices if has_number_keys(store, device))
    return [name for name in mice if not as_thumb_buttons(store, name)]


def thumb_mouse(store: Store) -> str:
    """The name of a mouse whose number keys count as thumb buttons, '' for none."""
    mice = (device.name for device in store.devices if has_number_keys(store, device))
    return next((name for name in mice if as_thumb_buttons(store, name)), "")


def as_thumb_buttons(store: Store, mouse: str) -> bool:
    """Whether the mouse's number keys count as thumb buttons."""
    return mouse in store.settings.thumb_keys


def count_as_thumbs(store: Store, mouse: str, on: bool) -> None:
    """Have the mouse's number keys count as thumb buttons, or as keys."""
    names = [name for name in store.settings.thumb_keys if name != mouse]
    patch = SettingsPatch(thumb_keys=(*names, mouse) if on else tuple(names))
    commands.change_settings(store, tr("number keys of {mouse}").format(mouse=mouse), patch)
    if on and (moved := on_thumb_buttons(store.profiles.values())):
        told = tr("What is attached to number keys in {names} now starts from the keyboard only.")
        told = told.format(names=", ".join(profile.name for profile in moved))
        store.offer.emit(told, tr("Move it to the thumb buttons"), partial(commands.move_to_thumbs, store))
