"""What a cutting plane goes through: closed regions for each element and material, and their outlines."""

from __future__ import annotations

import math
from collections import defaultdict
from dataclasses import dataclass, replace

import numpy as np
import shapely
from numpy.typing import NDArray

from drafting.building.model import Building, BuildUp
from drafting.linework import tolerances as tol
from drafting.linework.scene import Faces
from drafting.views.camera import Camera, CutPlane

Floats = NDArray[np.float64]


#: Further than any building reaches from its cut, mm.
_FAR_OFF = 1e8
#: A cutting plane that leans less than this (sine) against the layers of an element lies within one of them.
ALONG_LAYERS = 1e-3


@dataclass(frozen=True, eq=False)
class CutPart:
    """What the cut goes through of one element in one material: its area, and outlines that do not close.

    `layers` are the areas of its layers, each with its material, where the file tells them.
    """

    element: int
    material: int
    area: shapely.Geometry
    open_lines: shapely.Geometry
    layers: tuple[tuple[int, shapely.Geometry], ...] = ()


def cut_parts(
    building: Building, camera: Camera, cut: CutPlane, faces: Faces, shown: NDArray[np.bool_]
) -> list[CutPart]:
    """Cut every element that is shown at one cutting plane.

    A corner that lies in the plane counts as nearer to the viewer, so that a face in the plane is no special
    case.

    Args:
        faces: all of the building's, as `faces_of` gives them.
    """
    topology = building.topology
    depth = cut.depth - tol.IN_PLANE
    points = camera.along_axes(topology.points)
    near = points[:, 2] >= depth
    of_face = near[topology.faces]
    crossing = np.flatnonzero(of_face.any(axis=1) & ~of_face.all(axis=1) & shown[faces.element])
    if not len(crossing):
        return []
    corner = topology.faces[crossing]
    alone = np.argmax(near[corner] == (near[corner].sum(axis=1) == 1)[:, None], axis=1)
    turn = (alone[:, None] + np.arange(3)) % 3
    corner = np.take_along_axis(corner, turn, axis=1)
    # The two sides that cross, each named by its corners, lower first: neighbours compute the very same
    # point.
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
    parts = []
    for (element, material), bodies in sorted(grouped.items()):
        part = _within(
            _part(element, material, [at[node[s]] for s in bodies], bool(topology.closed[element])), cut
        )
        build_up = building.build_ups.get(element)
        if build_up and not part.area.is_empty:
            part = replace(part, layers=_layers(part.area, build_up, camera, depth))
        parts.append(part)
    return parts


def _within(part: CutPart, cut: CutPlane) -> CutPart:
    """What of a part lies between the jogs of a cut."""
    if math.isinf(cut.low) and math.isinf(cut.high):
        return part
    low, high = max(cut.low, -_FAR_OFF), min(cut.high, _FAR_OFF)
    between = shapely.box(low, -_FAR_OFF, high, _FAR_OFF)
    area, lines = (
        shapely.intersection(x, between, grid_size=tol.REGION_GRID) for x in (part.area, part.open_lines)
    )
    return replace(part, area=area, open_lines=lines)


def _layers(
    area: shapely.Geometry, build_up: BuildUp, camera: Camera, depth: float
) -> tuple[tuple[int, shapely.Geometry], ...]:
    """A cut area divided into the layers of its element."""
    normal = np.array(build_up.normal)
    across = camera.axes[:2] @ normal
    # How far through the layers the point u = v = 0 of the cutting plane lies.
    at = float((camera.origin + depth * camera.toward) @ normal) - build_up.start
    ends = np.concatenate([[0.0], np.cumsum([thickness for _, thickness in build_up.layers])])
    slope = float(np.hypot(*across))
    if slope < ALONG_LAYERS:
        which = min(max(int(np.searchsorted(ends, at)) - 1, 0), len(build_up.layers) - 1)
        return ((build_up.layers[which][0], area),)
    across, along = across / slope, np.array([-across[1], across[0]]) / slope
    middle = np.array(shapely.get_coordinates(area.centroid)[0])
    # The outermost layers take what rounding leaves outside them.
    places = (ends - at) / slope - middle @ across
    places[0], places[-1] = min(places[0], -_FAR_OFF), max(places[-1], _FAR_OFF)
    found = []
    for (material, _), low, high in zip(build_up.layers, places[:-1], places[1:], strict=True):
        corners = [middle + across * a + along * b for a, b in
                   ((low, -_FAR_OFF), (high, -_FAR_OFF), (high, _FAR_OFF), (low, _FAR_OFF))]  # fmt: skip
        inside = shapely.intersection(area, shapely.Polygon(corners), grid_size=tol.REGION_GRID)
        if inside.area > tol.SHORTEST:
            found.append((material, inside))
    return tuple(found)


def merged(parts: list[CutPart]) -> list[CutPart]:
    """The parts of several cuts side by side, those of one element and material as one."""
    grouped: dict[tuple[int, int], list[CutPart]] = defaultdict(list)
    for part in parts:
        grouped[part.element, part.material].append(part)
    found = []
    for (element, material), alike in sorted(grouped.items()):
        layers: dict[int, list[shapely.Geometry]] = defaultdict(list)
        for layer, area in (pair for part in alike for pair in part.layers):
            layers[layer].append(area)
        found.append(
            CutPart(
                element,
                material,
                shapely.union_all([p.area for p in alike], grid_size=tol.REGION_GRID),
                shapely.union_all([p.open_lines for p in alike]),
                tuple(
                    (layer, shapely.union_all(areas, grid_size=tol.REGION_GRID))
                    for layer, areas in layers.items()
                ),
            )
        )
    return found


def _part(element: int, material: int, bodies: list[Floats], closed: bool) -> CutPart:
    areas, loose = [], []
    for segments in bodies:
        lines = shapely.set_precision(shapely.multilinestrings(segments), tol.REGION_GRID)
        area = shapely.build_area(shapely.node(lines))
        if not area.is_empty:
            areas.append(area)
        if closed and not area.is_empty:
            continue
        rest = lines if area.is_empty else shapely.difference(lines, area.boundary, grid_size=tol.REGION_GRID)
        if rest.length > tol.SHORTEST:
            loose.append(rest)
    area = shapely.union_all(areas, grid_size=tol.REGION_GRID) if areas else shapely.Polygon()
    return CutPart(
        element,
        material,
        area,
        shapely.line_merge(shapely.union_all(loose)) if loose else shapely.LineString(),
    )


def cut_outlines(parts: list[CutPart]) -> list[tuple[int, Floats]]:
    """(element, (n, 2) points) of the lines round what is cut. Parts of one material that touch have none
    between."""
    by_material: dict[int, list[CutPart]] = defaultdict(list)
    for part in parts:
        by_material[part.material].append(part)
    found: list[tuple[int, Floats]] = []
    for alike in by_material.values():
        whole = shapely.union_all([p.area for p in alike], grid_size=tol.REGION_GRID).boundary
        tree = shapely.STRtree([p.area for p in alike])
        for part in alike:
            border = part.area.boundary
            if len(tree.query(part.area, predicate="intersects")) > 1:
                border = shapely.intersection(border, whole, grid_size=tol.REGION_GRID)
            for geometry in (border, part.open_lines):
                lines = shapely.get_parts(shapely.line_merge(_lines_only(geometry)))
                found += [
                    (part.element, shapely.get_coordinates(line)) for line in lines if not line.is_empty
                ]
    return found


def layer_divisions(parts: list[CutPart]) -> list[tuple[int, Floats]]:
    """(element, (n, 2) points) of the lines round the layers of what is cut, the outlines of the whole among
    them."""
    nothing = shapely.LineString()
    return cut_outlines([CutPart(p.element, layer, area, nothing) for p in parts for layer, area in p.layers])


def _lines_only(geometry: shapely.Geometry) -> shapely.Geometry:
    """A geometry without the points at which two others merely touch."""
    parts = shapely.get_parts(geometry)
    return shapely.MultiLineString(
        [g for g in parts if g.geom_type in ("LineString", "LinearRing") and not g.is_empty]
    )


def caps(parts: list[CutPart], cut: CutPlane) -> Faces:
    """The cut areas as faces at their cutting plane: they hide what lies below them."""
    corners = [np.empty((0, 3, 2))]
    for part in parts:
        if not part.area.is_empty:
            triangles = shapely.get_parts(shapely.constrained_delaunay_triangles(part.area))
            if len(triangles):
                corners.append(shapely.get_coordinates(triangles).reshape(-1, 4, 2)[:, :3])
    flat = np.concatenate(corners)
    n = len(flat)
    return Faces(
        np.concatenate([flat, np.full((n, 3, 1), cut.depth - tol.IN_PLANE)], axis=2),
        np.tile([0.0, 0.0, 1.0], (n, 1)),
        np.full(n, -1, np.int32),
        np.full(n, -1, np.int32),
        np.full(n, -1, np.int32),
        np.ones(n, bool),
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
