"""Comparing two states of sheets."""

from __future__ import annotations

import shutil
from typing import Any

from drafting.errors import SheetError
from drafting.issuing.comparison import Difference
from drafting.issuing.comparison_page import STRIP
from drafting.issuing.frozen import FrozenSheet, thaw
from drafting.schema import dump
from server.common import storage
from server.issues.freezing import files_of, files_of_issue, freeze_sheets, paths, store_state
from server.issues.models import Compared, IssuedSheet
from server.jobs import services as jobs
from server.jobs.models import Job
from server.jobs.runner import Work
from server.sheets.models import Sheet


def order_comparison(
    old: IssuedSheet | Sheet, new: IssuedSheet | Sheet, *, ignore_moves: bool = True
) -> Compared:
    """Have two states compared."""
    sheets = {"old": old, "new": new}
    project = old.issue.project if isinstance(old, IssuedSheet) else old.project
    given: dict[str, Any] = {
        f"{side}_{'issued' if isinstance(row, IssuedSheet) else 'sheet'}": row for side, row in sheets.items()
    }
    job = jobs.start(project, Job.Kind.COMPARE, f"{old.number} and {new.number}")
    return Compared.objects.create(job=job, ignore_moves=ignore_moves, **given)


def compare(job: Job, work: Work) -> None:
    """Compare the two states of a job, and draw one over the other."""
    row = job.compared
    linework: dict[str, str] = {}
    pictures: dict[str, str] = {}
    states, frozen, names = [], [], []
    for issued, sheet in ((row.old_issued, row.old_sheet), (row.new_issued, row.new_sheet)):
        if issued is not None:
            files = files_of_issue(issued)
            state, name = thaw(storage.path_of(issued.state).read_bytes()), _name_of(issued)
            digest = issued.state
        elif sheet is not None:
            state = freeze_sheets(job.project, [sheet.pk], work.progress)[0].sheet
            name = f"{state.number} now"
            files, digest = files_of(job.project, [state]), store_state(state)
        else:
            raise SheetError("The sheet to compare has been deleted.")
        linework |= files[0]
        pictures |= files[1]
        states.append(storage.path_of(digest))
        frozen.append(state)
        names.append(name)
    folder = storage.temporary_path(".compared")
    folder.mkdir(parents=True)
    try:
        found = work.run(
            "compare_states", tuple(states), tuple(names), paths(linework), paths(pictures), folder,
            row.ignore_moves,
        )  # fmt: skip
        row.before, row.after, row.over = (
            storage.store(folder / f"{name}.svg") for name in ("before", "after", "over")
        )
        row.printed = storage.store(folder / "over.pdf")
    finally:
        shutil.rmtree(folder, ignore_errors=True)
    row.names, row.size = names, _size(frozen)
    row.differences = dump(found, list[Difference])
    row.save()


def _name_of(issued: IssuedSheet) -> str:
    revision = f" {issued.revision}" if issued.revision else ""
    return f"{issued.number}{revision} of {issued.issue.date}"


def _size(frozen: list[FrozenSheet]) -> list[float]:
    """Width and height of the page of the newer state, and how much of its foot is no sheet; mm."""
    newer = frozen[-1]
    return [newer.width, newer.height + STRIP, STRIP]
