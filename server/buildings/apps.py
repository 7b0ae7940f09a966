"""Model versions as a Django app."""

from django.apps import AppConfig


class BuildingsConfig(AppConfig):
    name = "server.buildings"

    def ready(self) -> None:
        from server.buildings import services
        from server.jobs.models import Job
        from server.jobs.services import register

        register(Job.Kind.READ, services.read, services.tidy)
