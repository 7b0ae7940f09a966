"""How much a print is reduced, written on the paper: the scale that it then has."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.geometry.boxes import Box
from drafting.render.items import Fill, Text
from drafting.render.page import Page
from drafting.sheets.scale import Scale
from drafting.sheets.sheet import Plottable
from drafting.styles.lettering import fit, text_width
from drafting.styles.pens import INK, PAPER

#: More scales than this are not named one by one.
MAX_SCALES = 3
#: The height of what is said, and how much clear paper it has round it; mm.
SIZE, MARGIN = 1.8, 0.6
LAYER = "Print"


def reduction_text(sheet: Plottable, scale: float) -> str:
    """How large a print is, as it says on the paper: “1:50 at A0, printed at 35.4 %, about 1:141”."""
    scales = sorted(set(sheet.scales), reverse=True)
    named = f"at {sheet.paper.name}, printed at {scale * 100:.3g} %"
    if not scales:
        return f"{sheet.paper.name}, printed at {scale * 100:.3g} %"
    if len(scales) > MAX_SCALES:
        return f"Scales as shown {named}"
    return f"{', '.join(map(str, scales))} {named}, {', '.join(_effective(s, scale) for s in scales)}"


def _effective(scale: Scale, by: float) -> str:
    """The scale of what was reduced, as near as a reader needs it."""
    over = 1 / (float(scale.ratio) * by)
    nearest = round(over)
    if nearest and abs(over - nearest) < 1e-6 * over:
        return f"1:{nearest}"
    return f"about 1:{over:.0f}" if over >= 100 else f"about 1:{over:.3g}"


def reduction_items(sheet: Plottable, page: Page, printable: Box) -> Iterator[Fill | Text]:
    """How a print is reduced, at the foot of the paper: below the frame where there is room, else within
    it."""
    words, size = fit(reduction_text(sheet, page.scale), SIZE, printable.width - 4 * MARGIN)
    frame = page.on_paper(page.display.frame)
    height = size + 2 * MARGIN
    left = max(frame.x, printable.x) + MARGIN
    room = frame.y - printable.y
    bottom = printable.y + (room - height) / 2 if room >= height else max(frame.y, printable.y) + MARGIN
    ground = Box(left, bottom, text_width(words, size) + 2 * MARGIN, height)
    yield Fill((ground.corners,), PAPER, LAYER)
    yield Text((left + MARGIN, bottom + MARGIN), words, size, INK, layer=LAYER)
