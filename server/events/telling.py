"""What is told as it happens: rows that this process writes, and jobs, which a worker writes."""

from __future__ import annotations

import threading
import uuid
from collections.abc import Callable, Mapping
from contextvars import ContextVar
from dataclasses import dataclass, field
from datetime import timedelta
from typing import Any

from django.db import connection, models, transaction
from django.db.models import Q
from django.db.models.signals import post_delete, post_save
from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from server.annotations.models import TableFile
from server.buildings.models import ModelVersion
from server.changes.history import project_of
from server.changes.kinds import KINDS
from server.common.rows import RowService
from server.events.hub import MAX_ROWS, Changed, hub
from server.issues.models import Issue, SentIssue
from server.jobs.models import Job
from server.jobs.serializers import JobSerializer
from server.plots.models import Print
from server.projects.models import Project
from server.projects.rows import RowKind, register_recorder
from server.reviews.models import Answer, CommentPicture, LinkUse, Review
from server.sheets.models import Picture
from server.views.models import ReceivedFile

#: By which a page says that a write is its own.
TAB_HEADER = "X-Dunefold-Tab"
MAX_TAB = 36
#: How often it is looked whether another process has written; seconds.
LOOK_EVERY = 0.15
_NAMES = {kind.service.model: name for name, kind in KINDS.items()}
#: Jobs that ended longer ago have been told.
LATELY = timedelta(seconds=20)

_watching = threading.Lock()
Responder = Callable[[HttpRequest], HttpResponse]


@dataclass
class _Written:
    """What a request of a page has written: rows that are told as they are now, and others by their kind."""

    tab: str
    rows: dict[tuple[str, str], tuple[str, Changed]] = field(default_factory=dict)
    others: dict[tuple[str, str], str] = field(default_factory=dict)

    def tell(self) -> None:
        whole = self.rows if len(self.rows) <= MAX_ROWS else {}
        for project, changed in whole.values():
            hub.tell_row(project, changed, self.tab)
        rest = {key: project for key, project in self.others.items() if key not in whole}
        for project, topic in {(project, topic) for (topic, _), project in rest.items()}:
            hub.tell(project, topic, self.tab)


_written: ContextVar[_Written | None] = ContextVar("written", default=None)


def with_tab(get_response: Responder) -> Responder:
    """Middleware: what is written while a request is answered is known as its page's, and told at its end."""

    def middleware(request: HttpRequest) -> HttpResponse:
        written = _Written(request.headers.get(TAB_HEADER, "")[:MAX_TAB])
        token = _written.set(written)
        try:
            return get_response(request)
        finally:
            _written.reset(token)
            written.tell()

    return middleware


def listen() -> None:
    """Have all rows told that belong to a project and are shown in lists."""
    register_recorder(_record)
    hub.on_first = lambda: threading.Thread(target=_watch_jobs, name="watch-jobs", daemon=True).start()
    for name, kind in KINDS.items():
        _tell_rows(kind.service.model, name, _by(kind.service))
    _tell_rows(Project, "projects", lambda row: row.pk)
    for model, name in (
        (ModelVersion, "model-versions"),
        (Issue, "issues"),
        (Print, "prints"),
        (Picture, "pictures"),
        (TableFile, "table-files"),
        (ReceivedFile, "received-files"),
    ):
        _tell_rows(model, name, lambda row: row.project_id)
    _tell_rows(Review, "reviews", lambda row: row.project_id)
    _tell_rows(LinkUse, "reviews", lambda row: row.link.review.project_id)
    for said in (Answer, CommentPicture):
        _tell_rows(said, "comments", lambda row: row.comment.project_id)
    _tell_rows(SentIssue, "issues", lambda row: row.recipient.issue.project_id)


def _by(service: RowService[Any]) -> Callable[[Any], Any]:
    return service.project_id


def _tell_rows(model: type[models.Model], topic: str, project_of: Callable[[Any], Any]) -> None:
    def tell(instance: Any, **more: Any) -> None:
        if not hub.projects():
            return
        try:
            project = str(project_of(instance))
        except (AttributeError, models.ObjectDoesNotExist):
            return  # built in, and of no project; or its project is being deleted with it
        written, key = _written.get(), (topic, str(instance.pk))
        if written is None:
            transaction.on_commit(lambda: hub.tell(project, topic))
        else:
            transaction.on_commit(lambda: written.others.update({key: project}))

    for signal in (post_save, post_delete):
        signal.connect(tell, sender=model, weak=False)


def _record(
    kind: RowKind, before: dict[str, Any] | None, after: dict[str, Any] | None, context: Mapping[str, Any]
) -> None:
    """Have a row that people change told as it is now."""
    written, name = _written.get(), _NAMES.get(kind.service.model)
    if written is None or name is None or not hub.projects():
        return
    row = after or before or {}
    project, changed = project_of(row), Changed(name, str(row["id"]), after)
    if project is not None:
        transaction.on_commit(lambda: written.rows.update({(name, changed.id): (str(project), changed)}))


def _watch_jobs() -> None:
    """While anybody is told of anything, look how the jobs are; in one thread, whoever asks."""
    while hub.projects() and _watching.acquire(blocking=False):
        try:
            _look()
        finally:
            connection.close()
            _watching.release()


def _look() -> None:
    """Look whether another process has written, and tell the jobs that are otherwise than they were. SQLite
    counts what others have written (`PRAGMA data_version`), which costs next to nothing to ask."""
    known: dict[Any, Any] = {}
    written, rest = None, threading.Event()
    while projects := hub.projects():
        with connection.cursor() as cursor:
            now = cursor.execute("PRAGMA data_version").fetchone()
        if now != written:
            first, before = written is None, known
            written, jobs = now, _jobs(projects)
            known = {job.pk: (job.state, job.stage, job.share, job.cancel_wanted) for job in jobs}
            for job in jobs:
                if not first and known[job.pk] != before.get(job.pk):
                    row = dict(JobSerializer(job).data)
                    hub.tell_row(str(job.project_id), Changed("jobs", str(job.pk), row))
        rest.wait(LOOK_EVERY)


def _jobs(projects: list[str]) -> list[Job]:
    """Those of projects that are under way or ended lately."""
    lately = Q(state__in=Job.ACTIVE) | Q(finished__gt=timezone.now() - LATELY)
    return list(Job.objects.filter(lately, project__in=[uuid.UUID(project) for project in projects]))
