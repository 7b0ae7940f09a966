"""Symbols and images: how they lie on paper, and what becomes of them in files."""

import io
import math
from unittest import TestCase

import ezdxf
import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image as Pixels
from reportlab.pdfgen.canvas import Canvas

from drafting.annotation.anchors import Anchor
from drafting.annotation.images import ImagePiece, image_boxes
from drafting.annotation.pieces import PlacedPiece
from drafting.annotation.shape_edits import symbol_of
from drafting.annotation.shapes import Shape
from drafting.annotation.symbol_files import read_symbols
from drafting.annotation.symbol_set import SYMBOL_PRESETS
from drafting.annotation.symbols import Symbol, SymbolLine, SymbolSpec, SymbolWords, laid, parse_symbol
from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.render.annotation_items import drawn_piece, piece_boxes, piece_items
from drafting.render.display_list import DisplayList
from drafting.render.items import Fill, Image, Inserted, Path, Text
from drafting.render.page import whole_page
from drafting.sheets.picture import Outline, Picture, read_picture
from drafting.sheets.scale import Scale
from drafting.sheets.viewport import Viewport
from drafting.tests.outputs import write_dxf

ARROW = SymbolSpec(
    (
        SymbolLine(((0, 0), (10, 0), (10, 4)), False, 0.25),
        SymbolLine(((0, 0), (2, 1), (2, -1)), True, 0, fill="#1b1f24"),
    ),
    (SymbolWords((5, 1), 2.5, "2 %"),),
)
SVG = '<svg xmlns="http://www.w3.org/2000/svg" width="96" height="96">{}</svg>'


def placed(piece, spec=ARROW, scale=None, turn=0.0):
    viewport = scale and Viewport(
        "v", "k", Box(0, 0, 400, 300), Scale.parse(scale), (0.0, 0.0), "1", "P", turn=turn
    )
    return PlacedPiece(
        "p", piece, piece.locate(lambda e: None), viewport or None, label=("Fall",), symbol=spec
    )


def items_of(where):
    return list(drawn_piece(where, piece_items(where)))


class PlacedTests(TestCase):
    @given(st.integers(0, 359), st.floats(0.1, 5), st.booleans())
    def test_lengths_are_those_of_the_library_times_the_size(self, turn, size, mirrored):
        piece = Symbol(Anchor((100.0, 100.0)), "s", float(turn), size, mirrored)
        a, b, c = laid([(0, 0), (10, 0), (10, 4)], piece, (100.0, 100.0), 1.0, 0.0)
        self.assertAlmostEqual(math.dist(a, b), 10 * size)
        self.assertAlmostEqual(math.dist(b, c), 4 * size)
        turned = (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0])
        self.assertEqual(turned > 0, not mirrored)

    def test_of_paper_size_it_is_alike_at_any_scale_and_of_real_size_it_follows_it(self):
        piece = Symbol(Anchor((0.0, 0.0)), "s")
        for real, wanted in ((False, 10.0), (True, 10.0 / 50)):
            spec = SymbolSpec(ARROW.lines, ARROW.words, real)
            (whole,) = items_of(placed(piece, spec, "1:50", 30.0))
            line = next(i for i in whole.parts if isinstance(i, Path))
            self.assertAlmostEqual(math.dist(*line.points[:2]), wanted)

    def test_words_stand_upright_with_what_is_typed_or_what_the_library_has(self):
        for typed, wanted in (((), "2 %"), (("5 %",), "5 %")):
            (whole,) = items_of(placed(Symbol(Anchor((0.0, 0.0)), "s", 90.0, words=typed)))
            (text,) = [i for i in whole.parts if isinstance(i, Text)]
            self.assertEqual((text.text, text.turn), (wanted, 0.0))

    def test_it_is_known_by_its_name(self):
        where = placed(Symbol(Anchor((0.0, 0.0)), "s"))
        (found,) = piece_boxes([(where, piece_items(where))])
        self.assertEqual((found.kind, found.text), ("symbol", "Fall 2 %"))

    def test_the_set_that_is_built_in_is_whole_and_of_sensible_size(self):
        for name, spec in SYMBOL_PRESETS.values():
            with self.subTest(name):
                points = np.array([p for line in spec.lines for p in line.points])
                reach = np.abs(points).max()
                self.assertTrue(250 < reach < 9000 if spec.real else 0.5 < reach < 15)


class BlockTests(TestCase):
    def test_in_a_dxf_it_is_one_block_that_is_put_in_where_each_stands(self):
        pieces = [
            Symbol(Anchor((50.0, 60.0)), "s", 30.0, 2.0),
            Symbol(Anchor((90.0, 40.0)), "s", 0.0, 1.0, True, ("x",)),
        ]
        items = [item for piece in pieces for item in items_of(placed(piece))]
        display = DisplayList(420, 297, tuple(items))
        doc = ezdxf.read(io.StringIO(write_dxf([whole_page(display, "", "1")], None).decode()))
        inserts = doc.layouts.get("1").query("INSERT")
        self.assertEqual({i.dxf.name for i in inserts}, {"Fall"})
        for insert, piece in zip(inserts, pieces, strict=True):
            lines = [e for e in insert.virtual_entities() if e.dxftype() == "LWPOLYLINE"]
            found = [(v.x, v.y) for v in lines[0].vertices_in_wcs()]
            wanted = laid(ARROW.lines[0].points, piece, piece.at.at, 1.0, 0.0)
            np.testing.assert_allclose(found, wanted, atol=1e-6)
        self.assertEqual({t.dxf.text for t in doc.layouts.get("1").query("TEXT")}, {"2 %", "x"})
        self.assertEqual(doc.audit().errors, [])


class DrawnLikeTests(TestCase):
    def test_a_symbol_is_drawn_like_shapes_about_their_middle(self):
        ends = [Anchor((100.0, 50.0)), Anchor((120.0, 60.0))]
        made = symbol_of(
            [Shape("rectangle", tuple(ends), fill="#ffffff"), Shape("circle", tuple(ends))], True
        )
        self.assertTrue(made.real)
        points = np.array([p for line in made.lines for p in line.points])
        np.testing.assert_allclose(points.min(axis=0), -points.max(axis=0), atol=0.01)
        self.assertEqual([(line.closed, line.fill) for line in made.lines], [(True, "#ffffff"), (True, "")])


class FileTests(TestCase):
    def test_an_svg_is_a_symbol_about_its_middle(self):
        svg = SVG.format('<rect width="96" height="48" fill="#9c3f24"/>').encode()
        (found,) = read_symbols(svg, "tap.svg")
        self.assertEqual(found["name"], "tap")
        points = np.array(parse_symbol(found["spec"]).lines[0].points)
        np.testing.assert_allclose(
            [points.min(axis=0), points.max(axis=0)], [[-12.7, 0.0], [12.7, 12.7]], atol=0.01
        )

    def test_each_block_of_a_dxf_is_one_in_mm_from_its_base_point(self):
        doc = ezdxf.new("R2010", units=6)
        basin = doc.blocks.new("BASIN", base_point=(1, 1))
        basin.add_lwpolyline([(1, 1), (1.6, 1), (1.6, 1.4), (1, 1.4)], close=True)
        loop = doc.blocks.new("LOOP")
        loop.add_blockref("LOOP", (0, 0))
        out = io.StringIO()
        doc.write(out)
        (found,) = read_symbols(out.getvalue().encode(), "fittings.dxf")
        spec = parse_symbol(found["spec"])
        self.assertEqual((found["name"], spec.real), ("BASIN", True))
        np.testing.assert_allclose(np.array(spec.lines[0].points).max(axis=0), [600, 400])

    def test_curves_are_as_fine_as_the_file_is_large_wherever_its_things_stand(self):
        doc = ezdxf.new("R2010", units=6)
        doc.blocks.new("Tree").add_circle((0, 0), 1.0)
        doc.modelspace().add_blockref("Tree", (5, 5))
        for corners in ([], [(0, 0), (30, 0), (30, 20)]):
            if corners:
                doc.modelspace().add_lwpolyline(corners)
            out = io.StringIO()
            doc.write(out)
            ((_, tree),) = [(s["name"], s["spec"]) for s in read_symbols(out.getvalue().encode(), "tree.dxf")]
            points = [point for line in tree["lines"] for point in line["points"]]
            self.assertTrue(8 < len(points) < 500, len(points))

    def test_what_holds_nothing_or_too_much_is_refused_with_its_name(self):
        with self.assertRaisesRegex(SheetError, "empty.svg"):
            read_symbols(SVG.format("").encode(), "empty.svg")
        with self.assertRaises(SheetError):
            SymbolSpec((SymbolLine(tuple((float(k), 0.0) for k in range(15_000))),) * 2)


class ImageTests(TestCase):
    @given(st.floats(0, 0.45), st.floats(0, 0.45), st.floats(0, 0.45), st.floats(0, 0.45))
    def test_what_is_cropped_off_leaves_the_rest_where_it_was_asked_for(self, left, foot, right, top):
        piece = ImagePiece(Anchor((0.0, 0.0)), "p", 100.0, (left, foot, right, top))
        piece.check(None)
        whole, seen = image_boxes(piece, (20.0, 200.0), 0.5)
        self.assertAlmostEqual(seen.x, 20.0)
        self.assertAlmostEqual(seen.top, 200.0)
        self.assertAlmostEqual(seen.width / whole.width, 1 - left - right)
        self.assertAlmostEqual((seen.x - whole.x) / whole.width, left)
        self.assertAlmostEqual((seen.y - whole.y) / whole.height, foot)

    def test_nothing_left_is_refused(self):
        with self.assertRaises(SheetError):
            ImagePiece(Anchor((0.0, 0.0)), "p", crop=(0.5, 0.0, 0.5, 0.0)).check(None)

    def test_a_photograph_is_one_item_and_a_vector_one_is_cut_to_its_window(self):
        out = io.BytesIO()
        Pixels.new("RGB", (40, 20), "#9c3f24").save(out, "PNG")
        photo = read_picture(out.getvalue(), "a.png")
        piece = ImagePiece(Anchor((10.0, 90.0)), "p", 80.0, (0.25, 0.0, 0.0, 0.0))
        where = PlacedPiece("i", piece, piece.locate(lambda e: None), picture=photo)
        (item,) = items_of(where)
        self.assertIsInstance(item, Image)
        self.assertEqual(item.window, Box(10.0, 50.0, 60.0, 40.0))
        square = Outline((((0, 0), (40, 0), (40, 20), (0, 20)),), "#2d5c66", "#1b1f24", 1.0)
        vector = PlacedPiece("i", piece, where.location, picture=Picture("vector", 40, 20, (square,)))
        fill = next(i for i in items_of(vector) if isinstance(i, Fill))
        xs = [x for x, _ in fill.rings[0]]
        self.assertEqual((min(xs), max(xs)), (10.0, 70.0))
        (found,) = piece_boxes([(where, piece_items(where))])
        self.assertEqual(found.box, item.window)

    def test_a_symbol_whose_drawing_is_gone_draws_nothing_and_can_be_taken_hold_of(self):
        piece = Symbol(Anchor((30.0, 40.0)), "s")
        where = PlacedPiece("p", piece, piece.locate(lambda e: None))
        self.assertEqual(list(piece_items(where)), [])
        (found,) = piece_boxes([(where, [])])
        self.assertEqual((found.box.x, found.box.y), (30.0, 40.0))
        self.assertFalse(any(isinstance(i, Inserted) for i in items_of(where)))

    def test_the_first_page_of_a_pdf_is_a_picture_of_its_proportions(self):
        out = io.BytesIO()
        canvas = Canvas(out, pagesize=(144, 72))
        canvas.rect(0, 0, 144, 72, fill=1)
        canvas.save()
        picture = read_picture(out.getvalue(), "leaflet.pdf")
        self.assertEqual((picture.form, picture.width, picture.height), ("png", 400, 200))
        with self.assertRaisesRegex(SheetError, "leaflet.pdf"):
            read_picture(b"%PDF-1.7 broken", "leaflet.pdf")
