"""Doors as files have them: hinge side and direction from operation type and placement."""

import tempfile
from pathlib import Path
from unittest import TestCase

import ifcopenshell
import shapely

from demo.ifc_writer import IfcWriter
from demo.openings import door
from drafting.building.reading import read_building
from drafting.linework.engine import draw
from drafting.tests.scenes import lines_of
from drafting.views.plan import Plan

PLAN = Plan("Ground")


def symbol(made):
    return lines_of(draw(made, PLAN), role="symbol")


class DoorFileTests(TestCase):
    def written(self, change=lambda file, made: None, **given):
        """The building of a file with one door in a wall along y, 1000 wide from y = 500 on."""
        w = IfcWriter("Tests", "Site", "House", "2026-03-02")
        for style in ("Oak", "Glass", "Steel"):
            w.colour(style, 0.5, 0.5, 0.5)
        storey = w.storey("Ground", 0.0)
        wall = w.element("IfcWall", "Wall", storey, [w.box((0, 0, 0), (200, 3000, 2500), "")], "Walls")
        door(w, storey, wall, "D1", "y", 0, 200, 500, 1000, 0, **given)
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "door.ifc"
            w.write(str(path))
            file = ifcopenshell.open(str(path))
            change(file, file.by_type("IfcDoor")[0])
            file.write(str(path))
            return read_building(path)

    def test_hinge_side_and_direction_come_from_operation_type_and_placement(self):
        for opens, hinge, at in ((1, "left", (150, 1450)), (-1, "left", (50, 550)), (1, "right", (150, 550))):
            with self.subTest(opens=opens, hinge=hinge):
                lines = symbol(self.written(opens=opens, hinge=hinge))
                # The frame is 120 deep about the wall's middle; the leaf goes from its face into the room.
                tip = shapely.Point(at[0] + opens * 10 + opens * 900, at[1])
                self.assertLess(lines.distance(tip), 60)
                self.assertLess(lines.distance(shapely.Point(at[0] + opens * 10, at[1])), 60)

    def test_a_door_of_which_the_file_says_nothing_is_drawn_as_it_is_modelled(self):
        def silent(file, made):
            made.OperationType = "NOTDEFINED"

        made = self.written(silent)
        self.assertEqual(made.doors, {})
        self.assertTrue(symbol(made).is_empty)
        self.assertFalse(lines_of(draw(made, PLAN)).is_empty)

    def test_a_width_that_its_shape_contradicts_is_not_believed(self):
        def narrow(file, made):
            made.OverallWidth = 300.0

        self.assertEqual(self.written(narrow).doors, {})

    def test_the_type_says_it_for_its_doors(self):
        def by_type(file, made):
            made.OperationType = None
            kind = file.createIfcDoorType(
                ifcopenshell.guid.new(), made.OwnerHistory, "Sliding", PredefinedType="DOOR"
            )
            kind.OperationType = "SLIDING_TO_LEFT"
            file.createIfcRelDefinesByType(
                ifcopenshell.guid.new(), made.OwnerHistory, None, None, [made], kind
            )

        (made,) = self.written(by_type).doors.values()
        self.assertEqual(made.operation, "SLIDING_TO_LEFT")
