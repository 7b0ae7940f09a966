"""Devices that sheets are plotted on: what they take, and how near to its edges they print. mm."""

from __future__ import annotations

from dataclasses import dataclass

from drafting.sheets.paper import Paper
from drafting.sheets.viewport import Box


@dataclass(frozen=True)
class Device:
    """A device by its kind. Margins are what it cannot print on, whichever way the paper lies in it.

    Attributes:
        key, name: for programs and for people.
        margin: along every side of the paper.
        ends: along the two ends of a roll, in place of `margin`.
        widest: the longer side of the largest sheet, or the width of the roll; None for no limit.
        roll: whether it takes a roll, which has a width and no length.
    """

    key: str
    name: str
    margin: float = 0.0
    ends: float = 0.0
    widest: float | None = None
    roll: bool = False

    def takes(self, paper: Paper) -> bool:
        """Whether a sheet of this size goes through it."""
        side = min(paper.width, paper.height) if self.roll else max(paper.width, paper.height)
        return self.widest is None or side <= self.widest

    def printable(self, paper: Paper) -> Box:
        """The part of a sheet that it prints on."""
        across, along = self.margin, self.ends or self.margin
        # A roll is as wide as the sheet's shorter side, and the sheet's ends are the roll's.
        x, y = (along, across) if paper.width >= paper.height else (across, along)
        return Box(x, y, paper.width - 2 * x, paper.height - 2 * y)


DEVICES = (
    Device("file", "PDF file"),
    Device("office", "Office printer, to A3", margin=5.0, widest=420.0),
    Device("roll", "Roll plotter, to A0", margin=5.0, ends=17.0, widest=914.4, roll=True),
)
