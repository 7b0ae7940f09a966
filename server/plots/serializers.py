"""Plots, lists of sheets, devices and prints as they are received and sent."""

from __future__ import annotations

from typing import Any

from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from drafting.render.backends import FORMATS
from server.common.serializers import RowSerializer
from server.jobs.serializers import JobSerializer
from server.plots.models import DeviceState, Plot, Print, SheetList
from server.projects.models import Project
from server.projects.rows import rows_of
from server.projects.serializers import OwnProjectField
from server.sheets.models import Sheet
from server.styles.models import PlotSettings


@extend_schema_field(OpenApiTypes.UUID)
class OwnSheetsField(serializers.PrimaryKeyRelatedField[Sheet]):
    """A sheet of one of one's own projects."""

    def get_queryset(self) -> Any:
        return Sheet.objects.filter(project__in=Project.of(self.context["request"].user))


@extend_schema_field(OpenApiTypes.UUID)
class PlotSettingsField(serializers.PrimaryKeyRelatedField[PlotSettings]):
    """Plot settings that are built in, or of one of one's own projects."""

    def get_queryset(self) -> Any:
        return rows_of(PlotSettings.objects.all(), "project", self.context["request"].user, with_presets=True)


def _check_sheets(project: Project, sheets: list[Sheet]) -> None:
    if any(sheet.project_id != project.pk for sheet in sheets):
        raise serializers.ValidationError({"sheets": "There is no such sheet in this project."})


class SheetListSerializer(RowSerializer):
    project = OwnProjectField()
    sheets = OwnSheetsField(many=True)

    class Meta:
        model = SheetList
        fields = ["id", "project", "name", "sheets", "version"]

    def validate(self, given: dict[str, Any]) -> dict[str, Any]:
        given = super().validate(given)
        _check_sheets(self.instance.project if self.instance else given["project"], given.get("sheets", []))
        return given


class PlotSelectionSerializer(serializers.Serializer[Any]):
    """Which sheets are plotted, and with what."""

    project = OwnProjectField()
    sheets = OwnSheetsField(many=True, required=False, help_text="Which sheets; all where none are named.")
    settings = PlotSettingsField(
        required=False,
        allow_null=True,
        default=None,
        help_text="For all of them; each one's own where left out.",
    )

    def validate(self, given: dict[str, Any]) -> dict[str, Any]:
        _check_sheets(given["project"], given.get("sheets", []))
        return given


class PlotRequestSerializer(PlotSelectionSerializer):
    form = serializers.ChoiceField(choices=list(FORMATS), default="pdf")


class PlotConflictSerializer(serializers.Serializer[Any]):
    """What does not go together about a sheet and its plot settings."""

    sheet = serializers.UUIDField()
    message = serializers.CharField()


class CutOffSerializer(serializers.Serializer[Any]):
    """Something that a device cannot print whole, and where it lies on the paper; mm."""

    what = serializers.CharField()
    x = serializers.FloatField()
    y = serializers.FloatField()
    width = serializers.FloatField()
    height = serializers.FloatField()


class PageSerializer(serializers.Serializer[Any]):
    """What is to be known of a page that a plot made; mm."""

    number = serializers.CharField()
    title = serializers.CharField()
    width = serializers.FloatField()
    height = serializers.FloatField()
    device = serializers.CharField()
    margins = serializers.ListField(
        child=serializers.FloatField(), help_text="What the device cannot print: left, bottom, right, top."
    )
    scale = serializers.FloatField(help_text="Of the paper over the sheet.")
    at = serializers.ListField(
        child=serializers.FloatField(), help_text="Where the sheet's corner lies on the paper."
    )
    cut_off = CutOffSerializer(many=True)


class PlotSerializer(serializers.ModelSerializer[Plot]):
    """A plot: its job, and once that is done, what was made."""

    id = serializers.UUIDField(source="job_id", read_only=True)
    job = JobSerializer(read_only=True)
    notes = serializers.ListField(child=serializers.CharField(), read_only=True)
    pages = PageSerializer(many=True, read_only=True)

    class Meta:
        model = Plot
        fields = ["id", "job", "form", "file_name", "notes", "pages"]
        read_only_fields = fields


class DeviceKindSerializer(serializers.Serializer[Any]):
    """A kind of device."""

    key = serializers.CharField()
    name = serializers.CharField()
    prints = serializers.BooleanField(help_text="Whether it is a machine with paper in it.")
    trays = serializers.ListField(child=serializers.CharField())
    roll = serializers.FloatField(help_text="Width of its roll, mm.")


class DeviceSerializer(serializers.ModelSerializer[DeviceState]):
    name = serializers.CharField(source="device.name", read_only=True)
    paper = serializers.DictField(
        child=serializers.FloatField(), help_text="Sheets by their size, or mm of the roll."
    )
    waiting = serializers.SerializerMethodField()

    class Meta:
        model = DeviceState
        fields = ["key", "name", "online", "paper", "waiting"]

    def get_waiting(self, state: DeviceState) -> int:
        """How many prints wait for it."""
        waiting = [Print.State.MAKING, Print.State.QUEUED]
        return Print.objects.filter(device=state.key, state__in=waiting).count()


class DeviceChangeSerializer(serializers.Serializer[Any]):
    """What is done to a device; what is left out stays."""

    online = serializers.BooleanField(required=False, help_text="Switch it on or off.")
    loaded = serializers.BooleanField(required=False, help_text="Fill it with paper, or take its paper out.")


class PrintSerializer(serializers.ModelSerializer[Print]):
    count = serializers.SerializerMethodField()

    class Meta:
        model = Print
        fields = [
            "id", "project", "device", "about", "state", "message", "count", "printed", "file_name",
            "created",
            "finished",
        ]  # fmt: skip
        read_only_fields = fields

    def get_count(self, sent: Print) -> int:
        """How many pages it has, once they are made."""
        return len(sent.pages)
