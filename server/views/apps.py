"""Views as a Django app."""

from django.apps import AppConfig


class ViewsConfig(AppConfig):
    name = "server.views"

    def ready(self) -> None:
        from server.jobs.models import Job
        from server.jobs.services import register
        from server.views import services

        register(Job.Kind.DRAW, services.draw)
