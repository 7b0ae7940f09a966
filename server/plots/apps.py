"""Plotting as a Django app."""

from django.apps import AppConfig


class PlotsConfig(AppConfig):
    name = "server.plots"

    def ready(self) -> None:
        from server.jobs.models import Job
        from server.jobs.services import register
        from server.plots import services

        register(Job.Kind.PLOT, services.plot, services.end_print)
