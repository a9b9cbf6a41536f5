"""Earlier versions of a profile or macro, and what was deleted: to be looked at and brought back."""

from __future__ import annotations

import difflib
from typing import Literal

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QStandardItem, QStandardItemModel, QSyntaxHighlighter, QTextCharFormat
from PyQt6.QtWidgets import QDialog, QHBoxLayout, QPlainTextEdit, QSplitter, QVBoxLayout, QWidget

from nakrel import protocol as m
from nakrel.core.edit.row_words import list_text
from nakrel.core.model.controls import label as control_label
from nakrel.core.model.fair_play import FAIR_PLAY_WORDS
from nakrel.core.model.macro import Macro, describe_play
from nakrel.core.model.profile import Profile
from nakrel.core.model.programs import describe_rule
from nakrel.ui import commands
from nakrel.ui.sheet.model import cell_text
from nakrel.ui.store import Store
from nakrel.ui.theme import colour
from nakrel.ui.widgets.basics import button, label
from nakrel.ui.widgets.moments import moment
from nakrel.ui.widgets.rows import SOFT, Table
from nakrel.words import sentence, tr

__all__ = ["History"]

# So much text of a version is enough to know it by.
_MOST_LINES = 2_000
_MARKS = ("−", "+")
_MARK_PX = 16


class History(QDialog):
    """The kept versions of one thing, the newest first; without an id the last versions of what was deleted."""

    def __init__(
        self, store: Store, kind: Literal["profile", "macro"], key: str = "", parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self._store, self._key = store, key
        self.versions: tuple[m.Version, ...] = ()
        now = (store.profiles if kind == "profile" else store.macros).get(key)
        self.setWindowTitle(
            tr("Versions of {name}").format(name=now.name)
            if now
            else tr("Deleted profiles")
            if kind == "profile"
            else tr("Deleted macros")
        )
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.resize(760, 520)
        self._model = QStandardItemModel(0, 2, self)
        self._model.setHorizontalHeaderLabels([tr("saved", "when"), tr("name", "of a thing")])
        self.table = Table(tr("Versions"))
        self.table.setModel(self._model)
        self.table.set_widths(184)
        self.text = QPlainTextEdit()
        self.text.setReadOnly(True)
        self.text.setTabStopDistance(_MARK_PX)
        self.text.setAccessibleName(tr("What was in it"))
        self._marks = _Marks(self.text.document())
        self._legend, self._message = label("", "soft"), label("", "soft", wrap=True)
        self.back_button = button(tr("Restore"), self.bring_back, "act")
        self._build()
        if chosen := self.table.selectionModel():
            chosen.currentRowChanged.connect(lambda row, before: self._show(row.row()))
        self.table.activated.connect(lambda index: self.bring_back())
        store.ask(m.GetVersions(kind, key), self._fill)

    def _build(self) -> None:
        layout = QVBoxLayout(self)
        halves = QSplitter()
        halves.addWidget(self.table)
        halves.addWidget(self.text)
        halves.setSizes([320, 420])
        layout.addWidget(halves, 1)
        layout.addWidget(self._legend)
        layout.addWidget(self._message)
        row = QHBoxLayout()
        row.addStretch(1)
        row.addWidget(button(tr("Close"), self.reject))
        row.addWidget(self.back_button)
        layout.addLayout(row)
        self.back_button.setEnabled(False)

    def _fill(self, answer: m.AnswerBody) -> None:
        if isinstance(answer, m.Refused):
            self._message.setText(sentence(answer.error))
        if not isinstance(answer, m.Versions):
            return
        self.versions = answer.versions
        for number, version in enumerate(answer.versions):
            item = version.profile or version.macro
            saved = QStandardItem(moment(version.at))
            name = QStandardItem(item.name if item else "")
            if number == 0 and self._key:
                name.setData(tr(" as it is now"), SOFT)
            for part in (saved, name):
                part.setEditable(False)
            self._model.appendRow([saved, name])
        if answer.versions:
            self.table.selectRow(min(1, len(answer.versions) - 1) if self._key else 0)
        self._message.setText("" if answer.versions else tr("No earlier version."))

    def _show(self, row: int) -> None:
        if not 0 <= row < len(self.versions):
            return
        version = self.versions[row]
        text = _macro_text(version.macro) if version.macro else ""
        if version.profile:
            text = _profile_text(self._store, version.profile)
        item = version.profile or version.macro
        there = (self._store.profiles | self._store.macros).get(item.id) if item else None
        lines = _differences(text, self._text_of(there)) if there is not None else text.splitlines()
        more = (
            tr("\n… and {value} lines more").format(value=len(lines) - _MOST_LINES) if len(lines) > _MOST_LINES else ""
        )
        self.text.setPlainText("\n".join(lines[:_MOST_LINES]) + more)
        differs = any(line[:1] in _MARKS for line in lines)
        self._legend.setText(tr("− in this version only    + now only") if differs else "")
        self.back_button.setEnabled(item is not None and item != there)

    def _text_of(self, item: Profile | Macro) -> str:
        return _macro_text(item) if isinstance(item, Macro) else _profile_text(self._store, item)

    def bring_back(self) -> None:
        """Make the chosen version the present one; undo takes that back."""
        row = self.table.currentIndex().row()
        if not 0 <= row < len(self.versions) or not self.back_button.isEnabled():
            return
        version = self.versions[row]
        if version.profile:
            commands.edit_profile(self._store, tr("restore {name}").format(name=version.profile.name), version.profile)
        elif version.macro:
            commands.edit_macro(self._store, tr("restore {name}").format(name=version.macro.name), version.macro)
        self.accept()


def _differences(before: str, now: str) -> list[str]:
    """The lines of a version, with those that differ from how it is now marked."""
    marked = []
    for line in difflib.ndiff(before.splitlines(), now.splitlines()):
        if not line.startswith("?"):
            marked.append(f"{line[0].replace('-', '−').strip()}\t{line[2:]}")
    return marked


class _Marks(QSyntaxHighlighter):
    """Colours the lines that differ; their sign says the same."""

    def highlightBlock(self, text: str | None) -> None:
        """Colour one line."""
        if text and text[0] in _MARKS:
            form = QTextCharFormat()
            form.setForeground(colour("alarm" if text[0] == "−" else "wheel"))
            self.setFormat(0, len(text), form)


def _macro_text(macro: Macro) -> str:
    note = f"{macro.note}\n" if macro.note else ""
    plays = tr("plays: {how}").format(how=describe_play(macro.play))
    return f"{macro.name}\n{note}{plays}\n\n{list_text(macro)}"


def _profile_text(store: Store, profile: Profile) -> str:
    lines = [profile.name, *([profile.note] if profile.note else [])]
    lines += [tr("linked to {value}").format(value=describe_rule(rule)) for rule in profile.programs]
    lines.append(tr("fair play: {value}").format(value=tr(FAIR_PLAY_WORDS[profile.fair_play])))
    for setup in profile.setups:
        lines += ["", setup.name]
        for layer, code, cell in setup.every():
            _, text, soft = cell_text(store, cell)
            lines.append(f"  {control_label(code, layer)}: {text}{soft}")
    if profile.keys:
        lines += ["", tr("game keys"), *(f"  {key.name}: {control_label(key.control)}" for key in profile.keys)]
    return "\n".join(lines)
