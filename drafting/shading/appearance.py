"""What a viewport shows of its view: lines, colours or light, and how that light falls."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated, Literal, get_args

from pydantic import Field

from drafting.errors import SheetError
from drafting.schema import CLOSED, Colour, Flag, Number

#: Lines only; lines over flat colours; lines over a shaded picture; the picture without lines.
Show = Literal["lines", "colours", "shaded", "picture"]
SHOWS: tuple[Show, ...] = get_args(Show)
#: The fixed light of the drawing convention, along the diagonal of a cube; or the sun.
Source = Literal["convention", "sun"]
Background = Literal["none", "plain", "sky", "picture"]
Areas = Literal["none", "cast", "both"]
DAYS = (31, 29, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31)

Share = Annotated[Number, Field(ge=0, le=1)]


@dataclass(frozen=True)
class Light:
    """Where light comes from.

    Attributes:
        source: the fixed light of the convention, or the sun.
        month, day: of the sun.
        hour: of the sun, in true solar time: it is highest at 12.
        latitude: of the place, degrees, north of the equator positive.
        soft: whether shadows of what is further off have softer borders.

    Raises:
        SheetError: there is no such day.
    """

    __pydantic_config__ = CLOSED

    source: Source = "convention"
    month: Annotated[int, Field(ge=1, le=12)] = 6
    day: Annotated[int, Field(ge=1, le=31)] = 21
    hour: Annotated[Number, Field(ge=0, le=24, description="True solar time: the sun is highest at 12.")] = (
        15.0
    )
    latitude: Annotated[Number, Field(ge=-90, le=90, description="Degrees, north positive.")] = 50.0
    soft: Flag = False

    def __post_init__(self) -> None:
        if self.day > DAYS[self.month - 1]:
            raise SheetError(f"Month {self.month} has {DAYS[self.month - 1]} days, and not {self.day}.")


@dataclass(frozen=True)
class AreaStyle:
    """Shadow as areas under the lines of a drawing.

    Attributes:
        of: none; what is in the shadow of something else; or that and what is turned from the light itself.
        colour, opacity: they are filled with.
        hatched: whether they are hatched with that colour instead.
    """

    __pydantic_config__ = CLOSED

    of: Areas = "none"
    colour: Colour = "#6b7378"
    opacity: Annotated[int, Field(ge=5, le=100, description="Per cent.")] = 35
    hatched: Flag = False


NO_AREAS = AreaStyle()


@dataclass(frozen=True)
class Appearance:
    """What a viewport shows of its view.

    Attributes:
        show: one of SHOWS.
        light: where light comes from.
        shadows: how dark cast shadows are, 0 to 1.
        sky: how much darker it is where less of the sky is seen, 0 to 1.
        fading: how much paler the furthest is than the nearest, 0 to 1.
        background: what is behind the building.
        background_colour: of a plain background, and of the top of a sky.
        backdrop: the key of the project's picture that is the background, where that is one.
        ground: the level of a plane that receives shadow where the building has no terrain, mm; None for
            none.
        areas: which shadow is shown as areas, and how they are filled.
        textures: whether the textures that the file has are laid on faces in a shaded picture.
    """

    __pydantic_config__ = CLOSED

    show: Show = "lines"
    light: Light = Light()
    shadows: Share = 0.6
    sky: Share = 0.5
    fading: Share = 0.0
    background: Background = "none"
    background_colour: Colour = "#b9cfe0"
    ground: Annotated[Number | None, Field(description="Level of a plane that receives shadow; mm.")] = None
    areas: AreaStyle = AreaStyle()
    textures: Flag = True
    backdrop: Annotated[str, Field(max_length=64, description="Key of a picture of the project.")] = ""

    @property
    def has_textures(self) -> bool:
        """Whether textures are laid on faces: flat colours are flat."""
        return self.textures and self.show in ("shaded", "picture")

    @property
    def has_picture(self) -> bool:
        """Whether there are pixels under its lines."""
        return self.show != "lines"

    @property
    def has_lines(self) -> bool:
        """Whether lines are drawn."""
        return self.show != "picture"

    @property
    def has_areas(self) -> bool:
        """Whether shadow is shown as areas under its lines."""
        return self.areas.of != "none" and self.has_lines

    @property
    def for_areas(self) -> Appearance:
        """What areas of shadow depend on: the light, as one sharp light, and the ground."""
        return Appearance(light=replace(self.light, soft=False), shadows=1.0, ground=self.ground)

    @property
    def for_picture(self) -> Appearance:
        """What a picture depends on."""
        return replace(self, areas=NO_AREAS)


#: What a viewport shows where nothing is chosen.
LINES_ONLY = Appearance()
