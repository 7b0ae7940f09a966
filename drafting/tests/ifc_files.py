"""Small IFC files of each schema and unit, written for the tests."""

from __future__ import annotations

import math
import uuid
from pathlib import Path
from typing import Any

import ifcopenshell
import ifcopenshell.guid

#: A unit's name to how the file states it and its length in mm.
UNITS = {
    "millimetre": (("MILLI", "METRE"), 1.0),
    "metre": ((None, "METRE"), 1000.0),
    "foot": (None, 304.8),
}


def write_ifc(
    path: Path,
    schema: str = "IFC4",
    unit: str = "millimetre",
    boxes: bool = True,
    extra: str = "",
    length: float = 5000.0,
) -> Path:
    """A file with a wall of `length` (mm) x 0.2 x 2.5 m on a storey at 3 m; with `extra`, a second product of
    that class. A product keeps its id from file to file."""
    f: Any = ifcopenshell.file(schema=schema)
    prefix, unit_length = UNITS[unit]
    guid = ifcopenshell.guid.new
    history = None
    if schema == "IFC2X3":
        person = f.createIfcPersonAndOrganization(f.createIfcPerson("p"), f.createIfcOrganization(None, "o"))
        program = f.createIfcApplication(person.TheOrganization, "1", "tests", "tests")
        history = f.createIfcOwnerHistory(person, program, None, "ADDED", None, None, None, 0)
    if prefix:
        length_unit = f.createIfcSIUnit(None, "LENGTHUNIT", *prefix)
    else:
        metre = f.createIfcSIUnit(None, "LENGTHUNIT", None, "METRE")
        measure = f.createIfcMeasureWithUnit(f.create_entity("IfcLengthMeasure", 0.3048), metre)
        dimensions = f.createIfcDimensionalExponents(1, 0, 0, 0, 0, 0, 0)
        length_unit = f.createIfcConversionBasedUnit(dimensions, "LENGTHUNIT", "FOOT", measure)

    def axes(*at: float) -> Any:
        return f.createIfcAxis2Placement3D(f.createIfcCartesianPoint(tuple(x / unit_length for x in at)))

    context = f.createIfcGeometricRepresentationContext(None, "Model", 3, 1e-5, axes(0.0, 0.0, 0.0))
    units = f.createIfcUnitAssignment([length_unit])
    project = f.createIfcProject(guid(), history, "Tests", None, None, None, None, [context], units)
    place = f.createIfcLocalPlacement(None, axes(0.0, 0.0, 3000.0))
    elevation = 3000.0 / unit_length
    storey = f.createIfcBuildingStorey(
        guid(), history, "Deck", None, None, place, None, None, "ELEMENT", elevation
    )
    f.createIfcRelAggregates(guid(), history, None, None, project, [storey])
    if not boxes:
        f.write(str(path))
        return path

    def product(ifc_class: str, name: str, x: float) -> Any:
        corners = [(0.0, 0.0), (length, 0.0), (length, 200.0), (0.0, 200.0)]
        points = [f.createIfcCartesianPoint((a / unit_length, b / unit_length)) for a, b in corners]
        profile = f.createIfcArbitraryClosedProfileDef(
            "AREA", None, f.createIfcPolyline([*points, points[0]])
        )
        up = f.createIfcDirection((0.0, 0.0, 1.0))
        solid = f.createIfcExtrudedAreaSolid(profile, axes(0.0, 0.0, 0.0), up, 2500.0 / unit_length)
        shape = f.createIfcShapeRepresentation(context, "Body", "SweptSolid", [solid])
        f.createIfcPresentationLayerAssignment(f"Layer of {name}", None, [shape], None)
        known = ifcopenshell.guid.compress(uuid.uuid5(uuid.NAMESPACE_OID, name).hex)
        made = f.create_entity(ifc_class, known, history, name)
        made.ObjectPlacement = f.createIfcLocalPlacement(storey.ObjectPlacement, axes(x, 0.0, 0.0))
        made.Representation = f.createIfcProductDefinitionShape(None, None, [shape])
        return made

    wall_class = "IfcWallStandardCase" if schema == "IFC2X3" else "IfcWall"
    made = [product(wall_class, "Wall", 1000.0)]
    stone = f.createIfcMaterial("Stone")
    f.createIfcRelAssociatesMaterial(guid(), history, None, None, made, stone)
    f.createIfcRelContainedInSpatialStructure(guid(), history, None, None, made, storey)
    if extra:
        made.append(product(extra, extra, 9000.0))
    f.write(str(path))
    return path


def write_turned_ifc(path: Path, by: float) -> Path:
    """A file whose storey, and the wall on it, is turned by so many degrees."""
    file = ifcopenshell.open(str(write_ifc(path)))
    (storey,) = file.by_type("IfcBuildingStorey")
    way = (math.cos(math.radians(by)), math.sin(math.radians(by)), 0.0)
    storey.ObjectPlacement.RelativePlacement.Axis = file.createIfcDirection((0.0, 0.0, 1.0))
    storey.ObjectPlacement.RelativePlacement.RefDirection = file.createIfcDirection(way)
    file.write(str(path))
    return path
