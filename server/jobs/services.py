"""Ordering and cancelling jobs, and putting away old ones."""

from __future__ import annotations

from datetime import timedelta

from django.db import transaction
from django.utils import timezone

from server.jobs.models import Job
from server.jobs.runner import clean_up
from server.jobs.tasks import enqueue
from server.projects.models import Project

#: Jobs that ended longer ago than this are of no use to anybody.
KEPT = timedelta(days=7)


def start(project: Project, kind: str, about: str, subject: str = "", *, long: bool = False) -> Job:
    """A job and its place in the queue: both are there, or neither."""
    with transaction.atomic():
        job = Job.objects.create(project=project, kind=kind, about=about[:250], subject=subject, long=long)
        enqueue(job)
    return job


def active(kind: str, subject: str) -> Job | None:
    """The job that makes something just now, if there is one."""
    return Job.objects.filter(kind=kind, subject=subject, state__in=Job.ACTIVE, cancel_wanted=False).first()


def cancel(job: Job) -> None:
    """Ask that a job stops. One that has not begun ends here and now."""
    with transaction.atomic():
        job.cancel_wanted = True
        job.save(update_fields=["cancel_wanted"])
        waiting = Job.objects.filter(pk=job.pk, state=Job.State.WAITING)
        if waiting.update(state=Job.State.CANCELLED, finished=timezone.now()):
            clean_up(job)
    job.refresh_from_db()


def prune_jobs() -> None:
    """Delete jobs that ended long ago."""
    Job.objects.filter(finished__lt=timezone.now() - KEPT).delete()
