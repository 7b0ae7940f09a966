"""Views as a Django app."""

from typing import Any

from django.apps import AppConfig


class ViewsConfig(AppConfig):
    name = "server.views"

    def ready(self) -> None:
        from server.buildings.signals import version_added
        from server.common.pruning import register_files, register_task
        from server.jobs.models import Job
        from server.jobs.runner import register
        from server.views import drawings, received
        from server.views.models import Linework, ReceivedFile

        register(Job.Kind.DRAW, drawings.draw)
        register(Job.Kind.RECEIVE, received.look, received.clean_up)
        register_task(drawings.prune_linework)
        register_files(Linework, "file")
        register_files(ReceivedFile, "file", of="project")
        version_added.connect(_on_version, dispatch_uid="views")


def _on_version(sender: Any, version: Any, first: bool, **kwargs: Any) -> None:
    """The first version gets the plain views; those that are there ask for drawings of every new one."""
    from server.views import drawings, services

    if not first:
        services.follow_axes(version)
    drawings.follow_version(version)
    if first:
        services.make_plain_views(version)
