"""Running jobs: what is done for each kind, and how it ends."""

from __future__ import annotations

import logging
import time
from collections.abc import Callable
from dataclasses import dataclass
from functools import partial
from typing import Any

from django.conf import settings
from django.utils import timezone

from drafting.errors import DraftingError
from server.common import storage
from server.common.problems import logged
from server.jobs.child import Cancelled, ChildProcess, ChildProcessFailed, ChildProcessLost
from server.jobs.models import Job, Worker

log = logging.getLogger(__name__)

#: Progress is written at most this often; seconds.
WRITE_INTERVAL = 0.2
#: How often it is looked whether a job was cancelled; seconds.
CANCEL_INTERVAL = 0.25

Handler = Callable[[Job, "Work"], None]


@dataclass(frozen=True)
class _Kind:
    """What is done for a kind of job, what cleans up after one that came to nothing, and whether one has come
    to what it was to make, however it ended."""

    do: Handler
    clean_up: Handler
    is_made: Callable[[Job], bool]


_kinds: dict[str, _Kind] = {}
_child: ChildProcess | None = None
#: The worker that this process is, and what shows that it is alive; none where jobs are run in a test.
_worker: Worker | None = None
_beat: Callable[[], None] | None = None


def register(
    kind: str,
    handler: Handler,
    clean_up: Handler = lambda job, work: None,
    is_made: Callable[[Job], bool] = lambda job: False,
) -> None:
    """Say what is done for a kind of job, what cleans up when it ends without success, and where a job can be
    stopped after it has made all of what it was to make, whether it has."""
    _kinds[kind] = _Kind(handler, clean_up, is_made)


def work_as(worker: Worker | None, beat: Callable[[], None] | None) -> None:
    """Run jobs as a worker from now on, or as none; `beat` is called now and then while one is run."""
    global _worker, _beat
    _worker, _beat = worker, beat


def the_child(*, warm: bool = True) -> ChildProcess:
    """The one process for heavy work that this process holds. One that is not `warm` loads what a work
    needs when it comes, for whoever has but one done."""
    global _child
    if _child is None:
        _child = ChildProcess(settings.JOB_MEMORY_LIMIT, storage.temporary_folder, warm=warm)
    return _child


def run(job: Job) -> None:
    """Do a job from its beginning to its end, whatever that is. Never raises for what is wrong with the
    job."""
    begun = Job.objects.filter(pk=job.pk, state=Job.State.WAITING).update(
        state=Job.State.RUNNING, worker=_worker
    )
    if not begun:
        return
    work = Work(job)
    try:
        _kinds[job.kind].do(job, work)
        state, message = Job.State.DONE, ""
    except Cancelled:
        state, message = Job.State.CANCELLED, ""
    except (DraftingError, ChildProcessFailed) as error:
        state, message = Job.State.FAILED, str(error)
    except Exception:
        state, message = Job.State.FAILED, logged("job %s (%s)", job.pk, job)
    if state != Job.State.DONE and _kinds[job.kind].is_made(job):
        state, message = Job.State.DONE, ""
    if state != Job.State.DONE:
        clean_up(job)
    Job.objects.filter(pk=job.pk).update(
        state=state, message=message, stage="", share=1.0, worker=None, finished=timezone.now()
    )


def clean_up(job: Job) -> None:
    """Put away what a job leaves that came to nothing."""
    _kinds[job.kind].clean_up(job, Work(job))


def end_lost(job: Job) -> None:
    """A job that a stopped worker left running can't go on: say so, and clean up after it. One that had made
    all of what it was to make is done."""
    job.worker, job.finished = None, timezone.now()
    if _kinds[job.kind].is_made(job):
        job.state = Job.State.DONE
    else:
        clean_up(job)
        job.state, job.message = Job.State.FAILED, "Dunefold was stopped meanwhile. Try again."
    job.save()


def _run_twice(*given: Any) -> Any:
    """Run a step in the child process, and once more where that was lost: somebody may have killed it."""
    try:
        return the_child().run(*given)
    except ChildProcessLost:
        log.warning("the child process was lost; what it was at is tried once more")
        return the_child().run(*given)


class Work:
    """What a handler has at its disposal: the child process, with this job's progress and cancel."""

    def __init__(self, job: Job) -> None:
        self._job = job
        self._written = self._checked = 0.0

    def run(self, step: str, *arguments: Any) -> Any:
        """Run a step of the core's tasks, such as "sheets:plot_sheets", in the child process, or on another
        machine where there is a queue for that. See ChildProcess.run for what it raises."""
        return self._place()(
            f"drafting.tasks.{step}",
            arguments,
            self.progress,
            self._wanted,
            settings.JOB_TIME_LIMIT,
            settings.JOB_STALL_LIMIT,
        )

    def _place(self) -> Callable[..., Any]:
        if settings.QUEUE:
            # What it is made of is installed only where there is a queue.
            from server.jobs.machines import elsewhere

            return partial(elsewhere.run, long=self._job.long)
        return _run_twice

    def progress(self, stage: str, share: float) -> None:
        """Write how far the job is, now and then."""
        if stage != self._job.stage or time.monotonic() - self._written > WRITE_INTERVAL:
            self._written = time.monotonic()
            self._job.stage = stage
            Job.objects.filter(pk=self._job.pk).update(stage=stage, share=share)

    def step(self, stage: str, share: float) -> None:
        """Write how far work is that this process does itself, and show that it is alive.

        Raises:
            Cancelled: the job is not wanted any more.
        """
        self.progress(stage, share)
        if not self._wanted():
            raise Cancelled

    def _wanted(self) -> bool:
        now = time.monotonic()
        if now - self._checked < CANCEL_INTERVAL:
            return True
        self._checked = now
        if _beat is not None:
            _beat()
        return not Job.objects.filter(pk=self._job.pk, cancel_wanted=True).exists()
