"""Reading a building from a file of any form that is known."""

from __future__ import annotations

from pathlib import Path

from drafting.building.ifc import read_ifc
from drafting.building.mesh_file import MESH_FORMS, read_mesh_file
from drafting.building.model import Building
from drafting.errors import BuildingFileError
from drafting.progress import Progress, silent


def read_building(
    path: Path, progress: Progress = silent, name: str = "", *, unit: str | None = None, up: str | None = None
) -> Building:
    """Read a building file, of the form that the end of its name tells.

    Args:
        name: what people call the file, if not by its path.
        unit, up: for files that do not say them, see `read_mesh_file`.

    Raises:
        BuildingFileError: the file cannot be used, or a unit is given for one that says its own.
    """
    name = name or path.name
    if Path(name).suffix.lower() in MESH_FORMS:
        return read_mesh_file(path, progress, name, unit=unit, up=up)
    if unit or up:
        raise BuildingFileError(f"“{name}” is read as IFC, which says its own unit and axes. Leave them out.")
    return read_ifc(path, progress, name)
