"""The API of pen tables and plot settings."""

from __future__ import annotations

from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from drafting.linework.model import ROLES
from drafting.schema import dump
from drafting.styles.hatches import HATCHES
from drafting.styles.patterns import PATTERNS
from drafting.styles.pens import SCREENS, WIDTHS
from server.projects.rows import RowKind, row_viewset
from server.styles.models import PenTable, PlotSettings
from server.styles.serializers import PenPartsSerializer, PenTableSerializer, PlotSettingsSerializer
from server.styles.services import pen_table_service, plot_settings_service

PEN_TABLES = RowKind(PenTableSerializer, pen_table_service, PenTable.objects.all, with_presets=True)
PLOT_SETTINGS = RowKind(
    PlotSettingsSerializer, plot_settings_service, PlotSettings.objects.all, with_presets=True
)

PenTableViewSet = row_viewset(PEN_TABLES, "The pen tables that are built in, and those of one's projects.")
PlotSettingsViewSet = row_viewset(
    PLOT_SETTINGS, "The plot settings that are built in, and those of one's projects."
)


class PenPartsView(APIView):
    """What pen tables are made from: patterns, hatches, line roles and widths."""

    @extend_schema(responses=PenPartsSerializer)
    def get(self, request: Request) -> Response:
        hatches = [{"name": name, "lines": [dump(line) for line in lines]} for name, lines in HATCHES.items()]
        patterns = [{"name": name, "lengths": lengths} for name, lengths in PATTERNS.items()]
        return Response(
            {"patterns": patterns, "hatches": hatches, "roles": ROLES, "widths": WIDTHS, "screens": SCREENS}
        )
