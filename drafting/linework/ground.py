"""The ground in drawings: a surface without an underside, a ground line where the building meets it, contours
where they are wanted, and no earth inside the building."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache
from typing import NamedTuple

import numpy as np
import shapely
from numpy.typing import NDArray

from drafting.building.model import Building
from drafting.errors import ViewError
from drafting.linework import tolerances as tol
from drafting.linework.cuts import CutPart
from drafting.linework.model import PROFILE, SYMBOL
from drafting.linework.scene import Edges
from drafting.views.camera import UP, Camera

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]

#: What is no higher than this over the lowest point of a terrain is its underside; mm.
UNDERSIDE = 1.0
#: Faces that lean less than this (sine) are upright sides of the ground; what lies more than this looks up.
UPRIGHT, LYING = 0.02, 0.1
#: An edge of the ground runs along a face when it is no further from it than this; mm.
ALONG = 0.5
#: More levels than this no drawing shows apart.
MAX_CONTOURS = 1_000


def seen_as_ground(building: Building, camera: Camera, edges: Edges, shown: Bools) -> Edges:
    """Edges of an upright view without those of the ground's underside, and its ground line a profile; those
    of any other view as they are."""
    ground = building.ground
    if not ground.any() or not is_upright(camera):
        return edges
    which = np.flatnonzero(~(ground[edges.element] & _of_underside(building, camera, edges)))
    edges = edges.select(which)
    along = breaklines(building, camera, shown)
    edges = edges if along is None else edges.joined(along)
    leaning = np.abs(edges.normals @ camera.axes @ UP)
    rim = ground[edges.element] & (leaning.min(axis=1) < UPRIGHT) & (leaning.max(axis=1) > LYING)
    met = edges.meets >= 0
    line = rim | (met & (ground[edges.element] != ground[np.where(met, edges.meets, edges.element)]))
    return replace(edges, fixed=np.where(line, PROFILE, edges.fixed).astype(np.int8))


def is_upright(camera: Camera) -> bool:
    """Whether a camera looks level."""
    return camera.distance is None and abs(float(camera.toward @ UP)) < 1e-9


def contours(building: Building, camera: Camera, shown: Bools, interval: float) -> Edges | None:
    """The lines of equal height on the terrain, at whole intervals from the building's zero; None for none.

    Raises:
        ViewError: there would be too many.
    """
    topology = building.topology
    element = building.triangle_element[topology.face_source]
    ground = (building.ground & shown)[element] & (topology.normals[:, 2] > UPRIGHT)
    which = np.flatnonzero(ground)
    if not len(which):
        return None
    corners = topology.points[topology.faces[which]]
    first, last = (int(np.floor(z / interval)) for z in (corners[:, :, 2].min(), corners[:, :, 2].max()))
    if last - first > MAX_CONTOURS:
        raise ViewError(
            f"Contours every {interval:g} mm would be {last - first}. Give an interval of at least "
            f"{(last - first) * interval / MAX_CONTOURS:,.0f} mm."
        )
    ends, owner = [], []
    low, high = corners[:, :, 2].min(axis=1), corners[:, :, 2].max(axis=1)
    for level in range(first, last + 1):
        # A level that goes through corners is taken just above them, so that no face is a special case.
        height = level * interval + tol.IN_PLANE
        crossed = np.flatnonzero((low < height) & (high > height))
        ends.append(_crossed(corners[crossed], height))
        owner.append(which[crossed])
    points, faces = np.concatenate(ends), np.concatenate(owner)
    if not len(faces):
        return None
    plane = np.repeat(topology.plane[faces][:, None], 2, axis=1)
    normals = np.repeat((topology.normals[faces] @ camera.axes.T)[:, None], 2, axis=1)
    nothing = np.zeros(len(faces), bool)
    return Edges(
        camera.along_axes(points.reshape(-1, 3)).reshape(-1, 2, 3),
        plane,
        normals,
        np.zeros((len(faces), 2), np.int8),
        nothing,
        nothing,
        element[faces],
        building.triangle_material[topology.face_source[faces]],
        np.full(len(faces), -1, np.int32),
        np.full(len(faces), SYMBOL, np.int8),
    )


def breaklines(building: Building, camera: Camera, shown: Bools) -> Edges | None:
    """Edges of the terrain's surface that run along an upright face of something else: where its corners were
    laid along a wall, no face passes through another and yet the ground line is there. None for none."""
    topology, along = building.topology, _along_walls(building)
    element = building.triangle_element[topology.face_source]
    adjacent = topology.edge_faces[along.edge]
    kept = np.flatnonzero(shown[element[adjacent[:, 0]]] & shown[along.meets])
    if not len(kept):
        return None
    adjacent = np.where(adjacent < 0, adjacent[:, :1], adjacent)[kept]
    nothing = np.zeros(len(kept), bool)
    return Edges(
        camera.along_axes(along.pieces[kept].reshape(-1, 3)).reshape(-1, 2, 3),
        topology.plane[adjacent],
        topology.normals[adjacent] @ camera.axes.T,
        np.zeros((len(kept), 2), np.int8),
        nothing,
        nothing,
        element[adjacent[:, 0]],
        building.triangle_material[topology.face_source[adjacent[:, 0]]],
        along.meets[kept],
        np.full(len(kept), PROFILE, np.int8),
    )


class _AlongWalls(NamedTuple):
    """Pieces (m, 2, 3) of the terrain's edges, mm; the edge of the topology that each is of, and the element
    that it runs along, (m,) each."""

    pieces: Floats
    edge: NDArray[np.int64]
    meets: NDArray[np.int32]


@lru_cache(maxsize=2)
def _along_walls(building: Building) -> _AlongWalls:
    """The same for every view, so it is looked for once."""
    topology = building.topology
    element = building.triangle_element[topology.face_source]
    ground = building.ground
    none = _AlongWalls(np.empty((0, 2, 3)), np.empty(0, np.int64), np.empty(0, np.int32))
    face = np.flatnonzero(~ground[element] & (np.abs(topology.normals[:, 2]) < UPRIGHT))
    edge = np.flatnonzero(ground[element[topology.edge_faces[:, 0]]])
    if not len(face) or not len(edge):
        return none
    corners = topology.points[topology.faces[face]]
    middle = topology.points[topology.edges[edge]].mean(axis=1)
    low, high = corners.min(axis=(0, 1)) - ALONG, corners.max(axis=(0, 1)) + ALONG
    near = ((middle >= low) & (middle <= high)).all(axis=1)
    edge, middle = edge[near], middle[near]
    # From above an upright face is a line.
    ends = corners[:, :, :2]
    longest = np.argmax(np.linalg.norm(ends - np.roll(ends, -1, axis=1), axis=2), axis=1)
    row = np.arange(len(face))
    seen = shapely.linestrings(np.stack([ends[row, longest], ends[row, (longest + 1) % 3]], axis=1))
    at, which = shapely.STRtree(seen).query(shapely.points(middle[:, :2]), "dwithin", ALONG)
    height = middle[at, 2]
    within = (height >= corners[which, :, 2].min(axis=1)) & (height <= corners[which, :, 2].max(axis=1))
    # The whole edge lies in the face's plane, and not its middle alone.
    off = topology.points[topology.edges[edge[at]]] - corners[which, :1]
    within &= (np.abs((off * topology.normals[face[which]][:, None]).sum(axis=2)) < ALONG).all(axis=1)
    found, against = edge[at[within]], which[within]
    a, b = ends[row, longest][against], ends[row, (longest + 1) % 3][against]
    pieces, kept = _beside(topology.points[topology.edges[found]], a, b)
    return _AlongWalls(pieces, found[kept], element[face[against[kept]]].astype(np.int32))


def _beside(edges: Floats, start: Floats, end: Floats) -> tuple[Floats, NDArray[np.int64]]:
    """What of edges (n, 2, 3) lies beside walls from start to end (n, 2) in plan, and of which edges there is
    any."""
    way = end - start
    length = np.linalg.norm(way, axis=1)
    way = way / np.where(length > 0, length, 1.0)[:, None]
    at = ((edges[:, :, :2] - start[:, None]) * way[:, None]).sum(axis=2)
    across = np.abs(at[:, 1] - at[:, 0]) < ALONG
    run = np.where(across, 1.0, at[:, 1] - at[:, 0])
    share = np.sort(np.stack([-at[:, 0] / run, (length - at[:, 0]) / run], axis=1), axis=1).clip(0.0, 1.0)
    kept = np.flatnonzero(~across & ((share[:, 1] - share[:, 0]) * np.abs(run) > tol.SHORTEST))
    first, last = edges[kept, :1], edges[kept, 1:]
    return first + (last - first) * share[kept][:, :, None], kept


def _crossed(corners: Floats, height: float) -> Floats:
    """(n, 2, 3): where triangles (n, 3, 3) are at a height that lies between their corners'."""
    above = corners[:, :, 2] > height
    alone = np.argmax(above == (above.sum(axis=1) == 1)[:, None], axis=1)
    turned = np.take_along_axis(corners, ((alone[:, None] + np.arange(3)) % 3)[:, :, None], axis=1)
    top, others = turned[:, :1], turned[:, 1:]
    share = (height - top[:, :, 2:]) / (others[:, :, 2:] - top[:, :, 2:])
    return np.asarray(top + (others - top) * share)


def _of_underside(building: Building, camera: Camera, edges: Edges) -> Bools:
    """Which edges, if of the ground, lie at its foot or go up from there."""
    base = _feet(building)[edges.element]
    height = edges.ends @ (camera.axes @ UP) + float(camera.origin @ UP)
    low = height < base[:, None] + UNDERSIDE
    level = np.linalg.norm(edges.ends[:, 1] - edges.ends[:, 0], axis=1)
    plumb = np.abs(np.abs(height[:, 1] - height[:, 0]) - level) < UNDERSIDE * 1e-2
    return np.asarray(low.all(axis=1) | (low.any(axis=1) & plumb))


@lru_cache(maxsize=2)
def _feet(building: Building) -> Floats:
    """(number of elements,) the lowest point of each; mm."""
    height = building.vertices[building.triangles].min(axis=1)[:, 2]
    lowest = np.full(len(building.elements), np.inf)
    np.minimum.at(lowest, building.triangle_element, height)
    return lowest


def dug(building: Building, parts: Sequence[CutPart]) -> list[CutPart]:
    """What a section cuts, without earth inside the building: terrain that a file lays through rooms."""
    ground = building.ground
    if not any(ground[part.element] for part in parts):
        return list(parts)
    built = shapely.union_all(
        [part.area for part in parts if not ground[part.element]], grid_size=tol.REGION_GRID
    )
    filled = shapely.union_all(
        [shapely.Polygon(p.exterior) for p in shapely.get_parts(built) if p.geom_type == "Polygon"]
    )
    if filled.is_empty:
        return list(parts)
    return [
        part
        if not ground[part.element]
        else replace(
            part,
            area=shapely.difference(part.area, filled, grid_size=tol.REGION_GRID),
            open_lines=shapely.difference(part.open_lines, filled, grid_size=tol.REGION_GRID),
            layers=tuple(
                (material, shapely.difference(area, filled, grid_size=tol.REGION_GRID))
                for material, area in part.layers
            ),
        )
        for part in parts
    ]


def surface_of(
    building: Building, camera: Camera, outlines: list[tuple[int, Floats]]
) -> list[tuple[int, Floats]]:
    """Outlines (element, (n, 2) of u, v) of what a section cuts, those of the ground without its foot and the
    ends that go down to it."""
    ground = building.ground
    if not ground.any():
        return outlines
    feet = _feet(building) - float(camera.origin @ UP)
    found: list[tuple[int, Floats]] = []
    for element, points in outlines:
        if not ground[element]:
            found.append((element, points))
            continue
        low = points[:, 1] < feet[element] + UNDERSIDE
        # An end goes up from the foot, in more than one piece where its faces are divided.
        at_ends = np.abs(points[:, :1] - points[low, 0]).min(axis=1, initial=np.inf) < UNDERSIDE
        plumb = at_ends[:-1] & at_ends[1:] & (np.abs(np.diff(points[:, 0])) < UNDERSIDE)
        kept = ~((low[:-1] & low[1:]) | plumb)
        starts = np.flatnonzero(kept & ~np.concatenate([[False], kept[:-1]]))
        ends = np.flatnonzero(kept & ~np.concatenate([kept[1:], [False]]))
        found += [(element, points[a : b + 2]) for a, b in zip(starts, ends, strict=True)]
    return found
