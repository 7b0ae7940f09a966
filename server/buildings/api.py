"""The API of model versions."""

from __future__ import annotations

from typing import Any

from django.http import Http404
from django.http.response import HttpResponseBase
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema, extend_schema_field
from rest_framework import mixins, serializers, status, viewsets
from rest_framework.decorators import action
from rest_framework.parsers import MultiPartParser
from rest_framework.request import Request
from rest_framework.response import Response

from drafting.building.units import UNITS
from server.buildings import services
from server.buildings.models import ModelVersion
from server.config.kept_file import kept_file
from server.jobs.api import JobSerializer
from server.projects.api import OfOwnProjects, OwnProjectField, listed_by_project


class StoreySerializer(serializers.Serializer):
    name = serializers.CharField()
    elevation = serializers.FloatField(help_text="Of the floor, mm.")


class FactsSerializer(serializers.Serializer):
    """What was found in a building file."""

    schema = serializers.CharField()
    unit = serializers.CharField(help_text="The unit of length that the file is written in.")
    elements = serializers.IntegerField()
    triangles = serializers.IntegerField()
    size = serializers.ListField(child=serializers.FloatField(), help_text="x, y and z, mm.")
    true_north = serializers.FloatField(
        required=False, allow_null=True, help_text="Degrees clockwise from the model's y axis; null if not said."
    )
    storeys = StoreySerializer(many=True)
    layers = serializers.DictField(child=serializers.IntegerField())
    classes = serializers.DictField(child=serializers.IntegerField())
    left_out = serializers.DictField(child=serializers.IntegerField())
    warnings = serializers.ListField(child=serializers.CharField())


class ChangedElementSerializer(serializers.Serializer):
    id = serializers.CharField()
    name = serializers.CharField()

    def get_fields(self) -> dict[str, serializers.Field]:
        return {**super().get_fields(), "class": serializers.CharField()}


class ChangesSerializer(serializers.Serializer):
    """What changed since the version before."""

    added = ChangedElementSerializer(many=True)
    removed = ChangedElementSerializer(many=True)
    moved = ChangedElementSerializer(many=True)
    reshaped = ChangedElementSerializer(many=True)


class ModelVersionSerializer(serializers.ModelSerializer):
    changes = serializers.SerializerMethodField()
    facts = serializers.SerializerMethodField()
    created_by = serializers.CharField(source="created_by.username", default="")

    class Meta:
        model = ModelVersion
        fields = [
            "id",
            "project",
            "number",
            "file_name",
            "file_size",
            "facts",
            "changes",
            "taken_from",
            "created",
            "created_by",
        ]
        read_only_fields = fields

    @extend_schema_field(ChangesSerializer(allow_null=True))
    def get_changes(self, version: ModelVersion) -> dict[str, Any] | None:
        return version.changes

    @extend_schema_field(FactsSerializer)
    def get_facts(self, version: ModelVersion) -> dict[str, Any]:
        return version.facts


class UploadSerializer(serializers.Serializer):
    project = OwnProjectField()
    file = serializers.FileField(allow_empty_file=True, max_length=250)
    unit = serializers.ChoiceField(
        choices=list(UNITS),
        required=False,
        allow_blank=True,
        help_text="Of the file's figures; blank for what it says.",
    )


@listed_by_project
class ModelVersionViewSet(OfOwnProjects, mixins.ListModelMixin, mixins.RetrieveModelMixin, viewsets.GenericViewSet):
    """Versions of the models of one's own projects, newest first."""

    serializer_class = ModelVersionSerializer
    queryset = ModelVersion.objects.none()
    parser_classes = [MultiPartParser]
    rows = ModelVersion.objects.select_related("created_by")

    @extend_schema(request={"multipart/form-data": UploadSerializer}, responses={202: JobSerializer})
    def create(self, request: Request) -> Response:
        """Bring a building file in. It is read in the background; the job says how far it is."""
        given = UploadSerializer(data=request.data, context={"request": request})
        given.is_valid(raise_exception=True)
        wanted = given.validated_data
        job = services.bring_in(wanted["project"], wanted["file"], request.user, wanted.get("unit"))
        job.refresh_from_db()
        return Response(JobSerializer(job).data, status=status.HTTP_202_ACCEPTED)

    @extend_schema(request=None, responses={201: ModelVersionSerializer})
    @action(detail=True, methods=["post"])
    def take(self, request: Request, pk: str) -> Response:
        """Go back to this version: it becomes the newest once more."""
        version = services.take_again(self.get_object(), request.user)
        return Response(ModelVersionSerializer(version).data, status=status.HTTP_201_CREATED)

    @extend_schema(responses={(200, "application/octet-stream"): OpenApiTypes.BINARY})
    @action(detail=True)
    def solid(self, request: Request, pk: str) -> HttpResponseBase:
        """The building as it is looked at in 3D; a version's never changes."""
        version = self.get_object()
        if not version.solid:
            raise Http404
        return kept_file(request, version.solid, version.solid, "application/octet-stream")
