"""Pen tables and plot settings as a Django app."""

from typing import Any

from django.apps import AppConfig
from django.db.models.signals import post_migrate


class StylesConfig(AppConfig):
    name = "server.styles"

    def ready(self) -> None:
        post_migrate.connect(_load, sender=self)


def _load(**kwargs: Any) -> None:
    from drafting.plotting.settings import PLOT_PRESETS
    from drafting.styles.pen_presets import PEN_TABLE_PRESETS
    from server.projects.presets import load_presets
    from server.styles.models import PenTable, PlotSettings

    load_presets(PenTable, PEN_TABLE_PRESETS)
    load_presets(PlotSettings, PLOT_PRESETS)
