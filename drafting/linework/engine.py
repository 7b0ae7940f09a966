"""The drawing engine: a building and a view in, linework out."""

from __future__ import annotations

import numpy as np

from drafting.building.model import Building
from drafting.linework import tolerances as tol
from drafting.linework.cuts import CutPart, caps, cut_outlines, cut_parts, rings_of
from drafting.linework.joining import Strokes, join
from drafting.linework.model import CUT, EDGE, PROFILE, Linework, Region, lines_from
from drafting.linework.scene import Faces, edges_of, faces_of, limit_edges, limit_faces
from drafting.linework.visibility import visible_pieces
from drafting.progress import Progress, silent
from drafting.views.camera import Camera, camera_for
from drafting.views.spec import ViewSpec


def draw(building: Building, view: ViewSpec, progress: Progress = silent) -> Linework:
    """Draw a view: visible lines with their roles, and the regions that the cut goes through.

    Raises:
        ViewError: the view asks for something the building has not.
    """
    return draw_from(building, camera_for(building, view), progress)


def draw_from(building: Building, camera: Camera, progress: Progress = silent) -> Linework:
    """Draw what a camera sees of a building."""
    progress("Finding edges", 0.0)
    faces = faces_of(building, camera)
    edges = edges_of(building, camera, faces)
    parts: list[CutPart] = []
    if camera.cut is not None:
        progress("Cutting", 0.15)
        at = camera.cut - tol.IN_PLANE
        parts = cut_parts(building, camera, at, faces)
        faces = limit_faces(faces, at, keep_nearer=False).joined(caps(parts, at))
        edges = limit_edges(edges, at, keep_nearer=False)
    if camera.far is not None:
        faces = limit_faces(faces, camera.far, keep_nearer=True)
        edges = limit_edges(edges, camera.far, keep_nearer=True)
    progress("Finding what is hidden", 0.3)
    seen = visible_pieces(faces, edges)
    progress("Joining lines", 0.8)
    outline = _outline_strokes(parts, camera)
    lines = join(
        Strokes(
            np.concatenate([outline.ends, seen.ends]),
            np.concatenate([outline.role, np.where(seen.profile, PROFILE, EDGE).astype(np.int8)]),
            np.concatenate([outline.element, edges.element[seen.edge]]),
        )
    )
    regions = tuple(
        Region(building.elements[part.element].id, building.materials[part.material], rings)
        for part in parts
        for rings in rings_of(part.area)
    )
    return Linework(
        camera,
        tuple(lines_from(building, lines.points, lines.starts, lines.role, lines.element)),
        regions,
        notes=() if len(lines.role) else (_why_empty(camera, faces),),
    )


def _outline_strokes(parts: list[CutPart], camera: Camera) -> Strokes:
    found = cut_outlines(parts)
    ends = [np.stack([line[:-1], line[1:]], axis=1) for _, line in found]
    flat = np.concatenate([np.empty((0, 2, 2)), *ends])
    owner = np.repeat(np.array([e for e, _ in found], np.int32), [len(x) for x in ends])
    depth = np.full((len(flat), 2, 1), camera.cut or 0.0)
    return Strokes(np.concatenate([flat, depth], axis=2), np.full(len(flat), CUT, np.int8), owner)


def _why_empty(camera: Camera, faces: Faces) -> str:
    if camera.cut is not None and not len(faces):
        return "Nothing of the building lies beyond the cut."
    return f"No line here is longer than {tol.SHORTEST:g} mm."
