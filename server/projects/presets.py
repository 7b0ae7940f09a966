"""What is built in, as rows: written anew whenever the database is migrated."""

from __future__ import annotations

import uuid
from collections.abc import Mapping
from functools import cache
from typing import Any, TypeVar

from drafting.schema import dump
from server.projects.models import NamedRow

R = TypeVar("R", bound=NamedRow)
_NAMESPACE = uuid.UUID("6f0d7a52-3f0b-4f6e-9f0a-2f6d0e7d9c11")


@cache
def preset_id(model: type[NamedRow], key: str) -> uuid.UUID:
    """The id of a preset, the same in every installation."""
    return uuid.uuid5(_NAMESPACE, f"{model._meta.label_lower}/{key}")


def preset(model: type[R], key: str) -> R:
    """A preset by its key."""
    return model._default_manager.get(pk=preset_id(model, key))


def load_presets(model: Any, presets: Mapping[str, tuple[str, Any]]) -> None:
    """Write the rows of what is built in: names and the core's shapes, by key."""
    for key, (name, shape) in presets.items():
        model._default_manager.update_or_create(
            pk=preset_id(model, key),
            defaults={"key": key, "name": name, "spec": dump(shape), "project": None},
        )
