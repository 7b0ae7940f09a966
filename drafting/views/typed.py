"""Views as typed on a command line."""

from __future__ import annotations

import re

from drafting.errors import ViewError
from drafting.views.spec import ANGLE, CUT_HEIGHT, KINDS, Numbers, ViewSpec

#: Each form that can be typed, for whoever shows them.
FORMS = (
    "plan:STOREY[@CUT]",
    "roof",
    "elevation:north|south|east|west|BEARING",
    "section:X1,Y1,X2,Y2[,X3,Y3...][@DEPTH]",
    "axonometric:ne|nw|se|sw|BEARING,ALTITUDE",
    "perspective:EX,EY,EZ,TX,TY,TZ[@ANGLE]",
    "detail:REGION:VIEW",
)

_NUMBER = r"[-+]?(?:\d+\.?\d*|\.\d+)"


def parse_view(text: str) -> ViewSpec:
    """A view as typed, in one of FORMS; a detail's REGION is U,V,RADIUS or U1,V1,U2,V2 or three corners or more.

    Raises:
        ViewError: the text is none of these.
    """
    kind, _, rest = text.strip().partition(":")
    if kind == "plan":
        storey, cut = _at(rest)
        return ViewSpec("plan", storey=storey, cut=CUT_HEIGHT if cut is None else cut)
    if kind == "section":
        line, depth = _at(rest)
        return ViewSpec("section", line=_numbers(line, "A section's line", FORMS[3]), depth=depth)
    if kind == "perspective":
        points, angle = _at(rest)
        given = _numbers(points, "A perspective", FORMS[5])
        if len(given) != 6:
            raise ViewError(f"A perspective is written {FORMS[5]}, eye and target in mm.")
        return ViewSpec("perspective", eye=given[:3], target=given[3:], angle=ANGLE if angle is None else angle)
    if kind == "detail":
        region, _, of = rest.partition(":")
        return ViewSpec("detail", region=_numbers(region, "A detail's region", FORMS[6]), of=parse_view(of))
    if kind == "roof" and rest:
        raise ViewError("A roof plan takes nothing after its name; write roof.")
    if kind == "elevation" and re.fullmatch(_NUMBER, rest):
        return ViewSpec("elevation", bearing=float(rest))
    if kind == "axonometric" and "," in rest:
        bearing, altitude = (*_numbers(rest, "An axonometric", FORMS[4]), 0.0)[:2]
        return ViewSpec("axonometric", bearing=bearing, altitude=altitude)
    if kind not in KINDS:
        raise ViewError(f"“{kind}” is no kind of view. Kinds are {', '.join(KINDS)}.")
    return ViewSpec(kind, side=rest if kind == "elevation" else "", corner=rest if kind == "axonometric" else "")


def _at(text: str) -> tuple[str, float | None]:
    """What stands before a closing @NUMBER, and the number."""
    match = re.fullmatch(rf"(.*)@({_NUMBER})", text)
    return (match[1], float(match[2])) if match else (text, None)


def _numbers(text: str, what: str, form: str) -> Numbers:
    if not re.fullmatch(rf"{_NUMBER}(,{_NUMBER})*", text):
        raise ViewError(f"{what} is made of numbers with commas: {form}, in mm.")
    return tuple(float(x) for x in text.split(","))
