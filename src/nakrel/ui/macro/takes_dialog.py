"""Takes side by side: how much they differ, and which times to use."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QStandardItem, QStandardItemModel
from PyQt6.QtWidgets import QDialog, QHBoxLayout, QVBoxLayout, QWidget

from nakrel import worker_process
from nakrel.core.analysis.takes import Aligned, event_words
from nakrel.core.model.controls import label as control_label
from nakrel.core.model.errors import DataError
from nakrel.core.model.steps import Pointer, Step
from nakrel.core.model.takes import Take
from nakrel.core.model.units import shown_ms
from nakrel.ui.background import Background
from nakrel.ui.theme import SMALL_PX, colour, font, hue
from nakrel.ui.widgets import glyphs
from nakrel.ui.widgets.basics import button, label
from nakrel.ui.widgets.lettering import fitted, write
from nakrel.ui.widgets.rows import Table
from nakrel.ui.widgets.sentence import Figure, Sentence
from nakrel.ui.widgets.traces import draw_trace
from nakrel.words import shown_number, tr

__all__ = ["TakesDialog"]

_HEADS = (tr("event"), tr("after, ms"), tr("spread"), tr("far off in"))
_NAMES, _LANE, _RULER = 112, 34, 20
_MOST_LANES = 8
_MOST_DIFFERENCES = 6


def _read_share(text: str) -> float:
    figure = text.strip().removesuffix("%").strip()
    if not figure.isdigit() or not 0 <= int(figure) <= 100:
        raise DataError(tr("which of the times is used is a percentage from 0 (shortest) to 100 (longest)"))
    return int(figure) / 100


class _Traces(QWidget):
    """All takes of each control, faint, and over them what would be used."""

    def __init__(self) -> None:
        super().__init__()
        self.aligned: Aligned | None = None
        self.share = 0.5
        self.setAccessibleName(tr("Takes, one over the other"))

    @property
    def _controls(self) -> list[str]:
        events = self.aligned.events if self.aligned else ()
        return list(dict.fromkeys(e.control for e in events if not e.control.startswith("WHEEL")))[:_MOST_LANES]

    def sizeHint(self) -> QSize:
        """A lane for each control."""
        return QSize(560, len(self._controls) * _LANE + _RULER)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw a lane for each control, and the time below."""
        if (aligned := self.aligned) is None:
            return
        painter = QPainter(self)
        painter.setFont(font(SMALL_PX))
        painter.fillRect(self.rect(), colour("field"))
        used, now = [], 0
        for number in range(len(aligned.events)):
            now += aligned.gap_us(number, self.share)
            used.append(now)
        end = max([now, *(at for times in aligned.times.values() for at in times if at is not None)], default=0) or 1
        width = self.width() - _NAMES - 14
        takes, use = [aligned.beside_others(take) for take in aligned.times], aligned.spans(used)
        for lane, control in enumerate(self._controls):
            top = lane * _LANE
            own = hue(control)
            glyphs.draw(painter, control, QRectF(8, top + 9, 14, 16))
            painter.setPen(own)
            write(painter, 26, top + 17, fitted(control_label(control), _NAMES - 34))
            place = QRectF(_NAMES, top + 8, width, 18)
            faint = QColor(own)
            faint.setAlphaF(0.28)
            for spans in takes:
                draw_trace(painter, place, spans.get(control, ()), 0, end, faint, 1.0)
            draw_trace(painter, place, use.get(control, ()), 0, end, own)
        painter.setPen(colour("soft"))
        y = len(self._controls) * _LANE
        painter.drawText(QRectF(_NAMES, y, 60, 16), Qt.AlignmentFlag.AlignLeft, "0")
        right = Qt.AlignmentFlag.AlignRight
        painter.drawText(
            QRectF(_NAMES + width - 100, y, 100, 16), right, tr("{time} ms").format(time=shown_ms(round(end, -2)))
        )


class TakesDialog(QDialog):
    """The takes of a macro compared; `use` gets the steps that are chosen, with a name for them."""

    def __init__(self, takes: Sequence[Take], use: Callable[[tuple[Step, ...], str], object], parent: QWidget) -> None:
        super().__init__(parent)
        self._takes, self._use = tuple(takes), use
        self.aligned: Aligned | None = None
        self.setWindowTitle(tr("Takes side by side"))
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.resize(720, 560)
        self.traces = _Traces()
        self._model = QStandardItemModel(0, len(_HEADS), self)
        self._model.setHorizontalHeaderLabels(list(_HEADS))
        self.table = Table(tr("Events and the time before each"))
        self.table.setModel(self._model)
        self.table.set_widths(200, 110, 110)
        self.message, self.differences = label(tr("Comparing…"), "soft", wrap=True), label("", "", wrap=True)
        self.share = Figure(tr("which of the times"), _read_share, lambda share: f"{shown_number(share * 100)} %")
        self.sentence = Sentence()
        self.sentence.may_say(self.share)
        self.use_button = button(tr("Use these times"), self.use_share, "act")
        self.fastest_button = button("", self.use_fastest)
        self._build()
        self.share.changed.connect(self._share_chosen)
        self._background = Background(self)
        job = worker_process.CompareTakes(self._takes)
        self._background.ask(job, worker_process.Compared, self._show)

    def _build(self) -> None:
        layout = QVBoxLayout(self)
        for shown in (self.message, self.traces, self.differences, self.table, self.sentence):
            layout.addWidget(shown, 1 if shown is self.table else 0)
        row = QHBoxLayout()
        row.addWidget(self.fastest_button)
        row.addStretch(1)
        row.addWidget(button(tr("Close"), self.reject))
        row.addWidget(self.use_button)
        layout.addLayout(row)
        for part in (self.traces, self.differences, self.table, self.sentence, self.use_button, self.fastest_button):
            part.hide()

    def _show(self, compared: worker_process.Compared) -> None:
        self.aligned = aligned = compared.aligned
        if aligned is None:
            self.message.setText(f"{compared.error[0].upper()}{compared.error[1:]}.")
            return
        count = len(aligned.times)
        pointer = any(isinstance(step, Pointer) for take in self._takes for step in take.steps)
        self.message.setText(
            tr("{count} takes, compared with take {centre}, which is nearest to the others.").format(
                count=count, centre=aligned.centre
            )
            + tr(" The pointer's path is left out.") * pointer
        )
        self.traces.aligned = aligned
        self.traces.updateGeometry()
        self.traces.setFixedHeight(self.traces.sizeHint().height())
        for number, (event, gap) in enumerate(zip(aligned.events, aligned.gaps, strict=True)):
            times = (
                (shown_number(gap.median_us / 1_000, 1), shown_number(gap.spread_us / 1_000, 1)) if number else ("", "")
            )
            far = ", ".join(tr("take {take}").format(take=take) for take in gap.outliers)
            cells = [QStandardItem(text) for text in (event_words(event.what), *times, far)]
            for cell in cells:
                cell.setEditable(False)
            self._model.appendRow(cells)
        told = [
            tr("Take {take}: {message}.").format(take=each.take, message=each.message) for each in aligned.differences
        ]
        if len(told) > _MOST_DIFFERENCES:
            told[_MOST_DIFFERENCES:] = [tr("and {value} more").format(value=len(told) - _MOST_DIFFERENCES)]
        self.differences.setText("\n".join(told))
        for part in (self.traces, self.table, self.sentence, self.use_button):
            part.show()
        self.differences.setVisible(bool(told))
        if complete := aligned.complete:
            self.fastest_button.setText(tr("Use take {value}, the fastest complete one").format(value=complete[0]))
            self.fastest_button.show()
        self._share_chosen(0.5)

    def _share_chosen(self, share: float) -> None:
        self.traces.share = share
        self.share.set_value(share)
        told = {
            0.0: tr("Each time is the one that {share} of the takes don't exceed: the shortest."),
            0.5: tr("Each time is the one that {share} of the takes don't exceed: the median."),
            1.0: tr("Each time is the one that {share} of the takes don't exceed: the longest."),
        }.get(share, tr("Each time is the one that {share} of the takes don't exceed."))
        self.sentence.fill(told, share=self.share)
        self.traces.update()

    def use_share(self) -> None:
        """Use the times that are chosen."""
        if self.aligned is not None:
            share = self.traces.share
            name = tr("Median of {count} takes") if share == 0.5 else tr("The {share} % times of {count} takes")
            named = name.format(share=shown_number(share * 100), count=len(self.aligned.times))
            self._use(self.aligned.steps(share), named)
            self.accept()

    def use_fastest(self) -> None:
        """Use the fastest of the complete takes as it was recorded."""
        if self.aligned is not None and self.aligned.complete:
            number = self.aligned.complete[0]
            take = next(each for each in self._takes if each.number == number)
            self._use(take.steps, tr("Take {number}").format(number=number))
            self.accept()
