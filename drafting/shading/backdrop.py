"""What is behind a building in its picture: nothing, a colour, a sky, or another picture."""

from __future__ import annotations

import io

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageOps
from PIL.Image import Resampling

from drafting.shading.appearance import Appearance
from drafting.shading.colours import parts_of
from drafting.shading.tones import PAPER

Floats = NDArray[np.float64]
MISSING = "The picture behind the building is missing. Choose another."


class Backdrop:
    """What is behind a building in a picture of so many columns and rows.

    Attributes:
        notes: what to know of it.
    """

    def __init__(self, appearance: Appearance, columns: int, rows: int, file: bytes | None = None) -> None:
        """`file` is the PNG or JPEG picture that is the background, where that is one. It fills the window:
        its middle is seen, and what is wider or higher is cut off."""
        self.appearance, self.columns, self.rows = appearance, columns, rows
        self.image: Image.Image | None = None
        self.notes: tuple[str, ...] = ()
        if appearance.background == "picture":
            if file is None:
                self.notes = (MISSING,)
            else:
                self.image = ImageOps.exif_transpose(Image.open(io.BytesIO(file))).convert("RGBA")

    def strip(self, first: int, end: int) -> Floats:
        """(end - first, columns or 1, 4) what is behind some rows: red, green, blue and opacity."""
        appearance = self.appearance
        if appearance.background == "picture":
            return self._pictured(first, end)
        found = np.zeros((end - first, 1, 4))
        if appearance.background != "none":
            found[:, :, :3] = parts_of(appearance.background_colour)
            found[:, :, 3] = 1.0
        if appearance.background == "sky":
            height = 1 - np.arange(first, end)[:, None, None] / self.rows
            found[:, :, :3] = PAPER + (found[:, :, :3] - PAPER) * height
        return found

    def _pictured(self, first: int, end: int) -> Floats:
        if self.image is None:
            return np.zeros((end - first, 1, 4))
        width, height = self.image.size
        # So many of its pixels are one of the window's.
        size = min(width / self.columns, height / self.rows)
        left, top = (width - size * self.columns) / 2, (height - size * self.rows) / 2
        box = (left, top + first * size, left + size * self.columns, min(height, top + end * size))
        strip = self.image.resize((self.columns, end - first), Resampling.BILINEAR, box)
        return np.asarray(strip, float) / 255
