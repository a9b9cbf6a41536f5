"""What stands between a finger and a program: the links that are broken, and what to do about each."""

from __future__ import annotations

from functools import partial

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication, QGridLayout, QHBoxLayout, QVBoxLayout, QWidget

from nakrel import protocol as m
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, label, refilling
from nakrel.words import counted, tr

__all__ = ["Permissions"]

# Each state has its word, and not a colour alone.
_WORDS = {m.CheckState.OK: tr("fine"), m.CheckState.NOTE: tr("note"), m.CheckState.BAD: tr("problem")}
# Remedies that are typed, and so can be copied.
_COMMANDS = ("nakrel ", "sudo ", "echo ")
_STYLES = {m.CheckState.OK: "soft", m.CheckState.NOTE: "soft", m.CheckState.BAD: "alarm"}


class Permissions(QWidget):
    """Asks the service for its checks when it is shown, and again when told to."""

    def __init__(self, store: Store) -> None:
        super().__init__()
        self._store = store
        self.checks: tuple[m.Check, ...] = ()
        self.summary = label("", "soft")
        self.again = button(tr("Check again"), self.examine, "link")
        self.look = button(
            tr("Check again for kernel input"), self._choose_route, "link", tr("Ends all running macros")
        )
        self.more = button(tr("Show all"), self._toggle, "link")
        self._all = False
        self._grid = QGridLayout()
        self._grid.setColumnStretch(2, 1)
        self._grid.setHorizontalSpacing(12)
        self._grid.setVerticalSpacing(4)
        row = QHBoxLayout()
        row.addWidget(label(tr("Input check"), "heading"))
        row.addSpacing(8)
        row.addWidget(self.summary)
        row.addStretch(1)
        for each in (self.more, self.again, self.look):
            row.addWidget(each)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 8, 0, 8)
        layout.addLayout(row)
        layout.addLayout(self._grid)

    def examine(self) -> None:
        """Ask the service to look at every link now."""
        self._store.ask(m.GetChecks(), self._answered)

    def _answered(self, answer: m.AnswerBody) -> None:
        if isinstance(answer, m.Checks):
            self.checks = answer.checks
            self._show()

    def _choose_route(self) -> None:
        self._store.ask(m.ChooseRoute(), lambda answer: self.examine())

    def _toggle(self) -> None:
        self._all = not self._all
        self._show()

    def _show(self) -> None:
        with refilling(self._grid):
            broken = [check for check in self.checks if check.state is m.CheckState.BAD]
            notes = sum(check.state is m.CheckState.NOTE for check in self.checks)
            message = counted(len(broken), "{n} problem found", "{n} problems found")
            state = message if broken else tr("no problem found")
            self.summary.setText(f"{state}, {counted(notes, '{n} note', '{n} notes')}" if notes else state)
            self.more.setText(tr("Show only problems") if self._all else tr("Show all"))
            row = 0
            for check in self.checks if self._all else broken:
                row = self._add(check, row)

    def _add(self, check: m.Check, row: int) -> int:
        top = Qt.AlignmentFlag.AlignTop
        self._grid.addWidget(label(_WORDS[check.state], _STYLES[check.state]), row, 0, top)
        self._grid.addWidget(label(tr(check.link, "check")), row, 1, top)
        finding = label(check.found, wrap=True)
        self._grid.addWidget(finding, row, 2)
        if check.state is m.CheckState.OK:
            return row + 1
        if check.why:
            row += 1
            self._grid.addWidget(label(tr("Why it matters: {why}.").format(why=check.why), "soft", wrap=True), row, 2)
        if check.remedy:
            row += 1
            line = QHBoxLayout()
            remedy = label(tr("What to do: {remedy}").format(remedy=check.remedy), "remedy", wrap=True)
            remedy.setTextInteractionFlags(
                Qt.TextInteractionFlag.TextSelectableByMouse | Qt.TextInteractionFlag.TextSelectableByKeyboard
            )
            line.addWidget(remedy, 1)
            if check.remedy.startswith(_COMMANDS):
                line.addWidget(button(tr("Copy"), partial(_copy, check.remedy), "link", check.remedy))
            self._grid.addLayout(line, row, 2)
        return row + 1


def _copy(text: str) -> None:
    if clipboard := QApplication.clipboard():
        clipboard.setText(text)
