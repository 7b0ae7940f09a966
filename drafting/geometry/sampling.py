"""Points along lines, for whoever asks where lines lie and not how they are divided."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import shapely
from numpy.typing import NDArray

from drafting.geometry.boxes import Point
from drafting.geometry.polylines import Floats, Longs, Polylines

#: Points lie so far apart at most, mm; where there would be more than `MAX_SAMPLES`, farther.
STEP, MAX_SAMPLES = 0.25, 2_000_000


@dataclass(frozen=True, eq=False)
class Samples:
    """Points along straight pieces.

    Attributes:
        ends: (n, 2, 2) the two ends of each piece, mm.
        points: (m, 2) the middle of each part of them.
        piece: (m,) which piece a point lies on, rising.
        share: (m,) how far along, and `half` half the length of its part, as shares of the piece.
    """

    ends: Floats
    points: Floats
    piece: Longs
    share: Floats
    half: Floats

    def select(self, which: NDArray[np.bool_]) -> Samples:
        """The points `which`, a mask of all."""
        return Samples(self.ends, self.points[which], self.piece[which], self.share[which], self.half[which])


def sampled(ends: Floats, step: float = STEP) -> Samples:
    """Pieces with points along them, `step` mm apart at most."""
    lengths = np.hypot(*(ends[:, 1] - ends[:, 0]).T) if len(ends) else np.empty(0)
    step = max(step, float(lengths.sum()) / MAX_SAMPLES)
    counts = np.maximum(1, np.ceil(lengths / step)).astype(np.int64)
    piece = np.repeat(np.arange(len(ends)), counts)
    first = np.repeat(np.cumsum(counts) - counts, counts)
    parts = counts[piece]
    share = (np.arange(len(piece)) - first + 0.5) / parts
    points = ends[piece, 0] + (ends[piece, 1] - ends[piece, 0]) * share[:, None]
    return Samples(ends, points, piece, share, 0.5 / parts)


def pieces_of(lines: Sequence[Polylines]) -> Floats:
    """(n, 2, 2) the straight pieces of polylines."""
    found = []
    for each in lines:
        if len(each.points) > 1:
            ends = np.stack([each.points[:-1], each.points[1:]], axis=1)
            keep = np.ones(len(ends), bool)
            keep[each.starts[1:-1] - 1] = False  # from the end of one line to the beginning of the next
            found.append(ends[keep])
    return np.concatenate(found) if found else np.empty((0, 2, 2))


def within(samples: Samples, outlines: Sequence[Sequence[Point]]) -> Samples:
    """The points that lie within all of some outlines."""
    inside = np.ones(len(samples.points), bool)
    for outline in outlines:
        shape = shapely.Polygon(outline)
        shapely.prepare(shape)
        inside &= shapely.contains_xy(shape, *samples.points.T)
    return samples.select(inside)
