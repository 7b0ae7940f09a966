"""What was stored, opened for work on it."""

from __future__ import annotations

from functools import lru_cache
from pathlib import Path

from drafting.building.model import Building
from drafting.building.store import load_building
from drafting.linework.codec import decode
from drafting.linework.model import Linework
from drafting.render.backend import Sources


def sources_of(linework: dict[str, Path], pictures: dict[str, Path]) -> Sources:
    """What pages refer to, from where it is kept, by its keys."""
    return Sources(
        lambda key: linework_at(linework[key]),
        lambda key: pictures[key].read_bytes(),
        pictures.__contains__,
    )


@lru_cache(maxsize=64)
def linework_at(stored: Path) -> Linework:
    """A stored drawing; the name of its file is its hash."""
    return decode(stored.read_bytes())


@lru_cache(maxsize=2)
def building_at(stored: Path) -> Building:
    """A stored building; the name of its file is its hash, so what was loaded once is never stale."""
    return load_building(stored)
