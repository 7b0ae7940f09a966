"""What a file of plain meshes does not say and its shape tells: which axis points up, and the unit."""

from __future__ import annotations

import numpy as np

from drafting.building.model import Floats
from drafting.building.units import UNITS

#: A building's longest side is somewhere here (mm); tried in the order of what files are mostly in.
LIKELY_SIZE = (2_500.0, 400_000.0)
LIKELY_UNITS = ("m", "mm", "cm", "ft", "in")
#: From floor to floor; mm.
LIKELY_STOREY = (2_200.0, 5_500.0)
#: A face lies across an axis when its normal is this near to it (cosine).
ACROSS, LEVEL = 0.9, 0.999
#: A building is no flatter than this share of its longest side.
FLATTEST = 0.15
#: A level has so much of the area of the largest; levels nearer than this share of the highest storey are one
#: floor with its build-up.
LEVEL_SHARE, SAME_FLOOR = 0.2, 0.25
#: Heights are gathered in so many steps.
STEPS = 2000


def likely_up(corners: Floats, usual: str, surely: float) -> str:
    """Which axis points up, y or z: floors, ceilings and roofs lie across one axis, walls across two.

    Args:
        corners: (n, 3, 3) of all triangles.
        usual: the axis that files of the kind have upward.
        surely: the other one is taken only where so many times as much area lies across it.
    """
    normal, area = _faces(corners)
    extent = np.ptp(corners.reshape(-1, 3), axis=0)
    across = {axis: float(area[np.abs(normal[:, k]) > ACROSS].sum()) for axis, k in (("y", 1), ("z", 2))}
    other = "y" if usual == "z" else "z"
    flat = extent["xyz".index(other)] < FLATTEST * extent.max()
    return other if not flat and across[other] > surely * across[usual] else usual


def storey_height(corners: Floats) -> float | None:
    """How far it is from floor to floor, in the unit of the corners, z up; None where there are no two
    floors."""
    normal, area = _faces(corners)
    up = normal[:, 2] > LEVEL
    height = corners[up, :, 2].mean(axis=1)
    whole = float(np.ptp(corners[:, :, 2]))
    if not len(height) or whole <= 0:
        return None
    low = float(height.min())
    step = np.round((height - low) / whole * STEPS).astype(np.int64)
    size = np.bincount(step, area[up])
    levels = np.flatnonzero(size >= LEVEL_SHARE * size.max()) / STEPS * whole
    gaps = np.diff(levels)
    gaps = gaps[gaps > SAME_FLOOR * gaps.max(initial=0.0)]
    return float(np.median(gaps)) if len(gaps) else None


def likely_unit(size: float, storey: float | None) -> str:
    """The unit in which something so long, with storeys so high, is a building; the metre where none makes it
    one.

    >>> likely_unit(12.0, 3.0), likely_unit(40.0, 9.0), likely_unit(12_000.0, None)
    ('m', 'ft', 'mm')
    """
    fits = [unit for unit in LIKELY_UNITS if LIKELY_SIZE[0] <= size * UNITS[unit] <= LIKELY_SIZE[1]]
    if storey is not None:
        low, high = LIKELY_STOREY
        fits = [unit for unit in fits if low <= storey * UNITS[unit] <= high] or fits
    return fits[0] if fits else "m"


def _faces(corners: Floats) -> tuple[Floats, Floats]:
    """Unit normals (n, 3) and areas (n,); zero for what has no area."""
    cross = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    length = np.linalg.norm(cross, axis=1)
    return cross / np.where(length > 0, length, 1.0)[:, None], length / 2
