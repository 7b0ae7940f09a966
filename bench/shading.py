"""`dunefold bench shading`: a picture of a building of 200,000 triangles, with shadows and the light of the
sky, coarse as on the screen and as fine as it is printed; beside a plain ray caster with the same rays."""

from __future__ import annotations

import resource
import sys
import tempfile
from dataclasses import replace
from functools import partial
from pathlib import Path

import numpy as np
import trimesh

from bench.growth import repeated
from bench.timing import median, once
from demo.building import write_observatory
from drafting.building.model import Building
from drafting.building.reading import read_building
from drafting.shading.appearance import Appearance, Light
from drafting.shading.light import sky_ways, way_to_light
from drafting.shading.picture import picture_of
from drafting.shading.shader import FEWER_PLACES, SKY_APART
from drafting.shading.window import Window
from drafting.views.notation import parse_view

TRIANGLES, WINDOW, FINE = 200_000, Window(180.0, 120.0, 0.002, (40_000.0, 20_000.0)), 300.0
APPEARANCE = Appearance("shaded", light=Light("sun"))
#: What is asked for, seconds and MB.
WANTED = {"coarse": 0.5, "fine": 5.0, "memory": 1500}
AWAY, BEFORE = 1e6, 1.0


def large(building: Building) -> Building:
    """So many copies of a building that there are TRIANGLES of them or more."""
    side = int(np.ceil(np.sqrt(TRIANGLES / len(building.triangles))))
    return replace(repeated(building, side), material_colours=building.material_colours)


def cast(building: Building) -> None:
    """The same picture's rays, by a ray caster: to what is seen, from there to the sun, and to the sky."""
    mesh = trimesh.Trimesh(building.vertices, building.triangles, process=False)
    rays = trimesh.ray.ray_pyembree.RayMeshIntersector(mesh, scale_to_box=False)
    camera = parse_view("axonometric:se").camera(building)
    sun = way_to_light(APPEARANCE.light, camera, building.true_north)

    def seen(columns: int, rows: int) -> tuple[np.ndarray, np.ndarray]:
        u, v, ux, vx, uy, vy = WINDOW.frame(columns, rows)
        y, x = np.mgrid[:rows, :columns]
        places = np.stack([(u + x * ux + y * uy).ravel(), (v + x * vx + y * vy).ravel()], axis=1)
        start = camera.origin + places @ np.stack([camera.right, camera.up]) + AWAY * camera.toward
        ways = np.broadcast_to(-camera.toward, start.shape).copy()
        at, _, triangle = rays.intersects_location(start, ways, multiple_hits=False)
        normal = mesh.face_normals[triangle]
        return at + BEFORE * normal, normal

    start, normal = seen(*WINDOW.pixels(FINE))
    turned = normal @ sun > 0
    rays.intersects_any(start[turned], np.broadcast_to(sun, start[turned].shape).copy())
    start, normal = seen(round(WINDOW.width / SKY_APART), round(WINDOW.height / SKY_APART))
    for way in sky_ways(FEWER_PLACES + FEWER_PLACES // 3):
        turned = normal @ way > 0
        rays.intersects_any(start[turned], np.broadcast_to(way, start[turned].shape).copy())


def main() -> int:
    with tempfile.TemporaryDirectory() as folder:
        file = Path(folder) / "observatory.ifc"
        write_observatory(str(file))
        building = large(read_building(file))
    view = parse_view("axonometric:se")
    times = {
        name: median(partial(picture_of, building, view, APPEARANCE, WINDOW, dpi, quick=dpi < FINE))
        for name, dpi in (("coarse", WINDOW.coarse), ("fine", FINE))
    }
    memory = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    columns, rows = WINDOW.pixels(FINE)
    print(f"{len(building.triangles):,} triangles, {WINDOW.width:.0f} x {WINDOW.height:.0f} mm")
    for name, seconds in times.items():
        print(f"  {name:8} {seconds:6.2f} s   {WANTED[name]:g} s asked for")
    print(f"  memory   {memory:6.0f} MB  {WANTED['memory']} MB asked for")
    reference = once(lambda: cast(building))
    print(f"  a ray caster, one ray for each of {columns * rows:,} pixels: {reference:.1f} s")
    print(f"  the picture, four places for each: {times['fine'] / reference:.2f} of that")
    return 0


if __name__ == "__main__":
    sys.exit(main())
