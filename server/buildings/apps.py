"""Model versions as a Django app."""

from django.apps import AppConfig


class BuildingsConfig(AppConfig):
    name = "server.buildings"

    def ready(self) -> None:
        from server.buildings import services
        from server.buildings.models import ImportJob, ModelVersion
        from server.common.pruning import register_files
        from server.jobs.models import Job
        from server.jobs.runner import register

        register(Job.Kind.READ, services.read, services.clean_up)
        register_files(ModelVersion, "building", "source", "solid", "data", of="project")
        register_files(ImportJob, "waiting")
