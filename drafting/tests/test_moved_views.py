"""Views keep looking at the same place when the axes of a building are changed."""

from dataclasses import replace
from unittest import TestCase

import numpy as np

from drafting.building.axes import Axes
from drafting.building.own_axes import in_axes
from drafting.geometry.regions import Circle, Polygon, Rectangle
from drafting.tests.scenes import box, building
from drafting.views.axonometric import Axonometric
from drafting.views.detail import Detail
from drafting.views.elevation import Elevation
from drafting.views.moved import in_new_axes, on_paper
from drafting.views.perspective import Perspective
from drafting.views.plan import Plan, RoofPlan
from drafting.views.section import Section

AXES = Axes((3000.0, -1200.0, 500.0), 20.0)
HOUSE = replace(building([box((0, 0, 0), (6000, 300, 2800)), box((0, 0, 0), (300, 4000, 2800))]))


class MovedViewTests(TestCase):
    def same_place(self, view, axes=AXES):
        """Each point of the building is drawn where it was, but for what `on_paper` says."""
        after = in_axes(HOUSE, axes)
        moved = in_new_axes(view, axes)
        before_camera, camera = view.camera(HOUSE), moved.camera(after)
        before, now = before_camera.project(HOUSE.vertices), camera.project(after.vertices)
        where = on_paper(view, axes)
        told = [where.point(p) for p in before[:, :2]] if where else before[:, :2]
        np.testing.assert_allclose(now[:, :2], told, atol=1e-6)
        for one, two in zip(before_camera.cuts, camera.cuts, strict=True):
            np.testing.assert_allclose(now[:, 2] - two.depth, before[:, 2] - one.depth, atol=1e-6)

    def test_sections_perspectives_and_what_is_seen_from_a_bearing_look_at_the_same(self):
        for view in (
            Section(((0.0, 2000.0), (6000.0, 2000.0))),
            Section(((0.0, 1000.0), (3000.0, 1000.0), (3000.0, 2500.0), (6000.0, 2500.0))),
            Section(((1000.0, 4000.0), (2500.0, -500.0))),
            Perspective((9000.0, -8000.0, 1600.0), (2000.0, 2000.0, 1500.0)),
            Elevation(bearing=210.0, near=1500.0),
            Plan("Ground"),
            RoofPlan(),
        ):
            with self.subTest(view=view):
                self.same_place(view)
        bearing = in_new_axes(Axonometric(bearing=350.0, altitude=30.0), AXES)
        self.assertEqual(bearing.bearing, 10.0)

    def test_elevations_of_a_side_follow_the_axes(self):
        side = Elevation("east", near=700.0)
        self.assertIsNone(on_paper(side, AXES))
        self.assertEqual(in_new_axes(side, AXES).side, "east")
        self.same_place(side, Axes(AXES.origin))

    def test_a_details_region_stays_where_it_was(self):
        axes = Axes((1000.0, 0.0, 0.0), 90.0)
        corner = Rectangle((1000.0, 0.0), (2000.0, 500.0))
        moved = in_new_axes(Detail(Plan("Ground"), corner), axes)
        self.assertIsInstance(moved.region, Polygon)
        np.testing.assert_allclose(moved.region.area.bounds, (0, -1000, 500, 0), atol=1e-6)
        round_one = in_new_axes(Detail(Plan("Ground"), Circle((1000.0, 700.0), 200.0)), axes)
        np.testing.assert_allclose(round_one.region.centre, (700, 0), atol=1e-6)
        section = Detail(Section(((0.0, 0.0), (5000.0, 0.0))), corner)
        self.assertEqual(in_new_axes(section, axes).region, Rectangle((0.0, 0.0), (1000.0, 500.0)))
