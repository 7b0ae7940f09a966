"""The worker: does the long work that the web process puts in the queue."""

from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand

from server.jobs.services import end_lost_jobs, the_hand

#: How often the queue is looked at when it is empty; seconds.
LOOK = 0.05


class Command(BaseCommand):
    help = "Run long work until stopped."

    def handle(self, *args: Any, **options: Any) -> None:
        end_lost_jobs()
        the_hand().start()
        call_command("db_worker", interval=LOOK, startup_delay=False, verbosity=0, reload=False)
