"""Scans of prints: laid under their sheet by the frame, however they were put on the glass."""

import tempfile
from pathlib import Path
from unittest import TestCase

import numpy as np
import pypdfium2
from PIL import Image, ImageDraw, ImageFilter

from drafting.errors import SheetError
from drafting.render.backend import Sources
from drafting.render.backends import FORMATS
from drafting.render.display_list import DisplayList
from drafting.render.items import Path as Line
from drafting.render.items import Text
from drafting.render.page import FileInfo, whole_page
from drafting.review.scans import by_points, lay
from drafting.styles.pens import INK, Pen

WIDTH, HEIGHT = 297.0, 210.0


def a_sheet():
    """A frame, a title block at its lower right, and a drawing that is no two ways up alike."""

    def rectangle(x, y, width, height, pen=0.35):
        corners = ((x, y), (x + width, y), (x + width, y + height), (x, y + height))
        return Line(corners, Pen(pen), closed=True)

    items = [rectangle(10, 10, 277, 190, 0.7), rectangle(187, 10, 100, 40), rectangle(40, 90, 120, 70, 0.5)]
    items += [rectangle(45 + 20 * k, 95, 12, 30) for k in range(5)]
    items += [Text((192.0, 15.0 + 6 * k), "Ternhaven, north head", 3.0, INK) for k in range(5)]
    return DisplayList(WIDTH, HEIGHT, tuple(items))


class ScanTests(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.sheet = self.folder / "sheet.pdf"
        page = whole_page(a_sheet())
        self.sheet.write_bytes(FORMATS["pdf"].write([page], Sources({}.__getitem__), FileInfo()))

    def scan(self, turn=0.0, per_inch=150, marked=True):
        """The print as it comes from a scanner: turned, grey, soft, with a cloud in pencil; and where a place
        of the sheet lies on it."""
        picture = pypdfium2.PdfDocument(self.sheet)[0].render(scale=per_inch / 72).to_pil().convert("L")
        if marked:
            draw = ImageDraw.Draw(picture)
            draw.ellipse((200, 200, 600, 450), outline=90, width=5)
            draw.line((600, 450, 900, 300), fill=90, width=5)
        size = picture.size
        turned = picture.rotate(turn, expand=True, fillcolor=255, resample=Image.Resampling.BICUBIC)
        shade = np.linspace(0.72, 1.0, turned.width)[None, :] * np.asarray(turned, float)
        noise = np.random.default_rng(1).normal(0, 6, shade.shape)
        grey = Image.fromarray(np.clip(shade + noise, 0, 255).astype(np.uint8)).filter(
            ImageFilter.GaussianBlur(0.7)
        )
        angle = np.radians(turn)

        def where(x, y):
            column, row = x * per_inch / 25.4 - size[0] / 2, (HEIGHT - y) * per_inch / 25.4 - size[1] / 2
            return (
                column * np.cos(angle) + row * np.sin(angle) + turned.width / 2,
                -column * np.sin(angle) + row * np.cos(angle) + turned.height / 2,
            )

        path = self.folder / "scan.png"
        grey.save(path)
        return path, where

    def laid(self, path, name="scan.png"):
        return lay(path, name, self.sheet, self.folder / "kept.jpg")

    def test_a_scan_that_is_askew_or_upside_down_comes_to_lie_on_its_sheet(self):
        for turn in (1.7, -3.2, 180.0, 268.5):
            path, where = self.scan(turn)
            found = self.laid(path)
            self.assertTrue(found.found, turn)
            for place in ((30.0, 30.0), (270.0, 180.0), (200.0, 20.0), (100.0, 120.0)):
                lies = found.placement.place(*where(*place))
                self.assertLess(np.hypot(lies[0] - place[0], lies[1] - place[1]), 1.0, (turn, place, lies))

    def test_what_is_kept_is_a_picture_of_its_size(self):
        found = self.laid(self.scan(per_inch=400)[0])
        with Image.open(self.folder / "kept.jpg") as kept:
            self.assertEqual((kept.format, kept.size), ("JPEG", (found.width, found.height)))
        self.assertEqual(max(found.width, found.height), 4000)

    def test_a_page_of_a_pdf_is_a_scan_too(self):
        picture = self.folder / "scan.pdf"
        Image.open(self.scan(0.8)[0]).save(picture, resolution=150)
        self.assertTrue(self.laid(picture, "scan.pdf").found)

    def test_what_shows_no_frame_fills_the_sheet_and_says_so(self):
        Image.fromarray(np.full((600, 800), 230, np.uint8)).save(self.folder / "blank.png")
        found = self.laid(self.folder / "blank.png")
        self.assertFalse(found.found)
        for pixel, corner in (((0, 600), (0, 0)), ((800, 0), (WIDTH, HEIGHT))):
            np.testing.assert_allclose(found.placement.place(*pixel), corner, atol=1e-9)

    def test_what_is_no_picture_is_refused_by_name(self):
        for data in (b"nothing", b"%PDF-1.7 nothing", b"\x89PNG\r\n\x1a\nbroken"):
            (self.folder / "x").write_bytes(data)
            with self.assertRaisesRegex(SheetError, "“x” could not be read"):
                self.laid(self.folder / "x", "x")

    def test_three_points_say_how_it_lies_and_three_on_a_line_do_not(self):
        placement = by_points([(10, 20), (300, 40), (120, 500)], [(5, 100), (60, 90), (30, 10)])
        self.assertLess(np.abs(np.array(placement.place(300, 40)) - (60, 90)).max(), 1e-6)
        self.assertIsNone(by_points([(0, 0), (1, 1), (2, 2)], [(5, 100), (60, 90), (30, 10)]))
