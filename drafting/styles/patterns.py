"""Patterns of lines (ISO 128-2), laid so that they meet at corners."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import pairwise
from typing import Literal

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]

PatternName = Literal["solid", "dashed", "short dashes", "dotted", "chain", "double chain"]
#: ISO 128-2: dash and gap by turns in line widths; a dash 12, a gap 3, a long dash 24, a short dash 6, a dot
#: 0.5.
PATTERNS: dict[PatternName, tuple[float, ...]] = {
    "solid": (),
    "dashed": (12.0, 3.0),
    "short dashes": (6.0, 3.0),
    "dotted": (0.5, 3.0),
    "chain": (24.0, 3.0, 0.5, 3.0),
    "double chain": (24.0, 3.0, 0.5, 3.0, 0.5, 3.0),
}
#: A polyline that bends by more than this has a corner, at which dashes meet; degrees.
CORNER = 20.0


def stretches(points: Floats, closed: bool) -> Iterator[Floats]:
    """The parts of a polyline (n, 2) between its corners, each (m, 2). A ring without corners is one part."""
    if closed:
        points = np.vstack([points, points[:1]])
    steps = np.diff(points, axis=0)
    lengths = np.hypot(steps[:, 0], steps[:, 1])
    points = points[np.concatenate([[True], lengths > 1e-9])]
    if len(points) < 2:
        return
    angles = np.unwrap(np.arctan2(*np.diff(points, axis=0).T[::-1]))
    bends = np.flatnonzero(np.abs(np.diff(angles)) > math.radians(CORNER)) + 1
    if closed and len(bends) and not _bends_at_start(points):
        # The ring is taken up at a corner, so that no dash begins in the middle of a side.
        points = np.vstack([points[bends[0] : -1], points[: bends[0] + 1]])
        bends = np.append(bends[1:] - bends[0], []).astype(int)
    cuts = [0, *bends.tolist(), len(points) - 1]
    for a, b in pairwise(cuts):
        yield points[a : b + 1]


def _bends_at_start(ring: Floats) -> bool:
    first, last = ring[1] - ring[0], ring[-1] - ring[-2]
    turn = math.atan2(first[1], first[0]) - math.atan2(last[1], last[0])
    return abs(math.remainder(turn, 2 * math.pi)) > math.radians(CORNER)


def dashes_between(points: Floats, pattern: tuple[float, ...], begin: float, end: float) -> list[Floats]:
    """What of the dashes of a polyline lies between two places along it, each a polyline of its own.

    Args:
        points: (n, 2).
        pattern: dash and gap by turns, in the unit of the points, from the beginning of the polyline.
        begin, end: lengths along the polyline.

    >>> line = np.array([[0.0, 0.0], [9.0, 0.0]])
    >>> [dash.tolist() for dash in dashes_between(line, (4.0, 1.0), 3.0, 7.0)]
    [[[3.0, 0.0], [4.0, 0.0]], [[5.0, 0.0], [7.0, 0.0]]]
    """
    period = sum(pattern)
    first = math.floor(begin / period)
    ends = first * period + np.cumsum(np.tile(pattern, math.ceil(end / period) - first + 1))
    begins = np.concatenate([[first * period], ends[:-1]])
    found = (
        (max(low, begin), min(high, end))
        for low, high in zip(begins[::2].tolist(), ends[::2].tolist(), strict=True)
    )
    return [stretch(points, low, high) for low, high in found if low < high]


def stretch(points: Floats, begin: float, end: float) -> Floats:
    """The part of a polyline (n, 2) between two lengths along it."""
    along = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(points, axis=0).T))])
    ends = np.column_stack([np.interp([begin, end], along, points[:, k]) for k in (0, 1)])
    inner = points[(along > begin) & (along < end)]
    return np.vstack([ends[:1], inner, ends[1:]])


def fitted_to(pattern: tuple[float, ...], length: float) -> tuple[float, ...]:
    """A pattern (dash and gap by turns, mm) stretched or shrunk so that a line of a length starts and ends on
    a dash.

    Nothing, which is a solid line, for one that is too short for a gap.

    >>> fitted_to((4.0, 1.0), 9.0)
    (4.0, 1.0)
    """
    period, first = sum(pattern), pattern[0]
    times = math.floor((length - first) / period + 0.5)
    if times < 1:
        return () if length < first + period / 2 else tuple(p * length / (period + first) for p in pattern)
    by = length / (times * period + first)
    return tuple(p * by for p in pattern)
