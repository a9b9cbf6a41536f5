"""The practice game's window."""

from __future__ import annotations

import json
import random
import time
import zlib
from typing import IO, Any, NamedTuple

from PyQt6.QtCore import QEvent, QPointF, QProcess, QRectF, Qt, QTimer
from PyQt6.QtGui import (
    QColor,
    QFocusEvent,
    QFont,
    QIcon,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QPixmap,
    QWheelEvent,
)
from PyQt6.QtWidgets import QApplication, QWidget

from nakrel.core.model.controls import CONTROLS
from nakrel.practice.rules import Rules, Verdict
from nakrel.practice.sampler import Sampler
from nakrel.window_events import button_of, key_number, key_of, notches_of
from nakrel.words import counted, tr

__all__ = ["Game", "PracticeWindow", "run"]

_SEA, _FOAM, _BUOY, _INK = "#20414A", "#D9E4DF", "#D9A24A", "#9DB7B4"
_RIPPLE_S, _RIPPLE_PX = 0.7, 34
_CENTRED = Qt.AlignmentFlag.AlignHCenter


def _presses(count: int) -> str:
    return counted(count, "{n} press arrived", "{n} presses arrived")


def _icon() -> QIcon:
    """A lit buoy on the sea: lists of windows tell the game by it."""
    picture = QPixmap(64, 64)
    picture.fill(QColor(_SEA))
    painter = QPainter(picture)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(QPen(QColor(_BUOY), 4))
    for radius in (10, 22):
        painter.drawEllipse(QPointF(32, 32), radius, radius)
    painter.end()
    return QIcon(picture)


class Game(NamedTuple):
    """How the game is played: its frames a second and the spread of their times, the ticks a second of its
    server (0 for none), whether it goes by the times of events instead, what it takes, and the command that
    tells Nakrel of each attempt how it went, if any."""

    fps: int
    spread_s: float
    tick: float
    by_events: bool
    rules: Rules
    judge: tuple[str, ...]


class PracticeWindow(QWidget):
    """A harbour at night: each press that a frame sees lights a buoy; the log has all of it."""

    def __init__(self, game: Game, log: IO[str] | None, title: str) -> None:
        super().__init__()
        self.setWindowTitle(title)
        self.setWindowIcon(_icon())
        self.resize(640, 420)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.fps, self._game = game.fps, game
        self._verdict: Verdict | None = None
        self._judge = QProcess(self)
        # Verdicts that Nakrel hasn't been told yet.
        self._untold: list[str] = []
        self._judge.finished.connect(lambda code, status: self._tell_next())
        self.sampler = Sampler()
        self._log = log
        # What keys are called by what they type, where that is a letter: on a French keyboard Q is A.
        self._printed: dict[str, str] = {}
        game.rules.called = self._called
        self._frame = 0
        self._ripples: list[tuple[float, str]] = []
        self._recent: list[float] = []
        self._timer = QTimer(self)
        self._timer.setTimerType(Qt.TimerType.PreciseTimer)
        self._timer.timeout.connect(self._tick)
        # When an event came last, by this program's clock and by that of the events.
        self._heard_s = (0.0, 0.0)
        # What the server has found, at its ticks, of what frames have.
        self._server = Sampler()
        self._ticks = QTimer(self)
        self._ticks.setTimerType(Qt.TimerType.PreciseTimer)
        self._ticks.timeout.connect(self._look)
        if game.tick:
            self._ticks.start(max(1, round(1_000 / game.tick)))
        self._timer.setSingleShot(bool(game.spread_s))
        self._timer.start(self._frame_ms())
        self._say(event="start", fps=game.fps)

    def _called(self, control: str) -> str:
        """What people call it, by what is printed on it; the log goes by the US layout."""
        return self._printed.get(control, control)

    def _frame_ms(self) -> int:
        return max(1, round(1_000 * random.gauss(1 / self.fps, self._game.spread_s)))

    def _say(self, **what: Any) -> None:
        if self._log:
            self._log.write(json.dumps({"t": time.monotonic(), "frame": self._frame, **what}) + "\n")
            self._log.flush()

    def _arrive(self, control: str, down: bool, at_ms: int = 0) -> None:
        self.sampler.change(control, down)
        if self._game.by_events:
            (self._game.rules.press if down else self._game.rules.release)(control, at_ms / 1_000)
            self._heard_s = time.monotonic(), at_ms / 1_000
        self._say(event="arrived", control=control, down=down)

    def _tick(self) -> None:
        now = time.monotonic()
        self._frame += 1
        pressed, released = self.sampler.frame()
        if self._timer.isSingleShot():
            self._timer.start(self._frame_ms())
        for control in pressed:
            if self._game.tick:
                self._server.change(control, True)
            elif not self._game.by_events:
                self._game.rules.press(control, now)
            self._say(event="press", control=control)
            self._ripples.append((now, control))
            self._recent.append(now)
        for control in released:
            if self._game.tick:
                self._server.change(control, False)
            elif not self._game.by_events:
                self._game.rules.release(control, now)
            self._say(event="release", control=control)
        # The clock of the events goes on from the last one.
        rules_now = now - self._heard_s[0] + self._heard_s[1] if self._game.by_events else now
        if self._game.rules.any and (verdict := self._game.rules.idle(rules_now)):
            self._tell(verdict)
        self._ripples = [ripple for ripple in self._ripples if now - ripple[0] < _RIPPLE_S][-40:]
        self._recent = [at for at in self._recent if now - at < 1]
        # The picture needs no more than some 30 a second, whatever the game's own rate.
        if self._frame % max(1, self.fps // 30) == 0:
            self.update()

    def _look(self) -> None:
        """A tick of the server."""
        now = time.monotonic()
        pressed, released = self._server.frame()
        for control in pressed:
            self._game.rules.press(control, now)
            self._say(event="tick press", control=control)
        for control in released:
            self._game.rules.release(control, now)

    def _tell(self, verdict: Verdict) -> None:
        """Show how an attempt went, and tell Nakrel."""
        self._verdict = verdict
        self._say(event="verdict", worked=verdict.worked, reason=verdict.reason)
        if self._game.judge:
            self._untold.append("worked" if verdict.worked else "failed")
            self._tell_next()

    def _tell_next(self) -> None:
        """Start the command for the next verdict, once that of the one before has ended."""
        if self._untold and self._judge.state() is QProcess.ProcessState.NotRunning:
            program, *arguments = self._game.judge
            self._judge.start(program, [*arguments, self._untold.pop(0)])

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """A key went down; repeats of the server are not presses."""
        if event and not event.isAutoRepeat():
            name, text = _key_name(event), event.text()
            if len(text) == 1 and text.isalpha():
                self._printed[name] = text.upper()
            self._arrive(name, True, event.timestamp())
            if text:
                self._say(event="text", text=text)

    def keyReleaseEvent(self, event: QKeyEvent | None) -> None:
        """A key went up."""
        if event and not event.isAutoRepeat():
            self._arrive(_key_name(event), False, event.timestamp())

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """A button went down."""
        if event:
            self._arrive(_button_name(event), True, event.timestamp())

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        """A button went up."""
        if event:
            self._arrive(_button_name(event), False, event.timestamp())

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        """The second press of a quick pair is a press like any other."""
        self.mousePressEvent(event)

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        """The wheel turned."""
        if event:
            delta = event.angleDelta()
            self._say(event="wheel", x=delta.x(), y=delta.y())
            # A notch is shown, but it is no press: no frame can miss it.
            for code, _ in notches_of(event):
                self._ripples.append((time.monotonic(), CONTROLS[code].label))

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        """Another window came to the front: releases will go there, so nothing counts as held any more."""
        self.sampler.down.clear()
        self._say(event="focus lost")

    def event(self, event: QEvent | None) -> bool:
        """Tab is a key of the game's, not a way to leave it."""
        if isinstance(event, QKeyEvent) and event.key() in (Qt.Key.Key_Tab, Qt.Key.Key_Backtab):
            (self.keyPressEvent if event.type() == QEvent.Type.KeyPress else self.keyReleaseEvent)(event)
            return True
        return super().event(event)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw the harbour, the buoys and the counts."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), QColor(_SEA))
        now = time.monotonic()
        # A press that follows on another of the same has its place; one name is enough for all.
        named: dict[str, tuple[QPointF, QColor]] = {}
        for at, control in self._ripples:
            age = (now - at) / _RIPPLE_S
            colour = QColor(_BUOY)
            colour.setAlphaF(max(0.0, 1 - age))
            painter.setPen(QPen(colour, 2))
            spot = zlib.crc32(control.encode()) % 997
            centre = QPointF(60 + spot % 17 * (self.width() - 120) / 17, 90 + spot % 7 * (self.height() - 220) / 7)
            painter.drawEllipse(centre, 8 + _RIPPLE_PX * age, 8 + _RIPPLE_PX * age)
            named[control] = centre, colour
        for control, (centre, colour) in named.items():
            painter.setPen(colour)
            painter.drawText(
                QRectF(centre.x() - 60, centre.y() + 12 + _RIPPLE_PX, 120, 18), _CENTRED, self._called(control)
            )
        painter.setPen(QColor(_FOAM))
        painter.setFont(QFont(self.font().family(), 20))
        painter.drawText(
            QRectF(24, 16, self.width() - 48, 40),
            counted(len(self._recent), "{n} press in the last second", "{n} presses in the last second"),
        )
        painter.setFont(QFont(self.font().family(), 10))
        painter.setPen(QColor(_INK))
        if self._verdict:
            if self._verdict.worked:
                message = tr("the last attempt: it worked")
            else:
                message = tr("the last attempt: it didn't work: {reason}").format(reason=self._verdict.reason)
            painter.drawText(QRectF(24, 52, self.width() - 48, 40), message)
        arrived, seen = sum(self.sampler.arrived.values()), sum(self.sampler.seen.values())
        painter.drawText(
            QRectF(24, self.height() - 70, self.width() - 48, 50),
            tr("{fps} frames/s · {presses}, {seen} seen by a frame, {lost} lost\ndown now: {down}").format(
                fps=self.fps,
                presses=_presses(arrived),
                seen=seen,
                lost=arrived - seen,
                down=", ".join(sorted(map(self._called, self.sampler.down))) or tr("nothing"),
            ),
        )


def _key_name(event: QKeyEvent) -> str:
    """What the key is called; its number where it has no name."""
    known = key_of(event)
    return known.label if known else tr("key {number}").format(number=key_number(event))


def _button_name(event: QMouseEvent) -> str:
    """What the mouse button is called; Qt's name for one that has no other."""
    code = button_of(event)
    return CONTROLS[code].label if code else event.button().name or "?"


def run(game: Game, log_path: str | None, title: str) -> int:
    """Show the game until its window closes."""
    app = QApplication(["nakrel-practice"])
    app.setApplicationDisplayName("")
    log = open(log_path, "a", encoding="utf-8") if log_path else None  # noqa: SIM115 - closed at the end of the game
    try:
        window = PracticeWindow(game, log, title)
        window.show()
        return app.exec()
    finally:
        if log:
            log.close()
