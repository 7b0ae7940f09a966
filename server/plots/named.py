"""Which plot settings there are."""

from __future__ import annotations

from drafting.plot.plot_settings import SHIPPED, STANDARD, PlotSettings
from server.plots.models import PlotSettings as SettingsRow
from server.projects.models import Project


def settings_of(project: Project) -> dict[str, PlotSettings]:
    """All that sheets of a project can be plotted with, by what they call them."""
    return {**SHIPPED, **{str(row.pk): row.as_core for row in SettingsRow.objects.filter(project=project)}}


def usual(known: dict[str, PlotSettings], key: str) -> PlotSettings:
    """Settings by a sheet's name for them; the standard ones where they are there no more."""
    return known.get(key, SHIPPED[STANDARD])
