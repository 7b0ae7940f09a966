"""Colour treatments of a plot: as the pens are, in grey, or all in black."""

from __future__ import annotations

from collections.abc import Callable, Collection
from typing import Literal, get_args

from drafting.render.items import Restyle
from drafting.styles.pens import PAPER

#: As the pens are; in grey; all in black, with areas in grey; so too but for colours that are chosen.
ColourTreatment = Literal["full", "grey", "black", "chosen"]
COLOUR_TREATMENTS: tuple[ColourTreatment, ...] = get_args(ColourTreatment)
BLACK = "#000000"
#: Shares of red, green and blue in what the eye takes for lightness (ITU-R BT.709).
_LIGHTNESS = (0.2126, 0.7152, 0.0722)


def treatment(name: ColourTreatment, kept: Collection[str] = ()) -> Restyle:
    """What a colour treatment makes of what is drawn. `kept` are the colours that a black plot keeps.

    White is paper, whatever the treatment: words that are left out of a dark field stay so. In black an area
        keeps how
    light it is, and a line its screening.
    """
    if name == "full":
        return Restyle()
    keeps = frozenset(kept) if name == "chosen" else frozenset()
    line = greyed if name == "grey" else _except(keeps, lambda _: BLACK)
    return Restyle(line=line, area=_except(keeps, greyed), grey=True)


def greyed(colour: str) -> str:
    """The grey that is as light as a colour.

    >>> greyed("#ff0000")
    '#363636'
    """
    parts = (int(colour[k : k + 2], 16) for k in (1, 3, 5))
    light = round(sum(share * part for share, part in zip(_LIGHTNESS, parts, strict=True)))
    return "#" + f"{light:02x}" * 3


def _except(kept: Collection[str], change: Callable[[str], str]) -> Callable[[str], str]:
    return lambda colour: colour if colour == PAPER or colour in kept else change(colour)
