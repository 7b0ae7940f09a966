"""Plotting sheets: into files, and to devices."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import asdict
from itertools import groupby
from typing import Any

from django.db import transaction
from django.utils import timezone

from drafting.errors import DraftingError, SheetError
from drafting.plotting import settings as core_settings
from drafting.plotting.devices import BY_KEY, Device
from drafting.plotting.files import file_name
from drafting.plotting.pages import as_printed, page_for
from drafting.plotting.print_warnings import CutOff, annotation_warnings, cut_off, print_warnings
from drafting.plotting.settings import conflicts
from drafting.render.page import FileInfo, Page
from drafting.sheets import sheet as core
from server.common import storage
from server.common.rows import Memo, RowService
from server.jobs import services as jobs
from server.jobs.models import Job
from server.jobs.runner import Work
from server.plots import devices
from server.plots.models import Plot, Print, SheetList
from server.projects.models import Project
from server.sheets.composing import composed
from server.sheets.models import Sheet
from server.sheets.shading import fine_pictures
from server.sheets.shadow_areas import ready_areas
from server.sheets.templates import picture_files
from server.sheets.whole_set import WholeSet
from server.styles.models import PlotSettings
from server.views.models import Linework, View

#: Plots of more sheets than this do not hold up drawings.
MAX_SHORT = 3


class SheetListService(RowService[SheetList]):
    model = SheetList

    def check(self, row: SheetList, changed: set[str], memo: Memo) -> None:
        """Its sheets are of its own project: the serializer offers no others."""


sheet_list_service = SheetListService()


def settings_for(sheets: Sequence[Sheet], chosen: PlotSettings | None) -> list[PlotSettings]:
    """What each sheet is plotted with: its own settings, or those that are chosen for all."""
    return [chosen or sheet.plot_settings for sheet in sheets]


def conflicts_of(sheets: Sequence[Sheet], chosen: PlotSettings | None) -> list[tuple[Sheet, str]]:
    """What does not go together where sheets are plotted with some settings."""
    pairs = zip(sheets, settings_for(sheets, chosen), strict=True)
    return [(sheet, words) for sheet, row in pairs for words in conflicts(row.as_core, sheet.as_paper)]


def order_plot(
    project: Project, sheets: Sequence[Sheet], chosen: PlotSettings | None = None, form: str = "pdf"
) -> Plot:
    """Have sheets plotted into a file of one of the core's formats.

    Raises:
        SheetError: there is nothing to plot, or the settings do not go together.
    """
    _check(sheets, chosen)
    return _order(project, sheets, chosen, form)


def order_prints(
    project: Project, user: Any, sheets: Sequence[Sheet], chosen: PlotSettings | None = None
) -> list[Print]:
    """Send sheets to the devices of their settings, each device's together.

    Raises:
        SheetError: there is nothing to print, or a sheet's settings print on no device.
    """
    _check(sheets, chosen)
    pairs = [
        (sheet, row.as_core.device, row.name)
        for sheet, row in zip(sheets, settings_for(sheets, chosen), strict=True)
    ]
    for sheet, device, name in pairs:
        if not BY_KEY[device].prints:
            raise SheetError(
                f"{sheet.number} is plotted to a file by “{name}”. Choose plot settings with a device."
            )
    made = []
    with transaction.atomic():
        for key, group in groupby(sorted(pairs, key=lambda pair: pair[1]), key=lambda pair: pair[1]):
            some = [sheet for sheet, _, _ in group]
            plot_row = _order(project, some, chosen, "pdf")
            made.append(
                Print.objects.create(
                    project=project,
                    sent_by=user,
                    device=key,
                    about=_about(some),
                    plot=plot_row,
                    file_name=plot_row.file_name,
                )
            )
    return made


def _check(sheets: Sequence[Sheet], chosen: PlotSettings | None) -> None:
    if not sheets:
        raise SheetError("There is no sheet to plot. Add one, or choose one of the register.")
    found = conflicts_of(sheets, chosen)
    if found:
        sheet, words = found[0]
        raise SheetError(f"{sheet.number}: {words}")


def _about(sheets: Sequence[Sheet]) -> str:
    return sheets[0].number if len(sheets) == 1 else f"{len(sheets)} sheets"


@transaction.atomic
def _order(project: Project, sheets: Sequence[Sheet], chosen: PlotSettings | None, form: str) -> Plot:
    name = f"{project.name} {sheets[0].number}" if len(sheets) == 1 else project.name
    job = jobs.start(project, Job.Kind.PLOT, _about(sheets), long=len(sheets) > MAX_SHORT)
    row = Plot.objects.create(job=job, settings=chosen, form=form, file_name=f"{file_name(name)}.{form}")
    row.sheets.set(sheets)
    return row


def plot(job: Job, work: Work) -> None:
    """Plot the sheets of a job, in register order."""
    row = job.plot
    sheets = list(row.sheets.select_related("project", "template", "plot_settings"))
    if not sheets:
        raise SheetError("The sheets to plot have been deleted.")
    chosen = [each.as_core for each in settings_for(sheets, row.settings)]
    printed = Print.objects.filter(plot=row).exists()
    pages, facts, notes = _pages(job.project, sheets, chosen, row.form, work, printed=printed)
    resolution = min(settings.resolution for settings in chosen)
    made = storage.temporary_path(f".{row.form}")
    try:
        info = FileInfo(job.project.name, job.project.practice, resolution)
        sources = _sources(job.project, pages, resolution, work)
        ending = work.run("sheets:plot_sheets", pages, *sources, made, row.form, info)
        row.file, row.notes, row.pages = storage.store(made), notes, facts
        row.file_name = f"{row.file_name.rpartition('.')[0]}.{ending}"
        row.save()
    finally:
        made.unlink(missing_ok=True)
    _hand_over(row)


def _pages(
    project: Project,
    sheets: Sequence[Sheet],
    chosen: Sequence[core_settings.PlotSettings],
    form: str,
    work: Work,
    *,
    printed: bool,
) -> tuple[list[Page], list[dict[str, Any]], list[str]]:
    """The pages of sheets, what is to be known of each, and what to look at."""
    whole = WholeSet.of(project)
    names = {str(view.pk): view.name for view in View.objects.filter(project=project)}
    pages, facts, notes = [], [], []
    ready_areas(sheets, work)
    for k, (row, settings) in enumerate(zip(sheets, chosen, strict=True)):
        work.step(f"Composing {row.number}", k / len(sheets))
        sheet, display = composed(row, whole)
        try:
            page = page_for(sheet, display, settings)
        except DraftingError as error:
            raise SheetError(f"{row.number}: {error}") from error
        device, drawn = BY_KEY[settings.device], {v.id: v.name for v in sheet.viewports}
        lost = cut_off(page, device, drawn)
        found = [
            *sheet.unreadable,
            *unplaced_marks(sheet, names),
            *annotation_warnings(display),
            *print_warnings(page, device, lost),
        ]
        if form == "dxf" and any(page.display.pictures):
            found.append("A DXF holds no pictures of pixels; those on this sheet are left out.")
        notes += [f"{row.number}: {words}" for words in found]
        facts.append(_facts(page, device, lost))
        pages.append(as_printed(page, device) if printed else page)
    return pages, facts, notes


def unplaced_marks(sheet: core.Sheet, names: Mapping[str, str]) -> list[str]:
    """Marks on a sheet that point to nowhere; `names` are those of views, by their ids."""
    nowhere = {mark.subject for about in sheet.marks.values() for mark in about.marks if mark.points_nowhere}
    found = sorted(names.get(view, "") for view in nowhere)
    return [f"“{name}” is marked here but is placed nowhere." for name in found]


def _facts(page: Page, device: Device, lost: Sequence[CutOff]) -> dict[str, Any]:
    """What is to be known of a page: its size, what its device cannot print, and what that cuts off; mm."""
    printable = device.printable(page.paper)
    margins = [printable.x, printable.y, page.width - printable.right, page.height - printable.top]
    return {
        "number": page.number,
        "title": page.title,
        "width": page.width,
        "height": page.height,
        "device": device.name,
        "margins": [round(margin, 3) for margin in margins],
        "scale": page.scale,
        "at": list(page.at),
        "cut_off": [{"what": each.what, **asdict(each.box)} for each in lost],
    }


def _sources(
    project: Project, pages: Sequence[Page], resolution: int, work: Work
) -> tuple[dict[str, Any], dict[str, Any]]:
    """Where the linework and the pictures of pages lie, by their keys; pictures of the building are made as
    fine as they are plotted."""
    keys = {item.linework for page in pages for item in page.display.drawings}
    linework = {row.key: storage.path_of(row.file) for row in Linework.objects.filter(key__in=keys)}
    shaded = {item.picture for page in pages for item in page.display.shaded}
    pictures = {**picture_files(project), **fine_pictures(project, shaded, resolution, work)}
    return linework, {key: storage.path_of(file) for key, file in pictures.items()}


@transaction.atomic
def _hand_over(row: Plot) -> None:
    """Give what was plotted to the device that it was sent to, unless it was cancelled meanwhile."""
    sent = Print.objects.filter(plot=row, state=Print.State.MAKING).first()
    if sent is not None and Job.objects.filter(pk=row.job_id, cancel_wanted=True).exists():
        sent.state, sent.finished = Print.State.CANCELLED, timezone.now()
        sent.save()
        devices.work_through(sent.device)
    elif sent is not None:
        sent.pages = [[page["width"], page["height"]] for page in row.pages]
        sent.state, sent.file = Print.State.QUEUED, row.file
        sent.save()
        devices.work_through(sent.device)


@transaction.atomic
def end_print(job: Job, work: Work) -> None:
    """A plot that has come to nothing leaves its print so, and lets the next go on."""
    sent = Print.objects.filter(plot=job.pk, state=Print.State.MAKING).first()
    if sent is not None:
        wanted = Job.objects.filter(pk=job.pk, cancel_wanted=False).exists()
        sent.state = Print.State.FAILED if wanted else Print.State.CANCELLED
        sent.message = "It could not be plotted. Send it again." if wanted else ""
        sent.finished = timezone.now()
        sent.save()
        devices.work_through(sent.device)


@transaction.atomic
def cancel_print(sent: Print) -> None:
    """Take a print out of its queue; one that has been printed stays as it is."""
    # It may have been made, or printed, since it was looked at.
    sent.refresh_from_db()
    if sent.state == Print.State.MAKING and sent.plot:
        jobs.cancel(sent.plot.job)
    elif sent.state == Print.State.QUEUED:
        sent.state, sent.message, sent.finished = Print.State.CANCELLED, "", timezone.now()
        sent.save()
        devices.work_through(sent.device)
