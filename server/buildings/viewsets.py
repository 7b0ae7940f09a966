"""The API of model versions."""

from __future__ import annotations

from django.db.models import QuerySet
from django.http.response import HttpResponseBase
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import mixins, status, viewsets
from rest_framework.decorators import action
from rest_framework.parsers import JSONParser, MultiPartParser
from rest_framework.request import Request
from rest_framework.response import Response

from server.buildings import services
from server.buildings.models import ImportJob, ModelVersion
from server.buildings.serializers import (
    ModelVersionSerializer,
    PlaceSerializer,
    SizeAnswerSerializer,
    SizeQuestionSerializer,
    UploadSerializer,
)
from server.common.responses import stored_gzip
from server.jobs.serializers import JobSerializer
from server.projects.rows import ProjectRows, listed_by_project


def _versions() -> QuerySet[ModelVersion]:
    return ModelVersion.objects.select_related("created_by")


@listed_by_project
class ModelVersionViewSet(
    ProjectRows, mixins.ListModelMixin, mixins.RetrieveModelMixin, viewsets.GenericViewSet[ModelVersion]
):
    """Versions of the models of one's own projects, newest first."""

    serializer_class = ModelVersionSerializer
    queryset = ModelVersion.objects.none()
    parser_classes = [MultiPartParser]
    rows = staticmethod(_versions)

    @extend_schema(request={"multipart/form-data": UploadSerializer}, responses={202: JobSerializer})
    def create(self, request: Request) -> Response:
        """Import a building file. It is read in the background; the job says how far it is."""
        given = UploadSerializer(data=request.data, context={"request": request})
        given.is_valid(raise_exception=True)
        wanted = given.validated_data
        job = services.import_model(wanted["project"], wanted["file"], request.user, wanted.get("unit"))
        job.refresh_from_db()
        return Response(JobSerializer(job).data, status=status.HTTP_202_ACCEPTED)

    @extend_schema(request=PlaceSerializer, responses={202: JobSerializer})
    @action(detail=True, methods=["post"], parser_classes=[JSONParser])
    def place(self, request: Request, pk: str) -> Response:
        """Read this version's file again with other axes; it becomes a version of its own."""
        given = PlaceSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        job = services.read_again(self.get_object(), request.user, **given.validated_data)
        job.refresh_from_db()
        return Response(JobSerializer(job).data, status=status.HTTP_202_ACCEPTED)

    @extend_schema(request=None, responses={201: ModelVersionSerializer})
    @action(detail=True, methods=["post"])
    def restore(self, request: Request, pk: str) -> Response:
        """Go back to this version: it becomes the newest once more."""
        version = services.restore_version(self.get_object(), request.user)
        return Response(ModelVersionSerializer(version).data, status=status.HTTP_201_CREATED)

    @extend_schema(responses={(200, "application/octet-stream"): OpenApiTypes.BINARY})
    @action(detail=True)
    def solid(self, request: Request, pk: str) -> HttpResponseBase:
        """The building as it is looked at in 3D; a version's never changes."""
        version = self.get_object()
        return stored_gzip(request, version.solid, version.solid, "application/octet-stream")


@listed_by_project
class SizeQuestionViewSet(ProjectRows, mixins.ListModelMixin, viewsets.GenericViewSet[ImportJob]):
    """Files of an unlikely size, which become a version when that is answered for."""

    serializer_class = SizeQuestionSerializer
    queryset = ImportJob.objects.none()
    rows = staticmethod(lambda: ImportJob.objects.filter(asks__isnull=False))
    to_project = "job__project"

    @extend_schema(request=SizeAnswerSerializer, responses={202: JobSerializer, 204: None})
    @action(detail=True, methods=["post"])
    def answer(self, request: Request, pk: str) -> Response:
        """Use the file, in this unit or another, or forget it."""
        given = SizeAnswerSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        asked = self.get_object()
        if not given.validated_data["use"]:
            services.drop(asked)
            return Response(status=status.HTTP_204_NO_CONTENT)
        job = services.use(asked, request.user, given.validated_data["unit"])
        return Response(JobSerializer(job).data, status=status.HTTP_202_ACCEPTED)
