"""What part of a view a picture shows, and how many pixels that is."""

from __future__ import annotations

import hashlib
import json
import math
from dataclasses import dataclass
from typing import Annotated

from pydantic import Field

from drafting.errors import SheetError
from drafting.schema import CLOSED, dump
from drafting.shading.appearance import Appearance
from drafting.shading.colours import NO_PALETTE, Palette
from drafting.views.spec import AnyView, dump_view

#: Raised whenever the same picture would come out differently.
PICTURE_VERSION = 3
MM_PER_INCH = 25.4
#: Larger pictures nobody prints: A0 at 300 an inch has 140 million.
MAX_PIXELS = 150_000_000
#: On the screen, while one edits: so fine, or coarser where that would be more pixels.
COARSE, MAX_COARSE = 130.0, 1_500_000
Positive = Annotated[float, Field(gt=0)]


@dataclass(frozen=True)
class Window:
    """What is seen of a view, on paper.

    Attributes:
        width, height: paper mm.
        ratio: paper mm for one real mm.
        centre: u and v in its middle; mm.
        turn: degrees anticlockwise, about that.
    """

    __pydantic_config__ = CLOSED

    width: Positive
    height: Positive
    ratio: Positive
    centre: tuple[float, float]
    turn: float = 0.0

    def pixels(self, per_inch: float) -> tuple[int, int]:
        """Columns and rows of its picture.

        Raises:
            SheetError: there would be too many.
        """
        columns, rows = (max(1, round(side * per_inch / MM_PER_INCH)) for side in (self.width, self.height))
        if columns * rows > MAX_PIXELS:
            raise SheetError(
                f"A picture of {self.width:.0f} x {self.height:.0f} mm at {per_inch:g} pixels an inch has "
                f"{columns * rows / 1e6:.0f} million pixels. Choose fewer pixels an inch."
            )
        return columns, rows

    def frame(self, columns: int, rows: int) -> tuple[float, float, float, float, float, float]:
        """Where the middles of pixels lie: u and v of the one at the upper left, and by how much they grow
        with each column to the right and each row down."""
        turn = math.radians(self.turn)
        cos, sin = math.cos(turn) / self.ratio, math.sin(turn) / self.ratio
        x, y = self.width / columns, -self.height / rows
        across, down = (x * cos, -x * sin), (y * sin, y * cos)
        u, v = (self.centre[k] - across[k] * (columns - 1) / 2 - down[k] * (rows - 1) / 2 for k in (0, 1))
        return u, v, *across, *down

    @property
    def coarse(self) -> float:
        """Pixels an inch for the screen."""
        area = self.width * self.height / MM_PER_INCH**2
        return min(COARSE, math.sqrt(MAX_COARSE / area))


def picture_key(
    model_digest: str, view: AnyView, appearance: Appearance, window: Window, palette: Palette = NO_PALETTE
) -> str:
    """The key of a picture, whatever its resolution: made of all else that it depends on."""
    shown = dump(appearance.for_picture)
    given = [PICTURE_VERSION, model_digest, dump_view(view), shown, dump(window), dump(palette)]
    return hashlib.sha256(json.dumps(given, sort_keys=True).encode()).hexdigest()


def areas_key(model_digest: str, view: AnyView, appearance: Appearance, window: Window) -> str:
    """The key of areas of shadow: made of all that they depend on."""
    given = [
        PICTURE_VERSION,
        model_digest,
        dump_view(view),
        dump(appearance.for_areas),
        dump(window),
        "areas",
    ]
    return hashlib.sha256(json.dumps(given, sort_keys=True).encode()).hexdigest()
