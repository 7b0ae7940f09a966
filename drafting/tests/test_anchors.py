"""Anchors find their corners again when a building has been changed, and say so when they cannot."""

import math
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from drafting.annotation.anchors import Anchor, described, followed
from drafting.annotation.corners import Corners
from drafting.tests.scenes import box, cylinder, drawn, prism

WHOLE = st.integers(-20, 20).map(lambda k: k * 100.0)
LONG = st.integers(5, 60).map(lambda k: k * 100.0)


def wall(x=0.0, y=0.0, length=4000.0, thick=300.0, openings=(), high=2600.0):
    """A wall along x with openings (left, right) of full height but for a lintel, seen in plan below it."""
    ring = [(x, 0.0), (x + length, 0.0), (x + length, high), (x, high)]
    holes = [
        [(x + a, 10.0), (x + b, 10.0), (x + b, high - 300.0), (x + a, high - 300.0)] for a, b in openings
    ]
    return prism(ring, y, y + thick, holes)


def corners(*meshes, view="plan:0"):
    linework = drawn(meshes, view)
    return Corners(linework), linework.elements


def element(*meshes, number=0, view="plan:0"):
    found, names = corners(*meshes, view=view)
    return found.of(names[number])


class DescribedTests(TestCase):
    def test_a_corner_is_told_by_its_lines_and_its_reach(self):
        anchor = described((0.0, 0.0), "w", element(wall()))
        self.assertEqual(anchor.ends[0].ways, (0.0, 90.0))
        self.assertEqual(anchor.ends[0].reach, (0.0, 0.0, 4000.0, 300.0))
        self.assertEqual((anchor.ends[0].rank, anchor.ends[0].count), (0, 1))

    def test_a_point_on_a_face_lies_on_the_line_between_its_corners(self):
        anchor = described((1000.0, 0.3), "w", element(wall()))
        self.assertEqual(len(anchor.ends), 2)
        self.assertAlmostEqual(followed(anchor, element(wall())).at[0], 1000.0)
        # Where the wall is made longer, it stays at its share of the face.
        self.assertAlmostEqual(followed(anchor, element(wall(length=8000.0))).at[0], 2000.0)

    def test_what_lies_on_nothing_is_attached_to_nothing(self):
        anchor = described((1000.0, 150.0), "w", element(wall()))
        self.assertEqual(anchor, Anchor((1000.0, 150.0)))
        self.assertEqual(followed(anchor, None).state, "followed")


class RoundTests(TestCase):
    @given(st.integers(12, 90), st.integers(2, 40).map(lambda k: k * 50.0), WHOLE, WHOLE)
    def test_a_round_column_is_attached_to_by_its_centre_and_follows(self, sides, radius, x, y):
        def column(by):
            points, faces = cylinder(radius, 2600, sides)
            return element((points + by, faces))

        centre = (x, y)
        anchor = described(centre, "c", column((x, y, 0)))
        self.assertEqual((anchor.element, anchor.ends[0].ways), ("c", ()))
        found = followed(anchor, column((x + 700, y - 300, 0)))
        self.assertEqual(found.state, "followed")
        np.testing.assert_allclose(found.at, (x + 700, y - 300), atol=0.6)

    def test_of_two_round_holes_each_keeps_its_own(self):
        def ring(x):
            turns = [math.tau * k / 24 for k in range(24)]
            return [(x + 400 * math.cos(turn), 1500 + 400 * math.sin(turn)) for turn in turns]

        def panel(length):
            face = [(0, 0), (length, 0), (length, 3000), (0, 3000)]
            mesh = prism(face, 0, 300, [ring(1000), ring(length - 1000)])
            return element(mesh, view="elevation:south")

        anchor = described((5000.0, 1500.0), "p", panel(6000))
        found = followed(anchor, panel(8000))
        np.testing.assert_allclose(found.at, (7000.0, 1500.0), atol=0.5)

    def test_what_is_round_and_no_circle_has_somewhere_to_be_attached(self):
        turns = [math.tau * k / 60 for k in range(60)]
        ellipse = [(900 * math.cos(turn), 1500 + 500 * math.sin(turn)) for turn in turns]
        found = element(prism(ellipse, 0, 300), view="elevation:south")
        self.assertTrue(found.outer)
        self.assertEqual(described(found.places[0], "o", found).element, "o")


class FollowedTests(TestCase):
    def where(self, before, after, at):
        return followed(described(at, "w", before), after)

    @settings(max_examples=30, deadline=None)
    @given(WHOLE, WHOLE, st.sampled_from([0, 1, 2, 3]))
    def test_of_a_wall_that_is_moved_every_corner_moves_with_it(self, dx, dy, which):
        before = element(wall(openings=[(1200, 2100)]))
        after = element(wall(dx, dy, openings=[(1200, 2100)]))
        x, y = before.places[which]
        found = self.where(before, after, (x, y))
        self.assertEqual(found.state, "followed")
        np.testing.assert_allclose(found.at, (x + dx, y + dy), atol=0.02)

    @settings(max_examples=30, deadline=None)
    @given(LONG)
    def test_of_a_wall_that_is_stretched_both_ends_and_an_opening_are_found(self, more):
        before = element(wall(openings=[(1200, 2100)]))
        after = element(wall(length=4000.0 + more, openings=[(1200, 2100)]))
        for at, wanted in (
            ((0.0, 0.0), (0.0, 0.0)),
            ((4000.0, 300.0), (4000.0 + more, 300.0)),
            ((1200.0, 0.0), (1200.0, 0.0)),
        ):
            found = self.where(before, after, at)
            self.assertEqual(found.state, "followed")
            np.testing.assert_allclose(found.at, wanted, atol=0.02)

    @settings(max_examples=20, deadline=None)
    @given(st.integers(3, 14).map(lambda k: k * 50.0))
    def test_an_opening_that_is_moved_along_its_wall_takes_its_jambs_along(self, by):
        before = element(wall(openings=[(1200, 2100)]))
        after = element(wall(openings=[(1200 + by, 2100 + by)]))
        for x in (1200.0, 2100.0):
            found = self.where(before, after, (x, 0.0))
            self.assertEqual(found.state, "followed")
            np.testing.assert_allclose(found.at, (x + by, 0.0), atol=0.02)

    def test_a_jamb_of_an_opening_that_is_closed_is_lost_and_stays_where_it_was(self):
        before = element(wall(openings=[(1200, 2100)]))
        found = self.where(before, element(wall()), (1200.0, 0.0))
        self.assertEqual(found.state, "lost")
        np.testing.assert_allclose(found.at, (1200.0, 0.0), atol=0.02)

    def test_where_openings_have_come_and_gone_none_is_taken_for_another(self):
        before = element(wall(openings=[(1200, 2100)]))
        after = element(wall(openings=[(500, 900), (2600, 3300)]))
        self.assertEqual(self.where(before, after, (1200.0, 0.0)).state, "lost")

    def test_of_an_element_that_is_gone_every_corner_is_lost(self):
        found = followed(described((0.0, 0.0), "w", element(wall())), None)
        self.assertEqual(found.state, "lost")

    def test_of_a_wall_that_is_split_the_end_that_stays_is_found(self):
        before = element(wall(length=6000.0))
        after = element(wall(length=2500.0), wall(x=3000.0, length=3000.0))
        self.assertEqual(self.where(before, after, (0.0, 0.0)), ((0.0, 0.0), "followed"))
        self.assertEqual(self.where(before, after, (6000.0, 0.0)).at, (2500.0, 0.0))


class CornersTests(TestCase):
    def test_an_element_that_the_drawing_does_not_show_has_none(self):
        found, _ = corners(wall())
        self.assertIsNone(found.of("no such thing"))

    def test_what_is_round_has_no_corners_along_it(self):
        angles = [2 * np.pi * k / 60 for k in range(60)]
        ring = [(1000 * np.cos(a), 1300 + 1000 * np.sin(a)) for a in angles]
        found = element(prism(ring, 0.0, 200.0), view="elevation:south")
        self.assertEqual([corner.ways for corner in found.corners], [()])

    def test_an_elevation_has_the_corners_of_what_is_seen(self):
        found = element(box((0, 0, 0), (4000, 300, 2600)), view="elevation:south")
        self.assertEqual(
            sorted((round(u), round(v)) for u, v in found.places),
            [(0, 0), (0, 2600), (4000, 0), (4000, 2600)],
        )
