"""Pages to DXF: each a paper layout with viewports at their scales onto the linework, which stands once, in model
millimetres; lettering as text, layers with widths and patterns."""

from __future__ import annotations

import io
import math
from collections.abc import Callable, Iterable

import numpy as np
from ezdxf import filemanagement, units
from ezdxf._options import options
from ezdxf.document import Drawing as Document
from ezdxf.enums import TextEntityAlignment
from ezdxf.layouts.layout import Paperspace

from drafting.errors import SheetError
from drafting.linework.model import Linework
from drafting.plot.display import OUTLINES, Drawing, Fill, Image, Path, Text
from drafting.plot.dxf_model import Model
from drafting.plot.dxf_tables import Tables, allowed
from drafting.plot.page import Page
from drafting.plot.pens import PAPER
from drafting.sheets.viewport import Point

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


def write_dxf(pages: Iterable[Page], linework: Callable[[str], Linework]) -> bytes:
    """A DXF with a layout for each page, named by its sheet's number. Pictures of pixels are no part of it.

    Raises:
        SheetError: what was made does not stand up to an audit.
    """
    fixed = options.write_fixed_meta_data_for_testing
    # Dates and random names would make two files of the same sheets differ.
    options.write_fixed_meta_data_for_testing = True
    try:
        doc = _written(pages, linework)
        audit = doc.audit()
        if audit.has_errors:
            raise SheetError(f"The DXF could not be made: {audit.errors[0].message}")
        out = io.StringIO()
        doc.write(out)
    finally:
        options.write_fixed_meta_data_for_testing = fixed
    return doc.encode(out.getvalue())


def _written(pages: Iterable[Page], linework: Callable[[str], Linework]) -> Document:
    doc = filemanagement.new("R2018", units=units.MM)
    # Patterns are as long on paper in every viewport, whatever its scale.
    doc.header["$PSLTSCALE"], doc.header["$LTSCALE"], doc.header["$MEASUREMENT"] = 1, 1.0, 1
    doc.header["$LWDISPLAY"] = 1
    tables = Tables(doc)
    doc.layers.add(FRAMES).dxf.plot = 0
    model = Model(doc.modelspace(), tables, linework)
    names: set[str] = set()
    for page in pages:
        name = _layout_name(page, names)
        first = len(names) == 0
        names.add(name.lower())
        if first:
            doc.layouts.rename(_FIRST, name)
        layout = doc.paperspace(name) if first else doc.layouts.new(name)
        _LayoutWriter(layout, tables, model).write(page)
    return doc


def _layout_name(page: Page, taken: set[str]) -> str:
    """A layout's name is its sheet's number, and no two are alike."""
    plain = allowed(page.number or page.title) or "Sheet"
    name, count = plain, 1
    while name.lower() in taken or name.lower() == "model":
        count += 1
        name = f"{plain} ({count})"
    return name


class _LayoutWriter:
    """Writes one page into its layout."""

    def __init__(self, layout: Paperspace, tables: Tables, model: Model) -> None:
        self.layout, self.tables, self.model = layout, tables, model

    def write(self, page: Page) -> None:
        self.layout.page_setup(size=(page.width, page.height), units="mm", scale=(1, 1), name="", device="")
        for item in page.display.items:
            self._item(item, page.scale, np.array(page.at))
        for item in page.over:
            self._item(item, 1.0, np.zeros(2))

    def _item(self, item: Path | Fill | Text | Image | Drawing, scale: float, at: np.ndarray) -> None:
        if isinstance(item, Path):
            look = self.tables.look(item.layer, item.pen, scale)
            self.layout.add_lwpolyline(at + scale * item.points, close=item.closed, dxfattribs=look)
        elif isinstance(item, Fill):
            # What only hides what lies under it would hide viewports here, which lie above all else.
            if item.colour != PAPER:
                rings = [at + scale * ring for ring in item.rings]
                self.tables.fill(self.layout, rings, item.layer, item.colour, item.opacity)
        elif isinstance(item, Text):
            look = self.tables.coloured(item.layer, item.colour) | {"style": self.tables.style(item.bold)}
            text = self.layout.add_text(item.text, height=item.size * scale, dxfattribs=look)
            text.set_placement(tuple(at + scale * np.array(item.at)), align=_ALIGN[item.anchor])
        elif isinstance(item, Drawing):
            self._viewport(item, scale, at)

    def _viewport(self, item: Drawing, scale: float, at: np.ndarray) -> None:
        standing = self.model.stand(item, scale)
        corners = at + scale * np.array(item.clip)
        low, high = corners.min(axis=0), corners.max(axis=0)
        size, middle = high - low, (low + high) / 2
        viewport = self.layout.add_viewport(
            center=tuple(middle),
            size=tuple(size),
            view_center_point=tuple(_seen_at(middle, item, standing, scale, at)),
            view_height=float(size[1]) / (item.ratio * scale),
            dxfattribs={"layer": FRAMES},
        )
        viewport.dxf.view_twist_angle = item.turn
        if not _upright(corners):
            shape = self.layout.add_lwpolyline(corners, close=True, dxfattribs={"layer": FRAMES})
            viewport.dxf.clipping_boundary_handle = shape.dxf.handle
            viewport.dxf.flags |= _CUT_TO_SHAPE
        if item.outline:
            look = self.tables.look(OUTLINES, item.outline, scale)
            self.layout.add_lwpolyline(corners, close=True, dxfattribs=look)


def _seen_at(middle: np.ndarray, item: Drawing, standing: Point, scale: float, at: np.ndarray) -> np.ndarray:
    """The point of the model that lies in the middle of a viewport, along the axes of the turned view."""
    turn = math.radians(item.turn)
    cos, sin = math.cos(turn), math.sin(turn)
    turned = (middle - at - scale * np.array(item.place)) / (item.ratio * scale)
    # A viewport's centre is given as it is seen, turned; the drawing stands apart from the others by `standing`.
    x, y = standing
    return turned + np.array([x * cos - y * sin, x * sin + y * cos])


def _upright(corners: np.ndarray) -> bool:
    """Whether an outline is a rectangle along the paper's sides."""
    return len(corners) == 4 and all(len(np.unique(corners[:, k].round(6))) == 2 for k in (0, 1))
