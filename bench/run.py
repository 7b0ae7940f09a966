"""`dunefold bench`: how long the parts of a drawing take on this machine, medians of five after a warm-up.

Each figure is also given over the time of one elevation, since only ratios hold from machine to machine.
"""

from __future__ import annotations

import json
import subprocess
import sys
import tempfile
from dataclasses import replace
from functools import partial
from pathlib import Path

import numpy as np

from bench import reference
from bench.growth import exponent
from bench.timing import median
from demo.building import write_observatory
from drafting.building.ifc import read_ifc
from drafting.building.meetings import find_meetings
from drafting.building.model import Building
from drafting.building.store import load_building, save_building
from drafting.building.topology import build_topology
from drafting.linework.engine import draw
from drafting.linework.joining import join
from drafting.linework.scene import edges_of, faces_of
from drafting.linework.strokes import Strokes
from drafting.linework.tolerances import PROFILE_CLEARANCE
from drafting.linework.visibility import trace
from drafting.plot.compose import compose
from drafting.plot.page import whole_page
from drafting.plot.pdf import write_pdf
from drafting.plot.svg import write_svg
from drafting.sheets.paper import Paper
from drafting.sheets.placing import place_view
from drafting.sheets.sheet import Sheet
from drafting.sheets.shipped_templates import STANDARD
from drafting.sheets.template import Blank
from drafting.views.camera import camera_for
from drafting.views.typed import parse_view

VIEWS = {
    "plan": "plan:0",
    "plan with overhead lines": "plan:0",
    "roof plan": "roof",
    "elevation": "elevation:south",
    "elevation with hidden lines": "elevation:south",
    "section": "section:-9500,3300,17500,3300",
    "axonometric": "axonometric:se",
    "perspective": "perspective:22000,-18000,5000,4000,3000,3000@50",
    "detail": "detail:-600,-600,3500,3200:plan:0",
}
#: At least so many times faster than the reference, and no worse an exponent than this, is what is asked for.
WANTED_RATIO, WANTED_EXPONENT, WANTED_MEMORY = 30, 1.15, 2048


def parts(building: Building, source: Path, kept: Path) -> dict[str, float]:
    """Seconds for each part of the work on the demo building."""
    once = partial(build_topology, building.vertices, building.triangles, building.triangle_element)
    times = {
        "read the IFC file": median(lambda: read_ifc(source)),
        "load the kept building": median(lambda: load_building(kept)),
        "edges and planes, once": median(once),
        "meetings, once": median(lambda: find_meetings(building.topology)),
    }
    for name, text in VIEWS.items():
        view = parse_view(text)
        wanted = {"overhead": "overhead" in name, "hidden": "hidden" in name}
        view = replace(view, treatment=replace(view.treatment, **wanted))
        times[f"draw {name}"] = median(partial(draw, building, view))

    camera = camera_for(building, parse_view("elevation:south"))
    every = parse_view("elevation:south").shown.of(building)
    faces = faces_of(building, camera)
    edges = edges_of(building, camera, faces, every)
    look = partial(trace, faces, edges, np.full(len(edges), PROFILE_CLEARANCE))
    seen = look()
    times["elevation: edges"] = median(lambda: edges_of(building, camera, faces_of(building, camera), every))
    times["elevation: what is hidden"] = median(look)
    strokes = Strokes.of(seen.ends, seen.role, edges.element[seen.edge])
    times["elevation: joining"] = median(lambda: join(strokes))

    linework = draw(building, parse_view("elevation:south"))
    viewport = replace(place_view(linework.extents, Blank(Paper.of("A1"), STANDARD)), linework="elevation")
    page = whole_page(compose(Sheet(Paper.of("A1"), viewports=(viewport,))))
    times["write one sheet, PDF"] = median(lambda: write_pdf([page], lambda _: linework))
    times["write one sheet, SVG"] = median(lambda: write_svg(page, lambda _: linework))
    return times


def against_reference(building: Building, times: dict[str, float]) -> None:
    """Print how the engine stands to the geometry kernel's algorithm, from the same triangles in memory."""
    shape = reference.shape_of(building.topology)
    prepare = median(lambda: reference.shape_of(building.topology))
    ours_once = times["edges and planes, once"] + times["meetings, once"]
    print(f"\nAgainst the polygonal algorithm of the geometry kernel ({WANTED_RATIO} times is asked for, 100 the aim)")
    print(f"{'':28s} {'kernel':>10s} {'ours':>10s} {'times':>7s}")
    for name in ("elevation", "axonometric"):
        camera = camera_for(building, parse_view(VIEWS[name]))
        theirs, ours = median(partial(reference.draw, shape, camera)), times[f"draw {name}"]
        for what, kernel, own in (
            (f"{name}, drawing alone", theirs, ours),
            (f"{name}, from triangles", theirs + prepare, ours + ours_once),
        ):
            print(f"{what:28s} {kernel * 1000:7.1f} ms {own * 1000:7.1f} ms {kernel / own:7.1f}")


def growth(kept: Path) -> None:
    """Print how time and memory grow, measured in a process of their own."""
    told = subprocess.run(
        [sys.executable, "-m", "bench.growth", str(kept)], check=True, capture_output=True, text=True
    ).stdout
    found = json.loads(told)
    print(f"\nGrowth (an exponent of at most {WANTED_EXPONENT} is asked for)")
    print(f"{'triangles':28s}" + "".join(f"{count:>11,d}" for count in found["triangles"]) + "  exponent")
    for name, seconds in found["seconds"].items():
        figures = "".join(f"{s * 1000:8.0f} ms" for s in seconds)
        print(f"{name:28s}{figures}  {exponent(found['triangles'], seconds):8.2f}")
    print(f"Peak memory {found['peak']:.0f} MB (at most {WANTED_MEMORY} MB is asked for)")


def main() -> int:
    with tempfile.TemporaryDirectory() as folder:
        source, kept = Path(folder) / "observatory.ifc", Path(folder) / "observatory.npz"
        write_observatory(str(source))
        building = read_ifc(source)
        save_building(building, kept)
        print(f"Demo building: {len(building.elements)} elements, {len(building.triangles)} triangles")
        times = parts(building, source, kept)
        whole = times["draw elevation"]
        for name, seconds in times.items():
            print(f"{name:28s} {seconds * 1000:9.1f} ms {seconds / whole:8.2f} elevations")
        against_reference(building, times)
        growth(kept)
    return 0


if __name__ == "__main__":
    sys.exit(main())
