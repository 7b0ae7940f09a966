"""The core's shapes in the API: one field that validates and serialises them, and tells the schema what they
are."""

from __future__ import annotations

from typing import Any

from drf_spectacular.extensions import OpenApiSerializerExtension, OpenApiSerializerFieldExtension
from drf_spectacular.openapi import AutoSchema
from drf_spectacular.plumbing import ResolvedComponent
from rest_framework import serializers

from drafting.errors import DraftingError, SheetError
from drafting.schema import adapter, dump, parse
from drafting.shading.appearance import Appearance


class ShapeField(serializers.Field[Any, Any, Any, Any]):
    """Plain data of one of the core's shapes, which checks it and says in its own words what is wrong.

    Args:
        shape: a dataclass of the core, or a union of some.
        what: how the thing is called in a sentence.
        name: the component that a union has in the schema; a dataclass has its own name.
    """

    def __init__(
        self, shape: Any, what: str, error: type[DraftingError] = SheetError, name: str = "", **kwargs: Any
    ) -> None:
        self.shape, self.what, self.error, self.component = shape, what, error, name
        super().__init__(**kwargs)

    def __deepcopy__(self, memo: dict[int, Any]) -> ShapeField:
        """Each serializer has fields of its own, but of the same shapes: what validates a shape is made once,
        takes long and much memory, and would be made again for a copy."""
        return type(self)(*self._args, **self._kwargs)  # type: ignore[attr-defined]

    def to_internal_value(self, data: Any) -> Any:
        try:
            return dump(parse(self.shape, data, self.what, self.error), self.shape)
        except DraftingError as error:
            # Its own field stands before those that the core names.
            fields = {f"{self.field_name}.{path}": words for path, words in error.fields.items()}
            raise type(error)(str(error), fields or {str(self.field_name): str(error)}) from error

    def to_representation(self, value: Any) -> Any:
        return value


class AppearanceField(ShapeField):
    """What a view or a viewport shows: lines, colours, light; blank data for lines."""

    def to_internal_value(self, data: Any) -> Any:
        appearance = super().to_internal_value(data)
        return {} if appearance == dump(Appearance()) else appearance

    def to_representation(self, value: Any) -> Any:
        return {**dump(Appearance()), **value}


class ShapeFieldExtension(OpenApiSerializerFieldExtension):  # type: ignore[no-untyped-call]
    """The schema of a shape, with the shapes within it as components of their own."""

    target_class = ShapeField
    match_subclasses = True

    def map_serializer_field(self, auto_schema: AutoSchema, direction: str) -> dict[str, Any]:
        field: ShapeField = self.target
        return shape_schema(auto_schema, field.shape, direction, field.component)


class ShapeSerializer(serializers.Serializer[Any]):
    """An answer that is one of the core's shapes as a whole; the core makes it."""

    shape: Any

    def to_representation(self, instance: Any) -> Any:
        return dump(instance, self.shape)


class ShapeSerializerExtension(OpenApiSerializerExtension):  # type: ignore[no-untyped-call]
    """The schema of an answer that is a shape."""

    target_class = ShapeSerializer
    match_subclasses = True

    def get_name(self, auto_schema: AutoSchema, direction: str) -> str:
        named: str = type(self.target).__name__ if not isinstance(self.target, type) else self.target.__name__
        return named.removesuffix("Serializer")

    def map_serializer(self, auto_schema: AutoSchema, direction: str) -> dict[str, Any]:
        schema = adapter(self.target.shape).json_schema(
            mode="serialization", ref_template="#/components/schemas/{model}"
        )
        for key, part in schema.pop("$defs", {}).items():
            _register(auto_schema, key, _tidied(part, requested=False))
        return _tidied(schema, requested=False)


def shape_schema(auto_schema: AutoSchema, shape: Any, direction: str, name: str = "") -> dict[str, Any]:
    """A reference to a shape's component, which is registered with all that it is made of."""
    requested = direction == "request"
    suffix = "Request" if requested else ""
    schema = adapter(shape).json_schema(
        mode="validation" if requested else "serialization",
        ref_template=f"#/components/schemas/{{model}}{suffix}",
    )
    for key, part in schema.pop("$defs", {}).items():
        _register(auto_schema, f"{key}{suffix}", _tidied(part, requested))
    own = name or schema.get("title", "")
    if "$ref" in schema or not own:
        return _tidied(schema, requested)
    return _register(auto_schema, f"{own}{suffix}", _tidied(schema, requested))


def _register(auto_schema: AutoSchema, name: str, schema: dict[str, Any]) -> dict[str, Any]:
    component: Any = ResolvedComponent(  # type: ignore[no-untyped-call]
        name=name, type=ResolvedComponent.SCHEMA, object=name, schema=schema
    )
    auto_schema.registry.register_on_missing(component)
    return {"$ref": f"#/components/schemas/{name}"}


def _tidied(schema: dict[str, Any], requested: bool) -> dict[str, Any]:
    """Without the titles that the types' generator has no use for; what may be None is left out of an answer,
    and so it is not required there."""

    def visit(node: Any) -> Any:
        if isinstance(node, list):
            return [visit(item) for item in node]
        if not isinstance(node, dict):
            return node
        kept = {
            key: visit(value)
            for key, value in node.items()
            if not (key == "title" and isinstance(value, str)) and not (key == "default" and value is None)
        }
        options = kept.get("anyOf", ())
        if isinstance(options, list) and {"type": "null"} in options and not requested:
            rest = [option for option in options if option != {"type": "null"}]
            kept.pop("anyOf")
            kept |= rest[0] if len(rest) == 1 else {"anyOf": rest}
        properties = node.get("properties")
        if isinstance(properties, dict) and "required" in kept and not requested:
            nullable = {
                name for name, part in properties.items() if {"type": "null"} in part.get("anyOf", ())
            }
            kept["required"] = [name for name in kept["required"] if name not in nullable]
        return kept

    tidied: dict[str, Any] = visit(schema)
    return tidied
