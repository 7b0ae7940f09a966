"""The API of templates and of the pictures on them."""

from __future__ import annotations

from typing import Any

from django.http import FileResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema, extend_schema_field
from rest_framework import mixins, serializers, viewsets
from rest_framework.decorators import action
from rest_framework.exceptions import NotFound
from rest_framework.parsers import MultiPartParser
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from drafting.errors import SheetError
from drafting.sheets.fields import FIELDS, OF
from drafting.sheets.picture import MOST_BYTES
from drafting.sheets.shipped_templates import SHIPPED
from drafting.sheets.template import ACROSS, ALIGN, KINDS, UP
from drafting.sheets.template import Template as CoreTemplate
from server.config import storage
from server.projects.api import OfOwnProjects, OwnProjectField, listed_by_project
from server.projects.named_api import CoreField, NamedSerializer, shipped_rows
from server.sheets.services import check_sheets_with, sheets_with
from server.templates.models import Picture, Template
from server.templates.services import take_in


class PartSerializer(serializers.Serializer):
    """One thing on a template; see the core's Part. What is as usual may be left out. Paper mm."""

    kind = serializers.ChoiceField(choices=KINDS)
    x0 = serializers.FloatField()
    y0 = serializers.FloatField()
    x1 = serializers.FloatField()
    y1 = serializers.FloatField()
    across = serializers.ChoiceField(choices=ACROSS, required=False)
    up = serializers.ChoiceField(choices=UP, required=False)
    width = serializers.FloatField(required=False)
    fill = serializers.CharField(required=False, allow_blank=True)
    colour = serializers.CharField(required=False, allow_blank=True)
    words = serializers.CharField(required=False, allow_blank=True, trim_whitespace=False)
    field = serializers.CharField(required=False)
    size = serializers.FloatField(required=False)
    least = serializers.FloatField(required=False)
    lines = serializers.IntegerField(required=False)
    align = serializers.ChoiceField(choices=ALIGN, required=False)
    bold = serializers.BooleanField(required=False)
    picture = serializers.CharField(required=False, allow_blank=True)


def _sides(what: str) -> Any:
    return serializers.ListField(
        child=serializers.FloatField(), min_length=4, max_length=4, required=False, help_text=what
    )


class SpecSerializer(serializers.Serializer):
    """What a template is made of."""

    margins = _sides("From the edges of the paper to the frame: left, bottom, right, top; mm.")
    kept = _sides("What is not for drawings along each side of the frame: left, bottom, right, top; mm.")
    frame = serializers.FloatField(required=False, help_text="Width of the frame's line; mm.")
    zones = serializers.BooleanField(required=False)
    centring = serializers.BooleanField(required=False)
    parts = PartSerializer(many=True, required=False)


@extend_schema_field(SpecSerializer)
class SpecField(CoreField):
    pass


class TemplateSerializer(NamedSerializer):
    spec = SpecField(CoreTemplate)

    class Meta:
        model = Template
        fields = ["id", "project", "name", "spec", "version"]

    def validate(self, given: dict[str, Any]) -> dict[str, Any]:
        given = super().validate(given)
        if self.instance is not None and "spec" in given:
            name = given.get("name", self.instance.name)
            check_sheets_with(self.instance, CoreTemplate.from_dict({**given["spec"], "name": name}))
        return given


@listed_by_project
class TemplateViewSet(OfOwnProjects, viewsets.ModelViewSet):
    """The own templates of one's projects."""

    serializer_class = TemplateSerializer
    queryset = Template.objects.none()
    http_method_names = ["get", "post", "patch", "delete", "head", "options"]
    rows = Template.objects.select_related("project")

    def perform_destroy(self, template: Template) -> None:
        users = [sheet.number for sheet in sheets_with(template)]
        if users:
            raise SheetError(f"“{template.name}” is the template of {', '.join(users)}. Give them another one first.")
        template.delete()


class ShippedSerializer(serializers.Serializer):
    key = serializers.CharField()
    name = serializers.CharField()
    spec = SpecSerializer()


class FieldSerializer(serializers.Serializer):
    key = serializers.CharField()
    caption = serializers.CharField()
    of = serializers.ChoiceField(choices=OF, help_text="Whose it is.")


class StockSerializer(serializers.Serializer):
    templates = ShippedSerializer(many=True)
    fields = FieldSerializer(many=True)


class StockView(APIView):
    """What templates start from: those that ship, and the fields that a title block can have."""

    @extend_schema(responses=StockSerializer)
    def get(self, request: Request) -> Response:
        return Response(
            {
                "templates": shipped_rows(SHIPPED),
                "fields": [{"key": key, "caption": f.caption, "of": f.of} for key, f in FIELDS.items()],
            }
        )


class PictureSerializer(serializers.ModelSerializer):
    file = serializers.FileField(write_only=True)
    project = OwnProjectField()

    class Meta:
        model = Picture
        fields = ["id", "project", "name", "form", "width", "height", "file", "created"]
        read_only_fields = ["name", "form", "width", "height"]

    def validate_file(self, file: Any) -> Any:
        if file.size > MOST_BYTES:
            raise SheetError(
                f"“{file.name}” has {file.size / 1e6:.0f} MB. A picture on a template has at most "
                f"{MOST_BYTES / 1e6:.0f} MB; make it smaller, or take an SVG."
            )
        return file

    def create(self, given: dict[str, Any]) -> Picture:
        return take_in(given["project"], given["file"].name, given["file"].read())


@listed_by_project
class PictureViewSet(
    OfOwnProjects, mixins.CreateModelMixin, mixins.RetrieveModelMixin, mixins.ListModelMixin, viewsets.GenericViewSet
):
    """Pictures of one's own projects. Deleted with them: a template that is taken back may want them again."""

    serializer_class = PictureSerializer
    queryset = Picture.objects.none()
    parser_classes = [MultiPartParser]
    rows = Picture.objects.all()

    @extend_schema(responses={(200, "image/*"): OpenApiTypes.BINARY})
    @action(detail=True, methods=["get"])
    def pixels(self, request: Request, pk: str) -> FileResponse:
        """The file of a PNG or JPEG."""
        picture = self.get_object()
        if picture.form == "vector":
            raise NotFound("This picture is made of lines and has no pixels.")
        response = FileResponse(storage.path_of(picture.file).open("rb"), content_type=f"image/{picture.form}")
        response.headers["Cache-Control"] = "private, max-age=31536000, immutable"
        return response
