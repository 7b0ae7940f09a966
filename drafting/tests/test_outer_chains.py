"""Dimensioning a plan by itself: which chains there are, what they measure, and where they lie."""

import math
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from drafting.annotation.corners import Corners
from drafting.annotation.dimensions import LINES_APART, measured
from drafting.annotation.outer_chains import FIRST, SIDES, outer_chains
from drafting.errors import SheetError
from drafting.tests.scenes import box, drawn

#: A house of 9 x 6 m with walls of 300 mm, a door in the south wall and a window in the east wall.
SOUTH = [((0, 0), (3000, 300)), ((4000, 0), (9000, 300))]
EAST = [((8700, 300), (9000, 2000)), ((8700, 3500), (9000, 5700))]
REST = [((0, 5700), (9000, 6000)), ((0, 300), (300, 5700))]
HOUSE = [box((*low, 0), (*high, 2600)) for low, high in (*SOUTH, *EAST, *REST)]
GRID = [("1", (150.0, -2000.0), (150.0, 8000.0)), ("2", (4500.0, -2000.0), (4500.0, 8000.0))]


def chains(meshes=HOUSE, sides=SIDES, ratio=0.01, grid=()):
    linework = drawn(meshes, "plan:0")
    return {d.series: d for d in outer_chains(linework, Corners(linework), sides, ratio, grid)}


def lengths(dimension):
    at = [point.at for point in dimension.points]
    return [round(length.measure) for length in measured(dimension, at).lengths]


class MeasuredTests(TestCase):
    def test_openings_first_and_the_whole_outside(self):
        found = chains()
        self.assertEqual(lengths(found["bottom 1"]), [3000, 1000, 5000])
        self.assertEqual(lengths(found["bottom 2"]), [9000])
        self.assertEqual(lengths(found["right 1"]), [2000, 1500, 2500])
        # A wall without openings has one length, and is not dimensioned twice.
        self.assertEqual(lengths(found["top 1"]), [9000])
        self.assertNotIn("top 2", found)

    def test_every_point_is_attached_to_a_corner_of_its_wall(self):
        for dimension in chains().values():
            for point in dimension.points:
                self.assertEqual((len(point.ends), point.share), (1, 0.0))

    def test_partitions_and_what_stands_inside_are_no_part_of_it(self):
        inside = [box((4000, 300, 0), (4100, 5700, 2600)), box((1000, 1000, 0), (2000, 1600, 900))]
        self.assertEqual(lengths(chains([*HOUSE, *inside])["top 1"]), [9000])

    def test_a_grid_has_a_chain_of_its_own_where_it_lies_in_no_face(self):
        found = chains(grid=GRID)
        self.assertEqual([lengths(found[f"bottom {k}"]) for k in (2, 3)], [[4350], [9000]])
        faces = [("1", (0.0, -2000.0), (0.0, 8000.0)), ("2", (9000.0, -2000.0), (9000.0, 8000.0))]
        self.assertEqual(lengths(chains(grid=faces)["bottom 2"]), [9000])

    @settings(max_examples=15, deadline=None)
    @given(st.lists(st.integers(400, 2400), min_size=1, max_size=6), st.integers(600, 2000))
    def test_a_wall_with_any_openings_is_measured_whole(self, openings, pier):
        walls, at = [], 0.0
        for width in openings:
            walls.append(box((at, 0, 0), (at + pier, 300, 2600)))
            at += pier + width
        end = at + pier
        walls += [box((at, 0, 0), (end, 300, 2600)), box((0, 6000, 0), (end, 6300, 2600))]
        walls += [box((x, 300, 0), (x + 300, 6000, 2600)) for x in (0, end - 300)]
        found = lengths(chains(walls, ("bottom",))["bottom 1"])
        self.assertEqual(found, [each for width in openings for each in (pier, width)] + [pier])


class PlacedTests(TestCase):
    def test_each_lies_beyond_the_one_before_and_beyond_all_that_is_drawn(self):
        porch = box((2000, -1500, 0), (5000, 0, 100))
        for ratio in (0.01, 0.02):
            found = chains([*HOUSE, porch], ratio=ratio)
            for k in (1, 2):
                dimension = found[f"bottom {k}"]
                _, v = dimension.points[0].at
                below = v * ratio + dimension.offset
                self.assertAlmostEqual(below, -1500 * ratio - FIRST - (k - 1) * LINES_APART, delta=0.06)

    def test_on_the_other_sides_likewise(self):
        found = chains()
        self.assertEqual(found["top 1"].offset, FIRST)
        # To the left of the way up is the way to the left.
        self.assertEqual((found["left 1"].offset, found["right 1"].offset), (FIRST, -FIRST))


class RefusedTests(TestCase):
    def test_walls_that_run_aslant_are_not_measured_foreshortened(self):
        turn = math.radians(20)
        cos, sin = math.cos(turn), math.sin(turn)
        matrix = np.array([[cos, sin, 0], [-sin, cos, 0], [0, 0, 1]])
        aslant = [(points @ matrix, faces) for points, faces in HOUSE]
        with self.assertRaises(SheetError) as caught:
            chains(aslant)
        self.assertIn("by hand", str(caught.exception))

    def test_where_nothing_is_cut_there_is_nothing_to_dimension(self):
        with self.assertRaises(SheetError):
            chains([box((0, 0, 0), (4000, 300, 500))])
