"""Files with things that cannot be as they are written: drawn as far as it goes, and said in one sentence."""

import tempfile
from pathlib import Path
from unittest import TestCase

import ifcopenshell
import ifcopenshell.guid
import numpy as np

from drafting.building.diagnostics import warnings_about
from drafting.building.earth import with_earth
from drafting.building.reading import read_building
from drafting.linework.engine import draw
from drafting.linework.model import GROUND_ABOUT
from drafting.tests.ifc_files import write_ifc
from drafting.tests.test_ground import on_ground, surface
from drafting.views.elevation import Elevation
from drafting.views.plan import Plan
from drafting.views.section import Section


class BadFileTests(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "house.ifc"

    def read(self, change, **given):
        file = ifcopenshell.open(str(write_ifc(self.path, **given)))
        change(file)
        file.write(str(self.path))
        return read_building(self.path)

    def said(self, made, words):
        found = [sentence for sentence in made.warnings if words in sentence]
        self.assertEqual(len(found), 1, made.warnings)

    def test_a_door_without_width_is_said_and_the_rest_is_drawn(self):
        def flatten(file):
            (door,) = file.by_type("IfcDoor")
            (solid,) = door.Representation.Representations[0].Items
            for point in solid.SweptArea.OuterCurve.Points:
                point.Coordinates = (0.0, point.Coordinates[1])

        made = self.read(flatten, extra="IfcDoor")
        # A sheet of no thickness is left of it.
        self.said(made, "“IfcDoor” does not say how to open")
        self.assertEqual(made.doors, {})
        self.assertTrue(draw(made, Plan("Deck")).regions)

    def test_a_door_that_does_not_say_how_it_opens_is_drawn_as_modelled(self):
        made = self.read(lambda file: None, extra="IfcDoor")
        self.said(made, "“IfcDoor” does not say how to open; it is drawn as modelled.")
        plan = draw(made, Plan("Deck"))
        self.assertFalse(any(line.role == "symbol" for line in plan.lines))
        self.assertEqual(len(plan.regions), 2)

    def test_a_space_without_a_boundary_has_no_name(self):
        def bare(file):
            (space,) = file.by_type("IfcSpace")
            space.Representation, space.LongName = None, "Loft"

        made = self.read(bare, extra="IfcSpace")
        self.assertEqual(made.rooms, ())
        self.said(made, "The room “Loft” has no outline in the file")

    def test_a_space_whose_outline_crosses_itself_has_its_name_within_it(self):
        def cross(file):
            (space,) = file.by_type("IfcSpace")
            (solid,) = space.Representation.Representations[0].Items
            _, b, c, d = solid.SweptArea.OuterCurve.Points[:4]
            b.Coordinates, c.Coordinates = (5000.0, 3000.0), (5000.0, 0.0)
            d.Coordinates = (0.0, 3000.0)

        made = self.read(cross, extra="IfcSpace")
        # The outline is a bow tie, or kernels give nothing of it; either way the file is read.
        for room in made.rooms:
            self.assertLess(room.area, 15e6 + 1)
            self.assertTrue(np.isfinite(room.place).all())
        self.assertEqual(len(made.rooms) + sum("no outline" in x for x in made.warnings), 1)

    def test_a_storey_without_a_height_is_at_zero(self):
        def forget(file):
            (storey,) = file.by_type("IfcBuildingStorey")
            (wall,) = file.by_type("IfcWall")
            wall.ObjectPlacement.PlacementRelTo = None
            storey.ObjectPlacement = storey.Elevation = None

        made = self.read(forget)
        self.said(made, "The storey “Deck” has no elevation; the floor is taken at zero.")
        self.assertEqual(made.storeys[0].elevation, 0.0)
        self.assertTrue(draw(made, Plan("Deck")).regions)


class LargeTerrainTests(TestCase):
    def test_two_kilometres_of_terrain_are_drawn_about_a_small_house(self):
        def hills(x, y):
            return -200.0 + 9_000.0 * np.sin(x / 190_000.0) * np.cos(y / 230_000.0)

        made = with_earth(on_ground(surface(hills, size=2_000_000.0, step=12_500.0)))
        self.assertEqual([x for x in warnings_about(made) if "long" in x], [])
        for view in (Plan("Ground"), Elevation("south"), Section(((-9e6, 0.0), (9e6, 0.0)))):
            with self.subTest(view.title):
                drawing = draw(made, view)
                low, _, high, _ = drawing.extents
                self.assertAlmostEqual(high - low, 10_000 + 2 * GROUND_ABOUT, delta=1)
