"""Sheets as a Django app."""

from typing import Any

from django.apps import AppConfig
from django.db.models.signals import post_migrate


class SheetsConfig(AppConfig):
    name = "server.sheets"

    def ready(self) -> None:
        from server.common.pruning import register_files, register_task
        from server.jobs.models import Job
        from server.jobs.runner import register
        from server.sheets import shading, shadow_areas, viewports
        from server.sheets.models import Picture, ShadedPicture, TracedShadow
        from server.sheets.services import users_of_style
        from server.styles.services import register_users
        from server.views.access import register_holder
        from server.views.signals import axes_changed, linework_ready, view_changed

        post_migrate.connect(_load, sender=self)
        view_changed.connect(_on_view, dispatch_uid="sheets")
        axes_changed.connect(_on_axes, dispatch_uid="sheets")
        linework_ready.connect(_on_linework, dispatch_uid="sheets")
        register_users(users_of_style)
        register_holder(viewports.holds_linework)
        register_files(Picture, "file", of="project")
        register_files(ShadedPicture, "file")
        register_files(TracedShadow, "file")
        register_task(shading.prune_pictures)
        register_task(shadow_areas.prune_areas)
        register(Job.Kind.SHADE, shadow_areas.shade)


def _load(**kwargs: Any) -> None:
    from drafting.sheets.template_presets import TEMPLATE_PRESETS
    from server.projects.presets import load_presets
    from server.sheets.models import Template

    load_presets(Template, TEMPLATE_PRESETS)


def _on_view(sender: Any, view: Any, only_ask: bool = False, **kwargs: Any) -> None:
    from server.sheets.viewports import follow_view

    follow_view(view, only_ask=only_ask)


def _on_linework(sender: Any, linework: Any, version: Any, **kwargs: Any) -> None:
    from server.sheets.viewports import give_linework

    give_linework(linework, version)


def _on_axes(sender: Any, view: Any, where: Any, **kwargs: Any) -> None:
    from server.sheets.viewports import follow_axes

    follow_axes(view, where)
