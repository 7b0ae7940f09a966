"""Shadows as areas, for drawings of lines: the outlines of cast and of own shadow as closed regions.

Where light falls is looked up place by place, as for a picture, so finely that no outline is further off than
a line is wide; the places in shadow are then traced, and their outlines made straight.
"""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray
from shapely import Polygon, box, get_parts, make_valid, simplify, union_all
from shapely.geometry.base import BaseGeometry

from drafting.building.model import Building
from drafting.progress import Progress, silent
from drafting.shading.appearance import Appearance
from drafting.shading.areas import Rings, ShadowAreas
from drafting.shading.rays import FACING
from drafting.shading.scene import CUT_MATERIAL, surfaces_of
from drafting.shading.shader import Shader
from drafting.shading.window import Window
from drafting.views.spec import AnyView

#: From place to place, paper mm, unless that would be more places than these.
APART, MAX_PLACES = 0.06, 6_000_000
#: So many places are worked on at once: it bounds the memory.
AT_ONCE = 1_500_000
#: Outlines are made straight within so many places: the steps of a slanting one lie in a strip as wide as a
#: place from corner to corner. Smaller areas and gaps are left out, mm² of paper.
STRAIGHT, SPECK = 1.42, 0.3
#: Coordinates of areas are rounded to so many decimals of a real millimetre.
DECIMALS = 1


def shadow_areas_of(
    building: Building,
    view: AnyView,
    appearance: Appearance,
    window: Window,
    progress: Progress = silent,
) -> ShadowAreas:
    """The areas of shadow that are seen through a window on a view, in the light of an appearance. Where no
    light falls there are none.

    Raises:
        ViewError: the view uses something that the building does not have.
    """
    apart = max(APART, math.sqrt(window.width * window.height / MAX_PLACES))
    columns, rows = (max(1, round(side / apart)) for side in (window.width, window.height))
    camera = view.camera(building)
    progress("Finding surfaces", 0.0)
    surfaces = surfaces_of(building, camera, view.shown.mask(building), appearance.ground)
    shader = Shader(building, camera, appearance.for_areas, surfaces)
    if not shader.sun_up:
        return ShadowAreas((), ())
    frame = window.frame(columns, rows)
    cast, own = np.zeros((rows, columns), bool), np.zeros((rows, columns), bool)
    step = max(1, AT_ONCE // columns)
    for first in range(0, rows, step):
        progress("Looking for shadow", 0.8 * first / rows)
        end = min(rows, first + step)
        seen = shader.nearest(frame, columns, (first, end))
        material = surfaces.true.material[seen.face]
        there = (seen.face >= 0) & (material != CUT_MATERIAL)
        turned = (seen.normal @ shader.to_light) <= FACING
        own[first:end] = (there & turned).reshape(-1, columns)
        cast[first:end] = (there & ~turned & (shader.reached(seen) < 0.5)).reshape(-1, columns)
    progress("Tracing outlines", 0.8)
    return ShadowAreas(*(_traced(mask, frame, SPECK / apart**2) for mask in (cast, own)))


def _traced(
    mask: NDArray[np.bool_], frame: tuple[float, float, float, float, float, float], speck: float
) -> tuple[Rings, ...]:
    """Where a mask holds, as areas in u and v, by where the middles of its places lie."""
    u, v, across_u, across_v, down_u, down_v = frame
    found = []
    for area in _polygons(make_valid(simplify(union_all(_runs(mask)), STRAIGHT))):
        if area.area < speck:
            continue
        holes = [hole for hole in area.interiors if Polygon(hole).area >= speck]
        rings = []
        for ring in (area.exterior, *holes):
            # A place reaches half a step about its middle.
            column, row = np.asarray(ring.coords)[:-1].T - 0.5
            places = np.stack([u + across_u * column + down_u * row, v + across_v * column + down_v * row], 1)
            rings.append(tuple((x, y) for x, y in places.round(DECIMALS).tolist()))
        found.append(tuple(rings))
    return tuple(sorted(found))


def _runs(mask: NDArray[np.bool_]) -> list[BaseGeometry]:
    """Where a mask holds as boxes of columns and rows: runs of a row, joined with the same ones below."""
    edges = np.diff(np.pad(mask, ((0, 1), (1, 1))).astype(np.int8), axis=1)
    row, begin = np.nonzero(edges == 1)
    end = np.nonzero(edges == -1)[1]
    boxes, open_runs = [], dict[tuple[int, int], int]()
    starts = np.searchsorted(row, np.arange(len(mask) + 2))
    for at in range(len(mask) + 1):
        here = slice(starts[at], starts[at + 1])
        now = set(zip(begin[here].tolist(), end[here].tolist(), strict=True))
        for run in [run for run in open_runs if run not in now]:
            boxes.append((run[0], open_runs.pop(run), run[1], at))
        for run in now:
            open_runs.setdefault(run, at)
    if not boxes:
        return []
    return list(box(*np.array(boxes, float).T))


def _polygons(geometry: BaseGeometry) -> list[Polygon]:
    parts = [part for each in get_parts(geometry) for part in get_parts(each)]
    return [part for part in parts if isinstance(part, Polygon) and not part.is_empty]
