"""The worker of another machine: does the heavy work that the queue brings (DUNEFOLD_QUEUE), and needs no
database."""

from __future__ import annotations

import argparse
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError

from server.common.machines import IDLE_KEPT, LONG_STEPS, MANY_TRIES, SHORT_STEPS, tried_again


class Command(BaseCommand):
    help = "Do heavy work for others until stopped."
    requires_system_checks = ()

    def add_arguments(self, parser: argparse.ArgumentParser) -> None:
        parser.add_argument("--short", action="store_true", help="never reading files or plotting sets")

    def handle(self, *args: Any, short: bool, **options: Any) -> None:
        if not settings.QUEUE:
            raise CommandError("Say which queue: DUNEFOLD_QUEUE=redis://… ./dunefold work")
        for queue in settings.RQ_QUEUES.values():
            queue["REDIS_CLIENT_KWARGS"]["retry"] = tried_again(MANY_TRIES)
        # They are there only where there is a queue, and read the settings when they are loaded.
        import django_rq
        from django_tasks_rq import Job

        from server.jobs.machines import steps

        steps.the_child().start()
        queues = [SHORT_STEPS] if short else [SHORT_STEPS, LONG_STEPS]
        # One process that stays: another for each step would have to get the kernels ready each time.
        worker = django_rq.get_worker(
            *queues, job_class=Job, worker_class="rq.SimpleWorker", worker_ttl=IDLE_KEPT
        )
        worker.work(logging_level="WARNING")
