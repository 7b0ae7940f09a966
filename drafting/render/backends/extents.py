"""Extents: what is drawn covers, without the half width of its lines."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from contextlib import contextmanager

import numpy as np

from drafting.geometry.boxes import Box
from drafting.geometry.polylines import Floats, Polylines
from drafting.linework.model import Linework
from drafting.render.backend import Backend, Sources
from drafting.render.items import Drawing, Image, Item, Text
from drafting.render.page import Page
from drafting.styles.lettering import text_width
from drafting.styles.pens import Pen


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
        self._low, self._high = np.full(2, np.inf), np.full(2, -np.inf)

    @property
    def box(self) -> Box:
        """What was drawn until now covers; there has to be something."""
        (x, y), (right, top) = self._low.tolist(), self._high.tolist()
        return Box(x, y, right - x, top - y)

    def _add(self, points: Floats) -> None:
        self._low, self._high = (
            np.minimum(self._low, points.min(axis=0)),
            np.maximum(self._high, points.max(axis=0)),
        )

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
        turn = np.radians(item.turn)
        matrix = np.array([[np.cos(turn), np.sin(turn)], [-np.sin(turn), np.cos(turn)]])
        corners = np.array([(left, 0.0), (right, 0.0), (right, item.size), (left, item.size)])
        self._add(np.array(item.at) + corners @ matrix)

    def image(self, item: Image) -> None:
        self._add(np.array((item.window or item.box).corners))

    @contextmanager
    def clip(self, outline: Sequence[tuple[float, float]]) -> Iterator[None]:
        yield

    def drawing(self, item: Drawing) -> None:
        self._add(np.array(item.clip))
