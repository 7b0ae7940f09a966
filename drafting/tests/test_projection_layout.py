"""Laying out a projected set: aligned on shared axes, at one scale, without overlap."""

from dataclasses import replace
from itertools import combinations, permutations
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.sheets.paper import Paper
from drafting.sheets.projection_layout import PROJECTIONS, DrawnView, arrange
from drafting.sheets.scale import FEET_LADDER
from drafting.sheets.template import Blank
from drafting.sheets.template_presets import STANDARD

#: A house of 12 x 8 x 6 m, looked at from five sides; u and v are measured from its middle.
O = (6000.0, 4000.0, 0.0)
SOUTH = DrawnView("south", "South", (-6000, 0, 6000, 6000), (1, 0, 0), (0, 0, 1), O)
NORTH = DrawnView("north", "North", (-6000, 0, 6000, 6000), (-1, 0, 0), (0, 0, 1), O)
EAST = DrawnView("east", "East", (-4000, 0, 4000, 6000), (0, 1, 0), (0, 0, 1), O)
WEST = DrawnView("west", "West", (-4000, 0, 4000, 6000), (0, -1, 0), (0, 0, 1), O)
PLAN = DrawnView("plan", "Plan", (-6000, -4000, 6000, 4000), (1, 0, 0), (0, 1, 0), O)
UPPER = DrawnView("upper", "Upper", (-3000, -4000, 6000, 4000), (1, 0, 0), (0, 1, 0), O)
LOOK = DrawnView("look", "Look", (-7000, -5000, 7000, 6000), (0.7071, 0.7071, 0), (-0.4, 0.4, 0.82), O)
EYE = DrawnView("eye", "Eye", (-70, -40, 70, 40), (0.7071, 0.7071, 0), (-0.4, 0.4, 0.82), O, to_scale=False)
A1 = Blank(Paper.of("A1"), STANDARD)


def laid_out(*views, projection="third-angle", paper=A1):
    placed = arrange(views, paper, projection).viewports
    return dict(zip((v.id for v in views), placed, strict=True))


class ArrangingTests(TestCase):
    def test_third_angle_puts_what_is_seen_from_above_above_and_from_the_right_on_the_right(self):
        set_ = laid_out(SOUTH, EAST, WEST, NORTH, PLAN, LOOK)
        south, east, west, north, plan = (
            set_[n].box.middle for n in ("south", "east", "west", "north", "plan")
        )
        self.assertGreater(plan[1], south[1])
        self.assertTrue(west[0] < south[0] < east[0] < north[0])

    def test_two_of_one_side_and_what_is_seen_aslant_are_told(self):
        twin = replace(SOUTH, id="twin", name="Twin")
        aslant = replace(EAST, id="aslant", name="Aslant", right=(0.8, 0.6, 0.0))
        self.assertEqual(
            arrange((PLAN, SOUTH, twin, UPPER, aslant, LOOK, EYE), A1).notes,
            (
                "“Twin” is seen from the same side as “South” and stands in a corner.",
                "“Aslant” is seen aslant to “South” and stands in a corner.",
            ),
        )
        self.assertEqual(arrange((PLAN, UPPER), A1).notes, ())

    def test_the_rear_and_further_plans_stand_in_corners_where_the_set_is_larger_so(self):
        views = (PLAN, UPPER, SOUTH, NORTH, EAST, WEST)
        for paper, scale in (("A3", "1:100"), ("A4", "1:250")):
            blank = Blank(Paper.of(paper), STANDARD)
            made = arrange(views, blank)
            set_ = dict(zip((v.id for v in views), made.viewports, strict=True))
            plan, upper, south, east = (set_[n].box.middle for n in ("plan", "upper", "south", "east"))
            self.assertEqual({str(v.scale) for v in made.viewports}, {scale})
            self.assertGreater(plan[1], south[1])
            self.assertLess(south[0], east[0])
            # Both plans lie at one height, by the building.
            at = [set_[n].to_paper(0.0, 0.0)[1] for n in ("plan", "upper")]
            self.assertAlmostEqual(*at)
            self.assertNotAlmostEqual(upper[0], plan[0], places=0)
            self.assertEqual(
                made.notes, ("“Upper” and “North” stand in a corner, where the set can be larger.",)
            )

    def test_where_the_projection_itself_is_as_large_it_is_kept(self):
        self.assertEqual(arrange((PLAN, SOUTH, EAST), A1).notes, ())

    def test_first_angle_puts_them_on_the_other_side(self):
        set_ = laid_out(SOUTH, EAST, WEST, PLAN, projection="first-angle")
        south, east, west, plan = (set_[n].box.middle for n in ("south", "east", "west", "plan"))
        self.assertLess(plan[1], south[1])
        self.assertTrue(east[0] < south[0] < west[0])

    def test_below_a_plan_stands_the_side_that_runs_as_it_does_in_whatever_order_they_were_chosen(self):
        for views in permutations((NORTH, EAST, SOUTH, PLAN)):
            set_ = laid_out(*views)
            south, plan = set_["south"], set_["plan"]
            self.assertAlmostEqual(south.to_paper(1234.0, 0.0)[0], plan.to_paper(1234.0, 0.0)[0], places=9)
            self.assertGreater(plan.box.middle[1], south.box.middle[1])
        # Without a plan the first that was chosen is the front.
        set_ = laid_out(NORTH, EAST, SOUTH)
        self.assertLess(set_["east"].box.middle[0], set_["north"].box.middle[0])

    def test_views_that_share_an_axis_agree_on_it(self):
        set_ = laid_out(SOUTH, EAST, PLAN, UPPER, NORTH)
        for a, b, way, point in (
            ("south", "plan", 0, (1234.0, 0.0)),
            ("south", "upper", 0, (1234.0, 0.0)),
            ("south", "east", 1, (0.0, 2900.0)),
            ("south", "north", 1, (0.0, 2900.0)),
        ):
            self.assertAlmostEqual(set_[a].to_paper(*point)[way], set_[b].to_paper(*point)[way], places=9)

    def test_all_have_the_largest_scale_of_the_ladder_that_fits(self):
        set_ = laid_out(SOUTH, EAST, PLAN)
        self.assertEqual({str(v.scale) for v in set_.values()}, {"1:50"})
        feet = arrange((SOUTH, EAST, PLAN), A1, ladder=FEET_LADDER).viewports
        self.assertEqual({str(v.scale) for v in feet}, {'3/8" = 1\'-0"'})

    def test_nothing_overlaps_and_all_lies_in_the_free_area(self):
        for views in (
            (SOUTH, EAST, WEST, NORTH, PLAN, UPPER, LOOK, EYE),
            (PLAN, UPPER, LOOK),
            (LOOK,),
            (EYE, SOUTH),
        ):
            for projection in ("third-angle", "first-angle"):
                boxes = [v.box for v in laid_out(*views, projection=projection).values()]
                free = A1.free
                border = Box(free.x - 1e-6, free.y - 1e-6, free.width + 2e-6, free.height + 2e-6)
                self.assertTrue(all(border.holds(box) for box in boxes))
                self.assertFalse(any(a.meets(b) for a, b in combinations(boxes, 2)))

    @given(
        st.lists(st.sampled_from((SOUTH, NORTH, EAST, WEST, PLAN, UPPER, LOOK, EYE)), min_size=1, max_size=7),
        st.sampled_from(PROJECTIONS),
        st.floats(0.2, 20),
    )
    def test_any_choice_of_views_is_laid_out_whole_and_apart(self, views, projection, large):
        grown = [
            replace(v, id=str(k), extents=tuple(x * large for x in v.extents)) for k, v in enumerate(views)
        ]
        placed = arrange(grown, A1, projection).viewports
        for view, viewport in zip(grown, placed, strict=True):
            u0, v0, u1, v1 = view.extents
            for corner in ((u0, v0), (u1, v1)):
                x, y = viewport.to_paper(*corner)
                self.assertTrue(
                    viewport.box.x <= x <= viewport.box.right and viewport.box.y <= y <= viewport.box.top
                )
        self.assertFalse(any(a.box.meets(b.box) for a, b in combinations(placed, 2)))
        self.assertEqual(
            len({v.scale for v in placed if v.to_scale}), len({v.to_scale for v in placed if v.to_scale})
        )

    def test_plans_alone_stand_side_by_side_at_one_height(self):
        set_ = laid_out(PLAN, UPPER)
        self.assertAlmostEqual(set_["plan"].to_paper(0, 0)[1], set_["upper"].to_paper(0, 0)[1], places=9)
        self.assertLess(set_["plan"].box.right, set_["upper"].box.x)

    def test_a_perspective_is_drawn_as_wide_as_the_front_and_has_no_scale(self):
        set_ = laid_out(SOUTH, EYE)
        self.assertAlmostEqual(set_["eye"].box.width, set_["south"].box.width, places=3)
        self.assertFalse(set_["eye"].to_scale)

    def test_what_does_not_fit_is_reported_with_the_remedy(self):
        huge = replace(SOUTH, extents=(0.0, 0.0, 1e8, 1e7))
        with self.assertRaisesRegex(SheetError, "larger paper"):
            arrange((huge,), A1)
        with self.assertRaisesRegex(SheetError, "Choose"):
            arrange((), A1)
