"""Viewports: where a point of the view lies on paper, their shapes, and what is refused."""

import math
from dataclasses import replace
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st
from shapely import Polygon

from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.schema import parse
from drafting.sheets.paper import Paper
from drafting.sheets.scale import Scale
from drafting.sheets.sheet import Sheet
from drafting.sheets.viewport import Viewport, check_on_paper, check_viewport
from drafting.styles.pen_table import PenChanges
from drafting.styles.pens import PenChange

ONE = Viewport("v", "k", Box(100, 50, 200, 100), Scale.parse("1:50"), (1000.0, 2000.0))


class ViewportTests(TestCase):
    def test_a_point_of_the_view_lies_where_the_scale_says(self):
        self.assertEqual(ONE.to_paper(1000, 2000), (200, 100))
        self.assertEqual(ONE.to_paper(6000, 2000), (300, 100))

    @given(st.floats(-360, 360), st.floats(-1e5, 1e5), st.floats(-1e5, 1e5))
    def test_turning_keeps_the_middle_and_every_length(self, turn, u, v):
        turned = replace(ONE, turn=turn)
        self.assertEqual(turned.to_paper(*ONE.centre), ONE.box.middle)
        x, y = turned.to_paper(u, v)
        self.assertAlmostEqual(
            math.dist((x, y), ONE.box.middle), math.dist((u, v), ONE.centre) / 50, places=6
        )

    def test_a_quarter_turn_is_anticlockwise(self):
        x, y = replace(ONE, turn=90.0).to_paper(6000, 2000)
        self.assertAlmostEqual(x, 200)
        self.assertAlmostEqual(y, 200)

    def test_a_round_viewport_touches_the_sides_of_its_box(self):
        outline = Polygon(replace(ONE, shape="circle", box=Box(10, 20, 80, 80)).outline)
        self.assertEqual([round(x, 9) for x in outline.bounds], [10, 20, 90, 100])
        self.assertAlmostEqual(outline.area, math.pi * 40**2, delta=1)

    def test_an_outline_that_crosses_itself_or_leaves_its_box_is_refused(self):
        for corners, why in (
            (((0, 0), (200, 100), (200, 0), (0, 100)), "cross"),
            (((0, 0), (200, 0)), "3 to 200 corners"),
            (((0, 0), (150, 0), (0, 100)), "its box"),
            (((0, 0), (200, 0), (0, float("inf"))), "numbers"),
        ):
            with self.subTest(why), self.assertRaisesRegex(SheetError, why):
                check_viewport(replace(ONE, shape="polygon", corners=corners))
        check_viewport(replace(ONE, shape="polygon", corners=((0, 0), (200, 0), (0, 100))))
        with self.assertRaisesRegex(SheetError, "as wide as it is high"):
            check_viewport(replace(ONE, shape="circle"))

    def test_pens_are_changed_by_role_and_layer_and_a_wrong_one_is_named(self):
        def read(given_):
            return parse(PenChanges, given_, "pens", SheetError)

        pens = read({"roles": {"cut": {"width": 0.7}}, "layers": {"Furniture": {"colour": "#888888"}}})
        self.assertEqual(pens.roles["cut"], PenChange(0.7, None))
        self.assertEqual(pens.layers["Furniture"], PenChange(None, "#888888"))
        for given_, why in (
            ({"roles": {"outline": {"width": 0.7}}}, "roles outline"),
            ({"roles": {"cut": {"width": 5}}}, "cut width: give a number of at most 2"),
            ({"layers": {"Walls": {"colour": "red"}}}, "“red” is no colour"),
            ({"materials": {}}, "materials: there is no such thing"),
        ):
            with self.subTest(why), self.assertRaisesRegex(SheetError, why):
                read(given_)

    def test_the_title_block_says_the_one_scale_or_that_there_are_several(self):
        paper = Paper.of("A3")
        one = Viewport("a", "", Box(0, 0, 1, 1), Scale.parse("1:50"), (0, 0))
        two = Viewport("b", "", Box(0, 0, 1, 1), Scale.parse("1:100"), (0, 0))
        self.assertEqual(Sheet(paper, viewports=(one, one)).field_values["scale"], "1:50")
        self.assertEqual(Sheet(paper, viewports=(one, two)).field_values["scale"], "As shown")

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
                check_viewport(replace(ONE, box=box))
                check_on_paper(box, paper)
