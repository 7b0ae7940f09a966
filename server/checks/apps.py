"""Checking as a Django app."""

from django.apps import AppConfig


class ChecksConfig(AppConfig):
    name = "server.checks"

    def ready(self) -> None:
        from server.checks import services
        from server.jobs.models import Job
        from server.jobs.runner import register

        register(Job.Kind.CHECK, services.check)
