"""The lettering that comes with Dunefold, and how wide it runs."""

from __future__ import annotations

from functools import cache, lru_cache
from pathlib import Path

from reportlab.pdfbase.ttfonts import TTFontFile

FONTS = Path(__file__).parent / "fonts"
REGULAR, BOLD = FONTS / "lettering-regular.ttf", FONTS / "lettering-bold.ttf"
#: The height of a capital over the size of the type. Read from the font's own table (OS/2 sCapHeight /
#: unitsPerEm).
CAP_HEIGHT = 0.655
#: A field shrinks to this before it is shortened: ISO 3098's 1.8 mm, the least that reads.
MIN_TEXT_HEIGHT = 1.8
ELLIPSIS = "…"
#: From base line to base line, in heights of capitals (ISO 3098: at least 1.3 without accents below and
#: above).
LEADING = 1.7


@cache
def _font(bold: bool) -> TTFontFile:
    return TTFontFile(str(BOLD if bold else REGULAR))


def lacks(text: str, bold: bool = False) -> str:
    """The signs of a text that the lettering has not, each once.

    >>> lacks("Ø 12 mm"), lacks("東 side")
    ('', '東')
    """
    known = _font(bold).charToGlyph
    return "".join(dict.fromkeys(sign for sign in text if ord(sign) not in known and sign.isprintable()))


def text_width(text: str, size: float, bold: bool = False) -> float:
    """How far a line of lettering with capitals of `size` mm runs, in mm."""
    return _units(text, bold) / 1000 * size / CAP_HEIGHT


@lru_cache(maxsize=10_000)
def _units(text: str, bold: bool) -> float:
    """How far a line runs, in thousandths of its body: most lines are measured again and again."""
    font = _font(bold)
    return float(sum(font.charWidths.get(ord(c), font.defaultWidth) for c in text))


def fit(text: str, size: float, room: float, bold: bool = False) -> tuple[str, float]:
    """The text and size with which a line keeps within `room` mm: shrunk to MIN_TEXT_HEIGHT, then
    shortened."""
    wide = text_width(text, size, bold)
    if wide <= room:
        return text, size
    smaller = size * room / wide
    if smaller >= MIN_TEXT_HEIGHT:
        return text, smaller
    size = min(size, MIN_TEXT_HEIGHT)
    return _shortened(text, size, room, bold), size


def _shortened(text: str, size: float, room: float, bold: bool) -> str:
    """As much of a line as its room holds, with a sign that there was more."""
    if text_width(text, size, bold) <= room:
        return text
    while text and text_width(text + ELLIPSIS, size, bold) > room:
        text = text[:-1].rstrip()
    return text + ELLIPSIS


def fit_lines(
    text: str,
    size: float,
    room: tuple[float, float],
    lines: int = 1,
    min_size: float = MIN_TEXT_HEIGHT,
    bold: bool = False,
) -> tuple[list[str], float]:
    """The lines and the size with which words keep within a room (width, height; mm).

    They are broken between words where there are lines for it, then shrunk step by step to `min_size`, then
    shortened.
    """
    width, height = room
    while True:
        fitting = max(1, min(lines, int((height - size) / (size * LEADING)) + 1))
        broken = _broken(text, size, width, bold)
        if len(broken) <= fitting and all(text_width(line, size, bold) <= width for line in broken):
            return broken, size
        if size <= min_size:
            kept = [*broken[: fitting - 1], " ".join(broken[fitting - 1 :])]
            return [_shortened(line, size, width, bold) for line in kept], size
        size = max(min_size, size * 0.94)


def _broken(text: str, size: float, width: float, bold: bool) -> list[str]:
    """Words on lines as long as they fit; a word that is longer than a line has one to itself."""
    lines = [""]
    for word in text.split():
        longer = f"{lines[-1]} {word}".strip()
        if lines[-1] and text_width(longer, size, bold) > width:
            lines.append(word)
        else:
            lines[-1] = longer
    return lines


def broken_lines(text: str, size: float, width: float, bold: bool = False) -> list[str]:
    """Words on lines no longer than `width` mm, all of them: a word that is longer than a line is broken.

    >>> broken_lines("Oak boards, oiled", 2.5, 16)
    ['Oak', 'boards,', 'oiled']
    """
    lines = []
    for line in _broken(text, size, width, bold):
        if text_width(line, size, bold) <= width:
            lines.append(line)
            continue
        begun, run = 0, 0.0
        for k, letter in enumerate(line):
            wide = text_width(letter, size, bold)
            if run + wide > width and k > begun:
                lines.append(line[begun:k])
                begun, run = k, 0.0
            run += wide
        lines.append(line[begun:])
    return lines
