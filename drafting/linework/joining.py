"""From segments to a drawing: nothing inked twice, pieces joined to lines, specks dropped."""

from __future__ import annotations

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numba import njit, prange
from numpy.typing import NDArray

from drafting.geometry.polylines import Polylines
from drafting.linework import tolerances as tol
from drafting.linework.grid import Grid, cells_passed, columns
from drafting.linework.intervals import cover, next_free
from drafting.linework.model import ROLES
from drafting.linework.segments import Segments

Floats = NDArray[np.float64]
Longs = NDArray[np.int64]

#: Stretches that are left of one stroke and given room at first.
ROOM = 4
_SAME_LINE, _SAME_POINT, _NEAR_LINE, _ALONG = tol.SAME_LINE, tol.SAME_POINT, tol.NEAR_LINE, tol.ALONG


@dataclass(frozen=True, eq=False)
class JoinedLines:
    """Finished lines of u, v, depth; `role`, `element` and `band` (m,) of each."""

    lines: Polylines
    role: NDArray[np.int8]
    element: NDArray[np.int32]
    band: NDArray[np.int8]


def join(segments: Segments) -> JoinedLines:
    """Take away what is covered by a heavier or nearer line, and chain the rest."""
    return _chain(_once(segments))


def _once(segments: Segments) -> Segments:
    """No stretch twice: of segments that lie on each other the heaviest stays, then the nearest. Those of one
    role need only run beside each other."""
    length = np.hypot(*(segments.ends[:, 1] - segments.ends[:, 0])[:, :2].T)
    some = np.flatnonzero(length > tol.SAME_POINT)
    segments = segments.select(
        some[np.lexsort((some, -segments.ends[some, :, 2].max(axis=1), segments.role[some]))]
    )
    flat = np.ascontiguousarray(segments.ends[:, :, :2])
    bounds = np.concatenate([flat.min(axis=1), flat.max(axis=1)], axis=1)
    grid = Grid.over(bounds)
    count = np.zeros(grid.cells, np.int64)
    _list(flat, grid.as_cells, count, np.empty(0, np.int32), False)
    start = np.concatenate([np.zeros(1, np.int64), np.cumsum(count)])
    listed = _CellSegments(start, np.empty(int(start[-1]), np.int32), grid.low, grid.size, grid.shape)
    _list(flat, grid.as_cells, start[:-1].copy(), listed.entry, True)
    room, todo = ROOM, np.arange(len(segments), dtype=np.int64)
    owners, shares = [], []
    while len(todo):
        share, left = np.zeros((len(todo), room, 2)), np.zeros(len(todo), np.int64)
        _uncovered(todo, flat, bounds, segments.role, listed, share, left)
        fits = left <= room
        filled = np.arange(room) < np.where(fits, left, 0)[:, None]
        owners.append(todo[np.repeat(np.arange(len(todo)), filled.sum(axis=1))])
        shares.append(share[filled])
        todo, room = todo[~fits], int(left.max(initial=0))
    owner = np.concatenate([np.empty(0, np.int64), *owners])
    share = np.concatenate([np.empty((0, 2)), *shares])
    begin, end = segments.ends[owner, 0], segments.ends[owner, 1]
    return segments.select(owner, begin[:, None] + (end - begin)[:, None] * share[:, :, None])


class _Stretch(NamedTuple):
    """From (u, v) by (du, dv), mm on paper."""

    u: float
    v: float
    du: float
    dv: float


class _CellSegments(NamedTuple):
    """The segments of each cell of a grid, in order: those of cell k are `entry[start[k] : start[k + 1]]`."""

    start: Longs
    entry: NDArray[np.int32]
    low: Floats
    size: float
    shape: Longs


@njit(cache=True)
def _stretch(flat, e):
    u, v = flat[e, 0, 0], flat[e, 0, 1]
    return _Stretch(u, v, flat[e, 1, 0] - u, flat[e, 1, 1] - v)


@njit(cache=True)
def _list(flat, cells, slot, entry, fill):
    """Enter the segments, `flat` (n, 2, 2), that pass each cell.

    `slot` is (cells,): where the next entry of each goes, or without `fill`, how many there are.
    """
    for e in range(flat.shape[0]):
        stretch = _stretch(flat, e)
        x0, x1, y0, y1 = cells_passed(stretch, _NEAR_LINE, cells)
        for y in range(y0, y1 + 1):
            ra, rb = columns(y, stretch, x0, x1, _NEAR_LINE, cells)
            for cell in range(y * cells.shape[0] + ra, y * cells.shape[0] + rb + 1):
                if fill:
                    entry[slot[cell]] = e
                slot[cell] += 1


@njit(cache=True, parallel=True)
def _uncovered(todo, flat, bounds, role, cells, share, left):
    """The stretches of each segment that those before it leave free.

    Args:
        todo: (k,) the segments asked for, of the n of `flat` (n, 2, 2) with `bounds` (n, 4) and `role` (n,).
        share: (k, room, 2) filled with the free stretches as shares of the segment.
        left: (k,) how many there are; above the room: ask again.
    """
    start, entry, width = cells.start, cells.entry, cells.shape[0]
    for i in prange(todo.size):
        e = todo[i]
        stretch = _stretch(flat, e)
        u, v = stretch.u, stretch.v
        length = np.sqrt(stretch.du * stretch.du + stretch.dv * stretch.dv)
        du, dv = stretch.du / length, stretch.dv / length
        least = _SAME_POINT / length
        low, high, count = np.empty(8), np.empty(8), 0
        x0, x1, y0, y1 = cells_passed(stretch, 0.0, cells)
        for y in range(y0, y1 + 1):
            ra, rb = columns(y, stretch, x0, x1, 0.0, cells)
            for x in range(ra, rb + 1):
                cell = y * width + x
                for k in range(start[cell], start[cell + 1]):
                    f = entry[k]
                    if f >= e:
                        break  # entered in order: all that follow come after this stroke
                    wide = _NEAR_LINE if role[f] == role[e] else _SAME_LINE
                    if (
                        bounds[f, 0] > bounds[e, 2] + wide
                        or bounds[f, 2] < bounds[e, 0] - wide
                        or bounds[f, 1] > bounds[e, 3] + wide
                        or bounds[f, 3] < bounds[e, 1] - wide
                    ):
                        continue
                    # Where the other stroke lies along this one, and how far off it.
                    ru, rv = flat[f, 0, 0] - u, flat[f, 0, 1] - v
                    at_0, off_0 = ru * du + rv * dv, rv * du - ru * dv
                    ru, rv = flat[f, 1, 0] - u, flat[f, 1, 1] - v
                    at_1, off_1 = ru * du + rv * dv, rv * du - ru * dv
                    a, b = max(0.0, min(at_0, at_1)), min(length, max(at_0, at_1))
                    if b - a <= _SAME_POINT:
                        continue
                    slope = (off_1 - off_0) / (at_1 - at_0)
                    if (
                        abs(off_0 + slope * (a - at_0)) < _SAME_LINE
                        and abs(off_0 + slope * (b - at_0)) < _SAME_LINE
                    ):
                        low, high, count = cover(low, high, count, a / length, b / length, least)
                    elif role[f] == role[e] and abs(slope) < _ALONG:
                        # Of two that cross at a small angle, what lies beside the other.
                        if abs(slope) > 1e-9:
                            middle, reach = at_0 - off_0 / slope, _NEAR_LINE / abs(slope)
                            a, b = max(a, middle - reach), min(b, middle + reach)
                        elif abs(off_0) > _NEAR_LINE:
                            continue
                        if b - a > _NEAR_LINE:
                            low, high, count = cover(low, high, count, a / length, b / length, least)
        found = 0
        at = 0.0
        while at < 1.0:
            p, q = next_free(low, high, count, at, 1.0)
            if p >= 1.0:
                break
            if q - p > least:
                if found < share.shape[1]:
                    share[i, found, 0], share[i, found, 1] = p, q
                found += 1
            at = q
        left[i] = found


def _chain(segments: Segments) -> JoinedLines:
    """Segments of one element, role and band that meet become one line; straight joints go.

    Where more than two meet, those run on into each other that lie in one line.
    """
    n = len(segments)
    if not n:
        nothing = np.zeros(1, np.int64)
        return JoinedLines(
            Polylines(np.empty((0, 3)), nothing), segments.role, segments.element, segments.band
        )
    cell = np.round(segments.ends[:, :, :2].reshape(-1, 2) / tol.SAME_POINT).astype(np.int64)
    cell -= cell.min(axis=0)
    place = _numbered(cell[:, 0] * (cell[:, 1].max() + 1) + cell[:, 1])
    group = (segments.element.astype(np.int64) * len(ROLES) + segments.role) * 16 + segments.band
    node = _numbered(np.repeat(_numbered(group), 2) * 2 * n + place)
    meets_others = np.bincount(place)[place] > 1
    order = np.argsort(node, kind="stable")
    first = np.flatnonzero(np.concatenate([[True], np.diff(node[order]) > 0]))
    ends = segments.ends.reshape(-1, 3)
    mate = _mates(ends, order, np.concatenate([first, [2 * n]]), tol.SAME_LINE)
    points, starts, owner = _walk(ends, mate, meets_others, tol.SAME_LINE, tol.NEAR_LINE, tol.SHORTEST)
    return JoinedLines(
        Polylines(points, starts), segments.role[owner], segments.element[owner], segments.band[owner]
    )


def _numbered(keys: Longs) -> Longs:
    """A number from 0 for each of the keys, the same for the same."""
    return np.asarray(np.unique(keys, return_inverse=True)[1].reshape(-1).astype(np.int64))


@njit(cache=True)
def _mates(ends, order, starts, straight):
    """For each end of a stroke the end of another that it runs on into; -1 where it stops."""
    mate = np.full(ends.shape[0], -1, np.int64)
    for k in range(starts.size - 1):
        a, b = starts[k], starts[k + 1]
        if b - a == 2 and order[a] // 2 != order[a + 1] // 2:
            mate[order[a]], mate[order[a + 1]] = order[a + 1], order[a]
        if b - a < 3:
            continue
        for i in range(a, b):
            one = order[i]
            for j in range(i + 1, b):
                other = order[j]
                if mate[one] >= 0 or mate[other] >= 0 or one // 2 == other // 2:
                    continue
                if _on_the_way(ends[one ^ 1], ends[one], ends[other ^ 1], straight):
                    mate[one], mate[other] = other, one
    return mate


@njit(cache=True)
def _walk(ends, mate, meets_others, straight, near, shortest):
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
                if filled - begin >= 2 and _on_the_way(
                    points[filled - 2], points[filled - 1], ends[far], straight
                ):
                    filled -= 1
                points[filled] = ends[far]
                filled += 1
                at = mate[far]
                if at < 0 or done[at // 2]:
                    break
            length = 0.0
            for i in range(begin + 1, filled):
                length += np.hypot(points[i, 0] - points[i - 1, 0], points[i, 1] - points[i - 1, 1])
            # What is left between two lines that became one joins them and nothing else.
            if length < near or (length < shortest and not (meets_others[k] and meets_others[far])):
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
