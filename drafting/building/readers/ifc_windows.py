"""Windows of an IFC file: how their panels open, and where."""

from __future__ import annotations

from typing import Any

import ifcopenshell.util.element

from drafting.building.model import Floats
from drafting.building.readers.ifc_doors import UPRIGHT, in_opening
from drafting.building.windows import BuildingWindow, panels_of


def read_window(product: Any, matrix: Floats, points: Floats) -> BuildingWindow | None:
    """How a window opens; None where the file does not say it, or it stands aslant.

    Args:
        matrix: (4, 4) from the window's own axes to the model's; mm.
        points: (n, 3) corners of its shape in its own axes; mm.
    """
    kind: Any = ifcopenshell.util.element.get_type(product)
    partition = next(
        (
            named
            for of in (product, kind)
            for named in (getattr(of, "PartitioningType", None), getattr(of, "OperationType", None))
            if named
        ),
        "SINGLE_PANEL",
    )
    panels = panels_of(partition, _operations(product, kind))
    low, high = points.min(axis=0), points.max(axis=0)
    width, depth, height = (float(x) for x in high - low)
    if not panels or width <= 0.0 or height <= 0.0 or abs(matrix[2, 2]) < 1.0 - UPRIGHT:
        return None
    return BuildingWindow(*in_opening(matrix, low, high), width, height, depth, panels)


def _operations(product: Any, kind: Any) -> dict[str, str]:
    """How the panel at each position operates (IfcWindowPanelProperties), of the window or its type."""
    sets = list(getattr(kind, "HasPropertySets", None) or ())
    for relation in getattr(product, "IsDefinedBy", None) or ():
        if relation.is_a("IfcRelDefinesByProperties"):
            sets.append(relation.RelatingPropertyDefinition)
    found: dict[str, str] = {}
    for panel in sets:
        if panel.is_a("IfcWindowPanelProperties"):
            found.setdefault(panel.PanelPosition, panel.OperationType)
    return found
