"""The API of projects."""

from __future__ import annotations

from typing import Any

from django.db.models import QuerySet
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers, viewsets

from server.config.versioned import VersionedSerializer
from server.projects.models import Project


class ProjectSerializer(VersionedSerializer):
    class Meta:
        model = Project
        fields = ["id", "name", "number", "client", "site", "practice", "created", "version"]


@extend_schema_field(OpenApiTypes.UUID)
class OwnProjectField(serializers.PrimaryKeyRelatedField):
    """A project of the one who asks; another's is as good as none."""

    def get_queryset(self) -> QuerySet[Project]:
        return Project.objects.filter(owner=self.context["request"].user)


class ProjectViewSet(viewsets.ModelViewSet):
    """The projects of the one who is signed in."""

    serializer_class = ProjectSerializer
    queryset = Project.objects.none()
    http_method_names = ["get", "post", "patch", "delete", "head", "options"]

    def get_queryset(self) -> QuerySet[Project]:
        return Project.objects.filter(owner=self.request.user)

    def perform_create(self, serializer: Any) -> None:
        serializer.save(owner=self.request.user)
