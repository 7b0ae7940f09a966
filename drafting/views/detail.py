"""Details: a part of another view, to be drawn larger."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from drafting.building.model import Building
from drafting.geometry.regions import Region
from drafting.views.axonometric import Axonometric
from drafting.views.base import BaseView
from drafting.views.camera import Camera
from drafting.views.elevation import Elevation
from drafting.views.plan import Plan, RoofPlan
from drafting.views.section import Section

#: What a detail can be a part of.
WholeView = Annotated[Plan | RoofPlan | Elevation | Section | Axonometric, Field(discriminator="kind")]


@dataclass(frozen=True)
class Detail(BaseView):
    """A detail.

    Attributes:
        of: the view it is a part of.
        region: which part, in u, v of that view, mm.
    """

    cuts_overhead: ClassVar[bool] = True
    marked: ClassVar[bool] = True

    of: WholeView
    region: Region
    kind: Literal["detail"] = "detail"

    def camera(self, building: Building) -> Camera:
        return self.of.camera(building)

    def floor(self, building: Building) -> float | None:
        return self.of.floor(building)

    @property
    def title(self) -> str:
        return f"Detail of {self.of.title[0].lower()}{self.of.title[1:]}"

    @property
    def subject(self) -> tuple[Any, ...]:
        return self.kind, self.of.subject, self.region

    @property
    def true_lengths(self) -> bool:
        return self.of.true_lengths

    @property
    def area(self) -> Any:
        return self.region.area
