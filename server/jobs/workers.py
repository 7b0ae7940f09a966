"""Which workers are alive, and what becomes of jobs whose worker is not."""

from __future__ import annotations

import logging
import os
import socket
import time
from collections.abc import Callable
from datetime import timedelta

from django.conf import settings
from django.db import connection, transaction
from django.utils import timezone
from django_tasks_db.models import DBTaskResult

from server.jobs.models import Job, Worker
from server.jobs.runner import end_lost
from server.jobs.tasks import enqueue

log = logging.getLogger(__name__)

#: How often a worker writes that it is alive; seconds.
BEAT_INTERVAL = 5.0
#: A worker that has not been heard of for so long is lost.
SILENCE = timedelta(seconds=40)
#: A job that has waited for so long without a place in the queue has lost it.
UNQUEUED = timedelta(seconds=30)

Sweep = Callable[[], None]
_sweeps: list[Sweep] = []


def register_sweep(sweep: Sweep) -> None:
    """Have the worker that leads do something now and then: what somebody who was stopped has left undone."""
    _sweeps.append(sweep)


def sweep() -> None:
    """Do what was left undone. What cannot be done is tried the next time."""
    for each in _sweeps:
        try:
            each()
        except Exception:
            log.exception("%s failed", each.__name__)


class Heart:
    """The row of this process's worker, and that it is alive."""

    def __init__(self) -> None:
        self.worker = Worker.objects.create(host=socket.gethostname(), pid=os.getpid(), seen=timezone.now())
        self._beaten = time.monotonic()

    def beat(self) -> None:
        """Write that the worker is alive, if that is due."""
        if time.monotonic() - self._beaten > BEAT_INTERVAL:
            self._beaten = time.monotonic()
            now = timezone.now()
            if not Worker.objects.filter(pk=self.worker.pk).update(seen=now):
                # It was taken for lost, while the machine slept for example.
                self.worker.seen = now
                self.worker.save(force_insert=True)

    def stop(self) -> None:
        # The signal to stop may have come just as a transaction had begun.
        if not connection.in_atomic_block:
            connection.close()
        Worker.objects.filter(pk=self.worker.pk).delete()


def any_alive() -> bool:
    """Whether there is a worker, so that what waits will be done; and a machine, where others do the heavy
    work."""
    if not any(_is_alive(worker) for worker in Worker.objects.all()):
        return False
    if settings.QUEUE:
        from server.jobs.machines import elsewhere

        return elsewhere.any_machine()
    return True


def _is_alive(worker: Worker) -> bool:
    if timezone.now() - worker.seen > SILENCE:
        return False
    if worker.host != socket.gethostname():
        return True
    try:
        os.kill(worker.pid, 0)
    except ProcessLookupError:
        return False
    except PermissionError:
        return True
    return True


def reconcile(own: Worker | None = None) -> None:
    """Bring jobs, queue and workers into line: jobs of lost workers end, waiting jobs are in the queue.

    Args:
        own: the worker that calls this between two jobs, so that what it still has as running is lost too.
    """
    for worker in Worker.objects.all():
        if not _is_alive(worker):
            worker.delete()
    for job in Job.objects.filter(state=Job.State.RUNNING):
        if job.worker_id is None or (own is not None and job.worker_id == own.pk):
            end_lost(job)
    late = Job.objects.filter(state=Job.State.WAITING, created__lt=timezone.now() - UNQUEUED)
    if not late.exists():
        return
    with transaction.atomic():
        queued = {
            arguments["args"][0]
            for arguments in DBTaskResult.objects.ready().values_list("args_kwargs", flat=True)
        }
        for job in late:
            if str(job.pk) not in queued:
                enqueue(job)
