"""Every kind of view, and a view as plain data. A new kind is a module of its own and a name in `AnyView`."""

from __future__ import annotations

from typing import Annotated, Any, Literal, get_args

from pydantic import Field

from drafting.errors import ViewError
from drafting.schema import dump, parse
from drafting.views.axonometric import Axonometric
from drafting.views.detail import Detail
from drafting.views.elevation import Elevation
from drafting.views.perspective import Perspective
from drafting.views.plan import Plan, RoofPlan
from drafting.views.received import Received
from drafting.views.section import Section

AnyView = Annotated[
    Plan | RoofPlan | Elevation | Section | Axonometric | Perspective | Detail | Received,
    Field(discriminator="kind"),
]
Kind = Literal["plan", "roof", "elevation", "section", "axonometric", "perspective", "detail", "received"]
KINDS: tuple[Kind, ...] = get_args(Kind)


def parse_view_spec(given: Any) -> AnyView:
    """The view that `dump_view` wrote.

    Raises:
        ViewError: a figure is missing, unknown or out of bounds.
    """
    if not isinstance(given, dict) or given.get("kind") not in KINDS:
        raise ViewError(f"A view has a kind: {', '.join(KINDS)}.")
    view: AnyView = parse(AnyView, given, given["kind"], ViewError)
    return view


def dump_view(view: AnyView) -> dict[str, Any]:
    """A view as plain data; equal views give equal data."""
    data: dict[str, Any] = dump(view)
    return data
