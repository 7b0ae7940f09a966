"""Sheets, templates, pictures and the register as they are received and sent."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.plotting.pages import margins_on
from drafting.plotting.settings import conflicts
from drafting.render.display_list import DisplayList
from drafting.sheets.fields import FIELDS, MAX_LETTERS, Revision
from drafting.sheets.numbering import Pattern
from drafting.sheets.paper import ORIENTATIONS, SIZES
from drafting.sheets.picture import MAX_BYTES
from drafting.sheets.projection_layout import PROJECTIONS
from drafting.sheets.revision_schemes import RevisionScheme
from drafting.sheets.template import TemplateSpec
from server.common.serializers import RowSerializer
from server.common.shapes import ShapeField, ShapeSerializer
from server.projects.serializers import NamedRowSerializer, OwnProjectField
from server.sheets.models import Picture, Register, Sheet, Template
from server.sheets.services import paper_named

TOO_LONG: dict[str, Any] = {"max_length": "A title has at most {max_length} letters. Shorten it."}


class SpaceSerializer(ShapeSerializer):
    """A rectangle of a sheet, paper mm."""

    shape = Box


class DisplayListSerializer(ShapeSerializer):
    """What the board and every output draw from."""

    shape = DisplayList


class TemplateSerializer(NamedRowSerializer):
    spec = ShapeField(TemplateSpec, "template")

    class Meta:
        model = Template
        fields = ["id", "project", "name", "spec", "built_in", "version"]


class FieldSerializer(serializers.Serializer[Any]):
    """A field that a title block can have."""

    key = serializers.CharField()
    caption = serializers.CharField()
    of = serializers.ChoiceField(choices=["project", "sheet", "derived"], help_text="Whose it is.")


class PictureSerializer(serializers.ModelSerializer[Picture]):
    file = serializers.FileField(write_only=True)
    project = OwnProjectField()

    class Meta:
        model = Picture
        fields = ["id", "project", "name", "form", "width", "height", "file", "created"]
        read_only_fields = ["id", "name", "form", "width", "height"]

    def validate_file(self, file: Any) -> Any:
        if file.size > MAX_BYTES:
            raise SheetError(
                f"“{file.name}” has {file.size / 1e6:.0f} MB. A picture on a template has at most "
                f"{MAX_BYTES / 1e6:.0f} MB; make it smaller, or take an SVG."
            )
        return file


NO_COLOUR = "A colour is written such as #b5651d."
#: More materials than this no building has.
MAX_PALETTE = 2_000


def _colours(what: str) -> Any:
    child = serializers.RegexField(r"^#[0-9a-f]{6}$", error_messages={"invalid": NO_COLOUR})
    return serializers.DictField(child=child, required=False, help_text=what)


class RegisterSerializer(RowSerializer):
    """What holds for all sheets of a project."""

    project = OwnProjectField(read_only=False)
    revision_scheme = ShapeField(RevisionScheme, "revision scheme", required=False)
    custom_scales = serializers.ListField(child=serializers.CharField(), read_only=True)
    palette = _colours(
        "The colours of materials in pictures, where they differ from the file's; by their names."
    )
    layer_palette = _colours("The same of layers, which go before materials.")

    class Meta:
        model = Register
        fields = [
            "id", "project", "number_pattern", "revision_scheme", "pen_table", "logo", "palette",
            "layer_palette", "custom_scales", "version",
        ]  # fmt: skip

    def validate_palette(self, palette: dict[str, str]) -> dict[str, str]:
        if len(palette) > MAX_PALETTE:
            raise serializers.ValidationError(f"A palette has {MAX_PALETTE} colours at most.")
        return palette

    def validate_layer_palette(self, palette: dict[str, str]) -> dict[str, str]:
        return self.validate_palette(palette)

    def validate_number_pattern(self, text: str) -> str:
        return Pattern(text).text


class UnprintableSerializer(serializers.Serializer[Any]):
    """What the device of a sheet cannot print."""

    conflicts = serializers.ListField(child=serializers.CharField(), help_text="What does not go together.")
    margins = serializers.ListField(
        child=serializers.FloatField(), help_text="Left, bottom, right and top, mm of the sheet."
    )


class CornerSerializer(serializers.Serializer[Any]):
    """The upper left corner of the list of drawings, paper mm, and of how many issues it has a column."""

    x = serializers.FloatField()
    y = serializers.FloatField()
    issues = serializers.IntegerField(min_value=0, max_value=20, required=False)


class GuidesSerializer(serializers.Serializer[Any]):
    """Lines that viewports are aligned to, and that are never plotted; paper mm."""

    x = serializers.ListField(child=serializers.FloatField(), max_length=100, required=False)
    y = serializers.ListField(child=serializers.FloatField(), max_length=100, required=False)


class SheetSerializer(RowSerializer):
    project = OwnProjectField()
    number = serializers.CharField(
        max_length=36,
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
    revisions = serializers.ListField(child=ShapeField(Revision, "revision"), required=False, max_length=99)
    overrides = serializers.DictField(
        child=serializers.CharField(allow_blank=True, max_length=MAX_LETTERS), required=False,
        help_text="What is typed over on this sheet alone, by field.",
    )  # fmt: skip
    paper = serializers.CharField(
        max_length=40, required=False, help_text=f"{', '.join(SIZES)}, or width x height in mm."
    )
    orientation = serializers.ChoiceField(choices=ORIENTATIONS, required=False)
    position = serializers.IntegerField(min_value=0, max_value=1_000_000, required=False)
    unprintable = serializers.SerializerMethodField()
    drawing_list = CornerSerializer(required=False, allow_null=True)
    guides = GuidesSerializer(required=False)
    free_area = serializers.SerializerMethodField()

    class Meta:
        model = Sheet
        fields = [
            "id", "project", "position", "paper", "orientation", "number", "title", "supplementary_title",
            "creator",
            "drawn_on", "checker", "checked_on", "approver", "approved_on", "document_type", "status",
            "purpose",
            "discipline", "sheet_type", "revisions", "template", "overrides", "plot_settings", "pen_table",
            "unprintable", "drawing_list", "guides", "free_area", "version",
        ]  # fmt: skip
        # A number given twice is refused by the service, which names the other sheet.
        validators: list[Any] = []

    def validate_overrides(self, overrides: dict[str, str]) -> dict[str, str]:
        unknown = sorted(set(overrides) - set(FIELDS))
        if unknown:
            raise serializers.ValidationError(f"There is no field {', '.join(unknown)}.")
        return overrides

    def validate_paper(self, name: str) -> str:
        return paper_named(name)

    @extend_schema_field(UnprintableSerializer)
    def get_unprintable(self, sheet: Sheet) -> dict[str, Any]:
        """What the device of its plot settings cannot print of it, where it is plotted whole."""
        paper = sheet.as_paper
        try:
            settings = sheet.plot_settings.as_core
        except SheetError:
            name = sheet.plot_settings.name
            words = f"The plot settings “{name}” cannot be read. Give the sheet others."
            return {"conflicts": [words], "margins": [0.0] * 4}
        margins = [round(margin, 3) for margin in margins_on(paper, settings)]
        return {"conflicts": conflicts(settings, paper), "margins": margins}

    @extend_schema_field(serializers.ListField(child=serializers.FloatField()))
    def get_free_area(self, sheet: Sheet) -> list[float]:
        """Left, bottom, width and height of the space that drawings have to themselves, paper mm."""
        try:
            free = sheet.blank.free
        except SheetError:
            # Its template cannot be read, which is said wherever the sheet is composed.
            free = Box(0.0, 0.0, sheet.as_paper.width, sheet.as_paper.height)
        return [free.x, free.y, free.width, free.height]


class ArrangeSerializer(serializers.Serializer[Any]):
    views = serializers.ListField(child=serializers.UUIDField(), min_length=1, max_length=100)
    projection = serializers.ChoiceField(choices=PROJECTIONS, default=PROJECTIONS[0])


class NumberSerializer(serializers.Serializer[Any]):
    """A number for a sheet."""

    sheet = serializers.UUIDField()
    number = serializers.CharField()


class NumberWarningSerializer(serializers.Serializer[Any]):
    """Something odd about the number of a sheet."""

    sheet = serializers.UUIDField()
    message = serializers.CharField()


class FieldValuesSerializer(serializers.Serializer[Any]):
    derived = serializers.DictField(child=serializers.CharField())
