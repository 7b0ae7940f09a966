"""What lies at a place of a sheet: drawing, element, point of the model; and sheets cut into tiles."""

import io
import itertools
import math
import tempfile
import zipfile
from pathlib import Path
from unittest import TestCase

import numpy as np
import pypdfium2
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image

from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.issuing.frozen import FrozenSheet
from drafting.render.backend import Sources
from drafting.render.backends import FORMATS
from drafting.render.display_list import DisplayList
from drafting.render.items import Drawing
from drafting.render.items import Path as Line
from drafting.render.page import FileInfo, whole_page
from drafting.review.before_after import cropped, shown_box
from drafting.review.comments import WrittenAnswer, WrittenComment
from drafting.review.marks import LengthMark, PointMark, parse_marks
from drafting.review.places import Placement, Places, drawing_at, measured
from drafting.review.seeing import seen_drawing
from drafting.review.summary import Summary, SummarySheet, summary_pages, summary_pdf
from drafting.review.tiles import MAX_PIXELS, TILE, levels_of, read_tile, write_tiles
from drafting.styles.pens import Pen
from drafting.tests.pdf_reading import page_sizes, text
from drafting.tests.scenes import box, building
from drafting.views.elevation import Elevation
from drafting.views.perspective import Perspective

#: A wall 4 m long and 3 m high, and a post before its right half.
SCENE = building([box((0, 0, 0), (4000, 300, 3000)), box((3000, -800, 0), (3400, -400, 2000))])
SOUTH = Elevation("south")


def window(viewport="v", x=100.0, y=50.0, width=80.0, height=60.0, ratio=0.02, **more):
    """A drawing at 1:50 whose u = v = 0 lies at its lower left corner."""
    clip = ((x, y), (x + width, y), (x + width, y + height), (x, y + height))
    return Drawing(viewport, "key", clip, ratio, (x, y), {}, **more)


def sheet(*drawings):
    return FrozenSheet("A3", 420.0, 297.0, {}, "", (), {}, DisplayList(420.0, 297.0, drawings))


def places(*drawings, view=SOUTH, scene=SCENE):
    made = [seen_drawing(item, "South", view.camera(scene), (scene, view)) for item in drawings]
    # As they come from their file.
    whole = Places([drawing for drawing, _ in made], [seen for _, seen in made])
    return Places.from_bytes(whole.to_bytes())


class PlaceTests(TestCase):
    def test_a_place_of_an_elevation_knows_what_is_nearest_there_and_where(self):
        item = window()
        known, on = places(item), sheet(item)
        wall = known.find(on, (100 + 1000 * 0.02, 50 + 1500 * 0.02))
        self.assertEqual(wall.element.id, SCENE.elements[0].id)
        np.testing.assert_allclose(wall.at, (1000, 0, 1500), atol=15)
        post = known.find(on, (100 + 3200 * 0.02, 50 + 1000 * 0.02))
        self.assertEqual(post.element.id, SCENE.elements[1].id)
        np.testing.assert_allclose(post.at, (3200, -800, 1000), atol=15)
        sky = known.find(on, (100 + 2000 * 0.02, 50 + 3000 * 0.02 - 0.3))
        self.assertEqual(sky.element.id, SCENE.elements[0].id)
        self.assertIsNone(known.find(on, (20.0, 20.0)))

    def test_a_drawing_that_is_turned_is_read_alike(self):
        # Turned by a quarter about its lower right corner, so that u runs upward and v to the left.
        item = Drawing(
            "v", "key", ((100, 50), (160, 50), (160, 130), (100, 130)), 0.02, (160, 50), {}, turn=90.0
        )
        found = places(item).find(sheet(item), (160 - 1500 * 0.02, 50 + 1000 * 0.02))
        np.testing.assert_allclose(found.at, (1000, 0, 1500), atol=15)

    def test_a_perspective_knows_the_point_of_the_model(self):
        view = Perspective(eye=(2000, -9000, 1500), target=(2000, 0, 1500))
        camera = view.camera(SCENE)
        item = window(ratio=0.02, x=0.0, y=0.0, width=200.0, height=200.0)
        item = Drawing("v", "key", item.clip, 0.02, (100.0, 100.0), {})
        corner = np.array([3400.0, -800.0, 2000.0])
        u, v, _ = camera.project(corner[None])[0]
        found = places(item, view=view).find(sheet(item), (100 + u * 0.02 - 0.5, 100 + v * 0.02 - 0.5))
        self.assertEqual(found.element.id, SCENE.elements[1].id)
        np.testing.assert_allclose(found.at, corner, atol=40)

    def test_the_topmost_drawing_is_meant(self):
        below, above = window("below"), window("above", x=120.0, y=60.0, width=20.0, height=20.0)
        self.assertEqual(drawing_at(sheet(below, above), (125.0, 65.0)).viewport, "above")
        self.assertEqual(drawing_at(sheet(below, above), (105.0, 65.0)).viewport, "below")

    def test_an_element_is_shown_where_most_of_it_is_seen(self):
        near, far = window("near"), window("far", x=200.0, ratio=0.005)
        found, at = places(far, near).showing(SCENE.elements[1].id)
        self.assertEqual(found.viewport, "near")
        self.assertLess(math.dist(at, (100 + 3200 * 0.02, 50 + 1000 * 0.02)), 1.0)
        self.assertIsNone(places(near).showing("nobody"))

    def test_lengths_are_true_within_one_drawing_alone(self):
        left, right = window("left"), window("right", x=200.0, ratio=0.01)
        on = sheet(left, right)
        eyes = places(left, right).eyes

        def length(first, last):
            return measured(on, eyes, LengthMark(first, last)).length

        self.assertAlmostEqual(length((110.0, 60.0), (150.0, 90.0)), 2500.0)
        self.assertAlmostEqual(length((210.0, 60.0), (250.0, 90.0)), 5000.0)
        self.assertEqual(length((110.0, 60.0), (250.0, 90.0)), 0.0)
        self.assertEqual(length((10.0, 60.0), (20.0, 60.0)), 0.0)
        self.assertEqual(measured(on, eyes, PointMark((1.0, 1.0))), PointMark((1.0, 1.0)))

    @settings(max_examples=40, deadline=None)
    @given(
        st.floats(-500, 500), st.floats(-500, 500), st.floats(0.001, 1.0), st.floats(-180, 180),
        st.floats(-1000, 1000), st.floats(-1000, 1000),
    )  # fmt: skip
    def test_a_placement_goes_there_and_back(self, x, y, ratio, turn, u, v):
        lies = Placement((x, y), ratio, turn)
        self.assertLess(math.dist(lies.in_view(lies.on_paper((u, v))), (u, v)), 0.01)

    def test_a_file_that_is_none_is_refused(self):
        for data in (b"", b"PK nothing", b"\x93NUMPY"):
            with self.assertRaises(SheetError):
                Places.from_bytes(data)

    def test_marks_that_are_too_much_are_refused(self):
        for marks in ([{"kind": "point", "at": [1, 1]}] * 41, [{"kind": "cloud", "corners": [[0, 0]]}], "x"):
            with self.assertRaises(SheetError):
                parse_marks(marks)


class TileTests(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        lines = (
            Line(((0.0, 0.0), (210.0, 148.0)), Pen(0.7)),
            Line(((150.0, 20.0), (190.0, 20.0), (190.0, 60.0), (150.0, 60.0)), Pen(0.5), closed=True),
        )
        display = DisplayList(210.0, 148.0, lines)
        self.pdf = self.folder / "sheet.pdf"
        self.pdf.write_bytes(FORMATS["pdf"].write([whole_page(display)], Sources({}.__getitem__), FileInfo()))

    def test_tiles_laid_side_by_side_are_the_sheet(self):
        archive = self.folder / "tiles"
        levels = write_tiles(self.pdf, 0, archive)
        for number, level in enumerate(levels):
            columns, rows = (math.ceil(side * level.per_mm) for side in (210.0, 148.0))
            laid = Image.new("RGB", (columns, rows))
            for row in range(level.rows):
                for column in range(level.columns):
                    tile = Image.open(io.BytesIO(read_tile(archive, number, row, column)))
                    laid.paste(tile, (column * TILE, row * TILE))
            whole = pypdfium2.PdfDocument(self.pdf)[0].render(scale=level.per_mm * 25.4 / 72).to_pil()
            apart = np.abs(
                np.asarray(laid, float) - np.asarray(whole.convert("RGB").resize(laid.size), float)
            )
            self.assertLess(apart.mean(), 1.0, level)
        with self.assertRaises(SheetError):
            read_tile(archive, len(levels), 0, 0)
        with zipfile.ZipFile(archive) as opened:
            self.assertTrue(all(entry.compress_type == zipfile.ZIP_STORED for entry in opened.infolist()))

    def test_levels_go_from_one_screen_to_as_fine_as_paper_and_no_further(self):
        for width, height in ((297.0, 210.0), (841.0, 594.0), (1189.0, 841.0), (5000.0, 900.0)):
            levels = levels_of(width, height)
            self.assertLessEqual(levels[0].per_mm * max(width, height), 1024 + 1)
            self.assertLessEqual(levels[-1].per_mm ** 2 * width * height, MAX_PIXELS * 1.001)
            for before, after in itertools.pairwise(levels):
                self.assertAlmostEqual(after.per_mm, 2 * before.per_mm)

    def test_a_part_of_a_sheet_is_shown_large_and_white_beside_the_paper(self):
        picture = Image.open(
            io.BytesIO(cropped(self.pdf, 0, shown_box(Box(150.0, 20.0, 40.0, 40.0)), 4.0))
        ).convert("L")
        self.assertEqual(picture.size, (4 * 64, 4 * 64))
        # The lower left corner of the square lies the margin from the corner of what is shown.
        column, row = (12 * 4, picture.height - 12 * 4)
        near = np.asarray(picture)[row - 4 : row + 4, column - 4 : column + 4]
        self.assertLess(near.min(), 80)


class SummaryTests(TestCase):
    def test_a_long_summary_goes_on_from_page_to_page_with_all_that_was_said(self):
        said = [
            WrittenComment(
                f"k{k}", "Oda Brand", "2031-05-04T10:20:30+00:00", f"Comment number {k}. " * 9, (),
                (WrittenAnswer(f"a{k}", "Kim", "2031-05-05T10:00:00+00:00", f"Answer to {k}"),), k,
                "done" if k % 2 else "open", "P02" if k % 2 else "",
            )
            for k in range(40)
        ]  # fmt: skip
        summary = Summary("2607 Observatory", "2031-06-01", (SummarySheet("A-01", "Plan", tuple(said)),))
        self.assertGreater(len(summary_pages(summary)), 2)
        pdf = summary_pdf(summary)
        printed = "".join(text(pdf, page) for page in range(len(page_sizes(pdf))))
        for k in range(40):
            self.assertIn(f"Answer to {k}", printed)
        self.assertIn("20 done, 20 open", printed)
        self.assertIn("Done in P02", printed)
