"""The window: PyQt6 Widgets, one folder a place. It is only a client."""
