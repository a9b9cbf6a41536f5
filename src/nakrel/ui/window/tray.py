"""The icon in the desktop's tray (StatusNotifierItem, by Qt): what is live, what runs, and how to stop it, while the
window is closed."""

from __future__ import annotations

from collections.abc import Callable
from functools import cache, partial
from pathlib import Path

from PyQt6.QtCore import QObject, QRectF, Qt
from PyQt6.QtGui import QAction, QActionGroup, QIcon, QPainter, QPixmap
from PyQt6.QtSvg import QSvgRenderer
from PyQt6.QtWidgets import QApplication, QMenu, QSystemTrayIcon

from nakrel import protocol as m
from nakrel.core.model.controls import label as control_label
from nakrel.core.model.devices import battery_words
from nakrel.core.model.settings import SettingsPatch
from nakrel.desktop.names import icon_file
from nakrel.ui.store import Store, live_name
from nakrel.ui.widgets.basics import literal
from nakrel.ui.window.to_front import ToFront
from nakrel.words import counted, tr

__all__ = ["Tray", "tray_icon"]

_SIZES = (16, 22, 24, 32, 48, 64)
_SIGNS = Path(__file__).parent.parent / "icons"
# What the icon says, the first that holds; each has a sign of its own shape, so that the colour isn't all.
RECORDING, UNREACHED, RUNNING, RESTING = "recording", "unreached", "running", "resting"


@cache
def tray_icon(state: str) -> QIcon:
    """The icon with the sign of a state."""
    icon = QIcon()
    for size in _SIZES:
        pixmap = QPixmap(size, size)
        pixmap.fill(Qt.GlobalColor.transparent)
        painter = QPainter(pixmap)
        QSvgRenderer(str(icon_file())).render(painter)
        if state != RESTING:
            # A quarter of the icon, at the foot.
            QSvgRenderer(str(_SIGNS / f"tray-{state}.svg")).render(
                painter, QRectF(size * 0.45, size * 0.45, size * 0.55, size * 0.55)
            )
        painter.end()
        icon.addPixmap(pixmap)
    return icon


class Tray(QObject):
    """Where the desktop has a tray: the window can be closed, and Nakrel goes on there."""

    def __init__(self, front: ToFront) -> None:
        super().__init__(front)
        self._front, self._window = front, front.window
        self._store: Store = front.window.store
        self.menu = QMenu(self._window)
        self.icon = QSystemTrayIcon(tray_icon(RESTING), self)
        self.icon.setContextMenu(self.menu)
        self.icon.activated.connect(self._activated)
        self._state = RESTING
        self._told: object = None
        # The entry of each macro that runs.
        self._running: dict[str, QAction] = {}
        self._build()
        for changed in (
            self._store.devices_changed,
            self._store.status_changed,
            self._store.library_changed,
            self._store.settings_changed,
        ):
            changed.connect(self.refresh)
        self._store.gone.connect(self.refresh)
        self._window.closed_by_user = self._keep
        self.refresh()
        self.icon.show()
        # With the icon there, the last window's closing doesn't end the program.
        QApplication.setQuitOnLastWindowClosed(False)

    @staticmethod
    def is_there() -> bool:
        """Whether this desktop has a tray."""
        return QSystemTrayIcon.isSystemTrayAvailable()

    def refresh(self) -> None:
        """Show the state as it is now."""
        status = self._store.status
        name = live_name(self._store)
        state = self._state_of(status)
        if state != self._state:
            self._state = state
            self.icon.setIcon(tray_icon(state))
        running = [(run.macro, run.name) for run in status.running]
        batteries = "".join(f"\n{each.name}: {battery_words(each)}" for each in self._store.batteries)
        self.icon.setToolTip(
            tr("Nakrel: {name} is live, {state}").format(name=name, state=self._words(state, running)) + batteries
        )
        told = (name, state, running, status.pinned, self._store.settings.stop_key, self._store.shut_down.is_so)
        if told == self._told:
            return
        self._told = told
        self._fill(name, running, pinned=bool(status.pinned))

    @staticmethod
    def _words(state: str, running: list[tuple[str, str]]) -> str:
        one = tr("{value} runs").format(value=running[0][1]) if running else ""
        return {
            RECORDING: tr("recording"),
            UNREACHED: tr("macros reach no program"),
            RUNNING: one if len(running) == 1 else counted(len(running), "{n} macro runs", "{n} macros run"),
            RESTING: tr("no macro runs"),
        }[state]

    def _state_of(self, status: m.Status) -> str:
        if status.recording:
            return RECORDING
        if status.warning or self._store.shut_down.is_so:
            return UNREACHED
        return RUNNING if status.running else RESTING

    def _build(self) -> None:
        """All entries but those of running macros. They stay for good, and change: whoever has the menu open may be
        about to click on one."""
        self._start = self._entry(tr("Start the service"), self._store.shut_down.start)
        self._live = self._entry("", lambda: None)
        self._live.setEnabled(False)
        self._follow = self._entry(tr("Load with games"), lambda: self._store.pin(""))
        self._pin = self._entry("", lambda: self._store.pin(self._store.status.live))
        # A click on the one that holds leaves it so.
        either = QActionGroup(self)
        for each in (self._follow, self._pin):
            each.setCheckable(True)
            either.addAction(each)
        line = self.menu.addSeparator()
        assert line
        self._stop = self._entry("", lambda: self._store.ask(m.Stop()))
        self._of_service = (self._live, self._follow, self._pin, line, self._stop)
        self.menu.addSeparator()
        self._entry(tr("Open Nakrel"), self._front.show)
        self._entry(tr("Quit, and end all macros"), self.quit)

    def _entry(self, text: str, call: Callable[[], object]) -> QAction:
        action = self.menu.addAction(text, call)
        assert action
        return action

    def _fill(self, name: str, running: list[tuple[str, str]], *, pinned: bool) -> None:
        """What the entries say now."""
        gone = self._store.shut_down.is_so
        self._start.setVisible(gone)
        for entry in self._of_service:
            entry.setVisible(not gone)
        self._live.setText(literal(tr("{name} is live").format(name=name)))
        self._pin.setText(literal(tr("Keep {name} live").format(name=name)))
        (self._pin if pinned else self._follow).setChecked(True)
        key = control_label(self._store.settings.stop_key)
        self._stop.setText(tr("Stop everything\t{key}").format(key=key) if key else tr("Stop everything"))
        now = {} if gone else dict(running)
        for macro in self._running.keys() - now.keys():
            ended = self._running.pop(macro)
            self.menu.removeAction(ended)
            ended.deleteLater()
        for macro, each in now.items():
            if macro not in self._running:
                self._running[macro] = QAction(self.menu)
                self._running[macro].triggered.connect(partial(self._stop_one, macro))
                self.menu.insertAction(self._stop, self._running[macro])
            self._running[macro].setText(literal(tr("Stop {each}").format(each=each)))

    def _stop_one(self, macro: str) -> None:
        self._store.ask(m.Stop(macro))

    def _activated(self, how: QSystemTrayIcon.ActivationReason) -> None:
        if how in (QSystemTrayIcon.ActivationReason.Trigger, QSystemTrayIcon.ActivationReason.DoubleClick):
            self._front.show()

    def _keep(self) -> bool:
        """Whether the program goes on in the tray although its window is closed; that is said once."""
        if not self.icon.isVisible() or not self.is_there():
            return False
        if not self._store.settings.told_of_tray:
            self._store.change_settings(SettingsPatch(told_of_tray=True))
            message = tr("Your buttons go on as they are. Quit Nakrel from this icon's menu.")
            self.icon.showMessage(tr("Nakrel goes on here"), message, tray_icon(RESTING))
        return True

    def quit(self) -> None:
        """End the program and the service."""
        self._window.finish()
        if not self._store.shut_down.is_so:
            self._store.ask(m.Shutdown())
        self.icon.hide()
        self._window.leave()
        if app := QApplication.instance():
            app.quit()
