"""A building's own axes: wherever its file places it, it is drawn alike, and grid coordinates are kept."""

import gzip
import math
import tempfile
import zipfile
from dataclasses import replace
from pathlib import Path
from unittest import TestCase

import ifcopenshell
import ifcopenshell.guid
import numpy as np

from drafting.building.axes import Axes, compounded
from drafting.building.doors import Door
from drafting.building.model import GridLine
from drafting.building.own_axes import in_axes, own_axes
from drafting.building.readers import packed
from drafting.building.reading import read_building
from drafting.building.store import load_building, save_building
from drafting.errors import BuildingFileError
from drafting.linework.engine import draw
from drafting.tests.ifc_files import write_ifc
from drafting.tests.scenes import box, building, cylinder
from drafting.views.elevation import Elevation
from drafting.views.plan import Plan


def turned(made, axes):
    """A building whose own axes are so in its file, as the file has it."""
    back = in_axes(made, Axes((0.0, 0.0, 0.0), -axes.turn))
    away = in_axes(back, Axes(tuple(-x for x in axes.origin), 0.0))
    return replace(away, axes=Axes(), true_north=made.true_north)


def house(**given):
    """Two long walls and one across."""
    made = building([
        box((0, 0, 0), (9000, 300, 2800)), box((0, 6000, 0), (9000, 6300, 2800)),
        box((0, 300, 0), (300, 6000, 2800)),
    ])  # fmt: skip
    return replace(made, **given)


class FindingTests(TestCase):
    def test_walls_that_run_aslant_give_the_axes(self):
        chance = np.random.default_rng(5)
        for turn in [*chance.uniform(-44, 44, 20), 20.0, -0.3, 44.9]:
            with self.subTest(turn=turn):
                found = own_axes(turned(house(), Axes((0, 0, 0), float(turn))))
                self.assertAlmostEqual(found.turn, turn, places=4)

    def test_a_placement_is_believed_where_walls_run_along_it(self):
        made = turned(house(), Axes((0, 0, 0), 110.0))
        placed = Axes((500.0, 0.0, 36_576.0), 110.0)
        self.assertEqual(own_axes(made, [placed]), placed)
        # A site that is turned says nothing of walls that run along the file's own axes.
        self.assertEqual(own_axes(house(), [Axes((0, 0, 0), 35.0)]).turn, 0.0)

    def test_a_round_tower_has_no_main_direction(self):
        tower = in_axes(building([cylinder(3000.0, 9000.0, 48)]), Axes((0, 0, 0), 3.0))
        self.assertEqual(own_axes(tower).turn, 0.0)

    def test_what_stands_far_off_gets_an_origin_near_it(self):
        far = turned(house(), Axes((1e9 + 3.0, -2e9, 0.0), 0.0))
        own = in_axes(far, own_axes(far))
        self.assertLess(np.abs(own.vertices).max(), 2e7)
        np.testing.assert_allclose(np.ptp(own.vertices, axis=0), (9000, 6300, 2800), atol=1e-5)


class PlacingTests(TestCase):
    def test_everything_goes_along(self):
        way, out = (1.0, 0, 0), (0.0, -1.0, 0)
        door = Door((1000.0, 0.0, 0.0), way, out, 900.0, 2100.0, 300.0, "SINGLE_SWING_LEFT")
        made = house(doors={0: door}, grid=(GridLine("A", ((0.0, 0.0), (0.0, 6000.0))),), true_north=12.0)
        axes = Axes((5e6, -7e5, 36_576.0), 20.0)
        own = in_axes(turned(made, axes), axes)
        np.testing.assert_allclose(own.vertices, made.vertices, atol=1e-6)
        self.assertAlmostEqual(own.storeys[0].elevation, 0.0)
        np.testing.assert_allclose(own.doors[0].corner, door.corner, atol=1e-6)
        np.testing.assert_allclose(own.doors[0].into, door.into, atol=1e-12)
        np.testing.assert_allclose(own.grid[0].ends, made.grid[0].ends, atol=1e-6)
        # North lies 12 degrees clockwise of the file's y, which lies 20 clockwise of the building's.
        self.assertEqual(own.true_north, 32.0)
        self.assertEqual(own.axes, axes)

    def test_a_turned_building_takes_its_files_y_for_north(self):
        axes = Axes((0, 0, 0), 20.0)
        self.assertEqual(in_axes(turned(house(), axes), axes).true_north, 20.0)
        self.assertIsNone(in_axes(house(), Axes((10.0, 0, 0))).true_north)

    def test_drawings_are_the_same_wherever_the_file_places_the_building(self):
        axes = Axes((3.1e8, 6.6e8, 36_576.0), 20.0)
        away = turned(house(), axes)
        own = in_axes(away, own_axes(away, [Axes(axes.origin)]))
        for view in (Plan("Ground"), Elevation("south"), Elevation("east")):
            with self.subTest(view.title):
                one, two = draw(house(), view), draw(own, view)
                np.testing.assert_allclose(two.extents, one.extents, atol=0.01)
                self.assertEqual(len(two.lines), len(one.lines))

    def test_grid_coordinates_are_those_of_the_origin(self):
        of_file = Axes((5e8, 6e9, 12_000.0), 30.0)
        found = compounded(Axes((1000.0, 0.0, 500.0), 15.0), of_file)
        np.testing.assert_allclose(found.origin, (5e8 + 866.025404, 6e9 + 500.0, 12_500.0), atol=1e-5)
        self.assertEqual(found.turn, 45.0)


class FileTests(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "house.ifc"

    def on_grid(self):
        """A house 120 feet up on a national grid, turned by 20 degrees: placed, and with a map conversion."""
        file = ifcopenshell.open(str(write_ifc(self.path)))
        (storey,) = file.by_type("IfcBuildingStorey")
        turn = math.radians(20.0)
        place = file.createIfcAxis2Placement3D(
            file.createIfcCartesianPoint((325_000_000.0, 675_000_000.0, 36_576.0)),
            file.createIfcDirection((0.0, 0.0, 1.0)),
            file.createIfcDirection((math.cos(turn), math.sin(turn), 0.0)),
        )
        of_building = file.createIfcLocalPlacement(None, place)
        file.create_entity("IfcBuilding", ifcopenshell.guid.new(), None, "House", ObjectPlacement=of_building)
        storey.ObjectPlacement.PlacementRelTo = of_building
        storey.ObjectPlacement.RelativePlacement.Location.Coordinates = (0.0, 0.0, 0.0)
        storey.Elevation = 0.0
        (context,) = file.by_type("IfcGeometricRepresentationContext")
        grid = file.create_entity("IfcProjectedCRS", "EPSG:27700")
        metre = file.createIfcSIUnit(None, "LENGTHUNIT", None, "METRE")
        grid.MapUnit = metre
        file.create_entity("IfcMapConversion", context, grid, 100.0, 200.0, 3.0, 0.0, 1.0, 0.001)
        file.write(str(self.path))
        return read_building(self.path)

    def test_a_house_on_a_grid_is_drawn_straight_and_keeps_its_place(self):
        house = self.on_grid()
        self.assertEqual(house.axes, Axes((325_000_000.0, 675_000_000.0, 36_576.0), 20.0))
        np.testing.assert_allclose(house.bounds, [(1000, 0, 0), (6000, 200, 2500)], atol=1e-4)
        self.assertEqual(house.storeys[0].elevation, 0.0)
        plan = draw(house, Plan("Deck"))
        np.testing.assert_allclose(plan.extents, (1000, 0, 6000, 200), atol=1e-3)
        # The conversion turns the file by a quarter on the grid, 100 m east and 200 m north.
        np.testing.assert_allclose(house.on_grid.origin, (100_000 - 675e6, 200_000 + 325e6, 39_576.0))
        self.assertEqual(house.on_grid.turn, 110.0)
        kept = self.path.with_suffix(".npz")
        save_building(house, kept)
        again = load_building(kept)
        self.assertEqual((again.axes, again.on_grid), (house.axes, house.on_grid))

    def test_axes_that_are_given_are_taken(self):
        self.on_grid()
        house = read_building(self.path, axes=Axes((325_000_000.0, 675_000_000.0, 36_576.0), 65.0))
        self.assertAlmostEqual(np.ptp(house.vertices[:, 0]), 5200 * math.sqrt(0.5), delta=0.01)

    def test_a_packed_file_is_the_file_in_it(self):
        whole = write_ifc(self.path).read_bytes()
        zipped, gzipped = self.path.with_name("house.ifcZIP"), self.path.with_name("house.ifc.gz")
        with zipfile.ZipFile(zipped, "w", zipfile.ZIP_DEFLATED) as archive:
            archive.writestr("folder/house.ifc", whole)
            archive.writestr("notes.txt", "no building")
        gzipped.write_bytes(gzip.compress(whole))
        plain = read_building(self.path)
        for path in (zipped, gzipped):
            with self.subTest(path.name):
                np.testing.assert_array_equal(read_building(path).vertices, plain.vertices)

    def test_a_packed_file_that_cannot_be_used_says_why(self):
        whole = write_ifc(self.path).read_bytes()
        bad = self.path.with_name("bad.zip")
        for names, why in (([], "no building file"), (["a.ifc", "b.obj"], "2 building files")):
            with zipfile.ZipFile(bad, "w") as archive:
                for name in names:
                    archive.writestr(name, whole)
                archive.writestr("notes.txt", "no building")
            with self.subTest(why), self.assertRaisesRegex(BuildingFileError, why):
                read_building(bad)
        for content in (gzip.compress(whole)[:200], b"PK\x03\x04 and nothing more"):
            bad.write_bytes(content)
            with self.assertRaisesRegex(BuildingFileError, "cannot be unpacked"):
                read_building(bad)
        bad.write_bytes(gzip.compress(b"0" * 10_000_000))
        limit, packed.UNPACKED_LIMIT = packed.UNPACKED_LIMIT, 1_000_000
        self.addCleanup(setattr, packed, "UNPACKED_LIMIT", limit)
        with self.assertRaisesRegex(BuildingFileError, "unpacks to more"):
            read_building(bad)
