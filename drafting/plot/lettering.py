"""The lettering that ships with Dunefold, and how wide it runs."""

from __future__ import annotations

from functools import cache
from pathlib import Path

from reportlab.pdfbase.ttfonts import TTFontFile

FONTS = Path(__file__).parent / "fonts"
REGULAR, BOLD = FONTS / "lettering-regular.ttf", FONTS / "lettering-bold.ttf"
#: The height of a capital over the size of the type. Read from the font's own table (OS/2 sCapHeight / unitsPerEm).
CAP_HEIGHT = 0.655
#: A field shrinks to this before it is shortened: ISO 3098's 1.8 mm, the least that reads.
LEAST = 1.8
ELLIPSIS = "…"


@cache
def _font(bold: bool) -> TTFontFile:
    return TTFontFile(str(BOLD if bold else REGULAR))


def text_width(text: str, size: float, bold: bool = False) -> float:
    """How far a line of lettering with capitals of `size` mm runs, in mm."""
    font = _font(bold)
    units = sum(font.charWidths.get(ord(c), font.defaultWidth) for c in text)
    return float(units) / 1000 * size / CAP_HEIGHT


def fit(text: str, size: float, room: float, bold: bool = False) -> tuple[str, float]:
    """The text and size with which a line keeps within `room` mm: shrunk to LEAST, then shortened."""
    wide = text_width(text, size, bold)
    if wide <= room:
        return text, size
    smaller = size * room / wide
    if smaller >= LEAST:
        return text, smaller
    size = min(size, LEAST)
    while text and text_width(text + ELLIPSIS, size, bold) > room:
        text = text[:-1].rstrip()
    return text + ELLIPSIS, size
