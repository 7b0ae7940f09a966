"""What is withheld is in no file: every format, and every way in which something is left out."""

from __future__ import annotations

import io
import re
from collections.abc import Iterator
from dataclasses import replace
from unittest import TestCase

import ezdxf
import numpy as np
import pikepdf
from ezdxf.math import Vec3
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image as Pixels
from shapely import Polygon, union_all
from shapely.geometry import LineString

from drafting.annotation.anchors import Anchor
from drafting.annotation.images import ImagePiece
from drafting.annotation.notes import Note
from drafting.annotation.pieces import PlacedPiece
from drafting.annotation.shapes import Shape
from drafting.geometry.boxes import Box
from drafting.geometry.clipping import areas_within, lines_within
from drafting.geometry.polylines import Polylines
from drafting.issuing.frozen import freeze
from drafting.issuing.package import package
from drafting.issuing.recipients import Recipient
from drafting.linework.engine import draw
from drafting.plotting.settings import PlotSettings
from drafting.progress import silent
from drafting.render.backend import Sources
from drafting.render.backends.recorder import Recorder
from drafting.render.compose import compose
from drafting.render.items import SHADOWS, Drawing, Fill, Shaded
from drafting.sheets.paper import Paper
from drafting.sheets.picture import Picture
from drafting.sheets.scale import Scale
from drafting.sheets.sheet import Sheet
from drafting.sheets.viewport import Viewport
from drafting.styles.patterns import PATTERNS, dashes_between
from drafting.styles.pen_table import CutStyle, PenTableSpec
from drafting.styles.pens import Pen
from drafting.styles.redrawn import Redrawn, runs_of
from drafting.tests.pdf_reading import areas, layers, strokes, text
from drafting.tests.scenes import box, building
from drafting.views.notation import parse_view

FORMATS = ("pdf", "dxf", "svg", "png")
RESOLUTION = 150
WHITE = (1.0, 1.0, 1.0)
WALLS, CABINETS = "Walls", "Cabinets"
#: A wall, and a cabinet beside it that stands on a layer of its own; both are cut.
_SCENE = building(
    [box((0, 0, 0), (6000, 800, 2600)), box((1000, -600, 0), (2000, -100, 2000))], ("brick", "oak")
)
_ELEMENTS = tuple(
    replace(each, layer=layer) for each, layer in zip(_SCENE.elements, (WALLS, CABINETS), strict=True)
)
LINEWORK = draw(replace(_SCENE, elements=_ELEMENTS), parse_view("plan:0"))
#: u = v = 0 lies at (90, 180) on paper.
PLAN = Viewport("plan", "plan", Box(60, 150, 200, 80), Scale.parse("1:50"), (3500, 500), "1", "Plan")
#: Where the cabinet is cut on paper, and something in the midst of it.
CABINET = Box(110, 168, 20, 10)
SHEET = Sheet(Paper.of("A3"), {"number": "A-01", "title": "Plan"}, (PLAN,))
PENS = PenTableSpec(cuts=(CutStyle("oak", "#804000"), CutStyle("", "#336699")))


def png() -> bytes:
    out = io.BytesIO()
    Pixels.new("RGB", (8, 8), "#ff00ff").save(out, "PNG")
    return out.getvalue()


def placed(name, piece, **given):
    return PlacedPiece(name, piece, piece.locate(lambda element: None), None, **given)


NOTE = placed("n", Note(Anchor((40.0, 110.0)), "Secret door"))
SHAPE = placed("s", Shape("rectangle", (Anchor((40.0, 60.0)), Anchor((60.0, 80.0)))))
IMAGE = placed("i", ImagePiece(Anchor((70.0, 80.0)), "x", 20.0), picture=Picture("png", 8, 8, key="x"))
#: Where the shape and the picture lie.
SHAPED, PICTURED = Box(39, 59, 22, 22), Box(69, 59, 22, 22)


def files(recipient=None, sheet=SHEET, change=lambda display: display, pieces=()):
    """What a recipient gets of a sheet, by format."""
    display = change(compose(sheet, PENS, pieces=pieces))
    sources = Sources(lambda key: LINEWORK, lambda key: png())
    wanted = replace(recipient or Recipient("Anna"), forms=FORMATS, file_names="{number}")
    settings = [PlotSettings(resolution=RESOLUTION)]
    made = package([freeze(sheet, display)], settings, wanted, sources, ("Issue", "Office"), silent)
    return {each.form: each.data for each in made}


def drawn_at(form: str, data: bytes) -> Iterator[np.ndarray]:
    """Of all that is drawn in a file, whether it is seen or not, the points in paper mm, y upward."""
    if form == "pdf":
        yield from (item.points for item in strokes(data))
        yield from (np.vstack(area.rings) for area in areas(data) if area.colour != WHITE)
    elif form == "svg":
        for path in re.findall(r'<path d="([^"]*)" (?!fill="#ffffff")', data.decode()):
            for part in path.split("M")[1:]:
                points = [tuple(map(float, p.split())) for p in part.rstrip("Z").split("L")]
                yield np.array(points) * (1, -1) + (0, SHEET.paper.height)
    elif form == "png":
        pixels = np.asarray(Pixels.open(io.BytesIO(data)).convert("L"))
        rows, columns = np.nonzero(pixels < 200)
        yield np.column_stack([columns + 0.5, len(pixels) - rows - 0.5]) * 25.4 / RESOLUTION
    else:
        yield from drawn_in_dxf(ezdxf.read(io.StringIO(data.decode())))


def drawn_in_dxf(doc) -> Iterator[np.ndarray]:
    layout = doc.layouts.get("A-01")
    for entity in layout.query("LWPOLYLINE"):
        yield np.array(entity.get_points("xy"))
    (viewport,) = [each for each in layout.query("VIEWPORT") if each.dxf.id != 1]
    matrix = viewport.get_transformation_matrix()
    for entity in doc.modelspace():
        if entity.dxftype() == "LINE":
            points = [entity.dxf.start, entity.dxf.end]
        elif entity.dxftype() == "LWPOLYLINE":
            points = [Vec3(x, y) for x, y in entity.get_points("xy")]
        else:
            points = [Vec3(x, y) for path in entity.paths for x, y, *_ in path.vertices]
        yield np.array([tuple(matrix.transform(point))[:2] for point in points])


def drawn_in(form: str, data: bytes, where: Box, by: float = 0.2) -> bool:
    """Whether anything is drawn within a box, off its edges."""
    inner = Polygon(where.corners).buffer(-by)
    return any(
        (inner.intersects(LineString(points)) if len(points) > 1 and form != "png" else False)
        or bool(
            ((points > (where.x + by, where.y + by)) & (points < (where.right - by, where.top - by)))
            .all(1)
            .any()
        )
        for points in drawn_at(form, data)
        # The frame of the sheet runs round everything.
        if form == "png" or np.ptp(points, axis=0).max() < 300
    )


def names_in(form: str, data: bytes) -> str:
    """The names, words and properties in a file."""
    if form == "pdf":
        return text(data) + " ".join(layers(data))
    return data.decode("utf-8", "replace") if form != "png" else ""


def pictures_in(form: str, data: bytes) -> bool:
    if form == "pdf":
        with pikepdf.open(io.BytesIO(data)) as pdf:
            return any(page.images for page in pdf.pages)
    if form == "png":
        pixels = np.asarray(Pixels.open(io.BytesIO(data)).convert("RGB"))
        return bool((np.abs(pixels.astype(int) - (255, 0, 255)).max(axis=2) < 40).any())
    return b"<image" in data


class WithheldTests(TestCase):
    def test_all_that_is_not_withheld_is_in_every_file(self):
        for form, data in files(pieces=(NOTE, SHAPE, IMAGE)).items():
            self.assertTrue(drawn_in(form, data, CABINET, -0.5), form)
            self.assertTrue(drawn_in(form, data, SHAPED, -0.5), form)
            if form != "png":
                self.assertIn(CABINETS, names_in(form, data))
                self.assertIn("Secret", names_in(form, data))

    def test_a_layer_that_is_off_is_in_no_file(self):
        for form, data in files(Recipient("Anna", layers_off=(CABINETS,))).items():
            self.assertFalse(drawn_in(form, data, replace(CABINET, y=167, height=10.5), -0.5), form)
            self.assertTrue(drawn_in(form, data, Box(91, 180, 50, 16), -0.5), form)
            self.assertNotIn(CABINETS, names_in(form, data))

    def test_what_is_touched_up_away_is_in_no_file(self):
        packed, regions = LINEWORK.packed, LINEWORK.packed_regions
        layer = LINEWORK.layers.index(CABINETS)
        own = np.unique(packed.element[packed.layer == layer])
        gone = Redrawn(
            hidden=True,
            whole=runs_of(np.flatnonzero(packed.layer == layer)),
            areas=runs_of(np.flatnonzero(np.isin(regions.element, own))),
        )

        def change(display):
            items = (
                replace(item, redrawn=(gone,)) if isinstance(item, Drawing) else item
                for item in display.items
            )
            return replace(display, items=tuple(items))

        for form, data in files(change=change).items():
            self.assertFalse(drawn_in(form, data, replace(CABINET, y=167, height=10.5), -0.5), form)
            self.assertTrue(drawn_in(form, data, Box(91, 180, 50, 16), -0.5), form)

    def test_what_lies_beyond_a_crop_is_in_no_file_whatever_the_shape_of_the_window(self):
        cropped = replace(PLAN, box=Box(150, 175, 40, 40), centre=(4000, 700))
        beyond = [Box(30, 150, 118, 100), Box(192, 150, 60, 90), Box(150, 217, 40, 30)]
        for shape in ("rectangle", "circle"):
            sheet = replace(SHEET, viewports=(replace(cropped, shape=shape),))
            for form, data in files(sheet=sheet).items():
                self.assertTrue(drawn_in(form, data, Box(155, 180, 30, 30), -0.5), form)
                for place in beyond:
                    self.assertFalse(drawn_in(form, data, place, 1.0), (shape, place))

    def test_annotation_that_is_not_wanted_is_in_no_file(self):
        made = files(Recipient("Anna", annotation=False), pieces=(NOTE, SHAPE, IMAGE))
        for form, data in made.items():
            self.assertFalse(drawn_in(form, data, SHAPED, -0.5), form)
            self.assertNotIn("Secret", names_in(form, data))
            self.assertFalse(pictures_in(form, data))

    def test_fills_that_are_not_wanted_are_in_no_file(self):
        for form, data in files(Recipient("Anna", fills=False)).items():
            if form == "pdf":
                self.assertEqual([a for a in areas(data) if a.colour != WHITE], [])
            elif form == "dxf":
                self.assertFalse(ezdxf.read(io.StringIO(data.decode())).modelspace().query("HATCH"))
            elif form == "svg":
                self.assertNotIn(b"#336699", data)
            else:
                pixels = np.asarray(Pixels.open(io.BytesIO(data)).convert("RGB")).astype(int)
                self.assertFalse((np.abs(pixels - (0x33, 0x66, 0x99)).max(axis=2) < 8).any())

    def test_pictures_and_shadows_of_the_building_go_with_any_layer(self):
        """They show all of it, and what is withheld too."""
        window = Box(60, 60, 60, 60)
        shadow = Fill((tuple(Box(40, 30, 10, 10).corners),), "#123456", SHADOWS, "plan")
        shaded = Shaded("p", "plan", window, tuple(window.corners))

        def change(display):
            return replace(display, items=(shaded, *display.items, shadow))

        for form, data in files(change=change).items():
            if form != "dxf":
                self.assertTrue(pictures_in(form, data))
        for form, data in files(Recipient("Anna", layers_off=(CABINETS,)), change=change).items():
            self.assertFalse(pictures_in(form, data))
            self.assertFalse(drawn_in(form, data, Box(40, 30, 10, 10), -0.3))


#: Places are told apart by thousandths, as on paper.
PLACE = st.integers(-20_000, 20_000).map(lambda thousandths: thousandths / 1000)
POINTS = st.lists(st.tuples(PLACE, PLACE), min_size=2, max_size=6, unique=True)
OUTLINES = (
    [(0, 0), (9, 0), (9, 9), (0, 9)],
    [(0, 0), (9, 1), (4, 9)],
    [(0, 0), (9, 0), (9, 9), (5, 2), (0, 9)],
)


class DashTests(TestCase):
    def test_no_dash_moves_where_a_line_is_cropped(self):
        """Whatever is seen of it through a window, its dashes lie where those of the whole line do."""
        pen = Pen(0.25, pattern=PATTERNS["dashed"])
        bent = np.array([(0.0, 5.0), (60.0, 5.0), (80.0, 12.0), (200.0, 12.0), (200.0, 90.0)])
        window = [(31.0, 0.0), (173.0, 0.0), (173.0, 50.0), (31.0, 50.0)]

        def dashed(draw):
            recorder = Recorder(Sources(lambda key: LINEWORK))
            draw(recorder)
            dashes = []
            for call in recorder.calls:
                lines, own = call.arguments[:2]
                for line in lines:
                    length = LineString(line).length
                    dashes += dashes_between(line, own.dashes, 0.0, length) if own.dashes else [line]
            return union_all([LineString(dash) for dash in dashes])

        whole = dashed(lambda backend: backend.lines(Polylines.of([bent]), pen))
        cropped = dashed(lambda backend: backend._lines_through(Polylines.of([bent]), pen, window))
        seen = Polygon(window)
        for one, other in ((whole, cropped), (cropped, whole)):
            self.assertLess(one.intersection(seen).difference(other.buffer(1e-6)).length, 1e-4)
        self.assertLess(cropped.difference(seen.buffer(pen.width * 1.5)).length, 1e-6)


class ClippingTests(TestCase):
    @given(POINTS, st.sampled_from(OUTLINES))
    def test_what_is_kept_of_a_line_is_what_lies_within(self, points, outline):
        kept = lines_within(Polylines.of([points]), outline)
        area = Polygon(outline)
        for line in kept:
            self.assertLess(LineString(line).difference(area.buffer(1e-6)).length, 1e-9)
        found = sum(LineString(line).length for line in kept)
        wanted = LineString(points).intersection(area)
        self.assertLessEqual(found, LineString(points).length + 1e-6)
        self.assertGreaterEqual(found, wanted.length - 1e-6)

    def test_a_hole_stays_a_hole_where_an_area_is_cut(self):
        rings = Polylines.of([Box(0, 0, 10, 10).corners, Box(2, 2, 2, 2).corners])
        (part,) = areas_within(rings, [(-1, -1), (6, -1), (6, 11), (-1, 11)])
        self.assertEqual([abs(Polygon(ring).area) for ring in part], [60.0, 4.0])
        parts = areas_within(rings, [(-1, -1), (3, -1), (3, 11), (-1, 11)])
        self.assertAlmostEqual(sum(Polygon(ring).area for part in parts for ring in part), 28.0)
