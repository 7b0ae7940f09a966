"""Rooms: their outline and area, the place of their names clear of what stands there, and what tags say."""

import tempfile
from dataclasses import replace
from pathlib import Path
from unittest import TestCase

import ifcopenshell
import ifcopenshell.guid
import numpy as np
import shapely

from drafting.building.doors import Door
from drafting.building.readers.ifc_rooms import footprint
from drafting.building.reading import read_building
from drafting.building.room_places import roomiest, swept_by
from drafting.building.rooms import Room
from drafting.building.store import load_building, save_building
from drafting.building.units import in_unit
from drafting.geometry.boxes import Box
from drafting.render.compose import compose
from drafting.render.room_items import LAYER, ROOM_TINT, room_items
from drafting.sheets.marked_view import MarkedView
from drafting.sheets.paper import Paper
from drafting.sheets.room_tags import RoomTag, filled_rooms_in, room_tags_in
from drafting.sheets.scale import Scale
from drafting.sheets.sheet import Sheet
from drafting.sheets.viewport import Viewport
from drafting.sheets.viewport_marks import ViewportMarks
from drafting.styles.lettering import text_width
from drafting.styles.pens import PAPER
from drafting.tests.ifc_files import write_ifc
from drafting.tests.scenes import box, building
from drafting.views.elevation import Elevation
from drafting.views.plan import Plan

KITCHEN = Room("k", "0.1", "Kitchen", 0.0, 2500.0, 12e6, None, (2000.0, 1500.0), 3000.0)


def seen(spec=None, scale="1:100", width=60.0):
    viewport = Viewport("1", "", Box(100, 100, width, 40), Scale.parse(scale), (2000, 1500))
    return MarkedView(viewport, "v", spec or Plan("Ground"), (1, 0, 0), (0, 1, 0), (0, 0, 0))


class PlaceTests(TestCase):
    def test_a_name_stands_in_the_middle_of_an_empty_room(self):
        (x, y), width = roomiest(shapely.box(0, 0, 3600, 2000), [])
        self.assertAlmostEqual(x, 1800, delta=100)
        self.assertAlmostEqual(y, 1000, delta=100)
        self.assertAlmostEqual(width, 3600, delta=200)

    def test_it_keeps_clear_of_what_stands_there_and_of_the_ways_of_doors(self):
        chance = np.random.default_rng(3)
        for _ in range(30):
            room = shapely.box(0, 0, *chance.uniform(3000, 8000, 2))
            corners, sizes = chance.uniform(0, 4000, (4, 2)), chance.uniform(300, 900, (4, 2))
            taken = [shapely.box(*low, *(low + size)) for low, size in zip(corners, sizes, strict=True)]
            at, width = roomiest(room, taken)
            self.assertTrue(room.contains(shapely.Point(at)))
            # The ellipse about the place, as wide as the name may be, is free.
            round_it = shapely.affinity.scale(shapely.Point(at).buffer(0.98), width / 2, width / 2 / 1.8)
            self.assertFalse(any(shapely.intersects(round_it, thing) for thing in taken))

    def test_a_door_takes_the_square_that_it_sweeps(self):
        door = Door((0, 0, 0), (0, 1.0, 0), (-1.0, 0, 0), 900.0, 2100.0, 100.0, "SINGLE_SWING_LEFT")
        self.assertEqual(swept_by(door).bounds, (-900, 0, 0, 900))

    def test_a_floor_of_crossing_triangles_is_one_valid_area(self):
        corners = np.array([[(0, 0, 0), (4, 0, 0), (0, 4, 0)], [(0, 0, 0), (4, 0, 0), (4, 4, 0)]]) * 1000.0
        area = footprint(corners)
        self.assertTrue(area.is_valid)
        self.assertAlmostEqual(area.area, 12e6)


class TagTests(TestCase):
    def test_a_plan_names_the_rooms_that_its_cut_goes_through(self):
        storeys = (("Ground", 0.0), ("Upper", 2800.0))
        rooms = [KITCHEN, replace(KITCHEN, id="u", floor=2800.0), replace(KITCHEN, id="low", height=900.0)]
        self.assertEqual([t.room for t in room_tags_in(seen(), rooms, storeys, False)], ["k"])
        self.assertEqual([t.room for t in room_tags_in(seen(Plan("upper")), rooms, storeys, False)], ["u"])
        self.assertEqual([t.room for t in room_tags_in(seen(Plan("1")), rooms, storeys, False)], ["u"])
        self.assertEqual(room_tags_in(seen(Elevation("south")), rooms, storeys, False), [])
        self.assertEqual(room_tags_in(seen(Plan("Loft")), rooms, storeys, False), [])

    def test_a_tag_is_at_its_room_at_true_scale_and_within_the_viewport(self):
        away = replace(KITCHEN, id="away", place=(9000.0, 1500.0))
        (tag,) = room_tags_in(seen(), [KITCHEN, away], (("Ground", 0.0),), False)
        self.assertEqual((tag.at, tag.width, tag.area), ((130, 120), 30, "12.0 m²"))
        (tag,) = room_tags_in(seen(scale="1:50"), [KITCHEN], (("Ground", 0.0),), True)
        self.assertEqual((tag.width, tag.area), (60, "129 sq ft"))

    def test_lines_are_below_each_other_about_the_place_and_never_cut_short(self):
        tag = RoomTag("k", (100.0, 50.0), 4.0, "0.1", "Conservatory with a long name", "12.0 m²")
        items = list(room_items([tag], "1"))
        texts = [i for i in items if hasattr(i, "text")]
        self.assertEqual([t.text for t in texts], ["0.1", "Conservatory with a long name", "12.0 m²"])
        self.assertEqual({i.layer for i in items}, {LAYER})
        heights = [t.at[1] for t in texts]
        self.assertEqual(heights, sorted(heights, reverse=True))
        self.assertAlmostEqual((heights[0] + texts[0].size + heights[-1]) / 2, 50.0, delta=0.6)
        # What lies under them is kept away by paper.
        ground, widest = np.array(items[0].rings[0]), max(text_width(t.text, t.size, t.bold) for t in texts)
        self.assertGreater(np.ptp(ground[:, 0]), widest)
        self.assertTrue(ground[:, 1].min() < heights[-1] and heights[0] + texts[0].size < ground[:, 1].max())

    def test_a_room_without_a_name_shows_number_and_area_in_one_line(self):
        _, line = room_items([RoomTag("k", (0, 0), 40, "7", "", "3.1 m²")], "1")
        self.assertEqual(line.text, "7  3.1 m²")


class FileTests(TestCase):
    def written(self, change=lambda file, space: None):
        """The building of a file with a space of 5000 x 200 x 2500 at x = 9000."""
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "house.ifc"
            file = ifcopenshell.open(str(write_ifc(path, extra="IfcSpace")))
            (space,) = file.by_type("IfcSpace")
            space.Name, space.LongName = "0.1", "Passage"
            change(file, space)
            file.write(str(path))
            return read_building(path)

    def test_number_name_area_and_place_come_from_the_space(self):
        (room,) = self.written().rooms
        self.assertEqual((room.number, room.name), ("0.1", "Passage"))
        self.assertEqual((room.floor, room.height), (3000.0, 2500.0))
        self.assertAlmostEqual(room.area, 1e6, delta=1)
        self.assertTrue(9000 < room.place[0] < 14_000 and 0 < room.place[1] < 200)

    def test_the_area_that_the_file_gives_is_kept_beside_that_of_the_outline(self):
        def quantity(file, space):
            area = file.createIfcQuantityArea("NetFloorArea", None, None, 0.98)
            found = file.createIfcElementQuantity(
                ifcopenshell.guid.new(), None, "Qto_SpaceBaseQuantities", None, None, [area]
            )
            file.createIfcRelDefinesByProperties(ifcopenshell.guid.new(), None, None, None, [space], found)

        self.assertEqual(self.written(quantity).rooms[0].quantity, 0.98)

    def test_a_space_without_a_shape_is_named_and_no_room(self):
        def bare(file, space):
            space.Representation = None

        made = self.written(bare)
        self.assertEqual(made.rooms, ())
        self.assertTrue(any("“Passage” has no outline" in warning for warning in made.warnings))

    def test_rooms_are_kept_and_follow_the_unit(self):
        made = replace(building([box((0, 0, 0), (1, 1, 1))]), rooms=(KITCHEN,), unit="millimetre")
        with tempfile.TemporaryDirectory() as folder:
            save_building(made, Path(folder) / "kept.npz")
            self.assertEqual(load_building(Path(folder) / "kept.npz").rooms, (KITCHEN,))
        (room,) = in_unit(made, "cm").rooms
        self.assertEqual((room.area, room.place, room.height), (12e8, (20_000.0, 15_000.0), 25_000.0))


class MovedTests(TestCase):
    def test_a_name_that_was_moved_by_hand_stays_by_so_much_from_its_own_place(self):
        as_found = seen()
        (own,) = room_tags_in(as_found, [KITCHEN], (("Ground", 0.0),), False)
        by_hand = replace(as_found, viewport=replace(as_found.viewport, room_offsets={"k": (4.0, -3.0)}))
        (moved,) = room_tags_in(by_hand, [KITCHEN], (("Ground", 0.0),), False)
        np.testing.assert_allclose(moved.at, (own.at[0] + 4.0, own.at[1] - 3.0))
        away = replace(as_found, viewport=replace(as_found.viewport, room_offsets={"k": (400.0, 0.0)}))
        self.assertEqual(room_tags_in(away, [KITCHEN], (("Ground", 0.0),), False), [])

    def test_where_it_can_be_taken_hold_of_is_where_it_is_drawn(self):
        (tag,) = room_tags_in(seen(), [KITCHEN], (("Ground", 0.0),), False)
        viewport = Viewport("1", "k", Box(100, 100, 60, 40), Scale.parse("1:100"), (2000, 1500))
        sheet = Sheet(Paper.of("A3"), {}, (viewport,), marks={"1": ViewportMarks(rooms=(tag,))})
        (box,) = compose(sheet).rooms
        self.assertEqual((box.viewport, box.room, box.text), ("1", "k", "Kitchen"))
        self.assertTrue(box.box.x < tag.at[0] < box.box.right and box.box.y < tag.at[1] < box.box.top)


class FillTests(TestCase):
    STOREYS = (("Ground", 0.0),)
    L_SHAPED = replace(
        KITCHEN, outline=(((0.0, 0.0), (4000.0, 0.0), (4000.0, 3000.0), (0.0, 3000.0)),
                          ((1000.0, 1000.0), (2000.0, 1000.0), (2000.0, 2000.0), (1000.0, 2000.0)))
    )  # fmt: skip

    def test_a_floor_is_filled_at_true_scale_and_its_holes_are_not(self):
        (rings,) = filled_rooms_in(seen(), [self.L_SHAPED], self.STOREYS)
        self.assertEqual(len(rings), 2)
        area = shapely.Polygon(rings[0], rings[1:]).area
        self.assertAlmostEqual(area, 11e6 / 100**2)

    def test_it_ends_at_the_viewport_and_stands_in_its_own_storey_alone(self):
        (rings,) = filled_rooms_in(seen(width=20.0), [self.L_SHAPED], self.STOREYS)
        self.assertAlmostEqual(max(x for x, _ in rings[0]), 120.0)
        self.assertEqual(filled_rooms_in(seen(Elevation("south")), [self.L_SHAPED], self.STOREYS), [])
        above = replace(self.L_SHAPED, floor=2800.0)
        self.assertEqual(filled_rooms_in(seen(), [above], self.STOREYS), [])

    def test_the_tint_lies_under_the_drawing_also_where_that_hides_what_is_below(self):
        viewport = Viewport("1", "k", Box(100, 100, 60, 40), Scale.parse("1:100"), (2000, 1500), opaque=True)
        filled = tuple(filled_rooms_in(seen(), [self.L_SHAPED], self.STOREYS))
        sheet = Sheet(Paper.of("A3"), {}, (viewport,), marks={"1": ViewportMarks(filled=filled)})
        items = compose(sheet).items
        place = {item.type: k for k, item in enumerate(items) if item.type in ("fill", "drawing")}
        colours = [item.colour for item in items[: place["drawing"]] if item.type == "fill"]
        self.assertEqual(colours, [PAPER, ROOM_TINT])
        self.assertFalse(items[place["drawing"]].opaque)
