"""The views that every building is drawn in."""

from __future__ import annotations

from collections.abc import Sequence

from drafting.views.spec import CORNERS, SIDES, ViewSpec


def plain_set(storeys: Sequence[str]) -> list[ViewSpec]:
    """A plan for each storey, lowest first, the roof plan and four elevations."""
    return [
        *(ViewSpec("plan", storey=storey) for storey in storeys),
        ViewSpec("roof"),
        *(ViewSpec("elevation", side=side) for side in SIDES),
    ]


def standard_set(storeys: Sequence[str]) -> list[ViewSpec]:
    """The plain set, and an axonometric from each of four corners."""
    return [*plain_set(storeys), *(ViewSpec("axonometric", corner=corner) for corner in CORNERS)]


def missing_from(wanted: Sequence[ViewSpec], there: Sequence[ViewSpec]) -> list[ViewSpec]:
    """Those of the wanted views that nobody has made: none there looks the same way, however its lines are treated."""
    looks = [_look(view) for view in there]
    return [view for view in wanted if _look(view) not in looks]


def _look(view: ViewSpec) -> dict[str, object]:
    """What makes a plan of a storey that plan: not its cut height, its treatment or what it shows."""
    kept = view.as_dict()
    return {
        name: kept[name] for name in ("kind", "storey", "side", "corner", "bearing", "near", "line") if name in kept
    }
