"""The display list: everything on a sheet, in paper millimetres from the lower left corner, y upward.

Every output and the board draw from it and from nothing else. A `Drawing` names linework by its key, with six figures
that place it; `expand` turns it into paths, and so whoever has the linework can draw it, at once and alike.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import asdict, dataclass, field
from functools import lru_cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from drafting.linework.model import ROLES, Linework
from drafting.plot.pens import PAPER, Pen
from drafting.sheets.viewport import Box, PenChange

Floats = NDArray[np.float64]
Point = tuple[float, float]

OUTLINES = "Viewport outlines"


@dataclass(frozen=True, eq=False)
class Path:
    """A stroked polyline. `points` (n, 2) mm; `source` names the viewport and element it comes from."""

    points: Floats
    pen: Pen
    layer: str = ""
    source: tuple[str, str] = ("", "")
    closed: bool = False


@dataclass(frozen=True, eq=False)
class Fill:
    """A filled area: rings of (n, 2) mm, even-odd."""

    rings: tuple[Floats, ...]
    colour: str
    layer: str = ""
    source: tuple[str, str] = ("", "")


@dataclass(frozen=True)
class Text:
    """One line of lettering. `size` is the height of a capital in mm (ISO 3098); `at` is on the base line."""

    at: Point
    text: str
    size: float
    colour: str
    anchor: str = "start"
    bold: bool = False
    layer: str = ""
    source: tuple[str, str] = ("", "")


@dataclass(frozen=True)
class Image:
    """A picture of pixels by its key, and the box that it fills."""

    picture: str
    box: Box
    layer: str = ""


@dataclass(frozen=True)
class Drawing:
    """Linework seen through a viewport: paper = place + ratio * (u, v) turned, clipped to `clip`.

    Attributes:
        viewport: the id of its source.
        linework: the key of its geometry.
        clip: the corners of its window on paper, mm.
        ratio: paper mm for one real mm.
        turn: degrees anticlockwise, about `place`.
        place: where u = v = 0 lies on paper, mm.
        pens: the pen of each line role; a role without one is not drawn.
        layers: how the pens of some layers differ.
        fill: colour of what is cut.
        outline: the pen that `clip` itself is drawn with; None where it is not plotted.
        opaque: whether what lies below is hidden within `clip`.
    """

    viewport: str
    linework: str
    clip: tuple[Point, ...]
    ratio: float
    place: Point
    pens: dict[str, Pen]
    fill: str
    turn: float = 0.0
    layers: dict[str, PenChange] = field(default_factory=dict)
    outline: Pen | None = None
    opaque: bool = False


@dataclass(frozen=True, eq=False)
class Clipped:
    """Items that are seen only within a polygon on paper."""

    clip: tuple[Point, ...]
    items: tuple[Fill | Path, ...]


Primitive = Path | Fill | Text | Image | Clipped


@dataclass(frozen=True)
class Link:
    """The middle of a mark's bubble on paper, mm, the viewport that it lies in, and the view that it points to."""

    viewport: str
    view: str
    at: Point


@dataclass(frozen=True)
class FieldBox:
    """Where a field stands on a sheet, and whether it is typed over on this sheet alone."""

    field: str
    box: Box
    typed: bool


@dataclass(frozen=True)
class TitleBox:
    """Where the drawing title of a viewport lies."""

    viewport: str
    box: Box


@dataclass(frozen=True, eq=False)
class DisplayList:
    """A sheet of paper and what lies on it, lowest first, and what of it points to other views."""

    width: float
    height: float
    items: tuple[Path | Fill | Text | Image | Drawing, ...] = field(default_factory=tuple)
    links: tuple[Link, ...] = ()
    #: Where tables lie, to be taken hold of; so do fields and drawing titles.
    tables: tuple[Box, ...] = ()
    fields: tuple[FieldBox, ...] = ()
    titles: tuple[TitleBox, ...] = ()
    #: The frame line, from whose sides a template's parts are measured; where the two ends of each lie (x, y, x, y);
    #: and by how much they are narrower on a narrow paper.
    frame: Box = field(default_factory=lambda: Box(0.0, 0.0, 0.0, 0.0))
    parts: tuple[tuple[float, float, float, float], ...] = ()
    shrink: float = 1.0

    def as_dict(self) -> dict[str, Any]:
        """JSON for the board: each item with its `type`."""
        return {
            "width": self.width,
            "height": self.height,
            "items": [_item_dict(item) for item in self.items],
            "links": [asdict(link) for link in self.links],
            "tables": [asdict(box) for box in self.tables],
            "fields": [asdict(field) for field in self.fields],
            "titles": [asdict(title) for title in self.titles],
            "frame": asdict(self.frame),
            "parts": self.parts,
            "shrink": self.shrink,
        }


def _item_dict(item: Path | Fill | Text | Image | Drawing) -> dict[str, Any]:
    kind = {"type": type(item).__name__.lower()}
    if isinstance(item, Path):
        points, pen = item.points.round(4).tolist(), asdict(item.pen)
        return kind | {"points": points, "pen": pen, "closed": item.closed, "viewport": item.source[0]}
    if isinstance(item, Fill):
        return kind | {
            "rings": [ring.round(4).tolist() for ring in item.rings],
            "colour": item.colour,
            "viewport": item.source[0],
        }
    if isinstance(item, Text):
        letters = {name: getattr(item, name) for name in ("at", "text", "size", "colour", "anchor", "bold")}
        return kind | letters | {"viewport": item.source[0]}
    return kind | asdict(item)


def no_picture(key: str) -> bytes:
    """For display lists without pictures of pixels."""
    raise KeyError(key)


def expand(display: DisplayList, linework: Callable[[str], Linework]) -> Iterator[Primitive]:
    """The display list in primitives only: every drawing becomes its fills and paths on paper, within its clip.

    Lines that lie wholly outside the clip are left out.
    """
    for item in display.items:
        if not isinstance(item, Drawing):
            yield item
            continue
        yield _drawn(item, linework(item.linework))
        if item.outline:
            yield Path(np.array(item.clip), item.outline, OUTLINES, (item.viewport, ""), closed=True)


def _drawn(drawing: Drawing, linework: Linework) -> Clipped:
    place, turn = np.array(drawing.place), np.radians(drawing.turn)
    cos, sin = np.cos(turn), np.sin(turn)
    map_ = drawing.ratio * np.array([[cos, sin], [-sin, cos]])
    corners = np.array(drawing.clip)
    widest = max((pen.width for pen in _every_pen(drawing)), default=0.0)
    low, high = corners.min(axis=0) - widest, corners.max(axis=0) + widest

    def meets(points: Floats) -> bool:
        return bool((points.max(axis=0) >= low).all() and (points.min(axis=0) <= high).all())

    items: list[Fill | Path] = []
    if drawing.opaque:
        items.append(Fill((corners,), PAPER, source=(drawing.viewport, "")))
    for region in linework.regions:
        rings = tuple(place + ring @ map_ for ring in region.rings)
        if meets(rings[0]):
            items.append(Fill(rings, drawing.fill, region.material, (drawing.viewport, region.element)))
    # The widest last, so that a narrow line never breaks a wide one.
    pen_of = lru_cache(maxsize=None)(lambda role, layer: drawing.pens[role].changed(drawing.layers.get(layer)))
    lines = [(pen_of(line.role, line.layer), line) for line in linework.lines if line.role in drawing.pens]
    for pen, line in sorted(lines, key=lambda pair: (pair[0].width, -ROLES.index(pair[1].role))):
        points = place + line.points[:, :2] @ map_
        if meets(points):
            items.append(Path(points, pen, line.layer, (drawing.viewport, line.element)))
    return Clipped(drawing.clip, tuple(items))


def _every_pen(drawing: Drawing) -> Iterator[Pen]:
    for pen in drawing.pens.values():
        yield pen
        yield from (pen.changed(change) for change in drawing.layers.values())
