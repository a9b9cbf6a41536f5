"""The application that Qt wants before any window, in the desktop's scale."""

from __future__ import annotations

import os
import sys
from collections.abc import Mapping

from PyQt6.QtGui import QIcon
from PyQt6.QtWidgets import QApplication

from nakrel.desktop.names import APP_ID, icon_file
from nakrel.ui.language import translate_qt

__all__ = ["make_application", "scaled_environment"]

# Pixels to the inch where texts are of the usual size, and how much of a difference is none.
_USUAL_DPI, _ALIKE = 96, 0.04


def make_application() -> QApplication:
    """Make it, or take the one that there is. Where the desktop has another scale the process starts anew with it: Qt
    reads it only at the start, so this comes before all that takes long to load."""
    # A session without portals is none of the user's worries.
    os.environ.setdefault("QT_LOGGING_RULES", "qt.qpa.services.warning=false")
    app = QApplication.instance() or QApplication(["nakrel"])
    assert isinstance(app, QApplication)
    screen = app.primaryScreen()
    if wanted := scaled_environment(screen.logicalDotsPerInch() if screen else _USUAL_DPI, os.environ):
        os.environ.update(wanted)
        os.execv(sys.executable, [sys.executable, *sys.orig_argv[1:]])
    translate_qt()
    app.setApplicationName("nakrel")
    app.setDesktopFileName(APP_ID)
    app.setWindowIcon(QIcon(str(icon_file())))
    return app


def scaled_environment(dpi: float, environment: Mapping[str, str]) -> dict[str, str]:
    """What a desktop whose texts are larger or smaller than usual asks of Qt: all of the window is scaled like them,
    its rows and fields as well. Empty where nothing is to be changed."""
    factor = dpi / _USUAL_DPI
    if "QT_FONT_DPI" in environment or abs(factor - 1) < _ALIKE:
        return {}
    before = float(environment.get("QT_SCALE_FACTOR") or 1)
    return {"QT_FONT_DPI": str(_USUAL_DPI), "QT_SCALE_FACTOR": f"{before * factor:.4g}"}
