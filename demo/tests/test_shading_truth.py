"""What a picture of the demo building shows is what rays meet, and what it has in shadow is in shadow; asked
of a ray caster that knows nothing of the engine."""

import tempfile
from dataclasses import replace
from pathlib import Path
from unittest import TestCase

import numpy as np

from demo.building import write_observatory
from demo.tests.oracle import Oracle
from drafting.building.reading import read_building
from drafting.shading.appearance import Appearance, Light
from drafting.shading.light import way_to_light
from drafting.shading.picture import picture_of
from drafting.shading.tones import FLAT_SHADOW
from drafting.shading.window import Window
from drafting.tests.test_shading import middles
from drafting.views.notation import parse_view

#: So many pixels are looked at. Those where nine rays agree, away from edges, are compared, and this share of
#: them is to be as the rays say.
SAMPLES, AGREEMENT = 15_000, 0.995
PER_INCH = 150.0
WINDOW = Window(180.0, 120.0, 0.01, (5000.0, 4000.0))
#: Of a perspective, what is within its field of view.
FIELD = Window(180.0, 120.0, 0.01, (0.0, 0.0))
VIEWS = (
    "elevation:south", "elevation:west", "roof", "axonometric:se",
    "perspective:22000,-18000,5000,4000,3000,3000@50",
)  # fmt: skip
#: Further than anything of the building, mm; and how far before a face it is asked whether light reaches it.
AWAY, BEFORE = 1e5, 1.0


class ShadingTruthTests(TestCase):
    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "observatory.ifc"
            write_observatory(str(path))
            cls.building = read_building(path)
        cls.rays = Oracle(cls.building).rays
        corners = cls.building.vertices[cls.building.triangles]
        across = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
        cls.normals = across / np.maximum(np.linalg.norm(across, axis=1), 1e-12)[:, None]

    def met(self, camera, places):
        """The triangle that is met first at each place of u, v (-1 for none), where, and the ray's way."""
        on_plane = camera.origin + places @ np.stack([camera.right, camera.up])
        if camera.distance is None:
            start = on_plane + AWAY * camera.toward
            ways = np.broadcast_to(-camera.toward, start.shape).copy()
        else:
            eye = camera.origin + camera.distance * camera.toward
            ways = on_plane - eye
            ways /= np.linalg.norm(ways, axis=1)[:, None]
            start = np.broadcast_to(eye, ways.shape).copy()
        at, ray, hit = self.rays.intersects_location(start, ways, multiple_hits=False)
        where = np.full((len(places), 3), np.nan)
        where[ray] = at
        triangle = np.full(len(places), -1)
        triangle[ray] = hit
        return triangle, where, ways

    def compared(self, view, appearance, building, of_rays):
        """What `of_rays` says of pixels away from edges, where it says something, and what they show."""
        camera = view.camera(building)
        window = WINDOW if camera.distance is None else FIELD
        columns, rows = window.pixels(PER_INCH)
        pixels = picture_of(building, view, appearance, window, PER_INCH).pixels.reshape(-1, 4)
        some = np.random.default_rng(7).choice(columns * rows, SAMPLES, replace=False)
        row, column = np.divmod(some, columns)
        fine = middles(window, columns * 3, rows * 3)
        said = np.stack(
            [of_rays(camera, fine[row * 3 + y, column * 3 + x]) for y in range(3) for x in range(3)]
        )
        clear = (said == said[0]).all(axis=0) & (said[0] >= 0)
        self.assertGreater(clear.sum(), SAMPLES / 8)
        return said[0][clear], pixels[some[clear]]

    def test_the_element_that_is_seen_is_the_one_that_a_ray_meets_first(self):
        # Each element in a colour of its own.
        count = len(self.building.elements)
        names = tuple(f"m{k}" for k in range(count))
        coded = replace(
            self.building,
            materials=names,
            triangle_material=self.building.triangle_element,
            material_colours={
                name: ((k // 16 % 16) / 15, (k % 16) / 15, (k // 256) / 15, 1.0)
                for k, name in enumerate(names)
            },
        )
        plain = Appearance("colours", shadows=0.0, sky=0.0)

        def element(camera, places):
            triangle, _, _ = self.met(camera, places)
            return np.where(triangle >= 0, self.building.triangle_element[triangle], -1)

        for text in VIEWS:
            with self.subTest(text):
                wanted, seen = self.compared(parse_view(text), plain, coded, element)
                code = np.rint(seen[:, :3] / 17).astype(int)
                found = code[:, 2] * 256 + code[:, 0] * 16 + code[:, 1]
                self.assertGreater((found == wanted).mean(), AGREEMENT)

    def test_what_is_in_shadow_is_where_a_ray_to_the_light_is_stopped(self):
        white = replace(
            self.building, material_colours=dict.fromkeys(self.building.materials, (1.0, 1.0, 1.0, 1.0))
        )
        for text in VIEWS:
            light = Light() if "elevation" in text else Light("sun", hour=15.5)
            appearance = Appearance("colours", light=light, shadows=1.0, sky=0.0)
            with self.subTest(text):

                def lit(camera, places, light=light):
                    triangle, where, ways = self.met(camera, places)
                    there = np.flatnonzero(triangle >= 0)
                    normal = self.normals[triangle[there]]
                    normal = np.where((normal * ways[there]).sum(axis=1)[:, None] > 0, -normal, normal)
                    way = way_to_light(light, camera, self.building.true_north)
                    start = where[there] + BEFORE * normal
                    stopped = self.rays.intersects_any(start, np.broadcast_to(way, start.shape).copy())
                    found = np.full(len(places), -1)
                    found[there] = (normal @ way > 1e-4) & ~stopped
                    return found

                wanted, seen = self.compared(parse_view(text), appearance, white, lit)
                dark = round(255 * (1 - FLAT_SHADOW))
                self.assertEqual(set(np.unique(wanted)), {0, 1})
                self.assertGreater((seen[:, 0] == np.where(wanted, 255, dark)).mean(), AGREEMENT)
