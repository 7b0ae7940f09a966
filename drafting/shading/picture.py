"""A picture of a building through a window on its view: colours, light and shadow, pixel by pixel."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from drafting.building.model import Building
from drafting.linework.engine import eye_within
from drafting.progress import Progress, silent
from drafting.shading.appearance import Appearance
from drafting.shading.backdrop import Backdrop
from drafting.shading.colours import NO_PALETTE, Palette
from drafting.shading.scene import surfaces_of
from drafting.shading.shader import Shader
from drafting.shading.tones import together
from drafting.shading.window import Window
from drafting.views.spec import AnyView

Floats = NDArray[np.float64]

#: Each pixel is looked at in so many places across and up; on the screen in one, which shows it smaller.
PLACES, QUICK_PLACES = 2, 1
#: So many places are worked on at once: it bounds the memory.
AT_ONCE = 1_500_000
WITHIN = "The eye is inside “{}” and looks through it. Move it out."


@dataclass(frozen=True, eq=False)
class PixelPicture:
    """Pixels (rows, columns, 4) of red, green, blue and opacity, the uppermost row first; and what to know
    of it."""

    pixels: NDArray[np.uint8]
    notes: tuple[str, ...] = ()


def picture_of(
    building: Building,
    view: AnyView,
    appearance: Appearance,
    window: Window,
    per_inch: float,
    progress: Progress = silent,
    palette: Palette = NO_PALETTE,
    quick: bool = False,
    backdrop: bytes | None = None,
) -> PixelPicture:
    """Make the picture of a building through a window on a view.

    Args:
        palette: colours that materials have instead of their own.
        quick: for the screen while one edits, rather than for paper.
        backdrop: the PNG or JPEG file of what is behind it, where that is a picture.

    Raises:
        SheetError: it would have too many pixels.
        ViewError: the view uses something that the building does not have.
    """
    columns, rows = window.pixels(per_inch)
    camera = view.camera(building)
    progress("Finding surfaces", 0.0)
    shown = view.shown.mask(building)
    surfaces = surfaces_of(building, camera, shown, appearance.ground, palette, appearance.has_textures)
    shader = Shader(building, camera, appearance, surfaces)
    within = eye_within(building, camera, shown)
    sky = shader.sky(window, per_inch, progress, quick) if appearance.sky else None
    places = QUICK_PLACES if quick else PLACES
    behind = Backdrop(appearance, columns, rows, backdrop)
    pixels = np.empty((rows, columns, 4), np.uint8)
    step = max(1, AT_ONCE // (columns * places**2))
    frame = window.frame(columns * places, rows * places)
    for first in range(0, rows, step):
        progress("Laying colours", 0.5 + 0.5 * first / rows)
        end = min(rows, first + step)
        spread = (first / rows, end / rows, (end - first) * places, columns * places)
        shaded = shader.shaded(frame, (first * places, end * places), spread, sky)
        pixels[first:end] = together(shaded, columns, places, behind.strip(first, end))
    return PixelPicture(pixels, (*shader.notes, *((WITHIN.format(within),) if within else ()), *behind.notes))
