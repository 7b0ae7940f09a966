"""Views, subsets and line settings as they are received and sent."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from drafting.errors import ViewError
from drafting.received.facts import ReceivedFacts
from drafting.shading.appearance import Appearance
from drafting.touchup.simplification import Simplification
from drafting.views.line_settings import LineSettings
from drafting.views.shown import Shown
from drafting.views.spec import AnyView
from server.common.serializers import RowSerializer
from server.common.shapes import AppearanceField, ShapeField
from server.projects.serializers import OwnProjectField
from server.views.drawings import state_of
from server.views.models import STATES, NamedLineSettings, ReceivedFile, Subset, View


def shown_field(**given: Any) -> Any:
    """What is shown: what it names, and no more."""
    return PartialField(Shown, "choice of what is shown", ViewError, required=False, **given)


class PartialField(ShapeField):
    """Some values of a shape, of which only those are taken that were sent."""

    def to_internal_value(self, data: Any) -> Any:
        whole = super().to_internal_value(data)
        return {name: value for name, value in whole.items() if name in data}


class SubsetSerializer(RowSerializer):
    """A named group of elements, by their ids."""

    project = OwnProjectField()
    elements = serializers.ListField(
        child=serializers.CharField(max_length=64), min_length=1, max_length=100_000
    )

    class Meta:
        model = Subset
        fields = ["id", "project", "name", "elements", "version"]


class NamedLineSettingsSerializer(RowSerializer):
    """Line settings that are kept by name."""

    project = OwnProjectField()
    settings = ShapeField(LineSettings, "set of line settings", ViewError)

    class Meta:
        model = NamedLineSettings
        fields = ["id", "project", "name", "settings", "version"]


class AxesSerializer(serializers.Serializer[Any]):
    """The axes that a drawing is measured along, in the model's; the origin in mm."""

    right = serializers.ListField(child=serializers.FloatField())
    up = serializers.ListField(child=serializers.FloatField())
    origin = serializers.ListField(child=serializers.FloatField())


class ViewSerializer(RowSerializer):
    project = OwnProjectField()
    spec = ShapeField(AnyView, "view", ViewError, "ViewSpec")
    name = serializers.CharField(max_length=200, required=False)
    appearance = AppearanceField(Appearance, "view's appearance", required=False)
    simplification = ShapeField(Simplification, "rule", ViewError, required=False, allow_null=True)
    linework = serializers.CharField(source="linework_id", read_only=True, allow_null=True)
    wanted = serializers.CharField(read_only=True, help_text="The key of the drawing that it asks for now.")
    extents = serializers.SerializerMethodField()
    axes = AxesSerializer(source="linework.axes", read_only=True, default=None, allow_null=True)
    notes = serializers.SerializerMethodField()
    state = serializers.SerializerMethodField()
    drawn_from = serializers.IntegerField(
        source="drawn_from.number", required=False, default=None, allow_null=True,
        help_text="Number of the model version; heeded when a held view is made.",
    )  # fmt: skip

    class Meta:
        model = View
        fields = [
            "id", "project", "name", "spec", "position", "held", "subset", "appearance", "simplification",
            "drawn_from", "linework", "wanted", "extents", "axes", "notes", "state", "version",
        ]  # fmt: skip

    def validate(self, given: dict[str, Any]) -> dict[str, Any]:
        number = given.pop("drawn_from", {}).get("number")
        given = super().validate(given)
        return given if self.instance is not None else {**given, "drawn_from": number}

    @extend_schema_field(serializers.ListField(child=serializers.FloatField(), allow_null=True))
    def get_extents(self, view: View) -> list[float] | None:
        """Least u and v, greatest u and v of the drawing, mm."""
        return view.linework.extents if view.linework else None

    @extend_schema_field(serializers.ListField(child=serializers.CharField()))
    def get_notes(self, view: View) -> list[str]:
        return view.linework.notes if view.linework else []

    @extend_schema_field(serializers.ChoiceField(choices=STATES))
    def get_state(self, view: View) -> str:
        return state_of(view, view)


class SettingsForViewsSerializer(serializers.Serializer[Any]):
    """Settings for several views; what is not named stays as each has it."""

    views = serializers.ListField(child=serializers.UUIDField(), min_length=1, max_length=500)
    line_settings = PartialField(LineSettings, "set of line settings", ViewError, required=False)
    shown = shown_field()


class ReceivedFileSerializer(serializers.ModelSerializer[ReceivedFile]):
    """The file of a drawing from others."""

    facts = ShapeField(ReceivedFacts, "drawing from others", read_only=True)

    class Meta:
        model = ReceivedFile
        fields = ["id", "project", "name", "file", "facts", "job", "created"]
        read_only_fields = fields


class ReceivedUploadSerializer(serializers.Serializer[Any]):
    """A drawing from others that is to be brought in."""

    project = OwnProjectField()
    upload = serializers.FileField()
