"""How a scan lies on its sheet."""

from __future__ import annotations

from dataclasses import dataclass

from drafting.geometry.boxes import Point
from drafting.schema import CLOSED, Number


@dataclass(frozen=True)
class ScanPlacement:
    """How a picture lies on its sheet: mm = a * column + b * row + c, and d * column + e * row + f."""

    __pydantic_config__ = CLOSED

    a: Number
    b: Number
    c: Number
    d: Number
    e: Number
    f: Number

    def place(self, column: float, row: float) -> Point:
        """A place of the picture on the sheet, mm.

        >>> ScanPlacement(0.1, 0.0, 10.0, 0.0, -0.1, 200.0).place(100.0, 500.0)
        (20.0, 150.0)
        """
        return self.a * column + self.b * row + self.c, self.d * column + self.e * row + self.f
