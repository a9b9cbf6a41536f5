"""The look: the palette "harbour" by day and by night, one typeface, hairlines instead of boxes."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from pathlib import Path

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QColor, QFont, QFontDatabase, QGuiApplication, QPalette
from PyQt6.QtWidgets import QApplication

from nakrel.core.model.controls import CONTROLS, GAME, POINTER, Kind

__all__ = [
    "BODY_PX",
    "ROW_PX",
    "SMALL_PX",
    "TITLE_PX",
    "Palette",
    "apply",
    "colour",
    "font",
    "hue",
    "load_fonts",
    "palette",
]

BODY_PX, SMALL_PX, TITLE_PX = 12.5, 11, 17
ROW_PX = 28
FAMILY = "B612"
_FONTS = Path(__file__).parent / "fonts"


@dataclass(frozen=True)
class Palette:
    """The colours of one variant. By day brass and the trace hues are a little deeper than the palette's own, so
    that the texts in them reach a contrast of 4.5:1 on every ground."""

    paper: str
    shade: str
    ink: str
    soft: str
    line: str
    field: str
    brass: str
    on_brass: str
    alarm: str
    key: str
    button: str
    wheel: str
    pointer: str
    other: str
    night: bool = False


DAY = Palette(
    paper="#F6F4EE",
    shade="#EEEBE2",
    ink="#1F2A33",
    soft="#66635B",
    line="#D5D0C4",
    field="#FFFFFF",
    brass="#935B0E",
    on_brass="#FFFFFF",
    alarm="#A23F26",
    key="#42679B",
    button="#A34A2F",
    wheel="#50703A",
    pointer="#7D5A8C",
    other="#77726A",
)
NIGHT = Palette(
    paper="#171D22",
    shade="#1D2429",
    ink="#E7E3D8",
    soft="#A09D94",
    line="#333C43",
    field="#232C33",
    brass="#D9A24A",
    on_brass="#171D22",
    alarm="#E8866A",
    key="#8FB0E0",
    button="#E8866A",
    wheel="#A4C482",
    pointer="#C6A3D6",
    other="#B0ABA0",
    night=True,
)

_current = DAY


def palette() -> Palette:
    """The palette in use."""
    return _current


@cache
def _parsed(colour: str) -> QColor:
    return QColor(colour)


def colour(name: str) -> QColor:
    """A colour of the palette in use, by its name there; don't change it."""
    return _parsed(getattr(_current, name))


def hue(code: str) -> QColor:
    """A control's trace colour, by its kind."""
    known = CONTROLS.get(code)
    if code == POINTER:
        return QColor(_current.pointer)
    if known is None:
        return QColor(_current.key if code.startswith(GAME) else _current.other)
    return QColor({Kind.KEY: _current.key, Kind.BUTTON: _current.button, Kind.WHEEL: _current.wheel}[known.kind])


@cache
def font(pixels: float = BODY_PX, *, bold: bool = False) -> QFont:
    """The one typeface, in two weights; always the same object, so don't change it."""
    chosen = QFont(FAMILY)
    chosen.setPixelSize(round(pixels))
    chosen.setBold(bold)
    return chosen


def load_fonts() -> None:
    """Make the shipped typeface known to Qt; once per application."""
    if FAMILY not in QFontDatabase.families():
        for path in sorted(_FONTS.glob("*.otf")):
            QFontDatabase.addApplicationFont(str(path))


def apply(app: QApplication, look: str) -> None:
    """Set the look: 'light', 'night', or 'system' for what the desktop prefers."""
    global _current
    hints = QGuiApplication.styleHints()
    dark = look == "night" or (look == "system" and hints is not None and hints.colorScheme() == Qt.ColorScheme.Dark)
    _current = NIGHT if dark else DAY
    load_fonts()
    app.setStyle("Fusion")
    app.setFont(font())
    app.setPalette(_qt_palette(_current))
    app.setStyleSheet(_style(_current))


def _qt_palette(p: Palette) -> QPalette:
    qt = QPalette()
    role = QPalette.ColorRole
    for where, colour in (
        (role.Window, p.paper),
        (role.WindowText, p.ink),
        (role.Base, p.paper),
        (role.AlternateBase, p.shade),
        (role.Text, p.ink),
        (role.Button, p.paper),
        (role.ButtonText, p.ink),
        (role.PlaceholderText, p.soft),
        (role.Highlight, p.field),
        (role.HighlightedText, p.ink),
        (role.ToolTipBase, p.field),
        (role.ToolTipText, p.ink),
        (role.Link, p.brass),
        (role.Accent, p.brass),
    ):
        qt.setColor(where, QColor(colour))
    for where in (role.WindowText, role.Text, role.ButtonText):
        qt.setColor(QPalette.ColorGroup.Disabled, where, QColor(p.soft))
    return qt


def _style(p: Palette) -> str:
    icons = (Path(__file__).parent / "icons").as_posix()
    return f"""
    QWidget {{ color: {p.ink}; }}
    QMainWindow, QDialog, #page {{ background: {p.paper}; }}
    #side, #strip {{ background: {p.shade}; }}
    #side QScrollArea, #side QScrollArea > QWidget > QWidget {{ background: {p.shade}; }}
    #hairline {{ background: {p.line}; }}
    #title {{ font-size: {TITLE_PX}px; font-weight: bold; }}
    #heading {{ font-size: 13px; font-weight: bold; }}
    #soft {{ color: {p.soft}; font-size: {SMALL_PX}px; }}
    #alarm {{ color: {p.alarm}; }}
    #live {{ color: {p.brass}; font-weight: bold; }}

    QLineEdit, QComboBox, QSpinBox, QPlainTextEdit {{
        background: {p.field}; border: 1px solid {p.line}; border-radius: 3px; padding: 3px 6px;
        selection-background-color: {p.brass}; selection-color: {p.on_brass};
    }}
    QLineEdit:focus, QComboBox:focus, QSpinBox:focus, QPlainTextEdit:focus {{ border-color: {p.brass}; }}
    QLineEdit[wrong="true"] {{ border-color: {p.alarm}; }}
    QComboBox::drop-down {{ border: none; width: 20px; }}
    QComboBox::down-arrow {{ image: url({icons}/down-{"night" if p.night else "day"}.svg); width: 10px; height: 6px; }}
    QComboBox QAbstractItemView {{ background: {p.field}; border: 1px solid {p.line}; outline: none; }}
    QComboBox QAbstractItemView::item:selected {{ background: {p.shade}; color: {p.ink}; }}
    QSpinBox::up-button, QSpinBox::down-button {{ width: 0; }}

    QPushButton {{
        background: {p.field}; border: 1px solid {p.line}; border-radius: 3px; padding: 4px 11px; min-height: 18px;
    }}
    QPushButton:hover {{ border-color: {p.soft}; }}
    QPushButton:focus {{ border-color: {p.brass}; }}
    QPushButton:pressed, QPushButton:checked {{ background: {p.ink}; color: {p.paper}; }}
    QPushButton:disabled {{ color: {p.soft}; background: transparent; }}
    QPushButton#act {{ background: {p.brass}; color: {p.on_brass}; border-color: {p.brass}; }}
    QPushButton#act:focus, QPushButton#act:hover {{ border-color: {p.ink}; }}
    QPushButton#act:disabled {{ background: transparent; color: {p.soft}; border-color: {p.line}; }}
    QPushButton#stop {{ background: {p.field}; color: {p.alarm}; border-color: {p.alarm}; font-weight: bold; }}
    QPushButton#stop:focus, QPushButton#stop:hover {{ border: 2px solid {p.alarm}; }}
    QPushButton#link {{
        background: transparent; border: 1px solid transparent; color: {p.brass}; padding: 2px 4px; text-align: left;
    }}
    QPushButton#link:hover {{ text-decoration: underline; }}
    QPushButton#link:focus {{ border-color: {p.brass}; }}
    QPushButton#tab {{
        background: transparent; border: none; border-bottom: 2px solid transparent; border-radius: 0;
        color: {p.soft}; padding: 6px 2px 7px 2px; margin: 0 7px;
    }}
    QPushButton#tab:checked {{ color: {p.ink}; font-weight: bold; border-bottom-color: {p.brass}; }}
    QPushButton#tab:focus {{ color: {p.brass}; }}
    QPushButton#segment {{ border-radius: 0; padding: 4px 0; margin: 0 -1px 0 0; }}
    QPushButton#segment:checked {{ background: {p.ink}; color: {p.paper}; }}

    QCheckBox {{ spacing: 7px; }}
    QCheckBox::indicator {{ width: 12px; height: 12px; border: 1px solid {p.soft}; border-radius: 2px; }}
    QCheckBox::indicator:checked {{
        background: {p.brass}; border-color: {p.brass}; image: url({icons}/check-{"night" if p.night else "day"}.svg);
    }}
    QCheckBox::indicator:focus {{ border: 2px solid {p.brass}; }}

    QAbstractItemView {{ background: {p.paper}; border: none; outline: none; gridline-color: {p.line}; }}
    #side QAbstractItemView {{ background: {p.shade}; }}
    QHeaderView {{ background: {p.paper}; border: none; font-size: {SMALL_PX}px; }}
    QHeaderView::section {{
        background: {p.paper}; color: {p.soft}; border: none; border-bottom: 1px solid {p.line}; padding: 0 6px;
    }}
    #drawer {{ background: {p.paper}; border: 1px solid {p.soft}; }}
    QSplitter::handle:vertical {{ height: 5px; background: transparent; border-bottom: 1px solid {p.line}; }}
    QSplitter::handle:hover {{ border-bottom: 2px solid {p.brass}; }}
    #assign {{ background: {p.field}; border: 1px solid {p.brass}; }}
    #assign QLineEdit {{ border: none; padding: 0 7px; }}
    #assign #offered {{ border: none; border-top: 1px solid {p.line}; padding: 0; }}
    #fold {{
        background: transparent; border: 1px solid transparent; font-weight: bold; text-align: left; padding: 4px 0;
    }}
    #fold:checked {{ background: transparent; color: {p.ink}; }}
    #fold:focus {{ border-color: {p.brass}; }}
    #value {{
        background: transparent; border: none; border-bottom: 1px solid {p.brass}; border-radius: 0; color: {p.brass};
        font-weight: bold; padding: 4px 1px 0 1px; min-height: 0;
    }}
    #value:hover {{ background: {p.field}; }}
    #value:focus {{ border: 1px solid {p.brass}; }}
    #does {{ text-align: left; font-weight: bold; padding: 5px 9px; }}
    #offered {{ background: {p.field}; border: 1px solid {p.line}; padding: 3px; }}
    #offered::item {{ padding: 3px 6px; }}
    #offered::item:selected {{ background: {p.shade}; color: {p.ink}; }}
    QMenu {{ background: {p.field}; border: 1px solid {p.line}; padding: 4px; }}
    QMenu::item {{ padding: 5px 22px 5px 14px; border-radius: 2px; }}
    QMenu::item:selected {{ background: {p.shade}; }}
    QMenu::item:disabled {{ color: {p.soft}; }}
    QMenu::separator {{ height: 1px; background: {p.line}; margin: 4px 8px; }}
    QToolTip {{ background: {p.field}; color: {p.ink}; border: 1px solid {p.line}; padding: 3px; }}
    QScrollBar:vertical {{ background: transparent; width: 9px; }}
    QScrollBar:horizontal {{ background: transparent; height: 9px; }}
    QScrollBar::handle {{ background: {p.line}; border-radius: 3px; margin: 1px; min-height: 24px; min-width: 24px; }}
    QScrollBar::add-line, QScrollBar::sub-line {{ width: 0; height: 0; }}
    QScrollBar::add-page, QScrollBar::sub-page {{ background: transparent; }}
    QScrollArea {{ border: none; background: transparent; }}
    """
