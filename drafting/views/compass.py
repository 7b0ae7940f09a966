"""The points of the compass, which views are named after."""

from __future__ import annotations

#: The sixteen points of the compass, clockwise from north.
WINDS = (
    "north", "north-north-east", "north-east", "east-north-east", "east", "east-south-east", "south-east",
    "south-south-east", "south", "south-south-west", "south-west", "west-south-west", "west",
    "west-north-west", "north-west", "north-north-west",
)  # fmt: skip


def wind(bearing: float) -> str:
    """The point of the compass that is nearest to a bearing, degrees clockwise from north.

    >>> wind(285.95)
    'west-north-west'
    """
    return WINDS[round(bearing * len(WINDS) / 360.0) % len(WINDS)]
