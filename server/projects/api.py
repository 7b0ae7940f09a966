"""The API of projects."""

from __future__ import annotations

import uuid
from typing import Any

from django.contrib.auth import get_user_model
from django.db.models import QuerySet
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema, extend_schema_field, extend_schema_view
from rest_framework import serializers, viewsets
from rest_framework.decorators import action
from rest_framework.exceptions import PermissionDenied
from rest_framework.request import Request
from rest_framework.response import Response

from drafting.sheets.numbering import Pattern
from server.config.versioned import VersionedSerializer
from server.pens.services import check_pen_table
from server.projects.models import Project


class ProjectSerializer(VersionedSerializer):
    members = serializers.SlugRelatedField("username", many=True, read_only=True)
    own = serializers.SerializerMethodField()

    class Meta:
        model = Project
        fields = [
            "id",
            "name",
            "number",
            "client",
            "site",
            "practice",
            "department",
            "reference",
            "language",
            "number_pattern",
            "logo",
            "pen_table",
            "model_unit",
            "archived",
            "members",
            "own",
            "created",
            "version",
        ]
        read_only_fields = ["model_unit"]

    def validate_number_pattern(self, text: str) -> str:
        return Pattern(text).text

    def validate_pen_table(self, key: str) -> str:
        if self.instance is not None:
            check_pen_table(self.instance, key)
        return key

    def validate_logo(self, logo: Any) -> Any:
        if logo is not None and (self.instance is None or logo.project_id != self.instance.pk):
            raise serializers.ValidationError("A project's logo is one of its own pictures.")
        return logo

    def get_own(self, project: Project) -> bool:
        """Whether it is one's own, and not one that is shared with one."""
        return project.owner_id == self.context["request"].user.pk


class MemberSerializer(serializers.Serializer):
    username = serializers.CharField(max_length=150)


@extend_schema_field(OpenApiTypes.UUID)
class OwnProjectField(serializers.PrimaryKeyRelatedField):
    """A project of the one who asks; another's is as good as none."""

    def get_queryset(self) -> QuerySet[Project]:
        return Project.of(self.context["request"].user)


class OfOwnProjects:
    """For a view set: the rows of one's own projects, or of one of them where `?project=` names it."""

    #: All rows, and how they lead to their project.
    rows: QuerySet
    to_project = "project"

    def get_queryset(self) -> QuerySet:
        rows = self.rows.filter(**{f"{self.to_project}__in": Project.of(self.request.user)})
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
        return Project.of(self.request.user).prefetch_related("members")

    def perform_create(self, serializer: Any) -> None:
        serializer.save(owner=self.request.user)

    def perform_destroy(self, project: Project) -> None:
        self._owned(project)
        project.delete()

    @extend_schema(request=MemberSerializer, responses=ProjectSerializer)
    @action(detail=True, methods=["post"])
    def share(self, request: Request, pk: str) -> Response:
        """Let somebody else work in this project."""
        project, other = self._with_other(request)
        project.members.add(other)
        return Response(self.get_serializer(project).data)

    @extend_schema(request=MemberSerializer, responses=ProjectSerializer)
    @action(detail=True, methods=["post"])
    def unshare(self, request: Request, pk: str) -> Response:
        """No longer let somebody work in this project."""
        project, other = self._with_other(request)
        project.members.remove(other)
        return Response(self.get_serializer(project).data)

    def _with_other(self, request: Request) -> tuple[Project, Any]:
        project = self._owned(self.get_object())
        given = MemberSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        name = given.validated_data["username"].strip()
        other = get_user_model().objects.filter(username=name).exclude(pk=project.owner_id).first()
        if other is None:
            raise serializers.ValidationError({"username": f"There is nobody else here who signs in as “{name}”."})
        return project, other

    def _owned(self, project: Project) -> Project:
        if project.owner_id != self.request.user.pk:
            raise PermissionDenied("Only the owner of a project shares or deletes it.")
        return project
