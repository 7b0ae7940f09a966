"""Scans of marked prints, laid under their sheets."""

from __future__ import annotations

import shutil
from collections.abc import Iterable

from django.db import transaction

from drafting.errors import SheetError
from drafting.review.scan_placement import ScanPlacement
from drafting.schema import dump, parse
from server.common import storage
from server.common.rows import Memo, RowService
from server.issues.freezing import files_of, freeze_sheet, paths, store_state
from server.jobs import services as jobs
from server.jobs.models import Job
from server.jobs.runner import Work
from server.projects.room import require_room
from server.reviews.models import Scan, ScanFile
from server.sheets.models import Sheet

#: A file of more is refused; bytes. And a sheet has no more scans.
MAX_FILE, MAX_SCANS = 100_000_000, 20


class ScanService(RowService[Scan]):
    model = Scan
    to_project = "sheet__project"

    def check(self, row: Scan, changed: set[str], memo: Memo) -> None:
        placement: ScanPlacement = parse(ScanPlacement, row.placement, "place of a scan", SheetError)
        if abs(placement.a * placement.e - placement.b * placement.d) < 1e-9:
            raise SheetError("These places lie on one line. Choose three that do not.")


scan_service = ScanService()


def order(sheet: Sheet, name: str, size: int, chunks: Iterable[bytes]) -> ScanFile:
    """Have a scan read and laid under a sheet, in the background.

    Raises:
        SheetError: it is too large, or the sheet has very many.
    """
    if size > MAX_FILE:
        raise SheetError(
            f"“{name}” has {size / 1e6:.0f} MB and the limit is {MAX_FILE / 1e6:.0f} MB. Scan it at 200 to "
            "the inch."
        )
    if sheet.scans.count() >= MAX_SCANS:
        raise SheetError(f"This sheet has {MAX_SCANS} scans. Delete those that are done with.")
    require_room(sheet.project, name, size)
    source = storage.store(storage.write_chunks(chunks))
    with transaction.atomic():
        job = jobs.start(sheet.project, Job.Kind.SCAN, name, str(sheet.pk))
        return ScanFile.objects.create(job=job, sheet=sheet, name=name[:200], source=source)


def lay(job: Job, work: Work) -> None:
    """Keep the scan of a job, and lay it under its sheet."""
    row = job.scan_file
    now = freeze_sheet(row.sheet)
    linework, pictures = files_of(row.sheet.project, [now])
    folder, target = storage.temporary_path(".scan"), storage.temporary_path(".jpg")
    folder.mkdir(parents=True)
    try:
        source, state = storage.path_of(row.source), storage.path_of(store_state(now))
        found = work.run(
            "reviews:lay_scan", source, row.name, state, paths(linework), paths(pictures), target, folder
        )
        file = storage.store(target)
    finally:
        shutil.rmtree(folder, ignore_errors=True)
        target.unlink(missing_ok=True)
    with transaction.atomic():
        row.scan = Scan.objects.create(
            sheet=row.sheet,
            name=row.name,
            file=file,
            width=found.width,
            height=found.height,
            placement=dump(found.placement),
            found=found.found,
        )
        row.save()
