"""Adding steps by hand: what recording could not catch."""

from __future__ import annotations

import shlex
from collections.abc import Callable, Sequence

from PyQt6.QtCore import QStringListModel, Qt, QTimer, pyqtSignal
from PyQt6.QtWidgets import QCheckBox, QCompleter, QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from nakrel import protocol as m
from nakrel.core import notation
from nakrel.core.model.controls import CONTROLS, Kind, game_key
from nakrel.core.model.errors import DataError
from nakrel.core.model.names import shown_name
from nakrel.core.model.profile import GameKey
from nakrel.core.model.steps import (
    Branch,
    Chord,
    Note,
    PickOne,
    Pointer,
    Press,
    Release,
    Repeat,
    Step,
    Tap,
    Text,
    Wait,
    Wheel,
)
from nakrel.ui.programs import Programs
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import TimeEdit, button, choice, label
from nakrel.ui.widgets.capture import Capture
from nakrel.ui.widgets.control_choice import ControlChoice
from nakrel.ui.widgets.elided import ElidedButton
from nakrel.words import sentence, tr

__all__ = ["AddStep"]

# What stands behind a program's name in the list: its command.
_BEHIND = "  ·  "
_WITH_CONTROL = ("tap", "press", "release", "combination", "wheel")
_WITH_TIME = ("tap", "combination", "wait")
# Kinds that are told by words: what stands before the words in the notation, after them, and what they look like.
_WITH_WORDS = {
    "random wait": ("wait ", "", "200 to 600 ms"),
    "pointer": ("move ", "", tr("640, 400 or by 10, -5")),
    "text": ("", "", tr("Good evening, harbour!")),
    "open": ("open ", "", tr("program and arguments")),
    "if": ("if ", ":", "run > 3"),
    "set": ("set ", "", "count to count + 1"),
}
# The kinds in the order in which they are offered, with what they are called.
_KINDS = {
    "tap": tr("tap", "kind of step"),
    "press": tr("press", "kind of step"),
    "release": tr("release", "kind of step"),
    "combination": tr("combination", "kind of step"),
    "wait": tr("wait", "kind of step"),
    "random wait": tr("random wait", "kind of step"),
    "wheel": tr("wheel", "kind of step"),
    "pointer": tr("pointer", "kind of step"),
    "text": tr("text", "kind of step"),
    "open": tr("open", "kind of step"),
    "if": tr("if", "kind of step"),
    "set": tr("set", "kind of step"),
    "repeat": tr("repeat", "kind of step"),
    "random choice": tr("random choice", "kind of step"),
    "comment": tr("comment", "kind of step"),
}
# A recorded click lasts around 50 to 150 ms (common practice, no published source).
_HOLD_US = 50_000
_WAIT_US = 25_000


# So many of the keys that a game leaves free are offered first.
_MOST_FREE = 12


class AddStep(QWidget):
    """A row of fields: the kind of step, its control (chosen from a list or pressed) or words, its time, and Add."""

    added = pyqtSignal(object)
    pick_wanted = pyqtSignal()

    def __init__(self, store: Store) -> None:
        super().__init__()
        self._store = store
        self.kind = choice(tr("Kind of step"))
        for kind, text in _KINDS.items():
            self.kind.addItem(text, kind)
        self.control = ControlChoice(tr("Key or button of the step"))
        self.control.setMinimumWidth(110)
        self.second = ControlChoice(tr("The key that it is pressed together with"))
        self.second.setMinimumWidth(100)
        self.time = TimeEdit(_HOLD_US)
        self.time.setAccessibleName(tr("Hold or wait"))
        self.typed = QLineEdit()
        self.typed.setMinimumWidth(180)
        self._programs = Programs(store, self)
        self._programs.changed.connect(self._list_programs)
        self._commands = QStringListModel(self)
        self._completer = QCompleter(self._commands, self)
        self._completer.setFilterMode(Qt.MatchFlag.MatchContains)
        self._completer.setCaseSensitivity(Qt.CaseSensitivity.CaseInsensitive)
        self._completer.activated[str].connect(self._program_chosen)
        self.secret = QCheckBox(tr("secret, named"))
        self.secret.setToolTip(tr("Kept in the desktop's keyring under this name, and in no file"))
        self.secret_name = QLineEdit()
        self.secret_name.setAccessibleName(tr("Name of the secret"))
        self.secret_name.setFixedWidth(110)
        self.pick_button = button(
            tr("Pick on the screen…"),
            self.pick_wanted.emit,
            tip=tr("Choose one place or several by clicking there (Ctrl+K)"),
        )
        self.capture = Capture(store, to_be_sent=True)
        self._press = ElidedButton(
            tr("Press to choose"), self.capture.arm, tip=tr("Press the key or button to choose it")
        )
        self.add_button = ElidedButton(tr("Add step"), self.add)
        self._message = label("", "alarm", wrap=True)
        self._build()
        self.kind.currentIndexChanged.connect(lambda index: self._kind_chosen(self.kind.currentData()))
        self.secret.toggled.connect(lambda on: self._kind_chosen(self.kind.currentData()))
        self.typed.returnPressed.connect(self.add)
        self.typed.textEdited.connect(lambda text: self._say(""))
        self.capture.captured.connect(self._captured)
        for field in (self.control, self.second):
            field.refused.connect(self._say)
            field.chosen.connect(lambda code: self._say(""))
        self._keys: list[str] = []
        self._free: list[str] = []
        self.set_game_keys(())
        self._kind_chosen("tap")

    def set_game_keys(self, keys: Sequence[GameKey], free: Sequence[str] = ()) -> None:
        """Offer these by the game's names for them, too, and before all others those that the game leaves free."""
        self._keys = [game_key(key.name) for key in keys]
        self._free = list(free[:_MOST_FREE])
        codes = (*self._keys, *(c for c, known in CONTROLS.items() if known.kind is not Kind.WHEEL))
        self.second.set_items((shown_name(code), code) for code in codes)
        self._fill(*([Kind.WHEEL] if self.kind.currentData() == "wheel" else [Kind.KEY, Kind.BUTTON]))

    def _build(self) -> None:
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 6, 0, 2)
        layout.setSpacing(0)
        row = QHBoxLayout()
        row.setSpacing(6)
        row.addWidget(label(tr("add"), "soft"))
        for field in (
            *(self.kind, self.control, self._press, self.second, self.time, self.typed, self.secret),
            *(self.secret_name, self.pick_button, self.add_button),
        ):
            row.addWidget(field)
        row.addStretch(1)
        layout.addLayout(row)
        layout.addWidget(self.capture)
        layout.addWidget(self._message)
        self._message.hide()

    def _fill(self, *kinds: Kind) -> None:
        before = self.control.currentData()
        keys, free = (self._keys, self._free) if Kind.KEY in kinds else ((), ())
        others = [code for code, known in CONTROLS.items() if known.kind in kinds and code not in free]
        self.control.set_items(
            (
                *((shown_name(code), code) for code in keys),
                *((tr("{name}  (not used by the game)").format(name=shown_name(code)), code) for code in free),
                *((shown_name(code), code) for code in others),
            )
        )
        self.control.setCurrentIndex(max(0, self.control.findData(before or "KEY_Q")))

    def _kind_chosen(self, kind: str) -> None:
        self.control.setVisible(kind in _WITH_CONTROL)
        self._press.setVisible(kind in _WITH_CONTROL)
        self.second.setVisible(kind == "combination")
        self.time.setVisible(kind in _WITH_TIME)
        self.time.set_value(_WAIT_US if kind == "wait" else _HOLD_US)
        self._fill(*([Kind.WHEEL] if kind == "wheel" else [Kind.KEY, Kind.BUTTON]))
        secret = kind == "text" and self.secret.isChecked()
        self.typed.setVisible(kind in _WITH_WORDS)
        self.typed.setAccessibleName(_KINDS[kind])
        self.typed.setPlaceholderText(_WITH_WORDS[kind][2] if kind in _WITH_WORDS else "")
        self.typed.setEchoMode(QLineEdit.EchoMode.Password if secret else QLineEdit.EchoMode.Normal)
        self.secret.setVisible(kind == "text")
        self.secret_name.setVisible(secret)
        self.pick_button.setVisible(kind == "pointer")
        self._offer_programs(kind == "open")
        self._say("")

    def _offer_programs(self, on: bool) -> None:
        """The programs that run and those that are installed complete what is typed."""
        self.typed.setCompleter(self._completer if on else None)
        if on:
            self._programs.look()
            self._list_programs()

    def _list_programs(self) -> None:
        known = self._programs.known()
        self._commands.setStringList([f"{each.name}{_BEHIND}{shlex.join(each.command)}" for each in known])

    def _program_chosen(self, line: str) -> None:
        # After the completer has put its own text there.
        QTimer.singleShot(0, lambda: self.typed.setText(line.rpartition(_BEHIND)[2]))

    def _captured(self, code: str) -> None:
        if (CONTROLS[code].kind is Kind.WHEEL) != (self.kind.currentData() == "wheel"):
            self.kind.setCurrentIndex(self.kind.findData("wheel" if CONTROLS[code].kind is Kind.WHEEL else "tap"))
        self.control.show_code(code)

    def _say(self, message: str) -> None:
        self._message.setText(sentence(message, stop=False))
        self._message.setVisible(bool(message))

    def add(self) -> None:
        """Add the step that the fields say, or say what is missing."""
        kind = self.kind.currentData()
        try:
            if kind == "text" and self.secret.isChecked():
                self._add_secret(self.secret_name.text().strip(), self.typed.text())
            elif kind in _WITH_WORDS:
                self.added.emit(_from_text(kind, self.typed.text().strip()))
                self._say("")
                self.typed.clear()
            else:
                self._add_fields(kind)
        except DataError as error:
            self._say(error.message if isinstance(error, notation.NotationError) else str(error))

    def _add_secret(self, name: str, text: str) -> None:
        """Give the text to the keyring, and add the step once that has it."""
        if not name or not text:
            raise DataError(tr("a secret needs a text, and a name by which the step asks for it"))

        def answered(answer: m.AnswerBody) -> None:
            if isinstance(answer, m.Refused):
                self._say(answer.error)
                return
            self.typed.clear()
            self.added.emit(Text(secret=name))

        self._store.ask(m.PutSecret(name, text), answered)

    def _add_fields(self, kind: str) -> None:
        micros = self.time.read() if kind in _WITH_TIME else 0
        code = self.control.code() if kind in _WITH_CONTROL else ""
        second = self.second.code() if kind == "combination" else ""
        if kind == "combination" and second == code:
            raise DataError(tr("a combination needs two different keys"))
        make: dict[str, Callable[[], Step]] = {
            "tap": lambda: Tap(control=code, hold_us=micros),
            "press": lambda: Press(control=code),
            "release": lambda: Release(control=code),
            "combination": lambda: Chord(controls=(code, second), hold_us=micros),
            "wait": lambda: Wait(wait_us=micros),
            "wheel": lambda: Wheel(control=code),
            "repeat": lambda: Repeat(times=2),
            "random choice": lambda: PickOne(branches=(Branch(), Branch())),
            "comment": lambda: Note(text=""),
        }
        self.added.emit(make[kind]())
        self._say("")


def _from_text(kind: str, text: str) -> Step:
    """The step that the text says, read as a line of the notation. Raises `DataError`."""
    if not text:
        raise DataError(tr("write something first, such as: {value}").format(value=_WITH_WORDS[kind][2]))
    if kind == "text":
        return Text(text=text)
    before, after, example = _WITH_WORDS[kind]
    if kind == "pointer" and not text.startswith(("to ", "by ")):
        before += "to "
    found = notation.read_shown_steps(f"{before}{text.rstrip(':') if after else text}{after}")
    if len(found) != 1 or not _is_of_kind(found[0], kind):
        raise DataError(tr("write it such as: {example}").format(example=example))
    return found[0]


def _is_of_kind(step: Step, kind: str) -> bool:
    match kind:
        case "pointer":
            return isinstance(step, Pointer)
        case "random wait":
            return isinstance(step, Wait) and step.most_us is not None
    return True
