"""What a comment is about, as it was looked at and as it is now: two pictures of the same place."""

from __future__ import annotations

from io import BytesIO
from pathlib import Path

import pypdfium2

from drafting.geometry.boxes import Box
from drafting.issuing.frozen import FrozenSheet
from drafting.render.backend import Sources
from drafting.render.backends import FORMATS
from drafting.render.page import FileInfo, whole_page
from drafting.review.tiles import POINTS_PER_MM

#: Pixels for a mm of the sheet as it was; no picture is smaller or larger than these, paper mm.
PER_MM, MIN_SIDE, MAX_SIDE = 6.0, 50.0, 200.0
#: About what is marked, mm.
MARGIN = 12.0


def shown_box(box: Box) -> Box:
    """What is shown about what is marked, paper mm.

    >>> shown_box(Box(100.0, 100.0, 0.0, 80.0))
    Box(x=75.0, y=88.0, width=50.0, height=104.0)
    """
    x, y = box.middle
    width, height = (min(max(side + 2 * MARGIN, MIN_SIDE), MAX_SIDE) for side in (box.width, box.height))
    return Box(x - width / 2, y - height / 2, width, height)


def cropped(pdf: Path, page: int, box: Box, per_mm: float = PER_MM) -> bytes:
    """A part of a page of a PDF as PNG; what lies beside the paper is white."""
    document = pypdfium2.PdfDocument(pdf)
    try:
        sheet = document[page]
        width, height = sheet.get_size()
        edges = (box.x, box.y, width / POINTS_PER_MM - box.right, height / POINTS_PER_MM - box.top)
        crop = tuple(max(0.0, edge * POINTS_PER_MM) for edge in edges)
        picture = sheet.render(scale=per_mm / POINTS_PER_MM, crop=crop, may_draw_forms=False).to_pil()
    finally:
        document.close()
    out = BytesIO()
    picture.convert("RGB").save(out, "PNG")
    return out.getvalue()


def pictured_now(sheet: FrozenSheet, sources: Sources, box: Box, per_mm: float, folder: Path) -> bytes:
    """A part of a sheet as PNG."""
    pdf = folder / "now.pdf"
    pdf.write_bytes(FORMATS["pdf"].write([whole_page(sheet.display)], sources, FileInfo()))
    return cropped(pdf, 0, box, per_mm)
