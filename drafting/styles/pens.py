"""Pens: width, colour and pattern on paper, and those of what is on a sheet beside its drawings (ISO 128)."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Annotated

from pydantic import Field

from drafting.schema import CLOSED, Colour, Number

INK = "#1b1f24"
PAPER = "#ffffff"

#: ISO 128-20: each width is the square root of two wider than the one before. mm.
WIDTHS = (0.13, 0.18, 0.25, 0.35, 0.5, 0.7, 1.0, 1.4, 2.0)
#: A narrower line may be lost on paper.
NARROWEST = WIDTHS[0]
#: The narrowest and the widest line that can be chosen, mm: ISO 128 has 0.13 to 2.
MIN_WIDTH, MAX_WIDTH = 0.05, 2.0
#: Screening is the share of a pen's colour that is left, per cent: the rest is paper.
SCREENS = (100, 80, 60, 50, 40, 30, 20, 10)

Width = Annotated[Number, Field(ge=MIN_WIDTH, le=MAX_WIDTH, description="Paper mm.")]
Dashes = Annotated[tuple[float, ...], Field(description="Dash and gap by turns, in line widths.")]
Percent = Annotated[int, Field(ge=0, le=100, description="Per cent.")]


@dataclass(frozen=True)
class Pen:
    """A line on paper: its width in mm, its colour, its pattern (dash and gap by turns, in widths), and its
    screening: the share of the colour that is left, per cent; the rest is paper."""

    __pydantic_config__ = CLOSED

    width: Width
    colour: Colour = INK
    pattern: Dashes = ()
    screen: Percent = 100

    @property
    def ink(self) -> str:
        """The colour that comes on paper."""
        return screened(self.colour, self.screen)

    @property
    def dashes(self) -> tuple[float, ...]:
        """Dash and gap by turns in mm."""
        return tuple(length * self.width for length in self.pattern)

    def changed(self, change: PenChange | None) -> Pen:
        """The pen with another width, colour, pattern or screening."""
        if change is None:
            return self
        return replace(self, **{name: value for name, value in vars(change).items() if value is not None})


@dataclass(frozen=True)
class PenChange:
    """How a pen differs from another: width in mm, colour, pattern in widths, screening in per cent; None for
    what does not."""

    __pydantic_config__ = CLOSED

    width: Width | None = None
    colour: Colour | None = None
    pattern: Dashes | None = None
    screen: Percent | None = None


def screened(colour: str, screen: float) -> str:
    """A colour of which so many per cent are left on white paper.

    >>> screened("#000000", 50)
    '#808080'
    """
    parts = (int(colour[k : k + 2], 16) for k in (1, 3, 5))
    return "#" + "".join(f"{math.floor(255.5 - (255 - part) * screen / 100):02x}" for part in parts)


def mixed(colour: str, other: str, share: float) -> str:
    """A share of one colour, from 0 to 1, and the rest of another.

    >>> mixed("#000000", "#ffffff", 0.25)
    '#bfbfbf'
    """
    pairs = ((int(colour[k : k + 2], 16), int(other[k : k + 2], 16)) for k in (1, 3, 5))
    return "#" + "".join(f"{round(a * share + b * (1 - share)):02x}" for a, b in pairs)


#: ISO 5457: centring marks are 0.7 mm lines.
CENTRING_PEN = Pen(0.7)
ZONE_PEN = Pen(0.35)
BLOCK_PEN = Pen(0.5)
RULE_PEN = Pen(0.18)
TITLE_PEN = Pen(0.35)
#: The outline of a viewport, where it is plotted.
OUTLINE_PEN = Pen(0.25)
