"""The worker: does the long work that the web process puts in the queue."""

import logging
import time
import uuid
from typing import Any

from django.core.management.base import BaseCommand
from django.db import connection
from django_tasks_db.management.commands.db_worker import Worker

from server.common.pruning import prune
from server.jobs.runner import end_lost_jobs, the_child

log = logging.getLogger(__name__)

#: How often it is looked whether anything was written, and how long the queue is left alone at most; seconds.
POLL_INTERVAL, MAX_QUIET = 0.05, 5.0
#: How often what is old is put away; seconds.
PRUNE_INTERVAL = 3600.0


class Command(BaseCommand):
    help = "Run long work until stopped."

    def handle(self, *args: Any, **options: Any) -> None:
        # A signal to stop is nothing to warn of.
        logging.getLogger("django_tasks_db").setLevel(logging.ERROR)
        end_lost_jobs()
        the_child().start()
        worker = Worker(
            queue_names=["*"],
            interval=0,
            batch=True,  # it returns when the queue is empty
            backend_name="default",
            startup_delay=False,
            max_tasks=None,
            worker_id=uuid.uuid4().hex,
            excluded_queue_names=[],
        )
        # It ends at once where it is idle, and after its present task otherwise.
        worker.configure_signals()
        version, worked, pruned = -1, 0.0, 0.0
        while worker.running:
            now = time.monotonic()
            # A counter of the database tells whether anybody has written since: asking the queue costs more.
            written = _data_version()
            if written != version or now - worked > MAX_QUIET:
                worker.run()
                version, worked = written, now
            if now - pruned > PRUNE_INTERVAL:
                pruned = now
                try:
                    prune()
                except Exception:
                    # What is left lies there till the next time; the work goes on.
                    log.exception("pruning failed")
            time.sleep(POLL_INTERVAL)


def _data_version() -> int:
    """Changes whenever another connection has written (SQLite, PRAGMA data_version)."""
    with connection.cursor() as cursor:
        cursor.execute("PRAGMA data_version")
        version: int = cursor.fetchone()[0]
        return version
