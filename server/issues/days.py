"""Sheets as they were on earlier days: kept whenever the set is checked and a sheet has become another."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import timedelta

from django.db import transaction
from django.utils import timezone

from drafting.checks.checked import CheckedSheet
from drafting.issuing.frozen import freeze
from server.issues.freezing import files_of, store_state
from server.issues.models import DayFile, DayState
from server.projects.models import Project
from server.sheets.models import Sheet

#: States of earlier days are kept for so long.
KEPT = timedelta(days=60)


def store(project: Project, sheets: Iterable[CheckedSheet]) -> None:
    """Keep what sheets are like today, in place of what they were like earlier today."""
    today = timezone.localdate()
    last: dict[str, DayState] = {}
    for row in DayState.objects.filter(sheet__project=project).order_by("day"):
        last[str(row.sheet_id)] = row
    there = {str(pk) for pk in Sheet.objects.filter(project=project).values_list("pk", flat=True)}
    for checked in sheets:
        known = last.get(checked.id)
        # A sheet may have been deleted while the set was checked.
        if checked.id in there and (known is None or known.fingerprint != checked.fingerprint):
            _keep(project, checked, known if known is not None and known.day == today else None)


def _keep(project: Project, checked: CheckedSheet, instead: DayState | None) -> None:
    frozen = freeze(checked.sheet, checked.display)
    state = store_state(frozen)
    linework, pictures = files_of(project, [frozen])
    with transaction.atomic():
        if instead is not None:
            instead.delete()
        row = DayState.objects.create(
            sheet_id=checked.id,
            day=timezone.localdate(),
            number=frozen.number,
            fingerprint=checked.fingerprint,
            state=state,
        )
        DayFile.objects.bulk_create(
            DayFile(of=row, kind=kind, key=key, file=file)
            for kind, files in (("linework", linework), ("picture", pictures))
            for key, file in files.items()
        )


def forget() -> None:
    """Delete states of days long past."""
    DayState.objects.filter(day__lt=timezone.localdate() - KEPT).delete()
