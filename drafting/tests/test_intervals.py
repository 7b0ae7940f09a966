"""Sets of stretches behave as sets of points."""

from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from drafting.linework.intervals import cover, next_free

STRETCHES = st.lists(st.tuples(st.integers(0, 90), st.integers(1, 20)), max_size=40)


def covered_by(stretches, gap=0.0):
    low, high, count = np.empty(2), np.empty(2), 0
    for start, length in stretches:
        low, high, count = cover(low, high, count, float(start), float(start + length), gap)
    return low, high, count


def free_of(low, high, count, end):
    at, found = 0.0, []
    while at < end:
        a, b = next_free(low, high, count, at, end)
        if a >= end:
            break
        found.append((a, b))
        at = b
    return found


class IntervalTests(TestCase):
    @settings(max_examples=80, deadline=None)
    @given(STRETCHES)
    def test_what_is_covered_is_the_union_kept_sorted_and_apart(self, stretches):
        low, high, count = covered_by(stretches)
        cells = {k for start, length in stretches for k in range(start, start + length)}
        self.assertEqual({k for i in range(count) for k in range(int(low[i]), int(high[i]))}, cells)
        self.assertTrue(all(high[i] < low[i + 1] for i in range(count - 1)))

    @settings(max_examples=80, deadline=None)
    @given(STRETCHES)
    def test_what_is_free_is_the_rest(self, stretches):
        cells = {k for start, length in stretches for k in range(start, start + length)}
        free = {k for a, b in free_of(*covered_by(stretches), 120.0) for k in range(int(a), int(b))}
        self.assertEqual(free, set(range(120)) - cells)

    @settings(max_examples=40, deadline=None)
    @given(STRETCHES, st.randoms(use_true_random=False))
    def test_the_order_of_covering_does_not_matter(self, stretches, chance):
        mixed = list(stretches)
        chance.shuffle(mixed)
        one, two = covered_by(stretches), covered_by(mixed)
        self.assertEqual(one[2], two[2])
        np.testing.assert_array_equal(one[0][: one[2]], two[0][: two[2]])

    def test_what_lies_within_the_gap_is_joined(self):
        self.assertEqual(covered_by([(0, 10), (11, 10)], gap=1.5)[2], 1)
        self.assertEqual(covered_by([(0, 10), (12, 10)], gap=1.5)[2], 2)
