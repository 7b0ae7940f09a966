"""Pen tables: which pen each line role and layer has, and how each material is filled and hatched where it is
cut."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Annotated, Any, Literal

from pydantic import Field

from drafting.errors import SheetError
from drafting.linework.model import ROLES, Role
from drafting.schema import CLOSED, Colour, ColourOrNone, Number, parse
from drafting.styles.hatches import HATCHES, HatchLine, HatchName
from drafting.styles.patterns import PATTERNS, PatternName
from drafting.styles.pens import INK, PAPER, Pen, PenChange, Width, mixed, screened

MIN_SPACING, MAX_SPACING = 0.3, 50.0
MAX_CUT_STYLES = 60

Screen = Annotated[
    Literal[100, 80, 60, 50, 40, 30, 20, 10], Field(description="Per cent of the colour that is left.")
]


@dataclass(frozen=True)
class Stroke:
    """How lines are drawn: width in mm, colour, pattern by name, and per cent of screening."""

    __pydantic_config__ = CLOSED

    width: Width
    colour: Colour = INK
    pattern: PatternName = "solid"
    screen: Screen = 100

    @property
    def pen(self) -> Pen:
        return Pen(self.width, self.colour, PATTERNS[self.pattern], self.screen)


@dataclass(frozen=True)
class StrokeChange:
    """What differs of the strokes of a role or layer; None for what does not."""

    __pydantic_config__ = CLOSED

    width: Width | None = None
    colour: Colour | None = None
    pattern: PatternName | None = None
    screen: Screen | None = None

    @property
    def change(self) -> PenChange:
        pattern = None if self.pattern is None else PATTERNS[self.pattern]
        return PenChange(self.width, self.colour, pattern, self.screen)


@dataclass(frozen=True)
class CutStyle:
    """How what is cut is filled.

    Attributes:
        match: parts of names of materials, with bars between them: `concrete|screed`. Blank matches all.
        fill: the colour of the area; blank for none.
        opacity: of the area, per cent; what lies under it shows through the rest.
        hatch: one of HATCHES; blank for none.
        spacing: between its lines, paper mm.
        angle: by how much it is turned, degrees.
        width, colour, screen: of its lines.
    """

    __pydantic_config__ = CLOSED

    match: Annotated[str, Field(max_length=400)] = ""
    fill: ColourOrNone = ""
    opacity: Screen = 100
    hatch: HatchName = ""
    spacing: Annotated[Number, Field(ge=MIN_SPACING, le=MAX_SPACING, description="Paper mm.")] = 1.5
    angle: Annotated[Number, Field(ge=-360.0, le=360.0, description="Degrees.")] = 0.0
    width: Width = 0.13
    colour: Colour = INK
    screen: Screen = 100

    @property
    def lines(self) -> tuple[HatchLine, ...]:
        return HATCHES[self.hatch] if self.hatch else ()

    @property
    def pen(self) -> Pen:
        """What its hatch is drawn with."""
        return Pen(self.width, self.colour, (), self.screen)

    @property
    def as_tone(self) -> CutStyle:
        """The same without its hatch: filled with as much ink as that has."""
        if not self.hatch:
            return self
        inked = sum(family.inked * self.width / self.spacing for family in self.lines)
        ink, paper = screened(self.colour, self.screen), self.fill or PAPER
        return replace(self, hatch="", fill=mixed(ink, paper, min(inked, 1.0)))

    def matches(self, material: str) -> bool:
        """Whether a material of this name is filled so.

        >>> CutStyle("concrete|screed").matches("Reinforced Concrete")
        True
        """
        name = material.lower()
        return not self.match or any(
            part.strip().lower() in name for part in self.match.split("|") if part.strip()
        )


def hierarchy(
    cut: float, profile: float, edge: float, thin: float, far_screen: Any = 100
) -> dict[Role, Stroke]:
    """The usual hierarchy of widths, mm: the cut widest, the profile next, edges narrow, seams and what is
    far off narrowest; what is hidden or overhead dashed."""
    return {
        "cut": Stroke(cut),
        "profile": Stroke(profile),
        "edge": Stroke(edge),
        "seam": Stroke(thin),
        "far": Stroke(thin, screen=far_screen),
        "overhead": Stroke(edge, pattern="dashed"),
        "hidden": Stroke(thin, pattern="dashed"),
        "symbol": Stroke(thin),
    }


#: What a role is drawn with where a table does not say.
DEFAULT_STROKES = hierarchy(0.5, 0.35, 0.18, 0.13)


@dataclass(frozen=True)
class PenTableSpec:
    """What a pen table is made of. Of the cut styles the first that matches a material is taken.

    Attributes:
        roles: the stroke of each line role.
        layers: how the strokes of some layers differ.
        cuts: how what is cut is filled.
    """

    __pydantic_config__ = CLOSED

    roles: Mapping[Role, Stroke] = field(default_factory=lambda: dict(DEFAULT_STROKES))
    layers: Mapping[str, StrokeChange] = field(default_factory=dict)
    cuts: Annotated[tuple[CutStyle, ...], Field(max_length=MAX_CUT_STYLES)] = ()

    @property
    def pens(self) -> dict[str, Pen]:
        """The pen of each role."""
        return {role: self.roles[role].pen for role in ROLES}


@dataclass(frozen=True)
class PenChanges:
    """The pens of one viewport that differ, by line role and by layer; a layer's goes before a role's."""

    __pydantic_config__ = CLOSED

    roles: Mapping[Role, PenChange] = field(default_factory=dict)
    layers: Mapping[str, PenChange] = field(default_factory=dict)


@dataclass(frozen=True)
class _RoleChanges:
    """A pen table as a file may have it: what it does not say of a role is as usual."""

    roles: Mapping[Role, StrokeChange] = field(default_factory=dict)


def parse_pen_table(given: Any) -> PenTableSpec:
    """From plain data, as `dump` gives it. What is not said of a role is as usual.

    Raises:
        SheetError: something that no pen table has.
    """
    if not isinstance(given, Mapping):
        raise SheetError("A pen table has roles, layers and cuts.")
    changes: Mapping[Role, StrokeChange] = parse(
        _RoleChanges, {"roles": given.get("roles", {})}, "pen table", SheetError
    ).roles
    roles = {
        role: replace(
            DEFAULT_STROKES[role], **{k: v for k, v in vars(changes[role]).items() if v is not None}
        )
        if role in changes
        else DEFAULT_STROKES[role]
        for role in ROLES
    }
    rest = {name: value for name, value in given.items() if name != "roles"}
    spec: PenTableSpec = parse(PenTableSpec, rest, "pen table", SheetError)
    return replace(spec, roles=roles)
