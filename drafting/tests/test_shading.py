"""Pictures: what is seen, in which light, and where exactly its pixels lie."""

import io
import math
import tempfile
from dataclasses import replace
from pathlib import Path
from unittest import TestCase

import numpy as np
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image
from trimesh.visual.material import PBRMaterial

from drafting.building.readers.mesh import read_mesh_file
from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.schema import parse
from drafting.shading.appearance import Appearance, Light
from drafting.shading.backdrop import MISSING
from drafting.shading.colours import OTHER, Palette, colours_of, named_colour
from drafting.shading.light import sky_ways, sun_place, way_to_light
from drafting.shading.picture import picture_of
from drafting.shading.shader import NIGHT
from drafting.shading.tones import FLAT_SHADOW
from drafting.shading.window import Window, picture_key
from drafting.sheets.scale import Scale
from drafting.sheets.viewport import Viewport
from drafting.tests.scenes import box, building, drawn
from drafting.views.notation import parse_view

#: At 25.4 pixels an inch a pixel is a millimetre of paper, and at 1:100 a hundred of the building.
MM, RATIO = 25.4, 0.01
WHITE = (1.0, 1.0, 1.0, 1.0)
#: Only what is in shadow differs in colour.
SHADOWS = Appearance("colours", shadows=1.0, sky=0.0)


def white(house, **colours):
    """A building whose materials are white, but for some."""
    return replace(house, material_colours=dict.fromkeys(house.materials, WHITE) | colours)


def middles(window, columns, rows):
    """(rows, columns, 2) u and v of the middles of pixels."""
    u, v, ux, vx, uy, vy = window.frame(columns, rows)
    y, x = np.mgrid[:rows, :columns]
    return np.stack([u + x * ux + y * uy, v + x * vx + y * vy], axis=2)


def pictured(house, view, appearance=SHADOWS, window=None, per_inch=MM):
    window = window or Window(100.0, 100.0, RATIO, (0.0, 0.0))
    return picture_of(house, parse_view(view), appearance, window, per_inch)


class LightTests(TestCase):
    def test_at_an_equinox_the_sun_is_as_high_at_noon_as_the_pole_is_away_and_due_south(self):
        for latitude in (0.5, 35.0, 52.0, 66.0):
            altitude, bearing = sun_place(3, 21, 12, latitude)
            self.assertAlmostEqual(altitude, 90 - latitude, delta=0.5)
            self.assertAlmostEqual(bearing, 180, delta=0.5)

    def test_at_the_solstices_it_is_higher_and_lower_by_the_tilt_of_the_axis(self):
        self.assertAlmostEqual(sun_place(6, 21, 12, 50)[0], 90 - 50 + 23.44, delta=0.1)
        self.assertAlmostEqual(sun_place(12, 21, 12, 50)[0], 90 - 50 - 23.44, delta=0.1)

    def test_it_rises_in_the_east_at_six_at_an_equinox_and_stands_in_the_west_in_the_afternoon(self):
        altitude, bearing = sun_place(3, 21, 6, 45)
        self.assertAlmostEqual(altitude, 0, delta=0.6)
        self.assertAlmostEqual(bearing, 90, delta=0.6)
        self.assertGreater(sun_place(6, 21, 16, 45)[1], 180)

    def test_true_north_turns_the_sun_with_it(self):
        camera = parse_view("roof").camera(building([box((0, 0, 0), (1, 1, 1))]))
        noon = Light("sun", 3, 21, 12.0, 45.0)
        self.assertLess(way_to_light(noon, camera, None)[1], -0.6)
        # True north a quarter clockwise of the y axis: the south is along -x.
        self.assertLess(way_to_light(noon, camera, 90.0)[0], -0.6)

    def test_the_fixed_light_falls_along_the_diagonal_of_a_cube_from_the_upper_left(self):
        house = building([box((0, 0, 0), (1, 1, 1))])
        for side in ("south", "east", "north", "west"):
            camera = parse_view(f"elevation:{side}").camera(house)
            along = camera.axes @ way_to_light(Light(), camera, None)
            np.testing.assert_allclose(along, np.array([-1, 1, 1]) / math.sqrt(3), atol=1e-9)

    def test_the_drawing_title_says_when_the_sun_stood_so(self):
        noon = Light("sun", 6, 21, 12.25)
        window = Viewport("v", "", Box(0, 0, 50, 50), Scale.parse("1:100"), (0.0, 0.0))
        self.assertEqual(window.subtitle, "1:100")
        shaded = replace(window, appearance=Appearance("shaded", light=noon))
        self.assertEqual(shaded.subtitle, "1:100, sun of 21 June, 12:15")
        self.assertEqual(replace(shaded, appearance=Appearance("lines", light=noon)).subtitle, "1:100")

    def test_a_day_that_is_none_is_refused(self):
        with self.assertRaisesRegex(SheetError, "Month 2 has 29 days"):
            Light("sun", 2, 30)

    def test_ways_to_the_sky_are_spread_evenly(self):
        ways = sky_ways(200)
        np.testing.assert_allclose(np.linalg.norm(ways, axis=1), 1)
        # The mean of a half sphere: nothing to any side, half up.
        np.testing.assert_allclose(ways.mean(axis=0), [0, 0, 0.5], atol=0.01)


class ShadowTests(TestCase):
    def test_on_a_plan_a_shadow_is_as_long_as_what_casts_it_is_high(self):
        # A post of 1 m, 2 m high, on a slab about it; the light is from the lower left.
        house = white(
            building([box((-5000, -5000, -100), (5000, 5000, 0)), box((0, 0, 0), (1000, 1000, 2000))])
        )
        pixels = pictured(house, "roof").pixels[:, :, 0]
        dark = pixels < 200
        rows, columns = np.nonzero(dark)
        # Of u and v, from the middle of the picture: the shadow ends where the post's far corner throws it.
        self.assertAlmostEqual((columns.max() + 1 - 50) * 100, 3000, delta=101)
        self.assertAlmostEqual((50 - rows.min()) * 100, 3000, delta=101)
        self.assertTrue(dark[50 - 25, 50 + 25])
        self.assertFalse(dark[50 - 35, 50 + 35])
        self.assertFalse(dark[50 + 5, 50 + 5])
        self.assertEqual(set(np.unique(pixels[dark & (pixels < 140)])), {round(255 * (1 - FLAT_SHADOW))})

    def test_on_an_elevation_what_stands_out_throws_a_shadow_as_deep(self):
        # A wall with a canopy of 800 mm, 2 m up.
        wall, canopy = box((-4000, 0, 0), (4000, 300, 4000)), box((-4000, -800, 2000), (4000, 0, 2100))
        house = white(building([wall, canopy]))
        window = Window(60.0, 60.0, RATIO, (0.0, 2000.0))
        column = pictured(house, "elevation:south", window=window).pixels[:, 30, 0]
        below = column[30:]
        self.assertTrue((below[1:7] < 200).all())
        self.assertTrue((below[9:19] > 200).all())

    def test_softer_shadows_pass_slowly_from_dark_to_light(self):
        slab, post = box((-5000, -5000, -100), (5000, 5000, 0)), box((-200, -200, 0), (200, 200, 4000))
        house = white(building([slab, post]))
        tones = {}
        for soft in (False, True):
            appearance = replace(SHADOWS, light=Light(soft=soft))
            tones[soft] = len(np.unique(pictured(house, "roof", appearance).pixels[:, :, 0]))
        self.assertGreater(tones[True], 2 * tones[False])

    def test_what_is_hidden_in_the_view_throws_none_and_glass_throws_none(self):
        slab, pane = box((-5000, -5000, -100), (5000, 5000, 0)), box((0, 0, 0), (1000, 100, 2000))
        clear = white(building([slab, pane], ["stone", "glass"]), glass=(0.8, 0.9, 1.0, 0.3))
        pixels = pictured(clear, "roof").pixels
        self.assertTrue((pixels[20:45, 60:80, 0] == 255).all())
        view = parse_view("roof")
        hidden = replace(view, shown=replace(view.shown, without=("e1",)))
        opaque = white(building([slab, pane], ["stone", "glass"]))
        window = Window(100.0, 100.0, RATIO, (0.0, 0.0))
        self.assertTrue((picture_of(opaque, hidden, SHADOWS, window, MM).pixels[:, :, 0] == 255).all())

    def test_below_the_horizon_there_is_a_picture_and_a_sentence(self):
        house = white(building([box((-1000, -1000, 0), (1000, 1000, 1000))]))
        night = replace(SHADOWS, show="shaded", light=Light("sun", 12, 21, 1.0, 60.0))
        made = pictured(house, "roof", night)
        self.assertEqual(made.notes, (NIGHT,))
        self.assertGreater(made.pixels[50, 50, 0], 40)

    def test_a_ground_receives_the_shadow_of_a_building_without_terrain(self):
        house = white(building([box((0, 0, 0), (1000, 1000, 2000))]))
        self.assertEqual(pictured(house, "roof").pixels[25, 75, 3], 0)
        grounded = pictured(house, "roof", replace(SHADOWS, ground=0.0)).pixels
        self.assertEqual(grounded[25, 75, 3], 255)
        self.assertLess(grounded[25, 75, 0], grounded[75, 25, 0])

    def test_recesses_see_less_of_the_sky(self):
        # Two walls with a lane of 600 mm between: its floor is darker than open ground.
        slab = box((-5000, -5000, -100), (5000, 5000, 0))
        walls = [box((-2000, -4000, 0), (-300, 4000, 3000)), box((300, -4000, 0), (2000, 4000, 3000))]
        house = white(building([slab, *walls]))
        sky = Appearance("colours", shadows=0.0, sky=1.0)
        tones = pictured(house, "roof", sky).pixels[50, :, 0]
        self.assertLess(tones[50], 110)
        self.assertGreater(tones[2], 180)
        self.assertGreater(tones[40], 250)


class PlaceTests(TestCase):
    def test_lines_lie_on_the_borders_of_their_pixels_within_half_a_pixel(self):
        corner, size = (-1234.0, -987.0), (2345.0, 1678.0)
        meshes = [box((*corner, 0), (corner[0] + size[0], corner[1] + size[1], 500))]
        house = white(building(meshes))
        low_u, low_v, high_u, high_v = drawn(meshes, "roof").extents
        for per_inch in (MM, 96.0, 300.0):
            opacity = pictured(house, "roof", per_inch=per_inch).pixels[:, :, 3] / 255
            pixel = 10_000 / opacity.shape[1]
            middle = opacity.shape[0] // 2
            self.assertAlmostEqual(opacity[middle].sum() * pixel, high_u - low_u, delta=pixel / 2)
            self.assertAlmostEqual(opacity[:, middle].sum() * pixel, high_v - low_v, delta=pixel / 2)
            covered = opacity[middle]
            first = np.argmax(covered > 0)
            self.assertAlmostEqual(-5000 + (first + 1 - covered[first]) * pixel, low_u, delta=pixel / 2)

    @settings(max_examples=15, deadline=None)
    @given(st.floats(-180, 180), st.floats(-2000, 2000), st.floats(-2000, 2000))
    def test_a_turned_window_shows_what_the_turned_drawing_shows(self, turn, u, v):
        window = Window(40.0, 30.0, RATIO, (u, v), turn)
        places = middles(window, 4, 3)
        angle = math.radians(turn)
        # As a viewport lays a point of its view on paper.
        paper = (
            (places - (u, v))
            * RATIO
            @ np.array([[math.cos(angle), math.sin(angle)], [-math.sin(angle), math.cos(angle)]])
        )
        np.testing.assert_allclose(paper[0, 0], [-15, 10], atol=1e-6)
        np.testing.assert_allclose(paper[2, 3], [15, -10], atol=1e-6)

    def test_what_is_not_of_the_building_is_clear_or_background(self):
        house = white(building([box((-1000, -1000, 0), (1000, 1000, 1000))]))
        plain = pictured(house, "roof").pixels
        self.assertEqual((plain[2, 2, 3], plain[50, 50, 3]), (0, 255))
        blue = replace(SHADOWS, background="plain", background_colour="#2040ff")
        self.assertEqual(pictured(house, "roof", blue).pixels[2, 2].tolist(), [0x20, 0x40, 0xFF, 255])
        sky = pictured(house, "roof", replace(blue, background="sky")).pixels
        self.assertLess(sky[2, 2, 0], sky[97, 2, 0])

    def test_a_picture_behind_fills_the_window_and_its_middle_is_seen(self):
        """Four stripes, twice as wide as high, behind a square window: the two in the middle are seen."""
        stripes = np.repeat(
            np.array([[[255, 0, 0], [0, 255, 0], [0, 0, 255], [9, 9, 9]]], np.uint8), 20, axis=1
        )
        file = io.BytesIO()
        Image.fromarray(stripes.repeat(40, axis=0)).save(file, "PNG")
        block = building([box((-500, -500, 0), (500, 500, 500))])
        behind, window = replace(SHADOWS, background="picture"), Window(100.0, 100.0, RATIO, (0.0, 0.0))
        given = block, parse_view("roof"), behind, window, MM
        made = picture_of(*given, backdrop=file.getvalue())
        self.assertEqual(
            made.pixels[20, [5, 45, 55, 95]].tolist(), [[0, 255, 0, 255]] * 2 + [[0, 0, 255, 255]] * 2
        )
        self.assertNotEqual(made.pixels[50, 50].tolist(), made.pixels[20, 50].tolist())
        missing = picture_of(*given)
        self.assertEqual((missing.pixels[20, 20, 3], missing.notes), (0, (MISSING,)))

    def test_a_perspective_is_pictured_as_it_is_drawn(self):
        meshes = [box((-1000, -1000, 0), (1000, 1000, 2000))]
        view = "perspective:9000,-7000,4000,0,0,1000@50"
        low_u, low_v, high_u, high_v = drawn(meshes, view).extents
        rows, columns = np.nonzero(pictured(white(building(meshes)), view).pixels[:, :, 3] > 127)
        self.assertAlmostEqual((columns.min() - 50) * 100, low_u, delta=101)
        self.assertAlmostEqual((columns.max() + 1 - 50) * 100, high_u, delta=101)
        self.assertAlmostEqual((50 - rows.min()) * 100, high_v, delta=101)
        self.assertAlmostEqual((49 - rows.max()) * 100, low_v, delta=101)

    def test_an_eye_within_a_wall_is_said_and_there_is_a_picture(self):
        house = white(
            building([box((-1000, -1000, 0), (1000, 1000, 2000)), box((3000, 0, 0), (4000, 500, 900))])
        )
        made = pictured(house, "perspective:0,0,1000,5000,100,500@60")
        self.assertIn("The eye is inside “wall 0”", made.notes[0])
        self.assertTrue((made.pixels[:, :, 3] > 0).any())

    def test_what_a_cut_goes_through_is_white_and_what_is_above_it_is_gone(self):
        # A room of 4 m with walls of 300 mm, and a roof over it.
        walls = [
            box((-2300, -2300, 0), (2300, -2000, 2500)), box((-2300, 2000, 0), (2300, 2300, 2500)),
            box((-2300, -2000, 0), (-2000, 2000, 2500)), box((2000, -2000, 0), (2300, 2000, 2500)),
        ]  # fmt: skip
        parts = [
            *walls,
            box((-3000, -3000, -200), (3000, 3000, 0)),
            box((-3000, -3000, 2500), (3000, 3000, 2700)),
        ]
        house = replace(building(parts), material_colours={"stone": (0.5, 0.5, 0.5, 1.0)})
        plain = Appearance("colours", shadows=0.0, sky=0.0)
        pixels = pictured(house, "plan:0", plain).pixels[:, :, 0]
        self.assertEqual((pixels[50, 50 - 22], pixels[50, 50]), (255, 128))

    def test_too_many_pixels_are_refused_with_the_remedy(self):
        with self.assertRaisesRegex(SheetError, "Choose fewer pixels an inch"):
            Window(3000.0, 2000.0, RATIO, (0.0, 0.0)).pixels(600)

    def test_for_the_screen_a_large_window_is_coarser(self):
        small, large = (Window(side, side, RATIO, (0.0, 0.0)) for side in (100.0, 1000.0))
        self.assertGreater(small.coarse, 2 * large.coarse)
        self.assertLess(math.prod(large.pixels(large.coarse)), 1_600_000)


class ColourTests(TestCase):
    def test_a_name_gives_a_colour_where_the_file_gives_none(self):
        self.assertLess(named_colour("Facing brickwork")[2], 0.5)
        self.assertEqual(named_colour("XJ-4"), OTHER)
        house = building([box((-1000, -1000, 0), (1000, 1000, 1000))], ["Larch boards"])
        seen = pictured(house, "roof", Appearance("colours", shadows=0.0, sky=0.0)).pixels[50, 50, :3]
        np.testing.assert_allclose(seen / 255, named_colour("Larch boards")[:3], atol=0.003)

    def test_a_palette_goes_before_the_file_and_leaves_glass_as_clear_as_it_is(self):
        panes = building([box((-1000, -1000, 0), (1000, 1000, 1000))], ["glass"])
        own = replace(panes, material_colours={"glass": (0.0, 0.0, 1.0, 0.25)})
        np.testing.assert_allclose(colours_of(own, Palette({"glass": "#ff0000"})), [[1.0, 0.0, 0.0, 0.25]])
        np.testing.assert_allclose(colours_of(own, Palette({"brick": "#ff0000"})), [[0.0, 0.0, 1.0, 0.25]])

    def test_a_layer_has_a_colour_before_its_materials_and_its_glass_stays_clear(self):
        posts = [box((x, -1000, 0), (x + 2000, 1000, 2000)) for x in (-3000, 1000)]
        house = building([*posts, box((-500, -500, 0), (500, 500, 500))], ["brick", "brick", "glass"])
        first, second, pane = house.elements
        house = replace(house, elements=(replace(first, layer="Old"), second, replace(pane, layer="Old")))
        appearance = Appearance("colours", shadows=0.0, sky=0.0)
        window = Window(100.0, 100.0, RATIO, (0.0, 0.0))
        palette = Palette({"brick": "#00ff00"}, {"Old": "#ff0000", "None": "#111111"})
        roof, plan = (
            picture_of(house, parse_view(view), appearance, window, MM, palette=palette).pixels
            for view in ("roof", "plan:0")
        )
        self.assertEqual(roof[50, 30].tolist(), [255, 0, 0, 255])
        self.assertEqual(roof[50, 70].tolist(), [0, 255, 0, 255])
        self.assertLess(roof[50, 50, 3], 255)
        # What is cut is white as ever.
        self.assertEqual(plan[50, 30].tolist(), [255, 255, 255, 255])

    def test_a_mesh_file_has_the_colours_of_its_materials_and_the_means_of_their_textures(self):
        chequered = Image.fromarray(np.array([[[255, 0, 0], [0, 0, 255]]] * 2, np.uint8))
        materials = {
            "Clay": PBRMaterial(name="Clay", baseColorFactor=[200, 100, 50, 255]),
            "Tiles": PBRMaterial(name="Tiles", baseColorTexture=chequered),
        }
        scene = trimesh.Scene()
        for k, (name, material) in enumerate(materials.items()):
            block = trimesh.creation.box((4.0, 3.0, 3.0))
            block.apply_translation((6.0 * k, 0.0, 0.0))
            uv = np.zeros((len(block.vertices), 2))
            block.visual = trimesh.visual.TextureVisuals(uv=uv, material=material)
            scene.add_geometry(block, node_name=name)
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "blocks.glb"
            file.write_bytes(scene.export(file_type="glb"))
            found = read_mesh_file(file).material_colours
        np.testing.assert_allclose(found["Clay"], np.array([200, 100, 50, 255]) / 255, atol=0.01)
        np.testing.assert_allclose(found["Tiles"], [0.5, 0.0, 0.5, 1.0], atol=0.01)

    def test_what_is_far_is_paler_where_that_is_wanted(self):
        near, far = box((-3000, -3000, 0), (0, 3000, 3000)), box((0, -3000, 0), (3000, 3000, 100))
        house = replace(building([near, far]), material_colours={"stone": (0.2, 0.2, 0.2, 1.0)})
        faded = pictured(house, "roof", Appearance("colours", shadows=0.0, sky=0.0, fading=1.0)).pixels
        self.assertEqual(faded[50, 40, 0], 51)
        self.assertGreater(faded[50, 60, 0], 240)

    def test_through_glass_one_sees_what_is_behind_it(self):
        wall, pane = box((-2000, 0, 0), (2000, 300, 3000)), box((-2000, -500, 0), (0, -480, 3000))
        house = replace(
            building([wall, pane], ["red", "glass"]),
            material_colours={"red": (1.0, 0.0, 0.0, 1.0), "glass": (0.0, 0.0, 1.0, 0.25)},
        )
        plain = Appearance("colours", shadows=0.0, sky=0.0)
        window = Window(60.0, 60.0, RATIO, (0.0, 1500.0))
        pixels = pictured(house, "elevation:south", plain, window).pixels
        self.assertEqual(pixels[30, 40, :3].tolist(), [255, 0, 0])
        np.testing.assert_allclose(pixels[30, 20, :3], [191, 0, 64], atol=1)

    def test_the_key_of_a_picture_changes_with_all_that_it_depends_on(self):
        view, window = parse_view("roof"), Window(10.0, 10.0, RATIO, (0.0, 0.0))
        keys = {
            picture_key(*parts)
            for parts in (
                ("a", view, SHADOWS, window),
                ("b", view, SHADOWS, window),
                ("a", parse_view("plan:0"), SHADOWS, window),
                ("a", view, replace(SHADOWS, sky=0.1), window),
                ("a", view, replace(SHADOWS, light=Light(soft=True)), window),
                ("a", view, SHADOWS, replace(window, turn=1.0)),
            )
        }
        self.assertEqual(len(keys), 6)

    def test_an_appearance_that_is_none_is_refused(self):
        for wrong in ({"show": "oil"}, {"shadows": 1.5}, {"light": {"month": 13}}, {"ground": "low"}):
            with self.subTest(wrong), self.assertRaises(SheetError):
                parse(Appearance, wrong, "appearance", SheetError)
