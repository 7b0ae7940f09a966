"""Batches of changes as they are sent and answered."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

from server.changes.kinds import KINDS
from server.changes.models import HistoryEntry
from server.projects.serializers import OfOneProjectSerializer

#: A change of this many rows is no single edit.
MAX_STEPS = 2000


class StepSerializer(serializers.Serializer[Any]):
    """One row: made where `version` is 0, else changed from that version; deleted where `row` is null."""

    rows = serializers.ChoiceField(choices=list(KINDS))
    id = serializers.UUIDField()
    version = serializers.IntegerField(min_value=0, max_value=2**31 - 1)
    row = serializers.DictField(allow_null=True, help_text="All that a new row has, or what changes of one.")


class ChangesSerializer(serializers.Serializer[Any]):
    change = serializers.UUIDField(
        required=False, help_text="A name for it: sent again after a lost connection, it is not made again."
    )
    what = serializers.CharField(
        max_length=200, required=False, allow_blank=True, default="", help_text="What it comes to, in words."
    )
    steps = StepSerializer(many=True, allow_empty=False, max_length=MAX_STEPS)  # type: ignore[call-arg]


class ChangedSerializer(serializers.Serializer[Any]):
    rows = serializers.ListField(child=serializers.DictField(allow_null=True))


class KindsSerializer(OfOneProjectSerializer):
    """Of which project which kinds of rows are asked for."""

    kinds = serializers.ListField(child=serializers.ChoiceField(choices=list(KINDS)), min_length=1)


class UnreadableSerializer(serializers.Serializer[Any]):
    """A row that was damaged where it is stored."""

    rows = serializers.ChoiceField(choices=list(KINDS))
    id = serializers.UUIDField()
    name = serializers.CharField(
        help_text="What it is, its name where that can be read, and where it stands."
    )
    why = serializers.CharField()


#: Rows of a project by their kinds: those that were asked for.
RowsByKindSerializer = type(
    "RowsByKindSerializer",
    (serializers.Serializer,),
    {name: kind.serializer(many=True, required=False) for name, kind in KINDS.items()},
)


class HistoryEntrySerializer(serializers.ModelSerializer[HistoryEntry]):
    """Something that was done to a sheet or a view."""

    class Meta:
        model = HistoryEntry
        fields = ["id", "by", "what", "at"]
        read_only_fields = fields


class BackStepSerializer(serializers.Serializer[Any]):
    """One row on the way back: what of it is now, and what it is to be."""

    rows = serializers.ChoiceField(choices=list(KINDS))
    id = serializers.UUIDField()
    before = serializers.DictField(allow_null=True)
    after = serializers.DictField(allow_null=True)
