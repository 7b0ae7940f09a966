"""Attributes, properties and quantities of elements and spaces, as an IFC file has them."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import ifcopenshell.util.unit

from drafting.building.element_data import MAX_VALUES, Value

MM_PER_METRE = 1000.0
#: Attributes that say something of what an element is (ISO 16739-1), by the words of the screen.
_ATTRIBUTES = {
    "Tag": "Tag",
    "ObjectType": "Type",
    "Description": "Description",
    "PredefinedType": "Predefined type",
    "LongName": "Long name",
}
#: How quantities are made mm, mm2 and mm3 (ISO 16739-1, IfcPhysicalSimpleQuantity): by the power of the
#: length that they have.
_POWERS = {"IfcQuantityLength": 1, "IfcQuantityArea": 2, "IfcQuantityVolume": 3}
_UNITS = {1: "LENGTHUNIT", 2: "AREAUNIT", 3: "VOLUMEUNIT"}


def read_properties(file: Any) -> dict[str, dict[str, Value]]:
    """What the file says of each element and space, by its id: attributes, then “Set.Property” of its type
    and of its own, which come first."""
    scales = {power: _scale(file, unit, power) for power, unit in _UNITS.items()}
    found: dict[str, dict[str, Value]] = {}

    def add(product: Any, values: dict[str, Value]) -> None:
        if not (product.is_a("IfcElement") or product.is_a("IfcSpatialElement") or product.is_a("IfcSpace")):
            return
        own = found.setdefault(product.GlobalId, {})
        for key, value in values.items():
            if len(own) < MAX_VALUES:
                own[key] = value

    for relation in file.by_type("IfcRelDefinesByType"):
        kind = relation.RelatingType
        values: dict[str, Value] = {"Type": kind.Name} if kind.Name else {}
        for definition in kind.HasPropertySets or ():
            values.update(_of_set(definition, scales))
        for product in relation.RelatedObjects:
            add(product, values)
    for relation in file.by_type("IfcRelDefinesByProperties"):
        definition = relation.RelatingPropertyDefinition
        values = dict(_of_set(definition, scales))
        for product in relation.RelatedObjects if values else ():
            add(product, values)
    for name in ("IfcElement", "IfcSpace"):
        for product in file.by_type(name):
            add(product, dict(_attributes(product)))
    return found


def _scale(file: Any, unit: str, power: int) -> float:
    scale = float(ifcopenshell.util.unit.calculate_unit_scale(file, unit))
    return scale * MM_PER_METRE**power


def _attributes(product: Any) -> Iterator[tuple[str, Value]]:
    for name, words in _ATTRIBUTES.items():
        value = getattr(product, name, None)
        if value and value not in ("NOTDEFINED", "USERDEFINED"):
            yield words, str(value)


def _of_set(definition: Any, scales: dict[int, float]) -> Iterator[tuple[str, Value]]:
    """Properties and quantities with one value; those of several have no cell in a table."""
    if definition.is_a("IfcPropertySet"):
        for each in definition.HasProperties or ():
            if each.is_a("IfcPropertySingleValue") and each.NominalValue is not None:
                yield f"{definition.Name}.{each.Name}", _plain(each.NominalValue.wrappedValue)
            elif each.is_a("IfcPropertyEnumeratedValue") and each.EnumerationValues:
                words = ", ".join(str(value.wrappedValue) for value in each.EnumerationValues)
                yield f"{definition.Name}.{each.Name}", words
    elif definition.is_a("IfcElementQuantity"):
        for each in definition.Quantities or ():
            power = _POWERS.get(each.is_a(), 0)
            value = each[3] if len(each) > 3 else None
            if isinstance(value, int | float):
                yield f"{definition.Name}.{each.Name}", value * scales[power] if power else float(value)


def _plain(value: Any) -> Value:
    if isinstance(value, bool):
        return "Yes" if value else "No"
    return value if isinstance(value, int | float) else str(value)
