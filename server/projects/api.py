"""The API of projects."""

from __future__ import annotations

import uuid
from typing import Any

from django.db.models import QuerySet
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema, extend_schema_field, extend_schema_view
from rest_framework import serializers, viewsets

from server.config.versioned import VersionedSerializer
from server.projects.models import Project


class ProjectSerializer(VersionedSerializer):
    class Meta:
        model = Project
        fields = ["id", "name", "number", "client", "site", "practice", "model_unit", "archived", "created", "version"]
        read_only_fields = ["model_unit"]


@extend_schema_field(OpenApiTypes.UUID)
class OwnProjectField(serializers.PrimaryKeyRelatedField):
    """A project of the one who asks; another's is as good as none."""

    def get_queryset(self) -> QuerySet[Project]:
        return Project.objects.filter(owner=self.context["request"].user)


class OfOwnProjects:
    """For a view set: the rows of one's own projects, or of one of them where `?project=` names it."""

    #: All rows, and how they lead to their project.
    rows: QuerySet
    to_project = "project"

    def get_queryset(self) -> QuerySet:
        rows = self.rows.filter(**{f"{self.to_project}__owner": self.request.user})
        wanted = self.request.query_params.get("project")
        if not wanted:
            return rows
        try:
            return rows.filter(**{self.to_project: uuid.UUID(wanted)})
        except ValueError as error:
            raise serializers.ValidationError({"project": f"“{wanted}” is no id of a project."}) from error


#: Tells the schema of `?project=`.
listed_by_project = extend_schema_view(
    list=extend_schema(parameters=[OpenApiParameter("project", OpenApiTypes.UUID, required=False)])
)


class ProjectViewSet(viewsets.ModelViewSet):
    """The projects of the one who is signed in."""

    serializer_class = ProjectSerializer
    queryset = Project.objects.none()
    http_method_names = ["get", "post", "patch", "delete", "head", "options"]

    def get_queryset(self) -> QuerySet[Project]:
        return Project.objects.filter(owner=self.request.user)

    def perform_create(self, serializer: Any) -> None:
        serializer.save(owner=self.request.user)
