"""A page: a sheet, or a window of it, as it lies on the paper that it is plotted on."""

from __future__ import annotations

from dataclasses import dataclass

from drafting.geometry.boxes import Box, Point
from drafting.render.backend import Backend
from drafting.render.display_list import DisplayList
from drafting.render.items import Fill, Path, Text
from drafting.sheets.paper import Paper


@dataclass(frozen=True, eq=False)
class Page:
    """A display list on paper: a point of the sheet lies at `at + scale * point`. mm.

    Attributes:
        number, title: of the sheet.
        width, height: of the paper.
        window: the part of the paper beyond which nothing of the sheet is plotted; None for all of it.
        over: what is written on the paper beside the sheet, in mm of the paper.
        date: of plotting, as YYYY-MM-DD.
    """

    number: str
    title: str
    width: float
    height: float
    display: DisplayList
    scale: float = 1.0
    at: Point = (0.0, 0.0)
    window: Box | None = None
    over: tuple[Path | Fill | Text, ...] = ()
    date: str = ""

    @property
    def name(self) -> str:
        """Number and title."""
        return f"{self.number} {self.title}".strip()

    @property
    def paper(self) -> Paper:
        """What it is plotted on."""
        return Paper("", self.width, self.height)

    def on_paper(self, box: Box) -> Box:
        """Where a box of the sheet lies on the paper."""
        return Box(
            self.at[0] + box.x * self.scale,
            self.at[1] + box.y * self.scale,
            box.width * self.scale,
            box.height * self.scale,
        )

    def draw(self, backend: Backend) -> None:
        """Draw the sheet, then what is written beside it."""
        with backend.on_sheet(self):
            self.display.replay(backend)
        for item in self.over:
            item.draw(backend)
        backend.layer("")


@dataclass(frozen=True)
class FileInfo:
    """What a file says of itself: its title, who made it, and pixels to the inch where it has some."""

    title: str = ""
    author: str = ""
    resolution: int = 300


def whole_page(display: DisplayList, title: str = "", number: str = "", date: str = "") -> Page:
    """A sheet at its own size."""
    return Page(number, title, display.width, display.height, display, date=date)
