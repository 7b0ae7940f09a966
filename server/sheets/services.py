"""From the rows of a sheet to the core's sheet, and from there to paper."""

from __future__ import annotations

import re
from dataclasses import dataclass
from itertools import groupby
from typing import Any

import numpy as np
from django.db import transaction
from django.db.models import F, Max

from drafting.errors import SheetError
from drafting.plot.compose import compose
from drafting.plot.display import DisplayList, Drawing
from drafting.sheets import sheet as core
from drafting.sheets.arranging import Seen, arrange
from drafting.sheets.marks import (
    MARKED,
    Annotation,
    Reference,
    Subject,
    levels_in,
    marks_in,
    north_on_paper,
)
from drafting.sheets.marks import Seen as SeenThrough
from drafting.sheets.paper import Paper
from drafting.sheets.placing import place_view
from drafting.sheets.scale import FEET_LADDER, LADDER, Scale
from drafting.sheets.viewport import NOT_TO_SCALE, Box, PenChanges
from drafting.sheets.viewport import Viewport as CoreViewport
from drafting.views.spec import ViewSpec
from server.buildings.models import newest_version
from server.config import storage
from server.jobs import services as jobs
from server.jobs.models import Job
from server.projects.models import Project
from server.sheets.models import Sheet, Viewport
from server.views.models import Linework, View

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
    """

    order: tuple[Any, ...]
    subjects: tuple[Subject, ...]
    storeys: tuple[tuple[str, float], ...]
    true_north: float | None

    @classmethod
    def of(cls, project: Project) -> WholeSet:
        newest = newest_version(project)
        facts = newest.facts if newest else {}
        return cls(
            tuple(Sheet.objects.filter(project=project).values_list("pk", flat=True)),
            tuple(subjects_of(project)),
            tuple((storey["name"], storey["elevation"]) for storey in facts.get("storeys", [])),
            facts.get("true_north"),
        )


def display_of(sheet: Sheet, whole: WholeSet | None = None) -> DisplayList:
    """The display list of a sheet. Whoever wants several looks the whole set up once."""
    project = sheet.project
    whole = whole or WholeSet.of(project)
    fields = core.TitleFields(
        owner=project.practice,
        project=project.name,
        project_number=project.number,
        client=project.client,
        site=project.site,
        title=sheet.title,
        supplementary_title=sheet.supplementary_title,
        number=sheet.number,
        revision=sheet.revision,
        date=sheet.date,
        creator=sheet.creator,
        approver=sheet.approver,
        document_type=sheet.document_type,
        status=sheet.status,
        sheet_of=(whole.order.index(sheet.pk) + 1, len(whole.order)),
    )
    rows = list(sheet.viewports.select_related("view__linework", "own_linework"))
    viewports = tuple(as_core(row, number) for number, row in enumerate(rows, 1))
    annotations = annotations_of(rows, viewports, whole)
    return compose(core.Sheet(sheet.as_paper, fields, viewports, annotations, drawing_list_on(sheet)))


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
        rows.append((each.number, each.title, paper, core.common_scale_text(scales), each.revision))
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
        found[viewport.id] = Annotation(
            tuple(marks_in(seen, whole.subjects)) if row.marks else (),
            tuple(levels_in(seen, whole.storeys, row.scale_in_feet)) if row.levels else (),
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
        pens=PenChanges.from_dict(row.pens),
        title=row.title_style,
    )


def box_of(row: Viewport) -> Box:
    return Box(row.x, row.y, row.width, row.height)


def next_number(project: Project) -> str:
    """The number for a new sheet: the last one's, counted on."""
    last = Sheet.objects.filter(project=project).last()
    match = re.fullmatch(r"(.*?)(\d+)(\D*)", last.number) if last else None
    if match is None:
        return "A-01" if last is None else f"{last.number}-2"
    return f"{match[1]}{int(match[2]) + 1:0{len(match[2])}}{match[3]}"


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
            sheet.as_paper,
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
    placed = arrange(seen, sheet.as_paper, projection, taken_on(sheet), ladder_of(sheet.project))
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


def order_plot(project: Project, sheets: list[Sheet]) -> Job:
    """Have sheets plotted as one PDF.

    Raises:
        SheetError: there is nothing to plot.
    """
    if not sheets:
        raise SheetError("There is no sheet to plot. Add one first.")
    name = f"{project.name} {sheets[0].number}" if len(sheets) == 1 else project.name
    file_name = re.sub(r"[^\w .,()-]+", "_", name).strip()[:120] + ".pdf"
    order = {"sheets": [str(s.pk) for s in sheets], "file_name": file_name}
    about = f"{sheets[0].number}" if len(sheets) == 1 else f"{len(sheets)} sheets"
    return jobs.start(project, Job.Kind.PLOT, about, order)


def plot(job: Job, work: jobs.Work) -> None:
    """Plot the sheets of a job, in register order."""
    sheets = list(Sheet.objects.filter(pk__in=job.order["sheets"]).select_related("project"))
    if not sheets:
        raise SheetError("The sheets to plot have been deleted.")
    whole = WholeSet.of(job.project)
    pages = [(str(s), display_of(s, whole)) for s in sheets]
    keys = {item.linework for _, display in pages for item in display.items if isinstance(item, Drawing)}
    linework = {row.key: storage.path_of(row.file) for row in Linework.objects.filter(key__in=keys)}
    made = storage.workplace(".pdf")
    try:
        work.run("plot_sheets", pages, linework, made, job.project.name, job.project.practice)
        job.result = storage.keep(made)
        job.save(update_fields=["result"])
    finally:
        made.unlink(missing_ok=True)
