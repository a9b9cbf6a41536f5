"""`python -m nakrel.cues`: plays what comes in, an object of JSON a line, until the input ends. For each: `cue`,
`volume` in percent where it is to be heard, `text` where it is to be seen."""

from __future__ import annotations

import json
import os
import sys
from collections.abc import Callable, Iterator
from typing import Any

from nakrel.cues.sounds import Sounds
from nakrel.language import use

__all__ = ["main"]


def main() -> int:
    """Serve until the input ends; with --lines lines can be shown, which needs a display."""
    use()
    sounds = Sounds()
    if "--sounds" in sys.argv:
        sounds.open()
    if "--lines" in sys.argv and os.environ.get("DISPLAY"):
        code = _with_screen(sounds)
    else:
        for line in sys.stdin.buffer:
            _tell(line, sounds, lambda cue, text: None)
        code = 0
    sounds.close()
    return code


def _tell(line: bytes, sounds: Sounds, say: Callable[[str, str], object]) -> None:
    told: dict[str, Any] = json.loads(line)
    if "volume" in told:
        sounds.play(told["cue"], told["volume"])
    if told.get("text"):
        say(told["cue"], told["text"])


def _with_screen(sounds: Sounds) -> int:
    # Qt is loaded only where there is something to draw.
    os.environ["QT_QPA_PLATFORM"] = "xcb"
    from PyQt6.QtCore import QSocketNotifier
    from PyQt6.QtWidgets import QApplication

    from nakrel.cues.overlay import Overlay
    from nakrel.ui import theme

    app = QApplication(["nakrel-cues"])
    app.setQuitOnLastWindowClosed(False)
    theme.load_fonts()
    app.setFont(theme.font())
    overlay = Overlay()
    # Made now, so that the first line is there as soon as any.
    overlay.winId()
    lines = _Lines()

    def readable() -> None:
        for line in lines.read():
            _tell(line, sounds, overlay.say)
        if lines.ended:
            app.quit()

    notifier = QSocketNotifier(0, QSocketNotifier.Type.Read)  # type: ignore[call-overload]
    notifier.activated.connect(readable)
    return app.exec()


class _Lines:
    """Whole lines of the standard input, as they come."""

    def __init__(self) -> None:
        self._left, self.ended = b"", False

    def read(self) -> Iterator[bytes]:
        data = os.read(0, 65_536)
        self.ended = not data
        *whole, self._left = (self._left + data).split(b"\n")
        yield from whole


if __name__ == "__main__":
    sys.exit(main())
