"""Flights of stairs of an IFC file: how many risers, how high and how deep a step is."""

from __future__ import annotations

from typing import Any

import ifcopenshell.util.element

from drafting.building.climbs import Steps

#: Attributes and properties (Pset_StairFlightCommon) that tell each, in the words of IFC2x3 and of IFC4.
RISERS = ("NumberOfRisers", "NumberOfRiser")
RISE, GOING = ("RiserHeight",), ("TreadLength",)
#: No flight has more.
MAX_RISERS = 1_000


def read_steps(product: Any, unit: float) -> Steps:
    """What the file says of a flight. `unit` is mm of the file's unit of length."""
    sets: dict[str, dict[str, Any]] = ifcopenshell.util.element.get_psets(product, psets_only=True)
    properties = sets.get("Pset_StairFlightCommon", {})

    def told(names: tuple[str, ...]) -> float | None:
        found = [getattr(product, name, None) or properties.get(name) for name in names]
        return next((float(x) for x in found if isinstance(x, int | float) and x > 0), None)

    risers, rise, going = told(RISERS), told(RISE), told(GOING)
    return Steps(
        None if risers is None or risers > MAX_RISERS else round(risers),
        None if rise is None else rise * unit,
        None if going is None else going * unit,
    )
