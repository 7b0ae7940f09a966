"""DXF: each page a paper layout with viewports at their scales onto the linework, of which what they show
stands in model millimetres; lettering as text, layers with widths and patterns."""

from __future__ import annotations

import io
import math
import re
from collections.abc import Iterable, Iterator, Sequence
from contextlib import contextmanager

import numpy as np
from ezdxf import units
from ezdxf.document import Drawing as Document
from ezdxf.enums import MTextEntityAlignment, TextEntityAlignment
from ezdxf.filemanagement import new
from ezdxf.layouts.layout import Paperspace
from shapely import Point as Point2
from shapely import Polygon

from drafting.errors import SheetError
from drafting.geometry.boxes import Point
from drafting.geometry.clipping import areas_within, is_upright, lines_within
from drafting.geometry.polylines import Floats, Polylines
from drafting.render.backend import OUTLINES, Backend, Sources
from drafting.render.backends.dxf_model import Model
from drafting.render.backends.dxf_tables import Tables, allowed
from drafting.render.items import Dimensioned, Drawing, Fill, Hatched, Image, Inserted, Shaded, Text, Worded
from drafting.render.page import FileInfo, Page
from drafting.styles.hatches import HATCHES
from drafting.styles.lettering import LEADING
from drafting.styles.pens import INK, PAPER, Pen

#: Viewports stand on a layer that is not plotted: a frame that is to be seen is a line of its own.
FRAMES = "Viewports"
#: DXF reference, VIEWPORT, group 90: the viewport is cut to the shape of an entity.
_CUT_TO_SHAPE = 0x10000
#: DXF reference: a layout of this name is in every file; ours takes its place.
_FIRST = "Layout1"
_ALIGN = {
    "start": TextEntityAlignment.LEFT,
    "middle": TextEntityAlignment.CENTER,
    "end": TextEntityAlignment.RIGHT,
}
_ATTACH = {
    "start": MTextEntityAlignment.TOP_LEFT,
    "middle": MTextEntityAlignment.TOP_CENTER,
    "end": MTextEntityAlignment.TOP_RIGHT,
}
#: What would make two files of the same sheets differ: dates (DXF reference, HEADER), random names, and the
#: library's
#: own note of when it wrote the file. Each is followed by its group code and value.
_DATES = re.compile(r"(\$TD\w+\n *40\n)[^\n]*")
_GUIDS = re.compile(r"(\$(?:VERSION|FINGERPRINT)GUID\n *2\n)[^\n]*")
_WRITTEN = re.compile(r"(\d+\.\d+\.\d+\w* @ )\d{4}-\d\d-\d\dT[^\n]*")
_NO_DATE, _NO_GUID = "2451544.5", "{00000000-0000-0000-0000-000000000000}"


def write(pages: Iterable[Page], sources: Sources, info: FileInfo) -> bytes:
    """A DXF with a layout for each page, named by its sheet's number. Pictures of pixels are no part of it.

    Raises:
        SheetError: what was made does not stand up to an audit.
    """
    doc = _document(pages, sources)
    audit = doc.audit()
    if audit.has_errors:
        raise SheetError(f"The DXF could not be made: {audit.errors[0].message}")
    # What is in use is a set, whose order differs from process to process.
    for name in sorted({entity.dxftype() for entity in doc.entitydb.values()}):
        doc.classes.add_class(name)
    out = io.StringIO()
    doc.write(out)
    text = _DATES.sub(rf"\g<1>{_NO_DATE}", _GUIDS.sub(rf"\g<1>{_NO_GUID}", out.getvalue()))
    return doc.encode(_WRITTEN.sub(r"\g<1>2000-01-01", text))


def _document(pages: Iterable[Page], sources: Sources) -> Document:
    doc = new("R2018", units=units.MM)
    # Patterns are as long on paper in every viewport, whatever its scale.
    doc.header["$PSLTSCALE"], doc.header["$LTSCALE"], doc.header["$MEASUREMENT"] = 1, 1.0, 1
    doc.header["$LWDISPLAY"] = 1
    tables = Tables(doc)
    doc.layers.add(FRAMES).dxf.plot = 0
    model = Model(doc.modelspace(), tables, sources)
    names: set[str] = set()
    for page in pages:
        name = _layout_name(page, names)
        first = len(names) == 0
        names.add(name.lower())
        if first:
            doc.layouts.rename(_FIRST, name)
        layout = doc.paperspace(name) if first else doc.layouts.new(name)
        layout.page_setup(size=(page.width, page.height), units="mm", scale=(1, 1), name="", device="")
        page.draw(DxfBackend(sources, layout, tables, model))
    return doc


def _layout_name(page: Page, taken: set[str]) -> str:
    """A layout's name is its sheet's number, and no two are alike."""
    plain = allowed(page.number or page.title) or "Sheet"
    name, count = plain, 1
    while name.lower() in taken or name.lower() == "model":
        count += 1
        name = f"{plain} ({count})"
    return name


class DxfBackend(Backend):
    """Draws one page into its layout. A drawing stands in the model space and is seen through a viewport."""

    def __init__(self, sources: Sources, layout: Paperspace, tables: Tables, model: Model) -> None:
        super().__init__(sources)
        self._layout, self._tables, self._model = layout, tables, model
        self._layer, self._scale, self._at = "", 1.0, np.zeros(2)
        #: Outlines beyond which nothing is drawn just now, in the layout.
        self._clips: list[Floats] = []

    @contextmanager
    def on_sheet(self, page: Page) -> Iterator[None]:
        self._scale, self._at = page.scale, np.array(page.at)
        yield
        self._scale, self._at = 1.0, np.zeros(2)

    def _placed(self, points: Floats) -> Floats:
        return np.asarray(self._at + self._scale * points)

    def layer(self, name: str) -> None:
        self._layer = name

    def stroke(self, lines: Polylines, pen: Pen, closed: bool = False) -> None:
        attributes = self._tables.attributes(self._layer, pen, self._scale)
        if self._clips and closed:
            lines, closed = Polylines.of([np.concatenate([line, line[:1]]) for line in lines]), False
        drawn = Polylines(self._placed(lines.points), lines.starts)
        for outline in self._clips:
            drawn = lines_within(drawn, outline)
        for line in drawn:
            self._layout.add_lwpolyline(line, close=closed, dxfattribs=attributes)

    def lines(self, lines: Polylines, pen: Pen, closed: bool = False) -> None:
        # Patterns are line types here, and whoever opens the file fits them.
        self.stroke(lines, pen, closed)

    def fill(self, rings: Polylines, colour: str, opacity: float = 1.0) -> None:
        # What only hides what lies under it would hide viewports here, which lie above all else.
        if colour != PAPER:
            parts = [[self._placed(ring) for ring in rings]]
            for outline in self._clips:
                parts = [kept for part in parts for kept in areas_within(Polylines.of(part), outline)]
            for part in parts:
                self._tables.fill(self._layout, part, self._layer, colour, opacity)

    def text(self, item: Text) -> None:
        at = self._placed(np.array(item.at))
        if not all(Polygon(outline).intersects(Point2(at)) for outline in self._clips):
            return
        attributes = self._tables.coloured(self._layer, item.colour) | {
            "style": self._tables.style(item.bold)
        }
        text = self._layout.add_text(item.text, height=item.size * self._scale, dxfattribs=attributes)
        text.dxf.rotation = item.turn
        text.set_placement(tuple(at), align=_ALIGN[item.anchor])

    def dimension(self, item: Dimensioned) -> None:
        """A real dimension for each length, which measures the building through the scale."""
        style = self._tables.dimension_style(item, self._scale)
        for stretch in item.stretches:
            first, last, base = self._placed(np.array([stretch.first, stretch.last, stretch.base]))
            made = self._layout.add_linear_dim(
                base=tuple(base),
                p1=tuple(first),
                p2=tuple(last),
                angle=item.turn,
                text=stretch.text,
                dimstyle=style,
                dxfattribs=self._tables.coloured(self._layer, INK),
            )
            made.render()

    def note(self, item: Worded) -> None:
        """Words as one text of paragraphs, and leaders as such."""
        x, y = self._placed(np.array(item.at))
        width = item.width * self._scale
        aside = {"start": 0.0, "middle": width / 2, "end": width}[item.anchor]
        attributes = self._tables.coloured(self._layer, item.colour)
        # The letters that mean something else in such a text are written so that they do not.
        words = item.text.replace("\\", "\\\\").replace("{", "\\{").replace("}", "\\}")
        text = self._layout.add_mtext(
            words.replace("\n", "\\P"),
            dxfattribs=attributes
            | {
                "style": self._tables.style(item.bold),
                "char_height": item.size * self._scale,
                "width": width,
                # DXF reference, MTEXT, group 44: as a share of five thirds of the height.
                "line_spacing_factor": LEADING * 3 / 5,
            },
        )
        text.set_location((x + aside, y), attachment_point=_ATTACH[item.anchor])
        style = self._tables.leader_style(item.arrow, self._scale)
        for leader in item.leaders:
            self._layout.add_leader(
                [tuple(point) for point in self._placed(np.array(leader))],
                dimstyle=style,
                dxfattribs=attributes,
            ).dxf.has_arrowhead = int(item.arrow)
        self.layer(item.layer)
        for part in item.parts:
            # Dots are areas; arrows are the leaders' own.
            if isinstance(part, Fill) and part.colour != PAPER and not item.arrow:
                part.draw(self)

    def hatched(self, item: Hatched) -> None:
        """A real hatch, whose pattern whoever opens the file can change."""
        rings = [self._placed(np.array(ring)) for ring in item.rings]
        pen = self._tables.attributes(item.layer, item.pen, self._scale)
        unit = item.spacing * self._scale
        self._tables.hatch(self._layout, rings, pen, item.hatch, HATCHES[item.hatch], unit, 0.0, rings[0][0])

    def symbol(self, item: Inserted) -> None:
        """A block that is put in, which stands once; and the words of this one."""
        name = self._tables.block(item)
        size = item.size * self._scale
        self._layout.add_blockref(
            name,
            tuple(self._placed(np.array(item.at))),
            dxfattribs=self._tables.coloured(self._layer, INK)
            | {
                "xscale": -size if item.mirrored else size,
                "yscale": size,
                "zscale": size,
                "rotation": item.turn,
            },
        )
        for part in item.parts:
            if isinstance(part, Text):
                part.draw(self)

    def picture(self, item: Image) -> None:
        """Left out: it would be a file beside this one."""

    def image(self, item: Image) -> None:
        """Left out likewise."""

    def shaded(self, item: Shaded) -> None:
        """Left out likewise."""

    @contextmanager
    def clip(self, outline: Sequence[tuple[float, float]]) -> Iterator[None]:
        # Words stand or fall with their place, for a text cannot be cut.
        self._clips.append(self._placed(np.array(outline)))
        yield
        self._clips.pop()

    def drawing(self, item: Drawing) -> None:
        origin = self._model.place(item, self._scale)
        corners = self._placed(np.array(item.clip))
        low, high = corners.min(axis=0), corners.max(axis=0)
        size, middle = high - low, (low + high) / 2
        viewport = self._layout.add_viewport(
            center=tuple(middle),
            size=tuple(size),
            view_center_point=tuple(self._seen_at(middle, item, origin)),
            view_height=float(size[1]) / (item.ratio * self._scale),
            dxfattribs={"layer": FRAMES},
        )
        viewport.dxf.view_twist_angle = item.turn
        if not is_upright(corners):
            shape = self._layout.add_lwpolyline(corners, close=True, dxfattribs={"layer": FRAMES})
            viewport.dxf.clipping_boundary_handle = shape.dxf.handle
            viewport.dxf.flags |= _CUT_TO_SHAPE
        if item.outline:
            self.layer(OUTLINES)
            self.stroke(Polylines.of([item.clip]), item.outline, closed=True)

    def _seen_at(self, middle: Floats, item: Drawing, origin: Point) -> Floats:
        """The point of the model that lies in the middle of a viewport, along the axes of the turned view."""
        turn = math.radians(item.turn)
        cos, sin = math.cos(turn), math.sin(turn)
        turned = (middle - self._placed(np.array(item.place))) / (item.ratio * self._scale)
        # A viewport's centre is given as it is seen, turned; the drawing stands apart from the others at
        # `origin`.
        x, y = origin
        return np.asarray(turned + np.array([x * cos - y * sin, x * sin + y * cos]))
