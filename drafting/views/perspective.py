"""Perspectives, which have no scale."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Annotated, Any, ClassVar, Literal

import numpy as np
from pydantic import Field

from drafting.building.model import Building
from drafting.errors import ViewError
from drafting.schema import Number
from drafting.views.base import BaseView, Point3
from drafting.views.camera import Camera, upright_camera

#: Field of view, degrees: what an eye takes in without turning, the draughtsman's cone of vision.
ANGLE = 60.0


@dataclass(frozen=True)
class Perspective(BaseView):
    """A perspective.

    Attributes:
        eye, target: x, y, z in mm.
        angle: the field of view, degrees.
    """

    to_scale: ClassVar[bool] = False

    eye: Point3
    target: Point3
    angle: Annotated[Number, Field(ge=5, le=120, description="The field of view; degrees.")] = ANGLE
    kind: Literal["perspective"] = "perspective"

    def __post_init__(self) -> None:
        super().__post_init__()
        if math.dist(self.eye, self.target) < 10.0:
            raise ViewError("A perspective's eye and target need to be at least 10 mm apart.")
        if math.dist(self.eye[:2], self.target[:2]) < 1.0:
            raise ViewError("A perspective cannot look straight up or down; move its eye to one side.")
        if not 5 <= self.angle <= 120:
            raise ViewError(f"A field of view of {self.angle:g} degrees is out of bounds; give 5 to 120.")

    def camera(self, building: Building) -> Camera:
        eye, target = np.array(self.eye, float), np.array(self.target, float)
        distance = float(np.linalg.norm(eye - target))
        return upright_camera(eye - target, target, distance=distance, angle=self.angle)

    @property
    def title(self) -> str:
        return "Perspective"

    @property
    def subject(self) -> tuple[Any, ...]:
        return self.kind, self.eye, self.target
