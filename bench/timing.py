"""Timing a piece of work."""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable
from typing import Any

RUNS = 5


def once(work: Callable[[], Any]) -> float:
    """Seconds that a piece of work takes."""
    begun = time.perf_counter()
    work()
    return time.perf_counter() - begun


def median(work: Callable[[], Any]) -> float:
    """The median of RUNS runs after one that is not counted, in seconds."""
    work()
    return statistics.median(once(work) for _ in range(RUNS))
