"""Pen tables and plot settings as they are received and sent, and what they are made from."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

from drafting.plotting.settings import PlotSettings as PlotSettingsSpec
from drafting.schema import dump
from drafting.styles.hatches import HatchLine
from drafting.styles.pen_table import PenTableSpec, parse_pen_table
from server.common.shapes import ShapeField
from server.projects.serializers import NamedRowSerializer
from server.styles.models import PenTable, PlotSettings


class PenTableField(ShapeField):
    """A pen table, in which what is not said of a role is as usual."""

    def to_internal_value(self, data: Any) -> Any:
        return dump(parse_pen_table(data))


class PenTableSerializer(NamedRowSerializer):
    spec = PenTableField(PenTableSpec, "pen table")

    class Meta:
        model = PenTable
        fields = ["id", "project", "name", "spec", "built_in", "version"]


class PlotSettingsSerializer(NamedRowSerializer):
    spec = ShapeField(PlotSettingsSpec, "plot settings", name="PlotSettingsSpec")

    class Meta:
        model = PlotSettings
        fields = ["id", "project", "name", "spec", "built_in", "version"]


class PatternSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    lengths = serializers.ListField(
        child=serializers.FloatField(), help_text="Dash and gap by turns, in widths."
    )


class HatchSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    lines = serializers.ListField(child=ShapeField(HatchLine, "line of a hatch"))


class PenPartsSerializer(serializers.Serializer[Any]):
    """What pen tables are made from."""

    patterns = PatternSerializer(many=True)
    hatches = HatchSerializer(many=True)
    roles = serializers.ListField(child=serializers.CharField())
    widths = serializers.ListField(child=serializers.FloatField())
    screens = serializers.ListField(child=serializers.IntegerField())
