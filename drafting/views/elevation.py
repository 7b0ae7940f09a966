"""Elevations: parallel, level, named by the side that they show."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from drafting.building.model import Building
from drafting.errors import ViewError
from drafting.schema import Number
from drafting.views.base import BaseView, Bearing, Depth
from drafting.views.camera import Camera, CutPlane, direction_from, limited, upright_camera
from drafting.views.compass import wind

Side = Literal["north", "south", "east", "west"]
#: Where the viewer stands: degrees clockwise from north. Project north is the model's y axis.
SIDE_BEARINGS: dict[Side, float] = {"north": 0.0, "south": 180.0, "east": 90.0, "west": 270.0}
SIDES: tuple[Side, ...] = tuple(SIDE_BEARINGS)


@dataclass(frozen=True)
class Elevation(BaseView):
    """An elevation.

    Attributes:
        side: the side it shows.
        bearing: in place of a side, where the viewer stands.
        near: how far from the model's zero towards the viewer it begins, mm; what is nearer is cut away. None
            for all.
        depth: how far is seen from there, or from the building's nearest point, mm; None for all.
    """

    marked: ClassVar[bool] = True

    side: Side | None = None
    bearing: Bearing | None = None
    near: Annotated[Number | None, Field(description="How far towards the viewer it begins; mm.")] = None
    depth: Depth | None = None
    kind: Literal["elevation"] = "elevation"

    def __post_init__(self) -> None:
        super().__post_init__()
        if self.bearing is None and self.side not in SIDES:
            raise ViewError(
                f"An elevation shows a side, {', '.join(SIDES)}, or is seen from a bearing in degrees."
            )

    def camera(self, building: Building) -> Camera:
        bearing = SIDE_BEARINGS[self.side or "north"] if self.bearing is None else self.bearing
        cuts = () if self.near is None else (CutPlane(self.near),)
        return limited(
            building, upright_camera(direction_from(bearing, 0.0), building.origin, cuts), self.depth
        )

    @property
    def title(self) -> str:
        way = (self.side or "") if self.bearing is None else wind(self.bearing)
        return f"{way.capitalize()} elevation"

    @property
    def subject(self) -> tuple[Any, ...]:
        return self.kind, self.side, self.bearing, self.near
