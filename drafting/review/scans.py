"""A scan or a photo of a print, laid under its sheet: by the frame that both have, or by three points."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from io import BytesIO
from pathlib import Path
from typing import Annotated

import numpy as np
import pypdfium2
from numpy.typing import NDArray
from PIL import Image, ImageOps, UnidentifiedImageError
from pydantic import Field
from scipy import ndimage

from drafting.errors import SheetError
from drafting.progress import Progress, silent
from drafting.review.scan_placement import ScanPlacement
from drafting.review.tiles import POINTS_PER_MM

Floats = NDArray[np.float64]

#: A scan is kept no larger, and is looked through for a frame no larger; pixels.
MAX_SIDE, LOOKED_AT, MAX_PIXELS = 4_000, 1_400, 150_000_000
#: A page of a PDF is read so fine; pixels to the inch.
PER_INCH = 200.0
#: Ink is darker than its surroundings by this, and no lighter than that; of 255.
DARKER, LIGHTEST = 22.0, 200.0
#: A frame takes up so much of the picture, and fits its sheet so well, mm.
MIN_SHARE, NEAR = 0.45, 4.0
#: So many places, across and down, are compared to tell which way up it is.
COMPARED = (120, 90)


@dataclass(frozen=True)
class Scan:
    """A scan as it is kept: its size, how it lies, and whether its frame was found."""

    width: Annotated[int, Field(gt=0)]
    height: Annotated[int, Field(gt=0)]
    placement: ScanPlacement
    found: bool


def lay(source: Path, name: str, sheet: Path, target: Path, progress: Progress = silent) -> Scan:
    """Keep a scan at `target` as JPEG, and find how it lies on a sheet.

    Args:
        sheet: a PDF of one page, which is the sheet at its own size.

    Raises:
        SheetError: it is no picture, or far too large.
    """
    progress("Reading the scan", 0.0)
    picture = _read(source, name)
    picture.save(target, "JPEG", quality=82)
    progress("Looking for the frame", 0.4)
    plain, (width, height) = _rendered(sheet, LOOKED_AT)
    found = _by_frame(np.asarray(picture.convert("L"), float), plain, (width, height))
    whole = width / picture.width, height / picture.height
    filling = ScanPlacement(whole[0], 0.0, 0.0, 0.0, -whole[1], height)
    return Scan(picture.width, picture.height, found or filling, found is not None)


def _read(source: Path, name: str) -> Image.Image:
    data = source.read_bytes()
    try:
        if data[:5] == b"%PDF-":
            with pypdfium2.PdfDocument(data) as document:
                page = document[0]
                scale = min(PER_INCH / 72, MAX_SIDE / max(page.get_size()))
                rendered: Image.Image = page.render(scale=scale, may_draw_forms=False).to_pil()
                return rendered.convert("RGB")
        with Image.open(BytesIO(data)) as opened:
            if opened.width * opened.height > MAX_PIXELS:
                millions = opened.width * opened.height / 1e6
                raise SheetError(f"“{name}” has {millions:.0f} million pixels. Scan it at 200 to the inch.")
            upright = ImageOps.exif_transpose(opened).convert("RGB")
        upright.thumbnail((MAX_SIDE, MAX_SIDE))
        return upright
    except SheetError:
        raise
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError, Image.DecompressionBombError,
            pypdfium2.PdfiumError):  # fmt: skip
        raise SheetError(f"“{name}” could not be read. A scan is a PNG, JPEG, TIFF or PDF file.") from None


def _rendered(sheet: Path, side: int) -> tuple[Floats, tuple[float, float]]:
    """A sheet in grey, so many pixels long, and its size, mm."""
    with pypdfium2.PdfDocument(sheet) as document:
        page = document[0]
        size = page.get_size()
        picture = page.render(scale=side / max(size), may_draw_forms=False).to_pil()
    return np.asarray(picture.convert("L"), float), (size[0] / POINTS_PER_MM, size[1] / POINTS_PER_MM)


def _by_frame(scan: Floats, sheet: Floats, size: tuple[float, float]) -> ScanPlacement | None:
    """How a scan lies on its sheet by the largest outline that both have; None where there is none."""
    step = max(1, round(max(scan.shape) / LOOKED_AT))
    # The mean of a few pixels, for a thin line between two that are looked at is none.
    small = ndimage.uniform_filter(scan, step)[step // 2 :: step, step // 2 :: step] if step > 1 else scan
    inked, drawn = _ink(small), _ink(sheet)
    corners, wanted = _corners(inked), _corners(drawn)
    if corners is None or wanted is None:
        return None
    pixels = corners * step + step // 2
    per_mm = sheet.shape[1] / size[0]
    places = np.stack([wanted[:, 0] / per_mm, size[1] - wanted[:, 1] / per_mm], axis=1)
    best: tuple[float, ScanPlacement] | None = None
    for turn in range(4):
        placement = by_points(pixels.tolist(), np.roll(places, turn, axis=0).tolist())
        if placement is None:
            continue
        missed = max(
            float(np.hypot(*(np.array(placement.place(*pixel)) - place)))
            for pixel, place in zip(pixels.tolist(), np.roll(places, turn, axis=0), strict=True)
        )
        alike = _alike(inked, drawn, placement, step, size) if missed < NEAR else -1.0
        if alike > 0 and (best is None or alike > best[0]):
            best = alike, placement
    return best[1] if best else None


def _ink(grey: Floats) -> NDArray[np.bool_]:
    """Where a picture is darker than about it: print and pencil, but no shadow of a fold or a hand."""
    about = ndimage.uniform_filter(grey, 41)
    return np.asarray((grey < about - DARKER) & (grey < LIGHTEST))


def _corners(ink: NDArray[np.bool_]) -> Floats | None:
    """The corners (4, 2) of the largest connected outline, as columns and rows, from the upper left with the
    clock; None where nothing is large enough."""
    joined = ndimage.binary_dilation(ink, np.ones((3, 3), bool))
    labels, count = ndimage.label(joined, np.ones((3, 3), bool))
    best, largest = 0, 0.0
    for k, (rows, columns) in enumerate(ndimage.find_objects(labels), 1):
        high, wide = rows.stop - rows.start, columns.stop - columns.start
        if min(high / ink.shape[0], wide / ink.shape[1]) > MIN_SHARE and high * wide > largest:
            best, largest = k, high * wide
    if not count or not best:
        return None
    row, column = np.nonzero((labels == best) & ink)
    ends = [
        np.argmin(column + row),
        np.argmax(column - row),
        np.argmax(column + row),
        np.argmin(column - row),
    ]
    return np.array([[column[k], row[k]] for k in ends], float)


def by_points(pixels: Sequence[Sequence[float]], places: Sequence[Sequence[float]]) -> ScanPlacement | None:
    """How a picture lies whose pixels are to lie at places of the sheet, as nearly as can be; None where they
    lie on one line.

    >>> by_points([(0, 0), (100, 0), (0, 100)], [(10, 50), (20, 50), (10, 40)])
    ScanPlacement(a=0.1, b=0.0, c=10.0, d=0.0, e=-0.1, f=50.0)
    """
    given = np.column_stack([np.array(pixels, float), np.ones(len(pixels))])
    if np.linalg.matrix_rank(given, tol=1e-6 * np.abs(given).max()) < 3:
        return None
    solved, *_ = np.linalg.lstsq(given, np.array(places, float), rcond=None)
    return ScanPlacement(*(round(float(value), 9) + 0.0 for value in solved.T.ravel()))


def _alike(
    scan: NDArray[np.bool_],
    sheet: NDArray[np.bool_],
    placement: ScanPlacement,
    step: int,
    size: tuple[float, float],
) -> float:
    """How alike the ink of a scan and of its sheet are: their correlation, each made soft."""
    columns, rows = COMPARED
    x = (np.arange(columns) + 0.5) / columns * size[0]
    y = (np.arange(rows) + 0.5) / rows * size[1]
    xs, ys = np.meshgrid(x, y)
    per_mm = sheet.shape[1] / size[0]
    there = ndimage.uniform_filter(sheet.astype(float), 9)
    wanted = there[
        np.clip(((size[1] - ys) * per_mm).astype(int), 0, sheet.shape[0] - 1),
        np.clip((xs * per_mm).astype(int), 0, sheet.shape[1] - 1),
    ]
    matrix = np.array([[placement.a, placement.b], [placement.d, placement.e]])
    if abs(np.linalg.det(matrix)) < 1e-12:
        return -1.0
    back = np.linalg.inv(matrix)
    column, row = np.tensordot(back, np.stack([xs - placement.c, ys - placement.f]), axes=1) / step
    inside = (column >= 0) & (row >= 0) & (column < scan.shape[1]) & (row < scan.shape[0])
    here = ndimage.uniform_filter(scan.astype(float), 9)
    found = here[
        np.clip(row.astype(int), 0, scan.shape[0] - 1), np.clip(column.astype(int), 0, scan.shape[1] - 1)
    ]
    a, b = found[inside] - found[inside].mean(), wanted[inside] - wanted[inside].mean()
    whole = float(np.sqrt((a**2).sum() * (b**2).sum()))
    return float((a * b).sum()) / whole if whole else -1.0
