"""Words that people read: the order that names stand in."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nakrel.words import order_of


@pytest.mark.parametrize(
    "names",
    [
        ["Thumb 1", "Thumb 2", "Thumb 10", "Thumb 12"],
        # Accents and capitals are for the eye: é, Ä and ö stand where e, a and o do (ISO/IEC 14651, the first level).
        ["Äpfel", "apple", "échelle", "Eclipse", "Orrery", "östlich", "Zebra"],
        ["", "2", "10", "Level 2", "Level 2b", "Level 10"],
        ["Macro", "macro", "Macro 1", "macro 2"],
    ],
)
def test_names_are_sorted_as_people_look_for_them(names: list[str]):
    backwards = names[::-1]
    assert sorted(backwards, key=order_of) == names


@given(st.lists(st.text(max_size=20)))
def test_any_names_can_be_sorted_and_none_is_another(names: list[str]):
    found = sorted(names, key=order_of)
    assert sorted(found) == sorted(names)
    backwards = found[::-1]
    assert sorted(backwards, key=order_of) == found
