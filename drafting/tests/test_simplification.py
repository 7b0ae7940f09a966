"""Simplified for a small scale: what runs together on paper is left out once, and nothing else is."""

from dataclasses import replace
from itertools import pairwise
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from drafting.linework.model import Linework
from drafting.render.compose import drawing_of
from drafting.render.placed import PlacedDrawing
from drafting.styles.pen_table import CutStyle
from drafting.tests.scenes import box, drawn
from drafting.tests.test_touch_ups import WINDOW
from drafting.touchup.simplification import Simplification

RULE = Simplification()


def left(linework, ratio, rule=RULE):
    """What is still drawn, as lines; mm."""
    item = replace(drawing_of(WINDOW), redrawn=(rule.redrawn(linework, ratio),))
    return [line for _, _, lines in PlacedDrawing(item, linework).line_groups() for line in lines]


def length(lines):
    return sum(float(np.hypot(*np.diff(line, axis=0).T).sum()) for line in lines)


def strips(*places):
    """Boards of so many mm, seen from the south, one above the other from each place, of two woods."""
    woods = [("Oak", "Pine")[k % 2] for k in range(len(places))]
    return drawn([box((0, 0, z), (5000, 100, z + high)) for z, high in places], "elevation:south", woods)


class SimplificationTests(TestCase):
    def test_it_holds_at_its_scale_and_smaller(self):
        self.assertEqual([RULE.holds_at(1 / n) for n in (50, 100, 200, 500)], [False, False, True, True])

    def test_lines_nearer_than_a_quarter_of_a_millimetre_become_one(self):
        """Two walls with a joint of 30 mm between them: 0.15 mm at 1:200, and 0.3 mm at 1:100."""
        linework = strips((0, 1000), (1030, 1000))
        self.assertAlmostEqual(length(left(linework, 1 / 100)), 2 * 12_000, delta=1)
        self.assertAlmostEqual(length(left(linework, 1 / 200)), 2 * 12_000 - 5000, delta=1)

    @given(st.integers(2, 12), st.sampled_from([20.0, 30.0, 40.0]))
    def test_of_many_lines_side_by_side_every_one_that_goes_has_one_beside_it_that_stays(self, count, pitch):
        linework = strips(*((k * pitch, pitch) for k in range(count)))
        pairs = [pair for line in left(linework, 1 / 200) for pair in pairwise(line)]
        kept = {float(a[1]) for a, b in pairs if abs(a[1] - b[1]) < 1 and abs(a[0] - b[0]) > 4000}
        for k in range(count + 1):
            self.assertLessEqual(min(abs(k * pitch - y) for y in kept), 50.0)

    def test_a_line_stays_where_it_runs_beside_nothing(self):
        """A short board under a long one: where it ends the long one goes on."""
        meshes = [box((0, 0, 0), (5000, 100, 1000)), box((0, 0, 1020), (2000, 100, 2000))]
        linework = drawn(meshes, "elevation:south")
        lines = left(linework, 1 / 200)
        self.assertAlmostEqual(length(lines), 12_000 + 2 * (2000 + 980) - 2000, delta=60)

    def test_crumbs_beside_a_line_go_and_what_stands_alone_stays(self):
        """Behind a gap of 10 mm between two boards the edges of a post are seen: dots, at 1:200."""
        boards = [box((0, 0, 0), (5000, 100, 1000)), box((0, 0, 1010), (5000, 100, 2000))]
        post = box((2000, 200, 0), (2100, 300, 2000))
        lines = left(drawn([*boards, post], "elevation:south"), 1 / 200)
        crumbs = [line for line in lines if np.ptp(line, axis=0).max() < 20]
        self.assertEqual(crumbs, [])
        alone = drawn([box((0, 0, 0), (40, 40, 40))], "elevation:south")
        self.assertGreater(length(left(alone, 1 / 200, replace(RULE, small=0.0))), 39)

    def test_what_is_drawn_smaller_than_a_part_is_left_out(self):
        """A knob of 60 mm is 0.3 mm at 1:200; a post of 60 mm by 2 m is not small."""
        meshes = [box((0, 0, 0), (60, 60, 60)), box((3000, 0, 0), (3060, 60, 2000))]
        linework = drawn(meshes, "elevation:south")
        self.assertAlmostEqual(length(left(linework, 1 / 50)), 240 + 4120, delta=1)
        lines = left(linework, 1 / 200, replace(RULE, apart=0.0))
        self.assertAlmostEqual(length(lines), 4120, delta=1)

    def test_nothing_asked_for_leaves_all(self):
        linework = strips((0, 1000), (1030, 1000))
        nothing = Simplification(apart=0.0, small=0.0)
        self.assertAlmostEqual(length(left(linework, 1 / 1000, nothing)), 24_000, delta=1)
        self.assertEqual(left(Linework(linework.camera), 1 / 1000), [])

    def test_crossing_and_end_to_end_lines_are_let_be(self):
        meshes = [box((0, 0, 0), (1000, 100, 1000)), box((1000, 0, 0), (2000, 100, 1000))]
        linework = drawn(meshes, "elevation:south", ["stone", "oak"])
        self.assertAlmostEqual(length(left(linework, 1 / 200)), length(left(linework, 1 / 1)), delta=1)


class ToneTests(TestCase):
    def test_a_hatch_turns_to_a_fill_with_as_much_ink(self):
        hatched = CutStyle(hatch="diagonal", spacing=1.0, width=0.25, colour="#000000")
        self.assertEqual((hatched.as_tone.fill, hatched.as_tone.hatch), ("#bfbfbf", ""))
        over = replace(hatched, fill="#ff0000")
        self.assertEqual(over.as_tone.fill, "#bf0000")
        self.assertEqual(CutStyle(fill="#123456").as_tone, CutStyle(fill="#123456"))
        dense = replace(hatched, hatch="crossed", spacing=0.3, width=0.25)
        self.assertEqual(dense.as_tone.fill, "#000000")
