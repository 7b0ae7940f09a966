"""Shadows as areas, as they are stored and drawn."""

from __future__ import annotations

from typing import NamedTuple

#: An area in u and v, real mm: its outline, then its holes.
Rings = tuple[tuple[tuple[float, float], ...], ...]


class ShadowAreas(NamedTuple):
    """Areas of what is in the shadow of something else, and of what is turned from the light itself."""

    cast: tuple[Rings, ...]
    own: tuple[Rings, ...]
