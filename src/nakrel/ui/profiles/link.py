"""Linking a profile to its programs: those that run, those that are installed, or a file."""

from __future__ import annotations

import os
from pathlib import Path

from PyQt6.QtCore import QLocale, QModelIndex, QSortFilterProxyModel, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QIcon, QStandardItem, QStandardItemModel
from PyQt6.QtWidgets import QCheckBox, QDialog, QFileDialog, QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from nakrel import protocol as m
from nakrel.core.model.profile import MatchBy, ProgramRule
from nakrel.core.model.programs import (
    Application,
    Icon,
    Program,
    called,
    file_of,
    is_background,
    launched_by,
    matches,
    rule_for_application,
    rule_for_file,
    suggest_rule,
    value_of,
    what_runs,
)
from nakrel.system_errors import reason_of
from nakrel.ui.programs import application_icon, window_icon
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import Segments, button, choice, label, literal
from nakrel.ui.widgets.nothing import NothingHere
from nakrel.ui.widgets.rows import WEAK, Table
from nakrel.ui.widgets.search_field import SearchField
from nakrel.words import tr

__all__ = ["LinkDialog"]

_SOURCE = Qt.ItemDataRole.UserRole + 20
_REFRESH_MS = 1000
# Room for what is said of the rule: a line, two of warning, and a link.
_TOLD_PX = 92
_BY = {
    MatchBy.PATH: tr("executable"),
    MatchBy.NAME: tr("name"),
    MatchBy.COMMAND: tr("part of the command line"),
    MatchBy.WINDOW: tr("window class"),
    MatchBy.WINDOWS_PROGRAM: tr("Windows program"),
    MatchBy.APPLICATION: tr("application id"),
}


class LinkDialog(QDialog):
    """Pick a program, see which rule will find it again, what that rule matches now, and what speaks against it."""

    linked = pyqtSignal(object)

    def __init__(self, store: Store, profile: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store, self._profile = store, profile
        found = store.profiles.get(profile)
        self.setWindowTitle(tr("Link a program to {value}").format(value=found.name if found else profile))
        self.resize(760, 520)
        self._programs: tuple[Program, ...] = ()
        self._applications: tuple[Application, ...] = ()
        self._icons: dict[str, Icon] = {}
        self._asked: set[int] = set()
        self._child: Program | None = None
        self._model = QStandardItemModel(0, 3, self)
        self._proxy = QSortFilterProxyModel(self)
        self._proxy.setSourceModel(self._model)
        self._proxy.setFilterKeyColumn(-1)
        self._proxy.setFilterCaseSensitivity(Qt.CaseSensitivity.CaseInsensitive)
        self.source = Segments(
            [("running", tr("Running now")), ("installed", tr("Installed"))], tr("Where to pick from")
        )
        self.search = SearchField(tr("Find a program"))
        self.all_programs = QCheckBox(tr("show system programs"))
        self.table = Table(tr("Programs"))
        self.rule_by = choice(tr("Match by"))
        self.rule_by.setMinimumContentsLength(20)
        for by, text in _BY.items():
            self.rule_by.addItem(text, by)
        self.rule_value = QLineEdit()
        self.rule_value.setAccessibleName(tr("What to match"))
        self._hint, self._warning = label("", "soft", wrap=True), label("", "alarm", wrap=True)
        self.child_button = button("", self._pick_child, "link")
        self.link_button = button(tr("Link"), self._link, "act")
        self._build()
        self._connect()
        self._timer = QTimer(self)
        self._timer.setInterval(_REFRESH_MS)
        self._timer.timeout.connect(self._ask)
        self._timer.start()
        self._ask()

    def _build(self) -> None:
        layout = QVBoxLayout(self)
        head = QHBoxLayout()
        self.source.setFixedWidth(240)
        head.addWidget(self.source)
        head.addWidget(self.search, 1)
        head.addWidget(self.all_programs)
        self.file_button = button(tr("A file…"), self._ask_file)
        head.addWidget(self.file_button)
        layout.addLayout(head)
        self.table.setModel(self._proxy)
        self.nothing = NothingHere(self.search.clear).follow(self.search, self._proxy)
        layout.addWidget(self.nothing)
        layout.addWidget(self.table, 1)
        rule = QHBoxLayout()
        rule.addWidget(label(tr("match by"), "soft"))
        rule.addWidget(self.rule_by)
        rule.addWidget(self.rule_value, 1)
        layout.addLayout(rule)
        # It keeps its height, so that the list stands still while one picks.
        told = QWidget()
        told.setMinimumHeight(_TOLD_PX)
        said = QVBoxLayout(told)
        said.setContentsMargins(0, 0, 0, 0)
        said.addWidget(self._hint)
        said.addWidget(self._warning)
        said.addWidget(self.child_button, 0, Qt.AlignmentFlag.AlignLeft)
        said.addStretch(1)
        layout.addWidget(told)
        row = QHBoxLayout()
        row.addStretch(1)
        row.addWidget(button(tr("Cancel"), self.reject))
        row.addWidget(self.link_button)
        layout.addLayout(row)
        self.search.lead_to(self.table)
        self.search.setFocus()
        self.source.set_value("running")
        self._heads()
        self._judge()

    def _connect(self) -> None:
        self.source.chosen.connect(self._source_chosen)
        self.search.textChanged.connect(self._proxy.setFilterFixedString)
        self.all_programs.toggled.connect(lambda on: self._show_programs())
        self.rule_by.activated.connect(self._by_chosen)
        self.rule_value.textChanged.connect(self._judge)
        if chosen := self.table.selectionModel():
            chosen.currentRowChanged.connect(lambda now, before: self._picked())
        self.table.activated.connect(lambda index: self._link())

    # The list

    def _source_chosen(self, source: str) -> None:
        self._model.removeRows(0, self._model.rowCount())
        self.all_programs.setVisible(source == "running")
        self._heads()
        if source == "running":
            self._show_programs()
        elif self._applications:
            self._show_applications()
        else:
            language = QLocale().name().partition("_")[0]
            self._store.ask(m.GetApplications(language), self._applications_came)

    def _heads(self) -> None:
        running = self.source.value == "running"
        heads = (
            [tr("window"), tr("program"), tr("path")]
            if running
            else [tr("application"), tr("window class"), tr("path")]
        )
        self._model.setHorizontalHeaderLabels(heads)
        self.table.set_widths(240, 150)

    def _ask(self) -> None:
        # A window's picture is asked for once.
        titled = {p.pid for p in self._programs if p.title}
        self._store.ask(m.GetPrograms(icons=not self._programs or not titled <= self._asked), self._fill)

    def _fill(self, answer: m.AnswerBody) -> None:
        if not isinstance(answer, m.Programs):
            return
        self._icons.update(answer.icons)
        self._asked |= {p.pid for p in self._programs if p.title}
        # Macros leave this window alone, so it is no game.
        self._programs = tuple(each for each in answer.programs if each.pid != os.getpid())
        if self.source.value == "running":
            self._show_programs()
        self._judge()

    def _show_programs(self) -> None:
        every = self.all_programs.isChecked()
        now = {p.pid: p for p in self._programs if every or not is_background(p)}
        # Rows of programs that go on keep their place, so that nothing moves under the pointer, also where a game has
        # its score or its frames in its title.
        for row in reversed(range(self._model.rowCount())):
            item = self._model.item(row, 0)
            before = item.data(_SOURCE) if item else None
            program = now.get(before.pid) if isinstance(before, Program) else None
            if item and program and isinstance(before, Program) and program.started_us == before.started_us:
                del now[program.pid]
                if program != before or (item.icon().isNull() and str(program.pid) in self._icons):
                    self._write(row, program)
            else:
                self._take_away(row)
        for program in sorted(now.values(), key=lambda p: (not p.title, p.started_us)):
            # Programs with a window come first, since a game has one, and of these the one started last.
            rows = range(self._model.rowCount())
            titled = [row for row in rows if (item := self._model.item(row, 0)) and not item.data(WEAK)]
            self._insert(0 if program.title else len(titled), _texts_of(program), program, not program.title)

    def _take_away(self, row: int) -> None:
        """Remove the row of a program that has ended. Where it was picked, nothing is then: the rule stays, and isn't
        made one for the program beside it."""
        if self._proxy.mapToSource(self.table.currentIndex()).row() == row:
            self.table.setCurrentIndex(QModelIndex())
        self._model.removeRow(row)

    def _write(self, row: int, program: Program) -> None:
        """Tell in its row of the program as it is now."""
        for column, text in enumerate(_texts_of(program)):
            if item := self._model.item(row, column):
                item.setText(text)
                item.setToolTip(text)
        if first := self._model.item(row, 0):
            first.setData(program, _SOURCE)
            first.setData(not program.title, WEAK)
            first.setIcon(self._icon(program))

    def _applications_came(self, answer: m.AnswerBody) -> None:
        if isinstance(answer, m.Applications):
            self._applications = answer.applications
            self._show_applications()

    def _show_applications(self) -> None:
        if self.source.value == "installed":
            for row, each in enumerate(self._applications):
                self._insert(row, (each.name, each.window_class, each.program), each, False)

    def _insert(self, row: int, texts: tuple[str, str, str], source: Program | Application, weak: bool) -> None:
        items = [QStandardItem(text) for text in texts]
        items[0].setData(source, _SOURCE)
        items[0].setData(weak, WEAK)
        items[0].setIcon(self._icon(source))
        items[2].setData(True, WEAK)
        for item in items:
            item.setEditable(False)
            item.setToolTip(item.text())
        self._model.insertRow(row, items)

    def _icon(self, source: Program | Application) -> QIcon:
        if isinstance(source, Application):
            return application_icon(source)
        icon = self._icons.get(str(source.pid))
        return window_icon(icon) if icon else QIcon()

    # The rule

    def source_picked(self) -> Program | Application | None:
        """The picked program or application."""
        index = self.table.currentIndex()
        return index.siblingAtColumn(0).data(_SOURCE) if index.isValid() else None

    def _picked(self) -> None:
        match self.source_picked():
            case Program() as program:
                self._set_rule(suggest_rule(program))
            case Application() as application:
                self._set_rule(rule_for_application(application))

    def _set_rule(self, rule: ProgramRule) -> None:
        self.rule_by.setCurrentIndex(self.rule_by.findData(rule.match))
        self.rule_value.setText(rule.value)
        self._judge()

    def _by_chosen(self) -> None:
        if isinstance(program := self.source_picked(), Program):
            self.rule_value.setText(value_of(program, self.rule_by.currentData()))
        self._judge()

    def _ask_file(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, tr("The program's file"))
        if name:
            self.pick_file(Path(name))

    def pick_file(self, path: Path) -> None:
        """Take the rule for a program's file."""
        try:
            with path.open("rb") as file:
                script = file.read(2) == b"#!"
        except OSError as error:
            self._warning.setText(tr("{path} can't be read: {strerror}").format(path=path, strerror=reason_of(error)))
            return
        self._set_rule(rule_for_file(os.path.realpath(path), script))

    def _rule(self) -> ProgramRule | None:
        value = self.rule_value.text().strip()
        return ProgramRule(self.rule_by.currentData(), value) if value else None

    def _judge(self) -> None:
        """Say what the rule matches now, and what speaks against it."""
        rule = self._rule()
        self.link_button.setEnabled(rule is not None)
        self._child = None
        warning = ""
        if rule is None:
            hint = tr("Pick the game. If it has a launcher, start the game first and pick the game, not the launcher.")
        else:
            found = [p for p in self._programs if matches(rule, p)]
            names = ", ".join(sorted({called(p) for p in found}))
            hint = (
                tr("This matches now: {names}.").format(names=names)
                if found
                else tr("This matches no program that runs now.")
            )
            warning = self._warn(rule, found)
        self._hint.setText(hint)
        self._warning.setText(warning)
        self._warning.setVisible(bool(warning))
        self.child_button.setVisible(self._child is not None)

    def _warn(self, rule: ProgramRule, found: list[Program]) -> str:
        text = []
        others = [
            profile.name
            for profile in self._store.profiles.values()
            if profile.id != self._profile
            and any(other == rule or any(matches(other, p) for p in found) for other in profile.programs)
        ]
        if others:
            text.append(
                tr("{value} is linked to it, too; only one of two profiles can be live.").format(
                    value=tr(" and ").join(others)
                )
            )
        different = {what_runs(p) or p.path for p in found}
        # A game may well have two executables. What an interpreter runs is a program each.
        if len(different) > (2 if different == {p.path for p in found} else 1):
            text.append(tr("That is several programs; make the rule narrower, or each of them makes the profile live."))
        picked = self.source_picked()
        launcher = picked if isinstance(picked, Program) and matches(rule, picked) else (found[0] if found else None)
        if launcher and (child := launched_by(launcher, self._programs)) and not matches(rule, child):
            self._child = child
            text.append(
                tr("{name} has started {value}: it may be a launcher only.").format(
                    name=called(launcher), value=child.title or called(child)
                )
            )
            self.child_button.setText(literal(tr("Link {name} instead").format(name=called(child))))
        return " ".join(text)

    def _pick_child(self) -> None:
        if child := self._child:
            for row in range(self._proxy.rowCount()):
                index = self._proxy.index(row, 0)
                if index.data(_SOURCE) == child:
                    self.table.setCurrentIndex(index)
                    return
            self._set_rule(suggest_rule(child))

    def _link(self) -> None:
        if rule := self._rule():
            self.linked.emit(rule)
            self.accept()


def _texts_of(program: Program) -> tuple[str, str, str]:
    """The cells of its row. Where an interpreter runs it, its own file tells more than that of the interpreter."""
    return (
        program.title or tr("no window"),
        called(program),
        file_of(program) or " ".join(program.command) or program.path,
    )
