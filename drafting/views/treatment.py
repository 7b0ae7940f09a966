"""How a view treats its lines: which edges are worth drawing, and which more roles it wants."""

from __future__ import annotations

import math
from dataclasses import dataclass, fields
from typing import Any

from drafting.errors import ViewError

#: Creases sharper than this are edges worth drawing; flatter ones are facets of something smooth. Degrees.
CREASE = 20.0
#: More bands than this nobody tells apart by line width.
MOST_BANDS = 6


@dataclass(frozen=True)
class Treatment:
    """The settings of a view's lines.

    Attributes:
        crease: two faces that meet at a sharper angle than this make an edge, degrees.
        seams: draw seams between touching elements of one material in one plane.
        hidden: draw what is hidden, in a role of its own.
        overhead: of a plan, draw what hangs above its cut.
        far: lines further off than this are far lines, mm; None for none.
        bands: distances, mm, rising, at which pens may change: a line's band is how many of them lie before it.

    Distances are measured from the cut; without one from the nearest point of the building; in a
    perspective from the eye.
    """

    crease: float = CREASE
    seams: bool = False
    hidden: bool = False
    overhead: bool = False
    far: float | None = None
    bands: tuple[float, ...] = ()

    def __post_init__(self) -> None:
        if not 0 < self.crease < 180:
            raise ViewError(f"A crease angle of {self.crease:g} degrees is out of bounds; give 1 to 179.")
        if self.far is not None and not (math.isfinite(self.far) and self.far > 0):
            raise ViewError(f"Far lines beyond {self.far:g} mm would be all lines; give more than 0 mm.")
        if len(self.bands) > MOST_BANDS:
            raise ViewError(f"{len(self.bands)} depth bands are too many to tell apart; give {MOST_BANDS} at most.")
        if any(not (math.isfinite(x) and x > 0) for x in self.bands) or list(self.bands) != sorted(set(self.bands)):
            raise ViewError("Depth bands are distances in mm, each greater than the one before.")

    def as_dict(self) -> dict[str, Any]:
        """What differs from the usual treatment, fit for JSON."""
        return {
            f.name: list(value) if isinstance(value, tuple) else value
            for f in fields(self)
            if (value := getattr(self, f.name)) != f.default
        }

    @classmethod
    def from_dict(cls, given: Any) -> Treatment:
        """The treatment that `as_dict` wrote.

        Raises:
            ViewError: a setting is unknown or out of bounds.
        """
        values = known(given, cls, "line treatment")
        for name in ("seams", "hidden", "overhead"):
            if not isinstance(values.get(name, False), bool):
                raise ViewError(f"A view's setting “{name}” is true or false, not “{values[name]}”.")
        try:
            if "crease" in values:
                values["crease"] = float(values["crease"])
            if values.get("far") is not None:
                values["far"] = float(values["far"])
            values["bands"] = tuple(float(x) for x in values.get("bands") or ())
        except (TypeError, ValueError) as error:
            raise ViewError("Crease angle, far distance and depth bands are numbers.") from error
        return cls(**values)


#: What a view does with its lines when nothing else is asked for.
USUAL = Treatment()


def known(given: Any, form: type, what: str) -> dict[str, Any]:
    """A copy of what was given, if it holds nothing but what the form has.

    Raises:
        ViewError: it is no set of named values, or one is unknown.
    """
    names = [f.name for f in fields(form)]
    if not isinstance(given, dict):
        raise ViewError(f"A view's {what} is given by name: {', '.join(names)}.")
    if unknown := set(given) - set(names):
        raise ViewError(f"A view's {what} has no “{min(unknown)}”. It has {', '.join(names)}.")
    return dict(given)
