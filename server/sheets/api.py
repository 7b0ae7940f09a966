"""The API of sheets and viewports."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from django.db.models import QuerySet
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema, extend_schema_field
from rest_framework import serializers, status, viewsets
from rest_framework.decorators import action
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from drafting.sheets.paper import ORIENTATIONS, SIZES, Paper
from drafting.sheets.placing import free_area
from drafting.sheets.scale import LADDER, Scale
from server.config.versioned import VersionedSerializer
from server.jobs.api import JobSerializer
from server.projects.api import OfOwnProjects, OwnProjectField, listed_by_project
from server.projects.models import Project
from server.sheets import services
from server.sheets.display_schema import DisplayListSerializer
from server.sheets.models import Sheet, Viewport
from server.views.models import View


class ScaleField(serializers.CharField):
    """A true scale as the trade writes it, such as 1:50; kept exact."""

    def to_internal_value(self, data: Any) -> Scale:
        if not isinstance(data, str):
            raise serializers.ValidationError(f"“{data}” is not a scale. Write it as 1:50.")
        return Scale.parse(data)

    def to_representation(self, value: Scale) -> str:
        return str(value)


class SheetSerializer(VersionedSerializer):
    id = serializers.UUIDField(required=False)
    project = OwnProjectField()
    number = serializers.CharField(max_length=40, required=False)
    paper = serializers.ChoiceField(choices=list(SIZES), required=False)
    orientation = serializers.ChoiceField(choices=ORIENTATIONS, required=False)
    position = serializers.IntegerField(min_value=0, required=False)
    free_area = serializers.SerializerMethodField()

    class Meta:
        model = Sheet
        fields = [
            "id", "project", "position", "paper", "orientation", "number", "title", "supplementary_title", "revision",
            "date", "creator", "approver", "document_type", "status", "free_area", "version",
        ]  # fmt: skip

    def validate(self, given: dict[str, Any]) -> dict[str, Any]:
        if self.instance is not None:
            given.pop("id", None)
            if given.get("project", self.instance.project) != self.instance.project:
                raise serializers.ValidationError({"project": "A sheet stays in its project."})
            paper = Paper.of(
                given.get("paper", self.instance.paper), given.get("orientation", self.instance.orientation)
            )
            for viewport in self.instance.viewports.all():
                services.check_geometry(paper, {n: getattr(viewport, n) for n in services.GEOMETRY})
        elif "id" in given and Sheet.objects.filter(pk=given["id"]).exists():
            raise serializers.ValidationError({"id": "There is a sheet with this id already."})
        return given

    @extend_schema_field(serializers.ListField(child=serializers.FloatField()))
    def get_free_area(self, sheet: Sheet) -> list[float]:
        """Left, bottom, width and height of the space that drawings have to themselves, paper mm."""
        free = free_area(sheet.as_paper)
        return [free.x, free.y, free.width, free.height]

    def create(self, given: dict[str, Any]) -> Sheet:
        with transaction.atomic():
            project = given["project"]
            given.setdefault("number", services.next_number(project))
            given.setdefault("position", services.next_position(Sheet.objects.filter(project=project)))
            return super().create(given)


@extend_schema_field(OpenApiTypes.UUID)
class OwnSheetField(serializers.PrimaryKeyRelatedField):
    def get_queryset(self) -> QuerySet[Sheet]:
        return Sheet.objects.filter(project__in=Project.of(self.context["request"].user))


@extend_schema_field(OpenApiTypes.UUID)
class OwnViewField(serializers.PrimaryKeyRelatedField):
    def get_queryset(self) -> QuerySet[View]:
        return View.objects.filter(project__in=Project.of(self.context["request"].user)).select_related("linework")


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
    scale = ScaleField(required=False)
    ratio = serializers.SerializerMethodField()
    at = serializers.ListField(
        child=serializers.FloatField(), min_length=2, max_length=2, write_only=True, required=False,
        help_text="Place the view about this point of the sheet, paper mm, at the largest scale that fits.",
    )  # fmt: skip

    class Meta:
        model = Viewport
        fields = [
            "id", "sheet", "view", "position", "x", "y", "width", "height", "centre_u", "centre_v", "scale", "ratio",
            "at", "version",
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
        else:
            given.pop("id", None)
            given.pop("at", None)
        geometry = {n: given[n] if n in given else getattr(old, n) for n in services.GEOMETRY}
        services.check_geometry(sheet.as_paper, geometry)
        return given

    def get_ratio(self, viewport: Viewport) -> float:
        """Paper mm for one real mm."""
        return float(viewport.scale.ratio)

    def create(self, given: dict[str, Any]) -> Viewport:
        given.setdefault("position", services.next_position(Viewport.objects.filter(sheet=given["sheet"])))
        return super().create(given)


class PlotSerializer(serializers.Serializer):
    project = OwnProjectField()
    sheets = serializers.ListField(
        child=serializers.UUIDField(), required=False, help_text="Which sheets; all where none are named."
    )


@listed_by_project
class SheetViewSet(OfOwnProjects, viewsets.ModelViewSet):
    """Sheets of one's own projects, in register order."""

    serializer_class = SheetSerializer
    queryset = Sheet.objects.none()
    http_method_names = ["get", "post", "patch", "delete", "head", "options"]
    rows = Sheet.objects.select_related("project")

    @extend_schema(responses=DisplayListSerializer)
    @action(detail=True, methods=["get"])
    def display(self, request: Request, pk: str) -> Response:
        """The display list of a sheet: what the board and every output draw from."""
        return Response(services.display_of(self.get_object()).as_dict())

    @extend_schema(request=PlotSerializer, responses={202: JobSerializer})
    @action(detail=False, methods=["post"])
    def plot(self, request: Request) -> Response:
        """Plot sheets as one PDF, in the background."""
        given = PlotSerializer(data=request.data, context={"request": request})
        given.is_valid(raise_exception=True)
        project, wanted = given.validated_data["project"], given.validated_data.get("sheets")
        sheets = Sheet.objects.filter(project=project)
        job = services.order_plot(project, list(sheets.filter(pk__in=wanted) if wanted else sheets))
        job.refresh_from_db()
        return Response(JobSerializer(job).data, status=status.HTTP_202_ACCEPTED)


@listed_by_project
class ViewportViewSet(OfOwnProjects, viewsets.ModelViewSet):
    """Viewports on the sheets of one's own projects."""

    serializer_class = ViewportSerializer
    queryset = Viewport.objects.none()
    http_method_names = ["get", "post", "patch", "delete", "head", "options"]
    to_project = "sheet__project"
    rows = Viewport.objects.select_related("sheet", "view")


class RungSerializer(serializers.Serializer):
    scale = serializers.CharField()
    ratio = serializers.FloatField(help_text="Paper mm for one real mm.")


class LadderView(APIView):
    """The standard scales, the largest first."""

    @extend_schema(responses=RungSerializer(many=True))
    def get(self, request: Request) -> Response:
        return Response([{"scale": str(s), "ratio": float(s.ratio)} for s in LADDER])
