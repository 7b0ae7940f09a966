"""The API of sheets."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from django.http import Http404
from django.shortcuts import get_object_or_404
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema, extend_schema_field
from rest_framework import serializers, status, viewsets
from rest_framework.decorators import action
from rest_framework.request import Request
from rest_framework.response import Response

from drafting.plot.plot_settings import conflicts
from drafting.plot.plotting import margins_on
from drafting.sheets.arranging import PROJECTIONS
from drafting.sheets.fields import FIELDS, MOST_LETTERS
from drafting.sheets.paper import ORIENTATIONS, SIZES, Paper
from drafting.sheets.placing import free_spaces
from drafting.sheets.template import check_blank
from server.config.versioned import VersionedSerializer
from server.pens.services import check_pen_table
from server.plots.named import settings_of, usual
from server.projects.api import OfOwnProjects, OwnProjectField, listed_by_project
from server.projects.models import Project
from server.sheets import services
from server.sheets.display_schema import DisplayListSerializer, SpaceSerializer
from server.sheets.models import Sheet
from server.sheets.viewport_api import PenTableKeyField, ViewportSerializer
from server.templates import services as template_services
from server.views.models import View

TOO_LONG = {"max_length": "A title has at most {max_length} letters. Shorten it."}


class UnprintableSerializer(serializers.Serializer):
    """What the device of a sheet cannot print."""

    says = serializers.ListField(child=serializers.CharField(), help_text="What does not go together.")
    margins = serializers.ListField(
        child=serializers.FloatField(), help_text="Left, bottom, right and top, mm of the sheet."
    )


class CornerSerializer(serializers.Serializer):
    """The upper left corner of a table; paper mm."""

    x = serializers.FloatField()
    y = serializers.FloatField()


class GuidesSerializer(serializers.Serializer):
    """Lines that viewports are aligned to, and that are never plotted; paper mm."""

    x = serializers.ListField(child=serializers.FloatField(), max_length=100, required=False)
    y = serializers.ListField(child=serializers.FloatField(), max_length=100, required=False)


class RevisionSerializer(serializers.Serializer):
    """A row of the revision table."""

    revision = serializers.CharField(max_length=20)
    date = serializers.CharField(max_length=20, allow_blank=True, default="")
    description = serializers.CharField(max_length=300, allow_blank=True, default="")
    initials = serializers.CharField(max_length=20, allow_blank=True, default="")


class SheetSerializer(VersionedSerializer):
    id = serializers.UUIDField(required=False)
    project = OwnProjectField()
    number = serializers.CharField(
        max_length=40,
        required=False,
        error_messages={
            "blank": "A sheet has a number. Type one, such as A-07.",
            "max_length": "A sheet's number has at most {max_length} letters.",
        },
    )
    title = serializers.CharField(max_length=200, required=False, allow_blank=True, error_messages=TOO_LONG)
    supplementary_title = serializers.CharField(
        max_length=200, required=False, allow_blank=True, error_messages=TOO_LONG
    )
    revisions = RevisionSerializer(many=True, required=False, max_length=99)
    template = serializers.CharField(max_length=36, required=False, help_text="A shipped one's key, or an id.")
    typed = serializers.DictField(
        child=serializers.CharField(allow_blank=True, max_length=MOST_LETTERS), required=False,
        help_text="What is typed over on this sheet alone, by field.",
    )  # fmt: skip
    paper = serializers.CharField(
        max_length=40, required=False, help_text=f"{', '.join(SIZES)}, or width x height in mm."
    )
    orientation = serializers.ChoiceField(choices=ORIENTATIONS, required=False)
    position = serializers.IntegerField(min_value=0, required=False)
    plot_settings = serializers.CharField(max_length=36, required=False, help_text="Shipped ones' key, or an id.")
    pen_table = PenTableKeyField()
    unprintable = serializers.SerializerMethodField()
    drawing_list = CornerSerializer(required=False, allow_null=True)
    guides = GuidesSerializer(required=False)
    free_area = serializers.SerializerMethodField()

    class Meta:
        model = Sheet
        fields = [
            "id", "project", "position", "paper", "orientation", "number", "title", "supplementary_title", "creator",
            "drawn_on", "checker", "checked_on", "approver", "approved_on", "document_type", "status", "purpose",
            "discipline", "sheet_type", "revisions", "template", "typed", "plot_settings", "pen_table",
            "unprintable", "drawing_list", "guides", "free_area", "version",
        ]  # fmt: skip

    def validate(self, given: dict[str, Any]) -> dict[str, Any]:
        if self.instance is not None:
            given.pop("id", None)
            if given.get("project", self.instance.project) != self.instance.project:
                raise serializers.ValidationError({"project": "A sheet stays in its project."})
        elif "id" in given and Sheet.objects.filter(pk=given["id"]).exists():
            raise serializers.ValidationError({"id": "There is a sheet with this id already."})
        if {"template", "paper", "orientation"} & set(given):
            row = self.instance or Sheet(project=given["project"])
            wanted = Sheet(
                project=row.project, **{n: given.get(n, getattr(row, n)) for n in ("template", "paper", "orientation")}
            )
            if wanted.template not in template_services.templates_of(row.project):
                raise serializers.ValidationError({"template": "There is no such template. Choose another one."})
            check_blank(services.blank_of(wanted))
        project = self.instance.project if self.instance else given["project"]
        if "plot_settings" in given and given["plot_settings"] not in settings_of(project):
            raise serializers.ValidationError({"plot_settings": "There are no such plot settings. Choose others."})
        check_pen_table(project, given.get("pen_table", ""))
        return given

    def validate_typed(self, typed: dict[str, str]) -> dict[str, str]:
        unknown = sorted(set(typed) - set(FIELDS))
        if unknown:
            raise serializers.ValidationError(f"There is no field {', '.join(unknown)}.")
        return typed

    @extend_schema_field(UnprintableSerializer)
    def get_unprintable(self, sheet: Sheet) -> dict[str, Any]:
        """What the device of its plot settings cannot print of it, where it is plotted whole."""
        known = self.context.setdefault("plot_settings", {})
        if sheet.project_id not in known:
            known[sheet.project_id] = settings_of(sheet.project)
        settings, paper = usual(known[sheet.project_id], sheet.plot_settings), sheet.as_paper
        return {"says": conflicts(settings, paper), "margins": [round(m, 3) for m in margins_on(paper, settings)]}

    @extend_schema_field(serializers.ListField(child=serializers.FloatField()))
    def get_free_area(self, sheet: Sheet) -> list[float]:
        """Left, bottom, width and height of the space that drawings have to themselves, paper mm."""
        free = services.blank_of(sheet).free
        return [free.x, free.y, free.width, free.height]

    def validate_paper(self, name: str) -> str:
        return Paper.of(name).name

    def update(self, sheet: Sheet, given: dict[str, Any]) -> Sheet:
        before = sheet.as_paper
        with transaction.atomic():
            sheet = super().update(sheet, given)
            services.move_with_title_block(sheet, before)
        return sheet

    def create(self, given: dict[str, Any]) -> Sheet:
        with transaction.atomic():
            project = given["project"]
            like = Sheet(**{n: given[n] for n in ("project", "discipline", "sheet_type") if n in given})
            given.setdefault("number", services.next_number(like))
            given.setdefault("position", services.next_position(Sheet.objects.filter(project=project)))
            return super().create(given)


class ArrangeSerializer(serializers.Serializer):
    views = serializers.ListField(child=serializers.UUIDField(), min_length=1, max_length=100)
    projection = serializers.ChoiceField(choices=PROJECTIONS, default=PROJECTIONS[0])


class NumberSerializer(serializers.Serializer):
    """Something about the number of a sheet."""

    sheet = serializers.UUIDField()
    says = serializers.CharField()


class SaysSerializer(serializers.Serializer):
    derived = serializers.DictField(child=serializers.CharField())


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

    @extend_schema(responses=SpaceSerializer(many=True))
    @action(detail=True, methods=["get"])
    def spaces(self, request: Request, pk: str) -> Response:
        """The empty rectangles of a sheet, the largest first."""
        sheet = self.get_object()
        spaces = free_spaces(services.blank_of(sheet), services.taken_on(sheet))
        return Response(SpaceSerializer(spaces, many=True).data)

    @extend_schema(request=ArrangeSerializer, responses={201: ViewportSerializer(many=True)})
    @action(detail=True, methods=["post"])
    def arrange(self, request: Request, pk: str) -> Response:
        """Lay views out on a sheet as a projected set, aligned, at the largest common scale that fits."""
        sheet = self.get_object()
        context = self.get_serializer_context()
        given = ArrangeSerializer(data=request.data, context=context)
        given.is_valid(raise_exception=True)
        wanted = given.validated_data["views"]
        views = {v.pk: v for v in View.objects.filter(pk__in=wanted, project=sheet.project).select_related("linework")}
        if len(views) != len(set(wanted)):
            raise Http404
        made = services.arrange_views(sheet, [views[pk] for pk in wanted], given.validated_data["projection"])
        return Response(ViewportSerializer(made, many=True, context=context).data, status=status.HTTP_201_CREATED)

    @extend_schema(responses=SaysSerializer)
    @action(detail=True, methods=["get"])
    def fields(self, request: Request, pk: str) -> Response:
        """What every field of a title block says on this sheet where nothing is typed over it."""
        sheet = self.get_object()
        return Response({"derived": services.as_core_sheet(sheet, services.WholeSet.of(sheet.project)).derived})

    @extend_schema(responses=NumberSerializer(many=True))
    @action(detail=True, methods=["get"], pagination_class=None)
    def numbers(self, request: Request, pk: str) -> Response:
        """The numbers that this sheet and those after it would have, counted on from its own."""
        return Response([{"sheet": s.pk, "says": number} for s, number in services.numbers_from(self.get_object())])

    @extend_schema(
        parameters=[OpenApiParameter("project", OpenApiTypes.UUID, required=True)],
        responses=NumberSerializer(many=True),
    )
    @action(detail=False, methods=["get"], pagination_class=None)
    def doubts(self, request: Request) -> Response:
        """What is odd about the numbers of a project's sheets: doubles, and what is left out before one."""
        project = get_object_or_404(Project.of(request.user), pk=request.query_params.get("project"))
        found = services.doubts_about_numbers(project)
        return Response([{"sheet": pk, "says": doubt} for pk, doubt in found.items()])
