"""The witness: libinput, through which most desktops read their devices, tells all that reaches programs."""

from __future__ import annotations

import os
import re
import subprocess
import threading
from collections import Counter
from typing import NamedTuple

from tests.support import wait_for

__all__ = ["Seen", "Witness"]

_KEY = re.compile(r"^.(\S+)\s+(?:KEYBOARD_KEY|POINTER_BUTTON)\s+\S+\s+(\S+) \(-?\d+\) (pressed|released)")
_COLOUR = re.compile(r"\x1b\[[0-9;]*m")
_MOVE = re.compile(r"^.(\S+)\s+POINTER_MOTION\s+\S+\s+\S+\s*\S+\s+\(\s*([-+\d.]+)/\s*([-+\d.]+)\)")
_POSITION = re.compile(r"^.(\S+)\s+POINTER_MOTION_ABSOLUTE\s+\S+\s+([\d.]+)/\s*([\d.]+)")
_WHEEL = re.compile(r"^.(\S+)\s+POINTER_SCROLL_WHEEL\s+\S+\s+vert ([-\d.]+)/([-\d.]+)")
_ADDED = re.compile(r"^.(\S+)\s+DEVICE_ADDED\s+(.+?)\s+seat")


class Seen(NamedTuple):
    """A key or button that went down (1) or up (0), and the node that told it."""

    control: str
    value: int
    node: str


class Witness:
    """Runs `libinput debug-events` and keeps what it says."""

    def __init__(self) -> None:
        self.seen: list[Seen] = []
        self.moved = [0.0, 0.0]
        self.wheel = 0.0
        # In hundredths of the screen.
        self.positions: list[tuple[float, float]] = []
        self.names: dict[str, str] = {}
        # What it said that none of these are.
        self.unread: list[str] = []
        self._read_fd, write_fd = os.openpty()
        # Into a terminal, or its output would come in blocks.
        self._process = subprocess.Popen(
            ["libinput", "debug-events", "--udev", "seat0", "--show-keycodes"], stdout=write_fd, stderr=write_fd
        )
        os.close(write_fd)
        self._thread = threading.Thread(target=self._listen, daemon=True)
        self._thread.start()

    def _listen(self) -> None:
        rest = ""
        while True:
            try:
                data = os.read(self._read_fd, 65_536)
            except OSError:
                return
            if not data:
                return
            *lines, rest = (rest + data.decode("utf-8", "replace")).split("\n")
            for line in lines:
                self._take(line.rstrip("\r"))

    def _take(self, line: str) -> None:
        # It colours its warnings, and a colour's end stands before the next line's event.
        line = _COLOUR.sub("", line)
        if found := _KEY.match(line):
            self.seen.append(Seen(found[2], int(found[3] == "pressed"), found[1]))
        elif found := _MOVE.match(line):
            self.moved[0] += float(found[2])
            self.moved[1] += float(found[3])
        elif found := _POSITION.match(line):
            self.positions.append((float(found[2]), float(found[3])))
        elif found := _WHEEL.match(line):
            self.wheel += float(found[3]) / 120
        elif found := _ADDED.match(line):
            self.names[found[1]] = found[2]
        else:
            self.unread.append(line)

    def knows(self, node: str) -> None:
        """Wait until it reads the node."""
        wait_for(lambda: node in self.names, f"libinput to read {node}", 30)

    def forget(self, name: str) -> None:
        """Devices of this name have gone, or will: what is known of such from now on is new."""
        for node in [node for node, each in self.names.items() if each == name]:
            del self.names[node]

    def count(self, control: str, value: int = 1) -> int:
        """How often the control went down (or up)."""
        return sum(seen.control == control and seen.value == value for seen in list(self.seen))

    def down(self) -> set[str]:
        """What is down by its books."""
        held: Counter[str] = Counter()
        for seen in list(self.seen):
            held[seen.control] += 1 if seen.value else -1
        return {control for control, count in held.items() if count}

    def end(self) -> None:
        """End it."""
        self._process.terminate()
        self._process.wait()
        self._thread.join(5)
        os.close(self._read_fd)
