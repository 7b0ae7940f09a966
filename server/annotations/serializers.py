"""Annotation as it is received and sent."""

from __future__ import annotations

from typing import Any

from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from drafting.annotation.dimensions import STYLE_NAMES, Dimension
from drafting.annotation.numbered_notes import MAX_NUMBER, MAX_TEXT
from drafting.annotation.outer_chains import SIDES
from drafting.annotation.own_levels import BESIDE, LEVELLED
from drafting.annotation.pieces import AnyPiece
from drafting.annotation.shape_edits import EDITS
from drafting.annotation.shapes import Shape
from drafting.annotation.spot_levels import SpotLevel
from drafting.annotation.styles import AnyStyle
from drafting.annotation.symbols import SymbolSpec
from drafting.annotation.tags import TAG_WORDS, Tag
from drafting.errors import SheetError
from server.annotations.models import Annotation, AnnotationStyle, LibrarySymbol, NoteOfList, TableFile
from server.common.serializers import RowSerializer
from server.common.shapes import ShapeField, ShapeSerializer
from server.projects.models import Project
from server.projects.serializers import NamedRowSerializer, OwnProjectField
from server.sheets.models import Viewport
from server.sheets.viewport_serializers import OwnSheetField, OwnViewField


@extend_schema_field(OpenApiTypes.UUID)
class OwnViewportField(serializers.PrimaryKeyRelatedField[Viewport]):
    def get_queryset(self) -> Any:
        own = Project.of(self.context["request"].user)
        return Viewport.objects.filter(sheet__project__in=own).select_related(
            "sheet", "linework", "view__linework"
        )


class AnnotationSerializer(RowSerializer):
    """A piece of annotation: in a view, or on a sheet, there through a viewport or on the bare paper."""

    project = OwnProjectField()
    view = OwnViewField(required=False, allow_null=True)
    sheet = OwnSheetField(required=False, allow_null=True)
    viewport = OwnViewportField(required=False, allow_null=True)
    position = serializers.IntegerField(min_value=0, max_value=1_000_000, required=False)
    group = serializers.CharField(max_length=40, required=False, allow_blank=True)
    spec = ShapeField(AnyPiece, "annotation", SheetError, "AnnotationSpec")

    class Meta:
        model = Annotation
        fields = ["id", "project", "view", "sheet", "viewport", "position", "group", "spec", "version"]


class NoteOfListSerializer(RowSerializer):
    """A note of a project's list."""

    project = OwnProjectField()
    number = serializers.CharField(
        max_length=MAX_NUMBER,
        error_messages={"blank": "A note has a number. Give it one.",
                        "max_length": "A number has at most {max_length} letters."},
    )  # fmt: skip
    text = serializers.CharField(max_length=MAX_TEXT, required=False, allow_blank=True)

    class Meta:
        model = NoteOfList
        fields = ["id", "project", "number", "text", "version"]


class AnnotationStyleSerializer(RowSerializer):
    """A named style of words or of dimensions."""

    project = OwnProjectField()
    spec = ShapeField(AnyStyle, "style", SheetError, "AnnotationStyleSpec")

    class Meta:
        model = AnnotationStyle
        fields = ["id", "project", "name", "spec", "version"]


class LibrarySymbolSerializer(NamedRowSerializer):
    """A symbol that is built in, or of a project's library."""

    spec = ShapeField(SymbolSpec, "symbol", SheetError)

    class Meta:
        model = LibrarySymbol
        fields = ["id", "project", "name", "spec", "built_in", "version"]


class TableFileSerializer(serializers.ModelSerializer[TableFile]):
    """A file that tables take their cells from."""

    project = OwnProjectField()
    upload = serializers.FileField(write_only=True)
    hash = serializers.CharField(source="file", read_only=True)
    cells = serializers.ListField(
        child=serializers.ListField(child=serializers.CharField(allow_blank=True)), read_only=True
    )

    class Meta:
        model = TableFile
        fields = ["id", "project", "name", "upload", "hash", "cells", "changed"]
        read_only_fields = ["id", "name"]


class SymbolFileSerializer(serializers.Serializer[Any]):
    """An SVG or a DXF that symbols are to be made from."""

    project = OwnProjectField()
    upload = serializers.FileField(write_only=True)


class SymbolOfShapesSerializer(serializers.Serializer[Any]):
    """Shapes that a symbol is to be drawn like, and whether their lengths are those of the building."""

    project = OwnProjectField()
    name = serializers.CharField(max_length=100)
    shapes = serializers.ListField(child=ShapeField(Shape, "shape", SheetError), min_length=1, max_length=200)
    real = serializers.BooleanField(default=False)


class ReadSymbolSerializer(serializers.Serializer[Any]):
    """A symbol that was found in a file, and is kept nowhere yet."""

    name = serializers.CharField()
    spec = ShapeField(SymbolSpec, "symbol", SheetError)


class OuterChainsSerializer(serializers.Serializer[Any]):
    """A viewport of a plan that is to be dimensioned outside, and how."""

    viewport = OwnViewportField()
    sides = serializers.MultipleChoiceField(choices=SIDES, allow_empty=False)
    figures = serializers.ChoiceField(choices=STYLE_NAMES, default=STYLE_NAMES[0])


class InnerChainSerializer(serializers.Serializer[Any]):
    """A line across what is seen through a viewport, along which walls are to be dimensioned."""

    viewport = OwnViewportField()
    start = serializers.ListField(child=serializers.FloatField(), min_length=2, max_length=2)
    end = serializers.ListField(child=serializers.FloatField(), min_length=2, max_length=2)
    figures = serializers.ChoiceField(choices=STYLE_NAMES, default=STYLE_NAMES[0])


class OuterChainSerializer(ShapeSerializer):
    """A dimension that stands nowhere yet, with the series by which it is found again."""

    shape = Dimension


class OwnLevelsSerializer(serializers.Serializer[Any]):
    """A viewport beside which levels are to be set, of what, and on which side."""

    viewport = OwnViewportField()
    wanted = serializers.MultipleChoiceField(choices=LEVELLED, allow_empty=False)
    side = serializers.ChoiceField(choices=BESIDE, default="right")


class NewLevelSerializer(ShapeSerializer):
    """A spot level that stands nowhere yet, with the series by which it is found again."""

    shape = SpotLevel


class TagsSerializer(serializers.Serializer[Any]):
    """A viewport whose elements of some classes are to be tagged, and what tags say."""

    viewport = OwnViewportField()
    classes = serializers.ListField(child=serializers.CharField(max_length=80), min_length=1, max_length=200)
    shows = serializers.ChoiceField(choices=TAG_WORDS, default=TAG_WORDS[0])
    value = serializers.CharField(max_length=200, default="", allow_blank=True)


class NewTagSerializer(ShapeSerializer):
    """A tag that stands nowhere yet."""

    shape = Tag


class ChangedShapesSerializer(serializers.Serializer[Any]):
    """Shapes, and what is to be done to them."""

    project = OwnProjectField()
    shapes = serializers.ListField(child=ShapeField(Shape, "shape", SheetError), min_length=1, max_length=200)
    edit = serializers.ChoiceField(choices=EDITS)
    at = serializers.ListField(child=serializers.FloatField(), min_length=2, max_length=2, required=False)
    to = serializers.ListField(child=serializers.FloatField(), min_length=2, max_length=2, required=False)
    by = serializers.FloatField(required=False, min_value=-1e7, max_value=1e7)
    count = serializers.IntegerField(required=False, min_value=1, max_value=200)


class NewShapeSerializer(ShapeSerializer):
    """A shape that stands nowhere yet."""

    shape = Shape


class NamesSerializer(serializers.Serializer[Any]):
    """Names, for a choice."""

    names = serializers.ListField(child=serializers.CharField())
