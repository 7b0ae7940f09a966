"""What is written and measured on the sheets of the demo project."""

from __future__ import annotations

from typing import Any

from drafting.annotation.anchors import Anchor
from drafting.annotation.dimensions import Dimension
from drafting.annotation.measures import Measure
from drafting.annotation.notes import Note
from drafting.annotation.numbered_notes import NumberedNote
from drafting.annotation.outer_chains import SIDES, Side
from drafting.annotation.own_levels import LEVELLED, Beside
from drafting.annotation.pieces import AnyPiece, dump_piece
from drafting.annotation.schedules import Listed, Schedule
from drafting.annotation.spot_levels import SpotLevel
from drafting.annotation.symbols import Symbol
from server.annotations.drawn import drawn_linework
from server.annotations.models import LibrarySymbol
from server.annotations.offers import levels_of, outer_chains_of, tag_like, tags_of
from server.annotations.services import annotation_service, note_of_list_service
from server.projects.models import Project
from server.projects.presets import preset_id
from server.sheets.models import Sheet, Viewport
from server.views.models import View

#: Plans that are dimensioned outside: their sheet, and on which sides.
OUTSIDE: dict[tuple[str, str], tuple[Side, ...]] = {
    ("A-01", "Plan, Ground floor"): SIDES,
    ("A-02", "Plan, Upper floor"): ("bottom", "left"),
}
#: Plans whose doors and windows are tagged.
TAGGED = (("A-02", "Plan, Upper floor"),)
#: Elevations with levels on a side.
OWN_LEVELS: tuple[tuple[str, str, Beside], ...] = (
    ("A-03", "West elevation", "right"),
    ("A-03", "East elevation", "right"),
)
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
LEVELS = {"Section B–B": (((3500.0, 7300.0), 30.0), ((-450.0, 4100.0), -20.0))}
#: Chains of heights in views: near which places, and how far from the first, paper mm.
HEIGHTS = {"Section B–B": (((7000.0, 0.0), (7000.0, 2900.0), (3500.0, 7300.0)), -24.0)}


#: The notes of the list, by their numbers.
LISTED = {
    "1": "Larch boards, 24 mm, rough sawn, on battens; joints over battens",
    "2": "Wood fibre between the rafters, 240 mm, and 60 mm over them",
    "3": "Floor slab on compacted gravel; damp course below the sill",
    "4": "Handrail of ash, 1000 mm above the deck",
}
#: Where they stand in views: their number, near which place (u and v, mm), and the offset of the mark.
NUMBERED = {
    "Section B–B": (
        ("1", (7000.0, 4300.0), (17.0, 4.0)),
        ("2", (5200.0, 5900.0), (16.0, 12.0)),
        ("3", (3500.0, -900.0), (-17.0, -14.0)),
        ("4", (-3000.0, 1000.0), (-6.0, 16.0)),
    )
}
#: The slope of a roof: between which places of a view, and the offset of its figure, paper mm.
SLOPES = {"Section B–B": (((290.0, 4160.0), (3505.0, 6840.0)), (6.0, -6.0))}
#: Symbols in views: which, and where their insertion points lie, u and v in mm.
SYMBOLS = {
    "South elevation": (("person-standing", (7600.0, 0.0)), ("conifer-standing", (14800.0, -420.0))),
    "Survey of the site": (
        ("broadleaf-above", (-11000.0, 4200.0)),
        ("conifer-above", (-8600.0, -4600.0)),
        ("conifer-above", (-12400.0, -3000.0)),
    ),
}
#: Schedules: on which sheet, where their upper left corners lie, paper mm, and what they list.
SCHEDULES: tuple[tuple[str, tuple[float, float], Listed], ...] = (
    ("A-04", (52.0, 152.0), "rooms"),
    ("A-04", (186.0, 152.0), "doors"),
    ("A-04", (296.0, 152.0), "windows"),
    ("A-04", (388.0, 152.0), "notes"),
)


def annotate(project: Project) -> None:
    """Dimension, note and level the sheets of the demo project."""
    for (number, name), sides in OUTSIDE.items():
        viewport = Viewport.objects.get(sheet__project=project, sheet__number=number, view__name=name)
        for chain in outer_chains_of(viewport, sides, "millimetres"):
            _add(project, chain, sheet=viewport.sheet, viewport=viewport)
    for number, name in TAGGED:
        viewport = Viewport.objects.get(sheet__project=project, sheet__number=number, view__name=name)
        for tag in tags_of(viewport, ("IfcDoor", "IfcWindow"), tag_like("number", "", feet=False)):
            _add(project, tag, sheet=viewport.sheet, viewport=viewport)
    for number, name, side in OWN_LEVELS:
        viewport = Viewport.objects.get(sheet__project=project, sheet__number=number, view__name=name)
        for level in levels_of(viewport, LEVELLED, side):
            _add(project, level, sheet=viewport.sheet, viewport=viewport)
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
    _numbered(project)
    for name, (ends, offset) in SLOPES.items():
        view = View.objects.get(project=project, name=name)
        points = tuple(_near(view, place) for place in ends)
        _add(project, Measure("slope", points, offset, slope_in="degrees"), view=view)
    for name, symbols in SYMBOLS.items():
        view = View.objects.get(project=project, name=name)
        for key, place in symbols:
            _add(project, Symbol(Anchor(place), str(preset_id(LibrarySymbol, key))), view=view)
    first = Sheet.objects.get(project=project, number="A-01")
    _add(project, Note(Anchor((392.0, 200.0)), GENERAL, width=120.0), sheet=first)


def _numbered(project: Project) -> None:
    """The list of notes, where they stand, and the table that says what they mean."""
    notes = {
        number: note_of_list_service.create({"project": project, "number": number, "text": text})
        for number, text in LISTED.items()
    }
    for name, places in NUMBERED.items():
        view = View.objects.get(project=project, name=name)
        for number, place, offset in places:
            _add(project, NumberedNote(_near(view, place), str(notes[number].pk), offset), view=view)


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
