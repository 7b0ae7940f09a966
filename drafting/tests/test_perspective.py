"""Perspectives: where things appear, and what hides what."""

from unittest import TestCase

import numpy as np
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from drafting.linework.codec import decode, encode
from drafting.linework.engine import draw_from
from drafting.tests.scenes import box, building, drawn, lines_of
from drafting.views.camera import Camera
from drafting.views.notation import parse_view

#: From the south, the eye 10 m from a target at the south face of what stands at y = 0.
FRONT = "perspective:0,-10000,0,0,0,0@90"
CUBE = box((-1000, 0, -1000), (1000, 2000, 1000))


class PerspectiveTests(TestCase):
    def test_at_the_target_sizes_are_true_and_twice_as_far_they_are_half(self):
        near, far = box((-1000, 0, -1000), (1000, 100, 1000)), box((3000, 10000, 3000), (5000, 10100, 5000))
        linework = drawn([near, far], FRONT)
        np.testing.assert_allclose(
            lines_of(linework, element="e0").bounds, (-1000, -1000, 1000, 1000), atol=0.01
        )
        # At 20 m the face is halved; its side towards the middle is seen a little further in.
        bounds = lines_of(linework, element="e1").bounds
        np.testing.assert_allclose(bounds[2:], (2500, 2500), atol=0.01)
        np.testing.assert_allclose(bounds[:2], (3000 * 10 / 20.1, 3000 * 10 / 20.1), atol=0.01)

    def test_a_cube_seen_straight_shows_one_face(self):
        self.assertAlmostEqual(lines_of(drawn([CUBE], FRONT)).length, 8000, delta=0.1)

    def test_a_cube_from_above_one_corner_shows_nine_edges(self):
        linework = drawn([CUBE], "perspective:8000,-9000,7000,0,1000,0")
        ends = {tuple(p) for line in linework.lines for p in line.points[:, :2].round(0).tolist()}
        self.assertEqual(len(ends), 7)

    def test_what_is_behind_the_eye_or_out_of_the_field_is_not_drawn(self):
        scene = [CUBE, box((-500, -12000, -500), (500, -11000, 500)), box((30000, 0, 0), (31000, 1000, 1000))]
        self.assertEqual({x.element for x in drawn(scene, FRONT).lines}, {"e0"})

    def test_the_picture_ends_at_the_field_of_view(self):
        floor = box((-90000, -90000, -2000), (90000, 90000, -1600))
        bounds = lines_of(drawn([floor, CUBE], "perspective:0,-10000,0,0,0,0@60")).bounds
        half = 10000 * np.tan(np.radians(30)) + 0.1
        self.assertTrue(all(abs(x) <= half for x in bounds))

    def test_what_stands_behind_a_wall_is_hidden(self):
        wall, behind = (
            box((-2000, 0, -2000), (2000, 200, 2000)),
            box((-2500, 4000, -2500), (2500, 5000, 2500)),
        )
        self.assertEqual({x.element for x in drawn([wall, behind], FRONT).lines}, {"e0"})

    def test_a_near_wall_within_a_metre_of_the_eye_is_cut_off_there_and_draws_no_nonsense(self):
        corridor = box((-900, -30000, -1500), (-800, 30000, 1500))
        points = np.concatenate([x.points for x in drawn([corridor, CUBE], FRONT).lines])
        self.assertTrue(np.isfinite(points).all())
        self.assertLessEqual(np.abs(points[:, :2]).max(), 10000.1)

    def test_an_eye_inside_a_wall_sees_nothing_and_says_so(self):
        wall, behind = box((-2000, -10500, -2000), (2000, -9500, 2000)), box((-500, 0, -500), (500, 500, 500))
        linework = drawn([wall, behind], FRONT)
        self.assertEqual(linework.lines, ())
        self.assertEqual(linework.notes, ("The eye is inside “wall 0” and sees nothing. Move it out.",))
        self.assertTrue(drawn([wall, behind], FRONT, shown={"without": ["e0"]}).lines)

    def test_depth_is_kept_true(self):
        linework = drawn([CUBE], FRONT)
        self.assertEqual({round(float(p[2]), 3) for x in linework.lines for p in x.points}, {0.0})
        restored = decode(encode(linework))
        self.assertEqual(restored.camera.distance, 10000)

    def test_bands_and_far_lines_are_measured_from_the_eye(self):
        scene = [CUBE, box((2000, 8000, -1000), (4000, 9000, 1000))]
        linework = drawn(scene, FRONT, far=15000, bands=[9000, 15000])
        self.assertEqual({(x.element, x.role == "far", x.band) for x in linework.lines},
                         {("e0", False, 1), ("e1", True, 2)})  # fmt: skip

    @settings(max_examples=25, deadline=None)
    @given(st.tuples(*[st.floats(-3000, 3000)] * 3), st.floats(0, 360), st.floats(-60, 60))
    def test_a_point_goes_to_the_picture_along_its_ray(self, point, bearing, altitude):
        b, a = np.radians(bearing), np.radians(altitude)
        eye = 9000 * np.array([np.cos(b) * np.cos(a), np.sin(b) * np.cos(a), np.sin(a)])
        view = parse_view(f"perspective:{','.join(f'{x:.6f}' for x in eye)},0,0,0")
        camera = view.camera(building([CUBE]))
        u, v, _ = camera.project(np.array([point]))[0]
        picture = u * camera.right + v * camera.up
        way, ray = picture - eye, np.array(point) - eye
        np.testing.assert_allclose(
            np.cross(way, ray) / np.linalg.norm(way) / np.linalg.norm(ray), 0, atol=1e-6
        )

    def test_from_very_far_it_is_a_parallel_projection(self):
        scene = building([CUBE, box((1500, -500, -1000), (2500, 500, 400))])
        parallel = parse_view("axonometric:150,30").camera(scene)
        far = Camera(parallel.right, parallel.up, parallel.toward, np.zeros(3), distance=5e7, angle=5)
        one, two = (lines_of(draw_from(scene, camera)) for camera in (parallel, far))
        self.assertLess(shapely.hausdorff_distance(one, two), 1.0)
        self.assertAlmostEqual(one.length, two.length, delta=3)
