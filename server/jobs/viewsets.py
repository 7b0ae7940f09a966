"""The API of jobs: how far they are, and cancelling them."""

from __future__ import annotations

from drf_spectacular.utils import extend_schema
from rest_framework import viewsets
from rest_framework.decorators import action
from rest_framework.request import Request
from rest_framework.response import Response

from server.jobs import services
from server.jobs.models import Job
from server.jobs.serializers import JobSerializer
from server.projects.rows import ProjectRows, listed_by_project


@listed_by_project
class JobViewSet(ProjectRows, viewsets.ReadOnlyModelViewSet[Job]):
    """Long work of one's own projects, newest first."""

    needs = "check"
    serializer_class = JobSerializer
    queryset = Job.objects.none()
    rows = Job.objects.all

    @extend_schema(request=None, responses=JobSerializer)
    @action(detail=True, methods=["post"])
    def cancel(self, request: Request, pk: str) -> Response:
        """Stop a job as soon as can be; one that has ended stays as it is."""
        job = self.get_object()
        if not job.ended:
            services.cancel(job)
        return Response(JobSerializer(job).data)
