"""The demo building repeated in a grid: how time grows with triangles, and how much memory is taken at
most."""

from __future__ import annotations

import json
import resource
import sys
from dataclasses import replace
from pathlib import Path

import numpy as np

from bench.timing import median, once
from drafting.building.model import Building
from drafting.building.store import load_building
from drafting.linework.engine import draw
from drafting.views.notation import parse_view

#: Buildings along each side of the grid; the last makes about a million triangles.
SIDES = (1, 2, 3, 5, 7, 10)
VIEWS = ("elevation:south", "axonometric:se")
#: Between two neighbours, mm.
GAP = 2000.0


def repeated(building: Building, side: int) -> Building:
    """`side` by `side` copies of a building."""
    low, high = building.bounds
    step = (high - low) + GAP
    places = [np.array([i * step[0], j * step[1], 0.0]) for j in range(side) for i in range(side)]
    copies = range(len(places))
    return Building(
        elements=tuple(replace(e, id=f"{e.id}-{k}") for k in copies for e in building.elements),
        storeys=building.storeys,
        materials=building.materials,
        vertices=np.concatenate([building.vertices + place for place in places]),
        triangles=np.concatenate([building.triangles + np.int32(k * len(building.vertices)) for k in copies]),
        triangle_element=np.concatenate(
            [building.triangle_element + np.int32(k * len(building.elements)) for k in copies]
        ),
        triangle_material=np.tile(building.triangle_material, len(places)),
    )


def exponent(triangles: list[int], seconds: list[float]) -> float:
    """The power of the number of triangles that time grows with: the slope of the best line through the
    logarithms."""
    return float(np.polyfit(np.log(triangles), np.log(seconds), 1)[0])


def main(kept: str) -> int:
    """Print, as JSON: triangles, seconds for the work done once and for each view, and peak memory in MB."""
    building = load_building(Path(kept))
    for text in VIEWS:
        draw(building, parse_view(text))
    triangles: list[int] = []
    seconds: dict[str, list[float]] = {"once for all views": [], **{view: [] for view in VIEWS}}
    for side in SIDES:
        grid = repeated(building, side)
        triangles.append(len(grid.triangles))
        seconds["once for all views"].append(once(lambda grid=grid: (grid.topology, grid.intersections)))
        for text in VIEWS:
            seconds[text].append(median(lambda grid=grid, text=text: draw(grid, parse_view(text))))
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    print(json.dumps({"triangles": triangles, "seconds": seconds, "peak": peak}))
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1]))
