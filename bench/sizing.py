"""`dunefold bench sizing`: how many machines so many drafters need.

What each kind of heavy work takes is measured here, on a building so many times the demo's; then days of an
office are simulated, with the queue as it is: short work before long work, the first come the first, and what
has begun is finished.
"""

from __future__ import annotations

import heapq
import random
import tempfile
from collections import defaultdict
from collections.abc import Mapping
from dataclasses import dataclass
from pathlib import Path

from bench.plotting import large_set
from bench.timing import median
from demo.building import write_observatory
from drafting.render.page import FileInfo
from drafting.tasks.drawings import draw_view
from drafting.tasks.models import read_model
from drafting.tasks.sheets import plot_sheets

#: How often a drafter orders each kind of work in an hour at the desk; an assumption, not a measurement.
ORDERS = {"a drawing": 20.0, "a sheet": 6.0, "a set": 0.5, "a building": 0.25}
#: What is short goes first.
SHORT = ("a drawing", "a sheet")
#: A building that is read has as many views drawn anew.
VIEWS = 16
#: By how much the work on a building is more than on the demo's.
TIMES = 10
DRAFTERS, MACHINES = (1, 10, 100), (1, 2, 4, 8, 16)
#: A day at the desk, seconds, and how many are simulated.
DAY, DAYS = 8 * 3600.0, 5
#: Answers as many of a hundred come within the figure that is told.
PERCENT = 95


@dataclass(frozen=True, order=True)
class Order:
    """Work that was ordered, as the queue sorts it."""

    long: bool
    ordered: float
    kind: str


def measured() -> dict[str, float]:
    """What each kind of work takes, in seconds."""
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        source, building, data, made = (
            folder / each for each in ("observatory.ifc", "building", "data", "made")
        )
        write_observatory(str(source))
        reading = median(lambda: read_model(source, building, data, source.name, "", "", None, None))
        section = {"kind": "section", "line": [[-9500, 3300], [17500, 3300]]}
        drawing = median(lambda: draw_view(building, section, made))
        pages, kept = large_set(folder)
        info = FileInfo("Set", resolution=100)
        sheet = median(lambda: plot_sheets(pages[:1], kept, {}, made, "pdf", info))
        whole = median(lambda: plot_sheets(pages, kept, {}, made, "pdf", info))
    return {"a drawing": drawing, "a sheet": sheet, "a set": whole, "a building": reading}


def orders(drafters: int, seed: int) -> list[tuple[float, str]]:
    """When what is ordered in a day: each drafter at any moment, with the same likelihood."""
    luck = random.Random(seed)
    found = []
    for kind, an_hour in ORDERS.items():
        now = luck.expovariate(drafters * an_hour / 3600)
        while now < DAY:
            found.append((now, kind))
            now += luck.expovariate(drafters * an_hour / 3600)
    return sorted(found)


def waits(
    machines: int, ordered: list[tuple[float, str]], takes: Mapping[str, float]
) -> dict[str, list[float]]:
    """How long each kind of work took from its order to its end, in seconds.

    Args:
        machines: how many do one piece of work at a time.
        ordered: as `orders` gives them.

    >>> waits(1, [(0.0, "a set"), (1.0, "a drawing"), (1.5, "a drawing")], {"a set": 5.0, "a drawing": 1.0})
    {'a set': [5.0], 'a drawing': [5.0, 5.5]}
    """
    found: dict[str, list[float]] = defaultdict(list)
    coming = [(moment, kind) for moment, kind in ordered]
    heapq.heapify(coming)
    queue: list[Order] = []
    free = [0.0] * machines
    while coming or queue:
        # The machine that is free first takes what stands first of what has come by then.
        ready = heapq.heappop(free)
        if not queue and coming:
            ready = max(ready, coming[0][0])
        while coming and coming[0][0] <= ready:
            moment, kind = heapq.heappop(coming)
            heapq.heappush(queue, Order(kind not in SHORT, moment, kind))
        order = heapq.heappop(queue)
        end = ready + takes[order.kind]
        found[order.kind].append(end - order.ordered)
        if order.kind == "a building":
            for _ in range(VIEWS):
                heapq.heappush(coming, (end, "a drawing"))
        heapq.heappush(free, end)
    return dict(found)


def percentile(values: list[float]) -> float:
    return sorted(values)[min(len(values) - 1, len(values) * PERCENT // 100)]


def main() -> int:
    takes = {kind: TIMES * seconds for kind, seconds in measured().items()}
    print(f"On a building {TIMES} times the demo's, one process needs")
    for kind, seconds in takes.items():
        print(f"  for {kind:12}{seconds:8.2f} s, ordered {ORDERS[kind]:g} times an hour by each drafter")
    print(f"\n{PERCENT} of 100 are there within so many seconds ({DAYS} days of {DAY / 3600:g} h simulated):")
    print(f"{'drafters':>10}{'processes':>11}{'at work':>9}" + "".join(f"{kind:>12}" for kind in takes))
    for drafters in DRAFTERS:
        days = [orders(drafters, day) for day in range(DAYS)]
        for machines in MACHINES:
            found: dict[str, list[float]] = defaultdict(list)
            for day in days:
                for kind, values in waits(machines, day, takes).items():
                    found[kind] += values
            busy = sum(takes[kind] * len(values) for kind, values in found.items()) / (machines * DAY * DAYS)
            row = f"{drafters:>10}{machines:>11}{busy:>8.0%} "
            print(row + "".join(f"{percentile(found[kind]):>12.1f}" for kind in takes))
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
