"""The errors that the user's own data can cause; each names the thing, the reason and the remedy."""

from __future__ import annotations

__all__ = ["DataError", "UnknownControl"]


class DataError(ValueError):
    """Something in the user's data can't be used as it is."""


class UnknownControl(DataError):
    """A control's code is not in the table; the message carries the nearest codes that are."""
