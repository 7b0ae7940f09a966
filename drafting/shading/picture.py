"""A picture of a building through a window on its view: colours, light and shadow, pixel by pixel."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from drafting.building.model import Building
from drafting.linework.covering import Covering
from drafting.linework.engine import eye_within
from drafting.linework.scene import Faces
from drafting.progress import Progress, silent
from drafting.shading.appearance import Appearance
from drafting.shading.colours import NO_PALETTE, Palette, parts_of
from drafting.shading.light import about, axes_along, sky_ways, way_to_light
from drafting.shading.rays import Frame, Seen, Spread, gather, look, smoothed, taken_nearby
from drafting.shading.scene import CUT_MATERIAL, Surfaces, surfaces_of
from drafting.shading.sky import open_share
from drafting.shading.tones import PAPER, Tones, together, toned
from drafting.shading.window import MM_PER_INCH, Window
from drafting.views.camera import Camera
from drafting.views.spec import AnyView

Floats = NDArray[np.float64]

#: Each pixel is looked at in so many places across and up.
PLACES = 2
#: So many places are worked on at once: it bounds the memory.
AT_ONCE = 1_500_000
#: From so many places of the sky light is looked for, from fewer where there are many faces or pixels are
#: coarse; and from a third as many of what lies below, which is darker.
SKY_PLACES, FEWEST_PLACES, MANY_FACES, FINE, BELOW_LIGHT = 64, 20, 40_000, 150.0, 0.6
#: It is looked for so far apart, paper mm, but at no more than so many places; nor nearer than every
#: second coarse pixel.
SKY_APART, MAX_SKY, SKY_EVERY = 0.3, 2_000_000, 2.0
#: What is taken is the mean of what reaches the places so near about, paper mm: no single shadow of it shows.
SMOOTH = 0.8
WITHIN = "The eye is inside “{}” and looks through it. Move it out."
NIGHT = "The sun is below the horizon at this hour: there is only the light of the sky."


@dataclass(frozen=True, eq=False)
class Picture:
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
) -> Picture:
    """Make the picture of a building through a window on a view.

    Args:
        palette: colours that materials have instead of their own.

    Raises:
        SheetError: it would have too many pixels.
        ViewError: the view uses something that the building does not have.
    """
    columns, rows = window.pixels(per_inch)
    camera = view.camera(building)
    progress("Finding surfaces", 0.0)
    shown = view.shown.mask(building)
    surfaces = surfaces_of(building, camera, shown, appearance.ground, palette)
    maker = _Maker(building, camera, appearance, surfaces)
    within = eye_within(building, camera, shown)
    sky = maker.sky(window, per_inch, progress) if appearance.sky else None
    pixels = np.empty((rows, columns, 4), np.uint8)
    step = max(1, AT_ONCE // (columns * PLACES**2))
    frame = window.frame(columns * PLACES, rows * PLACES)
    for first in range(0, rows, step):
        progress("Laying colours", 0.5 + 0.5 * first / rows)
        end = min(rows, first + step)
        spread = (first / rows, end / rows, (end - first) * PLACES, columns * PLACES)
        shaded = maker.shaded(frame, (first * PLACES, end * PLACES), spread, sky)
        behind = _behind(appearance, first, end, rows)
        pixels[first:end] = together(shaded, columns, PLACES, behind)
    return Picture(pixels, (*maker.notes, *((WITHIN.format(within),) if within else ())))


def _behind(appearance: Appearance, first: int, end: int, rows: int) -> Floats:
    """(end - first, 4) what is behind the rows of a picture: red, green, blue and opacity."""
    found = np.zeros((end - first, 4))
    if appearance.background != "none":
        found[:, :3] = parts_of(appearance.background_colour)
        found[:, 3] = 1.0
    if appearance.background == "sky":
        height = 1 - np.arange(first, end)[:, None] / rows
        found[:, :3] = PAPER + (found[:, :3] - PAPER) * height
    return found


@dataclass(frozen=True, eq=False)
class _Sky:
    """How much of the sky is seen from places spread over a window."""

    seen: Seen
    share: Floats
    rows: int
    columns: int


class _Maker:
    """What holds for all strips of a picture."""

    def __init__(
        self, building: Building, camera: Camera, appearance: Appearance, surfaces: Surfaces
    ) -> None:
        self.camera, self.appearance, self.surfaces = camera, appearance, surfaces
        self.opaque, self.clear = (Covering.of(x, thorough=False) for x in (surfaces.opaque, surfaces.clear))
        way = way_to_light(appearance.light, camera, building.true_north)
        self.to_light = camera.axes @ way
        self.sun_up = bool(way[2] > 0)
        self.notes = () if self.sun_up else (NIGHT,)
        ways = about(self.to_light) if appearance.light.soft else [self.to_light]
        casts = self.sun_up and appearance.shadows > 0
        lights = [axes_along(way) for way in ways] if casts else []
        self.lights = [(axes, _covering_from(surfaces.casting, axes)) for axes in lights]
        depths = surfaces.true.corners[surfaces.true.element >= 0][:, :, 2]
        self.tones = Tones(
            self.to_light,
            self.sun_up,
            appearance.show == "colours",
            appearance.shadows,
            appearance.sky,
            appearance.fading,
            float(depths.max(initial=-np.inf)),
            float(depths.min(initial=np.inf)),
            CUT_MATERIAL,
        )

    def sky(self, window: Window, per_inch: float, progress: Progress) -> _Sky:
        """How much of the sky, and of what lies below and throws light back, is seen from places spread over
        a window: the share of all that they face."""
        pixel = MM_PER_INCH / per_inch
        apart = max(SKY_EVERY * pixel, SKY_APART, math.sqrt(window.width * window.height / MAX_SKY))
        columns, rows = (max(1, round(side / apart)) for side in (window.width, window.height))
        seen = self._look(self.opaque, window.frame(columns, rows), columns, (0, rows))
        there = np.flatnonzero(seen.face >= 0)
        points = seen.select(there)
        casting = self.surfaces.casting
        many = len(casting) >= MANY_FACES or per_inch < FINE
        count = FEWEST_PLACES if many else SKY_PLACES
        above, below = sky_ways(count), sky_ways(count // 3) * [1.0, 1.0, -1.0]
        axes = [axes_along(self.camera.axes @ way) for way in np.concatenate([above, below])]
        light = np.repeat([1.0 / len(above), BELOW_LIGHT / len(below)], [len(above), len(below)])
        from_below = np.arange(len(axes)) >= len(above)
        progress("Looking for light", 0.1)
        found = open_share(
            casting,
            self.surfaces.terrain,
            (np.array(axes), light, from_below),
            points.at,
            points.normal,
            apart / window.ratio,
        )
        share = np.ones(len(seen.face))
        share[there] = found
        reach = round(SMOOTH * columns / window.width)
        share = smoothed(seen.face, seen.at, seen.normal, share, rows, columns, reach)
        return _Sky(seen, share, rows, columns)

    def shaded(self, frame: Frame, rows: tuple[int, int], spread: Spread, sky: _Sky | None) -> Floats:
        """(n, 4) of the places of some rows: colours multiplied by their opacity."""
        columns = spread[3]
        seen = self._look(self.opaque, frame, columns, rows)
        share = np.ones(len(seen.face))
        if sky is not None:
            grid = (sky.seen.face, sky.seen.at, sky.seen.normal, sky.share, sky.rows, sky.columns)
            share = taken_nearby(seen.at, seen.normal, spread, *grid)
        found = self._toned(seen, share)
        if len(self.surfaces.clear):
            clear = self._look(self.clear, frame, columns, rows)
            nearer = np.flatnonzero((clear.face >= 0) & (clear.depth > seen.depth))
            glass = self._toned(clear.select(nearer), np.ones(len(nearer)))
            opacity = self.surfaces.colours[self.surfaces.true.material[clear.face[nearer]], 3:]
            found[nearer] = found[nearer] * (1 - opacity) + glass * opacity
        return found

    def _look(self, covering: Covering, frame: Frame, columns: int, rows: tuple[int, int]) -> Seen:
        distance = np.inf if self.camera.distance is None else self.camera.distance
        return look(covering, frame, columns, rows, distance, self.surfaces.true.normals)

    def _toned(self, seen: Seen, sky: Floats) -> Floats:
        """(n, 4) of what is seen, which sees shares (n,) of the sky."""
        reached = np.full(len(seen.face), float(self.sun_up))
        if self.lights:
            total, whole = np.zeros(len(seen.face)), np.zeros(len(seen.face))
            for axes, casting in self.lights:
                gather(casting, seen.at, seen.normal, axes, 1.0, total, whole)
            reached = np.divide(total, whole, out=np.zeros(len(seen.face)), where=whole > 0)
        true, colours = self.surfaces.true, self.surfaces.colours
        return toned(seen.face, seen.at, seen.normal, true.material, colours, (sky, reached), self.tones)


def _covering_from(faces: Faces, axes: Floats) -> Covering:
    """What may stand before a light, as the light sees it along its axes."""
    turned = faces.select(np.arange(len(faces)), faces.corners @ axes.T, faces.normals @ axes.T)
    return Covering.of(turned, thorough=False)
