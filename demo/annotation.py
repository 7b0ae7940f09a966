"""What is written and measured on the sheets of the demo project."""

from __future__ import annotations

from typing import Any

from drafting.annotation.anchors import Anchor
from drafting.annotation.dimensions import Dimension
from drafting.annotation.notes import Note
from drafting.annotation.outer_chains import SIDES, Side
from drafting.annotation.pieces import AnyPiece, dump_piece
from drafting.annotation.schedules import Listed, Schedule
from drafting.annotation.spot_levels import SpotLevel
from server.annotations.drawn import drawn_linework
from server.annotations.services import annotation_service, outer_chains_of, tags_of
from server.projects.models import Project
from server.sheets.models import Sheet, Viewport
from server.views.models import View

#: Plans that are dimensioned outside: their sheet, and on which sides.
OUTSIDE: dict[tuple[str, str], tuple[Side, ...]] = {
    ("A-01", "Plan, Ground floor"): SIDES,
    ("A-02", "Plan, Upper floor"): ("bottom", "left"),
}
#: Plans whose doors and windows are tagged.
TAGGED = (("A-02", "Plan, Upper floor"),)
GENERAL = """General notes
- Dimensions in millimetres, levels in metres above the ground floor.
- Take figures, and do not scale from this drawing.
- All timber of the island's own larch, felled in winter."""
#: What is noted in views: near which place (u and v, mm), the offset of the words (paper mm), and the words.
NOTES = {
    "Section A–A": (
        ((4100.0, 6900.0), (6.0, 44.0), "Roof\n- cedar shingles on battens\n- wood fibre, 240 mm"),
        ((15400.0, 0.0), (12.0, 26.0), "Damp course 150 mm above the ground"),
    ),
    "South elevation": (((0.0, 8200.0), (14.0, 16.0), "Tower clad in tarred boards"),),
}
#: Heights in views: near which places, and how far beside them they stand, paper mm.
LEVELS = {"Section B–B": (((3500.0, 7300.0), 34.0), ((-450.0, 4100.0), -20.0))}
#: Chains of heights in views: near which places, and how far from the first, paper mm.
HEIGHTS = {"Section B–B": (((7000.0, 0.0), (7000.0, 2900.0), (3500.0, 7300.0)), -24.0)}


#: Schedules: on which sheet, where their upper left corners lie, paper mm, and what they list.
SCHEDULES: tuple[tuple[str, tuple[float, float], Listed], ...] = (
    ("A-04", (52.0, 152.0), "rooms"),
    ("A-04", (186.0, 152.0), "doors"),
    ("A-04", (296.0, 152.0), "windows"),
)


def annotate(project: Project) -> None:
    """Dimension, note and level the sheets of the demo project."""
    for (number, name), sides in OUTSIDE.items():
        viewport = Viewport.objects.get(sheet__project=project, sheet__number=number, view__name=name)
        for chain in outer_chains_of(viewport, sides, "millimetres"):
            _add(project, chain, sheet=viewport.sheet, viewport=viewport)
    for number, name in TAGGED:
        viewport = Viewport.objects.get(sheet__project=project, sheet__number=number, view__name=name)
        for tag in tags_of(viewport, ("doors", "windows"), "number"):
            _add(project, tag, sheet=viewport.sheet, viewport=viewport)
    for name, notes in NOTES.items():
        view = View.objects.get(project=project, name=name)
        for place, corner, text in notes:
            note = Note(_near(view, place), text, corner, 46.0, leader="arrow")
            _add(project, note, view=view)
    for name, places in LEVELS.items():
        view = View.objects.get(project=project, name=name)
        for place, offset in places:
            _add(project, SpotLevel(_near(view, place), offset), view=view)
    for name, (ends, away) in HEIGHTS.items():
        view = View.objects.get(project=project, name=name)
        points = tuple(_near(view, place) for place in ends)
        _add(project, Dimension(points, "vertical", away, 6.0), view=view)
    for number, corner, listed in SCHEDULES:
        sheet = Sheet.objects.get(project=project, number=number)
        _add(project, Schedule(Anchor(corner), listed), sheet=sheet)
    first = Sheet.objects.get(project=project, number="A-01")
    _add(project, Note(Anchor((392.0, 200.0)), GENERAL, width=120.0), sheet=first)


def _near(view: View, place: tuple[float, float]) -> Anchor:
    """The corner of what is drawn in a view that lies nearest to a place."""
    if view.linework is None:
        raise SystemExit(f"“{view.name}” has not been drawn.")
    linework, corners = drawn_linework(view.linework)
    known = {element: found for element in linework.elements if (found := corners.of(element))}
    _, at, element = min(
        ((u - place[0]) ** 2 + (v - place[1]) ** 2, (u, v), element)
        for element, found in known.items()
        for u, v in found.places
    )
    return Anchor(at, element)


def _add(project: Project, piece: AnyPiece, **home: Any) -> None:
    annotation_service.create({"project": project, "spec": dump_piece(piece), **home})
