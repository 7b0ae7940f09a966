"""Sheets as a Django app."""

from django.apps import AppConfig


class SheetsConfig(AppConfig):
    name = "server.sheets"

    def ready(self) -> None:
        from server.jobs.models import Job
        from server.jobs.services import register
        from server.sheets import services

        register(Job.Kind.PLOT, services.plot)
