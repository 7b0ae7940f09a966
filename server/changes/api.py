"""Changes to several rows at once: all of them are made, or none."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView
from rest_framework.viewsets import ModelViewSet

from server.changes.models import MadeChange
from server.config.problems import Conflict
from server.pens.api import PenTableViewSet
from server.plots.api import PlotSettingsViewSet, SheetListViewSet
from server.sheets.api import SheetViewSet
from server.sheets.viewport_api import ViewportViewSet
from server.templates.api import TemplateViewSet
from server.views.api import NamedTreatmentViewSet, SubsetViewSet, ViewViewSet

#: The rows that can be changed, and what knows how.
ROWS: dict[str, type[ModelViewSet]] = {
    "sheets": SheetViewSet,
    "viewports": ViewportViewSet,
    "views": ViewViewSet,
    "subsets": SubsetViewSet,
    "templates": TemplateViewSet,
    "pen_tables": PenTableViewSet,
    "plot_settings": PlotSettingsViewSet,
    "sheet_lists": SheetListViewSet,
    "treatments": NamedTreatmentViewSet,
}
#: A change of this many rows is no work of one hand.
MOST = 2000
GONE = "This was deleted elsewhere in the meantime."


class StepSerializer(serializers.Serializer):
    """One row: made where `version` is nought, else changed from that version; deleted where `row` is null."""

    rows = serializers.ChoiceField(choices=list(ROWS))
    id = serializers.UUIDField()
    version = serializers.IntegerField(min_value=0)
    row = serializers.DictField(allow_null=True, help_text="All that a new row has, or what changes of one.")


class ChangesSerializer(serializers.Serializer):
    change = serializers.UUIDField(
        required=False, help_text="A name for it: sent again after a lost connection, it is not made again."
    )
    steps = StepSerializer(many=True, allow_empty=False, max_length=MOST)


class ChangedSerializer(serializers.Serializer):
    rows = serializers.ListField(child=serializers.DictField(allow_null=True))


class ChangesView(APIView):
    """Make changes, in their order."""

    @extend_schema(request=ChangesSerializer, responses=ChangedSerializer)
    def post(self, request: Request) -> Response:
        """Answers with each row as it is now, null for one that is gone. A conflict changes nothing at all."""
        given = ChangesSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        name = given.validated_data.get("change")
        with transaction.atomic():
            made = MadeChange.objects.filter(pk=name, user=request.user).first() if name else None
            if made:
                return Response(made.answer)
            answer = {"rows": [self._taken(request, step) for step in given.validated_data["steps"]]}
            if name:
                MadeChange.remember(name, request.user, answer)
        return Response(answer)

    def _taken(self, request: Request, step: dict[str, Any]) -> Any:
        pk, row = step["id"], step["row"]
        viewset = ROWS[step["rows"]](request=request, format_kwarg=None, kwargs={"pk": str(pk)})
        if step["version"] == 0 and row is not None:
            viewset.action = "create"
            return self._saved(viewset, viewset.perform_create, data={**row, "id": str(pk)})
        there = viewset.get_queryset().filter(pk=pk).first()
        if row is None:
            # What somebody else has deleted already need not be deleted again.
            if there is not None:
                viewset.perform_destroy(there)
            return None
        if there is None:
            raise Conflict({"rows": step["rows"], "id": str(pk), "row": None}, GONE)
        viewset.action = "partial_update"
        try:
            changes = {**row, "version": step["version"]}
            return self._saved(viewset, viewset.perform_update, there, data=changes, partial=True)
        except Conflict as conflict:
            raise Conflict({"rows": step["rows"], "id": str(pk), "row": conflict.current}) from None

    def _saved(self, viewset: ModelViewSet, save: Any, *instance: Any, **given: Any) -> Any:
        serializer = viewset.get_serializer(*instance, **given)
        serializer.is_valid(raise_exception=True)
        save(serializer)
        return dict(serializer.data)
