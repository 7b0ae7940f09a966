"""What a cut goes through, and what it leaves to be seen."""

import math
from dataclasses import replace
from unittest import TestCase

import numpy as np
import shapely

from drafting.building.model import BuildUp
from drafting.linework.engine import draw
from drafting.tests.scenes import box, building, drawn, lines_of, prism, ring, total_length
from drafting.views.elevation import Elevation
from drafting.views.notation import parse_view
from drafting.views.plan import Plan

STREET = prism(
    [(0, 0), (6000, 0), (6000, 3000), (0, 3000)],
    0,
    300,
    [[(2000, 900), (4000, 900), (4000, 2000), (2000, 2000)]],
)


def area(linework, element="e0"):
    return sum(
        shapely.Polygon(region.rings[0], region.rings[1:]).area
        for region in linework.regions
        if region.element == element
    )


class PlanTests(TestCase):
    def test_a_wall_is_cut_on_both_sides_of_its_window(self):
        linework = drawn([STREET], "plan:0@1200")
        self.assertEqual(len(linework.regions), 2)
        self.assertAlmostEqual(area(linework), 4000 * 300, delta=1)
        self.assertAlmostEqual(total_length(linework, role="cut"), 2 * (2000 + 300) * 2, delta=1)

    def test_the_sill_is_seen_below_the_cut(self):
        linework = drawn([STREET], "plan:0@1200")
        sill = shapely.MultiLineString([[(2000, 0), (4000, 0)], [(2000, 300), (4000, 300)]])
        rest = shapely.difference(lines_of(linework), lines_of(linework, role="cut").buffer(0.1))
        self.assertLess(shapely.hausdorff_distance(rest, sill), 1)

    def test_a_cut_below_the_sill_goes_through_the_whole_wall(self):
        linework = drawn([STREET], "plan:0@500")
        self.assertAlmostEqual(area(linework), 6000 * 300, delta=1)

    def test_a_face_that_lies_in_the_cut_is_no_special_case(self):
        linework = drawn([STREET], "plan:0@900")
        self.assertAlmostEqual(area(linework), 6000 * 300, delta=1)
        self.assertFalse(linework.notes)

    def test_what_hangs_above_the_cut_hides_nothing(self):
        slab = box((-500, -500, 2500), (7000, 1000, 2700))
        self.assertEqual(total_length(drawn([STREET, slab], "plan:0"), element="e1"), 0)
        self.assertAlmostEqual(area(drawn([STREET, slab], "plan:0")), 4000 * 300, delta=1)

    def test_the_cut_hides_what_lies_below_it(self):
        below = box((500, 50, 0), (1500, 250, 400))
        self.assertEqual(total_length(drawn([STREET, below], "plan:0"), element="e1"), 0)

    def test_a_hollow_is_a_hole_in_its_region(self):
        pipe = prism(
            [(0, 0), (1000, 0), (1000, 1000), (0, 1000)],
            0,
            3000,
            [[(200, 200), (800, 200), (800, 800), (200, 800)]],
        )
        upright = pipe[0][:, [0, 2, 1]], pipe[1][:, ::-1].copy()
        linework = drawn([upright], "plan:0")
        self.assertEqual([len(r.rings) for r in linework.regions], [2])
        self.assertAlmostEqual(area(linework), 1000**2 - 600**2, delta=1)

    def test_parts_of_one_material_have_no_line_between_and_of_two_materials_have_one(self):
        parts = [box((0, 0, 0), (1000, 300, 3000)), box((1000, 0, 0), (3000, 300, 3000))]
        one = drawn(parts, "plan:0")
        self.assertAlmostEqual(total_length(one, role="cut"), 2 * (3000 + 300), delta=1)
        two = drawn(parts, "plan:0", ["stone", "timber"])
        self.assertAlmostEqual(total_length(two, role="cut"), 2 * (3000 + 300) + 300, delta=1)
        self.assertEqual(sorted(r.material for r in two.regions), ["stone", "timber"])

    def test_an_open_mesh_gives_an_outline_without_a_region(self):
        points, faces = box((0, 0, 0), (1000, 1000, 3000))
        linework = drawn([(points, faces[:-2])], "plan:0")
        self.assertEqual(linework.regions, ())
        self.assertAlmostEqual(total_length(linework, role="cut"), 3000, delta=1)

    def test_a_cut_below_everything_is_empty_and_says_why(self):
        linework = drawn([box((0, 0, 2000), (1000, 1000, 3000))], "plan:0")
        self.assertEqual(linework.lines, ())
        self.assertEqual(linework.notes, ("Nothing of the building lies beyond the cut.",))

    def test_a_roof_plan_cuts_nothing(self):
        linework = drawn([box((0, 0, 0), (2000, 1000, 5000))], "roof")
        self.assertEqual(linework.regions, ())
        self.assertLess(shapely.hausdorff_distance(lines_of(linework), ring(0, 0, 2000, 1000)), 0.1)


class SectionTests(TestCase):
    def test_what_lies_to_the_left_of_the_line_is_seen(self):
        north, south = box((0, 2000, 0), (1000, 3000, 1000)), box((0, -3000, 0), (1000, -2000, 1000))
        eastward = drawn([north, south], "section:-5000,0,5000,0")
        self.assertEqual({line.element for line in eastward.lines}, {"e0"})
        westward = drawn([north, south], "section:5000,0,-5000,0")
        self.assertEqual({line.element for line in westward.lines}, {"e1"})

    def test_depth_limits_what_is_seen(self):
        near, far = box((0, 1000, 0), (1000, 1500, 1000)), box((0, 4000, 0), (1000, 5000, 3000))
        self.assertEqual(
            {x.element for x in drawn([near, far], "section:-5000,0,5000,0").lines}, {"e0", "e1"}
        )
        self.assertEqual({x.element for x in drawn([near, far], "section:-5000,0,5000,0@2000").lines}, {"e0"})

    def test_a_slanted_section_shows_true_sizes_in_its_own_plane(self):
        linework = drawn([box((-5000, -5000, 0), (5000, 5000, 2000))], "section:-4000,-4000,4000,4000")
        widths = np.ptp(linework.regions[0].rings[0], axis=0)
        np.testing.assert_allclose(widths, [10000 * 2**0.5, 2000], atol=0.01)

    def test_a_jog_moves_the_cut_and_draws_no_line_of_its_own(self):
        # A slab through which the line goes at y = 0 up to x = 2000, and at y = 3000 from there on.
        slab, left, right = (
            box((-1000, -1000, 0), (5000, 5000, 300)), box((0, -500, 300), (1000, 500, 2000)),
            box((3000, 2500, 300), (4000, 3500, 2000)),
        )  # fmt: skip
        linework = drawn([slab, left, right], "section:0,0,2000,0,2000,3000,5000,3000")
        self.assertEqual(sorted(r.element for r in linework.regions), ["e0", "e1", "e2"])
        self.assertAlmostEqual(area(linework), 6000 * 300, delta=1)
        jog = shapely.LineString([(2000, 10), (2000, 290)]).buffer(1)
        self.assertEqual(shapely.intersection(lines_of(linework), jog).length, 0)
        straight = drawn([slab, left, right], "section:0,0,5000,0")
        self.assertEqual(sorted(r.element for r in straight.regions), ["e0", "e1"])

    def test_beyond_a_jog_what_lies_before_its_own_cut_is_taken_away(self):
        post = box((3000, 1000, 0), (3500, 1500, 2000))
        jogged = drawn([post, box((0, 4000, 0), (5000, 4500, 500))], "section:0,0,2000,0,2000,3000,5000,3000")
        self.assertEqual({x.element for x in jogged.lines}, {"e1"})

    def test_depth_counts_from_each_leg_of_a_jogged_section(self):
        # The left leg runs at y = 0, the right one at y = 3000.
        legs = "section:0,0,2000,0,2000,3000,5000,3000@1000"
        near, behind = box((500, 600, 0), (1500, 900, 2000)), box((500, 2000, 0), (1500, 2500, 2000))
        right, beyond = box((3000, 3500, 0), (4000, 3900, 2000)), box((3000, 4200, 0), (4000, 4500, 2000))
        seen = {line.element for line in drawn([near, behind, right, beyond], legs).lines}
        self.assertEqual(seen, {"e0", "e2"})


class NearTests(TestCase):
    def test_an_elevation_from_a_near_limit_is_cut_there(self):
        before, through = box((0, -3000, 0), (1000, -2000, 1000)), box((2000, -1500, 0), (3000, 500, 1000))
        view = Elevation(side="south", near=1000.0)
        linework = draw(building([before, through]), view)
        self.assertEqual({(x.element, x.role) for x in linework.lines}, {("e1", "cut")})

    def test_depth_of_an_elevation_is_measured_from_the_nearest_point(self):
        meshes = [box((0, 0, 0), (1000, 500, 1000)), box((2000, 3000, 0), (3000, 4000, 1000))]
        for depth, wanted in ((2000.0, {"e0"}), (3500.0, {"e0", "e1"})):
            linework = draw(building(meshes), Elevation(side="south", depth=depth))
            self.assertEqual({x.element for x in linework.lines}, wanted)

    def test_depth_of_a_plan_is_measured_from_its_cut(self):
        meshes = [box((0, 0, 0), (1000, 1000, 3000)), box((2000, 0, 0), (3000, 1000, 100))]
        for depth, wanted in ((1000.0, {"e0"}), (1150.0, {"e0", "e1"})):
            linework = draw(building(meshes), Plan(storey="0", depth=depth))
            self.assertEqual({x.element for x in linework.lines}, wanted)


class LayerTests(TestCase):
    """A wall of three layers, from the south: brick 100, wool 150, board 50."""

    def wall(self, turn=0.0):
        c, s = math.cos(turn), math.sin(turn)
        rotation = np.array([[c, -s, 0], [s, c, 0], [0, 0, 1]])
        points, faces = box((0, 0, 0), (4000, 300, 3000))
        bare = building([(points @ rotation.T, faces)])
        normal = rotation @ [0, 1, 0]
        build_up = BuildUp(tuple(normal), 0.0, ((1, 100.0), (2, 150.0), (3, 50.0)))
        return replace(bare, materials=("wall", "brick", "wool", "board"), build_ups={0: build_up})

    def areas(self, linework):
        return {r.material: shapely.Polygon(r.rings[0]).area for r in linework.regions}

    def test_a_plan_shows_each_layer_in_its_material(self):
        for turn in (0.0, 0.6, 2.0):
            linework = draw(self.wall(turn), parse_view("plan:0"))
            got = self.areas(linework)
            self.assertEqual(set(got), {"brick", "wool", "board"})
            for name, thickness in (("brick", 100), ("wool", 150), ("board", 50)):
                self.assertAlmostEqual(got[name], 4000 * thickness, delta=20)

    def test_layers_are_divided_by_edges_within_a_cut_outline(self):
        linework = draw(self.wall(), parse_view("plan:0"))
        self.assertAlmostEqual(total_length(linework, role="cut"), 8600, delta=1)
        self.assertAlmostEqual(total_length(linework, role="edge"), 8000, delta=2)

    def test_a_section_across_shows_them_too_and_one_along_shows_the_one_it_runs_in(self):
        across = self.areas(draw(self.wall(), parse_view("section:1000,-500,1000,500")))
        self.assertAlmostEqual(across["wool"], 150 * 3000, delta=20)
        along = self.areas(draw(self.wall(), parse_view("section:0,170,4000,170")))
        self.assertEqual(set(along), {"wool"})
        self.assertAlmostEqual(along["wool"], 4000 * 3000, delta=20)


class DetailTests(TestCase):
    MESHES = [STREET, box((2500, 100, 0), (2600, 200, 500))]

    def test_a_detail_is_the_part_of_its_view_that_lies_in_the_region(self):
        whole = drawn(self.MESHES, "plan:0")
        for region, shape in (
            ("1500,-100,2700,400", shapely.box(1500, -100, 2700, 400)),
            ("2000,150,300", shapely.Point(2000, 150).buffer(300, quad_segs=45)),
            ("1500,0,2700,0,2100,300", shapely.Polygon([(1500, 0), (2700, 0), (2100, 300)])),
        ):
            with self.subTest(region):
                detail = drawn(self.MESHES, f"detail:{region}:plan:0")
                wanted = shapely.intersection(lines_of(whole), shape)
                self.assertAlmostEqual(lines_of(detail).length, wanted.length, delta=2)
                self.assertLess(shapely.difference(lines_of(detail), shape.buffer(0.01)).length, 0.1)
                cut = sum(
                    shapely.intersection(shapely.Polygon(r.rings[0]), shape).area for r in whole.regions
                )
                self.assertAlmostEqual(area(detail), cut, delta=2)

    def test_a_detail_has_a_treatment_of_its_own(self):
        detail = drawn(self.MESHES, "detail:2000,-100,4000,400:elevation:south", hidden=True)
        self.assertIn("hidden", {x.role for x in detail.lines})
