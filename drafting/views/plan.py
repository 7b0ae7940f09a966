"""Plans: a horizontal cut above a storey's floor, or the roof from above, seen from above."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Any, ClassVar, Literal

import numpy as np
from pydantic import Field

from drafting.building.model import Building
from drafting.schema import Number
from drafting.views.base import BaseView, Depth
from drafting.views.camera import UP, Camera, CutPlane, limited

#: Height of a plan's cut above its storey's floor, mm. Common practice: 1.0 to 1.2 m.
CUT_HEIGHT = 1200.0


def _from_above(building: Building, cuts: tuple[CutPlane, ...], depth: float | None) -> Camera:
    camera = Camera(np.array([1.0, 0, 0]), np.array([0, 1.0, 0]), UP, building.origin, cuts)
    return limited(building, camera, depth)


@dataclass(frozen=True)
class Plan(BaseView):
    """A plan.

    Attributes:
        storey: the name (or number from 0) of its storey.
        cut: the height of its cut above the storey's floor, mm.
        depth: how far is seen below the cut, mm; None for all.
    """

    cuts_overhead: ClassVar[bool] = True

    storey: Annotated[str, Field(min_length=1, max_length=400)]
    cut: Annotated[Number, Field(gt=0, le=100_000, description="Height of the cut above the floor; mm.")] = (
        CUT_HEIGHT
    )
    depth: Depth | None = None
    kind: Literal["plan"] = "plan"

    def camera(self, building: Building) -> Camera:
        return _from_above(building, (CutPlane(self.floor(building) + self.cut),), self.depth)

    def floor(self, building: Building) -> float:
        return building.storey_named(self.storey).elevation - float(building.origin[2])

    @property
    def title(self) -> str:
        return f"Plan, {self.storey}"

    @property
    def subject(self) -> tuple[Any, ...]:
        return self.kind, self.storey


@dataclass(frozen=True)
class RoofPlan(BaseView):
    """The roof, seen from above its highest point without a cut.

    Attributes:
        depth: how far is seen from the highest point, mm; None for all.
    """

    depth: Depth | None = None
    kind: Literal["roof"] = "roof"

    def camera(self, building: Building) -> Camera:
        return _from_above(building, (), self.depth)

    @property
    def title(self) -> str:
        return "Roof plan"

    @property
    def subject(self) -> tuple[Any, ...]:
        return (self.kind,)
