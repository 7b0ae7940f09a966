"""The one interface that every output implements, and the sources that it draws from."""

from __future__ import annotations

import math
from abc import ABC, abstractmethod
from collections.abc import Callable, Iterator, Sequence
from contextlib import AbstractContextManager
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

import numpy as np
from shapely import LineString, Point

from drafting.geometry.clipping import areas_within, crossing, lines_within, widened
from drafting.geometry.polylines import Floats, Polylines
from drafting.linework.model import Linework
from drafting.render.items import Dimensioned, Drawing, Hatched, Image, Inserted, Shaded, Text, Worded
from drafting.render.placed import PlacedDrawing
from drafting.styles.hatches import hatch_lines
from drafting.styles.patterns import dashes_between, fitted_to, stretch, stretches
from drafting.styles.pen_table import CutStyle
from drafting.styles.pens import PAPER, Pen

if TYPE_CHECKING:
    from drafting.render.page import Page

#: How far areas are filled beyond the window that they are seen through, paper mm.
_BLEED = 0.1
OUTLINES, CUT_AREAS, HATCHES = "Viewport outlines", "Cut areas", "Hatches"


def _nothing(key: str) -> bytes:
    raise KeyError(key)


@dataclass(frozen=True)
class Sources:
    """What display lists name by keys: linework, and the files of pictures (PNG or JPEG)."""

    linework: Callable[[str], Linework]
    pictures: Callable[[str], bytes] = _nothing
    has_picture: Callable[[str], bool] = lambda key: True


class Backend(ABC):
    """An output. Places and lengths are millimetres of the paper from its lower left corner, y upward.

    An output implements the few primitives that have no body here. What is made of them (patterns that meet
    at corners, hatches, whole drawings) stands here once, and an output that has such a thing of its own
    overrides it.
    """

    def __init__(self, sources: Sources) -> None:
        self.sources = sources

    @abstractmethod
    def on_sheet(self, page: Page) -> AbstractContextManager[None]:
        """Within, millimetres are those of the page's sheet, and nothing is drawn beyond the page's
        window."""

    @abstractmethod
    def layer(self, name: str) -> None:
        """What follows stands on this layer; blank for none."""

    @abstractmethod
    def stroke(self, lines: Polylines, pen: Pen, closed: bool = False) -> None:
        """Draw polylines with a pen, whose dashes begin anew with each."""

    @abstractmethod
    def fill(self, rings: Polylines, colour: str, opacity: float = 1.0) -> None:
        """Fill an area, even-odd."""

    @abstractmethod
    def text(self, item: Text) -> None:
        """Letter a line."""

    @abstractmethod
    def image(self, item: Image) -> None:
        """Lay a picture of pixels down."""

    @abstractmethod
    def clip(self, outline: Sequence[tuple[float, float]]) -> AbstractContextManager[None]:
        """Within, nothing is drawn outside a polygon."""

    def lines(self, lines: Polylines, pen: Pen, closed: bool = False) -> None:
        """Draw polylines; a pattern is fitted to each stretch between corners, so that it starts and ends on
        a dash."""
        if not pen.pattern:
            self.stroke(lines, pen, closed)
            return
        for line in lines:
            for points, fitted in _fitted(line, pen, closed):
                pattern = tuple(p / pen.width for p in fitted)
                self.stroke(Polylines.of([points]), replace(pen, pattern=pattern))

    def _lines_through(self, lines: Polylines, pen: Pen, window: Sequence[tuple[float, float]]) -> None:
        """Draw lines that are seen through a window, and nothing of them that lies beyond it: what is cropped
        is in no file. It is drawn a little further than it is seen, so that its ends are cut along the
        window."""
        cut = crossing(lines, window)
        self.lines(lines.select(~cut), pen)
        if not cut.any():
            return
        wide = widened(window, pen.width)
        if not pen.pattern:
            self.lines(lines_within(lines.select(cut), wide), pen)
            return
        for line in lines.select(cut):
            for points, pattern in _fitted(line, pen):
                self._dashed_through(points, pattern, pen, wide)

    def _dashed_through(self, points: Floats, pattern: tuple[float, ...], pen: Pen, window: Floats) -> None:
        """Draw what of one stretch lies in a window, its dashes where the whole of it has them."""
        if not pattern:
            self.stroke(lines_within(Polylines.of([points]), window), replace(pen, pattern=()))
            return
        plain = tuple(length / pen.width for length in pattern)
        whole, period = LineString(points), sum(pattern)
        for part in lines_within(Polylines.of([points]), window):
            begin, end = sorted(whole.project(Point(place)) for place in (part[0], part[-1]))
            # From the next dash on it is a line with its pattern; before that, it is drawn dash by dash.
            next_ = min(math.ceil(begin / period) * period, end)
            for dash in dashes_between(points, pattern, begin, next_):
                # Of one dash, longer than it is: so its ends are those of dashes.
                self.stroke(Polylines.of([dash]), replace(pen, pattern=(2 * plain[0], plain[1])))
            if next_ < end:
                self.stroke(Polylines.of([stretch(points, next_, end)]), replace(pen, pattern=plain))

    def dimension(self, item: Dimensioned) -> None:
        """Draw a dimension."""
        for part in item.parts:
            part.draw(self)

    def hatched(self, item: Hatched) -> None:
        """Draw a hatched area of annotation."""
        for part in item.parts:
            part.draw(self)

    def symbol(self, item: Inserted) -> None:
        """Draw a symbol of a library."""
        for part in item.parts:
            part.draw(self)

    def note(self, item: Worded) -> None:
        """Draw a note."""
        for part in item.parts:
            part.draw(self)

    def picture(self, item: Image) -> None:
        """Lay down what is seen of a picture of pixels."""
        if item.window is None:
            self.image(item)
            return
        with self.clip(item.window.corners):
            self.image(item)

    def shaded(self, item: Shaded) -> None:
        """Lay the picture of a building down within its viewport. A sheet that is looked at before its
        picture was made has none yet."""
        if not self.sources.has_picture(item.picture):
            return
        self.layer(item.layer)
        with self.clip(item.clip):
            self.image(Image(item.picture, item.box, item.layer, item.grey, viewport=item.viewport))

    def hatch(self, areas: Sequence[Sequence[Floats]], style: CutStyle, drawing: PlacedDrawing) -> None:
        """Hatch areas of a drawing, all at once: lines run on from one to the next."""
        for family in style.lines:
            ends = hatch_lines(family, style.spacing, style.angle, areas, drawing.place)
            ends = ends[((ends.max(axis=1) >= drawing.low) & (ends.min(axis=1) <= drawing.high)).all(axis=1)]
            if len(ends):
                self.stroke(Polylines.segments(ends), style.pen)

    def drawing(self, item: Drawing) -> None:
        """Draw linework through its window: areas, hatches, then lines, the widest last."""
        placed = PlacedDrawing(item, self.sources.linework(item.linework))
        with self.clip(item.clip):
            if item.opaque:
                self.fill(Polylines.of([item.clip]), PAPER)
            hatched: dict[CutStyle, list[Sequence[Floats]]] = {}
            self.layer(CUT_AREAS)
            for style, rings in placed.cut_areas():
                for part in _seen(rings, item.clip):
                    if style.fill:
                        self.fill(Polylines.of(part), style.fill, style.opacity / 100)
                    if style.hatch:
                        hatched.setdefault(style, []).append(part)
            self.layer(HATCHES)
            for style, areas in hatched.items():
                self.hatch(areas, style, placed)
            for layer, pen, lines in placed.line_groups():
                self.layer(layer)
                self._lines_through(lines, pen, item.clip)
        if item.outline:
            self.layer(OUTLINES)
            self.lines(Polylines.of([item.clip]), item.outline, closed=True)


def _fitted(line: Floats, pen: Pen, closed: bool = False) -> Iterator[tuple[Floats, tuple[float, ...]]]:
    """The stretches of a polyline between its corners, each with the pattern that is fitted to it, mm."""
    for points in stretches(line, closed):
        length = float(np.hypot(*np.diff(points, axis=0).T).sum())
        yield points, fitted_to(pen.dashes, length)


def _seen(rings: Sequence[Floats], window: Sequence[tuple[float, float]]) -> list[Sequence[Floats]]:
    """What of an area is seen through a window, and a little of what lies beyond, so that no edge shows."""
    if not crossing(Polylines.of([rings[0]]), window).any():
        return [rings]
    return list(areas_within(Polylines.of(rings), widened(window, _BLEED)))
