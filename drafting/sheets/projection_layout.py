"""Laying out several views as a projected set: at one scale, aligned on the axes that they share, evenly
spaced."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal, get_args

import numpy as np

from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.sheets.paper import Paper
from drafting.sheets.placing import MARGIN, Extents, space_for
from drafting.sheets.scale import LADDER, Scale
from drafting.sheets.template import CLEAR, TITLE_ROOM, Blank
from drafting.sheets.viewport import Viewport

#: ISO 5456-2: in third-angle projection what is seen from the right stands on the right, in first-angle on
#: the left.
Projection = Literal["third-angle", "first-angle"]
PROJECTIONS: tuple[Projection, ...] = get_args(Projection)

Axis = tuple[float, float, float]
Cell = tuple[int, int]
#: The rear and further plans leave their places where the set is so many times as large then.
FOLD_FOR = 2
#: Directions whose cosine is nearer to one than this are the same.
_SAME = 1e-6


@dataclass(frozen=True)
class DrawnView:
    """A view that is to be laid out: its name, the extents of its drawing (real mm), and the axes that it
    measures along."""

    id: str
    name: str
    extents: Extents
    right: Axis
    up: Axis
    origin: Axis
    to_scale: bool = True

    @property
    def toward(self) -> Axis:
        """The way to the viewer."""
        x, y, z = np.cross(self.right, self.up).tolist()
        return x, y, z

    @property
    def size(self) -> tuple[float, float]:
        u0, v0, u1, v1 = self.extents
        return u1 - u0, v1 - v0


@dataclass(frozen=True)
class Arranged:
    """Viewports for views, in their order, and sentences about those that the projection has no place for."""

    viewports: tuple[Viewport, ...]
    notes: tuple[str, ...]


def arrange(
    views: Sequence[DrawnView],
    blank: Blank,
    projection: str = PROJECTIONS[0],
    taken: Iterable[Box] = (),
    ladder: tuple[Scale, ...] = LADDER,
) -> Arranged:
    """Viewports for views, in their order, in the largest empty space of a sheet.

    The front is the upright view whose horizontal axis runs as that of the first plan does: for a plan with
    north up the south side, whichever order the views were chosen in; else the first that stands upright.
    What is seen from above and from the sides stands round it as the projection has it, further plans one
    behind the other; everything else fills the corners.
    All share the largest scale of the ladder that fits, but for perspectives, which have none and are drawn
    as large as the front.

    Raises:
        SheetError: there is nothing to lay out, no such projection, or no scale at which all of it fits.
    """
    if not views:
        raise SheetError("Choose the views to lay out.")
    if projection not in PROJECTIONS:
        raise SheetError(f"“{projection}” is no projection. It is {' or '.join(PROJECTIONS)}.")
    factors = [1.0 if v.to_scale else views[0].size[0] / max(v.size[0], 1e-9) for v in views]
    space = space_for(blank, taken)
    way = 1 if projection == "third-angle" else -1
    scale, cells, across, upward = _largest(views, way, factors, space, ladder, blank.paper)
    ratio = float(scale.ratio)
    lefts = _spread(across, ratio, space.x, space.width, 2 * MARGIN, CLEAR)
    bottoms = _spread(upward, ratio, space.y, space.height, 2 * MARGIN, TITLE_ROOM)
    placed = []
    for view, (column, row), factor in zip(views, cells, factors, strict=True):
        own = ratio * factor
        width, height = (side * own + 2 * MARGIN for side in view.size)
        x = lefts[column] + across[column].begin(view, factor) * ratio
        y = bottoms[row] + upward[row].begin(view, factor) * ratio
        u0, v0, u1, v1 = view.extents
        given = scale if view.to_scale else Scale(Fraction(own).limit_denominator(10_000_000))
        placed.append(
            Viewport(
                "",
                "",
                Box(x, y, width, height),
                given,
                ((u0 + u1) / 2, (v0 + v1) / 2),
                to_scale=view.to_scale,
            )
        )
    return Arranged(tuple(placed), (*_notes(views), *_folded_notes(views, cells, way)))


_Tracks = dict[int, "_Track"]


def _largest(
    views: Sequence[DrawnView],
    way: int,
    factors: list[float],
    space: Box,
    ladder: tuple[Scale, ...],
    paper: Paper,
) -> tuple[Scale, list[Cell], _Tracks, _Tracks]:
    """The scale, the cells and their columns and rows: those of the projection, or where the rear and further
    plans would make all of it much smaller, with these in the corners.

    Raises:
        SheetError: neither fits.
    """
    found: tuple[Scale, list[Cell], _Tracks, _Tracks] | None = None
    refused: SheetError | None = None
    for folded in (False, True):
        cells = _cells(views, way, folded)
        across, upward = (_tracks(views, cells, factors, axis) for axis in (0, 1))
        try:
            scale = _common_scale(across, upward, space, ladder, paper)
        except SheetError as error:
            refused = refused or error
            continue
        if found is None or scale.ratio >= FOLD_FOR * found[0].ratio:
            found = scale, cells, across, upward
    if found is None:
        raise refused or SheetError("These views do not fit.")
    return found


def _folded_notes(views: Sequence[DrawnView], cells: list[Cell], way: int) -> Iterator[str]:
    """What is told of views that do not stand where the projection has them."""
    if cells == _cells(views, way):
        return
    usual = _cells(views, way)
    moved = [
        f"“{v.name}”"
        for v, now, then in zip(views, cells, usual, strict=True)
        if now != then and (_from_above(v) or _upright(v))
    ]
    stand = "stands" if len(moved) == 1 else "stand"
    yield f"{' and '.join(moved)} {stand} in a corner, where the set can be larger."


def _notes(views: Sequence[DrawnView]) -> Iterator[str]:
    """What is told of upright views: two of one side, and one that is seen aslant to the front."""
    front = _front(views)
    if front is None:
        return
    for number, view in enumerate(views):
        if not _upright(view):
            continue
        angle = _angle(front, view) / 90.0
        if abs(angle - round(angle)) > _SAME * 90.0:
            yield f"“{view.name}” is seen aslant to “{front.name}” and stands in a corner."
            continue
        alike = (v for v in views[:number] if _upright(v) and np.dot(v.toward, view.toward) > 1 - _SAME)
        before = next(alike, None)
        if before is not None:
            yield f"“{view.name}” is seen from the same side as “{before.name}” and stands in a corner."


def _cells(views: Sequence[DrawnView], way: int, folded: bool = False) -> list[Cell]:
    """The column and row of each view about the front's 0, 0.

    Args:
        way: 1 for third-angle, -1 for first-angle.
        folded: whether the rear and further plans fill corners, and lengthen no row or column.
    """
    front = _front(views)
    found: dict[int, Cell] = {}
    taken: set[Cell] = set()

    def occupy(number: int, cell: Cell, step: Cell | None = None) -> None:
        while cell in taken and step:
            cell = cell[0] + step[0], cell[1] + step[1]
        if cell not in taken:
            found[number] = cell
            taken.add(cell)

    for number, view in enumerate(views):
        if view is front:
            occupy(number, (0, 0))
        elif _from_above(view):
            # With nothing upright among them plans stand side by side.
            if not (folded and front and (0, way) in taken):
                occupy(number, (0, way) if front else (0, 0), (0, way) if front else (1, 0))
        elif front is not None and _upright(view):
            angle = round(_angle(front, view), 3)
            cell = {0.0: (0, -way), 90.0: (way, 0), -90.0: (-way, 0), 180.0: (2, 0), -180.0: (2, 0)}.get(
                angle
            )
            if cell and not (folded and cell == (2, 0)):
                occupy(number, cell)
    for number in range(len(views)):
        if number not in found:
            occupy(number, _corner(taken), (1, 0))
    return [found[number] for number in range(len(views))]


def _front(views: Sequence[DrawnView]) -> DrawnView | None:
    """The view that the others stand round: below a plan only one that runs as it does is not mirrored."""
    upright = [view for view in views if _upright(view)]
    plan = next((view for view in views if _from_above(view)), None)
    along = [view for view in upright if plan and np.dot(view.right, plan.right) > 1 - _SAME]
    return next(iter([*along, *upright]), None)


def _corner(taken: set[Cell]) -> Cell:
    """An empty cell among those that are taken, the upper right ones first; else one beside them."""
    if not taken:
        return 0, 0
    columns, rows = zip(*taken, strict=True)
    every = [
        (c, r) for r in range(max(rows), min(rows) - 1, -1) for c in range(max(columns), min(columns) - 1, -1)
    ]
    return next((cell for cell in every if cell not in taken), (max(columns) + 1, max(rows)))


def _upright(view: DrawnView) -> bool:
    return view.to_scale and view.up[2] > 1 - _SAME


def _from_above(view: DrawnView) -> bool:
    return view.to_scale and view.toward[2] > 1 - _SAME


def _angle(front: DrawnView, view: DrawnView) -> float:
    """By how much one walks round from the front to the view, degrees; to the right is more."""
    (ax, ay, _), (bx, by, _) = front.toward, view.toward
    return math.degrees(math.atan2(ax * by - ay * bx, ax * bx + ay * by))


@dataclass(frozen=True)
class _Track:
    """A column or row: how long it is in real mm, and where in it each view begins."""

    length: float
    begin: Callable[[DrawnView, float], float]


def _tracks(
    views: Sequence[DrawnView], cells: list[Cell], factors: list[float], way: int
) -> dict[int, _Track]:
    """The columns (way 0) or rows (way 1). Views that share the axis lie in them by it, others in the
    middle."""
    return {
        number: _track(
            [(v, f) for v, cell, f in zip(views, cells, factors, strict=True) if cell[way] == number], way
        )
        for number in sorted({cell[way] for cell in cells})
    }


def _track(members: list[tuple[DrawnView, float]], way: int) -> _Track:
    # The axis that most of them have.
    axes = [_axis(view, way) for view, _ in members if view.to_scale] or [_axis(members[0][0], way)]
    axis = max(axes, key=lambda own: sum(np.dot(own, other) > 1 - _SAME for other in axes))
    sharing = [v for v, _ in members if v.to_scale and np.dot(_axis(v, way), axis) > 1 - _SAME]
    ranges = [(_zero(v, way) + v.extents[way], _zero(v, way) + v.extents[way + 2]) for v in sharing]
    low, high = min((a for a, _ in ranges), default=0.0), max((b for _, b in ranges), default=0.0)
    length = max(high - low, *(v.size[way] * f for v, f in members))
    rest = (length - (high - low)) / 2
    shared = {v.id for v in sharing}

    def begin(view: DrawnView, factor: float) -> float:
        if view.id in shared:
            return rest + _zero(view, way) + view.extents[way] - low
        return (length - view.size[way] * factor) / 2

    return _Track(length, begin)


def _axis(view: DrawnView, way: int) -> Axis:
    return view.up if way else view.right


def _zero(view: DrawnView, way: int) -> float:
    """Where u or v is zero, measured along its axis from the model's origin; real mm."""
    return float(np.dot(view.origin, _axis(view, way)))


def _common_scale(
    across: dict[int, _Track], upward: dict[int, _Track], space: Box, ladder: tuple[Scale, ...], paper: Paper
) -> Scale:
    wide, high = (sum(t.length for t in tracks.values()) for tracks in (across, upward))
    # Each drawing has its margin, and between two of them there is room; below all but the lowest, for
    # titles.
    room_wide = space.width - len(across) * 2 * MARGIN - (len(across) - 1) * CLEAR
    room_high = space.height - len(upward) * 2 * MARGIN - (len(upward) - 1) * TITLE_ROOM
    for scale in ladder:
        if wide * float(scale.ratio) <= room_wide and high * float(scale.ratio) <= room_high:
            return scale
    raise SheetError(
        f"These views do not fit the free part of this {paper.name} sheet at {ladder[-1]} or larger. "
        "Choose fewer views or a larger paper."
    )


def _spread(
    tracks: dict[int, _Track], ratio: float, low: float, room: float, margin: float, gap: float
) -> dict[int, float]:
    """Where each column or row begins on paper: what room is left over is shared out evenly between and
    beside them."""
    sizes = {number: track.length * ratio + margin for number, track in tracks.items()}
    spare = (room - sum(sizes.values()) - gap * (len(sizes) - 1)) / (len(sizes) + 1)
    begins: dict[int, float] = {}
    at = low + spare
    for number, size in sizes.items():
        begins[number] = at
        at += size + gap + spare
    return begins
