"""How a display list looks in the API; the core makes it, so nothing is serialised here. See docs/display-list.md."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import PolymorphicProxySerializer, extend_schema_field
from rest_framework import serializers


def _points() -> Any:
    return serializers.ListField(child=serializers.ListField(child=serializers.FloatField()), help_text="Paper mm.")


class SpaceSerializer(serializers.Serializer):
    """A rectangle of a sheet, paper mm."""

    x = serializers.FloatField()
    y = serializers.FloatField()
    width = serializers.FloatField()
    height = serializers.FloatField()


class PenSerializer(serializers.Serializer):
    width = serializers.FloatField(help_text="Paper mm.")
    colour = serializers.CharField()
    pattern = serializers.ListField(child=serializers.FloatField(), help_text="Dash and gap by turns, in widths.")
    screen = serializers.IntegerField(help_text="Per cent of the colour that is left; the rest is paper.")


class PenChangeSerializer(serializers.Serializer):
    width = serializers.FloatField(allow_null=True, help_text="Paper mm.")
    colour = serializers.CharField(allow_null=True)
    pattern = serializers.ListField(child=serializers.FloatField(), allow_null=True)
    screen = serializers.IntegerField(allow_null=True)


class HatchLineSerializer(serializers.Serializer):
    """A family of parallel lines, for a spacing of 1 mm; see the core's HatchLine."""

    angle = serializers.FloatField(help_text="Degrees.")
    apart = serializers.FloatField()
    shift = serializers.FloatField()
    dashes = serializers.ListField(child=serializers.FloatField())
    slide = serializers.FloatField()


class CutItemSerializer(serializers.Serializer):
    """How what is cut is filled, where `match` (parts of names, with bars between them) is in its material's name."""

    match = serializers.CharField(help_text="Blank matches all.")
    fill = serializers.CharField(help_text="A colour; blank for none.")
    opacity = serializers.IntegerField(help_text="Per cent.")
    spacing = serializers.FloatField(help_text="Between the lines of the hatch, paper mm.")
    angle = serializers.FloatField(help_text="Degrees.")
    width = serializers.FloatField(help_text="Paper mm.")
    colour = serializers.CharField()
    screen = serializers.IntegerField(help_text="Per cent.")
    lines = HatchLineSerializer(many=True, help_text="None for no hatch.")


class PathItemSerializer(serializers.Serializer):
    type = serializers.ChoiceField(choices=["path"])
    points = _points()
    pen = PenSerializer()
    closed = serializers.BooleanField()
    viewport = serializers.CharField(help_text="The viewport it belongs to; blank for none.")


class FillItemSerializer(serializers.Serializer):
    type = serializers.ChoiceField(choices=["fill"])
    rings = serializers.ListField(child=_points())
    colour = serializers.CharField()
    viewport = serializers.CharField(help_text="The viewport it belongs to; blank for none.")


class TextItemSerializer(serializers.Serializer):
    type = serializers.ChoiceField(choices=["text"])
    at = serializers.ListField(child=serializers.FloatField())
    text = serializers.CharField()
    size = serializers.FloatField(help_text="Height of a capital, paper mm.")
    colour = serializers.CharField()
    anchor = serializers.ChoiceField(choices=["start", "middle", "end"])
    bold = serializers.BooleanField()
    viewport = serializers.CharField(help_text="The viewport it belongs to; blank for none.")


class DrawingItemSerializer(serializers.Serializer):
    """Linework at paper = place + ratio * (u, v) turned, clipped."""

    type = serializers.ChoiceField(choices=["drawing"])
    viewport = serializers.CharField()
    linework = serializers.CharField(help_text="The key of its geometry.")
    clip = _points()
    ratio = serializers.FloatField(help_text="Paper mm for one real mm.")
    place = serializers.ListField(child=serializers.FloatField())
    pens = serializers.DictField(child=PenSerializer(), help_text="By line role.")
    layers = serializers.DictField(child=PenChangeSerializer(), help_text="How the pens of some layers differ.")
    cuts = CutItemSerializer(many=True, help_text="For each material the first that matches it.")
    turn = serializers.FloatField(help_text="Degrees anticlockwise, about `place`.")
    outline = PenSerializer(allow_null=True, help_text="The pen that the clip is drawn with, if it is.")
    opaque = serializers.BooleanField(help_text="Whether what lies below is hidden.")


class ImageItemSerializer(serializers.Serializer):
    """A picture of pixels."""

    type = serializers.ChoiceField(choices=["image"])
    picture = serializers.CharField(help_text="Its id, or `logo`.")
    box = SpaceSerializer()


_DisplayItem = PolymorphicProxySerializer(
    component_name="DisplayItem",
    serializers={
        "path": PathItemSerializer,
        "fill": FillItemSerializer,
        "text": TextItemSerializer,
        "image": ImageItemSerializer,
        "drawing": DrawingItemSerializer,
    },
    resource_type_field_name="type",
    many=True,
)


class LinkSerializer(serializers.Serializer):
    """A mark that points to another view."""

    viewport = serializers.CharField(help_text="In which it lies.")
    view = serializers.CharField()
    at = serializers.ListField(child=serializers.FloatField(), help_text="Paper mm.")


class FieldBoxSerializer(serializers.Serializer):
    """Where a field of the title block stands."""

    field = serializers.CharField()
    box = SpaceSerializer()
    typed = serializers.BooleanField(help_text="Whether it is typed over on this sheet alone.")


class TitleBoxSerializer(serializers.Serializer):
    """Where the drawing title of a viewport lies."""

    viewport = serializers.CharField()
    box = SpaceSerializer()


class DisplayListSerializer(serializers.Serializer):
    width = serializers.FloatField(help_text="Paper mm.")
    height = serializers.FloatField(help_text="Paper mm.")
    items = serializers.SerializerMethodField()
    links = LinkSerializer(many=True)
    tables = SpaceSerializer(many=True)
    fields = FieldBoxSerializer(many=True)
    titles = TitleBoxSerializer(many=True)
    frame = SpaceSerializer()
    shrink = serializers.FloatField(help_text="By how much parts are narrower on this paper.")

    @extend_schema_field(_DisplayItem)
    def get_items(self, display: Any) -> Any:
        return display["items"]
