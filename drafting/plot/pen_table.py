"""Pen tables: which pen each line role and layer has, and how each material is filled and hatched where it is cut."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import asdict, dataclass, field, fields, replace
from typing import Any

from drafting.errors import SheetError
from drafting.linework.model import ROLES
from drafting.plot.hatches import HATCHES, HatchLine
from drafting.plot.patterns import PATTERNS
from drafting.plot.pens import INK, Pen
from drafting.sheets.viewport import GREATEST_WIDTH, LEAST_WIDTH, PenChange

#: Screening is the share of a pen's colour that is left, per cent: the rest is paper.
SCREENS = (100, 80, 60, 50, 40, 30, 20, 10)
LEAST_SPACING, GREATEST_SPACING = 0.3, 50.0
MOST_CUTS = 60
_COLOUR = re.compile(r"#[0-9a-f]{6}")


@dataclass(frozen=True)
class Stroke:
    """How lines are drawn: width in mm, colour, pattern by name, and per cent of screening."""

    width: float
    colour: str = INK
    pattern: str = "solid"
    screen: int = 100

    @property
    def pen(self) -> Pen:
        return Pen(self.width, self.colour, PATTERNS[self.pattern], self.screen)


@dataclass(frozen=True)
class StrokeChange:
    """What differs of the strokes of a layer; None for what does not."""

    width: float | None = None
    colour: str | None = None
    pattern: str | None = None
    screen: int | None = None

    @property
    def change(self) -> PenChange:
        pattern = None if self.pattern is None else PATTERNS[self.pattern]
        return PenChange(self.width, self.colour, pattern, self.screen)


@dataclass(frozen=True)
class Cut:
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

    match: str = ""
    fill: str = ""
    opacity: int = 100
    hatch: str = ""
    spacing: float = 1.5
    angle: float = 0.0
    width: float = 0.13
    colour: str = INK
    screen: int = 100

    @property
    def lines(self) -> tuple[HatchLine, ...]:
        return HATCHES[self.hatch] if self.hatch else ()

    def matches(self, material: str) -> bool:
        name = material.lower()
        return not self.match or any(part.strip().lower() in name for part in self.match.split("|") if part.strip())


def hierarchy(cut: float, profile: float, edge: float, thin: float, far_screen: int = 100) -> dict[str, Stroke]:
    """The usual hierarchy of widths, mm: the cut widest, the profile next, edges narrow, seams and what is far off
    narrowest; what is hidden or overhead dashed."""
    return {
        "cut": Stroke(cut),
        "profile": Stroke(profile),
        "edge": Stroke(edge),
        "seam": Stroke(thin),
        "far": Stroke(thin, screen=far_screen),
        "overhead": Stroke(edge, pattern="dashed"),
        "hidden": Stroke(thin, pattern="dashed"),
    }


#: What a role is drawn with where a table does not say.
USUAL = hierarchy(0.5, 0.35, 0.18, 0.13)


@dataclass(frozen=True)
class PenTable:
    """A pen table. Of the cuts the first that matches a material is taken."""

    name: str
    roles: Mapping[str, Stroke]
    layers: Mapping[str, StrokeChange] = field(default_factory=dict)
    cuts: tuple[Cut, ...] = ()

    @classmethod
    def from_dict(cls, given: Mapping[str, Any]) -> PenTable:
        """From plain data, as `as_dict` gives it. A role that is not named has its usual pen.

        Raises:
            SheetError: something that no pen table has.
        """
        if not isinstance(given, Mapping) or set(given) - {"name", "roles", "layers", "cuts"}:
            raise SheetError("A pen table has roles, layers and cuts.")
        roles, layers, cuts = given.get("roles", {}), given.get("layers", {}), given.get("cuts", [])
        unknown = set(roles) - set(ROLES)
        if unknown:
            raise SheetError(f"“{sorted(unknown)[0]}” is no line role. Roles are {', '.join(ROLES)}.")
        if len(cuts) > MOST_CUTS:
            raise SheetError(f"A pen table has at most {MOST_CUTS} rows for what is cut.")
        return cls(
            str(given.get("name", "")),
            {role: replace(USUAL[role], **_stroke(role, roles.get(role, {}))) for role in ROLES},
            {layer: StrokeChange(**_stroke(layer, change)) for layer, change in sorted(layers.items())},
            tuple(Cut(**_cut(cut)) for cut in cuts),
        )

    def as_dict(self) -> dict[str, Any]:
        """Plain data."""
        layers = {name: asdict(change) for name, change in self.layers.items()}
        return {
            "name": self.name,
            "roles": {role: asdict(stroke) for role, stroke in self.roles.items()},
            "layers": {name: {k: v for k, v in pen.items() if v is not None} for name, pen in layers.items()},
            "cuts": [asdict(cut) for cut in self.cuts],
        }

    @property
    def pens(self) -> dict[str, Pen]:
        """The pen of each role."""
        return {role: stroke.pen for role, stroke in self.roles.items()}


def _stroke(name: str, given: Any) -> dict[str, Any]:
    if not isinstance(given, Mapping) or set(given) - {"width", "colour", "pattern", "screen"}:
        raise SheetError(f"The pen of {name} has a width, a colour, a pattern and a screening.")
    known = {key: value for key, value in given.items() if value is not None}
    _check_figure(known, "width", LEAST_WIDTH, GREATEST_WIDTH, f"The pen of {name}")
    _check_colour(known, "colour", f"The pen of {name}")
    if known.get("pattern", "solid") not in PATTERNS:
        raise SheetError(f"“{known['pattern']}” is no pattern. Patterns are {', '.join(PATTERNS)}.")
    _check_share(known, "screen", "Screening")
    return known


def _cut(given: Any) -> dict[str, Any]:
    names = {field.name for field in fields(Cut)}
    if not isinstance(given, Mapping) or set(given) - names:
        raise SheetError(f"A row for what is cut has {', '.join(sorted(names))}.")
    known = dict(given)
    what = f"What is cut of “{known.get('match') or 'everything else'}”"
    _check_figure(known, "width", LEAST_WIDTH, GREATEST_WIDTH, what)
    _check_figure(known, "spacing", LEAST_SPACING, GREATEST_SPACING, what)
    _check_figure(known, "angle", -360.0, 360.0, what)
    for key in ("fill", "colour"):
        if known.get(key):
            _check_colour(known, key, what)
    if known.get("hatch", "") not in ("", *HATCHES):
        raise SheetError(f"“{known['hatch']}” is no hatch. Hatches are {', '.join(HATCHES)}.")
    _check_share(known, "screen", "Screening")
    _check_share(known, "opacity", "Opacity")
    return known


def _check_share(given: dict[str, Any], key: str, name: str) -> None:
    if given.get(key, 100) not in SCREENS:
        raise SheetError(f"{name} is one of {', '.join(map(str, SCREENS))} per cent; “{given[key]}” is not.")


def _check_figure(given: dict[str, Any], key: str, least: float, most: float, what: str) -> None:
    value = given.get(key, least)
    if isinstance(value, bool) or not isinstance(value, int | float) or not least <= value <= most:
        raise SheetError(f"{what} has a {key} of {least:g} to {most:g}; “{value}” is not.")


def _check_colour(given: dict[str, Any], key: str, what: str) -> None:
    if not _COLOUR.fullmatch(str(given.get(key, INK))):
        raise SheetError(f"{what} has a colour such as #1b1f24; “{given[key]}” is not.")
