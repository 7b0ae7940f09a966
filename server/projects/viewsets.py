"""The API of projects."""

from __future__ import annotations

from typing import Any

from django.db.models import QuerySet
from drf_spectacular.utils import extend_schema
from rest_framework import status
from rest_framework.decorators import action
from rest_framework.request import Request
from rest_framework.response import Response

from server.projects import services
from server.projects.models import Project
from server.projects.rows import RowKind, RowViewSet
from server.projects.serializers import MemberSerializer, ProjectSerializer

PROJECTS = RowKind(
    ProjectSerializer, services.project_service, lambda: Project.objects.prefetch_related("members")
)


class ProjectViewSet(RowViewSet):
    """The projects of the one who is signed in."""

    kind = PROJECTS
    rows = staticmethod(PROJECTS.rows)
    queryset = Project.objects.none()

    def get_queryset(self) -> QuerySet[Project]:
        if getattr(self, "swagger_fake_view", False):
            return Project.objects.none()
        return Project.of(self.request.user).prefetch_related("members")

    def create(self, request: Request, *args: Any, **kwargs: Any) -> Response:
        given = self.get_serializer(data=request.data)
        given.is_valid(raise_exception=True)
        project = services.project_service.create({**given.validated_data, "owner": request.user})
        return Response(PROJECTS.data(project, self.get_serializer_context()), status=status.HTTP_201_CREATED)

    def destroy(self, request: Request, *args: Any, **kwargs: Any) -> Response:
        services.owned(self.get_object(), request.user)
        return super().destroy(request, *args, **kwargs)

    @extend_schema(request=MemberSerializer, responses=ProjectSerializer)
    @action(detail=True, methods=["post"])
    def share(self, request: Request, pk: str) -> Response:
        """Let somebody else work in this project."""
        project = services.owned(self.get_object(), request.user)
        services.share(project, self._username(request))
        return Response(PROJECTS.data(project, self.get_serializer_context()))

    @extend_schema(request=MemberSerializer, responses=ProjectSerializer)
    @action(detail=True, methods=["post"])
    def unshare(self, request: Request, pk: str) -> Response:
        """No longer let somebody work in this project."""
        project = services.owned(self.get_object(), request.user)
        services.unshare(project, self._username(request))
        return Response(PROJECTS.data(project, self.get_serializer_context()))

    def _username(self, request: Request) -> str:
        given = MemberSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        name: str = given.validated_data["username"]
        return name
