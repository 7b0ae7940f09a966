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
from bench.kernels import print_kernels
from bench.timing import median
from demo.building import write_observatory
from drafting.building.intersections import find_intersections
from drafting.building.model import Building
from drafting.building.reading import read_building
from drafting.building.store import load_building, save_building
from drafting.building.topology import build_topology
from drafting.linework.engine import draw
from drafting.linework.joining import join
from drafting.linework.scene import edges_of, faces_of
from drafting.linework.segments import Segments
from drafting.linework.tolerances import PROFILE_CLEARANCE
from drafting.linework.visibility import trace
from drafting.render.backend import Sources
from drafting.render.backends import pdf, svg
from drafting.render.compose import compose
from drafting.render.page import FileInfo, whole_page
from drafting.sheets.paper import Paper
from drafting.sheets.placing import place_view
from drafting.sheets.sheet import Sheet
from drafting.sheets.template import Blank
from drafting.sheets.template_presets import STANDARD
from drafting.views.notation import parse_view

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
        "read the IFC file": median(lambda: read_building(source)),
        "load the kept building": median(lambda: load_building(kept)),
        "edges and planes, once": median(once),
        "intersections, once": median(lambda: find_intersections(building.topology)),
    }
    for name, text in VIEWS.items():
        view = parse_view(text)
        wanted = {"overhead": "overhead" in name, "hidden": "hidden" in name}
        view = replace(view, line_settings=replace(view.line_settings, **wanted))
        times[f"draw {name}"] = median(partial(draw, building, view))

    elevation = parse_view("elevation:south")
    camera, every = elevation.camera(building), elevation.shown.mask(building)
    faces = faces_of(building, camera)
    edges = edges_of(building, camera, faces, every)
    tracing = partial(trace, faces, edges, np.full(len(edges), PROFILE_CLEARANCE))
    seen = tracing()
    times["elevation: edges"] = median(lambda: edges_of(building, camera, faces_of(building, camera), every))
    times["elevation: what is hidden"] = median(tracing)
    segments = Segments.of(seen.ends, seen.role, edges.element[seen.edge])
    times["elevation: joining"] = median(lambda: join(segments))

    linework = draw(building, elevation)
    viewport = replace(place_view(linework.extents, Blank(Paper.of("A1"), STANDARD)), linework="elevation")
    page = whole_page(compose(Sheet(Paper.of("A1"), viewports=(viewport,))))
    sources, info = Sources(lambda _: linework, lambda _: b""), FileInfo("Bench")
    times["write one sheet, PDF"] = median(lambda: pdf.write([page], sources, info))
    times["write one sheet, SVG"] = median(lambda: svg.write([page], sources, info))
    return times


def against_reference(building: Building, times: dict[str, float]) -> None:
    """Print how the engine stands to the geometry kernel's algorithm, from the same triangles in memory."""
    shape = reference.shape_of(building.topology)
    prepare = median(lambda: reference.shape_of(building.topology))
    ours_once = times["edges and planes, once"] + times["intersections, once"]
    print(
        f"\nAgainst the polygonal algorithm of the geometry kernel ({WANTED_RATIO} times is asked for, "
        "100 the aim)"
    )
    print(f"{'':28s} {'kernel':>10s} {'ours':>10s} {'times':>7s}")
    for name in ("elevation", "axonometric"):
        camera = parse_view(VIEWS[name]).camera(building)
        theirs, ours = median(partial(reference.draw, shape, camera)), times[f"draw {name}"]
        for what, kernel, own in (
            (f"{name}, drawing alone", theirs, ours),
            (f"{name}, from triangles", theirs + prepare, ours + ours_once),
        ):
            print(f"{what:28s} {kernel * 1000:7.1f} ms {own * 1000:7.1f} ms {kernel / own:7.1f}")


def growth(kept: Path) -> None:
    """Print how time and memory grow, measured in a process of their own."""
    printed = subprocess.run(
        [sys.executable, "-m", "bench.growth", str(kept)], check=True, capture_output=True, text=True
    ).stdout
    found = json.loads(printed)
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
        building = read_building(source)
        save_building(building, kept)
        print(f"Demo building: {len(building.elements)} elements, {len(building.triangles)} triangles")
        times = parts(building, source, kept)
        whole = times["draw elevation"]
        for name, seconds in times.items():
            print(f"{name:28s} {seconds * 1000:9.1f} ms {seconds / whole:8.2f} elevations")
        print_kernels(source)
        against_reference(building, times)
        growth(kept)
    return 0


if __name__ == "__main__":
    sys.exit(main())
