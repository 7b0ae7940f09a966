"""Regions of a plane, each by the figures that it is drawn with: a circle, a rectangle, a polygon."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Annotated, Any, Literal

import shapely
from pydantic import Field

from drafting.schema import CLOSED, Number

#: Sides of the polygon that stands for a circle; 2 degrees between them.
CIRCLE_SIDES = 180

Point = tuple[Number, Number]


@dataclass(frozen=True)
class Circle:
    """A circle about a point; mm."""

    __pydantic_config__ = CLOSED

    centre: Point
    radius: Annotated[Number, Field(ge=1.0)]
    shape: Literal["circle"] = "circle"

    @property
    def outline(self) -> tuple[Point, ...]:
        """Its corners, anticlockwise."""
        (u, v), r = self.centre, self.radius
        turns = (2 * math.pi * k / CIRCLE_SIDES for k in range(CIRCLE_SIDES))
        return tuple((u + r * math.cos(t), v + r * math.sin(t)) for t in turns)

    @property
    def area(self) -> shapely.Polygon:
        return shapely.Polygon(self.outline)


@dataclass(frozen=True)
class Rectangle:
    """A rectangle along the axes between two opposite corners; mm."""

    __pydantic_config__ = CLOSED

    corner: Point
    opposite: Point
    shape: Literal["rectangle"] = "rectangle"

    def __post_init__(self) -> None:
        if min(abs(a - b) for a, b in zip(self.corner, self.opposite, strict=True)) < 1.0:
            raise ValueError("a region is at least 1 mm wide and high")

    @property
    def outline(self) -> tuple[Point, ...]:
        """Its corners."""
        (u0, v0), (u1, v1) = self.corner, self.opposite
        return (u0, v0), (u1, v0), (u1, v1), (u0, v1)

    @property
    def area(self) -> shapely.Polygon:
        (u0, v0), (u1, v1) = self.corner, self.opposite
        return shapely.box(min(u0, u1), min(v0, v1), max(u0, u1), max(v0, v1))


@dataclass(frozen=True)
class Polygon:
    """A polygon by its corners; mm."""

    __pydantic_config__ = CLOSED

    corners: Annotated[tuple[Point, ...], Field(min_length=3, max_length=400)]
    shape: Literal["polygon"] = "polygon"

    @property
    def outline(self) -> tuple[Point, ...]:
        """Its corners."""
        return self.corners

    @property
    def area(self) -> Any:
        return shapely.make_valid(shapely.Polygon(self.corners))


Region = Annotated[Circle | Rectangle | Polygon, Field(discriminator="shape")]
