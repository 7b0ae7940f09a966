"""What is seen of a building, and how light falls on it: what pictures and areas of shadow are made of."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from drafting.building.model import Building
from drafting.linework.covering import Covering, CoveringFaces, covering_faces
from drafting.linework.scene import Faces
from drafting.progress import Progress
from drafting.shading.appearance import Appearance
from drafting.shading.light import about, axes_along, sky_ways, way_to_light
from drafting.shading.rays import Frame, Seen, Spread, gather, look, smoothed, taken_nearby
from drafting.shading.scene import CUT_MATERIAL, Surfaces
from drafting.shading.sky import open_share
from drafting.shading.tones import Tones, toned
from drafting.shading.window import MM_PER_INCH, Window
from drafting.views.camera import Camera

Floats = NDArray[np.float64]

#: From so many places of the sky light is looked for, from fewer where there are many faces, and from the
#: fewest for the screen; and from a third as many of what lies below, which is darker.
SKY_PLACES, FEWER_PLACES, FEWEST_PLACES, MANY_FACES, BELOW_LIGHT = 64, 20, 12, 40_000, 0.6
#: It is looked for so far apart, paper mm, for paper and for the screen, but at no more than so many places;
#: nor nearer than every second pixel.
SKY_APART, QUICK_APART, MAX_SKY, SKY_EVERY = 0.3, 0.8, 2_000_000, 2.0
#: What is taken is the mean of what reaches the places so near about, paper mm: no single shadow of it shows.
SMOOTH = 0.8
NIGHT = "The sun is below the horizon at this hour: there is only the light of the sky."


@dataclass(frozen=True, eq=False)
class Sky:
    """How much of the sky is seen from places spread over a window."""

    seen: Seen
    share: Floats
    rows: int
    columns: int


class Shader:
    """What is seen of a building through its camera, and the light on it: what holds for all of a picture."""

    def __init__(
        self, building: Building, camera: Camera, appearance: Appearance, surfaces: Surfaces
    ) -> None:
        self.camera, self.appearance, self.surfaces = camera, appearance, surfaces
        self.opaque, self.clear = (covering_faces(faces) for faces in (surfaces.opaque, surfaces.clear))
        way = way_to_light(appearance.light, camera, building.true_north)
        self.to_light = camera.axes @ way
        self.sun_up = bool(way[2] > 0)
        self.notes = () if self.sun_up else (NIGHT,)
        ways = about(self.to_light) if appearance.light.soft else [self.to_light]
        casts = self.sun_up and appearance.shadows > 0
        lights = [axes_along(way) for way in ways] if casts else []
        self.lights = [(axes, _covering_from(surfaces.casting, axes)) for axes in lights]
        depths = surfaces.true.corners[:, :, 2][surfaces.true.element >= 0]
        self.distance = np.inf if camera.distance is None else camera.distance
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
            self.distance,
        )

    def sky(self, window: Window, per_inch: float, progress: Progress, quick: bool) -> Sky:
        """How much of the sky, and of what lies below and throws light back, is seen from places spread over
        a window: the share of all that they face."""
        pixel = MM_PER_INCH / per_inch
        least = QUICK_APART if quick else SKY_APART
        apart = max(SKY_EVERY * pixel, least, math.sqrt(window.width * window.height / MAX_SKY))
        columns, rows = (max(1, round(side / apart)) for side in (window.width, window.height))
        seen = self.look(self.opaque, window.frame(columns, rows), columns, (0, rows))
        there = np.flatnonzero(seen.face >= 0)
        points = seen.select(there)
        casting = self.surfaces.casting
        count = SKY_PLACES if len(casting) < MANY_FACES else FEWER_PLACES
        count = FEWEST_PLACES if quick else count
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
        return Sky(seen, share, rows, columns)

    def shaded(self, frame: Frame, rows: tuple[int, int], spread: Spread, sky: Sky | None) -> Floats:
        """(n, 4) of the places of some rows: colours multiplied by their opacity."""
        columns = spread[3]
        seen = self.look(self.opaque, frame, columns, rows)
        share = np.ones(len(seen.face))
        if sky is not None:
            grid = (sky.seen.face, sky.seen.at, sky.seen.normal, sky.share, sky.rows, sky.columns)
            share = taken_nearby(seen.at, seen.normal, spread, *grid)
        apart = math.hypot(frame[2], frame[3])
        found = self._toned(seen, share, apart)
        found[:, 3] = seen.face >= 0
        if len(self.surfaces.clear):
            clear = self.look(self.clear, frame, columns, rows)
            nearer = np.flatnonzero((clear.face >= 0) & (clear.depth > seen.depth))
            glass = self._toned(clear.select(nearer), np.ones(len(nearer)), apart)
            opacity = glass[:, 3:].copy()
            glass[:, 3] = 1.0
            found[nearer] = found[nearer] * (1 - opacity) + glass * opacity
        return found

    def look(self, faces: CoveringFaces, frame: Frame, columns: int, rows: tuple[int, int]) -> Seen:
        """What is seen of some faces at the places of some rows."""
        return look(faces, frame, columns, rows, self.distance, self.surfaces.true.normals)

    def nearest(self, frame: Frame, columns: int, rows: tuple[int, int]) -> Seen:
        """What is nearest at the places of some rows, glass as all else."""
        seen = self.look(self.opaque, frame, columns, rows)
        if not len(self.surfaces.clear):
            return seen
        clear = self.look(self.clear, frame, columns, rows)
        nearer = (clear.face >= 0) & (clear.depth > seen.depth)
        wide = nearer[:, None]
        return Seen(
            np.where(nearer, clear.face, seen.face),
            np.where(nearer, clear.depth, seen.depth),
            np.where(wide, clear.at, seen.at),
            np.where(wide, clear.normal, seen.normal),
        )

    def reached(self, seen: Seen) -> Floats:
        """(n,) the share of the light that reaches what is seen; none of what is turned from it."""
        reached = np.full(len(seen.face), float(self.sun_up))
        if self.lights:
            total, whole = np.zeros(len(seen.face)), np.zeros(len(seen.face))
            for axes, casting in self.lights:
                gather(casting, seen.at, seen.normal, axes, 1.0, total, whole)
            reached = np.divide(total, whole, out=np.zeros(len(seen.face)), where=whole > 0)
        return reached

    def _toned(self, seen: Seen, sky: Floats, apart: float) -> Floats:
        """(n, 4) of what is seen at places so far apart in the picture, mm, each with its share (n,) of the
        sky."""
        lit = sky, self.reached(seen)
        there = self.surfaces
        given = there.true.material, there.colours, there.textures, lit
        return toned(seen.face, seen.at, seen.normal, *given, self.tones, apart)


def _covering_from(faces: Faces, axes: Floats) -> Covering:
    """What may stand before a light, as the light sees it along its axes."""
    # One product of two matrices is faster than one for each face.
    corners = (faces.corners.reshape(-1, 3) @ axes.T).reshape(-1, 3, 3)
    return Covering.of(replace(faces, corners=corners, normals=faces.normals @ axes.T), thorough=False)
