"""Colours and pens by meaning, in a light and a dark scheme; and the one family of type."""

from __future__ import annotations

from functools import cache, lru_cache
from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtGui import QBrush, QColor, QFont, QFontDatabase, QPen

from ...core.base.frozen import dataclass
from ...core.base.levels import Level

FAMILY = "Fira Sans"
CONDENSED = "Fira Sans Condensed"
FONTS = Path(__file__).parents[2] / "data" / "fonts"


@dataclass(frozen=True, slots=True)
class Palette:
    """Colour per meaning. Wood is the only warm fill; hatching, not colour, carries what matters."""

    paper: str = "#F3F1EA"
    sheet: str = "#FBFAF6"
    line: str = "#C9C6BA"
    ink: str = "#1F2A30"
    quiet: str = "#5B666B"
    sapwood: str = "#E7CFA3"
    heart: str = "#CFA871"
    bark: str = "#6B5442"
    rot: str = "#3B2F2A"
    lay: str = "#1E6F5C"
    load: str = "#A23B2A"
    wedge: str = "#3C4E8A"
    cut: str = "#FBFAF6"
    focus: str = "#0B5FA5"


LIGHT = Palette()
PRINTED = Palette(sheet="#FFFFFF", cut="#FFFFFF")
"""On paper what is cut away is as white as the paper."""
DARK = Palette(
    paper="#1B2226",
    sheet="#232C31",
    line="#46535A",
    ink="#EDEBE3",
    quiet="#A9B3B7",
    sapwood="#A98F62",
    heart="#8A6B3E",
    bark="#B79B85",
    rot="#EBDCCF",
    lay="#63C7AE",
    load="#F08A76",
    wedge="#9DB0F2",
    cut="#1B2226",
    focus="#7EBBF0",
)


def level_colour(palette: Palette, level: Level) -> str:
    """Colour that goes with a level; shape and word always go with it."""
    return {Level.CLEAR: palette.lay, Level.WATCH: palette.ink, Level.STOP: palette.load, Level.UNKNOWN: palette.quiet}[
        level
    ]


@cache
def load_fonts() -> tuple[str, ...]:
    """Load the shipped fonts; returns the families. Call once a QGuiApplication exists."""
    found: list[str] = []
    for path in FONTS.glob("*.ttf"):
        number = QFontDatabase.addApplicationFont(str(path))
        found += QFontDatabase.applicationFontFamilies(number)
    return tuple(sorted(set(found)))


@lru_cache(maxsize=256)
def font(size_px: float, *, strong: bool = False, narrow: bool = False, italic: bool = False) -> QFont:
    """A font of the shipped family; sizes in device-independent pixels. Shared: not to be changed."""
    found = QFont(CONDENSED if narrow else FAMILY)
    found.setPixelSize(max(round(size_px), 1))
    found.setWeight(QFont.Weight.DemiBold if strong else QFont.Weight.Normal)
    found.setItalic(italic)
    return found


@lru_cache(maxsize=512)
def pen(colour: str, width: float = 1.0, style: Qt.PenStyle = Qt.PenStyle.SolidLine) -> QPen:
    """A pen with mitred joins (round ones are slow on outlines of many points). Shared: not to be changed."""
    return QPen(QColor(colour), width, style, Qt.PenCapStyle.FlatCap, Qt.PenJoinStyle.MiterJoin)


@lru_cache(maxsize=128)
def fill(colour: str, style: Qt.BrushStyle = Qt.BrushStyle.SolidPattern) -> QBrush:
    """A flat brush. Shared: not to be changed."""
    return QBrush(QColor(colour), style)
