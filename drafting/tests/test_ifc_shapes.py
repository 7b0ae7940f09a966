"""Nothing of a file is lost without a word: every kind of shape is drawn or named; the account adds up."""

import tempfile
from pathlib import Path
from unittest import TestCase
from unittest.mock import patch

import ifcopenshell
import ifcopenshell.guid
import numpy as np

from drafting.building.model import GROUND_LAYER, GROUND_MATERIAL
from drafting.building.reading import read_building
from drafting.linework.engine import draw
from drafting.linework.model import GROUND_ABOUT
from drafting.tests.ifc_files import write_ifc
from drafting.tests.ifc_kinds import EMPTY, write_kinds
from drafting.views.elevation import Elevation
from drafting.views.plan import Plan


class FileCase(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "house.ifc"

    def changed(self, change, **given):
        """The building of a small file after a change to it."""
        file = ifcopenshell.open(str(write_ifc(self.path, **given)))
        change(file)
        file.write(str(self.path))
        return read_building(self.path)


class KindsOfShapeTests(FileCase):
    def test_each_of_some_sixty_kinds_is_drawn_or_named(self):
        names = write_kinds(self.path)
        building = read_building(self.path)
        drawn = {element.name for element in building.elements}
        self.assertEqual(drawn, names - EMPTY)
        self.assertEqual(len(building.failed), len(EMPTY))
        for name in EMPTY:
            self.assertTrue(
                any(f"“{name}” (IfcBuildingElementProxy)" == failed for failed in building.failed)
            )
        shapes = len(ifcopenshell.open(str(self.path)).by_type("IfcProduct")) - 1  # but the storey
        self.assertEqual(shapes, len(drawn) + len(building.failed) + sum(building.left_out.values()))
        self.assertIn(
            f"{shapes} shapes: {len(drawn)} drawn, 0 left out, {len(EMPTY)} could", building.account
        )
        notes = draw(building, Elevation("south")).notes
        self.assertTrue(any("and 3 more could not be read" in note for note in notes))

    def test_what_the_first_kernel_does_not_give_is_made_by_another(self):
        names = write_kinds(self.path)
        # This one gives nothing for seventeen of them, and says nothing of it.
        with patch("drafting.building.readers.ifc_shapes.FAST_KERNEL", "manifold"):
            building = read_building(self.path)
        self.assertEqual({element.name for element in building.elements}, names - EMPTY)
        (k,) = (k for k, e in enumerate(building.elements) if e.name == "extruded circle")
        corners = building.vertices[building.triangles[building.triangle_element == k].reshape(-1)]
        np.testing.assert_allclose(np.ptp(corners, axis=0), (400, 400, 1000), atol=0.1)


class PlaceTests(FileCase):
    def test_a_storeys_height_is_that_of_its_place(self):
        """On a site 40 m up the Elevation, counted from the ground floor, is not where its walls are."""

        def lift(file):
            (storey,) = file.by_type("IfcBuildingStorey")
            storey.ObjectPlacement.RelativePlacement.Location.Coordinates = (0.0, 0.0, 40_000.0)
            storey.Elevation = 0.0

        building = self.changed(lift)
        self.assertEqual(building.storeys[0].elevation, 40_000.0)
        self.assertTrue(draw(building, Plan("Deck")).regions)

    def test_a_storey_without_a_place_has_its_elevation(self):
        def unplace(file):
            (storey,) = file.by_type("IfcBuildingStorey")
            (wall,) = file.by_type("IfcWall")
            wall.ObjectPlacement.PlacementRelTo = None
            storey.ObjectPlacement = None

        self.assertEqual(self.changed(unplace).storeys[0].elevation, 3000.0)


class SiteTests(FileCase):
    def on_terrain(self, file):
        """The wall's file with a site of its own shape, 60 m wide."""
        (wall,) = file.by_type("IfcWall")
        copied = ifcopenshell.open(str(write_ifc(self.path.with_name("site.ifc"), length=60_000.0)))
        shape = file.add(copied.by_type("IfcWall")[0].Representation)
        shape.Representations[0].ContextOfItems = wall.Representation.Representations[0].ContextOfItems
        place = file.createIfcLocalPlacement(
            None, file.createIfcAxis2Placement3D(file.createIfcCartesianPoint((-20_000.0, -100.0, 400.0)))
        )
        site = file.create_entity("IfcSite", ifcopenshell.guid.new(), None, "Field")
        site.ObjectPlacement, site.Representation = place, shape

    def test_the_sites_own_shape_is_drawn_on_a_layer_of_its_own(self):
        building = self.changed(self.on_terrain)
        (field,) = (e for e in building.elements if e.ifc_class == "IfcSite")
        self.assertEqual(field.material, GROUND_MATERIAL)
        self.assertNotIn("IfcSite", building.left_out)
        self.assertNotIn(field.id, building.unplaced)
        self.assertIn(field.layer, (GROUND_LAYER, "Layer of Wall"))

    def test_a_drawing_reaches_as_far_as_the_building_and_some_of_the_ground_about_it(self):
        building = self.changed(self.on_terrain)
        linework = draw(building, Elevation("south"))
        self.assertGreater(np.ptp(linework.packed.lines.points[:, 0]), 59_000)
        low, _, high, _ = linework.extents
        # Zero is where the site is placed, 20 m beside the wall's.
        self.assertAlmostEqual(low, 21_000 - GROUND_ABOUT, delta=1)
        self.assertAlmostEqual(high, 26_000 + GROUND_ABOUT, delta=1)
