"""A drawing from others as a view: placed, switched and dimensioned like any, and drawn from its own file."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Any, Literal

import numpy as np
from pydantic import Field

from drafting.building.model import Building
from drafting.errors import ViewError
from drafting.schema import Number
from drafting.views.base import BaseView, Point2
from drafting.views.camera import Camera

#: The least and the greatest that a unit of a file can be, real mm.
MIN_UNIT, MAX_UNIT = 1e-4, 1e6


@dataclass(frozen=True, kw_only=True)
class Received(BaseView):
    """A drawing that somebody else made.

    Attributes:
        file: the hash of its file.
        name: of the file.
        mm: real mm of one unit of the file.
        origin: the point of the file that lies at u = v = 0, in its units.
        page: of a PDF, from 1.
    """

    file: Annotated[str, Field(min_length=64, max_length=64, pattern="^[0-9a-f]*$")]
    name: Annotated[str, Field(max_length=250)]
    mm: Annotated[Number, Field(ge=MIN_UNIT, le=MAX_UNIT)] = 1.0
    origin: Point2 = (0.0, 0.0)
    page: Annotated[int, Field(ge=1, le=10_000)] = 1
    kind: Literal["received"] = "received"

    def camera(self, building: Building) -> Camera:
        raise ViewError("A drawing from others is drawn from its own file, and not from the building.")

    @property
    def lying(self) -> Camera:
        """As it lies on its own paper."""
        eye = np.eye(3)
        return Camera(eye[0], eye[1], eye[2], np.zeros(3))

    @property
    def title(self) -> str:
        return self.name

    @property
    def subject(self) -> tuple[Any, ...]:
        return self.kind, self.name, self.page
