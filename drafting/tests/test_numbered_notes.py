"""Numbered notes, fields in notes, named styles; and chains along a line."""

import re
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from drafting.annotation.anchors import Anchor
from drafting.annotation.corners import Corners
from drafting.annotation.dimensions import STYLES, Dimension, DimensionStyle, measured
from drafting.annotation.fields import filled_in, has_fields, room_fields
from drafting.annotation.inner_chains import inner_chain
from drafting.annotation.notes import Note
from drafting.annotation.numbered_notes import ListedNote, NumberedNote, in_order, number_order
from drafting.annotation.pieces import PlacedPiece
from drafting.annotation.schedules import Entry
from drafting.annotation.styles import TextStyle, dimension_style, dump_style, in_text_style, parse_style
from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.render.annotation_items import piece_boxes, piece_items
from drafting.render.items import Path, Text
from drafting.sheets.scale import Scale
from drafting.sheets.viewport import Viewport
from drafting.tests.scenes import box, drawn

HERE = Anchor((50.0, 60.0))
PLAN = Viewport("v", "k", Box(0, 0, 300, 200), Scale.parse("1:50"), (4500.0, 3000.0), "1", "Plan")
#: A house of 9 x 6 m with walls of 300 mm and a partition of 100 mm.
HOUSE = [
    box((0, 0, 0), (9000, 300, 2600)),
    box((0, 5700, 0), (9000, 6000, 2600)),
    box((0, 300, 0), (300, 5700, 2600)),
    box((8700, 300, 0), (9000, 5700, 2600)),
    box((4000, 300, 0), (4100, 5700, 2600)),
]


def placed(piece, **said):
    return PlacedPiece("p", piece, piece.locate(lambda e: None), **said)


class NumberedTests(TestCase):
    def test_it_shows_its_number_in_a_mark_with_a_leader_to_what_it_speaks_of(self):
        for mark in ("circle", "hexagon", "box"):
            with self.subTest(mark):
                piece = NumberedNote(HERE, "n", (30.0, 20.0), mark)
                items = piece_items(placed(piece, label=("A12",)))
                (text,) = [i for i in items if isinstance(i, Text)]
                (found,) = piece_boxes([(placed(piece, label=("A12",)), items)])
                self.assertEqual((text.text, found.text), ("A12", "A12"))
                self.assertAlmostEqual(found.box.middle[0], 80.0, places=6)
                leader = next(i for i in items if isinstance(i, Path) and not i.closed)
                self.assertEqual(leader.points[0], (50.0, 60.0))

    def test_without_a_leader_it_is_the_mark_alone(self):
        items = piece_items(placed(NumberedNote(HERE, "n", leader="none"), label=("1",)))
        self.assertTrue(all(i.closed for i in items if isinstance(i, Path)))

    @given(st.permutations(["1", "2", "9", "10", "A1", "A2", "A10", "B"]))
    def test_notes_stand_in_the_order_of_their_numbers(self, numbers):
        found = [note.number for note in in_order([ListedNote(n, "") for n in numbers])]
        self.assertEqual(found, ["1", "2", "9", "10", "A1", "A2", "A10", "B"])
        self.assertEqual(number_order("a2"), number_order("A2"))


class FieldTests(TestCase):
    @given(st.text("abc {}", max_size=30))
    def test_what_names_no_field_stays_as_it_is_typed(self, text):
        self.assertEqual(filled_in(text, {}), text)

    def test_fields_follow_capitals_or_not_and_rooms_are_told_apart(self):
        room = Entry({"Number": "0.1", "Name": "Kitchen", "Area": 12.34e6})
        values = {"Number": "D01"} | room_fields(room)
        text = "{number} to {room NAME}, {Room area}"
        self.assertTrue(has_fields(text))
        self.assertEqual(filled_in(text, values), "D01 to Kitchen, 12.3 m²")


class StyleTests(TestCase):
    def test_a_note_has_the_figures_of_its_style_and_its_own_where_there_is_none(self):
        style = TextStyle(5.0, True, "#9c3f24")
        note = Note(HERE, "Oak", named="s")
        (text,) = [i for i in piece_items(placed(in_text_style(note, {"s": style}))) if isinstance(i, Text)]
        self.assertEqual((text.size, text.bold, text.colour), (5.0, True, "#9c3f24"))
        self.assertEqual(in_text_style(note, {}), note)
        self.assertEqual(parse_style(dump_style(style)), style)

    def test_a_dimension_is_lettered_ended_and_placed_as_its_style_says(self):
        chain = Dimension((Anchor((0.0, 0.0)), Anchor((4205.0, 0.0))), "horizontal", named="s")
        style = DimensionStyle("metres", 3, True, 3.5, "arrow", "inside", 4.0, 5.0, 5.0)
        self.assertEqual(dimension_style(chain, {"s": style}), style)
        self.assertEqual(dimension_style(chain, {}), STYLES["millimetres"])
        piece = PlacedPiece("p", chain, chain.locate(lambda e: None), PLAN, style=style)
        items = piece_items(piece)
        (text,) = [i for i in items if isinstance(i, Text)]
        self.assertEqual((text.text, text.size), ("4.205 ±0.005", 3.5))
        line_y = piece.points[0][1] + chain.offset
        self.assertAlmostEqual(text.at[1] + text.size / 2, line_y)
        starts = [i.points[0][1] for i in items if isinstance(i, Path) and i.points[0][0] == i.points[1][0]]
        self.assertTrue(all(abs(y - piece.points[0][1] - 4.0) < 1e-9 for y in starts))

    def test_parts_of_an_inch_are_as_fine_as_the_style_says(self):
        words = [DimensionStyle("feet", parts).words(88.9 + 25.4 / 16) for parts in (0, 1, 4)]
        self.assertEqual(words, ["0'-4\"", "0'-3 1/2\"", "0'-3 9/16\""])

    def test_a_figure_that_was_moved_by_hand_lies_where_it_was_put(self):
        points = tuple(Anchor((u, 0.0)) for u in (0.0, 1000.0, 3000.0))
        plain = Dimension(points, "horizontal")
        moved = Dimension(points, "horizontal", shifts=((0.0, 0.0), (7.0, 3.0)))
        before, after = (
            {
                i.text: i.at
                for i in piece_items(PlacedPiece("p", d, d.locate(lambda e: None), PLAN))
                if isinstance(i, Text)
            }
            for d in (plain, moved)
        )
        self.assertEqual(before["1000"], after["1000"])
        np.testing.assert_allclose(np.subtract(after["2000"], before["2000"]), (7.0, 3.0), atol=1e-9)


class AlongTests(TestCase):
    def lengths(self, start, end, house=HOUSE):
        linework = drawn(house, "plan:0")
        chain = inner_chain(linework, Corners(linework), start, end)
        at = [anchor.at for anchor in chain.points]
        return chain, [round(length.measure) for length in measured(chain, at).lengths]

    def test_every_face_of_a_wall_that_the_line_meets_is_measured(self):
        chain, lengths = self.lengths((-500.0, 2000.0), (9500.0, 2040.0))
        self.assertEqual(lengths, [300, 3700, 100, 4600, 300])
        self.assertEqual((chain.measures, chain.offset), ("horizontal", 0.0))
        # What is a little aslant runs along the drawing.
        self.assertTrue(all(anchor.at[1] == 2000.0 for anchor in chain.points))

    def test_each_point_is_attached_to_its_wall(self):
        chain, lengths = self.lengths((2000.0, -500.0), (2000.0, 6500.0), HOUSE[:2])
        self.assertEqual(lengths, [300, 5400, 300])
        self.assertEqual(chain.measures, "vertical")
        self.assertTrue(all(re.fullmatch("e[01]", anchor.element) and anchor.ends for anchor in chain.points))
        moved = Corners(drawn([box((0, -200, 0), (9000, 100, 2600)), HOUSE[1]], "plan:0"))
        location = chain.locate(moved.of)
        self.assertEqual((location.standing, location.words), ("changed", "5400 is now 5600"))

    def test_a_line_that_crosses_nothing_is_refused(self):
        for start, end in (((500.0, 1000.0), (3000.0, 1000.0)), ((0.0, 0.0), (0.0, 0.1))):
            with self.assertRaises(SheetError):
                self.lengths(start, end)
