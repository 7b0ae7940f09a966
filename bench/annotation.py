"""`dunefold bench annotation`: how long it takes to dimension and tag a large plan by itself, and to compose
a sheet that is full of annotation."""

from __future__ import annotations

import sys
from collections.abc import Iterator

import numpy as np

from bench.timing import median
from drafting.annotation.anchors import Anchor
from drafting.annotation.corners import Corners
from drafting.annotation.dimensions import Dimension
from drafting.annotation.notes import Note
from drafting.annotation.outer_chains import SIDES, outer_chains
from drafting.annotation.pieces import PlacedPiece, attached
from drafting.annotation.tags import Tag, tags_for
from drafting.geometry.boxes import Box
from drafting.linework.model import Linework
from drafting.render.compose import compose
from drafting.sheets.paper import Paper
from drafting.sheets.scale import Scale
from drafting.sheets.sheet import Sheet
from drafting.sheets.viewport import Viewport
from drafting.tests.scenes import Mesh, box, drawn

OPENINGS, DIMENSIONS, NOTES = 200, 500, 200
#: What is asked for, seconds.
WANTED = {"dimension": 2.0, "compose": 0.5}
_WALL, _PIER, _OPENING = 300, 1500, 1000


def house() -> Iterator[Mesh]:
    """A house whose two long walls have 100 openings each: a wall between each two."""
    step = _PIER + _OPENING
    long = OPENINGS // 2 * step + _PIER
    for v in (0, 20_000):
        for k in range(OPENINGS // 2 + 1):
            yield box((k * step, v, 0), (k * step + _PIER, v + _WALL, 2600))
    for u in (0, long - _WALL):
        yield box((u, _WALL, 0), (u + _WALL, 20_000, 2600))


def full_sheet(linework: Linework) -> tuple[Sheet, list[PlacedPiece]]:
    """A sheet with eight viewports, and what is annotated in them: attached to corners of the building."""
    corners = Corners(linework)
    scale, middle = Scale.parse("1:1500"), (125_000.0, 10_000.0)
    boxes = [Box(20 + 195 * (k % 4), 100 + 220 * (k // 4), 185, 200) for k in range(8)]
    viewports = [Viewport(str(k), "key", each, scale, middle, str(k), "Plan") for k, each in enumerate(boxes)]
    elements = [element for element in linework.elements if corners.of(element)]
    pieces = []
    for k in range(DIMENSIONS + NOTES):
        element = elements[k % len(elements)]
        known = corners.of(element)
        assert known is not None
        ends = [Anchor(place, element) for place in known.places[:2]]
        piece = (
            Dimension(tuple(ends))
            if k < DIMENSIONS
            else Note(ends[0], f"Note {k}", (5.0, 5.0), leader="arrow")
        )
        told = attached(piece, corners.of)
        pieces.append(PlacedPiece(str(k), told, told.locate(corners.of), viewports[k % 8]))
    return Sheet(Paper.of("A1"), viewports=tuple(viewports)), pieces


def main() -> int:
    linework = drawn(list(house()), "plan:0")
    ids = {f"e{k}": ("D1",) for k in range(OPENINGS)}
    viewport = Viewport(
        "v", "k", Box(0, 0, 3000, 600), Scale.parse("1:100"), (125_000.0, 10_000.0), "1", "Plan"
    )
    points = np.concatenate([line.points[:, :2] for line in linework.lines])
    on_paper = np.array([viewport.to_paper(u, v) for u, v in points.tolist()])
    like = Tag(Anchor((0.0, 0.0)))
    sheet, pieces = full_sheet(linework)
    corners = Corners(linework)

    def dimension() -> None:
        outer_chains(linework, Corners(linework), SIDES, 0.01)

    def tag() -> None:
        list(tags_for(ids, corners.of, viewport, [], on_paper, like))

    def composed() -> None:
        compose(sheet, pieces=pieces)

    figures = {
        f"dimension {OPENINGS} openings, all sides": (median(dimension), WANTED["dimension"]),
        f"tag {len(ids)} of them": (median(tag), WANTED["dimension"]),
        f"compose {DIMENSIONS} dimensions, {NOTES} notes": (median(composed), WANTED["compose"]),
    }
    for name, (seconds, wanted) in figures.items():
        print(f"{name:44s} {seconds * 1000:7.0f} ms   (at most {wanted * 1000:.0f} is asked for)")
    return 0


if __name__ == "__main__":
    sys.exit(main())
