"""Levels by itself: the heights that are read off an elevation or a section, in columns beside the building.
What is too near to the level below it stands in a second column; what has no room there either is left out:
it could not be told from its neighbours at this scale."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from types import MappingProxyType
from typing import Literal, get_args

import numpy as np
import shapely

from drafting.annotation.anchors import ON, SAME, Anchor, ElementCorners, described
from drafting.annotation.corners import Corners
from drafting.annotation.spot_levels import SpotLevel
from drafting.building.model import GROUND_CLASSES
from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.linework.model import Linework
from drafting.sheets.level_marks import LEVEL_LINE, LEVEL_SIZE, LEVEL_TEXT, level_text
from drafting.sheets.viewport import Viewport
from drafting.styles.lettering import text_width

#: What has levels: sills and heads of windows and doors; tops of floors, tops and eaves of roofs; the
#: building's highest and lowest points.
Levelled = Literal["openings", "slabs", "whole"]
LEVELLED: tuple[Levelled, ...] = get_args(Levelled)
Beside = Literal["left", "right"]
BESIDE: tuple[Beside, ...] = get_args(Beside)
#: ISO 16739-1.
OPENINGS = ("IfcWindow", "IfcDoor")
SLABS = ("IfcSlab", "IfcRoof")
#: What is higher than this as it is drawn is a roof that rises, whose foot is its eaves; mm.
RISES_OVER = 800.0
#: Between the building and the first column; between columns; paper mm.
FIRST, BETWEEN = 4.0, 4.0
#: How long the line of a level is toward the building, paper mm.
LINE = 4.0
#: How far further outward columns are tried each time, paper mm, and how often.
STEP, STEPS = 2.0, 40
COLUMNS = 2
#: Frames lie behind the edges of their openings by less, mm.
REBATE = 100.0


@dataclass(frozen=True)
class _Found:
    """A height, the corner that has it, and how near that is to where its element truly ends."""

    v: float
    at: Anchor
    within: float = ON


def own_levels(
    linework: Linework,
    corners: Corners,
    wanted: Iterable[Levelled],
    side: Beside,
    viewport: Viewport,
    taken: Sequence[Box] = (),
    heights: Mapping[str, tuple[float, float]] = MappingProxyType({}),
    *,
    zero: float = 0.0,
    known: Sequence[float] = (),
    feet: bool = False,
) -> list[SpotLevel]:
    """Spot levels of what is seen in an upright drawing, the lowest first. Each has a series, by which a
    later run finds it again: its side, and its place from below.

    Args:
        viewport: in which they are to stand.
        taken: what they keep clear of where that can be, paper mm.
        heights: of the lowest and the highest point of elements above the building's zero, mm: where a corner
            is seen at neither, something hides what would be told.
        zero: the height of v = 0 above the building's zero, mm.
        known: heights, v, that are told there already, such as the storeys'.
        feet: whether they are lettered in feet and inches.

    Raises:
        SheetError: nothing that is wanted has a height of its own here.
    """
    kinds, ratio = set(wanted), float(viewport.scale.ratio)
    # The first are told before the others where there is no room for all.
    found = [
        *(_of_whole(linework, corners) if "whole" in kinds else ()),
        *(_of_slabs(linework, corners, side) if "slabs" in kinds else ()),
        *(_most_first(_of_openings(linework, corners, side)) if "openings" in kinds else ()),
    ]
    kept: list[_Found] = []
    for each in found:
        ends = heights.get(each.at.element)
        if ends is not None and min(abs(each.v + zero - end) for end in ends) > each.within:
            continue
        told = [*known, *(other.v for other in kept)]
        if all(abs(each.v - v) >= SAME for v in told) and _have_room([*kept, each], ratio):
            kept.append(each)
    if not kept:
        raise SheetError(
            "Nothing of this is seen here at a height that is not told already. Choose other kinds, or set "
            "levels by hand, along the points."
        )
    kept.sort(key=lambda each: each.v)
    widths = [LEVEL_SIZE + text_width(level_text(each.v + zero, feet), LEVEL_TEXT) for each in kept]
    west, _, east, _ = linework.own_extents or (0.0, 0.0, 0.0, 0.0)
    edge = (east if side == "right" else west) * ratio
    tips = [edge + tip for tip in _tips([each.v * ratio for each in kept], widths, side)]
    away = _clear_of(viewport, kept, tips, widths, taken, side)
    return [
        SpotLevel(
            each.at,
            round(tip + away - each.at.at[0] * ratio, 2),
            feet,
            extension=LINE,
            series=f"{side} {k + 1}",
        )
        for k, (each, tip) in enumerate(zip(kept, tips, strict=True))
    ]


def _clear_of(
    viewport: Viewport,
    levels: Sequence[_Found],
    tips: Sequence[float],
    widths: Sequence[float],
    taken: Sequence[Box],
    side: Beside,
) -> float:
    """How far all columns are moved outward to be clear of what is there, paper mm: as little as can be;
    where they are clear nowhere, to where they are over the least."""
    ratio, outward = float(viewport.scale.ratio), 1 if side == "right" else -1
    tree = shapely.STRtree([shapely.box(box.x, box.y, box.right, box.top) for box in taken])

    def over(away: float) -> int:
        boxes = []
        for level, tip, width in zip(levels, tips, widths, strict=True):
            left, right = tip + away - LEVEL_SIZE / 2 - LINE, tip + away + width + LINE
            corners = [(x / ratio, level.v + up / ratio) for x in (left, right) for up in (0.0, LEVEL_LINE)]
            boxes.append(shapely.MultiPoint([viewport.to_paper(u, v) for u, v in corners]).envelope)
        return len(tree.query(boxes, predicate="intersects")[0])

    return min((outward * STEP * k for k in range(STEPS)), key=lambda away: (over(away), abs(away)))


def _tips(heights: Sequence[float], widths: Sequence[float], side: Beside) -> Iterator[float]:
    """How far from the building the tip of each level lies, paper mm: in the first column whose
    last level is far enough below it."""
    wide = max(widths) + LINE + BETWEEN
    last: list[float] = []
    for height, width in zip(heights, widths, strict=True):
        column = next((k for k, below in enumerate(last) if height - below >= LEVEL_LINE), len(last))
        last[column : column + 1] = [height]
        away = FIRST + column * wide
        # Words stand to the right of the tip.
        yield away + LINE if side == "right" else -away - LINE - width


def _most_first(found: Iterable[_Found]) -> list[_Found]:
    """Heights that many have before those that few have."""
    every = list(found)
    count = Counter(round(each.v / SAME) for each in every)
    return sorted(every, key=lambda each: -count[round(each.v / SAME)])


def _have_room(levels: Iterable[_Found], ratio: float) -> bool:
    """Whether levels stand clear of each other in their columns."""
    heights = sorted(each.v * ratio for each in levels)
    return all(b - a >= LEVEL_LINE for a, b in zip(heights, heights[COLUMNS:], strict=False))


def _of_openings(linework: Linework, corners: Corners, side: Beside) -> Iterator[_Found]:
    """The lowest and the highest level edge of each window and door."""
    for element, among in _of_classes(linework, corners, OPENINGS):
        level = {
            k for a, b in among.lines if abs(among.places[a][1] - among.places[b][1]) < SAME for k in (a, b)
        }
        if level:
            for end in _ends(element, among, level, side):
                yield replace(end, within=REBATE)


def _of_slabs(linework: Linework, corners: Corners, side: Beside) -> Iterator[_Found]:
    """The top of each floor, the top and the eaves of each roof that rises."""
    for element, among in _of_classes(linework, corners, SLABS):
        low, high = _ends(element, among, among.outer, side)
        yield high
        if high.v - low.v > RISES_OVER:
            yield low


def _of_whole(linework: Linework, corners: Corners) -> Iterator[_Found]:
    """The highest and the lowest point of the building, without its ground."""
    packed = linework.packed
    ground = [k for k, name in enumerate(linework.classes) if name in GROUND_CLASSES]
    of_point = np.repeat(packed.element, np.diff(packed.lines.starts))
    own = np.flatnonzero(~np.isin(of_point, ground) & (of_point >= 0))
    if len(own):
        heights = packed.lines.points[own, 1]
        for point in (own[heights.argmin()], own[heights.argmax()]):
            element = linework.elements[of_point[point]]
            among = corners.of(element)
            u, v = packed.lines.points[point, :2].tolist()
            if among is not None:
                yield _Found(v, described((u, v), element, among))


def _of_classes(
    linework: Linework, corners: Corners, classes: Sequence[str]
) -> Iterator[tuple[str, ElementCorners]]:
    for element, name in zip(linework.elements, linework.classes, strict=False):
        among = corners.of(element) if name in classes else None
        if among is not None and among.places:
            yield element, among


def _ends(element: str, among: ElementCorners, of: Iterable[int], side: Beside) -> tuple[_Found, _Found]:
    """The lowest and the highest of some corners of an element, each the nearest to a side."""
    outward = 1 if side == "right" else -1
    rank = {k: (round(among.places[k][1] / SAME), outward * among.places[k][0]) for k in of}
    low = min(rank, key=lambda k: (rank[k][0], -rank[k][1]))
    high = max(rank, key=lambda k: rank[k])

    def found(k: int) -> _Found:
        return _Found(among.places[k][1], Anchor(among.places[k], element, (among.corners[k],)))

    return found(low), found(high)
