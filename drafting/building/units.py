"""Units of length that building files come in."""

from __future__ import annotations

from dataclasses import replace

from drafting.building.climbs import Steps
from drafting.building.model import Building, BuildUp, GridLine, Storey
from drafting.errors import BuildingFileError

#: Millimetres in each.
UNITS = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "in": 25.4, "ft": 304.8}
UNIT_NAMES = {"mm": "millimetre", "cm": "centimetre", "m": "metre", "in": "inch", "ft": "foot"}


def in_unit(building: Building, unit: str) -> Building:
    """A building whose file's figures are assumed to be in another unit than it says.

    Raises:
        BuildingFileError: the file's own unit is none that is known, so that nothing can be made of its
            figures.
    """
    own = next((key for key, name in UNIT_NAMES.items() if name == building.unit), None)
    if own is None:
        raise BuildingFileError(
            f"The file's unit, {building.unit}, is none that can be corrected. Export it in metres."
        )
    by = UNITS[unit] / UNITS[own]
    if by == 1.0:
        return building
    return replace(
        building,
        vertices=building.vertices * by,
        storeys=tuple(Storey(s.name, s.elevation * by) for s in building.storeys),
        build_ups={
            which: BuildUp(b.normal, b.start * by, tuple((m, thickness * by) for m, thickness in b.layers))
            for which, b in building.build_ups.items()
        },
        doors={which: door.scaled(by) for which, door in building.doors.items()},
        windows={which: window.scaled(by) for which, window in building.windows.items()},
        steps={
            which: Steps(
                s.risers, None if s.rise is None else s.rise * by, None if s.going is None else s.going * by
            )
            for which, s in building.steps.items()
        },
        rooms=tuple(room.scaled(by) for room in building.rooms),
        grid=tuple(
            GridLine(line.name, ((ax * by, ay * by), (bx * by, by_ * by)))
            for line in building.grid
            for (ax, ay), (bx, by_) in [line.ends]
        ),
        unit=UNIT_NAMES[unit],
    )
