"""Where bodies pass through each other there is a line that no mesh holds."""

import math
from unittest import TestCase

import numpy as np
import shapely

from drafting.tests.scenes import box, building, cylinder, drawn, lines_of, prism, ring, total_length

SLAB = box((-3000, -3000, -200), (3000, 3000, 0))
POST = box((-100, -100, -150), (100, 100, 2000))


class MeetingTests(TestCase):
    def test_a_post_let_into_a_slab_shows_its_foot_on_the_slab(self):
        linework = drawn([SLAB, POST], "axonometric:se", ["concrete", "oak"])
        foot = total_length(linework) - total_length(
            drawn([SLAB, box((-100, -100, 0), (100, 100, 2000))], "axonometric:se", ["concrete", "oak"])
        )
        self.assertAlmostEqual(foot, 0, delta=1)

    def test_the_pieces_of_a_meeting_lie_on_both_bodies(self):
        intersections = building([SLAB, POST]).intersections
        np.testing.assert_allclose(intersections.ends[:, :, 2], 0, atol=1e-9)
        self.assertAlmostEqual(
            float(np.linalg.norm(intersections.ends[:, 1] - intersections.ends[:, 0], axis=1).sum()),
            800,
            delta=1e-6,
        )
        np.testing.assert_allclose(intersections.angle, 90)

    def test_bodies_that_only_touch_do_not_meet(self):
        stacked = [SLAB, box((-100, -100, 0), (100, 100, 2000)), box((100, -100, 0), (300, 100, 2000))]
        self.assertEqual(len(building(stacked).intersections.ends), 0)

    def test_two_gabled_roofs_meet_in_valleys(self):
        # Two roofs of one pitch and one eaves height at right angles: on plan their valleys run at 45
        # degrees.
        gable = [(0, 0), (6000, 0), (3000, 3000)]
        main = prism(gable, -8000, 8000)
        points, faces = prism([(-3000, 0), (3000, 0), (0, 3000)], -9000, 3000)
        wing = (
            points @ np.array([[0.0, 1, 0], [-1, 0, 0], [0, 0, 1]]),
            faces,
        )  # along x now, its ridge along y = 0
        valleys = lines_of(drawn([main, wing], "roof"))
        for end in (-3000, 3000):
            valley = shapely.LineString([(30, end * 0.99), (2970, end * 0.01)])
            near = shapely.intersection(valleys, valley.buffer(1.0))
            self.assertAlmostEqual(near.length, valley.length, delta=5)

    def test_what_lies_inside_the_other_body_is_not_seen(self):
        linework = drawn([SLAB, POST], "elevation:south", ["concrete", "oak"])
        post = lines_of(linework, element="e1")
        self.assertGreaterEqual(post.bounds[1], -0.1)

    def test_round_bodies_that_fit_into_each_other_do_not_meet_in_shreds(self):
        wall = cylinder(500, 1000, 48)
        turned = wall[0] @ np.array(
            [[math.cos(0.05), -math.sin(0.05), 0], [math.sin(0.05), math.cos(0.05), 0], [0, 0, 1]]
        )
        linework = drawn([wall, (turned, wall[1])], "elevation:south")
        self.assertLess(shapely.hausdorff_distance(lines_of(linework), ring(-500, 0, 500, 1000)), 2)
        within = shapely.box(-497, 1, 497, 999)
        self.assertEqual(shapely.intersection(lines_of(linework), within).length, 0)

    def test_meetings_do_not_hang_on_the_order_of_the_elements(self):
        one, two = (lines_of(drawn(meshes, "axonometric:se")) for meshes in ([SLAB, POST], [POST, SLAB]))
        self.assertLess(shapely.hausdorff_distance(one, two), 0.01)

    def test_a_meeting_below_a_cut_is_seen_and_above_it_is_not(self):
        beam = box((-2000, -50, 1400), (2000, 50, 1500))
        cut = drawn([POST, beam], "plan:0@1200")
        self.assertEqual({x.element for x in cut.lines}, {"e0"})
        self.assertIn("e1", {x.element for x in drawn([POST, beam], "plan:0@1600").lines})
