"""The worker: does the long work that the web process puts in the queue."""

import argparse
import logging
import time
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand
from django.db import DatabaseError
from django_tasks_db.management.commands.db_worker import Worker as QueueWorker
from django_tasks_db.models import DBTaskResult

from server.common.backup_folder import back_up_nightly
from server.common.beside import end_with_launcher
from server.common.pruning import prune
from server.common.written import state_now
from server.jobs.queue import queue_worker
from server.jobs.runner import the_child, work_as
from server.jobs.workers import Heart, reconcile, sweep

log = logging.getLogger(__name__)

#: How often it is looked whether the queue was written to, so long after it was, and else; and how long it is
#: left alone at most; seconds.
POLL_INTERVAL, AWAKE, IDLE_INTERVAL, MAX_QUIET = 0.05, 60.0, 0.1, 5.0
#: How often jobs, queue and workers are brought into line, and how often what is old is put away; seconds.
RECONCILE_INTERVAL, PRUNE_INTERVAL = 30.0, 3600.0
#: How long it rests after a fault, at first and at most; and how long it has to go well until it is the first
#: again; seconds.
FIRST_REST, LONGEST_REST, LASTING = 1.0, 30.0, 60.0


class Command(BaseCommand):
    help = "Run long work until stopped."

    def add_arguments(self, parser: argparse.ArgumentParser) -> None:
        parser.add_argument(
            "--short", action="store_true", help="drawings and single sheets only, never files and sets"
        )
        parser.add_argument("--beside", action="store_true", help="another one leads and tidies up")

    def handle(self, *args: Any, short: bool, beside: bool, **options: Any) -> None:
        end_with_launcher()
        # A signal to stop is nothing to warn of.
        logging.getLogger("django_tasks_db").setLevel(logging.ERROR)
        queue = queue_worker(short=short)
        # It ends at once where it is idle, and after its present task otherwise.
        queue.configure_signals()
        if not settings.QUEUE:
            the_child().start()
        heart, rest, rested = None, FIRST_REST, float("-inf")
        try:
            while queue.running:
                try:
                    heart = heart or Heart()
                    Rounds(queue, heart, leads=not (short or beside)).go()
                except (DatabaseError, OSError):
                    # A full disk, for example: what could not be written is done again when there is room.
                    rest = min(2 * rest, LONGEST_REST) if time.monotonic() - rested < LASTING else FIRST_REST
                    log.exception("the worker rests for %g s", rest)
                    time.sleep(rest)
                    rested = time.monotonic()
        finally:
            if heart is not None:
                heart.stop()


class Rounds:
    """What a worker does over and over; one of them on each machine leads and tidies up."""

    def __init__(self, queue: QueueWorker, heart: Heart, *, leads: bool) -> None:
        self._queue, self._heart, self._leads = queue, heart, leads
        work_as(heart.worker, heart.beat)

    def go(self) -> None:
        looked_at, worked, changed = None, float("-inf"), float("-inf")
        reconciled = pruned = float("-inf")
        while self._queue.running:
            now = time.monotonic()
            self._heart.beat()
            if now - reconciled > RECONCILE_INTERVAL:
                reconciled = now
                reconcile(self._heart.worker)
                if self._leads:
                    sweep()
            # To ask the queue locks the database, for whoever wants to write too.
            written = _queue_written()
            if written != looked_at or now - worked > MAX_QUIET:
                changed = changed if written == looked_at else now
                self._queue.run()
                looked_at, worked = written, now
            if self._leads and now - pruned > PRUNE_INTERVAL:
                pruned = now
                _tidy_up()
            time.sleep(POLL_INTERVAL if now - changed < AWAKE else IDLE_INTERVAL)


def _tidy_up() -> None:
    """Make the backup of the night, and put away what is old. What cannot be done is tried the next time; the
    work goes on."""
    for task in (back_up_nightly, prune):
        try:
            task()
        except Exception:
            log.exception("%s failed", task.__name__)


def _queue_written() -> int | None:
    """How often the queue has been written to, by anybody; None where that is not told."""
    state = state_now()
    return state.written.get(DBTaskResult._meta.db_table) if state else None
