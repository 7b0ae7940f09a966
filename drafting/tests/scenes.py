"""Small buildings whose drawings can be worked out by hand."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from itertools import pairwise
from typing import Any

import numpy as np
import shapely

from drafting.building.model import Building, Element, Floats, Ints, Storey
from drafting.linework.engine import draw
from drafting.linework.model import Linework
from drafting.views.notation import parse_view
from drafting.views.spec import dump_view, parse_view_spec

Mesh = tuple[Floats, Ints]
Point3 = tuple[float, float, float]


def box(low: Point3, high: Point3) -> Mesh:
    """A closed box between two corners."""
    corners = np.array(
        [[x, y, z] for z in (low[2], high[2]) for y in (low[1], high[1]) for x in (low[0], high[0])]
    )
    quads = [(0, 2, 3, 1), (4, 5, 7, 6), (0, 1, 5, 4), (2, 6, 7, 3), (0, 4, 6, 2), (1, 3, 7, 5)]
    faces = [t for a, b, c, d in quads for t in ((a, b, c), (a, c, d))]
    return corners.astype(float), np.array(faces, np.int32)


def prism(
    ring: Sequence[tuple[float, float]], low: float, high: float, holes: Sequence[Sequence] = ()
) -> Mesh:
    """A profile in x, z with holes, swept along y from `low` to `high`: a wall seen from the south."""
    area = shapely.Polygon(ring, holes)
    flat = shapely.get_coordinates(shapely.get_parts(shapely.constrained_delaunay_triangles(area))).reshape(
        -1, 4, 2
    )
    points: list[Point3] = []
    faces: list[tuple[int, int, int]] = []

    def add(*corners: Point3) -> None:
        faces.append((len(points), len(points) + 1, len(points) + 2))
        points.extend(corners)

    for triangle in flat[:, :3]:
        (ax, az), (bx, bz), (cx, cz) = triangle
        if (bx - ax) * (cz - az) - (bz - az) * (cx - ax) < 0:
            (bx, bz), (cx, cz) = (cx, cz), (bx, bz)
        add((ax, low, az), (bx, low, bz), (cx, low, cz))
        add((ax, high, az), (cx, high, cz), (bx, high, bz))
    for k, line in enumerate([area.exterior, *area.interiors]):
        ccw = shapely.is_ccw(line)
        for (ax, az), (bx, bz) in pairwise(line.coords):
            if ccw != (k == 0):
                (ax, az), (bx, bz) = (bx, bz), (ax, az)
            add((ax, low, az), (ax, high, az), (bx, high, bz))
            add((ax, low, az), (bx, high, bz), (bx, low, bz))
    return np.array(points, float), np.array(faces, np.int32)


def cylinder(radius: float, height: float, sides: int) -> Mesh:
    """An upright cylinder about the origin."""
    ring = [
        (radius * math.cos(2 * math.pi * k / sides), radius * math.sin(2 * math.pi * k / sides))
        for k in range(sides)
    ]
    points = [(x, y, z) for z in (0.0, height) for x, y in ring] + [(0.0, 0.0, 0.0), (0.0, 0.0, height)]
    faces = []
    for k in range(sides):
        n = (k + 1) % sides
        faces += [
            (k, n, sides + n),
            (k, sides + n, sides + k),
            (2 * sides, n, k),
            (2 * sides + 1, sides + k, sides + n),
        ]
    return np.array(points), np.array(faces, np.int32)


def building(meshes: Iterable[Mesh], materials: Sequence[str] = ()) -> Building:
    """A building of one storey at 0 with one wall for each mesh, all of one material where none are named."""
    meshes = list(meshes)
    names = list(materials) or ["stone"] * len(meshes)
    kinds = sorted(set(names))
    starts = np.cumsum([0, *(len(points) for points, _ in meshes)])
    counts = [len(faces) for _, faces in meshes]
    return Building(
        elements=tuple(
            Element(f"e{i}", f"wall {i}", "IfcWall", 0, "Walls", name) for i, name in enumerate(names)
        ),
        storeys=(Storey("Ground", 0.0),),
        materials=tuple(kinds),
        vertices=np.concatenate([points for points, _ in meshes]),
        triangles=np.concatenate(
            [faces + start for (_, faces), start in zip(meshes, starts, strict=False)]
        ).astype(np.int32),
        triangle_element=np.repeat(np.arange(len(meshes), dtype=np.int32), counts),
        triangle_material=np.repeat(np.array([kinds.index(n) for n in names], np.int32), counts),
    )


def drawn(meshes: Iterable[Mesh], view: str, materials: Sequence[str] = (), **options: Any) -> Linework:
    """The drawing of some meshes. `options` are of the view's treatment, or `shown`, as they are kept."""
    shown = options.pop("shown", {})
    spec = parse_view_spec(dump_view(parse_view(view)) | {"line_settings": options, "shown": shown})
    return draw(building(meshes, materials), spec)


def lines_of(linework: Linework, *, role: str = "", element: str = "") -> shapely.Geometry:
    """The lines of a drawing as one geometry in u, v."""
    chosen = [
        shapely.LineString(line.points[:, :2])
        for line in linework.lines
        if (not role or line.role == role) and (not element or line.element == element)
    ]
    return shapely.union_all(chosen) if chosen else shapely.MultiLineString()


def total_length(linework: Linework, **chosen: str) -> float:
    """The length of all lines together, mm; what is drawn twice counts twice."""
    return sum(
        float(np.hypot(*np.diff(line.points[:, :2], axis=0).T).sum())
        for line in linework.lines
        if all(getattr(line, key) == value for key, value in chosen.items())
    )


def ring(u0: float, v0: float, u1: float, v1: float) -> shapely.Geometry:
    """The outline of a rectangle."""
    return shapely.box(u0, v0, u1, v1).boundary
