"""The API of pen tables."""

from __future__ import annotations

from drf_spectacular.utils import extend_schema, extend_schema_field
from rest_framework import serializers, viewsets
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from drafting.errors import SheetError
from drafting.linework.model import ROLES
from drafting.plot.hatches import HATCHES
from drafting.plot.patterns import PATTERNS
from drafting.plot.pen_table import SCREENS
from drafting.plot.pen_table import PenTable as CorePenTable
from drafting.plot.pens import WIDTHS
from drafting.plot.shipped_pens import SHIPPED
from server.pens.models import PenTable
from server.projects.api import OfOwnProjects, listed_by_project
from server.projects.models import Project
from server.projects.named_api import CoreField, NamedSerializer, shipped_rows
from server.sheets.display_schema import HatchLineSerializer
from server.sheets.models import Sheet, Viewport


class StrokeSerializer(serializers.Serializer):
    """How lines are drawn; what is left out is as usual."""

    width = serializers.FloatField(required=False, help_text="Paper mm.")
    colour = serializers.CharField(required=False, help_text="Such as #1b1f24.")
    pattern = serializers.ChoiceField(choices=list(PATTERNS), required=False)
    screen = serializers.IntegerField(required=False, help_text="Per cent of the colour that is left, of `screens`.")


class CutSerializer(serializers.Serializer):
    """How what is cut of some materials is filled; see the core's Cut."""

    match = serializers.CharField(required=False, help_text="Parts of names of materials, with bars between them.")
    fill = serializers.CharField(required=False, help_text="A colour; blank for none.")
    opacity = serializers.IntegerField(required=False, help_text="Per cent, of `screens`.")
    hatch = serializers.ChoiceField(choices=["", *HATCHES], required=False)
    spacing = serializers.FloatField(required=False, help_text="Paper mm.")
    angle = serializers.FloatField(required=False, help_text="Degrees.")
    width = serializers.FloatField(required=False, help_text="Paper mm.")
    colour = serializers.CharField(required=False)
    screen = serializers.IntegerField(required=False, help_text="Per cent, of `screens`.")


class PenSpecSerializer(serializers.Serializer):
    """What a pen table is made of."""

    roles = serializers.DictField(child=StrokeSerializer(), help_text="By line role.")
    layers = serializers.DictField(child=StrokeSerializer(), help_text="How the pens of some layers differ.")
    cuts = CutSerializer(many=True, help_text="The first that matches a material is taken.")


@extend_schema_field(PenSpecSerializer)
class PenSpecField(CoreField):
    pass


class PenTableSerializer(NamedSerializer):
    spec = PenSpecField(CorePenTable)

    class Meta:
        model = PenTable
        fields = ["id", "project", "name", "spec", "version"]


@listed_by_project
class PenTableViewSet(OfOwnProjects, viewsets.ModelViewSet):
    """The own pen tables of one's projects."""

    serializer_class = PenTableSerializer
    queryset = PenTable.objects.none()
    http_method_names = ["get", "post", "patch", "delete", "head", "options"]
    rows = PenTable.objects.select_related("project")

    def perform_destroy(self, table: PenTable) -> None:
        key = str(table.pk)
        users = ["the project"] if Project.objects.filter(pk=table.project_id, pen_table=key).exists() else []
        users += [s.number for s in Sheet.objects.filter(project=table.project, pen_table=key)]
        inside = Viewport.objects.filter(sheet__project=table.project, pen_table=key).select_related("sheet")
        users += [f"a viewport on {v.sheet.number}" for v in inside]
        if users:
            raise SheetError(f"“{table.name}” is the pen table of {', '.join(users)}. Give them another one first.")
        table.delete()


class ShippedPensSerializer(serializers.Serializer):
    key = serializers.CharField()
    name = serializers.CharField()
    spec = PenSpecSerializer()


class PatternSerializer(serializers.Serializer):
    name = serializers.CharField()
    lengths = serializers.ListField(child=serializers.FloatField(), help_text="Dash and gap by turns, in widths.")


class HatchSerializer(serializers.Serializer):
    name = serializers.CharField()
    lines = HatchLineSerializer(many=True)


class PenStockSerializer(serializers.Serializer):
    tables = ShippedPensSerializer(many=True)
    patterns = PatternSerializer(many=True)
    roles = serializers.ListField(child=serializers.CharField())
    hatches = HatchSerializer(many=True)
    widths = serializers.ListField(child=serializers.FloatField())
    screens = serializers.ListField(child=serializers.IntegerField())


class PenStockView(APIView):
    """What pen tables are made from: those that ship, patterns, hatches and widths."""

    @extend_schema(responses=PenStockSerializer)
    def get(self, request: Request) -> Response:
        return Response(
            {
                "tables": shipped_rows(SHIPPED),
                "patterns": [{"name": name, "lengths": lengths} for name, lengths in PATTERNS.items()],
                "roles": ROLES,
                "hatches": [
                    {"name": name, "lines": HatchLineSerializer(h, many=True).data} for name, h in HATCHES.items()
                ],
                "widths": WIDTHS,
                "screens": SCREENS,
            }
        )
