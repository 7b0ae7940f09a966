"""Two states of a sheet compared: each kind of change is told, where it is, and nothing else is."""

from dataclasses import replace
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from drafting.annotation.anchors import Anchor
from drafting.annotation.dimensions import Dimension
from drafting.annotation.notes import Note
from drafting.annotation.pieces import PlacedPiece
from drafting.geometry.boxes import Box
from drafting.geometry.sampling import sampled
from drafting.issuing.comparison import compare
from drafting.issuing.comparison_page import COME, GONE, comparison_page
from drafting.issuing.frozen import freeze
from drafting.issuing.line_changes import clusters_of, missing_from, stretches_of
from drafting.render.backend import Sources
from drafting.render.compose import compose
from drafting.sheets.fields import Revision
from drafting.sheets.paper import Paper
from drafting.sheets.scale import Scale
from drafting.sheets.sheet import Sheet
from drafting.sheets.viewport import Viewport
from drafting.tests.outputs import write_svg
from drafting.tests.scenes import box, drawn

#: A wall, the same with a second one 3 m to its right, and the same 100 mm higher.
DRAWINGS = {
    "wall": drawn([box((0, 0, 0), (4000, 300, 2600))], "elevation:south"),
    "two": drawn(
        [box((0, 0, 0), (4000, 300, 2600)), box((7000, 0, 0), (8000, 300, 2600))], "elevation:south"
    ),
    "high": drawn([box((0, 0, 0), (4000, 300, 2700))], "elevation:south"),
}
SOURCES = Sources(DRAWINGS.__getitem__)
VIEWPORT = Viewport("one", "wall", Box(40, 150, 200, 80), Scale.parse("1:50"), (4000, 1300), "1", "South")


def state(viewports=(VIEWPORT,), pieces=(), fields=None, **more):
    given = {"number": "A-01", "title": "South", **(fields or {})}
    sheet = Sheet(Paper.of("A3"), given, tuple(viewports), **more)
    placed = [PlacedPiece(str(k), p, p.locate(lambda e: None), VIEWPORT) for k, p in enumerate(pieces)]
    return freeze(sheet, compose(sheet, pieces=placed))


def differences(before, after, **given):
    return compare(before, after, SOURCES, **given).differences


class ComparisonTests(TestCase):
    def kinds(self, before, after, **given):
        return sorted({each.kind for each in differences(before, after, **given)})

    def test_a_sheet_is_no_different_from_itself(self):
        note = Note(Anchor((100.0, 100.0)), "Oak")
        comparison = compare(state(pieces=[note]), state(pieces=[note]), SOURCES)
        self.assertEqual((comparison.differences, len(comparison.gone), len(comparison.come)), ((), 0, 0))

    def test_a_wall_that_came_is_one_cluster_where_it_stands(self):
        comparison = compare(state(), state([replace(VIEWPORT, linework="two")]), SOURCES)
        (found,) = comparison.differences
        self.assertEqual((found.kind, found.viewport), ("lines", "one"))
        x, y = VIEWPORT.to_paper(7000, 0)
        self.assertEqual([found.box.x, found.box.y], [self.near(x), self.near(y)])
        self.assertEqual([found.box.width, found.box.height], [self.near(20.0), self.near(52.0)])
        self.assertEqual(len(comparison.gone), 0)
        lengths = np.hypot(*(comparison.come[:, 1] - comparison.come[:, 0]).T)
        self.assertAlmostEqual(float(lengths.sum()), 2 * (20 + 52), delta=0.1)

    def near(self, wanted):
        class Near(float):
            def __eq__(self, other):
                return abs(float(self) - other) < 0.3

            __hash__ = float.__hash__

        return Near(wanted)

    def test_a_wall_that_grew_has_its_top_gone_and_come(self):
        comparison = compare(state(), state([replace(VIEWPORT, linework="high")]), SOURCES)
        # Its top of 80 mm moved up by 2 mm; its two sides are 2 mm longer.
        gone = np.hypot(*(comparison.gone[:, 1] - comparison.gone[:, 0]).T).sum()
        come = np.hypot(*(comparison.come[:, 1] - comparison.come[:, 0]).T).sum()
        self.assertAlmostEqual(float(gone), 80.0, delta=1.5)
        self.assertAlmostEqual(float(come), 84.0, delta=1.5)

    def test_what_only_moved_on_the_paper_is_listed_and_nothing_else(self):
        moved = state([replace(VIEWPORT, box=Box(55, 140, 200, 80))])
        (found,) = differences(state(), moved)
        self.assertEqual((found.kind, found.words), ("moved", "“South” was moved by +15.0, -10.0 mm."))
        self.assertEqual(self.kinds(state(), moved, ignore_moves=False), ["lines", "moved"])

    def test_a_scale_a_crop_a_title_and_a_revision_are_told(self):
        scaled = state([replace(VIEWPORT, scale=Scale.parse("1:100"))])
        self.assertIn("1:50 is now 1:100", differences(state(), scaled)[0].words)
        cropped = state([replace(VIEWPORT, box=Box(40, 150, 180, 80))])
        self.assertIn("cropped", self.kinds(state(), cropped))
        self.assertNotIn("lines", self.kinds(state(), cropped))
        named = state(fields={"title": "South side"}, revisions=(Revision("P02"),))
        words = [each.words for each in differences(state(), named)]
        self.assertEqual(words, ["Revision – is now P02.", "Title: “South” is now “South side”."])

    def test_a_viewport_that_came_or_went(self):
        both = state([VIEWPORT, replace(VIEWPORT, id="two", box=Box(260, 150, 90, 60), name="Small")])
        self.assertIn(
            ("added", "“Small” was added."), [(d.kind, d.words) for d in differences(state(), both)]
        )
        self.assertIn("removed", self.kinds(both, state()))

    def test_words_that_became_others_are_paired_where_they_stand(self):
        old, new = (state(pieces=[Note(Anchor((100.0, 100.0)), words)]) for words in ("Oak", "Larch"))
        (found,) = differences(old, new)
        self.assertEqual((found.kind, found.words), ("text", "“Oak” is now “Larch”."))

    def test_a_dimension_that_reads_otherwise(self):
        def measured(to):
            chain = Dimension((Anchor((0.0, 0.0)), Anchor((to, 0.0))))
            return state(pieces=[chain])

        words = [d.words for d in differences(measured(4000.0), measured(4200.0)) if d.kind == "dimension"]
        self.assertEqual(len(words), 1)
        self.assertIn("200", words[0])

    def test_the_printed_comparison_has_both_states_and_says_which_is_which(self):
        comparison = compare(state(), state([replace(VIEWPORT, linework="high")]), SOURCES)
        page = comparison_page(comparison, "P01 of 2026-03-02", "now")
        svg = write_svg(page, DRAWINGS.__getitem__).decode()
        self.assertEqual(page.height, 297 + 14)
        for words in (GONE, COME, "only in P01 of 2026-03-02", "only in now"):
            self.assertIn(words, svg)


class LineChangeTests(TestCase):
    @settings(max_examples=40, deadline=None)
    @given(st.lists(st.tuples(*[st.floats(0, 300)] * 4), min_size=1, max_size=12), st.floats(0, 6.28))
    def test_lines_divided_otherwise_and_turned_about_are_the_same(self, pieces, turn):
        ends = np.array(pieces).reshape(-1, 2, 2)
        middle = ends.mean(axis=1)
        halves = np.concatenate([np.stack([middle, ends[:, 0]], 1), np.stack([ends[:, 1], middle], 1)])
        self.assertEqual(len(missing_from(sampled(ends), sampled(halves)).points), 0)
        self.assertEqual(len(missing_from(sampled(halves), sampled(ends)).points), 0)

    def test_a_part_that_is_missing_is_found_to_its_ends(self):
        whole = np.array([[[0.0, 0.0], [100.0, 0.0]]])
        parts = np.array([[[0.0, 0.0], [40.0, 0.0]], [[60.0, 0.0], [100.0, 0.0]]])
        ((start, end),) = stretches_of(missing_from(sampled(whole), sampled(parts)))
        self.assertAlmostEqual(float(start[0]), 40.0, delta=0.5)
        self.assertAlmostEqual(float(end[0]), 60.0, delta=0.5)

    def test_changes_apart_are_two_clusters_and_specks_are_none(self):
        ends = np.array([[[0.0, 0.0], [5.0, 0.0]], [[50.0, 0.0], [55.0, 0.0]], [[90.0, 0.0], [90.2, 0.0]]])
        self.assertEqual([round(box.x) for box in clusters_of(ends)], [0, 50])
