"""Devices as people see them, and what of their motion can be changed."""

from __future__ import annotations

import msgspec

__all__ = ["Device"]


class Device(msgspec.Struct, frozen=True):
    """A device as the window lists it: the controls it has, how it's read, and whether it is a stand-in.

    `note` is its present state in words and `trouble` whether that is one to be mended; `where` is the file by which
    the system knows it, '' for none.
    """

    id: str
    name: str
    controls: tuple[str, ...]
    how: str
    standin: bool = False
    note: str = ""
    trouble: bool = False
    where: str = ""
