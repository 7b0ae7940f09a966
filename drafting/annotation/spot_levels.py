"""Spot levels: the height of a point in an elevation or a section (ISO 129-1: levels)."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field

from drafting.annotation.anchors import SAME, Anchor
from drafting.annotation.notes import MAX_AWAY, Offset
from drafting.annotation.piece import BasePiece, need_true_lengths
from drafting.errors import SheetError
from drafting.geometry.boxes import Point
from drafting.schema import CLOSED, Flag, Number
from drafting.views.spec import AnyView


@dataclass(frozen=True)
class SpotLevel(BasePiece):
    """The height of a point above the building's zero, on a short line at that height.

    Attributes:
        offset: from the point to the tip of the triangle, paper mm; along the level, so its height is zero.
        feet: whether it is in feet and inches, and not in metres.
        override: what is typed over the true figure; blank for the figure.
        extension: how far its line runs toward the point at most, paper mm; None for all the way.
        series: by what it is found again where it was made for a whole drawing; blank for one that was set by
            hand.
    """

    __pydantic_config__ = CLOSED
    name: ClassVar[str] = "spot level"

    at: Anchor
    offset: Offset = 0.0
    feet: Flag = False
    override: Annotated[str, Field(max_length=60)] = ""
    extension: Annotated[Number, Field(gt=0, le=MAX_AWAY)] | None = None
    series: Annotated[str, Field(max_length=40)] = ""
    kind: Literal["level"] = "level"

    @property
    def anchors(self) -> tuple[Anchor, ...]:
        return (self.at,)

    def attached_to(self, anchors: Sequence[Anchor]) -> Self:
        return replace(self, at=anchors[0])

    @property
    def typed_over(self) -> bool:
        return bool(self.override)

    def changes(self, at: Sequence[Point]) -> str:
        moved = at[0][1] - self.at.at[1]
        return f"it has moved by {moved:+.0f} mm" if abs(moved) >= SAME else ""

    def check(self, view: AnyView | None, *, upright: bool = True) -> None:
        need_true_lengths(view, self.name)
        if not upright:
            raise SheetError("A spot level is given in elevations and sections, where heights are seen.")
