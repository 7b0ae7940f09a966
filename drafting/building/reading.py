"""Reading a building from a file in any known format."""

from __future__ import annotations

from contextlib import ExitStack
from dataclasses import replace
from pathlib import Path

from drafting.building.axes import Axes
from drafting.building.diagnostics import warnings_about
from drafting.building.earth import with_earth, with_level_ground
from drafting.building.model import Building
from drafting.building.own_axes import in_axes, own_axes, stands_near
from drafting.building.readers.ifc import read_ifc
from drafting.building.readers.mesh import MESH_FORMATS, read_mesh_file
from drafting.building.readers.packed import unpacked
from drafting.building.room_places import with_room_places
from drafting.building.units import in_unit
from drafting.errors import BuildingFileError
from drafting.progress import Progress, silent


def read_building(
    path: Path,
    progress: Progress = silent,
    name: str = "",
    *,
    unit: str | None = None,
    up: str | None = None,
    axes: Axes | None = None,
    beside: Path | None = None,
    ground: float | None = None,
) -> Building:
    """Read a building file, in the format that the ending of its name tells, alone or in a ZIP or gzip file.

    Args:
        name: what people call the file, if not by its path.
        unit: of the file's figures, where it says none or says it wrongly.
        up: for a file that does not say which axis points up, see `read_mesh_file`.
        axes: the building's own in those of its file, such as the version before had; found from its
            placement and its walls if not given, or where it stands far from them.
        beside: a folder with the files that it names, such as its textures; where it is packed they are
            found in there.
        ground: the level of the ground where the file has no terrain, mm from the building's zero; None for
            no ground.

    Raises:
        BuildingFileError: the file cannot be used, or an axis is given for one that says its own.
    """
    placed: list[Axes] = []
    with ExitStack() as stack:
        path, name, packed = stack.enter_context(unpacked(path, name or path.name))
        beside = packed or beside
        if Path(name).suffix.lower() in MESH_FORMATS:
            building = read_mesh_file(path, progress, name, unit=unit, up=up, beside=beside)
        else:
            if up:
                raise BuildingFileError(f"“{name}” is read as IFC, in which z points up. Leave the axis out.")
            building, placed = read_ifc(path, progress, name, beside)
            if unit:
                building = in_unit(building, unit)
    progress("Sorting out edges", 0.0)
    if axes is None or not stands_near(building, axes):
        axes = own_axes(building, placed)
    building = in_axes(building, axes)
    building = with_earth(building) if ground is None else with_earth(with_level_ground(building, ground))
    building = with_room_places(building)
    return replace(building, warnings=(*building.warnings, *warnings_about(building)))
