"""The first page of an empty home: what Nakrel is for, what it found, and four ways to begin."""

from __future__ import annotations

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QCheckBox, QHBoxLayout, QVBoxLayout, QWidget

from nakrel.core.model.profile import EVERYDAY
from nakrel.ui.devices.fix import Fix
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, label
from nakrel.ui.window.program import Program
from nakrel.words import noted, tr

__all__ = ["Welcome", "is_empty"]

_FOR = (
    tr("Record what you press, or build it, and set every delay to the millisecond."),
    tr("Let a button of your mouse or a key play it: once, N times, while you hold, or until pressed again."),
    tr("Each game gets its own buttons, which load when the game starts."),
)


def is_empty(store: Store) -> bool:
    """Whether nothing was made here yet."""
    everyday = store.profiles.get(EVERYDAY)
    changed = everyday is not None and any(True for _ in everyday.cells())
    return not store.macros and set(store.profiles) <= {EVERYDAY} and not changed


class Welcome(QWidget):
    """Each signal is one way to begin; `left` asks for the window as it usually is."""

    rapid_fire_wanted = pyqtSignal()
    recording_wanted = pyqtSignal()
    game_wanted = pyqtSignal()
    demo_wanted = pyqtSignal()
    left = pyqtSignal()

    def __init__(self, store: Store, program: Program) -> None:
        super().__init__()
        self._store, self._program = store, program
        self.fix = Fix(self)
        self._found, self._reached = label("", "", wrap=True), label("", "", wrap=True)
        self.fix_button = button(tr("Fix…"), self.fix.ask, "act", tr("Install what macros need to reach every game"))
        self._failed = label("", "alarm", wrap=True)
        self._failed.hide()
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 14, 0, 0)
        layout.setSpacing(8)
        for line in _FOR:
            layout.addWidget(label(line))
        layout.addSpacing(14)
        layout.addWidget(label(tr("Your devices"), "heading"))
        layout.addWidget(self._found)
        layout.addWidget(self._reached)
        layout.addWidget(self.fix_button, 0, Qt.AlignmentFlag.AlignLeft)
        layout.addWidget(self._failed)
        layout.addSpacing(14)
        layout.addWidget(label(tr("Begin with"), "heading"))
        self.ways = {
            noted("Rapid fire on a button"): (
                self.rapid_fire_wanted,
                tr("choose the button, then the key that it fires"),
            ),
            noted("Record a macro"): (self.recording_wanted, tr("press what should be played, and edit it afterwards")),
            noted("Link a game"): (self.game_wanted, tr("make a profile that loads when your game starts")),
            noted("Look at the demo"): (self.demo_wanted, tr("made-up games with macros to try; undo takes them away")),
        }
        self.buttons = {}
        for text, (signal, says) in self.ways.items():
            line_of = QHBoxLayout()
            made = button(tr(text), signal.emit)
            made.setFixedWidth(190)
            self.buttons[text] = made
            line_of.addWidget(made)
            line_of.addWidget(label(says, "soft"), 1)
            layout.addLayout(line_of)
        layout.addSpacing(14)
        self._at_home = label(tr("At home on this computer"), "heading")
        self.menu_button = button(tr("Add to the desktop's menu"), program.install)
        self.login_box = QCheckBox(tr("Start when I log in: buttons work without this window"))
        self.login_box.clicked.connect(program.set_login)
        for part in (self._at_home, self.menu_button, self.login_box):
            layout.addWidget(part, 0, Qt.AlignmentFlag.AlignLeft)
        layout.addSpacing(10)
        layout.addWidget(button(tr("Go to the buttons"), self.left.emit, "link"), 0, Qt.AlignmentFlag.AlignLeft)
        layout.addStretch(1)
        store.devices_changed.connect(self.refresh)
        store.status_changed.connect(self.refresh)
        self.fix.ended.connect(self._fixed)
        program.changed.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Show what is there now."""
        names = [
            tr("{name} (simulated)").format(name=d.name) if d.id.startswith("standin:") else d.name
            for d in self._store.devices
        ]
        self._found.setText(", ".join(names) if names else tr("No device found. Plug in a mouse or keyboard."))
        status = self._store.status
        reach = {
            "kernel": tr("Macros reach every game."),
            "x11": tr("Macros reach every window of this X11 session."),
        }.get(status.backend, tr("Macros reach no game yet."))
        self._reached.setText(reach if status.backend == "kernel" else f"{reach} {status.backend_note}")
        self.menu_button.setVisible(not self._program.in_menu)
        self.login_box.setChecked(self._program.at_login)
        self.fix_button.setVisible(status.backend != "kernel")

    def _fixed(self, failed: str) -> None:
        self._failed.setText(failed)
        self._failed.setVisible(bool(failed))
