"""What of a drawing is drawn otherwise than its pens say, or not at all: by the numbers of its lines and of
what is cut, so that every output and the board do it alike."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Annotated, NamedTuple

import numpy as np
from numpy.typing import ArrayLike, NDArray
from pydantic import Field

from drafting.geometry.polylines import Floats, Polylines
from drafting.linework.model import Role
from drafting.schema import CLOSED
from drafting.styles.pen_table import CutStyle
from drafting.styles.pens import Pen, PenChange

#: A line, or a region, that is as it was; and a line that is divided into pieces.
OWN, DIVIDED = -1, -2

Run = Annotated[tuple[int, int], Field(description="The numbers of the first and the last.")]
Part = Annotated[
    tuple[int, float, float],
    Field(description="A line's number; where it begins and ends: the number of a point, and a share on."),
]
Place = Annotated[tuple[float, float], Field(description="u and v, real mm.")]


@dataclass(frozen=True)
class Redrawn:
    """Some of a drawing, and how it is drawn instead.

    Attributes:
        hidden: whether it is left out.
        role: the line role whose pen its lines have; None for their own.
        change: how their pen differs from that.
        whole: runs of whole lines.
        parts: parts of lines.
        areas: runs of what is cut.
        cut: how that is filled; None for as it was.
        added: lines that are not in the drawing, of `role` and `layer`.
        layer: of what is added.
    """

    __pydantic_config__ = CLOSED

    hidden: bool = False
    role: Role | None = None
    change: PenChange = field(default_factory=PenChange)
    whole: tuple[Run, ...] = ()
    parts: tuple[Part, ...] = ()
    areas: tuple[Run, ...] = ()
    cut: CutStyle | None = None
    added: tuple[tuple[Place, Place], ...] = ()
    layer: str = ""

    def pen(self, own: Role, pens: Mapping[Role, Pen], of_layer: PenChange | None) -> Pen | None:
        """What a line of a role, on a layer with changes of its own, is drawn with; None for not at all."""
        pen = None if self.hidden else pens.get(self.role or own)
        return pen.changed(of_layer).changed(self.change) if pen else None


class Piece(NamedTuple):
    """A part of a line: its number, its points (n, d), and the number of what redraws it, or OWN."""

    line: int
    points: Floats
    by: int


def divided(lines: Polylines, redrawn: Sequence[Redrawn]) -> tuple[NDArray[np.int32], list[Piece]]:
    """Which lines are redrawn. What comes later goes over what came before.

    Returns:
        (m,) for each line what redraws all of it, OWN, or DIVIDED; and the pieces of those that are divided.
    """
    by = np.full(len(lines), OWN, np.int32)
    spans: dict[int, list[tuple[float, float, int]]] = {}
    for k, each in enumerate(redrawn):
        for first, last in each.whole:
            by[first : last + 1] = k
            for line in [line for line in spans if first <= line <= last]:
                del spans[line]
        for line, begin, end in each.parts:
            if 0 <= line < len(lines):
                own = spans.get(line, [(0.0, float(len(lines[line]) - 1), int(by[line]))])
                spans[line] = _over(own, begin, end, k)
    by[list(spans)] = DIVIDED
    pieces = [
        Piece(line, _between(lines[line], begin, end), what)
        for line, own in sorted(spans.items())
        for begin, end, what in own
    ]
    return by, pieces


def areas_by(count: int, redrawn: Sequence[Redrawn]) -> NDArray[np.int32]:
    """(count,) for each region that is cut what redraws it, or OWN."""
    by = np.full(count, OWN, np.int32)
    for k, each in enumerate(redrawn):
        for first, last in each.areas:
            by[first : last + 1] = k
    return by


def runs_of(numbers: ArrayLike) -> tuple[Run, ...]:
    """Rising numbers as runs.

    >>> runs_of([1, 2, 3, 7, 9, 10])
    ((1, 3), (7, 7), (9, 10))
    """
    rising = np.asarray(numbers)
    if not len(rising):
        return ()
    breaks = np.flatnonzero(np.diff(rising) != 1)
    firsts, lasts = rising[np.r_[0, breaks + 1]], rising[np.r_[breaks, len(rising) - 1]]
    return tuple(zip(firsts.tolist(), lasts.tolist(), strict=True))


def _over(
    spans: list[tuple[float, float, int]], begin: float, end: float, what: int
) -> list[tuple[float, float, int]]:
    """Spans along a line with another laid over them."""
    low, high = max(begin, spans[0][0]), min(end, spans[-1][1])
    if low >= high:
        return spans
    kept = [(a, min(b, low), k) for a, b, k in spans if a < low]
    kept.append((low, high, what))
    return kept + [(max(a, high), b, k) for a, b, k in spans if b > high]


def _between(points: Floats, begin: float, end: float) -> Floats:
    """The points of a line between two places along it."""
    inner = points[int(np.floor(begin)) + 1 : int(np.ceil(end))]
    return np.concatenate([_at(points, begin), inner, _at(points, end)])


def _at(points: Floats, place: float) -> Floats:
    k = min(int(place), len(points) - 2)
    return np.asarray(points[k : k + 1] + (place - k) * (points[k + 1 : k + 2] - points[k : k + 1]))
