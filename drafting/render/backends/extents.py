"""Extents: what is drawn covers, without the half width of its lines."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Sequence
from contextlib import contextmanager

from drafting.geometry.boxes import Box
from drafting.geometry.polylines import Floats, Polylines
from drafting.linework.model import Linework
from drafting.render.backend import Backend, Sources
from drafting.render.items import Drawing, Image, Item, Text
from drafting.render.page import Page
from drafting.styles.lettering import text_width
from drafting.styles.pens import Pen

#: More points than this are compared as an array.
FEW = 24


def bounds_of(*items: Item) -> Box:
    """What items cover on their sheet, one at least; a drawing, its window."""
    extents = Extents()
    for item in items:
        item.draw(extents)
    return extents.box


def _no_linework(key: str) -> Linework:
    raise KeyError(key)


class Extents(Backend):
    """Keeps the least and the greatest corner of all that is drawn."""

    def __init__(self) -> None:
        super().__init__(Sources(_no_linework))
        self._left, self._foot, self._right, self._top = math.inf, math.inf, -math.inf, -math.inf

    @property
    def box(self) -> Box:
        """What was drawn until now covers; there has to be something."""
        return Box(self._left, self._foot, self._right - self._left, self._top - self._foot)

    def _add(self, points: Floats) -> None:
        # Most of what is drawn has a few points, of which a list is looked through sooner than an array.
        if len(points) > FEW:
            self._add_corners([points.min(axis=0).tolist(), points.max(axis=0).tolist()])
        else:
            self._add_corners(points.tolist())

    def _add_corners(self, corners: Iterable[Sequence[float]]) -> None:
        xs, ys = zip(*corners, strict=True)
        self._left, self._right = min(self._left, *xs), max(self._right, *xs)
        self._foot, self._top = min(self._foot, *ys), max(self._top, *ys)

    @contextmanager
    def on_sheet(self, page: Page) -> Iterator[None]:
        yield

    def layer(self, name: str) -> None:
        """Layers cover nothing."""

    def stroke(self, lines: Polylines, pen: Pen, closed: bool = False) -> None:
        self._add(lines.points)

    def lines(self, lines: Polylines, pen: Pen, closed: bool = False) -> None:
        self._add(lines.points)

    def fill(self, rings: Polylines, colour: str, opacity: float = 1.0) -> None:
        self._add(rings.points)

    def text(self, item: Text) -> None:
        width = text_width(item.text, item.size, item.bold)
        left = -{"start": 0.0, "middle": width / 2, "end": width}[item.anchor]
        right = left + width
        (x, y), turn = item.at, math.radians(item.turn)
        cos, sin = math.cos(turn), math.sin(turn)
        corners = ((left, 0.0), (right, 0.0), (right, item.size), (left, item.size))
        self._add_corners((x + u * cos - v * sin, y + u * sin + v * cos) for u, v in corners)

    def image(self, item: Image) -> None:
        self._add_corners((item.window or item.box).corners)

    @contextmanager
    def clip(self, outline: Sequence[tuple[float, float]]) -> Iterator[None]:
        yield

    def drawing(self, item: Drawing) -> None:
        self._add_corners(item.clip)
