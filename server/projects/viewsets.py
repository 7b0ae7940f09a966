"""The API of projects."""

from __future__ import annotations

from typing import Any

from django.contrib.auth import login
from django.contrib.auth.models import User
from django.db.models import QuerySet
from drf_spectacular.utils import extend_schema
from rest_framework import mixins, status, viewsets
from rest_framework.decorators import action
from rest_framework.permissions import AllowAny
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.throttling import ScopedRateThrottle
from rest_framework.views import APIView

from server.accounts.tokens import WithinScope, from_this_site
from server.projects import invitations, services
from server.projects.models import Invitation, Project
from server.projects.rows import RowKind, RowViewSet
from server.projects.serializers import (
    AcceptedSerializer,
    AcceptSerializer,
    InvitationSerializer,
    InvitedSerializer,
    MemberSerializer,
    NewInvitationSerializer,
    ProjectSerializer,
    RoleSerializer,
)

PROJECTS = RowKind(
    ProjectSerializer,
    services.project_service,
    lambda: Project.objects.select_related("owner").prefetch_related("members", "memberships__user"),
)


class ProjectViewSet(RowViewSet):
    """The projects of the one who is signed in."""

    kind = PROJECTS
    # What is its owner's alone, `owned` decides.
    needs = "look"
    to_project = "pk"
    rows = staticmethod(PROJECTS.rows)
    queryset = Project.objects.none()

    def get_queryset(self) -> QuerySet[Project]:
        if getattr(self, "swagger_fake_view", False):
            return Project.objects.none()
        return (
            Project.of(self.request.user)
            .select_related("owner")
            .prefetch_related("members", "memberships__user")
        )

    def list(self, request: Request, *args: Any, **kwargs: Any) -> Response:
        # What is one's own in a project differs from person to person: no two are answered alike.
        return Response(self.get_serializer(self.get_queryset(), many=True).data)

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
        services.share(project, **self._member(request))
        return Response(PROJECTS.data(project, self.get_serializer_context()))

    @extend_schema(request=MemberSerializer, responses=ProjectSerializer)
    @action(detail=True, methods=["post"])
    def unshare(self, request: Request, pk: str) -> Response:
        """No longer let somebody work in this project."""
        project = services.owned(self.get_object(), request.user)
        services.unshare(project, self._member(request)["username"])
        return Response(PROJECTS.data(project, self.get_serializer_context()))

    @extend_schema(request=RoleSerializer, responses={201: NewInvitationSerializer})
    @action(detail=True, methods=["post"])
    def invite(self, request: Request, pk: str) -> Response:
        """Make a link by which one person comes into this project."""
        project = services.owned(self.get_object(), request.user)
        given = RoleSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        row, secret = invitations.invite(project, request.user, given.validated_data["role"])
        told = {**InvitationSerializer(row).data, "secret": secret}
        return Response(told, status=status.HTTP_201_CREATED)

    @extend_schema(responses=InvitationSerializer(many=True))
    @action(detail=True, pagination_class=None)
    def invitations(self, request: Request, pk: str) -> Response:
        """Links that can still be used."""
        project = services.owned(self.get_object(), request.user)
        return Response(InvitationSerializer(invitations.open_ones(project), many=True).data)

    def _member(self, request: Request) -> dict[str, str]:
        given = MemberSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        return dict(given.validated_data)


class InvitationViewSet(mixins.DestroyModelMixin, viewsets.GenericViewSet[Invitation]):
    """Invitations to one's own projects; deleted, they are withdrawn."""

    serializer_class = InvitationSerializer
    queryset = Invitation.objects.none()

    def get_queryset(self) -> QuerySet[Invitation]:
        return Invitation.objects.filter(project__owner=self.request.user.pk)


class InvitedView(APIView):
    """What is behind the link of an invitation. Guessing is slowed down like guessing a password."""

    # A token that may only read takes none.
    permission_classes = [AllowAny, WithinScope]
    throttle_classes = [ScopedRateThrottle]
    throttle_scope = "sign-in"

    @extend_schema(responses=InvitedSerializer)
    def get(self, request: Request, secret: str) -> Response:
        return Response(InvitedSerializer(invitations.found(secret)).data)

    @extend_schema(request=AcceptSerializer, responses=AcceptedSerializer)
    def post(self, request: Request, secret: str) -> Response:
        """Come into the project: as who is signed in, or with a new account that is signed in then."""
        from_this_site(request)
        given = AcceptSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        here = request.user if isinstance(request.user, User) else None
        project, who = invitations.accept(secret, here, **given.validated_data)
        if here is None:
            login(request._request, who, backend="server.accounts.remembered.Users")
        return Response(AcceptedSerializer(project).data)
