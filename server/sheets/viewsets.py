"""The API of sheets, viewports, templates and the register."""

from __future__ import annotations

from typing import Any

from django.db.models import QuerySet
from django.http import FileResponse, Http404, HttpResponse
from django.utils import timezone
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework import mixins, status, viewsets
from rest_framework.decorators import action
from rest_framework.exceptions import NotFound
from rest_framework.generics import get_object_or_404
from rest_framework.parsers import MultiPartParser
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from drafting.sheets.fields import FIELDS
from drafting.sheets.placing import free_spaces
from drafting.sheets.scale import FEET_LADDER, LADDER, Scale
from server.common.made_once import json_made_once
from server.common.responses import stored_file
from server.common.serializers import given_by
from server.common.written import remembered
from server.projects.models import Project
from server.projects.rows import ProjectRows, RowKind, RowViewSet, listed_by_project, row_viewset
from server.projects.serializers import OfOneProjectSerializer
from server.sheets import composing, registers, services, shading, templates, viewports
from server.sheets.models import Picture, Register, Sheet, Template, Viewport
from server.sheets.serializers import (
    ArrangeSerializer,
    DisplayListSerializer,
    FieldSerializer,
    FieldValuesSerializer,
    NumberSerializer,
    NumberWarningSerializer,
    PictureSerializer,
    RegisterSerializer,
    SheetSerializer,
    SpaceSerializer,
    TemplateSerializer,
)
from server.sheets.viewport_serializers import LADDERS, ArrangedSerializer, RungSerializer, ViewportSerializer
from server.sheets.whole_set import WholeSet
from server.views.models import View

_PROJECT = OpenApiParameter("project", OpenApiTypes.UUID, required=True)


def _sheets() -> QuerySet[Sheet]:
    return Sheet.objects.select_related("project", "template", "plot_settings")


def _viewports() -> QuerySet[Viewport]:
    return Viewport.objects.select_related(
        "sheet__project",
        "view__linework",
        "view__project",
        "view__subset",
        "linework",
        "shaded",
        "traced",
    )


#: What a title block says of who has checked and approved a sheet.
SIGNED = frozenset({"checker", "checked_on", "approver", "approved_on"})
SHEETS = RowKind(SheetSerializer, services.sheet_service, _sheets, signed=SIGNED)
VIEWPORTS = RowKind(ViewportSerializer, viewports.viewport_service, _viewports, read=viewports.check_stored)
TEMPLATES = RowKind(TemplateSerializer, templates.template_service, Template.objects.all, with_presets=True)
REGISTERS = RowKind(RegisterSerializer, registers.register_service, Register.objects.all)

ViewportViewSet = row_viewset(VIEWPORTS, "Viewports on the sheets of one's own projects.")
TemplateViewSet = row_viewset(TEMPLATES, "The templates that are built in, and those of one's projects.")


def _project_of(request: Request) -> Project:
    given = OfOneProjectSerializer(data=request.query_params, context={"request": request})
    given.is_valid(raise_exception=True)
    project: Project = given.validated_data["project"]
    return project


@listed_by_project
class SheetViewSet(RowViewSet):
    """Sheets of one's own projects, in register order."""

    kind = SHEETS
    rows = staticmethod(_sheets)
    queryset = Sheet.objects.none()

    @extend_schema(responses=DisplayListSerializer)
    @action(detail=True, methods=["get"])
    def display(self, request: Request, pk: str) -> HttpResponse:
        """The display list of a sheet: what the board and every output draw from."""

        def own() -> Any:
            sheets = Sheet.objects.filter(project__in=Project.of(request.user)).only("pk")
            return get_object_or_404(sheets, pk=pk).pk

        # It is asked for by all who look at the sheet, whenever anybody has changed it.
        found = remembered((request.user.pk, pk), (Sheet, Project, Project.members.through), own)
        today = timezone.localdate()
        return json_made_once(request._request, composing.display_on, found, today, apart=True)

    @extend_schema(responses=SpaceSerializer(many=True))
    @action(detail=True, methods=["get"])
    def spaces(self, request: Request, pk: str) -> Response:
        """The empty rectangles of a sheet, the largest first."""
        sheet = self.get_object()
        spaces = free_spaces(sheet.blank, viewports.taken_on(sheet))
        return Response(SpaceSerializer(spaces, many=True).data)

    @extend_schema(request=ArrangeSerializer, responses={201: ArrangedSerializer})
    @action(detail=True, methods=["post"])
    def arrange(self, request: Request, pk: str) -> Response:
        """Lay views out on a sheet as a projected set, aligned, at the largest common scale that fits."""
        sheet, given = self.get_object(), given_by(ArrangeSerializer, request)
        wanted = given["views"]
        rows = View.objects.filter(pk__in=wanted, project=sheet.project).select_related("linework")
        views = {view.pk: view for view in rows}
        if len(views) != len(set(wanted)):
            raise Http404
        made, notes = viewports.arrange_views(sheet, [views[pk] for pk in wanted], given["projection"])
        context = self.get_serializer_context()
        rows_made = VIEWPORTS.made(made, context)
        return Response({"viewports": rows_made, "notes": list(notes)}, status=status.HTTP_201_CREATED)

    @extend_schema(responses=FieldValuesSerializer)
    @action(detail=True, methods=["get"], url_path="field-values")
    def field_values(self, request: Request, pk: str) -> Response:
        """The value of every field of a title block on this sheet where nothing is typed over it."""
        sheet = self.get_object()
        whole = WholeSet.of(sheet.project)
        return Response(
            {
                "derived": composing.as_core_sheet(
                    sheet, composing.viewports_of(sheet, whole), whole
                ).derived_values
            }
        )

    @extend_schema(responses=NumberSerializer(many=True))
    @action(detail=True, methods=["get"], pagination_class=None)
    def numbers(self, request: Request, pk: str) -> Response:
        """The numbers that this sheet and those after it would have, counted on from its own."""
        found = services.numbers_from(self.get_object())
        return Response([{"sheet": sheet.pk, "number": number} for sheet, number in found])

    @extend_schema(parameters=[_PROJECT], responses=NumberWarningSerializer(many=True))
    @action(detail=False, methods=["get"], pagination_class=None, url_path="number-warnings")
    def number_warnings(self, request: Request) -> Response:
        """What is odd about the numbers of a project's sheets: what is left out before one."""
        found = services.number_warnings(_project_of(request))
        return Response([{"sheet": pk, "message": message} for pk, message in found.items()])


@listed_by_project
class RegisterViewSet(RowViewSet):
    """The registers of one's own projects: each project has one."""

    kind = REGISTERS
    queryset = Register.objects.none()
    rows = Register.objects.all
    http_method_names = ["get", "patch", "head", "options"]

    def list(self, request: Request, *args: Any, **kwargs: Any) -> Any:
        # A project's register is made when it is first looked at.
        for project in Project.of(request.user).filter(register=None):
            services.register_of(project)
        return super().list(request, *args, **kwargs)


class FieldsView(APIView):
    """The fields that a title block can have."""

    @extend_schema(responses=FieldSerializer(many=True))
    def get(self, request: Request) -> Response:
        return Response([{"key": key, "caption": f.caption, "of": f.of} for key, f in FIELDS.items()])


@listed_by_project
class PictureViewSet(
    ProjectRows, mixins.RetrieveModelMixin, mixins.ListModelMixin, viewsets.GenericViewSet[Picture]
):
    """Pictures of one's own projects. Deleted with them: a template that is restored may want them again."""

    serializer_class = PictureSerializer
    queryset = Picture.objects.none()
    parser_classes = [MultiPartParser]
    rows = Picture.objects.all

    def create(self, request: Request) -> Response:
        """Store a picture, as SVG, PNG or JPEG."""
        given = given_by(PictureSerializer, request)
        picture = templates.add_picture(given["project"], given["file"].name, given["file"].read())
        return Response(self.get_serializer(picture).data, status=status.HTTP_201_CREATED)

    @extend_schema(responses={(200, "image/*"): OpenApiTypes.BINARY})
    @action(detail=True, methods=["get"])
    def pixels(self, request: Request, pk: str) -> FileResponse:
        """The file of a PNG or JPEG."""
        picture = self.get_object()
        if picture.form == "vector":
            raise NotFound("This picture is made of lines and has no pixels.")
        response = stored_file(picture.file, f"image/{picture.form}")
        response.headers["Cache-Control"] = "private, max-age=31536000, immutable"
        return response


class ShadedPictureView(APIView):
    """The picture of a building under the lines of a viewport, as the screen has it."""

    @extend_schema(responses={(200, "image/png"): OpenApiTypes.BINARY})
    def get(self, request: Request, key: str) -> FileResponse:
        picture = shading.may_see(key, Project.of(request.user))
        if picture is None:
            raise NotFound("There is no such picture, or it is not yours to see.")
        response = stored_file(picture.file, "image/png")
        response.headers["Cache-Control"] = "private, max-age=31536000, immutable"
        return response


class LadderView(APIView):
    """The standard scales, the largest first; before them those that a project has of its own."""

    @extend_schema(
        parameters=[OpenApiParameter("project", OpenApiTypes.UUID, required=False)],
        responses=RungSerializer(many=True),
    )
    def get(self, request: Request) -> Response:
        texts = (
            services.register_of(_project_of(request)).custom_scales
            if "project" in request.query_params
            else []
        )
        custom = sorted(map(Scale.parse, texts), reverse=True)
        ladders = zip(LADDERS, (custom, LADDER, FEET_LADDER), strict=True)
        return Response(
            [
                {"scale": str(scale), "ratio": float(scale.ratio), "ladder": name}
                for name, scales in ladders
                for scale in scales
            ]
        )
