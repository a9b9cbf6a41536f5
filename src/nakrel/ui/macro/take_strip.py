"""The strip after a recording: how its delays, its pointer and its presses are used, and where it goes."""

from __future__ import annotations

import time
from collections.abc import Sequence

import msgspec
from PyQt6.QtCore import QEvent, QObject, QPoint, pyqtSignal
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QMenu, QWidget

from nakrel import protocol as m
from nakrel import worker_process
from nakrel.core.edit.recorded import gap_after, insert_recorded
from nakrel.core.edit.rows import rows, steps_in
from nakrel.core.edit.takes import length_us, used
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro
from nakrel.core.model.recording import Moves, RecordingSettings, Waits, Where
from nakrel.core.model.settings import SettingsPatch
from nakrel.core.model.steps import Step, Wait
from nakrel.core.model.takes import Take
from nakrel.core.model.units import parse_time, shown_ms
from nakrel.ui import commands
from nakrel.ui.background import Background
from nakrel.ui.macro.takes_dialog import TakesDialog
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, label
from nakrel.ui.widgets.sentence import Figure, OneOf, Sentence
from nakrel.words import counted, shown_number, tr

__all__ = ["TakeStrip"]

_DELAYS = ((Waits.PERFORMED, tr("recorded")), (Waits.EVEN, tr("one value")), (Waits.NONE, tr("none")))
_POINTER = ((Moves.NONE, tr("none")), (Moves.CLICKS, tr("at clicks")), (Moves.PATH, tr("path")))
_LEAST_PX = 26
_TAPS = ((False, tr("presses and releases")), (True, tr("joined into taps")))


class TakeStrip(QFrame):
    """Uses a take in its macro as one edit, and uses it anew with each choice; it goes when anything else is edited.
    The last choices are what the next take is used by. `used_rows` gives the new rows; `beside` when each control was
    down in each of the takes that there are, and the row that they begin at."""

    used_rows = pyqtSignal(object)
    beside = pyqtSignal(list, int)

    def __init__(self, store: Store, parent: QWidget) -> None:
        super().__init__(parent)
        self.setObjectName("assign")
        self._store = store
        self._before: Macro | None = None
        self._row: int | None = None
        self._number = 0
        self.take: Take | None = None
        # What is used where it is no take as it was recorded.
        self._name = ""
        self.compared: TakesDialog | None = None
        # Where the undo stack stands while nothing else was edited.
        self._index = -1
        self._busy = False
        # All takes put beside each other, and the row at which the one in use begins.
        self._beside: list[dict[str, list[tuple[int, int]]]] = []
        self._first = 0
        self._background = Background(self)
        self._head = label("", "heading")
        self.sentence = Sentence()
        self.delays, self.pointer = OneOf(tr("delays"), _DELAYS), OneOf(tr("pointer"), _POINTER)
        self.taps = OneOf(tr("presses"), _TAPS)
        self.even = Figure(tr("every delay"), parse_time, lambda us: tr("{time} ms").format(time=shown_ms(us)))
        self.where = OneOf(tr("goes"), self._places())
        self.sentence.may_say(self.delays, self.pointer, self.taps, self.even, self.where)
        self.others = button(tr("other takes…"), self.list_takes, "link")
        row = QHBoxLayout(self)
        row.setContentsMargins(8, 0, 4, 0)
        row.setSpacing(8)
        row.addWidget(self._head)
        row.addWidget(self.sentence, 1)
        row.addWidget(self.others)
        self.delays.chosen.connect(lambda waits: self._choose(waits=waits))
        self.pointer.chosen.connect(lambda moves: self._choose(moves=moves))
        self.taps.chosen.connect(lambda on: self._choose(taps=on))
        self.where.chosen.connect(lambda where: self._choose(where=where))
        self.even.changed.connect(lambda us: self._choose(even_us=us))
        store.undo_stack.indexChanged.connect(self._edited)
        self.menu: QMenu | None = None
        self._over: QWidget = parent
        self.hide()

    def lie_over(self, steps: QWidget) -> None:
        """Keep to the head of the steps."""
        self._over = steps
        self.setParent(steps.parentWidget())
        steps.installEventFilter(self)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Go with the steps."""
        moved = (QEvent.Type.Resize, QEvent.Type.Move, QEvent.Type.Show, QEvent.Type.Hide)
        if event and event.type() in moved and self.isVisible():
            self._put()
        return False

    def _put(self) -> None:
        """Take as many lines as it needs: at the head of the steps, or at the foot where they aren't in sight."""
        parent = self.parentWidget()
        assert parent
        seen = self._over.isVisible()
        place = self._over.geometry() if seen else parent.rect()
        height = max(_LEAST_PX, self.heightForWidth(place.width()))
        self.setGeometry(place.left(), place.top() if seen else place.bottom() - height, place.width(), height)

    @staticmethod
    def _places(after: str = "") -> Sequence[tuple[Where, str]]:
        return (
            (Where.CURSOR, after or tr("at the selected step")),
            (Where.END, tr("at the end")),
            (Where.REPLACE, tr("replacing all steps")),
        )

    def offer(self, before: Macro, row: int | None, number: int, steps: tuple[Step, ...]) -> None:
        """Use what was just recorded into the macro as it was before, after a row (the step `number` comes before it,
        0 for none), and keep it as a take."""
        if not any(not isinstance(step, Wait) for step in steps):
            self.used_rows.emit(range(0))
            return
        self._aim(before, row, number)

        def kept(answer: m.AnswerBody) -> None:
            if isinstance(answer, m.TakesAre) and answer.takes and self.take is made:
                self.take = answer.takes[-1]
                self._show()
                self._put_beside(answer.takes)
            elif isinstance(answer, m.Refused):
                self._store.fault.emit(answer.error)

        self.take = made = Take(1, time.time(), steps)
        self._apply()
        self._store.ask(m.AddTake(before.id, steps), kept)

    def offer_again(self, macro: Macro, row: int | None, number: int) -> None:
        """List the takes of the macro, to use one of them after a row."""
        self._aim(macro, row, number)
        self.take = None
        self.list_takes()

    def _aim(self, before: Macro, row: int | None, number: int) -> None:
        self._before, self._row, self._number, self._index = before, row, number, -1
        self._name = ""

    def list_takes(self) -> None:
        """Show the takes that there are, the newest first."""
        if self._before is None:
            return

        def answered(answer: m.AnswerBody) -> None:
            if isinstance(answer, m.Refused):
                self._store.fault.emit(answer.error)
            if not isinstance(answer, m.TakesAre):
                return
            self._put_beside(answer.takes)
            self.menu = menu = QMenu(self.parentWidget())
            for take in reversed(answer.takes):
                menu.addAction(_words(take), lambda t=take: self._use(t))
            if len(answer.takes) > 1:
                menu.addSeparator()
                menu.addAction(tr("Compare them…"), lambda: self.compare(answer.takes))
            if not answer.takes and (nothing := menu.addAction(tr("No take yet: press Record"))):
                nothing.setEnabled(False)
            anchor = self.others if self.isVisible() else self.parentWidget()
            assert anchor
            menu.popup(anchor.mapToGlobal(QPoint(0, anchor.height() if anchor is self.others else 0)))

        self._store.ask(m.GetTakes(self._before.id), answered)

    def _put_beside(self, takes: Sequence[Take]) -> None:
        """Show them beside the one in use. Takes that can't be compared are not shown: the comparison says why."""

        def compared(answer: worker_process.Compared) -> None:
            aligned = answer.aligned
            self._beside = [aligned.beside_others(take) for take in aligned.times] if aligned else []
            self._tell_beside()

        if len(takes) > 1:
            job = worker_process.CompareTakes(tuple(takes))
            self._background.ask(job, worker_process.Compared, compared)

    def _tell_beside(self) -> None:
        self.beside.emit(self._beside if self.take else [], self._first)

    def _use(self, take: Take, name: str = "") -> None:
        self.take, self._name = take, name
        self._apply()

    def compare(self, takes: Sequence[Take]) -> TakesDialog:
        """Show them side by side, to use what they have in common."""
        parent = self.window()
        assert parent is not None

        def use(steps: tuple[Step, ...], name: str) -> None:
            self._use(Take(1, time.time(), steps), name)

        self.compared = TakesDialog(takes, use, parent)
        self.compared.show()
        return self.compared

    @property
    def _settings(self) -> RecordingSettings:
        return self._store.settings.recording

    def _choose(self, **values: object) -> None:
        settings = msgspec.structs.replace(self._settings, **values)
        if settings != self._settings:
            # The next take is used like this one; that is no edit of its own.
            self._store.change_settings(SettingsPatch(recording=settings))
        self._apply()

    def _apply(self) -> None:
        """Use the take as is said now, in place of how it was used before."""
        before, take, stack = self._before, self.take, self._store.undo_stack
        if before is None or take is None:
            return
        self._busy = True
        if self._index >= 0 and stack.index() == self._index:
            stack.undo()
        settings, macro = self._settings, before
        if settings.where is Where.REPLACE:
            macro = msgspec.structs.replace(before, lead_in=(), loop=(), lead_out=())
        place = gap_after(macro, self._row if settings.where is Where.CURSOR else None)
        try:
            after = insert_recorded(macro, place, used(take.steps, settings), settings)
        except DataError as error:
            self._store.fault.emit(str(error))
            self._busy = False
            return
        commands.edit_macro(self._store, tr("recording into {name}").format(name=before.name), after)
        self._index = stack.index()
        self._busy = False
        count = len(steps_in(after, place.section, place.inside))
        count -= len(steps_in(macro, place.section, place.inside))
        self._show()
        numbered = enumerate(rows(after))
        self._first = next((n for n, row in numbered if (row.section, row.at, row.inside) == place), 0)
        self.used_rows.emit(range(self._first, self._first + count))
        self._tell_beside()

    def _show(self) -> None:
        take, settings = self.take, self._settings
        if take is None:
            return
        self._head.setText(self._name or tr("Take {number}").format(number=take.number))
        self._head.setToolTip(_words(take) if not self._name else "")
        # Without a chosen step, where the cursor is and the end are the same.
        places = self._places(tr("after step {number}").format(number=self._number) if self._number else "")
        self.where.set_options(places[1:] if self._row is None else places)
        self.delays.set_value(settings.waits)
        self.pointer.set_value(settings.moves)
        self.taps.set_value(settings.taps)
        at_end = self._row is None and settings.where is Where.CURSOR
        self.where.set_value(Where.END if at_end else settings.where)
        self.even.set_value(settings.even_us)
        if settings.waits is Waits.EVEN:
            told = tr("delays {delays} {even} · pointer {pointer} · {taps} · {where}")
        else:
            told = tr("delays {delays} · pointer {pointer} · {taps} · {where}")
        self.sentence.fill(
            told, delays=self.delays, even=self.even, pointer=self.pointer, taps=self.taps, where=self.where
        )
        self.show()
        self._put()
        self.raise_()

    def _edited(self, index: int) -> None:
        """Something else was edited, or the take undone: it is settled."""
        if not self._busy and index != self._index:
            self.leave()

    def leave(self) -> None:
        """The take is as it is used now."""
        self._before = self.take = None
        self._index = -1
        self._beside = []
        self._background.cancel()
        self._tell_beside()
        self.hide()


def _words(take: Take) -> str:
    events = sum(not isinstance(step, Wait) for step in take.steps)
    seconds = f"{shown_number(length_us(take.steps) / 1_000_000, 2)} s"
    when = time.strftime("%H:%M", time.localtime(take.at))
    return tr("Take {number} · {when} · {events} · {seconds}").format(
        number=take.number, when=when, events=counted(events, "{n} event", "{n} events"), seconds=seconds
    )
