"""Sheets as they are at one moment, with the files that they are drawn from."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from pathlib import Path
from typing import TypeVar

from django.db import transaction

from drafting.issuing.frozen import FrozenSheet, freeze, frozen_bytes
from server.checks.services import state_of_set
from server.common import storage
from server.issues.models import DayFile, IssuedSheet, KeptFile
from server.projects.models import Project
from server.sheets.composing import composed
from server.sheets.models import Sheet
from server.sheets.shading import kept_fine
from server.sheets.templates import picture_files
from server.sheets.whole_set import WholeSet
from server.views.models import Linework

#: So often it is tried to have all sheets of one moment while others go on editing; then they wait.
TRIES = 3


T = TypeVar("T")


def at_one_moment(project: Project, look: Callable[[], T]) -> T:
    """What `look` makes of the set of a project, all of it as it was at one moment."""
    for _ in range(TRIES):
        before = state_of_set(project)
        found = look()
        if state_of_set(project) == before:
            return found
    with transaction.atomic():  # from here on others wait
        return look()


def freeze_sheet(row: Sheet) -> FrozenSheet:
    """A sheet as it is now."""

    def look() -> FrozenSheet:
        now = Sheet.objects.select_related("project", "template", "plot_settings").get(pk=row.pk)
        return freeze(*composed(now, WholeSet.of(now.project)))

    return at_one_moment(row.project, look)


def store_state(sheet: FrozenSheet) -> str:
    """Store a frozen sheet and return its hash."""
    return storage.store(storage.write_chunks([frozen_bytes(sheet)], ".sheet"))


def files_of(project: Project, sheets: Iterable[FrozenSheet]) -> tuple[dict[str, str], dict[str, str]]:
    """The hashes of the linework and of the pictures that sheets are drawn from now, by their keys."""
    sheets = list(sheets)
    keys = {key for sheet in sheets for key in sheet.linework_keys}
    linework = {row.key: row.file for row in Linework.objects.filter(key__in=keys)}
    shown = {key for sheet in sheets for key in sheet.picture_keys}
    pictures = {key: file for key, file in picture_files(project).items() if key in shown}
    pictures |= kept_fine(shown)
    return linework, pictures


def files_of_issue(issued: IssuedSheet) -> tuple[dict[str, str], dict[str, str]]:
    """The same of what was issued."""
    return files_kept(KeptFile.objects.filter(issue=issued.issue_id))


def files_kept(rows: Iterable[KeptFile | DayFile]) -> tuple[dict[str, str], dict[str, str]]:
    """The hashes of kept linework and of kept pictures, by their keys."""
    kept = list(rows)
    linework = {row.key: row.file for row in kept if row.kind == "linework"}
    return linework, {row.key: row.file for row in kept if row.kind == "picture"}


def paths(files: Mapping[str, str]) -> dict[str, Path]:
    """Where stored files lie, by their keys."""
    return {key: storage.path_of(file) for key, file in files.items()}
