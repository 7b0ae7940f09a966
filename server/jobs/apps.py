"""Jobs as a Django app."""

from django.apps import AppConfig
from django.conf import settings


class JobsConfig(AppConfig):
    name = "server.jobs"

    def ready(self) -> None:
        from server.common.problems import answer_with
        from server.common.pruning import register_task
        from server.jobs.apart import Busy
        from server.jobs.child import ChildProcessFailed
        from server.jobs.services import prune_jobs

        answer_with(ChildProcessFailed, 422)
        answer_with(Busy, 503)
        register_task(prune_jobs)
        if settings.QUEUE:
            from server.jobs.machines import files

            register_task(files.prune)
