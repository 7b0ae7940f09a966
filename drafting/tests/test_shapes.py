"""Shapes: their outlines, how they are drawn, and what is done to them."""

import io
import math
from unittest import TestCase

import ezdxf
import numpy as np
import shapely
from hypothesis import assume, given
from hypothesis import strategies as st

from drafting.annotation.anchors import Anchor
from drafting.annotation.pieces import PlacedPiece
from drafting.annotation.shape_edits import edited
from drafting.annotation.shapes import FORM_POINTS, Shape, outline, smooth
from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.render.annotation_items import piece_items
from drafting.render.display_list import DisplayList
from drafting.render.items import Fill, Hatched, Path
from drafting.render.page import whole_page
from drafting.sheets.scale import Scale
from drafting.sheets.viewport import Viewport
from drafting.tests.outputs import write_dxf

PLACES = st.tuples(st.integers(-5000, 5000), st.integers(-5000, 5000))


def shape(form, *places, **given_):
    return Shape(form, tuple(Anchor((float(x), float(y))) for x, y in places), **given_)


def places(made):
    return [anchor.at for anchor in made.points]


def drawn(piece, viewport=None):
    return piece_items(PlacedPiece("p", piece, piece.locate(lambda e: None), viewport))


class OutlineTests(TestCase):
    @given(PLACES, st.integers(1, 4000))
    def test_a_circle_lies_everywhere_as_far_from_its_centre(self, centre, radius):
        circle = shape("circle", centre, (centre[0] + radius, centre[1]))
        for point in outline(circle, places(circle)):
            self.assertAlmostEqual(math.dist(point, centre), radius, places=6)

    def test_an_ellipse_reaches_its_two_axes(self):
        ring = np.array(outline(shape("ellipse", (0, 0), (30, 0), (5, 12)), [(0, 0), (30, 0), (5, 12)]))
        self.assertAlmostEqual(np.abs(ring[:, 0]).max(), 30)
        self.assertAlmostEqual(np.abs(ring[:, 1]).max(), 12)

    @given(st.lists(PLACES, min_size=3, max_size=8, unique=True), st.booleans())
    def test_a_smooth_curve_runs_through_its_points(self, points, closed):
        curve = shapely.LineString(smooth(points, closed))
        for point in points:
            self.assertLess(curve.distance(shapely.Point(point)), 1e-6)

    def test_an_arc_runs_through_its_second_point_and_ends_at_its_third(self):
        ends = [(10.0, 0.0), (0.0, 10.0), (-10.0, 0.0)]
        ring = outline(shape("arc", *ends), ends)
        self.assertLess(math.dist(ring[0], ends[0]) + math.dist(ring[-1], ends[2]), 1e-6)
        self.assertLess(shapely.LineString(ring).distance(shapely.Point(ends[1])), 0.01)


class DrawnTests(TestCase):
    def test_it_is_filled_hatched_and_outlined_in_that_order(self):
        made = shape("rectangle", (0, 0), (40, 20), fill="#e8e4da", hatch="diagonal", spacing=4.0, width=0.5)
        items = drawn(made)
        self.assertIsInstance(items[0], Fill)
        self.assertEqual((items[-1].pen.width, items[-1].closed, len(items[-1].points)), (0.5, True, 4))
        hatch = items[1].parts
        self.assertEqual((items[1].hatch, items[1].spacing, len(items)), ("diagonal", 4.0, 3))
        self.assertGreater(len(hatch), 5)
        inside = Box(-1e-6, -1e-6, 40 + 2e-6, 20 + 2e-6)
        for line in hatch:
            self.assertTrue(all(inside.holds(Box(x, y, 0, 0)) for x, y in line.points))

    def test_in_a_dxf_it_is_a_hatch_whose_pattern_is_the_one_that_is_drawn(self):
        items = tuple(drawn(shape("rectangle", (10, 10), (60, 40), hatch="crossed", spacing=4.0)))
        file = write_dxf([whole_page(DisplayList(420, 297, items), "", "1")], None)
        doc = ezdxf.read(io.StringIO(file.decode()))
        layout = doc.layouts.get("1")
        hatches = layout.query("HATCH")
        self.assertEqual([h.pattern.lines[0].angle for h in hatches], [45.0, 135.0])
        lines = [part.points for item in items if isinstance(item, Hatched) for part in item.parts]
        for hatch in hatches:
            (family,) = hatch.pattern.lines
            self.assertAlmostEqual(family.offset.magnitude, 4.0)
            across = np.array([-math.sin(math.radians(family.angle)), math.cos(math.radians(family.angle))])
            # Every line that is drawn of this family is one of the pattern.
            own = [a for a, b in lines if abs(np.dot(np.array(b) - a, across)) < 1e-6]
            self.assertGreater(len(own), 10)
            steps = (np.array(own) - np.array(family.base_point)[:2]) @ across / 4.0
            np.testing.assert_allclose(steps, steps.round(), atol=1e-6)
        self.assertEqual(doc.audit().errors, [])

    def test_through_a_viewport_it_is_as_large_as_the_scale_makes_it(self):
        viewport = Viewport(
            "v", "k", Box(0, 0, 200, 200), Scale.parse("1:50"), (0.0, 0.0), "1", "P", turn=30.0
        )
        (line,) = [i for i in drawn(shape("circle", (0, 0), (1000, 0)), viewport) if isinstance(i, Path)]
        middle = viewport.to_paper(0, 0)
        for point in line.points:
            self.assertAlmostEqual(math.dist(point, middle), 20.0, places=6)

    def test_an_open_line_has_no_fill(self):
        items = drawn(shape("line", (0, 0), (10, 0), (10, 10), fill="#ffffff"))
        self.assertEqual([type(i) for i in items], [Path])

    def test_what_would_not_be_seen_or_is_no_shape_is_refused(self):
        wrong = (
            shape("line", (0, 0), (0, 0)),
            shape("arc", (0, 0), (1, 0)),
            shape("curve", (0, 0), (1, 0)),
            shape("line", (0, 0), (1, 0), width=0),
        )
        for made in wrong:
            with self.assertRaises(SheetError):
                made.check(None)
        self.assertEqual(set(FORM_POINTS), {"line", "rectangle", "circle", "arc", "ellipse", "curve"})


class EditedTests(TestCase):
    LINE = shape("line", (0, 0), (30, 0), (30, 20))

    @given(PLACES, PLACES, st.lists(PLACES, min_size=2, max_size=6, unique=True))
    def test_mirrored_twice_it_is_what_it_was(self, a, b, points):
        if math.dist(a, b) < 1:
            return
        made = shape("line", *points)
        (once,) = edited([made], "mirror", at=a, to=b)
        (twice,) = edited([once], "mirror", at=a, to=b)
        np.testing.assert_allclose(places(twice), places(made), atol=1e-4)

    @given(st.integers(0, 359), PLACES)
    def test_turned_it_keeps_its_lengths(self, by, about):
        (made,) = edited([self.LINE], "turn", at=about, by=float(by))
        self.assertAlmostEqual(shapely.LineString(places(made)).length, 50.0, places=6)
        self.assertAlmostEqual(math.dist(places(made)[0], about), math.dist((0, 0), about), places=6)

    def test_a_rectangle_that_is_turned_is_a_line_that_closes(self):
        (made,) = edited([shape("rectangle", (0, 0), (20, 10))], "turn", by=90.0)
        self.assertEqual((made.form, made.closed), ("line", True))
        self.assertAlmostEqual(shapely.Polygon(places(made)).area, 200.0)

    @given(st.floats(0.5, 40))
    def test_offset_it_lies_everywhere_so_far_beside(self, by):
        (made,) = edited([shape("line", (0, 0), (100, 0))], "offset", by=by)
        self.assertTrue(all(abs(y - by) < 1e-9 for _, y in places(made)))
        (grown,) = edited([shape("circle", (5, 5), (15, 5))], "offset", by=by)
        self.assertAlmostEqual(math.dist(*places(grown)), 10 + by)
        (wider,) = edited([shape("rectangle", (0, 0), (20, 10))], "offset", by=by)
        self.assertAlmostEqual(shapely.Polygon(places(wider)).area, (20 + 2 * by) * (10 + 2 * by), places=6)
        with self.assertRaisesRegex(SheetError, "shorter distance"):
            edited([shape("rectangle", (0, 0), (20, 10))], "offset", by=-6.0)

    def test_lines_whose_ends_touch_are_one_and_closed_where_they_meet_all_round(self):
        sides = [
            shape("line", (0, 0), (10, 0)),
            shape("line", (10, 10), (10, 0)),
            shape("line", (10, 10), (0, 0)),
        ]
        (two,) = edited(sides[:2], "join")
        self.assertEqual({places(two)[0], places(two)[-1]}, {(0, 0), (10, 10)})
        self.assertFalse(two.closed)
        (three,) = edited(sides, "join")
        self.assertEqual((three.closed, len(three.points)), (True, 3))
        with self.assertRaisesRegex(SheetError, "do not all touch"):
            edited([sides[0], shape("line", (50, 0), (60, 0))], "join")

    def test_broken_it_is_two_that_meet_where_it_was_broken(self):
        first, second = edited([self.LINE], "break", at=(12.0, 3.0))
        self.assertEqual((places(first)[-1], places(second)[0]), ((12.0, 0.0), (12.0, 0.0)))
        self.assertEqual((places(first)[0], places(second)[-1]), ((0.0, 0.0), (30.0, 20.0)))
        (ring,) = edited([shape("rectangle", (0, 0), (20, 10), fill="#ffffff")], "break", at=(10.0, -1.0))
        self.assertEqual((places(ring)[0], places(ring)[-1], ring.fill), ((10.0, 0.0), (10.0, 0.0), ""))
        with self.assertRaisesRegex(SheetError, "ends there"):
            edited([self.LINE], "break", at=(-5.0, 0.0))

    def test_trimmed_it_ends_at_the_others_where_it_was_clicked(self):
        across, up = shape("line", (0, 0), (30, 0)), shape("line", (10, -5), (10, 5))
        further = shape("circle", (25, 0), (30, 0))
        middle = edited([across, up, further], "trim", at=(15.0, 1.0))
        self.assertEqual([places(each) for each in middle[::3]], [[(0, 0), (10, 0)], [(20, 0), (30, 0)]])
        self.assertEqual(middle[1:3], [up, further])
        (left, _) = edited([across, up], "trim", at=(2.0, 0.0))
        self.assertEqual(places(left), [(10, 0), (30, 0)])
        with self.assertRaisesRegex(SheetError, "None of the other"):
            edited([across, shape("line", (0, 5), (9, 5))], "trim", at=(2.0, 0.0))

    @given(st.floats(-9.0, 9.0), st.floats(0, 360))
    def test_of_one_with_an_inside_the_rest_of_its_line_is_left(self, y, degrees):
        box = shape("rectangle", (-10, -10), (10, 10), fill="#ffffff")
        cutter = shape("line", (-30, y), (30, y))
        at = 10 * math.cos(math.radians(degrees)), 10 * math.sin(math.radians(degrees))
        ring = shapely.box(-10, -10, 10, 10).exterior
        foot = ring.interpolate(ring.project(shapely.Point(at)))
        assume(abs(foot.y - y) > 1e-3)
        (left, same) = edited([box, cutter], "trim", at=(foot.x, foot.y))
        self.assertEqual((left.is_area, left.fill, same), (False, "", cutter))
        line = shapely.LineString(places(left))
        self.assertAlmostEqual(line.length, 20 + 2 * (10 + y if foot.y > y else 10 - y), places=6)
        self.assertTrue(all(abs(end[1] - y) < 1e-6 for end in (line.coords[0], line.coords[-1])))

    def test_two_lines_are_cut_off_or_go_on_to_where_they_meet(self):
        across, up = edited([shape("line", (0, 0), (8, 0)), shape("line", (10, 5), (10, 20))], "extend")
        self.assertEqual((places(across)[-1], places(up)[0]), ((10.0, 0.0), (10.0, 0.0)))
        with self.assertRaisesRegex(SheetError, "parallel"):
            edited([shape("line", (0, 0), (8, 0)), shape("line", (0, 5), (8, 5))], "extend")

    def test_repeated_each_lies_a_step_further(self):
        made = edited([self.LINE], "array", at=(0.0, 0.0), to=(5.0, 1.0), count=3)
        self.assertEqual([places(each)[0] for each in made], [(0, 0), (5, 1), (10, 2), (15, 3)])

    def test_points_that_stay_keep_what_they_are_attached_to(self):
        made = Shape("line", (Anchor((0.0, 0.0), "wall"), Anchor((30.0, 0.0), "slab")))
        first, second = edited([made], "break", at=(10.0, 0.0))
        self.assertEqual([p.element for p in (*first.points, *second.points)], ["wall", "", "", "slab"])
