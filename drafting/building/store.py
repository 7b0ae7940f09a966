"""Storing a building that was read once, so that drawing it again never reads the file again."""

from __future__ import annotations

import json
from dataclasses import asdict
from pathlib import Path
from typing import Any

import numpy as np

from drafting.building.axes import Axes, axes_from
from drafting.building.climbs import Steps
from drafting.building.doors import Door
from drafting.building.model import Building, BuildUp, Element, GridLine, Storey, no_places
from drafting.building.rooms import room_from
from drafting.building.textures import Texture
from drafting.building.windows import BuildingWindow, Panel
from drafting.errors import BuildingFileError
from drafting.versions import KeptForm, as_it_is

#: In what form buildings are stored. Until the fifth each version only added something.
FORM = KeptForm("stored building", 5, dict.fromkeys(range(1, 5), as_it_is), BuildingFileError)


def save_building(building: Building, path: Path) -> None:
    """Write a building's arrays and facts as one compressed .npz file."""
    facts = {
        "version": FORM.newest,
        "elements": [asdict(e) for e in building.elements],
        "storeys": [asdict(s) for s in building.storeys],
        "materials": building.materials,
        "schema": building.schema,
        "unit": building.unit,
        "build_ups": [
            [which, b.normal, b.start, b.layers] for which, b in sorted(building.build_ups.items())
        ],
        "doors": [[which, asdict(door)] for which, door in sorted(building.doors.items())],
        "windows": [[which, asdict(window)] for which, window in sorted(building.windows.items())],
        "steps": [[which, asdict(steps)] for which, steps in sorted(building.steps.items())],
        "rooms": [asdict(room) for room in building.rooms],
        "true_north": building.true_north,
        "grid": [[line.name, line.ends] for line in building.grid],
        "axes": asdict(building.axes),
        "on_grid": building.on_grid and asdict(building.on_grid),
        "left_out": building.left_out,
        "failed": building.failed,
        "warnings": building.warnings,
        "material_colours": dict(building.material_colours),
        "textures": [[name, texture.size] for name, texture in building.textures.items()],
    }
    textures: dict[str, Any] = {
        f"texture_{k}": texture.pixels for k, texture in enumerate(building.textures.values())
    }
    with path.open("wb") as stream:
        np.savez_compressed(
            stream,
            facts=np.frombuffer(json.dumps(facts).encode(), np.uint8),
            vertices=building.vertices,
            triangles=building.triangles,
            triangle_element=building.triangle_element,
            triangle_material=building.triangle_material,
            texture_places=building.texture_places,
            **textures,
        )


def load_building(path: Path) -> Building:
    """Read what `save_building` wrote.

    Raises:
        BuildingFileError: it is of a version that is not known here.
    """
    with np.load(path) as stored:
        facts = json.loads(stored["facts"].tobytes())
        facts = FORM.brought_up(facts, int(facts.get("version", 1)))
        return Building(
            elements=tuple(Element(**e) for e in facts["elements"]),
            storeys=tuple(Storey(**s) for s in facts["storeys"]),
            materials=tuple(facts["materials"]),
            vertices=stored["vertices"],
            triangles=stored["triangles"],
            triangle_element=stored["triangle_element"],
            triangle_material=stored["triangle_material"],
            schema=facts["schema"],
            unit=facts["unit"],
            build_ups={
                which: BuildUp(
                    tuple(normal), start, tuple((material, thickness) for material, thickness in layers)
                )
                for which, normal, start, layers in facts.get("build_ups", ())
            },
            doors={which: _door(door) for which, door in facts.get("doors", ())},
            windows={which: _window(window) for which, window in facts.get("windows", ())},
            steps={which: Steps(**steps) for which, steps in facts.get("steps", ())},
            rooms=tuple(room_from(room) for room in facts.get("rooms", ())),
            true_north=facts.get("true_north"),
            grid=tuple(
                GridLine(name, ((ax, ay), (bx, by))) for name, ((ax, ay), (bx, by)) in facts.get("grid", ())
            ),
            axes=axes_from(facts.get("axes")) or Axes(),
            on_grid=axes_from(facts.get("on_grid")),
            left_out=facts["left_out"],
            failed=tuple(facts.get("failed", ())),
            warnings=tuple(facts["warnings"]),
            material_colours={
                name: (red, green, blue, opacity)
                for name, (red, green, blue, opacity) in facts.get("material_colours", {}).items()
            },
            textures={
                name: Texture(stored[f"texture_{k}"], (width, height))
                for k, (name, (width, height)) in enumerate(facts.get("textures", ()))
            },
            texture_places=stored["texture_places"] if "texture_places" in stored else no_places(),
        )


def _door(kept: Any) -> Door:
    plain: dict[str, Any] = {name: tuple(x) if isinstance(x, list) else x for name, x in kept.items()}
    return Door(**plain)


def _window(kept: Any) -> BuildingWindow:
    panels = tuple(Panel(tuple(p["place"]), tuple(p["hinges"])) for p in kept["panels"])
    plain: dict[str, Any] = {name: tuple(x) if isinstance(x, list) else x for name, x in kept.items()}
    return BuildingWindow(**{**plain, "panels": panels})
