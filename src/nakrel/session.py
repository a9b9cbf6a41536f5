"""The desktop session that a process belongs to: where its windows are."""

from __future__ import annotations

import os
import re
import socket
from collections.abc import Mapping
from typing import NamedTuple

__all__ = ["Session"]

_LOCAL = re.compile(r"(?:unix)?:(\d+)(?:\.\d+)?$")


class Session(NamedTuple):
    """The X display and the Wayland display, '' for none."""

    display: str = ""
    wayland: str = ""

    @staticmethod
    def of(environment: Mapping[str, str]) -> Session:
        """The session that the environment tells of."""
        return Session(environment.get("DISPLAY", ""), environment.get("WAYLAND_DISPLAY", ""))

    def __str__(self) -> str:
        return " and ".join(filter(None, self)) or "none"

    def answers(self, runtime: str = "") -> bool:
        """Whether anybody listens at one of its displays; `runtime` is the folder of the Wayland socket. A display on
        another machine is taken to be there."""
        if self.display and not (local := _LOCAL.match(self.display)):
            return True
        found = [f"\0/tmp/.X11-unix/X{local[1]}", f"/tmp/.X11-unix/X{local[1]}"] if self.display and local else []
        if self.wayland:
            found.append(os.path.join(runtime, self.wayland))
        return any(map(_listens, found))


def _listens(address: str) -> bool:
    with socket.socket(socket.AF_UNIX) as asking:
        asking.settimeout(1.0)
        try:
            asking.connect(address)
        except OSError:
            return False
    return True
