"""PNG, painted from the very PDF that would be made of the page."""

from __future__ import annotations

import io
import math
from collections.abc import Iterable

import pypdfium2

from drafting.render.backend import Sources
from drafting.render.backends import pdf
from drafting.render.page import FileInfo, Page
from drafting.render.pixels import INCH, check_pixels


def write(pages: Iterable[Page], sources: Sources, info: FileInfo) -> bytes:
    """A PNG of the one page, at so many pixels to the inch, which it says.

    Raises:
        SheetError: it would be too large.
    """
    (page,) = pages
    check_pixels(page.width, page.height, info.resolution)
    document = pypdfium2.PdfDocument(pdf.write([page], sources, FileInfo(page.name)))
    # The picture is never a pixel larger than the paper, or its last row would be half a line.
    bitmap = document[0].render(scale=info.resolution / 72 * _whole(page.width, info.resolution))
    out = io.BytesIO()
    bitmap.to_pil().convert("RGB").save(out, "PNG", dpi=(info.resolution, info.resolution))
    return out.getvalue()


def _whole(width: float, resolution: int) -> float:
    """By how much a page is scaled so that it is a whole number of pixels wide."""
    pixels = width / INCH * resolution
    return max(1, math.floor(pixels + 1e-6)) / pixels
