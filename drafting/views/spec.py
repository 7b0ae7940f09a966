"""What a view is, as kept and as typed: its kind and the figures that belong to it."""

from __future__ import annotations

import math
import re
from dataclasses import asdict, dataclass
from typing import Any, Literal, cast, get_args

from drafting.errors import NotReachedError, ViewError

Kind = Literal["plan", "roof", "elevation", "section", "axonometric"]
KINDS: tuple[Kind, ...] = get_args(Kind)
SIDES = ("north", "south", "east", "west")
CORNERS = ("ne", "nw", "se", "sw")
#: Height of a plan's cut above its storey's floor, mm. Common practice: 1.0 to 1.2 m.
CUT_HEIGHT = 1200.0

_CORNER_NAMES = {"ne": "north-east", "nw": "north-west", "se": "south-east", "sw": "south-west"}
_NUMBER = r"[-+]?(?:\d+\.?\d*|\.\d+)"


@dataclass(frozen=True)
class ViewSpec:
    """A look at a building.

    Attributes:
        kind: one of KINDS.
        storey: of a plan, the name (or number from 0) of its storey.
        cut: of a plan, the height of its cut above the storey's floor, mm.
        side: of an elevation, the side it shows.
        corner: of an axonometric, the corner it looks from.
        line: of a section, (x1, y1, x2, y2) mm; what lies to the left of its direction is seen.
        depth: of a section, how far is seen, mm; None for all.
    """

    kind: Kind
    storey: str = ""
    cut: float = CUT_HEIGHT
    side: str = ""
    corner: str = ""
    line: tuple[float, float, float, float] | None = None
    depth: float | None = None

    def __post_init__(self) -> None:
        if self.kind not in KINDS:
            raise ViewError(f"“{self.kind}” is no kind of view. Kinds are {', '.join(KINDS)}.")
        if self.kind == "plan" and not self.storey:
            raise ViewError("A plan needs a storey.")
        if not math.isfinite(self.cut) or not 0 < self.cut <= 100_000:
            raise ViewError(f"A cut {self.cut:g} mm above the floor cannot be made; give more than 0 mm.")
        if self.kind == "elevation" and self.side not in SIDES:
            raise ViewError(f"“{self.side}” is no side for an elevation. Sides are {', '.join(SIDES)}.")
        if self.kind == "axonometric" and self.corner not in CORNERS:
            raise ViewError(f"“{self.corner}” is no corner for an axonometric. Corners are {', '.join(CORNERS)}.")
        if self.kind == "section":
            if self.line is None or not all(map(math.isfinite, self.line)):
                raise ViewError("A section needs a line of two points, X1,Y1,X2,Y2 in mm.")
            if math.dist(self.line[:2], self.line[2:]) < 1.0:
                raise ViewError("A section's line needs two points at least 1 mm apart.")
        if self.depth is not None and not (math.isfinite(self.depth) and self.depth > 0):
            raise ViewError(f"A depth of {self.depth:g} mm shows nothing; give more than 0 mm.")

    def as_dict(self) -> dict[str, Any]:
        """The figures that belong to this kind, fit for JSON; equal views give equal dictionaries."""
        belongs = {
            "plan": ("storey", "cut"),
            "roof": (),
            "elevation": ("side",),
            "section": ("line", "depth"),
            "axonometric": ("corner",),
        }[self.kind]
        every = asdict(self)
        return {"kind": self.kind} | {
            name: list(every[name]) if isinstance(every[name], tuple) else every[name] for name in belongs
        }

    @property
    def title(self) -> str:
        """What the view is called when nobody has named it."""
        if self.kind == "plan":
            return f"Plan, {self.storey}"
        if self.kind == "elevation":
            return f"{self.side.capitalize()} elevation"
        if self.kind == "axonometric":
            return f"Axonometric from the {_CORNER_NAMES[self.corner]}"
        return {"roof": "Roof plan", "section": "Section"}[self.kind]

    @classmethod
    def from_dict(cls, given: dict[str, Any]) -> ViewSpec:
        """The view that `as_dict` wrote.

        Raises:
            ViewError: a figure is missing, unknown or out of bounds.
        """
        unknown = set(given) - set(cls.__dataclass_fields__)
        if unknown:
            raise ViewError(f"A view has no “{sorted(unknown)[0]}”.")
        if "kind" not in given:
            raise ViewError(f"A view needs a kind: {', '.join(KINDS)}.")
        values = dict(given)
        try:
            if values.get("line") is not None:
                line = tuple(float(x) for x in values["line"])
                if len(line) != 4:
                    raise ViewError("A section needs a line of two points, X1,Y1,X2,Y2 in mm.")
                values["line"] = line
            if "cut" in values:
                values["cut"] = float(values["cut"])
            if values.get("depth") is not None:
                values["depth"] = float(values["depth"])
        except (TypeError, ValueError) as error:
            raise ViewError("A view's cut, depth and line are numbers in mm.") from error
        for name in ("kind", "storey", "side", "corner"):
            if not isinstance(values.get(name, ""), str):
                raise ViewError(f"A view's {name} is a word, not “{values[name]}”.")
        return cls(**values)


def parse_view(text: str) -> ViewSpec:
    """A view as typed.

    `plan:STOREY[@CUT]`, `roof`, `elevation:SIDE`, `section:X1,Y1,X2,Y2[@DEPTH]` or `axonometric:CORNER`.

    Raises:
        ViewError: the text is none of these.
        NotReachedError: a perspective.
    """
    kind, _, rest = text.strip().partition(":")
    if kind == "perspective":
        raise NotReachedError("Perspectives are not drawn yet; take an axonometric instead.")
    if kind == "plan":
        storey, at, cut = rest.rpartition("@") if re.search(rf"@{_NUMBER}$", rest) else (rest, "", "")
        return ViewSpec("plan", storey=storey, cut=float(cut) if at else CUT_HEIGHT)
    if kind == "section":
        match = re.fullmatch(rf"({_NUMBER}),({_NUMBER}),({_NUMBER}),({_NUMBER})(?:@({_NUMBER}))?", rest)
        if not match:
            raise ViewError("A section is written section:X1,Y1,X2,Y2 or section:X1,Y1,X2,Y2@DEPTH, in mm.")
        x1, y1, x2, y2 = (float(match[i]) for i in range(1, 5))
        return ViewSpec("section", line=(x1, y1, x2, y2), depth=float(match[5]) if match[5] else None)
    if kind == "roof" and rest:
        raise ViewError("A roof plan takes nothing after its name; write roof.")
    return ViewSpec(
        cast(Kind, kind), side=rest if kind == "elevation" else "", corner=rest if kind == "axonometric" else ""
    )
