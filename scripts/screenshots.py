"""Open the window on the demo's data, play a little with the simulated devices, and take a picture of each page."""

from __future__ import annotations

import random
import sys
from pathlib import Path

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QPainter, QPixmap
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QScrollArea, QWidget

from nakrel import protocol as m
from nakrel.client.launch import ensure_service
from nakrel.core.model.cells import GoTo, RunMacro, StartProgram, ToControl, TypeText, What
from nakrel.core.model.cues import Cue
from nakrel.core.model.programs import Program
from nakrel.core.model.steps import Press, Release, Wait
from nakrel.core.model.takes import Take
from nakrel.cues.overlay import Overlay
from nakrel.demo.seed import seed
from nakrel.practice.rules import Rules
from nakrel.practice.window import Game, PracticeWindow
from nakrel.storage.home import Home
from nakrel.ui import commands
from nakrel.ui.app import open_window
from nakrel.ui.help.reader import Reader
from nakrel.ui.store import Store
from nakrel.ui.window.to_front import ToFront
from nakrel.ui.window.tray import RECORDING, RESTING, RUNNING, UNREACHED, Tray, tray_icon

MOUSE, KEYBOARD = "standin:halyard-12", "standin:bollard"
THUMB = "BTN_TRIGGER_HAPPY"
GAMES = tuple(
    Program(4_000 + n, name, path, (path,), n, title)
    for n, (name, path, title) in enumerate(
        (
            ("gull-mail", "/usr/bin/gull-mail", "Letters"),
            ("pier-terminal", "/usr/bin/pier-terminal", "Terminal"),
            ("tide-launcher", "/games/tidewardens/tide-launcher", ""),
            ("tidewardens.x86", "/games/tidewardens/tidewardens.x86_64", "Tidewardens"),
            ("tern-sound", "/usr/bin/tern-sound", ""),
        )
    )
)


class Pictures:
    """The window and a hand on the simulated mouse."""

    def __init__(self, home: str, folder: Path) -> None:
        self.folder = folder
        seed(Home.find(home))
        self.app = QApplication(["nakrel"])
        self.store = Store(lambda: ensure_service(Home.find(home).socket, home, "pictures"))
        self.store.open()
        self.window = open_window(self.app, self.store)
        self.window.resize(1280, 800)
        self.window.show()
        # Without a window manager nothing comes to the front by itself, and the macros would click into the window.
        self.window.activateWindow()
        assert QTest.qWaitForWindowActive(self.window)
        QTest.qWait(300)

    def press(self, control: str, value: int, device: str = MOUSE) -> None:
        self.store.ask(m.PressStandIn(device, control, value))

    def tap(self, control: str, ms: int = 90) -> None:
        self.press(control, 1)
        QTest.qWait(ms)
        self.press(control, 0)

    def take(self, name: str, widget: QWidget | None = None) -> None:
        QTest.qWait(60)
        (widget or self.window).grab().save(str(self.folder / f"{name}.png"))

    def all(self) -> None:
        shown, store = self.window.shown, self.store
        for profile in ("orrery-post", "brackenfall-arena", "tidewardens"):
            store.pin(profile)
            QTest.qWait(200)
            for number in (1, 2, 4):
                self.tap(f"{THUMB}{number}")
                QTest.qWait(150)
            store.ask(m.Stop())
            QTest.qWait(150)
        shown.show_profile("tidewardens")
        shown.show_macro("reel-in", open_page=False)
        self.tap(f"{THUMB}6")
        QTest.qWait(1_500)
        self.press(f"{THUMB}3", 1)
        QTest.qWait(1_200)
        self.take("buttons")
        shown.show_page("macro")
        # The frame check is worked out once edits rest.
        QTest.qWait(900)
        self.press(f"{THUMB}3", 0)
        QTest.qWait(700)
        self.measure()
        self.press(f"{THUMB}3", 1)
        QTest.qWait(1_060)
        self.take("macro")
        self.look("night")
        self.take("macro-night")
        self.window.macro.show_view("notation")
        self.look("light")
        self.take("notation")
        self.window.macro.show_view("steps")
        self.press(f"{THUMB}3", 0)
        store.ask(m.Stop())
        self.assigning()
        self.recording()
        self.steps()
        self.tuning()
        self.takes()
        self.on_the_range()
        shown.show_page("devices")
        QTest.qWait(200)
        self.take("devices")
        shown.show_page("journal")
        self.take("journal")
        self.link()
        self.profiles()
        self.practice()
        self.help()

    def look(self, look: str) -> None:
        self.window.set_look(look)
        QTest.qWait(150)

    def measure(self) -> None:
        """Set the calipers to two edges of R, and leave the keyboard's mark at the second one."""
        diagram = self.window.macro.diagram
        self.window.activateWindow()
        diagram.setFocus()
        diagram.focusInEvent(None)
        for key in (Qt.Key.Key_Down, Qt.Key.Key_Right, Qt.Key.Key_C, Qt.Key.Key_Right, Qt.Key.Key_C):
            QTest.keyClick(diagram, key)

    def steps(self) -> None:
        """The ways in which a macro can begin."""
        shown, page = self.window.shown, self.window.macro
        shown.show_macro("stamp-40-parcels")
        page.select([2])
        page.builder_button.click()
        page.beginnings.choose("Keys in a row")
        QTest.qWait(400)
        self.take("beginnings")
        page.builder_button.click()
        self.store.undo_stack.clear()

    def on_the_range(self) -> None:
        """Clicks by hand, and a macro that plays."""
        self.window.activateWindow()
        self.window.shown.show_page("range")
        self.window.range.pad.setFocus()
        QTest.qWait(300)
        for number in range(12):
            self.tap("BTN_LEFT", 30 + 3 * number)
            QTest.qWait(60)
            if number % 3 == 0:
                self.tap("BTN_RIGHT")
            if number % 4 == 0:
                self.press("KEY_Q", 1, KEYBOARD)
                QTest.qWait(50)
                self.press("KEY_Q", 0, KEYBOARD)
        self.press(f"{THUMB}3", 1)
        QTest.qWait(1_500)
        self.window.range.refresh()
        self.take("range")
        self.press(f"{THUMB}3", 0)
        self.store.ask(m.Stop())

    def tuning(self) -> None:
        """A search that is on, in a game that takes a press of some 46 ms."""
        self.window.shown.show_macro("storm-volley")
        self.window.macro.show_row(0)
        QTest.qWait(900)
        tune, chance = self.window.macro_details.tune, random.Random(5)
        tune.start()
        session = tune.session
        for _ in range(18):
            while session.on and not session.ready_us:
                QTest.qWait(20)
            if not session.on or not session.found:
                break
            session.played = True
            session.judge(session.found.next_us >= 46_000 + chance.gauss(0, 3_000))
        QTest.qWait(400)
        for area in self.window.findChildren(QScrollArea):
            if area.isAncestorOf(tune):
                area.ensureWidgetVisible(tune, 0, 30)
        self.take("tune")
        session.forget()
        QTest.qWait(200)

    def takes(self) -> None:
        """Six takes of the same thing, one of them with a slip."""
        chance = random.Random(3)

        def wait(ms: float) -> Wait:
            return Wait(wait_us=round(1_000 * chance.gauss(ms, ms / 8)))

        def performed(number: int, late_ms: int) -> Take:
            q = (Press(control="KEY_Q"), wait(40), Release(control="KEY_Q"), wait(120 + late_ms))
            w = (Press(control="KEY_W"), wait(55), Release(control="KEY_W"), wait(80)) if number != 5 else ()
            shift = (Press(control="KEY_LEFTSHIFT"), wait(30), Press(control="KEY_E"), wait(45))
            return Take(
                number, 0.0, (*q, *w, *shift, Release(control="KEY_E"), wait(20), Release(control="KEY_LEFTSHIFT"))
            )

        dialog = self.window.macro.take_strip.compare([performed(n, 160 * (n == 3)) for n in range(1, 7)])
        QTest.qWait(1_500)
        self.take("takes", dialog)
        dialog.reject()

    def assigning(self) -> None:
        """The field at a cell, and the board of the keyboard."""
        shown, sheet, store = self.window.shown, self.window.sheet, self.store
        shown.show_page("sheet")
        sheet.show_control(f"{THUMB}5")
        sheet.open_field("re")
        QTest.qWait(500)
        self.take("field")
        sheet.assign.field.leave()
        cells = {
            "KEY_1": RunMacro("storm-volley"),
            "KEY_TAB": GoTo(What.SETUP, "Netter"),
            "KEY_R": ToControl("GAME:Haul"),
            "KEY_T": TypeText("Good tide"),
            "KEY_F": RunMacro("reel-in"),
            "KEY_G": RunMacro("steady-oar"),
            "KEY_F9": StartProgram(("tide-map",)),
        }
        profile = store.profiles["tidewardens"]
        commands.set_cells(store, profile, "Healer", {("", code): cell for code, cell in cells.items()})
        sheet.device.setCurrentIndex([device.name for device in store.devices].index("Bollard keyboard"))
        sheet.show_view("board")
        sheet.show_control("KEY_F")
        self.press("KEY_G", 1, KEYBOARD)
        QTest.qWait(700)
        self.take("board")
        self.press("KEY_G", 0, KEYBOARD)
        store.ask(m.Stop())
        sheet.show_view("list")
        sheet.device.setCurrentIndex(0)
        store.undo_stack.undo()

    def recording(self) -> None:
        self.window.shown.show_macro("cut-the-line")
        self.window.macro.recording.button.click()
        QTest.qWait(200)
        for control in ("BTN_RIGHT", "BTN_MIDDLE", "BTN_LEFT"):
            self.tap(control, 70)
            QTest.qWait(110)
        QTest.qWait(120)
        self.store.ask(m.StopRecording())
        QTest.qWait(500)
        self.window.macro.take_strip.taps.chosen.emit(True)
        QTest.qWait(700)
        self.take("take")
        self.store.undo_stack.undo()

    def link(self) -> None:
        self.window.shown.show_page("sheet")
        self.window.open_link()
        dialog = self.window.link_dialog
        assert dialog
        # Made-up programs: those that really run here are nobody's business.
        dialog._timer.stop()
        QTest.qWait(300)
        dialog._fill(m.Programs(GAMES))
        dialog.table.selectRow(0)
        QTest.qWait(100)
        self.take("link", dialog)
        dialog.reject()

    def profiles(self) -> None:
        """What belongs to a profile: its game keys."""
        shown = self.window.shown
        shown.show_profile("tidewardens")
        shown.show_page("sheet")
        details = self.window.profile_details
        details.open_keys()
        assert details.keys_dialog
        QTest.qWait(200)
        self.take("game-keys", details.keys_dialog)
        details.keys_dialog.accept()

    def practice(self) -> None:
        game = PracticeWindow(Game(60, 0.0, 0.0, False, Rules(), ()), None, "Practice game")
        game.show()
        for control in ("R", "Left", "R", "Left"):
            QTest.qWait(60)
            game._arrive(control, True)
            QTest.qWait(40)
            game._arrive(control, False)
        # A line over the game, as a borderless one has it.
        overlay = Overlay()
        screen = game.screen()
        assert screen
        game.move(screen.geometry().center().x() - game.width() * 3 // 4, 20)
        overlay.say(Cue.ON, "Steady oar is on")
        QTest.qWait(60)
        place = game.frameGeometry()
        picture = screen.grabWindow(0, place.x(), place.y(), place.width(), place.height())
        picture.save(str(self.folder / "practice.png"))
        overlay.close()
        game.close()

    def help(self) -> None:
        """The documents, searched; and the tray: its menu, and what the icon says."""
        reader = Reader(self.window)
        reader.show()
        reader.field.setText("rapid fire")
        QTest.qWait(200)
        self.take("help", reader)
        reader.close()
        self.tap(f"{THUMB}6")
        QTest.qWait(300)
        tray = Tray(ToFront(self.window))
        tray.menu.popup(self.window.mapToGlobal(self.window.rect().center()))
        QTest.qWait(100)
        menu, icons = tray.menu.grab(), (RESTING, RUNNING, RECORDING, UNREACHED)
        both = QPixmap(menu.width() + 40, menu.height() + 60)
        both.fill(Qt.GlobalColor.white)
        painter = QPainter(both)
        for number, state in enumerate(icons):
            painter.drawPixmap(20 + number * 48, 10, tray_icon(state).pixmap(32, 32))
        painter.drawPixmap(20, 52, menu)
        painter.end()
        both.save(str(self.folder / "tray.png"))
        tray.menu.hide()
        tray.icon.hide()
        self.window.closed_by_user = lambda: False
        self.store.ask(m.Stop())

    def end(self) -> None:
        self.store.ask(m.Shutdown())
        self.window.close()


def first_page(home: str, folder: Path) -> None:
    """The window on an empty home."""
    store = Store(lambda: ensure_service(Home.find(home).socket, home, "pictures"))
    store.open()
    window = open_window(QApplication.instance(), store)
    window.resize(1280, 800)
    window.show()
    QTest.qWait(400)
    window.grab().save(str(folder / "welcome.png"))
    store.ask(m.Shutdown())
    window.close()


def main() -> None:
    """Take all pictures into the folder."""
    pictures = Pictures(sys.argv[1], Path(sys.argv[2]))
    try:
        pictures.all()
        first_page(f"{sys.argv[1]}-empty", Path(sys.argv[2]))
    finally:
        pictures.end()


if __name__ == "__main__":
    main()
