"""From the rows of a sheet to the core's sheet, and from there to its display list."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import date
from itertools import groupby
from typing import Any, TypeVar
from uuid import UUID

import numpy as np
from django.db.models import Prefetch, QuerySet
from django.http import Http404
from django.utils import timezone
from shapely import Polygon

from drafting.annotation.pieces import PlacedPiece
from drafting.building.climbs import Climb, climb_from
from drafting.building.openings import Opening
from drafting.building.rooms import Room, room_from
from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.render.annotation_items import DrawnPieces
from drafting.render.compose import compose
from drafting.render.display_list import DisplayList
from drafting.sheets import sheet as core
from drafting.sheets.climb_tags import climb_tags_in
from drafting.sheets.fields import FIELDS, Revision
from drafting.sheets.grid_marks import grid_in
from drafting.sheets.level_marks import levels_in
from drafting.sheets.marked_view import MarkedView, north_on_paper
from drafting.sheets.picture import Picture
from drafting.sheets.reference_marks import Reference, Subject, marks_in
from drafting.sheets.room_tags import filled_rooms_in, room_tags_in
from drafting.sheets.template import TemplateSpec
from drafting.sheets.viewport import TouchedUp
from drafting.sheets.viewport import Viewport as CoreViewport
from drafting.sheets.viewport_marks import ViewportMarks
from drafting.sheets.words import words_in
from drafting.styles.pen_table import PenTableSpec
from server.buildings.models import newest_version
from server.common.made_once import part_made_once
from server.common.readable import name_of, readable, why_not
from server.projects.models import Project
from server.sheets.models import Register, Sheet, Viewport
from server.sheets.services import register_as_it_is
from server.sheets.templates import pictures_of, templates_of
from server.sheets.viewports import as_core, check_stored
from server.styles.services import pen_tables_of
from server.views.models import View

R = TypeVar("R")
T = TypeVar("T")
GridLine = tuple[str, tuple[float, float], tuple[float, float]]
#: The core's FIELDS that a sheet or its project has a column for: by the name of the column.
SHEET_FIELDS = tuple(key for key, field in FIELDS.items() if field.of == "sheet")
PROJECT_FIELDS = {key: {"project": "name", "project_number": "number"}.get(key, key)
                  for key, field in FIELDS.items() if field.of == "project"}  # fmt: skip


@dataclass(frozen=True)
class WholeSet:
    """What the sheets of a project say of each other and of the building; the same for all of them.

    Attributes:
        order: ids of the sheets, in register order.
        register: what holds for all sheets.
        subjects: the views that are marked on others.
        storeys: name and elevation (mm) of each.
        true_north: degrees from the model's y axis, if the model says it.
        grid: name and ends (mm) of each line of the building's grid.
        rooms, climbs, openings: the rooms of the building, its flights and ramps, its doors and windows.
        templates: by their ids.
        pictures: by what templates call them.
        pens: pen tables, by their ids.
        memo: what sources of pieces look up once for the whole set, each by a name of its own.
        unreadable: by the ids of sheets, sentences about what stands on them but cannot be read.
    """

    order: tuple[Any, ...]
    register: Register
    subjects: tuple[Subject, ...]
    storeys: tuple[tuple[str, float], ...]
    true_north: float | None
    grid: tuple[GridLine, ...]
    rooms: tuple[Room, ...]
    climbs: tuple[Climb, ...]
    openings: tuple[Opening, ...]
    templates: Mapping[Any, TemplateSpec]
    pictures: Mapping[str, Picture]
    pens: Mapping[str, PenTableSpec]
    memo: dict[str, Any] = field(default_factory=dict, compare=False)
    unreadable: dict[Any, list[str]] = field(default_factory=dict, compare=False)

    def readable(self, sheet: Sheet, rows: Iterable[R], read: Callable[[R], T]) -> Iterator[tuple[R, T]]:
        """What stands on a sheet, each with what `read` makes of it, without what cannot be read: of that it
        is noted that the sheet is composed without it."""

        def leave_out(row: Any, error: Exception) -> None:
            name = name_of(row)
            self._note(sheet, f"{name[:1].upper()}{name[1:]} cannot be read: {why_not(error)}")

        return readable(rows, read, leave_out)

    def _note(self, sheet: Sheet, sentence: str) -> None:
        self.unreadable.setdefault(sheet.pk, []).append(sentence)

    def check_pens(self, sheet: Sheet, row: Viewport) -> None:
        """Note where the pen table of a viewport cannot be read: it is drawn with its sheet's."""
        if row.pen_table_id and str(row.pen_table_id) not in self.pens:
            self._note(sheet, f"The pen table of {name_of(row)} cannot be read: its sheet's is taken.")

    def template_of(self, sheet: Sheet) -> TemplateSpec:
        """The template of a sheet.

        Raises:
            SheetError: it cannot be read.
        """
        found = self.templates.get(sheet.template_id)
        if found is None:
            name = sheet.template.name
            raise SheetError(f"The template “{name}” cannot be read. Give {sheet.number} another template.")
        return found

    def pens_of(self, sheet: Sheet) -> PenTableSpec:
        """The pen table that a sheet is drawn with.

        Raises:
            SheetError: it cannot be read.
        """
        found = self.pens.get(str(sheet.pen_table_id or self.register.pen_table_id))
        if found is None:
            name = (sheet.pen_table or self.register.pen_table).name
            raise SheetError(f"The pen table “{name}” cannot be read. Draw {sheet.number} with another.")
        return found

    @classmethod
    def of(cls, project: Project) -> WholeSet:
        newest = newest_version(project)
        facts = newest.facts if newest else {}
        return cls(
            tuple(Sheet.objects.filter(project=project).values_list("pk", flat=True)),
            register_as_it_is(project),
            tuple(subjects_of(project)),
            tuple((storey["name"], storey["elevation"]) for storey in facts.get("storeys", [])),
            facts.get("true_north"),
            tuple(
                (line["name"], tuple(line["ends"][0]), tuple(line["ends"][1]))
                for line in facts.get("grid", [])
            ),
            tuple(room_from(room) for room in facts.get("rooms", [])),
            tuple(climb_from(climb) for climb in facts.get("climbs", [])),
            tuple(Opening(**opening) for opening in facts.get("openings", [])),
            templates_of(project),
            pictures_of(project),
            pen_tables_of(project),
        )


PiecesOn = Callable[[Sheet, Sequence[Viewport], core.Sheet, "WholeSet"], Iterable[PlacedPiece]]
_pieces: list[PiecesOn] = []


IssueColumns = Callable[[Project, int], tuple[list[tuple[str, str]], Mapping[str, list[str]]]]
_issue_columns: list[IssueColumns] = []


TouchUpsIn = Callable[[Sheet, Sequence[Viewport], "WholeSet"], Mapping[str, TouchedUp]]
_touch_ups: list[TouchUpsIn] = []


def register_touch_ups(source: TouchUpsIn) -> None:
    """Say what is drawn otherwise: `source` is asked with a sheet, its viewports, and the whole set."""
    _touch_ups.append(source)


def register_issue_columns(source: IssueColumns) -> None:
    """Say what was issued: `source` gives date and purpose of the last so many issues, and by the id of each
    sheet its revision in each."""
    _issue_columns.append(source)


def register_pieces(source: PiecesOn) -> None:
    """Say what else stands on sheets: `source` is asked with a sheet, its viewports, what the core has of it,
    and the whole set."""
    _pieces.append(source)


def display_on(sheet: UUID, _day: date) -> bytes:
    """The display list of a sheet by its id, as JSON, as it is on a day."""
    found = Sheet.objects.filter(pk=sheet).first()
    if found is None:
        raise Http404
    return display_of(found).as_json()


def display_of(sheet: Sheet) -> DisplayList:
    """The display list of a sheet."""
    whole = part_made_once(_whole_set, sheet.project_id)
    return composed(sheet, replace(whole, memo={}, unreadable={}))[1]


def _whole_set(project: UUID) -> WholeSet:
    return WholeSet.of(Project.objects.get(pk=project))


def composed(sheet: Sheet, whole: WholeSet) -> tuple[core.Sheet, DisplayList]:
    """A sheet and its display list. Whoever wants several looks the whole set up once."""
    whole.unreadable.pop(sheet.pk, None)
    rows = viewports_of(sheet, whole)
    made = _touched_up(as_core_sheet(sheet, rows, whole), sheet, rows, whole)
    pieces = DrawnPieces.of(piece for source in _pieces for piece in source(sheet, rows, made, whole))
    # Marks keep clear of what is dimensioned.
    taken: dict[str, list[Box]] = defaultdict(list)
    for box in pieces.boxes:
        if box.kind == "dimension":
            taken[box.viewport].append(box.box)
    made = replace(made, marks=marks_of(rows, made.viewports, whole, taken))
    made = replace(made, unreadable=tuple(whole.unreadable.get(sheet.pk, ())))
    return made, compose(made, whole.pens_of(sheet), whole.pens, pieces)


def _touched_up(made: core.Sheet, sheet: Sheet, rows: Sequence[Viewport], whole: WholeSet) -> core.Sheet:
    """A sheet with what is drawn otherwise in its viewports."""
    for source in _touch_ups:
        found = source(sheet, rows, whole)
        viewports = (replace(each, touched=found.get(each.id, TouchedUp())) for each in made.viewports)
        made = replace(made, viewports=tuple(viewports))
    return made


def viewports_of(sheet: Sheet, whole: WholeSet) -> list[Viewport]:
    """The viewports on a sheet with their drawings, the lowest first. Those that cannot be read are left out;
    the others keep their numbers."""
    rows = list(sheet.viewports.select_related("view__linework", "linework", "traced"))
    for number, row in enumerate(rows, 1):
        row.drawing_number = number
    found = [row for row, _ in whole.readable(sheet, rows, check_stored)]
    for row in found:
        whole.check_pens(sheet, row)
    return found


def as_core_sheet(sheet: Sheet, rows: Sequence[Viewport], whole: WholeSet) -> core.Sheet:
    """The core's sheet of a row and its viewports, with what is derived from the set, but without marks."""
    project = sheet.project
    words = words_in(project.language)
    viewports = tuple(as_core(row, row.drawing_number, words) for row in rows)
    return core.Sheet(
        sheet.as_paper,
        {key: getattr(project, column) for key, column in PROJECT_FIELDS.items()}
        | {key: getattr(sheet, key) for key in SHEET_FIELDS},
        viewports,
        drawing_list=drawing_list_on(sheet),
        template=whole.template_of(sheet),
        overrides=sheet.overrides,
        revisions=tuple(Revision(**revision) for revision in sheet.revisions),
        place=(whole.order.index(sheet.pk) + 1, len(whole.order)),
        plot_date=timezone.localdate().isoformat(),
        pictures=whole.pictures,
    )


def drawing_list_on(sheet: Sheet) -> core.DrawingList | None:
    """The list of the set's drawings, if it stands on this sheet."""
    if sheet.drawing_list is None:
        return None
    rows = []
    columns: list[tuple[str, str]] = []
    cells: Mapping[str, list[str]] = {}
    for source in _issue_columns:
        columns, cells = source(sheet.project, sheet.drawing_list.get("issues", 0))
    words = words_in(sheet.project.language)
    for each in _listed(sheet.project):
        placed = readable(each.viewports.all(), lambda row: row.view.as_core)
        scales = (str(row.scale) if view.to_scale else words.not_to_scale for row, view in placed)
        paper = each.as_paper.name
        scale = words.scale(list(scales))
        issued = cells.get(str(each.pk), [""] * len(columns))
        rows.append((each.number, each.title, paper, scale, each.revision, *issued))
    at = sheet.drawing_list["x"], sheet.drawing_list["y"]
    return core.DrawingList(at, tuple(rows), tuple(columns))


def _listed(project: Project) -> QuerySet[Sheet]:
    """The sheets of a project with what a list of drawings says of them: it is composed anew for nothing
    else."""
    scales = Viewport.objects.select_related("view").only(
        "sheet", "scale_paper", "scale_real", "scale_in_feet", "view__spec"
    )
    sheets = Sheet.objects.filter(project=project).prefetch_related(Prefetch("viewports", scales))
    return sheets.only("number", "title", "paper", "orientation", "revisions")


def marks_of(
    rows: Sequence[Viewport],
    viewports: Sequence[CoreViewport],
    whole: WholeSet,
    taken: Mapping[str, Sequence[Box]],
) -> dict[str, ViewportMarks]:
    """Marks, levels and north of the viewports of one sheet."""
    found = {}
    for row, viewport in zip(rows, viewports, strict=True):
        drawing = row.drawn.linework
        if drawing is None or not drawing.axes or row.view.is_received:
            continue
        axes = drawing.axes
        seen = MarkedView(
            viewport,
            str(row.view_id),
            row.view.as_core,
            tuple(axes["right"]),
            tuple(axes["up"]),
            tuple(axes["origin"]),
            building_on_paper(row, viewport),
            tuple(taken.get(viewport.id, ())),
        )
        grid = tuple(grid_in(seen, whole.grid)) if row.grid else ()
        rooms = tuple(room_tags_in(seen, whole.rooms, whole.storeys, row.scale_in_feet)) if row.rooms else ()
        wanted = row.room_fill or (row.marks and any(s.spec.kind == "detail" for s in whole.subjects))
        floors = tuple(filled_rooms_in(seen, whole.rooms, whole.storeys)) if wanted else ()
        seen = replace(
            seen,
            taken=(*seen.taken, *(tag.about for tag in rooms)),
            floors=tuple(Polygon(rings[0], rings[1:]) for rings in floors),
        )
        found[viewport.id] = ViewportMarks(
            tuple(marks_in(seen, whole.subjects, [mark.bubble for mark in grid])) if row.marks else (),
            tuple(levels_in(seen, whole.storeys, row.scale_in_feet)) if row.levels else (),
            grid,
            rooms,
            north_on_paper(seen, whole.true_north),
            tuple(climb_tags_in(seen, whole.climbs, whole.storeys, row.scale_in_feet)),
            floors if row.room_fill else (),
        )
    return found


def building_on_paper(row: Viewport, viewport: CoreViewport) -> Box | None:
    """The box about what is drawn of the building in a viewport, paper mm; None where that is not known."""
    drawing = row.drawn.linework
    if drawing is None or not drawing.own_extents:
        return None
    u0, v0, u1, v1 = drawing.own_extents
    xs, ys = zip(*(viewport.to_paper(u, v) for u in (u0, u1) for v in (v0, v1)), strict=True)
    return Box(min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys))


def subjects_of(project: Project) -> list[Subject]:
    """The views of a project that are marked on others, with where they first stand in the register."""
    references: dict[Any, Reference] = {}
    placed = Viewport.objects.filter(sheet__project=project).order_by(
        "sheet__position", "sheet__number", "sheet", "position", "id"
    )
    rows = placed.values_list("sheet", "sheet__number", "view")
    for _, group in groupby(rows, key=lambda row: row[0]):
        for number, (_, sheet, viewed) in enumerate(group, 1):
            references.setdefault(viewed, Reference(str(number), sheet))
    views = View.objects.filter(project=project, linework__isnull=False).select_related("linework")
    subjects = []
    for view, spec in readable(views, lambda view: view.as_core):
        if spec.marked and view.linework and view.linework.axes:
            axes = view.linework.axes
            x, y, z = np.cross(axes["right"], axes["up"]).tolist()
            subjects.append(Subject(str(view.pk), spec, (x, y, z), references.get(view.pk, Reference())))
    return subjects
