"""Scales as exact ratios, and the ladders they are chosen from (ISO 5455 and building practice)."""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from fractions import Fraction

from drafting.errors import ScaleError

#: Beyond these a number is a typing mistake and no scale: the range of the ladders, with room.
SMALLEST, LARGEST = Fraction(1, 100_000), Fraction(100)
#: From here on a scale in feet and inches names the inches of a foot; below it, the feet of an inch.
_INCHES_A_FOOT = Fraction(1, 16)


@dataclass(frozen=True, order=True)
class Scale:
    """A true scale: paper length over real length, exact. `Scale(Fraction(1, 50))` is 1:50.

    Attributes:
        ratio: paper over real.
        feet: whether it is written in feet and inches, such as 1/4" = 1'-0". The scale is the same.

    Raises:
        ScaleError: the ratio is zero, negative or beyond what a drawing can have.
    """

    ratio: Fraction
    feet: bool = field(default=False, compare=False)

    def __post_init__(self) -> None:
        if self.ratio <= 0:
            raise ScaleError(f"A scale is above 0; {self.ratio} is not. Write it as 1:50.")
        if not SMALLEST <= self.ratio <= LARGEST:
            raise ScaleError(
                f"A scale of {self} is beyond what a drawing can have, which is 100:1 to 1:100000."
            )

    def __str__(self) -> str:
        if self.feet:
            inches = 12 * self.ratio
            if inches >= _INCHES_A_FOOT:
                return f'{_mixed(inches)}" = 1\'-0"'
            feet, rest = divmod(1 / inches * 12, 12)
            return f'1" = {feet}\'-{_mixed(rest)}"'
        over = 1 / self.ratio
        if over.denominator == 1:
            return f"1:{over}"
        if self.ratio.denominator == 1:
            return f"{self.ratio}:1"
        return f"1:{_mixed(over)}" if over > 1 else f"{self.ratio.numerator}:{self.ratio.denominator}"

    @classmethod
    def parse(cls, text: str) -> Scale:
        """A scale as typed: `1:50`, `2:1`, `1:33 1/3`, `1:12.5`, `1/4" = 1'-0"`, `1" = 20'`.

        Raises:
            ScaleError: the text is no positive ratio.
        """
        plain = str(text).translate(_PLAIN)
        feet = "=" in plain
        match = re.fullmatch(r"\s*(.+?)\s*=\s*(.+?)\s*" if feet else r"\s*([^:]+?)\s*[:/]\s*(.+?)\s*", plain)
        try:
            if not match:
                raise ValueError
            paper, real = (_length(side) if feet else _number(side) for side in match.groups())
        except ValueError:
            raise ScaleError(f'“{text}” is not a scale. Write it as 1:50 or 1/4" = 1\'-0".') from None
        if paper <= 0 or real <= 0:
            raise ScaleError(f"A scale is above 0; “{text}” is not. Write it as 1:50.")
        return cls(paper / real, feet)


#: Typographic signs that are typed or pasted for plain ones.
_PLAIN = str.maketrans({"″": '"', "”": '"', "“": '"', "′": "'", "’": "'", "‘": "'", "–": "-", "−": "-"})


def _mixed(value: Fraction) -> str:
    """A number as the trade writes it: 3, 1/4, 1 1/2."""
    whole, rest = divmod(value, 1)
    return f"{whole} {rest}" if whole and rest else str(rest or whole)


def _number(text: str) -> Fraction:
    """A whole number, a decimal, a fraction, or a whole number and a fraction such as 33 1/3, exact."""
    mixed = re.fullmatch(r"(-?\d+)(?:\s+(\d+)/(\d*[1-9]\d*))?", text)
    if mixed:
        return Fraction(mixed[1]) + (Fraction(int(mixed[2]), int(mixed[3])) if mixed[2] else 0)
    if re.fullmatch(r"-?\d*\.\d+", text) or re.fullmatch(r"\d+/\d*[1-9]\d*", text):
        return Fraction(text)
    raise ValueError


def _length(text: str) -> Fraction:
    """Feet and inches, such as 1'-6", 20' or 3/16", in inches."""
    match = re.fullmatch(r"(?:([^'\"]+?)\s*')?\s*-?\s*(?:([^'\"]+?)\s*\")?", text)
    if match is None or not any(match.groups()):
        raise ValueError
    feet, inches = match.groups()
    return 12 * (_number(feet) if feet else Fraction(0)) + (_number(inches) if inches else Fraction(0))


def _ladder(*pairs: tuple[Fraction | int, Fraction | int], feet: bool = False) -> tuple[Scale, ...]:
    return tuple(Scale(Fraction(a) / Fraction(b), feet) for a, b in pairs)


#: ISO 5455 with the steps that building practice adds.
LADDER = _ladder(
    (10, 1), (5, 1), (2, 1), (1, 1), (1, 2), (1, 5), (1, 10), (1, 20), (1, 25), (1, 50), (1, 75), (1, 100),
    (1, 200), (1, 250), (1, 500), (1, 1000), (1, 1250), (1, 2000), (1, 2500), (1, 5000),
)  # fmt: skip
#: What is usual where buildings are measured in feet: so many inches to a foot, then so many feet to an inch.
FEET_LADDER = _ladder(
    *((Fraction(n, 32), 12) for n in (384, 192, 96, 48, 32, 24, 16, 12, 8, 6, 4, 3, 2)),
    *((1, 12 * n) for n in (20, 30, 40, 50, 60, 100, 200, 400)),
    feet=True,
)


def largest_that_fits(
    width: float, height: float, room_width: float, room_height: float, ladder: tuple[Scale, ...] = LADDER
) -> Scale:
    """The largest scale of a ladder at which width x height (mm, real) fits the room (mm, paper).

    The smallest of the ladder where none fits.
    """
    for scale in ladder:
        ratio = float(scale.ratio)
        if width * ratio <= room_width and height * ratio <= room_height:
            return scale
    return ladder[-1]
