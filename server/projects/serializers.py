"""Projects as they are received and sent, and the field that names one."""

from __future__ import annotations

from typing import Any

from django.db.models import QuerySet
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers
from rest_framework.request import Request

from server.common.serializers import RowSerializer
from server.projects.models import Invitation, Membership, Project
from server.projects.roles import ability_for, require, role_of


class ProjectSerializer(RowSerializer):
    members: Any = serializers.SlugRelatedField("username", many=True, read_only=True)
    own = serializers.SerializerMethodField()
    owner = serializers.CharField(source="owner.username", read_only=True)
    role = serializers.SerializerMethodField()
    roles = serializers.SerializerMethodField()

    class Meta:
        model = Project
        fixed = ()
        fields = [
            "id", "name", "number", "client", "site", "practice", "department", "reference", "language",
            "model_unit",
            "archived", "members", "own", "owner", "role", "roles", "created", "version",
        ]  # fmt: skip
        read_only_fields = ["model_unit"]

    def get_own(self, project: Project) -> bool:
        """Whether it is one's own, and not one that is shared with one."""
        return bool(project.owner_id == self.context["request"].user.pk)

    def get_role(self, project: Project) -> str:
        """What one is in it: owner, drafter, checker or reader."""
        return role_of(project, self.context["request"].user)

    def get_roles(self, project: Project) -> dict[str, str]:
        """What the others are, by their sign-in names."""
        return {row.user.get_username(): row.role for row in project.memberships.all()}


class MemberSerializer(serializers.Serializer[Any]):
    username = serializers.CharField(max_length=150)
    role = serializers.ChoiceField(Membership.Role.choices, default=Membership.Role.DRAFTER)


class RoleSerializer(serializers.Serializer[Any]):
    """What somebody who is invited will be."""

    role = serializers.ChoiceField(Membership.Role.choices, default=Membership.Role.DRAFTER)


class InvitationSerializer(serializers.ModelSerializer[Invitation]):
    """An invitation that can still be used."""

    by = serializers.CharField(source="by.username")

    class Meta:
        model = Invitation
        fields = ["id", "by", "role", "made", "until"]
        read_only_fields = fields


class NewInvitationSerializer(InvitationSerializer):
    secret = serializers.CharField(read_only=True, help_text="The last part of its link; told only now.")

    class Meta(InvitationSerializer.Meta):
        fields = [*InvitationSerializer.Meta.fields, "secret"]
        read_only_fields = fields


class InvitedSerializer(serializers.Serializer[Any]):
    """What whoever has the link is told."""

    project = serializers.CharField(source="project.name")
    by = serializers.CharField(source="by.username")


class AcceptSerializer(serializers.Serializer[Any]):
    """Of somebody new; who is signed in needs neither."""

    username = serializers.CharField(max_length=150, required=False, allow_blank=True, default="")
    password = serializers.CharField(
        max_length=500, required=False, allow_blank=True, default="", trim_whitespace=False
    )


class AcceptedSerializer(serializers.Serializer[Any]):
    project = serializers.UUIDField(source="pk")


@extend_schema_field(OpenApiTypes.UUID)
class OwnProjectField(serializers.PrimaryKeyRelatedField[Project]):
    """A project of the one who asks; another's is treated as if there were none."""

    def __init__(self, **given: Any) -> None:
        super().__init__(**given)
        # What a batch makes is of one project, and is read by one serializer.
        self._known: dict[str, Project] = {}

    def get_queryset(self) -> QuerySet[Project]:
        return Project.of(self.context["request"].user)

    def to_internal_value(self, data: Any) -> Project:
        known = self._known.get(str(data))
        if known is not None:
            return known
        project = super().to_internal_value(data)
        request = self.context["request"]
        require(project, request.user, [ability_for(request)])
        self._known[str(data)] = project
        return project


class OfOneProjectSerializer(serializers.Serializer[Any]):
    project = OwnProjectField()


def project_asked_for(request: Request) -> Project:
    """The project that `?project=` names, one's own.

    Raises:
        ValidationError: it names none.
    """
    given = OfOneProjectSerializer(data=request.query_params, context={"request": request})
    given.is_valid(raise_exception=True)
    project: Project = given.validated_data["project"]
    return project


class NamedRowSerializer(RowSerializer):
    """A row that a project keeps by name."""

    project = OwnProjectField(allow_null=True)
    built_in = serializers.BooleanField(
        read_only=True, help_text="Whether it belongs to no project and stays as it is."
    )

    def validate_project(self, project: Project | None) -> Project | None:
        if project is None and self.instance is None:
            raise serializers.ValidationError("Say which project keeps it.")
        return project
