"""What is dragged inside the window, by its kind."""

from __future__ import annotations

__all__ = ["CELL_MIME", "MACRO_MIME"]

MACRO_MIME = "application/x-nakrel-macro"
CELL_MIME = "application/x-nakrel-cell"
