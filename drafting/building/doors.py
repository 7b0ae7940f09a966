"""Doors: how each opens, from what the open building-model standard says of it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Self

Point3 = tuple[float, float, float]

#: A leaf of a swinging door: where along the width its hinge is and where its free edge, as shares of the
#: width, and to which side it opens: 1 the side that the door faces, -1 the other.
Leaf = tuple[float, float, int]

#: Leaves by operation type (IfcDoorTypeOperationEnum, ISO 16739-1): left and right as seen from behind,
#: looking the way that the door opens.
SWINGING: dict[str, tuple[Leaf, ...]] = {
    "SINGLE_SWING_LEFT": ((0.0, 1.0, 1),),
    "SINGLE_SWING_RIGHT": ((1.0, 0.0, 1),),
    "DOUBLE_SWING_LEFT": ((0.0, 1.0, 1), (0.0, 1.0, -1)),
    "DOUBLE_SWING_RIGHT": ((1.0, 0.0, 1), (1.0, 0.0, -1)),
    "DOUBLE_DOOR_SINGLE_SWING": ((0.0, 0.5, 1), (1.0, 0.5, 1)),
    "DOUBLE_DOOR_DOUBLE_SWING": ((0.0, 0.5, 1), (1.0, 0.5, 1), (0.0, 0.5, -1), (1.0, 0.5, -1)),
    "DOUBLE_DOOR_SINGLE_SWING_OPPOSITE_LEFT": ((0.0, 0.5, 1), (1.0, 0.5, -1)),
    "DOUBLE_DOOR_SINGLE_SWING_OPPOSITE_RIGHT": ((0.0, 0.5, -1), (1.0, 0.5, 1)),
    "SWING_FIXED_LEFT": ((0.0, 0.5, 1),),
    "SWING_FIXED_RIGHT": ((1.0, 0.5, 1),),
}
#: Leaves that slide: from where to where each reaches when it is closed, and which way it goes, 1 along the
#: width and -1 against it.
SLIDING: dict[str, tuple[Leaf, ...]] = {
    "SLIDING_TO_LEFT": ((0.0, 1.0, -1),),
    "SLIDING_TO_RIGHT": ((0.0, 1.0, 1),),
    "DOUBLE_DOOR_SLIDING": ((0.0, 0.5, -1), (0.5, 1.0, 1)),
}
#: Leaves that fold: from the jamb that they are hung on to where they reach when they are closed.
FOLDING: dict[str, tuple[tuple[float, float], ...]] = {
    "FOLDING_TO_LEFT": ((0.0, 1.0),),
    "FOLDING_TO_RIGHT": ((1.0, 0.0),),
    "DOUBLE_DOOR_FOLDING": ((0.0, 0.5), (1.0, 0.5)),
}
REVOLVING = "REVOLVING"
#: Doors that go up: rolled, or as one leaf.
RISING = ("ROLLINGUP", "LIFTING_HORIZONTAL", "LIFTING_VERTICAL_LEFT", "LIFTING_VERTICAL_RIGHT")
OPERATIONS = frozenset({*SWINGING, *SLIDING, *FOLDING, REVOLVING, *RISING})


@dataclass(frozen=True)
class InOpening:
    """What fills an opening and opens.

    Attributes:
        corner: where its width begins, at its foot, on the face of its frame to which it opens; mm.
        along: unit vector along its width.
        into: level unit vector to the side to which it opens.
        width, height, depth: of its frame, along the width, upward and through the wall; mm.
    """

    corner: Point3
    along: Point3
    into: Point3
    width: float
    height: float
    depth: float

    def scaled(self, by: float) -> Self:
        """The same where all of the file's figures are so many times as large."""
        x, y, z = self.corner
        return replace(
            self,
            corner=(x * by, y * by, z * by),
            width=self.width * by,
            height=self.height * by,
            depth=self.depth * by,
        )


@dataclass(frozen=True)
class Door(InOpening):
    """A door in its opening; `operation` is one of OPERATIONS."""

    operation: str


def operation_of(names: Iterable[str | None]) -> str:
    """The first of the standard's names that says how a door opens, as IFC4 has it; blank where none does.

    >>> operation_of([None, "NOTDEFINED", "DOUBLE_PANEL_SLIDING"])
    'DOUBLE_DOOR_SLIDING'
    """
    for name in names:
        plain = (name or "").replace("DOUBLE_PANEL", "DOUBLE_DOOR")
        if plain in OPERATIONS:
            return plain
    return ""
