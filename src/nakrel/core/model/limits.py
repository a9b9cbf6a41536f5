"""Every limit of a value, in one place: the types' own checks, the schemas, the window's fields and the text page all
read them from here.

A limit says why it is there; none of them is meant to be met in use.
"""

from __future__ import annotations

from typing import Annotated

import msgspec

__all__ = [
    "COLOUR",
    "COLOUR_OR_NONE",
    "ID",
    "LAYOUT",
    "MAX_ARGUMENT",
    "MAX_ARGUMENTS",
    "MAX_CHORD",
    "MAX_COMMENT",
    "MAX_COUNT",
    "MAX_DEPTH",
    "MAX_FORMULA",
    "MAX_FORMULA_NODES",
    "MAX_FORMULA_SIGNS",
    "MAX_GAME_KEYS",
    "MAX_LAYERS",
    "MAX_LIMIT_US",
    "MAX_NAME",
    "MAX_NOTCHES",
    "MAX_NOTE",
    "MAX_OPENED",
    "MAX_OPTIONS",
    "MAX_PIXELS",
    "MAX_PROGRAMS",
    "MAX_RATE",
    "MAX_SECONDS",
    "MAX_SETUPS",
    "MAX_SIDE",
    "MAX_STAGES",
    "MAX_STEPS",
    "MAX_TEXT",
    "MAX_WAIT_US",
    "MAX_WEIGHT",
    "Argument",
    "Command",
    "Comment",
    "Count",
    "Id",
    "LongText",
    "NO_NUL",
    "Name",
    "Note",
    "Rate",
    "SecretName",
    "VARIABLE",
    "WaitUs",
]

# Ten minutes: longer than any wait met in play (common practice: up to some 10 s), short enough to catch a slip of a
# unit.
MAX_WAIT_US = 600_000_000
# A Toggle that ends by itself does so within a day.
MAX_LIMIT_US = 86_400_000_000
MAX_COUNT = 1_000_000
MAX_NOTCHES = 1_000
MAX_WEIGHT = 1_000
# Characters a second: faster than programs read keys.
MAX_RATE = 250
# No arrangement of screens is larger.
MAX_PIXELS = 100_000
MAX_SIDE = 100_000
# Ten fingers, and no keyboard tells more keys than these at once reliably (common practice, no published source).
MAX_CHORD = 8
MAX_OPTIONS = 100
# Deep enough for anything that people can still read.
MAX_DEPTH = 8
# In all sections together, blocks and what is inside them included: some 10 MB of a file.
MAX_STEPS = 200_000

MAX_NAME = 120
MAX_NOTE = 10_000
MAX_COMMENT = 1_000
MAX_TEXT = 10_000
# The longest path of Linux (PATH_MAX, limits.h).
MAX_ARGUMENT = 4_096
MAX_ARGUMENTS = 64

MAX_FORMULA = 200
# Of all different formulas of a macro together: reading a formula takes about a microsecond a character.
MAX_FORMULA_SIGNS = 50_000
MAX_FORMULA_NODES = 20_000

MAX_SETUPS = 50
MAX_LAYERS = 20
MAX_GAME_KEYS = 500
MAX_PROGRAMS = 200
MAX_STAGES = 20
# A countdown or a time limit of a recording: an hour.
MAX_SECONDS = 3_600

# What texts must be like.
NO_NUL = r"^[^\x00]*$"
VARIABLE = r"^[A-Za-z_][A-Za-z0-9_]{0,39}$"
COLOUR = r"^#[0-9A-Fa-f]{6}$"
ID = r"^[^/\x00-\x1f]+$"
COLOUR_OR_NONE = r"^(#[0-9A-Fa-f]{6})?$"
LAYOUT = r"^[\w:()+.-]*$"

WaitUs = Annotated[int, msgspec.Meta(ge=0, le=MAX_WAIT_US)]
Count = Annotated[int, msgspec.Meta(ge=1, le=MAX_COUNT)]
Rate = Annotated[int, msgspec.Meta(ge=1, le=MAX_RATE)]
Name = Annotated[str, msgspec.Meta(min_length=1, max_length=MAX_NAME)]
Id = Annotated[str, msgspec.Meta(min_length=1, max_length=80, pattern=ID)]
Note = Annotated[str, msgspec.Meta(max_length=MAX_NOTE)]
Comment = Annotated[str, msgspec.Meta(max_length=MAX_COMMENT)]
LongText = Annotated[str, msgspec.Meta(max_length=MAX_TEXT)]
SecretName = Annotated[str, msgspec.Meta(max_length=MAX_NAME)]
Argument = Annotated[str, msgspec.Meta(min_length=1, max_length=MAX_ARGUMENT, pattern=NO_NUL)]
Command = Annotated[tuple[Argument, ...], msgspec.Meta(min_length=1, max_length=MAX_ARGUMENTS)]

# Programs that macros open in a second, all macros together: a slip must not fill the machine.
MAX_OPENED = 5
