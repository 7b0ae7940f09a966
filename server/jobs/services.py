"""Starting, running and cancelling jobs."""

from __future__ import annotations

import logging
import time
from collections.abc import Callable
from typing import Any

from django.conf import settings
from django.db import transaction
from django.utils import timezone

from drafting.errors import DraftingError
from server.jobs.hand import Cancelled, Hand, HandError
from server.jobs.models import Job
from server.projects.models import Project

log = logging.getLogger(__name__)

#: Progress is written at most this often; seconds.
WRITE = 0.2

Handler = Callable[[Job, "Work"], None]
_handlers: dict[str, tuple[Handler, Handler]] = {}
_hand: Hand | None = None


def register(kind: Job.Kind, handler: Handler, tidy: Handler = lambda job, work: None) -> None:
    """Say what is done for a kind of job, and what tidies up when it ends without success."""
    _handlers[kind] = (handler, tidy)


def the_hand() -> Hand:
    """The one process for heavy work that this process holds."""
    global _hand
    if _hand is None:
        _hand = Hand(settings.JOB_MEMORY_LIMIT)
    return _hand


def start(project: Project, kind: Job.Kind, about: str, order: dict[str, Any]) -> Job:
    """Put a job in the queue, once the present transaction holds."""
    from server.jobs.tasks import run_job

    job = Job.objects.create(project=project, kind=kind, about=about[:250], order=order)
    transaction.on_commit(lambda: run_job.enqueue(str(job.pk)))
    return job


def cancel(job: Job) -> None:
    """Ask that a job stops. One that has not begun ends here and now."""
    with transaction.atomic():
        job.cancel_wanted = True
        job.save(update_fields=["cancel_wanted"])
        waiting = Job.objects.filter(pk=job.pk, state=Job.State.WAITING)
        if waiting.update(state=Job.State.CANCELLED, finished=timezone.now()):
            _handlers[job.kind][1](job, Work(job))
    job.refresh_from_db()


def run(job: Job) -> None:
    """Do a job from its beginning to its end, whatever that is. Never raises for what is wrong with the job."""
    begun = Job.objects.filter(pk=job.pk, state=Job.State.WAITING).update(state=Job.State.RUNNING)
    if not begun:
        return
    handler, tidy = _handlers[job.kind]
    work = Work(job)
    try:
        handler(job, work)
        state, message = Job.State.DONE, ""
    except Cancelled:
        state, message = Job.State.CANCELLED, ""
    except (DraftingError, HandError) as error:
        state, message = Job.State.FAILED, str(error)
    except Exception:
        log.exception("job %s failed", job.pk)
        state, message = Job.State.FAILED, "Something went wrong on the server; it is in its log. Try again."
    if state != Job.State.DONE:
        tidy(job, work)
    Job.objects.filter(pk=job.pk).update(state=state, message=message, stage="", share=1.0, finished=timezone.now())


def end_lost_jobs() -> None:
    """Jobs that a stopped worker left running can't go on: say so, and tidy up after them."""
    for job in Job.objects.filter(state=Job.State.RUNNING):
        _handlers[job.kind][1](job, Work(job))
        job.state, job.message, job.finished = (
            Job.State.FAILED,
            "Dunefold was stopped meanwhile. Try again.",
            timezone.now(),
        )
        job.save()


class Work:
    """What a handler has at its disposal: the hand, with this job's progress and cancel."""

    def __init__(self, job: Job) -> None:
        self._job = job
        self._written = 0.0

    def run(self, step: str, *arguments: Any) -> Any:
        """Run a step of the core's workshop in the hand. See Hand.run for what it raises."""
        return the_hand().run(
            f"drafting.workshop:{step}",
            arguments,
            self.progress,
            self._wanted,
            settings.JOB_TIME_LIMIT,
            settings.JOB_STALL_LIMIT,
        )

    def progress(self, stage: str, share: float) -> None:
        """Write how far the job is, now and then."""
        if stage != self._job.stage or time.monotonic() - self._written > WRITE:
            self._written = time.monotonic()
            self._job.stage = stage
            Job.objects.filter(pk=self._job.pk).update(stage=stage, share=share)

    def _wanted(self) -> bool:
        return not Job.objects.filter(pk=self._job.pk, cancel_wanted=True).exists()
