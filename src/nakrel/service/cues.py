"""Cues for people in a full-screen game. A process beside the service plays and shows them: the engine's thread only
writes a line to a pipe."""

from __future__ import annotations

import contextlib
import json
import os
import subprocess
import sys
from collections.abc import Callable
from typing import Protocol

from nakrel.core.model.cues import CUE_LABELS, Cue, CueSettings
from nakrel.core.model.macro import Mode
from nakrel.core.play.events import RunEnded, RunStarted
from nakrel.service.worker import Outcome, Worker
from nakrel.words import tr

__all__ = ["Cues"]

# A process that ends by itself is started again with the next cue, but not for ever.
_MOST_STARTS = 5


class Host(Protocol):
    """What is asked of the service."""

    @property
    def in_front(self) -> bool:
        """Whether a window of Nakrel's own is in front, which shows all of it by itself."""


class Cues:
    """Tells what happened in the ways that were chosen for it."""

    def __init__(
        self,
        worker: Worker,
        host: Host,
        notice: Callable[[str, str], object],
        show_light: Callable[[bool], object],
    ) -> None:
        self._worker, self._host, self._notice, self._show_light = worker, host, notice, show_light
        self._recording = self._lit = False
        self._settings = CueSettings()
        self._process: subprocess.Popen[bytes] | None = None
        self._starts = 0
        # Whether somebody has tried a cue, so that the process has to be ready for all of them.
        self._attempts = False
        # What came while the process was starting.
        self._waiting = b""
        # Toggles that are on.
        self._on: set[str] = set()
        # Lines over a game are windows of X; under Wayland alone the desktop's notices take their place.
        self._draws = bool(os.environ.get("DISPLAY")) and not os.environ.get("WAYLAND_DISPLAY")

    def change(self, settings: CueSettings) -> None:
        """From now on tell as these settings say."""
        if settings == self._settings:
            return
        before, self._settings = self._settings, settings
        self._set_light()
        if self._options(before) != self._options(settings):
            self._starts = 0
            self.close()
            if self._options(settings):
                self._start()

    def _options(self, settings: CueSettings) -> list[str]:
        """What the process has to be ready for; nothing where none is needed."""
        sounds, lines = bool(settings.sounds) or self._attempts, bool(settings.lines) or self._attempts
        return ["--sounds"] * sounds + ["--lines"] * (lines and self._draws)

    def tell(self, cue: Cue, text: str, why: str = "") -> None:
        """Something happened."""
        if cue in (Cue.RECORDING, Cue.RECORDED):
            self._recording = cue is Cue.RECORDING
        self._set_light()
        if not self._host.in_front:
            self._tell(cue, text, why, heard=cue in self._settings.sounds, shown=cue in self._settings.lines)

    def _set_light(self) -> None:
        light = self._settings.light
        lit = (light == "recording" and self._recording) or (light == "toggle" and bool(self._on))
        if lit != self._lit:
            self._lit = lit
            self._show_light(lit)

    def attempt(self, cue: Cue) -> None:
        """Let it be heard and seen, whatever is chosen."""
        if self._process is None or self._attempts is False:
            self.close()
            self._attempts = True
            self._start()
        text = tr(CUE_LABELS[cue])
        self._tell(cue, f"{text[0].upper()}{text[1:]}", "", heard=True, shown=True)

    def _tell(self, cue: Cue, text: str, why: str, *, heard: bool, shown: bool) -> None:
        settings = self._settings
        if shown and not self._draws:
            self._notice(text, why)
        told: dict[str, object] = {"cue": cue.value}
        if heard:
            told["volume"] = settings.volume
        if shown and self._draws:
            told["text"] = text
        if len(told) > 1:
            self._send(json.dumps(told).encode() + b"\n")

    def run_started(self, run: RunStarted, name: str) -> None:
        """A macro has begun."""
        if run.mode is Mode.TOGGLE:
            self._on.add(run.macro)
            self.tell(Cue.ON, tr("{name} is on").format(name=name))

    def run_ended(self, run: RunEnded, name: str) -> None:
        """A macro has ended."""
        if run.macro in self._on:
            self._on.remove(run.macro)
            self.tell(Cue.OFF, tr("{name} is off").format(name=name))

    def end(self) -> None:
        """The service ends: the light is as it was before."""
        self.close()
        if self._lit:
            self._lit = False
            self._show_light(False)

    def close(self) -> None:
        """Let the process end."""
        process, self._process = self._process, None
        if process is not None:
            with contextlib.suppress(OSError):
                assert process.stdin
                process.stdin.close()
                process.terminate()
            # It is collected where that may wait.
            self._worker.do(process.wait, lambda outcome: None)

    def _send(self, line: bytes) -> None:
        if self._process is None:
            self._waiting = line
            self._start()
            return
        assert self._process.stdin
        try:
            os.write(self._process.stdin.fileno(), line)
        except BlockingIOError:
            # It is busy: a cue that came late would say nothing.
            return
        except OSError:
            self.close()
            self._start()

    def _start(self) -> None:
        if self._starts >= _MOST_STARTS:
            return
        self._starts += 1
        command = [sys.executable, "-m", "nakrel.cues", *self._options(self._settings)]

        def work() -> subprocess.Popen[bytes]:
            quiet = subprocess.DEVNULL
            made = subprocess.Popen(command, stdin=subprocess.PIPE, stdout=quiet, stderr=quiet, bufsize=0)
            assert made.stdin
            os.set_blocking(made.stdin.fileno(), False)
            return made

        def started(outcome: Outcome[subprocess.Popen[bytes]]) -> None:
            if outcome.result:
                self.close()
                self._process = outcome.result
                line, self._waiting = self._waiting, b""
                if line:
                    self._send(line)

        self._worker.do(work, started)
