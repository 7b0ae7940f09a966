"""Changing several rows at once: all of them are changed, or none."""

from __future__ import annotations

import uuid
from collections.abc import Mapping, Sequence
from itertools import groupby
from typing import Any

from django.db import transaction

from drafting.errors import SheetError
from server.changes import history
from server.changes.kinds import KINDS
from server.changes.models import MadeChange
from server.common.problems import Conflict, NoRoom
from server.common.rows import Memo
from server.common.space import has_room
from server.sheets.services import release_numbers

GONE = "This was deleted elsewhere in the meantime."


@transaction.atomic
def make_changes(
    user: Any, steps: Sequence[dict[str, Any]], change: Any, what: str, context: Mapping[str, Any]
) -> Any:
    """Make changes, in their order: each row as it is then, None for one that is gone. `what` is what they
    come to, in words.

    Raises:
        Conflict: a row has been changed or deleted since; nothing at all is changed.
        NoRoom: it adds to the data, and the disk is all but full.
    """
    if any(step["row"] is not None for step in steps) and not has_room():
        raise NoRoom
    made = MadeChange.objects.filter(change=change, user=user).first() if change else None
    if made:
        return made.answer["rows"]
    renumbered = [
        step["id"] for step in steps if step["rows"] == "sheets" and "number" in (step["row"] or {})
    ]
    known = KINDS["sheets"].of(user).filter(pk__in=renumbered)
    release_numbers(list(known.values_list("pk", flat=True)))
    memo: Memo = {}
    written: list[dict[str, Any]] = []
    within = {**context, history.WRITTEN: written}
    rows: list[Any] = []
    # New rows of one kind are made together.
    for kind, group in groupby(steps, lambda step: step["rows"] if _is_new(step) else None):
        if kind is None:
            rows += [_change(user, step, within, memo) for step in group]
        else:
            given = [{**step["row"], "id": str(step["id"])} for step in group]
            rows += KINDS[kind].create(given, within, memo)
    if len({str(row["project"]) for row in written if row["project"]}) > 1:
        raise SheetError("These changes are of two projects. Make those of each by themselves.")
    history.note(user, what or "change", written)
    if change:
        MadeChange.remember(change, user, {"rows": rows})
    return rows


def unreadable_rows(project: uuid.UUID) -> list[dict[str, str]]:
    """The rows of a project that were damaged where they are stored: of which kind each is, what it is
    called, and why it cannot be read. Lists and sheets are made without them."""
    return [{"rows": name, **found} for name, kind in KINDS.items() for found in kind.unreadable(project)]


def _is_new(step: dict[str, Any]) -> bool:
    return step["version"] == 0 and step["row"] is not None


def _change(user: Any, step: dict[str, Any], context: Mapping[str, Any], memo: Memo) -> Any:
    """Change or delete one row: as it is then."""
    kind, pk, row = KINDS[step["rows"]], step["id"], step["row"]
    there = kind.of(user).filter(pk=pk).first()
    name = {"rows": step["rows"], "id": str(pk)}
    try:
        if row is None:
            # What somebody else has deleted already need not be deleted again.
            if there is not None:
                kind.delete(there, step["version"] or None, context)
            return None
        if there is None:
            raise Conflict({**name, "row": None}, GONE)
        return kind.update(there, {**row, "version": step["version"]}, context, memo)
    except Conflict as conflict:
        if "rows" in conflict.current:
            raise
        raise Conflict({**name, "row": conflict.current}) from None
