"""The drawing engine: a building and a view in, linework out."""

from __future__ import annotations

import math
from dataclasses import replace
from itertools import pairwise

import numpy as np
import shapely
from numpy.typing import NDArray

from drafting.building.model import Building
from drafting.linework import tolerances as tol
from drafting.linework.cuts import CutPart, caps, cut_outlines, cut_parts, layer_divisions, rings_of, together
from drafting.linework.joining import Polylines, join
from drafting.linework.model import CUT, EDGE, OVERHEAD, ROLES, Line, Linework, Region
from drafting.linework.scene import Edges, Faces, edges_of, faces_of, into_picture, limit_edges, limit_faces
from drafting.linework.strokes import Strokes, clipped, split_by_depth
from drafting.linework.visibility import trace
from drafting.progress import Progress, silent
from drafting.views.camera import NEAREST, Camera, Cut, camera_for, nearest_depth
from drafting.views.spec import ViewSpec
from drafting.views.treatment import USUAL, Treatment

Bools = NDArray[np.bool_]

#: Sides of the circle that a round detail is cut out with; 2 degrees between them.
CIRCLE_SIDES = 180


def draw(building: Building, view: ViewSpec, progress: Progress = silent) -> Linework:
    """Draw a view: lines with their roles, and the regions that the cut goes through.

    Raises:
        ViewError: the view asks for something the building has not.
    """
    shown = view.shown.of(building)
    camera = camera_for(building, view)
    region = None if view.region is None else region_of(view.region)
    linework = draw_from(building, camera, progress, shown=shown, treatment=view.treatment, region=region)
    unknown = view.shown.unknown(building)
    if unknown:
        told = f"This version of the building has no {', '.join(f'“{name}”' for name in unknown)}."
        linework = replace(linework, notes=(*linework.notes, told))
    return linework


def region_of(figures: tuple[float, ...]) -> shapely.Polygon:
    """The area that a detail's region describes, see `ViewSpec.region`."""
    if len(figures) == 3:
        u, v, radius = figures
        turns = [2 * math.pi * k / CIRCLE_SIDES for k in range(CIRCLE_SIDES)]
        return shapely.Polygon([(u + radius * math.cos(t), v + radius * math.sin(t)) for t in turns])
    if len(figures) == 4:
        (u0, u1), (v0, v1) = sorted(figures[::2]), sorted(figures[1::2])
        return shapely.box(u0, v0, u1, v1)
    return shapely.make_valid(shapely.Polygon(np.reshape(figures, (-1, 2))))


def draw_from(
    building: Building,
    camera: Camera,
    progress: Progress = silent,
    *,
    shown: Bools | None = None,
    treatment: Treatment = USUAL,
    region: shapely.Polygon | None = None,
) -> Linework:
    """Draw what a camera sees of a building.

    Args:
        shown: (number of elements,) which of them are there; all where it is not given.
        region: an area of u, v that the drawing is limited to.
    """
    shown = np.ones(len(building.elements), bool) if shown is None else shown
    within = _eye_within(building, camera, shown)
    if within:
        told = f"The eye stands inside “{within}” and sees nothing. Move it out."
        return Linework(camera, (), (), (told,))
    strokes, parts = _seen_from(building, camera, progress, shown, treatment, region)
    if treatment.overhead and camera.cuts:
        progress("Looking up", 0.7)
        strokes = Strokes.together([strokes, _overhead(building, camera, shown, treatment, region)])
    progress("Joining lines", 0.8)
    if treatment.far or treatment.bands:
        depths = [_pictured_at(building, camera, distance) for distance in treatment.bands]
        far = None if treatment.far is None else _pictured_at(building, camera, treatment.far)
        strokes = split_by_depth(strokes, depths, far)
    areas = [
        (part.element, material, area)
        for part in parts
        for material, area in (part.layers or ((part.material, part.area),))
    ]
    if region is not None:
        strokes = clipped(strokes, region)
        areas = [(e, m, shapely.intersection(area, region, grid_size=tol.REGION_GRID)) for e, m, area in areas]
    lines = join(strokes)
    return Linework(
        camera,
        tuple(_lines(building, camera, lines)),
        tuple(
            Region(building.elements[element].id, building.materials[material], rings)
            for element, material, area in areas
            for rings in rings_of(area)
        ),
        notes=tuple(_notes(building, camera, shown, not len(lines.role))),
    )


def _eye_within(building: Building, camera: Camera, shown: Bools) -> str:
    """The name of a closed element that the eye of a perspective stands inside of; "" for none."""
    if camera.distance is None:
        return ""
    eye = camera.origin + camera.distance * camera.toward
    topology = building.topology
    element = building.triangle_element[topology.face_source]
    corners = topology.points[topology.faces] - eye
    low, high = corners[:, :, :2].min(axis=1), corners[:, :, :2].max(axis=1)
    over = ((low <= 0) & (high > 0)).all(axis=1) & topology.closed[element] & shown[element]
    flat, plane = corners[over], topology.normals[over]
    # How often the way straight up from the eye passes through each element: an odd number of times from inside.
    sides = np.zeros(len(flat), np.int64)
    for k in range(3):
        a, b = flat[:, k], flat[:, (k + 1) % 3]
        # Lower end first: two triangles that share a side then give it to just one of them.
        a, b = np.where((a[:, 1] <= b[:, 1])[:, None], a, b), np.where((a[:, 1] <= b[:, 1])[:, None], b, a)
        rise = np.where(a[:, 1] == b[:, 1], 1.0, b[:, 1] - a[:, 1])
        sides += ((a[:, 1] > 0) != (b[:, 1] > 0)) & (a[:, 0] - a[:, 1] * (b[:, 0] - a[:, 0]) / rise > 0)
    inside = sides % 2 == 1
    upright = np.abs(plane[:, 2]) < tol.EDGE_ON
    height = (plane * flat[:, 0]).sum(axis=1) / np.where(upright, 1.0, plane[:, 2])
    passed = np.bincount(element[over][inside & ~upright & (height > 0)], minlength=len(building.elements))
    within = np.flatnonzero(passed % 2)
    return building.elements[within[0]].name if len(within) else ""


def _seen_from(
    building: Building,
    camera: Camera,
    progress: Progress,
    shown: Bools,
    treatment: Treatment,
    region: shapely.Polygon | None,
) -> tuple[Strokes, list[CutPart]]:
    """What is seen of a building, not yet joined, and what its cuts go through."""
    progress("Finding edges", 0.0)
    every = faces_of(building, camera)
    edges = edges_of(building, camera, every, shown, treatment)
    faces = every if shown.all() else every.take(np.flatnonzero(shown[every.element]))
    if region is not None:
        faces, edges = _about(faces, edges, region)
    parts: list[CutPart] = []
    if camera.cuts:
        progress("Cutting", 0.15)
        below = []
        for cut in camera.cuts:
            here = cut_parts(building, camera, cut, every, shown)
            parts += here
            below.append((_cut_off(faces, cut).joined(caps(here, cut)), _cut_edges_off(edges, cut)))
        faces, edges = below[0]
        for more_faces, more_edges in below[1:]:
            faces, edges = faces.joined(more_faces), edges.joined(more_edges)
        if len(camera.cuts) > 1:
            parts = together(parts)
    if camera.far is not None:
        beyond = (0.0, 0.0, 1.0, tol.IN_PLANE - camera.far)
        faces, edges = limit_faces(faces, beyond), limit_edges(edges, beyond)
    for plane in _field_of_view(camera):
        faces, edges = limit_faces(faces, plane), limit_edges(edges, plane)
    faces, edges = into_picture(faces, edges, camera)
    progress("Finding what is hidden", 0.3)
    found = trace(faces, edges, _clearance(edges, camera), treatment.seams, treatment.hidden)
    depth = camera.cuts[0].depth if camera.cuts else 0.0
    return (
        Strokes.together([
            Strokes.along(cut_outlines(parts), CUT, depth),
            Strokes.along(layer_divisions(parts), EDGE, depth),
            Strokes.of(found.ends, found.role, edges.element[found.edge]),
        ]),
        parts,
    )  # fmt: skip


def _about(faces: Faces, edges: Edges, region: shapely.Polygon) -> tuple[Faces, Edges]:
    """Those faces and edges that come near a region."""
    low, high = np.array(region.bounds[:2]) - tol.SHORTEST, np.array(region.bounds[2:]) + tol.SHORTEST

    def near(corners: NDArray[np.float64]) -> NDArray[np.int64]:
        flat = corners[:, :, :2]
        return np.flatnonzero(((flat.max(axis=1) > low) & (flat.min(axis=1) < high)).all(axis=1))

    return faces.take(near(faces.corners)), edges.take(near(edges.ends))


def _planes_of(cut: Cut) -> list[tuple[float, float, float, float]]:
    """What lies beyond a cut, between its jogs."""
    planes = [(0.0, 0.0, -1.0, cut.depth - tol.IN_PLANE)]
    if math.isfinite(cut.low):
        planes.append((1.0, 0.0, 0.0, -cut.low))
    if math.isfinite(cut.high):
        planes.append((-1.0, 0.0, 0.0, cut.high))
    return planes


def _cut_off(faces: Faces, cut: Cut) -> Faces:
    for plane in _planes_of(cut):
        faces = limit_faces(faces, plane)
    return faces


def _cut_edges_off(edges: Edges, cut: Cut) -> Edges:
    for plane in _planes_of(cut):
        edges = limit_edges(edges, plane)
    return edges


def _field_of_view(camera: Camera) -> list[tuple[float, float, float, float]]:
    """The planes within which a perspective sees: before the eye, and a square about the target."""
    if camera.distance is None:
        return []
    half = math.tan(math.radians(camera.angle) / 2)
    sides = [(a, b, -half, half * camera.distance) for a, b in ((1.0, 0.0), (-1.0, 0.0), (0.0, 1.0), (0.0, -1.0))]
    return [(0.0, 0.0, -1.0, camera.distance - NEAREST), *sides]


def _clearance(edges: Edges, camera: Camera) -> NDArray[np.float64]:
    """How far behind each edge, in pictured depth, the background of a profile has to lie."""
    middle = edges.ends[:, :, 2].mean(axis=1)
    if camera.distance is None:
        return np.full(len(edges), tol.PROFILE_CLEARANCE)
    return np.asarray(middle - camera.pictured_depth(camera.true_depth(middle) - tol.PROFILE_CLEARANCE))


def _overhead(
    building: Building, camera: Camera, shown: Bools, treatment: Treatment, region: shapely.Polygon | None
) -> Strokes:
    """What hangs above a plan's cut, as it is seen by looking up from there."""
    above = Camera(
        camera.right, camera.up, -camera.toward, camera.origin, tuple(Cut(-cut.depth) for cut in camera.cuts)
    )
    plain = Treatment(crease=treatment.crease)
    strokes, _ = _seen_from(building, above, silent, shown, plain, region)
    strokes = strokes.take(np.flatnonzero(strokes.role > CUT))
    return Strokes.of(
        strokes.ends * np.array([1.0, 1.0, -1.0]), np.full(len(strokes), OVERHEAD, np.int8), strokes.element
    )


def _pictured_at(building: Building, camera: Camera, distance: float) -> float:
    """The pictured depth of what lies at a distance, as treatments measure it."""
    if camera.distance is not None:
        begins = camera.distance
    elif camera.cuts:
        begins = max(cut.depth for cut in camera.cuts)
    else:
        begins = nearest_depth(building, camera)
    return float(camera.pictured_depth(np.array(begins - distance)))


def _lines(building: Building, camera: Camera, found: Polylines) -> list[Line]:
    points = np.concatenate([found.points[:, :2], camera.true_depth(found.points[:, 2:])], axis=1)
    owners = [building.elements[element] for element in found.element.tolist()]
    ends = pairwise(found.starts.tolist())
    return [
        Line(ROLES[role], owner.id, owner.layer, points[start:end], band)
        for role, owner, (start, end), band in zip(found.role.tolist(), owners, ends, found.band.tolist(), strict=True)
    ]


def _notes(building: Building, camera: Camera, shown: Bools, empty: bool) -> list[str]:
    notes = []
    if empty and not shown.any():
        notes.append("Everything is left out of this view.")
    elif empty and camera.cuts and _deepest(building, camera) >= max(cut.depth for cut in camera.cuts):
        notes.append("Nothing of the building lies beyond the cut.")
    elif empty:
        notes.append(f"There is nothing to draw here: no line is longer than {tol.SHORTEST:g} mm.")
    loose = int((~building.topology.closed & shown).sum())
    if loose:
        told = "1 element is" if loose == 1 else f"{loose} elements are"
        notes.append(f"{told} not closed; what can be seen into is drawn as far as the faces go.")
    return notes


def _deepest(building: Building, camera: Camera) -> float:
    return float((building.vertices @ camera.toward).min() - camera.origin @ camera.toward)
