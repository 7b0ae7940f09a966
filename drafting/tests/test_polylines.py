"""Packed polylines hold what was put in, whatever is taken out or moved; boxes share what they share."""

from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from drafting.geometry.boxes import Box, intersection, union
from drafting.geometry.polylines import Polylines

figures = st.floats(-1e6, 1e6)
lines = st.lists(st.lists(st.tuples(figures, figures), min_size=1, max_size=6), max_size=8)
boxes = st.builds(Box, *(st.floats(-100, 100) for _ in "xy"), *(st.floats(0.1, 100) for _ in "wh"))


class PolylinesTests(TestCase):
    @given(lines)
    def test_each_line_comes_back(self, given_):
        packed = Polylines.of(given_)
        self.assertEqual(len(packed), len(given_))
        self.assertEqual([line.tolist() for line in packed], [[list(p) for p in line] for line in given_])

    @given(lines, st.data())
    def test_a_choice_is_the_chosen_lines_in_its_order(self, given_, data):
        which = data.draw(st.lists(st.integers(0, len(given_) - 1), max_size=5)) if given_ else []
        chosen = Polylines.of(given_).select(np.array(which, int))
        self.assertEqual([line.tolist() for line in chosen], [[list(p) for p in given_[k]] for k in which])

    @given(lines.filter(bool))
    def test_bounds_are_each_lines_own(self, given_):
        low, high = Polylines.of(given_).bounds()
        for k, line in enumerate(given_):
            np.testing.assert_array_equal(low[k], np.min(line, axis=0))
            np.testing.assert_array_equal(high[k], np.max(line, axis=0))

    def test_a_map_moves_every_point(self):
        turned = Polylines.of([[(1, 0), (2, 0)]]).mapped(
            np.array([[0.0, 1.0], [-1.0, 0.0]]), np.array([5.0, 5.0])
        )
        np.testing.assert_allclose(turned[0], [(5, 6), (5, 7)])


class BoxTests(TestCase):
    @given(boxes, boxes)
    def test_what_two_boxes_share_lies_in_both_and_their_union_holds_them(self, a, b):
        shared, both = intersection(a, b), union([a, b])
        self.assertEqual(shared is not None, a.meets(b))
        grown = Box(both.x - 1e-9, both.y - 1e-9, both.width + 2e-9, both.height + 2e-9)
        self.assertTrue(grown.holds(a) and grown.holds(b))
        if shared:
            self.assertLessEqual(max(a.x, b.x), shared.right + 1e-9)
            self.assertGreater(shared.width * shared.height, 0)
