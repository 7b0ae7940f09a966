"""Boxes along the axes of a plane."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from drafting.schema import CLOSED, Number

Point = tuple[float, float]


@dataclass(frozen=True)
class Box:
    """A rectangle: its lower left corner and its size, mm."""

    __pydantic_config__ = CLOSED

    x: Number
    y: Number
    width: Number
    height: Number

    @property
    def right(self) -> float:
        return self.x + self.width

    @property
    def top(self) -> float:
        return self.y + self.height

    @property
    def middle(self) -> Point:
        return self.x + self.width / 2, self.y + self.height / 2

    @property
    def corners(self) -> tuple[Point, ...]:
        """Anticlockwise from the lower left."""
        return (self.x, self.y), (self.right, self.y), (self.right, self.top), (self.x, self.top)

    @property
    def outside(self) -> tuple[Box, ...]:
        """What lies around it, as far as any paper reaches: left, right, below, above."""
        far = 10_000.0
        return (
            Box(self.x - far, self.y - far, far, 2 * far),
            Box(self.right, self.y - far, far, 2 * far),
            Box(self.x - far, self.y - far, 2 * far, far),
            Box(self.x - far, self.top, 2 * far, far),
        )

    def meets(self, other: Box) -> bool:
        """Whether the two share more than an edge.

        >>> Box(0, 0, 10, 10).meets(Box(10, 0, 5, 5))
        False
        """
        return self.x < other.right and other.x < self.right and self.y < other.top and other.y < self.top

    def holds(self, other: Box) -> bool:
        """Whether the other lies wholly within."""
        return self.x <= other.x and self.y <= other.y and self.right >= other.right and self.top >= other.top


def box_about(points: Iterable[Point]) -> Box:
    """The smallest box that holds all of some points, of which there is at least one.

    >>> box_about([(10.0, 5.0), (0.0, 25.0)])
    Box(x=0.0, y=5.0, width=10.0, height=20.0)
    """
    xs, ys = zip(*points, strict=True)
    return Box(min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys))


def union(boxes: Iterable[Box]) -> Box:
    """The least box that holds some boxes, of which there is one at least.

    >>> union([Box(0, 0, 1, 1), Box(4, 2, 1, 1)])
    Box(x=0, y=0, width=5, height=3)
    """
    boxes = list(boxes)
    x, y = min(b.x for b in boxes), min(b.y for b in boxes)
    return Box(x, y, max(b.right for b in boxes) - x, max(b.top for b in boxes) - y)


def intersection(a: Box, b: Box) -> Box | None:
    """What two boxes share; None where that is no more than an edge.

    >>> intersection(Box(0, 0, 10, 10), Box(8, 5, 10, 10))
    Box(x=8, y=5, width=2, height=5)
    """
    if not a.meets(b):
        return None
    x, y = max(a.x, b.x), max(a.y, b.y)
    return Box(x, y, min(a.right, b.right) - x, min(a.top, b.top) - y)
