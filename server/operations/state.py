"""How the installation is: what whoever runs it has to know."""

from __future__ import annotations

import shutil
from dataclasses import dataclass
from datetime import timedelta
from typing import Any

from django.conf import settings
from django.contrib.auth import get_user_model
from django.contrib.sessions.models import Session
from django.db import DatabaseError, connection
from django.utils import timezone

from server.common.space import has_room
from server.events.hub import hub
from server.jobs.models import Job, Worker
from server.jobs.workers import any_alive

#: Work that has waited for so long, and that nobody does, is told as standing still.
LONG = timedelta(minutes=5)
_NONE_ALIVE = "None is alive, or no machine works for the queue." if settings.QUEUE else "None is alive."


@dataclass(frozen=True)
class PartState:
    """A part of the installation: whether it works, and what there is to say of it."""

    name: str
    works: bool
    words: str


def parts() -> list[PartState]:
    """The database, the disk, the queue and the workers. The last three are told of only where the first
    answers."""
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT 1")
    except DatabaseError as error:
        return [PartState("database", False, f"It does not answer ({type(error).__name__}).")]
    free = shutil.disk_usage(settings.DATA).free
    waiting = Job.objects.filter(state=Job.State.WAITING)
    running = Job.objects.filter(state=Job.State.RUNNING)
    stuck = not running.exists() and waiting.filter(created__lt=timezone.now() - LONG).exists()
    alive = any_alive()
    return [
        PartState("database", True, "It answers."),
        PartState("disk", has_room(), f"{free / 1024**3:.1f} GB are free."),
        PartState("queue", not stuck, f"{waiting.count()} jobs wait, {running.count()} are under way."),
        PartState("workers", alive, f"{Worker.objects.count()} are known." if alive else _NONE_ALIVE),
    ]


def figures() -> dict[str, float]:
    """What is counted, by names for monitoring."""
    jobs = Job.objects.filter(state__in=Job.ACTIVE)
    return {
        "jobs_waiting": jobs.filter(state=Job.State.WAITING).count(),
        "jobs_running": jobs.filter(state=Job.State.RUNNING).count(),
        "workers": Worker.objects.count(),
        "disk_free_bytes": shutil.disk_usage(settings.DATA).free,
        "sessions": Session.objects.filter(expire_date__gt=timezone.now()).count(),
        "people": get_user_model().objects.filter(is_active=True).count(),
        "pages_listening": hub.count(),
    }


def at_work() -> dict[str, Any]:
    """What is done just now, for people."""
    jobs = Job.objects.filter(state__in=Job.ACTIVE).select_related("project", "worker").order_by("created")
    return {"jobs": jobs[:50], "workers": Worker.objects.all()[:50]}
