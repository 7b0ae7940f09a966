"""Comparing two states of sheets."""

from __future__ import annotations

import shutil
from dataclasses import dataclass
from typing import Any

from django.db import transaction

from drafting.errors import SheetError
from drafting.issuing.comparison_page import STRIP
from drafting.issuing.difference import Difference
from drafting.issuing.frozen import FrozenSheet, thaw
from drafting.schema import dump
from server.common import storage
from server.issues.freezing import (
    files_kept,
    files_of,
    files_of_issue,
    freeze_sheet,
    paths,
    store_state,
)
from server.issues.models import Compared, DayState, IssuedSheet
from server.jobs import services as jobs
from server.jobs.models import Job
from server.jobs.runner import Work
from server.projects.models import Project
from server.sheets.models import Sheet

State = IssuedSheet | DayState | Sheet
#: By which field a state is named.
_KINDS: dict[type[State], str] = {IssuedSheet: "issued", DayState: "day", Sheet: "sheet"}


def project_of(state: State) -> Project:
    """The project that a state is of."""
    if isinstance(state, IssuedSheet):
        return state.issue.project
    return state.sheet.project if isinstance(state, DayState) else state.project


@transaction.atomic
def order_comparison(old: State, new: State, *, ignore_moves: bool = True) -> Compared:
    """Have two states compared."""
    given: dict[str, Any] = {f"{side}_{_KINDS[type(row)]}": row for side, row in (("old", old), ("new", new))}
    job = jobs.start(project_of(old), Job.Kind.COMPARE, f"{old.number} and {new.number}")
    return Compared.objects.create(job=job, ignore_moves=ignore_moves, **given)


@dataclass(frozen=True)
class _Side:
    """A state: its frozen sheet and where that is stored, what it is called, and what it is drawn from."""

    sheet: FrozenSheet
    state: str
    name: str
    files: tuple[dict[str, str], dict[str, str]]


def _side(state: State | None) -> _Side:
    if state is None:
        raise SheetError("The sheet to compare has been deleted.")
    if isinstance(state, Sheet):
        now = freeze_sheet(state)
        return _Side(now, store_state(now), f"{now.number} now", files_of(state.project, [now]))
    sheet = thaw(storage.path_of(state.state).read_bytes())
    if isinstance(state, DayState):
        return _Side(sheet, state.state, f"{state.number} on {state.day}", files_kept(state.files.all()))
    return _Side(sheet, state.state, _name_of(state), files_of_issue(state))


def compare(job: Job, work: Work) -> None:
    """Compare the two states of a job, and draw one over the other."""
    row = job.compared
    old = _side(row.old_issued or row.old_day or row.old_sheet)
    new = _side(row.new_issued or row.new_day or row.new_sheet)
    linework, pictures = ({**old.files[k], **new.files[k]} for k in (0, 1))
    states = storage.path_of(old.state), storage.path_of(new.state)
    names = old.name, new.name
    folder = storage.temporary_path(".compared")
    folder.mkdir(parents=True)
    try:
        found = work.run(
            "comparisons:compare_states", states, names, paths(linework), paths(pictures), folder,
            row.ignore_moves,
        )  # fmt: skip
        row.before, row.after, row.over = (
            storage.store(folder / f"{name}.svg") for name in ("before", "after", "over")
        )
        row.printed = storage.store(folder / "over.pdf")
    finally:
        shutil.rmtree(folder, ignore_errors=True)
    row.names = names
    row.size = [new.sheet.width, new.sheet.height + STRIP, STRIP]
    row.differences = dump(found, list[Difference])
    row.save()


def _name_of(issued: IssuedSheet) -> str:
    revision = f" {issued.revision}" if issued.revision else ""
    return f"{issued.number}{revision} of {issued.issue.date}"
