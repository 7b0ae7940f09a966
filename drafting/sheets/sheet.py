"""A sheet and the viewports on it, as the core takes them."""

from __future__ import annotations

import math
from dataclasses import dataclass, field

from drafting.errors import SheetError
from drafting.sheets.paper import Paper
from drafting.sheets.scale import Scale

#: A viewport narrower or lower than this cannot be taken hold of. mm.
LEAST_VIEWPORT = 2.0
#: ISO 5457: the frame stands 20 mm from the filing edge and 10 mm from the others.
FILING_MARGIN, MARGIN = 20.0, 10.0
#: ISO 7200: the title block is 180 mm wide; ISO 5457 puts it at the lower right of the frame.
BLOCK_WIDTH, BLOCK_HEIGHT = 180.0, 50.0

NOT_TO_SCALE = "Not to scale"


@dataclass(frozen=True)
class Box:
    """A rectangle on paper: its lower left corner and its size, mm."""

    x: float
    y: float
    width: float
    height: float

    @property
    def right(self) -> float:
        return self.x + self.width

    @property
    def top(self) -> float:
        return self.y + self.height

    @property
    def corners(self) -> tuple[tuple[float, float], ...]:
        """Anticlockwise from the lower left."""
        return (self.x, self.y), (self.right, self.y), (self.right, self.top), (self.x, self.top)


@dataclass(frozen=True)
class Viewport:
    """A window on a view.

    Attributes:
        id: names it as the source of what is drawn through it.
        linework: key of the drawing seen through it.
        box: its frame on paper, mm.
        scale: paper over real.
        centre: the u, v of the view (mm, real) that lie in the middle of the frame.
        number, name: of the drawing title under it.
        to_scale: whether lengths can be measured in it; not in a perspective.
    """

    id: str
    linework: str
    box: Box
    scale: Scale
    centre: tuple[float, float]
    number: str = ""
    name: str = ""
    to_scale: bool = True

    @property
    def scale_text(self) -> str:
        """The scale as its drawing title says it."""
        return str(self.scale) if self.to_scale else NOT_TO_SCALE

    def to_paper(self, u: float, v: float) -> tuple[float, float]:
        """Where a point of the view lies on the sheet, mm."""
        ratio = float(self.scale.ratio)
        middle_x, middle_y = self.box.x + self.box.width / 2, self.box.y + self.box.height / 2
        return middle_x + (u - self.centre[0]) * ratio, middle_y + (v - self.centre[1]) * ratio


@dataclass(frozen=True)
class TitleFields:
    """What the title block says (ISO 7200). Scale, paper and sheet count are derived, never typed."""

    owner: str = ""
    project: str = ""
    project_number: str = ""
    client: str = ""
    site: str = ""
    title: str = ""
    supplementary_title: str = ""
    number: str = ""
    revision: str = ""
    date: str = ""
    creator: str = ""
    approver: str = ""
    document_type: str = ""
    status: str = ""
    sheet_of: tuple[int, int] = (1, 1)


@dataclass(frozen=True)
class Sheet:
    """A sheet ready to compose."""

    paper: Paper
    fields: TitleFields = field(default_factory=TitleFields)
    viewports: tuple[Viewport, ...] = ()

    @property
    def scale_text(self) -> str:
        """What the title block says of the scale: the one there is, or that each drawing says its own."""
        scales = {v.scale_text for v in self.viewports}
        return next(iter(scales)) if len(scales) == 1 else "As shown" if scales else "–"


def frame_of(paper: Paper) -> Box:
    """The frame line of a sheet (ISO 5457)."""
    return Box(FILING_MARGIN, MARGIN, paper.width - FILING_MARGIN - MARGIN, paper.height - 2 * MARGIN)


def block_of(paper: Paper) -> Box:
    """Where the title block lies; on a sheet narrower than it, as wide as the frame."""
    frame = frame_of(paper)
    width = min(BLOCK_WIDTH, frame.width)
    return Box(frame.right - width, frame.y, width, BLOCK_HEIGHT)


def check_viewport(box: Box, centre: tuple[float, float], paper: Paper) -> None:
    """Refuse a viewport that could not be seen or taken hold of.

    Raises:
        SheetError: a figure is no number, the frame is too small, or it lies wholly off the paper.
    """
    if not all(map(math.isfinite, (box.x, box.y, box.width, box.height, *centre))):
        raise SheetError("A viewport's place and size are numbers in mm.")
    if box.width < LEAST_VIEWPORT or box.height < LEAST_VIEWPORT:
        raise SheetError(
            f"A viewport of {box.width:g} x {box.height:g} mm is too small; "
            f"make each side {LEAST_VIEWPORT:g} mm or more."
        )
    if box.x >= paper.width or box.y >= paper.height or box.right <= 0 or box.top <= 0:
        raise SheetError(f"The viewport would lie off the {paper.name} sheet. Keep a part of it on the paper.")
    if box.width > 5 * paper.width or box.height > 5 * paper.height:
        raise SheetError(f"A viewport of {box.width:g} x {box.height:g} mm is far larger than the {paper.name} sheet.")
