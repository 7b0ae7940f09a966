"""Pen tables and plot settings: making, changing and deleting them, and which there are."""

from __future__ import annotations

from collections.abc import Callable

from django.db.models import Q

from drafting.styles.pen_table import PenTableSpec
from server.common.readable import readable
from server.projects.models import NamedRow, Project
from server.projects.services import NamedRowService
from server.styles.models import PenTable, PlotSettings

#: Each says, in words, what has a row of this app; apps whose rows have some register themselves.
_users: list[Callable[[NamedRow], list[str]]] = []


def register_users(users: Callable[[NamedRow], list[str]]) -> None:
    _users.append(users)


class StyleService(NamedRowService):
    def users(self, row: NamedRow) -> list[str]:
        return [name for users in _users for name in users(row)]


class PenTableService(StyleService):
    model = PenTable


class PlotSettingsService(StyleService):
    model = PlotSettings


pen_table_service, plot_settings_service = PenTableService(), PlotSettingsService()


def pen_tables_of(project: Project) -> dict[str, PenTableSpec]:
    """All that a project can draw with and that can be read, by their ids."""
    rows = PenTable.objects.filter(Q(project=project) | Q(project=None))
    return {str(row.pk): spec for row, spec in readable(rows, lambda row: row.as_core)}
