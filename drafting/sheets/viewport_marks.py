"""What is derived about a viewport beside its drawing."""

from __future__ import annotations

from dataclasses import dataclass

from drafting.geometry.boxes import Point
from drafting.sheets.climb_tags import ClimbTag
from drafting.sheets.grid_marks import GridMark
from drafting.sheets.level_marks import Level
from drafting.sheets.reference_marks import Mark
from drafting.sheets.room_tags import RoomTag


@dataclass(frozen=True)
class ViewportMarks:
    """Marks, levels, grid, names of rooms and words of stairs of a viewport, the way to north on paper, and
    the rooms that are filled: rings on paper."""

    marks: tuple[Mark, ...] = ()
    levels: tuple[Level, ...] = ()
    grid: tuple[GridMark, ...] = ()
    rooms: tuple[RoomTag, ...] = ()
    north: Point | None = None
    climbs: tuple[ClimbTag, ...] = ()
    filled: tuple[tuple[tuple[Point, ...], ...], ...] = ()
