"""Shapes that cross a border, each described once: the core's frozen dataclasses with annotated fields.

From that one description come validation, plain data for JSON columns and files, and the API's schema.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import cache
from typing import Annotated, Any, TypeVar

from pydantic import ConfigDict, Field, TypeAdapter, ValidationError

from drafting.errors import DraftingError

T = TypeVar("T")

#: For a dataclass that crosses a border: a field it does not have is refused, and one it has is always sent.
CLOSED = ConfigDict(extra="forbid", json_schema_serialization_defaults_required=True)

#: A number as JSON has it: neither text nor true or false, and finite.
Number = Annotated[float, Field(strict=True, allow_inf_nan=False)]
Whole = Annotated[int, Field(strict=True)]
Flag = Annotated[bool, Field(strict=True)]
Colour = Annotated[str, Field(pattern=r"^#[0-9a-f]{6}$", description="Such as #1b1f24.")]
#: A colour, or blank for none.
ColourOrNone = Annotated[
    str, Field(pattern=r"^(#[0-9a-f]{6})?$", description="Such as #1b1f24; blank for none.")
]


@cache
def adapter(shape: Any) -> TypeAdapter[Any]:
    """What validates and serialises a shape; made once."""
    return TypeAdapter(shape)


def parse(shape: Any, given: Any, what: str, error: type[DraftingError]) -> Any:
    """Plain data as one of the core's shapes.

    Args:
        shape: a dataclass, or a union of some.
        what: how the thing is called in a sentence, such as “pen table”.
        error: raised where the data are none.

    Raises:
        DraftingError: of the type `error`: a sentence about the first fault, and every fault by its field.
    """
    try:
        return adapter(shape).validate_python(given)
    except ValidationError as invalid:
        faults = [(_path(fault["loc"], given), _sentence(fault)) for fault in invalid.errors()]
        path, first = faults[0]
        where = f", {path.replace('_', ' ').replace('.', ' ')}" if path else ""
        raise error(f"{what[:1].upper()}{what[1:]}{where}: {first}", {p: s for p, s in faults if p}) from None


def dump(value: Any, shape: Any = None) -> Any:
    """A shape as plain data, fit for JSON, as `parse` takes it. What is None is left out; equal values give
    equal data.

    `shape` is wanted where the value's own type does not tell it all, as for a union.
    """
    wanted: Any = type(value) if shape is None else shape
    return adapter(wanted).dump_python(value, mode="json", exclude_none=True)


def dump_json(value: Any) -> bytes:
    """A shape as JSON: what `dump` gives, without a Python object for each part of it."""
    shape: Any = type(value)
    return adapter(shape).dump_json(value, exclude_none=True)


def _path(parts: Sequence[int | str], given: Any) -> str:
    """Where a fault is, without the names of a union's branches, which no user has typed."""
    path: list[str] = []
    for k, part in enumerate(parts):
        if isinstance(given, Mapping):
            if part not in given and k < len(parts) - 1:
                continue  # the branch of a union
            given = given.get(part)
        elif isinstance(given, Sequence) and isinstance(part, int) and part < len(given):
            given = given[part]
        path.append(str(part))
    return ".".join(path)


def _sentence(fault: Any) -> str:
    kind, context, given = fault["type"], fault.get("ctx", {}), _shown(fault["input"])
    if kind in ("missing", "missing_argument", "missing_keyword_only_argument"):
        return "it is missing; give it."
    if kind in ("extra_forbidden", "unexpected_keyword_argument"):
        return "there is no such thing here; leave it out."
    if kind in ("literal_error", "enum"):
        return f"{given} is none of {context['expected']}."
    if kind.startswith("union_tag"):
        expected = context.get("expected_tags", "")
        return f"{given} is none of {expected}." if expected else "it does not say its kind."
    bounds = {
        "greater_than_equal": ("ge", "of at least"), "less_than_equal": ("le", "of at most"),
        "greater_than": ("gt", "above"), "less_than": ("lt", "below"),
    }  # fmt: skip
    if kind in bounds:
        name, words = bounds[kind]
        return f"give a number {words} {context[name]:g}, not {given}."
    if kind.startswith(("float", "int", "finite")):
        return f"give a number, not {given}."
    if kind.startswith("bool"):
        return f"give true or false, not {given}."
    if kind == "string_pattern_mismatch":
        return (
            f"{given} is no colour such as #1b1f24."
            if "#" in context["pattern"]
            else f"{given} cannot be used."
        )
    if kind in ("string_too_long", "too_long"):
        return f"at most {context['max_length']} are possible."
    if kind in ("string_too_short", "too_short"):
        return f"at least {context['min_length']} are needed."
    if kind.startswith("string"):
        return f"give text, not {given}."
    if kind.startswith(("tuple", "list")):
        return f"give a list, not {given}."
    if kind.startswith(("dict", "dataclass")):
        return f"give named values, not {given}."
    return f"{fault['msg'].removeprefix('Value error, ')}."


def _shown(given: Any) -> str:
    text = given if isinstance(given, str) else repr(given)
    plain = text.encode("utf-8", "replace").decode()
    return f"“{plain[:40]}…”" if len(plain) > 40 else f"“{plain}”"
