"""What lies at a place of a sheet: which drawing, where of its view, and which element of the building."""

from __future__ import annotations

import json
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from io import BytesIO
from typing import Any

import numpy as np
from numpy.typing import NDArray
from shapely import Point as ShapelyPoint
from shapely import Polygon

from drafting.errors import SheetError
from drafting.geometry.boxes import Box, Point
from drafting.issuing.frozen import FrozenSheet
from drafting.render.items import Drawing
from drafting.review.marks import AnyMark, LengthMark
from drafting.schema import CLOSED, dump, parse
from drafting.views.camera import Camera

Axis = tuple[float, float, float]


@dataclass(frozen=True)
class Placement:
    """How a drawing lies on its sheet: paper = place + ratio * (u, v) turned, in degrees anticlockwise."""

    __pydantic_config__ = CLOSED

    place: tuple[float, float]
    ratio: float
    turn: float = 0.0

    @classmethod
    def of(cls, item: Drawing) -> Placement:
        return cls(item.place, item.ratio, item.turn)

    def in_view(self, at: Point) -> Point:
        """A place on paper in u and v of the view, mm.

        >>> Placement((100.0, 50.0), 0.01, 90.0).in_view((100.0, 60.0))
        (1000.0, 0.0)
        """
        turn = math.radians(self.turn)
        cos, sin = math.cos(turn), math.sin(turn)
        x, y = (at[0] - self.place[0]) / self.ratio, (at[1] - self.place[1]) / self.ratio
        return round(x * cos + y * sin, 6), round(y * cos - x * sin, 6)

    def on_paper(self, at: Point) -> Point:
        """The opposite: u and v of the view, mm, on paper.

        >>> Placement((100.0, 50.0), 0.01, 90.0).on_paper((1000.0, 0.0))
        (100.0, 60.0)
        """
        turn = math.radians(self.turn)
        cos, sin = math.cos(turn), math.sin(turn)
        u, v = at[0] * self.ratio, at[1] * self.ratio
        return round(self.place[0] + u * cos - v * sin, 6), round(self.place[1] + u * sin + v * cos, 6)


@dataclass(frozen=True)
class Eye:
    """The camera of a drawing: unit vectors and a point of the model; `distance` and `angle` (degrees) of a
    perspective."""

    __pydantic_config__ = CLOSED

    right: Axis
    up: Axis
    toward: Axis
    origin: Axis
    distance: float | None = None
    angle: float = 0.0

    @classmethod
    def of(cls, camera: Camera) -> Eye:
        axes = _axis(camera.right), _axis(camera.up), _axis(camera.toward), _axis(camera.origin)
        return cls(*axes, distance=camera.distance, angle=camera.angle)


def _axis(values: NDArray[np.float64]) -> Axis:
    x, y, z = values.tolist()
    return x, y, z


@dataclass(frozen=True)
class NamedElement:
    """An element of the building: its id, its name and its class, as the building file has them."""

    __pydantic_config__ = CLOSED

    id: str
    name: str
    ifc_class: str


@dataclass(frozen=True)
class SeenDrawing:
    """What is known of a drawing on a sheet.

    Attributes:
        name: of its viewport.
        box: its window on paper, mm.
        columns, rows: how many places of it are known; none where it is not known what is seen.
        elements: those that are seen.
    """

    __pydantic_config__ = CLOSED

    viewport: str
    name: str
    box: Box
    placement: Placement
    eye: Eye
    columns: int = 0
    rows: int = 0
    elements: tuple[NamedElement, ...] = ()


@dataclass(frozen=True)
class FoundPlace:
    """What lies at a place.

    Attributes:
        viewport, name: the drawing.
        at: where of the building, model mm; None where nothing is seen, or it is not known.
    """

    viewport: str
    name: str
    placement: Placement
    eye: Eye
    element: NamedElement | None = None
    at: Axis | None = None


def drawing_at(sheet: FrozenSheet, at: Point) -> Drawing | None:
    """The topmost drawing that shows a place of a sheet, paper mm."""
    place = ShapelyPoint(at)
    drawings = [item for item in sheet.display.items if isinstance(item, Drawing)]
    return next((item for item in reversed(drawings) if Polygon(item.clip).intersects(place)), None)


def measured(sheet: FrozenSheet, eyes: Mapping[str, Eye], mark: AnyMark) -> AnyMark:
    """A mark with its true length: that of the building, where both ends lie in one drawing that has a scale;
    a perspective has none."""
    if not isinstance(mark, LengthMark):
        return mark
    first, last = drawing_at(sheet, mark.first), drawing_at(sheet, mark.last)
    eye = eyes.get(first.viewport) if first else None
    scaled = first is not None and first is last and (eye is None or eye.distance is None)
    on_paper = math.dist(mark.first, mark.last)
    return replace(mark, length=on_paper / first.ratio if scaled and first is not None else 0.0)


class Places:
    """What is seen at the places of a sheet, by its drawings, the topmost last."""

    def __init__(
        self, drawings: Sequence[SeenDrawing], seen: Sequence[tuple[NDArray[np.int32], NDArray[np.float32]]]
    ) -> None:
        self.drawings, self._seen = tuple(drawings), tuple(seen)

    @property
    def eyes(self) -> dict[str, Eye]:
        """The cameras of its drawings, by the ids of their viewports."""
        return {drawing.viewport: drawing.eye for drawing in self.drawings}

    def find(self, sheet: FrozenSheet, at: Point) -> FoundPlace | None:
        """What lies at a place of the sheet, paper mm; None where there is no drawing."""
        item = drawing_at(sheet, at)
        known = {drawing.viewport: k for k, drawing in enumerate(self.drawings)}
        if item is None or item.viewport not in known:
            return None
        k = known[item.viewport]
        drawing, (numbers, depths) = self.drawings[k], self._seen[k]
        found = FoundPlace(drawing.viewport, drawing.name, drawing.placement, drawing.eye)
        if not drawing.columns:
            return found
        box = drawing.box
        column = min(max(int((at[0] - box.x) / box.width * drawing.columns), 0), drawing.columns - 1)
        row = min(max(int((box.top - at[1]) / box.height * drawing.rows), 0), drawing.rows - 1)
        number = int(numbers[row, column])
        if number < 0:
            return found
        u, v = drawing.placement.in_view(at)
        place = _in_model(drawing.eye, u, v, float(depths[row, column]))
        return replace(found, element=drawing.elements[number], at=place)

    def showing(self, element: str) -> tuple[FoundPlace, Point] | None:
        """Where an element is seen best: a place of it in the drawing that shows the most of it, paper mm;
        None where none shows it."""
        best: tuple[int, int, int, NDArray[np.bool_]] | None = None
        for k, (drawing, (numbers, _)) in enumerate(zip(self.drawings, self._seen, strict=True)):
            number = next((n for n, each in enumerate(drawing.elements) if each.id == element), None)
            if number is not None:
                there = numbers == number
                count = int(there.sum())
                if count and (best is None or count > best[0]):
                    best = count, k, number, there
        if best is None:
            return None
        _, k, number, there = best
        drawing, (_, depths) = self.drawings[k], self._seen[k]
        rows, columns = np.nonzero(there)
        nearest = np.argmin((rows - rows.mean()) ** 2 + (columns - columns.mean()) ** 2)
        row, column = int(rows[nearest]), int(columns[nearest])
        box = drawing.box
        at = (
            box.x + (column + 0.5) / drawing.columns * box.width,
            box.top - (row + 0.5) / drawing.rows * box.height,
        )
        u, v = drawing.placement.in_view(at)
        model = _in_model(drawing.eye, u, v, float(depths[row, column]))
        found = FoundPlace(drawing.viewport, drawing.name, drawing.placement, drawing.eye)
        return replace(found, element=drawing.elements[number], at=model), at

    def to_bytes(self) -> bytes:
        """As a file: compressed arrays (NumPy's NPZ), the facts as JSON among them."""
        facts = json.dumps(dump(self.drawings, tuple[SeenDrawing, ...])).encode()
        arrays: dict[str, NDArray[Any]] = {"facts": np.frombuffer(facts, np.uint8)}
        for k, (numbers, depths) in enumerate(self._seen):
            arrays |= {f"numbers{k}": numbers, f"depths{k}": depths}
        out = BytesIO()
        np.savez_compressed(out, allow_pickle=False, **arrays)
        return out.getvalue()

    @classmethod
    def from_bytes(cls, data: bytes) -> Places:
        """What `to_bytes` wrote.

        Raises:
            SheetError: it is none.
        """
        try:
            with np.load(BytesIO(data), allow_pickle=False) as arrays:
                facts = json.loads(bytes(arrays["facts"]))
                drawings = parse(tuple[SeenDrawing, ...], facts, "record of places", SheetError)
                seen = [(arrays[f"numbers{k}"], arrays[f"depths{k}"]) for k in range(len(drawings))]
        except (OSError, EOFError, ValueError, KeyError) as error:
            raise SheetError("This record of a sheet is damaged. Restore it from a backup.") from error
        return cls(drawings, seen)


def _in_model(eye: Eye, u: float, v: float, depth: float) -> Axis:
    """The model point that is pictured at u and v with a depth; mm."""
    along = np.array([u, v, depth])
    if eye.distance is not None:
        along *= eye.distance / (eye.distance + depth)
    x, y, z = np.array(eye.origin) + along @ np.array([eye.right, eye.up, eye.toward])
    return round(float(x), 2), round(float(y), 2), round(float(z), 2)
