"""What is seen and what is hidden, in scenes that can be worked out by hand."""

from unittest import TestCase

import numpy as np
import shapely

from drafting.tests.scenes import box, cylinder, drawn, lines_of, prism, ring, total_length

WALL = [(0, 0), (6000, 0), (6000, 3000), (0, 3000)]
WINDOW = [(2000, 1000), (4000, 1000), (4000, 2000), (2000, 2000)]


class ElevationTests(TestCase):
    def assert_same_lines(self, got, wanted):
        self.assertLess(shapely.hausdorff_distance(got, wanted), 0.1)
        self.assertAlmostEqual(got.length, wanted.length, delta=0.5)

    def test_a_box_is_its_outline_and_no_line_of_its_triangulation(self):
        linework = drawn([box((0, 0, 0), (1000, 500, 2000))], "elevation:south")
        self.assert_same_lines(lines_of(linework), ring(0, 0, 1000, 2000))
        self.assertEqual(len(linework.lines), 1)

    def test_a_wall_hides_what_stands_behind_it(self):
        linework = drawn(
            [box((0, 0, 0), (6000, 300, 3000)), box((1000, 5000, 0), (2000, 6000, 2000))], "elevation:south"
        )
        self.assert_same_lines(lines_of(linework), ring(0, 0, 6000, 3000))

    def test_what_stands_behind_and_beside_is_cut_off_at_the_nearer_outline(self):
        linework = drawn(
            [box((0, 0, 0), (1000, 300, 2000)), box((500, 5000, 0), (2500, 6000, 1500))], "elevation:south"
        )
        seen = shapely.LineString([(1000, 1500), (2500, 1500), (2500, 0), (1000, 0)])
        self.assert_same_lines(lines_of(linework, element="e1"), seen)

    def test_an_opening_shows_what_stands_behind_it_and_its_own_edge(self):
        behind = box((1000, 5000, 0), (3000, 6000, 1500))
        linework = drawn([prism(WALL, 0, 300, [WINDOW]), behind], "elevation:south")
        self.assert_same_lines(
            lines_of(linework, element="e0"), ring(0, 0, 6000, 3000).union(ring(2000, 1000, 4000, 2000))
        )
        seen = shapely.LineString([(2000, 1500), (3000, 1500), (3000, 1000)])
        self.assert_same_lines(lines_of(linework, element="e1"), seen)

    def test_the_result_is_the_same_seen_from_the_other_side_and_mirrored(self):
        meshes = [prism(WALL, 0, 300, [WINDOW])]
        south, north = (lines_of(drawn(meshes, f"elevation:{side}")) for side in ("south", "north"))
        self.assert_same_lines(shapely.affinity.scale(north, xfact=-1, origin=(0, 0)), south)

    def test_east_is_on_the_left_of_a_north_elevation(self):
        linework = drawn([box((5000, 0, 0), (6000, 500, 1000))], "elevation:north")
        np.testing.assert_allclose(linework.extents, (-6000, 0, -5000, 1000))

    def test_a_cylinder_shows_its_outline_and_no_facets(self):
        linework = drawn([cylinder(500, 2000, 48)], "elevation:south")
        self.assert_same_lines(lines_of(linework), ring(-500, 0, 500, 2000))

    def test_a_coarse_prism_shows_its_edges(self):
        linework = drawn([cylinder(500, 2000, 6)], "elevation:south")
        self.assertEqual(
            len(lines_of(linework).intersection(shapely.LineString([(-600, 900), (600, 900)])).geoms), 4
        )

    def test_a_seam_between_walls_of_one_material_in_one_plane_is_not_drawn(self):
        parts = [box((0, 0, 0), (1000, 300, 2000)), box((1000, 0, 0), (2500, 300, 2000))]
        self.assert_same_lines(lines_of(drawn(parts, "elevation:south")), ring(0, 0, 2500, 2000))
        two = drawn(parts, "elevation:south", ["stone", "timber"])
        dividing = lines_of(two).intersection(shapely.LineString([(1000, 1), (1000, 1999)]).buffer(0.1))
        self.assertAlmostEqual(dividing.length, 1998, delta=1)

    def test_a_step_between_walls_of_one_material_is_drawn(self):
        linework = drawn(
            [box((0, 0, 0), (1000, 300, 2000)), box((1000, 20, 0), (2500, 320, 2000))], "elevation:south"
        )
        crossing = lines_of(linework).intersection(shapely.LineString([(900, 1000), (1100, 1000)]))
        self.assertEqual(shapely.get_num_geometries(crossing), 1)

    def test_an_edge_that_lies_behind_the_shared_side_of_two_triangles_does_not_shine_through(self):
        # The diagonal of the front face, exactly in front of the edge of a leaning plate behind it.
        front = box((0, 0, 0), (2000, 100, 2000))
        plate = prism([(0, 0), (2000, 2000), (1990, 2000), (0, 10)], 3000, 3100)
        self.assertEqual(total_length(drawn([front, plate], "elevation:south"), element="e1"), 0)

    def test_nothing_is_inked_twice(self):
        meshes = [
            box((0, 0, 0), (1000, 300, 2000)),
            box((1000, 0, 0), (2000, 300, 1000)),
            prism(WALL, 900, 1200, [WINDOW]),
        ]
        linework = drawn(meshes, "elevation:south", ["a", "b", "c"])
        self.assertAlmostEqual(total_length(linework), lines_of(linework).length, delta=0.5)

    def test_an_outline_against_nothing_is_a_profile_and_one_against_a_near_wall_an_edge(self):
        wall, step = box((0, 0, 0), (6000, 300, 3000)), box((1000, -400, 0), (2000, 0, 500))
        linework = drawn([wall, step], "elevation:south", ["stone", "timber"])
        self.assertAlmostEqual(total_length(linework, role="edge", element="e1"), 2000, delta=2)
        self.assertAlmostEqual(total_length(linework, role="profile", element="e1"), 1000, delta=2)

    def test_an_open_sheet_hides_and_is_drawn_from_either_side(self):
        sheet = (
            np.array([[0, 0, 0], [1000, 0, 0], [1000, 0, 1000], [0, 0, 1000.0]]),
            np.array([[0, 1, 2], [0, 2, 3]], np.int32),
        )
        behind = box((200, 500, 200), (800, 900, 800))
        for side in ("south", "north"):
            with self.subTest(side):
                linework = drawn([sheet, behind], f"elevation:{side}")
                self.assertAlmostEqual(total_length(linework, element="e0"), 4000, delta=1)
        self.assertEqual(total_length(drawn([sheet, behind], "elevation:south"), element="e1"), 0)


class AxonometricTests(TestCase):
    def test_a_cube_shows_nine_edges_of_one_length(self):
        linework = drawn([box((0, 0, 0), (1000, 1000, 1000))], "axonometric:ne")
        # ISO 5456-3: on each of the three axes a length is foreshortened by the root of two thirds.
        self.assertAlmostEqual(total_length(linework), 9 * 1000 * (2 / 3) ** 0.5, delta=0.5)
        self.assertAlmostEqual(total_length(linework, role="profile"), 6 * 1000 * (2 / 3) ** 0.5, delta=0.5)


class GrazingTests(TestCase):
    def ground(self, height):
        """A surface of 2.5 m facets, 20 m by 20 m, as one closed solid."""
        n = 9
        at = [(x * 2500.0, y * 2500.0) for y in range(n) for x in range(n)]
        points = np.array([(x, y, height(x, y)) for x, y in at] + [(x, y, -3000.0) for x, y in at])
        faces = []
        for y in range(n - 1):
            for x in range(n - 1):
                a, b, c, d = y * n + x, y * n + x + 1, (y + 1) * n + x + 1, (y + 1) * n + x
                faces += [(a, b, c), (a, c, d), (a + 81, c + 81, b + 81), (a + 81, d + 81, c + 81)]
        border = [
            *range(n),
            *range(2 * n - 1, n * n, n),
            *range(n * n - 2, n * n - n - 1, -1),
            *range(n * n - 2 * n, 0, -n),
        ]
        for a, b in zip(border, [*border[1:], border[0]], strict=True):
            faces += [(a, a + 81, b + 81), (a, b + 81, b)]
        return points, np.array(faces, np.int32)

    def test_rolling_ground_seen_edge_on_shows_its_horizon_and_no_facets(self):
        linework = drawn(
            [self.ground(lambda x, y: y * 0.03 + 120 * np.sin(x / 5200) * np.cos(y / 4700))], "elevation:east"
        )
        # Upright lines through the picture meet the border all round and the near border, and nothing more.
        for u in (3000.0, 9100.0, 16300.0):
            met = lines_of(linework).intersection(shapely.LineString([(u, -4000), (u, 4000)]))
            self.assertLessEqual(shapely.get_num_geometries(met), 3)

    def test_a_hill_before_a_slope_keeps_its_crest(self):
        crest = drawn(
            [self.ground(lambda x, y: 1500 * np.exp(-(((y - 5000) / 2500) ** 2)) + max(0, y - 9000) * 0.4)],
            "elevation:south",
        )
        met = lines_of(crest).intersection(shapely.LineString([(9100, -100), (9100, 9000)]))
        self.assertGreaterEqual(shapely.get_num_geometries(met), 3)
