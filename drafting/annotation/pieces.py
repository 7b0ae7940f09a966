"""Every kind of annotation, a piece as plain data, and how a piece stands to the drawing that it is on."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Any, Literal, get_args

from pydantic import Field

from drafting.annotation.anchors import SAME, Anchor, ElementCorners, described, followed
from drafting.annotation.clouds import Cloud
from drafting.annotation.dimensions import STYLES, Dimension, changes, measured
from drafting.annotation.notes import Note
from drafting.annotation.schedules import Schedule, Table
from drafting.annotation.spot_levels import SpotLevel
from drafting.annotation.tags import Tag
from drafting.errors import SheetError
from drafting.geometry.boxes import Point
from drafting.schema import dump, parse
from drafting.sheets.viewport import Viewport
from drafting.views.spec import AnyView

AnyPiece = Annotated[Note | Dimension | SpotLevel | Schedule | Cloud | Tag, Field(discriminator="kind")]
PieceKind = Literal["note", "dimension", "level", "schedule", "cloud", "tag"]
#: What a piece is called in a sentence.
NAMES: dict[PieceKind, str] = {
    "note": "note", "dimension": "dimension", "level": "spot level", "schedule": "schedule",
    "cloud": "cloud", "tag": "tag",
}  # fmt: skip
#: How a piece stands: all that it is attached to is where it was or was found again; a length has changed; or
#: something is gone.
Standing = Literal["followed", "changed", "lost"]
STANDINGS: tuple[Standing, ...] = get_args(Standing)

#: The corners of an element in the drawing that a piece is on; None where it shows nothing of it.
CornersOf = Callable[[str], ElementCorners | None]


def parse_piece(given: Any) -> AnyPiece:
    """The piece that `dump_piece` wrote.

    Raises:
        SheetError: a figure is missing, unknown or out of bounds.
    """
    piece: AnyPiece = parse(AnyPiece, given, "annotation", SheetError)
    return piece


def dump_piece(piece: AnyPiece) -> dict[str, Any]:
    """A piece as plain data; equal pieces give equal data."""
    data: dict[str, Any] = dump(piece)
    return data


def anchors_of(piece: AnyPiece) -> tuple[Anchor, ...]:
    """All that a piece is attached to."""
    if isinstance(piece, Dimension):
        return piece.points
    if isinstance(piece, Cloud):
        return piece.first, piece.last
    return (piece.at, *piece.arms) if isinstance(piece, Note) else (piece.at,)


def with_anchors(piece: AnyPiece, anchors: Sequence[Anchor]) -> AnyPiece:
    """A piece attached to others, as many as `anchors_of` gives."""
    if isinstance(piece, Dimension):
        return replace(piece, points=tuple(anchors))
    if isinstance(piece, Cloud):
        return replace(piece, first=anchors[0], last=anchors[1])
    first, *rest = anchors
    return replace(piece, at=first, arms=tuple(rest)) if isinstance(piece, Note) else replace(piece, at=first)


def is_typed_over(piece: AnyPiece) -> bool:
    """Whether something is typed over a true figure."""
    if isinstance(piece, Dimension):
        return any(piece.overrides)
    return isinstance(piece, SpotLevel | Tag) and bool(piece.override)


def attached(piece: AnyPiece, corners_of: CornersOf) -> AnyPiece:
    """A piece whose new anchors, of which only place and element are known, are told by corners."""

    def told(anchor: Anchor) -> Anchor:
        if not anchor.element or anchor.ends:
            return anchor
        among = corners_of(anchor.element)
        return described(anchor.at, anchor.element, among) if among is not None else Anchor(anchor.at)

    return with_anchors(piece, [told(anchor) for anchor in anchors_of(piece)])


@dataclass(frozen=True)
class Stood:
    """Where the anchors of a piece lie now, how it stands, and what there is to say of it: the old and the
    new figures of what has changed, or what is gone."""

    at: tuple[Point, ...]
    standing: Standing
    words: str = ""


def stand(piece: AnyPiece, corners_of: CornersOf) -> Stood:
    """How a piece stands to a drawing. A tag is of all of its door or window, and is lost with that alone."""
    if isinstance(piece, Tag):
        return _stand_of_tag(piece, corners_of(piece.at.element))
    found = [
        followed(anchor, corners_of(anchor.element) if anchor.element else None)
        for anchor in anchors_of(piece)
    ]
    at = tuple(where.at for where in found)
    lost = sum(where.state == "lost" for where in found)
    if lost:
        points = f"what {lost} of its {len(found)} points are on"
        gone = "what it is attached to" if len(found) == 1 else points
        return Stood(at, "lost", f"{gone} is no longer in this drawing")
    words = _changes(piece, at)
    return Stood(at, "changed" if words else "followed", words)


def _stand_of_tag(tag: Tag, among: ElementCorners | None) -> Stood:
    if among is None:
        return Stood((tag.at.at,), "lost", "what it is attached to is no longer in this drawing")
    found = followed(tag.at, among)
    if found.state == "followed":
        return Stood((found.at,), "followed")
    return Stood((min(among.places, key=lambda place: math.dist(place, tag.at.at)),), "followed")


def _changes(piece: AnyPiece, at: Sequence[Point]) -> str:
    if isinstance(piece, Dimension):
        style = STYLES[piece.style]
        changed = changes(piece, at)
        return ", ".join(f"{style.words(before)} is now {style.words(now)}" for before, now in changed)
    if isinstance(piece, SpotLevel) and abs(at[0][1] - piece.at.at[1]) >= SAME:
        return f"it has moved by {at[0][1] - piece.at.at[1]:+.0f} mm"
    return ""


def check_piece(piece: AnyPiece, view: AnyView | None, *, upright: bool = True) -> None:
    """Refuse a piece that would be untrue where it stands.

    Args:
        view: the view that it is on; None for one on the bare sheet.
        upright: whether heights are seen in it.

    Raises:
        SheetError: it measures a view that has no true lengths, or no view at all, or it measures nothing.
    """
    if isinstance(piece, Note):
        if not piece.text.strip():
            raise SheetError("A note has words. Type some, or delete it.")
        return
    if isinstance(piece, Schedule):
        if view is not None:
            raise SheetError("A schedule stands on the sheet, and not in a drawing. Place it beside one.")
        return
    if isinstance(piece, Cloud):
        if piece.first.at == piece.last.at:
            raise SheetError("The corners of this cloud lie in one place. Draw it about something.")
        return
    if isinstance(piece, Tag):
        if view is None:
            raise SheetError("A tag is the label of a door or a window. Put it on a drawing.")
        return
    name = NAMES[piece.kind]
    if view is None:
        raise SheetError(f"A {name} measures a drawing. Begin it on a viewport.")
    if not view.true_lengths:
        raise SheetError(
            f"Lengths are foreshortened in “{view.title}”: a {name} would be untrue there. "
            "Put it on a plan, an elevation or a section."
        )
    if isinstance(piece, SpotLevel) and not upright:
        raise SheetError("A spot level is given in elevations and sections, where heights are seen.")
    if isinstance(piece, Dimension) and not measured(piece, [anchor.at for anchor in piece.points]).lengths:
        raise SheetError("The points of this dimension lie in one place. Choose two that are apart.")


@dataclass(frozen=True)
class PlacedPiece:
    """A piece of annotation as it stands on a sheet.

    Attributes:
        id: its own.
        stood: where it is attached now.
        viewport: what it is seen through; None for one on the bare sheet.
        zero: the height of v = 0 of its view above the building's zero, mm.
        table: what a schedule lists.
        label: the lines of a tag.
    """

    id: str
    piece: AnyPiece
    stood: Stood
    viewport: Viewport | None = None
    zero: float = 0.0
    table: Table | None = None
    label: tuple[str, ...] = ()

    @property
    def points(self) -> tuple[Point, ...]:
        """Where it is attached, on paper, mm."""
        if self.viewport is None:
            return self.stood.at
        return tuple(self.viewport.to_paper(u, v) for u, v in self.stood.at)

    @property
    def turn(self) -> float:
        """By how much the drawing that it is on is turned, degrees anticlockwise."""
        return self.viewport.turn if self.viewport else 0.0
