"""Takes on the disk: the last ten stay, and what can't be read is never written over."""

from __future__ import annotations

from pathlib import Path

import pytest

from nakrel.core.model.steps import Press, Release
from nakrel.storage.files import LeftAlone, StorageError
from nakrel.storage.home import Home
from nakrel.storage.takes import add_take, takes_of

STEPS = (Press(control="KEY_Q"), Release(control="KEY_Q"))


@pytest.fixture
def home(tmp_path: Path) -> Home:
    return Home.find(tmp_path / "home")


def test_the_last_ten_stay_with_their_numbers(home: Home):
    assert takes_of(home, "volley").takes == ()
    for number in range(12):
        add_take(home, "volley", STEPS, 1_000.0 + number)
    found = takes_of(home, "volley").takes
    assert [take.number for take in found] == list(range(3, 13))
    assert found[-1].steps == STEPS


def test_a_damaged_file_is_set_aside_and_the_new_take_is_kept(home: Home):
    add_take(home, "volley", STEPS, 1.0)
    [path] = home.takes.iterdir()
    path.write_text("{ half")
    with pytest.raises(StorageError, match="not JSON"):
        takes_of(home, "volley")
    assert [take.at for take in add_take(home, "volley", STEPS, 2.0).takes] == [2.0]
    assert path.with_name(f"{path.name}.damaged").read_text() == "{ half"


def test_a_file_of_a_later_nakrel_is_left_alone(home: Home):
    add_take(home, "volley", STEPS, 1.0)
    [path] = home.takes.iterdir()
    newer = path.read_text().replace('"version": ', '"version": 9')
    path.write_text(newer)
    with pytest.raises(LeftAlone, match="later Nakrel"):
        add_take(home, "volley", STEPS, 2.0)
    assert path.read_text() == newer
