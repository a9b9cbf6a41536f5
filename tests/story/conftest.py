"""The window's stories need a window on a real X server, so they run in a pytest of their own inside one."""

from __future__ import annotations

import os

collect_ignore = [] if os.environ.get("NAKREL_STORY") else ["in_x"]
