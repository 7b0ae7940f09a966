"""From the rows of a sheet to the core's sheet, and from there to paper."""

from __future__ import annotations

import re
from typing import Any

from django.db.models import Max

from drafting.errors import SheetError
from drafting.plot.compose import compose
from drafting.plot.display import DisplayList
from drafting.sheets import sheet as core
from drafting.sheets.paper import Paper
from drafting.sheets.placing import place_view
from drafting.views.spec import ViewSpec
from server.config import storage
from server.jobs import services as jobs
from server.jobs.models import Job
from server.projects.models import Project
from server.sheets.models import Sheet, Viewport
from server.views.models import Linework, View

#: What makes up the geometry of a viewport, beside its scale.
GEOMETRY = ("x", "y", "width", "height", "centre_u", "centre_v")


def display_of(sheet: Sheet, place_in_set: tuple[int, int] | None = None) -> DisplayList:
    """The display list of a sheet. `place_in_set` is its number and the count of sheets, looked up if not known."""
    project = sheet.project
    if place_in_set is None:
        order = list(Sheet.objects.filter(project=project).values_list("pk", flat=True))
        place_in_set = order.index(sheet.pk) + 1, len(order)
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
        sheet_of=place_in_set,
    )
    viewports = tuple(
        core.Viewport(
            id=str(v.pk),
            linework=v.view.linework_id or "",
            box=core.Box(v.x, v.y, v.width, v.height),
            scale=v.scale,
            centre=(v.centre_u, v.centre_v),
            number=str(number),
            name=v.view.name,
            to_scale=ViewSpec.from_dict(v.view.spec).to_scale,
        )
        for number, v in enumerate(sheet.viewports.select_related("view"), 1)
    )
    return compose(core.Sheet(sheet.as_paper, fields, viewports))


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


def geometry_for(view: View, sheet: Sheet, given: dict[str, Any]) -> dict[str, Any]:
    """The geometry of a new viewport: as given, or as the core places the view about a point.

    Raises:
        SheetError: a part of the geometry is missing.
    """
    there = [name for name in GEOMETRY if name in given]
    if len(there) == len(GEOMETRY) and "scale" in given:
        return {}
    if there:
        raise SheetError("Give a viewport's whole place, size, centre and scale, or only the point to place it at.")
    at = given.pop("at", None)
    paper = sheet.as_paper
    extents = tuple(view.linework.extents) if view.linework and view.linework.extents else None
    placed = place_view(extents, paper, tuple(at) if at else None, given.get("scale"))
    box = placed.box
    return {
        "x": box.x, "y": box.y, "width": box.width, "height": box.height,
        "centre_u": placed.centre[0], "centre_v": placed.centre[1], "scale": placed.scale,
    }  # fmt: skip


def check_geometry(paper: Paper, geometry: dict[str, float]) -> None:
    """Refuse a viewport that could not be seen or taken hold of. See the core's rule for what it raises."""
    box = core.Box(geometry["x"], geometry["y"], geometry["width"], geometry["height"])
    core.check_viewport(box, (geometry["centre_u"], geometry["centre_v"]), paper)


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
    in_set = list(Sheet.objects.filter(project=job.project).values_list("pk", flat=True))
    sheets = list(Sheet.objects.filter(pk__in=job.order["sheets"]).select_related("project"))
    if not sheets:
        raise SheetError("The sheets to plot have been deleted.")
    pages = [(str(s), display_of(s, (in_set.index(s.pk) + 1, len(in_set)))) for s in sheets]
    wanted = Viewport.objects.filter(sheet__in=sheets).values("view__linework")
    linework = {row.key: storage.path_of(row.file) for row in Linework.objects.filter(key__in=wanted)}
    made = storage.workplace(".pdf")
    try:
        work.run("plot_sheets", pages, linework, made, job.project.name, job.project.practice)
        job.result = storage.keep(made)
        job.save(update_fields=["result"])
    finally:
        made.unlink(missing_ok=True)
