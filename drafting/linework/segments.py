"""Straight pieces of a drawing on their way from the search to the finished lines."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray

from drafting.linework import tolerances as tol
from drafting.linework.model import EDGE, FAR, PROFILE, SEAM

Floats = NDArray[np.float64]


@dataclass(frozen=True, eq=False)
class Segments:
    """Straight pieces: `ends` (n, 2, 3) of u, v, depth; `role` (n,) an index into ROLES; `element` and `band`
    (n,)."""

    ends: Floats
    role: NDArray[np.int8]
    element: NDArray[np.int32]
    band: NDArray[np.int8]

    def __len__(self) -> int:
        return len(self.role)

    @classmethod
    def of(cls, ends: Floats, role: NDArray[np.int8], element: NDArray[np.int32]) -> Segments:
        """Segments in the first band."""
        return cls(ends, role, element, np.zeros(len(role), np.int8))

    @classmethod
    def along(cls, lines: Sequence[tuple[int, Floats]], role: int, depth: float) -> Segments:
        """The pieces of polylines, (element, (n, 2) points) each, at one depth."""
        ends = np.concatenate([np.empty((0, 2, 2)), *(np.stack([x[:-1], x[1:]], axis=1) for _, x in lines)])
        count = np.array([len(x) - 1 for _, x in lines], np.int64)
        element = np.repeat(np.array([e for e, _ in lines], np.int32), count)
        at = np.full((len(ends), 2, 1), depth)
        return cls.of(np.concatenate([ends, at], axis=2), np.full(len(ends), role, np.int8), element)

    @classmethod
    def concatenate(cls, parts: Sequence[Segments]) -> Segments:
        return cls(
            *(
                np.concatenate([getattr(p, name) for p in parts])
                for name in ("ends", "role", "element", "band")
            )
        )

    def select(self, which: NDArray[Any], ends: Floats | None = None) -> Segments:
        """The segments `which`, with other ends where given."""
        return Segments(
            self.ends[which] if ends is None else ends,
            self.role[which],
            self.element[which],
            self.band[which],
        )


def split_by_depth(segments: Segments, bands: Sequence[float], far: float | None) -> Segments:
    """Give each stroke its band, and the role far where it lies beyond `far`; what crosses such a depth is
    divided.

    Args:
        bands: pictured depths, falling, at which a new band begins.
        far: the pictured depth beyond which lines are far lines.
    """
    for depth in sorted({*bands, *(() if far is None else (far,))}, reverse=True):
        segments = _divided(segments, depth)
    middle = segments.ends[:, :, 2].mean(axis=1)
    band = (middle[:, None] < np.array([*bands])[None]).sum(axis=1) if len(bands) else np.zeros(len(segments))
    role = segments.role
    if far is not None:
        beyond = (middle < far) & np.isin(role, (PROFILE, EDGE, SEAM))
        role = np.where(beyond, FAR, role).astype(np.int8)
    return Segments(segments.ends, role, segments.element, band.astype(np.int8))


def beyond(segments: Segments, element: int, point: Floats, away: Floats) -> Segments:
    """The segments without what of one element lies beyond a line of the paper.

    Args:
        point: (2,) u, v of the line.
        away: (2,) the direction, at right angles to it, of what is left out.
    """
    off = (segments.ends[:, :, :2] - point) @ away
    change = off[:, 1] - off[:, 0]
    share = np.clip(-off[:, 0] / np.where(change == 0.0, 1.0, change), 0.0, 1.0)
    at = segments.ends[:, 0] + (segments.ends[:, 1] - segments.ends[:, 0]) * share[:, None]
    ends = segments.ends.copy()
    own = segments.element == element
    for k in (0, 1):
        moved = own & (off[:, k] > 0)
        ends[moved, k] = at[moved]
    left = ~(own & (off > 0).all(axis=1))
    return segments.select(np.flatnonzero(left), ends[left])


def _divided(segments: Segments, depth: float) -> Segments:
    over = segments.ends[:, :, 2] - depth
    change = over[:, 1] - over[:, 0]
    share = -over[:, 0] / np.where(change == 0.0, 1.0, change)
    length = np.hypot(*(segments.ends[:, 1] - segments.ends[:, 0])[:, :2].T)
    cut = np.flatnonzero((over.prod(axis=1) < 0) & (np.minimum(share, 1 - share) * length > tol.SPLIT))
    if not len(cut):
        return segments
    start, end = segments.ends[cut, 0], segments.ends[cut, 1]
    at = start + (end - start) * share[cut, None]
    ends = segments.ends.copy()
    ends[cut, 1] = at
    rest = np.concatenate([np.arange(len(segments)), cut])
    return segments.select(rest, np.concatenate([ends, np.stack([at, end], axis=1)]))


def clipped(segments: Segments, area: shapely.Geometry) -> Segments:
    """What of the segments lies within an area of u, v."""
    lines = shapely.linestrings(segments.ends[:, :, :2])
    shapely.prepare(area)
    inside = shapely.contains_properly(area, lines)
    crossing = np.flatnonzero(~inside & shapely.intersects(area, lines))
    parts, which = shapely.get_parts(shapely.intersection(lines[crossing], area), return_index=True)
    straight = shapely.get_type_id(parts) == 1
    parts, owner = parts[straight], crossing[which[straight]]
    ends = shapely.get_coordinates(parts).reshape(-1, 2, 2) if len(parts) else np.empty((0, 2, 2))
    start, along = segments.ends[owner, 0], segments.ends[owner, 1] - segments.ends[owner, 0]
    share = ((ends - start[:, None, :2]) * along[:, None, :2]).sum(axis=2) / (along[:, :2] ** 2).sum(axis=1)[
        :, None
    ]
    left = start[:, None] + along[:, None] * share[:, :, None]
    whole = np.flatnonzero(inside)
    return segments.select(np.concatenate([whole, owner]), np.concatenate([segments.ends[whole], left]))
