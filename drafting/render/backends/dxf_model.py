"""The model space of a DXF: each drawing once for each way in which it is drawn, side by side, in model
mm."""

from __future__ import annotations

from typing import Any

import numpy as np
from ezdxf.layouts.layout import Modelspace

from drafting.geometry.boxes import Point
from drafting.geometry.polylines import Floats
from drafting.linework.model import Linework, Region
from drafting.render.backend import CUT_AREAS, HATCHES, Sources
from drafting.render.backends.dxf_tables import NO_LAYER, Tables
from drafting.render.items import Drawing

#: Between one drawing and the next, mm.
BETWEEN = 10_000.0


class Model:
    """Puts drawings into the model space as viewports ask for them."""

    def __init__(self, space: Modelspace, tables: Tables, sources: Sources) -> None:
        self._space, self._tables, self._sources = space, tables, sources
        self._origins: dict[Any, Point] = {}
        self._right = 0.0

    def place(self, item: Drawing, scale: float) -> Point:
        """Where u = v = 0 of a drawing lies as a viewport draws it, model mm; once for all that draw it
        alike."""
        linework = self._sources.linework(item.linework)
        hatched = len(linework.packed_regions) > 0 and any(cut.lines for cut in item.cuts)
        key = (
            item.linework,
            tuple(sorted(item.pens.items(), key=lambda entry: entry[0])),
            tuple(sorted(item.layers.items(), key=lambda entry: entry[0])),
            item.cuts,
            scale,
            # Hatches are spaced on paper and turned to it, and so they differ by both.
            (item.ratio, item.turn) if hatched else None,
        )
        if key not in self._origins:
            u0, v0, u1, _ = linework.extents or (0.0, 0.0, 0.0, 0.0)
            self._origins[key] = (self._right - u0, -v0)
            self._right += u1 - u0 + BETWEEN
            self._draw(item, linework, np.array(self._origins[key]), scale)
        return self._origins[key]

    def _draw(self, item: Drawing, linework: Linework, by: Floats, scale: float) -> None:
        for region in linework.regions:
            self._cut(item, region, by, scale)
        attributes: dict[tuple[str, str], dict[str, Any]] = {}
        for line in linework.lines:
            if line.role not in item.pens:
                continue
            if (line.role, line.layer) not in attributes:
                pen = item.pens[line.role].changed(item.layers.get(line.layer))
                name = layer_name(line.role, line.layer)
                attributes[line.role, line.layer] = self._tables.attributes(name, pen, scale)
            own, points = attributes[line.role, line.layer], line.points[:, :2] + by
            if len(points) == 2:
                self._space.add_line(points[0], points[1], dxfattribs=own)
            else:
                closed = bool(np.allclose(points[0], points[-1]))
                self._space.add_lwpolyline(points[:-1] if closed else points, close=closed, dxfattribs=own)

    def _cut(self, item: Drawing, region: Region, by: Floats, scale: float) -> None:
        cut = next((cut for cut in item.cuts if cut.matches(region.material)), None)
        if cut is None:
            return
        rings = [ring + by for ring in region.rings]
        if cut.fill:
            self._tables.fill(self._space, rings, CUT_AREAS, cut.fill, cut.opacity / 100)
        if cut.lines:
            # The drawing is turned by its viewport, and the hatch with it; so it is turned back here.
            turn, unit = cut.angle - item.turn, cut.spacing / item.ratio
            pen = self._tables.attributes(HATCHES, cut.pen, scale)
            self._tables.hatch(self._space, rings, pen, cut.hatch, cut.lines, unit, turn, by)


def layer_name(role: str, layer: str) -> str:
    """Lines stand on a layer for each layer of the building and each role."""
    return f"{layer or NO_LAYER} - {role}"
