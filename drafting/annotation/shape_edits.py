"""What is done to shapes that are drawn: mirrored, turned, offset, joined, broken, trimmed, extended,
repeated. Points that stay where they were keep what they are attached to; new ones are attached to none."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import replace
from typing import Literal, get_args

import numpy as np
import shapely
from shapely.ops import linemerge

from drafting.annotation.anchors import Anchor
from drafting.annotation.shapes import Shape, outline
from drafting.annotation.symbols import SymbolLine, SymbolSpec
from drafting.errors import SheetError
from drafting.geometry.boxes import Point

Edit = Literal["mirror", "turn", "offset", "join", "break", "trim", "extend", "array"]
EDITS: tuple[Edit, ...] = get_args(Edit)
#: Ends that are nearer than this share of a drawing's size touch, and no more than so many points are made.
TOUCH, MAX_POINTS = 1e-6, 500
#: Lengths along a line that differ by less are the same.
_ALIKE = 1e-9

#: So many points of shapes are edited at once, and so many are made of them.
MAX_GIVEN, MAX_MADE = 20_000, 100_000


def edited(
    shapes: Sequence[Shape],
    edit: Edit,
    *,
    at: Point = (0.0, 0.0),
    to: Point = (0.0, 0.0),
    by: float = 0.0,
    count: int = 1,
) -> list[Shape]:
    """The shapes in place of those given.

    Args:
        at, to: two points of the line that is mirrored in; the middle of a turn, and the step of a repetition
            from `at` to `to`; where a line is broken; on the part that is trimmed away.
        by: degrees anticlockwise of a turn; how far an offset lies to the left, in the shapes' measure.
        count: how many there are of a repetition beside the first.

    Raises:
        SheetError: that cannot be done to these shapes, or it comes to more than can be worked with.
    """
    given = sum(len(shape.points) for shape in shapes)
    made = given * (count + 1 if edit == "array" else 1)
    if given > MAX_GIVEN or made > MAX_MADE:
        raise SheetError(f"This comes to {made:,} points. Do it to fewer shapes, or repeat them less often.")
    makers: Mapping[Edit, Callable[[], list[Shape]]] = {
        "mirror": lambda: [_moved(shape, _mirroring(at, to)) for shape in shapes],
        "turn": lambda: [_moved(shape, _turning(at, by)) for shape in shapes],
        "offset": lambda: [_offset(shape, by) for shape in shapes],
        "join": lambda: [_joined(shapes)],
        "break": lambda: [part for shape in shapes for part in _broken(shape, at)],
        "trim": lambda: _trimmed(shapes, at),
        "extend": lambda: _extended(shapes),
        "array": lambda: [*shapes, *_repeated(shapes, at, to, count)],
    }
    return makers[edit]()


def _places(shape: Shape) -> list[Point]:
    return [anchor.at for anchor in shape.points]


def _at(shape: Shape, places: Sequence[Point]) -> Shape:
    """A shape through other places; those that it had keep their anchors."""
    known = {anchor.at: anchor for anchor in shape.points}
    if len(places) > MAX_POINTS:
        raise SheetError(f"A shape has at most {MAX_POINTS} points. Do this to a simpler one.")
    points = tuple(known.get(place) or Anchor((float(place[0]), float(place[1]))) for place in places)
    return replace(shape, points=points)


def _moved(shape: Shape, move: Callable[[Point], Point]) -> Shape:
    if shape.form == "rectangle":
        # Mirrored or turned aslant it is no rectangle along the axes any more.
        return replace(
            _at(shape, [move(p) for p in outline(shape, _places(shape))]), form="line", closed=True
        )
    return _at(shape, [move(place) for place in _places(shape)])


def _mirroring(at: Point, to: Point) -> Callable[[Point], Point]:
    long = math.dist(at, to)
    if long <= 0:
        raise SheetError("Mirror in a line: choose two points that are apart.")
    x, y = (to[0] - at[0]) / long, (to[1] - at[1]) / long

    def move(p: Point) -> Point:
        along = (p[0] - at[0]) * x + (p[1] - at[1]) * y
        foot = at[0] + along * x, at[1] + along * y
        return 2 * foot[0] - p[0], 2 * foot[1] - p[1]

    return move


def _turning(at: Point, by: float) -> Callable[[Point], Point]:
    cos, sin = math.cos(math.radians(by)), math.sin(math.radians(by))

    def move(p: Point) -> Point:
        x, y = p[0] - at[0], p[1] - at[1]
        return at[0] + x * cos - y * sin, at[1] + x * sin + y * cos

    return move


def _offset(shape: Shape, by: float) -> Shape:
    """A shape beside another: to the left of the way that it runs; of one with an inside, outward."""
    if by == 0:
        raise SheetError("Give how far the other shape is to lie from this one.")
    ring = outline(shape, _places(shape))
    if shape.is_area:
        grown = shapely.Polygon(ring).buffer(by, join_style="mitre")
        if grown.is_empty or grown.geom_type != "Polygon":
            raise SheetError("Nothing of this shape is left so far inside. Give a shorter distance.")
        if shape.form == "circle":
            centre, (x, y) = _places(shape)[0], _places(shape)[1]
            share = 1 + by / math.dist(centre, (x, y))
            far = centre[0] + (x - centre[0]) * share, centre[1] + (y - centre[1]) * share
            return _at(shape, [centre, far])
        places = [(x, y) for x, y in grown.exterior.coords[:-1]]
        return replace(_at(shape, places), form="line", closed=True)
    beside = shapely.offset_curve(shapely.LineString(ring), by, join_style="mitre")
    if beside.is_empty or beside.geom_type != "LineString":
        raise SheetError("So far beside this line there is none in one piece. Give a shorter distance.")
    return replace(_at(shape, [(x, y) for x, y in beside.coords]), form="line")


def _joined(shapes: Sequence[Shape]) -> Shape:
    """One line of several whose ends touch."""
    open_ = [shape for shape in shapes if not shape.is_area]
    if len(open_) < 2:
        raise SheetError("Choose two lines or more whose ends touch.")
    lines = [outline(shape, _places(shape)) for shape in open_]
    grid = max(np.ptp(np.concatenate([np.array(line) for line in lines]), axis=0).max() * TOUCH, 1e-9)
    merged = linemerge([shapely.set_precision(shapely.LineString(line), grid) for line in lines])
    if merged.geom_type != "LineString":
        raise SheetError("The ends of these lines do not all touch. Draw them to each other first.")
    places = [(x, y) for x, y in merged.coords]
    closed = math.dist(places[0], places[-1]) <= grid
    places = places[:-1] if closed else places
    # What was snapped together is told by the points that were there.
    known = [place for line in lines for place in line]
    places = [min(known, key=lambda other: math.dist(other, place)) for place in places]
    return replace(_at(open_[0], places), form="line", closed=closed)


def _line_of(shape: Shape) -> tuple[shapely.LineString, np.ndarray]:
    """A shape's line, round where it has an inside, and how far along it each of its points lies."""
    ring = outline(shape, _places(shape))
    line = shapely.LineString([*ring, ring[0]] if shape.is_area else ring)
    return line, np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(np.array(line.coords), axis=0).T))])


def _between(shape: Shape, start: float, end: float) -> Shape:
    """The part of a shape's line from one length along it to another; of one with an inside, onward past
    where it begins."""
    line, reached = _line_of(shape)
    coords: list[Point] = [(x, y) for x, y in line.coords]
    if shape.is_area and end <= start:
        # Once more round.
        coords, reached = coords + coords[1:], np.append(reached, reached[1:] + line.length)
        end += line.length

    def place(along: float) -> Point:
        nearest = int(np.abs(reached - along).argmin())
        if abs(reached[nearest] - along) < _ALIKE:
            return coords[nearest]
        at = line.interpolate(along % line.length)
        return float(at.x), float(at.y)

    within = [p for p, far in zip(coords, reached, strict=True) if start + _ALIKE < far < end - _ALIKE]
    places = [place(start), *within, place(end)]
    return replace(_at(shape, places), form="line", closed=False, fill="", hatch="")


def _broken(shape: Shape, at: Point) -> Iterator[Shape]:
    """The two parts of a line that is broken at the point of it that is nearest to a place; of one with an
    inside, the line that begins and ends there."""
    line, _ = _line_of(shape)
    along = float(line.project(shapely.Point(at)))
    if shape.is_area:
        yield _between(shape, along, along)
        return
    if not _ALIKE < along < line.length - _ALIKE:
        raise SheetError("This line ends there. Click where it is to be broken.")
    yield _between(shape, 0.0, along)
    yield _between(shape, along, line.length)


def _trimmed(shapes: Sequence[Shape], at: Point) -> list[Shape]:
    """The shape that is nearest to a place without its part there, as far as the others cross it."""
    place = shapely.Point(at)
    lines = [_line_of(shape)[0] for shape in shapes]
    k = min(range(len(shapes)), key=lambda k: lines[k].distance(place))
    shape, line = shapes[k], lines[k]
    others = shapely.union_all([other for j, other in enumerate(lines) if j != k])
    met = shapely.get_coordinates(line.intersection(others))
    crossings = sorted({round(float(line.project(shapely.Point(x, y))), 9) for x, y in met})
    if not shape.is_area:
        crossings = [along for along in crossings if _ALIKE < along < line.length - _ALIKE]
    if not crossings or (shape.is_area and len(crossings) < 2):
        raise SheetError(
            "None of the other shapes crosses this one there. Choose those that it is to end at as well."
        )
    along = float(line.project(place))
    before = max((each for each in crossings if each <= along), default=None)
    after = min((each for each in crossings if each > along), default=None)
    if shape.is_area:
        # Round and round: before the first crossing is after the last.
        first, last = crossings[0], crossings[-1]
        left = [_between(shape, first if after is None else after, last if before is None else before)]
    else:
        left = [_between(shape, 0.0, before)] if before is not None else []
        left += [_between(shape, after, line.length)] if after is not None else []
    return [*shapes[:k], left[0], *shapes[k + 1 :], *left[1:]]


def _extended(shapes: Sequence[Shape]) -> list[Shape]:
    """Two lines that meet: each is cut off or goes on to where they cross."""
    if len(shapes) != 2 or any(shape.form != "line" or shape.closed for shape in shapes):
        raise SheetError("Choose two lines that are to meet.")
    first, second = (_places(shape) for shape in shapes)
    best: tuple[float, Point, int, int] | None = None
    for i in (0, -1):
        for j in (0, -1):
            crossing = _crossing(_end(first, i), _end(second, j))
            if crossing is not None:
                away = math.dist(crossing, first[i]) + math.dist(crossing, second[j])
                if best is None or away < best[0]:
                    best = away, crossing, i, j
    if best is None:
        raise SheetError("These lines are parallel and meet nowhere.")
    _, crossing, i, j = best
    first[i], second[j] = crossing, crossing
    return [_at(shapes[0], first), _at(shapes[1], second)]


def _end(places: Sequence[Point], k: int) -> tuple[Point, Point]:
    """The last stretch of a line at one of its ends."""
    return (places[0], places[1]) if k == 0 else (places[-1], places[-2])


def _crossing(one: tuple[Point, Point], other: tuple[Point, Point]) -> Point | None:
    (ax, ay), (bx, by) = one
    (cx, cy), (dx, dy) = other
    bottom = (bx - ax) * (dy - cy) - (by - ay) * (dx - cx)
    if abs(bottom) <= 1e-9 * math.dist(*one) * math.dist(*other):
        return None
    share = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / bottom
    return ax + share * (bx - ax), ay + share * (by - ay)


def _repeated(shapes: Sequence[Shape], at: Point, to: Point, count: int) -> Iterator[Shape]:
    step = to[0] - at[0], to[1] - at[1]
    if math.hypot(*step) <= 0:
        raise SheetError("Give the step from one to the next: choose two points that are apart.")
    for k in range(1, count + 1):
        for shape in shapes:
            yield _at(shape, [(x + k * step[0], y + k * step[1]) for x, y in _places(shape)])


def symbol_of(shapes: Sequence[Shape], real: bool) -> SymbolSpec:
    """A symbol drawn like some shapes, about the middle of all of them.

    Args:
        real: whether their lengths are those of the building, and not of the paper.

    Raises:
        SheetError: there is nothing in it that can be drawn.
    """
    rings = [outline(shape, _places(shape)) for shape in shapes]
    points = np.concatenate([np.array(ring) for ring in rings])
    middle = (points.min(axis=0) + points.max(axis=0)) / 2
    lines = [
        SymbolLine(
            tuple((round(x - middle[0], 3), round(y - middle[1], 3)) for x, y in ring),
            shape.is_area,
            shape.width,
            shape.colour,
            shape.fill if shape.is_area else "",
        )
        for shape, ring in zip(shapes, rings, strict=True)
    ]
    return SymbolSpec(tuple(lines), real=real)
