"""Shadows as areas: where geometry says that they fall, closed, clean, and apart from what is lit."""

import math
from dataclasses import replace
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import Polygon, union_all
from shapely import box as rectangle

from drafting.shading.appearance import Appearance, AreaStyle, Light
from drafting.shading.shadow_areas import shadow_areas_of
from drafting.shading.window import Window, areas_key, picture_key
from drafting.tests.scenes import box, building
from drafting.views.notation import parse_view

CONVENTION = Appearance(areas=AreaStyle("both"))
#: 100 x 100 mm of paper at 1:100, about zero.
WINDOW = Window(100.0, 100.0, 0.01, (0.0, 0.0))
GROUND = box((-6000, -6000, -100), (6000, 6000, 0))
#: As wide as a place is, at 1:100; a shadow's outline may be so far off.
OFF = 8.0


def areas(meshes, view, appearance=CONVENTION, window=WINDOW):
    found = shadow_areas_of(building(meshes), parse_view(view), appearance, window)
    return [union_all([Polygon(rings[0], rings[1:]) for rings in kind]) for kind in found]


class ShadowAreasTests(TestCase):
    def near(self, found, wanted):
        """They cover the same, but for a strip along their borders."""
        self.assertLess(found.symmetric_difference(wanted).area, OFF * wanted.length)
        self.assertLess(found.difference(wanted.buffer(2 * OFF)).area, 1.0)
        self.assertLess(wanted.buffer(-2 * OFF).difference(found).area, 1.0)

    @settings(max_examples=10, deadline=None)
    @given(st.integers(2, 20).map(lambda k: k * 100.0))
    def test_on_a_plan_a_post_throws_a_shadow_as_long_as_it_is_high(self, high):
        """In the light of the convention, from the lower left: as far to the right and up as it is high."""
        cast, own = areas([GROUND, box((-500, -500, 0), (500, 500, high))], "roof")
        top = rectangle(-500, -500, 500, 500)
        corners = [(-500, -500), (500, -500), (500, 500), (-500, 500)]
        moved = [(x + high, y + high) for x, y in corners]
        sides = zip(corners, corners[1:] + corners[:1], moved[1:] + moved[:1], moved, strict=True)
        swept = union_all([Polygon(moved), *(Polygon(side).convex_hull for side in sides)])
        self.near(cast, swept.difference(top).intersection(rectangle(-5000, -5000, 5000, 5000)))
        self.assertTrue(own.is_empty)

    def test_on_an_elevation_an_eave_throws_a_band_as_deep_as_it_stands_out(self):
        wall, eave = box((-3000, 0, 0), (3000, 300, 3000)), box((-3000, -400, 2800), (3000, 0, 3000))
        cast, _ = areas([wall, eave], "elevation:south")
        _, _, right, top = cast.bounds
        self.assertAlmostEqual(top, 2800, delta=OFF)
        self.assertAlmostEqual(right, 3000, delta=OFF)
        # From the upper left: the band begins as far from the left as the eave stands out.
        self.near(cast, Polygon([(-3000, 2800), (-2600, 2400), (3000, 2400), (3000, 2800)]))

    def test_what_is_turned_from_the_light_is_its_own_shadow(self):
        noon_in_the_north = Light("sun", 6, 21, 12.0, 50.0)
        cast, own = areas(
            [box((-1000, -1000, 0), (1000, 1000, 2000))],
            "elevation:north",
            replace(CONVENTION, light=noon_in_the_north),
        )
        self.near(own, rectangle(-1000, 0, 1000, 2000))
        self.assertTrue(cast.is_empty)

    def test_they_lie_apart_and_have_clean_outlines(self):
        """Steps in the sun of an afternoon: few corners, no overlaps, no specks."""
        steps = [box((0, k * 300, 0), (2000, 4000, 170 * (k + 1))) for k in range(6)]
        light = replace(CONVENTION, light=Light("sun", 3, 21, 15.0, 52.0))
        found = shadow_areas_of(
            building([GROUND, *steps, box((2000, 0, 0), (2100, 4000, 2500))]),
            parse_view("axonometric:se"),
            light,
            WINDOW,
        )
        polygons = [Polygon(rings[0], rings[1:]) for kind in found for rings in kind]
        self.assertTrue(all(p.is_valid for p in polygons))
        self.assertGreater(min(p.area for p in polygons), 2000.0)
        self.assertLess(max(len(p.exterior.coords) for p in polygons), 40)
        whole = union_all(polygons)
        self.assertAlmostEqual(whole.area, sum(p.area for p in polygons), delta=0.01 * whole.area)

    def test_at_night_there_are_none(self):
        night = replace(CONVENTION, light=Light("sun", 12, 21, 1.0, 50.0))
        cast, own = areas([GROUND, box((0, 0, 0), (1000, 1000, 1000))], "roof", night)
        self.assertTrue(cast.is_empty and own.is_empty)

    def test_glass_receives_shadow_as_a_surface(self):
        wall, eave = box((-3000, 0, 0), (3000, 300, 3000)), box((-3000, -400, 2800), (3000, 0, 3000))
        house = building([wall, eave], ["Glass", "stone"])
        clear = replace(house, material_colours={"Glass": (0.8, 0.9, 1.0, 0.3), "stone": (1, 1, 1, 1)})
        found = [
            union_all([Polygon(r[0]) for r in shadow_areas_of(h, parse_view("elevation:south"),
                                                             CONVENTION, WINDOW).cast]).area
            for h in (house, clear)
        ]  # fmt: skip
        self.assertAlmostEqual(found[0], found[1], delta=0.02 * found[0])

    @settings(max_examples=8, deadline=None)
    @given(st.floats(0, 359), st.integers(-10, 10))
    def test_a_turned_window_shows_the_same_shadow(self, turn, by):
        meshes = [GROUND, box((-500, -500, 0), (500, 500, 900))]
        straight, _ = areas(meshes, "roof")
        window = replace(WINDOW, turn=turn, centre=(by * 30.0, 0.0))
        turned, _ = areas(meshes, "roof", window=window)
        seen = rectangle(-3000, -3000, 3000, 3000)
        difference = straight.intersection(seen).symmetric_difference(turned.intersection(seen))
        self.assertLess(difference.area, OFF * straight.length * math.sqrt(2))


class KeyTests(TestCase):
    def test_how_areas_are_filled_changes_neither_picture_nor_areas_and_the_light_both(self):
        view = parse_view("roof")
        filled = replace(CONVENTION, areas=AreaStyle("cast", "#112233", 80))
        evening = replace(CONVENTION, light=Light("sun", 6, 21, 20.0))
        soft = replace(CONVENTION, light=replace(CONVENTION.light, soft=True))
        for key in (picture_key, areas_key):
            self.assertEqual(key("m", view, CONVENTION, WINDOW), key("m", view, filled, WINDOW))
            self.assertNotEqual(key("m", view, CONVENTION, WINDOW), key("m", view, evening, WINDOW))
        self.assertEqual(areas_key("m", view, CONVENTION, WINDOW), areas_key("m", view, soft, WINDOW))
