"""Symbols from files: an SVG is one symbol, of a DXF each block is one, or all of it where it has none."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from pathlib import Path
from typing import Any

from drafting.annotation.symbols import MAX_LINES, MAX_POINTS, SymbolLine, SymbolSpec, dump_symbol
from drafting.errors import SheetError
from drafting.geometry.boxes import Point
from drafting.progress import Progress, silent
from drafting.received.dxf import DxfReader
from drafting.sheets.picture import read_picture
from drafting.styles.pens import INK

#: CSS, 1 px: a ninety-sixth of an inch, mm.
PIXEL = 25.4 / 96
MAX_SYMBOLS = 200


def read_symbols(data: bytes, name: str, progress: Progress = silent) -> list[dict[str, Any]]:
    """The symbols in a file, each its name and its drawing as plain data.

    Raises:
        SheetError: there is none in it that can be drawn.
    """
    progress("Reading the symbols", 0.0)
    found = _from_svg(data, name) if _is_svg(data, name) else _from_dxf(data, name)
    if not found:
        raise SheetError(f"“{name}” has nothing in it that a symbol can be made from.")
    return [{"name": label[:100], "spec": dump_symbol(spec)} for label, spec in found[:MAX_SYMBOLS]]


def _is_svg(data: bytes, name: str) -> bool:
    return name.lower().endswith(".svg") or b"<svg" in data[:4096].lower()


def _from_svg(data: bytes, name: str) -> list[tuple[str, SymbolSpec]]:
    picture = read_picture(data, name)
    middle = picture.width / 2, picture.height / 2
    lines = []
    for outline in picture.outlines:
        for ring in outline.rings:
            points = tuple(
                (round((x - middle[0]) * PIXEL, 3), round((y - middle[1]) * PIXEL, 3)) for x, y in ring
            )
            if len(points) > 1:
                width = min(max(outline.width * PIXEL, 0.13), 2.0) if outline.stroke else 0
                closed = outline.closed or bool(outline.fill)
                lines.append(SymbolLine(points, closed, width, outline.stroke or INK, outline.fill))
    return [(Path(name).stem, _spec(name, lines))]


def _from_dxf(data: bytes, name: str) -> list[tuple[str, SymbolSpec]]:
    reader = DxfReader(data, name)
    scale = reader.mm or 1.0
    found = []
    for label, base, lines in reader.blocks():
        spec = _spec(label, _in_mm(lines, base, scale))
        found.append((label, spec))
    if found:
        return found
    lines = list(reader.lines())
    points = [point for line in lines for point in line]
    if not points:
        return []
    xs, ys = [x for x, _ in points], [y for _, y in points]
    base = (min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2
    return [(Path(name).stem, _spec(name, _in_mm(lines, base, scale)))]


def _in_mm(lines: Iterable[Sequence[Point]], base: Point, scale: float) -> list[SymbolLine]:
    made = []
    for line in lines:
        points = [(round((x - base[0]) * scale, 3), round((y - base[1]) * scale, 3)) for x, y in line]
        closed = len(points) > 3 and math.dist(points[0], points[-1]) < 1e-3
        points = points[:-1] if closed else points
        if len(points) > 1:
            made.append(SymbolLine(tuple(points), closed))
    return made


def _spec(name: str, lines: Sequence[SymbolLine]) -> SymbolSpec:
    count = sum(len(line.points) for line in lines)
    if not lines:
        raise SheetError(f"“{name}” has no lines to make a symbol from.")
    if len(lines) > MAX_LINES or count > MAX_POINTS:
        raise SheetError(f"“{name}” has {len(lines)} lines and {count} points. Make it simpler.")
    reach = max(abs(c) for line in lines for point in line.points for c in point)
    # What is larger than any mark on paper is of real size.
    return SymbolSpec(tuple(lines), real=reach > 150.0)
