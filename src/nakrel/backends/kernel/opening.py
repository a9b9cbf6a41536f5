"""Opening the nodes that come."""

from __future__ import annotations

import errno
from collections.abc import Callable
from typing import NamedTuple

from nakrel.backends.kernel import abi
from nakrel.backends.kernel.asking import NodeLike
from nakrel.backends.kernel.finder import Found, serves
from nakrel.system_errors import reason_of
from nakrel.words import tr

__all__ = ["Opened", "open_found"]


class Opened(NamedTuple):
    """A node that came: open, with the keys that are down on it; or without one, why not ('' where it is none of ours)
    and whether that is for want of permission."""

    found: Found
    node: NodeLike | None = None
    down: frozenset[int] = frozenset()
    error: str = ""
    refused: bool = False


def open_found(found: Found, open_node: Callable[[str], NodeLike]) -> Opened:
    """Open a node; on any thread."""
    try:
        node = open_node(found.path)
    except OSError as error:
        if error.errno == errno.EACCES:
            return Opened(found, error=tr("no permission to read it; to get it: nakrel doctor --fix"), refused=True)
        if error.errno in abi.GONE:
            return Opened(found)
        return Opened(
            found,
            error=tr("{path} can't be read ({reason}); plug the device in again").format(
                path=found.path, reason=reason_of(error)
            ),
        )
    try:
        if serves(node.abilities, node.phys):
            down = frozenset(node.keys_down())
            node.attend(False)
            return Opened(found, node, down)
    except OSError:
        pass
    node.close()
    return Opened(found)
