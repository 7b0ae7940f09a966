"""Sections: a vertical cut along a line, with jogs where it has some; what lies to the left of the line is
seen."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import pairwise
from typing import Annotated, Any, ClassVar, Literal

import numpy as np
from pydantic import Field

from drafting.building.model import Building
from drafting.errors import ViewError
from drafting.views.base import BaseView, Depth, Point2
from drafting.views.camera import Camera, CutPlane, limited, upright_camera

#: Two pieces of a jogged section's line are at right angles when their cosine is below this.
SQUARE = 1e-3


@dataclass(frozen=True)
class Section(BaseView):
    """A section.

    Attributes:
        line: the points of its line, x and y in mm; what lies to the left of its direction is seen. A line of
            more
            than two points has jogs: pieces along the first one cut, those across it join them.
        depth: how far is seen from the cut, mm; None for all.
    """

    marked: ClassVar[bool] = True

    line: Annotated[
        tuple[Point2, ...],
        Field(
            min_length=2, max_length=100, description="x and y of each point, with jogs at right angles; mm."
        ),
    ]
    depth: Depth | None = None
    kind: Literal["section"] = "section"

    def __post_init__(self) -> None:
        super().__post_init__()
        if len(self.line) < 2:
            raise ViewError("A section needs a line of two points or more, X1,Y1,X2,Y2 in mm.")
        pieces = [(b[0] - a[0], b[1] - a[1]) for a, b in pairwise(self.line)]
        if min(math.hypot(*piece) for piece in pieces) < 1.0:
            raise ViewError("A section's line needs points at least 1 mm apart.")
        first = pieces[0]
        for k, piece in enumerate(pieces[1:], 1):
            size = math.hypot(*first) * math.hypot(*piece)
            along = (first[0] * piece[0] + first[1] * piece[1]) / size
            if (abs(along) > SQUARE) if k % 2 else (along < 1 - SQUARE):
                raise ViewError(
                    "A section's line jogs at right angles and goes on in its first direction: "
                    "along, across, along, and so on."
                )
        if len(pieces) % 2 == 0:
            raise ViewError("A section's line ends along its first direction, not with a jog.")

    def camera(self, building: Building) -> Camera:
        points = np.array([(x, y, 0.0) for x, y in self.line])
        along = points[1] - points[0]
        # The viewer stands to the right of the line.
        camera = upright_camera(np.array([along[1], -along[0], 0.0]), building.origin)
        at = camera.along_axes(points)
        # Of along, across, along ... only the first, third and so on cut; u falls or rises along the line.
        pieces = sorted((sorted((a, b), key=lambda p: p[0]) for a, b in list(pairwise(at.tolist()))[::2]))
        ends = [-math.inf, *(b[0] for _, b in pieces[:-1]), math.inf]
        cuts = tuple(
            CutPlane(float(a[2]), low, high)
            for (a, _), (low, high) in zip(pieces, pairwise(ends), strict=True)
        )
        camera = Camera(camera.right, camera.up, camera.toward, building.origin, cuts)
        return limited(building, camera, self.depth)

    @property
    def title(self) -> str:
        return "Section"

    @property
    def subject(self) -> tuple[Any, ...]:
        return self.kind, self.line
