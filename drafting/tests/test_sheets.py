"""Scales, paper, and where things lie on a sheet."""

from fractions import Fraction
from itertools import pairwise
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from drafting.errors import PaperError, ScaleError, SheetError
from drafting.sheets.paper import Paper
from drafting.sheets.placing import free_area, place_view
from drafting.sheets.scale import LADDER, Scale, largest_that_fits
from drafting.sheets.sheet import Box, Sheet, Viewport, block_of, check_viewport, frame_of


class ScaleTests(TestCase):
    def test_a_scale_is_exact(self):
        self.assertEqual(Scale.parse("1:33 1/3").ratio, Fraction(3, 100))
        self.assertEqual(Scale.parse("1:12.5").ratio, Fraction(2, 25))
        self.assertEqual(Scale.parse(" 2 : 1 ").ratio, 2)

    def test_a_scale_is_written_as_it_is_read(self):
        for scale in LADDER:
            self.assertEqual(Scale.parse(str(scale)), scale)

    @given(st.fractions(Fraction(1, 90_000), 90, max_denominator=90_000))
    def test_every_scale_is_written_so_that_it_can_be_read(self, ratio):
        self.assertEqual(Scale.parse(str(Scale(ratio))).ratio, ratio)

    def test_what_is_no_scale_is_refused_by_name(self):
        for text in ("0:50", "1:0", "-1:50", "1:-50", "half", "", "1", "1:50:2", "1:nan", "1:5e3", "1/0"):
            with self.subTest(text), self.assertRaises(ScaleError) as caught:
                Scale.parse(text)
            self.assertIn(f"“{text}”", str(caught.exception))

    def test_what_no_drawing_can_have_is_refused(self):
        for text in ("1:100001", "101:1"):
            with self.assertRaisesRegex(ScaleError, text):
                Scale.parse(text)

    def test_the_largest_that_fits(self):
        self.assertEqual(str(largest_that_fits(20_000, 10_000, 200, 100)), "1:100")
        self.assertEqual(str(largest_that_fits(20_001, 10_000, 200, 100)), "1:200")
        self.assertEqual(str(largest_that_fits(1e9, 1e9, 200, 100)), "1:5000")


class PaperTests(TestCase):
    def test_each_size_is_half_of_the_one_before(self):
        sizes = [Paper.of(name) for name in ("A0", "A1", "A2", "A3", "A4")]
        for large, small in pairwise(sizes):
            self.assertAlmostEqual(large.width / 2, small.height, delta=0.5)
            self.assertEqual(large.height, small.width)

    def test_portrait_stands(self):
        self.assertEqual(Paper.of("a3", "portrait"), Paper("A3", 297, 420))

    def test_what_is_no_paper_is_refused_by_name(self):
        with self.assertRaisesRegex(PaperError, "A9"):
            Paper.of("A9")
        with self.assertRaisesRegex(PaperError, "diagonal"):
            Paper.of("A3", "diagonal")

    def test_the_frame_leaves_room_for_filing(self):
        self.assertEqual(frame_of(Paper.of("A3")), Box(20, 10, 390, 277))

    def test_the_title_block_stands_at_the_lower_right_of_every_frame(self):
        for name in ("A0", "A3", "A4"):
            for way in ("landscape", "portrait"):
                paper = Paper.of(name, way)
                block, frame = block_of(paper), frame_of(paper)
                self.assertEqual((block.right, block.y), (frame.right, frame.y))
                self.assertGreaterEqual(block.x, frame.x)


class ViewportTests(TestCase):
    def test_a_point_of_the_view_lies_where_the_scale_says(self):
        viewport = Viewport("v", "k", Box(100, 50, 200, 100), Scale.parse("1:50"), (1000.0, 2000.0))
        self.assertEqual(viewport.to_paper(1000, 2000), (200, 100))
        self.assertEqual(viewport.to_paper(6000, 2000), (300, 100))

    def test_the_title_block_says_the_one_scale_or_that_there_are_several(self):
        paper = Paper.of("A3")
        one = Viewport("a", "", Box(0, 0, 1, 1), Scale.parse("1:50"), (0, 0))
        two = Viewport("b", "", Box(0, 0, 1, 1), Scale.parse("1:100"), (0, 0))
        self.assertEqual(Sheet(paper, viewports=(one, one)).scale_text, "1:50")
        self.assertEqual(Sheet(paper, viewports=(one, two)).scale_text, "As shown")

    def test_a_viewport_that_cannot_be_seen_is_refused(self):
        paper = Paper.of("A3")
        for box, why in (
            (Box(0, 0, 0, 50), "too small"),
            (Box(0, 0, -20, 50), "too small"),
            (Box(421, 0, 20, 50), "off the A3"),
            (Box(-60, 0, 50, 50), "off the A3"),
            (Box(0, 0, 20_000, 50), "larger"),
            (Box(float("nan"), 0, 20, 50), "numbers"),
        ):
            with self.subTest(box), self.assertRaisesRegex(SheetError, why):
                check_viewport(box, (0, 0), paper)

    def test_a_view_is_placed_whole_at_the_largest_scale_that_fits(self):
        paper = Paper.of("A3")
        placed, free = place_view((0, 0, 20_000, 10_000), paper), free_area(paper)
        self.assertEqual(str(placed.scale), "1:75")
        self.assertEqual(placed.centre, (10_000, 5_000))
        self.assertGreaterEqual(placed.box.width * 75, 20_000)
        self.assertTrue(free.x <= placed.box.x and placed.box.right <= free.right and placed.box.y >= free.y)

    def test_a_view_placed_at_the_edge_is_kept_within_the_frame(self):
        placed = place_view((0, 0, 10_000, 10_000), Paper.of("A3"), at=(419, 296))
        self.assertEqual((placed.box.right, placed.box.top), (410, 287))

    def test_a_scale_at_which_the_drawing_does_not_fit_is_refused_with_one_that_does(self):
        with self.assertRaisesRegex(SheetError, r"1:1 .* does not fit A3\. Take 1:75"):
            place_view((0, 0, 20_000, 10_000), Paper.of("A3"), scale=Scale.parse("1:1"))
