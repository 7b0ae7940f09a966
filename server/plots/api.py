"""The API of plotting: settings, lists of sheets, files, devices and what they printed."""

from __future__ import annotations

from typing import Any

from django.http import FileResponse
from django.shortcuts import get_object_or_404
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema, extend_schema_field
from rest_framework import mixins, serializers, status, viewsets
from rest_framework.decorators import action
from rest_framework.exceptions import NotFound
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from drafting.errors import SheetError
from drafting.plot.devices import DEVICES
from drafting.plot.files import FORMS
from drafting.plot.inking import TREATMENTS
from drafting.plot.plot_settings import AREAS, PLACES, REDUCTIONS, SHIPPED
from drafting.plot.plot_settings import PlotSettings as CorePlotSettings
from drafting.plot.png import RESOLUTIONS
from drafting.sheets.paper import ORIENTATIONS
from server.config import storage
from server.jobs.api import JobSerializer
from server.plots import devices, services
from server.plots.models import DeviceState, PlotSettings, Print, SheetList
from server.projects.api import OfOwnProjects, OwnProjectField, listed_by_project
from server.projects.named_api import CoreField, NamedSerializer, shipped_rows
from server.sheets.models import Sheet

ROW_METHODS = ["get", "post", "patch", "delete", "head", "options"]


class PlotSpecSerializer(serializers.Serializer):
    """What plot settings say; see the core's PlotSettings. What is left out is as usual."""

    device = serializers.ChoiceField(choices=[(d.key, d.name) for d in DEVICES], required=False)
    paper = serializers.CharField(required=False, help_text="Blank for the sheet's own.")
    orientation = serializers.ChoiceField(choices=["", *ORIENTATIONS], required=False)
    area = serializers.ChoiceField(choices=AREAS, required=False)
    window = serializers.ListField(
        child=serializers.FloatField(), required=False, allow_null=True, help_text="x, y, width, height; sheet mm."
    )
    place = serializers.ChoiceField(choices=PLACES, required=False)
    offset = serializers.ListField(child=serializers.FloatField(), required=False, help_text="Paper mm.")
    reduction = serializers.ChoiceField(choices=REDUCTIONS, required=False)
    percent = serializers.FloatField(required=False)
    colours = serializers.ChoiceField(choices=TREATMENTS, required=False)
    kept = serializers.ListField(child=serializers.CharField(), required=False, help_text="Colours that are kept.")
    widths = serializers.BooleanField(required=False)
    transparency = serializers.BooleanField(required=False)
    resolution = serializers.ChoiceField(choices=RESOLUTIONS, required=False, help_text="Pixels to the inch.")


@extend_schema_field(PlotSpecSerializer)
class PlotSpecField(CoreField):
    pass


class PlotSettingsSerializer(NamedSerializer):
    spec = PlotSpecField(CorePlotSettings)

    class Meta:
        model = PlotSettings
        fields = ["id", "project", "name", "spec", "version"]


@listed_by_project
class PlotSettingsViewSet(OfOwnProjects, viewsets.ModelViewSet):
    """The own plot settings of one's projects."""

    serializer_class = PlotSettingsSerializer
    queryset = PlotSettings.objects.none()
    http_method_names = ROW_METHODS
    rows = PlotSettings.objects.select_related("project")

    def perform_destroy(self, row: PlotSettings) -> None:
        users = [s.number for s in Sheet.objects.filter(project=row.project, plot_settings=str(row.pk))]
        if users:
            raise SheetError(f"{', '.join(users)} are plotted with “{row.name}”. Give them other settings first.")
        row.delete()


class SheetListSerializer(NamedSerializer):
    sheets = serializers.ListField(child=serializers.UUIDField(), max_length=2000)

    class Meta:
        model = SheetList
        fields = ["id", "project", "name", "sheets", "version"]

    def validate_sheets(self, sheets: list[Any]) -> list[str]:
        return [str(sheet) for sheet in sheets]


@listed_by_project
class SheetListViewSet(OfOwnProjects, viewsets.ModelViewSet):
    """The lists of sheets that one's projects keep."""

    serializer_class = SheetListSerializer
    queryset = SheetList.objects.none()
    http_method_names = ROW_METHODS
    rows = SheetList.objects.select_related("project")


class ShippedSettingsSerializer(serializers.Serializer):
    key = serializers.CharField()
    name = serializers.CharField()
    spec = PlotSpecSerializer()


class DeviceKindSerializer(serializers.Serializer):
    key = serializers.CharField()
    name = serializers.CharField()
    prints = serializers.BooleanField(help_text="Whether it is a machine with paper in it.")
    trays = serializers.ListField(child=serializers.CharField())
    roll = serializers.FloatField(help_text="Width of its roll, mm.")


class PlotStockSerializer(serializers.Serializer):
    settings = ShippedSettingsSerializer(many=True)
    devices = DeviceKindSerializer(many=True)


class PlotStockView(APIView):
    """What there is to plot with: the settings that ship, and the devices."""

    @extend_schema(responses=PlotStockSerializer)
    def get(self, request: Request) -> Response:
        kinds = DeviceKindSerializer(DEVICES, many=True).data
        return Response({"settings": shipped_rows(SHIPPED), "devices": kinds})


class ToPlotSerializer(serializers.Serializer):
    project = OwnProjectField()
    sheets = serializers.ListField(
        child=serializers.UUIDField(), required=False, help_text="Which sheets; all where none are named."
    )
    settings = serializers.CharField(
        required=False, allow_null=True, default=None, help_text="For all of them; each one's own where left out."
    )


class ToFileSerializer(ToPlotSerializer):
    form = serializers.ChoiceField(choices=list(FORMS), default="pdf")


class DoubtSerializer(serializers.Serializer):
    """What does not go together about a sheet and its plot settings."""

    sheet = serializers.UUIDField()
    says = serializers.CharField()


def _sheets(given: dict[str, Any]) -> list[Sheet]:
    sheets = Sheet.objects.filter(project=given["project"]).select_related("project")
    return list(sheets.filter(pk__in=given["sheets"]) if given.get("sheets") else sheets)


class PlotsView(APIView):
    """Plot sheets into a file, in the background."""

    @extend_schema(request=ToFileSerializer, responses={202: JobSerializer})
    def post(self, request: Request) -> Response:
        given = ToFileSerializer(data=request.data, context={"request": request})
        given.is_valid(raise_exception=True)
        wanted = given.validated_data
        job = services.order_plot(wanted["project"], _sheets(wanted), wanted["settings"], wanted["form"])
        job.refresh_from_db()
        return Response(JobSerializer(job).data, status=status.HTTP_202_ACCEPTED)


class PlotDoubtsView(APIView):
    """What does not go together, before anything is plotted."""

    @extend_schema(request=ToPlotSerializer, responses=DoubtSerializer(many=True))
    def post(self, request: Request) -> Response:
        given = ToPlotSerializer(data=request.data, context={"request": request})
        given.is_valid(raise_exception=True)
        wanted = given.validated_data
        doubts = services.doubts_about(_sheets(wanted), wanted["settings"])
        return Response([{"sheet": sheet.pk, "says": says} for sheet, says in doubts])


class DeviceSerializer(serializers.ModelSerializer):
    name = serializers.CharField(source="device.name", read_only=True)
    paper = serializers.DictField(child=serializers.FloatField(), help_text="Sheets by their size, or mm of the roll.")
    waiting = serializers.SerializerMethodField()

    class Meta:
        model = DeviceState
        fields = ["key", "name", "online", "paper", "waiting"]

    def get_waiting(self, state: DeviceState) -> int:
        """How many prints wait for it."""
        return Print.objects.filter(device=state.key, state__in=[Print.State.MAKING, Print.State.QUEUED]).count()


class DeviceChangeSerializer(serializers.Serializer):
    """What is done to a device; what is left out stays."""

    online = serializers.BooleanField(required=False, help_text="Switch it on or off.")
    loaded = serializers.BooleanField(required=False, help_text="Fill it with paper, or take its paper out.")


class DevicesView(APIView):
    """The devices that print, as they are now."""

    @extend_schema(responses=DeviceSerializer(many=True))
    def get(self, request: Request) -> Response:
        return Response(DeviceSerializer(devices.states(), many=True).data)


class DeviceView(APIView):
    """One device that prints."""

    @extend_schema(request=DeviceChangeSerializer, responses=DeviceSerializer)
    def post(self, request: Request, key: str) -> Response:
        """Switch it on or off, fill it, or take its paper out."""
        given = DeviceChangeSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        devices.change(devices.state_of(key), **given.validated_data)
        return Response(DeviceSerializer(devices.state_of(key)).data)


class PrintSerializer(serializers.ModelSerializer):
    project = OwnProjectField()
    count = serializers.SerializerMethodField()

    class Meta:
        model = Print
        fields = [
            "id", "project", "device", "about", "state", "says", "count", "printed", "file_name", "created", "finished",
        ]  # fmt: skip
        read_only_fields = fields

    def get_count(self, sent: Print) -> int:
        """How many pages it has, once they are made."""
        return len(sent.pages)


@listed_by_project
class PrintViewSet(OfOwnProjects, mixins.ListModelMixin, mixins.RetrieveModelMixin, viewsets.GenericViewSet):
    """What was sent to devices, the newest first."""

    serializer_class = PrintSerializer
    queryset = Print.objects.none()
    rows = Print.objects.all()

    @extend_schema(request=ToPlotSerializer, responses={202: PrintSerializer(many=True)})
    def create(self, request: Request) -> Response:
        """Send sheets to the devices of their plot settings."""
        given = ToPlotSerializer(data=request.data, context={"request": request})
        given.is_valid(raise_exception=True)
        wanted = given.validated_data
        sent = services.order_prints(wanted["project"], request.user, _sheets(wanted), wanted["settings"])
        return Response(PrintSerializer(sent, many=True).data, status=status.HTTP_202_ACCEPTED)

    @extend_schema(request=None, responses=PrintSerializer)
    @action(detail=True, methods=["post"])
    def cancel(self, request: Request, pk: str) -> Response:
        """Take it out of the queue."""
        sent = self.get_object()
        services.cancel_print(sent)
        sent.refresh_from_db()
        return Response(PrintSerializer(sent).data)

    @extend_schema(responses={(200, "application/pdf"): OpenApiTypes.BINARY})
    @action(detail=True, methods=["get"])
    def file(self, request: Request, pk: str) -> FileResponse:
        """What came out of the device."""
        sent = get_object_or_404(self.get_queryset(), pk=pk)
        if sent.state != Print.State.PRINTED:
            raise NotFound("This has not come out of the device yet.")
        return FileResponse(
            storage.path_of(sent.file).open("rb"), content_type="application/pdf", filename=sent.file_name
        )
