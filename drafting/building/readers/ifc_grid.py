"""The straight lines of a building's grids, from an IFC file (IfcGrid)."""

from __future__ import annotations

from typing import Any

import ifcopenshell.util.placement
import ifcopenshell.util.unit
import numpy as np

from drafting.building.model import GridLine

AXES = ("UAxes", "VAxes", "WAxes")


def read_grids(file: Any) -> tuple[GridLine, ...]:
    """Every named axis that is one straight line, in the file's order; a curved one is left out."""
    unit = ifcopenshell.util.unit.calculate_unit_scale(file) * 1000
    found = []
    for grid in file.by_type("IfcGrid"):
        place = np.eye(4)
        if grid.ObjectPlacement:
            place = ifcopenshell.util.placement.get_local_placement(grid.ObjectPlacement)
        for axis in [axis for name in AXES for axis in getattr(grid, name) or ()]:
            ends = _ends(axis.AxisCurve)
            if ends and axis.AxisTag:
                x0, y0, x1, y1 = (float(v) * unit for end in ends for v in (place @ [*end, 0.0, 1.0])[:2])
                found.append(
                    GridLine(axis.AxisTag, ((x0, y0), (x1, y1)) if axis.SameSense else ((x1, y1), (x0, y0)))
                )
    return tuple(found)


def _ends(curve: Any) -> list[tuple[float, float]] | None:
    """Where a straight curve begins and ends, in the grid's own axes; None for one that is bent or has no
    ends."""
    if curve.is_a("IfcPolyline") and len(curve.Points) == 2:
        return [point.Coordinates[:2] for point in curve.Points]
    if curve.is_a("IfcIndexedPolyCurve") and len(curve.Points.CoordList) == 2:
        return [tuple(point[:2]) for point in curve.Points.CoordList]
    if curve.is_a("IfcTrimmedCurve") and curve.BasisCurve.is_a("IfcLine"):
        trims = [t for side in (curve.Trim1, curve.Trim2) for t in side if hasattr(t, "Coordinates")]
        return [t.Coordinates[:2] for t in trims] if len(trims) == 2 else None
    return None
