"""Spot levels: the height of a point in an elevation or a section (ISO 129-1: levels)."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from drafting.annotation.anchors import Anchor
from drafting.annotation.notes import Offset
from drafting.schema import CLOSED, Flag


@dataclass(frozen=True)
class SpotLevel:
    """The height of a point above the building's zero, on a short line at that height.

    Attributes:
        offset: from the point to the tip of the triangle, paper mm; along the level, so its height is zero.
        feet: whether it is in feet and inches, and not in metres.
        override: what is typed over the true figure; blank for the figure.
    """

    __pydantic_config__ = CLOSED

    at: Anchor
    offset: Offset = 0.0
    feet: Flag = False
    override: Annotated[str, Field(max_length=60)] = ""
    kind: Literal["level"] = "level"
