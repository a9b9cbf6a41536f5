"""What all messages have in common."""

from __future__ import annotations

from nakrel.core.model.value import Value

__all__ = ["MAX_LINE", "PROTOCOL", "Message"]

# Raised whenever an older end would misread a message; both ends say theirs in the first exchange.
PROTOCOL = 3
# A request longer than this is not one: the largest macro allowed (200,000 steps) takes some 10 MB.
MAX_LINE = 32 * 1024 * 1024


class Message(Value, frozen=True, tag_field="is", tag=True, omit_defaults=True, forbid_unknown_fields=True):
    """A message of either direction; its class name is its tag."""
