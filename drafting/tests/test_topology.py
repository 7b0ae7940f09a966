"""Which edges of a mesh are worth a line, whatever the view."""

from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from drafting.building.topology import BOUNDARY, FLAT, FOLD
from drafting.tests.scenes import box, building, cylinder


class TopologyTests(TestCase):
    def test_a_box_has_twelve_edges_and_six_planes_and_its_diagonals_are_flat(self):
        t = building([box((0, 0, 0), (1000, 2000, 3000))]).topology
        self.assertEqual(np.count_nonzero(t.edge_kind == FOLD), 12)
        self.assertEqual(np.count_nonzero(t.edge_kind == FLAT), 6)
        self.assertEqual(len(np.unique(t.plane)), 6)
        self.assertTrue(t.closed.all())

    def test_a_box_without_its_lid_is_open_round_the_rim(self):
        points, faces = box((0, 0, 0), (1000, 1000, 1000))
        t = building([(points, np.delete(faces, [2, 3], axis=0))]).topology
        self.assertEqual(np.count_nonzero(t.edge_kind == BOUNDARY), 4)
        self.assertFalse(t.closed.any())

    def test_corners_of_one_element_that_lie_on_each_other_are_one(self):
        points, faces = box((0, 0, 0), (1000, 1000, 1000))
        loose = points[faces.reshape(-1)], np.arange(faces.size, dtype=np.int32).reshape(-1, 3)
        t = building([loose]).topology
        self.assertEqual(len(t.points), 8)
        self.assertTrue(t.closed.all())

    def test_corners_of_two_elements_are_never_joined(self):
        t = building([box((0, 0, 0), (1000, 1000, 1000)), box((1000, 0, 0), (2000, 1000, 1000))]).topology
        self.assertEqual(len(t.points), 16)

    def test_triangles_without_area_are_left_out(self):
        points, faces = box((0, 0, 0), (1000, 1000, 1000))
        t = building([(points, np.concatenate([faces, [[0, 0, 1]]]).astype(np.int32))]).topology
        self.assertEqual(len(t.faces), 12)

    def test_a_corner_on_the_side_of_a_face_leaves_no_line_there(self):
        points, faces = box((0, 0, 0), (1000, 1000, 1000))
        # The first face is given as two that meet at the middle of a side, with a sliver along it.
        a, b, c = faces[0]
        middle = len(points)
        points = np.vstack([points, (points[b] + points[c]) / 2])
        given_so = np.concatenate([faces[1:], [(a, b, middle), (a, middle, c), (middle, b, c)]]).astype(
            np.int32
        )
        t = building([(points, given_so)]).topology
        self.assertTrue(t.closed.all())
        self.assertEqual(len(t.faces), 14)
        self.assertEqual(np.count_nonzero(t.edge_kind == BOUNDARY), 0)
        length = np.linalg.norm(t.points[t.edges[:, 1]] - t.points[t.edges[:, 0]], axis=1)
        self.assertAlmostEqual(length[t.edge_kind == FOLD].sum(), 12_000)

    def test_a_body_given_inside_out_is_turned(self):
        points, faces = box((0, 0, 0), (1000, 1000, 1000))
        t = building([(points, faces[:, ::-1].copy())]).topology
        self.assertEqual(t.turned, 12)
        outward = (t.normals * (t.points[t.faces].mean(axis=1) - 500)).sum(axis=1)
        self.assertTrue((outward > 0).all())

    @settings(max_examples=30, deadline=None)
    @given(st.sets(st.integers(0, 11)))
    def test_faces_given_against_their_neighbours_are_turned(self, wrong):
        points, faces = box((0, 0, 0), (1000, 1000, 1000))
        faces = faces.copy()
        faces[sorted(wrong)] = faces[sorted(wrong), ::-1]
        t = building([(points, faces)]).topology
        outward = (t.normals * (t.points[t.faces].mean(axis=1) - 500)).sum(axis=1)
        self.assertTrue((outward > 0).all())
        self.assertEqual((t.turned, np.count_nonzero(t.edge_kind == FOLD)), (len(wrong), 12))

    def test_a_hollow_keeps_its_faces_towards_the_hollow(self):
        outer, inner = box((0, 0, 0), (1000, 1000, 1000)), box((200, 200, 200), (800, 800, 800))
        shell = np.concatenate([outer[0], inner[0]]), np.concatenate([outer[1], inner[1][:, ::-1] + 8])
        self.assertEqual(building([shell]).topology.turned, 0)

    def test_a_bar_is_slender_and_a_board_is_not(self):
        bar, board = box((0, 0, 0), (40, 40, 1100)), box((0, 500, 0), (20, 900, 1100))
        turned = np.array([[0.6, 0, 0.8], [0, 1, 0], [-0.8, 0, 0.6]])
        t = building([bar, board, (bar[0] @ turned.T + 5000, bar[1])]).topology
        self.assertEqual(t.slender.tolist(), [True, False, True])

    def test_the_angle_between_the_sides_of_a_prism_is_that_of_its_polygon(self):
        t = building([cylinder(500, 1000, 24)]).topology
        angles = np.unique(t.edge_angle[t.edge_kind == FOLD].round(3))
        np.testing.assert_allclose(angles, [15.0, 90.0])
