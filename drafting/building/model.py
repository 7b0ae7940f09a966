"""A building as the drawing engine sees it: elements with one mesh, storeys, layers, materials."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from drafting.building.axes import Axes
from drafting.building.climbs import Steps
from drafting.building.doors import Door
from drafting.building.rooms import Room
from drafting.building.textures import Colour, Texture
from drafting.building.windows import BuildingWindow
from drafting.errors import ViewError

if TYPE_CHECKING:
    from drafting.building.intersections import Intersections
    from drafting.building.topology import Topology

Floats = NDArray[np.float64]
Ints = NDArray[np.int32]

#: What stands for a layer or a material where the file names none.
NO_LAYER = "No layer"
NO_MATERIAL = "No material"
#: The terrain of a site (ISO 16739-1), and the layer and material that it has where the file names none.
GROUND_CLASSES = ("IfcSite", "IfcGeographicElement")
GROUND_LAYER, GROUND_MATERIAL = "Ground", "Ground"
#: A model further from zero than half of this is drawn from a nearer origin, so that its
#: coordinates keep their precision; the step is coarse so that two versions share one origin.
ORIGIN_STEP = 1e7


@dataclass(frozen=True)
class Storey:
    """A storey: its name and the elevation of its floor in mm."""

    name: str
    elevation: float


def storey_in(storeys: Sequence[Storey], wanted: str) -> Storey | None:
    """The storey of a name (any case), or of a number from 0, lowest first; None where there is none such."""
    name = wanted.strip()
    for storey in storeys:
        if storey.name.casefold() == name.casefold():
            return storey
    return storeys[int(name)] if name.isdigit() and int(name) < len(storeys) else None


@dataclass(frozen=True)
class Element:
    """One thing of the building. `id` is the file's own GUID; `storey` an index, or -1 for none."""

    id: str
    name: str
    ifc_class: str
    storey: int
    layer: str
    material: str


@dataclass(frozen=True)
class GridLine:
    """A line of the building's grid: its name, and the two ends that the file gives it, x and y in mm."""

    name: str
    ends: tuple[tuple[float, float], tuple[float, float]]


@dataclass(frozen=True)
class BuildUp:
    """The layers of an element, one behind the other.

    Attributes:
        normal: unit vector through the layers, in model axes.
        start: how far along `normal` from the model's zero the first layer begins, mm.
        layers: each one's material (an index into the building's) and thickness, mm.
    """

    normal: tuple[float, float, float]
    start: float
    layers: tuple[tuple[int, float], ...]


def no_places() -> NDArray[np.float32]:
    """Where textures lie, of a building whose file says it nowhere."""
    return np.empty((0, 3, 2), np.float32)


@dataclass(frozen=True, eq=False)
class Building:
    """A building read from a file.

    Attributes:
        vertices: (V, 3) float64, mm, in model axes (z up).
        triangles: (T, 3) int32 indices into `vertices`, outward by the right-hand rule where the file says
            so.
        triangle_element: (T,) int32 index into `elements`.
        triangle_material: (T,) int32 index into `materials`.
        build_ups: the layers of those elements that have them, by index into `elements`.
        doors: those doors of which the file says how they open, by index into `elements`.
        windows: those windows of which the file says how they open, by index into `elements`.
        steps: what the file says of flights of stairs, by index into `elements`.
        rooms: its spaces.
        true_north: degrees from the model's y axis to true north, clockwise; None where the file does not say
            it.
        grid: the straight lines of its grids.
        axes: where the building's axes, which all figures are in, lie in those of its file.
        on_grid: where they lie on the national grid, where the file gives one.
        unplaced: ids of elements that the file puts in no storey and on no site.
        properties: what the file says of elements and spaces beside that, by id (`element_data`); not
            stored with it.
        left_out: element counts by class that are no building fabric and so are not drawn.
        failed: names of those whose shape could not be made.
        warnings: sentences about what was found wrong but could be drawn.
        material_colours: the colour that the file gives a material, by its name; of one with a texture the
            mean of that.
        textures: the textures of materials, by their names.
        texture_places: (T, 3, 2) where the corners of each triangle lie on the texture of its material, to
            the right and upward in repeats of it; NaN where the file does not say. Empty where it says
            nowhere.
    """

    elements: tuple[Element, ...]
    storeys: tuple[Storey, ...]
    materials: tuple[str, ...]
    vertices: Floats
    triangles: Ints
    triangle_element: Ints
    triangle_material: Ints
    schema: str = ""
    unit: str = "millimetre"
    build_ups: dict[int, BuildUp] = field(default_factory=dict)
    doors: dict[int, Door] = field(default_factory=dict)
    windows: dict[int, BuildingWindow] = field(default_factory=dict)
    steps: dict[int, Steps] = field(default_factory=dict)
    rooms: tuple[Room, ...] = ()
    true_north: float | None = None
    grid: tuple[GridLine, ...] = ()
    axes: Axes = Axes()
    on_grid: Axes | None = None
    unplaced: frozenset[str] = frozenset()
    properties: Mapping[str, Mapping[str, str | float | int]] = field(default_factory=dict)
    left_out: dict[str, int] = field(default_factory=dict)
    failed: tuple[str, ...] = ()
    warnings: tuple[str, ...] = ()
    material_colours: Mapping[str, Colour] = field(default_factory=dict)
    textures: Mapping[str, Texture] = field(default_factory=dict)
    texture_places: NDArray[np.float32] = field(default_factory=no_places)

    @cached_property
    def topology(self) -> Topology:
        """Edges, planes and closedness of the mesh: all that holds for every view."""
        # A compiler comes with it, which nothing needs that only speaks of buildings.
        from drafting.building.topology import build_topology

        return build_topology(self.vertices, self.triangles, self.triangle_element)

    @cached_property
    def intersections(self) -> Intersections:
        """Where bodies pass through each other."""
        from drafting.building.intersections import find_intersections

        return find_intersections(self.topology)

    @cached_property
    def ground(self) -> NDArray[np.bool_]:
        """(number of elements,) which are terrain."""
        return np.array([element.ifc_class in GROUND_CLASSES for element in self.elements], bool)

    @cached_property
    def bounds(self) -> tuple[Floats, Floats]:
        """Least and greatest corner of everything, each (3,) in mm."""
        return self.vertices.min(axis=0), self.vertices.max(axis=0)

    @cached_property
    def origin(self) -> Floats:
        """The point that views measure from: zero, unless the model stands very far away."""
        low, high = self.bounds
        origin = np.round((low + high) / 2 / ORIGIN_STEP) * ORIGIN_STEP
        origin[2] = 0.0
        return np.asarray(origin)

    def storey_named(self, wanted: str) -> Storey:
        """A storey by name (any case) or by number from 0, lowest first.

        Raises:
            ViewError: there is none such; the message lists those there are.
        """
        found = storey_in(self.storeys, wanted)
        if found is not None:
            return found
        there = ", ".join(f"{i}: {s.name}" for i, s in enumerate(self.storeys)) or "none"
        raise ViewError(f"The building has no storey “{wanted}”. Its storeys are {there}.")

    @property
    def account(self) -> str:
        """What became of the shapes in the file, in words: they add up."""
        left, failed = sum(self.left_out.values()), len(self.failed)
        shapes = len(self.elements) + left + failed
        return f"{shapes} shapes: {len(self.elements)} drawn, {left} left out, {failed} could not be read"

    def layer_counts(self) -> dict[str, int]:
        """How many elements stand on each layer, by name."""
        return dict(sorted(Counter(e.layer for e in self.elements).items()))

    def class_counts(self) -> dict[str, int]:
        """How many elements there are of each class, by name."""
        return dict(sorted(Counter(e.ifc_class for e in self.elements).items()))
