"""Axonometrics: parallel and oblique to all axes."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Annotated, Any, Literal

from pydantic import Field

from drafting.building.model import Building
from drafting.errors import ViewError
from drafting.schema import Number
from drafting.views.base import BaseView, Bearing
from drafting.views.camera import Camera, direction_from, upright_camera
from drafting.views.compass import wind

Corner = Literal["ne", "nw", "se", "sw"]
_BEARINGS: dict[Corner, float] = {"ne": 45.0, "nw": 315.0, "se": 135.0, "sw": 225.0}
CORNERS: tuple[Corner, ...] = tuple(_BEARINGS)
#: Isometric (ISO 5456-3): the three axes stand at 120 degrees on paper.
_ISOMETRIC = math.degrees(math.atan(math.sqrt(0.5)))


@dataclass(frozen=True)
class Axonometric(BaseView):
    """An axonometric: isometric from a corner, or from a bearing and an altitude.

    Attributes:
        corner: the corner it looks from.
        bearing: in place of a corner, where the viewer stands.
        altitude: with a bearing, how high the viewer stands: degrees above the horizon.
    """

    corner: Corner | None = None
    bearing: Bearing | None = None
    altitude: Annotated[Number | None, Field(ge=-89, le=89, description="Degrees above the horizon.")] = None
    kind: Literal["axonometric"] = "axonometric"

    def __post_init__(self) -> None:
        super().__post_init__()
        if self.bearing is None and self.corner not in CORNERS:
            raise ViewError(
                f"An axonometric looks from a corner, {', '.join(CORNERS)}, or from a bearing in degrees."
            )
        if self.bearing is not None and not (self.altitude is not None and -89 <= self.altitude <= 89):
            raise ViewError("An axonometric by bearing needs an altitude from -89 to 89 degrees.")

    @property
    def seen_from(self) -> float:
        """Where the viewer stands: degrees clockwise from north."""
        return _BEARINGS[self.corner or "ne"] if self.bearing is None else self.bearing

    def camera(self, building: Building) -> Camera:
        bearing = self.seen_from
        altitude = _ISOMETRIC if self.bearing is None or self.altitude is None else self.altitude
        return upright_camera(direction_from(bearing, altitude), building.origin)

    @property
    def true_lengths(self) -> bool:
        return False

    @property
    def title(self) -> str:
        return f"Axonometric from the {wind(self.seen_from)}"

    @property
    def subject(self) -> tuple[Any, ...]:
        return self.kind, self.corner, self.bearing
