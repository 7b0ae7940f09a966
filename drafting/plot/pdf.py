"""Pages to PDF: vector, true to size, text as text, fonts embedded, layers to switch; the same bytes for the same
input."""

from __future__ import annotations

import io
from collections.abc import Callable, Iterable

import numpy as np
from numpy.typing import NDArray
from reportlab.lib.colors import HexColor
from reportlab.lib.utils import ImageReader
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

from drafting.linework.model import Linework
from drafting.plot.display import (
    Clipped,
    Fill,
    Floats,
    Image,
    Path,
    Primitive,
    Strokes,
    Text,
    expand,
    no_picture,
)
from drafting.plot.lettering import BOLD, CAP_HEIGHT, REGULAR
from drafting.plot.page import Page
from drafting.plot.pdf_document import block_mark, finished
from drafting.plot.pens import Pen
from drafting.plot.pixels import grey

#: Points of PDF (1/72 inch) in a millimetre.
POINT = 72 / 25.4
#: Lines are written in whole thousandths of a millimetre, which are short and fast to write.
FINE = 1000
_FINER = f"{1 / FINE:g} 0 0 {1 / FINE:g} 0 0 cm\n".encode()
#: So many lines are stroked as one path: readers are slow with larger ones.
AT_ONCE = 400


def write_pdf(
    pages: Iterable[Page],
    linework: Callable[[str], Linework],
    title: str = "",
    author: str = "",
    pictures: Callable[[str], bytes] = no_picture,
) -> bytes:
    """A PDF with a page for each sheet, in its own size, named in the outline and labelled with its number.

    `linework` and `pictures` give what display lists name by keys.
    """
    _register_fonts()
    out = io.BytesIO()
    canvas = Canvas(out, invariant=1, pageCompression=0, initialFontName="lettering")
    canvas.setTitle(title)
    canvas.setAuthor(author)
    canvas.setCreator("Dunefold")
    layers: dict[str, str] = {}
    blocks: list[bytes] = []
    numbers, date = [], ""
    for k, page in enumerate(pages):
        canvas.setPageSize((page.width * POINT, page.height * POINT))
        canvas.bookmarkPage(f"sheet-{k}")
        canvas.addOutlineEntry(page.name, f"sheet-{k}")
        _PageWriter(canvas, layers, blocks, pictures).write(page, linework)
        canvas.showPage()
        numbers.append(page.number)
        date = max(date, page.date)
    canvas.save()
    named = {key: name for name, key in layers.items()}
    return finished(out, blocks, numbers, named, title, author, date)


def _register_fonts() -> None:
    for name, path in (("lettering", REGULAR), ("lettering-bold", BOLD)):
        if name not in pdfmetrics.getRegisteredFontNames():
            pdfmetrics.registerFont(TTFont(name, str(path)))


class _PageWriter:
    """Writes one page. `layers` gives each layer its name in the file, and grows; so do `blocks`: lines are laid into
    the page afterwards, for the library would turn each of their letters through a table."""

    def __init__(
        self, canvas: Canvas, layers: dict[str, str], blocks: list[bytes], pictures: Callable[[str], bytes]
    ) -> None:
        self.canvas, self.layers, self.blocks, self.pictures = canvas, layers, blocks, pictures
        self.layer = ""
        self.opacity = 1.0

    def write(self, page: Page, linework: Callable[[str], Linework]) -> None:
        canvas = self.canvas
        canvas.scale(POINT, POINT)
        canvas.setLineJoin(1)
        canvas.setLineCap(1)
        canvas.saveState()
        if page.window:
            self._clip(np.array(page.window.corners))
        x, y = page.at
        canvas.addLiteral(f"{page.scale:.9g} 0 0 {page.scale:.9g} {x:.6f} {y:.6f} cm")
        for item in expand(page.display, linework):
            self._item(item)
        self._on_layer("")
        canvas.restoreState()
        for item in page.over:
            self._item(item)
        self._on_layer("")

    def _item(self, item: Primitive | Strokes) -> None:
        if isinstance(item, Clipped):
            self._on_layer("")
            outside = self.opacity
            self.canvas.saveState()
            self._clip(np.array(item.clip))
            for inner in item.items:
                self._item(inner)
            self._on_layer("")
            self.canvas.restoreState()
            self.opacity = outside
            return
        self._on_layer(item.layer)
        if isinstance(item, Path):
            self._stroke(item.points, np.zeros(1, int), item.pen, b"s\n" if item.closed else b"S\n")
        elif isinstance(item, Strokes):
            self._stroke(item.points, item.starts, item.pen)
        elif isinstance(item, Fill):
            self._fill(item)
        elif isinstance(item, Text):
            self._text(item)
        else:
            self._image(item)

    def _on_layer(self, name: str) -> None:
        if name != self.layer:
            if self.layer:
                self.canvas.addLiteral("EMC")
            if name:
                self.canvas.addLiteral(f"/OC /{self.layers.setdefault(name, f'L{len(self.layers)}')} BDC")
            self.layer = name

    def _put(self, *parts: bytes) -> None:
        self.canvas.addLiteral(block_mark(len(self.blocks)))
        self.blocks.append(b"".join(parts))

    def _clip(self, corners: Floats) -> None:
        self._put(_FINER, _rings((corners,)), b"W n %d 0 0 %d 0 0 cm" % (FINE, FINE))

    def _stroke(self, points: Floats, starts: NDArray[np.int64], pen: Pen, paint: bytes = b"S\n") -> None:
        head = f"{_colour(pen.ink)} RG {pen.width * FINE:.4g} w\n"
        if pen.pattern:
            # The end of a dash is square, or its round ends would eat up the gap.
            head += f"0 J [{' '.join(f'{length * FINE:.5g}' for length in pen.dashes)}] 0 d\n"
        paths = []
        for k in range(0, len(starts), AT_ONCE):
            first, after = starts[k], starts[k + AT_ONCE] if k + AT_ONCE < len(starts) else len(points)
            paths += [_lines(points[first:after], starts[k : k + AT_ONCE] - first), paint]
        self._put(b"q ", _FINER, head.encode(), *paths, b"Q")

    def _fill(self, item: Fill) -> None:
        if item.opacity != self.opacity:
            self.canvas.setFillAlpha(item.opacity)
            self.opacity = item.opacity
        self._put(b"q ", _FINER, f"{_colour(item.colour)} rg\n".encode(), _rings(item.rings), b"f* Q")

    def _text(self, item: Text) -> None:
        canvas = self.canvas
        if self.opacity != 1.0:
            canvas.setFillAlpha(1.0)
            self.opacity = 1.0
        canvas.setFillColor(HexColor(item.colour))
        canvas.setFont("lettering-bold" if item.bold else "lettering", item.size / CAP_HEIGHT)
        draw = {"start": canvas.drawString, "middle": canvas.drawCentredString, "end": canvas.drawRightString}
        draw[item.anchor](*item.at, item.text)

    def _image(self, item: Image) -> None:
        pixels = self.pictures(item.picture)
        reader = ImageReader(io.BytesIO(grey(pixels) if item.grey else pixels))
        self.canvas.drawImage(reader, item.box.x, item.box.y, item.box.width, item.box.height, mask="auto")


def _lines(points: Floats, starts: NDArray[np.int64]) -> bytes:
    """The operators of many polylines."""
    forms = [b"%d %d l\n"] * len(points)
    for start in starts.tolist():
        forms[start] = b"%d %d m\n"
    return b"".join(forms) % tuple(np.rint(points * FINE).astype(int).ravel().tolist())


def _rings(rings: Iterable[Floats]) -> bytes:
    return b"".join(_lines(ring, np.zeros(1, int)) + b"h\n" for ring in rings)


def _colour(colour: str) -> str:
    parts = (int(colour[k : k + 2], 16) / 255 for k in (1, 3, 5))
    return " ".join(f"{part:.4g}" for part in parts)
