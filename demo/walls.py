"""Straight walls of the demo building, and what its walls, floors and roofs are built up of."""

from __future__ import annotations

from typing import Any

from demo.ifc_writer import IfcWriter

TIMBER_WALL, STONE_WALL, INNER_WALL = "Timber wall 285", "Stone wall 350", "Partition 120"
FLOOR, ROOF = "Timber floor 300", "Standing seam roof 250"


def straight_wall(
    w: IfcWriter,
    storey: Any,
    name: str,
    low: tuple[float, float, float],
    high: tuple[float, float, float],
    style: str,
    material: str,
    outer: str,
    layer: str = "Walls",
) -> Any:
    """A straight wall; `outer` is the side on which its layers begin."""
    across = {
        "south": ("y", low[1], 1), "north": ("y", high[1], -1), "west": ("x", low[0], 1),
        "east": ("x", high[0], -1)
    }[outer]  # fmt: skip
    solid = [w.box(low, high, style)]
    return w.element("IfcWall", name, storey, solid, layer, material, across, PredefinedType="SOLIDWALL")
