"""Views as they are written on a command line."""

from __future__ import annotations

import re

from drafting.errors import ViewError
from drafting.schema import parse
from drafting.views.detail import Detail
from drafting.views.perspective import ANGLE
from drafting.views.plan import CUT_HEIGHT
from drafting.views.spec import KINDS, AnyView

#: Each form that can be written, for whoever shows them.
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


def parse_view(text: str) -> AnyView:
    """A view as written, in one of FORMS; a detail's REGION is U,V,RADIUS or U1,V1,U2,V2 or three corners or
    more.

    Raises:
        ViewError: the text is none of these.

    >>> parse_view("plan:Ground@1000").cut
    1000.0
    """
    kind, _, rest = text.strip().partition(":")
    if kind not in KINDS:
        raise ViewError(f"“{kind}” is no kind of view. Kinds are {', '.join(KINDS)}.")
    if kind == "received":
        raise ViewError("A drawing from others is no view of a building; bring its file in as such.")
    if kind == "detail":
        region, _, of = rest.partition(":")
        given = {"region": _region(_numbers(region, "A detail's region", FORMS[6])), "of": parse_view(of)}
        detail: Detail = parse(Detail, given, "detail", ViewError)
        return detail
    if kind == "roof" and rest:
        raise ViewError("A roof plan takes nothing after its name; write roof.")
    view: AnyView = parse(AnyView, {"kind": kind, **_figures(kind, rest)}, kind, ViewError)
    return view


def _figures(kind: str, rest: str) -> dict[str, object]:
    before, at = _at(rest)
    if kind == "plan":
        if not before:
            raise ViewError("A plan needs a storey.")
        return {"storey": before, "cut": CUT_HEIGHT if at is None else at}
    if kind == "section":
        figures = _numbers(before, "A section's line", FORMS[3])
        if len(figures) < 4 or len(figures) % 2:
            raise ViewError("A section needs a line of two points or more, X1,Y1,X2,Y2 in mm.")
        return {"line": _pairs(figures), "depth": at}
    if kind == "perspective":
        figures = _numbers(before, "A perspective", FORMS[5])
        if len(figures) != 6:
            raise ViewError(f"A perspective is written {FORMS[5]}, eye and target in mm.")
        return {"eye": figures[:3], "target": figures[3:], "angle": ANGLE if at is None else at}
    if kind == "elevation":
        return {"bearing": float(rest)} if re.fullmatch(_NUMBER, rest) else {"side": rest}
    if kind == "axonometric":
        if "," not in rest:
            return {"corner": rest}
        bearing, altitude = (*_numbers(rest, "An axonometric", FORMS[4]), 0.0)[:2]
        return {"bearing": bearing, "altitude": altitude}
    return {}


def _region(figures: tuple[float, ...]) -> dict[str, object]:
    if len(figures) == 3:
        return {"shape": "circle", "centre": figures[:2], "radius": figures[2]}
    if len(figures) == 4:
        return {"shape": "rectangle", "corner": figures[:2], "opposite": figures[2:]}
    if len(figures) < 6 or len(figures) % 2:
        raise ViewError(
            "A detail needs its region: a circle U,V,RADIUS, a rectangle U1,V1,U2,V2, or three corners or "
            "more."
        )
    return {"shape": "polygon", "corners": _pairs(figures)}


def _pairs(figures: tuple[float, ...]) -> list[tuple[float, ...]]:
    return [figures[k : k + 2] for k in range(0, len(figures), 2)]


def _at(text: str) -> tuple[str, float | None]:
    """What stands before a closing @NUMBER, and the number."""
    match = re.fullmatch(rf"(.*)@({_NUMBER})", text)
    return (match[1], float(match[2])) if match else (text, None)


def _numbers(text: str, what: str, form: str) -> tuple[float, ...]:
    if not re.fullmatch(rf"{_NUMBER}(,{_NUMBER})*", text):
        raise ViewError(f"{what} is made of numbers with commas: {form}, in mm.")
    return tuple(float(x) for x in text.split(","))
