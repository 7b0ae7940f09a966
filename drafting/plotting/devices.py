"""Devices that sheets are plotted on: small stand-ins, what they take, and how near to its edges they print.
mm."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from drafting.geometry.boxes import Box
from drafting.sheets.paper import SIZES, Paper

DeviceKey = Literal["file", "office", "roll"]


@dataclass(frozen=True)
class Device:
    """A device by its kind. Margins are what it cannot print on, whichever way the paper lies in it.

    Attributes:
        key, name: for programs and for people.
        margin: along every side of the paper.
        ends: along the two ends of a roll, in place of `margin`.
        trays: the sizes of cut sheets that it holds; none for a device that takes any.
        roll: the width of its roll; zero for a device that takes cut sheets.
        load: how much a new filling is: sheets of each size, or mm of a roll; zero for one that needs no
            paper.
    """

    key: DeviceKey
    name: str
    margin: float = 0.0
    ends: float = 0.0
    trays: tuple[str, ...] = ()
    roll: float = 0.0
    load: float = 0.0

    @property
    def prints(self) -> bool:
        """Whether it is a machine with paper in it, and not a maker of files."""
        return self.load > 0

    @property
    def filled(self) -> dict[str, float]:
        """What lies in it when it is full: by the size of the sheets, or by ROLL."""
        return dict.fromkeys(self.trays or ((ROLL,) if self.roll else ()), self.load)

    def medium(self, paper: Paper) -> tuple[str, float]:
        """What a page of this size takes of which medium: sheets, or mm of the roll."""
        if self.roll:
            return ROLL, max(paper.width, paper.height)
        return next((size for size in self.trays if _same(paper, size)), paper.name), 1.0

    def takes(self, paper: Paper) -> bool:
        """Whether a sheet of this size goes through it."""
        if self.roll:
            return min(paper.width, paper.height) <= self.roll
        return not self.trays or any(_same(paper, size) for size in self.trays)

    def printable(self, paper: Paper) -> Box:
        """The part of a sheet that it prints on."""
        across, along = self.margin, self.ends or self.margin
        # A roll is as wide as the sheet's shorter side, and the sheet's ends are the roll's.
        x, y = (along, across) if paper.width >= paper.height else (across, along)
        return Box(x, y, paper.width - 2 * x, paper.height - 2 * y)


def _same(paper: Paper, size: str) -> bool:
    return sorted((paper.width, paper.height)) == sorted(SIZES[size])


ROLL = "roll"
DEVICES = (
    Device("file", "PDF file"),
    Device("office", "Office printer", margin=5.0, trays=("A3", "A4"), load=50),
    Device("roll", "Roll plotter", margin=5.0, ends=17.0, roll=914.4, load=45_000),
)
BY_KEY: dict[str, Device] = {device.key: device for device in DEVICES}
