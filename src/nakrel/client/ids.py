"""Ids for what a client makes."""

from __future__ import annotations

import os

__all__ = ["new_id"]


def new_id() -> str:
    """An id that no other profile or macro has."""
    return os.urandom(6).hex()
