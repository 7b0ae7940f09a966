"""The model space of a DXF: each drawing once for each way in which it is drawn, side by side, in model
mm."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np
from ezdxf.layouts.layout import Modelspace
from shapely import Polygon, box

from drafting.geometry.boxes import Point
from drafting.geometry.clipping import areas_within, lines_within
from drafting.geometry.polylines import Floats, Polylines
from drafting.linework.model import Linework
from drafting.render.backend import CUT_AREAS, HATCHES, Sources
from drafting.render.backends.dxf_tables import NO_LAYER, Tables
from drafting.render.items import Drawing
from drafting.render.placed import PlacedDrawing
from drafting.styles.pen_table import CutStyle

#: Between one drawing and the next, mm.
BETWEEN = 10_000.0
#: Two windows are one where their corners are the same to so many decimals of a real mm: paper coordinates
#: are kept to a tenth of a micrometre.
_SAME = 1


class Model:
    """Puts drawings into the model space as viewports ask for them. Nothing stands there that no viewport
    shows: neither what lies beyond its window, nor what is withheld or left out."""

    def __init__(self, space: Modelspace, tables: Tables, sources: Sources) -> None:
        self._space, self._tables, self._sources = space, tables, sources
        self._origins: dict[Any, Point] = {}
        self._right = 0.0

    def place(self, item: Drawing, scale: float) -> Point:
        """Where u = v = 0 of a drawing lies as a viewport draws it, model mm; once for all that draw it
        alike."""
        linework = self._sources.linework(item.linework)
        hatched = len(linework.packed_regions) > 0 and any(cut.lines for cut in item.cuts)
        window = PlacedDrawing(item, linework).window
        key = (
            item.linework,
            tuple(sorted(item.pens.items(), key=lambda entry: entry[0])),
            tuple(sorted(item.layers.items(), key=lambda entry: entry[0])),
            item.cuts,
            item.hidden,
            item.redrawn,
            scale,
            # Hatches are spaced on paper and turned to it, and so they differ by both.
            (item.ratio, item.turn) if hatched else None,
            None if _shows_all(window, linework) else tuple(window.round(_SAME).ravel().tolist()),
        )
        if key not in self._origins:
            low, high = window.min(axis=0), window.max(axis=0)
            if linework.extents is not None:
                u0, v0, u1, v1 = linework.extents
                low, high = np.clip([low, high], (u0, v0), (u1, v1))
            self._origins[key] = (float(self._right - low[0]), float(-low[1]))
            self._right += float(high[0] - low[0]) + BETWEEN
            in_model = replace(item, ratio=1.0, turn=0.0, place=(0.0, 0.0), clip=_corners(window))
            self._draw(item, PlacedDrawing(in_model, linework), np.array(self._origins[key]), scale)
        return self._origins[key]

    def _draw(self, item: Drawing, drawing: PlacedDrawing, by: Floats, scale: float) -> None:
        """Draw what a drawing shows, which lies in real mm."""
        window = drawing.window
        for style, rings in drawing.cut_areas():
            for part in areas_within(Polylines.of(rings), window):
                self._cut(item, style, [ring + by for ring in part], by, scale)
        for role, layer, pen, lines in drawing.groups():
            own = self._tables.attributes(layer_name(role, layer), pen, scale)
            for line in lines_within(lines, window):
                points = line + by
                if len(points) == 2:
                    self._space.add_line(points[0], points[1], dxfattribs=own)
                else:
                    closed = bool(np.allclose(points[0], points[-1]))
                    kept = points[:-1] if closed else points
                    self._space.add_lwpolyline(kept, close=closed, dxfattribs=own)

    def _cut(self, item: Drawing, cut: CutStyle, rings: list[Floats], by: Floats, scale: float) -> None:
        if cut.fill:
            self._tables.fill(self._space, rings, CUT_AREAS, cut.fill, cut.opacity / 100)
        if cut.lines:
            # The drawing is turned by its viewport, and the hatch with it; so it is turned back here.
            turn, unit = cut.angle - item.turn, cut.spacing / item.ratio
            pen = self._tables.attributes(HATCHES, cut.pen, scale)
            self._tables.hatch(self._space, rings, pen, cut.hatch, cut.lines, unit, turn, by)


def _shows_all(window: Floats, linework: Linework) -> bool:
    """Whether all of a drawing lies within a window."""
    return linework.extents is None or bool(Polygon(window).covers(box(*linework.extents)))


def _corners(window: Floats) -> tuple[Point, ...]:
    return tuple((u, v) for u, v in window.tolist())


def layer_name(role: str, layer: str) -> str:
    """Lines stand on a layer for each layer of the building and each role."""
    return f"{layer or NO_LAYER} - {role}"
