"""Reading a building from an IFC file (IFC2x3, IFC4, IFC4x3; STEP encoding)."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace
from functools import partial
from pathlib import Path
from typing import Any

import ifcopenshell
import ifcopenshell.util.element
import ifcopenshell.util.placement
import ifcopenshell.util.unit

from drafting.building.axes import Axes
from drafting.building.climbs import Steps
from drafting.building.doors import Door
from drafting.building.model import (
    GROUND_CLASSES,
    GROUND_LAYER,
    GROUND_MATERIAL,
    NO_LAYER,
    NO_MATERIAL,
    Building,
    Element,
    Floats,
    Storey,
)
from drafting.building.readers.beside import FilesBeside
from drafting.building.readers.excluded_classes import EXCLUDED, EXCLUDED_2X3
from drafting.building.readers.ifc_doors import read_door
from drafting.building.readers.ifc_grid import read_grids
from drafting.building.readers.ifc_mesh import MM_PER_METRE, GatheredMesh
from drafting.building.readers.ifc_placement import grid_axes, placed_axes
from drafting.building.readers.ifc_properties import read_properties
from drafting.building.readers.ifc_rooms import read_rooms
from drafting.building.readers.ifc_shapes import Shapes, has_body
from drafting.building.readers.ifc_steps import read_steps
from drafting.building.readers.ifc_textures import TexturePlaces, texture_of_style
from drafting.building.readers.ifc_windows import read_window
from drafting.building.textures import gathered
from drafting.building.windows import BuildingWindow
from drafting.errors import BuildingFileError
from drafting.progress import Progress, silent

#: How much of either end of a file is looked at before it is given to the reader.
PROBE_BYTES = 4096


def read_ifc(
    path: Path, progress: Progress = silent, name: str = "", beside: Path | None = None
) -> tuple[Building, list[Axes]]:
    """Read an IFC file: a building in millimetres, all figures as the file has them, and the axes in which it
    places building and site.

    Args:
        name: what people call the file, if not by its path.
        beside: a folder with the files that came with it, its textures; None came if not given.

    Raises:
        BuildingFileError: the file is empty, cut off, no IFC, of an unknown schema, or without shapes.
    """
    name = name or path.name
    _check_readable(path, name)
    progress("Opening the file", 0.0)
    try:
        file = ifcopenshell.open(str(path))
    except Exception as error:
        raise BuildingFileError(
            f"“{name}” cannot be read as IFC: {_first_line(error)} Export it again from the program it "
            f"comes from."
        ) from error
    if not isinstance(file, ifcopenshell.file):
        raise BuildingFileError(f"“{name}” is not an IFC file in STEP encoding. Export it as .ifc.")
    if not file.by_type("IfcProject"):
        raise BuildingFileError(f"“{name}” holds no IFC project: it is damaged or cut off. Export it again.")

    storeys, storey_index = _read_storeys(file)
    left_out = _excluded(file)
    layer_of = _layers_by_representation(file)
    mesh = GatheredMesh()
    elements: list[Element] = []
    usages: dict[int, tuple[Floats, Any]] = {}
    doors: dict[str, Door] = {}
    windows: dict[str, BuildingWindow] = {}
    steps: dict[str, Steps] = {}
    unit = ifcopenshell.util.unit.calculate_unit_scale(file) * MM_PER_METRE
    unplaced: set[str] = set()
    files, lies = FilesBeside(beside), TexturePlaces(file)
    textured: dict[str, Any] = {}

    shapes = Shapes(file, left_out)
    for product, shape in shapes.read(progress):
        material = _material_of(product) or (GROUND_MATERIAL if product.is_a() in GROUND_CLASSES else "")
        usage: Any = ifcopenshell.util.element.get_material(product)
        if usage is not None and usage.is_a("IfcMaterialLayerSetUsage"):
            usages[len(elements)] = mesh.matrix_of(shape), usage
        styles = [_style_name(file, style) for style in shape.geometry.materials]
        places = lies.on(product, mesh.local_of(shape) / MM_PER_METRE, mesh.faces_of(shape))
        mesh.add(shape, material, styles, places)
        for made, own in zip(shape.geometry.materials, styles, strict=True):
            style = _style(file, made)
            if style is not None and style.id() <= textured.get(material or own, style).id():
                textured[material or own] = style
        if product.is_a("IfcDoor"):
            door = read_door(product, mesh.matrix_of(shape), mesh.local_of(shape), unit)
            if door is not None:
                doors[product.GlobalId] = door
        if product.is_a("IfcWindow"):
            window = read_window(product, mesh.matrix_of(shape), mesh.local_of(shape))
            if window is not None:
                windows[product.GlobalId] = window
        if product.is_a("IfcStairFlight"):
            steps[product.GlobalId] = read_steps(product, unit)
        storey = _storey_of(product)
        if ifcopenshell.util.element.get_container(product) is None and not product.is_a("IfcSite"):
            unplaced.add(product.GlobalId)
        elements.append(
            Element(
                id=product.GlobalId,
                name=product.Name or "",
                ifc_class=product.is_a(),
                storey=storey_index.get(storey, -1),
                layer=_layer_of(product, layer_of),
                material=material or NO_MATERIAL,
            )
        )
    if not elements:
        raise BuildingFileError(
            f"“{name}” holds no element with a shape. Export it with geometry, and not only as a list of "
            f"elements."
        )
    order = sorted(range(len(elements)), key=lambda i: elements[i].id)
    building = mesh.building(elements, order, storeys, file, left_out, usages)
    building = replace(
        building,
        failed=tuple(sorted(f"“{p.Name or p.GlobalId}” ({p.is_a()})" for p in shapes.failed)),
        doors={k: doors[e.id] for k, e in enumerate(building.elements) if e.id in doors},
        windows={k: windows[e.id] for k, e in enumerate(building.elements) if e.id in windows},
        steps={k: steps[e.id] for k, e in enumerate(building.elements) if e.id in steps},
        unplaced=frozenset(unplaced),
        true_north=_true_north(file),
        grid=read_grids(file),
        on_grid=grid_axes(file),
        properties=read_properties(file),
    )
    progress("Reading textures", 0.0)
    textures, untextured = gathered(
        (name, partial(texture_of_style, style, files)) for name, style in sorted(textured.items())
    )
    colours = dict(building.material_colours)
    for name, texture in textures.items():
        red, green, blue, opacity = texture.mean
        colours[name] = red, green, blue, opacity * colours.get(name, texture.mean)[3]
    building = replace(building, textures=textures, material_colours=colours)
    progress("Reading rooms", 0.0)
    rooms, about = read_rooms(file)
    about = (*about, *_without_height(file), *_misplaced(shapes.misplaced), *untextured)
    building = replace(building, rooms=rooms, warnings=(*building.warnings, *about))
    return building, placed_axes(file)


def _true_north(file: Any) -> float | None:
    """Degrees from the model's y axis to true north, clockwise
    (IfcGeometricRepresentationContext.TrueNorth)."""
    for context in file.by_type("IfcGeometricRepresentationContext", include_subtypes=False):
        if context.TrueNorth:
            x, y = context.TrueNorth.DirectionRatios[:2]
            return round(math.degrees(math.atan2(x, y)), 4) + 0.0
    return None


def _check_readable(path: Path, name: str) -> None:
    """Turn away what is plainly no whole IFC file, before the reader meets it."""
    size = path.stat().st_size
    if not size:
        raise BuildingFileError(f"“{name}” is empty. Save or copy it again.")
    with path.open("rb") as stream:
        head = stream.read(PROBE_BYTES)
        stream.seek(max(0, size - PROBE_BYTES))
        tail = stream.read()
    if b"ISO-10303-21" not in head:
        raise BuildingFileError(
            f"“{name}” is not an IFC file: it does not begin as one. Choose an .ifc, .glb or .obj file."
        )
    if b"END-ISO-10303-21" not in tail:
        raise BuildingFileError(f"“{name}” is cut off: its end is missing. Copy or export it again.")


def _first_line(error: Exception) -> str:
    text = str(error).strip().splitlines()
    return (text[0].rstrip(".") + ".") if text else "the reader gave up on it."


def _read_storeys(file: Any) -> tuple[tuple[Storey, ...], dict[int, int]]:
    """Storeys from the lowest up, and where each one's file id stands among them."""
    unit = ifcopenshell.util.unit.calculate_unit_scale(file) * MM_PER_METRE
    heights = {s.id(): _height(s) * unit for s in file.by_type("IfcBuildingStorey")}
    found = sorted(file.by_type("IfcBuildingStorey"), key=lambda s: (heights[s.id()], s.id()))
    storeys = tuple(Storey(s.Name or f"Storey {i}", heights[s.id()]) for i, s in enumerate(found))
    return storeys, {s.id(): i for i, s in enumerate(found)}


def _height(storey: Any) -> float:
    """How high a storey is, in the file's unit: where it is placed. Its Elevation, which is counted from the
    ground floor, says it only where it has no place."""
    if storey.ObjectPlacement is None:
        return float(storey.Elevation or 0.0)
    return float(ifcopenshell.util.placement.get_local_placement(storey.ObjectPlacement)[2, 3])


def _without_height(file: Any) -> list[str]:
    """A sentence about storeys of which the file says no height at all."""
    silent = [
        s for s in file.by_type("IfcBuildingStorey") if s.ObjectPlacement is None and s.Elevation is None
    ]
    if not silent:
        return []
    more = f" and {len(silent) - 1} more" if len(silent) > 1 else ""
    verb = "have" if more else "has"
    return [
        f"The storey “{silent[0].Name or 'unnamed'}”{more} {verb} no elevation; the floor is taken at zero."
    ]


def _misplaced(products: Sequence[Any]) -> list[str]:
    """A sentence about shapes that lie elsewhere than their definition says."""
    if not products:
        return []
    names = sorted(product.Name or product.GlobalId for product in products)
    more = f" and {len(names) - 1} more" if len(names) > 1 else ""
    verb, its = ("come", "their definition") if more else ("comes", "its definition")
    return [
        f"“{names[0]}”{more} {verb} out in another place or size than {its} in the file says. "
        "Look whether the drawing is right."
    ]


def _excluded(file: Any) -> list[Any]:
    """The products with a shape that describe no thing that is built."""
    names = EXCLUDED_2X3 + EXCLUDED if file.schema == "IFC2X3" else EXCLUDED
    found: dict[int, Any] = {}
    for name in names:
        try:
            products = file.by_type(name)
        except RuntimeError:  # the schema does not know the class
            continue
        found.update((p.id(), p) for p in products if has_body(p) and not p.is_a("IfcSite"))
    return list(found.values())


def _layers_by_representation(file: Any) -> dict[int, str]:
    return {
        item.id(): assignment.Name
        for assignment in file.by_type("IfcPresentationLayerAssignment")
        for item in assignment.AssignedItems
    }


def _layer_of(product: Any, layers: dict[int, str]) -> str:
    for representation in product.Representation.Representations if product.Representation else ():
        for thing in (representation, *representation.Items):
            if thing.id() in layers:
                return layers[thing.id()]
            if thing.is_a("IfcMappedItem"):
                mapped = thing.MappingSource.MappedRepresentation
                for source in (mapped, *mapped.Items):
                    if source.id() in layers:
                        return layers[source.id()]
    return GROUND_LAYER if product.is_a() in GROUND_CLASSES else NO_LAYER


def _material_of(product: Any) -> str:
    """The one name for what an element is made of; "" where its parts differ and their styles name them."""
    material: Any = ifcopenshell.util.element.get_material(product, should_skip_usage=True)
    if material is None or material.is_a("IfcMaterialConstituentSet") or material.is_a("IfcMaterialList"):
        return ""
    return getattr(material, "LayerSetName", None) or getattr(material, "Name", None) or ""


def _style_name(file: Any, style: Any) -> str:
    """The name of a part's surface style; it stands for the part's material where the element gives none."""
    return getattr(_style(file, style), "Name", None) or NO_MATERIAL


def _style(file: Any, style: Any) -> Any:
    """The surface style of a part in the file; None where the reader made it up."""
    try:
        return file.by_id(style.instance_id())
    except (RuntimeError, AttributeError):
        return None


def _storey_of(product: Any) -> int:
    container = ifcopenshell.util.element.get_container(product, ifc_class="IfcBuildingStorey")
    return container.id() if container else -1
