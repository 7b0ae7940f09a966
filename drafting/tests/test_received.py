"""Drawings from others: lines of DXF, SVG and PDF at their true places, with layers; and what is wrong with
files."""

import io
import math
import tempfile
from pathlib import Path
from unittest import TestCase

import ezdxf
import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from reportlab.pdfgen.canvas import Canvas

from drafting.errors import ReceivedFileError
from drafting.received.facts import facts_of, form_of
from drafting.received.reading import read_received, received_linework
from drafting.tasks.drawings import draw_received, look_at_received
from drafting.views.received import Received
from drafting.views.shown import Shown
from drafting.views.spec import dump_view, parse_view_spec

SVG = (
    '<svg xmlns="http://www.w3.org/2000/svg" width="96" height="48" viewBox="0 0 96 48">'
    '<g id="Walls"><path d="M 0 48 L 96 48"/></g>'
    '<g id="Trees"><circle cx="48" cy="24" r="12"/><text x="10" y="20" font-size="10">Oak</text></g></svg>'
)


def dxf(fill, unit=6):
    doc = ezdxf.new("R2010", units=unit)
    fill(doc, doc.modelspace())
    out = io.StringIO()
    doc.write(out)
    return out.getvalue().encode()


def read(data, name="a.dxf", page=1):
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "received"
        path.write_bytes(data)
        return read_received(path, name, page)


def linework(found, **given_):
    view = Received(file="0" * 64, name="a", **given_)
    return received_linework(found, view)


def points_of(found, layer=None):
    chosen = [line for line, own in zip(found.lines, found.layers, strict=True) if layer in (None, own)]
    return np.concatenate([np.asarray(line) for line in chosen])


class DxfTests(TestCase):
    def test_lines_arcs_and_polylines_lie_where_they_are_with_their_layers(self):
        def fill(doc, space):
            doc.layers.add("Kerb")
            space.add_line((1000, 2000), (1010, 2000), dxfattribs={"layer": "Kerb"})
            space.add_circle((1005, 2005), 2)
            space.add_lwpolyline([(1000, 2000, 0, 0, 1), (1004, 2000)])

        found = read(dxf(fill))
        self.assertEqual((found.mm, set(found.layers)), (1000.0, {"Kerb", "0"}))
        np.testing.assert_allclose(points_of(found, "Kerb"), [[1000, 2000], [1010, 2000]])
        circle = max(found.lines, key=len)
        radii = [math.dist(p, (1005, 2005)) for p in circle]
        np.testing.assert_allclose(radii, 2, atol=1e-3)
        # A bulge of 1 is half a circle.
        bulged = next(np.asarray(line) for line in found.lines if len(line) > 2 and line is not circle)
        self.assertAlmostEqual(bulged[:, 1].min(), 1998, places=2)

    def test_blocks_are_where_they_are_put_in_and_what_is_on_layer_0_has_the_layer_of_its_place(self):
        def fill(doc, space):
            block = doc.blocks.new("POST")
            block.add_line((0, 0), (1, 0))
            block.add_line((0, 0), (0, 1), dxfattribs={"layer": "Own"})
            space.add_blockref("POST", (10, 20), dxfattribs={"layer": "Fence", "rotation": 90, "xscale": 2})

        found = read(dxf(fill))
        np.testing.assert_allclose(points_of(found, "Fence"), [[10, 20], [10, 22]], atol=1e-9)
        np.testing.assert_allclose(points_of(found, "Own"), [[10, 20], [9, 20]], atol=1e-9)
        # All of one place is one thing, which can be found again in a later file.
        self.assertEqual(len(set(found.elements)), 1)

    def test_words_are_outlines_of_their_height_where_they_stand(self):
        def fill(doc, space):
            space.add_text("HEDGE", height=0.5).set_placement((30, 40))
            space.add_mtext("Two\\Plines", dxfattribs={"char_height": 0.5, "insert": (50, 60)})

        points = points_of(read(dxf(fill)))
        words = points[points[:, 0] < 45]
        self.assertAlmostEqual(words[:, 1].max() - words[:, 1].min(), 0.5, delta=0.03)
        self.assertAlmostEqual(words[:, 0].min(), 30, delta=0.1)
        lines = points[points[:, 0] >= 45]
        self.assertAlmostEqual(lines[:, 1].max(), 60, delta=0.05)
        self.assertLess(lines[:, 1].min(), 60 - 0.5 - 0.5)
        self.assertEqual({line.role for line in linework(read(dxf(fill))).lines}, {"symbol"})

    def test_layers_that_are_off_are_told_and_a_unit_that_is_not_said_is_none(self):
        def fill(doc, space):
            doc.layers.add("Old").off()
            space.add_line((0, 0), (1, 0), dxfattribs={"layer": "Old"})

        facts = facts_of(read(dxf(fill, unit=0)), "dxf")
        self.assertEqual(
            (facts.mm, facts.hidden, facts.layers, facts.paper), (None, ("Old",), {"Old": 1}, False)
        )

    def test_blocks_in_themselves_are_left_out_with_a_sentence_and_the_rest_is_there(self):
        def fill(doc, space):
            loop, other = doc.blocks.new("LOOP"), doc.blocks.new("OTHER")
            loop.add_blockref("OTHER", (0, 0))
            other.add_blockref("LOOP", (1, 0))
            space.add_blockref("LOOP", (0, 0))
            space.add_line((0, 0), (5, 0))

        found = read(dxf(fill))
        self.assertEqual(len(found.lines), 1)
        self.assertIn("hold themselves", found.notes[0])

    def test_a_block_multiplied_without_end_is_refused_and_not_drawn_for_ever(self):
        def fill(doc, space):
            doc.blocks.new("B0").add_line((0, 0), (1, 0))
            for k in range(1, 5):
                block = doc.blocks.new(f"B{k}")
                for n in range(60):
                    block.add_blockref(f"B{k - 1}", (n, 0))
            space.add_blockref("B4", (0, 0))

        with self.assertRaisesRegex(ReceivedFileError, "fewer layers"):
            read(dxf(fill))


class PaperTests(TestCase):
    def test_an_svg_is_upright_in_its_size_on_paper_and_its_groups_are_layers(self):
        found = read(SVG.encode(), "a.svg")
        np.testing.assert_allclose(points_of(found, "Walls"), [[0, 0], [96, 0]])
        self.assertAlmostEqual(found.mm * 96, 25.4)
        trees = points_of(found, "Trees")
        self.assertAlmostEqual(trees[:, 1].max(), 36, delta=0.2)
        self.assertTrue(facts_of(found, "svg").paper)

    def pdf(self, turned=0):
        out = io.BytesIO()
        canvas = Canvas(out, pagesize=(400, 200))
        canvas.setPageRotation(turned)
        canvas.translate(100, 50)
        canvas.line(0, 0, 144, 0)
        canvas.bezier(0, 0, 0, 40, 40, 40, 40, 0)
        canvas.drawString(10, 60, "Drain")
        canvas.showPage()
        canvas.line(0, 0, 72, 72)
        canvas.save()
        return out.getvalue()

    def test_a_page_of_a_pdf_has_its_lines_and_words_in_points(self):
        found = read(self.pdf(), "a.pdf")
        self.assertEqual(found.pages, 2)
        line = next(line for line in found.lines if len(line) == 2)
        np.testing.assert_allclose(line, [[100, 50], [244, 50]], atol=1e-3)
        # Two inches on paper at 1:100 are 5.08 m.
        drawn = linework(found, mm=found.mm * 100, origin=(100.0, 50.0))
        lengths = [np.ptp(each.points[:, 0]) for each in drawn.lines if len(each.points) == 2]
        self.assertAlmostEqual(lengths[0], 5080, delta=0.1)
        second = read(self.pdf(), "a.pdf", 2)
        np.testing.assert_allclose(second.lines[0], [[0, 0], [72, 72]], atol=1e-3)
        with self.assertRaisesRegex(ReceivedFileError, "no page 3"):
            read(self.pdf(), "a.pdf", 3)

    def test_a_page_that_is_turned_is_read_as_it_is_seen(self):
        line = next(line for line in read(self.pdf(90), "a.pdf").lines if len(line) == 2)
        np.testing.assert_allclose(sorted(p[0] for p in line), [50, 50], atol=1e-3)
        self.assertAlmostEqual(abs(line[0][1] - line[1][1]), 144, places=3)


class PlacedTests(TestCase):
    def survey(self, doc, space):
        for k in range(4):
            space.add_line((5000.0 + k, 9000.0), (5000.0 + k, 9010.0), dxfattribs={"layer": "ABCD"[k]})

    @settings(max_examples=10, deadline=None)
    @given(st.sampled_from([1.0, 25.4, 1000.0]))
    def test_it_is_drawn_in_real_mm_from_its_origin_without_the_layers_that_are_hidden(self, mm):
        found = read(dxf(self.survey))
        drawn = linework(found, mm=mm, origin=(5000.0, 9000.0), shown=Shown(without_layers=("B",)))
        u0, v0, u1, v1 = drawn.extents
        np.testing.assert_allclose((u0, v0, u1, v1), (0, 0, 3 * mm, 10 * mm), atol=1e-9)
        self.assertEqual(drawn.layers, ("A", "C", "D"))

    def test_it_is_stored_like_any_drawing_and_its_view_is_plain_data(self):
        view = Received(file="0" * 64, name="survey.dxf", mm=1000.0, origin=(5000.0, 9000.0))
        self.assertEqual(parse_view_spec(dump_view(view)), view)
        with tempfile.TemporaryDirectory() as folder:
            source, target = Path(folder) / "a", Path(folder) / "b"
            source.write_bytes(dxf(self.survey))
            looked = look_at_received(source, "survey.dxf")
            self.assertEqual(
                (looked["low"], looked["size"], looked["lines"]), ([5000.0, 9000.0], [3.0, 10.0], 4)
            )
            facts = draw_received(source, dump_view(view), target)
            self.assertEqual(facts["axes"]["up"], [0.0, 1.0, 0.0])
            np.testing.assert_allclose(facts["extents"], (0, 0, 3000, 10_000))
            self.assertGreater(target.stat().st_size, 0)


class BadFileTests(TestCase):
    def test_what_cannot_be_read_is_refused_with_its_name_and_a_remedy(self):
        cases = (
            (b"garbage", "site.dxf", "R2000"),
            (b"%PDF-1.4 broken", "site.pdf", "damaged"),
            (b"<svg", "site.svg", "site.svg"),
            (b"anything", "site.doc", "none of DXF, SVG and PDF"),
        )
        for data, name, words in cases:
            with self.subTest(name), self.assertRaisesRegex(ReceivedFileError, words):
                read(data, name)

    def test_an_empty_one_says_so_and_a_scan_says_what_it_is(self):
        with self.assertRaisesRegex(ReceivedFileError, "no lines"):
            read(dxf(lambda doc, space: None))
        out = io.BytesIO()
        canvas = Canvas(out)
        canvas.showPage()
        canvas.save()
        self.assertIn("may be a scan", read(out.getvalue(), "scan.pdf").notes[0])

    def test_a_form_is_told_by_what_is_in_it_before_the_ending_of_its_name(self):
        self.assertEqual(form_of("plan.dxf", b"%PDF-1.7"), "pdf")
        self.assertEqual(form_of("plan.txt", b'<?xml version="1.0"?><svg'), "svg")
