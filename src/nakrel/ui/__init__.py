"""The window: PyQt6 Widgets, one folder a place. It is only a client."""

from nakrel.ui.language import choose

# Before any other part is loaded: many have texts that are looked up once.
choose()
