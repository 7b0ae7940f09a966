"""A sheet, its frame and title block, as the core takes them."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field

from drafting.sheets.marks import Annotation
from drafting.sheets.paper import Paper
from drafting.sheets.viewport import Box, Viewport

#: ISO 5457: the frame stands 20 mm from the filing edge and 10 mm from the others.
FILING_MARGIN, MARGIN = 20.0, 10.0
#: ISO 7200: the title block is 180 mm wide; ISO 5457 puts it at the lower right of the frame.
BLOCK_WIDTH, BLOCK_HEIGHT = 180.0, 50.0


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
class DrawingList:
    """A list of the set's drawings on a sheet: its upper left corner (mm), and number, title, paper, scale and
    revision of each sheet, in register order."""

    at: tuple[float, float]
    rows: tuple[tuple[str, str, str, str, str], ...]


@dataclass(frozen=True)
class Sheet:
    """A sheet ready to compose."""

    paper: Paper
    fields: TitleFields = field(default_factory=TitleFields)
    viewports: tuple[Viewport, ...] = ()
    #: By the id of the viewport.
    annotations: Mapping[str, Annotation] = field(default_factory=dict)
    drawing_list: DrawingList | None = None

    @property
    def scale_text(self) -> str:
        """What the title block says of the scale: the one there is, or that each drawing says its own."""
        return common_scale_text(v.scale_text for v in self.viewports)


def common_scale_text(scales: Iterable[str]) -> str:
    """The one scale that there is; that each drawing says its own where they differ; a dash where there is none."""
    different = set(scales)
    return next(iter(different)) if len(different) == 1 else "As shown" if different else "–"


def frame_of(paper: Paper) -> Box:
    """The frame line of a sheet (ISO 5457)."""
    return Box(FILING_MARGIN, MARGIN, paper.width - FILING_MARGIN - MARGIN, paper.height - 2 * MARGIN)


def block_of(paper: Paper) -> Box:
    """Where the title block lies; on a sheet narrower than it, as wide as the frame."""
    frame = frame_of(paper)
    width = min(BLOCK_WIDTH, frame.width)
    return Box(frame.right - width, frame.y, width, BLOCK_HEIGHT)
