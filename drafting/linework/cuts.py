"""What a cutting plane goes through: closed regions for each element and material, and their outlines."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass

import numpy as np
import shapely
from numpy.typing import NDArray

from drafting.building.model import Building
from drafting.linework import tolerances as tol
from drafting.linework.scene import Faces
from drafting.views.camera import Camera

Floats = NDArray[np.float64]


@dataclass(frozen=True, eq=False)
class CutPart:
    """What the cut goes through of one element in one material: its area, and outlines that do not close."""

    element: int
    material: int
    area: shapely.Geometry
    open_lines: shapely.Geometry


def cut_parts(building: Building, camera: Camera, depth: float, faces: Faces) -> list[CutPart]:
    """Cut every element at a depth.

    A corner that lies in the plane counts as nearer to the viewer, so that a face in the plane is no special case.
    """
    topology = building.topology
    points = camera.project(topology.points)
    near = points[:, 2] >= depth
    crossing = np.flatnonzero(near[topology.faces].any(axis=1) & ~near[topology.faces].all(axis=1))
    if not len(crossing):
        return []
    corner = topology.faces[crossing]
    alone = np.argmax(near[corner] == (near[corner].sum(axis=1) == 1)[:, None], axis=1)
    turn = (alone[:, None] + np.arange(3)) % 3
    corner = np.take_along_axis(corner, turn, axis=1)
    # The two sides that cross, each named by its corners, lower first: neighbours compute the very same point.
    sides = np.sort(corner[:, [[0, 1], [0, 2]]], axis=2).reshape(-1, 2)
    unique, node = np.unique(sides, axis=0, return_inverse=True)
    node = node.reshape(-1, 2)
    a, b = points[unique[:, 0]], points[unique[:, 1]]
    share = (depth - a[:, 2]) / (b[:, 2] - a[:, 2])
    at = (a + (b - a) * share[:, None])[:, :2]
    body = topology.body[crossing]

    grouped: dict[tuple[int, int], list[NDArray[np.int64]]] = defaultdict(list)
    order = np.argsort(body, kind="stable")
    for segments in np.split(order, np.flatnonzero(np.diff(body[order])) + 1):
        face = crossing[segments[0]]
        grouped[int(faces.element[face]), int(faces.material[face])].append(segments)
    return [
        _part(element, material, [at[node[segments]] for segments in bodies])
        for (element, material), bodies in sorted(grouped.items())
    ]


def _part(element: int, material: int, bodies: list[Floats]) -> CutPart:
    areas, loose = [], []
    for segments in bodies:
        lines = shapely.set_precision(shapely.multilinestrings(segments), tol.REGION_GRID)
        area = shapely.build_area(shapely.node(lines))
        if not area.is_empty:
            areas.append(area)
        rest = lines if area.is_empty else shapely.difference(lines, area.boundary, grid_size=tol.REGION_GRID)
        if rest.length > tol.SHORTEST:
            loose.append(rest)
    area = shapely.union_all(areas, grid_size=tol.REGION_GRID) if areas else shapely.Polygon()
    return CutPart(
        element, material, area, shapely.line_merge(shapely.union_all(loose)) if loose else shapely.LineString()
    )


def cut_outlines(parts: list[CutPart]) -> list[tuple[int, Floats]]:
    """(element, (n, 2) points) of the lines round what is cut. Parts of one material that touch have none between."""
    by_material: dict[int, list[CutPart]] = defaultdict(list)
    for part in parts:
        by_material[part.material].append(part)
    found = []
    for alike in by_material.values():
        whole = shapely.union_all([p.area for p in alike], grid_size=tol.REGION_GRID).boundary
        tree = shapely.STRtree([p.area for p in alike])
        for part in alike:
            border = part.area.boundary
            if len(tree.query(part.area, predicate="intersects")) > 1:
                border = shapely.intersection(border, whole, grid_size=tol.REGION_GRID)
            for geometry in (border, part.open_lines):
                lines = shapely.get_parts(shapely.line_merge(_lines_only(geometry)))
                found += [(part.element, shapely.get_coordinates(line)) for line in lines if not line.is_empty]
    return found


def _lines_only(geometry: shapely.Geometry) -> shapely.Geometry:
    """A geometry without the points at which two others merely touch."""
    parts = shapely.get_parts(geometry)
    return shapely.MultiLineString([g for g in parts if g.geom_type in ("LineString", "LinearRing") and not g.is_empty])


def caps(parts: list[CutPart], depth: float) -> Faces:
    """The cut areas as faces at the cutting plane: they hide what lies below them."""
    corners = [np.empty((0, 3, 2))]
    for part in parts:
        if not part.area.is_empty:
            triangles = shapely.get_parts(shapely.constrained_delaunay_triangles(part.area))
            if len(triangles):
                corners.append(shapely.get_coordinates(triangles).reshape(-1, 4, 2)[:, :3])
    flat = np.concatenate(corners)
    n = len(flat)
    return Faces(
        np.concatenate([flat, np.full((n, 3, 1), depth)], axis=2),
        np.tile([0.0, 0.0, 1.0], (n, 1)),
        np.full(n, -1, np.int32),
        np.full(n, -1, np.int32),
        np.full(n, -1, np.int32),
    )


def rings_of(area: shapely.Geometry) -> list[tuple[Floats, ...]]:
    """The rings of each polygon of an area, outline first, without their closing point."""
    found = []
    # Corners that stand in a straight side come from the triangulation.
    for polygon in shapely.get_parts(shapely.simplify(area, 2 * tol.REGION_GRID)):
        if polygon.geom_type == "Polygon" and not polygon.is_empty:
            rings = [polygon.exterior, *polygon.interiors]
            found.append(tuple(shapely.get_coordinates(ring)[:-1] for ring in rings))
    return found
