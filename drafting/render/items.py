"""What can stand on a sheet. Each item knows how it is drawn and how a plot changes it, and nothing of any
output."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import partial
from typing import TYPE_CHECKING, Annotated, Literal

from pydantic import Field, PlainSerializer

from drafting.geometry.boxes import Box
from drafting.geometry.polylines import Polylines
from drafting.linework.model import Role
from drafting.schema import CLOSED, Colour
from drafting.styles.hatches import HatchName
from drafting.styles.pen_table import CutStyle
from drafting.styles.pens import Pen, PenChange
from drafting.styles.redrawn import Redrawn

if TYPE_CHECKING:
    from drafting.render.backend import Backend

#: What is written of a coordinate: a tenth of a micrometre of paper. A sheet has tens of thousands.
Coordinate = Annotated[float, PlainSerializer(partial(round, ndigits=4), return_type=float, when_used="json")]
Point = tuple[Coordinate, Coordinate]
Points = Annotated[tuple[Point, ...], Field(description="Paper mm.")]
Source = Annotated[str, Field(description="The viewport that it belongs to; blank for none.")]
Anchor = Literal["start", "middle", "end"]
#: Where words are held that stand at one side of their place, or in its middle.
ANCHORS: Mapping[Literal["left", "middle", "right"], Anchor] = {
    "left": "start", "middle": "middle", "right": "end",
}  # fmt: skip
#: The layer of areas of shadow.
SHADOWS = "Shadows"


def _same(colour: str) -> str:
    return colour


@dataclass(frozen=True)
class Restyle:
    """What a plot makes of what is drawn.

    Attributes:
        line, area: what becomes of a colour of lines and words, and of areas.
        width: the width of all lines, mm; None where each has its own.
        opaque: whether nothing is seen through.
        grey: whether pictures lose their colours.
    """

    line: Callable[[str], str] = _same
    area: Callable[[str], str] = _same
    width: float | None = None
    opaque: bool = False
    grey: bool = False

    def pen(self, pen: Pen) -> Pen:
        return replace(
            pen, colour=self.line(pen.colour), width=pen.width if self.width is None else self.width
        )


@dataclass(frozen=True)
class Path:
    """A stroked polyline."""

    __pydantic_config__ = CLOSED

    points: Points
    pen: Pen
    layer: str = ""
    viewport: Source = ""
    closed: bool = False
    type: Literal["path"] = "path"

    def draw(self, backend: Backend) -> None:
        backend.layer(self.layer)
        backend.lines(Polylines.of([self.points]), self.pen, self.closed)

    def restyled(self, by: Restyle) -> Path:
        return replace(self, pen=by.pen(self.pen))


@dataclass(frozen=True)
class Fill:
    """A filled area, even-odd. Of `opacity` 1 it hides what lies under it."""

    __pydantic_config__ = CLOSED

    rings: tuple[Points, ...]
    colour: Colour
    layer: str = ""
    viewport: Source = ""
    opacity: float = 1.0
    type: Literal["fill"] = "fill"

    def draw(self, backend: Backend) -> None:
        backend.layer(self.layer)
        backend.fill(Polylines.of(self.rings), self.colour, self.opacity)

    def restyled(self, by: Restyle) -> Fill:
        return replace(self, colour=by.area(self.colour), opacity=1.0 if by.opaque else self.opacity)


@dataclass(frozen=True)
class Text:
    """One line of lettering. `size` is the height of a capital, mm (ISO 3098); `at` is on the base line, and
    the line is turned about it."""

    __pydantic_config__ = CLOSED

    at: Point
    text: str
    size: Annotated[Coordinate, Field(description="Height of a capital, paper mm.")]
    colour: Colour
    anchor: Anchor = "start"
    bold: bool = False
    turn: Annotated[Coordinate, Field(description="Degrees anticlockwise.")] = 0.0
    layer: str = ""
    viewport: Source = ""
    type: Literal["text"] = "text"

    def draw(self, backend: Backend) -> None:
        backend.layer(self.layer)
        backend.text(self)

    def restyled(self, by: Restyle) -> Text:
        return replace(self, colour=by.line(self.colour))


#: What is drawn without any linework or picture.
FlatItem = Annotated[Path | Fill | Text, Field(discriminator="type")]


@dataclass(frozen=True)
class Stretch:
    """One length of a dimension: its two ends on paper, a point of its dimension line, and the words over
    it."""

    __pydantic_config__ = CLOSED

    first: Point
    last: Point
    base: Point
    text: str


@dataclass(frozen=True)
class Dimensioned:
    """A dimension: drawn as its parts, by outputs that have no dimensions of their own.

    Attributes:
        parts: its lines and figures.
        stretches: its lengths.
        turn: how its lines run, degrees anticlockwise.
        ratio: paper mm for one real mm.
        size: height of its figures, paper mm.
    """

    __pydantic_config__ = CLOSED

    parts: tuple[FlatItem, ...]
    stretches: tuple[Stretch, ...]
    turn: Annotated[float, Field(description="Degrees anticlockwise.")]
    ratio: Annotated[float, Field(description="Paper mm for one real mm.")]
    size: Coordinate
    layer: str = ""
    viewport: Source = ""
    gap: Annotated[Coordinate, Field(description="Where extension lines begin, paper mm.")] = 1.5
    terminator: Literal["stroke", "arrow", "dot"] = "stroke"
    type: Literal["dimension"] = "dimension"

    def draw(self, backend: Backend) -> None:
        backend.layer(self.layer)
        backend.dimension(self)

    def restyled(self, by: Restyle) -> Dimensioned:
        return replace(self, parts=tuple(part.restyled(by) for part in self.parts))


@dataclass(frozen=True)
class Inserted:
    """A symbol of a library: drawn as its parts, by outputs that have no blocks of their own.

    Attributes:
        parts: its lines, fills and words where they lie on paper.
        name: what the symbol is called.
        symbol: its id: the parts of all that have it are the same but for where they lie, and their words.
        at: its insertion point.
        turn: degrees anticlockwise.
        size: how many times as large as in the library, whose lengths are mm.
        mirrored: whether left and right are exchanged, before it is turned.
    """

    __pydantic_config__ = CLOSED

    parts: tuple[FlatItem, ...]
    name: str
    symbol: str
    at: Point
    turn: Annotated[float, Field(description="Degrees anticlockwise.")]
    size: float
    mirrored: bool = False
    layer: str = ""
    viewport: Source = ""
    type: Literal["symbol"] = "symbol"

    def draw(self, backend: Backend) -> None:
        backend.layer(self.layer)
        backend.symbol(self)

    def restyled(self, by: Restyle) -> Inserted:
        return replace(self, parts=tuple(part.restyled(by) for part in self.parts))


@dataclass(frozen=True)
class Worded:
    """A note: drawn line by line, by outputs that have no paragraphs of their own.

    Attributes:
        parts: its lines of words, what lies under them, and its leaders.
        text: its words, by paragraphs.
        at: the upper left corner of its words, paper mm.
        width: at which they are broken, paper mm.
        size: height of a capital, paper mm.
        leaders: each from what it points at to the words.
        arrow: whether leaders end in arrows.
    """

    __pydantic_config__ = CLOSED

    parts: tuple[FlatItem, ...]
    text: str
    at: Point
    width: Coordinate
    size: Coordinate
    colour: Colour
    bold: bool = False
    anchor: Anchor = "start"
    leaders: tuple[Points, ...] = ()
    arrow: bool = False
    layer: str = ""
    viewport: Source = ""
    type: Literal["note"] = "note"

    def draw(self, backend: Backend) -> None:
        backend.layer(self.layer)
        backend.note(self)

    def restyled(self, by: Restyle) -> Worded:
        parts = tuple(part.restyled(by) for part in self.parts)
        return replace(self, parts=parts, colour=by.line(self.colour))


@dataclass(frozen=True)
class Hatched:
    """A hatched area: drawn line by line, by outputs that have no hatches of their own.

    Attributes:
        parts: the lines of its hatch.
        rings: its outline, then its holes; paper mm.
        hatch: which (`HATCHES`).
        spacing: of the hatch, paper mm.
    """

    __pydantic_config__ = CLOSED

    parts: tuple[FlatItem, ...]
    rings: tuple[Points, ...]
    hatch: HatchName
    spacing: Coordinate
    pen: Pen
    layer: str = ""
    viewport: Source = ""
    type: Literal["hatch"] = "hatch"

    def draw(self, backend: Backend) -> None:
        backend.layer(self.layer)
        backend.hatched(self)

    def restyled(self, by: Restyle) -> Hatched:
        return replace(self, parts=tuple(part.restyled(by) for part in self.parts), pen=by.pen(self.pen))


@dataclass(frozen=True)
class Image:
    """A picture of pixels by its key, the box that it fills, and what is seen of that; in grey where a plot
    has no colours."""

    __pydantic_config__ = CLOSED

    picture: Annotated[str, Field(description="Its id, or `logo`.")]
    box: Box
    layer: str = ""
    grey: bool = False
    window: Annotated[Box | None, Field(description="What is seen of it; all where there is none.")] = None
    viewport: Source = ""
    type: Literal["image"] = "image"

    def draw(self, backend: Backend) -> None:
        backend.layer(self.layer)
        backend.picture(self)

    def restyled(self, by: Restyle) -> Image:
        return replace(self, grey=self.grey or by.grey)


@dataclass(frozen=True)
class Shaded:
    """The picture of a building under the lines of a viewport: it fills `box`, and is seen within `clip`.

    Attributes:
        picture: its key.
        viewport: the id of its source.
        grey: whether a plot takes its colours.
    """

    __pydantic_config__ = CLOSED

    picture: str
    viewport: str
    box: Box
    clip: Points
    layer: str = "Shaded pictures"
    grey: bool = False
    type: Literal["shaded"] = "shaded"

    def draw(self, backend: Backend) -> None:
        backend.shaded(self)

    def restyled(self, by: Restyle) -> Shaded:
        return replace(self, grey=self.grey or by.grey)


@dataclass(frozen=True)
class Drawing:
    """Linework seen through a viewport: paper = place + ratio * (u, v) turned, clipped to `clip`.

    Attributes:
        viewport: the id of its source.
        linework: the key of its geometry.
        clip: the corners of its window on paper, mm.
        ratio: paper mm for one real mm.
        turn: degrees anticlockwise, about `place`.
        place: where u = v = 0 lies on paper, mm.
        pens: the pen of each line role; a role without one is not drawn.
        layers: how the pens of some layers differ.
        cuts: how what is cut is filled; for each material the first that matches it.
        outline: the pen that `clip` itself is drawn with; None where it is not plotted.
        opaque: whether what lies below is hidden within `clip`.
        hidden: layers of which nothing is drawn, as a recipient of the file wishes it.
        redrawn: what of it is drawn otherwise, or left out; what comes later goes over what came before.
    """

    __pydantic_config__ = CLOSED

    viewport: str
    linework: Annotated[str, Field(description="The key of its geometry.")]
    clip: Points
    ratio: Annotated[float, Field(description="Paper mm for one real mm.")]
    place: tuple[float, float]
    pens: Mapping[Role, Pen]
    cuts: tuple[CutStyle, ...] = ()
    turn: Annotated[float, Field(description="Degrees anticlockwise, about `place`.")] = 0.0
    layers: Mapping[str, PenChange] = field(default_factory=dict)
    outline: Pen | None = None
    opaque: bool = False
    hidden: tuple[str, ...] = ()
    redrawn: tuple[Redrawn, ...] = ()
    type: Literal["drawing"] = "drawing"

    def draw(self, backend: Backend) -> None:
        backend.drawing(self)

    def restyled(self, by: Restyle) -> Drawing:
        def changed(change: PenChange) -> PenChange:
            colour = by.line(change.colour) if change.colour else None
            return replace(change, colour=colour, width=change.width if by.width is None else None)

        def filled(cut: CutStyle) -> CutStyle:
            return replace(
                cut,
                fill=by.area(cut.fill) if cut.fill else "",
                colour=by.line(cut.colour),
                width=cut.width if by.width is None else by.width,
                opacity=100 if by.opaque else cut.opacity,
            )

        redrawn = (
            replace(each, change=changed(each.change), cut=filled(each.cut) if each.cut else None)
            for each in self.redrawn
        )
        return replace(
            self,
            pens={role: by.pen(pen) for role, pen in self.pens.items()},
            layers={name: changed(change) for name, change in self.layers.items()},
            cuts=tuple(map(filled, self.cuts)),
            redrawn=tuple(redrawn),
            outline=by.pen(self.outline) if self.outline else None,
        )


#: What is drawn as parts, by outputs that have no such thing of their own.
Whole = Dimensioned | Inserted | Worded | Hatched
Item = Annotated[Path | Fill | Text | Whole | Image | Shaded | Drawing, Field(discriminator="type")]


def parts_of(item: Item) -> Sequence[Item]:
    """The parts of a dimension, a symbol, a note, a hatch; else the item itself."""
    return item.parts if isinstance(item, Whole) else (item,)
