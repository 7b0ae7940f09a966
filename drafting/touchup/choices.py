"""What a touch-up chooses of a drawing, told by what it is. A new kind is a class here and its place in
`AnyChoice`."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Literal, Self

import numpy as np
from pydantic import Field

from drafting.annotation.anchors import MAX_ID, ON, Anchor
from drafting.geometry.boxes import Point
from drafting.linework.model import ROLES, Role
from drafting.schema import CLOSED, Number
from drafting.styles.redrawn import runs_of
from drafting.touchup.drawing import NOTHING, Chosen, TouchedDrawing

ElementId = Annotated[str, Field(min_length=1, max_length=MAX_ID)]
Name = Annotated[str, Field(max_length=MAX_ID)]
Length = Annotated[Number, Field(gt=0, description="Real mm.")]


class BaseChoice(ABC):
    """Lines or areas of a drawing, found again in another drawing of the same view."""

    @property
    def anchors(self) -> tuple[Anchor, ...]:
        """All that it is attached to."""
        return ()

    def attached_to(self, anchors: Sequence[Anchor]) -> Self:
        """The same attached to others, as many as it has."""
        return self

    @abstractmethod
    def chosen(self, drawing: TouchedDrawing) -> Chosen:
        """What of a drawing it chooses; nothing where that is no longer there."""


@dataclass(frozen=True)
class StretchChoice(BaseChoice):
    """What an element draws along a straight line, from one anchor to another."""

    __pydantic_config__ = CLOSED

    element: ElementId
    start: Anchor
    end: Anchor
    kind: Literal["stretch"] = "stretch"

    @property
    def anchors(self) -> tuple[Anchor, ...]:
        return self.start, self.end

    def attached_to(self, anchors: Sequence[Anchor]) -> Self:
        return replace(self, start=anchors[0], end=anchors[1])

    def chosen(self, drawing: TouchedDrawing) -> Chosen:
        start, end = drawing.place(self.start), drawing.place(self.end)
        return drawing.along(self.element, start, end) if start and end else NOTHING


@dataclass(frozen=True)
class RoundChoice(BaseChoice):
    """What an element draws at a distance from an anchor, which is its centre."""

    __pydantic_config__ = CLOSED

    element: ElementId
    centre: Anchor
    radius: Length
    kind: Literal["round"] = "round"

    @property
    def anchors(self) -> tuple[Anchor, ...]:
        return (self.centre,)

    def attached_to(self, anchors: Sequence[Anchor]) -> Self:
        return replace(self, centre=anchors[0])

    def chosen(self, drawing: TouchedDrawing) -> Chosen:
        centre = drawing.place(self.centre)
        return drawing.around(self.element, centre, self.radius) if centre else NOTHING


@dataclass(frozen=True)
class AlikeChoice(BaseChoice):
    """All lines that are alike in everything that is said here.

    Attributes:
        element: of this element.
        ifc_class: of elements of this class, such as IfcDoor.
        made_of: of elements of this material.
        layer, role: on this layer, of this line role.
        shorter: whose length is under this; mm.
    """

    __pydantic_config__ = CLOSED

    element: Name = ""
    ifc_class: Name = ""
    made_of: Name = ""
    layer: Name = ""
    role: Role | None = None
    shorter: Length | None = None
    kind: Literal["alike"] = "alike"

    def chosen(self, drawing: TouchedDrawing) -> Chosen:
        linework = drawing.linework
        packed = linework.packed
        alike = np.ones(len(packed), bool)
        if self.element:
            alike[:] = False
            alike[drawing.lines_of(self.element)] = True
        for wanted, names, numbers in (
            (self.ifc_class, linework.classes, packed.element),
            (self.made_of, linework.made_of, packed.element),
            (self.layer, linework.layers, packed.layer),
        ):
            if wanted:
                alike &= np.isin(numbers, [k for k, name in enumerate(names) if name == wanted])
        if self.role:
            alike &= packed.role == ROLES.index(self.role)
        if self.shorter is not None:
            alike &= drawing.lengths < self.shorter
        return Chosen(whole=runs_of(np.flatnonzero(alike)))

    @property
    def says_something(self) -> bool:
        return bool(self.element or self.ifc_class or self.made_of or self.layer or self.role or self.shorter)


@dataclass(frozen=True)
class InsideChoice(BaseChoice):
    """All lines of an element but its outline: what is left is the element simplified."""

    __pydantic_config__ = CLOSED

    element: ElementId
    kind: Literal["inside"] = "inside"

    def chosen(self, drawing: TouchedDrawing) -> Chosen:
        return drawing.within_outline(self.element)


@dataclass(frozen=True)
class AreaChoice(BaseChoice):
    """What is cut of an element: of one of its materials, or all of it where that is blank."""

    __pydantic_config__ = CLOSED

    element: ElementId
    material: Name = ""
    kind: Literal["area"] = "area"

    def chosen(self, drawing: TouchedDrawing) -> Chosen:
        return Chosen(areas=runs_of(drawing.areas_of(self.element, self.material)))


@dataclass(frozen=True)
class ExtensionChoice(BaseChoice):
    """What is missing of a straight line, from its end to where it meets another straight line.

    Attributes:
        element: of the line that is extended, from `start` to `end`; it goes on beyond its end.
        first, last: of the line that it is extended to, or of that line drawn out.
    """

    __pydantic_config__ = CLOSED

    element: ElementId
    start: Anchor
    end: Anchor
    first: Anchor
    last: Anchor
    kind: Literal["extension"] = "extension"

    @property
    def anchors(self) -> tuple[Anchor, ...]:
        return self.start, self.end, self.first, self.last

    def attached_to(self, anchors: Sequence[Anchor]) -> Self:
        start, end, first, last = anchors
        return replace(self, start=start, end=end, first=first, last=last)

    def chosen(self, drawing: TouchedDrawing) -> Chosen:
        places = [drawing.place(anchor) for anchor in self.anchors]
        if any(place is None for place in places):
            return NOTHING
        start, end, first, last = (place for place in places if place is not None)
        to = _crossing(start, end, first, last)
        of = drawing.along(self.element, start, end)
        lines = [line for run in of.whole for line in range(run[0], run[1] + 1)] + [p[0] for p in of.parts]
        if to is None or not lines:
            return NOTHING
        packed, linework = drawing.linework.packed, drawing.linework
        return Chosen(
            added=((end, to),),
            role=ROLES[packed.role[lines[0]]],
            layer=linework.layers[packed.layer[lines[0]]],
        )


AnyChoice = Annotated[
    StretchChoice | RoundChoice | AlikeChoice | InsideChoice | AreaChoice | ExtensionChoice,
    Field(discriminator="kind"),
]


def _crossing(start: Point, end: Point, first: Point, last: Point) -> Point | None:
    """Where a line, going on beyond its end, meets the line through two others; None where it never does."""
    ax, ay = end[0] - start[0], end[1] - start[1]
    bx, by = last[0] - first[0], last[1] - first[1]
    across = ax * by - ay * bx
    if abs(across) < 1e-6 * max(np.hypot(ax, ay) * np.hypot(bx, by), 1e-9):
        return None
    share = ((first[0] - start[0]) * by - (first[1] - start[1]) * bx) / across
    if (share - 1.0) * np.hypot(ax, ay) < ON:
        return None
    return start[0] + share * ax, start[1] + share * ay
