"""Files of every format: DXF that stands up to an audit and measures true, PDF with layers and labels, PNG,
archives."""

import io
import os
import subprocess
import sys
import zipfile
from dataclasses import replace
from unittest import TestCase

import ezdxf
import numpy as np
import pikepdf
from ezdxf.math import Vec3
from PIL import Image

from drafting.annotation.anchors import Anchor
from drafting.annotation.dimensions import Dimension
from drafting.annotation.pieces import PlacedPiece
from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.plotting.files import write_file
from drafting.plotting.pages import page_for
from drafting.plotting.settings import PlotSettings
from drafting.render.backend import Sources
from drafting.render.compose import compose
from drafting.render.drawing_list import LAYER as LIST_LAYER
from drafting.render.page import FileInfo, whole_page
from drafting.sheets.paper import Paper
from drafting.sheets.scale import Scale
from drafting.sheets.sheet import DrawingList
from drafting.styles.pen_presets import CONSTRUCTION
from drafting.styles.pen_table import CutStyle, PenTableSpec, parse_pen_table
from drafting.styles.pens import Pen
from drafting.tests.outputs import write_dxf, write_pdf, write_png
from drafting.tests.pdf_reading import layers, page_labels, page_sizes, strokes, text
from drafting.tests.scenes import box, drawn
from drafting.tests.test_plotting_sheets import PAGE, SHEET, WALL, linework

TALL = whole_page(compose(replace(SHEET, paper=Paper.of("A2", "portrait"), viewports=())), "Tall", "A-02")
#: A wall of stone cut by a plan: it has a region, which is hatched.
CUT = drawn([box((0, 0, 0), (6000, 800, 2600))], "plan:0")


def opened(data):
    """A DXF as a reader has it, after an audit that finds no error."""
    doc = ezdxf.read(io.StringIO(data.decode()))
    audit = doc.audit()
    assert not audit.has_errors, [e.message for e in audit.errors]
    return doc


def viewports_of(layout):
    return [v for v in layout.query("VIEWPORT") if v.dxf.id != 1]


class DxfTests(TestCase):
    def test_each_sheet_is_a_layout_of_its_size_and_viewports_have_their_scales(self):
        doc = opened(write_dxf([PAGE, TALL], linework))
        self.assertEqual(doc.layout_names_in_taborder(), ["Model", "A-01", "A-02"])
        sheet = doc.layouts.get("A-01")
        self.assertEqual((sheet.dxf.paper_width, sheet.dxf.paper_height), (420, 297))
        scales = [round(1 / v.get_scale(), 6) for v in viewports_of(sheet)]
        self.assertEqual(scales, [50, 100])

    def test_the_linework_stands_once_in_model_millimetres(self):
        doc = opened(write_dxf([PAGE], linework))
        lines = [e for e in doc.modelspace() if e.dxftype() in ("LINE", "LWPOLYLINE")]
        self.assertEqual(len(lines), len(WALL.lines))
        spans = [
            np.ptp(np.array(e.get_points("xy")), axis=0).tolist()
            for e in lines
            if e.dxftype() == "LWPOLYLINE"
        ]
        self.assertIn([7250, 2600], [[round(x, 3) for x in span] for span in spans])

    def test_a_point_of_the_model_comes_to_lie_where_the_pdf_has_it(self):
        one = replace(SHEET.viewports[0], box=Box(40, 60, 300, 220))
        for turned in (one, replace(one, turn=90.0), replace(one, turn=-37.0, centre=(1000.0, 200.0))):
            with self.subTest(turned.turn):
                page = whole_page(compose(replace(SHEET, viewports=(turned,))), "Wall", "A-01")
                doc = opened(write_dxf([page], linework))
                (viewport,) = viewports_of(doc.layouts.get("A-01"))
                ring = next(e for e in doc.modelspace() if e.dxftype() == "LWPOLYLINE")
                matrix = viewport.get_transformation_matrix()
                found = [matrix.transform(Vec3(x, y)).vec2 for x, y in ring.get_points("xy")]
                outline = next(line for line in WALL.lines if len(line.points) == 5)
                wanted = [turned.to_paper(u, v) for u, v, _ in outline.points[:-1]]
                np.testing.assert_allclose([(p.x, p.y) for p in found], wanted, atol=1e-6)

    def test_dimensions_are_dimensions_and_measure_the_building_at_any_scale_and_turn(self):
        chain = Dimension(tuple(Anchor(at) for at in ((0.0, 0.0), (1234.56, 80.0), (4000.0, 0.0))))
        parts = [1234.56, 4000 - 1234.56]
        for scale, turn, arrangement, wanted in (
            ("1:50", 0.0, "chain", parts),
            ("1:200", 30.0, "base", [1234.56, 4000.0]),
            ("1:100", 0.0, "overall", [*parts, 4000.0]),
        ):
            viewport = replace(SHEET.viewports[0], scale=Scale.parse(scale), turn=turn)
            dimension = replace(chain, arrangement=arrangement)
            piece = PlacedPiece("p", dimension, dimension.locate(lambda element: None), viewport)
            sheet = replace(SHEET, viewports=(viewport,))
            page = whole_page(compose(sheet, pieces=[piece]), "Wall", "A-01")
            doc = opened(write_dxf([page], linework))
            found = doc.layouts.get("A-01").query("DIMENSION")
            lengths = [
                each.get_measurement() * doc.dimstyles.get(each.dxf.dimstyle).dxf.dimlfac for each in found
            ]
            np.testing.assert_allclose(lengths, wanted, atol=0.01)
            self.assertEqual([each.dxf.text for each in found], [f"{length:.0f}" for length in wanted])
            self.assertEqual({each.dxf.layer for each in found}, {"Dimensions"})

    def test_layers_have_widths_and_patterns_and_text_is_text(self):
        table = parse_pen_table({"roles": {"profile": {"pattern": "dashed", "width": 0.5}}})
        doc = opened(write_dxf([whole_page(compose(SHEET, table), "Wall", "A-01")], linework))
        layer = doc.layers.get(f"{WALL.lines[0].layer} - profile")
        self.assertEqual(layer.dxf.lineweight, 50)
        pattern = doc.linetypes.get(layer.dxf.linetype).pattern_tags.tags
        self.assertEqual([tag.value for tag in pattern if tag.code == 49], [6.0, -1.5])
        words = {t.dxf.text for t in doc.layouts.get("A-01").query("TEXT")}
        self.assertTrue({"Wall, large", "Bjørnøya šķūnis", "1:50"} <= words)
        self.assertEqual(doc.header["$PSLTSCALE"], 1)

    def test_what_is_cut_is_hatched_on_paper_by_the_spacing_of_its_table(self):
        one = replace(SHEET.viewports[0], centre=(3000, 400))
        page = whole_page(compose(replace(SHEET, viewports=(one,)), CONSTRUCTION), "", "1")
        doc = opened(write_dxf([page], lambda _: CUT))
        (hatch,) = doc.modelspace().query("HATCH")
        (family,) = hatch.pattern.lines
        self.assertAlmostEqual(family.angle, 45)
        self.assertAlmostEqual(family.offset.magnitude, 1.5 * 50)
        filled = PenTableSpec(CONSTRUCTION.roles, cuts=(CutStyle("", "#d9d6cf", 50),))
        page = whole_page(compose(replace(SHEET, viewports=(one,)), filled), "", "1")
        (area,) = opened(write_dxf([page], lambda _: CUT)).modelspace().query("HATCH")
        self.assertEqual((area.dxf.solid_fill, area.rgb), (1, (0xD9, 0xD6, 0xCF)))
        self.assertAlmostEqual(area.transparency, 0.5, delta=0.01)

    def test_a_round_viewport_is_cut_to_its_shape_and_frames_are_not_plotted(self):
        circle = replace(SHEET.viewports[0], shape="circle", box=Box(40, 200, 60, 60))
        doc = opened(write_dxf([whole_page(compose(replace(SHEET, viewports=(circle,))), "", "1")], linework))
        (viewport,) = viewports_of(doc.layouts.get("1"))
        shape = doc.entitydb[viewport.dxf.clipping_boundary_handle]
        self.assertEqual((shape.dxftype(), shape.closed), ("LWPOLYLINE", True))
        self.assertEqual(doc.layers.get(viewport.dxf.layer).dxf.plot, 0)

    def test_sheets_of_one_number_and_odd_names_have_layouts_of_their_own(self):
        odd = replace(PAGE, number="A/1:*")
        doc = opened(write_dxf([odd, odd, replace(PAGE, number="", title="")], linework))
        self.assertEqual(doc.layout_names_in_taborder(), ["Model", "A_1_", "A_1_ (2)", "Sheet"])

    def test_a_table_is_written_with_its_lines_and_words_on_one_layer(self):
        rows = (("A-01", "Wall", "A3", "1:50", "P01"),)
        page = whole_page(compose(replace(SHEET, drawing_list=DrawingList((50, 150), rows))), "", "1")
        sheet = opened(write_dxf([page], linework)).layouts.get("1")
        kinds = {e.dxftype() for e in sheet.query(f'*[layer=="{LIST_LAYER}"]')}
        self.assertEqual(kinds, {"TEXT", "LWPOLYLINE"})

    def test_a_reduced_page_has_its_reduced_scale(self):
        sheet = replace(SHEET, paper=Paper.of("A0"), viewports=SHEET.viewports[:1])
        page = page_for(sheet, compose(sheet), PlotSettings(paper="A3", reduction="paper"))
        (viewport,) = viewports_of(opened(write_dxf([page], linework)).layouts.get("A-01"))
        self.assertAlmostEqual(1 / viewport.get_scale(), 141.4214, places=3)


class FormTests(TestCase):
    def test_the_same_pages_give_the_same_bytes_in_every_form(self):
        for form in ("pdf", "dxf", "svg", "png"):
            first, again = (
                write_file(form, [PAGE, TALL], Sources(linework), FileInfo("Set", resolution=72))
                for _ in "ab"
            )
            self.assertEqual(first, again, form)

    def test_a_dxf_has_the_same_bytes_from_another_process(self):
        code = (
            "import hashlib; from drafting.tests.test_files import *;"
            "print(hashlib.sha256(write_dxf([PAGE, TALL], linework)).hexdigest())"
        )
        digests = {
            subprocess.run(
                [sys.executable, "-c", code],
                env={**os.environ, "PYTHONHASHSEED": seed},
                check=True,
                capture_output=True,
                text=True,
            ).stdout
            for seed in ("1", "2")
        }
        self.assertEqual(len(digests), 1)

    def test_several_pictures_come_in_one_archive_in_register_order(self):
        data, ending = write_file("svg", [PAGE, TALL], Sources(linework), FileInfo())
        self.assertEqual(ending, "zip")
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            self.assertEqual(archive.namelist(), ["01 A-01 Wall.svg", "02 A-02 Tall.svg"])
        self.assertEqual(write_file("svg", [PAGE], Sources(linework), FileInfo())[1], "svg")

    def test_a_png_has_the_pixels_of_its_resolution(self):
        picture = Image.open(io.BytesIO(write_png(PAGE, linework, 100)))
        self.assertEqual((picture.width, picture.height), (int(420 / 25.4 * 100), round(297 / 25.4 * 100)))
        self.assertEqual(round(picture.info["dpi"][0]), 100)
        # The wall is 145 mm wide: black from its left side to its right on the row through its middle.
        grey = np.asarray(picture.convert("L"))
        row = grey[round((297 - 230) / 25.4 * 100)]
        dark = np.flatnonzero(row[round(100 / 25.4 * 100) : round(200 / 25.4 * 100)] < 128)
        self.assertTrue(len(dark))
        with self.assertRaisesRegex(SheetError, "Choose 300 or less"):
            write_png(replace(PAGE, width=1189, height=841), linework, 600)


class TrueLengthTests(TestCase):
    def test_a_known_length_is_true_on_each_of_ten_sheets(self):
        scales = (
            "1:20",
            "1:25",
            "1:33 1/3",
            "1:50",
            "1:75",
            "1:100",
            "1:200",
            "1:250",
            '1/4" = 1\'-0"',
            "1:500",
        )
        papers = ("A0", "A1", "A2", "A3", "ANSI D", "Arch D", "A1", "A3", "700 x 500", "A3")
        pages = []
        for number, (scale, paper) in enumerate(zip(scales, papers, strict=True)):
            viewport = replace(SHEET.viewports[0], scale=Scale.parse(scale), box=Box(30, 30, 370, 140))
            sheet = replace(SHEET, paper=Paper.of(paper), viewports=(viewport,))
            pages.append(whole_page(compose(sheet), "", str(number)))
        pdf = write_pdf(pages, linework)
        np.testing.assert_allclose(page_sizes(pdf), [(page.width, page.height) for page in pages], atol=0.01)
        for number, scale in enumerate(scales):
            walls = [s for s in strokes(pdf, number) if s.layer == WALL.lines[0].layer]
            length = max(float(np.ptp(s.points[:, 0])) for s in walls)
            self.assertAlmostEqual(length, 7250 * float(Scale.parse(scale).ratio), delta=0.01)
            self.assertEqual({round(s.width, 3) for s in walls}, {0.35})


class PdfDocumentTests(TestCase):
    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        cls.pdf = write_pdf(
            [replace(PAGE, date="2026-03-16"), TALL], linework, "Bird observatory", "Sandreed"
        )

    def test_layers_are_listed_and_each_holds_its_own(self):
        self.assertEqual(layers(self.pdf), sorted(layers(self.pdf)))
        self.assertTrue(
            {"Border", "Title block", "Drawing titles", WALL.lines[0].layer} <= set(layers(self.pdf))
        )

    def test_pages_are_called_by_the_numbers_of_their_sheets(self):
        self.assertEqual(page_labels(self.pdf), ["A-01", "A-02"])
        np.testing.assert_allclose(page_sizes(self.pdf), [(420, 297), (420, 594)], atol=0.01)

    def test_its_file_gives_title_author_and_date_and_asks_to_be_printed_at_its_size(self):
        with pikepdf.open(io.BytesIO(self.pdf)) as pdf, pdf.open_metadata() as metadata:
            self.assertEqual(
                (metadata["dc:title"], metadata["dc:creator"]), ("Bird observatory", ["Sandreed"])
            )
            self.assertEqual(metadata["xmp:CreateDate"], "2026-03-16")
            self.assertEqual(str(pdf.Root.ViewerPreferences.PrintScaling), "/None")
            self.assertEqual(pdf.check_pdf_syntax() if hasattr(pdf, "check_pdf_syntax") else pdf.check(), [])

    def test_it_is_hardly_larger_than_the_best_that_compression_makes_of_it(self):
        with pikepdf.open(io.BytesIO(self.pdf)) as pdf:
            out = io.BytesIO()
            pikepdf.settings.set_flate_compression_level(9)
            pdf.save(out, recompress_flate=True, object_stream_mode=pikepdf.ObjectStreamMode.generate)
            pikepdf.settings.set_flate_compression_level(-1)
        self.assertLess(len(self.pdf), 1.3 * len(out.getvalue()))

    def test_an_area_that_is_seen_through_says_so_and_text_is_opaque_again(self):
        table = PenTableSpec(CONSTRUCTION.roles, cuts=(CutStyle("", "#ff0000", 40),))
        one = replace(SHEET.viewports[0], centre=(3000, 400))
        page = whole_page(compose(replace(SHEET, viewports=(one,)), table))
        with pikepdf.open(io.BytesIO(write_pdf([page], lambda _: CUT))) as pdf:
            states = [
                float(state.ca) for state in pdf.pages[0].Resources.ExtGState.values() if "/ca" in state
            ]
        self.assertIn(0.4, states)
        self.assertIn("Wall, large", text(write_pdf([page], lambda _: CUT)))

    def test_a_pen_knows_its_ink(self):
        self.assertEqual(
            (Pen(0.5, "#000000", screen=20).ink, Pen(0.5, "#9c3f24").ink), ("#cccccc", "#9c3f24")
        )
