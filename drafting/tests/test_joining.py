"""From pieces to lines."""

from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from drafting.linework.joining import join
from drafting.linework.segments import Segments


def segments(*ends, role=None, element=None, depth=None):
    flat = np.array(ends, float)
    depths = np.zeros(len(flat)) if depth is None else np.array(depth, float)
    return Segments.of(
        np.concatenate([flat, np.broadcast_to(depths[:, None, None], (len(flat), 2, 1))], axis=2),
        np.array(role or [2] * len(flat), np.int8),
        np.array(element or [0] * len(flat), np.int32),
    )


def lines(polylines):
    return [line[:, :2].tolist() for line in polylines.lines]


class JoiningTests(TestCase):
    def test_pieces_in_a_row_are_one_line(self):
        got = lines(join(segments([(0, 0), (10, 0)], [(20, 0), (10, 0)], [(20, 0), (30, 0)])))
        self.assertEqual(len(got), 1)
        self.assertEqual(sorted(got[0]), [[0, 0], [30, 0]])

    def test_pieces_round_a_corner_are_one_polyline_and_a_closed_ring_ends_where_it_begins(self):
        got = lines(
            join(segments([(0, 0), (10, 0)], [(10, 10), (10, 0)], [(10, 10), (0, 10)], [(0, 10), (0, 0)]))
        )
        self.assertEqual([len(x) for x in got], [5])
        self.assertEqual(got[0][0], got[0][-1])

    def test_where_three_meet_those_in_one_line_run_through_and_the_third_ends(self):
        got = lines(join(segments([(0, 0), (10, 0)], [(10, 0), (20, 0)], [(10, 0), (10, 10)])))
        self.assertEqual(sorted(sorted(x) for x in got), [[[0, 0], [20, 0]], [[10, 0], [10, 10]]])

    def test_lines_of_two_bands_are_not_joined(self):
        two = segments([(0, 0), (10, 0)], [(10, 0), (20, 0)])
        self.assertEqual(
            len(lines(join(Segments(two.ends, two.role, two.element, np.array([0, 1], np.int8))))), 2
        )

    def test_of_two_on_each_other_the_heavier_stays_and_the_lighter_keeps_what_is_free(self):
        got = join(segments([(0, 0), (100, 0)], [(60, 0), (20, 0)], role=[2, 0]))
        self.assertEqual(sorted((int(r), sorted(x)) for r, x in zip(got.role, lines(got), strict=True)), [
            (0, [[20, 0], [60, 0]]), (2, [[0, 0], [20, 0]]), (2, [[60, 0], [100, 0]]),
        ])  # fmt: skip

    def test_of_two_alike_the_nearer_stays(self):
        got = join(segments([(0, 0), (100, 0)], [(0, 0), (100, 0)], element=[0, 1], depth=[-500, -100]))
        self.assertEqual(got.element.tolist(), [1])

    def test_lines_of_one_role_that_run_beside_each_other_are_one(self):
        for apart, drawn in ((0.01, 1), (0.15, 1), (0.25, 2)):
            with self.subTest(apart=apart):
                got = lines(join(segments([(0, 0), (100, 0)], [(0, apart), (100, apart)])))
                self.assertEqual(len(got), drawn)
        two_roles = lines(join(segments([(0, 0), (100, 0)], [(0, 0.15), (100, 0.15)], role=[1, 2])))
        self.assertEqual(len(two_roles), 2)

    def test_of_two_that_cross_at_a_small_angle_only_what_lies_beside_goes(self):
        got = lines(join(segments([(0, 0), (100, 0)], [(0, -1), (100, 1)])))
        length = sum(np.hypot(*np.diff(line, axis=0).T).sum() for line in got)
        # Beside the other, within 0.2 mm, run 20 mm of the second.
        self.assertAlmostEqual(length, 180.0, delta=0.1)
        across = lines(join(segments([(0, 0), (100, 0)], [(0, -10), (100, 10)])))
        self.assertAlmostEqual(sum(np.hypot(*np.diff(x, axis=0).T).sum() for x in across), 202.0, delta=0.1)

    def test_a_speck_goes_unless_it_joins_others_at_both_ends(self):
        hung = lines(join(segments([(0, 0), (90, 0)], [(90, 0), (150, 0)], [(90, 0), (90, 0.7)])))
        self.assertEqual([len(x) for x in hung], [2])

    def test_a_speck_that_joins_nothing_goes_and_one_that_joins_stays(self):
        got = lines(join(segments([(0, 0), (0.5, 0)], [(50, 0), (90, 0)], [(90, 0), (90, 0.5)])))
        self.assertEqual([len(x) for x in got], [3])

    @settings(max_examples=40, deadline=None)
    @given(
        st.lists(
            st.tuples(st.integers(0, 400), st.integers(2, 80), st.sampled_from([0, 1, 2])),
            min_size=1,
            max_size=25,
        )
    )
    def test_the_ink_on_one_line_is_the_union_of_what_was_given(self, given_strokes):
        ends = [[(a, 2.0 * a), (a + b, 2.0 * (a + b))] for a, b, _ in given_strokes]
        got = lines(join(segments(*ends, role=[r for *_, r in given_strokes])))
        ink = sum(np.hypot(*np.subtract(x[-1], x[0])) for x in got)
        covered = {k for a, b, _ in given_strokes for k in range(a, a + b)}
        self.assertAlmostEqual(ink, len(covered) * 5**0.5, delta=0.1)
