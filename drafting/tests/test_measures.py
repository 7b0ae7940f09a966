"""Angles, radii, arcs, slopes and areas: true whatever the scale and the turn of the drawing."""

import math
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from drafting.annotation.anchors import Anchor
from drafting.annotation.corners import Corners
from drafting.annotation.dimensions import STYLES, DimensionStyle
from drafting.annotation.measures import Measure, circle_through, figure, reference, words
from drafting.annotation.pieces import PlacedPiece, attached, dump_piece, parse_piece
from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.render.annotation_items import piece_boxes, piece_items
from drafting.render.items import Fill, Path, Text
from drafting.sheets.scale import Scale
from drafting.sheets.viewport import Viewport
from drafting.tests.scenes import box, cylinder, drawn
from drafting.views.axonometric import Axonometric
from drafting.views.elevation import Elevation
from drafting.views.plan import Plan

RADII = st.integers(200, 20_000)
WAYS = st.integers(0, 359)


def measure(of, *places, **given_):
    return Measure(of, tuple(Anchor((float(u), float(v))) for u, v in places), **given_)


def placed(piece, scale="1:50", turn=0.0, at=None):
    viewport = Viewport(
        "v", "k", Box(40, 100, 260, 120), Scale.parse(scale), (0.0, 0.0), "1", "Plan", turn=turn
    )
    return PlacedPiece("p", piece, piece.locate(lambda e: None), viewport)


def on_circle(radius, way, centre=(500.0, -300.0)):
    turn = math.radians(way)
    return centre[0] + radius * math.cos(turn), centre[1] + radius * math.sin(turn)


def said(piece, **where):
    (text,) = [item.text for item in piece_items(placed(piece, **where)) if isinstance(item, Text)]
    return text


class FigureTests(TestCase):
    @given(RADII, WAYS, st.integers(20, 100), st.integers(20, 100))
    def test_three_points_of_a_circle_give_its_radius_diameter_and_arc(self, radius, way, first, second):
        points = [on_circle(radius, way + by) for by in (0, first, first + second)]
        centre, found = circle_through(*points)
        self.assertAlmostEqual(found, radius, delta=1e-4 * radius)
        self.assertLess(math.dist(centre, (500.0, -300.0)), 1e-3 * radius)
        self.assertAlmostEqual(figure("diameter", points), 2 * radius, delta=1e-4 * radius)
        arc = radius * math.radians(first + second)
        self.assertAlmostEqual(figure("arc", points), arc, delta=1e-4 * radius)
        self.assertAlmostEqual(figure("arc", points[::-1]), arc, delta=1e-4 * radius)

    @given(WAYS, st.integers(1, 179))
    def test_an_angle_is_the_one_between_its_sides_however_they_lie(self, way, angle):
        corner = (500.0, -300.0)
        points = [corner, on_circle(900, way), on_circle(2400, way + angle)]
        self.assertAlmostEqual(figure("angle", points), angle, places=6)
        self.assertAlmostEqual(figure("angle", [corner, points[2], points[1]]), angle, places=6)

    @given(
        st.lists(st.tuples(st.integers(100, 5000), WAYS), min_size=3, max_size=9, unique_by=lambda p: p[1])
    )
    def test_an_area_is_that_of_its_outline_whichever_way_round(self, spokes):
        outline = [on_circle(radius, way) for radius, way in sorted(spokes, key=lambda s: s[1])]
        whole = figure("area", outline)
        if whole is None:
            return
        self.assertAlmostEqual(figure("area", outline[::-1]), whole, delta=1e-6 * whole)
        moved = [(u + 1234.0, v - 77.0) for u, v in outline]
        self.assertAlmostEqual(figure("area", moved), whole, delta=1e-6 * whole + 1e-3)

    def test_what_measures_nothing_has_no_figure(self):
        self.assertIsNone(circle_through((0, 0), (1000, 0), (2000, 0)))
        self.assertIsNone(figure("angle", [(0, 0), (0, 0.1), (5, 5)]))
        self.assertIsNone(figure("slope", [(10, 0), (10, 900)]))
        self.assertIsNone(figure("area", [(0, 0), (5, 0), (10, 0)]))


class WordsTests(TestCase):
    def test_each_is_lettered_as_drawings_have_it(self):
        metres = STYLES["metres"]
        slope = measure("slope", (0, 0), (1000, 25))
        ratio = measure("slope", (0, 0), (1000, 25), slope_in="ratio")
        degrees = measure("slope", (0, 0), (1000, 1000), slope_in="degrees")
        found = [
            words(measure("radius", (0, 0), (1, 0), (0, 1)), 1200.4, STYLES["millimetres"]),
            words(measure("diameter", (0, 0), (1, 0), (0, 1)), 2400.0, metres),
            words(measure("angle", (0, 0), (1, 0), (0, 1)), 45.04, metres),
            words(slope, 0.025, metres),
            words(ratio, -0.025, metres),
            words(degrees, 1.0, metres),
            words(measure("area", (0, 0), (1, 0), (0, 1)), 12.34e6, metres),
            words(measure("area", (0, 0), (1, 0), (0, 1)), 12.34e6, STYLES["feet"]),
        ]
        self.assertEqual(found, ["R 1200", "Ø 2.40", "45°", "2.5 %", "1 : 40", "45°", "12.3 m²", "133 sq ft"])

    @given(st.sampled_from(["1:20", "1:50", "1:200"]), WAYS)
    def test_the_figure_is_true_at_any_scale_and_turn(self, scale, turn):
        corners = [on_circle(3000, way) for way in (0, 90, 180, 270)]
        self.assertEqual(said(measure("area", *corners), scale=scale, turn=float(turn)), "18.0 m²")
        self.assertEqual(said(measure("radius", *corners[:3]), scale=scale, turn=float(turn)), "R 3000")

    def test_what_is_typed_over_is_told_and_a_named_style_letters_it(self):
        typed = measure("radius", *(on_circle(900, way) for way in (0, 80, 170)), override="as built")
        self.assertEqual(said(typed), "as built")
        self.assertTrue(typed.typed_over)
        plain = measure("radius", *(on_circle(900, way) for way in (0, 80, 170)))
        self.assertEqual(words(plain, 900.0, DimensionStyle("centimetres", 1, fixed=True)), "R 90.0")


class DrawnTests(TestCase):
    def test_an_angle_has_an_arc_through_its_figure_and_arrows_at_its_ends(self):
        piece = measure("angle", (0, 0), (2000, 0), (0, 2000), offset=(20.0, 20.0))
        items = piece_items(placed(piece))
        arc = max((i for i in items if isinstance(i, Path)), key=lambda i: len(i.points))
        corner = placed(piece).points[0]
        for point in arc.points:
            self.assertAlmostEqual(math.dist(point, corner), math.hypot(20, 20), places=6)
        arrows = [i for i in items if isinstance(i, Fill) and len(i.rings[0]) == 3]
        tips = [(x - corner[0], y - corner[1]) for (x, y), *_ in (arrow.rings[0] for arrow in arrows)]
        tips = sorted(round(math.degrees(math.atan2(y, x))) for x, y in tips)
        self.assertEqual(tips, [0, 90])

    def test_a_radius_ends_on_its_curve_and_comes_from_the_centre(self):
        piece = measure("radius", *(on_circle(2000, way) for way in (10, 60, 100)), offset=(10.0, 0.0))
        items = piece_items(placed(piece))
        (line,) = [i for i in items if isinstance(i, Path)]
        centre = placed(piece).to_paper(reference("radius", [a.at for a in piece.points]))
        self.assertLess(math.dist(line.points[0], centre), 1e-6)
        self.assertAlmostEqual(math.dist(line.points[-1], centre), 2000 / 50, places=3)

    def test_a_slope_points_downhill_whichever_end_was_clicked_first(self):
        for points in (((0, 0), (2000, 100)), ((2000, 100), (0, 0))):
            (arrow,) = [i for i in piece_items(placed(measure("slope", *points))) if isinstance(i, Fill)
                        and len(i.rings[0]) == 3]  # fmt: skip
            self.assertEqual(arrow.rings[0][0], placed(measure("slope", *points)).to_paper((0, 0)))

    def test_the_arrow_of_a_slope_goes_beside_it_with_the_figure_and_stays_parallel(self):
        points = ((0, 0), (2000, 2000))
        on_it = placed(measure("slope", *points)).points
        (shaft,) = [i.points for i in piece_items(placed(measure("slope", *points, offset=(-12.0, 12.0))))
                    if isinstance(i, Path)]  # fmt: skip
        (ax, ay), (bx, by) = (tuple(b - a for a, b in zip(*pair, strict=True))
                              for pair in zip(on_it[::-1], shaft, strict=True))  # fmt: skip
        self.assertAlmostEqual(ax, bx)
        self.assertAlmostEqual(ay, by)
        self.assertTrue(ax < -2 and ay > 2 and math.hypot(ax, ay) < math.hypot(12, 12))

    def test_it_is_taken_hold_of_by_its_figure(self):
        piece = measure("area", (0, 0), (4000, 0), (4000, 3000), (0, 3000))
        where = placed(piece)
        (found,) = piece_boxes([(where, piece_items(where))])
        self.assertEqual(found.text, "12.0 m²")
        self.assertLess(found.box.width, 20.0)


class CheckedTests(TestCase):
    def test_only_true_lengths_are_measured_and_slopes_where_heights_are_seen(self):
        area = measure("area", (0, 0), (1000, 0), (0, 1000))
        area.check(Plan("Ground"))
        for view in (None, Axonometric("ne")):
            with self.assertRaises(SheetError):
                area.check(view)
        slope = measure("slope", (0, 0), (1000, 50))
        slope.check(Elevation("south"))
        with self.assertRaisesRegex(SheetError, "heights are seen"):
            slope.check(Plan("Ground"), upright=False)
        with self.assertRaisesRegex(SheetError, "three points on a curve"):
            measure("radius", (0, 0), (1000, 0), (2000, 0)).check(Plan("Ground"))
        with self.assertRaisesRegex(SheetError, "has 3 points"):
            measure("angle", (0, 0), (1000, 0)).check(Plan("Ground"))

    def test_it_follows_the_building_and_says_what_has_changed(self):
        before = Corners(drawn([box((0, 0, 0), (4000, 3000, 2600))], "plan:0"))
        piece = Measure(
            "area", tuple(Anchor((u, v), "e0") for u, v in ((0, 0), (4000, 0), (4000, 3000), (0, 3000)))
        )
        told = attached(piece, before.of)
        self.assertEqual(parse_piece(dump_piece(told)), told)
        moved = Corners(drawn([box((900, 0, 0), (4900, 3000, 2600))], "plan:0"))
        self.assertEqual(told.locate(moved.of).standing, "followed")
        wider = Corners(drawn([box((0, 0, 0), (5000, 3000, 2600))], "plan:0"))
        location = told.locate(wider.of)
        self.assertEqual((location.standing, location.words), ("changed", "12.0 m² is now 15.0 m²"))
        self.assertEqual(told.locate(lambda e: None).standing, "lost")

    def test_the_radius_of_a_round_tower_is_read_off_its_drawing(self):
        linework = drawn([cylinder(2500.0, 6000.0, 64)], "plan:0")
        ring = max(linework.lines, key=lambda line: len(line.points)).points
        points = [tuple(map(float, ring[k][:2])) for k in (0, len(ring) // 3, 2 * len(ring) // 3)]
        self.assertAlmostEqual(figure("radius", points), 2500.0, delta=0.5)
