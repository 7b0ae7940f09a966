"""Hatches: spaced and turned on paper, within what is cut, still when a frame is cropped."""

import math
from dataclasses import replace
from unittest import TestCase

import numpy as np
import shapely
from hypothesis import given
from hypothesis import strategies as st

from drafting.geometry.boxes import Box
from drafting.render.backend import HATCHES as LAYER
from drafting.render.compose import compose
from drafting.render.page import whole_page
from drafting.sheets.scale import Scale
from drafting.styles.hatches import HATCHES, HatchLine, hatch_lines
from drafting.styles.pen_presets import CONSTRUCTION
from drafting.styles.pen_table import CutStyle, PenTableSpec
from drafting.tests.outputs import write_pdf
from drafting.tests.pdf_reading import areas, strokes
from drafting.tests.scenes import box, drawn
from drafting.tests.test_plotting_sheets import SHEET

ORIGIN = np.zeros(2)
#: A wall of stone, 6 m by 0.8 m, cut by a plan.
WALL = drawn([box((0, 0, 0), (6000, 800, 2600))], "plan:0")


def plotted(viewport, table=CONSTRUCTION):
    pdf = write_pdf([whole_page(compose(replace(SHEET, viewports=(viewport,)), table))], lambda _: WALL)
    return [s.points for s in strokes(pdf) if s.layer == LAYER], pdf


def within(*areas):
    """Areas as the hatches take them."""
    return [[np.array(ring.coords[:-1]) for ring in (area.exterior, *area.interiors)] for area in areas]


class HatchLineTests(TestCase):
    def test_lines_are_as_far_apart_and_as_steep_as_asked(self):
        lines = hatch_lines(HatchLine(45.0), 2.0, 15.0, within(shapely.box(0, 0, 60, 40)), ORIGIN)
        steps = lines[:, 1] - lines[:, 0]
        angles = np.degrees(np.arctan2(steps[:, 1], steps[:, 0])) % 180
        np.testing.assert_allclose(angles, 60, atol=1e-6)
        across = np.array([-math.sin(math.radians(60)), math.cos(math.radians(60))])
        np.testing.assert_allclose(np.diff(np.sort(lines[:, 0] @ across)), 2.0, atol=1e-6)

    @given(st.sampled_from(sorted(HATCHES)), st.floats(0.5, 5.0), st.floats(-180, 180), st.floats(1, 30))
    def test_every_line_lies_within_its_area(self, name, spacing, turn, size):
        hole = [(size * x, size * y) for x, y in ((0.1, 0.1), (0.3, 0.1), (0.2, 0.2))]
        area = shapely.Polygon([(0, 0), (size, 0), (size, size), (size / 2, size / 3), (0, size)], [hole])
        for family in HATCHES[name]:
            lines = hatch_lines(family, spacing, turn, within(area), ORIGIN)
            if len(lines):
                self.assertTrue(shapely.covers(area.buffer(1e-6), shapely.linestrings(lines)).all())

    @given(st.sampled_from(sorted(HATCHES)), st.floats(0, 40), st.floats(0, 40))
    def test_a_hatch_runs_on_from_one_area_to_the_next(self, name, x, y):
        whole, left = shapely.box(0, 0, 80, 40), shapely.box(0, 0, x + 10, 40)
        right = shapely.box(x + 10, 0, 80, 40)
        for family in HATCHES[name]:
            both, lines = (
                hatch_lines(family, 2.0, y, within(*areas), ORIGIN) for areas in ((left, right), (whole,))
            )
            lengths = [np.hypot(*(found[:, 1] - found[:, 0]).T).sum() for found in (both, lines)]
            self.assertAlmostEqual(*lengths, places=4)

    def test_what_is_hatched_is_as_much_as_the_area_holds(self):
        ring = shapely.Point(0, 0).buffer(20).difference(shapely.Point(3, 2).buffer(9))
        for turn in range(0, 180, 20):
            lines = hatch_lines(HatchLine(0.0), 0.1, turn, within(ring), ORIGIN)
            length = np.hypot(*(lines[:, 1] - lines[:, 0]).T).sum()
            self.assertAlmostEqual(length * 0.1 / ring.area, 1.0, delta=0.002)

    def test_dashes_have_their_lengths_where_no_side_cuts_them(self):
        lines = hatch_lines(
            HatchLine(0.0, 1.0, 0.0, (3.0, 2.0)), 1.0, 0.0, within(shapely.box(-0.5, -0.5, 52.5, 0.5)), ORIGIN
        )
        lengths = lines[:, 1, 0] - lines[:, 0, 0]
        self.assertEqual(len(lines), 11)
        np.testing.assert_allclose(lengths[:10], 3.0)


class OnPaperTests(TestCase):
    def test_stone_has_lines_of_one_and_a_half_millimetres_at_every_scale(self):
        for scale in ("1:50", "1:100"):
            lines, _ = plotted(replace(SHEET.viewports[0], scale=Scale.parse(scale), centre=(3000, 400)))
            across = np.array([-math.sqrt(0.5), math.sqrt(0.5)])
            at = np.unique(np.round([line[0] @ across for line in lines], 2))
            np.testing.assert_allclose(np.diff(at), 1.5, atol=0.011)

    def test_cropping_moves_no_line(self):
        one = replace(SHEET.viewports[0], centre=(3000, 400), box=Box(40, 200, 160, 60))
        cropped = replace(one, box=Box(50, 200, 140, 60))
        across = np.array([-math.sqrt(0.5), math.sqrt(0.5)])
        before, after = (
            {round(float(line[0] @ across), 2) for line in plotted(v)[0]} for v in (one, cropped)
        )
        self.assertLessEqual(after, before)

    def test_the_first_row_that_names_a_material_fills_it(self):
        table = PenTableSpec(
            CONSTRUCTION.roles,
            cuts=(CutStyle("Granite"), CutStyle("stone", "#ff0000"), CutStyle("", "#00ff00")),
        )
        lines, pdf = plotted(replace(SHEET.viewports[0], centre=(3000, 400)), table)
        self.assertEqual(lines, [])
        self.assertIn((1.0, 0.0, 0.0), [a.colour for a in areas(pdf)])
        self.assertNotIn((0.0, 1.0, 0.0), [a.colour for a in areas(pdf)])
