"""The board: keys at their places, by ISO/IEC 9995-1, for keyboards of all sizes; a mouse as tiles."""

from __future__ import annotations

import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nakrel.core.model.board import Board, Place, board_of, is_usual, neighbour
from nakrel.core.model.controls import CONTROLS, second

ALL = tuple(c.code for c in CONTROLS.values() if c.part in ("keys", "function", "navigation", "keypad"))
NO_PAD = tuple(code for code in ALL if CONTROLS[code].part != "keypad")
SMALL = tuple(code for code in ALL if CONTROLS[code].part == "keys" and code != "KEY_102ND")
KEYPAD = tuple(code for code in ALL if CONTROLS[code].part == "keypad")
MOUSE = ("BTN_LEFT", "BTN_RIGHT", "BTN_MIDDLE", "WHEEL_UP", "WHEEL_DOWN", "BTN_SIDE", "BTN_EXTRA")
THUMBS = tuple(f"BTN_TRIGGER_HAPPY{n}" for n in range(1, 13))


def at(board: Board, code: str) -> Place:
    return next(place for place in board.places if place.code == code)


def overlap(one: Place, other: Place) -> bool:
    across = min(one.x + one.width, other.x + other.width) - max(one.x, other.x)
    down = min(one.y + one.height, other.y + other.height) - max(one.y, other.y)
    return across > 1e-6 and down > 1e-6


@pytest.mark.parametrize("controls", [ALL, NO_PAD, SMALL, (*MOUSE, *THUMBS), (*SMALL, *MOUSE), MOUSE, KEYPAD])
def test_no_two_lie_on_each_other_and_each_is_there_once(controls: tuple[str, ...]):
    board = board_of(controls)
    for one, other in itertools.combinations(board.places, 2):
        assert not overlap(one, other), (one, other)
    codes = [place.code for place in board.places]
    assert len(codes) == len(set(codes))
    assert sorted([*codes, *board.more]) == sorted(controls)


def test_rows_and_widths_are_those_of_the_standard():
    """ISO/IEC 9995-1: in row C the home row's A lies under Q and above Z; the alphanumeric section is 15 units wide."""
    iso, ansi = board_of(ALL), board_of([code for code in ALL if code != "KEY_102ND"])
    for board in (iso, ansi):
        main = [p for p in board.places if 1 < p.y < 6.5 and CONTROLS[p.code].part == "keys"]
        assert max(p.x + p.width for p in main) == 15
        q, a, z = (at(board, f"KEY_{key}") for key in "QAZ")
        assert q.y + 1 == a.y == z.y - 1
        assert q.x < a.x < z.x
        assert at(board, "KEY_1").x < q.x
    assert at(iso, "KEY_102ND").x + 1 == at(iso, "KEY_Z").x
    assert at(iso, "KEY_ENTER").height == 2
    assert at(ansi, "KEY_ENTER").height == 1
    assert at(ansi, "KEY_BACKSLASH").y == at(ansi, "KEY_Q").y
    assert at(iso, "KEY_BACKSLASH").y == at(iso, "KEY_A").y
    assert iso.kind == "ISO, full size"
    assert board_of(NO_PAD).kind == "ISO, without keypad"
    assert board_of(SMALL).kind == "ANSI, small"


def test_a_numeric_section_is_a_telephones_upside_down():
    """ISO/IEC 9995-4: 7 8 9 above 4 5 6 above 1 2 3 above 0."""
    board = board_of(ALL)
    for row in ("789", "456", "123"):
        assert len({at(board, f"KEY_KP{digit}").y for digit in row}) == 1
    columns = [[at(board, f"KEY_KP{digit}").x for digit in row] for row in ("741", "852", "963")]
    assert all(len(set(column)) == 1 for column in columns)
    assert at(board, "KEY_KP7").y < at(board, "KEY_KP4").y < at(board, "KEY_KP1").y < at(board, "KEY_KP0").y


def test_keys_that_nobody_has_are_listed_only():
    board = board_of(ALL)
    assert "KEY_HIRAGANA" in board.more
    assert not is_usual("KEY_HIRAGANA")
    assert is_usual("KEY_Q")
    assert is_usual("BTN_SIDE")


def test_a_mouse_has_a_grid_of_three_and_tiles_of_one_size():
    board = board_of((*MOUSE, *THUMBS))
    assert len({(place.width, place.height) for place in board.places}) == 1
    grid = [at(board, code) for code in THUMBS]
    assert len({place.x for place in grid}) == 3
    assert [place.y for place in grid] == sorted(place.y for place in grid)


def test_a_keypad_by_itself_lies_as_a_keypad():
    board = board_of((*KEYPAD, "KEY_BACKSPACE"))
    assert board.kind == "keypad"
    assert at(board, "KEY_KP7")[1:] == (0, 1, 1, 1)
    assert at(board, "KEY_KP0").width == at(board, "KEY_KPENTER").height == 2
    assert "KEY_BACKSPACE" in board.more
    apart = board_of([second(code) for code in KEYPAD])
    assert at(apart, second("KEY_KP5"))[1:] == at(board, "KEY_KP5")[1:]
    # A mouse whose thumb buttons send the keypad stays a mouse.
    assert board_of((*MOUSE, *KEYPAD)).kind == "mouse"


def test_a_mouse_that_tells_of_a_whole_keyboard_is_drawn_as_a_mouse():
    board = board_of((*MOUSE, *THUMBS, *ALL))
    assert {place.code for place in board.places} == {*MOUSE, *THUMBS}
    assert board.more == ALL


def test_arrows_go_to_what_lies_beside():
    board = board_of(ALL)
    for code, dx, dy, there in (
        ("KEY_Q", 1, 0, "KEY_W"),
        ("KEY_W", -1, 0, "KEY_Q"),
        ("KEY_S", 0, -1, "KEY_W"),
        ("KEY_ESC", 1, 0, "KEY_F1"),
        ("KEY_ESC", -1, 0, "KEY_ESC"),
        ("KEY_KP5", 0, 1, "KEY_KP2"),
        ("KEY_UP", 0, 1, "KEY_DOWN"),
    ):
        assert neighbour(board, code, dx, dy) == there


@given(st.sampled_from([ALL, NO_PAD, SMALL, (*MOUSE, *THUMBS)]))
def test_every_key_is_reached_by_the_arrows(controls: tuple[str, ...]):
    board = board_of(controls)
    reached, todo = set(), [board.places[0].code]
    while todo:
        code = todo.pop()
        if code not in reached:
            reached.add(code)
            todo += [neighbour(board, code, dx, dy) for dx, dy in ((1, 0), (-1, 0), (0, 1), (0, -1))]
    assert reached == {place.code for place in board.places}
