"""A program that remaps keys as many do: it has a device for itself, and sends on all keys through one of its own.

`python -m tests.kernel.remapper NODE`; it says `ready` when it has it.
"""

from __future__ import annotations

import fcntl
import select
import sys

from nakrel.backends.kernel import abi
from nakrel.backends.kernel.nodes import Abilities, Node, Virtual

NAME = "Remapped keyboard"


class _Plain(Virtual):
    """A virtual device that isn't marked as Nakrel's own."""

    def _create(self, phys: str) -> None:
        for kind, codes in self.abilities.codes.items():
            fcntl.ioctl(self.fd, abi.UI_SET_EVBIT, kind)
            for code in codes:
                fcntl.ioctl(self.fd, abi.UI_SET_CODE[kind], code)
        fcntl.ioctl(self.fd, abi.UI_DEV_SETUP, abi.SETUP.pack(*self.abilities.ids, self.name.encode(), 0))
        fcntl.ioctl(self.fd, abi.UI_DEV_CREATE)


def main() -> None:
    """Send on what comes, until killed."""
    node = Node(sys.argv[1])
    node.grab(True)
    out = _Plain(NAME, Abilities((3, 0x1209, 0x99, 1), {abi.EV_KEY: frozenset(range(1, 128))}, {}))
    sys.stdout.write("ready\n")
    sys.stdout.flush()
    while True:
        select.select([node.fd], [], [])
        for _, _, kind, code, value in abi.EVENT.iter_unpack(node.read()):
            if kind == abi.EV_KEY and code < 128:
                out.write(abi.report((kind, code, value)))


if __name__ == "__main__":
    main()
