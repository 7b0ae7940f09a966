"""Pens: width and colour on paper for each line role and each kind of thing on a sheet (ISO 128)."""

from __future__ import annotations

from dataclasses import dataclass, replace

from drafting.sheets.viewport import PenChange

INK = "#1b1f24"
PAPER = "#ffffff"

#: ISO 128-20: each width is the square root of two wider than the one before. mm.
WIDTHS = (0.13, 0.18, 0.25, 0.35, 0.5, 0.7, 1.0, 1.4, 2.0)


@dataclass(frozen=True)
class Pen:
    """A line on paper: its width in mm, its colour, and its pattern: dash and gap by turns, in widths."""

    width: float
    colour: str = INK
    pattern: tuple[float, ...] = ()

    @property
    def dashes(self) -> tuple[float, ...]:
        """Dash and gap by turns in mm."""
        return tuple(length * self.width for length in self.pattern)

    def changed(self, change: PenChange | None) -> Pen:
        """The pen with another width or colour."""
        if change is None:
            return self
        return replace(self, width=change.width or self.width, colour=change.colour or self.colour)


#: ISO 128-20, dashed line: dashes of 12 widths, gaps of 3.
DASHED = (12.0, 3.0)
#: Usual hierarchy in building drawings: the cut widest, the profile next, visible edges narrow, seams and what is
#: far off narrowest; what is hidden or overhead dashed.
ROLE_PENS: dict[str, Pen] = {
    "cut": Pen(0.5),
    "profile": Pen(0.35),
    "edge": Pen(0.18),
    "seam": Pen(0.13),
    "far": Pen(0.13),
    "overhead": Pen(0.18, pattern=DASHED),
    "hidden": Pen(0.13, pattern=DASHED),
}
#: What the cut goes through is toned, so that it reads as solid at every scale.
CUT_FILL = "#d9d6cf"

#: ISO 5457: centring marks are 0.7 mm lines.
CENTRING_PEN = Pen(0.7)
ZONE_PEN = Pen(0.35)
BLOCK_PEN = Pen(0.5)
RULE_PEN = Pen(0.18)
TITLE_PEN = Pen(0.35)
#: The outline of a viewport, where it is plotted.
OUTLINE_PEN = Pen(0.25)
