"""The API of checking."""

from __future__ import annotations

from django.db.models import QuerySet
from django.shortcuts import get_object_or_404
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework import status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from drafting.checks.rules import all_rules
from server.checks import services
from server.checks.models import CheckRules, CheckRun, Waiver
from server.checks.serializers import (
    CheckRulesSerializer,
    ChecksSerializer,
    RuleSerializer,
    WaiverSerializer,
)
from server.jobs.models import Job
from server.jobs.serializers import JobSerializer
from server.projects.models import Project
from server.projects.rows import RowKind, row_viewset
from server.projects.serializers import OfOneProjectSerializer


def _waivers() -> QuerySet[Waiver]:
    return Waiver.objects.select_related("by")


WAIVERS = RowKind(WaiverSerializer, services.waiver_service, _waivers, needs="check")
CHECK_RULES = RowKind(CheckRulesSerializer, services.check_rules_service, CheckRules.objects.all)

WaiverViewSet = row_viewset(WAIVERS, "Findings that are let stand in one's own projects.")
CheckRulesViewSet = row_viewset(CHECK_RULES, "Which rules one's own projects check.")

_PROJECT = OpenApiParameter("project", OpenApiTypes.UUID, required=True)


class ChecksView(APIView):
    """The check of a set."""

    needs = "look"

    @extend_schema(parameters=[_PROJECT], responses=ChecksSerializer)
    def get(self, request: Request) -> Response:
        """What the last check has found, and whether the set is still as it was."""
        given = OfOneProjectSerializer(data=request.query_params, context={"request": request})
        given.is_valid(raise_exception=True)
        project = get_object_or_404(Project.of(request.user), pk=given.validated_data["project"].pk)
        run = CheckRun.objects.filter(project=project).first()
        job = Job.objects.filter(project=project, kind=Job.Kind.CHECK, state__in=Job.ACTIVE).first()
        answer = {
            "findings": run.findings if run else [],
            "fresh": run is not None and run.state == services.state_of_set(project),
            "finished": run.finished if run else None,
            "seconds": run.seconds if run else 0.0,
            "job": job,
        }
        return Response(ChecksSerializer(answer).data)

    @extend_schema(request=OfOneProjectSerializer, responses={202: JobSerializer})
    def post(self, request: Request) -> Response:
        """Check the set."""
        given = OfOneProjectSerializer(data=request.data, context={"request": request})
        given.is_valid(raise_exception=True)
        job = services.order_check(given.validated_data["project"])
        job.refresh_from_db()
        return Response(JobSerializer(job).data, status=status.HTTP_202_ACCEPTED)


class RulesView(APIView):
    """What there is to check; it never changes."""

    @extend_schema(responses=RuleSerializer(many=True))
    def get(self, request: Request) -> Response:
        return Response(RuleSerializer(all_rules(), many=True).data)
