"""The drawing engine: a building and a view in, linework out."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import shapely
from numpy.typing import NDArray

from drafting.building.model import Building
from drafting.geometry.polylines import Polylines
from drafting.linework import tolerances as tol
from drafting.linework.cuts import CutPart, caps, cut_outlines, cut_parts, layer_divisions, merged, rings_of
from drafting.linework.ground import contours, dug, is_upright, seen_as_ground, surface_of
from drafting.linework.joining import JoinedLines, join
from drafting.linework.limits import cut_edges_off, cut_off, field_of_view
from drafting.linework.model import CUT, EDGE, HIDDEN, OVERHEAD, Linework, PackedLines, PackedRegions
from drafting.linework.outlines import outline_of
from drafting.linework.plan_symbols import is_plan, with_symbols
from drafting.linework.scene import Edges, Faces, edges_of, faces_of, into_picture, limit_edges, limit_faces
from drafting.linework.segments import Segments, clipped, split_by_depth
from drafting.linework.visibility import trace
from drafting.linework.window_symbols import opening_lines
from drafting.progress import Progress, silent
from drafting.views.camera import Camera, CutPlane, nearest_depth
from drafting.views.line_settings import DEFAULT_LINE_SETTINGS, LineSettings
from drafting.views.spec import AnyView

Bools = NDArray[np.bool_]

#: What carries a floor or roof and shows below it (ISO 16739-1).
BEAMS = ("IfcBeam", "IfcBeamStandardCase", "IfcMember", "IfcMemberStandardCase")


def draw(building: Building, view: AnyView, progress: Progress = silent) -> Linework:
    """Draw a view: lines with their roles, and the regions that the cut goes through.

    Raises:
        ViewError: the view uses something that the building does not have.
    """
    linework = draw_from(
        building,
        view.camera(building),
        progress,
        shown=view.shown.mask(building),
        settings=view.line_settings,
        area=view.area,
        floor=view.floor(building) if view.line_settings.below else None,
    )
    unknown = view.shown.unknown(building)
    if unknown:
        note = f"This version of the building has no {', '.join(f'“{name}”' for name in unknown)}."
        linework = replace(linework, notes=(*linework.notes, note))
    return linework


def draw_from(
    building: Building,
    camera: Camera,
    progress: Progress = silent,
    *,
    shown: Bools | None = None,
    settings: LineSettings = DEFAULT_LINE_SETTINGS,
    area: shapely.Polygon | None = None,
    floor: float | None = None,
) -> Linework:
    """Draw what a camera sees of a building.

    Args:
        shown: (number of elements,) which of them are there; all where it is not given.
        area: of u, v that the drawing is limited to.
        floor: the depth below which what is hidden is drawn as well; None for none.
    """
    shown = np.ones(len(building.elements), bool) if shown is None else shown
    within = eye_within(building, camera, shown)
    if within:
        note = f"The eye is inside “{within}” and sees nothing. Move it out."
        return Linework(camera, notes=(note,))
    segments, parts = _seen_from(building, camera, progress, shown, settings, area, floor)
    if camera.cuts and (settings.overhead or settings.outline_above or settings.beams_above):
        progress("Looking up", 0.7)
        segments = Segments.concatenate([segments, _overhead(building, camera, shown, settings, area)])
    progress("Joining lines", 0.8)
    if settings.far or settings.bands:
        depths = [_pictured_at(building, camera, distance) for distance in settings.bands]
        far = None if settings.far is None else _pictured_at(building, camera, settings.far)
        segments = split_by_depth(segments, depths, far)
    areas = [
        (part.element, material, layer)
        for part in parts
        for material, layer in (part.layers or ((part.material, part.area),))
    ]
    if area is not None:
        segments = clipped(segments, area)
        areas = [(e, m, shapely.intersection(part, area, grid_size=tol.REGION_GRID)) for e, m, part in areas]
    return _packed(building, camera, join(segments), areas, shown)


def eye_within(building: Building, camera: Camera, shown: Bools) -> str:
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
    # How often the way straight up from the eye passes through each element: an odd number of times from
    # inside.
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
    settings: LineSettings,
    area: shapely.Polygon | None,
    floor: float | None = None,
) -> tuple[Segments, list[CutPart]]:
    """What is seen of a building, not yet joined, and what its cuts go through."""
    progress("Finding edges", 0.0)
    every = faces_of(building, camera)
    tracing = settings if floor is None else replace(settings, hidden=True)
    edges = seen_as_ground(building, camera, edges_of(building, camera, every, shown, tracing), shown)
    upright = is_upright(camera)
    wanted = [
        contours(building, camera, shown, settings.contours) if settings.contours and not upright else None,
        opening_lines(building, camera, shown) if settings.opening_windows and upright else None,
    ]
    for lines in wanted:
        edges = edges if lines is None else edges.joined(lines)
    faces = every if shown.all() else every.select(np.flatnonzero(shown[every.element]))
    if area is not None:
        faces, edges = _about(faces, edges, area)
    parts: list[CutPart] = []
    if camera.cuts:
        progress("Cutting", 0.15)
        below = []
        for cut in camera.cuts:
            here = cut_parts(building, camera, cut, every, shown)
            here = dug(building, here) if upright else here
            parts += here
            below.append((cut_off(faces, cut).joined(caps(here, cut)), cut_edges_off(edges, cut)))
        faces, edges = below[0]
        for more_faces, more_edges in below[1:]:
            faces, edges = faces.joined(more_faces), edges.joined(more_edges)
        if len(camera.cuts) > 1:
            parts = merged(parts)
    if camera.far is not None:
        beyond = (0.0, 0.0, 1.0, tol.IN_PLANE - camera.far)
        faces, edges = limit_faces(faces, beyond), limit_edges(edges, beyond)
    for plane in field_of_view(camera):
        faces, edges = limit_faces(faces, plane), limit_edges(edges, plane)
    faces, edges = into_picture(faces, edges, camera)
    progress("Finding what is hidden", 0.3)
    found = trace(faces, edges, _clearance(edges, camera), settings.seams, tracing.hidden)
    if tracing.hidden and not settings.hidden and floor is not None:
        found = found.select((found.role != HIDDEN) | (found.ends[:, :, 2] < floor + tol.SPECK).all(axis=1))
    depth = camera.cuts[0].depth if camera.cuts else 0.0
    fixed = edges.fixed[found.edge]
    role = np.where((fixed >= 0) & (found.role <= EDGE), fixed, found.role)
    seen = [Segments.of(found.ends, role, edges.element[found.edge])]
    if is_plan(camera):
        replaced = with_symbols(building, camera, shown, settings, parts, seen[0])
        parts, seen = replaced.parts, [replaced.seen, replaced.symbols]
    outlines, divisions = cut_outlines(parts), layer_divisions(parts)
    if upright:
        outlines, divisions = (surface_of(building, camera, lines) for lines in (outlines, divisions))
    return (
        Segments.concatenate([
            Segments.along(outlines, CUT, depth),
            Segments.along(divisions, EDGE, depth),
            *seen,
        ]),
        parts,
    )  # fmt: skip


def _about(faces: Faces, edges: Edges, area: shapely.Polygon) -> tuple[Faces, Edges]:
    """Those faces and edges that come near a region."""
    low, high = np.array(area.bounds[:2]) - tol.SHORTEST, np.array(area.bounds[2:]) + tol.SHORTEST

    def near(corners: NDArray[np.float64]) -> NDArray[np.int64]:
        flat = corners[:, :, :2]
        return np.flatnonzero(((flat.max(axis=1) > low) & (flat.min(axis=1) < high)).all(axis=1))

    return faces.select(near(faces.corners)), edges.select(near(edges.ends))


def _clearance(edges: Edges, camera: Camera) -> NDArray[np.float64]:
    """How far behind each edge, in pictured depth, the background of a profile has to lie."""
    middle = edges.ends[:, :, 2].mean(axis=1)
    if camera.distance is None:
        return np.full(len(edges), tol.PROFILE_CLEARANCE)
    return np.asarray(middle - camera.pictured_depth(camera.true_depth(middle) - tol.PROFILE_CLEARANCE))


def _overhead(
    building: Building, camera: Camera, shown: Bools, settings: LineSettings, area: shapely.Polygon | None
) -> Segments:
    """What is above a plan's cut, as it is seen by looking up from there: all of it, or its outline and
    beams."""
    above = Camera(
        camera.right,
        camera.up,
        -camera.toward,
        camera.origin,
        tuple(CutPlane(-cut.depth) for cut in camera.cuts),
    )
    found = []
    if settings.overhead or settings.beams_above:
        plain = LineSettings(crease=settings.crease)
        segments, _ = _seen_from(building, above, silent, shown, plain, area)
        wanted = segments.role > CUT
        if not settings.overhead:
            beams = np.array([element.ifc_class in BEAMS for element in building.elements], bool)
            wanted &= beams[segments.element]
        found.append(segments.select(np.flatnonzero(wanted)))
    if settings.outline_above:
        faces = faces_of(building, above)
        built = shown & ~building.ground
        faces = cut_off(faces.select(np.flatnonzero(built[faces.element])), above.cuts[0])
        found.append(Segments.along(outline_of(faces), OVERHEAD, above.cuts[0].depth))
    whole = Segments.concatenate(found)
    return Segments.of(
        whole.ends * np.array([1.0, 1.0, -1.0]), np.full(len(whole), OVERHEAD, np.int8), whole.element
    )


def _pictured_at(building: Building, camera: Camera, distance: float) -> float:
    """The pictured depth of what lies at a distance, as settingss measure it."""
    if camera.distance is not None:
        begins = camera.distance
    elif camera.cuts:
        begins = max(cut.depth for cut in camera.cuts)
    else:
        begins = nearest_depth(building, camera)
    return float(camera.pictured_depth(np.array(begins - distance)))


def _packed(
    building: Building,
    camera: Camera,
    found: JoinedLines,
    areas: list[tuple[int, int, shapely.Geometry]],
    shown: Bools,
) -> Linework:
    """The finished drawing. It names the elements, layers and materials that stand in it, and no others."""
    points = found.lines.points.copy()
    points[:, 2] = camera.true_depth(points[:, 2])
    regions = [(element, material, rings) for element, material, area in areas for rings in rings_of(area)]
    owners = np.concatenate([found.element, np.array([element for element, _, _ in regions], np.int32)])
    elements, element = np.unique(owners, return_inverse=True)
    layer_of = {
        name: k for k, name in enumerate(sorted({building.elements[e].layer for e in elements.tolist()}))
    }
    materials, material = np.unique(np.array([m for _, m, _ in regions], np.int32), return_inverse=True)
    layers = np.array([layer_of[building.elements[e].layer] for e in elements.tolist()], np.int32)
    count = len(found.role)
    lines = PackedLines(
        Polylines(points, found.lines.starts),
        found.role,
        found.band,
        element[:count].astype(np.int32),
        layers[element[:count]] if count else np.empty(0, np.int32),
    )
    rings = PackedRegions(
        Polylines.of([ring for _, _, rings in regions for ring in rings]),
        np.cumsum([0, *(len(rings) for _, _, rings in regions)]),
        element[count:].astype(np.int32),
        material.astype(np.int32),
    )
    return Linework(
        camera,
        lines,
        rings,
        tuple(building.elements[e].id for e in elements.tolist()),
        tuple(layer_of),
        tuple(building.materials[m] for m in materials.tolist()),
        tuple(_notes(building, camera, shown, not count)),
        tuple(building.elements[e].ifc_class for e in elements.tolist()),
        tuple(building.elements[e].material for e in elements.tolist()),
    )


def _notes(building: Building, camera: Camera, shown: Bools, empty: bool) -> list[str]:
    notes = []
    if empty and not shown.any():
        notes.append("Everything is hidden in this view.")
    elif empty and camera.cuts and _deepest(building, camera) >= max(cut.depth for cut in camera.cuts):
        notes.append("Nothing of the building lies beyond the cut.")
    elif empty:
        notes.append(f"There is nothing to draw here: no line is longer than {tol.SHORTEST:g} mm.")
    if building.failed:
        more = len(building.failed) - 1
        others = f" and {more} more" if more else ""
        verb = "are" if more else "is"
        notes.append(f"{building.failed[0]}{others} could not be read from the file and {verb} missing.")
    loose = int((~building.topology.closed & shown).sum())
    if loose:
        counted = "1 element is" if loose == 1 else f"{loose} elements are"
        notes.append(f"{counted} not closed; what can be seen into is drawn as far as the faces go.")
    return notes


def _deepest(building: Building, camera: Camera) -> float:
    return float((building.vertices @ camera.toward).min() - camera.origin @ camera.toward)
