"""What a plan shows otherwise than the cut has it: doors that stand open, stairs that are broken off."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from drafting.building.doors import Door
from drafting.building.model import Building
from drafting.linework.cuts import CutPart
from drafting.linework.door_symbols import door_lines, frame_of
from drafting.linework.model import OVERHEAD, SYMBOL
from drafting.linework.segments import Segments, beyond
from drafting.linework.stair_symbols import StairSymbol, ramp_symbol, stair_symbol
from drafting.views.camera import UP, Camera
from drafting.views.line_settings import LineSettings

Bools = NDArray[np.bool_]

#: What makes the symbol of each class of element that people go up.
_CLIMBED = {
    "IfcStair": stair_symbol,
    "IfcStairFlight": stair_symbol,
    "IfcRamp": ramp_symbol,
    "IfcRampFlight": ramp_symbol,
}


@dataclass(frozen=True, eq=False)
class Replaced:
    """A plan's cut parts and seen segments as they are left, and the symbols in place of the rest."""

    parts: list[CutPart]
    seen: Segments
    symbols: Segments


def is_plan(camera: Camera) -> bool:
    """Whether a camera looks straight down on one cut."""
    return camera.distance is None and len(camera.cuts) == 1 and bool(camera.toward @ UP > 1.0 - 1e-9)


def with_symbols(
    building: Building,
    camera: Camera,
    shown: Bools,
    settings: LineSettings,
    parts: list[CutPart],
    seen: Segments,
) -> Replaced:
    """Put symbols into a plan where its settings want them.

    Args:
        parts: what the cut goes through.
        seen: what is seen below the cut.
    """
    depth = camera.cuts[0].depth
    found = [Segments.along([], SYMBOL, depth)]
    if settings.doors:
        for element, door in _cut_doors(building, camera, shown):
            frame = frame_of(door, camera, [p for p in parts if p.element == element])
            parts = [p for p in parts if p.element != element] + frame.parts
            seen = seen.select(np.flatnonzero(seen.element != element))
            lines = [(element, line) for line in door_lines(door, camera, frame)]
            found.append(Segments.along(lines, SYMBOL, depth))
    if settings.stairs:
        for element, stair in _stairs(building, camera, shown):
            if stair.broken is not None:
                parts = [p for p in parts if p.element != element]
                seen = beyond(seen, element, *stair.broken)
            found.append(Segments.along([(element, line) for line in stair.lines], SYMBOL, depth))
            found.append(Segments.along([(element, line) for line in stair.above], OVERHEAD, depth))
    return Replaced(parts, seen, Segments.concatenate(found))


def _cut_doors(building: Building, camera: Camera, shown: Bools) -> Iterator[tuple[int, Door]]:
    """Doors that the cut goes through."""
    height = camera.cuts[0].depth + float(camera.origin[2])
    for element, door in building.doors.items():
        if shown[element] and door.corner[2] < height < door.corner[2] + door.height:
            yield element, door


def _stairs(building: Building, camera: Camera, shown: Bools) -> Iterator[tuple[int, StairSymbol]]:
    for k, element in enumerate(building.elements):
        make = _CLIMBED.get(element.ifc_class)
        symbol = make(building, camera, k) if make is not None and shown[k] else None
        if symbol is not None:
            yield k, symbol
