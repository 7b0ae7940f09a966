"""Model versions as they are sent, and files as they are received."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from drafting.building.units import UNITS
from server.buildings.models import ImportJob, ModelVersion
from server.projects.serializers import OwnProjectField


class StoreySerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    elevation = serializers.FloatField(help_text="Of the floor, mm.")


class OwnAxesSerializer(serializers.Serializer[Any]):
    """Where the building's own axes lie in others."""

    origin = serializers.ListField(child=serializers.FloatField(), help_text="x, y and z; mm.")
    turn = serializers.FloatField(help_text="From the x axis there, counter-clockwise; degrees.")


class GivenSerializer(serializers.Serializer[Any]):
    """What was said of a file when it was imported; blank for what it says itself."""

    unit = serializers.CharField(allow_blank=True)
    up = serializers.CharField(allow_blank=True, help_text="Which of its axes points up.")
    ground = serializers.FloatField(
        required=False, allow_null=True, help_text="The level of the ground where it has no terrain, mm."
    )


class GridLineSerializer(serializers.Serializer[Any]):
    """A line of the building's grid: its name, and its ends in x and y, mm."""

    name = serializers.CharField()
    ends = serializers.ListField(
        child=serializers.ListField(child=serializers.FloatField()), min_length=2, max_length=2
    )


class FactsSerializer(serializers.Serializer[Any]):
    """What was found in a building file."""

    schema = serializers.CharField()
    unit = serializers.CharField(help_text="The unit of length that the file is written in.")
    elements = serializers.IntegerField()
    triangles = serializers.IntegerField()
    size = serializers.ListField(child=serializers.FloatField(), help_text="x, y and z, mm.")
    true_north = serializers.FloatField(
        required=False,
        allow_null=True,
        help_text="Degrees clockwise from the model's y axis; null if unknown.",
    )
    axes = OwnAxesSerializer(help_text="In the axes of the file.")
    on_grid = OwnAxesSerializer(
        allow_null=True, help_text="On the national grid; null if the file gives none."
    )
    given = GivenSerializer()
    has_ground = serializers.BooleanField(required=False, help_text="Whether there is terrain.")
    storeys = StoreySerializer(many=True)
    grid = GridLineSerializer(many=True)
    layers = serializers.DictField(child=serializers.IntegerField())
    colours = serializers.DictField(
        child=serializers.CharField(), required=False, help_text="Of each material, such as #b5651d."
    )
    textures = serializers.ListField(
        child=serializers.CharField(), required=False, help_text="Names of materials that have a texture."
    )
    classes = serializers.DictField(child=serializers.IntegerField())
    left_out = serializers.DictField(child=serializers.IntegerField())
    failed = serializers.ListField(
        child=serializers.CharField(),
        required=False,
        help_text="Names of those that could not be read.",
    )
    warnings = serializers.ListField(child=serializers.CharField())


class ChangedElementSerializer(serializers.Serializer[Any]):
    id = serializers.CharField()
    name = serializers.CharField()

    def get_fields(self) -> dict[str, Any]:
        return {**super().get_fields(), "class": serializers.CharField()}


class ModelChangesSerializer(serializers.Serializer[Any]):
    """What changed since the version before."""

    added = ChangedElementSerializer(many=True)
    removed = ChangedElementSerializer(many=True)
    moved = ChangedElementSerializer(many=True)
    reshaped = ChangedElementSerializer(many=True)


class ModelVersionSerializer(serializers.ModelSerializer[ModelVersion]):
    changes = serializers.SerializerMethodField()
    facts = serializers.SerializerMethodField()
    created_by = serializers.CharField(source="created_by.username", default="")

    class Meta:
        model = ModelVersion
        fields = [
            "id", "project", "number", "file_name", "file_size", "facts", "changes", "restored_from",
            "created",
            "created_by",
        ]  # fmt: skip
        read_only_fields = fields

    @extend_schema_field(ModelChangesSerializer(allow_null=True))
    def get_changes(self, version: ModelVersion) -> dict[str, Any] | None:
        return version.changes

    @extend_schema_field(FactsSerializer)
    def get_facts(self, version: ModelVersion) -> dict[str, Any]:
        facts: dict[str, Any] = version.facts
        return facts


class UploadSerializer(serializers.Serializer[Any]):
    project = OwnProjectField()
    file = serializers.FileField(allow_empty_file=True, max_length=250)
    unit = serializers.ChoiceField(
        choices=list(UNITS),
        required=False,
        allow_blank=True,
        help_text="Of the file's figures; blank for what it says.",
    )


class OtherUnitSerializer(serializers.Serializer[Any]):
    """Another unit that the figures of a file may be in, and the size that it gives."""

    unit = serializers.CharField()
    size = serializers.ListField(child=serializers.FloatField(), help_text="x, y and z, mm.")


class SizeQuestionSerializer(serializers.ModelSerializer[ImportJob]):
    """A file of an unlikely size, which waits for an answer before it becomes a version."""

    size = serializers.ListField(
        source="asks.size", child=serializers.FloatField(), help_text="x, y and z as read, mm."
    )
    before = serializers.ListField(
        source="asks.before",
        child=serializers.FloatField(),
        help_text="Of the version before.",
        allow_null=True,
    )
    units = serializers.SerializerMethodField()

    class Meta:
        model = ImportJob
        fields = ["job", "file_name", "size", "before", "units"]
        read_only_fields = fields

    @extend_schema_field(OtherUnitSerializer(many=True))
    def get_units(self, asked: ImportJob) -> list[dict[str, Any]]:
        return [{"unit": unit, "size": size} for unit, size in (asked.asks or {})["units"]]


class SizeAnswerSerializer(serializers.Serializer[Any]):
    """Whether a file of an unlikely size is used, and in which unit."""

    use = serializers.BooleanField()
    unit = serializers.ChoiceField(
        choices=list(UNITS),
        required=False,
        allow_blank=True,
        default="",
        help_text="Of the file's figures; blank for the one that it was read in.",
    )


class PlaceSerializer(serializers.Serializer[Any]):
    turn = serializers.FloatField(
        min_value=-360,
        max_value=360,
        allow_null=True,
        help_text="From the x axis of the file to the building's; degrees. Null to find the axes anew.",
    )
    origin = serializers.ListField(
        child=serializers.FloatField(min_value=-1e11, max_value=1e11),
        min_length=3,
        max_length=3,
        required=False,
        allow_null=True,
        help_text="x, y and z of the building's zero in the file, mm; as it is now where it is not given.",
    )
    up = serializers.ChoiceField(
        choices=["y", "z"],
        required=False,
        allow_blank=True,
        default="",
        help_text="Of a mesh file, which axis points up; blank for what its shape tells.",
    )
    ground = serializers.FloatField(
        min_value=-1e6,
        max_value=1e6,
        required=False,
        allow_null=True,
        help_text="The level of the ground where the file has no terrain, mm; null for none, as it is now "
        "where it is not given.",
    )
