"""Serializers of rows that people change."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from rest_framework import serializers
from rest_framework.request import Request


def given_by(form: type[serializers.Serializer[Any]], request: Request) -> dict[str, Any]:
    """What a request was sent, as a form reads it.

    Raises:
        ValidationError: it does not hold.
    """
    read = form(data=request.data, context={"request": request})
    read.is_valid(raise_exception=True)
    return dict(read.validated_data)


#: In the context of a serializer that makes several rows: the ids that are taken.
TAKEN = "taken"


class RowSerializer(serializers.ModelSerializer[Any]):
    """Reads and writes the fields of a row; a service decides what becomes of them. A row keeps its id and
    whatever else Meta names as `fixed`."""

    id = serializers.UUIDField(required=False)
    version = serializers.IntegerField(required=False, help_text="The version that this change is made from.")

    def validate(self, given: dict[str, Any]) -> dict[str, Any]:
        meta: Any = self.Meta
        model = meta.model
        what = str(model._meta.verbose_name)
        if self.instance is None:
            given.pop("version", None)
            if "id" in given and self._is_taken(given["id"]):
                raise serializers.ValidationError({"id": f"There is a {what} with this id already."})
            return given
        given.pop("id", None)
        for name in getattr(meta, "fixed", ("project",)):
            if given.pop(name, getattr(self.instance, name)) != getattr(self.instance, name):
                raise serializers.ValidationError({name: f"A {what} stays in its {name}."})
        return given

    def _is_taken(self, pk: UUID) -> bool:
        meta: Any = self.Meta
        taken: set[UUID] | None = self.context.get(TAKEN)
        return pk in taken if taken is not None else meta.model.objects.filter(pk=pk).exists()
