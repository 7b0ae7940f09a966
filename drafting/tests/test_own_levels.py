"""Levels by itself: which heights are told of a house, and where they stand."""

from dataclasses import replace
from itertools import combinations
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from drafting.annotation.corners import Corners
from drafting.annotation.own_levels import LEVELLED, own_levels
from drafting.annotation.pieces import PlacedPiece, dump_piece, parse_piece
from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.render.annotation_items import piece_items
from drafting.render.backends.extents import bounds_of
from drafting.render.items import Text
from drafting.sheets.scale import Scale
from drafting.sheets.viewport import Viewport
from drafting.tests.scenes import box, drawn, prism

#: A house of 6 x 4 m, 2600 to its eaves, with a roof that rises to 4600, a window and a door to the south.
WALLS = box((0, 0, 0), (6000, 4000, 2600))
ROOF = prism([(-300, 2600), (6300, 2600), (3000, 4600)], -300, 4300)
WINDOW = box((1000, -20, 900), (2200, 0, 2100))
DOOR = box((3500, -20, 0), (4500, 0, 2110))
CLASSES = {"e0": "IfcWall", "e1": "IfcRoof", "e2": "IfcWindow", "e3": "IfcDoor"}


def house(*more, view="elevation:south"):
    linework = drawn([WALLS, ROOF, WINDOW, DOOR, *more], view)
    return replace(linework, classes=tuple(CLASSES.get(e, "IfcWindow") for e in linework.elements))


def seen(scale="1:100", turn=0.0):
    return Viewport("v", "key", Box(100, 100, 120, 120), Scale.parse(scale), (3000.0, 2000.0), turn=turn)


def levels(linework=None, wanted=LEVELLED, side="right", scale="1:100", taken=(), turn=0.0, **given):
    linework = linework or house()
    return own_levels(linework, Corners(linework), wanted, side, seen(scale, turn), taken, **given)


def heights(found):
    return [round(level.at.at[1]) for level in found]


def words(found, scale="1:100", zero=0.0, turn=0.0):
    """The levels' words and their boxes on paper."""
    viewport, made = seen(scale, turn), []
    for level in found:
        corners = Corners(house())
        items = piece_items(PlacedPiece("p", level, level.locate(corners.of), viewport, zero))
        made += [(item.text, bounds_of(item)) for item in items if isinstance(item, Text)]
    return made


class ToldTests(TestCase):
    def test_sills_heads_eaves_ridge_and_the_lowest_point(self):
        self.assertEqual(heights(levels()), [0, 900, 2100, 2110, 2600, 4600])
        self.assertEqual(heights(levels(wanted=["openings"])), [0, 900, 2100, 2110])
        self.assertEqual(heights(levels(wanted=["slabs"])), [2600, 4600])
        self.assertEqual(heights(levels(wanted=["whole"])), [0, 4600])

    def test_what_a_storey_tells_is_not_told_twice(self):
        self.assertEqual(heights(levels(known=[0.0, 2600.0])), [900, 2100, 2110, 4600])

    def test_what_something_hides_is_not_told(self):
        hedge = box((900, -500, 0), (2300, -400, 1500))
        self.assertIn(1500, heights(levels(house(hedge), wanted=["openings"])))
        true = {"e2": (900.0, 2100.0), "e4": (0.0, 1800.0)}
        self.assertEqual(heights(levels(house(hedge), wanted=["openings"], heights=true)), [0, 2100, 2110])

    def test_figures_are_above_the_buildings_zero(self):
        self.assertEqual(
            [text for text, _ in words(levels(wanted=["whole"]), zero=150.0)], ["+0.150", "+4.750"]
        )

    def test_each_is_attached_to_its_corner_and_follows_it(self):
        linework = house()
        for level in levels(linework):
            self.assertEqual(
                (len(level.at.ends), level.locate(Corners(linework).of).standing), (1, "followed")
            )
            self.assertEqual(parse_piece(dump_piece(level)), level)

    def test_nothing_to_tell_is_said(self):
        with self.assertRaisesRegex(SheetError, "not told already"):
            levels(wanted=["whole"], known=[0.0, 4600.0])

    def test_where_there_is_no_room_for_all_the_building_comes_before_what_is_rare_in_it(self):
        small = levels(house(box((5000, -20, 950), (5500, 0, 2100))), scale="1:500")
        self.assertEqual(heights(small), [0, 2100, 2600, 4600])


class PlaceTests(TestCase):
    @settings(max_examples=20, deadline=None)
    @given(st.sampled_from(["left", "right"]), st.sampled_from(["1:50", "1:100", "1:200", "1:500"]))
    def test_words_stand_beyond_the_building_and_clear_of_each_other(self, side, scale):
        ratio = float(Scale.parse(scale).ratio)
        edge = 6300.0 if side == "right" else -300.0
        found = levels(side=side, scale=scale)
        self.assertEqual([level.series for level in found], [f"{side} {k + 1}" for k in range(len(found))])
        boxes = [each for _, each in words(found, scale)]
        self.assertFalse(any(a.meets(b) for a, b in combinations(boxes, 2)))
        at = 160 + (edge - 3000.0) * ratio
        self.assertTrue(all(b.x > at if side == "right" else b.right < at for b in boxes))

    def test_levels_far_enough_apart_stand_in_one_column(self):
        tips = {round(level.at.at[0] * 0.01 + level.offset, 1) for level in levels(known=[2110.0])}
        self.assertEqual(len(tips), 1)

    @settings(max_examples=30, deadline=None)
    @given(
        st.floats(194, 230),
        st.floats(120, 190),
        st.sampled_from(["left", "right"]),
        st.sampled_from([0, 30, 90]),
    )
    def test_they_keep_clear_of_what_is_there(self, x, y, side, turn):
        there = [Box(x, y, 12, 8), Box(320 - x, y, 12, 8)]
        found = levels(side=side, taken=there, turn=turn)
        boxes = [box for _, box in words(found, turn=turn)]
        self.assertFalse(any(a.meets(b) for a in boxes for b in there))

    def test_where_there_is_no_room_they_stand_where_least_is_covered(self):
        wall = Box(160, 0, 400, 300)
        self.assertEqual(levels(taken=[wall]), levels())
