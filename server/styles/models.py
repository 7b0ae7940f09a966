"""What a project keeps by name to give to its sheets: pen tables and plot settings."""

from __future__ import annotations

from django.db import models

from drafting.plotting.settings import DEFAULT_PLOT_SETTINGS, parse_plot_settings
from drafting.plotting.settings import PlotSettings as PlotSettingsSpec
from drafting.styles.pen_presets import DEFAULT_PEN_TABLE
from drafting.styles.pen_table import PenTableSpec, parse_pen_table
from server.projects.models import NamedRow
from server.projects.presets import preset_id


class PenTable(NamedRow):
    """A pen table: one that is built in, or a project's own."""

    #: The core's PenTableSpec.
    spec = models.JSONField()

    class Meta(NamedRow.Meta):
        verbose_name = "pen table"

    @property
    def as_core(self) -> PenTableSpec:
        return parse_pen_table(self.spec)


def default_pen_table() -> object:
    """The id of the pen table that a set is drawn with where nobody has chosen."""
    return preset_id(PenTable, DEFAULT_PEN_TABLE)


class PlotSettings(NamedRow):
    """Plot settings: those that are built in, or a project's own."""

    #: The core's PlotSettings.
    spec = models.JSONField()

    class Meta(NamedRow.Meta):
        verbose_name = "set of plot settings"

    @property
    def as_core(self) -> PlotSettingsSpec:
        return parse_plot_settings(self.spec)


def default_plot_settings() -> object:
    """The id of the plot settings that a sheet has where nobody has chosen."""
    return preset_id(PlotSettings, DEFAULT_PLOT_SETTINGS)
