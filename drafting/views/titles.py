"""What views are called when nobody has named them, in each language that they can be named in."""

from __future__ import annotations

from collections.abc import Callable

from drafting.views.axonometric import Axonometric
from drafting.views.compass import wind
from drafting.views.detail import Detail
from drafting.views.elevation import Elevation
from drafting.views.plan import Plan, RoofPlan
from drafting.views.spec import AnyView

_SIDES = {"north": "Nord", "east": "Ost", "south": "Süd", "west": "West"}
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


def _german_wind(point: str) -> str:
    """A point of the compass: "north-east" is "Nordost"."""
    return "".join(_SIDES[part] for part in point.split("-")).capitalize()


def _german(view: AnyView) -> str:
    if isinstance(view, Plan):
        return f"Grundriss {view.storey}"
    if isinstance(view, RoofPlan):
        return "Dachaufsicht"
    if isinstance(view, Elevation):
        return f"{_german_wind((view.side or '') if view.bearing is None else wind(view.bearing))}ansicht"
    if isinstance(view, Axonometric):
        return f"Axonometrie von {_german_wind(wind(view.seen_from))}en"
    if isinstance(view, Detail):
        return f"Detail, {_german(view.of)}"
    return _KINDS.get(view.kind, view.title)


_LANGUAGES: dict[str, Callable[[AnyView], str]] = {"de": _german}
