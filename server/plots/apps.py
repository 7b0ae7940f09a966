"""Plotting as a Django app."""

from django.apps import AppConfig


class PlotsConfig(AppConfig):
    name = "server.plots"

    def ready(self) -> None:
        from server.common.pruning import register_files
        from server.jobs.models import Job
        from server.jobs.runner import register
        from server.plots import services
        from server.plots.models import Plot, Print

        register(Job.Kind.PLOT, services.plot, services.end_print)
        register_files(Plot, "file", of="job__project")
        register_files(Print, "file", of="project")
