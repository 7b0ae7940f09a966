"""The views that every building is drawn in."""

from __future__ import annotations

from collections.abc import Sequence

from drafting.views.axonometric import CORNERS, Axonometric
from drafting.views.elevation import SIDES, Elevation
from drafting.views.plan import Plan, RoofPlan
from drafting.views.spec import AnyView


def plain_set(storeys: Sequence[str]) -> list[AnyView]:
    """A plan for each storey, lowest first, the roof plan and four elevations."""
    return [*(Plan(storey) for storey in storeys), RoofPlan(), *(Elevation(side) for side in SIDES)]


def standard_set(storeys: Sequence[str]) -> list[AnyView]:
    """The plain set, and an axonometric from each of four corners."""
    return [*plain_set(storeys), *(Axonometric(corner) for corner in CORNERS)]


def missing_from(wanted: Sequence[AnyView], there: Sequence[AnyView]) -> list[AnyView]:
    """Those of the wanted views that nobody has made: none there looks the same way, however its lines are
    treated."""
    subjects = [view.subject for view in there]
    return [view for view in wanted if view.subject not in subjects]
