"""A page to PNG, painted from the very PDF that would be made of it."""

from __future__ import annotations

import io
import math
from collections.abc import Callable

import pypdfium2

from drafting.errors import SheetError
from drafting.linework.model import Linework
from drafting.plot.display import no_picture
from drafting.plot.page import Page
from drafting.plot.pdf import POINT, write_pdf

#: Pixels of an inch that can be chosen.
RESOLUTIONS = (72, 100, 150, 200, 300, 400, 600)
INCH = 25.4
#: An A0 at 300 pixels to the inch has 139 million.
MOST_PIXELS = 200_000_000


def check_pixels(width: float, height: float, resolution: int) -> None:
    """Refuse a picture that is larger than most programs open. `width`, `height` in mm.

    Raises:
        SheetError: names a resolution that is possible.
    """
    if width * height * (resolution / INCH) ** 2 > MOST_PIXELS:
        least = max(r for r in RESOLUTIONS if r == RESOLUTIONS[0] or width * height * (r / INCH) ** 2 <= MOST_PIXELS)
        raise SheetError(
            f"A sheet of {width:g} x {height:g} mm at {resolution} pixels an inch is too large a picture. "
            f"Take {least} or less."
        )


def write_png(
    page: Page, linework: Callable[[str], Linework], resolution: int, pictures: Callable[[str], bytes] = no_picture
) -> bytes:
    """A PNG at so many pixels to the inch, which it tells.

    Raises:
        SheetError: it would be too large.
    """
    check_pixels(page.width, page.height, resolution)
    document = pypdfium2.PdfDocument(write_pdf([page], linework, page.name, pictures=pictures))
    # The picture is never a pixel larger than the paper, or its last row would be half a line.
    bitmap = document[0].render(scale=resolution / 72 * _whole(page.width, resolution))
    out = io.BytesIO()
    bitmap.to_pil().convert("RGB").save(out, "PNG", dpi=(resolution, resolution))
    return out.getvalue()


def _whole(width: float, resolution: int) -> float:
    """By how much a page is scaled so that it is a whole number of pixels wide."""
    pixels = width * POINT / 72 * resolution
    return max(1, math.floor(pixels + 1e-6)) / pixels
