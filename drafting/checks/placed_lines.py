"""The lines of a sheet's drawings as they lie on paper, for rules that look at them."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from drafting.checks.checked import CheckedSheet
from drafting.geometry.polylines import Floats, Longs, Polylines
from drafting.geometry.sampling import pieces_of, sampled, within
from drafting.render.items import Drawing
from drafting.render.placed import PlacedDrawing

#: Points along lines lie so far apart, mm; of a drawing with more of them than `MAX_POINTS`, farther.
STEP, MAX_POINTS = 0.5, 150_000


@dataclass(frozen=True, eq=False)
class PlacedLines:
    """Points along the lines of one drawing, within its window.

    Attributes:
        viewport: the id of its viewport.
        points: (n, 2) mm.
        line: (n,) which line each lies on, `way` (n, 2) how that runs, `width` (n,) its pen's width, mm.
    """

    viewport: str
    points: Floats
    line: Longs
    way: Floats
    width: Floats


def placed_lines(sheet: CheckedSheet, widest: float = 0.0) -> Iterator[PlacedLines]:
    """The lines of each drawing of a sheet that are at least `widest` mm wide; nothing where it is not known
    what they are drawn from."""
    for item in sheet.display.items:
        if isinstance(item, Drawing) and sheet.sources is not None:
            groups = list(PlacedDrawing(item, sheet.sources.linework(item.linework)).line_groups())
            chosen = [(pen.width, lines) for _, pen, lines in groups if pen.width >= widest]
            if chosen:
                yield _lines(item, chosen)


def _lines(item: Drawing, chosen: list[tuple[float, Polylines]]) -> PlacedLines:
    pieces = [pieces_of([lines]) for _, lines in chosen]
    ends = np.concatenate(pieces)
    widths = np.concatenate(
        [np.full(len(own), width) for own, (width, _) in zip(pieces, chosen, strict=True)]
    )
    lengths = np.hypot(*(ends[:, 1] - ends[:, 0]).T)
    samples = within(sampled(ends, max(STEP, float(lengths.sum()) / MAX_POINTS)), [item.clip])
    way = (ends[:, 1] - ends[:, 0]) / np.maximum(lengths, 1e-9)[:, None]
    piece = samples.piece
    return PlacedLines(item.viewport, samples.points, piece, way[piece], widths[piece])
