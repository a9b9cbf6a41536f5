"""Which program has a file open: asked when a device turns out to be taken."""

from __future__ import annotations

import os
from pathlib import Path

__all__ = ["holders_of"]


def holders_of(path: str) -> list[str]:
    """Name and process id of the programs that have the file open; only this user's can be looked into."""
    found = []
    for process in Path("/proc").iterdir():
        if not process.name.isdigit() or int(process.name) == os.getpid():
            continue
        try:
            if any(os.readlink(entry) == path for entry in (process / "fd").iterdir()):
                found.append(f"{(process / 'comm').read_text().strip()}, process {process.name}")
        except OSError:
            continue
    return found
