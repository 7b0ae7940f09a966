"""Viewports and scales as they are received and sent."""

from __future__ import annotations

from typing import Any

from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from drafting.schema import dump
from drafting.shading.appearance import Appearance
from drafting.shading.window import Window
from drafting.sheets.scale import Scale
from drafting.sheets.viewport import SHAPES, TITLE_STYLES
from drafting.styles.pen_table import PenChanges
from server.common.serializers import RowSerializer
from server.common.shapes import AppearanceField, ShapeField
from server.projects.models import Project
from server.sheets.models import ShadedPicture, Sheet, TracedShadow, Viewport
from server.views.drawings import state_of
from server.views.models import STATES, View
from server.views.serializers import AxesSerializer, shown_field

#: Beyond these a figure is none that a viewport could have, and none that the database could hold.
MAX_PLACE, MAX_REAL = 1e5, 1e12


class ScaleField(serializers.CharField):
    """A true scale as the trade writes it, such as 1:50; kept exact."""

    def to_internal_value(self, data: Any) -> Any:
        if not isinstance(data, str) or len(data) > 60:
            raise serializers.ValidationError(f"“{str(data)[:60]}” is not a scale. Write it as 1:50.")
        scale = Scale.parse(data)
        if max(scale.ratio.numerator, scale.ratio.denominator) >= 2**62:
            raise serializers.ValidationError(f"“{data}” has more figures than a scale can have.")
        return scale

    def to_representation(self, value: Any) -> str:
        return str(value)


@extend_schema_field(OpenApiTypes.UUID)
class OwnSheetField(serializers.PrimaryKeyRelatedField[Sheet]):
    def get_queryset(self) -> Any:
        return Sheet.objects.filter(project__in=Project.of(self.context["request"].user)).select_related(
            "project", "template"
        )


@extend_schema_field(OpenApiTypes.UUID)
class OwnViewField(serializers.PrimaryKeyRelatedField[View]):
    def get_queryset(self) -> Any:
        own = Project.of(self.context["request"].user)
        return View.objects.filter(project__in=own).select_related("linework", "subset", "project")


class PensField(ShapeField):
    """How the pens of a viewport differ, by line role and by layer."""

    def to_internal_value(self, data: Any) -> Any:
        pens = super().to_internal_value(data)
        return {kind: changes for kind, changes in pens.items() if changes}

    def to_representation(self, value: Any) -> Any:
        return {**dump(PenChanges()), **value}


class ShadedPictureSerializer(serializers.ModelSerializer[ShadedPicture]):
    """A picture for the screen."""

    window = ShapeField(Window, "window", read_only=True)

    class Meta:
        model = ShadedPicture
        fields = ["key", "window", "notes"]


def _place(what: str, bound: float = MAX_PLACE) -> Any:
    return serializers.FloatField(required=False, min_value=-bound, max_value=bound, help_text=what)


def _offset() -> Any:
    """How far something was moved by hand from where it stands by itself."""
    figure = serializers.FloatField(min_value=-3000, max_value=3000)
    return serializers.ListField(
        child=figure, min_length=2, max_length=2, required=False, help_text="Paper mm."
    )


class ViewportSerializer(RowSerializer):
    """A viewport. A new one needs its sheet and view, and either all of its geometry or a point to be placed
    at."""

    sheet = OwnSheetField()
    view = OwnViewField()
    position = serializers.IntegerField(min_value=0, max_value=1_000_000, required=False)
    x = _place("Left of the frame, paper mm.")
    y = _place("Bottom of the frame, paper mm.")
    width = _place("Paper mm.")
    height = _place("Paper mm.")
    centre_u = _place("What lies in the middle of the frame, real mm.", MAX_REAL)
    centre_v = _place("What lies in the middle of the frame, real mm.", MAX_REAL)
    shape = serializers.ChoiceField(choices=SHAPES, required=False)
    corners = serializers.ListField(
        child=serializers.ListField(child=serializers.FloatField(), min_length=2, max_length=2),
        required=False,
        max_length=400,
        help_text="Of a polygon: x and y of each corner, paper mm from the lower left of its box.",
    )  # fmt: skip
    turn = _place("Of its contents, degrees anticlockwise.")
    title_offset = _offset()
    mark_offsets = serializers.DictField(
        child=serializers.ListField(child=_offset(), max_length=2), required=False,
        help_text="By the marked view: by how much each bubble of its mark was moved by hand; paper mm.",
    )  # fmt: skip
    room_offsets = serializers.DictField(
        child=_offset(), required=False,
        help_text="By the id of a room: by how much its name was moved by hand; paper mm.",
    )  # fmt: skip
    title_style = serializers.ChoiceField(choices=TITLE_STYLES, required=False)
    shown = shown_field(help_text="What it shows otherwise than its view does.")
    pens = PensField(PenChanges, "viewport's pens", required=False)
    appearance = AppearanceField(
        Appearance,
        "viewport's appearance",
        required=False,
        allow_null=True,
        help_text="Null for as its view.",
    )
    picture = ShadedPictureSerializer(source="shaded", read_only=True, allow_null=True)
    areas: serializers.SlugRelatedField[TracedShadow] = serializers.SlugRelatedField(
        source="traced", slug_field="key", read_only=True, allow_null=True,
        help_text="The key of its areas of shadow; null where there are none yet.",
    )  # fmt: skip
    wanted_areas = serializers.CharField(read_only=True, help_text="The key of those that it asks for now.")
    wanted_picture = serializers.CharField(
        read_only=True, help_text="The key of the picture that is asked for now; blank for none."
    )
    scale = ScaleField(required=False)
    linework = serializers.CharField(source="drawn.linework_id", read_only=True, allow_null=True)
    wanted = serializers.SerializerMethodField()
    extents = serializers.ListField(
        source="drawn.linework.extents",
        child=serializers.FloatField(),
        read_only=True,
        default=None,
        allow_null=True,
    )
    axes = AxesSerializer(source="drawn.linework.axes", read_only=True, default=None, allow_null=True)
    state = serializers.SerializerMethodField()
    ratio = serializers.SerializerMethodField()
    at = serializers.ListField(
        child=serializers.FloatField(min_value=-MAX_PLACE, max_value=MAX_PLACE), min_length=2, max_length=2,
        write_only=True, required=False,
        help_text="Place the view about this point of the sheet, paper mm, at the largest scale that fits.",
    )  # fmt: skip

    class Meta:
        model = Viewport
        fixed = ("sheet",)
        fields = [
            "id", "sheet", "view", "position", "x", "y", "width", "height", "shape", "corners",
            "centre_u", "centre_v", "turn", "scale", "ratio", "pinned", "framed", "opaque",
            "marks", "levels", "grid", "rooms", "room_fill", "annotation",
            "title_style", "title_offset", "mark_offsets", "room_offsets",
            "pen_table", "pens", "shown", "appearance", "picture", "wanted_picture", "areas",
            "wanted_areas",
            "linework", "wanted", "extents", "axes", "state", "at", "version",
        ]  # fmt: skip

    def validate(self, given: dict[str, Any]) -> dict[str, Any]:
        given = super().validate(given)
        if self.instance is not None:
            given.pop("at", None)
        return given

    @extend_schema_field(serializers.ChoiceField(choices=STATES))
    def get_state(self, viewport: Viewport) -> str:
        """How the drawing that is seen stands."""
        return state_of(viewport.drawn, viewport.view)

    @extend_schema_field(serializers.CharField())
    def get_wanted(self, viewport: Viewport) -> str:
        """The key of the drawing that is asked for now."""
        return viewport.wanted if viewport.shown else viewport.view.wanted

    def get_ratio(self, viewport: Viewport) -> float:
        """Paper mm for one real mm."""
        return float(viewport.scale.ratio)


LADDERS = ("custom", "metric", "feet")


class RungSerializer(serializers.Serializer[Any]):
    scale = serializers.CharField()
    ratio = serializers.FloatField(help_text="Paper mm for one real mm.")
    ladder = serializers.ChoiceField(choices=LADDERS)


class ArrangedSerializer(serializers.Serializer[Any]):
    """A set that was laid out, and what there is to know of it."""

    viewports = ViewportSerializer(many=True)
    notes = serializers.ListField(
        child=serializers.CharField(), help_text="About views that the projection has no place for."
    )
