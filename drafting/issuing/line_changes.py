"""Which parts of lines have come or gone between two states, and where on paper that is."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import shapely
from scipy import ndimage
from scipy.spatial import cKDTree

from drafting.geometry.boxes import Box, Point
from drafting.geometry.polylines import Floats, Longs, Polylines

#: Lines are looked at every so many mm of paper; what has moved by less than `SAME` is the same.
STEP, SAME = 0.25, 0.3
#: More samples than this are not looked at: they lie wider then.
MAX_SAMPLES = 2_000_000
#: Changes nearer to each other than this are one cluster; shorter ones than `LEAST` are none; paper mm.
NEAR, LEAST = 4.0, 0.6


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
    return _only(samples, inside)


def missing_from(samples: Samples, others: Samples) -> Samples:
    """The points that have none of the others near."""
    if not len(others.points) or not len(samples.points):
        return samples
    distances, _ = cKDTree(others.points).query(samples.points, distance_upper_bound=SAME, workers=-1)
    return _only(samples, ~np.isfinite(distances))


def _only(samples: Samples, which: np.ndarray) -> Samples:
    return Samples(
        samples.ends, samples.points[which], samples.piece[which], samples.share[which], samples.half[which]
    )


def stretches_of(samples: Samples) -> Floats:
    """(k, 2, 2) the parts of pieces that points stand for, joined where they follow each other."""
    if not len(samples.points):
        return np.empty((0, 2, 2))
    low, high = samples.share - samples.half, samples.share + samples.half
    begins = np.ones(len(low), bool)
    begins[1:] = (samples.piece[1:] != samples.piece[:-1]) | (low[1:] - high[:-1] > 1e-6)
    first = np.flatnonzero(begins)
    last = np.append(first[1:], len(low)) - 1
    ends = samples.ends[samples.piece[first]]
    way = ends[:, 1] - ends[:, 0]
    return np.stack([ends[:, 0] + way * low[first, None], ends[:, 0] + way * high[last, None]], axis=1)


def clusters_of(stretches: Floats) -> list[Box]:
    """Where changes lie together, from the left; paper mm."""
    if not len(stretches):
        return []
    samples = sampled(stretches, NEAR / 4)
    low = samples.points.min(axis=0) - NEAR
    cell = max(NEAR / 2, float((samples.points.max(axis=0) - low).max()) / 4000)
    cells = np.floor((samples.points - low) / cell).astype(np.int64)
    grid = np.zeros(cells.max(axis=0) + 2, bool)
    grid[cells[:, 0], cells[:, 1]] = True
    labels, count = ndimage.label(ndimage.binary_dilation(grid, np.ones((3, 3))), np.ones((3, 3)))
    label = labels[cells[:, 0], cells[:, 1]]
    lengths = np.hypot(*(stretches[:, 1] - stretches[:, 0]).T)
    amount = np.bincount(label, weights=(lengths[samples.piece] * 2 * samples.half), minlength=count + 1)
    boxes = []
    for k in range(1, count + 1):
        if amount[k] >= LEAST:
            own = samples.points[label == k]
            (x, y), (right, top) = own.min(axis=0).tolist(), own.max(axis=0).tolist()
            boxes.append(Box(x, y, right - x, top - y))
    return sorted(boxes, key=lambda box: (box.x, box.y))
