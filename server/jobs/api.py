"""The API of jobs: how far they are, cancelling them, and the files they made."""

from __future__ import annotations

from django.http import FileResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema, extend_schema_field
from rest_framework import serializers, viewsets
from rest_framework.decorators import action
from rest_framework.exceptions import NotFound
from rest_framework.request import Request
from rest_framework.response import Response

from drafting.plot.files import ARCHIVE, FORMS
from server.config import storage
from server.jobs import services
from server.jobs.models import Job
from server.projects.api import OfOwnProjects, listed_by_project


class CutOffSerializer(serializers.Serializer):
    """Something that a device cannot print whole, and where it lies on the paper; mm."""

    what = serializers.CharField()
    x = serializers.FloatField()
    y = serializers.FloatField()
    width = serializers.FloatField()
    height = serializers.FloatField()


class PageSerializer(serializers.Serializer):
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
    at = serializers.ListField(child=serializers.FloatField(), help_text="Where the sheet's corner lies on the paper.")
    cut_off = CutOffSerializer(many=True)


class JobSerializer(serializers.ModelSerializer):
    view = serializers.SerializerMethodField()
    notes = serializers.ListField(child=serializers.CharField(), read_only=True)
    pages = PageSerializer(many=True, read_only=True)
    file_name = serializers.CharField(source="order.file_name", read_only=True, default="")

    class Meta:
        model = Job
        fields = [
            "id",
            "project",
            "kind",
            "state",
            "about",
            "view",
            "stage",
            "share",
            "message",
            "notes",
            "pages",
            "file_name",
            "created",
            "finished",
        ]
        read_only_fields = fields

    @extend_schema_field(serializers.UUIDField(allow_null=True))
    def get_view(self, job: Job) -> str | None:
        """The view that is drawn, if the job draws one."""
        return job.order.get("view")


@listed_by_project
class JobViewSet(OfOwnProjects, viewsets.ReadOnlyModelViewSet):
    """Long work of one's own projects, newest first."""

    serializer_class = JobSerializer
    queryset = Job.objects.none()
    rows = Job.objects.all()

    @extend_schema(request=None, responses=JobSerializer)
    @action(detail=True, methods=["post"])
    def cancel(self, request: Request, pk: str) -> Response:
        """Stop a job as soon as can be; one that has ended stays as it is."""
        job = self.get_object()
        if not job.ended:
            services.cancel(job)
        return Response(JobSerializer(job).data)

    @extend_schema(responses={(200, "*/*"): OpenApiTypes.BINARY})
    @action(detail=True, methods=["get"])
    def file(self, request: Request, pk: str) -> FileResponse:
        """The file that a plot made."""
        job = self.get_object()
        if job.kind != Job.Kind.PLOT or not job.result:
            raise NotFound("This job has made no file.")
        name = job.order["file_name"]
        kind = (FORMS | ARCHIVE)[name.rpartition(".")[2]]
        return FileResponse(storage.path_of(job.result).open("rb"), content_type=kind, filename=name)
