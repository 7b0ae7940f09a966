"""Buildings from files of plain meshes."""

import json
import tempfile
from pathlib import Path
from unittest import TestCase

import numpy as np
import trimesh

from drafting.building.reading import read_building
from drafting.errors import BuildingFileError
from drafting.linework.engine import draw
from drafting.tests.scenes import box, lines_of
from drafting.views.notation import parse_view


def written_obj(objects, comment="", scale=1.0):
    """An OBJ file of named boxes, z up."""
    lines, offset = [f"# {comment}"], 1
    for name, (points, faces) in objects.items():
        lines += [f"o {name}"]
        lines += [f"v {x:.6f} {y:.6f} {z:.6f}" for x, y, z in points * scale]
        lines += [f"f {a} {b} {c}" for a, b, c in faces + offset]
        offset += len(points)
    return "\n".join(lines) + "\n"


HOUSE = {"wall": box((0, 0, 0), (6000, 300, 3000)), "step": box((1000, -400, 0), (2000, 0, 200))}


class MeshFileTests(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def write(self, name, text):
        path = self.folder / name
        path.write_bytes(text if isinstance(text, bytes) else text.encode())
        return path

    def glb(self, **more):
        scene = trimesh.Scene()
        for name, (points, faces) in HOUSE.items():
            # glTF is in metres with y up.
            upright = points[:, [0, 2, 1]] * [0.001, 0.001, -0.001]
            scene.add_geometry(
                trimesh.Trimesh(upright, faces, process=False), node_name=name, geom_name=name, **more
            )
        return scene.export(file_type="glb")

    def test_each_object_of_an_obj_file_is_an_element(self):
        house = read_building(self.write("house.obj", written_obj(HOUSE)), unit="mm", up="z")
        self.assertEqual([e.name for e in house.elements], ["step", "wall"])
        self.assertEqual(house.unit, "millimetre")
        np.testing.assert_allclose(house.bounds, [(0, -400, 0), (6000, 300, 3000)])
        self.assertTrue(house.topology.closed.all())
        linework = draw(house, parse_view("elevation:south"))
        np.testing.assert_allclose(lines_of(linework).bounds, (0, 0, 6000, 3000))

    def test_a_unit_is_guessed_with_a_warning_and_taken_without_one_when_it_is_given(self):
        for scale, unit in ((1.0, "millimetre"), (0.001, "metre"), (0.1, "centimetre")):
            path = self.write("house.obj", written_obj(HOUSE, scale=scale))
            guessed = read_building(path)
            self.assertEqual(guessed.unit, unit)
            np.testing.assert_allclose(guessed.bounds[1], (6000, 300, 3000), rtol=1e-6)
            self.assertTrue(any(f"{unit}s are assumed" in sentence for sentence in guessed.warnings))
        given = read_building(path, unit="ft", up="z")
        self.assertEqual((given.unit, given.warnings), ("foot", ()))
        np.testing.assert_allclose(given.bounds[1][0], 600 * 304.8, rtol=1e-6)

    def test_floors_tell_which_axis_points_up_and_storeys_the_unit(self):
        """Ten by eight, three floors of 9 feet: as metres its storeys would be 9 m high."""
        parts = {f"floor {k}": box((0, 0, 9 * k - 1), (33, 26, 9 * k)) for k in range(4)}
        parts |= {"west": box((0, 0, 0), (1, 26, 27)), "south": box((0, 0, 0), (33, 1, 27))}
        lying = {n: (p[:, [0, 2, 1]] * [1, 1, -1], f) for n, (p, f) in parts.items()}
        for name, shape in (("z", parts), ("y", lying)):
            with self.subTest(up=name):
                house = read_building(self.write("house.obj", written_obj(shape)))
                self.assertEqual(house.unit, "foot")
                np.testing.assert_allclose(np.ptp(house.bounds, axis=0) / 304.8, (33, 26, 28), rtol=1e-6)
                self.assertTrue(any("storeys of 2.74 m" in w for w in house.warnings))
                self.assertEqual(any("so y is taken to point up" in w for w in house.warnings), name == "y")

    def test_a_long_wall_stands(self):
        """Most of its faces lie across y, but no building is a tenth as high as it is long."""
        house = read_building(self.write("wall.obj", written_obj({"wall": HOUSE["wall"]})))
        self.assertEqual(np.ptp(house.bounds, axis=0)[2], 3000)

    def test_y_up_is_turned_upright(self):
        lying = {n: (p[:, [0, 2, 1]] * [1, 1, -1], f) for n, (p, f) in HOUSE.items()}
        house = read_building(self.write("house.obj", written_obj(lying)), unit="mm", up="y")
        np.testing.assert_allclose(house.bounds, [(0, -400, 0), (6000, 300, 3000)])
        self.assertEqual(house.topology.turned, 0)

    def test_a_glb_file_is_in_metres_and_y_up_by_its_standard(self):
        house = read_building(self.write("house.glb", self.glb()))
        self.assertEqual((house.schema, house.unit, house.warnings), ("glTF 2.0", "metre", ()))
        np.testing.assert_allclose(house.bounds, [(0, -400, 0), (6000, 300, 3000)], atol=0.01)
        self.assertEqual([e.name for e in house.elements], ["step", "wall"])

    def test_a_placed_object_stands_where_its_node_puts_it(self):
        moved = trimesh.transformations.translation_matrix([5, 0, 0])
        mirrored = np.diag([-1.0, 1, 1, 1])
        for transform, low in ((moved, 5000), (mirrored, -6000)):
            house = read_building(self.write("house.glb", self.glb(transform=transform)))
            self.assertAlmostEqual(house.bounds[0][0], low, delta=0.01)
            self.assertEqual(house.topology.turned, 0)

    def test_an_object_of_two_materials_is_one_element(self):
        glb = trimesh.Scene()
        points, faces = HOUSE["wall"]
        glb.add_geometry(
            trimesh.Trimesh(points * 0.001, faces, process=False), node_name="wall", geom_name="wall"
        )
        path = self.write("house.gltf", b"")
        files = glb.export(file_type="gltf")
        for name, data in files.items():
            self.write(name, data)
        tree = json.loads(files["model.gltf"])
        tree["materials"] = [{"name": "Brick"}, {"name": "Oak"}]
        (primitive,) = tree["meshes"][0]["primitives"]
        tree["meshes"][0]["primitives"] = [{**primitive, "material": 0}, {**primitive, "material": 1}]
        path.write_text(json.dumps(tree))
        with self.assertRaisesRegex(BuildingFileError, "gltf_buffer_0.bin” is named in the file"):
            read_building(path)
        house = read_building(path, beside=self.folder)
        self.assertEqual([e.name for e in house.elements], ["wall"])
        self.assertEqual(sorted(house.materials), ["Brick", "Oak"])

    def test_an_element_keeps_its_id_from_version_to_version(self):
        one = read_building(self.write("a.obj", written_obj(HOUSE)))
        two = read_building(
            self.write("b.obj", written_obj({"porch": box((0, 900, 0), (900, 1900, 90)), **HOUSE}))
        )
        self.assertLess({e.id for e in one.elements}, {e.id for e in two.elements})

    def test_files_that_cannot_be_used_are_refused_with_a_reason(self):
        for name, content, why in (
            ("a.obj", b"", "is empty"),
            ("a.obj", b"# nothing here\n", "no faces"),
            ("a.obj", b"v 0 0 0\nv 1 0 0\n", "no faces"),
            ("a.glb", b"glTF but not really", "cannot be read as GLB"),
            ("a.gltf", b"{", "cannot be read as GLTF"),
            ("a.glb", self.glb()[:200], "cannot be read as GLB"),
        ):
            with self.subTest(name=name, why=why), self.assertRaisesRegex(BuildingFileError, why):
                read_building(self.write(name, content))

    def test_open_objects_are_reported(self):
        points, faces = HOUSE["wall"]
        house = read_building(
            self.write("a.obj", written_obj({"wall": (points, faces[:-2])})), unit="mm", up="z"
        )
        self.assertIn("“wall” is not a closed solid", house.warnings[0])
