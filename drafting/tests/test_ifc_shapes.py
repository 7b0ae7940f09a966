"""Nothing of a file is lost without a word: every kind of shape is drawn or named; the account adds up."""

import tempfile
from pathlib import Path
from unittest import TestCase
from unittest.mock import patch

import ifcopenshell
import ifcopenshell.guid
import numpy as np
from ifcopenshell.util.placement import get_local_placement

from drafting.building.model import GROUND_LAYER, GROUND_MATERIAL
from drafting.building.readers.ifc_implied import implied_box
from drafting.building.readers.ifc_shapes import Shapes
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


class ImpliedBoxTests(FileCase):
    def boxes(self):
        """The implied box of each kind of shape by its name, and the shape that was read, in its own axes."""
        write_kinds(self.path)
        building = read_building(self.path)
        file = ifcopenshell.open(str(self.path))
        implied = {p.Name: implied_box(p) for p in file.by_type("IfcBuildingElementProxy")}
        at = {
            p.Name: get_local_placement(p.ObjectPlacement)[:3, 3]
            for p in file.by_type("IfcBuildingElementProxy")
        }
        for k, element in enumerate(building.elements):
            corners = building.vertices[building.triangles[building.triangle_element == k].reshape(-1)]
            yield element.name, implied[element.name], (corners - at[element.name]) / 1000

    def test_every_shape_is_where_its_definition_says(self):
        known = 0
        for name, box, corners in self.boxes():
            with self.subTest(name):
                known += box is not None
                self.assertTrue(box is None or box.fits(corners, 0.001))
                # What is moved, or half of it lost, is not.
                self.assertFalse(box is not None and box.fits(corners + 0.2, 0.001))
                if box is not None and box.whole:
                    self.assertFalse(box.fits(corners * [0.5, 1.0, 1.0], 0.001))
        self.assertGreater(known, 15)

    def test_a_shape_that_a_kernel_misplaces_is_made_by_another(self):
        write_ifc(self.path)
        right = read_building(self.path).bounds
        kernels = []

        def fits(shapes, product, shape):
            kernels.append(shape)
            return len(kernels) > 1

        with patch.object(Shapes, "_fits", fits):
            again = read_building(self.path)
        self.assertGreater(len(kernels), 1)
        np.testing.assert_allclose(again.bounds, right, atol=1e-6)

    def test_what_every_kernel_misplaces_is_drawn_and_named(self):
        write_ifc(self.path)
        with patch.object(Shapes, "_fits", lambda *_: False):
            building = read_building(self.path)
        self.assertEqual(len(building.elements), 1)
        (sentence,) = (w for w in building.warnings if "another place or size" in w)
        self.assertIn("“Wall” comes out", sentence)

    def test_no_kind_of_shape_is_called_misplaced(self):
        write_kinds(self.path)
        self.assertFalse(any("another place" in w for w in read_building(self.path).warnings))


class ContextTests(FileCase):
    def test_a_plan_or_an_axis_is_never_taken_for_the_body(self):
        """The wall has an axis and a plan of lines and a flat box beside its body."""

        def more(file):
            (wall,) = file.by_type("IfcWall")
            (context,) = file.by_type("IfcGeometricRepresentationContext")
            plan = file.createIfcGeometricRepresentationContext(
                "Plan", "Plan", 2, None, context.WorldCoordinateSystem
            )
            line = file.createIfcPolyline([file.createIfcCartesianPoint(p) for p in ((0.0, 0.0), (9e4, 0.0))])
            flat = file.createIfcBoundingBox(file.createIfcCartesianPoint((0.0, 0.0, 0.0)), 9e4, 9e4, 9e4)
            shapes = [
                file.createIfcShapeRepresentation(plan, "FootPrint", "Curve2D", [line]),
                file.createIfcShapeRepresentation(plan, "Axis", "Curve2D", [line]),
                file.createIfcShapeRepresentation(context, "Box", "BoundingBox", [flat]),
            ]
            wall.Representation.Representations = [*shapes, *wall.Representation.Representations]

        building = self.changed(more)
        np.testing.assert_allclose(building.bounds, [(1000, 0, 3000), (6000, 200, 5500)], atol=1e-3)
        self.assertEqual(building.account, "1 shapes: 1 drawn, 0 left out, 0 could not be read")

    def test_parts_of_assemblies_and_what_stands_in_a_space_are_drawn_once_and_stand_on_their_storey(self):
        def nest(file):
            guid = ifcopenshell.guid.new
            (wall,) = file.by_type("IfcWall")
            (rail,) = file.by_type("IfcMember")
            (storey,) = file.by_type("IfcBuildingStorey")
            assembly = file.create_entity(
                "IfcCurtainWall", guid(), None, "Front", ObjectPlacement=wall.ObjectPlacement
            )
            file.createIfcRelAggregates(guid(), None, None, None, assembly, [rail])
            space = file.create_entity(
                "IfcSpace", guid(), None, "Room", ObjectPlacement=storey.ObjectPlacement
            )
            file.createIfcRelAggregates(guid(), None, None, None, storey, [space])
            file.createIfcRelContainedInSpatialStructure(guid(), None, None, None, [assembly], space)

        building = self.changed(nest, extra="IfcMember")
        self.assertEqual(sorted(e.ifc_class for e in building.elements), ["IfcMember", "IfcWall"])
        self.assertEqual([e.storey for e in building.elements], [0, 0])
        self.assertEqual(building.unplaced, frozenset())

    def test_names_are_read_in_every_encoding_of_the_standard(self):
        whole = write_ifc(self.path).read_text()
        for written, read in (
            (r"Stra\X2\00DF\X0\e", "Straße"),
            (r"Caf\X\E9", "Café"),
            (r"Caf\S\i", "Café"),
            (r"\X4\0001F3E0\X0\ home", "🏠 home"),
            ("O''Hara", "O'Hara"),
        ):
            with self.subTest(written):
                self.path.write_text(whole.replace("'Wall'", f"'{written}'"))
                self.assertEqual(read_building(self.path).elements[0].name, read)


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
