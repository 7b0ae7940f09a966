"""Rows that several people may change: each carries a version, and a write from an older one is refused."""

from __future__ import annotations

from typing import Any

from django.db import models, transaction
from rest_framework import serializers

from server.config.problems import Conflict


class VersionedModel(models.Model):
    """A row whose version grows with every change."""

    version = models.PositiveIntegerField(default=1, editable=False)

    class Meta:
        abstract = True


class VersionedSerializer(serializers.ModelSerializer):
    """Asks for the version that a change was made from, and raises it.

    Raises:
        Conflict: the row has been changed since.
    """

    version = serializers.IntegerField(required=False, help_text="The version that this change is made from.")

    def create(self, validated_data: dict[str, Any]) -> Any:
        validated_data.pop("version", None)
        return super().create(validated_data)

    def update(self, instance: Any, validated_data: dict[str, Any]) -> Any:
        with transaction.atomic():
            current = type(instance).objects.get(pk=instance.pk)
            made_from = validated_data.pop("version", None)
            if made_from is None:
                raise serializers.ValidationError({"version": "Say which version this change is made from."})
            if made_from != current.version:
                raise Conflict(dict(type(self)(current, context=self.context).data))
            validated_data["version"] = current.version + 1
            return super().update(current, validated_data)
