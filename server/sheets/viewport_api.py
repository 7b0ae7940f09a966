"""The API of viewports, and of the scales that they are chosen from."""

from __future__ import annotations

from typing import Any

from django.db.models import QuerySet
from django.shortcuts import get_object_or_404
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema, extend_schema_field
from rest_framework import serializers, viewsets
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from drafting.errors import SheetError
from drafting.sheets.scale import FEET_LADDER, LADDER, Scale
from drafting.sheets.viewport import SHAPES, TITLES, PenChanges, check_on_paper, check_viewport
from server.buildings.models import newest_version
from server.config.versioned import VersionedSerializer
from server.pens.services import check_pen_table
from server.projects.api import OfOwnProjects, listed_by_project
from server.projects.models import Project
from server.sheets import services
from server.sheets.models import Sheet, Viewport
from server.views import services as view_services
from server.views.api import AxesSerializer, ShownSerializer
from server.views.models import STATES, View


class ScaleField(serializers.CharField):
    """A true scale as the trade writes it, such as 1:50; kept exact."""

    def to_internal_value(self, data: Any) -> Scale:
        if not isinstance(data, str):
            raise serializers.ValidationError(f"“{data}” is not a scale. Write it as 1:50.")
        return Scale.parse(data)

    def to_representation(self, value: Scale) -> str:
        return str(value)


@extend_schema_field(OpenApiTypes.STR)
class PenTableKeyField(serializers.CharField):
    """A pen table by a shipped one's key or by its id; blank for that of what it is on."""

    def __init__(self) -> None:
        super().__init__(max_length=36, required=False, allow_blank=True)


@extend_schema_field(OpenApiTypes.UUID)
class OwnSheetField(serializers.PrimaryKeyRelatedField):
    def get_queryset(self) -> QuerySet[Sheet]:
        return Sheet.objects.filter(project__in=Project.of(self.context["request"].user))


@extend_schema_field(OpenApiTypes.UUID)
class OwnViewField(serializers.PrimaryKeyRelatedField):
    def get_queryset(self) -> QuerySet[View]:
        return View.objects.filter(project__in=Project.of(self.context["request"].user)).select_related("linework")


class PenChangeField(serializers.Serializer):
    width = serializers.FloatField(required=False, allow_null=True, help_text="Paper mm.")
    colour = serializers.CharField(required=False, allow_null=True, help_text="Such as #1b1f24.")


class PensSerializer(serializers.Serializer):
    """How the pens of a viewport differ, by line role and by layer."""

    roles = serializers.DictField(child=PenChangeField(), required=False)
    layers = serializers.DictField(child=PenChangeField(), required=False)

    def to_internal_value(self, data: Any) -> dict[str, Any]:
        given = super().to_internal_value(data)
        PenChanges.from_dict(given)
        return {kind: {name: dict(pen) for name, pen in pens.items()} for kind, pens in given.items() if pens}

    def to_representation(self, kept: dict[str, Any]) -> dict[str, Any]:
        return kept


#: What makes up the look of a viewport beside its geometry, and what of it a pin holds.
SHAPING = ("shape", "corners", "turn", "pens")
PINNED = (*services.GEOMETRY, "shape", "corners", "turn", "scale", "view")


def _held_by_pin(viewport: Viewport) -> dict[str, Any]:
    return {name: getattr(viewport, name) for name in PINNED}


def _shift() -> Any:
    """How far something was moved by hand from where it stands by itself."""
    figure = serializers.FloatField(min_value=-3000, max_value=3000)
    return serializers.ListField(child=figure, min_length=2, max_length=2, required=False, help_text="Paper mm.")


class ViewportSerializer(VersionedSerializer):
    """A viewport. A new one needs its sheet and view, and either all of its geometry or a point to be placed at."""

    id = serializers.UUIDField(required=False)
    sheet = OwnSheetField()
    view = OwnViewField()
    position = serializers.IntegerField(min_value=0, required=False)
    x = serializers.FloatField(required=False, help_text="Left of the frame, paper mm.")
    y = serializers.FloatField(required=False, help_text="Bottom of the frame, paper mm.")
    width = serializers.FloatField(required=False, help_text="Paper mm.")
    height = serializers.FloatField(required=False, help_text="Paper mm.")
    centre_u = serializers.FloatField(required=False, help_text="What lies in the middle of the frame, real mm.")
    centre_v = serializers.FloatField(required=False, help_text="What lies in the middle of the frame, real mm.")
    shape = serializers.ChoiceField(choices=SHAPES, required=False)
    corners = serializers.ListField(
        child=serializers.ListField(child=serializers.FloatField(), min_length=2, max_length=2), required=False,
        help_text="Of a polygon: x and y of each corner, paper mm from the lower left of its box.",
    )  # fmt: skip
    turn = serializers.FloatField(required=False, help_text="Of its contents, degrees anticlockwise.")
    title_by = _shift()
    moved_marks = serializers.DictField(
        child=serializers.ListField(child=_shift(), max_length=2), required=False,
        help_text="By the view that is marked: by how much each bubble of its mark was moved by hand; paper mm.",
    )  # fmt: skip
    title_style = serializers.ChoiceField(choices=TITLES, required=False)
    shown = ShownSerializer(required=False, help_text="What it shows otherwise than its view does.")
    pen_table = PenTableKeyField()
    pens = PensSerializer(required=False)
    scale = ScaleField(required=False)
    linework = serializers.CharField(source="linework.key", read_only=True, default=None, allow_null=True)
    extents = serializers.ListField(
        source="linework.extents", child=serializers.FloatField(), read_only=True, default=None, allow_null=True
    )
    axes = AxesSerializer(source="linework.axes", read_only=True, default=None, allow_null=True)
    state = serializers.SerializerMethodField()
    ratio = serializers.SerializerMethodField()
    at = serializers.ListField(
        child=serializers.FloatField(), min_length=2, max_length=2, write_only=True, required=False,
        help_text="Place the view about this point of the sheet, paper mm, at the largest scale that fits.",
    )  # fmt: skip

    class Meta:
        model = Viewport
        fields = [
            "id", "sheet", "view", "position", "x", "y", "width", "height", "shape", "corners", "centre_u", "centre_v",
            "turn", "scale", "ratio", "pinned", "framed", "opaque", "marks", "levels", "grid", "title_style",
            "title_by", "moved_marks", "pen_table", "pens", "shown",
            "linework", "extents", "axes",
            "state", "at", "version",
        ]  # fmt: skip

    def validate(self, given: dict[str, Any]) -> dict[str, Any]:
        old = self.instance
        sheet, view = (given.get(n) or getattr(old, n) for n in ("sheet", "view"))
        if sheet.project_id != view.project_id:
            raise serializers.ValidationError({"view": "A view is placed on sheets of its own project."})
        if old is None:
            if "id" in given and Viewport.objects.filter(pk=given["id"]).exists():
                raise serializers.ValidationError({"id": "There is a viewport with this id already."})
            given.update(services.geometry_for(view, sheet, given))
        elif (
            old.pinned and given.get("pinned", True) and any(given.get(n, v) != v for n, v in _held_by_pin(old).items())
        ):
            raise SheetError("This viewport is pinned. Unpin it to change what it frames.")
        check_pen_table(sheet.project, given.get("pen_table", ""))
        row = old or Viewport(view=view)
        wanted = Viewport(**{n: given.get(n, getattr(row, n)) for n in (*services.GEOMETRY, *SHAPING)})
        wanted.view, wanted.scale = view, given.get("scale") or row.scale
        viewport = services.as_core(wanted, 1)
        check_viewport(viewport)
        if old is None or any(name in given for name in services.GEOMETRY):
            check_on_paper(viewport.box, sheet.as_paper)
        if given.get("shown"):
            view_services.spec_through(view, given["shown"])
        return given

    @extend_schema_field(serializers.ChoiceField(choices=STATES))
    def get_state(self, viewport: Viewport) -> str:
        """How the drawing that is seen stands to the model's newest version."""
        newest = self.context.setdefault("newest", {})
        project = viewport.view.project
        if project.pk not in newest:
            newest[project.pk] = newest_version(project)
        return view_services.state_through(viewport, newest[project.pk])

    def get_ratio(self, viewport: Viewport) -> float:
        """Paper mm for one real mm."""
        return float(viewport.scale.ratio)

    def create(self, given: dict[str, Any]) -> Viewport:
        given.setdefault("position", services.next_position(Viewport.objects.filter(sheet=given["sheet"])))
        return self._kept(super().create(given))

    def update(self, viewport: Viewport, given: dict[str, Any]) -> Viewport:
        for name in ("id", "at"):
            given.pop(name, None)
        before = viewport.shown, viewport.view_id
        return self._kept(super().update(viewport, given), before)

    def _kept(self, viewport: Viewport, before: tuple[dict[str, Any], Any] = ({}, None)) -> Viewport:
        """What follows from a viewport's having been written: its scale is kept, and its own drawing ordered."""
        services.keep_scale(viewport)
        if not viewport.shown:
            Viewport.objects.filter(pk=viewport.pk).update(own_linework=None, own_drawn_from=None)
        elif (viewport.shown, viewport.view_id) != before and newest_version(viewport.view.project):
            view_services.order_own_drawing(viewport)
        return Viewport.objects.select_related("sheet", "view__linework", "own_linework").get(pk=viewport.pk)


@listed_by_project
class ViewportViewSet(OfOwnProjects, viewsets.ModelViewSet):
    """Viewports on the sheets of one's own projects."""

    serializer_class = ViewportSerializer
    queryset = Viewport.objects.none()
    http_method_names = ["get", "post", "patch", "delete", "head", "options"]
    to_project = "sheet__project"
    rows = Viewport.objects.select_related("sheet__project", "view__linework", "view__project", "own_linework")


LADDERS = ("own", "metric", "feet")


class RungSerializer(serializers.Serializer):
    scale = serializers.CharField()
    ratio = serializers.FloatField(help_text="Paper mm for one real mm.")
    ladder = serializers.ChoiceField(choices=LADDERS)


class LadderView(APIView):
    """The standard scales, the largest first; before them those that a project has of its own."""

    @extend_schema(
        parameters=[OpenApiParameter("project", OpenApiTypes.UUID, required=False)],
        responses=RungSerializer(many=True),
    )
    def get(self, request: Request) -> Response:
        asked = request.query_params.get("project")
        project = get_object_or_404(Project.of(request.user), pk=asked) if asked else None
        own = sorted(map(Scale.parse, project.own_scales), reverse=True) if project else []
        ladders = zip(LADDERS, (own, LADDER, FEET_LADDER), strict=True)
        return Response(
            [{"scale": str(s), "ratio": float(s.ratio), "ladder": name} for name, scales in ladders for s in scales]
        )
