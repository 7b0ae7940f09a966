"""What the outside of the demo building looks like: boards of larch, coursed stone, seams of zinc. The
pictures are made here, the same each time."""

from __future__ import annotations

import io
from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray
from PIL import Image

Floats = NDArray[np.float64]
Size = tuple[float, float]
#: So fine are the pictures; real mm for one pixel.
FINE = 6.25
SEED = 20


def boards(colour: Floats, size: Size, rng: np.random.Generator) -> Floats:
    """Upright boards of 150 mm with open joints, no two of one tone."""
    shade, across, _ = _blank(size)
    board = (across // 150).astype(int)
    shade *= (0.88 + 0.2 * rng.random(board.max() + 1))[board]
    shade *= 1 + 0.04 * rng.standard_normal(shade.shape[1])
    shade[:, across % 150 < 10] = 0.35
    return _tinted(shade, colour)


def courses(colour: Floats, size: Size, rng: np.random.Generator) -> Floats:
    """Courses of stone, 200 mm high, the stones of each of several lengths."""
    shade, across, up = _blank(size)
    for course in range(round(size[1] / 200)):
        rows = (up >= course * 200) & (up < (course + 1) * 200)
        joints = np.sort(rng.choice(np.arange(0, size[0], 100), round(size[0] / 420), replace=False))
        joints = joints[np.diff(joints, append=joints[0] + size[0]) > 150] + rng.integers(0, 90)
        stone = np.searchsorted(joints % size[0], across, sorter=np.argsort(joints % size[0]))
        tone = (0.84 + 0.28 * rng.random(len(joints) + 1))[stone % len(joints)]
        tone[(np.abs((across[:, None] - joints[None] + 6) % size[0]) < 12).any(axis=1)] = 0.62
        shade[rows] = tone
    shade[up % 200 < 12] = 0.62
    return _tinted(shade * (1 + 0.03 * rng.standard_normal(shade.shape)), colour)


def seams(colour: Floats, size: Size, rng: np.random.Generator) -> Floats:
    """Sheets of metal with a standing seam every 500 mm."""
    shade, across, _ = _blank(size)
    shade *= (0.97 + 0.06 * rng.random(round(size[0] / 500)))[(across // 500).astype(int)]
    shade[:, across % 500 < 19] = 1.25
    shade[:, (across % 500 >= 19) & (across % 500 < 38)] = 0.7
    return _tinted(shade, colour)


#: By style: how it is made, and how wide and high it is on the building, mm.
SURFACES: dict[str, tuple[Callable[[Floats, Size, np.random.Generator], Floats], Size]] = {
    "Larch": (boards, (2400.0, 1200.0)),
    "Stone": (courses, (3200.0, 2400.0)),
    "Zinc": (seams, (2000.0, 1000.0)),
}


def surface(style: str, colour: tuple[float, float, float]) -> tuple[bytes, Size]:
    """A surface as a PNG file, and its size on the building."""
    make, size = SURFACES[style]
    pixels = make(np.array(colour), size, np.random.default_rng(SEED))
    stream = io.BytesIO()
    Image.fromarray((np.clip(pixels, 0, 1) * 255 + 0.5).astype(np.uint8)).save(stream, "PNG", optimize=True)
    return stream.getvalue(), size


def _blank(size: Size) -> tuple[Floats, Floats, Floats]:
    """A picture of ones, and where its columns and rows lie to the right and upward; mm."""
    columns, rows = (round(side / FINE) for side in size)
    return np.ones((rows, columns)), np.arange(columns) * FINE, np.arange(rows)[::-1] * FINE


def _tinted(shade: Floats, colour: Floats) -> Floats:
    return shade[:, :, None] * colour
