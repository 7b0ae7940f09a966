"""Reading building files."""

import tempfile
from pathlib import Path
from unittest import TestCase

import numpy as np

from drafting.building.reading import read_building
from drafting.building.store import load_building, save_building
from drafting.errors import BuildingFileError
from drafting.tests.ifc_files import UNITS, write_ifc


class IfcTests(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "house.ifc"

    def test_every_schema_and_unit_becomes_millimetres(self):
        for schema in ("IFC2X3", "IFC4", "IFC4X3"):
            for unit in UNITS:
                with self.subTest(schema=schema, unit=unit):
                    building = read_building(write_ifc(self.path, schema, unit))
                    np.testing.assert_allclose(
                        building.bounds, [(1000, 0, 3000), (6000, 200, 5500)], atol=1e-3
                    )
                    self.assertAlmostEqual(building.storeys[0].elevation, 3000, places=3)
                    self.assertEqual(building.unit, unit)

    def test_an_element_knows_its_id_storey_layer_and_material(self):
        building = read_building(write_ifc(self.path))
        (wall,) = building.elements
        self.assertEqual(
            (wall.name, wall.storey, wall.layer, wall.material), ("Wall", 0, "Layer of Wall", "Stone")
        )
        self.assertEqual(len(wall.id), 22)
        self.assertIn(wall.id, self.path.read_text())
        self.assertTrue(building.topology.closed.all())

    def test_what_is_no_building_fabric_is_left_out_and_reported(self):
        for ifc_class in ("IfcSpace", "IfcAnnotation", "IfcOpeningElement"):
            with self.subTest(ifc_class):
                building = read_building(write_ifc(self.path, extra=ifc_class))
                self.assertEqual(len(building.elements), 1)
                self.assertEqual(building.left_out, {ifc_class: 1})

    def test_an_element_that_stands_nowhere_is_drawn_and_reported(self):
        building = read_building(write_ifc(self.path, extra="IfcSlab"))
        self.assertEqual(len(building.elements), 2)
        self.assertEqual(len(building.unplaced), 1)

    def test_a_file_that_cannot_be_used_is_refused_with_the_reason_and_the_remedy(self):
        whole = write_ifc(self.path).read_bytes()
        for content, why in (
            (b"", "is empty. Save or copy it again"),
            (whole[: len(whole) // 2], "is cut off"),
            (b"solid cube\nendsolid", "is not an IFC file"),
            (whole.replace(b"('IFC4')", b"('IFC9')"), "cannot be read as IFC"),
            (b"ISO-10303-21; nonsense END-ISO-10303-21;", "“house.ifc” "),
        ):
            with self.subTest(why), self.assertRaisesRegex(BuildingFileError, why):
                self.path.write_bytes(content)
                read_building(self.path)

    def test_a_file_without_shapes_is_refused(self):
        with self.assertRaisesRegex(BuildingFileError, "no element with a shape"):
            read_building(write_ifc(self.path, boxes=False))

    def test_a_kept_building_is_the_building(self):
        building = read_building(write_ifc(self.path, extra="IfcSlab"))
        kept = self.path.with_suffix(".npz")
        save_building(building, kept)
        again = load_building(kept)
        for name in ("elements", "storeys", "materials", "warnings", "unit", "schema", "left_out"):
            self.assertEqual(getattr(again, name), getattr(building, name))
        np.testing.assert_array_equal(again.vertices, building.vertices)
        np.testing.assert_array_equal(again.triangles, building.triangles)

    def test_reading_tells_how_far_it_is(self):
        progress = []
        read_building(write_ifc(self.path), lambda stage, share: progress.append((stage, share)))
        self.assertEqual(progress[0], ("Opening the file", 0.0))
        self.assertIn(("Reading shapes", 1.0), progress)
