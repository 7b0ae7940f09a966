"""Triangles without area, which files leave where a corner lies on the side of another triangle."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Ints = NDArray[np.int32]
Longs = NDArray[np.int64]
Bools = NDArray[np.bool_]

#: A triangle thinner than this (mm, its least height) covers nothing and is left out.
THINNEST = 1e-4
#: Slivers lie on slivers no deeper than this; what is left then is only left out.
ROUNDS = 12


def wide_enough(points: Floats, faces: Ints) -> tuple[Floats, Floats, Bools]:
    """The cross product of two sides of each face, its length, twice the area, and whether it covers
    anything."""
    p, q, r = (points[faces[:, k]] for k in range(3))
    normal = np.cross(q - p, r - p)
    double_area = np.linalg.norm(normal, axis=1)
    longest = np.sqrt(np.max([((q - p) ** 2).sum(1), ((r - q) ** 2).sum(1), ((p - r) ** 2).sum(1)], axis=0))
    return normal, double_area, double_area > THINNEST * np.maximum(longest, THINNEST)


def without_slivers(points: Floats, faces: Ints) -> tuple[Ints, Longs]:
    """Faces that all cover something, and which of those that were given each comes from.

    A sliver is what joins a face to two others that share its long side, with a corner between them. Were it
    only left out, the three would stand side by side unjoined, with lines between them; so that face is
    divided at the corner.
    """
    source = np.arange(len(faces))
    for _ in range(ROUNDS):
        thin = np.flatnonzero(~wide_enough(points, faces)[2])
        if not len(thin):
            break
        faces, source = _divided(points, faces, source, thin)
    wide = wide_enough(points, faces)[2]
    return faces[wide], source[wide]


def _divided(points: Floats, faces: Ints, source: Longs, thin: Longs) -> tuple[Ints, Longs]:
    """Faces after one round: each sliver is gone, with the face at its long side divided in its place.

    One whose face has been divided in this round already waits for the next.
    """
    ends = np.sort(faces[:, [[0, 1], [1, 2], [2, 0]]], axis=2).astype(np.int64)
    key = (ends[:, :, 0] * len(points) + ends[:, :, 1]).reshape(-1)
    order = np.argsort(key, kind="stable")
    ordered = key[order]
    gone: set[int] = set()
    parts: list[tuple[int, int, int]] = []
    parts_source: list[int] = []
    for sliver in thin.tolist():
        corners = faces[sliver]
        if sliver in gone:
            continue
        if len(set(corners.tolist())) < 3:
            gone.add(sliver)
            continue
        sides = points[np.roll(corners, -1)] - points[corners]
        longest = int(np.argmax((sides**2).sum(axis=1)))
        middle = int(corners[(longest + 2) % 3])
        wanted = key[3 * sliver + longest]
        first, after = np.searchsorted(ordered, [wanted, wanted + 1])
        beside = [int(side) for side in order[first:after] if side // 3 != sliver]
        if any(side // 3 in gone for side in beside):
            continue
        gone.add(sliver)
        if beside:
            face, side = divmod(beside[0], 3)
            a, b, c = (int(faces[face][(side + k) % 3]) for k in range(3))
            gone.add(face)
            parts += [(a, middle, c), (middle, b, c)]
            parts_source += [int(source[face])] * 2
    kept = np.setdiff1d(np.arange(len(faces)), list(gone))
    if not parts:
        return faces[kept], source[kept]
    return np.concatenate([faces[kept], np.array(parts, np.int32)]), np.concatenate(
        [source[kept], parts_source]
    )
