"""Views simplified for small scales by rule: what would run together on paper is left out."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

import numpy as np
from numpy.typing import NDArray
from pydantic import Field
from shapely import STRtree, box

from drafting.geometry.polylines import Floats
from drafting.linework.model import Linework
from drafting.schema import CLOSED, Flag, Number
from drafting.styles.redrawn import Part, Redrawn, runs_of

#: Lines run beside each other where their directions differ by less, as the sine of the angle: two degrees.
PARALLEL = 0.035
#: Of a segment that less is left of than this, nothing is drawn: mm of paper.
CRUMB = 0.2


@dataclass(frozen=True)
class Simplification:
    """What becomes of a view in viewports at small scales.

    Attributes:
        from_scale: it holds at one to this, and smaller.
        apart: a line nearer than this to a heavier or longer one that it runs beside is left out; paper mm.
        small: an element that is drawn smaller than this both ways is left out; paper mm.
        fills: whether hatches turn to fills of their tone.
    """

    __pydantic_config__ = CLOSED

    from_scale: Annotated[Number, Field(ge=1, le=10_000)] = 200.0
    apart: Annotated[Number, Field(ge=0, le=5, description="Paper mm.")] = 0.25
    small: Annotated[Number, Field(ge=0, le=50, description="Paper mm.")] = 0.7
    fills: Flag = True

    def holds_at(self, ratio: float) -> bool:
        """Whether it holds where one real mm has so many on paper."""
        return ratio * self.from_scale <= 1.0 + 1e-9

    def redrawn(self, linework: Linework, ratio: float) -> Redrawn:
        """What it leaves out of a drawing."""
        small = _small_elements(linework, self.small / ratio)
        lines = small[linework.packed.element]
        whole, parts = _beside_others(linework, lines, self.apart / ratio, CRUMB / ratio)
        areas = small[linework.packed_regions.element]
        return Redrawn(
            hidden=True,
            whole=runs_of(np.flatnonzero(lines | whole)),
            parts=parts,
            areas=runs_of(np.flatnonzero(areas)),
        )


def _small_elements(linework: Linework, limit: float) -> NDArray[np.bool_]:
    """(elements,) which are drawn smaller than a limit both ways; mm."""
    count = len(linework.elements)
    low, high = np.full((count, 2), np.inf), np.full((count, 2), -np.inf)
    packed, regions = linework.packed, linework.packed_regions
    of_ring = np.repeat(regions.element, np.diff(regions.starts))
    for points, of in (
        (packed.lines.points[:, :2], np.repeat(packed.element, packed.lines.sizes)),
        (regions.rings.points, np.repeat(of_ring, regions.rings.sizes)),
    ):
        np.minimum.at(low, of, points)
        np.maximum.at(high, of, points)
    return np.asarray(((high - low) < limit).all(axis=1) & np.isfinite(low[:, 0]))


def _beside_others(
    linework: Linework, gone: NDArray[np.bool_], apart: float, crumb: float
) -> tuple[NDArray[np.bool_], tuple[Part, ...]]:
    """Where lines run beside others that are drawn, nearer than `apart`: (m,) the lines of which all does;
    and parts of others."""
    nothing = np.zeros(len(gone), bool)
    segments = _Segments.of(linework, ~gone)
    if apart <= 0 or not len(segments.line):
        return nothing, ()
    # The heavier role first, then the longer line, then as they come, so that it is the same every time.
    order = np.lexsort((np.arange(len(segments.line)), -segments.size, segments.role))
    rank = np.empty(len(order), np.int64)
    rank[order] = np.arange(len(order))
    low, high = segments.ends.min(axis=1), segments.ends.max(axis=1)
    second, first = STRtree(box(*low.T, *high.T)).query(box(*(low - apart).T, *(high + apart).T))
    heavier = rank[first] < rank[second]
    second, first = second[heavier], first[heavier]
    way, other = segments.way[second], segments.way[first]
    # A line that is itself no longer than that says nothing beside another, however it runs.
    tiny = segments.of_tiny_lines(apart)[second]
    along = np.abs(way[:, 0] * other[:, 1] - way[:, 1] * other[:, 0]) < PARALLEL
    second, first, tiny = second[along | tiny], first[along | tiny], tiny[along | tiny]
    shares = _shares_beside(segments, second, first, apart)
    shares[tiny] = [0.0, 1.0]
    shares[tiny & (segments.furthest(second, first) > apart)] = 0.0
    kept = shares[:, 1] - shares[:, 0] > 1e-6
    second, first, shares = second[kept], first[kept], shares[kept]
    # Nothing is left out beside what is itself left out.
    hidden: dict[int, list[tuple[float, float]]] = {}
    for k in np.argsort(rank[second], kind="stable").tolist():
        if int(first[k]) not in hidden:
            hidden.setdefault(int(second[k]), []).append((float(shares[k, 0]), float(shares[k, 1])))
    return _as_lines(segments, hidden, linework, crumb)


@dataclass(frozen=True)
class _Segments:
    """Straight segments of lines.

    Attributes:
        line: (s,) the number of its line. at: (s,) its number in that.
        ends: (s, 2, 2) mm. size: (s,) its length, mm. way: (s, 2) its direction, of length 1.
        role: (s,) of its line.
    """

    line: NDArray[np.int64]
    at: NDArray[np.int64]
    ends: Floats
    size: Floats
    way: Floats
    role: NDArray[np.int8]

    @classmethod
    def of(cls, linework: Linework, wanted: NDArray[np.bool_]) -> _Segments:
        """Those of the lines that are wanted."""
        lines, role = linework.packed.lines, linework.packed.role
        points = lines.points[:, :2]
        number = np.repeat(np.arange(len(lines)), lines.sizes)
        ends = np.stack([points[:-1], points[1:]], axis=1)
        way = ends[:, 1] - ends[:, 0]
        size = np.hypot(*way.T)
        kept = (number[:-1] == number[1:]) & (size > 0) & wanted[number[:-1]]
        at = np.arange(len(points) - 1) - lines.starts[number[:-1]]
        way = way[kept] / size[kept][:, None]
        return cls(number[:-1][kept], at[kept], ends[kept], size[kept], way, role[number[:-1][kept]])

    def of_tiny_lines(self, limit: float) -> NDArray[np.bool_]:
        """(s,) which are of lines that are no larger than a limit, mm."""
        count = int(self.line.max()) + 1
        low, high = np.full((count, 2), np.inf), np.full((count, 2), -np.inf)
        np.minimum.at(low, self.line, self.ends.min(axis=1))
        np.maximum.at(high, self.line, self.ends.max(axis=1))
        return np.asarray((high - low).max(axis=1)[self.line] < limit)

    def furthest(self, second: NDArray[np.int64], first: NDArray[np.int64]) -> Floats:
        """(p,) how far the end of each `second` that is further from its `first` lies from that; mm."""
        away = self.ends[second] - self.ends[first][:, None, 0]
        along = np.einsum("pki,pi->pk", away, self.way[first]).clip(0.0, self.size[first][:, None])
        off = away - along[:, :, None] * self.way[first][:, None]
        return np.asarray(np.hypot(off[:, :, 0], off[:, :, 1]).max(axis=1))


def _shares_beside(
    segments: _Segments, second: NDArray[np.int64], first: NDArray[np.int64], apart: float
) -> Floats:
    """(p, 2) from where to where each `second` runs beside its `first`, as shares of its length; the same
    twice where it does not."""
    start, way = segments.ends[second, 0], segments.way[second]
    size = segments.size[second][:, None]
    along = np.einsum("pki,pi->pk", segments.ends[first] - start[:, None], way) / size
    shares = np.clip(np.sort(along, axis=1), 0.0, 1.0)
    middle = start + way * (shares.mean(axis=1)[:, None] * size)
    to, line = middle - segments.ends[first, 0], segments.way[first]
    off = np.abs(to[:, 0] * line[:, 1] - to[:, 1] * line[:, 0])
    shares[off > apart] = 0.0
    return np.asarray(shares)


def _as_lines(
    segments: _Segments, hidden: dict[int, list[tuple[float, float]]], linework: Linework, crumb: float
) -> tuple[NDArray[np.bool_], tuple[Part, ...]]:
    """Spans of segments as whole lines and as parts of lines."""
    whole, sizes = np.zeros(len(linework.packed), bool), linework.packed.lines.sizes
    of_line: dict[int, list[tuple[float, float]]] = {}
    for segment in sorted(hidden):
        at, left = float(segments.at[segment]), crumb / float(segments.size[segment])
        spans = of_line.setdefault(int(segments.line[segment]), [])
        for begin, end in sorted(hidden[segment]):
            low = at + (0.0 if begin < left else begin)
            high = at + (1.0 if end > 1.0 - left else end)
            if spans and low - spans[-1][1] <= left:
                spans[-1] = spans[-1][0], max(spans[-1][1], high)
            else:
                spans.append((low, high))
    parts: list[Part] = []
    for line, spans in of_line.items():
        if spans == [(0.0, float(sizes[line] - 1))]:
            whole[line] = True
        else:
            parts += [(line, round(begin, 6), round(end, 6)) for begin, end in spans]
    return whole, tuple(parts)
