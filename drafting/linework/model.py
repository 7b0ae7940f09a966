"""What a view computes to: lines that know why they are there, and cut regions, packed in arrays."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any, Literal, get_args

import numpy as np
from numpy.typing import NDArray

from drafting.building.model import GROUND_CLASSES
from drafting.geometry.polylines import Floats, Longs, Polylines
from drafting.views.camera import Camera
from drafting.views.spec import AnyView, dump_view

Ints = NDArray[np.int32]
#: Least u, least v, greatest u, greatest v; mm.
Extents = tuple[float, float, float, float]

#: Raised whenever the engine would draw the same view differently, so that stored linework is drawn anew.
ENGINE_VERSION = 10

#: Line roles, the heaviest first; where two lines lie on each other the first is kept.
Role = Literal["cut", "profile", "edge", "seam", "far", "overhead", "hidden", "symbol"]
ROLES: tuple[Role, ...] = get_args(Role)
CUT, PROFILE, EDGE, SEAM, FAR, OVERHEAD, HIDDEN, SYMBOL = range(8)
#: So much of the ground about a building belongs to its drawing; mm.
GROUND_ABOUT = 2_000.0
#: Decimals of a millimetre that are stored: far below what any scale shows.
DECIMALS = 4


@dataclass(frozen=True, eq=False)
class Line:
    """One drawn line. `points` is (n, 3): u, v, depth in mm; `band` counts the view's depth bands before
    it."""

    role: Role
    element: str
    layer: str
    points: Floats
    band: int = 0


@dataclass(frozen=True, eq=False)
class Region:
    """What the cut goes through: rings of (n, 2) u, v in mm; the first is the outline, the others holes."""

    element: str
    material: str
    rings: tuple[Floats, ...]


@dataclass(frozen=True, eq=False)
class PackedLines:
    """All lines of a drawing.

    Attributes:
        lines: m polylines of u, v, depth; mm.
        role: (m,) int8, an index into ROLES.
        band: (m,) int8.
        element, layer: (m,) int32, indices into the drawing's `elements` and `layers`.
    """

    lines: Polylines
    role: NDArray[np.int8]
    band: NDArray[np.int8]
    element: Ints
    layer: Ints

    def __len__(self) -> int:
        return len(self.role)


@dataclass(frozen=True, eq=False)
class PackedRegions:
    """All cut regions of a drawing: region k has the rings `starts[k]` to `starts[k + 1]`, its outline first.

    Attributes:
        rings: polylines of u, v without their closing point; mm.
        starts: (r + 1,) int64.
        element, material: (r,) int32, indices into the drawing's `elements` and `materials`.
    """

    rings: Polylines
    starts: Longs
    element: Ints
    material: Ints

    def __len__(self) -> int:
        return len(self.element)


def no_lines() -> PackedLines:
    """The lines of an empty drawing."""
    nothing = np.empty(0, np.int32)
    return PackedLines(
        Polylines.of([], 3), nothing.astype(np.int8), nothing.astype(np.int8), nothing, nothing
    )


def no_regions() -> PackedRegions:
    """The regions of a drawing that cuts nothing."""
    nothing = np.empty(0, np.int32)
    return PackedRegions(Polylines.of([]), np.zeros(1, np.int64), nothing, nothing)


@dataclass(frozen=True, eq=False)
class Linework:
    """The drawing of one view of one model version, in model millimetres and free of any scale.

    Attributes:
        camera: what it was looked at with.
        elements, layers, materials: the names that lines and regions refer to by number.
        notes: sentences about what to know of the drawing.
        classes, made_of: the class of each element, and its material, as the building file has them.
    """

    camera: Camera
    packed: PackedLines = field(default_factory=no_lines)
    packed_regions: PackedRegions = field(default_factory=no_regions)
    elements: tuple[str, ...] = ()
    layers: tuple[str, ...] = ()
    materials: tuple[str, ...] = ()
    notes: tuple[str, ...] = ()
    classes: tuple[str, ...] = ()
    made_of: tuple[str, ...] = ()

    @cached_property
    def groups(self) -> dict[tuple[Role, str], Longs]:
        """Which lines have each role and layer, by these."""
        packed = self.packed
        key = packed.role.astype(np.int64) * max(len(self.layers), 1) + packed.layer
        order = np.argsort(key, kind="stable")
        found, begins = np.unique(key[order], return_index=True)
        return {
            (ROLES[k // max(len(self.layers), 1)], self.layers[k % max(len(self.layers), 1)]): which
            for k, which in zip(found.tolist(), np.split(order, begins[1:]), strict=True)
        }

    @cached_property
    def lines(self) -> tuple[Line, ...]:
        """Line by line, for whoever looks at single ones."""
        packed = self.packed
        rows = zip(
            packed.role.tolist(),
            packed.element.tolist(),
            packed.layer.tolist(),
            packed.band.tolist(),
            strict=True,
        )
        return tuple(
            Line(ROLES[role], self.elements[element], self.layers[layer], points, band)
            for (role, element, layer, band), points in zip(rows, packed.lines, strict=True)
        )

    @cached_property
    def regions(self) -> tuple[Region, ...]:
        """Region by region, for whoever looks at single ones."""
        return tuple(self._each_region())

    def _each_region(self) -> Iterator[Region]:
        packed = self.packed_regions
        for k, (element, material) in enumerate(
            zip(packed.element.tolist(), packed.material.tolist(), strict=True)
        ):
            rings = tuple(packed.rings[ring] for ring in range(packed.starts[k], packed.starts[k + 1]))
            yield Region(self.elements[element], self.materials[material], rings)

    @property
    def extents(self) -> Extents | None:
        """Least u, least v, greatest u, greatest v of the building and of the ground about it; None for an
        empty drawing."""
        own = self.own_extents
        if own is None:
            return None
        points = self.packed.lines.points[:, :2]
        low = np.maximum(points.min(axis=0), np.array(own[:2]) - GROUND_ABOUT)
        high = np.minimum(points.max(axis=0), np.array(own[2:]) + GROUND_ABOUT)
        return float(low[0]), float(low[1]), float(high[0]), float(high[1])

    @cached_property
    def own_extents(self) -> Extents | None:
        """The same of the building without the ground; of the ground where there is nothing else."""
        if not len(self.packed):
            return None
        points = self.packed.lines.points[:, :2]
        surroundings = [k for k, name in enumerate(self.classes) if name in GROUND_CLASSES]
        ground = np.isin(self.packed.element, surroundings)
        if ground.any() and not ground.all():
            points = points[np.repeat(~ground, np.diff(self.packed.lines.starts))]
            # A line that a foundation shares with the ground it is cut in may be drawn as the ground's alone.
            cut = self.packed_regions
            of_ring = np.repeat(np.isin(cut.element, surroundings), np.diff(cut.starts))
            points = np.concatenate(
                [points, cut.rings.points[np.repeat(~of_ring, np.diff(cut.rings.starts))]]
            )
        low, high = points.min(axis=0), points.max(axis=0)
        return float(low[0]), float(low[1]), float(high[0]), float(high[1])

    def as_dict(self) -> dict[str, Any]:
        """The documented JSON export, see docs/linework-format.md."""
        return {
            "view": camera_as_dict(self.camera),
            "extents": self.extents,
            "notes": list(self.notes),
            "lines": [
                {"role": x.role, "band": x.band, "element": x.element, "layer": x.layer}
                | {"points": x.points.round(DECIMALS).tolist()}
                for x in self.lines
            ],
            "regions": [
                {
                    "element": r.element,
                    "material": r.material,
                    "rings": [k.round(DECIMALS).tolist() for k in r.rings],
                }
                for r in self.regions
            ],
        }

    def to_json(self) -> bytes:
        return json.dumps(self.as_dict(), separators=(",", ":"), allow_nan=False).encode()


def camera_as_dict(camera: Camera) -> dict[str, Any]:
    """The axes of a camera as plain data."""
    axes = {name: getattr(camera, name).tolist() for name in ("right", "up", "toward", "origin")}
    return axes if camera.distance is None else axes | {"distance": camera.distance}


def linework_key(model_digest: str, view: AnyView) -> str:
    """The key that a drawing is stored under: made of all it depends on, so that an old one is never taken
    for new."""
    given = json.dumps([ENGINE_VERSION, model_digest, dump_view(view)], sort_keys=True)
    return hashlib.sha256(given.encode()).hexdigest()
