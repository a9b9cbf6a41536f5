"""What this program is: its version, what it is made with, and their licences."""

from __future__ import annotations

import platform

from PyQt6.QtCore import PYQT_VERSION_STR, Qt, qVersion
from PyQt6.QtGui import QIcon
from PyQt6.QtWidgets import QDialog, QHBoxLayout, QLabel, QVBoxLayout, QWidget

import nakrel
from nakrel.desktop.names import icon_file
from nakrel.ui.widgets.basics import button, label
from nakrel.words import tr

__all__ = ["About"]

_ICON_PX = 96
_LICENCE = tr("Free software under the GNU General Public License, version 3 or later. It comes without any warranty.")
# What is installed with it, and under which licence.
_MADE_WITH = (
    ("Qt and PyQt", "LGPL 3, GPL 3"),
    ("NumPy", "BSD"),
    ("msgspec, click, platformdirs, keyring, jeepney", "BSD, MIT"),
    ("xcffib, pyudev, PyYAML, miniaudio", "Apache 2, LGPL 2.1, MIT, MIT"),
    (tr("the typeface B612"), "SIL Open Font License"),
)


class About(QDialog):
    """A page of it."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(tr("About Nakrel"))
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.resize(520, 360)
        picture = QLabel()
        picture.setPixmap(QIcon(str(icon_file())).pixmap(_ICON_PX, _ICON_PX))
        head = QVBoxLayout()
        head.addStretch(1)
        self.version = label(f"Nakrel {nakrel.__version__}", "title")
        self.version.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        head.addWidget(self.version)
        head.addWidget(label(tr("Record, time and attach keystroke and click macros, per game"), "soft"))
        head.addWidget(label(f"Python {platform.python_version()}, Qt {qVersion()}, PyQt {PYQT_VERSION_STR}", "soft"))
        head.addStretch(1)
        top = QHBoxLayout()
        top.addWidget(picture)
        top.addSpacing(16)
        top.addLayout(head, 1)
        layout = QVBoxLayout(self)
        layout.addLayout(top)
        layout.addSpacing(10)
        layout.addWidget(label(_LICENCE, wrap=True))
        layout.addSpacing(10)
        layout.addWidget(label(tr("Made with"), "heading"))
        for what, licence in _MADE_WITH:
            row = QHBoxLayout()
            row.addWidget(label(what), 1)
            row.addWidget(label(licence, "soft"))
            layout.addLayout(row)
        layout.addStretch(1)
        foot = QHBoxLayout()
        foot.addStretch(1)
        foot.addWidget(button(tr("Close"), self.accept))
        layout.addLayout(foot)
