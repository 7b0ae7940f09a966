"""Notes: all of their words on lines of their width, and leaders that run from them to what they point at."""

from unittest import TestCase

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from drafting.annotation.anchors import Anchor
from drafting.annotation.notes import BULLET, CLEAR, MAX_LETTERS, Note, leader_line, note_box, note_lines
from drafting.annotation.pieces import PlacedPiece, parse_piece
from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.render.annotation_items import piece_boxes, piece_items
from drafting.render.items import Fill, Path, Text
from drafting.sheets.scale import Scale
from drafting.sheets.viewport import Viewport
from drafting.styles.lettering import text_width

WORDS = st.text(st.characters(codec="utf-8", exclude_categories=["C", "Z"]), min_size=1, max_size=30)


def note(text="Oak boards, oiled", **given):
    return Note(Anchor((0.0, 0.0)), text, **given)


def placed(piece):
    viewport = Viewport("v", "", Box(100, 100, 200, 150), Scale.parse("1:50"), (0.0, 0.0), turn=90.0)
    return PlacedPiece("p", piece, piece.locate(lambda element: None), viewport)


class LineTests(TestCase):
    @settings(max_examples=60)
    @given(st.lists(WORDS, min_size=1, max_size=40), st.sampled_from([8.0, 20.0, 60.0]))
    def test_no_letter_is_lost_and_no_line_is_wider_than_its_box(self, words, width):
        assume(words[0] != BULLET.strip())  # a list's hyphen stands as a dash
        piece = note(" ".join(words), width=width)
        lines = [line.text for line in note_lines(piece)]
        self.assertEqual("".join(lines).replace(" ", ""), "".join("".join(words).split()))
        for line in lines:
            self.assertTrue(len(line) == 1 or text_width(line, piece.size) <= width + 1e-9, line)

    def test_paragraphs_and_lists_begin_on_lines_of_their_own(self):
        lines = note_lines(note("Roof\n\n- cedar shingles\n- felt", width=200))
        self.assertEqual([line.text for line in lines], ["Roof", "–", "cedar shingles", "–", "felt"])
        indent = {line.x for line in lines if line.text in ("felt", "cedar shingles")}
        self.assertEqual(len(indent), 1)
        self.assertGreater(indent.pop(), 0)
        # A blank line keeps its height.
        self.assertAlmostEqual(lines[0].y - lines[1].y, 2 * (lines[1].y - lines[3].y))

    def test_lines_lie_where_they_are_aligned_to(self):
        for align, share in (("left", 0.0), ("middle", 0.5), ("right", 1.0)):
            (line,) = note_lines(note("Oak", align=align, width=40))
            self.assertAlmostEqual(line.x, share * (40 - text_width("Oak", 2.5)))

    def test_ten_thousand_letters_without_a_space_are_broken(self):
        lines = note_lines(note("m" * MAX_LETTERS, width=50))
        self.assertEqual(sum(len(line.text) for line in lines), MAX_LETTERS)


class LeaderTests(TestCase):
    def test_it_leaves_on_the_side_of_what_it_points_at(self):
        piece = note(leader="arrow")
        box = note_box(piece, (50.0, 50.0))
        for tip, x in (((0.0, 0.0), box.x - CLEAR), ((200.0, 0.0), box.right + CLEAR)):
            line = leader_line(piece, (50.0, 50.0), tip)
            self.assertEqual((line[0], line[-1][0]), (tip, x))
            self.assertEqual(line[1][1], line[2][1])

    def test_each_arm_has_a_leader_and_its_end(self):
        piece = note(leader="dot", arms=(Anchor((500.0, 0.0)), Anchor((0.0, 900.0))), offset=(30.0, 20.0))
        items = piece_items(placed(piece))
        self.assertEqual(sum(isinstance(item, Path) for item in items), 3)
        # Three dots, and the paper that the words stand on.
        self.assertEqual(sum(isinstance(item, Fill) for item in items), 4)

    def test_words_are_upright_and_as_large_in_a_turned_viewport(self):
        texts = [i for i in piece_items(placed(note(offset=(30.0, 20.0)))) if isinstance(i, Text)]
        self.assertEqual({(t.turn, t.size) for t in texts}, {(0.0, 2.5)})

    def test_it_is_taken_hold_of_by_its_words(self):
        piece = placed(note("Oak", leader="arrow", offset=(60.0, 40.0)))
        (box,) = piece_boxes([(piece, piece_items(piece))])
        self.assertAlmostEqual(box.box.width, text_width("Oak", 2.5))
        self.assertEqual(box.text, "Oak")


class RefusedTests(TestCase):
    def test_a_note_without_words_is_refused(self):
        with self.assertRaises(SheetError):
            note(" \n ").check(None)

    def test_what_is_too_long_or_no_note_is_refused_by_its_field(self):
        for wrong in ({"text": "m" * (MAX_LETTERS + 1)}, {"width": 0}, {"align": "justified"}):
            data = {"kind": "note", "at": {"at": [0, 0]}, "text": "Oak", **wrong}
            with self.assertRaises(SheetError) as caught:
                parse_piece(data)
            self.assertEqual(list(caught.exception.fields), list(wrong))
