"""The colours: hues that mean different things are told apart by every eye."""

from __future__ import annotations

import itertools

import numpy as np
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QColor
from PyQt6.QtWidgets import QPlainTextEdit

from nakrel.ui import theme
from tests.ui.conftest import Ui

PALETTES = {name: getattr(theme, name) for name in ("DAY", "NIGHT", "DAY_HIGH", "NIGHT_HIGH")}
TRACES = ("key", "button", "wheel", "pointer", "other")
# G. M. Machado, M. M. Oliveira, L. A. F. Fernandes, A physiologically-based model for simulation of color vision
# deficiency, 2009: the matrices for eyes without red and without green, in linear RGB.
EYES = {
    "usual": np.eye(3),
    "no red": np.array([
        [0.152286, 1.052583, -0.204868], [0.114503, 0.786281, 0.099216], [-0.003882, -0.048116, 1.051998],
    ]),
    "no green": np.array([
        [0.367322, 0.860646, -0.227968], [0.280085, 0.672501, 0.047413], [-0.011820, 0.042940, 0.968881],
    ]),
}  # fmt: skip
# IEC 61966-2-1 (sRGB) to CIE XYZ, for the white of D65.
XYZ = np.array(
    [[0.4124564, 0.3575761, 0.1804375], [0.2126729, 0.7151522, 0.0721750], [0.0193339, 0.1191920, 0.9503041]]
)
WHITE = np.array([0.95047, 1.0, 1.08883])


def linear(colour: str) -> np.ndarray:
    part = np.array([int(colour[at : at + 2], 16) for at in (1, 3, 5)]) / 255
    return np.where(part <= 0.04045, part / 12.92, ((part + 0.055) / 1.055) ** 2.4)


def contrast(one: str, other: str) -> float:
    """WCAG 2.1, contrast ratio."""
    low, high = sorted(float(XYZ[1] @ linear(each)) for each in (one, other))
    return (high + 0.05) / (low + 0.05)


def lab(light: np.ndarray) -> np.ndarray:
    """CIE 1976 L*a*b*."""
    part = XYZ @ np.clip(light, 0, 1) / WHITE
    root = np.where(part > 0.008856, np.cbrt(part), 7.787 * part + 16 / 116)
    return np.array([116 * root[1] - 16, 500 * (root[0] - root[1]), 200 * (root[1] - root[2])])


@pytest.mark.parametrize("eye", EYES)
@pytest.mark.parametrize("name", PALETTES)
def test_traces_of_different_kinds_are_told_apart(name: str, eye: str):
    """A difference of 10 in L*a*b* is seen at a glance; 2 is just seen."""
    shown = {kind: lab(EYES[eye] @ linear(getattr(PALETTES[name], kind))) for kind in TRACES}
    for one, other in itertools.combinations(TRACES, 2):
        assert np.linalg.norm(shown[one] - shown[other]) >= 10, (one, other)


@pytest.mark.parametrize("name", PALETTES)
def test_the_lines_of_a_selected_row_are_told_from_paper(name: str):
    palette = PALETTES[name]
    assert min(contrast(palette.brass, palette.paper), contrast(palette.brass, palette.field)) >= 1.5


def test_nothing_is_drawn_where_two_scroll_bars_meet(ui: Ui):
    """It would stay there when the lower one goes: the other draws nothing beneath its handle."""
    field = QPlainTextEdit(ui.window)
    field.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOn)
    field.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOn)
    field.resize(200, 120)
    field.show()
    picture = field.grab().toImage()
    # Within the line around the field.
    corner = {picture.pixelColor(x, y).name() for x in range(188, 196) for y in range(108, 116)}
    assert corner == {QColor(theme.palette().field).name()}
