"""What can stand on a sheet. Each item knows how it is drawn and how a plot changes it, and nothing of any
output."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from typing import TYPE_CHECKING, Annotated, Literal

from pydantic import Field, PlainSerializer

from drafting.geometry.boxes import Box
from drafting.geometry.polylines import Polylines
from drafting.linework.model import Role
from drafting.schema import CLOSED, Colour
from drafting.styles.pen_table import CutStyle
from drafting.styles.pens import Pen, PenChange

if TYPE_CHECKING:
    from drafting.render.backend import Backend

#: What is written of a coordinate: a tenth of a micrometre of paper.
Coordinate = Annotated[
    float, PlainSerializer(lambda value: round(value, 4), return_type=float, when_used="json")
]
Point = tuple[Coordinate, Coordinate]
Points = Annotated[tuple[Point, ...], Field(description="Paper mm.")]
Source = Annotated[str, Field(description="The viewport that it belongs to; blank for none.")]
Anchor = Literal["start", "middle", "end"]


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
    """One length of a dimension: its two ends on paper, and the words over it."""

    __pydantic_config__ = CLOSED

    first: Point
    last: Point
    text: str


@dataclass(frozen=True)
class Dimensioned:
    """A dimension: drawn as its parts, by outputs that have no dimensions of their own.

    Attributes:
        parts: its lines and figures.
        stretches: its lengths.
        base: a point of the dimension line, paper mm.
        turn: how the line runs, degrees anticlockwise.
        ratio: paper mm for one real mm.
        size: height of its figures, paper mm.
    """

    __pydantic_config__ = CLOSED

    parts: tuple[FlatItem, ...]
    stretches: tuple[Stretch, ...]
    base: Point
    turn: Annotated[float, Field(description="Degrees anticlockwise.")]
    ratio: Annotated[float, Field(description="Paper mm for one real mm.")]
    size: Coordinate
    layer: str = ""
    viewport: Source = ""
    type: Literal["dimension"] = "dimension"

    def draw(self, backend: Backend) -> None:
        backend.layer(self.layer)
        backend.dimension(self)

    def restyled(self, by: Restyle) -> Dimensioned:
        return replace(self, parts=tuple(part.restyled(by) for part in self.parts))


@dataclass(frozen=True)
class Image:
    """A picture of pixels by its key, and the box that it fills; in grey where a plot has no colours."""

    __pydantic_config__ = CLOSED

    picture: Annotated[str, Field(description="Its id, or `logo`.")]
    box: Box
    layer: str = ""
    grey: bool = False
    type: Literal["image"] = "image"

    def draw(self, backend: Backend) -> None:
        backend.layer(self.layer)
        backend.image(self)

    def restyled(self, by: Restyle) -> Image:
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
    type: Literal["drawing"] = "drawing"

    def draw(self, backend: Backend) -> None:
        backend.drawing(self)

    def restyled(self, by: Restyle) -> Drawing:
        def changed(change: PenChange) -> PenChange:
            colour = by.line(change.colour) if change.colour else None
            return replace(change, colour=colour, width=change.width if by.width is None else None)

        cuts = (
            replace(
                cut,
                fill=by.area(cut.fill) if cut.fill else "",
                colour=by.line(cut.colour),
                width=cut.width if by.width is None else by.width,
                opacity=100 if by.opaque else cut.opacity,
            )
            for cut in self.cuts
        )
        return replace(
            self,
            pens={role: by.pen(pen) for role, pen in self.pens.items()},
            layers={name: changed(change) for name, change in self.layers.items()},
            cuts=tuple(cuts),
            outline=by.pen(self.outline) if self.outline else None,
        )


Item = Annotated[Path | Fill | Text | Dimensioned | Image | Drawing, Field(discriminator="type")]
