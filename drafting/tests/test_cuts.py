"""What a cut goes through, and what it leaves to be seen."""

from unittest import TestCase

import numpy as np
import shapely

from drafting.tests.scenes import box, drawn, lines_of, prism, ring, total_length

STREET = prism(
    [(0, 0), (6000, 0), (6000, 3000), (0, 3000)], 0, 300, [[(2000, 900), (4000, 900), (4000, 2000), (2000, 2000)]]
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
            [(0, 0), (1000, 0), (1000, 1000), (0, 1000)], 0, 3000, [[(200, 200), (800, 200), (800, 800), (200, 800)]]
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
        self.assertEqual({x.element for x in drawn([near, far], "section:-5000,0,5000,0").lines}, {"e0", "e1"})
        self.assertEqual({x.element for x in drawn([near, far], "section:-5000,0,5000,0@2000").lines}, {"e0"})

    def test_a_slanted_section_shows_true_sizes_in_its_own_plane(self):
        linework = drawn([box((-5000, -5000, 0), (5000, 5000, 2000))], "section:-4000,-4000,4000,4000")
        widths = np.ptp(linework.regions[0].rings[0], axis=0)
        np.testing.assert_allclose(widths, [10000 * 2**0.5, 2000], atol=0.01)
