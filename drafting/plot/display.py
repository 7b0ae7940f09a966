"""The display list: everything on a sheet, in paper millimetres from the lower left corner, y upward.

Every output and the board draw from it and from nothing else. A `Drawing` names linework by its key, with six figures
that place it; `expand` turns it into paths, and so whoever has the linework can draw it, at once and alike.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import asdict, dataclass, field, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from drafting.linework.model import ROLES, Linework
from drafting.plot.hatches import hatch_lines
from drafting.plot.patterns import fitted, stretches
from drafting.plot.pen_table import Cut
from drafting.plot.pens import PAPER, Pen
from drafting.sheets.viewport import Box, PenChange

Floats = NDArray[np.float64]
Point = tuple[float, float]

OUTLINES, CUT_AREAS, HATCHES = "Viewport outlines", "Cut areas", "Hatches"


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
    """A filled area: rings of (n, 2) mm, even-odd. Of `opacity` 1 it hides what lies under it."""

    rings: tuple[Floats, ...]
    colour: str
    layer: str = ""
    source: tuple[str, str] = ("", "")
    opacity: float = 1.0


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
    """A picture of pixels by its key, and the box that it fills; in grey where a plot has no colours."""

    picture: str
    box: Box
    layer: str = ""
    grey: bool = False


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
        cuts: how what is cut is filled; for each material the first that matches it.
        outline: the pen that `clip` itself is drawn with; None where it is not plotted.
        opaque: whether what lies below is hidden within `clip`.
    """

    viewport: str
    linework: str
    clip: tuple[Point, ...]
    ratio: float
    place: Point
    pens: dict[str, Pen]
    cuts: tuple[Cut, ...] = ()
    turn: float = 0.0
    layers: dict[str, PenChange] = field(default_factory=dict)
    outline: Pen | None = None
    opaque: bool = False


@dataclass(frozen=True, eq=False)
class Strokes:
    """Many open polylines of one pen: `points` (n, 2) mm, and where each of them begins in it."""

    points: Floats
    starts: NDArray[np.int64]
    pen: Pen
    layer: str = ""
    viewport: str = ""


@dataclass(frozen=True, eq=False)
class Clipped:
    """Items that are seen only within a polygon on paper."""

    clip: tuple[Point, ...]
    items: tuple[Fill | Path | Strokes, ...]


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
    #: The frame line, from whose sides a template's parts are measured, and by how much they are narrower on a narrow
    #: paper.
    frame: Box = field(default_factory=lambda: Box(0.0, 0.0, 0.0, 0.0))
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
    if isinstance(item, Image):
        return kind | {"picture": item.picture, "box": asdict(item.box)}
    if isinstance(item, Drawing):
        # With the lines of hatches, so that the board needs no table of them.
        cuts = [asdict(cut) | {"lines": [asdict(line) for line in cut.lines]} for cut in item.cuts]
        return kind | asdict(item) | {"cuts": cuts}
    return kind | asdict(item)


def no_picture(key: str) -> bytes:
    """For display lists without pictures of pixels."""
    raise KeyError(key)


def expand(display: DisplayList, linework: Callable[[str], Linework]) -> Iterator[Primitive]:
    """The display list in primitives only: every drawing becomes its fills and lines on paper, within its clip, and
    every line of a pattern the stretches between its corners, on each of which the pattern starts and ends on a dash.

    Lines that lie wholly outside the clip are left out.
    """
    for item in display.items:
        if isinstance(item, Path):
            yield from laid_out(item)
        elif not isinstance(item, Drawing):
            yield item
        else:
            yield _drawn(item, linework(item.linework))
            if item.outline:
                yield Path(np.array(item.clip), item.outline, OUTLINES, (item.viewport, ""), closed=True)


def laid_out(path: Path) -> Iterator[Path]:
    """A path of a pattern as the stretches between its corners, each with the pattern fitted to it."""
    if not path.pen.pattern:
        yield path
        return
    for points in stretches(path.points, path.closed):
        length = float(np.hypot(*np.diff(points, axis=0).T).sum())
        pattern = tuple(p / path.pen.width for p in fitted(path.pen.dashes, length))
        yield replace(path, points=points, closed=False, pen=replace(path.pen, pattern=pattern))


def _drawn(drawing: Drawing, linework: Linework) -> Clipped:
    place, turn = np.array(drawing.place), np.radians(drawing.turn)
    cos, sin = np.cos(turn), np.sin(turn)
    map_ = drawing.ratio * np.array([[cos, sin], [-sin, cos]])
    corners = np.array(drawing.clip)
    items: list[Fill | Path | Strokes] = []
    if drawing.opaque:
        items.append(Fill((corners,), PAPER, source=(drawing.viewport, "")))
    items += _cut_items(drawing, linework, place, map_)
    items += _line_items(drawing, linework, place, map_)
    return Clipped(drawing.clip, tuple(items))


def _cut_items(drawing: Drawing, linework: Linework, place: Floats, map_: Floats) -> Iterator[Fill | Strokes]:
    """What is cut: areas, then the hatches in them."""
    corners = np.array(drawing.clip)
    low, high = corners.min(axis=0), corners.max(axis=0)
    hatched: dict[Cut, list[tuple[Floats, ...]]] = {}
    for region in linework.regions:
        cut = next((cut for cut in drawing.cuts if cut.matches(region.material)), None)
        rings = tuple(place + ring @ map_ for ring in region.rings)
        if cut is None or (rings[0].max(axis=0) < low).any() or (rings[0].min(axis=0) > high).any():
            continue
        if cut.fill:
            yield Fill(rings, cut.fill, CUT_AREAS, (drawing.viewport, region.element), cut.opacity / 100)
        if cut.lines:
            hatched.setdefault(cut, []).append(rings)
    for cut, areas in hatched.items():
        for family in cut.lines:
            ends = hatch_lines(family, cut.spacing, cut.angle, areas, place)
            ends = ends[((ends.max(axis=1) >= low) & (ends.min(axis=1) <= high)).all(axis=1)]
            if len(ends):
                pen = Pen(cut.width, cut.colour, (), cut.screen)
                yield Strokes(ends.reshape(-1, 2), np.arange(0, 2 * len(ends), 2), pen, HATCHES, drawing.viewport)


def _line_items(drawing: Drawing, linework: Linework, place: Floats, map_: Floats) -> Iterator[Path | Strokes]:
    """Lines by pen and layer, the widest last, so that a narrow line never breaks a wide one."""
    if not linework.lines:
        return
    packed = linework.packed
    points = place + packed.points @ map_
    corners = np.array(drawing.clip)
    rim = max((pen.width for pen in _every_pen(drawing)), default=0.0)
    low, high = corners.min(axis=0) - rim, corners.max(axis=0) + rim
    least, most = (np.minimum.reduceat(points, packed.starts), np.maximum.reduceat(points, packed.starts))
    meets = ((most >= low) & (least <= high)).all(axis=1)
    ends = np.append(packed.starts[1:], len(points))
    groups = []
    for (role, layer), which in packed.groups.items():
        if role in drawing.pens and meets[which].any():
            pen = drawing.pens[role].changed(drawing.layers.get(layer))
            groups.append((pen.width, -ROLES.index(role), layer, pen, which[meets[which]]))
    for _, _, layer, pen, which in sorted(groups, key=lambda group: group[:3]):
        if pen.pattern:
            for k in which:
                yield from laid_out(Path(points[packed.starts[k] : ends[k]], pen, layer, (drawing.viewport, "")))
            continue
        sizes = ends[which] - packed.starts[which]
        starts = np.cumsum(sizes) - sizes
        rows = np.arange(sizes.sum()) + np.repeat(packed.starts[which] - starts, sizes)
        yield Strokes(points[rows], starts, pen, layer, drawing.viewport)


def _every_pen(drawing: Drawing) -> Iterator[Pen]:
    for pen in drawing.pens.values():
        yield pen
        yield from (pen.changed(change) for change in drawing.layers.values())
