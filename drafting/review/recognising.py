"""Which sheet a page of a PDF is, and how it lies on it: by its lettering, so that it may have been reduced,
turned, or printed onto other paper."""

from __future__ import annotations

import ctypes
import math
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import pypdfium2
import pypdfium2.raw as pdfium

from drafting.geometry.boxes import Point
from drafting.issuing.frozen import FrozenSheet
from drafting.render.items import Text
from drafting.styles.lettering import text_width

#: Words of fewer letters stand in many places, and tell nothing.
MIN_LETTERS = 3
#: Of a page, so many letters are read.
MAX_LETTERS = 200_000
#: So many words must be found where they should be, and this share of all; to within so much of a mm.
MIN_WORDS, MIN_SHARE, NEAR = 4, 0.3, 0.3
#: The places of so many of the likeliest sheets are looked at.
LIKELIEST = 4


@dataclass(frozen=True)
class OnSheet:
    """How a page lies on its sheet: mm of the sheet = turn_and_scale * point of the page + shift, as complex
    numbers."""

    turn_and_scale: complex
    shift: complex

    def place(self, x: float, y: float) -> Point:
        """A place of the page, in points, on the sheet, mm.

        >>> OnSheet(0.5 + 0j, 10 + 20j).place(100.0, 40.0)
        (60.0, 40.0)
        """
        at = self.turn_and_scale * complex(x, y) + self.shift
        return at.real, at.imag


class Candidate:
    """A sheet that a page may be."""

    def __init__(self, sheet: FrozenSheet) -> None:
        self.sheet = sheet

    @cached_property
    def words(self) -> dict[str, complex]:
        """Where its lettering begins, mm, of what stands on it once."""
        texts = [item for item in self.sheet.display.flat_items if isinstance(item, Text)]
        texts = [text for text in texts if len(text.text.strip()) >= MIN_LETTERS]
        often = Counter(text.text for text in texts)
        return {text.text: _start(text) for text in texts if often[text.text] == 1}


def _start(text: Text) -> complex:
    back = {"start": 0.0, "middle": 0.5, "end": 1.0}[text.anchor] * text_width(
        text.text, text.size, text.bold
    )
    turn = math.radians(text.turn)
    return complex(text.at[0] - back * math.cos(turn), text.at[1] - back * math.sin(turn))


class Lettering:
    """The letters of a page, and where they stand."""

    def __init__(self, page: pypdfium2.PdfPage) -> None:
        self._text = page.get_textpage()
        count = min(self._text.count_chars(), MAX_LETTERS)
        raw = self._text.raw
        self.letters = "".join(chr(pdfium.FPDFText_GetUnicode(raw, k) or 32) for k in range(count))

    def start(self, words: str) -> complex | None:
        """Where some words begin, points; None where they are not there, or more than once."""
        found = self.letters.find(words)
        if found < 0 or self.letters.find(words, found + 1) >= 0:
            return None
        x, y = ctypes.c_double(), ctypes.c_double()
        if not pdfium.FPDFText_GetCharOrigin(self._text.raw, found, x, y):
            return None
        return complex(x.value, y.value)


def recognised(page: pypdfium2.PdfPage, candidates: Sequence[Candidate]) -> tuple[int, OnSheet] | None:
    """Which of some sheets a page is, by its number, and how it lies on it; None where it is none of them. Of
    sheets that say the same, the first is taken."""
    lettering = Lettering(page)
    lines = set(lettering.letters.replace("\r", "\n").split("\n"))
    shares = [
        sum(word in lines for word in candidate.words) / max(len(candidate.words), 1)
        for candidate in candidates
    ]
    likeliest = sorted(range(len(candidates)), key=lambda k: (-shares[k], k))[:LIKELIEST]
    best: tuple[float, int, OnSheet] | None = None
    for k in likeliest:
        pairs = [
            (start, at)
            for word, at in candidates[k].words.items()
            if (start := lettering.start(word)) is not None
        ]
        found = _fitted(pairs)
        share = found[1] / max(len(candidates[k].words), 1) if found else 0.0
        if found and share >= MIN_SHARE and (best is None or share > best[0]):
            best = share, k, found[0]
    return (best[1], best[2]) if best else None


def _fitted(pairs: Sequence[tuple[complex, complex]]) -> tuple[OnSheet, int] | None:
    """The turn, scale and shift that bring most places where they should be, and of how many; None where it
    is too few of them."""
    if len(pairs) < MIN_WORDS:
        return None
    page, sheet = (np.array(side) for side in zip(*pairs, strict=True))
    best = np.zeros(len(pairs), bool)
    rng = np.random.default_rng(1)
    for _ in range(60):
        i, j = rng.choice(len(pairs), 2, replace=False)
        if abs(page[i] - page[j]) > 1.0:
            turn = (sheet[i] - sheet[j]) / (page[i] - page[j])
            near = np.abs(turn * page + (sheet[i] - turn * page[i]) - sheet) < NEAR
            best = near if near.sum() > best.sum() else best
    if best.sum() < MIN_WORDS:
        return None
    a, b = page[best], sheet[best]
    away, off = a - a.mean(), b - b.mean()
    turn = complex((away.conj() @ off) / (away.conj() @ away).real)
    return OnSheet(turn, complex(b.mean() - turn * a.mean())), int(best.sum())
