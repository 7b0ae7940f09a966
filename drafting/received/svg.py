"""Shapes of an SVG as lines; the groups at its top are its layers."""

from __future__ import annotations

import io
from collections.abc import Iterator, Sequence
from typing import Any

from svgelements import SVG, Close, Group, Line, Move, Path, Shape, Text

from drafting.errors import ReceivedFileError, SheetError
from drafting.geometry.boxes import Point
from drafting.received.lettering import outlined
from drafting.received.model import NO_LAYER, ReceivedDrawing
from drafting.sheets.svg import checked_svg

#: CSS: a pixel is a ninety-sixth of an inch; mm.
PIXEL = 25.4 / 96
#: Points that a curve is drawn with; the height of a capital over the size of a font.
_CURVE, _CAPITAL = 16, 0.7


def read_svg(data: bytes, name: str) -> ReceivedDrawing:
    """The lines of an SVG, y upward, in pixels of its size on paper.

    Raises:
        ReceivedFileError: it is none, or holds what is not taken over.
    """
    try:
        checked = checked_svg(data, name, drawing=True)
        svg: Any = SVG.parse(io.BytesIO(checked), reify=True, ppi=96)
        height = float(svg.height)
    except SheetError as error:
        raise ReceivedFileError(str(error)) from error
    except Exception as error:  # the parser has no exception of its own for what is no SVG
        raise ReceivedFileError(f"“{name}” cannot be read as an SVG. Export it again.") from error
    found = ReceivedDrawing(PIXEL)
    for number, (layer, element) in enumerate(_elements(svg, NO_LAYER, top=True), 1):
        key = str(getattr(element, "id", None) or number)
        for points in _lines(element):
            words = isinstance(element, Text)
            found.add([(x, height - y) for x, y in points], layer, key, name, words=words)
    return found


def _elements(group: Any, layer: str, *, top: bool = False) -> Iterator[tuple[str, Any]]:
    for element in group:
        if isinstance(element, Group):
            own = str(getattr(element, "id", None) or layer) if top else layer
            # A drawing often stands in one group, whose own groups are the layers.
            single = top and sum(isinstance(each, Group) for each in group) == 1
            yield from _elements(element, own, top=single)
        elif isinstance(element, Shape | Text) and element.values.get("display") != "none":
            yield layer, element


def _lines(element: Any) -> Iterator[Sequence[Point]]:
    if isinstance(element, Text):
        if element.text and element.font_size:
            at = element.transform.point_in_matrix_space((float(element.x or 0), float(element.y or 0)))
            share = {"middle": 0.5, "end": 1.0}.get(str(element.anchor), 0.0)
            size = float(element.font_size) * _CAPITAL * float(element.transform.determinant) ** 0.5
            # The outlines are upright, and the picture's y points down.
            for outline in outlined(str(element.text), size, (0.0, 0.0), 0.0, share):
                yield [(float(at.x) + x, float(at.y) - y) for x, y in outline]
        return
    points: list[Point] = []
    for segment in Path(element):
        if isinstance(segment, Move):
            if len(points) > 1:
                yield points
            points = [(float(segment.end.x), float(segment.end.y))]
        elif isinstance(segment, Line | Close):
            if segment.end is not None:
                points.append((float(segment.end.x), float(segment.end.y)))
        else:
            found = segment.npoint([k / _CURVE for k in range(1, _CURVE + 1)])
            points.extend((float(x), float(y)) for x, y in found)
    if len(points) > 1:
        yield points
