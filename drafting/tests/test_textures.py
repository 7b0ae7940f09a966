"""Textures: read from each format, laid where the file says or across and up, and seen from near and far."""

import io
import math
import tempfile
import zipfile
from dataclasses import replace
from pathlib import Path
from unittest import TestCase, mock

import ifcopenshell
import numpy as np
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image
from trimesh.visual.material import PBRMaterial

from drafting.building import textures
from drafting.building.reading import read_building
from drafting.building.store import load_building, save_building
from drafting.building.textures import Texture, opened_texture, texture_of, together_small
from drafting.shading.appearance import Appearance
from drafting.shading.colours import Palette
from drafting.shading.picture import picture_of
from drafting.shading.window import Window
from drafting.tests.ifc_files import write_ifc
from drafting.tests.scenes import box, building
from drafting.tests.test_shading import middles
from drafting.views.notation import parse_view

#: Upper left red, upper right green; lower left blue, lower right white.
FOUR = np.array([[[255, 0, 0, 255], [0, 255, 0, 255]], [[0, 0, 255, 255], [255, 255, 255, 255]]], np.uint8)
LARGE = FOUR.repeat(32, axis=0).repeat(32, axis=1)
RED, GREEN, BLUE, WHITE = (x[:3].astype(int) for x in FOUR.reshape(-1, 4))
#: Neither shadow nor sky: what is turned to the viewer has its own colour, but for how the light falls on it.
PLAIN = Appearance("shaded", shadows=0.0, sky=0.0)
#: 25.4 pixels an inch: one for each mm of paper, for 100 mm of the building.
MM, RATIO = 25.4, 0.01
OBJ = (
    "mtllib house.mtl\nusemtl Four\nv 0 0 0\nv 10 0 0\nv 10 0 6\nv 0 0 6\n"
    "vt 0 0\nvt 1 0\nvt 1 1\nvt 0 1\nf 1/1 2/2 3/3\nf 1/1 3/3 4/4\n"
)


def png(pixels):
    stream = io.BytesIO()
    Image.fromarray(pixels).save(stream, "PNG")
    return stream.getvalue()


def seen(house, view="elevation:south", window=None, appearance=PLAIN, palette=None):
    """What colour each pixel has at its brightest: how light it is does not count."""
    window = window or Window(100.0, 60.0, RATIO, (5000.0, 3000.0))
    given = {"palette": palette} if palette else {}
    pixels = picture_of(house, parse_view(view), appearance, window, MM, **given).pixels[:, :, :3]
    return np.rint(pixels / np.maximum(pixels.max(axis=2, keepdims=True), 1) * 255).astype(int)


class Case(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def assert_four(self, pixels):
        """A wall of 10 by 6 m that has the four colours in its quarters."""
        for (row, column), colour in {
            (15, 25): RED,
            (15, 75): GREEN,
            (45, 25): BLUE,
            (45, 75): WHITE,
        }.items():
            np.testing.assert_allclose(pixels[row, column], colour, atol=3)

    def zipped(self, **files):
        path = self.folder / "house.zip"
        with zipfile.ZipFile(path, "w") as archive:
            for name, data in files.items():
                archive.writestr(name.replace("__", "/").replace("_", "."), data)
        return path


class MeshTextureTests(Case):
    def test_a_glb_file_has_its_textures_where_it_lays_them(self):
        corners = np.array([[0, 0, 0], [10, 0, 0], [10, 6, 0], [0, 6, 0]], float)
        wall = trimesh.Trimesh(corners, [[0, 1, 2], [0, 2, 3]], process=False)
        material = PBRMaterial(name="Four", baseColorTexture=Image.fromarray(LARGE))
        uv = np.array([[0, 0], [1, 0], [1, 1], [0, 1]], float)
        wall.visual = trimesh.visual.TextureVisuals(uv=uv, material=material)
        file = self.folder / "wall.glb"
        file.write_bytes(trimesh.Scene(wall).export(file_type="glb"))
        house = read_building(file, up="y")
        self.assert_four(seen(house))
        kept = self.folder / "kept.npz"
        save_building(house, kept)
        self.assert_four(seen(load_building(kept)))

    def test_the_opacity_of_a_glb_texture_counts_where_its_material_says_so(self):
        clear = LARGE.copy()
        clear[:, :, 3] = 51
        for mode, opacity in ((None, 1.0), ("OPAQUE", 1.0), ("BLEND", 0.2)):
            material = PBRMaterial(name="Four", baseColorTexture=Image.fromarray(clear), alphaMode=mode)
            block = trimesh.creation.box((4.0, 3.0, 3.0))
            uv = np.zeros((len(block.vertices), 2))
            block.visual = trimesh.visual.TextureVisuals(uv=uv, material=material)
            file = self.folder / "block.glb"
            file.write_bytes(trimesh.Scene(block).export(file_type="glb"))
            self.assertAlmostEqual(read_building(file).material_colours["Four"][3], opacity, places=2)

    def test_an_obj_file_finds_its_materials_and_textures_beside_it_wherever_their_paths_were(self):
        materials = "newmtl Four\nKd 1 1 1\nmap_Kd C:\\work\\textures\\Four.PNG\n"
        path = self.zipped(house_obj=OBJ, house_mtl=materials, textures__four_png=png(LARGE))
        house = read_building(path, unit="m", up="z")
        self.assert_four(seen(house))
        self.assertFalse([w for w in house.warnings if "Four" in w])

    def test_what_did_not_come_is_named_and_there_is_a_drawing(self):
        materials = "newmtl Four\nKd 0.2 0.4 0.6\nmap_Kd four.png\n"
        house = read_building(self.zipped(house_obj=OBJ, house_mtl=materials), unit="m", up="z")
        self.assertIn("“four.png” is named in the file", " ".join(house.warnings))
        self.assertEqual(house.textures, {})
        np.testing.assert_allclose(house.material_colours["Four"][:3], (0.2, 0.4, 0.6), atol=0.01)
        alone = read_building(self.zipped(house_obj=OBJ), unit="m", up="z")
        self.assertIn("“house.mtl” is named in the file", " ".join(alone.warnings))

    def test_nothing_outside_the_files_that_came_is_read(self):
        secret = self.folder / "secret.mtl"
        secret.write_text("newmtl Four\nKd 1 0 0\n")
        for named in (str(secret), "../secret.mtl", "..\\secret.mtl"):
            path = self.zipped(house_obj=OBJ.replace("house.mtl", named))
            self.assertNotIn("Four", read_building(path, unit="m", up="z").material_colours)

    def test_a_texture_that_is_too_large_or_damaged_is_said_and_its_material_has_a_plain_colour(self):
        materials = "newmtl Four\nKd 0.2 0.4 0.6\nmap_Kd four.png\n"
        for data, reason in ((png(LARGE)[:-60], "damaged"), (png(LARGE), "too large (64 x 64 pixels)")):
            path = self.zipped(house_obj=OBJ, house_mtl=materials, four_png=data)
            with mock.patch.object(textures, "MAX_UNPACKED", 4095 if "large" in reason else 10**6):
                house = read_building(path, unit="m", up="z")
            self.assertIn(f"The texture of “Four” is {reason}.", " ".join(house.warnings))
            np.testing.assert_allclose(house.material_colours["Four"][:3], (0.2, 0.4, 0.6), atol=0.01)


class IfcTextureTests(Case):
    def textured(self, make, schema="IFC4", unit="metre"):
        """The wall of `write_ifc`, in a style with a texture that `make` makes in the file."""
        path = write_ifc(self.folder / "wall.ifc", schema, unit)
        file = ifcopenshell.open(str(path))
        texture = make(file)
        shading = file.createIfcSurfaceStyleShading(file.createIfcColourRgb(None, 0.5, 0.5, 0.5))
        parts = [shading, file.createIfcSurfaceStyleWithTextures([texture])]
        style = file.createIfcSurfaceStyle("Tiles", "BOTH", parts)
        if schema == "IFC2X3":
            style = file.createIfcPresentationStyleAssignment([style])
        for item in file.by_type("IfcExtrudedAreaSolid"):
            file.createIfcStyledItem(item, [style], None)
        file.write(str(path))
        return path

    @staticmethod
    def scaled(file, across, up):
        zero = file.createIfcCartesianPoint((0.0, 0.0))
        return file.createIfcCartesianTransformationOperator2DnonUniform(None, None, zero, across, up)

    def pixels(self, file):
        """The four colours as the standard has them: the lowest row first."""
        rows = FOUR.repeat(4, axis=0).repeat(4, axis=1)[::-1]
        bits = ["".join(f"{part:08b}" for part in pixel[:3]) for pixel in rows.reshape(-1, 4).tolist()]
        return file.createIfcPixelTexture(
            True, True, None, self.scaled(file, 1 / 4, 1 / 2), None, 8, 8, 3, bits
        )

    def blob(self, file):
        bits = "".join(f"{byte:08b}" for byte in png(LARGE))
        return file.createIfcBlobTexture(True, True, None, self.scaled(file, 1 / 4, 1 / 2), None, "PNG", bits)

    def named(self, file):
        transform = self.scaled(file, 1 / 4, 1 / 2)
        return file.createIfcImageTexture(True, True, None, transform, None, "file:///C:/tiles/four.png")

    def assert_laid(self, path):
        house = read_building(path)
        (name,) = house.textures
        self.assertEqual(house.textures[name].size, (4000.0, 2000.0))
        # Laid from zero: a repeat begins anew every 4 m across and every 2 m up.
        low, high = house.bounds
        u, v = float(low[0] + high[0]) / 2, float(low[2] + high[2]) / 2
        window = Window(44.0, 20.0, RATIO, (u, v))
        places = middles(window, 44, 20)
        right, up = places[:, :, 0] / 4000 % 1, places[:, :, 1] / 2000 % 1
        wanted = FOUR[(up < 0.5).astype(int), (right >= 0.5).astype(int), :3]
        sure = (np.abs(right % 0.5 - 0.25) < 0.15) & (np.abs(up % 0.5 - 0.25) < 0.15)
        self.assertGreater(sure.sum(), 100)
        np.testing.assert_allclose(seen(house, window=window)[sure], wanted[sure], atol=90)

    def test_pixels_and_packed_pictures_are_laid_across_and_up_in_their_size(self):
        for make in (self.pixels, self.blob):
            self.assert_laid(self.textured(make))

    def test_a_size_is_in_metres_whatever_the_unit_of_the_file(self):
        self.assert_laid(self.textured(self.blob, unit="foot"))

    def test_a_picture_beside_the_file_is_found_in_a_zip_and_missed_with_a_word_without_one(self):
        alone = self.textured(self.named)
        house = read_building(alone)
        self.assertIn("is missing. The material has a plain colour.", " ".join(house.warnings))
        with zipfile.ZipFile(self.folder / "both.zip", "w") as archive:
            archive.write(alone, "wall.ifc")
            archive.writestr("tiles/four.png", png(LARGE))
        self.assert_laid(self.folder / "both.zip")

    def test_pixels_of_another_number_than_is_said_are_damaged(self):
        for width, height in ((3, 2), (-2, -2), (0, 0)):

            def make(file, size=(width, height)):
                return file.createIfcPixelTexture(True, True, None, None, None, *size, 3, ["0" * 24] * 4)

            self.assertIn("another number of pixels", " ".join(read_building(self.textured(make)).warnings))

    def test_a_map_of_a_triangulated_face_set_is_followed(self):
        path = self.textured(self.blob)
        file = ifcopenshell.open(str(path))
        shape = next(
            r for r in file.by_type("IfcShapeRepresentation") if r.Items[0].is_a("IfcExtrudedAreaSolid")
        )
        points = [(0.0, 0.0, 0.0), (10.0, 0.0, 0.0), (10.0, 0.0, 6.0), (0.0, 0.0, 6.0)]
        faces = file.createIfcTriangulatedFaceSet(
            file.createIfcCartesianPointList3D(points), None, False, [(1, 2, 3), (1, 3, 4)], None
        )
        style = file.by_type("IfcStyledItem")[0].Styles
        file.createIfcStyledItem(faces, style, None)
        corners = file.createIfcTextureVertexList([(0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0)])
        texture = file.by_type("IfcBlobTexture")
        file.createIfcIndexedTriangleTextureMap(texture, faces, corners, None)
        shape.Items, shape.RepresentationType = [faces], "Tessellation"
        file.write(str(path))
        house = read_building(path)
        self.assertTrue(np.isfinite(house.texture_places).all())
        low, high = house.bounds
        middle = (float(low[0] + high[0]) / 2, float(low[2] + high[2]) / 2)
        self.assert_four(seen(house, window=Window(100.0, 60.0, RATIO, middle)))


class TextureColourTests(Case):
    def wall(self, pixels=FOUR, size=(400.0, 400.0)):
        house = building([box((0, 0, 0), (10_000, 300, 6000))])
        texture = Texture(pixels, size)
        return replace(house, textures={"stone": texture}, material_colours={"stone": texture.mean})

    def test_from_afar_a_texture_is_its_mean_without_noise(self):
        fine = np.random.default_rng(1).integers(0, 255, (64, 64, 4)).astype(np.uint8)
        fine[:, :, 3] = 255
        pixels = picture_of(
            self.wall(fine, (90.0, 90.0)),
            parse_view("elevation:south"),
            PLAIN,
            Window(90.0, 50.0, RATIO, (5000.0, 3000.0)),
            MM,
        ).pixels[:, :, :3]
        self.assertLess(pixels.reshape(-1, 3).std(axis=0).max(), 3.0)

    def test_flat_colours_are_flat_and_a_chosen_colour_goes_before_the_texture(self):
        wall, window = self.wall(size=(4000.0, 4000.0)), Window(90.0, 50.0, RATIO, (5000.0, 3000.0))
        ways = (
            {"appearance": replace(PLAIN, show="colours")},
            {"appearance": replace(PLAIN, textures=False)},
            {"palette": Palette({"stone": "#804020"})},
            {"palette": Palette({}, {wall.elements[0].layer: "#804020"})},
        )
        for way in ways:
            self.assertEqual(len(np.unique(seen(wall, window=window, **way).reshape(-1, 3), axis=0)), 1)
        self.assertGreater(len(np.unique(seen(wall, window=window).reshape(-1, 3), axis=0)), 3)

    def test_what_is_cut_stays_paper(self):
        wall = self.wall(size=(4000.0, 4000.0))
        plan = picture_of(wall, parse_view("plan:0"), PLAIN, Window(80.0, 2.0, RATIO, (5000.0, 150.0)), MM)
        self.assertTrue((plan.pixels == 255).all())

    @settings(max_examples=15, deadline=None)
    @given(st.floats(0.0, 360.0), st.floats(20.0, 70.0))
    def test_on_a_face_turned_and_leaned_anyhow_it_has_its_true_size(self, turn, lean):
        """Looked at from straight above, a sloping face shows stripes as far apart as they are, across it."""
        t, s = math.radians(turn), math.radians(lean)
        across = np.array([math.cos(t), math.sin(t), 0.0])
        up = np.array([-math.sin(t) * math.cos(s), math.cos(t) * math.cos(s), math.sin(s)])
        corners = np.array([a * across + b * up for a, b in ((0, 0), (8000, 0), (8000, 8000), (0, 8000))])
        stripes = np.repeat(np.array([[[0, 0, 0, 255], [255, 255, 255, 255]]], np.uint8), 16, axis=1)
        house = building([(corners, np.array([[0, 1, 2], [0, 2, 3]], np.int32))])
        house = replace(house, textures={"stone": Texture(stripes, (2000.0, 2000.0))})
        places = np.array([a * across + 4000 * up for a in (500, 1500, 2500, 3500, 4500, 5500)])[:, :2]
        found = []
        for u, v in places.tolist():
            window = Window(1.0, 1.0, RATIO, (u, v))
            found.append(int(picture_of(house, parse_view("roof"), PLAIN, window, MM).pixels[0, 0, 0]))
        dark = [value < 60 for value in found]
        self.assertEqual(dark, [not dark[1], dark[1]] * 3)

    def test_textures_are_made_smaller_until_they_are_few_enough_together(self):
        many = {str(k): Texture(np.zeros((100, 50 * k, 4), np.uint8)) for k in (1, 2, 3)}
        with mock.patch.object(textures, "MAX_TEXELS", 14_000):
            found = together_small(many)
        self.assertLessEqual(sum(t.pixels.shape[0] * t.pixels.shape[1] for t in found.values()), 14_000)
        self.assertEqual(found["1"].pixels.shape, (100, 50, 4))

    def test_a_large_jpeg_picture_is_unpacked_no_larger_than_it_is_kept(self):
        stream = io.BytesIO()
        Image.new("RGB", (9000, 3000), (200, 100, 50)).save(stream, "JPEG")
        with mock.patch.object(textures, "MAX_UNPACKED", 3_000_000):
            found = opened_texture(stream.getvalue())
        self.assertEqual(max(found.pixels.shape), textures.MAX_SIDE)
        np.testing.assert_allclose(found.mean[:3], np.array([200, 100, 50]) / 255, atol=0.02)
        with self.assertRaisesRegex(ValueError, "too large"):
            texture_of(Image.new("1", (20_000, 20_000)))
