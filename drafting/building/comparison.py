"""What changed between two versions of a building, element by element."""

from __future__ import annotations

from dataclasses import asdict, dataclass
from typing import Any

import numpy as np
from scipy.spatial import cKDTree

from drafting.building.model import Building, Floats

#: Corners that are further apart than this (mm) are in two places: files round, and a drawing shows no less.
SAME_PLACE = 0.5


@dataclass(frozen=True)
class Changes:
    """Ids of elements. `moved` have kept their shape, `reshaped` have not."""

    added: tuple[str, ...]
    removed: tuple[str, ...]
    moved: tuple[str, ...]
    reshaped: tuple[str, ...]

    def as_dict(self) -> dict[str, Any]:
        return {name: list(ids) for name, ids in asdict(self).items()}


def changes_between(before: Building, after: Building) -> Changes:
    """What it takes to get from one version to another. Elements are the same when their ids are."""
    old, new = _corners(before), _corners(after)
    both = [i for i in new if i in old]
    moved: list[str] = []
    reshaped: list[str] = []
    for i in both:
        if _same(old[i], new[i]):
            continue
        same_shape = _same(old[i] - old[i].min(axis=0), new[i] - new[i].min(axis=0))
        (moved if same_shape else reshaped).append(i)
    return Changes(
        tuple(i for i in new if i not in old),
        tuple(i for i in old if i not in new),
        tuple(moved),
        tuple(reshaped),
    )


def _corners(building: Building) -> dict[str, Floats]:
    """The corners of each element's mesh, each place once."""
    used = building.vertices[building.triangles.reshape(-1)]
    owner = np.repeat(building.triangle_element, 3)
    order = np.argsort(owner, kind="stable")
    starts = np.searchsorted(owner[order], np.arange(len(building.elements) + 1))
    found = {}
    for number, element in enumerate(building.elements):
        points = used[order[starts[number] : starts[number + 1]]]
        found[element.id] = np.unique((points / SAME_PLACE).round(), axis=0) * SAME_PLACE
    return found


def _same(one: Floats, other: Floats) -> bool:
    """Whether two sets of corners are the same, each within SAME_PLACE of one of the other."""
    apart = max(cKDTree(one).query(other)[0].max(), cKDTree(other).query(one)[0].max())
    return bool(apart <= 2 * SAME_PLACE)
