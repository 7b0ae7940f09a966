"""Many polylines in one array: the form that all linework has, from the engine to the file to the output."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Longs = NDArray[np.int64]


@dataclass(frozen=True, eq=False)
class Polylines:
    """Polylines laid end to end: polyline k is `points[starts[k] : starts[k + 1]]`.

    Attributes:
        points: (n, d) float64; d is 2 for u and v or x and y, 3 with depth. mm.
        starts: (m + 1,) int64, rising, from 0 to n.
    """

    points: Floats
    starts: Longs

    def __len__(self) -> int:
        return len(self.starts) - 1

    def __getitem__(self, k: int) -> Floats:
        """The points of one polyline, (?, d); a view, not a copy."""
        return self.points[self.starts[k] : self.starts[k + 1]]

    def __iter__(self) -> Iterator[Floats]:
        return (
            self.points[a:b] for a, b in zip(self.starts[:-1].tolist(), self.starts[1:].tolist(), strict=True)
        )

    @classmethod
    def of(cls, lines: Sequence[Any], dimensions: int = 2) -> Polylines:
        """From the points of each polyline.

        >>> Polylines.of([[(0, 0), (1, 0)], [(5, 5), (6, 5), (6, 6)]]).starts
        array([0, 2, 5])
        """
        arrays = [np.asarray(line, float) for line in lines]
        if len(arrays) == 1:  # most have one, and there are many
            return cls(arrays[0], np.array([0, len(arrays[0])]))
        points = np.concatenate(arrays) if arrays else np.empty((0, dimensions))
        return cls(points, np.cumsum([0, *map(len, arrays)]))

    @classmethod
    def segments(cls, ends: Floats) -> Polylines:
        """From the two ends of straight pieces, (m, 2, d)."""
        return cls(ends.reshape(-1, ends.shape[2]), np.arange(0, 2 * len(ends) + 1, 2))

    @property
    def sizes(self) -> Longs:
        """(m,) how many points each has."""
        return np.diff(self.starts)

    def select(self, which: NDArray[Any]) -> Polylines:
        """The polylines `which` (indices, or a mask of all), in that order."""
        if which.dtype == bool:
            which = np.flatnonzero(which)
        sizes = self.sizes[which]
        starts = np.concatenate([[0], np.cumsum(sizes)])
        rows = np.arange(starts[-1]) + np.repeat(self.starts[which] - starts[:-1], sizes)
        return Polylines(self.points[rows], starts)

    def bounds(self) -> tuple[Floats, Floats]:
        """(m, d) the least and the greatest corner of each. There has to be a point in every one."""
        begins = self.starts[:-1]
        return np.minimum.reduceat(self.points, begins), np.maximum.reduceat(self.points, begins)

    def mapped(self, matrix: Floats, offset: Floats) -> Polylines:
        """With each point p at `offset + p @ matrix`; `matrix` (d, e), `offset` (e,)."""
        return Polylines(offset + self.points @ matrix, self.starts)
