"""Hatches of what is cut (ISO 128-3 and common practice): families of parallel lines, in paper mm."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from drafting.schema import CLOSED

Floats = NDArray[np.float64]

#: What is shorter only touches its area; mm.
MIN_LINE = 1e-6


@dataclass(frozen=True)
class HatchLine:
    """One family of parallel lines of a hatch, in paper mm before a hatch's own spacing is applied.

    Attributes:
        angle: degrees anticlockwise from the x of the paper.
        apart: from one line to the next.
        shift: by how much of that all are shifted across.
        dashes: dash and gap by turns; none for whole lines.
        slide: by how much the dashes of each line lie further along than those of the one before.
    """

    __pydantic_config__ = CLOSED

    angle: float
    apart: float = 1.0
    shift: float = 0.0
    dashes: tuple[float, ...] = ()
    slide: float = 0.0

    @property
    def inked(self) -> float:
        """The share of an area that its lines cover, for each mm of their width at a spacing of 1 mm."""
        dash = sum(self.dashes[::2]) / sum(self.dashes) if self.dashes else 1.0
        return dash / self.apart


HatchName = Literal["", "diagonal", "pairs", "crossed", "grain", "stipple", "loops", "earth"]
#: Hatches by common practice (ISO 128-3): figures for a spacing of 1 mm.
HATCHES: dict[HatchName, tuple[HatchLine, ...]] = {
    "diagonal": (HatchLine(45.0),),
    "pairs": (HatchLine(45.0, 2.0), HatchLine(45.0, 2.0, 0.25)),
    "crossed": (HatchLine(45.0), HatchLine(135.0)),
    "grain": (HatchLine(30.0, 1.0), HatchLine(30.0, 2.0, 0.35)),
    "stipple": (
        HatchLine(37.0, 1.0, 0.0, (0.15, 1.1), 0.45),
        HatchLine(112.0, 1.3, 0.4, (0.15, 1.6), 0.7),
        HatchLine(71.0, 2.1, 0.9, (0.6, 2.9), 1.3),
    ),
    "loops": (HatchLine(60.0), HatchLine(120.0)),
    "earth": (HatchLine(45.0, 1.0, 0.0, (3.0, 3.0), 1.0), HatchLine(135.0, 1.0, 0.5, (3.0, 3.0), 1.0)),
}


def hatch_lines(
    family: HatchLine, spacing: float, turn: float, areas: Sequence[Sequence[Floats]], origin: Floats
) -> Floats:
    """The lines of a family within areas on paper, (n, 2, 2) mm, cut into their dashes.

    They are measured from `origin`, so that they lie still in a drawing however its frame is cropped, and run
    on from one area to the next. An area is its rings of (m, 2), even-odd.
    """
    angle, step = math.radians(family.angle + turn), family.apart * spacing
    along, across = (
        np.array([math.cos(angle), math.sin(angle)]),
        np.array([-math.sin(angle), math.cos(angle)]),
    )
    at, row = _crossed(areas, origin, along, across / step, family.shift)
    feet = (row + family.shift)[:, None] * step * across + origin
    if family.dashes:
        slides = row.astype(np.float64) * (family.slide * spacing)
        which, at = _dashes(at, slides, np.array(family.dashes) * spacing)
        feet = feet[which]
    lines: NDArray[np.float64] = feet[:, None] + at[:, :, None] * along
    return lines


def _crossed(
    areas: Sequence[Sequence[Floats]], origin: Floats, along: Floats, rows: Floats, shift: float
) -> tuple[Floats, NDArray[np.int64]]:
    """The stretches of each row of lines within areas, from where to where along it, (n, 2), and the row of
    each.

    All sides of all areas are crossed with all rows at once. A row that goes through a corner crosses one of
    its two
    sides there, so that what is crossed comes in pairs: into an area, and out of it.
    """
    rings = [(number, ring) for number, area in enumerate(areas) for ring in area if len(ring) > 2]
    if not rings:
        return np.empty((0, 2)), np.empty(0, np.int64)
    begin = np.concatenate([ring for _, ring in rings]) - origin
    end = np.concatenate([np.roll(ring, -1, axis=0) for _, ring in rings]) - origin
    area = np.repeat([number for number, _ in rings], [len(ring) for _, ring in rings])
    height, top = begin @ rows - shift, end @ rows - shift
    first = np.ceil(np.minimum(height, top)).astype(np.int64)
    counts = np.ceil(np.maximum(height, top)).astype(np.int64) - first
    side = np.repeat(np.arange(len(begin)), counts)
    row = np.arange(len(side)) - np.repeat(np.cumsum(counts) - counts, counts) + first[side]
    share = (row - height[side]) / (top - height)[side]
    at = (begin @ along)[side] + share * ((end - begin) @ along)[side]
    order = np.lexsort((at, row, area[side]))
    pairs: Floats = at[order].reshape(-1, 2)
    row = row[order][::2]
    seen = pairs[:, 1] - pairs[:, 0] > MIN_LINE
    return pairs[seen], row[seen]


def _dashes(at: Floats, slide: Floats, lengths: Floats) -> tuple[NDArray[np.int64], Floats]:
    """The dashes that lie in stretches (n, 2) of lines along which they began at `slide`: in which stretch
    each lies, and from where to where, (m, 2)."""
    period, which, found = lengths.sum(), [], []
    for begins, length in zip(np.cumsum([0.0, *lengths[:-1]])[::2], lengths[::2], strict=True):
        first = np.floor((at[:, 0] - slide - begins - length) / period).astype(int) + 1
        counts = np.maximum(np.floor((at[:, 1] - slide - begins) / period).astype(int) - first + 1, 0)
        each = np.repeat(np.arange(len(at)), counts)
        nth = np.arange(len(each)) - np.repeat(np.cumsum(counts) - counts, counts) + first[each]
        dash = (nth * period + slide[each] + begins)[:, None] + [0.0, length]
        which.append(each)
        found.append(np.clip(dash, at[each, :1], at[each, 1:]))
    return np.concatenate(which), np.concatenate(found)
