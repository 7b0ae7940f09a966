"""Hatches of what is cut (ISO 128-3 and common practice): families of parallel lines, in paper mm."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
import shapely
from numpy.typing import NDArray

Floats = NDArray[np.float64]

#: What is shorter only touches its area; mm.
LEAST_LINE = 1e-6


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

    angle: float
    apart: float = 1.0
    shift: float = 0.0
    dashes: tuple[float, ...] = ()
    slide: float = 0.0


#: Hatches by common practice (ISO 128-3): figures for a spacing of 1 mm.
HATCHES: dict[str, tuple[HatchLine, ...]] = {
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


def hatch_lines(family: HatchLine, spacing: float, turn: float, area: shapely.Geometry, origin: Floats) -> Floats:
    """The lines of a family within an area on paper, (n, 2, 2) mm, cut into their dashes. They hang on `origin`, so
    that they lie still in a drawing however its frame is cropped, and run on from one area to the next."""
    if area.is_empty:
        return np.empty((0, 2, 2))
    angle = math.radians(family.angle + turn)
    along, across = np.array([math.cos(angle), math.sin(angle)]), np.array([-math.sin(angle), math.cos(angle)])
    x0, y0, x1, y1 = area.bounds
    corners = np.array([(x0, y0), (x1, y0), (x1, y1), (x0, y1)]) - origin
    step = family.apart * spacing
    low, high = (corners @ across).min(), (corners @ across).max()
    start, end = (corners @ along).min(), (corners @ along).max()
    rows = np.arange(math.ceil(low / step - family.shift), math.floor(high / step - family.shift) + 1)
    feet = (rows + family.shift)[:, None] * step * across + origin
    whole = np.stack([feet + start * along, feet + end * along], axis=1)
    parts, row = shapely.get_parts(shapely.intersection(shapely.linestrings(whole), area), return_index=True)
    lines = (shapely.get_type_id(parts) == 1) & (shapely.length(parts) > LEAST_LINE)
    if not lines.any():
        return np.empty((0, 2, 2))
    ends, row = shapely.get_coordinates(parts[lines]).reshape(-1, 2, 2), row[lines]
    if not family.dashes:
        return ends
    at = np.sort((ends - feet[row][:, None]) @ along, axis=1)
    which, stretch = _dashes(at, rows[row] * family.slide * spacing, np.array(family.dashes) * spacing)
    return feet[row][which][:, None] + stretch[:, :, None] * along


def _dashes(at: Floats, slide: Floats, lengths: Floats) -> tuple[NDArray[np.int64], Floats]:
    """The dashes that lie in stretches (n, 2) of lines along which they began at `slide`: in which stretch each lies,
    and from where to where, (m, 2)."""
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
