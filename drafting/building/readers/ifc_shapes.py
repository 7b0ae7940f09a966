"""Shapes of an IFC file: each made by the fast kernel, and made again by slower ones where that gave nothing,
left a solid open, or put it elsewhere than its definition says."""

from __future__ import annotations

import os
from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

import ifcopenshell.geom
import ifcopenshell.util.unit
import numpy as np

from drafting.building.model import Floats
from drafting.building.readers.ifc_implied import implied_box
from drafting.progress import Progress

#: Sides of a full circle where the file gives a curve; 7.5 degrees between facets.
CIRCLE_SIDES = 48
#: Exact where openings are cut from swept solids, and several times faster than the default on real houses.
#: The manifold kernel is faster still, but moves corners by up to 0.05 mm.
FAST_KERNEL: Any = "hybrid-cgal-simple-opencascade"
#: What a shape that it does not give is made with instead, in this order.
SLOW_KERNELS: tuple[Any, ...] = ("opencascade", "cgal")
#: Shapes that come out open or misplaced are made again for so many elements; a file with more is so on
#: purpose.
MAX_OPEN = 100
#: Representations that are no body (IfcShapeRepresentation.RepresentationIdentifier, ISO 16739-1).
NO_BODY = frozenset(
    {"Axis", "FootPrint", "Plan", "Profile", "Annotation", "Box", "CoG", "Reference", "Clearance", "Lighting"}
)
#: Types of representations whose shapes are closed.
SOLID = frozenset(
    {"SweptSolid", "AdvancedSweptSolid", "CSG", "Clipping", "Brep", "AdvancedBrep", "SolidModel"}
)


@dataclass
class Shapes:
    """The shapes of all products of a file but the excluded ones.

    Attributes:
        failed: products whose shape no kernel can make, filled while the shapes are read.
        misplaced: products whose shape lies elsewhere than its definition says, by every kernel.
    """

    file: Any
    excluded: list[Any]
    failed: list[Any] = field(default_factory=list)
    misplaced: list[Any] = field(default_factory=list)

    def read(self, progress: Progress) -> Iterator[tuple[Any, Any]]:
        """Each product with its shape, in no order that means anything."""
        out = {product.id() for product in self.excluded}
        missing = {p.id(): p for p in self.file.by_type("IfcProduct") if has_body(p) and p.id() not in out}
        settings = _settings()
        left = MAX_OPEN
        for shape in self._fast(settings, progress):
            product: Any = self.file.by_id(shape.id)
            open_sides = _open_sides(shape)
            if open_sides is None:
                continue
            if left and ((open_sides and _is_solid(product)) or not self._fits(product, shape)):
                left -= 1
                shape = self._better(settings, product, shape)
            missing.pop(product.id(), None)
            yield product, self._told(product, shape)
        for number, product in enumerate(missing.values()):
            progress("Making shapes again", number / len(missing))
            shape = _made_by(SLOW_KERNELS, settings, product)
            if shape is None:
                self.failed.append(product)
            else:
                yield product, self._told(product, shape)

    def _told(self, product: Any, shape: Any) -> Any:
        """The shape, noted down if it is misplaced."""
        if not self._fits(product, shape):
            self.misplaced.append(product)
        return shape

    def _better(self, settings: Any, product: Any, shape: Any) -> Any:
        """A shape that is closed where the first is open, or where its definition says; the first where no
        kernel gives one."""
        for kernel in SLOW_KERNELS:
            again = _made_by((kernel,), settings, product)
            if again is None or not self._fits(product, again):
                continue
            if not _open_sides(again) or not self._fits(product, shape):
                return again
        return shape

    def _fits(self, product: Any, shape: Any) -> bool:
        box = implied_box(product)
        return box is None or box.fits(_corners_of(shape), self._unit)

    @cached_property
    def _unit(self) -> float:
        return float(ifcopenshell.util.unit.calculate_unit_scale(self.file))

    def _fast(self, settings: Any, progress: Progress) -> Iterator[Any]:
        geometry: Any = ifcopenshell.geom
        iterator: Any = geometry.iterator(
            settings,
            self.file,
            os.cpu_count() or 1,
            exclude=self.excluded or None,
            geometry_library=FAST_KERNEL,
        )
        going = iterator.initialize()
        while going:
            yield iterator.get()
            progress("Reading shapes", iterator.progress() / 100)
            going = iterator.next()


def body_of(product: Any) -> Any:
    """The shape of one product, by whichever kernel can make it; None where none can."""
    return _made_by((FAST_KERNEL, *SLOW_KERNELS), _settings(), product)


def has_body(product: Any) -> bool:
    """Whether a product has a shape of its own that could be drawn."""
    representation = getattr(product, "Representation", None)
    return representation is not None and any(
        r.RepresentationIdentifier not in NO_BODY and r.Items for r in representation.Representations
    )


def _made_by(kernels: tuple[Any, ...], settings: Any, product: Any) -> Any:
    geometry: Any = ifcopenshell.geom
    for kernel in kernels:
        try:
            shape = geometry.create_shape(settings, product, geometry_library=kernel)
        except RuntimeError:  # the kernel cannot make it
            continue
        if _open_sides(shape) is not None:
            return shape
    return None


def _settings() -> Any:
    geometry: Any = ifcopenshell.geom
    settings = geometry.settings()
    settings.set("weld-vertices", True)
    settings.set("circle-segments", CIRCLE_SIDES)
    return settings


def _is_solid(product: Any) -> bool:
    representations = product.Representation.Representations if product.Representation else ()
    bodies = [r for r in representations if r.RepresentationIdentifier == "Body"]
    return bool(bodies) and all(r.RepresentationType in SOLID for r in bodies)


def _corners_of(shape: Any) -> Floats:
    """(n, 3) in the product's own axes; metres."""
    return np.asarray(shape.geometry.verts, np.float64).reshape(-1, 3)


def _open_sides(shape: Any) -> int | None:
    """How many sides of a shape's triangles have no neighbour; None where it has no area at all."""
    faces = np.asarray(shape.geometry.faces, np.int64).reshape(-1, 3)
    corners = _corners_of(shape)
    if not len(faces) or not np.isfinite(corners).all():
        return None
    a, b, c = (corners[faces[:, k]] for k in range(3))
    if not np.any(np.cross(b - a, c - a)):
        return None
    sides = np.sort(faces[:, [[0, 1], [1, 2], [2, 0]]].reshape(-1, 2), axis=1)
    _, count = np.unique(sides[:, 0] * (len(corners) + 1) + sides[:, 1], return_counts=True)
    return int((count % 2).sum())
