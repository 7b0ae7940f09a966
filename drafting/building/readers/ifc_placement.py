"""Where an IFC file places its building, and where it lies on a national grid."""

from __future__ import annotations

import math
from typing import Any

import ifcopenshell.util.geolocation
import ifcopenshell.util.placement
import ifcopenshell.util.unit
import numpy as np

from drafting.building.axes import Axes
from drafting.building.doors import Point3

MM_PER_METRE = 1000.0
#: A placement whose z axis leans more than this (sine) has no axes that a plan could have.
LEANING = 1e-3
#: Rounding of directions that a file writes with few digits; degrees.
DECIMALS = 6


def placed_axes(file: Any) -> list[Axes]:
    """The axes of the building and of the site, as far as the file places them; those of the site alone where
    there are several buildings."""
    buildings, sites = file.by_type("IfcBuilding"), file.by_type("IfcSite")
    unit = ifcopenshell.util.unit.calculate_unit_scale(file) * MM_PER_METRE
    found = []
    for product in [*(buildings if len(buildings) == 1 else ()), *sites[:1]]:
        if product.ObjectPlacement is None:
            continue
        matrix = ifcopenshell.util.placement.get_local_placement(product.ObjectPlacement)
        if np.isfinite(matrix).all() and math.hypot(matrix[0, 2], matrix[1, 2]) < LEANING:
            turn = round(math.degrees(math.atan2(matrix[1, 0], matrix[0, 0])), DECIMALS) + 0.0
            found.append(Axes(_point(matrix[:3, 3] * unit), turn))
    return found


def grid_axes(file: Any) -> Axes | None:
    """Where the file's own axes lie on the national grid (IfcMapConversion); None where it does not say."""
    found = ifcopenshell.util.geolocation.get_helmert_transformation_parameters(file)
    if found is None:
        return None
    unit = _map_unit(file)
    turn = math.degrees(math.atan2(float(found.xao), float(found.xaa)))
    origin = np.array([float(found.e), float(found.n), float(found.h)]) * unit
    return Axes(_point(origin), round(turn, DECIMALS) + 0.0)


def _map_unit(file: Any) -> float:
    """Millimetres in the unit of the grid's figures: the project's where the grid has none of its own."""
    for conversion in file.by_type("IfcCoordinateOperation") if file.schema != "IFC2X3" else ():
        of_map = getattr(conversion.TargetCRS, "MapUnit", None)
        if of_map is not None and of_map.is_a("IfcSIUnit"):
            prefixes: Any = ifcopenshell.util.unit.prefixes
            return float(prefixes.get(of_map.Prefix, 1.0)) * MM_PER_METRE
    return float(ifcopenshell.util.unit.calculate_unit_scale(file)) * MM_PER_METRE


def _point(at: Any) -> Point3:
    x, y, z = (float(v) for v in at)
    return x, y, z
