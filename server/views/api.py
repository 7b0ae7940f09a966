"""The API of views and their linework."""

from __future__ import annotations

from typing import Any

from django.db.models import Prefetch, Q, QuerySet
from django.http import Http404
from django.http.response import HttpResponseBase
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema, extend_schema_field
from rest_framework import serializers, status, viewsets
from rest_framework.decorators import action
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from drafting.views.spec import KINDS, ViewSpec
from drafting.views.treatment import Treatment
from server.buildings.models import ModelVersion, newest_version
from server.config.kept_file import kept_file
from server.config.versioned import VersionedSerializer
from server.jobs.api import JobSerializer
from server.projects.api import OfOwnProjects, OwnProjectField, listed_by_project
from server.projects.models import Project
from server.sheets.models import Viewport
from server.views import services
from server.views.models import STATES, Linework, NamedTreatment, Subset, View


def _figure(help_text: str) -> Any:
    return serializers.FloatField(required=False, allow_null=True, help_text=help_text)


def _figures(help_text: str) -> Any:
    return serializers.ListField(child=serializers.FloatField(), required=False, max_length=400, help_text=help_text)


def _names(help_text: str) -> Any:
    return serializers.ListField(child=serializers.CharField(), required=False, help_text=help_text)


class TreatmentSerializer(serializers.Serializer):
    """How a view treats its lines. Distances from the cut, the nearest point or the eye, mm."""

    crease = serializers.FloatField(required=False, help_text="Sharper creases than this are edges; degrees.")
    seams = serializers.BooleanField(required=False)
    hidden = serializers.BooleanField(required=False)
    overhead = serializers.BooleanField(required=False, help_text="Of a plan: what hangs above its cut.")
    far = _figure("Lines further off than this are far lines.")
    bands = _figures("Distances at which pens may change.")

    def to_internal_value(self, data: Any) -> dict[str, Any]:
        given = super().to_internal_value(data)
        Treatment.from_dict(given)
        return given

    def to_representation(self, kept: dict[str, Any]) -> dict[str, Any]:
        """As it is kept: what differs from the usual."""
        return kept


class ShownSerializer(serializers.Serializer):
    """What a view leaves out, and what it is limited to."""

    without_layers = _names("Names of layers.")
    without_storeys = _names("Names of storeys.")
    without_classes = _names("Names of classes.")
    without = _names("Ids of elements.")
    only = _names("Ids of elements; all where it is empty.")


class ViewSpecSerializer(serializers.Serializer):
    """A look at the model; which figures belong to it hangs on its kind. Lengths in mm."""

    kind = serializers.ChoiceField(choices=KINDS)
    storey = serializers.CharField(required=False)
    cut = serializers.FloatField(required=False, help_text="Of a plan: height of the cut above the floor.")
    side = serializers.CharField(required=False)
    corner = serializers.CharField(required=False)
    bearing = _figure("In place of side or corner: where the viewer stands, degrees clockwise from north.")
    altitude = _figure("Of an axonometric by bearing: degrees above the horizon.")
    line = _figures("Of a section: x1, y1, x2, y2 and on, with jogs at right angles.")
    near = _figure("Of an elevation: how far towards the viewer it begins.")
    depth = _figure("How far is seen from the cut, or from the nearest point.")
    eye = _figures("Of a perspective: x, y, z.")
    target = _figures("Of a perspective: x, y, z.")
    angle = _figure("Of a perspective: the field of view, degrees.")
    of = serializers.DictField(required=False, help_text="Of a detail: the view it is a part of.")
    region = _figures("Of a detail, in u, v of that view: a circle, a rectangle, or three corners or more.")
    treatment = TreatmentSerializer(required=False)
    shown = ShownSerializer(required=False)

    def to_internal_value(self, data: Any) -> dict[str, Any]:
        return ViewSpec.from_dict(super().to_internal_value(data)).as_dict()

    def to_representation(self, kept: dict[str, Any]) -> dict[str, Any]:
        """As it is kept: with the figures of its kind and no others."""
        return kept


@extend_schema_field(OpenApiTypes.UUID)
class OwnSubsetField(serializers.PrimaryKeyRelatedField):
    """A subset of one of one's own projects."""

    def get_queryset(self) -> QuerySet[Subset]:
        return Subset.objects.filter(project__in=Project.of(self.context["request"].user))


class SubsetSerializer(VersionedSerializer):
    """A named group of elements, by their ids."""

    project = OwnProjectField()
    elements = serializers.ListField(child=serializers.CharField(max_length=64), min_length=1, max_length=100_000)

    class Meta:
        model = Subset
        fields = ["id", "project", "name", "elements", "version"]


class NamedTreatmentSerializer(VersionedSerializer):
    """A treatment of lines that is kept by name; what it does not name is as usual."""

    project = OwnProjectField()
    treatment = TreatmentSerializer()

    class Meta:
        model = NamedTreatment
        fields = ["id", "project", "name", "treatment", "version"]


class AxesSerializer(serializers.Serializer):
    """The axes that a drawing is measured along, in the model's; the origin in mm."""

    right = serializers.ListField(child=serializers.FloatField())
    up = serializers.ListField(child=serializers.FloatField())
    origin = serializers.ListField(child=serializers.FloatField())


class ViewSerializer(VersionedSerializer):
    project = OwnProjectField()
    spec = ViewSpecSerializer()
    name = serializers.CharField(max_length=200, required=False)
    linework = serializers.CharField(source="linework_id", read_only=True, allow_null=True)
    extents = serializers.SerializerMethodField()
    axes = AxesSerializer(source="linework.axes", read_only=True, default=None, allow_null=True)
    notes = serializers.SerializerMethodField()
    state = serializers.SerializerMethodField()
    placed_on = serializers.SerializerMethodField()
    subset = OwnSubsetField(required=False, allow_null=True)
    drawn_from = serializers.IntegerField(
        source="drawn_from.number", required=False, default=None, allow_null=True,
        help_text="Number of the model version. Of use when a held view is made; otherwise it follows the drawing.",
    )  # fmt: skip

    class Meta:
        model = View
        fields = [
            "id", "project", "name", "spec", "position", "held", "subset", "drawn_from", "linework", "extents", "axes",
            "notes", "state", "placed_on", "version",
        ]  # fmt: skip

    def validate(self, given: dict[str, Any]) -> dict[str, Any]:
        asked = given.pop("drawn_from", {}).get("number")
        if self.instance is None:
            if not given.get("name"):
                given["name"] = services.free_name(given["project"], ViewSpec.from_dict(given["spec"]).title)
            if given.get("held"):
                given["drawn_from"] = ModelVersion.objects.filter(project=given["project"], number=asked).first()
        if self.instance is not None and given.get("project", self.instance.project) != self.instance.project:
            raise serializers.ValidationError({"project": "A view stays in its project."})
        return given

    def validate_subset(self, subset: Subset | None) -> Subset | None:
        wanted = self.instance.project_id if self.instance else self.initial_data.get("project")
        if subset and str(subset.project_id) != str(wanted):
            raise serializers.ValidationError("A view is limited to a subset of its own project.")
        return subset

    @extend_schema_field(serializers.ListField(child=serializers.FloatField(), allow_null=True))
    def get_extents(self, view: View) -> list[float] | None:
        """Least u and v, greatest u and v of the drawing, mm."""
        return view.linework.extents if view.linework else None

    @extend_schema_field(serializers.ListField(child=serializers.CharField()))
    def get_notes(self, view: View) -> list[str]:
        return view.linework.notes if view.linework else []

    @extend_schema_field(serializers.ChoiceField(choices=STATES))
    def get_state(self, view: View) -> str:
        newest = self.context.setdefault("newest", {})
        if view.project_id not in newest:
            newest[view.project_id] = newest_version(view.project)
        return services.state_of(view, newest[view.project_id])

    @extend_schema_field(serializers.ListField(child=serializers.CharField()))
    def get_placed_on(self, view: View) -> list[str]:
        """Numbers of the sheets that it stands on."""
        return list(dict.fromkeys(viewport.sheet.number for viewport in view.viewports.all()))


class OfOneProjectSerializer(serializers.Serializer):
    project = OwnProjectField()


class TreatSerializer(serializers.Serializer):
    views = serializers.ListField(child=serializers.UUIDField(), min_length=1, max_length=500)
    treatment = TreatmentSerializer(required=False)
    shown = ShownSerializer(required=False)


@listed_by_project
class ViewViewSet(OfOwnProjects, viewsets.ModelViewSet):
    """Views of one's own projects."""

    serializer_class = ViewSerializer
    queryset = View.objects.none()
    http_method_names = ["get", "post", "patch", "delete", "head", "options"]
    rows = View.objects.select_related("linework", "project", "drawn_from", "subset").prefetch_related(
        Prefetch("viewports", Viewport.objects.select_related("sheet").order_by("sheet__position"))
    )

    def perform_create(self, serializer: Any) -> None:
        given = serializer.validated_data
        view = serializer.save(position=given.get("position", services.next_position(given["project"])))
        if newest_version(view.project):
            services.order_drawing(view)

    def perform_update(self, serializer: Any) -> None:
        before, held = services.full_spec(serializer.instance), serializer.instance.held
        view = serializer.save()
        if (services.full_spec(view) != before or (held and not view.held)) and newest_version(view.project):
            services.order_drawing(view)

    @extend_schema(request=None, responses={202: JobSerializer})
    @action(detail=True, methods=["post"])
    def draw(self, request: Request, pk: str) -> Response:
        """Bring this view up to date with the newest model version."""
        job = services.order_drawing(self.get_object())
        job.refresh_from_db()
        return Response(JobSerializer(job).data, status=status.HTTP_202_ACCEPTED)

    @extend_schema(request=OfOneProjectSerializer, responses={201: ViewSerializer(many=True)})
    @action(detail=False, methods=["post"])
    def standard(self, request: Request) -> Response:
        """Make what is missing of the standard set of views."""
        made = services.make_standard_views(self._given(OfOneProjectSerializer, request)["project"])
        return Response(self._told(made), status=status.HTTP_201_CREATED)

    @extend_schema(request=OfOneProjectSerializer, responses={202: JobSerializer(many=True)})
    @action(detail=False, methods=["post"], url_path="bring-up-to-date")
    def bring_up_to_date(self, request: Request) -> Response:
        """Draw every view of a project that is behind, but for those that are held."""
        jobs = services.order_all_behind(self._given(OfOneProjectSerializer, request)["project"])
        return Response(JobSerializer(jobs, many=True).data, status=status.HTTP_202_ACCEPTED)

    @extend_schema(request=TreatSerializer, responses=ViewSerializer(many=True))
    @action(detail=False, methods=["post"])
    def treat(self, request: Request) -> Response:
        """Give several views the same settings; what is not named stays as each view has it."""
        given = self._given(TreatSerializer, request)
        views = list(self.get_queryset().filter(pk__in=given["views"]))
        if len(views) != len(set(given["views"])):
            raise Http404
        services.treat(views, given.get("treatment", {}), given.get("shown", {}))
        return Response(self._told(views))

    def _given(self, form: type[serializers.Serializer], request: Request) -> dict[str, Any]:
        given = form(data=request.data, context=self.get_serializer_context())
        given.is_valid(raise_exception=True)
        return dict(given.validated_data)

    def _told(self, views: list[View]) -> Any:
        rows = self.get_queryset().filter(pk__in=[view.pk for view in views])
        return ViewSerializer(rows, many=True, context=self.get_serializer_context()).data


@listed_by_project
class SubsetViewSet(OfOwnProjects, viewsets.ModelViewSet):
    """Subsets of one's own projects. Views that are limited to one follow it; when it goes, they show everything."""

    serializer_class = SubsetSerializer
    queryset = Subset.objects.none()
    http_method_names = ["get", "post", "patch", "delete", "head", "options"]
    rows = Subset.objects.select_related("project")

    def perform_update(self, serializer: Any) -> None:
        services.order_all_of(serializer.save())

    def perform_destroy(self, subset: Subset) -> None:
        limited = list(subset.views.all())
        subset.delete()
        for view in limited:
            view.refresh_from_db()
            if newest_version(view.project):
                services.order_drawing(view)


@listed_by_project
class NamedTreatmentViewSet(OfOwnProjects, viewsets.ModelViewSet):
    """Named treatments of one's own projects."""

    serializer_class = NamedTreatmentSerializer
    queryset = NamedTreatment.objects.none()
    http_method_names = ["get", "post", "patch", "delete", "head", "options"]
    rows = NamedTreatment.objects.select_related("project")


class LineworkView(APIView):
    """Linework by its key; what lies under a key never changes."""

    @extend_schema(responses=OpenApiTypes.OBJECT)
    def get(self, request: Request, key: str) -> HttpResponseBase:
        own = Project.of(request.user)
        seen = Q(views__project__in=own) | Q(viewports__sheet__project__in=own)
        linework = Linework.objects.filter(seen, pk=key).first()
        if linework is None:
            raise Http404
        return kept_file(request, key, linework.file, "application/json")
