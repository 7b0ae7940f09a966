"""From the shapes of an IFC file to the arrays of a building, with the layers of its walls."""

from __future__ import annotations

from collections import Counter
from typing import Any

import ifcopenshell.util.unit
import numpy as np
from numpy.typing import NDArray

from drafting.building.model import (
    NO_MATERIAL,
    Building,
    BuildUp,
    Element,
    Floats,
    Ints,
    Storey,
    no_places,
)
from drafting.building.textures import Colour

#: The geometry kernel works in metres, whatever the file's unit.
MM_PER_METRE = 1000.0
LAYER_AXES = ("AXIS1", "AXIS2", "AXIS3")
#: Layers are believed where they fill the element's thickness within this, mm.
LAYER_SLACK = 1.0


class GatheredMesh:
    """Gathers the shapes of a file into the arrays of a building."""

    def __init__(self) -> None:
        self.vertices: list[Floats] = []
        self.triangles: list[Ints] = []
        self.materials: dict[str, int] = {}
        self.material_of: list[Ints] = []
        self.colours: dict[str, Colour] = {}
        self.colour_from: dict[str, int] = {}
        self.places: list[NDArray[np.float32] | None] = []

    @staticmethod
    def matrix_of(shape: Any) -> Floats:
        """(4, 4): from the element's own axes to the model's, in mm."""
        matrix = np.array(shape.transformation.matrix, np.float64).reshape(4, 4).T
        matrix[:3, 3] *= MM_PER_METRE
        return matrix

    @staticmethod
    def local_of(shape: Any) -> Floats:
        """(n, 3) corners in the element's own axes, in mm."""
        return np.asarray(shape.geometry.verts, np.float64).reshape(-1, 3) * MM_PER_METRE

    @staticmethod
    def faces_of(shape: Any) -> Ints:
        """(t, 3) its triangles, indices into those."""
        return np.asarray(shape.geometry.faces, np.int32).reshape(-1, 3)

    def add(
        self, shape: Any, material: str, styles: list[str], places: NDArray[np.float32] | None = None
    ) -> None:
        """Add the shape of an element: in a material, or in one for each of its styles; `places` (triangles,
        3, 2) say where its corners lie on textures."""
        geometry = shape.geometry
        matrix = self.matrix_of(shape)
        self.vertices.append(self.local_of(shape) @ matrix[:3, :3].T + matrix[:3, 3])
        self.triangles.append(self.faces_of(shape))
        self.places.append(places)
        if material:
            names = [material]
            which = np.zeros(len(self.triangles[-1]), np.int64)
        else:
            names = [*styles, NO_MATERIAL]
            which = np.asarray(geometry.material_ids, np.int64)
        numbers = np.array([self.materials.setdefault(name, len(self.materials)) for name in names])
        self.material_of.append(numbers[which].astype(np.int32))
        self._add_colours(geometry.materials, [material] * len(styles) if material else styles)

    def _add_colours(self, styles: Any, names: list[str]) -> None:
        """Keep the colours of surface styles as those of the materials they stand on; of several that one
        counts that comes first in the file."""
        for style, name in zip(styles, names, strict=True):
            number = style.instance_id()
            if not style.diffuse or self.colour_from.get(name, number) < number:
                continue
            self.colour_from[name] = number
            red, green, blue = (
                min(max(float(part), 0.0), 1.0)
                for part in (style.diffuse.r(), style.diffuse.g(), style.diffuse.b())
            )
            # A style without a transparency gives none at all.
            clear = style.transparency if style.transparency == style.transparency else 0.0
            self.colours[name] = red, green, blue, 1.0 - min(max(float(clear), 0.0), 1.0)

    def building(
        self,
        elements: list[Element],
        order: list[int],
        storeys: tuple[Storey, ...],
        file: Any,
        left_out: list[Any],
        usages: dict[int, tuple[Floats, Any]],
    ) -> Building:
        """The arrays of all elements, in an order that does not depend on threads."""
        build_ups = {}
        for place, i in enumerate(order):
            build_up = self._build_up(i, *usages[i]) if i in usages else None
            if build_up:
                build_ups[place] = build_up
        offset = 0
        triangles = []
        for i in order:
            triangles.append(self.triangles[i] + offset)
            offset += len(self.vertices[i])
        sizes = [len(self.triangles[i]) for i in order]
        return Building(
            elements=tuple(elements[i] for i in order),
            storeys=storeys,
            materials=tuple(self.materials),
            vertices=np.concatenate([self.vertices[i] for i in order]),
            triangles=np.concatenate(triangles).astype(np.int32),
            triangle_element=np.repeat(np.arange(len(order), dtype=np.int32), sizes),
            triangle_material=np.concatenate([self.material_of[i] for i in order]),
            build_ups=build_ups,
            schema=file.schema_identifier,
            unit=_unit_name(file),
            left_out=dict(Counter(p.is_a() for p in left_out)),
            material_colours=dict(sorted(self.colours.items())),
            texture_places=self._texture_places(order),
        )

    def _texture_places(self, order: list[int]) -> NDArray[np.float32]:
        """(T, 3, 2) where the corners of all triangles lie on textures; empty where none is said."""
        if all(places is None for places in self.places):
            return no_places()
        unsaid = np.full((1, 3, 2), np.nan, np.float32)
        given = ((self.places[i], len(self.triangles[i])) for i in order)
        return np.concatenate([np.repeat(unsaid, n, axis=0) if p is None else p for p, n in given])

    def _build_up(self, which: int, matrix: Floats, usage: Any) -> BuildUp | None:
        """The layers of an element (IfcMaterialLayerSetUsage), if its shape is as thick as they are
        together."""
        unit = ifcopenshell.util.unit.calculate_unit_scale(usage.file) * MM_PER_METRE
        axis = matrix[:3, LAYER_AXES.index(usage.LayerSetDirection)]
        sense = 1.0 if usage.DirectionSense == "POSITIVE" else -1.0
        normal = axis * sense
        start = float(matrix[:3, 3] @ normal) + usage.OffsetFromReferenceLine * unit * sense
        layers = [x for x in usage.ForLayerSet.MaterialLayers if x.LayerThickness > 0]
        along = self.vertices[which] @ normal
        thick = sum(x.LayerThickness for x in layers) * unit
        if abs(along.min() - start) > LAYER_SLACK or abs(along.max() - start - thick) > LAYER_SLACK:
            return None
        names = [x.Material.Name if x.Material else NO_MATERIAL for x in layers]
        numbers = [self.materials.setdefault(name, len(self.materials)) for name in names]
        parts = tuple((n, x.LayerThickness * unit) for n, x in zip(numbers, layers, strict=True))
        return BuildUp((float(normal[0]), float(normal[1]), float(normal[2])), start, parts)


def _unit_name(file: Any) -> str:
    unit = ifcopenshell.util.unit.get_project_unit(file, "LENGTHUNIT")
    if unit is None:
        return "metre"
    prefix = getattr(unit, "Prefix", None) or ""
    return f"{prefix}{unit.Name}".lower().replace("_", " ")
