"""Who may read which drawing: whoever works in a project where something is drawn by it. Apps that draw
register themselves."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from django.db.models import QuerySet

from server.projects.models import Project
from server.views.models import View

Holder = Callable[[str, QuerySet[Project]], bool]
_holders: list[Holder] = []


def register_holder(holder: Holder) -> None:
    """Say who else has drawings: `holder` is asked with a key and some projects."""
    _holders.append(holder)


def may_read_linework(key: str, projects: Any) -> bool:
    """Whether something in these projects is drawn by a drawing."""
    return View.objects.filter(linework=key, project__in=projects).exists() or any(
        holder(key, projects) for holder in _holders
    )
