"""Plotting sheets: into files, and to devices."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import asdict
from itertools import groupby
from typing import Any

from django.db import transaction
from django.utils import timezone

from drafting.errors import DraftingError, SheetError
from drafting.plot.devices import BY_KEY, Device
from drafting.plot.display import Drawing, Image
from drafting.plot.files import Told, file_name
from drafting.plot.page import Page
from drafting.plot.plot_settings import PlotSettings, conflicts
from drafting.plot.plotting import as_printed, page_for
from drafting.plot.print_notes import CutOff, cut_off, notes_on
from drafting.sheets import sheet as core
from server.config import storage
from server.jobs import services as jobs
from server.jobs.models import Job
from server.plots import devices
from server.plots.models import Print
from server.plots.named import settings_of, usual
from server.projects.models import Project
from server.sheets.models import Sheet
from server.sheets.services import WholeSet, composed
from server.templates import services as template_services
from server.views.models import Linework, View


def settings_for(sheets: Sequence[Sheet], key: str | None) -> list[PlotSettings]:
    """What each sheet is plotted with: its own settings, or those that are named for all.

    Raises:
        SheetError: there are no settings of this name.
    """
    if not sheets:
        return []
    known = settings_of(sheets[0].project)
    if key is not None and key not in known:
        raise SheetError("These plot settings are there no more. Choose others.")
    return [usual(known, sheet.plot_settings) if key is None else known[key] for sheet in sheets]


def doubts_about(sheets: Sequence[Sheet], key: str | None) -> list[tuple[Sheet, str]]:
    """What does not go together where sheets are plotted with some settings."""
    pairs = zip(sheets, settings_for(sheets, key), strict=True)
    return [(sheet, says) for sheet, settings in pairs for says in conflicts(settings, sheet.as_paper)]


def order_plot(project: Project, sheets: Sequence[Sheet], key: str | None = None, form: str = "pdf") -> Job:
    """Have sheets plotted into a file of one of the core's FORMS.

    Raises:
        SheetError: there is nothing to plot, or the settings do not go together.
    """
    _check(sheets, key)
    return _order(project, sheets, key, form)


def order_prints(project: Project, user: Any, sheets: Sequence[Sheet], key: str | None = None) -> list[Print]:
    """Send sheets to the devices of their settings, each device's together.

    Raises:
        SheetError: there is nothing to print, or a sheet's settings print on no device.
    """
    _check(sheets, key)
    pairs = list(zip(sheets, settings_for(sheets, key), strict=True))
    for sheet, settings in pairs:
        if not BY_KEY[settings.device].prints:
            raise SheetError(
                f"{sheet.number} is plotted to a file by “{settings.name}”. Choose plot settings with a device."
            )
    made = []
    with transaction.atomic():
        for device, group in groupby(sorted(pairs, key=lambda pair: pair[1].device), key=lambda pair: pair[1].device):
            some = [sheet for sheet, _ in group]
            sent = Print.objects.create(project=project, sent_by=user, device=device, about=_about(some))
            sent.job = _order(project, some, key, "pdf", sent)
            sent.file_name = sent.job.order["file_name"]
            sent.save()
            made.append(sent)
    return made


def _check(sheets: Sequence[Sheet], key: str | None) -> None:
    if not sheets:
        raise SheetError("There is no sheet to plot. Add one, or choose one of the register.")
    doubts = doubts_about(sheets, key)
    if doubts:
        sheet, says = doubts[0]
        raise SheetError(f"{sheet.number}: {says}")


def _about(sheets: Sequence[Sheet]) -> str:
    return sheets[0].number if len(sheets) == 1 else f"{len(sheets)} sheets"


def _order(project: Project, sheets: Sequence[Sheet], key: str | None, form: str, sent: Print | None = None) -> Job:
    name = f"{project.name} {sheets[0].number}" if len(sheets) == 1 else project.name
    order = {
        "sheets": [str(sheet.pk) for sheet in sheets],
        "settings": key,
        "form": form,
        "print": str(sent.pk) if sent else None,
        "file_name": f"{file_name(name)}.{form}",
    }
    return jobs.start(project, Job.Kind.PLOT, _about(sheets), order)


def plot(job: Job, work: jobs.Work) -> None:
    """Plot the sheets of a job, in register order."""
    sheets = list(Sheet.objects.filter(pk__in=job.order["sheets"]).select_related("project"))
    if not sheets:
        raise SheetError("The sheets to plot have been deleted.")
    chosen = settings_for(sheets, job.order["settings"])
    whole = WholeSet.of(job.project)
    names = {str(view.pk): view.name for view in View.objects.filter(project=job.project)}
    pages, facts, notes = [], [], []
    for row, settings in zip(sheets, chosen, strict=True):
        sheet, display = composed(row, whole)
        try:
            page = page_for(sheet, display, settings)
        except DraftingError as error:
            raise SheetError(f"{row.number}: {error}") from error
        device, drawn = BY_KEY[settings.device], {v.id: v.name for v in sheet.viewports}
        lost = cut_off(page, device, drawn)
        notes += [f"{row.number}: {note}" for note in (*notes_about(sheet, names), *notes_on(page, device, lost))]
        if job.order["form"] == "dxf" and any(isinstance(item, Image) for item in page.display.items):
            notes.append(f"{row.number}: A DXF holds no pictures of pixels; the one on this sheet is left out.")
        facts.append(_facts(page, device, lost))
        pages.append(as_printed(page, device) if job.order["print"] else page)
    resolution = min(settings.resolution for settings in chosen)
    made = storage.workplace(f".{job.order['form']}")
    try:
        told = Told(job.project.name, job.project.practice, resolution)
        ending = work.run("plot_sheets", pages, *_kept(job.project, pages), made, job.order["form"], told)
        job.result, job.notes, job.pages = storage.keep(made), notes, facts
        job.order["file_name"] = f"{job.order['file_name'].rpartition('.')[0]}.{ending}"
        job.save(update_fields=["result", "notes", "pages", "order"])
    finally:
        made.unlink(missing_ok=True)
    _hand_over(job)


def notes_about(sheet: core.Sheet, names: Mapping[str, str]) -> list[str]:
    """What is to be looked at before a sheet leaves the office; `names` are those of views, by their ids."""
    nowhere = {mark.subject for about in sheet.annotations.values() for mark in about.marks if not mark.stands.sheet}
    return [f"“{name}” is marked here and stands on no sheet." for name in sorted(names.get(v, "") for v in nowhere)]


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


def _kept(project: Project, pages: Sequence[Page]) -> tuple[dict[str, Any], dict[str, Any]]:
    """Where the linework and the pictures of pages lie, by their keys."""
    keys = {item.linework for page in pages for item in page.display.items if isinstance(item, Drawing)}
    linework = {row.key: storage.path_of(row.file) for row in Linework.objects.filter(key__in=keys)}
    pictures = {key: storage.path_of(file) for key, file in template_services.picture_files(project).items()}
    return linework, pictures


def _hand_over(job: Job) -> None:
    """Give what was plotted to the device that it was sent to."""
    sent = Print.objects.filter(pk=job.order["print"], state=Print.State.MAKING).first() if job.order["print"] else None
    if sent is not None:
        sent.pages = [[page["width"], page["height"]] for page in job.pages]
        sent.state, sent.file = Print.State.QUEUED, job.result
        sent.save()
        devices.work_through(sent.device)


def end_print(job: Job, work: jobs.Work) -> None:
    """A plot that has come to nothing leaves its print so, and lets the next go on."""
    sent = Print.objects.filter(pk=job.order.get("print"), state=Print.State.MAKING).first()
    if sent is not None:
        wanted = Job.objects.filter(pk=job.pk, cancel_wanted=False).exists()
        sent.state = Print.State.FAILED if wanted else Print.State.CANCELLED
        sent.says, sent.finished = "It could not be plotted. Send it again." if wanted else "", timezone.now()
        sent.save()
        devices.work_through(sent.device)


def cancel_print(sent: Print) -> None:
    """Take a print out of its queue; one that has been printed stays as it is."""
    if sent.state == Print.State.MAKING and sent.job:
        jobs.cancel(sent.job)
    elif sent.state == Print.State.QUEUED:
        sent.state, sent.says, sent.finished = Print.State.CANCELLED, "", timezone.now()
        sent.save()
        devices.work_through(sent.device)
