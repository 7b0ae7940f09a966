"""The API of plotting: files, lists of sheets, devices and what they printed."""

from __future__ import annotations

from typing import Any

from django.db.models import QuerySet
from django.http import FileResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import mixins, status, viewsets
from rest_framework.decorators import action
from rest_framework.exceptions import NotFound, PermissionDenied
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from drafting.plotting.devices import DEVICES
from drafting.plotting.files import MEDIA_TYPES
from server.common.responses import stored_file
from server.plots import devices, services
from server.plots.models import Plot, Print, SheetList
from server.plots.serializers import (
    DeviceChangeSerializer,
    DeviceKindSerializer,
    DeviceSerializer,
    PlotConflictSerializer,
    PlotRequestSerializer,
    PlotSelectionSerializer,
    PlotSerializer,
    PrintSerializer,
    SheetListSerializer,
)
from server.projects.rows import ProjectRows, RowKind, listed_by_project, row_viewset
from server.sheets.models import Sheet


def _lists() -> QuerySet[SheetList]:
    return SheetList.objects.prefetch_related("sheets")


SHEET_LISTS = RowKind(SheetListSerializer, services.sheet_list_service, _lists)

SheetListViewSet = row_viewset(SHEET_LISTS, "The lists of sheets that one's projects keep.")


def _selected(form: Any, request: Request) -> tuple[dict[str, Any], list[Sheet]]:
    """What is to be plotted: as it was sent, and the sheets in register order."""
    given = form(data=request.data, context={"request": request})
    given.is_valid(raise_exception=True)
    wanted = dict(given.validated_data)
    rows = Sheet.objects.filter(project=wanted["project"])
    if wanted.get("sheets"):
        rows = rows.filter(pk__in=[sheet.pk for sheet in wanted["sheets"]])
    return wanted, list(rows.select_related("project", "template", "plot_settings"))


def _plots() -> QuerySet[Plot]:
    return Plot.objects.select_related("job")


@listed_by_project
class PlotViewSet(
    ProjectRows, mixins.ListModelMixin, mixins.RetrieveModelMixin, viewsets.GenericViewSet[Plot]
):
    """Files that sheets of one's own projects were plotted to, the newest first."""

    needs = "look"
    serializer_class = PlotSerializer
    queryset = Plot.objects.none()
    rows = staticmethod(_plots)
    to_project = "job__project"

    @extend_schema(request=PlotRequestSerializer, responses={202: PlotSerializer})
    def create(self, request: Request) -> Response:
        """Plot sheets into a file, in the background."""
        wanted, sheets = _selected(PlotRequestSerializer, request)
        plot = services.order_plot(wanted["project"], sheets, wanted["settings"], wanted["form"])
        plot.refresh_from_db()
        return Response(PlotSerializer(plot).data, status=status.HTTP_202_ACCEPTED)

    @extend_schema(request=PlotSelectionSerializer, responses=PlotConflictSerializer(many=True))
    @action(detail=False, methods=["post"])
    def conflicts(self, request: Request) -> Response:
        """What does not go together, before anything is plotted."""
        wanted, sheets = _selected(PlotSelectionSerializer, request)
        found = services.conflicts_of(sheets, wanted["settings"])
        return Response([{"sheet": sheet.pk, "message": message} for sheet, message in found])

    @extend_schema(responses={(200, "*/*"): OpenApiTypes.BINARY})
    @action(detail=True, methods=["get"])
    def file(self, request: Request, pk: str) -> FileResponse:
        """The file that was made."""
        plot = self.get_object()
        if not plot.file:
            raise NotFound("This plot has made no file.")
        return stored_file(plot.file, MEDIA_TYPES[plot.file_name.rpartition(".")[2]], plot.file_name)


class DeviceKindsView(APIView):
    """The kinds of devices that there are to plot on."""

    @extend_schema(responses=DeviceKindSerializer(many=True))
    def get(self, request: Request) -> Response:
        return Response(DeviceKindSerializer(DEVICES, many=True).data)


class DevicesView(APIView):
    """The devices that print, as they are now."""

    @extend_schema(responses=DeviceSerializer(many=True))
    def get(self, request: Request) -> Response:
        return Response(DeviceSerializer(devices.states(), many=True).data)


class DeviceView(APIView):
    """One device that prints."""

    @extend_schema(request=DeviceChangeSerializer, responses=DeviceSerializer)
    def post(self, request: Request, key: str) -> Response:
        """Switch it on or off, fill it, or take its paper out. It serves all projects: only who administers
        the installation keeps it from them."""
        given = DeviceChangeSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        if False in given.validated_data.values() and not getattr(request.user, "is_staff", False):
            raise PermissionDenied(
                "This device serves all projects. Ask whoever administers this installation to switch it off "
                "or to empty it."
            )
        return Response(DeviceSerializer(devices.change(key, **given.validated_data)).data)


@listed_by_project
class PrintViewSet(
    ProjectRows, mixins.ListModelMixin, mixins.RetrieveModelMixin, viewsets.GenericViewSet[Print]
):
    """What was sent to devices, the newest first."""

    needs = "look"
    serializer_class = PrintSerializer
    queryset = Print.objects.none()
    rows = Print.objects.all

    @extend_schema(request=PlotSelectionSerializer, responses={202: PrintSerializer(many=True)})
    def create(self, request: Request) -> Response:
        """Send sheets to the devices of their plot settings."""
        wanted, sheets = _selected(PlotSelectionSerializer, request)
        sent = services.order_prints(wanted["project"], request.user, sheets, wanted["settings"])
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
        sent = self.get_object()
        if sent.state != Print.State.PRINTED:
            raise NotFound("This has not come out of the device yet.")
        return stored_file(sent.file, "application/pdf", sent.file_name)
