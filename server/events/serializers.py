"""What pages say and are told of as it happens."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

from server.events.telling import MAX_TAB

#: More that is held at once is not shown to others one by one.
MAX_HOLDING = 50


class PagePlaceSerializer(serializers.Serializer[Any]):
    """Where a page is: `tab` is the name that it gave itself when it began to listen."""

    project = serializers.UUIDField()
    tab = serializers.CharField(max_length=MAX_TAB)
    station = serializers.CharField(max_length=20, allow_blank=True)
    subject = serializers.CharField(
        max_length=36, allow_blank=True, help_text="The sheet or view that is open; blank for none."
    )
    holding = serializers.ListField(child=serializers.UUIDField(), max_length=MAX_HOLDING)


class PersonSerializer(serializers.Serializer[Any]):
    """Another page that is open in the project, and where it is."""

    tab = serializers.CharField()
    user = serializers.CharField()
    station = serializers.CharField()
    subject = serializers.CharField()
    holding = serializers.ListField(child=serializers.CharField())


class ChangedRowSerializer(serializers.Serializer[Any]):
    """A row as it is now; null where it is deleted."""

    topic = serializers.CharField(help_text="The kind of row, as batches of changes call it.")
    id = serializers.UUIDField()
    row = serializers.DictField(allow_null=True)


class EventSerializer(serializers.Serializer[Any]):
    """What one event says, as JSON in its data: `rows` has `rows`, `changed` has `topics`, `people` has
    `others`."""

    rows = ChangedRowSerializer(many=True, required=False)

    topics = serializers.ListField(
        child=serializers.CharField(), required=False, help_text="Kinds of rows, or jobs, that have changed."
    )
    others = PersonSerializer(many=True, required=False)
