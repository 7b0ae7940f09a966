"""What a building says of its elements: attributes, properties, quantities in mm, where they stand."""

import tempfile
from dataclasses import replace
from pathlib import Path as FilePath
from unittest import TestCase

import ifcopenshell
import ifcopenshell.guid
import numpy as np

from drafting.annotation.tables import Table
from drafting.building.element_data import building_data, load_data, save_data
from drafting.building.reading import read_building
from drafting.building.rooms import Room
from drafting.linework.own_elevations import with_pictures
from drafting.render.backends.extents import bounds_of
from drafting.render.items import Path, Text
from drafting.render.table_items import table_items
from drafting.tests.ifc_files import write_ifc
from drafting.tests.scenes import box, building


def with_sets(path: FilePath, unit: str = "metre") -> FilePath:
    """The house whose wall has a set of properties, another from its type, and quantities."""
    file = ifcopenshell.open(str(write_ifc(path, unit=unit, extra="IfcDoor")))
    wall, door = file.by_type("IfcWall")[0], file.by_type("IfcDoor")[0]
    new = ifcopenshell.guid.new

    def single(name, kind, value):
        return file.createIfcPropertySingleValue(name, None, file.create_entity(kind, value), None)

    def properties(name, *given):
        return file.createIfcPropertySet(new(), None, name, None, list(given))

    fire, outer = single("FireRating", "IfcLabel", "REI 60"), single("IsExternal", "IfcBoolean", True)
    own = properties("Pset_WallCommon", fire, outer)
    file.createIfcRelDefinesByProperties(new(), None, None, None, [wall], own)
    of_type = properties("Pset_WallCommon", single("FireRating", "IfcLabel", "REI 30"),
                         single("Reference", "IfcLabel", "W-300"))  # fmt: skip
    kind = file.createIfcWallType(
        new(), None, "Brick 300", None, None, [of_type], None, None, None, "STANDARD"
    )
    file.createIfcRelDefinesByType(new(), None, None, None, [wall], kind)
    quantities = [
        file.createIfcQuantityLength("Length", None, None, 5.0),
        file.createIfcQuantityArea("NetSideArea", None, None, 12.5),
        file.createIfcQuantityVolume("NetVolume", None, None, 2.5),
        file.createIfcQuantityCount("Layers", None, None, 3),
    ]
    base = file.createIfcElementQuantity(new(), None, "Qto_WallBaseQuantities", None, None, quantities)
    file.createIfcRelDefinesByProperties(new(), None, None, None, [wall], base)
    door.Tag, wall.Description = "T-7", "Load bearing"
    file.write(str(path))
    return path


class ReadTests(TestCase):
    def read(self):
        with tempfile.TemporaryDirectory() as folder:
            return building_data(read_building(with_sets(FilePath(folder) / "house.ifc")))

    def test_properties_of_the_element_come_before_those_of_its_type(self):
        wall = next(e for e in self.read().elements if e.element_class == "IfcWall")
        self.assertEqual(wall.values["Pset_WallCommon.FireRating"], "REI 60")
        self.assertEqual(wall.values["Pset_WallCommon.Reference"], "W-300")
        self.assertEqual(wall.values["Pset_WallCommon.IsExternal"], "Yes")
        self.assertEqual((wall.values["Type"], wall.values["Description"]), ("Brick 300", "Load bearing"))

    def test_quantities_are_in_mm_whatever_the_unit_of_the_file(self):
        values = next(e for e in self.read().elements if e.element_class == "IfcWall").values
        found = [
            values[f"Qto_WallBaseQuantities.{name}"]
            for name in ("Length", "NetSideArea", "NetVolume", "Layers")
        ]
        for value, wanted in zip(found, (5000.0, 12.5e6, 2.5e9, 3), strict=True):
            self.assertAlmostEqual(value, wanted, places=3)

    def test_attributes_and_sizes_are_those_of_each(self):
        door = next(e for e in self.read().elements if e.element_class == "IfcDoor")
        self.assertEqual((door.values["Tag"], door.size), ("T-7", (5000.0, 200.0, 2500.0)))

    def test_it_is_kept_and_read_again_the_same(self):
        data = self.read()
        with tempfile.TemporaryDirectory() as folder:
            save_data(data, FilePath(folder) / "a")
            self.assertEqual(load_data(FilePath(folder) / "a"), data)


class PictureTests(TestCase):
    def test_a_window_has_its_own_elevation_however_its_wall_runs_and_a_wall_has_none(self):
        for turned in (False, True):
            points, faces = box((0, 0, 900), (1500, 90, 2200))
            points = points[:, [1, 0, 2]] if turned else points
            made = building([(points, faces), box((0, 500, 0), (4000, 800, 2600))])
            window = replace(made.elements[0], ifc_class="IfcWindow")
            made = replace(made, elements=(window, made.elements[1]))
            found = {e.id: e.picture for e in with_pictures(building_data(made), made).elements}
            corners = np.array([point for line in found["e0"] for point in line])
            np.testing.assert_allclose(
                (corners.min(axis=0), corners.max(axis=0)), ((0, 0), (1500, 1300)), atol=0.2
            )
            self.assertEqual(found["e1"], ())

    def test_a_schedule_has_a_row_as_high_as_its_picture_at_a_scale(self):
        square = (((0.0, 0.0), (1500.0, 0.0), (1500.0, 1300.0), (0.0, 1300.0), (0.0, 0.0)),)
        table = Table("Windows", ("Number",), (("W1",), ("W2",)), ("2 in all",), pictures={0: square})
        items = list(table_items(table, (20.0, 200.0)))
        lines = [i for i in items if isinstance(i, Path) and len(i.points) == 5]
        (picture,) = [bounds_of(line) for line in lines]
        self.assertAlmostEqual(picture.width, 15.0)
        self.assertAlmostEqual(picture.height, 13.0)
        self.assertTrue(bounds_of(items[-1]).holds(picture))
        words = [bounds_of(i) for i in items if isinstance(i, Text)]
        self.assertFalse(any(picture.meets(box) for box in words))


class RoomTests(TestCase):
    def test_an_element_stands_in_its_room_and_a_door_between_two(self):
        square = ((0.0, 0.0), (4000.0, 0.0), (4000.0, 3000.0), (0.0, 3000.0))
        beside = tuple((x + 4100.0, y) for x, y in square)
        rooms = tuple(
            Room(name, name, "", 0.0, 2500.0, 12e6, None, (0.0, 0.0), 1000.0, (outline,))
            for name, outline in (("0.1", square), ("0.2", beside))
        )
        made = building([box((500, 500, 0), (1000, 900, 800)), box((4000, 1000, 0), (4100, 1900, 2100)),
                         box((500, 500, 4000), (900, 900, 4500))])  # fmt: skip
        door = replace(made.elements[1], ifc_class="IfcDoor")
        made = replace(made, elements=(made.elements[0], door, made.elements[2]), rooms=rooms)
        found = {element.id: element.room for element in building_data(made).elements}
        self.assertEqual(found, {"e0": "0.1", "e1": "0.1 / 0.2", "e2": ""})
