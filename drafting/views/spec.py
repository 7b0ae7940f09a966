"""What a view is, as kept: its kind, the figures that belong to it, how it treats its lines and what it shows."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Any, Literal, get_args

from drafting.errors import ViewError
from drafting.views.shown import Shown
from drafting.views.treatment import Treatment, known

Kind = Literal["plan", "roof", "elevation", "section", "axonometric", "perspective", "detail"]
KINDS: tuple[Kind, ...] = get_args(Kind)
SIDES = ("north", "south", "east", "west")
CORNERS = ("ne", "nw", "se", "sw")
#: Height of a plan's cut above its storey's floor, mm. Common practice: 1.0 to 1.2 m.
CUT_HEIGHT = 1200.0
#: Field of view of a perspective, degrees: what an eye takes in without turning, the draughtsman's cone of vision.
ANGLE = 60.0
#: Two pieces of a jogged section's line are at right angles when their cosine is below this.
SQUARE = 1e-3

_CORNER_NAMES = {"ne": "north-east", "nw": "north-west", "se": "south-east", "sw": "south-west"}
#: Which figures belong to which kind.
_BELONGS: dict[str, tuple[str, ...]] = {
    "plan": ("storey", "cut", "depth"),
    "roof": ("depth",),
    "elevation": ("side", "bearing", "near", "depth"),
    "section": ("line", "depth"),
    "axonometric": ("corner", "bearing", "altitude"),
    "perspective": ("eye", "target", "angle"),
    "detail": ("of", "region"),
}
_NUMBERS = ("cut", "depth", "bearing", "altitude", "near", "angle")
_TUPLES = ("line", "eye", "target", "region")
_WORDS = ("kind", "storey", "side", "corner")

Numbers = tuple[float, ...]


@dataclass(frozen=True)
class ViewSpec:
    """A look at a building.

    Attributes:
        kind: one of KINDS.
        storey: of a plan, the name (or number from 0) of its storey.
        cut: of a plan, the height of its cut above the storey's floor, mm.
        side: of an elevation, the side it shows.
        corner: of an axonometric, the corner it looks from.
        bearing: in place of a side or a corner, where the viewer stands: degrees clockwise from north.
        altitude: of an axonometric by bearing, how high the viewer stands: degrees above the horizon.
        line: of a section, x1, y1, x2, y2 ... mm; what lies to the left of its direction is seen. A line
            of more than two points has jogs: pieces along the first one cut, those across it join them.
        near: of an elevation, how far from the model's zero towards the viewer it begins, mm; what is
            nearer is cut away. None for all.
        depth: how far is seen from the cut, or from the nearest point of the building, mm; None for all.
        eye, target: of a perspective, x, y, z in mm.
        angle: of a perspective, the field of view, degrees.
        of: of a detail, the view it is a part of.
        region: of a detail, in u, v of that view, mm: a circle (u, v, radius), two corners of a
            rectangle (u1, v1, u2, v2), or three corners or more.
        treatment: how lines are treated.
        shown: what is shown of the building.
    """

    kind: Kind
    storey: str = ""
    cut: float = CUT_HEIGHT
    side: str = ""
    corner: str = ""
    bearing: float | None = None
    altitude: float | None = None
    line: Numbers | None = None
    near: float | None = None
    depth: float | None = None
    eye: Numbers | None = None
    target: Numbers | None = None
    angle: float = ANGLE
    of: ViewSpec | None = None
    region: Numbers | None = None
    treatment: Treatment = field(default_factory=Treatment)
    shown: Shown = field(default_factory=Shown)

    def __post_init__(self) -> None:
        if self.kind not in KINDS:
            raise ViewError(f"“{self.kind}” is no kind of view. Kinds are {', '.join(KINDS)}.")
        if self.kind == "plan" and not self.storey:
            raise ViewError("A plan needs a storey.")
        if not math.isfinite(self.cut) or not 0 < self.cut <= 100_000:
            raise ViewError(f"A cut {self.cut:g} mm above the floor cannot be made; give more than 0 mm.")
        if self.depth is not None and not (math.isfinite(self.depth) and self.depth > 0):
            raise ViewError(f"A depth of {self.depth:g} mm shows nothing; give more than 0 mm.")
        if self.near is not None and not math.isfinite(self.near):
            raise ViewError("A near limit is a number in mm.")
        if self.bearing is not None and not math.isfinite(self.bearing):
            raise ViewError("A bearing is a number of degrees, clockwise from north.")
        if self.treatment.overhead and self.kind not in ("plan", "detail"):
            raise ViewError("Only a plan has a cut above which things hang; leave overhead lines off for other views.")
        check = getattr(self, f"_check_{self.kind}", None)
        if check:
            check()

    def _check_elevation(self) -> None:
        if self.bearing is None and self.side not in SIDES:
            raise ViewError(
                f"“{self.side}” is no side for an elevation. Sides are {', '.join(SIDES)}, or a bearing in degrees."
            )

    def _check_axonometric(self) -> None:
        if self.bearing is None and self.corner not in CORNERS:
            raise ViewError(f"“{self.corner}” is no corner for an axonometric. Corners are {', '.join(CORNERS)}.")
        if self.bearing is not None and not (self.altitude is not None and -89 <= self.altitude <= 89):
            raise ViewError("An axonometric by bearing needs an altitude from -89 to 89 degrees.")

    def _check_section(self) -> None:
        if self.line is None or len(self.line) < 4 or len(self.line) % 2 or not all(map(math.isfinite, self.line)):
            raise ViewError("A section needs a line of two points or more, X1,Y1,X2,Y2 in mm.")
        points = self.corners_of_line
        pieces = [(b[0] - a[0], b[1] - a[1]) for a, b in pairwise(points)]
        if min(math.hypot(*piece) for piece in pieces) < 1.0:
            raise ViewError("A section's line needs points at least 1 mm apart.")
        first = pieces[0]
        for k, piece in enumerate(pieces[1:], 1):
            size = math.hypot(*first) * math.hypot(*piece)
            along = (first[0] * piece[0] + first[1] * piece[1]) / size
            if (abs(along) > SQUARE) if k % 2 else (along < 1 - SQUARE):
                raise ViewError(
                    "A section's line jogs at right angles and goes on in its first direction: "
                    "along, across, along, and so on."
                )
        if len(pieces) % 2 == 0:
            raise ViewError("A section's line ends along its first direction, not with a jog.")

    def _check_perspective(self) -> None:
        for name, point in (("eye", self.eye), ("target", self.target)):
            if point is None or len(point) != 3 or not all(map(math.isfinite, point)):
                raise ViewError(f"A perspective needs its {name}: X,Y,Z in mm.")
        assert self.eye and self.target
        if math.dist(self.eye, self.target) < 10.0:
            raise ViewError("A perspective's eye and target need to be at least 10 mm apart.")
        if math.dist(self.eye[:2], self.target[:2]) < 1.0:
            raise ViewError("A perspective cannot look straight up or down; move its eye to one side.")
        if not 5 <= self.angle <= 120:
            raise ViewError(f"A field of view of {self.angle:g} degrees is out of bounds; give 5 to 120.")

    def _check_detail(self) -> None:
        if self.of is None or self.of.kind in ("detail", "perspective"):
            raise ViewError("A detail is a part of a plan, roof plan, elevation, section or axonometric.")
        region = self.region
        usual = region is not None and (len(region) in (3, 4) or (len(region) >= 6 and len(region) % 2 == 0))
        if region is None or not usual or not all(map(math.isfinite, region)):
            raise ViewError(
                "A detail needs its region: a circle U,V,RADIUS, a rectangle U1,V1,U2,V2, or three corners or more."
            )
        if (len(region) == 3 and region[2] < 1.0) or (
            len(region) == 4 and min(abs(region[2] - region[0]), abs(region[3] - region[1])) < 1.0
        ):
            raise ViewError("A detail's region needs to be at least 1 mm wide and high.")

    @property
    def corners_of_line(self) -> list[tuple[float, float]]:
        """The points of a section's line."""
        assert self.line is not None  # a section without its line cannot be made
        return [(self.line[i], self.line[i + 1]) for i in range(0, len(self.line), 2)]

    @property
    def to_scale(self) -> bool:
        """Whether lengths can be measured in it; not in a perspective."""
        return self.kind != "perspective"

    def as_dict(self) -> dict[str, Any]:
        """The figures that belong to this kind, fit for JSON; equal views give equal dictionaries."""
        kept: dict[str, Any] = {"kind": self.kind}
        for name in _BELONGS[self.kind]:
            value = getattr(self, name)
            if isinstance(value, ViewSpec):
                value = value.as_dict()
            if value not in (None, ""):
                kept[name] = list(value) if isinstance(value, tuple) else value
        for part in ("treatment", "shown"):
            if given := getattr(self, part).as_dict():
                kept[part] = given
        return kept

    @property
    def title(self) -> str:
        """What the view is called when nobody has named it."""
        if self.kind == "plan":
            return f"Plan, {self.storey}"
        if self.kind == "elevation":
            return f"{self.side.capitalize()} elevation" if self.bearing is None else f"Elevation {self.bearing:g}°"
        if self.kind == "axonometric":
            return f"Axonometric from {f'the {_CORNER_NAMES[self.corner]}' if self.corner else f'{self.bearing:g}°'}"
        if self.kind == "detail":
            assert self.of is not None
            return f"Detail of {self.of.title[0].lower()}{self.of.title[1:]}"
        return {"roof": "Roof plan", "section": "Section", "perspective": "Perspective"}[self.kind]

    @classmethod
    def from_dict(cls, given: Any) -> ViewSpec:
        """The view that `as_dict` wrote.

        Raises:
            ViewError: a figure is missing, unknown or out of bounds.
        """
        values = known(given, cls, "description")
        if "kind" not in values:
            raise ViewError(f"A view needs a kind: {', '.join(KINDS)}.")
        for name in _WORDS:
            if not isinstance(values.get(name, ""), str):
                raise ViewError(f"A view's {name} is a word, not “{values[name]}”.")
        try:
            for name in _NUMBERS:
                if values.get(name) is not None:
                    values[name] = float(values[name])
            for name in _TUPLES:
                if values.get(name) is not None:
                    values[name] = tuple(float(x) for x in values[name])
        except (TypeError, ValueError) as error:
            raise ViewError(f"A view's {name} is made of numbers in mm.") from error
        for name in ("cut", "angle"):
            if name in values and values[name] is None:
                del values[name]
        if values.get("of") is not None:
            values["of"] = cls.from_dict(values["of"])
        values["treatment"] = Treatment.from_dict(values.get("treatment", {}))
        values["shown"] = Shown.from_dict(values.get("shown", {}))
        return cls(**values)
