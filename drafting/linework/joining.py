"""From seen pieces to a drawing: nothing inked twice, pieces joined to lines, specks dropped."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import shapely
from numba import njit
from numpy.typing import NDArray

from drafting.linework import tolerances as tol
from drafting.linework.intervals import cover, next_free

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]


@dataclass(frozen=True, eq=False)
class Strokes:
    """Straight pieces: `ends` (n, 2, 3) of u, v, depth; `role` (n,) the heavier the lower; `element` (n,)."""

    ends: Floats
    role: NDArray[np.int8]
    element: NDArray[np.int32]


@dataclass(frozen=True, eq=False)
class Polylines:
    """Lines laid end to end: line i is points[starts[i]:starts[i + 1]], each (k, 3) of u, v, depth."""

    points: Floats
    starts: Ints
    role: NDArray[np.int8]
    element: NDArray[np.int32]


def join(strokes: Strokes) -> Polylines:
    """Take away what is covered by a heavier or nearer line, and chain the rest."""
    return _chain(_once(strokes))


def _once(strokes: Strokes) -> Strokes:
    """No stretch twice: of strokes that lie on each other the heaviest stays, then the nearest."""
    flat = strokes.ends[:, :, :2]
    length = np.hypot(*(flat[:, 1] - flat[:, 0]).T)
    some = np.flatnonzero(length > tol.SAME_POINT)
    nearest_first = np.lexsort((some, -strokes.ends[some, :, 2].max(axis=1), strokes.role[some]))
    order = some[nearest_first]
    flat, length, ends = flat[order], length[order], strokes.ends[order]
    boxes = shapely.box(
        flat[:, :, 0].min(1) - tol.SAME_LINE, flat[:, :, 1].min(1) - tol.SAME_LINE,
        flat[:, :, 0].max(1) + tol.SAME_LINE, flat[:, :, 1].max(1) + tol.SAME_LINE,
    )  # fmt: skip
    lower, upper = shapely.STRtree(boxes).query(boxes)
    pair = upper < lower
    lower, upper = lower[pair], upper[pair]

    # Where the stroke that is over lies along the one under it, as shares of the one under it.
    along = (flat[lower, 1] - flat[lower, 0]) / length[lower, None]
    rel = flat[upper] - flat[lower, :1]
    at = (rel * along[:, None]).sum(2)
    off = rel[:, :, 1] * along[:, None, 0] - rel[:, :, 0] * along[:, None, 1]
    a, b = np.maximum(at.min(1), 0.0), np.minimum(at.max(1), length[lower])
    slope = (off[:, 1] - off[:, 0]) / np.where(at[:, 1] == at[:, 0], 1.0, at[:, 1] - at[:, 0])
    off_a, off_b = off[:, 0] + slope * (a - at[:, 0]), off[:, 0] + slope * (b - at[:, 0])
    on_it = (b - a > tol.SAME_POINT) & (np.abs(off_a) < tol.SAME_LINE) & (np.abs(off_b) < tol.SAME_LINE)
    sort = np.argsort(lower[on_it], kind="stable")
    owner = lower[on_it][sort]
    starts = np.searchsorted(owner, np.arange(len(order) + 1))
    from_, to = a[on_it][sort] / length[owner], b[on_it][sort] / length[owner]
    edge, share = _uncovered(starts, from_, to, length, tol.SAME_POINT)
    start, end = ends[edge, 0], ends[edge, 1]
    left = start[:, None] + (end - start)[:, None] * share[:, :, None]
    return Strokes(left, strokes.role[order][edge], strokes.element[order][edge])


@njit(cache=True)
def _uncovered(starts, a, b, length, shortest):
    """The stretches of each stroke that those over it leave free, as (stroke, (from, to))."""
    most = a.size + length.size
    edge = np.empty(most, np.int64)
    share = np.empty((most, 2))
    found = 0
    for e in range(length.size):
        low, high, count = np.empty(8), np.empty(8), 0
        least = shortest / length[e]
        for k in range(starts[e], starts[e + 1]):
            low, high, count = cover(low, high, count, a[k], b[k], least)
        at = 0.0
        while at < 1.0:
            p, q = next_free(low, high, count, at, 1.0)
            if p >= 1.0:
                break
            if q - p > least:
                edge[found] = e
                share[found, 0], share[found, 1] = p, q
                found += 1
            at = q
    return edge[:found], share[:found]


def _chain(strokes: Strokes) -> Polylines:
    """Strokes of one element and role that meet, and meet no third, become one line; straight joints go."""
    n = len(strokes.role)
    if not n:
        return Polylines(np.empty((0, 3)), np.zeros(1, np.int64), strokes.role, strokes.element)
    cell = np.round(strokes.ends[:, :, :2] / tol.SAME_POINT).astype(np.int64).reshape(-1, 2)
    group = np.repeat(strokes.element.astype(np.int64) * 16 + strokes.role, 2)
    place = np.unique(cell, axis=0, return_inverse=True)[1].reshape(-1)
    node = np.unique(np.column_stack([group, place]), axis=0, return_inverse=True)[1].reshape(-1)
    meets_others = np.bincount(place)[place] > 1

    # mate[k]: the end of another stroke that end k runs on into; -1 where it stops.
    mate = np.full(2 * n, -1, np.int64)
    order = np.argsort(node, kind="stable")
    first = np.flatnonzero(np.concatenate([[True], np.diff(node[order]) > 0]))
    size = np.diff(np.concatenate([first, [2 * n]]))
    two = first[size == 2]
    one, other = order[two], order[two + 1]
    apart = one // 2 != other // 2
    mate[one[apart]], mate[other[apart]] = other[apart], one[apart]

    points, starts, owner = _walk(strokes.ends.reshape(-1, 3), mate, meets_others, tol.SAME_LINE, tol.SHORTEST)
    return Polylines(points, starts, strokes.role[owner], strokes.element[owner])


@njit(cache=True)
def _walk(ends, mate, meets_others, straight, shortest):
    """Follow the mates from stop to stop, or round, and lay the lines end to end."""
    n = ends.shape[0] // 2
    points = np.empty((2 * n, 3))
    starts = np.empty(n + 1, np.int64)
    owner = np.empty(n, np.int64)
    done = np.zeros(n, np.bool_)
    filled, lines = 0, 0
    for round_trip in (False, True):
        for k in range(2 * n):
            if done[k // 2] or (mate[k] >= 0 and not round_trip):
                continue
            begin = filled
            points[filled] = ends[k]
            filled += 1
            at = k
            while True:
                done[at // 2] = True
                far = at ^ 1
                # A joint on the way from the last point to this end is no corner.
                if filled - begin >= 2 and _on_the_way(points[filled - 2], points[filled - 1], ends[far], straight):
                    filled -= 1
                points[filled] = ends[far]
                filled += 1
                at = mate[far]
                if at < 0 or done[at // 2]:
                    break
            length = 0.0
            for i in range(begin + 1, filled):
                length += np.hypot(points[i, 0] - points[i - 1, 0], points[i, 1] - points[i - 1, 1])
            if length < shortest and not (meets_others[k] or meets_others[far]):
                filled = begin
                continue
            starts[lines] = begin
            owner[lines] = k // 2
            lines += 1
    starts[lines] = filled
    return points[:filled], starts[: lines + 1], owner[:lines]


@njit(cache=True)
def _on_the_way(a, b, c, tolerance):
    du, dv = c[0] - a[0], c[1] - a[1]
    length = np.hypot(du, dv)
    if length < tolerance:
        return False
    off = abs((b[0] - a[0]) * dv - (b[1] - a[1]) * du) / length
    along = ((b[0] - a[0]) * du + (b[1] - a[1]) * dv) / length
    return off < tolerance and 0.0 < along < length
