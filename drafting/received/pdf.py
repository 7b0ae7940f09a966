"""Lines and lettering of a page of a PDF (ISO 32000-1), with its optional content as layers."""

from __future__ import annotations

import ctypes
import math
from collections.abc import Iterator, Sequence
from typing import Any

import pypdfium2
import pypdfium2.raw as pdfium

from drafting.errors import ReceivedFileError
from drafting.geometry.boxes import Point
from drafting.received.lettering import outlined
from drafting.received.model import NO_LAYER, ReceivedDrawing

#: ISO 32000-1, 8.3.2.3: a unit of a page is a seventy-second of an inch; mm.
POINT = 25.4 / 72
_CURVE, _DEEPEST, _CAPITAL = 12, 12, 0.7
_Matrix = tuple[float, float, float, float, float, float]


def read_pdf(data: bytes, name: str, page: int = 1) -> ReceivedDrawing:
    """The lines of a page, in points of its size on paper, as it is turned to be read.

    Raises:
        ReceivedFileError: it is no PDF, it wants a password, or it has no such page.
    """
    try:
        document = pypdfium2.PdfDocument(data)
    except pypdfium2.PdfiumError as error:
        raise ReceivedFileError(
            f"“{name}” cannot be read as a PDF: it is damaged, or wants a password. Save it without one."
        ) from error
    try:
        if not 1 <= page <= len(document):
            raise ReceivedFileError(f"“{name}” has {len(document)} pages, and no page {page}.")
        found = ReceivedDrawing(POINT, pages=len(document))
        shown = document[page - 1]
        turn = _turned(shown.get_rotation(), *shown.get_size())
        handle = shown.raw
        objects = (pdfium.FPDFPage_GetObject(handle, k) for k in range(pdfium.FPDFPage_CountObjects(handle)))
        pictures = 0
        things = _things(objects, (1, 0, 0, 1, 0, 0), NO_LAYER, 0)
        for number, (thing, matrix, layer) in enumerate(things, 1):
            kind = pdfium.FPDFPageObj_GetType(thing)
            if kind == pdfium.FPDF_PAGEOBJ_IMAGE:
                pictures += 1
            lines = (
                _path(thing)
                if kind == pdfium.FPDF_PAGEOBJ_PATH
                else _text(thing, handle, shown)
                if kind == pdfium.FPDF_PAGEOBJ_TEXT
                else ()
            )
            whole = _product(_matrix_of(thing), matrix)
            for line in lines:
                points = [turn(_moved(whole, point)) for point in line]
                found.add(points, layer, str(number), name, words=kind == pdfium.FPDF_PAGEOBJ_TEXT)
        if pictures:
            found.notes.append(f"{pictures} pictures of pixels are left out: only lines are taken over.")
        if not found.lines:
            found.notes.append("Nothing on this page is made of lines: it may be a scan.")
        return found
    finally:
        document.close()


def _things(
    objects: Iterator[Any], matrix: _Matrix, layer: str, deep: int
) -> Iterator[tuple[Any, _Matrix, str]]:
    """Paths, words and pictures, also those within forms, with what places them and their layer."""
    for thing in objects:
        own = _layer_of(thing) or layer
        if pdfium.FPDFPageObj_GetType(thing) == pdfium.FPDF_PAGEOBJ_FORM and deep < _DEEPEST:
            count = pdfium.FPDFFormObj_CountObjects(thing)
            inner = (pdfium.FPDFFormObj_GetObject(thing, k) for k in range(count))
            yield from _things(inner, _product(_matrix_of(thing), matrix), own, deep + 1)
        else:
            yield thing, matrix, own


def _layer_of(thing: Any) -> str:
    """The name of the optional content that a thing is marked as (ISO 32000-1, 8.11)."""
    for k in range(pdfium.FPDFPageObj_CountMarks(thing)):
        mark = pdfium.FPDFPageObj_GetMark(thing, k)
        length = ctypes.c_ulong()
        buffer = ctypes.create_string_buffer(512)
        if pdfium.FPDFPageObjMark_GetParamStringValue(
            mark, b"Name", ctypes.cast(buffer, ctypes.POINTER(pdfium.FPDF_WCHAR)), 512, length
        ):
            return buffer.raw[: max(length.value - 2, 0)].decode("utf-16-le", "replace")
    return ""


def _matrix_of(thing: Any) -> _Matrix:
    matrix = pdfium.FS_MATRIX()
    if not pdfium.FPDFPageObj_GetMatrix(thing, matrix):
        return 1, 0, 0, 1, 0, 0
    return matrix.a, matrix.b, matrix.c, matrix.d, matrix.e, matrix.f


def _product(m: _Matrix, n: _Matrix) -> _Matrix:
    a, b, c, d, e, f = m
    p, q, r, s, t, u = n
    return a * p + b * r, a * q + b * s, c * p + d * r, c * q + d * s, e * p + f * r + t, e * q + f * s + u


def _moved(m: _Matrix, at: Point) -> Point:
    a, b, c, d, e, f = m
    return a * at[0] + c * at[1] + e, b * at[0] + d * at[1] + f


def _turned(degrees: int, wide: float, high: float) -> Any:
    """From a page as it is stored to one as it is read; its size is that in which it is read."""
    return {
        90: lambda p: (p[1], high - p[0]),
        180: lambda p: (wide - p[0], high - p[1]),
        270: lambda p: (wide - p[1], p[0]),
    }.get(degrees % 360, lambda p: p)


def _path(thing: Any) -> Iterator[Sequence[Point]]:
    points: list[Point] = []
    control: list[Point] = []
    for k in range(pdfium.FPDFPath_CountSegments(thing)):
        segment = pdfium.FPDFPath_GetPathSegment(thing, k)
        x, y = ctypes.c_float(), ctypes.c_float()
        pdfium.FPDFPathSegment_GetPoint(segment, x, y)
        at = x.value, y.value
        kind = pdfium.FPDFPathSegment_GetType(segment)
        if kind == pdfium.FPDF_SEGMENT_MOVETO:
            if len(points) > 1:
                yield points
            points = [at]
        elif kind == pdfium.FPDF_SEGMENT_LINETO:
            points.append(at)
        elif kind == pdfium.FPDF_SEGMENT_BEZIERTO:
            control.append(at)
            if len(control) == 3:
                points.extend(_curve(points[-1] if points else control[0], *control))
                control = []
        if pdfium.FPDFPathSegment_GetClose(segment) and points:
            points.append(points[0])
    if len(points) > 1:
        yield points


def _curve(a: Point, b: Point, c: Point, d: Point) -> Iterator[Point]:
    for k in range(1, _CURVE + 1):
        t = k / _CURVE
        s = 1 - t
        w = s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t
        yield (
            w[0] * a[0] + w[1] * b[0] + w[2] * c[0] + w[3] * d[0],
            w[0] * a[1] + w[1] * b[1] + w[2] * c[1] + w[3] * d[1],
        )


def _text(thing: Any, page: Any, shown: Any) -> Iterator[Sequence[Point]]:
    """Words as outlines, before their matrix."""
    textpage = pdfium.FPDFText_LoadPage(page)
    try:
        need = pdfium.FPDFTextObj_GetText(thing, textpage, None, 0)
        buffer = ctypes.create_string_buffer(max(need, 2))
        pdfium.FPDFTextObj_GetText(
            thing, textpage, ctypes.cast(buffer, ctypes.POINTER(pdfium.FPDF_WCHAR)), need
        )
    finally:
        pdfium.FPDFText_ClosePage(textpage)
    words = buffer.raw[: max(need - 2, 0)].decode("utf-16-le", "replace").strip()
    size = ctypes.c_float()
    pdfium.FPDFTextObj_GetFontSize(thing, size)
    if words and math.isfinite(size.value) and size.value > 0:
        yield from outlined(words, size.value * _CAPITAL, (0.0, 0.0), 0.0)
