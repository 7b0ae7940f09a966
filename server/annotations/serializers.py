"""Annotation as it is received and sent."""

from __future__ import annotations

from typing import Any

from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from drafting.annotation.dimensions import STYLE_NAMES, Dimension
from drafting.annotation.outer_chains import SIDES
from drafting.annotation.pieces import AnyPiece
from drafting.annotation.tags import TAG_WORDS, Tag
from drafting.errors import SheetError
from server.annotations.models import Annotation
from server.common.serializers import RowSerializer
from server.common.shapes import ShapeField, ShapeSerializer
from server.projects.models import Project
from server.projects.serializers import OwnProjectField
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
    spec = ShapeField(AnyPiece, "annotation", SheetError, "AnnotationSpec")

    class Meta:
        model = Annotation
        fields = ["id", "project", "view", "sheet", "viewport", "position", "spec", "version"]


class OuterChainsSerializer(serializers.Serializer[Any]):
    """A viewport of a plan that is to be dimensioned outside, and how."""

    viewport = OwnViewportField()
    sides = serializers.MultipleChoiceField(choices=SIDES, allow_empty=False)
    figures = serializers.ChoiceField(choices=STYLE_NAMES, default=STYLE_NAMES[0])


class OuterChainSerializer(ShapeSerializer):
    """A dimension that stands nowhere yet, with the series by which it is found again."""

    shape = Dimension


class TagsSerializer(serializers.Serializer[Any]):
    """A viewport whose doors or windows are to be tagged, and what tags say."""

    viewport = OwnViewportField()
    of = serializers.MultipleChoiceField(choices=("doors", "windows"), allow_empty=False)
    shows = serializers.ChoiceField(choices=TAG_WORDS, default=TAG_WORDS[0])


class NewTagSerializer(ShapeSerializer):
    """A tag that stands nowhere yet."""

    shape = Tag
