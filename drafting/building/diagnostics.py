"""What looks wrong about a building as its file has it, in sentences that say what to do."""

from __future__ import annotations

import numpy as np

from drafting.building.model import Building
from drafting.building.openings import DOOR_CLASSES
from drafting.building.units import UNIT_NAMES, UNITS

#: No building's longest side is outside this, mm: from a shed to a long hall with its site.
MIN_SIZE, MAX_SIZE = 1_500.0, 2_000_000.0
#: An element this many times further from the middle of most elements than most elements reach is a stray.
STRAY_FACTOR = 20.0
#: Nothing nearer than this is a stray, mm.
NEAR_ENOUGH = 100_000.0
#: An area is as the file says within this: m2, or a share of it.
AREA_SLACK, AREA_SHARE = 0.1, 0.02
#: So many are named; the rest are counted.
MAX_NAMED = 3


def warnings_about(building: Building) -> list[str]:
    """Sentences about a strange size, stray elements, elements in no storey, open meshes, doors that do not
    say how they open, and rooms that are not as large as the file says."""
    return [
        *_strange_size(building),
        *_stray(building),
        *_unplaced(building),
        *_open(building),
        *_doors(building),
        *_rooms(building),
    ]


def _strange_size(building: Building) -> list[str]:
    built = ~building.ground[building.triangle_element]
    corners = building.vertices[building.triangles[built if built.any() else ~built]]
    size = float(np.ptp(corners.reshape(-1, 3), axis=0).max())
    if MIN_SIZE <= size <= MAX_SIZE:
        return []
    own = next((unit for unit, name in UNIT_NAMES.items() if name == building.unit), "mm")
    fitting = [
        UNIT_NAMES[unit]
        for unit, length in UNITS.items()
        if unit != own and 2 * MIN_SIZE <= size * length / UNITS[own] <= MAX_SIZE / 4
    ]
    sentence = f"The building is {size / 1000:,.3g} m long, which is no size for a building."
    if fitting:
        likely = " or ".join(f"{name}s" for name in fitting[:2])
        sentence += f" If its figures are {likely}, import it again in that unit."
    return [sentence]


def _stray(building: Building) -> list[str]:
    owner = np.repeat(building.triangle_element, 3)
    corners = building.vertices[building.triangles.reshape(-1)]
    count = np.maximum(np.bincount(owner, minlength=len(building.elements)), 1)
    places = (
        np.stack([np.bincount(owner, corners[:, k], len(building.elements)) for k in range(3)], 1)
        / count[:, None]
    )
    away = np.linalg.norm(places - np.median(places, axis=0), axis=1)
    limit = max(float(np.median(away)) * STRAY_FACTOR, NEAR_ENOUGH)
    stray = np.flatnonzero(away > limit)
    if not len(stray) or len(building.elements) < 3:
        return []
    furthest = float(away[stray].max()) / 1000
    what = _named(building, stray.tolist())
    verb = "is" if len(stray) == 1 else "are"
    return [f"{what} {verb} up to {furthest:,.0f} m from the rest. Check whether that is intended."]


def _unplaced(building: Building) -> list[str]:
    if not building.storeys:
        return ["The file has no storeys, and so there are no plans to make by storey."]
    none = [k for k, e in enumerate(building.elements) if e.storey < 0 and e.id in building.unplaced]
    if not none:
        return []
    return [f"{_named(building, none)} {'is' if len(none) == 1 else 'are'} in no storey and on no site."]


def _open(building: Building) -> list[str]:
    loose = np.flatnonzero(~building.topology.closed).tolist()
    if not loose:
        return []
    verb, they = (
        ("is not a closed solid", "it is") if len(loose) == 1 else ("are not closed solids", "they are")
    )
    return [f"{_named(building, loose)} {verb}; {they} drawn as far as the faces go."]


def _doors(building: Building) -> list[str]:
    silent = [
        k for k, e in enumerate(building.elements) if e.ifc_class in DOOR_CLASSES and k not in building.doors
    ]
    if not silent:
        return []
    verb, they = ("does", "it is") if len(silent) == 1 else ("do", "they are")
    return [f"{_named(building, silent)} {verb} not say how to open; {they} drawn as modelled."]


def _rooms(building: Building) -> list[str]:
    unlike = [
        room
        for room in building.rooms
        if room.quantity is not None
        and abs(room.area / 1e6 - room.quantity) > max(AREA_SLACK, AREA_SHARE * room.quantity)
    ]
    if not unlike:
        return []
    room = unlike[0]
    more = f", and {len(unlike) - 1} more differ" if len(unlike) > 1 else ""
    return [
        f"The file gives {room.quantity:.2f} m² for the room “{room.name or room.number}”, and its outline "
        f"has {room.area / 1e6:.2f}{more}. Plans and schedules have the outline's."
    ]


def _named(building: Building, which: list[int]) -> str:
    """The first few by name, and how many more."""
    names = [f"“{building.elements[k].name or building.elements[k].id}”" for k in which[:MAX_NAMED]]
    more = len(which) - len(names)
    if more:
        return f"{', '.join(names)} and {more} more"
    return f"{', '.join(names[:-1])} and {names[-1]}" if len(names) > 1 else names[0]
