"""Pictures of pixels as a plot takes them."""

from __future__ import annotations

import io
from functools import lru_cache

from PIL import Image


@lru_cache(maxsize=16)
def grey(pixels: bytes) -> bytes:
    """A PNG or JPEG without its colours, as PNG; what was clear stays so."""
    picture = Image.open(io.BytesIO(pixels))
    clear = "A" in picture.getbands() or "transparency" in picture.info
    out = io.BytesIO()
    picture.convert("RGBA" if clear else "RGB").convert("LA" if clear else "L").save(out, "PNG")
    return out.getvalue()
