"""What the process has loaded that services are forked from, as far as it is the same for each of them."""

from __future__ import annotations

import gc

from nakrel.core.model.profile import new_everyday
from tests import loaded

__all__ = ["loaded"]

# The first of each kind of values works out what they are checked for.
new_everyday()
# What each of them need not look through for garbage.
gc.collect()
gc.freeze()
