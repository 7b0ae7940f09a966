"""Sheets as tiles of pixels, coarse to fine: a browser shows a sheet of any size with the few that it needs.

They lie in a ZIP, uncompressed, as `LEVEL/ROW/COLUMN.png`; level 0 is the coarsest, and each is twice as fine
as the one before. Rows count from the top.
"""

from __future__ import annotations

import math
import zipfile
from dataclasses import dataclass
from io import BytesIO
from pathlib import Path
from typing import Annotated

import numpy as np
import pypdfium2
from PIL import Image
from pydantic import Field

from drafting.errors import SheetError
from drafting.progress import Progress, silent
from drafting.schema import CLOSED

#: The side of a tile, pixels.
TILE = 512
#: The finest: about 300 to the inch, unless the sheet would have more than so many pixels.
FINEST, MAX_PIXELS = 12.0, 100_000_000
#: The coarsest level is no wider than this; pixels.
WHOLE = 1024
POINTS_PER_MM = 72 / 25.4
#: How hard a tile is compressed. The usual 6 makes it a sixth smaller and takes two thirds longer, which is
#: most of what it takes to make a review ready.
COMPRESSION = 3


@dataclass(frozen=True)
class TileLevel:
    """One fineness of a sheet: pixels to a mm of paper, and how many rows and columns of tiles."""

    __pydantic_config__ = CLOSED

    per_mm: Annotated[float, Field(gt=0)]
    columns: int
    rows: int


def levels_of(width: float, height: float) -> tuple[TileLevel, ...]:
    """The levels of a sheet, the coarsest first; mm.

    >>> [round(level.per_mm, 2) for level in levels_of(420.0, 297.0)]
    [1.5, 3.0, 6.0, 12.0]
    """
    finest = min(FINEST, math.sqrt(MAX_PIXELS / (width * height)))
    halvings = max(0, math.ceil(math.log2(finest * max(width, height) / WHOLE)))
    found = []
    for k in range(halvings, -1, -1):
        per_mm = finest / 2**k
        columns, rows = (max(1, math.ceil(side * per_mm / TILE)) for side in (width, height))
        found.append(TileLevel(per_mm, columns, rows))
    return tuple(found)


def write_tiles(
    pdf: Path, page: int, target: Path, name: str = "", progress: Progress = silent
) -> tuple[TileLevel, ...]:
    """Write the tiles of a page of a PDF to `target`, and return its levels. `name` is what it is called."""
    document = pypdfium2.PdfDocument(pdf)
    try:
        sheet = document[page]
        width, height = (side / POINTS_PER_MM for side in sheet.get_size())
        levels = levels_of(width, height)
        strips = sum(level.rows for level in levels)
        done = 0
        with zipfile.ZipFile(target, "w", zipfile.ZIP_STORED) as archive:
            for number, level in enumerate(levels):
                for row in range(level.rows):
                    progress(f"Making {name} ready to be looked at", done / strips)
                    _write_strip(archive, sheet, (width, height), number, level, row)
                    done += 1
    finally:
        document.close()
    return levels


def _write_strip(
    archive: zipfile.ZipFile,
    sheet: pypdfium2.PdfPage,
    size: tuple[float, float],
    number: int,
    level: TileLevel,
    row: int,
) -> None:
    """A row of tiles: all of one height but those at the foot."""
    width, height = (side * level.per_mm for side in size)
    top, foot = row * TILE, min((row + 1) * TILE, math.ceil(height))
    scale = level.per_mm / POINTS_PER_MM
    # What is cropped is given in points.
    crop = 0.0, max(0.0, height - foot) / scale, 0.0, top / scale
    strip = sheet.render(scale=scale, crop=crop, may_draw_forms=False, rev_byteorder=True).to_pil()
    for column in range(level.columns):
        tile = strip.crop((column * TILE, 0, min((column + 1) * TILE, math.ceil(width)), foot - top))
        archive.writestr(tile_name(number, row, column), _png(tile))


def _png(tile: Image.Image) -> bytes:
    """A tile, without colours where it has none."""
    pixels = np.asarray(tile)
    plain = bool((pixels[..., 0] == pixels[..., 1]).all() and (pixels[..., 0] == pixels[..., 2]).all())
    out = BytesIO()
    (tile.convert("L") if plain else tile).save(out, "PNG", compress_level=COMPRESSION)
    return out.getvalue()


def tile_name(level: int, row: int, column: int) -> str:
    """Under which name a tile lies in the archive."""
    return f"{level}/{row}/{column}.png"


def read_tile(archive: Path, level: int, row: int, column: int) -> bytes:
    """A tile as PNG.

    Raises:
        SheetError: there is none.
    """
    try:
        with zipfile.ZipFile(archive) as opened:
            return opened.read(tile_name(level, row, column))
    except KeyError as error:
        raise SheetError("There is no such part of this sheet.") from error
