"""Linking a profile to a program that runs."""

from __future__ import annotations

from PyQt6.QtCore import QSortFilterProxyModel, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QStandardItem, QStandardItemModel
from PyQt6.QtWidgets import QDialog, QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from nakrel.core import messages as m
from nakrel.core.profile import MatchBy, ProgramRule
from nakrel.core.programs import Program, matches, suggest_rule
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import Segments, button, label
from nakrel.ui.widgets.rows import WEAK, Table

__all__ = ["LinkDialog"]

_PROGRAM = Qt.ItemDataRole.UserRole + 20
_REFRESH_MS = 1000


class LinkDialog(QDialog):
    """Pick a running program, see which rule will find it again, and what that rule matches now."""

    linked = pyqtSignal(object)

    def __init__(self, store: Store, profile_name: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(f"Link a program to {profile_name}")
        self.resize(680, 460)
        self._store = store
        self._programs: tuple[Program, ...] = ()
        self._model = QStandardItemModel(0, 3, self)
        self._model.setHorizontalHeaderLabels(["window", "program", "path"])
        self._proxy = QSortFilterProxyModel(self)
        self._proxy.setSourceModel(self._model)
        self._proxy.setFilterKeyColumn(-1)
        self._proxy.setFilterCaseSensitivity(Qt.CaseSensitivity.CaseInsensitive)
        self.search = QLineEdit()
        self.search.setPlaceholderText("Find a running program")
        self.search.setAccessibleName("Find a running program")
        self.table = Table("Running programs")
        self.rule_by = Segments([("path", "Path"), ("name", "Name"), ("command", "Command")], "Match by")
        self.rule_value = QLineEdit()
        self.rule_value.setAccessibleName("What to match")
        self._hint = label("", "soft", wrap=True)
        self.link_button = button("Link", self._link, "act")
        self._match = MatchBy.NAME
        self._build()
        self.search.textChanged.connect(self._proxy.setFilterFixedString)
        self.rule_by.chosen.connect(self._by_chosen)
        self.rule_value.textChanged.connect(self._show_matches)
        if chosen := self.table.selectionModel():
            chosen.currentRowChanged.connect(lambda now, before: self._picked())
        self.table.activated.connect(lambda index: self._link())
        self._timer = QTimer(self)
        self._timer.setInterval(_REFRESH_MS)
        self._timer.timeout.connect(self._ask)
        self._timer.start()
        self._ask()

    def _build(self) -> None:
        layout = QVBoxLayout(self)
        layout.addWidget(label("Programs that run now", "heading"))
        layout.addWidget(self.search)
        self.table.setModel(self._proxy)
        self.table.set_widths(200, 150)
        layout.addWidget(self.table, 1)
        rule = QHBoxLayout()
        self.rule_by.setFixedWidth(210)
        rule.addWidget(self.rule_by)
        rule.addWidget(self.rule_value, 1)
        layout.addLayout(rule)
        layout.addWidget(self._hint)
        row = QHBoxLayout()
        row.addStretch(1)
        row.addWidget(button("Cancel", self.reject))
        row.addWidget(self.link_button)
        layout.addLayout(row)
        self.rule_by.set_value("name")
        self._show_matches()

    def _ask(self) -> None:
        self._store.ask(m.GetPrograms(), self._fill)

    def _fill(self, answer: m.AnswerBody) -> None:
        if not isinstance(answer, m.Programs):
            return
        known = {p.pid: p for p in self._programs}
        self._programs = answer.programs
        now = {p.pid: p for p in answer.programs}
        if known.keys() == now.keys() and all(known[k].title == now[k].title for k in now):
            return
        # Rows of programs that go on keep their place, so that nothing moves under the pointer.
        for row in reversed(range(self._model.rowCount())):
            program = self._model.item(row, 0).data(_PROGRAM)  # type: ignore[union-attr]
            if now.get(program.pid) == program:
                del now[program.pid]
            else:
                self._model.removeRow(row)
        for program in sorted(now.values(), key=lambda p: (not p.title, p.started_us)):
            self._add(program)
        self._show_matches()

    def _add(self, program: Program) -> None:
        window = QStandardItem(program.title or "no window")
        window.setData(program, _PROGRAM)
        window.setData(not program.title, WEAK)
        name = QStandardItem(program.name)
        path = QStandardItem(program.path or " ".join(program.command))
        path.setData(True, WEAK)
        for item in (window, name, path):
            item.setEditable(False)
        # Programs with a window come first, since a game has one, and of these the one started last.
        titled = [row for row in range(self._model.rowCount()) if not self._model.item(row, 0).data(WEAK)]  # type: ignore[union-attr]
        row = 0 if program.title else len(titled)
        self._model.insertRow(row, [window, name, path])

    def program(self) -> Program | None:
        """The picked program."""
        index = self.table.currentIndex()
        return index.siblingAtColumn(0).data(_PROGRAM) if index.isValid() else None

    def _picked(self) -> None:
        if program := self.program():
            rule = suggest_rule(program)
            self._match = rule.match
            self.rule_by.set_value(rule.match)
            self.rule_value.setText(rule.value)

    def _by_chosen(self, by: str) -> None:
        self._match = MatchBy(by)
        if program := self.program():
            value = {MatchBy.PATH: program.path, MatchBy.NAME: program.name, MatchBy.COMMAND: " ".join(program.command)}
            self.rule_value.setText(value[self._match])
        self._show_matches()

    def _rule(self) -> ProgramRule | None:
        value = self.rule_value.text().strip()
        return ProgramRule(self._match, value) if value else None

    def _show_matches(self) -> None:
        rule = self._rule()
        self.link_button.setEnabled(rule is not None)
        if rule is None:
            self._hint.setText(
                "Pick the game in the list. If it has a launcher, start the game first and pick the game."
            )
            return
        found = sorted({p.name for p in self._programs if matches(rule, p)})
        self._hint.setText(
            f"This matches now: {', '.join(found)}" if found else "This matches no program that runs now."
        )

    def _link(self) -> None:
        if rule := self._rule():
            self.linked.emit(rule)
            self.accept()
