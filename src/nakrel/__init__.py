"""Nakrel: record, time and attach keystroke and click macros, per game, on Linux."""

__version__ = "0.1.0"
