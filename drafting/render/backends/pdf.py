"""PDF: vector, true to size, text as text, fonts embedded, layers to switch; the same bytes for the same
input."""

from __future__ import annotations

import io
import math
from collections.abc import Iterable, Iterator, Sequence
from contextlib import contextmanager

import numpy as np
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

from drafting.geometry.polylines import Floats, Polylines
from drafting.render.backend import Backend, Sources
from drafting.render.backends.pdf_document import PageContents, finished
from drafting.render.items import Image, Text
from drafting.render.page import FileInfo, Page
from drafting.render.pixels import grey
from drafting.styles.lettering import BOLD, CAP_HEIGHT, REGULAR, text_width
from drafting.styles.pens import Pen

#: Points of PDF (1/72 inch) in a millimetre.
POINT = 72 / 25.4
#: Lines are written in whole thousandths of a millimetre, which are short and fast to write.
FINE = 1000
_TO_FINE = f"{1 / FINE:g} 0 0 {1 / FINE:g} 0 0 cm\n".encode()
#: So many lines are stroked as one path: readers are slow with larger ones.
LINES_PER_PATH = 400


def write(pages: Iterable[Page], sources: Sources, info: FileInfo) -> bytes:
    """A PDF with a page for each sheet, in its own size, named in the outline and labelled with its
    number."""
    _register_fonts()
    out = io.BytesIO()
    # The library makes the document with its fonts and its outline; what is on the pages is written beside
    # it.
    canvas = Canvas(out, invariant=1, pageCompression=0, initialFontName="lettering")
    canvas.setTitle(info.title)
    canvas.setAuthor(info.author)
    canvas.setCreator("Dunefold")
    contents, date = [], ""
    layers: dict[str, str] = {}
    for k, page in enumerate(pages):
        canvas.setPageSize((page.width * POINT, page.height * POINT))
        canvas.bookmarkPage(f"sheet-{k}")
        canvas.addOutlineEntry(page.name, f"sheet-{k}")
        backend = PdfBackend(sources, canvas, layers)
        page.draw(backend)
        contents.append(backend.finish(page.number))
        canvas.showPage()
        date = max(date, page.date)
    canvas.save()
    return finished(out, contents, {key: name for name, key in layers.items()}, info, date)


def _register_fonts() -> None:
    for name, path in (("lettering", REGULAR), ("lettering-bold", BOLD)):
        if name not in pdfmetrics.getRegisteredFontNames():
            pdfmetrics.registerFont(TTFont(name, str(path)))


class PdfBackend(Backend):
    """Writes the contents of one page. `layers` gives each layer its name in the file, and grows."""

    def __init__(self, sources: Sources, canvas: Canvas, layers: dict[str, str]) -> None:
        super().__init__(sources)
        self._canvas, self._layers = canvas, layers
        self._parts = [f"{POINT:.9g} 0 0 {POINT:.9g} 0 0 cm 1 j 1 J\n".encode()]
        self._images: dict[str, bytes] = {}
        self._opacities: set[float] = set()
        self._layer, self._opacity = "", 1.0

    def finish(self, label: str) -> PageContents:
        """What was written."""
        return PageContents(label, b"".join(self._parts), self._images, frozenset(self._opacities))

    def _write(self, *parts: bytes) -> None:
        self._parts += [*parts, b"\n"]

    @contextmanager
    def _saved(self) -> Iterator[None]:
        self.layer("")
        opacity = self._opacity
        self._write(b"q")
        yield
        self.layer("")
        self._write(b"Q")
        self._opacity = opacity

    @contextmanager
    def on_sheet(self, page: Page) -> Iterator[None]:
        with self._saved():
            if page.window:
                self._clip_to(np.array(page.window.corners))
            x, y = page.at
            self._write(f"{page.scale:.9g} 0 0 {page.scale:.9g} {x:.6f} {y:.6f} cm".encode())
            yield

    @contextmanager
    def clip(self, outline: Sequence[tuple[float, float]]) -> Iterator[None]:
        with self._saved():
            self._clip_to(np.array(outline))
            yield

    def _clip_to(self, corners: Floats) -> None:
        self._write(_TO_FINE, _rings(Polylines.of([corners])), b"W n %d 0 0 %d 0 0 cm" % (FINE, FINE))

    def layer(self, name: str) -> None:
        if name != self._layer:
            if self._layer:
                self._write(b"EMC")
            if name:
                self._write(f"/OC /{self._layers.setdefault(name, f'L{len(self._layers)}')} BDC".encode())
            self._layer = name

    def stroke(self, lines: Polylines, pen: Pen, closed: bool = False) -> None:
        head = f"{_colour(pen.ink)} RG {pen.width * FINE:.4g} w\n"
        if pen.pattern:
            # The end of a dash is square, or its round ends would eat up the gap.
            head += f"0 J [{' '.join(f'{length * FINE:.5g}' for length in pen.dashes)}] 0 d\n"
        paths = []
        for k in range(0, len(lines), LINES_PER_PATH):
            some = lines.starts[k : k + LINES_PER_PATH + 1]
            paths += [
                _path(lines.points[some[0] : some[-1]], some[:-1] - some[0]),
                b"s\n" if closed else b"S\n",
            ]
        self._write(b"q ", _TO_FINE, head.encode(), *paths, b"Q")

    def fill(self, rings: Polylines, colour: str, opacity: float = 1.0) -> None:
        self._set_opacity(opacity)
        self._write(b"q ", _TO_FINE, f"{_colour(colour)} rg\n".encode(), _rings(rings), b"f* Q")

    def _set_opacity(self, opacity: float) -> None:
        if opacity != self._opacity:
            self._opacities.add(opacity)
            self._write(f"/{opacity_name(opacity)} gs".encode())
            self._opacity = opacity

    def text(self, item: Text) -> None:
        self._set_opacity(1.0)
        width = text_width(item.text, item.size, item.bold)
        back = {"start": 0.0, "middle": width / 2, "end": width}[item.anchor]
        turn = math.radians(item.turn)
        cos, sin = math.cos(turn), math.sin(turn)
        words = self._canvas.beginText(item.at[0] - back * cos, item.at[1] - back * sin)
        if item.turn:
            words.setTextTransform(cos, sin, -sin, cos, item.at[0] - back * cos, item.at[1] - back * sin)
        words.setFont("lettering-bold" if item.bold else "lettering", item.size / CAP_HEIGHT)
        words.textOut(item.text)
        self._write(f"{_colour(item.colour)} rg ".encode(), words.getCode().encode("latin-1"))

    def image(self, item: Image) -> None:
        pixels = self.sources.pictures(item.picture)
        name = f"I{len(self._images)}"
        self._images[name] = grey(pixels) if item.grey else pixels
        box = item.box
        self._set_opacity(1.0)
        self._write(
            f"q {box.width:.6f} 0 0 {box.height:.6f} {box.x:.6f} {box.y:.6f} cm /{name} Do Q".encode()
        )


def opacity_name(opacity: float) -> str:
    """What a graphics state of an opacity is called in the file."""
    return f"A{round(opacity * 1000)}"


def _path(points: Floats, starts: np.ndarray) -> bytes:
    """The operators of many polylines."""
    forms = [b"%d %d l\n"] * len(points)
    for start in starts.tolist():
        forms[start] = b"%d %d m\n"
    return b"".join(forms) % tuple(np.rint(points * FINE).astype(int).ravel().tolist())


def _rings(rings: Polylines) -> bytes:
    nothing = np.zeros(1, int)
    return b"".join(_path(ring, nothing) + b"h\n" for ring in rings)


def _colour(colour: str) -> str:
    parts = (int(colour[k : k + 2], 16) / 255 for k in (1, 3, 5))
    return " ".join(f"{part:.4g}" for part in parts)
