"""Sets of stretches along an edge, kept sorted and apart. Compiled."""

from __future__ import annotations

import numpy as np
from numba import njit


@njit(cache=True)
def cover(low, high, count, a, b, gap):
    """Add the stretch a..b to a set, joining what lies within `gap`.

    `low` and `high` hold the `count` stretches of the set; they are replaced by longer ones when full.
    Returns (low, high, count).
    """
    first = 0
    while first < count and high[first] < a - gap:
        first += 1
    last = first
    while last < count and low[last] <= b + gap:
        a = min(a, low[last])
        b = max(b, high[last])
        last += 1
    if last == first:
        if count == low.size:
            low = np.concatenate((low, low))
            high = np.concatenate((high, high))
        for k in range(count, first, -1):
            low[k] = low[k - 1]
            high[k] = high[k - 1]
        low[first] = a
        high[first] = b
        return low, high, count + 1
    low[first] = a
    high[first] = b
    shift = last - first - 1
    if shift:
        for k in range(last, count):
            low[k - shift] = low[k]
            high[k - shift] = high[k]
    return low, high, count - shift


@njit(cache=True)
def next_free(low, high, count, at, end):
    """The first stretch of at..end that the set leaves free, as (from, to); from >= end where there is
    none."""
    for k in range(count):
        if high[k] <= at:
            continue
        if low[k] > at:
            return at, min(low[k], end)
        at = high[k]
        if at >= end:
            return end, end
    return at, end
