"""Changes to several rows at once."""

from __future__ import annotations

import uuid

from django.http import HttpResponse
from django.shortcuts import get_object_or_404
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.changes import history
from server.changes.kinds import KINDS
from server.changes.models import HistoryEntry
from server.changes.serializers import (
    BackStepSerializer,
    ChangedSerializer,
    ChangesSerializer,
    HistoryEntrySerializer,
    KindsSerializer,
    RowsByKindSerializer,
    UnreadableSerializer,
)
from server.changes.services import make_changes, unreadable_rows
from server.common.made_once import json_made_once, json_of_several
from server.projects.models import Project
from server.projects.serializers import OfOneProjectSerializer
from server.sheets.services import register_of


class ChangesView(APIView):
    """Make changes, in their order."""

    needs = "look"

    @extend_schema(request=ChangesSerializer, responses=ChangedSerializer)
    def post(self, request: Request) -> Response:
        """Answers with each row as it is now, null for one that is gone. A conflict changes nothing at
        all."""
        given = ChangesSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        wanted = given.validated_data
        context = {"request": request, "view": self}
        rows = make_changes(request.user, wanted["steps"], wanted.get("change"), wanted["what"], context)
        return Response({"rows": rows})


class RowsView(APIView):
    """Rows of a project, of several kinds at once."""

    @extend_schema(parameters=[KindsSerializer], responses=RowsByKindSerializer)
    def get(self, request: Request) -> HttpResponse:
        """What a page begins with in one answer, each kind as its own list has it."""
        given = KindsSerializer(data=request.query_params, context={"request": request})
        given.is_valid(raise_exception=True)
        project, kinds = given.validated_data["project"], dict.fromkeys(given.validated_data["kinds"])
        if "registers" in kinds:
            register_of(project)
        asked = {name: (KINDS[name].listed, project.pk) for name in kinds}
        return json_of_several(request._request, asked)


class UnreadableView(APIView):
    """Rows of a project that were damaged where they are stored, and that lists leave out."""

    @extend_schema(parameters=[OfOneProjectSerializer], responses=UnreadableSerializer(many=True))
    def get(self, request: Request) -> HttpResponse:
        """They can be deleted like any row."""
        given = OfOneProjectSerializer(data=request.query_params, context={"request": request})
        given.is_valid(raise_exception=True)
        project = given.validated_data["project"].pk
        return json_made_once(request._request, unreadable_rows, project, apart=True)


_SUBJECT = OpenApiParameter("subject", OpenApiTypes.UUID, required=True, description="A sheet or a view.")


def _subject(request: Request) -> uuid.UUID:
    try:
        return uuid.UUID(request.query_params.get("subject", ""))
    except ValueError as error:
        raise serializers.ValidationError({"subject": "Say which sheet or view."}) from error


class HistoryView(APIView):
    """What was done to a sheet or a view."""

    @extend_schema(parameters=[_SUBJECT], responses=HistoryEntrySerializer(many=True))
    def get(self, request: Request) -> Response:
        """The newest first."""
        entries = history.history_of(request.user, _subject(request))
        return Response(HistoryEntrySerializer(entries, many=True).data)


class BackView(APIView):
    """The way back to what a sheet or a view was right after something was done."""

    @extend_schema(parameters=[_SUBJECT], responses=BackStepSerializer(many=True))
    def get(self, request: Request, entry: int) -> Response:
        """The steps that lead there from now; they are made like any other change."""
        own = HistoryEntry.objects.filter(project__in=Project.of(request.user))
        row = get_object_or_404(own, pk=entry)
        return Response(history.steps_back(row, _subject(request), {"request": request, "view": self}))
