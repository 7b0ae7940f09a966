"""Patterns of lines: they start and end on a dash, meet at corners, and are as long as ISO 128 has them on
paper."""

from dataclasses import replace
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from drafting.geometry.polylines import Polylines
from drafting.linework.model import ROLES, Linework, PackedLines
from drafting.render.compose import compose
from drafting.render.page import whole_page
from drafting.sheets.scale import Scale
from drafting.styles.patterns import PATTERNS, fitted_to, stretches
from drafting.tests.outputs import write_pdf
from drafting.tests.pdf_reading import strokes
from drafting.tests.test_plotting_sheets import SHEET, WALL

LINES = sorted(set(PATTERNS) - {"solid"})


def drawn_with(*points, role="hidden"):
    """A drawing of one polyline, u, v in mm."""
    ring = np.column_stack([np.array(points, float), np.zeros(len(points))])
    one = np.zeros(1, np.int32)
    lines = PackedLines(
        Polylines.of([ring], 3), np.array([ROLES.index(role)], np.int8), one.astype(np.int8), one, one
    )
    return Linework(WALL.camera, lines, elements=("one",), layers=("Walls",))


def plotted(linework, *viewports):
    sheet = replace(SHEET, viewports=viewports or SHEET.viewports[:1])
    found = strokes(write_pdf([whole_page(compose(sheet))], lambda _: linework))
    return [s for s in found if s.layer == "Walls"]


class FittedTests(TestCase):
    @given(st.sampled_from(LINES), st.floats(0.13, 1.0), st.floats(0.1, 2000.0))
    def test_a_line_starts_and_ends_on_a_dash_whatever_its_length(self, name, width, length):
        pattern = tuple(part * width for part in PATTERNS[name])
        fit = fitted_to(pattern, length)
        if not fit:
            self.assertLess(length, pattern[0] + sum(pattern) / 2)
            return
        times = (length - fit[0]) / sum(fit)
        self.assertAlmostEqual(times, round(times), places=6)
        self.assertGreaterEqual(round(times), 1)

    @given(st.sampled_from(LINES), st.floats(0.13, 1.0), st.floats(0.0, 1.0))
    def test_a_long_line_hardly_changes_its_pattern(self, name, width, share):
        pattern = tuple(part * width for part in PATTERNS[name])
        length = sum(pattern) * (20 + share)
        self.assertAlmostEqual(fitted_to(pattern, length)[0] / pattern[0], 1.0, delta=0.03)


class StretchTests(TestCase):
    def test_a_rectangle_has_its_four_sides_wherever_it_begins(self):
        ring = np.array([(5.0, 0), (10, 0), (10, 4), (0, 4), (0, 0)])
        for start in range(5):
            with self.subTest(start):
                parts = list(stretches(np.roll(ring, start, axis=0), closed=True))
                lengths = sorted(float(np.hypot(*np.diff(p, axis=0).T).sum()) for p in parts)
                self.assertEqual(lengths, [4, 4, 10, 10])

    def test_a_round_line_is_one_stretch(self):
        angles = np.linspace(0, 2 * np.pi, 100, endpoint=False)
        (ring,) = stretches(np.column_stack([np.cos(angles), np.sin(angles)]), closed=True)
        self.assertEqual(len(ring), 101)

    def test_a_line_that_turns_back_has_a_corner_there(self):
        parts = list(stretches(np.array([(0.0, 0), (10, 0), (10, 0), (3, 0)]), closed=False))
        self.assertEqual([p.tolist() for p in parts], [[[0, 0], [10, 0]], [[10, 0], [3, 0]]])


class OnPaperTests(TestCase):
    def test_dashes_are_twelve_widths_and_gaps_three_at_every_scale(self):
        one = SHEET.viewports[0]
        for scale in ("1:20", "1:100", "1:500"):
            wide = replace(one, scale=Scale.parse(scale), centre=(50_000.0, 0.0))
            # It begins where it is cropped, in the middle of a dash.
            *begun, line = plotted(drawn_with((0, 0), (100_000, 0)), wide)
            self.assertLessEqual(sum(each.length for each in begun), 12 * 0.13 + 0.03)
            dash, gap = line.dashes
            self.assertAlmostEqual(line.width, 0.13, delta=0.001)
            self.assertAlmostEqual(dash, 12 * 0.13, delta=0.03)
            self.assertAlmostEqual(gap, 3 * 0.13, delta=0.01)

    def test_dashes_meet_at_a_corner(self):
        lines = plotted(drawn_with((0, 0), (4000, 0), (4000, 1500)))
        self.assertEqual(len(lines), 2)
        for line in lines:
            dash, gap = line.dashes
            times = (line.length - dash) / (dash + gap)
            self.assertAlmostEqual(times, round(times), places=2)
        np.testing.assert_allclose(lines[0].points[-1], lines[1].points[0], atol=1e-3)

    def test_a_line_too_short_for_a_gap_is_whole(self):
        (line,) = plotted(drawn_with((0, 0), (60, 0)))
        self.assertEqual(line.dashes, ())
