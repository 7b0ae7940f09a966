"""Schedules: what they list of a building, its sizes, and how the table is drawn."""

import math
from dataclasses import replace
from itertools import combinations
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from drafting.annotation.anchors import Anchor
from drafting.annotation.pieces import PlacedPiece
from drafting.annotation.schedules import (
    Column,
    Condition,
    Schedule,
    element_entry,
    opening_entries,
    room_entries,
    schedule_table,
)
from drafting.annotation.tables import Table
from drafting.building.element_data import ElementData
from drafting.building.openings import Opening, openings_of
from drafting.building.rooms import Room
from drafting.errors import SheetError
from drafting.render.annotation_items import piece_boxes, piece_items
from drafting.render.backends.extents import bounds_of
from drafting.render.items import Text
from drafting.render.table_items import table_items
from drafting.tests.scenes import box, building
from drafting.views.plan import Plan

STOREYS = [("Ground", 0.0), ("Upper", 2900.0)]
ROOMS = [
    Room("b", "1.1", "Loft", 2900.0, 2400.0, 20e6, None, (0.0, 0.0), 3000.0),
    Room("a", "0.1", "Kitchen", 0.0, 2500.0, 12.34e6, None, (0.0, 0.0), 3000.0),
]
OPENINGS = [
    Opening("1", "D01", True, "Ground", 926.0, 2100.0),
    Opening("2", "W01", False, "Ground", 1500.0, 1250.0),
    Opening("3", "D11", True, "Upper", 826.0, 2100.0),
]
ELEMENTS = [
    ElementData("a", "Wall 1", "IfcWall", "Ground", "Walls", "Brick", "0.1", (4000.0, 300.0, 2600.0),
                {"Pset_WallCommon.FireRating": "REI 60", "Qto_WallBaseQuantities.NetVolume": 2.5e9}),
    ElementData("b", "Wall 2", "IfcWall", "Upper", "Walls", "Brick", "1.1", (3000.0, 300.0, 2600.0),
                {"Pset_WallCommon.FireRating": "REI 30", "Qto_WallBaseQuantities.NetVolume": 1.25e9}),
    ElementData("c", "Slab", "IfcSlab", "Ground", "Slabs", "Concrete", "", (9000.0, 6000.0, 200.0), {}),
]  # fmt: skip


def table(**given):
    entries = {
        "rooms": room_entries(ROOMS, STOREYS),
        "doors": opening_entries(OPENINGS, True),
        "windows": opening_entries(OPENINGS, False),
        "elements": [element_entry(element) for element in ELEMENTS],
    }
    schedule = Schedule(Anchor((0.0, 0.0)), **given)
    return schedule_table(schedule, entries[schedule.of])


class ListedTests(TestCase):
    def test_rooms_stand_in_the_order_of_their_numbers_with_storey_and_area(self):
        found = table(of="rooms")
        self.assertEqual(
            found.rows, (("0.1", "Kitchen", "Ground", "12.3 m²"), ("1.1", "Loft", "Upper", "20.0 m²"))
        )
        self.assertEqual((found.total[0], found.total[3]), ("2 in all", "32.3 m²"))

    def test_doors_and_windows_have_their_sizes(self):
        self.assertEqual([row[0] for row in table(of="doors").rows], ["D01", "D11"])
        self.assertEqual(table(of="windows").rows, (("W01", "Ground", "1500", "1250"),))
        self.assertEqual(table(of="windows", feet=True).rows[0][2], "4'-11\"")

    def test_of_one_storey_it_lists_that_alone_and_of_an_unknown_one_nothing(self):
        self.assertEqual([row[0] for row in table(of="doors", storey="Upper").rows], ["D11"])
        self.assertEqual([row[0] for row in table(of="rooms", storey="Upper").rows], ["1.1"])
        self.assertEqual(table(of="doors", storey="Cellar").rows, ())

    def test_it_stands_on_the_sheet_and_in_no_drawing(self):
        Schedule(Anchor((0.0, 0.0))).check(None)
        with self.assertRaises(SheetError):
            Schedule(Anchor((0.0, 0.0))).check(Plan("Ground"))


class ElementTests(TestCase):
    def test_columns_come_from_attributes_properties_and_quantities(self):
        columns = (
            Column("Name"),
            Column("Pset_WallCommon.FireRating", "Fire"),
            Column("Qto_WallBaseQuantities.NetVolume", total=True),
            Column("Length"),
        )
        found = table(of="elements", classes=("IfcWall",), columns=columns)
        self.assertEqual(found.captions, ("Name", "Fire", "NetVolume", "Length"))
        self.assertEqual(
            found.rows, (("Wall 1", "REI 60", "2.5 m³", "4000"), ("Wall 2", "REI 30", "1.25 m³", "3000"))
        )
        self.assertEqual(found.total, ("2 in all", "", "3.75 m³", ""))
        self.assertEqual(found.figures, frozenset((2, 3)))

    def test_rows_are_filtered_grouped_sorted_and_counted(self):
        over = Condition("Length", "over", "3500")
        self.assertEqual([row[1] for row in table(of="elements", where=(over,)).rows], ["Wall 1", "Slab"])
        given = Condition("Pset_WallCommon.FireRating", "given")
        self.assertEqual(len(table(of="elements", where=(given,)).rows), 2)
        no_brick = Condition("Material", "is not", "brick")
        self.assertEqual([row[1] for row in table(of="elements", where=(no_brick,)).rows], ["Slab"])
        grouped = table(of="elements", group="Material", columns=(Column("Name"), Column("Storey")))
        self.assertEqual(
            [row[0] for row in grouped.rows], ["Brick (2)", "Wall 1", "Wall 2", "Concrete (1)", "Slab"]
        )
        self.assertEqual(grouped.groups, frozenset((0, 3)))
        by_length = table(of="elements", sort=("Length",), columns=(Column("Name"),))
        self.assertEqual([row[0] for row in by_length.rows], ["Wall 2", "Wall 1", "Slab"])
        counted = table(of="elements", counted=True, columns=(Column("Material"),))
        self.assertEqual(
            (counted.captions, counted.rows), (("Material", "Count"), (("Brick", "2"), ("Concrete", "1")))
        )

    def test_a_long_one_goes_on_in_another_and_the_last_has_the_total(self):
        first, second = table(of="elements", most=2), table(of="elements", first=3)
        self.assertEqual((len(first.rows), first.total), (2, ()))
        self.assertEqual((len(second.rows), second.total[0]), (1, "3 in all"))


class OpeningTests(TestCase):
    @given(st.floats(0, 360), st.integers(500, 4000), st.integers(300, 3000))
    def test_a_size_is_the_same_however_the_wall_runs(self, turn, width, height):
        points, faces = box((0, 0, 0), (width, 90, height))
        cos, sin = math.cos(math.radians(turn)), math.sin(math.radians(turn))
        turned = points @ np.array([[cos, sin, 0], [-sin, cos, 0], [0, 0, 1]])
        made = building([(turned, faces)])
        made = replace(made, elements=(replace(made.elements[0], ifc_class="IfcDoor", name="D01"),))
        (found,) = openings_of(made)
        self.assertAlmostEqual(found.width, width, delta=0.1)
        self.assertAlmostEqual(found.height, height, delta=0.1)
        self.assertEqual((found.name, found.is_door, found.storey), ("D01", True, "Ground"))

    def test_walls_are_no_openings(self):
        self.assertEqual(openings_of(building([box((0, 0, 0), (4000, 300, 2600))])), [])


class DrawnTests(TestCase):
    WORDS = st.text("abcdefghijklm 0123456789", min_size=1, max_size=24)

    @given(st.lists(st.tuples(WORDS, WORDS, WORDS), max_size=8))
    def test_no_words_of_a_table_lie_over_others_or_beyond_it(self, rows):
        made = Table(
            "Doors", ("Number", "Storey", "Width"), tuple(rows), ("9 in all", "", ""), frozenset((2,))
        )
        items = list(table_items(made, (100.0, 200.0)))
        whole = bounds_of(items[-1])
        boxes = [bounds_of(item) for item in items if isinstance(item, Text) and item.text.strip()]
        for one, other in combinations(boxes, 2):
            self.assertFalse(one.meets(other))
        self.assertTrue(all(whole.holds(each) for each in boxes))
        self.assertEqual((whole.x, whole.top), (100.0, 200.0))

    def test_it_is_taken_hold_of_whole_and_known_by_its_heading(self):
        piece = Schedule(Anchor((50.0, 150.0)), "doors", title="Doors of the house")
        placed = PlacedPiece(
            "t", piece, piece.locate(lambda e: None), table=table(of="doors", title=piece.title)
        )
        (found,) = piece_boxes([(placed, piece_items(placed))])
        self.assertEqual((found.text, found.kind, found.box.x), ("Doors of the house", "schedule", 50.0))
