"""Terrain: solid below its surface, a ground line however it lies, contours, no earth inside a building."""

from dataclasses import replace
from unittest import TestCase

import numpy as np
import shapely

from drafting.building.earth import ABOUT, DEEP, LEVEL_GROUND, with_earth, with_level_ground
from drafting.errors import ViewError
from drafting.linework.engine import draw
from drafting.linework.model import GROUND_ABOUT
from drafting.tests.scenes import box, building, lines_of
from drafting.views.elevation import Elevation
from drafting.views.line_settings import LineSettings
from drafting.views.plan import Plan, RoofPlan
from drafting.views.section import Section

#: Across the house, seen from the south.
ALONG_X = Section(((-20_000.0, 0.0), (20_000.0, 0.0)))


def surface(height, size=40_000.0, step=1250.0, reverse=False):
    """A field of triangles about zero, each corner at a height of its x and y."""
    axis = np.arange(-size / 2, size / 2 + 1, step) + 300.0
    x, y = np.meshgrid(axis, axis)
    points = np.stack([x.ravel(), y.ravel(), height(x, y).ravel()], axis=1)
    n = len(axis)
    a = (np.arange(n - 1)[:, None] * n + np.arange(n - 1)).ravel()
    faces = np.concatenate([np.stack([a, a + 1, a + n + 1], 1), np.stack([a, a + n + 1, a + n], 1)])
    return points, (faces[:, ::-1] if reverse else faces).astype(np.int32)


def on_ground(mesh, walls=((-5000, -4000, -1500), (5000, 4000, 3000))):
    """A house, solid or hollow, on terrain of its own."""
    boxes = [box(*walls)] if isinstance(walls[0][0], int) else [box(*pair) for pair in walls]
    made = building([*boxes, mesh], ["stone"] * len(boxes) + ["Ground"])
    field = replace(made.elements[-1], name="Field", ifc_class="IfcSite", layer="Ground")
    return replace(made, elements=(*made.elements[:-1], field))


def level(x, y):
    return np.full_like(x, -200.0)


def slope(x, y):
    return -200.0 + 0.1 * x


class EarthTests(TestCase):
    def test_a_surface_becomes_a_closed_body_of_the_right_volume(self):
        for height, reverse in ((level, False), (slope, False), (slope, True)):
            with self.subTest(height.__name__, reverse=reverse):
                mesh = surface(height, reverse=reverse)
                made = with_earth(on_ground(mesh))
                self.assertTrue(made.topology.closed.all())
                self.assertIn("“Field” is a surface in the file", made.warnings[0])
                corners = made.vertices[made.triangles[made.triangle_element == 1]]
                volume = (
                    np.einsum("ij,ij->i", corners[:, 0], np.cross(corners[:, 1], corners[:, 2])).sum() / 6
                )
                base = made.vertices[:, 2].min()
                self.assertAlmostEqual(base, min(-1500.0, mesh[0][:, 2].min()) - DEEP)
                x = mesh[0][:, 0]
                side = np.ptp(x)
                middle = height(np.array([(x.min() + x.max()) / 2]), None)[0] if height is slope else -200.0
                self.assertAlmostEqual(abs(volume) / (side * side * (middle - base)), 1.0, places=6)

    def test_a_hole_in_the_surface_goes_through_the_earth(self):
        points, faces = surface(level)
        centre = points[faces].mean(axis=1)
        outside = (np.abs(centre[:, :2] - 300.0) > 5000.0).any(axis=1)
        made = with_earth(on_ground((points, faces[outside])))
        self.assertTrue(made.topology.closed.all())
        (region,) = [r for r in draw(made, Plan("Ground", cut=1.0)).regions if r.material == "Ground"] or [
            None
        ]
        self.assertIsNone(region)  # the cut is above the ground
        section = draw(made, ALONG_X)
        self.assertEqual(len([r for r in section.regions if r.material == "Ground"]), 2)

    def test_what_is_solid_or_stands_upright_is_left_as_it_is(self):
        solid = on_ground(box((-9000, -9000, -900), (9000, 9000, -200)))
        self.assertIs(with_earth(solid), solid)
        fence = (np.array([(0.0, 0, 0), (9000.0, 0, 0), (9000.0, 0, 900.0), (0.0, 0, 900.0)]),
                 np.array([(0, 1, 2), (0, 2, 3)], np.int32))  # fmt: skip
        upright = on_ground(fence)
        self.assertIs(with_earth(upright), upright)

    def test_surfaces_that_lie_over_each_other_are_closed_too(self):
        points, faces = surface(level)
        twice = (
            np.concatenate([points, points + np.array([0.0, 0.0, 400.0])]),
            np.concatenate([faces, faces + len(points)]),
        )
        self.assertTrue(with_earth(on_ground(twice)).topology.closed.all())


class LevelGroundTests(TestCase):
    """A house whose file has no terrain, and whose foundations reach below the ground that is given."""

    def setUp(self):
        self.house = building([box((-5000, -4000, -1500), (5000, 4000, 3000))])
        self.made = with_level_ground(self.house, -200.0)

    def test_it_hides_what_is_in_it_and_ends_in_one_line(self):
        drawing = draw(self.made, Elevation("south"))
        line = lines_of(drawing, element=LEVEL_GROUND)
        self.assertAlmostEqual(line.bounds[1], -200.0, places=3)
        self.assertAlmostEqual(line.bounds[3], -200.0, places=3)
        self.assertGreater(line.bounds[2] - line.bounds[0], 10_000.0 + 2 * GROUND_ABOUT)
        self.assertAlmostEqual(lines_of(drawing, element="e0").bounds[1], -200.0, delta=0.01)

    def test_in_a_section_it_is_cut_beside_the_house_and_not_in_it(self):
        drawing = draw(self.made, ALONG_X)
        (earth,) = [r for r in drawing.regions if r.element == LEVEL_GROUND]
        area = shapely.Polygon(earth.rings[0], earth.rings[1:])
        self.assertFalse(area.contains(shapely.Point(0.0, -1000.0)))
        self.assertTrue(area.contains(shapely.Point(9000.0, -1000.0)))

    def test_terrain_of_the_file_goes_before_it(self):
        house = on_ground(surface(level))
        made = with_level_ground(house, 500.0)
        self.assertIn("terrain of its own", made.warnings[-1])
        self.assertEqual(len(made.elements), len(house.elements))

    def test_what_is_known_of_a_building_stays_as_it_is(self):
        self.assertEqual(self.made.elements[:1], self.house.elements)
        self.assertEqual(self.made.materials, ("stone", "Ground"))
        np.testing.assert_array_equal(self.made.triangles[:12], self.house.triangles)
        low, high = self.house.bounds
        wide = self.made.bounds
        np.testing.assert_allclose(wide[0][:2], low[:2] - ABOUT)
        np.testing.assert_allclose(wide[1][:2], high[:2] + ABOUT)


class GroundLineTests(TestCase):
    def test_level_ground_hides_what_is_in_it_and_ends_in_one_line(self):
        drawing = draw(with_earth(on_ground(surface(level))), Elevation("south"))
        ground = lines_of(drawing, element="e1")
        self.assertAlmostEqual(ground.bounds[1], -200.0, places=3)
        self.assertAlmostEqual(ground.bounds[3], -200.0, places=3)
        self.assertGreater(ground.length, 38_000.0)
        self.assertEqual({line.role for line in drawing.lines if line.element == "e1"}, {"profile"})
        self.assertAlmostEqual(lines_of(drawing, element="e0").bounds[1], -200.0, delta=0.01)

    def test_sloping_ground_meets_the_wall_in_a_profile(self):
        """The terrain rises away from the viewer: where it meets the wall it is far from its own edge."""

        def away(x, y):
            return -200.0 + 0.1 * y

        for step, why in ((1250.0, "faces pass through the wall"), (1000.0, "corners lie along the wall")):
            with self.subTest(why):
                mesh = surface(away, step=step)
                if step == 1000.0:
                    mesh = (mesh[0] - [300.0, 300.0, 30.0], mesh[1])
                drawing = draw(with_earth(on_ground(mesh)), Elevation("south"))
                (line,) = [
                    x
                    for x in drawing.lines
                    if x.role == "profile"
                    and np.ptp(x.points[:, 1]) < 1
                    and x.points[0, 1] > -700
                    and x.points[0, 1] < 0
                ]
                np.testing.assert_allclose(sorted(line.points[:, 0]), (-5000, 5000), atol=1)
                np.testing.assert_allclose(line.points[:, 1], -600.0, atol=1)

    def test_the_foot_of_the_earth_is_never_drawn(self):
        made = with_earth(on_ground(surface(slope)))
        foot = made.vertices[:, 2].min()
        for view in (
            Elevation("south"),
            Elevation("west"),
            ALONG_X,
            Section(((0.0, -9000.0), (0.0, 9000.0))),
        ):
            with self.subTest(view.title):
                for line in draw(made, view).lines:
                    if line.element == "e1":
                        self.assertGreater(line.points[:, 1].min(), foot + 100.0)


class SectionTests(TestCase):
    def test_the_building_reaches_down_to_its_foundations_and_not_to_the_earth(self):
        """Also where the edge between the two is the ground's, since that comes first in the file."""
        house_first = on_ground(surface(level))
        ground_first = building([surface(level), box((-5000, -4000, -1500), (5000, 4000, 3000))])
        field = replace(house_first.elements[1], id=ground_first.elements[0].id)
        ground_first = replace(ground_first, elements=(field, *ground_first.elements[1:]))
        for made in (house_first, ground_first):
            drawing = draw(with_earth(made), ALONG_X)
            np.testing.assert_allclose(drawing.own_extents, (-5000.0, -1500.0, 5000.0, 3000.0), atol=0.01)

    def test_the_cut_is_the_surface_and_its_earth_reaches_down(self):
        drawing = draw(with_earth(on_ground(surface(slope))), ALONG_X)
        (earth,) = [r for r in drawing.regions if r.material == "Ground"]
        self.assertLess(earth.rings[0][:, 1].min(), -1500.0)
        points = np.concatenate([x.points for x in drawing.lines if x.role == "cut" and x.element == "e1"])
        beside = points[np.abs(points[:, 0]) > 5001.0]
        self.assertGreater(np.ptp(beside[:, 0]), 35_000.0)
        np.testing.assert_allclose(beside[:, 1], -200.0 + 0.1 * beside[:, 0], atol=0.1)

    def test_no_earth_fills_a_cellar_that_the_terrain_runs_through(self):
        hollow = [
            ((-5000, -4000, -2500), (-4700, 4000, 3000)), ((4700, -4000, -2500), (5000, 4000, 3000)),
            ((-4700, -4000, -2500), (4700, 4000, -2300)), ((-4700, -4000, 2800), (4700, 4000, 3000)),
        ]  # fmt: skip
        drawing = draw(with_earth(on_ground(surface(level), hollow)), ALONG_X)
        earth = shapely.union_all(
            [shapely.Polygon(r.rings[0], r.rings[1:]) for r in drawing.regions if r.material == "Ground"]
        )
        self.assertEqual(earth.intersection(shapely.box(-4600, -2200, 4600, 2700)).area, 0.0)
        self.assertGreater(earth.intersection(shapely.box(-4600, -5000, 4600, -2600)).area, 1e6)


class ContourTests(TestCase):
    def contours(self, interval, view=RoofPlan):
        settings = LineSettings(contours=interval)
        kind = view(line_settings=settings) if view is RoofPlan else view("Ground", line_settings=settings)
        return [x for x in draw(with_earth(on_ground(surface(slope))), kind).lines if x.role == "symbol"]

    def test_each_lies_at_a_whole_height(self):
        lines = self.contours(500.0)
        heights = {round(float(x), 1) for line in lines for x in (0.1 * line.points[:, 0] - 200.0)}
        self.assertEqual(heights, {k * 500.0 for k in range(-4, 4)})

    def test_the_building_hides_those_below_it_and_a_plan_cuts_those_above(self):
        house = shapely.box(-4990, -3990, 4990, 3990)
        for line in self.contours(100.0):
            self.assertFalse(house.intersects(shapely.LineString(line.points[:, :2])))
        highest = max(float(line.points[:, 0].max()) for line in self.contours(100.0, Plan))
        self.assertLessEqual(0.1 * highest - 200.0, 1200.0)

    def test_too_many_are_refused_with_an_interval_that_will_do(self):
        with self.assertRaisesRegex(ViewError, "Give an interval of at least 4 mm"):
            self.contours(1.0)
        self.assertEqual(self.contours(None), [])
