"""How light what is seen is, and in which colour. Compiled."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numba import njit, prange
from numpy.typing import NDArray

from drafting.shading.textures import Textures, colour_at, nearness

Floats = NDArray[np.float64]

#: How much light comes from the whole sky; the rest comes from the sun or the fixed light.
SKY_SHARE = 0.55
#: Of that rest a part falls on all that is not in shadow, however it is turned; what is turned so far to the
#: light (cosine) is at its full colour, and what is turned further at most so much brighter.
OWN_SHARE, FULL_LIGHT, BRIGHTEST = 0.35, 0.6, 1.2
#: How much darker flat colours are in full shadow.
FLAT_SHADOW = 0.5
PAPER = 1.0


class Tones(NamedTuple):
    """What light makes of colours.

    Attributes:
        to_light: unit vector along the axes of the camera.
        up: whether the light is above the horizon.
        flat: whether colours are the same however they are turned.
        shadows, sky, fading: shares, as an Appearance has them.
        near, far: the depths between which what is seen fades; mm.
        unlit: the material that is at its colour whatever the light.
        distance: from target to eye; infinite for a parallel projection.
    """

    to_light: Floats
    up: bool
    flat: bool
    shadows: float
    sky: float
    fading: float
    near: float
    far: float
    unlit: int
    distance: float


def toned(
    face: NDArray[np.int32],
    at: Floats,
    normal: Floats,
    material: NDArray[np.int32],
    colours: Floats,
    textures: Textures,
    lit: tuple[Floats, Floats],
    tones: Tones,
    apart: float,
) -> Floats:
    """(n, 4) red, green, blue and opacity of what is seen; colours are not multiplied by that.

    Args:
        face: (n,) numbers of faces, -1 for none; `at` and `normal` (n, 3) where, and how it is turned.
        material: of each face.
        colours: (materials, 4).
        textures: those of the faces.
        lit: (n,) the share of the sky that each sees, and (n,) of the light that reaches it.
        apart: how far apart places are in the picture; mm.
    """
    found = np.zeros((len(face), 4))
    _toned(face, at, normal, material, colours, textures, *lit, tones, apart, found)
    return found


def together(shaded: Floats, columns: int, places: int, behind: Floats) -> NDArray[np.uint8]:
    """(rows, columns, 4) pixels, each of `places` by `places`, over what is behind each row.

    Args:
        shaded: (n, 4) row by row, colours multiplied by their opacity.
        behind: (rows, columns, 4), or (rows, 1, 4) where it is the same all along each row.
    """
    pixels = np.empty((len(behind), columns, 4), np.uint8)
    _together(shaded, columns, places, behind, pixels)
    return pixels


@njit(cache=True, parallel=True)
def _together(shaded, columns, places, behind, pixels):
    for row in prange(behind.shape[0]):
        for column in range(columns):
            sums = np.zeros(4)
            for y in range(places):
                for x in range(places):
                    p = (row * places + y) * columns * places + column * places + x
                    for k in range(4):
                        sums[k] += shaded[p, k]
            opacity = sums[3] / places**2
            back = behind[row, column if behind.shape[1] > 1 else 0]
            whole = opacity + back[3] * (1.0 - opacity)
            pixels[row, column, 3] = np.uint8(whole * 255.0 + 0.5)
            for k in range(3):
                colour = sums[k] / places**2 + back[k] * back[3] * (1.0 - opacity)
                colour = colour / whole if whole > 0.0 else 0.0
                pixels[row, column, k] = np.uint8(min(1.0, max(0.0, colour)) * 255.0 + 0.5)


@njit(cache=True, parallel=True)
def _toned(face, at, normal, material, colours, textures, sky, reached, tones, apart, found):
    reach = tones.near - tones.far
    for p in prange(face.shape[0]):
        f = face[p]
        if f < 0:
            continue
        m = material[f]
        own = colours[m].copy()
        if textures.which[f] >= 0:
            colour_at(textures, f, at[p], apart * nearness(at[p], normal[p], tones.distance), own)
        found[p, 3] = own[3]
        if m == tones.unlit:
            for k in range(3):
                found[p, k] = own[k]
            continue
        facing = 0.0
        if tones.up:
            for k in range(3):
                facing += normal[p, k] * tones.to_light[k]
            facing = max(0.0, facing)
        strength = 1.0 - tones.shadows * (1.0 - reached[p])
        open_sky = 1.0 - tones.sky * (1.0 - sky[p])
        if tones.flat:
            light = open_sky * (1.0 - FLAT_SHADOW * (1.0 - strength))
        else:
            # What is turned away from the light, or in shadow, has the sky alone.
            direct = OWN_SHARE * open_sky + (1.0 - OWN_SHARE) * min(facing / FULL_LIGHT, BRIGHTEST)
            light = SKY_SHARE * open_sky + (1.0 - SKY_SHARE) * direct * strength
        paler = 0.0
        if reach > 0.0:
            paler = tones.fading * min(1.0, max(0.0, (tones.near - at[p, 2]) / reach))
        for k in range(3):
            colour = min(1.0, own[k] * light)
            found[p, k] = colour + (PAPER - colour) * paler
