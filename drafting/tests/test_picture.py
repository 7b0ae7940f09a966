"""Pictures for templates: SVG as lines and areas, PNG and JPEG as they are, and nothing that could do
harm."""

import io
import struct
import zlib
from dataclasses import replace
from unittest import TestCase

import numpy as np
from PIL import Image as Pixels

from drafting.errors import SheetError
from drafting.render.compose import compose
from drafting.render.items import Fill, Image, Path
from drafting.render.page import whole_page
from drafting.sheets.paper import Paper
from drafting.sheets.picture import MAX_BYTES, Picture, read_picture
from drafting.sheets.sheet import Sheet
from drafting.sheets.template import Part, TemplateSpec
from drafting.tests.outputs import write_pdf, write_svg

LOGO = b"""<svg xmlns="http://www.w3.org/2000/svg" width="40" height="20" viewBox="0 0 80 40">
<g transform="translate(10 0)"><rect x="0" y="10" width="40" height="20" fill="#9c3f24"/></g>
<circle cx="40" cy="20" r="10" fill="none" stroke="#1b1f24" stroke-width="2"/></svg>"""


def picture_file(form, size=(40, 20)):
    out = io.BytesIO()
    Pixels.new("RGB", size, "#2d5c66").save(out, form)
    return out.getvalue()


def sheet_with(picture):
    part = Part("image", -60, 0, 0, 40, picture="logo")
    return Sheet(
        Paper.of("A3"),
        template=TemplateSpec(frame=0, zones=False, centring=False, parts=(part,)),
        pictures={"logo": replace(picture, key="one")},
    )


class PictureTests(TestCase):
    def test_an_svg_becomes_areas_and_lines_upright_and_in_place(self):
        picture = read_picture(LOGO, "logo.svg")
        self.assertEqual((picture.form, picture.width, picture.height), ("vector", 40, 20))
        area, ring = picture.outlines
        self.assertEqual((area.fill, area.stroke), ("#9c3f24", ""))
        corners = np.array(area.rings[0])
        np.testing.assert_allclose([corners.min(axis=0), corners.max(axis=0)], [(5, 5), (25, 15)])
        self.assertEqual((ring.fill, ring.stroke, ring.width), ("", "#1b1f24", 1.0))
        np.testing.assert_allclose(np.hypot(*(np.array(ring.rings[0]) - (20, 10)).T), 5, atol=0.01)

    def test_what_is_kept_comes_back(self):
        for picture in (read_picture(LOGO, "logo.svg"), read_picture(picture_file("PNG"), "logo.png")):
            again = Picture.from_bytes(picture.form, picture.width, picture.height, picture.to_bytes())
            self.assertEqual((again.outlines, again.data), (picture.outlines, picture.data))

    def test_a_vector_picture_is_drawn_as_large_as_its_box_lets_it_be(self):
        items = compose(sheet_with(read_picture(LOGO, "logo.svg"))).items
        fill, line = (next(i for i in items if isinstance(i, kind)) for kind in (Fill, Path))
        # 40 x 20 units in a box of 60 x 40 mm: one and a half millimetres each, in the middle of its height.
        np.testing.assert_allclose(np.ptp(fill.rings[0], axis=0), (30, 15))
        np.testing.assert_allclose(np.min(fill.rings[0], axis=0), (350 + 7.5, 10 + 5 + 7.5))
        self.assertAlmostEqual(line.pen.width, 1.5)

    def test_pixels_are_written_into_pdf_and_svg(self):
        picture = read_picture(picture_file("PNG", (60, 20)), "logo.png")
        display = compose(sheet_with(picture))
        image = next(i for i in display.items if isinstance(i, Image))
        self.assertEqual((image.box.width, image.box.height), (60, 20))
        keys, page = {"one": picture.data}, whole_page(display)
        pdf = write_pdf([page], dict, pictures=keys.__getitem__)
        self.assertIn(b"/Subtype /Image", pdf)
        self.assertEqual(pdf, write_pdf([page], dict, pictures=keys.__getitem__))
        self.assertIn(b"data:image/png;base64", write_svg(page, dict, pictures=keys.__getitem__))

    def test_what_is_no_picture_or_does_something_is_refused_with_the_remedy(self):
        def svg(inside):
            return b'<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10">' + inside + b"</svg>"

        for data, name, why in (
            (b"\0" * (MAX_BYTES + 1), "large.png", "10 MB.*at most 10 MB"),
            (b"not a picture", "logo.png", "could not be read"),
            (picture_file("GIF"), "logo.gif", "is a GIF file"),
            (picture_file("PNG", (7000, 6000)), "huge.png", "7000 x 6000 pixels"),
            (svg(b"<script>alert(1)</script>"), "logo.svg", "a script"),
            (svg(b'<rect width="1" height="1" onload="x()"/>'), "logo.svg", "a script"),
            (svg(b'<use href="https://elsewhere/x.svg#a"/>'), "logo.svg", "outside"),
            (svg(b"<text>Words</text>"), "logo.svg", "Convert it to outlines"),
            (svg(b'<image width="3" height="3" href="#a"/>'), "logo.svg", "picture of pixels"),
            (svg(b'<linearGradient id="a"/>'), "logo.svg", "plain colours"),
            (svg(b""), "logo.svg", "nothing in it"),
            (b"<svg><rect", "logo.svg", "could not be read as an SVG"),
            (b'<!DOCTYPE svg [<!ENTITY a "b">]><svg/>', "logo.svg", "a script or something"),
        ):
            with self.subTest(why), self.assertRaisesRegex(SheetError, why):
                read_picture(data, name)

    def test_what_unfolds_without_bounds_or_hides_behind_an_encoding_is_refused_before_it_is_drawn(self):
        space = b'<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9">%s</svg>'
        levels = b"".join(
            b'<g id="a%d">%s</g>' % (k, b'<use href="#a%d"/>' % (k - 1) * 10 if k else b'<rect width="1"/>')
            for k in range(12)
        )
        itself = b'<g id="a"><rect width="1" height="1"/><use href="#a"/></g>'
        long_path = b'<path d="M0 0%s" fill="#000000"/>' % (b" 1 1" * 400_000)
        deep = b"<g>" * 300 + b"</g>" * 300
        script = (space % b"<script>alert(1)</script>").decode()
        for data, why in (
            (space % levels, "too detailed"),
            (space % itself, "too detailed"),
            (space % long_path, "too detailed"),
            (space % deep, "nested more than"),
            (f'<?xml version="1.0" encoding="UTF-16"?>{script}'.encode("utf-16"), "a script"),
            (space % b'<rect width="1" style="fill:url(https://elsewhere)"/>', "outside"),
            (space % b"<style>@import 'https://elsewhere';</style>", "outside"),
        ):
            with self.subTest(why), self.assertRaisesRegex(SheetError, why):
                read_picture(data, "logo.svg")

    def test_a_picture_with_more_words_beside_it_than_any_has_is_refused(self):
        chunk = zlib.compress(b" " * 3_000_000)
        body = b"zTXt" + b"Comment\0\0" + chunk
        text = struct.pack(">I", len(body) - 4) + body + struct.pack(">I", zlib.crc32(body))
        png = picture_file("PNG")
        with self.assertRaisesRegex(SheetError, "could not be read"):
            read_picture(png[:33] + text + png[33:], "logo.png")

    def test_a_photograph_is_turned_upright_and_told_nothing_else(self):
        pixels = Pixels.new("RGB", (40, 20), "#2d5c66")
        exif = pixels.getexif()
        exif[0x0112], exif[0x010E] = 6, "taken at home"  # turned by a quarter; a description
        out = io.BytesIO()
        pixels.save(out, "JPEG", exif=exif)
        picture = read_picture(out.getvalue(), "photo.jpg")
        self.assertEqual((picture.width, picture.height), (20, 40))
        self.assertNotIn(b"taken at home", picture.data)
