"""The step list's model keeps its rows through edits, and tells views exactly which come and go."""

from __future__ import annotations

import random
from typing import Any

from PyQt6.QtCore import QPersistentModelIndex, Qt
from PyQt6.QtTest import QAbstractItemModelTester
from PyQt6.QtWidgets import QApplication

from nakrel.core.edit.timeline import NOTHING, lay_out
from nakrel.core.model.macro import Macro
from nakrel.core.model.steps import Branch, If, Note, PickOne, Repeat, Step, Tap, Wait
from nakrel.ui.macro.steps_model import REMARK, SECTION, AnyIndex, StepsModel


def some_step(chance: random.Random, number: int) -> Step:
    tap = Tap(control="KEY_Q", hold_us=1_000, remark=f"r{number}")
    return chance.choice(
        [
            tap,
            tap,
            Wait(wait_us=2_000, remark=f"r{number}"),
            Wait(wait_us="run * 3", remark=f"r{number}"),
            Repeat(times=2, steps=(tap, Note(text="x")), remark=f"r{number}"),
            PickOne(branches=(Branch(steps=(tap,)), Branch()), remark=f"r{number}"),
            If(condition="run > 1", steps=(tap,), remark=f"r{number}"),
        ]
    )


class Rows(StepsModel):
    """Without the section's name: whichever row is its first has that, and the tester wants rows to stay as they are
    until they are said to have changed."""

    def data(self, index: AnyIndex, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        return None if index.column() == SECTION else super().data(index, role)


def test_rows_come_and_go_with_the_steps_and_others_keep_their_place(qapp: QApplication):
    chance = random.Random(7)
    model = Rows(None)  # type: ignore[arg-type]
    QAbstractItemModelTester(model, QAbstractItemModelTester.FailureReportingMode.Fatal, model)
    line, steps = NOTHING, [some_step(chance, n) for n in range(6)]
    for number in range(300):
        first = chance.randint(0, len(steps))
        last = chance.randint(first, min(len(steps), first + 3))
        new = [some_step(chance, 100 + 10 * number + n) for n in range(chance.randint(0, 3))]
        marks = [QPersistentModelIndex(model.index(row, REMARK)) for row in range(model.rowCount())]
        before = [model.index(row, REMARK).data() for row in range(model.rowCount())]
        steps[first:last] = new
        if not steps:
            steps.append(some_step(chance, 1))
        macro = Macro(id="m", name="M", loop=tuple(steps))
        line = lay_out(macro, line if line is not NOTHING else None)
        model.set_line(line)
        assert model.rowCount() == line.size == lay_out(macro).size
        shown = [model.index(row, REMARK).data() for row in range(model.rowCount())]
        assert shown == [getattr(row.step, "remark", "") or getattr(row.step, "text", "") for row in line.rows()]
        # A row that a view has marked still shows the same step, wherever that is now.
        kept = {words for words in before if words.startswith("r") and before.count(words) == 1 == shown.count(words)}
        for mark, words in zip(marks, before, strict=True):
            if words in kept and mark.isValid():
                assert mark.data() in (words, *new_words(new))


def new_words(new: list[Step]) -> list[str]:
    return [step.remark for step in new] + ["x", ""]
