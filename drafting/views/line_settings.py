"""How a view treats its lines: which edges are worth drawing, and which more roles it wants."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from pydantic import Field

from drafting.errors import ViewError
from drafting.schema import CLOSED, Flag, Number

#: Creases sharper than this are edges worth drawing; flatter ones are facets of something smooth. Degrees.
CREASE = 20.0
#: More bands than this nobody tells apart by line width.
MAX_BANDS = 6

Distance = Annotated[Number, Field(gt=0)]


@dataclass(frozen=True)
class LineSettings:
    """The settings of a view's lines.

    Distances are measured from the cut; without one from the nearest point of the building; in a perspective
    from the eye.

    Attributes:
        crease: two faces that meet at a sharper angle than this make an edge, degrees.
        seams: draw joints within one material in one plane.
        hidden: draw what is hidden, in a role of its own.
        overhead: of a plan, draw what is above its cut.
        outline_above: of a plan, the outline of all that is above its cut, as the roof's over the top storey.
        beams_above: of a plan, beams and members that are seen from below above its cut.
        below: of a plan, what is below its storey's floor, as hidden lines.
        opening_windows: of an elevation, how windows open: lines from the corners to the side of the hinge.
        doors: of a plan, draw doors open with their swing, and not their leaves as they are cut.
        stairs: of a plan, break stairs and ramps off at the cut, and draw a walking line with an arrow up.
        contours: of a plan or roof plan, lines on the terrain at every so many mm of height; None for none.
        far: lines further off than this are far lines, mm; None for none.
        bands: distances, mm, rising, at which pens may change: a line's band is how many of them lie before
            it.
    """

    __pydantic_config__ = CLOSED

    crease: Annotated[
        Number, Field(gt=0, lt=180, description="Sharper creases than this are edges; degrees.")
    ] = CREASE
    seams: Flag = False
    hidden: Flag = False
    overhead: Annotated[Flag, Field(description="Of a plan: what is above its cut.")] = False
    outline_above: Annotated[Flag, Field(description="Of a plan: the outline of all above its cut.")] = False
    beams_above: Annotated[Flag, Field(description="Of a plan: beams above its cut.")] = False
    below: Annotated[Flag, Field(description="Of a plan: what is below its floor, hidden.")] = False
    opening_windows: Annotated[Flag, Field(description="Of an elevation: how windows open.")] = False
    doors: Annotated[Flag, Field(description="Of a plan: doors open, with their swing.")] = True
    stairs: Annotated[
        Flag, Field(description="Of a plan: stairs broken off at the cut, with an arrow up.")
    ] = True
    contours: Annotated[
        Distance | None, Field(description="Of plans: lines on the terrain, this far apart in height; mm.")
    ] = None
    far: Annotated[Distance | None, Field(description="Lines further off than this are far lines; mm.")] = (
        None
    )
    bands: Annotated[tuple[Distance, ...], Field(description="Distances at which pens may change; mm.")] = ()

    def __post_init__(self) -> None:
        if len(self.bands) > MAX_BANDS:
            raise ViewError(
                f"{len(self.bands)} depth bands are too many to distinguish; give {MAX_BANDS} at most."
            )
        if list(self.bands) != sorted(set(self.bands)):
            raise ViewError("Depth bands are distances in mm, each greater than the one before.")


#: What a view does with its lines when nothing else is asked for.
DEFAULT_LINE_SETTINGS = LineSettings()
