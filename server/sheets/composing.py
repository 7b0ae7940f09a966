"""From the rows of a sheet to the core's sheet, and from there to its display list."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import replace
from datetime import date
from uuid import UUID

from django.db.models import Prefetch, QuerySet
from django.http import Http404
from django.utils import timezone
from shapely import Polygon

from drafting.annotation.pieces import PlacedPiece
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
from drafting.sheets.reference_marks import marks_in
from drafting.sheets.room_tags import filled_rooms_in, room_tags_in
from drafting.sheets.viewport import TouchedUp
from drafting.sheets.viewport import Viewport as CoreViewport
from drafting.sheets.viewport_marks import ViewportMarks
from drafting.sheets.words import words_in
from server.common.made_once import part_made_once
from server.common.readable import readable
from server.projects.models import Project
from server.sheets.models import Sheet, Viewport
from server.sheets.viewports import as_core, check_stored
from server.sheets.whole_set import WholeSet

#: The core's FIELDS that a sheet or its project has a column for: by the name of the column.
SHEET_FIELDS = tuple(key for key, field in FIELDS.items() if field.of == "sheet")
PROJECT_FIELDS = {key: {"project": "name", "project_number": "number"}.get(key, key)
                  for key, field in FIELDS.items() if field.of == "project"}  # fmt: skip


PiecesOn = Callable[[Sheet, Sequence[Viewport], core.Sheet, WholeSet], Iterable[PlacedPiece]]
_pieces: list[PiecesOn] = []


IssueColumns = Callable[[Project, int], tuple[list[tuple[str, str]], Mapping[str, list[str]]]]
_issue_columns: list[IssueColumns] = []


TouchUpsIn = Callable[[Sheet, Sequence[Viewport], WholeSet], Mapping[str, TouchedUp]]
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
