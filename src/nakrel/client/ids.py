"""Ids for what a client makes."""

from __future__ import annotations

import secrets

__all__ = ["new_id"]


def new_id() -> str:
    """An id that no other profile or macro has."""
    return secrets.token_hex(6)
