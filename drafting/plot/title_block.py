"""The title block at the lower right of the frame (ISO 7200 for its fields, ISO 5457 for its place and width)."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from drafting.plot.display import Fill, Path, Text
from drafting.plot.lettering import fit
from drafting.plot.pens import BLOCK_PEN, INK, RULE_PEN
from drafting.sheets.sheet import BLOCK_WIDTH, Sheet, block_of

LAYER = "Title block"
#: Captions are small and lighter than what they caption. mm.
CAPTION, CAPTION_COLOUR = 1.8, "#5d646b"
PADDING = 2.0


@dataclass(frozen=True)
class _Cell:
    """A box of the block, measured from its lower left corner: a caption and a value in it."""

    x: float
    y: float
    width: float
    height: float
    caption: str
    value: str
    size: float = 2.5
    bold: bool = False


def title_block_items(sheet: Sheet) -> Iterator[Path | Fill | Text]:
    """The title block filled in from a sheet's fields and what is derived from the sheet."""
    box = block_of(sheet.paper)
    stretch = box.width / BLOCK_WIDTH
    yield Fill((np.array(box.corners),), "#ffffff", LAYER)
    for cell in _cells(sheet):
        left, width = box.x + cell.x * stretch, cell.width * stretch
        bottom = box.y + cell.y
        corners = [
            (left, bottom),
            (left + width, bottom),
            (left + width, bottom + cell.height),
            (left, bottom + cell.height),
        ]
        yield Path(np.array(corners), RULE_PEN, LAYER, closed=True)
        room = width - 2 * PADDING
        text, size = fit(cell.caption, CAPTION, room)
        yield Text((left + PADDING, bottom + cell.height - 1.2 - CAPTION), text, size, CAPTION_COLOUR, layer=LAYER)
        if cell.value:
            text, size = fit(cell.value, cell.size, room, cell.bold)
            # Larger lettering hangs deeper below its base line.
            yield Text((left + PADDING, bottom + 1.0 + 0.25 * size), text, size, INK, bold=cell.bold, layer=LAYER)
    yield Path(np.array(box.corners), BLOCK_PEN, LAYER, closed=True)


def _cells(sheet: Sheet) -> Iterator[_Cell]:
    f = sheet.fields
    yield _Cell(0, 38, 66, 12, "Practice", f.owner, 3.5, True)
    yield _Cell(0, 28, 66, 10, "Client", f.client)
    yield _Cell(0, 18, 66, 10, "Site", f.site)
    yield _Cell(66, 40, 114, 10, "Project", f.project, 3.5)
    yield _Cell(66, 27, 114, 13, "Title", f.title, 5, True)
    yield _Cell(66, 18, 114, 9, "Supplementary title", f.supplementary_title)
    upper = (
        ("Drawn by", f.creator), ("Approved by", f.approver), ("Date of issue", f.date),
        ("Document type", f.document_type), ("Status", f.status),
    )  # fmt: skip
    lower = (
        ("Scale", sheet.scale_text), ("Paper", sheet.paper.name), ("Sheet", "{} of {}".format(*f.sheet_of)),
        ("Revision", f.revision), ("Project number", f.project_number),
    )  # fmt: skip
    for y, row in ((9.0, upper), (0.0, lower)):
        for k, (caption, value) in enumerate(row):
            yield _Cell(k * 26.4, y, 26.4, 9, caption, value)
    yield _Cell(132, 0, 48, 18, "Sheet number", f.number, 7, True)
