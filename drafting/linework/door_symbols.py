"""The symbol of a door in a plan: its leaves open, with the way that they go."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np
import shapely
from numpy.typing import NDArray

from drafting.building.doors import FOLDING, REVOLVING, RISING, SLIDING, SWINGING, Door
from drafting.linework.cuts import CutPart
from drafting.views.camera import Camera

Floats = NDArray[np.float64]

#: How thick a leaf is drawn; mm.
LEAF = 40.0
#: Pieces that a quarter of a circle is drawn with: at 1:20 they leave the arc by a fiftieth of a millimetre.
QUARTER = 24
#: A jamb reaches no further than this into the opening: mm, or a share of the width. It ends where the door
#: is thinner than this share of its thickness at its end; looked at in steps, mm.
JAMB, JAMB_SHARE, THINNER, STEP = 150.0, 0.25, 0.75, 2.0
#: Leaves of a folding door, half open, and their angle to the wall; degrees.
FOLDS, FOLD_ANGLE = 4, 60.0


@dataclass(frozen=True, eq=False)
class Frame:
    """What is cut of a door's frame, and the clear width between its jambs, in mm from the beginning of its
    width."""

    parts: list[CutPart]
    start: float
    end: float


def frame_of(door: Door, camera: Camera, parts: list[CutPart]) -> Frame:
    """Of what is cut of a door, the jambs at either end; the rest is its leaf, which the symbol replaces."""
    origin = camera.project(np.array([door.corner]))[0, :2]
    axis, across = (camera.axes[:2] @ np.array(way) for way in (door.along, door.into))
    whole = shapely.union_all([part.area for part in parts])
    reach = min(max(JAMB, JAMB_SHARE * door.width), door.width / 2)

    def band(low: float, high: float) -> shapely.Geometry:
        off = across * 2 * door.depth
        a, b = origin + axis * low, origin + axis * high
        return shapely.polygons([a - off, b - off, b + off, a + off])

    def jamb(from_end: bool) -> float:
        """How far the jamb at one end reaches; 0 where the door is as thick all along."""
        steps = np.arange(STEP / 2, reach, STEP)
        at = origin + axis * (door.width - steps if from_end else steps)[:, None]
        off = across * 2 * door.depth
        slices = shapely.linestrings(np.stack([at - off, at + off], axis=1))
        thick = shapely.length(shapely.intersection(slices, whole))
        thin = np.flatnonzero(thick < THINNER * thick[:3].max(initial=0.0))
        return float(steps[thin[0]] - STEP / 2) if len(thin) else 0.0

    start, end = jamb(False), door.width - jamb(True)
    jambs = shapely.union_all([band(-STEP, start), band(end, door.width + STEP)])
    kept = [
        replace(
            part,
            area=shapely.intersection(part.area, jambs),
            open_lines=shapely.intersection(part.open_lines, jambs),
            layers=(),
        )
        for part in parts
    ]
    return Frame([p for p in kept if not (p.area.is_empty and p.open_lines.is_empty)], start, end)


def door_lines(door: Door, camera: Camera, frame: Frame) -> Iterator[Floats]:
    """The lines of a door's symbol, (n, 2) of u, v each."""
    origin = camera.project(np.array([door.corner]))[0, :2]
    axes = np.stack([camera.axes[:2] @ np.array(door.along), camera.axes[:2] @ np.array(door.into)])
    for line in _lines(door, frame):
        yield origin + line @ axes


def _lines(door: Door, frame: Frame) -> Iterator[Floats]:
    """The same in mm along the width and toward the side to which it opens."""
    clear = frame.end - frame.start

    def at(share: float) -> float:
        return frame.start + share * clear

    for hinge, free, side in SWINGING.get(door.operation, ()):
        foot = 0.0 if side > 0 else -door.depth
        yield from _swung(at(hinge), at(free), foot, side)
    if door.operation.startswith("SWING_FIXED"):
        fixed = (at(0.5), frame.end) if door.operation.endswith("LEFT") else (frame.start, at(0.5))
        yield _box(*fixed, -door.depth / 2 - LEAF / 2, -door.depth / 2 + LEAF / 2)
    for start, end, way in SLIDING.get(door.operation, ()):
        half = way * (end - start) * clear / 2
        yield _box(at(start) + half, at(end) + half, 0.0, LEAF)
        yield from _arrow(at((start + end) / 2), half, 2.5 * LEAF)
    for hung, reach in FOLDING.get(door.operation, ()):
        yield _folded(at(hung), at(reach))
    if door.operation == REVOLVING:
        yield from _revolving((frame.start + frame.end) / 2, -door.depth / 2, clear / 2)
    if door.operation in RISING:
        yield np.array([(frame.start, 0.0), (frame.end, 0.0)])
        yield np.array([(frame.start, -door.depth), (frame.end, -door.depth)])


def _swung(hinge: float, free: float, foot: float, side: int) -> Iterator[Floats]:
    """A leaf at right angles to the wall, and the quarter of a circle that its free edge goes along."""
    way = math.copysign(1.0, free - hinge)
    length = abs(free - hinge)
    yield _box(hinge, hinge + way * LEAF, foot, foot + side * length)
    angle = np.linspace(0.0, math.pi / 2, QUARTER + 1)
    yield np.stack([hinge + way * length * np.cos(angle), foot + side * length * np.sin(angle)], axis=1)


def _box(a0: float, a1: float, b0: float, b1: float) -> Floats:
    return np.array([(a0, b0), (a1, b0), (a1, b1), (a0, b1), (a0, b0)])


def _arrow(start: float, by: float, off: float) -> Iterator[Floats]:
    head = math.copysign(min(80.0, abs(by) / 2), by)
    yield np.array([(start, off), (start + by, off)])
    yield np.array(
        [
            (start + by - head, off - abs(head) / 3),
            (start + by, off),
            (start + by - head, off + abs(head) / 3),
        ]
    )


def _folded(hung: float, reach: float) -> Floats:
    """Narrow leaves in a zigzag, half open."""
    leaf = (reach - hung) / FOLDS
    angle = math.radians(FOLD_ANGLE)
    step, rise = leaf * math.cos(angle), abs(leaf) * math.sin(angle)
    return np.array([(hung + k * step, rise if k % 2 else 0.0) for k in range(FOLDS + 1)])


def _revolving(middle: float, off: float, radius: float) -> Iterator[Floats]:
    angle = np.linspace(0.0, 2 * math.pi, 4 * QUARTER + 1)
    yield np.stack([middle + radius * np.cos(angle), off + radius * np.sin(angle)], axis=1)
    for turn in (math.pi / 4, 3 * math.pi / 4):
        by = radius * np.array([math.cos(turn), math.sin(turn)])
        at = np.array([middle, off])
        yield np.array([at - by, at + by])
