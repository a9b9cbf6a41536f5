"""What is stored, as the service knows it: profiles, macros and settings.

Everything that changes it is done on one thread, in the order in which it was asked for: read, held to the rules of the
library, written to the disk. The finished values are then handed over to the loop's thread, which never waits.
"""

from __future__ import annotations

import contextlib
from collections.abc import Callable, Iterator
from typing import NamedTuple, TypeVar

from nakrel.core import library as rules
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import EVERYDAY, Profile
from nakrel.core.model.settings import Settings, SettingsPatch
from nakrel.service.worker import Outcome, Worker
from nakrel.storage.files import StorageError
from nakrel.storage.library import Library

__all__ = ["Saved", "State"]

T = TypeVar("T")


class Saved(NamedTuple):
    """What was saved, by id (None for what was deleted), and the settings where they were. `beyond` says whether that
    is more, or other, than what was asked for; `changed` has profiles before and after."""

    profiles: dict[str, Profile | None] = {}
    macros: dict[str, Macro | None] = {}
    settings: Settings | None = None
    beyond: bool = False
    changed: tuple[tuple[Profile | None, Profile], ...] = ()


class State:
    """`profiles`, `macros` and `settings` belong to the loop's thread, `library` to the saver's."""

    def __init__(self, library: Library, saver: Worker, applied: Callable[[Saved], object]) -> None:
        self.library, self.saver = library, saver
        self._applied = applied
        self.profiles: dict[str, Profile] = dict(library.profiles)
        self.macros: dict[str, Macro] = dict(library.macros)
        self.settings = library.settings

    def change(self, work: Callable[[], Saved], then: Callable[[Outcome[Saved]], object]) -> None:
        """Save what `work` saves, on the saver's thread; go by it; then call `then`. Where `work` raises, nothing has
        changed."""

        def finished(outcome: Outcome[Saved]) -> None:
            if outcome.error is None:
                self._apply(outcome.get())
            then(outcome)

        self.saver.do(work, finished)

    def _apply(self, saved: Saved) -> None:
        for key, profile in saved.profiles.items():
            _put(self.profiles, key, profile)
        for key, macro in saved.macros.items():
            _put(self.macros, key, macro)
        if saved.settings is not None:
            self.settings = saved.settings
        self._applied(saved)

    # What can be saved; on the saver's thread, raising `StorageError`

    def put_macro(self, macro: Macro) -> Saved:
        """Save a macro."""
        self.library.put_macro(macro)
        return Saved(macros={macro.id: macro})

    def delete_macro(self, key: str) -> Saved:
        """Delete a macro; the buttons that play it become free."""
        freed = rules.without_macro(key, self.library.profiles.values())
        with self._together():
            for profile in freed:
                self.library.put_profile(profile)
            self.library.delete_macro(key)
        return Saved({profile.id: profile for profile in freed}, {key: None}, beyond=bool(freed))

    def put_profile(self, profile: Profile) -> Saved:
        """Save a profile, and what follows it."""
        library = self.library
        before = library.profiles.get(profile.id)
        entailed = rules.saved(before, profile, library.profiles, library.macros)
        with self._together():
            for macro in entailed.macros:
                library.put_macro(macro)
            library.put_profile(entailed.profile)
        beyond = entailed.profile != profile or bool(entailed.macros)
        return Saved(
            {profile.id: entailed.profile},
            {macro.id: macro for macro in entailed.macros},
            beyond=beyond,
            changed=((before, entailed.profile),),
        )

    def delete_profile(self, key: str) -> Saved:
        """Delete a profile; buttons that go to it become free, and a pin on it is taken off."""
        assert key != EVERYDAY
        library = self.library
        freed = rules.without_profile(key, library.profiles.values())
        settings = None
        with self._together():
            for profile in freed:
                library.put_profile(profile)
            if library.settings.pinned == key:
                settings = SettingsPatch(pinned="").applied_to(library.settings)
                library.put_settings(settings)
            library.delete_profile(key)
        found: dict[str, Profile | None] = {profile.id: profile for profile in freed}
        return Saved({**found, key: None}, settings=settings, beyond=bool(freed))

    def change_settings(self, patch: SettingsPatch) -> Saved:
        """Change some of the settings, as they are by then."""
        settings = patch.applied_to(self.library.settings)
        self.library.put_settings(settings)
        return Saved(settings=settings)

    @contextlib.contextmanager
    def _together(self) -> Iterator[None]:
        """What is saved in it belongs together: where a part can't be, those before it are put back as they were."""
        library = self.library
        profiles, macros, settings = dict(library.profiles), dict(library.macros), library.settings
        try:
            yield
        except StorageError:
            # A disk that is full has room for what was there before; one that takes nothing has taken nothing.
            with contextlib.suppress(StorageError):
                for profile in profiles.values():
                    if library.profiles.get(profile.id) is not profile:
                        library.put_profile(profile)
                for macro in macros.values():
                    if library.macros.get(macro.id) is not macro:
                        library.put_macro(macro)
                if library.settings is not settings:
                    library.put_settings(settings)
            raise


def _put(items: dict[str, T], key: str, item: T | None) -> None:
    if item is None:
        items.pop(key, None)
    else:
        items[key] = item
