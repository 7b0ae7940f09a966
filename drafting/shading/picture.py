"""A picture of a building through a window on its view: colours, light and shadow, pixel by pixel."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from drafting.building.model import Building
from drafting.linework.covering import Covering
from drafting.linework.scene import Faces
from drafting.progress import Progress, silent
from drafting.shading.appearance import Appearance
from drafting.shading.light import about, axes_along, sky_ways, way_to_light
from drafting.shading.rays import gather, nearest, placed, smoothed, taken_nearby
from drafting.shading.scene import CUT_MATERIAL, Surfaces, surfaces_of
from drafting.shading.window import Window
from drafting.views.camera import Camera
from drafting.views.spec import AnyView

Floats = NDArray[np.float64]

#: Each pixel is looked at in so many places across and up.
PLACES = 2
#: So many places are worked on at once: it bounds the memory.
AT_ONCE = 1_500_000
#: The light of the sky is the mean of what reaches the places so near about, paper mm: no single shadow of it
#: shows.
SMOOTH = 0.8
#: The light of the sky is looked for at no more than so many places.
MAX_SKY = 2_000_000
#: How much light comes from the whole sky; the rest comes from the sun or the fixed light.
SKY_SHARE = 0.55
#: From so many places of the sky light is looked for, from fewer where there are many faces; and from a third
#: as many of what lies below, which is darker. The more, the less each one's own shadow shows.
SKY_PLACES, FEWEST_PLACES, MANY_FACES, BELOW_LIGHT = 96, 32, 40_000, 0.6
#: The light of the sky is looked for at every so many pixels, and taken from those nearby that lie alike.
SKY_EVERY = 2
PAPER = 1.0
#: Of the light that the sky does not give, a part falls on all that is not in shadow, however it is turned;
#: what is turned so far to the light (cosine) is at its full colour.
OWN_SHARE, FULL_LIGHT = 0.35, 0.6
#: What is turned further is at most so much brighter.
BRIGHTEST = 1.2
#: How much darker flat colours are in full shadow.
FLAT_SHADOW = 0.5
NIGHT = "The sun is below the horizon at this hour: there is only the light of the sky."


@dataclass(frozen=True, eq=False)
class Picture:
    """Pixels (rows, columns, 4) of red, green, blue and opacity, the uppermost row first; and what to know
    of it."""

    pixels: NDArray[np.uint8]
    notes: tuple[str, ...] = ()


@dataclass(frozen=True, eq=False)
class _Seen:
    """What is seen at n places: the number of a face or -1, where (n, 3) along the axes, and the normal there
    (n, 3), turned to the viewer."""

    face: NDArray[np.int32]
    at: Floats
    normal: Floats

    def __len__(self) -> int:
        return len(self.face)

    def select(self, which: NDArray[np.int64]) -> _Seen:
        return _Seen(self.face[which], self.at[which], self.normal[which])


def picture_of(
    building: Building,
    view: AnyView,
    appearance: Appearance,
    window: Window,
    per_inch: float,
    progress: Progress = silent,
) -> Picture:
    """Make the picture of a building through a window on a view.

    Raises:
        SheetError: it would have too many pixels.
        ViewError: the view uses something that the building does not have.
    """
    columns, rows = window.pixels(per_inch)
    camera = view.camera(building)
    progress("Finding surfaces", 0.0)
    surfaces = surfaces_of(building, camera, view.shown.mask(building), appearance.ground)
    maker = _Maker(building, camera, appearance, surfaces)
    sky = maker.sky(window, columns, rows, progress) if appearance.sky else None
    strips, step = [], max(1, AT_ONCE // (columns * PLACES**2))
    for first in range(0, rows, step):
        progress("Laying colours", 0.5 + 0.5 * first / rows)
        end = min(rows, first + step)
        places = window.places(columns * PLACES, first * PLACES, end * PLACES, rows * PLACES)
        spread = _Spread(first / rows, end / rows, (end - first) * PLACES, columns * PLACES)
        shaded = maker.shaded(places, spread, sky)
        shaded = shaded.reshape(end - first, PLACES, columns, PLACES, 4).mean(axis=(1, 3))
        strips.append(_on_background(shaded, appearance, first / rows, end / rows))
    return Picture(np.concatenate(strips), maker.notes)


def _on_background(shaded: Floats, appearance: Appearance, top: float, bottom: float) -> NDArray[np.uint8]:
    """Pixels with what is behind them, `top` and `bottom` how far down the window they begin and end, 0 to 1.
    Their colours come multiplied by their opacity."""
    colour, opacity = shaded[:, :, :3], shaded[:, :, 3:]
    if appearance.background != "none":
        code = appearance.background_colour
        behind = np.array([int(code[k : k + 2], 16) / 255 for k in (1, 3, 5)])
        if appearance.background == "sky":
            height = 1 - np.linspace(top, bottom, len(shaded), endpoint=False)[:, None, None]
            behind = PAPER + (behind - PAPER) * height
        colour, opacity = colour + behind * (1 - opacity), np.ones_like(opacity)
    whole = np.concatenate([colour / np.where(opacity > 0, opacity, 1.0), opacity], axis=2)
    return np.asarray(np.rint(np.clip(whole, 0, 1) * 255).astype(np.uint8))


@dataclass(frozen=True, eq=False)
class _Spread:
    """How places lie over a window: from `top` to `bottom` (0 to 1, downward), row by row."""

    top: float
    bottom: float
    rows: int
    columns: int

    def on(self, rows: int, columns: int) -> Floats:
        """(n, 2) row and column of each place among others that are spread over the whole window."""
        down = self.top + (np.arange(self.rows) + 0.5) / self.rows * (self.bottom - self.top)
        right = (np.arange(self.columns) + 0.5) / self.columns
        row, column = np.meshgrid(down * rows - 0.5, right * columns - 0.5, indexing="ij")
        return np.stack([row.ravel(), column.ravel()], axis=1)


@dataclass(frozen=True, eq=False)
class _Sky:
    """How much of the sky is seen from places spread over a window."""

    seen: _Seen
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
        self.near = float(depths.max(initial=-np.inf))
        self.far = float(depths.min(initial=np.inf))

    def sky(self, window: Window, columns: int, rows: int, progress: Progress) -> _Sky:
        """How much of the sky, and of what lies below and throws light back, is seen from places spread over
        a window: the share of all that they face."""
        every = max(float(SKY_EVERY), math.sqrt(columns * rows / MAX_SKY))
        columns, rows = (max(1, round(count / every)) for count in (columns, rows))
        seen, _ = self._seen(self.opaque, window.places(columns, 0, rows, rows))
        there = np.flatnonzero(seen.face >= 0)
        points = seen.select(there)
        total, whole = np.zeros(len(there)), np.full(len(there), 1e-9)
        casting = self.surfaces.casting
        # What lies below throws light back; it takes none away from what faces it.
        standing = casting.select(np.flatnonzero(~self.surfaces.terrain))
        count = SKY_PLACES if len(casting) < MANY_FACES else FEWEST_PLACES
        above, below = sky_ways(count), sky_ways(count // 3) * [1.0, 1.0, -1.0]
        parts = [(way, 1.0 / len(above), casting) for way in above]
        parts += [(way, BELOW_LIGHT / len(below), standing) for way in below]
        for k, (way, light, faces) in enumerate(parts):
            progress("Looking for light", 0.05 + 0.45 * k / len(parts))
            axes = axes_along(self.camera.axes @ way)
            gather(_covering_from(faces, axes), points.at, points.normal, axes, light, total, whole)
        share = np.ones(len(seen))
        share[there] = total / whole
        reach = round(SMOOTH * columns / window.width)
        share = smoothed(seen.face, seen.at, seen.normal, share, rows, columns, reach)
        return _Sky(seen, share, rows, columns)

    def shaded(self, places: Floats, spread: _Spread, sky: _Sky | None) -> Floats:
        """(n, 4) of places: colours multiplied by their opacity."""
        seen, depth = self._seen(self.opaque, places)
        on_sky = spread.on(sky.rows, sky.columns) if sky else places
        found = self._coloured(seen, on_sky, sky)
        if len(self.surfaces.clear):
            clear, before = self._seen(self.clear, places)
            nearer = np.flatnonzero((clear.face >= 0) & (before > depth))
            glass = self._coloured(clear.select(nearer), on_sky[nearer], None)
            opacity = self.surfaces.colours[self.surfaces.true.material[clear.face[nearer]], 3:]
            found[nearer] = found[nearer] * (1 - opacity) + glass * opacity
        return found

    def _seen(self, covering: Covering, places: Floats) -> tuple[_Seen, Floats]:
        face, depth = nearest(covering, places)
        pictured = np.concatenate([places, depth[:, None]], axis=1)
        distance = np.inf if self.camera.distance is None else self.camera.distance
        return _Seen(face, *placed(pictured, distance, face, self.surfaces.true.normals)), depth

    def _coloured(self, seen: _Seen, on_sky: Floats, sky: _Sky | None) -> Floats:
        """(n, 4) of what is seen; where it lies among the places of the sky, if that is wanted."""
        found = np.zeros((len(seen), 4))
        there = np.flatnonzero(seen.face >= 0)
        material = self.surfaces.true.material[seen.face[there]]
        colour = self.surfaces.colours[material, :3]
        lit = np.flatnonzero(material != CUT_MATERIAL)
        points = seen.select(there[lit])
        share = np.ones(len(points))
        if sky is not None:
            grid = (sky.seen.face, sky.seen.at, sky.seen.normal, sky.share, sky.rows, sky.columns)
            open_share = taken_nearby(points.at, points.normal, on_sky[there[lit]], *grid)
            share = 1 - self.appearance.sky * (1 - open_share)
        colour[lit] *= self._light(points, share)[:, None]
        if self.appearance.fading and self.near > self.far:
            away = np.clip((self.near - points.at[:, 2]) / (self.near - self.far), 0, 1)
            colour[lit] += (PAPER - colour[lit]) * (self.appearance.fading * away)[:, None]
        found[there, :3], found[there, 3] = colour, 1.0
        return found

    def _light(self, points: _Seen, sky: Floats) -> Floats:
        """How light points are that see a part of the sky; 1 for what faces the light and lies open."""
        facing, reached = np.zeros(len(points)), np.zeros(len(points))
        if self.sun_up:
            facing = np.clip(points.normal @ self.to_light, 0, None)
            reached = self._reached(points, facing)
        strength = 1 - self.appearance.shadows * (1 - reached)
        if self.appearance.show == "colours":
            return np.asarray(sky * (1 - FLAT_SHADOW * (1 - strength)))
        # What is turned away from the light, or in shadow, has the sky alone.
        direct = OWN_SHARE * sky + (1 - OWN_SHARE) * np.minimum(facing / FULL_LIGHT, BRIGHTEST)
        return np.asarray(SKY_SHARE * sky + (1 - SKY_SHARE) * direct * strength)

    def _reached(self, points: _Seen, facing: Floats) -> Floats:
        """The share of the light that reaches each point; none where it is turned away."""
        if not self.lights:
            return (facing > 0).astype(float)
        total, whole = np.zeros(len(points)), np.zeros(len(points))
        for axes, casting in self.lights:
            gather(casting, points.at, points.normal, axes, 1.0, total, whole)
        return np.divide(total, whole, out=np.zeros(len(points)), where=whole > 0)


def _covering_from(faces: Faces, axes: Floats) -> Covering:
    """What may stand before a light, as the light sees it along its axes."""
    turned = faces.select(np.arange(len(faces)), faces.corners @ axes.T, faces.normals @ axes.T)
    return Covering.of(turned, thorough=False)
