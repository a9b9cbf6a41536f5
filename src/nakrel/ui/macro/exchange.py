"""Macros from files and to files: recordings and tables in, what a macro plays out."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial
from pathlib import Path

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtWidgets import QFileDialog, QWidget

from nakrel.core import notation
from nakrel.core.model.errors import DataError
from nakrel.core.model.game_keys import resolve
from nakrel.core.model.macro import Macro, Section
from nakrel.core.model.runs import RunRecord
from nakrel.core.play.simulate import plan
from nakrel.reading import NotReadable, read_limited
from nakrel.storage import files
from nakrel.storage.files import StorageError
from nakrel.storage.recordings import MOST_BYTES, WRITERS, left_out, read_recording, run_csv, run_left_out, run_vcd
from nakrel.ui import commands
from nakrel.ui.background import Background
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.words import tr

__all__ = ["Exchange"]

# What is offered, by the end of the file's name.
_FORMS = {
    ".txt": (tr("Text"), "notation"),
    ".csv": (tr("Steps as a table"), "csv"),
    ".events.csv": (tr("Events as a table"), "events"),
    ".vcd": (tr("Value change dump"), "vcd"),
    ".evemu": (tr("Recording for evemu-play"), "evemu"),
    ".yml": (tr("Recording for libinput replay"), "libinput"),
}
_READ = tr("Recordings and notation (*.evemu *.yml *.yaml *.csv *.txt)")
_RUN = tr("Table (*.csv);;Value change dump (*.vcd)")
_FILTERS = {f"{message} (*{suffix})": suffix for suffix, (message, _) in _FORMS.items()}


class Exchange(QObject):
    """Reads and writes off the window's thread. `busy` says what goes on, '' when it is over."""

    busy = pyqtSignal(str)

    def __init__(self, store: Store, shown: Shown, of: QWidget) -> None:
        super().__init__(of)
        self._store, self._shown, self._of = store, shown, of
        self._background = Background(self)

    def ask_import(self) -> None:
        """Ask for a file, and make a macro of it."""
        name, _ = QFileDialog.getOpenFileName(
            self._of,
            tr("Make a macro of a recording"),
            "",
            tr("{kinds};;All files (*)").format(kinds=_READ),
        )
        if name:
            self.read(Path(name))

    def ask_export(self) -> None:
        """Ask for a file, and write what the macro plays in the form of its name's end."""
        macro = self._shown.macro
        if macro is None:
            return
        name, chosen = QFileDialog.getSaveFileName(
            self._of, tr("Write what {name} plays").format(name=macro.name), macro.name, ";;".join(_FILTERS)
        )
        if name:
            suffix = _FILTERS.get(chosen, ".txt")
            self.write(macro, Path(name if _suffix_of(name) else name + suffix))

    def ask_run(self, record: RunRecord | None) -> None:
        """Ask for a file, and write what the last run sent."""
        macro = self._shown.macro
        if macro is None or record is None:
            return
        name, chosen = QFileDialog.getSaveFileName(
            self._of,
            tr("Write the last run of {name}").format(name=macro.name),
            tr("{name} run").format(name=macro.name),
            _RUN,
        )
        if name:
            path = Path(name if name.endswith((".csv", ".vcd")) else name + (".vcd" if "vcd" in chosen else ".csv"))
            text = partial(run_vcd, macro, record) if path.suffix == ".vcd" else partial(run_csv, record)
            self._save(path, text, [run_left_out(record)])

    def read(self, path: Path) -> None:
        """Make a macro of a recording, a table of events, or notation."""

        def work() -> Macro | str:
            try:
                if path.suffix == ".txt":
                    found = notation.read(read_limited(path, MOST_BYTES).decode())
                else:
                    found = {Section.LOOP: tuple(read_recording(path))}
            except notation.NotationError as error:
                return f"{path.name}, {error}"
            except NotReadable as error:
                return f"{path.name}: {error}"
            except UnicodeDecodeError:
                return tr("{name} is not text").format(name=path.name)
            except DataError as error:
                return str(error)
            sections = [found.get(section, ()) for section in Section]
            lead_in, loop, lead_out = sections
            name = path.stem[:120] or tr("Recording")
            return Macro(id="new", name=name, lead_in=lead_in, loop=loop, lead_out=lead_out)

        def then(result: Macro | str) -> None:
            if isinstance(result, str):
                self._store.fault.emit(result)
                return
            macro = commands.add_macro(self._store, result)
            self._shown.show_macro(macro.id)

        self._start(tr("Reading {name}…").format(name=path.name), work, then)

    def write(self, macro: Macro, path: Path) -> None:
        """Write what the macro plays, in the form that the file's name asks for."""
        form = _FORMS[_suffix_of(path.name) or ".txt"][1]

        profile = self._shown.profile
        missing: list[str] = []

        def text() -> str:
            if form == "notation":
                return notation.write(macro)
            # Other tools know no game keys.
            keys, name = (profile.key_table(), profile.name) if profile else ({}, "")
            played = resolve(macro, keys, name)
            rows = plan(played, played.play)
            missing.append(left_out(form, rows))
            return WRITERS[form](played, rows)

        self._save(path, text, missing)

    def _save(self, path: Path, text: Callable[[], str], missing: Sequence[str]) -> None:
        """Write the text; `missing`, which it may fill, says what couldn't be written."""

        def work() -> str:
            try:
                files.write(path, text().encode())
            except (DataError, StorageError) as error:
                return tr("{name} was not written: {error}").format(name=path.name, error=error)
            return " ".join(
                tr("{name} was written. {words}").format(name=path.name, words=words) for words in missing if words
            )

        self._start(
            tr("Writing {name}…").format(name=path.name),
            work,
            lambda error: self._store.fault.emit(error) if error else None,
        )

    def cancel(self) -> None:
        """Forget what is being read; what it gives is dropped."""
        self._background.cancel()
        self.busy.emit("")

    def _start(self, message: str, work: Callable[[], object], then: Callable[..., None]) -> None:
        self.busy.emit(message)

        def finished(result: object) -> None:
            self.busy.emit("")
            then(result)

        self._background.start(work, finished)


def _suffix_of(name: str) -> str:
    """The longest known end of a file's name; '' for none."""
    return max((suffix for suffix in _FORMS if name.endswith(suffix)), key=len, default="")
