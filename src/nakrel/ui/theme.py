"""The look: the palette "harbour" by day and by night, one typeface, hairlines instead of boxes."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cache
from pathlib import Path

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QColor, QFont, QFontDatabase, QGuiApplication, QPalette
from PyQt6.QtWidgets import QApplication

from nakrel.core.model.controls import GAME, KNOWN, POINTER, Kind

__all__ = [
    "BODY_PX",
    "ROW_PX",
    "SMALL_PX",
    "TITLE_PX",
    "Palette",
    "apply",
    "begin",
    "colour",
    "follow_desktop",
    "font",
    "hue",
    "is_current",
    "load_fonts",
    "palette",
    "palette_for",
    "points",
]

BODY_PX, SMALL_PX, TITLE_PX = 12.5, 11, 17
ROW_PX = 28
FAMILY = "B612"
_FONTS = Path(__file__).parent / "fonts"


@dataclass(frozen=True)
class Palette:
    """The colours of one variant. By day brass and the trace hues are a little deeper than the palette's own, so
    that the texts in them reach a contrast of 4.5:1 on every ground. Hues that would merge for eyes without red or
    green differ in how light they are, or in how blue."""

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
    wheel="#0F6B70",
    pointer="#4C2863",
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
    wheel="#CDEBA9",
    pointer="#EBD9F5",
    other="#B0ABA0",
    night=True,
)

# For those who ask their desktop for more contrast: black and white, lines as dark as texts, hues still told apart.
DAY_HIGH = Palette(
    paper="#FFFFFF",
    shade="#F2F2F2",
    ink="#000000",
    soft="#303030",
    line="#5A5A5A",
    field="#FFFFFF",
    brass="#5E3600",
    on_brass="#FFFFFF",
    alarm="#7A1500",
    key="#0A2750",
    button="#6B1804",
    wheel="#00545A",
    pointer="#6B4283",
    other="#3A3832",
)
NIGHT_HIGH = Palette(
    paper="#000000",
    shade="#141414",
    ink="#FFFFFF",
    soft="#D6D6D6",
    line="#A0A0A0",
    field="#000000",
    brass="#FFC870",
    on_brass="#000000",
    alarm="#FFB3A0",
    key="#8FB4F5",
    button="#FF9276",
    wheel="#DCF7BC",
    pointer="#F1DEFB",
    other="#DDDAD2",
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
    known = KNOWN.get(code)
    if code == POINTER:
        return QColor(_current.pointer)
    if known is None:
        return QColor(_current.key if code.startswith(GAME) else _current.other)
    return QColor({Kind.KEY: _current.key, Kind.BUTTON: _current.button, Kind.WHEEL: _current.wheel}[known.kind])


def points(pixels: float) -> float:
    """So many pixels at 96 to the inch, in points."""
    return round(pixels) * 0.75


@cache
def font(pixels: float = BODY_PX, *, bold: bool = False) -> QFont:
    """The one typeface, in two weights; always the same object, so don't change it."""
    chosen = QFont(FAMILY)
    # In points, which follow the desktop's scale; three quarters of a point are a pixel at the usual 96 to the inch.
    chosen.setPointSizeF(points(pixels))
    chosen.setBold(bold)
    return chosen


@cache
def load_fonts() -> None:
    """Make the shipped typeface known to Qt, once: the file's, whatever of its name is installed here."""
    for path in sorted(_FONTS.glob("*.otf")):
        QFontDatabase.addApplicationFont(str(path))


def palette_for(*, dark: bool, high: bool) -> Palette:
    """The palette of a look."""
    if high:
        return NIGHT_HIGH if dark else DAY_HIGH
    return NIGHT if dark else DAY


def _wants_contrast() -> bool:
    """Whether the desktop asks for more contrast."""
    hints = QGuiApplication.styleHints()
    # Qt tells of it from 6.10 on.
    told = getattr(hints, "accessibility", None) if hints is not None else None
    wanted = told() if told is not None else None
    return wanted is not None and wanted.contrastPreference() == Qt.ContrastPreference.HighContrast


def follow_desktop(again: Callable[..., object]) -> None:
    """Call again whenever the desktop changes between light and dark. A window's own method goes with the window."""
    if hints := QGuiApplication.styleHints():
        hints.colorSchemeChanged.connect(again)


def is_current(look: str) -> bool:
    """Whether the palette in use is the one for this look now. PyQt hands out no signal for the wish for contrast, so
    it is looked at when the window comes to the front."""
    return _current is palette_for(dark=_is_dark(look), high=_wants_contrast())


def _is_dark(look: str) -> bool:
    hints = QGuiApplication.styleHints()
    return look == "night" or (look == "system" and hints is not None and hints.colorScheme() == Qt.ColorScheme.Dark)


def begin(app: QApplication) -> None:
    """Set what widgets take when they are made, the typeface and the style of Qt's that ours goes by: to tell it to
    all that are there takes long."""
    load_fonts()
    app.setStyle("Fusion")
    app.setFont(font())


def apply(app: QApplication, look: str) -> None:
    """Set the look: 'light', 'night', or 'system' for what the desktop prefers."""
    global _current
    _current = palette_for(dark=_is_dark(look), high=_wants_contrast())
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
    QMainWindow, QDialog, #page {{ background: {p.paper}; }}
    #side, #strip {{ background: {p.shade}; }}
    #side QScrollArea, #side QScrollArea > QWidget > QWidget {{ background: {p.shade}; }}
    #hairline {{ background: {p.line}; }}
    #title {{ font-size: {points(TITLE_PX)}pt; font-weight: bold; }}
    #heading {{ font-size: {points(13)}pt; font-weight: bold; }}
    #soft {{ color: {p.soft}; font-size: {points(SMALL_PX)}pt; }}
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
    QLabel:disabled {{ color: {p.soft}; }}
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
    QHeaderView {{ background: {p.paper}; border: none; font-size: {points(SMALL_PX)}pt; }}
    QHeaderView::section {{
        background: {p.paper}; color: {p.soft}; border: none; border-bottom: 1px solid {p.line}; padding: 0 6px;
    }}
    #drawer {{ background: {p.paper}; border: 1px solid {p.soft}; }}
    QSplitter::handle:vertical {{ height: 5px; background: transparent; border-bottom: 1px solid {p.line}; }}
    QSplitter::handle:hover {{ border-bottom: 2px solid {p.brass}; }}
    #assign {{ background: {p.field}; border: 1px solid {p.brass}; }}
    #assign QLineEdit {{ border: none; padding: 0 7px; }}
    #assign #offered {{ border: none; border-top: 1px solid {p.line}; padding: 0; }}
    #assign #offered[upwards="true"] {{ border-top: none; border-bottom: 1px solid {p.line}; }}
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
    QMenu {{ background: {p.field}; border: 1px solid {p.line}; padding: 4px;
        font-family: "{FAMILY}"; font-size: {points(BODY_PX)}pt; }}
    QMenu::item {{ padding: 5px 22px 5px 14px; border-radius: 2px; }}
    QTextBrowser {{ background: {p.field}; border: 1px solid {p.line};
        selection-background-color: {p.brass}; selection-color: {p.on_brass}; }}
    QListWidget {{ background: transparent; border: none; outline: none; }}
    QListWidget::item {{ padding: 3px 6px; border-left: 3px solid transparent; }}
    QListWidget::item:selected {{ background: {p.field}; color: {p.ink}; border-left: 3px solid {p.brass}; }}
    QMenu::item:selected {{ background: {p.shade}; }}
    QMenu::item:disabled {{ color: {p.soft}; }}
    QMenu::separator {{ height: 1px; background: {p.line}; margin: 4px 8px; }}
    QToolTip {{ background: {p.field}; color: {p.ink}; border: 1px solid {p.line}; padding: 3px; }}
    QScrollBar:vertical {{ background: transparent; width: 9px; }}
    QScrollBar:horizontal {{ background: transparent; height: 9px; }}
    QScrollBar::handle {{ background: {p.line}; border-radius: 3px; margin: 1px; min-height: 24px; min-width: 24px; }}
    QScrollBar::add-line, QScrollBar::sub-line {{ width: 0; height: 0; }}
    QScrollBar::add-page, QScrollBar::sub-page {{ background: transparent; }}
    QAbstractScrollArea::corner {{ background: transparent; border: none; }}
    QScrollArea {{ border: none; background: transparent; }}
    """
