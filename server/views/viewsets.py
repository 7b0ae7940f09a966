"""The API of views and their linework."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from django.db import transaction
from django.db.models import QuerySet
from django.http import Http404
from django.http.response import HttpResponseBase
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import mixins, serializers, status, viewsets
from rest_framework.decorators import action
from rest_framework.parsers import MultiPartParser
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.common.responses import stored_gzip
from server.jobs.serializers import JobSerializer
from server.projects.models import Project
from server.projects.rows import ProjectRows, RowKind, RowViewSet, listed_by_project, row_viewset
from server.projects.serializers import OfOneProjectSerializer
from server.views import drawings, received, services
from server.views.access import may_read_linework
from server.views.models import Linework, NamedLineSettings, ReceivedFile, Subset, View
from server.views.serializers import (
    NamedLineSettingsSerializer,
    ReceivedFileSerializer,
    ReceivedUploadSerializer,
    SettingsForViewsSerializer,
    SubsetSerializer,
    ViewSerializer,
)


def _views() -> QuerySet[View]:
    # All that was found in a building takes longer to read than the views do, and is not sent with them.
    rows = View.objects.select_related("linework", "project", "drawn_from", "subset")
    return rows.defer("drawn_from__facts")


VIEWS = RowKind(ViewSerializer, services.view_service, _views, read=View.check_stored)
SUBSETS = RowKind(SubsetSerializer, services.subset_service, Subset.objects.all)
LINE_SETTINGS = RowKind(
    NamedLineSettingsSerializer, services.line_settings_service, NamedLineSettings.objects.all
)

SubsetViewSet = row_viewset(SUBSETS, "Subsets of one's own projects.")
NamedLineSettingsViewSet = row_viewset(LINE_SETTINGS, "Named line settings of one's own projects.")


@listed_by_project
class ViewViewSet(RowViewSet):
    """Views of one's own projects."""

    kind = VIEWS
    rows = staticmethod(_views)
    queryset = View.objects.none()

    @extend_schema(request=None, responses={202: JobSerializer, 204: None})
    @action(detail=True, methods=["post"])
    def draw(self, request: Request, pk: str) -> Response:
        """Bring this view up to date with the newest model version; nothing to do where its drawing is
        there."""
        view = self.get_object()
        if not view.is_received:
            drawings.newest_or_refuse(view.project)
        job = drawings.order_drawing(view)
        if job is None:
            return Response(status=status.HTTP_204_NO_CONTENT)
        job.refresh_from_db()
        return Response(JobSerializer(job).data, status=status.HTTP_202_ACCEPTED)

    @extend_schema(request=OfOneProjectSerializer, responses={201: ViewSerializer(many=True)})
    @action(detail=False, methods=["post"])
    def standard(self, request: Request) -> Response:
        """Make what is missing of the standard set of views."""
        made = services.make_standard_views(self._given(OfOneProjectSerializer, request)["project"])
        return Response(self._data(made), status=status.HTTP_201_CREATED)

    @extend_schema(request=OfOneProjectSerializer, responses={202: JobSerializer(many=True)})
    @action(detail=False, methods=["post"], url_path="bring-up-to-date")
    def bring_up_to_date(self, request: Request) -> Response:
        """Draw every view of a project that is out of date, but for those that are held."""
        jobs = drawings.order_all_out_of_date(self._given(OfOneProjectSerializer, request)["project"])
        return Response(JobSerializer(jobs, many=True).data, status=status.HTTP_202_ACCEPTED)

    @extend_schema(request=SettingsForViewsSerializer, responses=ViewSerializer(many=True))
    @action(detail=False, methods=["post"], url_path="change-settings")
    def change_settings(self, request: Request) -> Response:
        """Give several views the same settings; what is not named stays as each view has it."""
        given = self._given(SettingsForViewsSerializer, request)
        with transaction.atomic():
            views = list(self.get_queryset().filter(pk__in=given["views"]))
            if len(views) != len(set(given["views"])):
                raise Http404
            for view in views:
                self.check_object_permissions(request, view)
            changed = services.change_settings(views, given.get("line_settings", {}), given.get("shown", {}))
        return Response(self._data(changed))

    def _given(self, form: type[serializers.Serializer[Any]], request: Request) -> dict[str, Any]:
        given = form(data=request.data, context=self.get_serializer_context())
        given.is_valid(raise_exception=True)
        return dict(given.validated_data)

    def _data(self, views: Sequence[View]) -> Any:
        rows = self.get_queryset().filter(pk__in=[view.pk for view in views])
        return ViewSerializer(rows, many=True, context=self.get_serializer_context()).data


@listed_by_project
class ReceivedFileViewSet(
    ProjectRows, mixins.RetrieveModelMixin, mixins.ListModelMixin, viewsets.GenericViewSet[ReceivedFile]
):
    """The files of drawings from others, the newest first. A view of kind “received” shows one."""

    serializer_class = ReceivedFileSerializer
    queryset = ReceivedFile.objects.none()
    parser_classes = [MultiPartParser]
    rows = ReceivedFile.objects.all

    @extend_schema(request={"multipart/form-data": ReceivedUploadSerializer}, responses={202: JobSerializer})
    def create(self, request: Request) -> Response:
        """Bring in a DXF, an SVG or a PDF. It is looked at in the background; what comes of it has the id of
        the job."""
        given = ReceivedUploadSerializer(data=request.data, context=self.get_serializer_context())
        given.is_valid(raise_exception=True)
        job = received.receive(given.validated_data["project"], given.validated_data["upload"])
        job.refresh_from_db()
        return Response(JobSerializer(job).data, status=status.HTTP_202_ACCEPTED)


class LineworkView(APIView):
    """Linework by its key; what lies under a key never changes."""

    @extend_schema(responses={(200, "application/octet-stream"): OpenApiTypes.BINARY})
    def get(self, request: Request, key: str) -> HttpResponseBase:
        linework = Linework.objects.filter(pk=key).first()
        if linework is None or not may_read_linework(key, Project.of(request.user)):
            raise Http404
        return stored_gzip(request, key, linework.file, "application/octet-stream")
