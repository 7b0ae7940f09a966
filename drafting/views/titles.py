"""What views are called when nobody has named them, in each language that they can be named in."""

from __future__ import annotations

from collections.abc import Callable

from drafting.views.axonometric import Axonometric
from drafting.views.detail import Detail
from drafting.views.elevation import Elevation, wind
from drafting.views.plan import Plan, RoofPlan
from drafting.views.spec import AnyView

_SIDES = {"north": "Nord", "east": "Ost", "south": "Süd", "west": "West"}
_CORNERS = {"ne": "Nordosten", "se": "Südosten", "sw": "Südwesten", "nw": "Nordwesten"}
_KINDS = {"section": "Schnitt", "perspective": "Perspektive"}


def title_in(view: AnyView, language: str) -> str:
    """What a view is called in a language, such as "de"; in English where there are no names in it.

    >>> title_in(Elevation("south"), "de")
    'Südansicht'
    >>> title_in(Plan("Erdgeschoss"), "en")
    'Plan, Erdgeschoss'
    """
    named = _LANGUAGES.get(language)
    return named(view) if named else view.title


def _german(view: AnyView) -> str:
    if isinstance(view, Plan):
        return f"Grundriss {view.storey}"
    if isinstance(view, RoofPlan):
        return "Dachaufsicht"
    if isinstance(view, Elevation):
        way = (view.side or "") if view.bearing is None else wind(view.bearing)
        names = [_SIDES[part] for part in way.split("-")]
        return "".join([names[0], *(name.lower() for name in names[1:]), "ansicht"])
    if isinstance(view, Axonometric):
        return f"Axonometrie von {_CORNERS[view.corner] if view.corner else f'{view.bearing:g}°'}"
    if isinstance(view, Detail):
        return f"Detail, {_german(view.of)}"
    return _KINDS.get(view.kind, view.title)


_LANGUAGES: dict[str, Callable[[AnyView], str]] = {"de": _german}
