"""Jobs as a Django app."""

from django.apps import AppConfig
from django.conf import settings


class JobsConfig(AppConfig):
    name = "server.jobs"

    def ready(self) -> None:
        from server.common.pruning import register_task
        from server.jobs.services import prune_jobs

        register_task(prune_jobs)
        if settings.QUEUE:
            from server.jobs.machines import files

            register_task(files.prune)
