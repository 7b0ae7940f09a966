"""Display lists to PDF: vector, true to size, text as text, fonts embedded; the same bytes for the same input."""

from __future__ import annotations

import io
from collections.abc import Callable, Iterable

from reportlab.lib.colors import HexColor
from reportlab.lib.utils import ImageReader
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import FILL_EVEN_ODD, Canvas
from reportlab.pdfgen.pathobject import PDFPathObject

from drafting.linework.model import Linework
from drafting.plot.display import Clipped, DisplayList, Fill, Image, Path, Primitive, Text, expand, no_picture
from drafting.plot.lettering import BOLD, CAP_HEIGHT, REGULAR

#: Points of PDF (1/72 inch) in a millimetre.
POINT = 72 / 25.4


def write_pdf(
    pages: Iterable[tuple[str, DisplayList]],
    linework: Callable[[str], Linework],
    title: str = "",
    author: str = "",
    pictures: Callable[[str], bytes] = no_picture,
) -> bytes:
    """A PDF with one page for each (name, display list), each in its own size and named in the outline.

    `linework` and `pictures` give what display lists name by keys.
    """
    _register_fonts()
    out = io.BytesIO()
    canvas = Canvas(out, invariant=1, pageCompression=1, initialFontName="lettering")
    canvas.setTitle(title)
    canvas.setAuthor(author)
    canvas.setCreator("Dunefold")
    for number, (name, display) in enumerate(pages):
        canvas.setPageSize((display.width * POINT, display.height * POINT))
        canvas.bookmarkPage(f"sheet-{number}")
        canvas.addOutlineEntry(name, f"sheet-{number}")
        canvas.setLineJoin(1)
        canvas.setLineCap(1)
        for item in expand(display, linework):
            _write(canvas, item, pictures)
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def _register_fonts() -> None:
    for name, path in (("lettering", REGULAR), ("lettering-bold", BOLD)):
        if name not in pdfmetrics.getRegisteredFontNames():
            pdfmetrics.registerFont(TTFont(name, str(path)))


def _write(canvas: Canvas, item: Primitive, pictures: Callable[[str], bytes]) -> None:
    if isinstance(item, Path):
        canvas.setStrokeColor(HexColor(item.pen.colour))
        canvas.setLineWidth(item.pen.width * POINT)
        if item.pen.pattern:
            canvas.saveState()
            # The end of a dash is square, or its round ends would eat up the gap.
            canvas.setLineCap(0)
            canvas.setDash([length * POINT for length in item.pen.dashes])
        canvas.drawPath(_rings(canvas, (item.points,), item.closed), stroke=1, fill=0)
        if item.pen.pattern:
            canvas.restoreState()
    elif isinstance(item, Fill):
        canvas.setFillColor(HexColor(item.colour))
        canvas.drawPath(_rings(canvas, item.rings, True), stroke=0, fill=1, fillMode=FILL_EVEN_ODD)
    elif isinstance(item, Text):
        canvas.setFillColor(HexColor(item.colour))
        canvas.setFont("lettering-bold" if item.bold else "lettering", item.size / CAP_HEIGHT * POINT)
        draw = {"start": canvas.drawString, "middle": canvas.drawCentredString, "end": canvas.drawRightString}
        draw[item.anchor](item.at[0] * POINT, item.at[1] * POINT, item.text)
    elif isinstance(item, Image):
        box = [figure * POINT for figure in (item.box.x, item.box.y, item.box.width, item.box.height)]
        canvas.drawImage(ImageReader(io.BytesIO(pictures(item.picture))), *box, mask="auto")
    elif isinstance(item, Clipped):
        canvas.saveState()
        canvas.clipPath(_rings(canvas, (item.clip,), True), stroke=0, fill=0)
        for inner in item.items:
            _write(canvas, inner, pictures)
        canvas.restoreState()


def _rings(canvas: Canvas, rings: Iterable[Iterable[Iterable[float]]], closed: bool) -> PDFPathObject:
    path = canvas.beginPath()
    for ring in rings:
        for k, (x, y) in enumerate(ring):
            (path.lineTo if k else path.moveTo)(x * POINT, y * POINT)
        if closed:
            path.close()
    return path
