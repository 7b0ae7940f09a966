"""A building's own axes: drawings, coordinates and the names of sides follow these, whatever grid the file is
on."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from drafting.building.axes import DECIMALS, Axes, compounded, rotation
from drafting.building.doors import Point3
from drafting.building.model import (
    ORIGIN_STEP,
    Building,
    BuildUp,
    Floats,
    GridLine,
    Storey,
)

#: Walls run along an axis when they are within this of it; degrees.
ALONG = 0.1
#: Directions of walls are gathered in steps of this; degrees.
STEP = 0.25
#: A direction is the main one when so much of the upright faces runs along it or across: a round tower of 48
#: facets has a twelfth in each.
MAIN_SHARE = 0.3
#: A placement's axes are believed when so much runs along them of what runs along the best ones.
BELIEVED = 0.5
#: A face is upright when its normal leans less than this (sine).
UPRIGHT = 0.02


def own_axes(building: Building, placed: Sequence[Axes] = ()) -> Axes:
    """The axes of a building whose figures are those of its file.

    They are those of its placement, unless its walls plainly run otherwise: then theirs, turned by at most
    an eighth from the placement's. The origin is that of the placement; where the building stands far from
    it, a whole step nearer.

    Args:
        placed: axes that the file gives: the building's, then the site's.
    """
    first = placed[0] if placed else Axes()
    away = np.round((_middle(building) - first.origin) / ORIGIN_STEP) * ORIGIN_STEP
    away[2] = 0.0
    x, y, z = (float(a + b) for a, b in zip(first.origin, away, strict=True))
    return Axes((x, y, z), _turn(building, [*(axes.turn for axes in placed), 0.0]))


def stands_near(building: Building, axes: Axes) -> bool:
    """Whether a building whose figures are those of its file is within some kilometres of an origin."""
    return bool(np.abs((_middle(building) - axes.origin)[:2]).max() < ORIGIN_STEP)


def _middle(building: Building) -> Floats:
    """Where most of a building is, (3,) mm; one stray element does not move it."""
    return np.asarray(np.median(building.vertices, axis=0))


def _turn(building: Building, candidates: Sequence[float]) -> float:
    angle, area = _upright_faces(building)
    total = float(area.sum())
    if not total:
        return candidates[0]
    main = _main_direction(angle, area)
    most = _share_along(angle, area, main) if main is not None else 0.0
    if main is None or most < MAIN_SHARE * total:
        return candidates[0]
    for candidate in candidates:
        if _share_along(angle, area, candidate) >= BELIEVED * most:
            return candidate
    # Of the four ways that walls run, the one nearest to what the file says.
    nearest = (main - candidates[0] + 45.0) % 90.0 - 45.0
    return round(candidates[0] + nearest, DECIMALS) + 0.0


def _upright_faces(building: Building) -> tuple[Floats, Floats]:
    """The direction of each upright face, degrees within a quarter, and its area, mm2. Walls where there are
    some, else all but the ground."""
    corners = building.vertices[building.triangles]
    normal = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    size = np.linalg.norm(normal, axis=1)
    wall = np.array([element.ifc_class.startswith("IfcWall") for element in building.elements], bool)
    upright = (size > 0) & (np.abs(normal[:, 2]) < UPRIGHT * size)
    walls = upright & wall[building.triangle_element]
    which = walls if walls.any() else upright & ~building.ground[building.triangle_element]
    angle = np.degrees(np.arctan2(normal[which, 1], normal[which, 0])) % 90.0
    return angle, size[which] / 2


def _main_direction(angle: Floats, area: Floats) -> float | None:
    """Where most area gathers, as the mean about the fullest step."""
    steps = round(90.0 / STEP)
    count = np.bincount((angle / STEP).astype(np.int64) % steps, area, steps)
    fullest = int(np.argmax(count + np.roll(count, 1) + np.roll(count, -1)))
    middle = (fullest + 0.5) * STEP
    off = (angle - middle + 45.0) % 90.0 - 45.0
    near = np.abs(off) <= 1.5 * STEP
    weight = float(area[near].sum())
    return float(middle + (off[near] * area[near]).sum() / weight) % 90.0 if weight else None


def _share_along(angle: Floats, area: Floats, direction: float) -> float:
    off = (angle - direction + 45.0) % 90.0 - 45.0
    return float(area[np.abs(off) <= ALONG].sum())


def in_axes(building: Building, axes: Axes) -> Building:
    """A building whose figures are those of its file, in axes of its own.

    What the file calls true north is turned alike. Where it gives none, its own y axis stands for north in a
    building that is turned.
    """
    if axes == Axes():
        return building
    turn, origin = rotation(axes.turn), np.array(axes.origin)
    north = building.true_north
    if north is not None or axes.turn:
        # Clockwise from y to north; the axes have turned the other way.
        north = round(((north or 0.0) + axes.turn + 180.0) % 360.0 - 180.0, DECIMALS) + 0.0

    def placed(point: Sequence[float]) -> Point3:
        x, y, z = (turn @ (np.array([*point, 0.0][:3]) - origin)).tolist()
        return x, y, z

    def turned(way: Sequence[float]) -> Point3:
        x, y, z = (turn @ np.array(way)).tolist()
        return x, y, z

    def flat(point: Sequence[float]) -> tuple[float, float]:
        return placed(point)[:2]

    return replace(
        building,
        vertices=(building.vertices - origin) @ turn.T,
        storeys=tuple(Storey(s.name, s.elevation - axes.origin[2]) for s in building.storeys),
        build_ups={
            k: BuildUp(turned(b.normal), b.start - float(np.dot(b.normal, origin)), b.layers)
            for k, b in building.build_ups.items()
        },
        doors={
            k: replace(d, corner=placed(d.corner), along=turned(d.along), into=turned(d.into))
            for k, d in building.doors.items()
        },
        windows={
            k: replace(w, corner=placed(w.corner), along=turned(w.along), into=turned(w.into))
            for k, w in building.windows.items()
        },
        rooms=tuple(
            replace(
                room,
                floor=room.floor - axes.origin[2],
                place=flat(room.place),
                outline=tuple(tuple(flat(point) for point in ring) for ring in room.outline),
            )
            for room in building.rooms
        ),
        true_north=north,
        grid=tuple(GridLine(line.name, (flat(line.ends[0]), flat(line.ends[1]))) for line in building.grid),
        axes=axes,
        on_grid=compounded(axes, building.on_grid) if building.on_grid else None,
    )
