"""Pictures on templates and sheets: read from SVG, PNG, JPEG, or the first page of a PDF into what can be
printed and cannot do anything."""

from __future__ import annotations

import io
import json
from dataclasses import dataclass
from typing import Any

import pypdfium2
from PIL import Image, ImageOps, UnidentifiedImageError
from svgelements import SVG, Close, Color, Line, Move, Path, Shape, SVGElement

from drafting.errors import SheetError
from drafting.progress import Progress, silent
from drafting.sheets.svg import checked_svg

#: Larger files and pictures are photographs by mistake; bytes and pixels.
MAX_BYTES, MAX_PIXELS = 10_000_000, 36_000_000
MAX_POINTS = 50_000
#: Pixels to the inch of a page of a PDF.
_RESOLUTION = 200
#: Points that a curve of an SVG is drawn with.
_CURVE = 16
Point = tuple[float, float]


@dataclass(frozen=True)
class Outline:
    """A shape of a vector picture: rings from its lower left corner, y upward, in its own units."""

    rings: tuple[tuple[Point, ...], ...]
    fill: str = ""
    stroke: str = ""
    width: float = 0.0
    closed: bool = True


@dataclass(frozen=True, eq=False)
class Picture:
    """A picture of so many units: the outlines of a vector picture, or the file of a PNG or JPEG, as `form`
    says."""

    form: str
    width: float
    height: float
    outlines: tuple[Outline, ...] = ()
    data: bytes = b""
    #: By which its pixels are asked for.
    key: str = ""

    def to_bytes(self) -> bytes:
        """The file that it is kept as."""
        if self.form != "vector":
            return self.data
        shapes = [[o.rings, o.fill, o.stroke, o.width, o.closed] for o in self.outlines]
        return json.dumps({"width": self.width, "height": self.height, "outlines": shapes}).encode()

    @classmethod
    def from_bytes(cls, form: str, width: float, height: float, data: bytes, key: str = "") -> Picture:
        """From the file that it was kept as."""
        if form != "vector":
            return cls(form, width, height, data=data, key=key)
        shapes = json.loads(data)["outlines"]
        return cls(form, width, height, tuple(_kept(shape) for shape in shapes), key=key)


def _kept(shape: list[Any]) -> Outline:
    rings, fill, stroke, width, closed = shape
    return Outline(tuple(tuple((x, y) for x, y in ring) for ring in rings), fill, stroke, width, closed)


def read_picture(data: bytes, name: str, progress: Progress = silent) -> Picture:
    """A picture from a file.

    Raises:
        SheetError: it is too large, is none of SVG, PNG, JPEG and PDF, or holds what paper cannot show.
    """
    progress("Reading the picture", 0.0)
    if len(data) > MAX_BYTES:
        raise SheetError(
            f"“{name}” has {len(data) / 1e6:.0f} MB. A picture on a template has at most "
            f"{MAX_BYTES / 1e6:.0f} MB; "
            "make it smaller, or take an SVG."
        )
    if name.lower().endswith(".svg") or b"<svg" in data[:4096].lower().replace(b"\0", b""):
        return _vector(data, name)
    if data[:5] == b"%PDF-":
        return _page(data, name)
    try:
        with Image.open(io.BytesIO(data)) as opened:
            return _raster(opened, name)
    except SheetError:
        raise
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError, Image.DecompressionBombError):
        raise SheetError(f"“{name}” could not be read. A picture is an SVG, PNG, JPEG or PDF file.") from None


def _raster(opened: Image.Image, name: str) -> Picture:
    if opened.format not in ("PNG", "JPEG"):
        raise SheetError(f"“{name}” is a {opened.format} file. A picture is an SVG, PNG, JPEG or PDF file.")
    if opened.width * opened.height > MAX_PIXELS:
        raise SheetError(
            f"“{name}” has {opened.width} x {opened.height} pixels; at most {MAX_PIXELS / 1e6:.0f} "
            f"million print well."
        )
    form = opened.format.lower()
    # Written anew, upright, without what cameras and programs put beside the pixels.
    upright = ImageOps.exif_transpose(opened).convert("RGB" if form == "jpeg" else "RGBA")
    out = io.BytesIO()
    upright.save(out, opened.format, quality=92)
    return Picture(form, upright.width, upright.height, data=out.getvalue())


def _page(data: bytes, name: str) -> Picture:
    """The first page of a PDF as pixels."""
    try:
        document = pypdfium2.PdfDocument(data)
    except pypdfium2.PdfiumError:
        raise SheetError(f"“{name}” could not be read: it is damaged, or wants a password.") from None
    try:
        wide, high = document[0].get_size()
        fine = min(_RESOLUTION / 72, (MAX_PIXELS / max(wide * high, 1.0)) ** 0.5)
        pixels = document[0].render(scale=fine).to_pil().convert("RGB")
    finally:
        document.close()
    out = io.BytesIO()
    pixels.save(out, "PNG")
    return Picture("png", pixels.width, pixels.height, data=out.getvalue())


def _vector(data: bytes, name: str) -> Picture:
    checked = checked_svg(data, name)
    try:
        svg = SVG.parse(io.BytesIO(checked), reify=True, ppi=96)
        width, height = float(svg.width), float(svg.height)
        outlines = tuple(_outlines(svg, height))
    except Exception as error:  # the parser has no exception of its own for what is no SVG
        raise SheetError(f"“{name}” could not be read as an SVG. Export it again.") from error
    if not outlines or width <= 0 or height <= 0:
        raise SheetError(f"“{name}” has nothing in it that can be drawn.")
    if sum(len(ring) for outline in outlines for ring in outline.rings) > MAX_POINTS:
        raise SheetError(f"“{name}” has more than {MAX_POINTS} points. Make it simpler.")
    return Picture("vector", width, height, outlines)


def _outlines(svg: SVG, height: float) -> list[Outline]:
    found = []
    for element in svg.elements():
        if not isinstance(element, Shape) or _is_hidden(element):
            continue
        fill, stroke = _colour(element.fill), _colour(element.stroke)
        rings, closed = _rings(Path(element), height)
        if rings and (fill or stroke):
            found.append(
                Outline(
                    rings, fill, stroke, float(element.implicit_stroke_width or 0) if stroke else 0.0, closed
                )
            )
    return found


def _is_hidden(element: SVGElement) -> bool:
    return bool(element.values.get("display") == "none" or element.values.get("visibility") == "hidden")


def _colour(colour: Color | None) -> str:
    return "" if colour is None or colour.value is None or not colour.alpha else str(colour.hexrgb).lower()


def _rings(path: Path, height: float) -> tuple[tuple[tuple[Point, ...], ...], bool]:
    rings: list[list[Point]] = []
    closed = False
    for segment in path:
        if isinstance(segment, Move):
            rings.append([_point(segment.end, height)])
        elif isinstance(segment, Close):
            closed = True
        elif isinstance(segment, Line):
            rings[-1].append(_point(segment.end, height))
        else:
            rings[-1] += [_point(segment.point(k / _CURVE), height) for k in range(1, _CURVE + 1)]
    return tuple(tuple(ring) for ring in rings if len(ring) > 1), closed


def _point(point: Any, height: float) -> Point:
    return round(float(point.x), 4), round(height - float(point.y), 4)
