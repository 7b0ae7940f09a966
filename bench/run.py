"""`dunefold bench`: how long the parts of a drawing take on this machine, medians of five after a warm-up.

Each figure is also given over the time of one elevation, since only ratios hold from machine to machine.
"""

from __future__ import annotations

import statistics
import sys
import tempfile
import time
from collections.abc import Callable
from dataclasses import replace
from functools import partial
from pathlib import Path
from typing import Any

from demo.building import write_observatory
from drafting.building.ifc import read_ifc
from drafting.building.store import load_building, save_building
from drafting.linework.engine import draw
from drafting.linework.joining import Strokes, join
from drafting.linework.scene import edges_of, faces_of
from drafting.linework.visibility import visible_pieces
from drafting.plot.compose import compose
from drafting.plot.pdf import write_pdf
from drafting.plot.svg import write_svg
from drafting.sheets.paper import Paper
from drafting.sheets.placing import place_view
from drafting.sheets.sheet import Sheet
from drafting.views.camera import camera_for
from drafting.views.spec import ViewSpec
from drafting.views.typed import parse_view

RUNS = 5


def median(work: Callable[[], Any]) -> float:
    """The median of RUNS runs after one that is not counted, in seconds."""
    work()
    times = []
    for _ in range(RUNS):
        begun = time.perf_counter()
        work()
        times.append(time.perf_counter() - begun)
    return statistics.median(times)


def figures(folder: Path) -> dict[str, float]:
    """Seconds for each part of the work on the demo building."""
    source, kept = folder / "observatory.ifc", folder / "observatory.npz"
    write_observatory(str(source))
    building = read_ifc(source)
    save_building(building, kept)
    print(f"Demo building: {len(building.elements)} elements, {len(building.triangles)} triangles")
    times = {
        "read the IFC file": median(lambda: read_ifc(source)),
        "load the kept building": median(lambda: load_building(kept)),
    }
    for text in ("plan:0", "roof", "elevation:south", "section:-9500,3300,17500,3300", "axonometric:se"):
        times[f"draw {text.partition(':')[0]}"] = median(partial(draw, building, parse_view(text)))

    camera = camera_for(building, ViewSpec("elevation", side="south"))
    faces = faces_of(building, camera)
    edges = edges_of(building, camera, faces)
    seen = visible_pieces(faces, edges)
    role = seen.profile.astype("int8")
    times["elevation: edges"] = median(lambda: edges_of(building, camera, faces_of(building, camera)))
    times["elevation: visibility"] = median(lambda: visible_pieces(faces, edges))
    times["elevation: joining"] = median(lambda: join(Strokes(seen.ends, role, edges.element[seen.edge])))

    linework = draw(building, parse_view("elevation:south"))
    viewport = replace(place_view(linework.extents, Paper.of("A1")), linework="elevation")
    display = compose(Sheet(Paper.of("A1"), viewports=(viewport,)))
    times["write one sheet, PDF"] = median(lambda: write_pdf([("1", display)], lambda _: linework))
    times["write one sheet, SVG"] = median(lambda: write_svg(display, lambda _: linework))
    return times


def main() -> int:
    with tempfile.TemporaryDirectory() as folder:
        times = figures(Path(folder))
    whole = times["draw elevation"]
    for name, seconds in times.items():
        print(f"{name:28s} {seconds * 1000:9.1f} ms {seconds / whole:8.2f} elevations")
    return 0


if __name__ == "__main__":
    sys.exit(main())
