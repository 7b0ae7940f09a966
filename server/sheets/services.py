"""From the rows of a sheet to the core's sheet, and from there to paper."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from itertools import groupby
from typing import Any

import numpy as np
from django.db import transaction
from django.db.models import F, Max, QuerySet
from django.utils import timezone

from drafting.errors import SheetError
from drafting.plot.compose import compose
from drafting.plot.display import DisplayList
from drafting.plot.pen_table import PenTable
from drafting.plot.shipped_pens import CONSTRUCTION
from drafting.sheets import numbering
from drafting.sheets import sheet as core
from drafting.sheets.arranging import Seen, arrange
from drafting.sheets.fields import FIELDS, Revision, common_scale_text
from drafting.sheets.marks import (
    MARKED,
    Annotation,
    Reference,
    Subject,
    grid_in,
    levels_in,
    marks_in,
    north_on_paper,
)
from drafting.sheets.marks import Seen as SeenThrough
from drafting.sheets.numbering import Numbered
from drafting.sheets.paper import Paper
from drafting.sheets.picture import Picture
from drafting.sheets.placing import place_view
from drafting.sheets.scale import FEET_LADDER, LADDER, Scale
from drafting.sheets.shipped_templates import STANDARD
from drafting.sheets.template import Blank, Template, check_blank
from drafting.sheets.viewport import NOT_TO_SCALE, Box, PenChanges
from drafting.sheets.viewport import Viewport as CoreViewport
from drafting.views.spec import ViewSpec
from server.buildings.models import newest_version
from server.pens.services import pen_tables_of
from server.projects.models import Project
from server.sheets.models import Sheet, Viewport
from server.templates import services as template_services
from server.templates.models import Template as TemplateRow
from server.views.models import View

GridLine = tuple[str, tuple[float, float], tuple[float, float]]
#: The core's FIELDS that a sheet or its project has a column for: by the name of the column.
SHEET_FIELDS = tuple(key for key, field in FIELDS.items() if field.of == "sheet")
PROJECT_FIELDS = {key: {"project": "name", "project_number": "number"}.get(key, key)
                  for key, field in FIELDS.items() if field.of == "project"}  # fmt: skip
#: What makes up the geometry of a viewport, beside its scale.
GEOMETRY = ("x", "y", "width", "height", "centre_u", "centre_v")


@dataclass(frozen=True)
class WholeSet:
    """What the sheets of a project say of each other and of the building; the same for all of them.

    Attributes:
        order: ids of the sheets, in register order.
        subjects: the views that are marked on others.
        storeys: name and elevation (mm) of each.
        true_north: degrees from the model's y axis, if the model says it.
        grid: name and ends (mm) of each line of the building's grid.
        templates: by what sheets call them.
        pictures: by what templates call them.
        pens: pen tables, by what the rows call them.
    """

    order: tuple[Any, ...]
    subjects: tuple[Subject, ...]
    storeys: tuple[tuple[str, float], ...]
    true_north: float | None
    grid: tuple[GridLine, ...]
    templates: Mapping[str, Template]
    pictures: Mapping[str, Picture]
    pens: Mapping[str, PenTable]

    @classmethod
    def of(cls, project: Project) -> WholeSet:
        newest = newest_version(project)
        facts = newest.facts if newest else {}
        return cls(
            tuple(Sheet.objects.filter(project=project).values_list("pk", flat=True)),
            tuple(subjects_of(project)),
            tuple((storey["name"], storey["elevation"]) for storey in facts.get("storeys", [])),
            facts.get("true_north"),
            tuple((line["name"], tuple(line["ends"][0]), tuple(line["ends"][1])) for line in facts.get("grid", [])),
            template_services.templates_of(project),
            template_services.pictures_of(project),
            pen_tables_of(project),
        )


def display_of(sheet: Sheet) -> DisplayList:
    """The display list of a sheet."""
    return composed(sheet, WholeSet.of(sheet.project))[1]


def composed(sheet: Sheet, whole: WholeSet) -> tuple[core.Sheet, DisplayList]:
    """A sheet and its display list. Whoever wants several looks the whole set up once."""
    of_project = whole.pens.get(sheet.project.pen_table, CONSTRUCTION)
    made = as_core_sheet(sheet, whole)
    return made, compose(made, whole.pens.get(sheet.pen_table, of_project), whole.pens)


def as_core_sheet(sheet: Sheet, whole: WholeSet) -> core.Sheet:
    """The core's sheet of a row, with all that is derived from the set."""
    project = sheet.project
    rows = list(sheet.viewports.select_related("view__linework", "own_linework"))
    viewports = tuple(as_core(row, number) for number, row in enumerate(rows, 1))
    return core.Sheet(
        sheet.as_paper,
        {key: getattr(project, column) for key, column in PROJECT_FIELDS.items()}
        | {key: getattr(sheet, key) for key in SHEET_FIELDS},
        viewports,
        annotations_of(rows, viewports, whole),
        drawing_list_on(sheet),
        template=whole.templates.get(sheet.template, STANDARD),
        typed=sheet.typed,
        revisions=tuple(Revision(**revision) for revision in sheet.revisions),
        place=(whole.order.index(sheet.pk) + 1, len(whole.order)),
        plot_date=timezone.localdate().isoformat(),
        pictures=whole.pictures,
    )


def blank_of(sheet: Sheet) -> Blank:
    """The empty sheet: its paper with its template."""
    return Blank(sheet.as_paper, template_services.template_named(sheet.project, sheet.template))


def sheets_with(template: TemplateRow) -> QuerySet[Sheet]:
    """The sheets that have a template."""
    return Sheet.objects.filter(project=template.project, template=str(template.pk))


def check_sheets_with(row: TemplateRow, template: Template) -> None:
    """Refuse a change to a template that some sheet's paper has no room for.

    Raises:
        SheetError: names what would be cut off, and where.
    """
    for sheet in sheets_with(row):
        check_blank(Blank(sheet.as_paper, template))


def drawing_list_on(sheet: Sheet) -> core.DrawingList | None:
    """The list of the set's drawings, if it stands on this sheet."""
    if sheet.drawing_list is None:
        return None
    rows = []
    for each in Sheet.objects.filter(project=sheet.project).prefetch_related("viewports__view"):
        scales = (
            str(v.scale) if ViewSpec.from_dict(v.view.spec).to_scale else NOT_TO_SCALE for v in each.viewports.all()
        )
        paper = each.as_paper.name
        rows.append((each.number, each.title, paper, common_scale_text(list(scales)), each.revision))
    return core.DrawingList((sheet.drawing_list["x"], sheet.drawing_list["y"]), tuple(rows))


def annotations_of(rows: list[Viewport], viewports: tuple[CoreViewport, ...], whole: WholeSet) -> dict[str, Annotation]:
    """Marks, levels and north of the viewports of one sheet."""
    found = {}
    for row, viewport in zip(rows, viewports, strict=True):
        if row.linework is None or not row.linework.axes:
            continue
        axes = row.linework.axes
        spec = ViewSpec.from_dict(row.view.spec)
        seen = SeenThrough(
            viewport, str(row.view_id), spec, tuple(axes["right"]), tuple(axes["up"]), tuple(axes["origin"])
        )
        grid = tuple(grid_in(seen, whole.grid)) if row.grid else ()
        found[viewport.id] = Annotation(
            tuple(marks_in(seen, whole.subjects, [mark.bubble for mark in grid])) if row.marks else (),
            tuple(levels_in(seen, whole.storeys, row.scale_in_feet)) if row.levels else (),
            grid,
            north_on_paper(seen, whole.true_north),
        )
    return found


def subjects_of(project: Project) -> list[Subject]:
    """The views of a project that are marked on others, with where they first stand in the register."""
    stands: dict[Any, Reference] = {}
    placed = Viewport.objects.filter(sheet__project=project).order_by(
        "sheet__position", "sheet__number", "sheet", "position", "id"
    )
    for _, group in groupby(placed.values_list("sheet", "sheet__number", "view"), key=lambda row: row[0]):
        for number, (_, sheet, view) in enumerate(group, 1):
            stands.setdefault(view, Reference(str(number), sheet))
    views = View.objects.filter(project=project, linework__isnull=False).select_related("linework")
    subjects = []
    for view in views:
        spec = ViewSpec.from_dict(view.spec)
        if spec.kind in MARKED and view.linework and view.linework.axes:
            axes = view.linework.axes
            x, y, z = np.cross(axes["right"], axes["up"]).tolist()
            subjects.append(Subject(str(view.pk), spec, (x, y, z), stands.get(view.pk, Reference())))
    return subjects


def as_core(row: Viewport, number: int) -> CoreViewport:
    """The core's viewport of a row, the so-manieth of its sheet."""
    return CoreViewport(
        id=str(row.pk),
        linework=row.linework.key if row.linework else "",
        box=box_of(row),
        scale=row.scale,
        centre=(row.centre_u, row.centre_v),
        number=str(number),
        name=row.view.name,
        to_scale=ViewSpec.from_dict(row.view.spec).to_scale,
        shape=row.shape,
        corners=tuple((x, y) for x, y in row.corners),
        turn=row.turn,
        framed=row.framed,
        opaque=row.opaque,
        pen_table=row.pen_table,
        pens=PenChanges.from_dict(row.pens),
        title=row.title_style,
        title_by=(row.title_by[0], row.title_by[1]),
        moved_marks={view: tuple((x, y) for x, y in by) for view, by in row.moved_marks.items()},
    )


def box_of(row: Viewport) -> Box:
    return Box(row.x, row.y, row.width, row.height)


def numbered(sheet: Sheet) -> Numbered:
    """A sheet as the core numbers it."""
    return Numbered(sheet.number, sheet.discipline, sheet.sheet_type)


def next_number(sheet: Sheet) -> str:
    """The number for a new sheet: its series, counted on."""
    others = [numbered(other) for other in Sheet.objects.filter(project=sheet.project)]
    return numbering.next_number(numbering.Pattern(sheet.project.number_pattern), numbered(sheet), others)


def numbers_from(sheet: Sheet) -> list[tuple[Sheet, str]]:
    """The sheets from one on in the register, with their numbers counted on from its own.

    Raises:
        SheetError: its number has no figure to count on from.
    """
    order = list(Sheet.objects.filter(project=sheet.project))
    later = order[[other.pk for other in order].index(sheet.pk) :]
    pattern = numbering.Pattern(sheet.project.number_pattern)
    return list(zip(later, numbering.numbers_from(pattern, [numbered(s) for s in later]), strict=True))


def doubts_about_numbers(project: Project) -> dict[Any, str]:
    """What is odd about the numbers of a project's sheets, by the sheet's id."""
    order = list(Sheet.objects.filter(project=project))
    doubts = numbering.doubts(numbering.Pattern(project.number_pattern), [numbered(s) for s in order])
    return {sheet.pk: doubt for sheet, doubt in zip(order, doubts, strict=True) if doubt}


def next_position(rows: Any) -> int:
    """The position after the last of some rows."""
    last = rows.aggregate(last=Max("position"))["last"]
    return 0 if last is None else last + 1


def taken_on(sheet: Sheet) -> list[Box]:
    """What is taken of a sheet by the viewports on it."""
    return [box_of(row) for row in sheet.viewports.all()]


def ladder_of(project: Project) -> tuple[Scale, ...]:
    """The ladder that scales are chosen from by themselves: in feet and inches where the last viewport is."""
    last = Viewport.objects.filter(sheet__project=project).order_by("sheet__position", "position").last()
    return FEET_LADDER if last and last.scale_in_feet else LADDER


def geometry_for(view: View, sheet: Sheet, given: dict[str, Any]) -> dict[str, Any]:
    """The geometry of a new viewport: as given, or as the core places the view about a point or in an empty space.

    Raises:
        SheetError: a part of the geometry is missing.
    """
    there = [name for name in GEOMETRY if name in given]
    if len(there) == len(GEOMETRY) and "scale" in given:
        return {}
    if there:
        raise SheetError("Give a viewport's whole place, size, centre and scale, or only the point to place it at.")
    at = given.pop("at", None)
    return _geometry(
        place_view(
            tuple(view.linework.extents) if view.linework and view.linework.extents else None,
            blank_of(sheet),
            tuple(at) if at else None,
            given.get("scale"),
            taken_on(sheet),
            ladder_of(sheet.project),
        )
    )


def _geometry(placed: CoreViewport) -> dict[str, Any]:
    box = placed.box
    return {
        "x": box.x, "y": box.y, "width": box.width, "height": box.height,
        "centre_u": placed.centre[0], "centre_v": placed.centre[1], "scale": placed.scale,
    }  # fmt: skip


def arrange_views(sheet: Sheet, views: list[View], projection: str) -> list[Viewport]:
    """Lay views out on a sheet as a projected set, each in a new viewport.

    Raises:
        SheetError: one has not been drawn yet, or they do not fit.
    """
    seen = []
    for view in views:
        if view.linework is None or not view.linework.extents:
            raise SheetError(f"“{view.name}” shows nothing yet. Wait for its drawing, or leave it out.")
        axes = view.linework.axes
        to_scale = ViewSpec.from_dict(view.spec).to_scale
        seen.append(
            Seen(
                str(view.pk), tuple(view.linework.extents), axes["right"], axes["up"], axes["origin"], to_scale=to_scale
            )
        )
    placed = arrange(seen, blank_of(sheet), projection, taken_on(sheet), ladder_of(sheet.project))
    with transaction.atomic():
        first = next_position(sheet.viewports)
        rows = [Viewport(sheet=sheet, view=v, position=first + k) for k, v in enumerate(views)]
        for row, viewport in zip(rows, placed, strict=True):
            for name, value in _geometry(viewport).items():
                setattr(row, name, value)
            row.save()
    return rows


def move_with_title_block(sheet: Sheet, before: Paper) -> None:
    """After a sheet has taken another paper: its viewports keep their place from the title block's corner."""
    by = sheet.as_paper.width - before.width
    if by:
        sheet.viewports.update(x=F("x") + by, version=F("version") + 1)


def keep_scale(viewport: Viewport) -> None:
    """Keep a scale that stands on no ladder with the project, to be chosen again."""
    project, text = viewport.sheet.project, str(viewport.scale)
    to_scale = ViewSpec.from_dict(viewport.view.spec).to_scale
    if to_scale and viewport.scale not in (*LADDER, *FEET_LADDER) and text not in project.own_scales:
        project.own_scales = [*project.own_scales, text]
        project.save(update_fields=["own_scales"])
