"""The API of rows that a project keeps by name."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from rest_framework import serializers

from server.config.versioned import VersionedSerializer
from server.projects.api import OwnProjectField


class NamedSerializer(VersionedSerializer):
    """A row that stays in its project, under the id that it was made with."""

    id = serializers.UUIDField(required=False)
    project = OwnProjectField()

    def validate(self, given: dict[str, Any]) -> dict[str, Any]:
        model = self.Meta.model
        what = str(model._meta.verbose_name)
        if self.instance is None:
            if "id" in given and model.objects.filter(pk=given["id"]).exists():
                raise serializers.ValidationError({"id": f"There is one with this id already: a {what}."})
            return given
        given.pop("id", None)
        if given.pop("project", self.instance.project) != self.instance.project:
            raise serializers.ValidationError({"project": f"Its project keeps it: a {what} cannot go to another."})
        return given


def unnamed(core: Any) -> dict[str, Any]:
    """The plain data of one of the core's types, but for its name, which is a column of its row."""
    return {key: value for key, value in core.as_dict().items() if key != "name"}


def shipped_rows(shipped: Mapping[str, Any]) -> list[dict[str, Any]]:
    """Those of the core that ship, as the API tells them."""
    return [{"key": key, "name": core.name, "spec": unnamed(core)} for key, core in shipped.items()]


class CoreField(serializers.JSONField):
    """Plain data of one of the core's types, which checks it and says in its own words what is wrong."""

    def __init__(self, core: Any, **kwargs: Any) -> None:
        self.core = core
        super().__init__(**kwargs)

    def to_internal_value(self, data: Any) -> Any:
        given = super().to_internal_value(data)
        return unnamed(self.core.from_dict({**given, "name": ""} if isinstance(given, dict) else given))
