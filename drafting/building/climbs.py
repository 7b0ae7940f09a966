"""Flights of stairs and ramps as plans tell of them: where each begins, its way up, how steep it is."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

#: Classes of what people go up (ISO 16739-1).
STAIR_CLASSES = ("IfcStair", "IfcStairFlight")
RAMP_CLASSES = ("IfcRamp", "IfcRampFlight")

Point = tuple[float, float]


@dataclass(frozen=True)
class Steps:
    """What a file says of a flight: how many risers, and how high and deep a step is, mm; None for what it
    does not say."""

    risers: int | None = None
    rise: float | None = None
    going: float | None = None


@dataclass(frozen=True)
class Climb:
    """A flight or ramp.

    Attributes:
        id: of its element.
        foot: x and y of where it begins; mm.
        way: unit vector of the way up in plan.
        width: across the way; mm.
        floor, top: heights of its first and last level over the model's zero; mm.
        steps: of a flight.
        slope: of a ramp, its rise to its run; None for a flight.
    """

    id: str
    foot: Point
    way: Point
    width: float
    floor: float
    top: float
    steps: Steps = Steps()
    slope: float | None = None


def climb_from(kept: Mapping[str, Any]) -> Climb:
    """The climb that `asdict` made plain, also after JSON."""
    (x, y), (u, v) = kept["foot"], kept["way"]
    return Climb(**{**kept, "foot": (x, y), "way": (u, v), "steps": Steps(**kept["steps"])})
