"""Building files: read, made ready for 3D, compared."""

from __future__ import annotations

from dataclasses import asdict
from pathlib import Path
from typing import Any

from drafting.building.axes import axes_from, between
from drafting.building.comparison import changes_between
from drafting.building.element_data import building_data, save_data
from drafting.building.openings import openings_of
from drafting.building.own_axes import in_axes
from drafting.building.reading import read_building
from drafting.building.solid import to_solid
from drafting.building.store import save_building
from drafting.linework.climbs import climbs_of
from drafting.linework.own_elevations import with_pictures
from drafting.progress import Progress, silent
from drafting.shading.colours import colours_of
from drafting.tasks.stored import building_at


def read_model(
    source: Path,
    target: Path,
    data: Path,
    name: str,
    unit: str,
    up: str,
    axes: dict[str, Any] | None,
    ground: float | None,
    progress: Progress = silent,
) -> dict[str, Any]:
    """Read a building file, store it at `target` and what it says of its elements at `data`, and return what
    was found.

    Args:
        unit: of its figures, blank for what the file says.
        up: the axis that points up, blank for what the file says.
        axes: the building's own, None to find them.
        ground: the level of the ground where the file has no terrain; mm.

    Raises:
        BuildingFileError: the file cannot be used; nothing is written.
    """
    building = read_building(
        source, progress, name, unit=unit or None, up=up or None, axes=axes_from(axes), ground=ground
    )
    progress("Storing the model", 0.0)
    save_building(building, target)
    save_data(with_pictures(building_data(building), building), data)
    low, high = building.bounds
    return {
        "schema": building.schema,
        "unit": building.unit,
        "elements": len(building.elements),
        "triangles": len(building.triangles),
        "size": [round(float(x), 1) for x in high - low],
        "true_north": building.true_north,
        "axes": asdict(building.axes),
        "on_grid": building.on_grid and asdict(building.on_grid),
        "given": {"unit": unit, "up": up, "ground": ground},
        "has_ground": bool(building.ground.any()),
        "storeys": [{"name": s.name, "elevation": s.elevation} for s in building.storeys],
        "grid": [{"name": line.name, "ends": line.ends} for line in building.grid],
        "rooms": [asdict(room) for room in building.rooms],
        "climbs": [asdict(climb) for climb in climbs_of(building)],
        "openings": [asdict(opening) for opening in openings_of(building)],
        "layers": building.layer_counts(),
        "colours": {
            name: "#" + "".join(f"{round(part * 255):02x}" for part in colour[:3])
            for name, colour in zip(building.materials, colours_of(building).tolist(), strict=True)
        },
        "textures": sorted(building.textures),
        "classes": building.class_counts(),
        "left_out": building.left_out,
        "failed": list(building.failed),
        "warnings": list(building.warnings),
    }


def write_solid(stored: Path, target: Path, progress: Progress = silent) -> None:
    """Write a stored building to `target` as it is looked at in 3D."""
    progress("Making it ready for 3D", 0.0)
    target.write_bytes(to_solid(building_at(stored)))


def compare_models(before: Path, after: Path, progress: Progress = silent) -> dict[str, Any]:
    """What changed between two stored buildings: ids of elements that were added, removed, moved or reshaped,
    and the name and class of each."""
    progress("Comparing with the version before", 0.0)
    old, new = building_at(before), building_at(after)
    changes = changes_between(in_axes(old, between(old.axes, new.axes)), new).as_dict()
    known = {e.id: e for building in (old, new) for e in building.elements}
    return {
        kind: [{"id": i, "name": known[i].name, "class": known[i].ifc_class} for i in ids]
        for kind, ids in changes.items()
    }
