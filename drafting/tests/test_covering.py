"""What the search for hidden lines looks at follows what is seen, and not what there is."""

from unittest import TestCase

import numpy as np

from drafting.linework.covering import Covering
from drafting.linework.scene import faces_of
from drafting.tests.scenes import Mesh, box, building
from drafting.views.notation import parse_view


def rows(count: int) -> list[Mesh]:
    """A wall, and behind it so many rows of a hundred boxes."""
    boxes = [
        box((x * 300.0, 2000.0 + y * 300, z * 300), (x * 300.0 + 200, 2200.0 + y * 300, z * 300 + 200))
        for y in range(count) for x in range(10) for z in range(10)
    ]  # fmt: skip
    return [box((-500, 0, -500), (3500, 300, 3500)), *boxes]


def covering(meshes: list[Mesh], thorough: bool = False) -> Covering:
    scene = building(meshes)
    return Covering.of(faces_of(scene, parse_view("elevation:south").camera(scene)), thorough)


class CoveringTests(TestCase):
    def test_what_a_wall_hides_is_hardly_listed_however_much_there_is(self):
        listed = [len(covering(rows(count)).grid[1]) for count in (2, 8)]
        every = [len(covering(rows(count), thorough=True).grid[1]) for count in (2, 8)]
        self.assertGreater(every[1], 3.5 * every[0])
        self.assertLess(listed[1], every[1] / 3)

    def test_faces_are_listed_from_the_nearest_on(self):
        found = covering(rows(3), thorough=True)
        nearest = found.faces[4]
        self.assertTrue((np.diff(nearest) <= 0).all())
        start, entry = found.grid[:2]
        for cell in range(len(start) - 1):
            self.assertTrue((np.diff(entry[start[cell] : start[cell + 1]]) > 0).all())

    def test_the_far_sides_of_closed_bodies_are_left_out_and_those_of_open_ones_are_not(self):
        points, faces = box((0, 0, 0), (1000, 1000, 1000))
        self.assertEqual(len(covering([(points, faces)]).faces[0]), 2)
        self.assertEqual(len(covering([(points, faces[2:])]).faces[0]), 4)
