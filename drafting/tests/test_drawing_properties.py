"""What must not change a drawing: order, place, turn, mirror image, and how a face is divided."""

from unittest import TestCase

import numpy as np
import shapely
from hypothesis import example, given, settings
from hypothesis import strategies as st

from drafting.building.model import Building
from drafting.linework.engine import draw_from
from drafting.linework.model import Linework
from drafting.tests.scenes import Mesh, box, building, cylinder, prism
from drafting.views.camera import Camera

GABLE = [(0, 0), (5000, 0), (5000, 2500), (2500, 4000), (0, 2500)]
SCENE: list[Mesh] = [
    prism(GABLE, 0, 4000),
    prism([(-500, 2300), (2500, 4100), (5500, 2300), (5500, 2500), (2500, 4300), (-500, 2500)], -300, 4300),
    box((5000, 500, 0), (8000, 3500, 2000)),
    box((1000, -2000, 0), (2000, -1200, 1200)),
    cylinder(400, 5200, 32),
]


def looked_at(
    scene: Building, turn: float = 0.0, mirrored: bool = False, about: np.ndarray | None = None
) -> Linework:
    """The scene from the south-east and above, with a camera turned, mirrored and moved as the scene was."""
    toward = np.array([0.5, -0.7, 0.4])
    toward /= np.linalg.norm(toward)
    right = np.cross([0, 0, 1.0], toward)
    right /= np.linalg.norm(right)
    up = np.cross(toward, right)
    axes = np.stack([right, up, toward])
    if mirrored:
        axes = axes * [-1, 1, 1]
    c, s = np.cos(turn), np.sin(turn)
    axes = axes @ np.array([[c, -s, 0], [s, c, 0], [0, 0, 1]]).T
    return draw_from(scene, Camera(*axes, np.zeros(3) if about is None else about))


def ink(linework: Linework) -> shapely.Geometry:
    return shapely.union_all([shapely.LineString(line.points[:, :2]) for line in linework.lines])


class PropertyTests(TestCase):
    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        cls.wanted = ink(looked_at(building(SCENE)))

    def assert_same(self, linework: Linework):
        got = ink(linework)
        self.assertLess(shapely.hausdorff_distance(got, self.wanted), 0.5)
        self.assertAlmostEqual(got.length, self.wanted.length, delta=5)

    @settings(max_examples=12, deadline=None)
    @given(st.permutations(range(len(SCENE))))
    def test_the_order_of_the_elements(self, order):
        self.assert_same(looked_at(building([SCENE[i] for i in order])))

    @settings(max_examples=20, deadline=None)
    @given(st.floats(0, 2 * np.pi))
    def test_a_turn_about_the_vertical(self, turn):
        c, s = np.cos(turn), np.sin(turn)
        rotation = np.array([[c, -s, 0], [s, c, 0], [0, 0, 1]])
        self.assert_same(looked_at(building([(p @ rotation.T, f) for p, f in SCENE]), turn))

    @settings(max_examples=20, deadline=None)
    @given(st.tuples(*[st.floats(-1e7, 1e7)] * 2, st.floats(-1e5, 1e5)))
    def test_a_move_of_up_to_ten_kilometres(self, by):
        self.assert_same(looked_at(building([(p + by, f) for p, f in SCENE]), about=np.array(by)))

    def test_a_mirror_image(self):
        mirrored = [(p * [-1, 1, 1], f[:, ::-1].copy()) for p, f in SCENE]
        self.assert_same(looked_at(building(mirrored), mirrored=True))

    @settings(max_examples=10, deadline=None)
    @given(st.lists(st.tuples(st.integers(0, 10_000), st.floats(0.1, 0.8), st.floats(0.1, 0.8)), max_size=8))
    @example([(0, 0.5, 0.75), (0, 0.5, 0.5), (0, 0.5, 0.5), (0, 0.5, 0.5), (180, 0.5, 0.5)])
    def test_faces_divided_into_many(self, cuts):
        points, faces = SCENE[0]
        for which, a, b in cuts:
            k = which % len(faces)
            corner = faces[k]
            a, b = (a, b) if a + b < 1 else (1 - a, 1 - b)
            middle = points[corner[0]] * (1 - a - b) + points[corner[1]] * a + points[corner[2]] * b
            n = len(points)
            points = np.concatenate([points, [middle]])
            parts = [[corner[0], corner[1], n], [corner[1], corner[2], n], [corner[2], corner[0], n]]
            faces = np.concatenate([np.delete(faces, k, axis=0), parts]).astype(np.int32)
        self.assert_same(looked_at(building([(points, faces), *SCENE[1:]])))
