"""The border of a sheet after ISO 5457."""

from unittest import TestCase

import numpy as np

from drafting.render.border import BORDER, LETTERS, ZONE, border_items
from drafting.render.items import Path, Text
from drafting.sheets.paper import SIZES, Paper
from drafting.sheets.template import Blank
from drafting.sheets.template_presets import STANDARD
from drafting.styles.pens import CENTRING_PEN

BLANKS = [Blank(Paper.of(name, way), STANDARD) for name in SIZES for way in ("landscape", "portrait")]


class BorderTests(TestCase):
    def test_nothing_of_the_border_lies_off_the_paper(self):
        for blank in BLANKS:
            for item in border_items(blank):
                points = np.array(item.points if isinstance(item, Path) else [item.at])
                self.assertTrue(
                    (points >= 0).all() and (points <= [blank.paper.width, blank.paper.height]).all()
                )

    def test_the_frame_is_drawn_with_its_own_pen_and_last(self):
        for blank in BLANKS:
            frame = list(border_items(blank))[-1]
            self.assertEqual((frame.pen.width, frame.closed), (0.7, True))
            np.testing.assert_array_equal(frame.points, blank.frame.corners)

    def test_centring_marks_stand_on_the_middles_of_the_trimmed_sheet(self):
        for blank in BLANKS:
            lines = [
                np.array(i.points) for i in border_items(blank) if isinstance(i, Path) and len(i.points) == 2
            ]
            marks = [p for p in lines if np.ptp(p, axis=0).max() == BORDER + 5]
            self.assertEqual(len(marks), 4)
            for mark in marks:
                middle = mark.mean(axis=0)
                self.assertTrue(middle[0] == blank.paper.width / 2 or middle[1] == blank.paper.height / 2)
        self.assertEqual(CENTRING_PEN.width, 0.7)

    def test_zones_are_fifty_millimetres_but_for_the_outermost(self):
        blank = Blank(Paper.of("A3"), STANDARD)
        frame = blank.frame
        ticks = sorted(
            {
                i.points[0][0]
                for i in border_items(blank)
                if isinstance(i, Path) and np.ptp([x for x, _ in i.points]) == 0
            }
        )
        inner = [x for x in ticks if frame.x < x < frame.right]
        self.assertEqual(set(np.diff(inner)), {ZONE})
        self.assertIn(blank.paper.width / 2, inner)

    def test_letters_run_down_without_i_and_o_and_numerals_across(self):
        self.assertNotIn("I", LETTERS)
        self.assertNotIn("O", LETTERS)
        labels = [i for i in border_items(Blank(Paper.of("A0"), STANDARD)) if isinstance(i, Text)]
        left = sorted((i for i in labels if i.text.isalpha() and i.at[0] < 100), key=lambda i: -i.at[1])
        self.assertEqual("".join(i.text for i in left), LETTERS[: len(left)])
        lower = sorted((i for i in labels if i.text.isdigit() and i.at[1] < 100), key=lambda i: i.at[0])
        self.assertEqual([int(i.text) for i in lower], list(range(1, len(lower) + 1)))
