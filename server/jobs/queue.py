"""Taking jobs out of the queue."""

from __future__ import annotations

import uuid

from django_tasks_db.management.commands.db_worker import Worker as QueueWorker

from server.jobs.runner import work_as
from server.jobs.tasks import LONG, SHORT
from server.jobs.workers import Heart


def queue_worker(*, short: bool = False) -> QueueWorker:
    """What does the jobs of a queue, or of both, and returns from its `run` when there are none."""
    return QueueWorker(
        queue_names=[SHORT] if short else [SHORT, LONG],
        interval=0,
        batch=True,
        backend_name="default",
        startup_delay=False,
        max_tasks=None,
        worker_id=uuid.uuid4().hex,
        excluded_queue_names=[],
    )


def work_off() -> None:
    """Do all that is in the queue, here and now."""
    heart = Heart()
    try:
        work_as(heart.worker, heart.beat)
        queue_worker().run()
    finally:
        work_as(None, None)
        heart.stop()
