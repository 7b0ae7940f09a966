"""Drawings whose lines run together at their scale: what is drawn apart comes on paper as one thick line."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
from scipy.spatial import cKDTree

from drafting.checks.checked import CheckedSet, Limit
from drafting.checks.findings import Found, Rule
from drafting.checks.placed_lines import PlacedLines, placed_lines

_KEY = "lines-merge"
MAX_SHARE = Limit("share", "Lines that may run together", "%", 15.0, 1.0, 100.0)
#: Lines nearer than this are one line; those that run within so many degrees of each other are parallel.
SAME, WAY = 0.02, 5.0
#: So many of the nearest points are looked at.
_NEIGHBOURS = 8


def _find(checked: CheckedSet) -> Iterator[Found]:
    most = checked.limit(_KEY, MAX_SHARE) / 100
    for sheet in checked.sheets:
        viewports = {each.placed.id: each for each in sheet.viewports}
        for lines in placed_lines(sheet):
            viewport, share = viewports.get(lines.viewport), merged(lines)
            if viewport is not None and share > most:
                words = (
                    f"At {viewport.placed.scale_text}, {share:.0%} of the lines of “{viewport.placed.name}” "
                    "run together. Choose a larger scale, or show less."
                )
                yield Found.on(sheet, words, viewport)


def merged(lines: PlacedLines) -> float:
    """The share of lines whose ink touches that of others on both sides: two lines side by side come on paper
    as one that is a little wider, three as a band."""
    if len(lines.points) < 2:
        return 0.0
    reach = float(lines.width.max())
    tree = cKDTree(lines.points)
    _, near = tree.query(
        lines.points, k=min(_NEIGHBOURS, len(lines.points)), distance_upper_bound=reach, workers=-1
    )
    there = near < len(lines.points)
    other = np.where(there, near, 0)
    apart = lines.points[other] - lines.points[:, None]
    way = lines.way[:, None]
    across = apart[..., 0] * way[..., 1] - apart[..., 1] * way[..., 0]
    parallel = np.abs((lines.way[other] * way).sum(axis=2)) > np.cos(np.radians(WAY))
    touches = np.abs(across) < (lines.width[other] + lines.width[:, None]) / 2
    beside = there & parallel & touches & (lines.line[other] != lines.line[:, None])
    both = (beside & (across > SAME)).any(axis=1) & (beside & (across < -SAME)).any(axis=1)
    return float(both.mean())


RULE = Rule(_KEY, "Lines that run together", "notice", _find, (MAX_SHARE,))
