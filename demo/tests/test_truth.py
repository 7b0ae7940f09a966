"""An oracle that knows nothing of the engine: every drawn point is looked at through all faces of the demo building."""

import tempfile
from pathlib import Path
from unittest import TestCase

import numpy as np

from demo.building import write_observatory
from drafting.building.ifc import read_ifc
from drafting.linework.engine import draw
from drafting.views.spec import parse_view

#: A face hides a point when it passes in front of it by more than this, and its border is further off than this; mm.
CLEAR = 2.0
SAMPLES = 1500
VIEWS = ("elevation:south", "elevation:east", "axonometric:se", "axonometric:nw", "roof")


def hidden(points, triangles):
    """For each (u, v, depth), whether some triangle (n, 3, 3) of u, v, depth passes clearly in front of it."""
    a, b, c = triangles[:, 0], triangles[:, 1], triangles[:, 2]
    area = (b[:, 0] - a[:, 0]) * (c[:, 1] - a[:, 1]) - (b[:, 1] - a[:, 1]) * (c[:, 0] - a[:, 0])
    wide = np.abs(area) > 1.0
    a, b, c, area = a[wide], b[wide], c[wide], area[wide]
    result = np.zeros(len(points), bool)
    for k, (u, v, depth) in enumerate(points):
        inside = np.ones(len(a), bool)
        weights = []
        for p, q in ((b, c), (c, a), (a, b)):
            cross = ((q[:, 0] - p[:, 0]) * (v - p[:, 1]) - (q[:, 1] - p[:, 1]) * (u - p[:, 0])) * np.sign(area)
            inside &= cross > CLEAR * np.hypot(q[:, 0] - p[:, 0], q[:, 1] - p[:, 1])
            weights.append(cross / np.abs(area))
        at = weights[0] * a[:, 2] + weights[1] * b[:, 2] + weights[2] * c[:, 2]
        result[k] = (inside & (at > depth + CLEAR)).any()
    return result


class TruthTests(TestCase):
    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "observatory.ifc"
            write_observatory(str(path))
            cls.building = read_ifc(path)

    def test_every_drawn_point_is_seen(self):
        chance = np.random.default_rng(7)
        for text in VIEWS:
            with self.subTest(text):
                linework = draw(self.building, parse_view(text))
                triangles = linework.camera.project(self.building.vertices)[self.building.triangles]
                ends = np.concatenate([np.stack([x.points[:-1], x.points[1:]], axis=1) for x in linework.lines])
                length = np.hypot(*(ends[:, 1] - ends[:, 0])[:, :2].T)
                which = chance.choice(len(ends), SAMPLES, p=length / length.sum())
                share = chance.uniform(0.02, 0.98, (SAMPLES, 1))
                points = ends[which, 0] + (ends[which, 1] - ends[which, 0]) * share
                self.assertLessEqual(hidden(points, triangles).mean(), 0.001)

    def test_the_oracle_can_say_no(self):
        wall = np.array([[[0, 0, 0], [1000, 0, 0], [1000, 1000, 0]]], float)
        self.assertEqual(
            hidden(np.array([[700, 300, -500], [700, 300, 500], [100, 900, -500]]), wall).tolist(), [True, False, False]
        )
