"""The API of annotation."""

from __future__ import annotations

import csv
from collections.abc import Sequence

from django.db.models import QuerySet
from django.http import Http404, HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework.decorators import action
from rest_framework.request import Request
from rest_framework.response import Response

from drafting.annotation.schedules import Schedule, Table
from drafting.plotting.files import file_name
from server.annotations import services
from server.annotations.models import Annotation
from server.annotations.serializers import (
    AnnotationSerializer,
    NewTagSerializer,
    OuterChainSerializer,
    OuterChainsSerializer,
    TagsSerializer,
)
from server.common.responses import XLSX
from server.jobs.apart import run_apart
from server.projects.rows import RowKind, RowViewSet, listed_by_project
from server.sheets.composing import WholeSet


def _rows() -> QuerySet[Annotation]:
    return Annotation.objects.select_related(
        "view__linework", "sheet", "viewport__view__linework", "viewport__linework"
    )


ANNOTATIONS = RowKind(AnnotationSerializer, services.annotation_service, _rows)


@listed_by_project
class AnnotationViewSet(RowViewSet):
    """Annotation in one's own projects."""

    kind = ANNOTATIONS
    rows = staticmethod(_rows)
    queryset = Annotation.objects.none()

    @extend_schema(request=OuterChainsSerializer, responses=OuterChainSerializer(many=True))
    @action(detail=False, methods=["post"], url_path="outer-chains")
    def outer_chains(self, request: Request) -> Response:
        """The chains outside a plan; whoever asks keeps those that are wanted."""
        given = OuterChainsSerializer(data=request.data, context=self.get_serializer_context())
        given.is_valid(raise_exception=True)
        made = services.outer_chains_of(**given.validated_data)
        return Response(OuterChainSerializer(made, many=True).data)

    @extend_schema(request=TagsSerializer, responses=NewTagSerializer(many=True))
    @action(detail=False, methods=["post"])
    def tags(self, request: Request) -> Response:
        """Tags of the doors or windows in a viewport; whoever asks keeps those that are wanted."""
        given = TagsSerializer(data=request.data, context=self.get_serializer_context())
        given.is_valid(raise_exception=True)
        return Response(NewTagSerializer(services.tags_of(**given.validated_data), many=True).data)

    @extend_schema(responses={(200, "text/csv"): OpenApiTypes.STR})
    @action(detail=True, methods=["get"], url_path="csv")
    def csv(self, request: Request, pk: str) -> HttpResponse:
        """What a schedule lists, as a file of values with commas."""
        table = self._table()
        answer = HttpResponse(content_type="text/csv; charset=utf-8")
        answer["Content-Disposition"] = f'attachment; filename="{file_name(table.title)}.csv"'
        # By this sign spreadsheets know that what follows is UTF-8.
        answer.write("\ufeff")
        csv.writer(answer).writerows([table.captions, *map(plain_cells, table.rows)])
        return answer

    @extend_schema(responses={(200, XLSX): OpenApiTypes.BINARY})
    @action(detail=True, methods=["get"])
    def xlsx(self, request: Request, pk: str) -> HttpResponse:
        """What a schedule lists, as a workbook."""
        table = self._table()
        answer = HttpResponse(workbook_of(table), content_type=XLSX)
        answer["Content-Disposition"] = f'attachment; filename="{file_name(table.title)}.xlsx"'
        return answer

    def _table(self) -> Table:
        row = self.get_object()
        piece = row.as_core
        if not isinstance(piece, Schedule):
            raise Http404
        return services.table_of(piece, WholeSet.of(row.project))


def workbook_of(table: Table) -> bytes:
    """A table as a workbook, its columns as wide as what is in them."""
    rows = [table.captions, *table.rows]
    widths = [max(len(cell) for cell in column) + 3.0 for column in zip(*rows, strict=True)]
    made: bytes = run_apart("drafting.workbooks:workbook", "Schedule", rows, widths)
    return made


def plain_cells(row: Sequence[str]) -> list[str]:
    """The cells of a row, none of which a spreadsheet takes for a formula."""
    return [f"'{cell}" if cell[:1] in ("=", "+", "-", "@") else cell for cell in row]
