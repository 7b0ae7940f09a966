"""Pictures of pixels as a plot takes them, and how large they may be."""

from __future__ import annotations

import io
from functools import lru_cache

from drafting.errors import SheetError

#: Pixels of an inch that can be chosen.
RESOLUTIONS = (72, 100, 150, 200, 300, 400, 600)
INCH = 25.4
#: An A0 at 300 pixels to the inch has 139 million.
MAX_PIXELS = 200_000_000


def check_pixels(width: float, height: float, resolution: int) -> None:
    """Refuse a picture that is larger than most programs open. `width`, `height` in mm.

    Raises:
        SheetError: names a resolution that is possible.
    """
    if width * height * (resolution / INCH) ** 2 > MAX_PIXELS:
        least = max(
            r for r in RESOLUTIONS if r == RESOLUTIONS[0] or width * height * (r / INCH) ** 2 <= MAX_PIXELS
        )
        raise SheetError(
            f"A sheet of {width:g} x {height:g} mm at {resolution} pixels an inch is too large a picture. "
            f"Choose {least} or less."
        )


@lru_cache(maxsize=16)
def grey(pixels: bytes) -> bytes:
    """A PNG or JPEG without its colours, as PNG; what was clear stays so."""
    from PIL import Image  # not wanted by whoever only checks sizes

    picture = Image.open(io.BytesIO(pixels))
    clear = "A" in picture.getbands() or "transparency" in picture.info
    out = io.BytesIO()
    picture.convert("RGBA" if clear else "RGB").convert("LA" if clear else "L").save(out, "PNG")
    return out.getvalue()
