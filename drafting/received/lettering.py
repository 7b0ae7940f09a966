"""Words of drawings from others as outlines, in the lettering that is at hand."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

from ezdxf.fonts import fonts

from drafting.geometry.boxes import Point
from drafting.styles.lettering import FONTS, REGULAR

_loaded = False


def outlined(
    words: str, height: float, at: Point, angle: float, share: float = 0.0, lift: float = 0.0
) -> Iterator[Sequence[Point]]:
    """The outlines of words.

    Args:
        height: of a capital, in the unit of `at`.
        at: on the base line, where the words begin.
        angle: of the base line, degrees anticlockwise.
        share: how much of their width they stand to the left, from 0 to 1.
        lift: how much of their height they stand lower, from 0 to 1.
    """
    global _loaded
    if not _loaded:
        # What fonts this machine may have beside is of no interest: a drawing is the same on each.
        fonts.font_manager.clear()
        fonts.font_manager.build(folders=[str(FONTS)], support_dirs=False)
        _loaded = True
    font = fonts.TrueTypeFont(REGULAR.name, height, 1.0)
    wide = font.text_width(words)
    cos, sin = math.cos(math.radians(angle)), math.sin(math.radians(angle))
    path = font.text_path(words)
    if not len(path):
        return
    for outline in path.to_path().sub_paths():
        points = [(p.x - share * wide, p.y - lift * height) for p in outline.flattening(height / 60, 2)]
        yield [(at[0] + x * cos - y * sin, at[1] + x * sin + y * cos) for x, y in points]
