"""Marks: where other views lie in the one that is seen, which way they look, and what their bubbles say."""

import math
from dataclasses import replace
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st
from shapely import Polygon

from drafting.geometry.boxes import Box
from drafting.geometry.regions import Circle, Rectangle
from drafting.render.mark_items import mark_items
from drafting.sheets.level_marks import level_text, levels_in
from drafting.sheets.marked_view import MarkedView, north_on_paper
from drafting.sheets.reference_marks import BUBBLE, Reference, Subject, marks_in
from drafting.sheets.scale import Scale
from drafting.sheets.viewport import Viewport
from drafting.views.detail import Detail
from drafting.views.line_settings import LineSettings
from drafting.views.notation import parse_view
from drafting.views.section import Section

#: A plan of a house whose middle is at 6000, 4000, at 1:100 in the middle of a box of 200 x 150 mm.
BOX = Box(100, 50, 200, 150)
PLAN = MarkedView(
    Viewport("v", "k", BOX, Scale.parse("1:100"), (0.0, 0.0)),
    "plan",
    parse_view("plan:0"),
    (1.0, 0.0, 0.0),
    (0.0, 1.0, 0.0),
    (6000.0, 4000.0, 0.0),
)
SOUTH = replace(
    PLAN,
    view="south",
    spec=parse_view("elevation:south"),
    up=(0.0, 0.0, 1.0),
    viewport=replace(PLAN.viewport, id="s"),
)
#: Along x through the middle of the house: the viewer stands to the south and looks north.
ALONG = Subject("a", parse_view("section:-9000,4000,21000,4000"), (0.0, -1.0, 0.0), Reference("1", "A-05"))
#: Along y, looking west.
ACROSS = Subject("b", parse_view("section:6000,-9000,6000,17000"), (1.0, 0.0, 0.0))
EAST = Subject("e", parse_view("elevation:east"), (1.0, 0.0, 0.0), Reference("2", "A-03"))


class SectionMarkTests(TestCase):
    def test_a_sections_line_lies_on_the_plan_where_it_cuts(self):
        (mark,) = marks_in(PLAN, [ALONG])
        self.assertEqual({round(y, 9) for _, y in mark.line}, {125.0})
        self.assertEqual((mark.kind, mark.reference), ("section", Reference("1", "A-05")))
        self.assertAlmostEqual(mark.sight[0], 0)
        self.assertAlmostEqual(mark.sight[1], 1)

    def test_its_ends_and_bubbles_stay_within_the_outline(self):
        for viewport in (PLAN.viewport, replace(PLAN.viewport, shape="circle", box=Box(100, 50, 120, 120))):
            for mark in marks_in(replace(PLAN, viewport=viewport), [ALONG, ACROSS]):
                for x, y in mark.bubbles:
                    middle, size = viewport.box.middle, viewport.box
                    self.assertLess(abs(x - middle[0]) + BUBBLE, size.width / 2)
                    self.assertLess(abs(y - middle[1]) + BUBBLE, size.height / 2)

    def test_a_line_that_is_not_seen_has_no_mark(self):
        away = replace(PLAN, viewport=replace(PLAN.viewport, centre=(0.0, 90_000.0)))
        self.assertEqual(marks_in(away, [ALONG]), [])
        self.assertEqual(marks_in(PLAN, [replace(ALONG, id="plan")]), [])

    def test_jogs_are_on_the_plan_too(self):
        jogged = replace(ALONG, spec=parse_view("section:-9000,4000,6000,4000,6000,6000,21000,6000"))
        (mark,) = marks_in(PLAN, [jogged])
        self.assertEqual(len(mark.line), 4)
        self.assertAlmostEqual(mark.line[2][1] - mark.line[1][1], 20.0)

    def test_a_jogged_line_that_leaves_the_crop_is_cut_off_at_its_edge(self):
        # The crop shows 6 to 18 m of a line whose ends lie beyond it on both sides.
        jogged = replace(ALONG, spec=parse_view("section:-40000,4000,6000,4000,6000,6000,60000,6000"))
        near = replace(PLAN, viewport=replace(PLAN.viewport, scale=Scale.parse("1:50")))
        (mark,) = marks_in(near, [jogged])
        self.assertEqual(len(mark.line), 4)
        ways = [(b[0] - a[0], b[1] - a[1]) for a, b in zip(mark.line, mark.line[1:], strict=False)]
        self.assertEqual([abs(dx) > abs(dy) for dx, dy in ways], [True, False, True])
        self.assertTrue(all(BOX.x < x < BOX.right for x, _ in mark.bubbles))

    def test_a_line_near_the_edge_of_the_crop_is_marked(self):
        for inside in (12.0, 6.0, 2.0):
            top = 4000 + (BOX.top - BOX.middle[1] - inside) * 100
            (mark,) = marks_in(PLAN, [replace(ALONG, spec=parse_view(f"section:-9000,{top},21000,{top}"))])
            self.assertEqual({round(BOX.top - y, 6) for _, y in mark.line}, {inside})

    def test_the_jog_of_a_section_is_marked_in_the_section(self):
        line = "section:-9000,4000,6000,4000,6000,6000,21000,6000"
        seen = replace(SOUTH, view="j", spec=parse_view(line))
        marks = marks_in(seen, [])
        self.assertEqual([(mark.kind, mark.bubbles) for mark in marks], [("jog", ())])
        self.assertEqual({round(x, 6) for x, _ in marks[0].line}, {200.0})
        self.assertEqual(marks_in(replace(SOUTH, view="a", spec=ALONG.spec), []), [])
        self.assertEqual(len(list(mark_items(marks, "v"))), 2)

    def test_it_turns_with_the_drawing(self):
        (mark,) = marks_in(replace(PLAN, viewport=replace(PLAN.viewport, turn=90.0)), [ALONG])
        self.assertEqual({round(x, 6) for x, _ in mark.line}, {200.0})
        self.assertAlmostEqual(mark.sight[0], -1)

    def test_on_an_elevation_a_section_across_is_an_upright_and_one_along_is_not_there(self):
        (mark,) = marks_in(SOUTH, [ALONG, ACROSS])
        self.assertEqual((mark.subject, {round(x, 9) for x, _ in mark.line}), ("b", {200.0}))
        self.assertEqual([m.through for m in (mark, *marks_in(PLAN, [ALONG]))], [False, True])
        self.assertAlmostEqual(mark.sight[0], -1)

    @given(st.floats(-20_000, 20_000), st.floats(0, 360), st.floats(0, 360), st.sampled_from((50, 100, 500)))
    def test_however_a_line_lies_its_bubbles_are_seen_and_its_arrows_look_across_it(
        self, off, way, turn, over
    ):
        cos, sin = math.cos(math.radians(way)), math.sin(math.radians(way))
        at = (6000 - sin * off / 4, 4000 + cos * off / 4)
        line = ((at[0] - 40_000 * cos, at[1] - 40_000 * sin), (at[0] + 40_000 * cos, at[1] + 40_000 * sin))
        subject = Subject("s", Section(line=line), (sin, -cos, 0.0))
        viewport = replace(PLAN.viewport, turn=turn, scale=Scale.parse(f"1:{over}"))
        for mark in marks_in(replace(PLAN, viewport=viewport), [subject]):
            for x, y in mark.bubbles:
                self.assertTrue(BOX.x <= x <= BOX.right and BOX.y <= y <= BOX.top)
            (ax, ay), (bx, by) = mark.line[0], mark.line[-1]
            length = math.dist(mark.line[0], mark.line[-1])
            self.assertAlmostEqual(
                (mark.sight[0] * (bx - ax) + mark.sight[1] * (by - ay)) / length, 0, places=6
            )
            # What lies to the left of the line is looked at, whichever way it was cut off.
            wanted = math.radians(way + turn + 90)
            self.assertAlmostEqual(
                mark.sight[0] * math.cos(wanted) + mark.sight[1] * math.sin(wanted), 1, places=6
            )


class ElevationMarkTests(TestCase):
    def test_it_stands_on_the_side_from_which_it_is_looked_at(self):
        (mark,) = marks_in(PLAN, [EAST])
        (x, y) = mark.bubbles[0]
        self.assertGreater(x, 280)
        self.assertAlmostEqual(y, 125, delta=0.1)
        self.assertEqual([round(s) for s in mark.sight], [-1, 0])

    def test_two_of_one_side_stand_beside_each_other(self):
        marks = marks_in(PLAN, [EAST, replace(EAST, id="f"), ALONG, replace(EAST, id="g")])
        bubbles = [b for m in marks for b in m.bubbles]
        apart = [math.dist(a, b) for k, a in enumerate(bubbles) for b in bubbles[:k]]
        self.assertGreaterEqual(min(apart), 2 * BUBBLE)
        self.assertEqual(len(marks), 4)

    def test_an_elevation_has_no_mark_on_another_nor_on_a_detail(self):
        self.assertEqual(marks_in(SOUTH, [EAST]), [])
        detail = Detail(of=parse_view("plan:0"), region=Circle((0.0, 0.0), 1000.0))
        self.assertEqual(marks_in(replace(PLAN, spec=detail), [EAST]), [])


class DetailMarkTests(TestCase):
    def test_the_outline_of_a_detail_lies_on_the_view_it_is_of_whatever_its_lines_are_like(self):
        hidden = replace(parse_view("plan:0"), line_settings=LineSettings(hidden=True))
        detail = Subject(
            "d", Detail(of=hidden, region=Rectangle((-500.0, -500.0), (1500.0, 1000.0))), (0, 0, 1.0)
        )
        (mark,) = marks_in(PLAN, [detail])
        self.assertEqual(mark.line[0], (195.0, 120.0))
        self.assertEqual(mark.line[2], (215.0, 135.0))
        self.assertIsNone(mark.sight)
        self.assertEqual(marks_in(SOUTH, [detail]), [])

    def test_its_bubble_takes_the_freest_place_about_the_outline(self):
        detail = Subject(
            "d",
            Detail(of=parse_view("plan:0"), region=Rectangle((-500.0, -500.0), (1500.0, 1000.0))),
            (0, 0, 1.0),
        )
        ((right, top),) = (mark.bubbles[0] for mark in marks_in(PLAN, [detail]))
        self.assertEqual((right, top), (215.0 + BUBBLE, 135.0 + BUBBLE))
        # A room's name stands there, and a mark in the next place.
        named = replace(PLAN, taken=(Box(right - 8, top - 4, 20, 9),))
        (mark,) = marks_in(named, [detail], [(215.0 + BUBBLE, 120.0 - BUBBLE)])
        self.assertEqual(mark.bubbles, ((195.0 - BUBBLE, 135.0 + BUBBLE),))
        # Off the building rather than on it.
        edge = replace(PLAN, building=Box(150.0, 100.0, 70.0, 30.0))
        (mark,) = marks_in(edge, [detail])
        self.assertFalse(150.0 < mark.bubbles[0][0] < 220.0 and 100.0 < mark.bubbles[0][1] < 130.0)

    def test_on_a_building_it_stands_on_the_floor_of_a_room_and_on_no_wall(self):
        region = Rectangle((-500.0, -500.0), (1500.0, 1000.0))
        detail = Subject("d", Detail(parse_view("plan:0"), region), (0, 0, 1.0))
        # The outline lies from 195 to 215 across and 120 to 135 upward. To its upper right runs a wall.
        room = Polygon([(190.0, 134.0), (217.0, 134.0), (217.0, 170.0), (190.0, 170.0)])
        inside = replace(PLAN, building=BOX, floors=(room,))
        (mark,) = marks_in(inside, [detail])
        self.assertEqual(mark.bubbles, ((210.0, 135.0 + BUBBLE),))

    def test_its_bubble_stays_within_the_viewport(self):
        corner = Subject(
            "d", Detail(of=parse_view("plan:0"), region=Circle((9000.0, 6500.0), 800.0)), (0, 0, 1.0)
        )
        (mark,) = marks_in(PLAN, [corner])
        x, y = mark.bubbles[0]
        self.assertTrue(BOX.x + BUBBLE <= x <= BOX.right - BUBBLE and BOX.y + BUBBLE <= y <= BOX.top - BUBBLE)


class LevelTests(TestCase):
    STOREYS = (("Ground floor", 0.0), ("Upper floor", 2900.0), ("Moon", 90_000.0))

    def test_levels_lie_at_their_height_and_those_out_of_sight_do_not(self):
        levels = levels_in(SOUTH, self.STOREYS)
        self.assertEqual(
            [(x.name, x.height) for x in levels], [("Ground floor", "±0.000"), ("Upper floor", "+2.900")]
        )
        self.assertAlmostEqual(levels[1].y - levels[0].y, 29.0)
        self.assertEqual((levels[0].left, levels[0].right), (BOX.x, BOX.right))

    def test_a_plan_has_none(self):
        self.assertEqual(levels_in(PLAN, self.STOREYS), [])

    def test_levels_are_written_as_the_trade_does(self):
        for elevation, metric, feet in (
            (0.0, "±0.000", "±0'-0\""),
            (2900.0, "+2.900", "+9'-6 1/4\""),
            (-304.8, "−0.305", "−1'-0\""),
        ):
            self.assertEqual((level_text(elevation), level_text(elevation, feet=True)), (metric, feet))


class NorthTests(TestCase):
    def test_north_follows_the_models_true_north_and_the_drawings_turn(self):
        def bearing(turn, true_north):
            x, y = north_on_paper(replace(PLAN, viewport=replace(PLAN.viewport, turn=turn)), true_north)
            return round(math.degrees(math.atan2(x, y)), 6)

        self.assertEqual(bearing(0.0, None), 0)
        self.assertEqual(bearing(0.0, 12.5), 12.5)
        self.assertEqual(bearing(30.0, 12.5), -17.5)
        self.assertIsNone(north_on_paper(SOUTH, 0.0))
