"""What was done to sheets and views, and how to go back to what they were."""

from __future__ import annotations

import uuid
from collections.abc import Mapping, Sequence
from datetime import timedelta
from functools import cache
from typing import Any

from django.utils import timezone

from drafting.errors import SheetError
from server.changes.kinds import KINDS
from server.changes.models import HistoryEntry, HistorySubject
from server.common.serializers import RowSerializer
from server.projects.models import Project
from server.projects.rows import RowKind

#: What was done longer ago is forgotten, and so is more than can be looked through.
KEPT, MAX_ENTRIES = timedelta(days=730), 300
#: By the field of a row, which sheets and views it belongs to.
_BELONGS = ("sheet", "view")
#: What the rows of a batch are gathered in, in the context of their request.
WRITTEN = "written"
#: What is said of a single write.
_VERBS = {(False, True): "add", (True, True): "change", (True, False): "delete"}

Row = dict[str, Any]


def record(kind: RowKind, before: Row | None, after: Row | None, context: Mapping[str, Any]) -> None:
    """Note a write: with those of its batch, or as an entry of its own."""
    name = next((name for name, known in KINDS.items() if known is kind), "")
    row = _written(name, kind, before, after) if name else None
    if row is None:
        return
    if WRITTEN in context:
        context[WRITTEN].append(row)
    else:
        verb = _VERBS[before is not None, after is not None]
        what = f"{verb} a {kind.service.model._meta.verbose_name}"
        note(context["request"].user, what, [row])


def note(user: Any, what: str, rows: Sequence[Row]) -> None:
    """Keep what was done to some rows, all of one project."""
    project = next((row["project"] for row in rows if row["project"]), None)
    subjects = {subject for row in rows for subject in row["of"]}
    if project is None or not subjects:
        return
    kept = [{key: value for key, value in row.items() if key != "project"} for row in rows]
    entry = HistoryEntry.objects.create(
        project_id=project, by=user.get_username(), what=what[:200], rows=kept
    )
    HistorySubject.objects.bulk_create(
        HistorySubject(entry=entry, subject=subject) for subject in sorted(subjects)
    )


def _written(name: str, kind: RowKind, before: Row | None, after: Row | None) -> Row | None:
    """What is kept of a write: of a change, the fields that it changed."""
    whole = after or before or {}
    fields: Sequence[str] = _kept_fields(kind.serializer)
    if before is not None and after is not None:
        fields = [key for key in fields if before.get(key) != after.get(key)]
        if not fields:
            return None
    belongs = {str(each[key]) for each in (before, after) if each for key in _BELONGS if each.get(key)}
    if name in ("sheets", "views"):
        belongs = {str(whole["id"])}
    return {
        "rows": name,
        "id": str(whole["id"]),
        "before": None if before is None else {key: before.get(key) for key in fields},
        "after": None if after is None else {key: after.get(key) for key in fields},
        "of": sorted(belongs),
        "project": project_of(whole),
    }


@cache
def _kept_fields(serializer: type[RowSerializer]) -> tuple[str, ...]:
    """The fields of a row that are changed and sent."""
    return tuple(
        key
        for key, field in serializer().fields.items()
        if not field.read_only and not field.write_only and key not in ("id", "version")
    )


def project_of(row: Row) -> Any:
    """The id of the project that a row belongs to, None where there is none any more."""
    if row.get("project"):
        return row["project"]
    found = Project.objects.filter(sheets=row["sheet"]).values_list("pk", flat=True) if "sheet" in row else ()
    return next(iter(found), None)


def deleted_row(kind: RowKind, given: Any) -> Row | None:
    """What a row was that somebody deleted last, by the id that it is to be made again with; None where it
    was not deleted, or is of a kind that has no history of its own."""
    subject = given.get("id") if isinstance(given, Mapping) else None
    try:
        entries = HistoryEntry.objects.filter(subjects__subject=uuid.UUID(str(subject)))
    except ValueError:
        return None
    for entry in entries.order_by("-pk")[:MAX_ENTRIES]:
        for row in reversed(entry.rows):
            if row["id"] == str(subject) and KINDS[row["rows"]] is kind:
                return row["before"] if row["after"] is None else None
    return None


def history_of(user: Any, subject: uuid.UUID) -> list[HistoryEntry]:
    """What was done to a sheet or a view of somebody's projects, the newest first."""
    found = HistoryEntry.objects.filter(project__in=Project.of(user), subjects__subject=subject)
    return list(found[:MAX_ENTRIES])


def steps_back(entry: HistoryEntry, subject: uuid.UUID, context: Mapping[str, Any]) -> list[Row]:
    """The steps that bring a sheet or a view, with what stands on it, back to what it was right after
    something was done.

    Raises:
        SheetError: it is that already, or what it was is not known any more.
    """
    wanted: dict[tuple[str, str], Row | None] = {}
    later = HistoryEntry.objects.filter(subjects__subject=subject, pk__gt=entry.pk, project=entry.project)
    for each in later.order_by("-pk"):
        for row in reversed(each.rows):
            if str(subject) in row["of"]:
                _undo(wanted, row)
    steps = [
        step
        for (name, pk), target in wanted.items()
        if (step := _step(name, pk, target, context)) is not None
    ]
    if not steps:
        raise SheetError("It is as it was then. There is nothing to go back to.")
    # What is deleted goes first, and what stands on a sheet comes after it.
    order = list(KINDS)
    return sorted(steps, key=lambda step: (step["after"] is not None, order.index(step["rows"])))


def _undo(wanted: dict[tuple[str, str], Row | None], row: Row) -> None:
    """Go back over one write: what a row was before it."""
    key = row["rows"], row["id"]
    if row["before"] is None:
        wanted[key] = None
    elif row["after"] is None:
        wanted[key] = dict(row["before"])
    else:
        wanted[key] = {**(wanted.get(key) or {}), **row["before"]}


def _step(name: str, pk: str, target: Row | None, context: Mapping[str, Any]) -> Row | None:
    """From what a row is now to what it is to be."""
    kind = KINDS[name]
    row = kind.of(context["request"].user).filter(pk=pk).first()
    now = None if row is None else kind.data(row, context)
    if target is None:
        return None if now is None else {"rows": name, "id": pk, "before": now, "after": None}
    if now is None:
        return {"rows": name, "id": pk, "before": None, "after": {**target, "id": pk}}
    differs = {key: value for key, value in target.items() if now.get(key) != value}
    if not differs:
        return None
    return {"rows": name, "id": pk, "before": {key: now.get(key) for key in differs}, "after": differs}


def forget() -> None:
    """Delete what was done long ago."""
    HistoryEntry.objects.filter(at__lt=timezone.now() - KEPT).delete()
