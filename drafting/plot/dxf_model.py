"""The model space of a DXF: each drawing once for each way in which it is drawn, side by side, in model mm."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

import numpy as np
from ezdxf.layouts.layout import Modelspace

from drafting.linework.model import Linework, Region
from drafting.plot.display import CUT_AREAS, HATCHES, Drawing
from drafting.plot.dxf_tables import NO_LAYER, Tables
from drafting.plot.hatches import HatchLine
from drafting.plot.pen_table import Cut
from drafting.plot.pens import Pen
from drafting.sheets.viewport import Point

#: Between one drawing and the next, mm.
BETWEEN = 10_000.0


class Model:
    """Puts drawings into the model space as viewports ask for them."""

    def __init__(self, space: Modelspace, tables: Tables, linework: Callable[[str], Linework]) -> None:
        self._space, self._tables, self._linework = space, tables, linework
        self._stand: dict[Any, Point] = {}
        self._right = 0.0

    def stand(self, item: Drawing, scale: float) -> Point:
        """Where u = v = 0 of a drawing stands as a viewport draws it, model mm; once for all that draw it alike."""
        linework = self._linework(item.linework)
        hatched = bool(linework.regions) and any(cut.lines for cut in item.cuts)
        key = (
            item.linework,
            tuple(sorted(item.pens.items(), key=lambda entry: entry[0])),
            tuple(sorted(item.layers.items(), key=lambda entry: entry[0])),
            item.cuts,
            scale,
            # Hatches are spaced on paper and turned to it, and so they differ by both.
            (item.ratio, item.turn) if hatched else None,
        )
        if key not in self._stand:
            u0, v0, u1, _ = linework.extents or (0.0, 0.0, 0.0, 0.0)
            self._stand[key] = (self._right - u0, -v0)
            self._right += u1 - u0 + BETWEEN
            self._draw(item, linework, np.array(self._stand[key]), scale)
        return self._stand[key]

    def _draw(self, item: Drawing, linework: Linework, by: np.ndarray, scale: float) -> None:
        for region in linework.regions:
            self._cut(item, region, by, scale)
        looks: dict[tuple[str, str], dict[str, Any]] = {}
        for line in linework.lines:
            if line.role not in item.pens:
                continue
            if (line.role, line.layer) not in looks:
                pen = item.pens[line.role].changed(item.layers.get(line.layer))
                looks[line.role, line.layer] = self._tables.look(layer_name(line.role, line.layer), pen, scale)
            look, points = looks[line.role, line.layer], line.points[:, :2] + by
            if len(points) == 2:
                self._space.add_line(points[0], points[1], dxfattribs=look)
            else:
                closed = bool(np.allclose(points[0], points[-1]))
                self._space.add_lwpolyline(points[:-1] if closed else points, close=closed, dxfattribs=look)

    def _cut(self, item: Drawing, region: Region, by: np.ndarray, scale: float) -> None:
        cut = next((cut for cut in item.cuts if cut.matches(region.material)), None)
        if cut is None:
            return
        rings = [ring + by for ring in region.rings]
        if cut.fill:
            self._tables.fill(self._space, rings, CUT_AREAS, cut.fill, cut.opacity / 100)
        for number, family in enumerate(cut.lines):
            look = self._tables.look(HATCHES, Pen(cut.width, cut.colour, (), cut.screen), scale)
            hatch = self._space.add_hatch(dxfattribs=look | {"hatch_style": 0})
            for k, ring in enumerate(rings):
                hatch.paths.add_polyline_path(ring, is_closed=True, flags=1 if k == 0 else 16)
            hatch.set_pattern_fill(
                f"{cut.hatch}{number or ''}".upper(),
                color=7,
                style=0,
                pattern_type=0,
                definition=[_family(cut, family, item, by)],
            )


def layer_name(role: str, layer: str) -> str:
    """Lines stand on a layer for each layer of the building and each role."""
    return f"{layer or NO_LAYER} - {role}"


def _family(cut: Cut, family: HatchLine, item: Drawing, by: np.ndarray) -> list[Any]:
    """A family of hatch lines as a DXF defines it, in model mm."""
    unit = cut.spacing / item.ratio
    # The drawing is turned by its viewport, and the hatch with it; so it is turned back here.
    degrees = family.angle + cut.angle - item.turn
    angle = math.radians(degrees)
    across = np.array([-math.sin(angle), math.cos(angle)])
    step = across * family.apart * unit
    along = np.array([math.cos(angle), math.sin(angle)]) * family.slide * unit
    dashes = [length * unit if k % 2 == 0 else -length * unit for k, length in enumerate(family.dashes)]
    return [degrees, tuple(by + step * family.shift), tuple(step + along), dashes]
