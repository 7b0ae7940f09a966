"""Sheet sizes, trimmed, in mm: ISO 216 and ISO 5457, ASME Y14.1, architectural, and any other."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Literal, get_args

from drafting.errors import PaperError


def _inches(width: float, height: float) -> tuple[float, float]:
    return round(width * 25.4, 3), round(height * 25.4, 3)


#: Landscape width and height.
SIZES: dict[str, tuple[float, float]] = {
    "A0": (1189, 841),
    "A1": (841, 594),
    "A2": (594, 420),
    "A3": (420, 297),
    "A4": (297, 210),
    "ANSI A": _inches(11, 8.5),
    "ANSI B": _inches(17, 11),
    "ANSI C": _inches(22, 17),
    "ANSI D": _inches(34, 22),
    "ANSI E": _inches(44, 34),
    "Arch A": _inches(12, 9),
    "Arch B": _inches(18, 12),
    "Arch C": _inches(24, 18),
    "Arch D": _inches(36, 24),
    "Arch E": _inches(48, 36),
}
Orientation = Literal["landscape", "portrait"]
ORIENTATIONS: tuple[Orientation, ...] = get_args(Orientation)
#: A sheet smaller than this has no room for a frame and a title block; one larger comes off no plotter. mm.
SMALLEST_SIDE, LARGEST_SIDE = 140.0, 3000.0
_CUSTOM = re.compile(r"(\d+(?:[.,]\d+)?)\s*(?:x|×|by)\s*(\d+(?:[.,]\d+)?)(?:\s*mm)?", re.IGNORECASE)


@dataclass(frozen=True)
class Paper:
    """A trimmed sheet: its size's name, and width and height in mm as it lies."""

    name: str
    width: float
    height: float

    @classmethod
    def of(cls, name: str, orientation: str = "landscape") -> Paper:
        """The paper of a size, one way or the other. A size of one's own is written in mm, such as 700 x 500.

        Raises:
            PaperError: no such size or orientation, or no sheet can have it.
        """
        if orientation not in ORIENTATIONS:
            raise PaperError(f"“{orientation}” is no orientation. It is {' or '.join(ORIENTATIONS)}.")
        known = {size.lower(): size for size in SIZES}.get(" ".join(name.lower().split()))
        long, short = SIZES[known] if known else _custom_size(name)
        width, height = (long, short) if orientation == "landscape" else (short, long)
        return cls(known or f"{long:g} x {short:g}", width, height)


def _custom_size(name: str) -> tuple[float, float]:
    match = _CUSTOM.fullmatch(name.strip())
    if match is None:
        raise PaperError(
            f"“{name}” is no paper size. Sizes are {', '.join(SIZES)}, or one of your own in mm, such as "
            f"700 x 500."
        )
    short, long = sorted(float(side.replace(",", ".")) for side in match.groups())
    if short < SMALLEST_SIDE or long > LARGEST_SIDE:
        raise PaperError(
            f"A sheet of {long:g} x {short:g} mm cannot be made: each side is {SMALLEST_SIDE:g} to "
            f"{LARGEST_SIDE:g} mm."
        )
    return long, short
