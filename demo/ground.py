"""The ground of the demo: an undulating slope as one closed solid, dug out exactly where the building stands
in it."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Sequence

import shapely

Point3 = tuple[float, float, float]

WEST, SOUTH, EAST, NORTH, BOTTOM = -9000.0, -8000.0, 21000.0, 12000.0, -3000.0
CELL = 2500.0


def height(x: float, y: float) -> float:
    """The ground's height over a point, mm."""
    return -900.0 + y * 0.045 - x * 0.012 + 120 * math.sin(x / 5200) * math.cos(y / 4700)


def dug_ground(pits: Sequence[tuple[shapely.Geometry, float]]) -> tuple[list[Point3], list[tuple[int, ...]]]:
    """Corners and faces of the ground without its pits, each an area in x, y and the height of its floor."""
    points: list[Point3] = []
    number: dict[Point3, int] = {}

    def corner(x: float, y: float, z: float) -> int:
        key = (round(x, 3), round(y, 3), round(z, 3))
        if key not in number:
            number[key] = len(points)
            points.append(key)
        return number[key]

    faces = [
        tuple(corner(x, y, height(x, y)) for x, y in triangle)
        for cell in _cells()
        for triangle in _triangles(cell - shapely.union_all([area for area, _ in pits]))
    ]
    # Where the surface ends, a wall goes down: to the floor of a pit, or to the bottom all round.
    once: dict[tuple[int, int], int] = defaultdict(int)
    for a, b, c in faces:
        for edge in ((a, b), (b, c), (c, a)):
            once[edge] += 1
    rims: dict[float, list[tuple[int, int]]] = defaultdict(list)
    for a, b in [edge for edge in once if edge[::-1] not in once]:
        middle = shapely.Point([(points[a][k] + points[b][k]) / 2 for k in range(2)])
        floor = next((low for area, low in pits if area.dwithin(middle, 0.01)), BOTTOM)
        low_a, low_b = (corner(*points[k][:2], floor) for k in (a, b))
        faces.append((a, low_a, low_b, b))
        rims[floor].append((low_b, low_a))
    for floor, edges in rims.items():
        lines = [[points[a][:2], points[b][:2]] for a, b in edges]
        for area in shapely.get_parts(shapely.polygonize(shapely.linestrings(lines))):
            for triangle in _triangles(area):
                face = tuple(corner(x, y, floor) for x, y in triangle)
                faces.append(face[::-1] if floor == BOTTOM else face)
    return points, faces


def _cells() -> list[shapely.Geometry]:
    across = range(round((EAST - WEST) / CELL))
    along = range(round((NORTH - SOUTH) / CELL))
    return [
        shapely.box(WEST + i * CELL, SOUTH + j * CELL, WEST + (i + 1) * CELL, SOUTH + (j + 1) * CELL)
        for j in along
        for i in across
    ]


def _triangles(area: shapely.Geometry) -> list[list[tuple[float, float]]]:
    """Anticlockwise triangles of an area that keep all corners of its border."""
    found = shapely.get_parts(shapely.constrained_delaunay_triangles(area))
    return [list(shapely.geometry.polygon.orient(t).exterior.coords)[:3] for t in found]
