"""`dunefold plot`: sheets of a project to a file, as the Issue station makes it."""

from __future__ import annotations

import contextlib
import shutil
from pathlib import Path
from typing import Any
from uuid import UUID

from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db.models import Q, QuerySet

from drafting.errors import DraftingError
from drafting.plotting.files import ARCHIVE
from drafting.render.backends import FORMATS
from server.common import storage
from server.jobs import runner
from server.jobs.models import Job
from server.plots import services
from server.plots.models import SheetList
from server.projects.models import Project
from server.sheets.models import Sheet
from server.styles.models import PlotSettings


class Command(BaseCommand):
    requires_system_checks = ()
    help = "Plot sheets of a project to a file: PDF, DXF, or SVG and PNG, several of which come as one ZIP."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("project", help="its name, number or id")
        parser.add_argument("--sheets", metavar="A-01,A-03..A-05", help="all where left out")
        parser.add_argument("--list", metavar="NAME", help="the sheets of a list that the project keeps")
        parser.add_argument(
            "--with", dest="settings_named", metavar="NAME", help="plot settings for all sheets"
        )
        parser.add_argument(
            "--form", choices=list(FORMATS), help="where the ending of the file does not say it"
        )
        parser.add_argument(
            "-o", "--output", type=Path, required=True, help="OUT.pdf, .dxf, .svg, .png or .zip"
        )

    def handle(self, *args: Any, **given: Any) -> None:
        output: Path = given["output"]
        form = given["form"] or output.suffix.lower().removeprefix(".")
        if form not in FORMATS:
            endings = ", ".join(f".{ending}" for ending in (*FORMATS, *ARCHIVE))
            raise CommandError(f"“{output.name}” is to end in {endings}; with .zip say which --form.")
        project = _project(given["project"])
        sheets = _sheets(project, given["sheets"], given["list"])
        try:
            plot = services.order_plot(project, sheets, _settings(project, given["settings_named"]), form)
        except DraftingError as error:
            raise CommandError(str(error)) from error
        runner.the_child(warm=False)
        runner.run(plot.job)
        plot.refresh_from_db()
        plot.job.refresh_from_db()
        if plot.job.state != Job.State.DONE:
            raise CommandError(plot.job.message or "The plot was cancelled.")
        for note in plot.notes:
            self.stderr.write(f"note: {note}")
        made = output.with_suffix(f".{plot.file_name.rpartition('.')[2]}")
        shutil.copyfile(storage.path_of(plot.file), made)
        self.stdout.write(f"{made}: {len(plot.pages)} {'sheet' if len(plot.pages) == 1 else 'sheets'}")


def _project(named: str) -> Project:
    known = Q(name=named) | Q(number=named)
    with contextlib.suppress(ValueError):
        known |= Q(pk=UUID(named))
    found = list(Project.objects.filter(known))
    if len(found) != 1:
        there = ", ".join(f"“{project}”" for project in Project.objects.all()) or "none yet"
        several = "There are several projects" if found else "There is no project"
        raise CommandError(f"{several} “{named}”. Projects here: {there}.")
    return found[0]


def _sheets(project: Project, numbers: str | None, kept: str | None) -> list[Sheet]:
    """The sheets of numbers and ranges, and of a list, in register order."""
    register: QuerySet[Sheet] = Sheet.objects.filter(project=project).select_related(
        "project", "template", "plot_settings"
    )
    order = list(register)
    if kept:
        row = SheetList.objects.filter(project=project, name=kept).first()
        if row is None:
            raise CommandError(f"The project keeps no list “{kept}”.")
        chosen = set(row.sheets.values_list("pk", flat=True))
        return [sheet for sheet in order if sheet.pk in chosen]
    if not numbers:
        return order
    place = {sheet.number: k for k, sheet in enumerate(order)}
    wanted: set[int] = set()
    for part in numbers.split(","):
        first, _, last = (word.strip() for word in part.partition(".."))
        unknown = [word for word in (first, last or first) if word not in place]
        if unknown:
            raise CommandError(f"There is no sheet “{unknown[0]}”. Sheets are {', '.join(place)}.")
        ends = place[first], place[last or first]
        wanted |= set(range(min(ends), max(ends) + 1))
    return [order[k] for k in sorted(wanted)]


def _settings(project: Project, named: str | None) -> PlotSettings | None:
    if named is None:
        return None
    known = list(PlotSettings.objects.filter(Q(project=project) | Q(project=None)))
    found = [row for row in known if named in (row.key, row.name)]
    if not found:
        names = ", ".join(f"“{row.name}”" for row in known)
        raise CommandError(f"There are no plot settings “{named}”. There are {names}.")
    return found[0]
