"""What is drawn of the demo building is seen, and what is seen is drawn; asked of an independent oracle."""

import tempfile
from dataclasses import replace
from pathlib import Path
from unittest import TestCase

import numpy as np
import shapely

from demo.building import write_observatory
from demo.tests.oracle import BESIDE, Oracle
from drafting.building.earth import with_earth
from drafting.building.reading import read_building
from drafting.linework.engine import draw
from drafting.tests.test_ground import on_ground, surface
from drafting.views.line_settings import LineSettings
from drafting.views.notation import parse_view

SAMPLES = 3000
#: A point is on a line when it is nearer to it than this; mm in the picture.
ON_LINE = 0.5
AGREEMENT = 0.999
VIEWS = (
    "elevation:south", "elevation:north", "elevation:east", "elevation:west", "roof", "plan:0", "plan:1",
    "section:-9500,3300,17500,3300", "section:6000,-8000,6000,12000",
    "axonometric:se", "axonometric:nw", "perspective:22000,-18000,5000,4000,3000,3000@50",
)  # fmt: skip


def as_modelled(text):
    """A view without symbols, which stand for what rays would meet."""
    return replace(parse_view(text), line_settings=LineSettings(doors=False, stairs=False))


class TruthTests(TestCase):
    views: tuple[str, ...] = VIEWS

    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        cls.building = cls.made()
        cls.oracle = Oracle(cls.building)
        cls.creases = cls.oracle.creases()

    @classmethod
    def made(cls):
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "observatory.ifc"
            write_observatory(str(path))
            return read_building(path)

    def underside(self, ends, owner):
        """(n,) which edges lie at the foot of a terrain, or go up from there: elevations and sections leave
        them out."""
        elements, corners = self.building.elements, self.building.vertices[self.building.triangles]
        found = np.zeros(len(ends), bool)
        for k, element in enumerate(elements):
            if element.ifc_class in ("IfcSite", "IfcGeographicElement"):
                foot = corners[self.building.triangle_element == k][:, :, 2].min()
                low = ends[:, :, 2] < foot + 1.0
                upright = np.linalg.norm(ends[:, 1, :2] - ends[:, 0, :2], axis=1) < 0.01
                found |= (owner == k) & (low.all(axis=1) | (low.any(axis=1) & upright))
        return found

    def test_what_is_drawn_is_seen(self):
        chance = np.random.default_rng(7)
        for text in self.views:
            with self.subTest(text):
                linework = draw(self.building, as_modelled(text))
                lines = [x for x in linework.lines if x.role != "cut"]
                ends = np.concatenate([np.stack([x.points[:-1], x.points[1:]], axis=1) for x in lines])
                length = np.hypot(*(ends[:, 1] - ends[:, 0])[:, :2].T)
                which = chance.choice(len(ends), SAMPLES, p=length / length.sum())
                camera = linework.camera
                # A straight line's depth runs evenly along it in the pictured depth, also in a perspective.
                pictured = ends[which].copy()
                pictured[:, :, 2] = camera.pictured_depth(pictured[:, :, 2])
                points = pictured[:, 0] + (pictured[:, 1] - pictured[:, 0]) * chance.uniform(
                    0.02, 0.98, (SAMPLES, 1)
                )
                depth = camera.true_depth(points[:, 2])
                spread = 1.0 if camera.distance is None else (1 - depth / camera.distance)[:, None]
                real = np.column_stack([points[:, :2] * spread, depth]) @ camera.axes + camera.origin
                self.assertGreaterEqual(1 - self.oracle.clearly_hidden(real, camera).mean(), AGREEMENT)

    def test_what_is_seen_is_drawn(self):
        chance = np.random.default_rng(11)
        for text in self.views:
            with self.subTest(text):
                ends, owner, normals, convex = self.creases
                if text.startswith(("elevation", "section")):
                    there = ~self.underside(ends, owner)
                    ends, owner, normals, convex = (x[there] for x in (ends, owner, normals, convex))
                length = np.linalg.norm(ends[:, 1] - ends[:, 0], axis=1)
                linework = draw(self.building, as_modelled(text))
                camera = linework.camera
                which = chance.choice(len(ends), 10 * SAMPLES, p=length / length.sum())
                share = chance.uniform(0.0, 1.0, (len(which), 1))
                points = ends[which, 0] + (ends[which, 1] - ends[which, 0]) * share
                inside = np.ones(len(points), bool)
                along = camera.along_axes(points)
                if camera.cuts:
                    inside = along[:, 2] < camera.cuts[0].depth - BESIDE
                if camera.distance is not None:
                    half = np.tan(np.radians(camera.angle / 2)) * (camera.distance - along[:, 2])
                    inside = (np.abs(along[:, :2]) < half[:, None] - BESIDE).all(axis=1)
                points, which = points[inside], which[inside]
                seen = self.oracle.clearly_seen(points, normals[which], camera)
                points, which = points[seen], which[seen]
                seams = self.oracle.seams(points, ends[which], normals[which], convex[which], owner[which])
                flat = camera.project(points[~seams])[:, :2]
                drawn = shapely.STRtree([shapely.LineString(x.points[:, :2]) for x in linework.lines])
                _, off = drawn.query_nearest(shapely.points(flat), return_distance=True, all_matches=False)
                self.assertGreater(len(flat), 300)
                self.assertGreaterEqual((off < ON_LINE).mean(), AGREEMENT)

    def test_no_line_lies_on_another_and_no_speck_lies_alone(self):
        for text in self.views:
            with self.subTest(text):
                lines = [
                    shapely.LineString(x.points[:, :2]) for x in draw(self.building, as_modelled(text)).lines
                ]
                ink = sum(line.length for line in lines)
                union = shapely.union_all(shapely.set_precision(lines, 0.01), grid_size=0.01)
                self.assertAlmostEqual(ink, union.length, delta=0.0005 * ink)
                tree = shapely.STRtree(lines)
                for number, line in enumerate(lines):
                    if line.length < 1.0:
                        self.assertGreater(
                            len(tree.query(line.buffer(0.05), predicate="intersects")), 1, number
                        )

    def test_no_line_runs_beside_another_of_its_role(self):
        """Nearer than 0.2 mm and by less than three degrees: two that are one to the eye."""
        for text in self.views:
            with self.subTest(text):
                lines = draw(self.building, as_modelled(text)).lines
                role = np.concatenate([np.full(len(x.points) - 1, x.role) for x in lines])
                ends = np.concatenate(
                    [np.stack([x.points[:-1, :2], x.points[1:, :2]], axis=1) for x in lines]
                )
                way = ends[:, 1] - ends[:, 0]
                length = np.hypot(*way.T)
                way /= length[:, None]
                strokes = shapely.linestrings(ends)
                a, b = shapely.STRtree(strokes).query(strokes, "dwithin", 0.2)
                turned = np.abs(way[a, 0] * way[b, 1] - way[a, 1] * way[b, 0])
                pair = (a < b) & (turned < 0.05) & (role[a] == role[b])
                beside = shapely.buffer(strokes[b[pair]], 0.19, cap_style="flat")
                shared = shapely.length(shapely.intersection(strokes[a[pair]], beside))
                self.assertLess(shared[shared > 0.5].sum(), 0.0002 * length.sum())

    def test_the_oracle_can_say_no(self):
        camera = draw(self.building, parse_view("elevation:south")).camera
        behind, before = np.array([[3000.0, 3500.0, 1500.0]]), np.array([[3000.0, -7900.0, 3500.0]])
        self.assertTrue(self.oracle.clearly_hidden(behind, camera).all())
        self.assertFalse(self.oracle.clearly_hidden(before, camera).any())
        self.assertFalse(
            self.oracle.clearly_seen(behind, np.array([[[0, -1.0, 0], [0, 0, 1.0]]]), camera).any()
        )
        self.assertTrue(
            self.oracle.clearly_seen(before, np.array([[[0, -1.0, 0], [0, 0, 1.0]]]), camera).all()
        )


class TerrainTruthTests(TruthTests):
    """The same of a house on a surface of rolling terrain, which is solid only since it was read."""

    views = (
        "elevation:south", "elevation:east", "elevation:230", "roof", "plan:0",
        "section:-18000,150,18000,150", "section:1200,-18000,1200,18000", "axonometric:se",
    )  # fmt: skip

    @classmethod
    def made(cls):
        walls = [
            ((-5000, -4000, -1500), (5000, -3700, 3000)), ((-5000, 3700, -1500), (5000, 4000, 3000)),
            ((-5000, -3700, -1500), (-4700, 3700, 3000)), ((4700, -3700, -1500), (5000, 3700, 3000)),
            ((-4700, -3700, 300), (4700, 3700, 500)), ((-3000, 2000, 500), (-1500, 3000, 1300)),
        ]  # fmt: skip
        return with_earth(on_ground(surface(rolling), walls))

    def test_the_oracle_can_say_no(self):
        below = np.array([[300.0, -9000.0, -2600.0]])
        camera = draw(self.building, parse_view("elevation:south")).camera
        self.assertTrue(self.oracle.clearly_hidden(below, camera).all())


def rolling(x, y):
    return -200.0 + 0.05 * y + 500.0 * np.sin(x / 7000.0) * np.cos(y / 9000.0)
