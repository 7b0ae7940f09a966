"""Which parts of lines have come or gone between two states, and where on paper that is."""

from __future__ import annotations

import numpy as np
from scipy import ndimage
from scipy.spatial import cKDTree

from drafting.geometry.boxes import Box
from drafting.geometry.polylines import Floats
from drafting.geometry.sampling import Samples, sampled

#: What has moved by less is the same, paper mm.
SAME = 0.3
#: Changes nearer to each other than this are one cluster; shorter ones than `MIN_LENGTH` are none; paper mm.
NEAR, MIN_LENGTH = 4.0, 0.6


def missing_from(samples: Samples, others: Samples) -> Samples:
    """The points that have none of the others near."""
    if not len(others.points) or not len(samples.points):
        return samples
    distances, _ = cKDTree(others.points).query(samples.points, distance_upper_bound=SAME, workers=-1)
    return samples.select(~np.isfinite(distances))


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
        if amount[k] >= MIN_LENGTH:
            own = samples.points[label == k]
            (x, y), (right, top) = own.min(axis=0).tolist(), own.max(axis=0).tolist()
            boxes.append(Box(x, y, right - x, top - y))
    return sorted(boxes, key=lambda box: (box.x, box.y))
