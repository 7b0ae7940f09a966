"""The API of annotation, and of what a project keeps for it."""

from __future__ import annotations

import csv
from collections.abc import Sequence
from typing import Any

from django.db.models import QuerySet
from django.http import Http404, HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework import mixins, serializers, status, viewsets
from rest_framework.decorators import action
from rest_framework.parsers import MultiPartParser
from rest_framework.request import Request
from rest_framework.response import Response

from drafting.annotation.schedules import Schedule
from drafting.annotation.shape_edits import edited, symbol_of
from drafting.annotation.shapes import Shape
from drafting.annotation.symbols import dump_symbol
from drafting.annotation.table_files import MAX_BYTES
from drafting.annotation.tables import FreeTable, Table, free_table
from drafting.errors import SheetError
from drafting.plotting.files import file_name
from drafting.schema import parse
from server.annotations import offers, services
from server.annotations.known import Known
from server.annotations.listing import table_of
from server.annotations.models import Annotation, AnnotationStyle, LibrarySymbol, NoteOfList, TableFile
from server.annotations.serializers import (
    AnnotationSerializer,
    AnnotationStyleSerializer,
    ChangedShapesSerializer,
    InnerChainSerializer,
    LibrarySymbolSerializer,
    NamesSerializer,
    NewLevelSerializer,
    NewShapeSerializer,
    NewTagSerializer,
    NoteOfListSerializer,
    OuterChainSerializer,
    OuterChainsSerializer,
    OwnLevelsSerializer,
    OwnViewportField,
    ReadSymbolSerializer,
    SymbolFileSerializer,
    SymbolOfShapesSerializer,
    TableFileSerializer,
    TagsSerializer,
)
from server.common.responses import XLSX
from server.jobs.apart import run_apart
from server.projects.models import Project
from server.projects.roles import require
from server.projects.rows import ProjectRows, RowKind, RowViewSet, listed_by_project, row_viewset
from server.projects.serializers import OfOneProjectSerializer
from server.sheets.whole_set import WholeSet


def _shapes(specs: Sequence[Any]) -> list[Shape]:
    """Shapes that stand nowhere yet.

    Raises:
        SheetError: one has too few points, or nothing to be seen by.
    """
    shapes: list[Shape] = [parse(Shape, spec, "shape", SheetError) for spec in specs]
    for shape in shapes:
        shape.check(None)
    return shapes


def _rows() -> QuerySet[Annotation]:
    return Annotation.objects.select_related("project")


ANNOTATIONS = RowKind(AnnotationSerializer, services.annotation_service, _rows)
LISTED_NOTES = RowKind(NoteOfListSerializer, services.note_of_list_service, NoteOfList.objects.all)
ANNOTATION_STYLES = RowKind(
    AnnotationStyleSerializer, services.annotation_style_service, AnnotationStyle.objects.all
)
SYMBOLS = RowKind(
    LibrarySymbolSerializer, services.library_symbol_service, LibrarySymbol.objects.all, with_presets=True
)

NoteOfListViewSet = row_viewset(LISTED_NOTES, "The lists of notes of one's own projects.")
AnnotationStyleViewSet = row_viewset(ANNOTATION_STYLES, "Named styles of annotation of one's own projects.")


class ViewportQuerySerializer(serializers.Serializer[Any]):
    viewport = OwnViewportField()


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
        made = offers.outer_chains_of(**self._given(OuterChainsSerializer, request.data))
        return Response(OuterChainSerializer(made, many=True).data)

    @extend_schema(request=InnerChainSerializer, responses=OuterChainSerializer)
    @action(detail=False, methods=["post"], url_path="inner-chain")
    def inner_chain(self, request: Request) -> Response:
        """The chain along a line across a plan or a section; whoever asks keeps it if it is wanted."""
        given = self._given(InnerChainSerializer, request.data)
        start, end = tuple(given.pop("start")), tuple(given.pop("end"))
        made = offers.inner_chain_of(given["viewport"], start, end, given["figures"])
        return Response(OuterChainSerializer(made).data)

    @extend_schema(request=OwnLevelsSerializer, responses=NewLevelSerializer(many=True))
    @action(detail=False, methods=["post"])
    def levels(self, request: Request) -> Response:
        """The levels beside an elevation or a section; whoever asks keeps those that are wanted."""
        made = offers.levels_of(**self._given(OwnLevelsSerializer, request.data))
        return Response(NewLevelSerializer(made, many=True).data)

    @extend_schema(request=TagsSerializer, responses=NewTagSerializer(many=True))
    @action(detail=False, methods=["post"])
    def tags(self, request: Request) -> Response:
        """Tags of the elements of some classes in a viewport; whoever asks keeps those that are wanted."""
        given = self._given(TagsSerializer, request.data)
        viewport = given["viewport"]
        like = offers.tag_like(given["shows"], given["value"], viewport.scale_in_feet)
        return Response(NewTagSerializer(offers.tags_of(viewport, given["classes"], like), many=True).data)

    @extend_schema(
        parameters=[OpenApiParameter("viewport", OpenApiTypes.UUID, required=True)], responses=NamesSerializer
    )
    @action(detail=False, methods=["get"])
    def classes(self, request: Request) -> Response:
        """The classes of which a viewport shows elements."""
        given = self._given(ViewportQuerySerializer, request.query_params)
        return Response({"names": offers.classes_seen(given["viewport"])})

    @extend_schema(
        parameters=[OpenApiParameter("project", OpenApiTypes.UUID, required=True)], responses=NamesSerializer
    )
    @action(detail=False, methods=["get"])
    def sources(self, request: Request) -> Response:
        """The attributes, properties and quantities that a project's building has of its elements."""
        given = self._given(OfOneProjectSerializer, request.query_params)
        return Response({"names": services.element_sources(given["project"])})

    @extend_schema(request=ChangedShapesSerializer, responses=NewShapeSerializer(many=True))
    @action(detail=False, methods=["post"], url_path="edit-shapes")
    def edit_shapes(self, request: Request) -> Response:
        """Shapes mirrored, turned, offset, joined, broken, extended or repeated; whoever asks keeps them."""
        given = self._given(ChangedShapesSerializer, request.data)
        require(given.pop("project"), request.user, ["draw"])
        shapes = _shapes(given.pop("shapes"))
        edit = given.pop("edit")
        at, to = (tuple(given.pop(key, (0.0, 0.0))) for key in ("at", "to"))
        made = edited(shapes, edit, at=at, to=to, **given)
        return Response(NewShapeSerializer(made, many=True).data)

    @extend_schema(responses={(200, "text/csv"): OpenApiTypes.STR})
    @action(detail=True, methods=["get"], url_path="csv")
    def csv(self, request: Request, pk: str) -> HttpResponse:
        """What a table holds, as a file of values with commas."""
        table = self._table()
        answer = HttpResponse(content_type="text/csv; charset=utf-8")
        answer["Content-Disposition"] = f'attachment; filename="{file_name(table.title) or "table"}.csv"'
        # By this sign spreadsheets know that what follows is UTF-8.
        answer.write("\ufeff")
        rows = [table.captions, *table.rows] if table.captions else list(table.rows)
        csv.writer(answer).writerows(map(plain_cells, rows))
        return answer

    @extend_schema(responses={(200, XLSX): OpenApiTypes.BINARY})
    @action(detail=True, methods=["get"])
    def xlsx(self, request: Request, pk: str) -> HttpResponse:
        """What a table holds, as a workbook."""
        table = self._table()
        answer = HttpResponse(workbook_of(table), content_type=XLSX)
        answer["Content-Disposition"] = f'attachment; filename="{file_name(table.title) or "table"}.xlsx"'
        return answer

    def _given(self, form: type[serializers.Serializer[Any]], data: Any) -> dict[str, Any]:
        given = form(data=data, context=self.get_serializer_context())
        given.is_valid(raise_exception=True)
        return dict(given.validated_data)

    def _table(self) -> Table:
        row = self.get_object()
        piece = row.as_core
        if isinstance(piece, FreeTable):
            return free_table(piece)
        if not isinstance(piece, Schedule):
            raise Http404
        on_sheet = Annotation.objects.filter(sheet=row.sheet_id, spec__kind="numbered")
        of_views = Annotation.objects.filter(view__viewports__sheet=row.sheet_id, spec__kind="numbered")
        notes = [
            *on_sheet.values_list("spec__note", flat=True),
            *of_views.values_list("spec__note", flat=True),
        ]
        return table_of(piece, Known.of(row.project, WholeSet.of(row.project)), notes)


def workbook_of(table: Table) -> bytes:
    """A table as a workbook, its columns as wide as what is in them."""
    rows = [table.captions, *table.rows] if table.captions else list(table.rows)
    widths = [min(max(len(cell) for cell in column) + 3.0, 80.0) for column in zip(*rows, strict=True)]
    made: bytes = run_apart("drafting.workbooks:workbook", "Schedule", rows, widths)
    return made


def plain_cells(row: Sequence[str]) -> list[str]:
    """The cells of a row, none of which a spreadsheet takes for a formula."""
    return [f"'{cell}" if cell[:1] in ("=", "+", "-", "@") else cell for cell in row]


@listed_by_project
class LibrarySymbolViewSet(RowViewSet):
    """The symbols that are built in, and those of one's projects."""

    kind = SYMBOLS
    rows = staticmethod(LibrarySymbol.objects.all)
    with_presets = True
    queryset = LibrarySymbol.objects.none()

    @extend_schema(request=SymbolOfShapesSerializer, responses=ReadSymbolSerializer)
    @action(detail=False, methods=["post"], url_path="from-shapes")
    def from_shapes(self, request: Request) -> Response:
        """A symbol drawn like some shapes; whoever asks keeps it."""
        given = SymbolOfShapesSerializer(data=request.data, context=self.get_serializer_context())
        given.is_valid(raise_exception=True)
        require(given.validated_data["project"], request.user, ["draw"])
        shapes = _shapes(given.validated_data["shapes"])
        made = dump_symbol(symbol_of(shapes, given.validated_data["real"]))
        return Response(ReadSymbolSerializer({"name": given.validated_data["name"], "spec": made}).data)

    @extend_schema(
        request={"multipart/form-data": SymbolFileSerializer}, responses=ReadSymbolSerializer(many=True)
    )
    @action(detail=False, methods=["post"], parser_classes=[MultiPartParser])
    def read(self, request: Request) -> Response:
        """The symbols in an SVG or a DXF; whoever asks keeps those that are wanted."""
        given = SymbolFileSerializer(data=request.data, context=self.get_serializer_context())
        given.is_valid(raise_exception=True)
        require(given.validated_data["project"], request.user, ["draw"])
        upload = _small(given.validated_data["upload"])
        found = services.symbols_from_file(upload.read(), upload.name)
        return Response(ReadSymbolSerializer(found, many=True).data)


@listed_by_project
class TableFileViewSet(
    ProjectRows, mixins.RetrieveModelMixin, mixins.ListModelMixin, viewsets.GenericViewSet[TableFile]
):
    """Files that tables take their cells from. One that comes again takes the place of that of its name."""

    serializer_class = TableFileSerializer
    queryset = TableFile.objects.none()
    parser_classes = [MultiPartParser]
    rows = TableFile.objects.all

    def create(self, request: Request) -> Response:
        """Bring in a CSV or the first sheet of an XLSX."""
        given = self.get_serializer(data=request.data)
        given.is_valid(raise_exception=True)
        project: Project = given.validated_data["project"]
        upload = _small(given.validated_data["upload"])
        row = services.add_table_file(project, upload.name, upload.read())
        return Response(self.get_serializer(row).data, status=status.HTTP_201_CREATED)


def _small(upload: Any) -> Any:
    if upload.size > MAX_BYTES:
        raise SheetError(
            f"“{upload.name}” has {upload.size / 1e6:.0f} MB; at most {MAX_BYTES / 1e6:.0f} MB are taken. "
            "Save what is needed in a file of its own."
        )
    return upload
