"""Two states of a sheet over each other: what is the same in grey, what has gone in dashes, what has come in
wide lines; in colours that also read in black."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import TYPE_CHECKING

import numpy as np

from drafting.geometry.polylines import Floats
from drafting.issuing.frozen import FrozenSheet
from drafting.render.backends.extents import bounds_of
from drafting.render.items import Fill, FlatItem, Item, Path, Restyle, Text
from drafting.render.page import Page
from drafting.styles.lettering import fit, text_width
from drafting.styles.pens import INK, PAPER, Pen

if TYPE_CHECKING:
    from drafting.issuing.comparison import Comparison

#: What is the same; what has gone; what has come.
SAME, GONE, COME = "#a9adb1", "#2c6a86", "#9c3f24"
GONE_PEN, COME_PEN = Pen(0.35, GONE, (6.0, 4.0)), Pen(0.5, COME)
SAME_LAYER, GONE_LAYER, COME_LAYER = "Unchanged", "Gone", "New"
#: The strip below the sheet that says what is what, and its lettering; mm.
STRIP, SIZE, INDENT = 14.0, 2.5, 12.0


def comparison_page(comparison: Comparison, before: str, after: str) -> Page:
    """The page of a comparison; `before` and `after` say what the two states are."""
    sheet = comparison.after
    items = [
        *_unchanged(comparison),
        *_lines(comparison.gone, GONE_PEN, GONE_LAYER),
        *_lines(comparison.come, COME_PEN, COME_LAYER),
        *_words(comparison),
    ]
    display = replace(sheet.display, items=tuple(items))
    number, title = (sheet.field_values.get(key, "") for key in ("number", "title"))
    return Page(
        number,
        f"{title}, compared".strip(", "),
        sheet.width,
        sheet.height + STRIP,
        display,
        at=(0.0, STRIP),
        over=tuple(_legend(f"{number} {title}".strip(), before, after, sheet.width)),
        date=sheet.plot_date,
    )


def plain_page(sheet: FrozenSheet) -> Page:
    """A state alone, on a page as large as that of the comparison, so that the two lie on each other."""
    number, title = (sheet.field_values.get(key, "") for key in ("number", "title"))
    size = sheet.width, sheet.height + STRIP
    return Page(number, title, *size, sheet.display, at=(0.0, STRIP), date=sheet.plot_date)


def _unchanged(comparison: Comparison) -> Iterator[Item]:
    """The newer sheet in grey, without the words that have come."""
    new = {(words.text.text, words.text.at) for words in comparison.words if words.new}
    grey = Restyle(line=lambda _: SAME, area=lambda colour: colour if colour == PAPER else "#e9eaeb")
    for item in comparison.after.display.items:
        if not (isinstance(item, Text) and (item.text, item.at) in new):
            yield item.restyled(grey)


def _lines(ends: Floats, pen: Pen, layer: str) -> Iterator[Path]:
    """Pieces that follow each other as one line, so that dashes run on."""
    if not len(ends):
        return
    follows = np.zeros(len(ends), bool)
    follows[1:] = np.hypot(*(ends[1:, 0] - ends[:-1, 1]).T) < 1e-6
    begins = np.flatnonzero(~follows)
    for first, last in zip(begins.tolist(), [*begins[1:].tolist(), len(ends)], strict=True):
        points = [tuple(ends[first, 0].tolist()), *(tuple(p) for p in ends[first:last, 1].tolist())]
        yield Path(tuple(points), pen, layer)


def _words(comparison: Comparison) -> Iterator[FlatItem]:
    """Words that have gone, struck through, and those that have come, in bold."""
    for text, new in comparison.words:
        colour, layer = (COME, COME_LAYER) if new else (GONE, GONE_LAYER)
        shown = replace(text, colour=colour, layer=layer, bold=text.bold or new)
        yield shown
        if not new and abs(text.turn) < 1e-6:
            box = bounds_of(shown)
            y = text.at[1] + text.size / 2
            yield Path(((box.x - 0.5, y), (box.right + 0.5, y)), replace(GONE_PEN, pattern=()), layer)


def _legend(name: str, before: str, after: str, width: float) -> Iterator[FlatItem]:
    """What is compared, and what the lines mean."""
    yield Fill((((0.0, 0.0), (width, 0.0), (width, STRIP), (0.0, STRIP)),), PAPER)
    yield Path(((0.0, STRIP), (width, STRIP)), Pen(0.25, INK))
    y, x = STRIP / 2 - SIZE / 2, 10.0
    parts = (
        (Pen(0.5, SAME), "unchanged"),
        (GONE_PEN, f"only in {before}"),
        (COME_PEN, f"only in {after}"),
    )
    needed = sum(INDENT + 8.0 + text_width(words, SIZE) for _, words in parts)
    text, size = fit(name, 3.5, max(width - needed - 30.0, 20.0), bold=True)
    yield Text((x, y), text, size, INK, bold=True)
    x += text_width(text, size, bold=True) + 10.0
    for pen, words in parts:
        yield Path(((x, y + SIZE / 2), (x + INDENT - 2.0, y + SIZE / 2)), pen)
        yield Text((x + INDENT, y), words, SIZE, INK)
        x += INDENT + text_width(words, SIZE) + 8.0
