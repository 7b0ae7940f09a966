"""A grid over the paper: which things lie in which cell. Compiled."""

from __future__ import annotations

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numba import njit
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Longs = NDArray[np.int64]

#: Cells that a thing lies in, on average; more cells are quicker to search and slower to fill.
CELLS_PER_THING = 10.0
MAX_CELLS = 6_000_000
#: So many things decide how large the cells should be.
SAMPLE = 4_000


@dataclass(frozen=True, eq=False)
class Grid:
    """Cells of `size` mm from `low`, `shape` of them in u and v, numbered row by row."""

    low: Floats
    size: float
    shape: Longs

    @property
    def as_cells(self) -> Cells:
        return Cells(self.low, self.size, self.shape)

    @property
    def cells(self) -> int:
        return int(self.shape[0] * self.shape[1])

    @classmethod
    def over(cls, bounds: Floats) -> Grid:
        """A grid for things with these bounds, (n, 4) least u, v and greatest u, v.

        The cells follow the size of the things and not their number, so that a picture twice as wide
        takes twice the work.
        """
        if not len(bounds):
            return cls(np.zeros(2), 1.0, np.ones(2, np.int64))
        low = bounds[:, :2].min(axis=0) - 1.0
        extent = bounds[:, 2:].max(axis=0) + 1.0 - low
        some = bounds[:: max(1, len(bounds) // SAMPLE)]
        width, height = some[:, 2] - some[:, 0], some[:, 3] - some[:, 1]
        least = float(np.sqrt(extent[0] * extent[1] / MAX_CELLS))
        small, large = max(least, 1e-3), max(float(extent.max()), 2e-3)
        for _ in range(16):
            size = np.sqrt(small * large)
            if ((width / size + 1) * (height / size + 1)).mean() > CELLS_PER_THING:
                small = size
            else:
                large = size
        size = float(max(large, least))
        return cls(low, size, np.maximum(1, np.ceil(extent / size)).astype(np.int64))


class Cells(NamedTuple):
    """A grid as the kernels take it; whatever has these three fields will do for them."""

    low: Floats
    size: float
    shape: Longs


@njit(cache=True)
def cell_of(at, low, size, count):
    """The row or column of a place, kept within the grid."""
    return min(count - 1, max(0, int((at - low) / size)))


@njit(cache=True)
def cells_within(low_u, low_v, high_u, high_v, margin, cells):
    """The columns and rows, (x0, x1, y0, y1), of the cells that bounds and a margin about them reach."""
    low, size, shape = cells.low, cells.size, cells.shape
    return (
        cell_of(low_u - margin, low[0], size, shape[0]),
        cell_of(high_u + margin, low[0], size, shape[0]),
        cell_of(low_v - margin, low[1], size, shape[1]),
        cell_of(high_v + margin, low[1], size, shape[1]),
    )


@njit(cache=True)
def cells_passed(stretch, margin, cells):
    """The columns and rows, (x0, x1, y0, y1), of the cells about a stretch; `columns` narrows each row.

    A stretch is what has the fields u, v, du, dv: from (u, v) by (du, dv).
    """
    u, v, du, dv = stretch.u, stretch.v, stretch.du, stretch.dv
    return cells_within(min(u, u + du), min(v, v + dv), max(u, u + du), max(v, v + dv), margin, cells)


@njit(cache=True)
def columns(row, stretch, x0, x1, margin, cells):
    """Of columns x0..x1, those that a stretch, `margin` wide, passes in a row."""
    u, v, du, dv, low, size = stretch.u, stretch.v, stretch.du, stretch.dv, cells.low, cells.size
    if abs(dv) <= 1e-9:
        return x0, x1
    ta = min(1.0, max(0.0, (low[1] + row * size - margin - v) / dv))
    tb = min(1.0, max(0.0, (low[1] + (row + 1) * size + margin - v) / dv))
    ua, ub = u + du * ta, u + du * tb
    first = max(x0, int((min(ua, ub) - margin - low[0]) / size))
    last = min(x1, int((max(ua, ub) + margin - low[0]) / size))
    return first, last
