"""The display list: everything on a sheet, in paper millimetres from the lower left corner, y upward.

Every output and the board draw from it and from nothing else. A `Drawing` names linework by its key, with six
figures that place it; so whoever has the linework can draw it, at once and alike. See docs/display-list.md.
"""

from __future__ import annotations

from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass, field, replace
from typing import Annotated

from pydantic import Field

from drafting.annotation.piece import Standing
from drafting.annotation.pieces import PieceKind
from drafting.geometry.boxes import Box
from drafting.render.backend import Backend
from drafting.render.items import SHADOWS, Drawing, Image, Item, Point, Restyle, Shaded, parts_of
from drafting.schema import CLOSED, dump_json


@dataclass(frozen=True)
class Link:
    """The middle of a mark's bubble on paper, mm, the viewport that it lies in, and the view that it points
    to."""

    __pydantic_config__ = CLOSED

    viewport: str
    view: str
    at: Point


@dataclass(frozen=True)
class FieldBox:
    """Where a field of the title block stands, and whether it is typed over on this sheet alone."""

    __pydantic_config__ = CLOSED

    field: str
    box: Box
    overridden: bool


@dataclass(frozen=True)
class TitleBox:
    """Where the drawing title of a viewport lies."""

    __pydantic_config__ = CLOSED

    viewport: str
    box: Box


@dataclass(frozen=True)
class RoomBox:
    """Where the name of a room stands in a viewport, and what it says."""

    __pydantic_config__ = CLOSED

    viewport: str
    room: str
    text: str
    box: Box


@dataclass(frozen=True)
class PieceBox:
    """A piece of annotation as it stands on the sheet.

    Attributes:
        piece: its id.
        viewport: what it is seen through; blank for one on the bare sheet.
        box: where it is taken hold of.
        text: its words and figures.
        points: what it is attached to, on paper.
        at: the same in u and v of its view; of the bare sheet, on paper.
        standing: whether all that it is attached to was found again, a length has changed, or something is
            gone.
        words: the old and new figures, or what is gone.
        typed_over: whether a true figure of it is typed over.
        figures: where each figure of a dimension lies, in the order of its lengths.
    """

    __pydantic_config__ = CLOSED

    piece: str
    kind: PieceKind
    viewport: str
    box: Box
    text: str
    points: tuple[Point, ...]
    at: tuple[tuple[float, float], ...]
    standing: Standing
    words: str = ""
    typed_over: bool = False
    figures: tuple[Box, ...] = ()


@dataclass(frozen=True)
class TouchUpFound:
    """A touch-up of a viewport's drawing, by its id, and whether what it chooses is still there."""

    __pydantic_config__ = CLOSED

    viewport: str
    touch_up: str
    found: bool


@dataclass(frozen=True)
class DisplayList:
    """A sheet of paper and what lies on it, lowest first, and what of it points to other views.

    Attributes:
        tables, fields, titles, rooms, pieces: where these lie, to be taken hold of.
        frame: the frame line, from whose sides a template's parts are measured.
        shrink: by how much parts are narrower on a narrow paper.
        touch_ups: what is drawn otherwise in its viewports, and whether it was found.
    """

    __pydantic_config__ = CLOSED

    width: Annotated[float, Field(description="Paper mm.")]
    height: Annotated[float, Field(description="Paper mm.")]
    items: tuple[Item, ...] = field(default_factory=tuple)
    links: tuple[Link, ...] = ()
    tables: tuple[Box, ...] = ()
    fields: tuple[FieldBox, ...] = ()
    titles: tuple[TitleBox, ...] = ()
    rooms: tuple[RoomBox, ...] = ()
    pieces: tuple[PieceBox, ...] = ()
    frame: Box = Box(0.0, 0.0, 0.0, 0.0)
    shrink: float = 1.0
    touch_ups: tuple[TouchUpFound, ...] = ()

    @property
    def flat_items(self) -> Iterator[Item]:
        """Every item, with the parts of dimensions, symbols and notes in place of these."""
        for item in self.items:
            yield from parts_of(item)

    @property
    def drawings(self) -> Iterator[Drawing]:
        """The drawings on it."""
        return (item for item in self.items if isinstance(item, Drawing))

    @property
    def pictures(self) -> Iterator[Image | Shaded]:
        """The pictures of pixels on it."""
        return (item for item in self.items if isinstance(item, Image | Shaded))

    @property
    def shaded(self) -> Iterator[Shaded]:
        """Those that show the building."""
        return (item for item in self.items if isinstance(item, Shaded))

    def without_layers(self, layers: Collection[str], of_building: Sequence[str] = ()) -> DisplayList:
        """Without what stands on some layers.

        Args:
            of_building: those of them that may be layers of the building: of drawings nothing is seen of
                these, and pictures and shadows of the building, which show all of it, are left out.
        """
        kept: list[Item] = []
        for item in self.items:
            if isinstance(item, Drawing):
                kept.append(replace(item, hidden=tuple(of_building)))
            elif item.layer not in layers and not (of_building and _shows_all(item)):
                kept.append(item)
        return replace(self, items=tuple(kept))

    def without_fills(self) -> DisplayList:
        """With nothing of what is cut filled with a colour; hatches stay."""

        def bare(item: Item) -> Item:
            if not isinstance(item, Drawing):
                return item
            redrawn = (
                replace(each, cut=replace(each.cut, fill="")) if each.cut else each for each in item.redrawn
            )
            cuts = tuple(replace(cut, fill="") for cut in item.cuts)
            return replace(item, cuts=cuts, redrawn=tuple(redrawn))

        return replace(self, items=tuple(map(bare, self.items)))

    def replay(self, backend: Backend) -> None:
        """Draw every item, lowest first."""
        for item in self.items:
            item.draw(backend)

    def restyled(self, by: Restyle) -> DisplayList:
        """With every item as a plot changes it."""
        return replace(self, items=tuple(item.restyled(by) for item in self.items))

    def as_json(self) -> bytes:
        """For the board: each item with its `type`."""
        return dump_json(self)


def _shows_all(item: Item) -> bool:
    """Whether it shows the building whatever its layers."""
    return isinstance(item, Shaded) or getattr(item, "layer", "") == SHADOWS
