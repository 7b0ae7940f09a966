"""Terrain that a file gives as a bare surface gets the earth below it: a body that is cut with a hatch, hides
foundations, and shows a ground line however level it is."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import shapely

from drafting.building.model import (
    GROUND_CLASSES,
    GROUND_LAYER,
    GROUND_MATERIAL,
    Building,
    Element,
    Floats,
    Ints,
)

#: The earth reaches so far below the lowest point of all; mm.
DEEP = 3_000.0
#: Corners of a surface nearer than this are one; mm.
SAME = 0.1
#: Level ground reaches so far beyond a building; mm. Views show less of it.
ABOUT = 10_000.0
#: The id of level ground that no file has.
LEVEL_GROUND = "level-ground"
#: A surface lies so that a part of it at least this large looks up.
LYING = 0.9


def with_level_ground(building: Building, level: float) -> Building:
    """A building on level ground, where its file has no terrain: a body like any terrain, that is cut with
    its hatch, hides foundations and shows a ground line.

    Args:
        level: of the ground; mm.
    """
    if building.ground.any():
        sentence = "The file has terrain of its own; the level that was given for the ground is not used."
        return replace(building, warnings=(*building.warnings, sentence))
    low, high = (bound.copy() for bound in building.bounds)
    low[:2] -= ABOUT
    high[:2] += ABOUT
    low[2], high[2] = min(float(low[2]), level) - DEEP, level
    corners = np.array([[x[0], y[1], z[2]] for z in (low, high) for y in (low, high) for x in (low, high)])
    quads = ((0, 2, 3, 1), (4, 5, 7, 6), (0, 1, 5, 4), (2, 6, 7, 3), (0, 4, 6, 2), (1, 3, 7, 5))
    faces = [face for a, b, c, d in quads for face in ((a, b, c), (a, c, d))]
    materials = building.materials
    if GROUND_MATERIAL not in materials:
        materials = (*materials, GROUND_MATERIAL)
    ground = Element(LEVEL_GROUND, "Ground", GROUND_CLASSES[1], -1, GROUND_LAYER, GROUND_MATERIAL)
    bare = replace(building, elements=(*building.elements, ground), materials=materials)
    material = np.full(len(faces), materials.index(GROUND_MATERIAL), np.int32)
    return _with_mesh(bare, len(building.elements), corners, np.array(faces, np.int32), material)


def with_earth(building: Building) -> Building:
    """A building whose terrain is solid, with a sentence about each that was a surface in the file."""
    base = float(building.vertices[:, 2].min()) - DEEP
    names = []
    for k in np.flatnonzero(building.ground).tolist():
        surface = np.flatnonzero(building.triangle_element == k)
        points, faces = _welded(building.vertices, building.triangles[surface])
        first, second, third = (points[faces[:, corner]] for corner in range(3))
        normal = np.cross(second - first, third - first)
        sides = _free_sides(faces)
        flat = np.abs(normal[:, 2])
        if not len(sides) or flat.sum() < LYING * np.linalg.norm(normal, axis=1).sum():
            continue
        # Faces that look down are those of a surface that was given from below.
        down = normal[:, 2] < 0
        faces[down] = faces[down][:, [0, 2, 1]]
        earth_points, earth_faces = _earth(points, faces, _free_sides(faces), base)
        material = np.full(len(faces) + len(earth_faces), building.triangle_material[surface[0]], np.int32)
        material[: len(faces)] = building.triangle_material[surface]
        building = _with_mesh(building, k, earth_points, np.concatenate([faces, earth_faces]), material)
        names.append(building.elements[k].name or building.elements[k].ifc_class)
    if not names:
        return building
    what = f"“{names[0]}”" + (f" and {len(names) - 1} more" if len(names) > 1 else "")
    verb = "are surfaces" if len(names) > 1 else "is a surface"
    sentence = f"{what} {verb} in the file; the earth below is taken to be solid."
    return replace(building, warnings=(*building.warnings, sentence))


def _welded(vertices: Floats, triangles: Ints) -> tuple[Floats, Ints]:
    """The corners of a mesh, each place once, and its faces; without faces that have become lines."""
    used = vertices[triangles.reshape(-1)]
    _, first, number = np.unique((used / SAME).round(), axis=0, return_index=True, return_inverse=True)
    faces = number.reshape(-1, 3).astype(np.int32)
    apart = (faces != np.roll(faces, 1, axis=1)).all(axis=1)
    return used[first], np.where(apart[:, None], faces, faces[:, :1])


def _free_sides(faces: Ints) -> Ints:
    """(n, 2): the sides that only one face has, in its direction."""
    sides = faces[:, [[0, 1], [1, 2], [2, 0]]].reshape(-1, 2)
    sides = sides[sides[:, 0] != sides[:, 1]]
    _, which, count = np.unique(np.sort(sides, axis=1), axis=0, return_inverse=True, return_counts=True)
    return np.asarray(sides[count[which.reshape(-1)] == 1])


def _earth(points: Floats, faces: Ints, sides: Ints, base: float) -> tuple[Floats, Ints]:
    """The corners of a surface and those of its foot, and the faces round and below it."""
    rim, place = np.unique(sides, return_inverse=True)
    foot, low = points[rim], np.asarray(place.reshape(-1, 2), np.int32)
    below = _floor(points, faces, foot)
    if below is None:
        # Surfaces that lie over each other have the whole of it again as their floor.
        foot, low, below = points.copy(), sides, faces[:, ::-1]
    foot[:, 2] = base
    a, b, (c, d) = sides[:, 0], sides[:, 1], (low + len(points)).T
    skirt = [np.stack([b, a, c], axis=1), np.stack([b, c, d], axis=1)]
    return np.concatenate([points, foot]), np.concatenate([*skirt, below + len(points)]).astype(np.int32)


def _floor(points: Floats, faces: Ints, foot: Floats) -> Ints | None:
    """The foot's corners as faces that look down; None where they enclose no plain area."""
    flat = shapely.polygons(points[faces][:, :, :2])
    area = shapely.union_all(flat[shapely.area(flat) > 0])
    if abs(area.area - shapely.area(flat).sum()) > 1e-3 * area.area:
        return None
    triangles = shapely.get_coordinates(shapely.get_parts(shapely.constrained_delaunay_triangles(area)))
    corners = triangles.reshape(-1, 4, 2)[:, :3]
    known = {(round(x, 3), round(y, 3)): k for k, (x, y) in enumerate(foot[:, :2].tolist())}
    if len(known) < len(foot):
        return None
    numbers = [[known.get((round(x, 3), round(y, 3)), -1) for x, y in face] for face in corners.tolist()]
    below = np.array(numbers, np.int32).reshape(-1, 3)
    if (below < 0).any():
        return None
    p, q, r = (foot[below[:, k], :2] for k in range(3))
    up = (q - p)[:, 0] * (r - p)[:, 1] - (q - p)[:, 1] * (r - p)[:, 0] > 0
    below[up] = below[up][:, ::-1]
    return below


def _with_mesh(building: Building, element: int, points: Floats, faces: Ints, material: Ints) -> Building:
    """A building in which an element has another mesh, in the same place among the others."""
    kept = building.triangle_element != element
    materials = np.concatenate([building.triangle_material[kept], material])
    owner = np.concatenate([building.triangle_element[kept], np.full(len(faces), element, np.int32)])
    order = np.argsort(owner, kind="stable")
    triangles = np.concatenate([building.triangles[kept], faces + len(building.vertices)]).astype(np.int32)
    places = building.texture_places
    if len(places):
        places = np.concatenate([places[kept], np.full((len(faces), 3, 2), np.nan, np.float32)])[order]
    return replace(
        building,
        texture_places=places,
        vertices=np.concatenate([building.vertices, points]),
        triangles=triangles[order],
        triangle_element=owner[order].astype(np.int32),
        triangle_material=materials[order].astype(np.int32),
    )
