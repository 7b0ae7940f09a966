"""Scales as exact ratios, and the ladders they are chosen from (ISO 5455 and building practice)."""

from __future__ import annotations

import re
from dataclasses import dataclass
from fractions import Fraction

from drafting.errors import ScaleError

#: Beyond these a number is a slip of the hand and no scale: the range of the ladders, with room.
SMALLEST, LARGEST = Fraction(1, 100_000), Fraction(100)


@dataclass(frozen=True, order=True)
class Scale:
    """A true scale: paper length over real length, exact. `Scale(Fraction(1, 50))` is 1:50.

    Raises:
        ScaleError: the ratio is nought, negative or beyond what a drawing can have.
    """

    ratio: Fraction

    def __post_init__(self) -> None:
        if self.ratio <= 0:
            raise ScaleError(f"A scale is more than nought; {self.ratio} is not. Write it as 1:50.")
        if not SMALLEST <= self.ratio <= LARGEST:
            raise ScaleError(f"A scale of {self} is beyond what a drawing can have, which is 100:1 to 1:100000.")

    def __str__(self) -> str:
        over = 1 / self.ratio
        if over.denominator == 1:
            return f"1:{over}"
        if self.ratio.denominator == 1:
            return f"{self.ratio}:1"
        whole, rest = divmod(over, 1)
        return f"1:{whole} {rest}" if whole else f"{self.ratio.numerator}:{self.ratio.denominator}"

    @classmethod
    def parse(cls, text: str) -> Scale:
        """A scale as typed: `1:50`, `2:1`, `1:33 1/3`, `1:12.5`.

        Raises:
            ScaleError: the text is no positive ratio.
        """
        match = re.fullmatch(r"\s*([^:/]+?)\s*[:/]\s*(.+?)\s*", str(text))
        try:
            if not match:
                raise ValueError
            paper, real = _number(match[1]), _number(match[2])
        except ValueError:
            raise ScaleError(f"“{text}” is not a scale. Write it as 1:50.") from None
        if paper <= 0 or real <= 0:
            raise ScaleError(f"A scale is more than nought; “{text}” is not. Write it as 1:50.")
        return cls(paper / real)


def _number(text: str) -> Fraction:
    """A whole number, a decimal, or a whole number and a fraction such as 33 1/3, exact."""
    mixed = re.fullmatch(r"(-?\d+)(?:\s+(\d+)/(\d*[1-9]\d*))?", text)
    if mixed:
        return Fraction(mixed[1]) + (Fraction(int(mixed[2]), int(mixed[3])) if mixed[2] else 0)
    if re.fullmatch(r"-?\d+\.\d+", text):
        return Fraction(text)
    raise ValueError


#: ISO 5455 with the steps that building practice adds.
LADDER: tuple[Scale, ...] = tuple(
    Scale(Fraction(a, b))
    for a, b in (
        (10, 1), (5, 1), (2, 1), (1, 1), (1, 2), (1, 5), (1, 10), (1, 20), (1, 25), (1, 50), (1, 75), (1, 100),
        (1, 200), (1, 250), (1, 500), (1, 1000), (1, 1250), (1, 2000), (1, 2500), (1, 5000),
    )
)  # fmt: skip


def largest_that_fits(width: float, height: float, room_width: float, room_height: float) -> Scale:
    """The largest scale of the ladder at which width x height (mm, real) fits the room (mm, paper).

    The smallest of the ladder where none fits.
    """
    for scale in LADDER:
        ratio = float(scale.ratio)
        if width * ratio <= room_width and height * ratio <= room_height:
            return scale
    return LADDER[-1]
