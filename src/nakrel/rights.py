"""Whether this process may run with the rights that it has."""

from __future__ import annotations

import os

from nakrel.words import tr

__all__ = ["AS_ROOT", "refusal_reason"]

# Set to 1, it tells Nakrel to run as root all the same: in a container or on a rescue system.
AS_ROOT = "NAKREL_AS_ROOT"


def refusal_reason() -> str:
    """Why Nakrel must not run with this user's rights, '' where it may."""
    if os.geteuid() != 0 or os.environ.get(AS_ROOT) == "1":
        return ""
    return tr(
        "Nakrel doesn't run as root: its macros could do anything to this machine. Start it as the "
        "user who plays; `nakrel doctor` says what that user needs. To run it as root all the same, "
        "set {as_root}=1"
    ).format(as_root=AS_ROOT)
