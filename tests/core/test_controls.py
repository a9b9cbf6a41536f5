"""Controls against the kernel's own header and the published key positions."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

from nakrel.core.model.controls import CONTROLS, Kind, by_number, control
from nakrel.core.model.errors import UnknownControl

HEADER = Path("/usr/include/linux/input-event-codes.h")


@pytest.mark.skipif(not HEADER.exists(), reason="needs the kernel's header (package linux-libc-dev)")
def test_numbers_are_those_of_the_kernels_header():
    """Source: include/uapi/linux/input-event-codes.h."""
    text = HEADER.read_text()
    published = {name: int(number, 0) for name, number in re.findall(r"#define ((?:KEY|BTN)_\w+)\s+(0x\w+|\d+)", text)}
    ours = {c.code: c.number for c in CONTROLS.values() if c.kind is not Kind.WHEEL and "0x" not in c.code}
    assert ours == {name: published[name] for name in ours}
    # Every key of a full keyboard: 1 (Esc) to 127 (Menu) and F13 to F24, without the reserved and unnamed ones.
    wanted = {n for name, n in published.items() if name.startswith("KEY_") and (n <= 127 or 183 <= n <= 194) and n > 0}
    assert wanted <= {c.number for c in CONTROLS.values()}


@pytest.mark.skipif(not HEADER.exists(), reason="needs the kernel's header (package linux-libc-dev)")
def test_the_macro_keys_of_keyboards_are_known():
    """Source: include/uapi/linux/input-event-codes.h."""
    published = re.findall(r"#define (KEY_MACRO\w*|KEY_KBD_LCD_MENU\d)\s", HEADER.read_text())
    assert {CONTROLS[code].part for code in published if code != "KEY_MACRO"} == {"macro"}
    assert len(published) > 40


def test_labels_are_unique_within_a_kind():
    for kind in Kind:
        labels = [c.label for c in CONTROLS.values() if c.kind is kind]
        assert len(labels) == len(set(labels))


def test_the_mouse_has_twelve_extra_buttons():
    extras = [by_number(0x113 + n) for n in range(12)]
    assert all(extra and extra.kind is Kind.BUTTON for extra in extras)


def test_an_unknown_code_gets_the_nearest_ones():
    with pytest.raises(UnknownControl, match=r"'KEY_ENTR'.*KEY_ENTER"):
        control("KEY_ENTR")
