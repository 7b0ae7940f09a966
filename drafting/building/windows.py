"""Windows: how each of their panels opens, from what the open building-model standard says of it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from drafting.building.doors import InOpening

#: Where the hinge of a panel is, or the middle line that it turns about.
Hinge = Literal["left", "right", "top", "bottom", "level", "upright"]
#: A panel: from where to where along the width and the height, as shares of the whole.
Place = tuple[float, float, float, float]

#: Hinges by how a panel operates (IfcWindowPanelOperationEnum, ISO 16739-1): right and left as seen from
#: outside, where the window opens to. One that tilts and turns has two.
HINGES: dict[str, tuple[Hinge, ...]] = {
    "SIDEHUNGRIGHTHAND": ("right",),
    "SIDEHUNGLEFTHAND": ("left",),
    "TILTANDTURNRIGHTHAND": ("right", "bottom"),
    "TILTANDTURNLEFTHAND": ("left", "bottom"),
    "TOPHUNG": ("top",),
    "BOTTOMHUNG": ("bottom",),
    "PIVOTHORIZONTAL": ("level",),
    "PIVOTVERTICAL": ("upright",),
}

#: Where panels stand in each kind of division (IfcWindowTypePartitioningEnum), by their position. Left is
#: where the width begins, which is at the right as seen from outside.
PARTITIONS: dict[str, dict[str, Place]] = {
    "SINGLE_PANEL": {"MIDDLE": (0.0, 1.0, 0.0, 1.0)},
    "DOUBLE_PANEL_VERTICAL": {"LEFT": (0.0, 0.5, 0.0, 1.0), "RIGHT": (0.5, 1.0, 0.0, 1.0)},
    "DOUBLE_PANEL_HORIZONTAL": {"BOTTOM": (0.0, 1.0, 0.0, 0.5), "TOP": (0.0, 1.0, 0.5, 1.0)},
    "TRIPLE_PANEL_VERTICAL": {
        "LEFT": (0.0, 1 / 3, 0.0, 1.0), "MIDDLE": (1 / 3, 2 / 3, 0.0, 1.0), "RIGHT": (2 / 3, 1.0, 0.0, 1.0),
    },
    "TRIPLE_PANEL_HORIZONTAL": {
        "BOTTOM": (0.0, 1.0, 0.0, 1 / 3), "MIDDLE": (0.0, 1.0, 1 / 3, 2 / 3), "TOP": (0.0, 1.0, 2 / 3, 1.0),
    },
    "TRIPLE_PANEL_BOTTOM": {
        "LEFT": (0.0, 0.5, 0.5, 1.0), "RIGHT": (0.5, 1.0, 0.5, 1.0), "BOTTOM": (0.0, 1.0, 0.0, 0.5),
    },
    "TRIPLE_PANEL_TOP": {
        "LEFT": (0.0, 0.5, 0.0, 0.5), "RIGHT": (0.5, 1.0, 0.0, 0.5), "TOP": (0.0, 1.0, 0.5, 1.0),
    },
    "TRIPLE_PANEL_LEFT": {
        "LEFT": (0.0, 0.5, 0.0, 1.0), "BOTTOM": (0.5, 1.0, 0.0, 0.5), "TOP": (0.5, 1.0, 0.5, 1.0),
    },
    "TRIPLE_PANEL_RIGHT": {
        "RIGHT": (0.5, 1.0, 0.0, 1.0), "BOTTOM": (0.0, 0.5, 0.0, 0.5), "TOP": (0.0, 0.5, 0.5, 1.0),
    },
}  # fmt: skip


@dataclass(frozen=True)
class Panel:
    """A panel that opens: its place in the window, and where it is hung; a tilting one has two hinges."""

    place: Place
    hinges: tuple[Hinge, ...]


@dataclass(frozen=True)
class BuildingWindow(InOpening):
    """A window in its opening; `panels` are those that open."""

    panels: tuple[Panel, ...]


def panels_of(partition: str, operations: Mapping[str, str]) -> tuple[Panel, ...]:
    """The panels of a window that open, by the operation at each position.

    A window of one panel has it wherever the file says it stands.

    >>> panels_of("DOUBLE_PANEL_VERTICAL", {"LEFT": "FIXEDCASEMENT", "RIGHT": "TOPHUNG"})
    (Panel(place=(0.5, 1.0, 0.0, 1.0), hinges=('top',)),)
    """
    places = PARTITIONS.get(partition, PARTITIONS["SINGLE_PANEL"] if len(operations) == 1 else {})
    if len(places) == 1 and len(operations) == 1:
        operations = dict.fromkeys(places, next(iter(operations.values())))
    return tuple(
        Panel(places[position], HINGES[operation])
        for position, operation in operations.items()
        if position in places and operation in HINGES
    )
