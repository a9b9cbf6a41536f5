"""What is saved together is saved as a whole or not at all."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest

from nakrel.core.model.cells import GoTo, RunMacro, What
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import EVERYDAY, Profile, SetUp
from nakrel.core.model.settings import SettingsPatch
from nakrel.service.state import State
from nakrel.storage.files import StorageError
from nakrel.storage.home import Home
from nakrel.storage.library import Library

MACRO = Macro(id="shot", name="Shot")
PROFILES = [
    Profile(
        id=key,
        name=key.title(),
        setups=(SetUp("Main", {"BTN_SIDE": RunMacro("shot"), "BTN_EXTRA": GoTo(What.PROFILE, "kelp")}),),
    )
    for key in (EVERYDAY, "kiln", "reef")
]


def filled(tmp_path: Path) -> Library:
    library = Library(Home.find(tmp_path))
    library.load()
    library.put_macro(MACRO)
    for profile in (*PROFILES, Profile(id="kelp", name="Kelp")):
        library.put_profile(profile)
    library.put_settings(SettingsPatch(pinned="kelp").applied_to(library.settings))
    return library


def contents(library: Library) -> tuple[Any, ...]:
    return dict(library.profiles), dict(library.macros), library.settings


@pytest.mark.parametrize("what", ["delete_macro", "delete_profile"])
@pytest.mark.parametrize("whole", range(5))
def test_a_deletion_that_fails_in_the_midst_leaves_all_as_it_was(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, what: str, whole: int
):
    library = filled(tmp_path)
    before, left = contents(library), whole

    def full(known: Any) -> Any:
        def call(*arguments: Any) -> None:
            nonlocal left
            left -= 1
            if left < 0:
                left = 99
                raise StorageError("no space left")
            known(*arguments)

        return call

    for name in ("put_profile", "put_settings", "delete_macro", "delete_profile"):
        monkeypatch.setattr(library, name, full(getattr(library, name)))
    state = State(library, saver=None, applied=lambda saved: None)  # type: ignore[arg-type]
    key = {"delete_macro": "shot", "delete_profile": "kelp"}[what]
    if whole == 4 and what == "delete_macro":
        # Three profiles and the macro: nothing is left to fail.
        assert getattr(state, what)(key).beyond
        return
    with pytest.raises(StorageError, match="no space left"):
        getattr(state, what)(key)
    assert contents(library) == before
    again = Library(Home.find(tmp_path))
    again.load()
    assert contents(again) == before
    assert not again.faults
