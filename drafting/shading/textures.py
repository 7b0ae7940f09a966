"""Where textures lie on what is seen, and their colours there, as far off as they are seen. Compiled."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
from numba import njit
from numpy.typing import NDArray

from drafting.building.model import Building
from drafting.building.textures import Texture
from drafting.linework.tolerances import EDGE_ON
from drafting.views.camera import UP, Camera

Floats = NDArray[np.float64]

#: A face more level than this (height of its normal) has its texture laid along x and y.
LEVEL = 0.99
#: A face seen so nearly along itself (cosine) is as blurred as this; more would leave nothing of it.
MIN_FACING = 0.15


class Textures(NamedTuple):
    """The textures of a building on n faces, as the kernels take them.

    Attributes:
        which: (n,) the texture of each face, -1 for none.
        lie: (n, 2, 4) how often it is repeated to the right and upward at a place along the axes of a
            camera: the first three figures times that, and the last.
        first: (textures, levels + 1) where in `texels` the rows of each begin, at full size and then each
            half as large as the one before; the last is where they end.
        sides: (textures, levels, 2) rows and columns.
        texels: (sum, 4) red, green, blue and opacity, 0 to 255.
    """

    which: NDArray[np.int32]
    lie: Floats
    first: NDArray[np.int64]
    sides: NDArray[np.int64]
    texels: NDArray[np.uint8]


def untextured(faces: int) -> Textures:
    """Textures of so many faces that have none."""
    return Textures(
        np.full(faces, -1, np.int32),
        np.empty((0, 2, 4)),
        np.zeros((0, 2), np.int64),
        np.zeros((0, 1, 2), np.int64),
        np.empty((0, 4), np.uint8),
    )


def textures_on(
    building: Building,
    camera: Camera,
    triangle: NDArray[np.int32],
    material: NDArray[np.int32],
    instead: frozenset[str] = frozenset(),
) -> Textures:
    """The textures of faces.

    Args:
        triangle: (n,) of which triangle of the building each face is a part; -1 for none.
        material: (n,) of which material, an index into the building's or beyond.
        instead: names of materials that are shown in a plain colour.
    """
    numbers = {name: k for k, name in enumerate(building.materials)}
    names = sorted(name for name in building.textures if name in numbers and name not in instead)
    of_material = np.full(max(len(numbers), int(material.max(initial=-1)) + 1), -1, np.int32)
    for k, name in enumerate(names):
        of_material[numbers[name]] = k
    which = np.where((triangle >= 0) & (material >= 0), of_material[material], -1).astype(np.int32)
    there = np.flatnonzero(which >= 0)
    if not len(there):
        return untextured(len(triangle))
    textures = [building.textures[name] for name in names]
    lie = np.zeros((len(triangle), 2, 4))
    sizes = np.array([texture.size for texture in textures])[which[there]]
    lie[there] = _places(building, camera, triangle[there], sizes)
    return Textures(which, lie, *_smaller_and_smaller(textures))


def _places(building: Building, camera: Camera, triangle: NDArray[np.int32], sizes: Floats) -> Floats:
    """(n, 2, 4) how textures of sizes (n, 2) lie on triangles."""
    corners = building.vertices[building.triangles[triangle]]
    lie = _laid(corners, sizes)
    if len(building.texture_places):
        given = np.asarray(building.texture_places[triangle], float)
        said = np.flatnonzero(np.isfinite(given).all(axis=(1, 2)))
        lie[said] = _as_given(corners[said], given[said])
    # At p along the axes of the camera the point is p @ axes + origin.
    found = np.empty_like(lie)
    found[:, :, :3] = lie[:, :, :3] @ camera.axes.T
    found[:, :, 3] = lie[:, :, 3] + lie[:, :, :3] @ camera.origin
    return found


def _laid(corners: Floats, sizes: Floats) -> Floats:
    """Across and up each face: along x and y where that is level."""
    normal = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    length = np.linalg.norm(normal, axis=1)
    normal /= np.where(length > 0, length, 1.0)[:, None]
    level = np.abs(normal[:, 2]) > LEVEL
    across = np.cross(UP, normal)
    across[level] = (1.0, 0.0, 0.0)
    across /= np.maximum(np.linalg.norm(across, axis=1), EDGE_ON)[:, None]
    up = np.cross(normal, across)
    up[level] = (0.0, 1.0, 0.0)
    lie = np.zeros((len(corners), 2, 4))
    lie[:, 0, :3], lie[:, 1, :3] = across / sizes[:, :1], up / sizes[:, 1:]
    return lie


def _as_given(corners: Floats, given: Floats) -> Floats:
    """As the file lays them: (n, 3, 2) places at (n, 3, 3) corners; none varies across its face."""
    a, b = corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    normal = np.cross(a, b)
    thin = np.linalg.norm(normal, axis=1) < EDGE_ON
    frame = np.stack([a, b, np.where(thin[:, None], 1.0, normal)], axis=1)
    frame[thin] = np.eye(3)
    rise = np.zeros((len(given), 3, 2))
    rise[:, :2] = given[:, 1:] - given[:, :1]
    slope = np.linalg.solve(frame, rise)
    slope[thin] = 0.0
    lie = np.empty((len(corners), 2, 4))
    lie[:, :, :3] = slope.transpose(0, 2, 1)
    lie[:, :, 3] = given[:, 0] - (lie[:, :, :3] * corners[:, None, 0]).sum(axis=2)
    return lie


def _smaller_and_smaller(
    textures: Sequence[Texture],
) -> tuple[NDArray[np.int64], NDArray[np.int64], NDArray[np.uint8]]:
    """Textures, each at full size and at half of that, down to one pixel: as `Textures` has them."""
    levels = max(max(t.pixels.shape[:2]) for t in textures).bit_length()
    first = np.zeros((len(textures), levels + 1), np.int64)
    sides = np.ones((len(textures), levels, 2), np.int64)
    parts, at = [], 0
    for k, texture in enumerate(textures):
        pixels = texture.pixels
        for level in range(levels):
            first[k, level], sides[k, level] = at, pixels.shape[:2]
            parts.append(pixels.reshape(-1, 4))
            at += len(parts[-1])
            pixels = _half(pixels)
        first[k, levels] = at
    return first, sides, np.concatenate(parts)


def _half(pixels: NDArray[np.uint8]) -> NDArray[np.uint8]:
    """A picture of half as many rows and columns, and one at least: the means of four pixels each."""
    found: NDArray[np.floating] = pixels.astype(np.float32)
    for axis in (0, 1):
        count = found.shape[axis]
        if count > 1:
            even = np.take(found, np.arange(0, count - 1, 2), axis)
            odd = np.take(found, np.arange(1, count, 2), axis)
            found = (even + odd) / 2
    return (found + 0.5).astype(np.uint8)


@njit(cache=True)
def nearness(at, normal, distance):
    """How much larger than in the picture a place is on its face: the further, and the more along it one
    looks."""
    if np.isinf(distance):
        return 1.0 / np.sqrt(max(abs(normal[2]), MIN_FACING))
    x, y, z = -at[0], -at[1], distance - at[2]
    facing = abs(normal[0] * x + normal[1] * y + normal[2] * z) / np.sqrt(x * x + y * y + z * z)
    return z / distance / np.sqrt(max(facing, MIN_FACING))


@njit(cache=True)
def colour_at(textures, face, at, seen_size, colour):
    """Write the colour (4,) of a textured face at a place; `seen_size` is how large a place is on it, mm."""
    k = textures.which[face]
    lie = textures.lie[face]
    right = lie[0, 0] * at[0] + lie[0, 1] * at[1] + lie[0, 2] * at[2] + lie[0, 3]
    up = lie[1, 0] * at[0] + lie[1, 1] * at[1] + lie[1, 2] * at[2] + lie[1, 3]
    rows, columns = textures.sides[k, 0]
    # How many texels a place covers, one way or the other.
    across = np.sqrt(lie[0, 0] ** 2 + lie[0, 1] ** 2 + lie[0, 2] ** 2) * columns
    along = np.sqrt(lie[1, 0] ** 2 + lie[1, 1] ** 2 + lie[1, 2] ** 2) * rows
    texels = max(across, along) * seen_size
    level = np.log2(texels) if texels > 1.0 else 0.0
    last = textures.sides.shape[1] - 1
    level = min(level, float(last))
    whole = int(level)
    share = level - whole
    for c in range(4):
        colour[c] = 0.0
    _add(textures, k, whole, right, up, 1.0 - share, colour)
    if share > 0.0:
        _add(textures, k, min(whole + 1, last), right, up, share, colour)


@njit(cache=True)
def _add(textures, k, level, right, up, share, colour):
    """Add so much of the colour at a place, between the four texels about it."""
    rows, columns = textures.sides[k, level]
    first = textures.first[k, level]
    x, y = (right - np.floor(right)) * columns - 0.5, (1.0 - (up - np.floor(up))) * rows - 0.5
    x0, y0 = int(np.floor(x)), int(np.floor(y))
    for down in range(2):
        for on in range(2):
            part = (1.0 - abs(x - x0 - on)) * (1.0 - abs(y - y0 - down)) * share / 255.0
            texel = first + ((y0 + down) % rows) * columns + (x0 + on) % columns
            for c in range(4):
                colour[c] += part * textures.texels[texel, c]
