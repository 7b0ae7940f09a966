"""The list of drawings, and the titles under drawings: nothing runs over, and bars measure true."""

from dataclasses import replace
from fractions import Fraction
from unittest import TestCase

import numpy as np

from drafting.geometry.boxes import Box
from drafting.render.compose import compose
from drafting.render.drawing_list import COLUMNS, drawing_list_items, list_box
from drafting.render.drawing_title import drawing_title_items
from drafting.render.items import Fill, Path, Text
from drafting.render.mark_items import bar_lengths
from drafting.sheets.paper import Paper
from drafting.sheets.scale import FEET_LADDER, LADDER, Scale
from drafting.sheets.sheet import DrawingList, Sheet
from drafting.sheets.viewport import Viewport
from drafting.styles.lettering import text_width

ROWS = (
    ("A-01", "Ground floor", "A3", "As shown", "P02"),
    ("A-02", "Upper floor " * 20, "Arch D", "1:100", ""),
)
LIST = DrawingList((30.0, 277.0), ROWS)


class DrawingListTests(TestCase):
    def test_it_hangs_from_its_corner_and_has_a_row_for_each_sheet(self):
        box = list_box(LIST)
        self.assertEqual((box.x, box.top), LIST.at)
        words = [i.text for i in drawing_list_items(LIST) if isinstance(i, Text)]
        self.assertEqual([w for w in words if w.startswith("A-")], ["A-01", "A-02"])

    def test_no_words_run_out_of_their_column(self):
        edges = np.cumsum([LIST.at[0], *(width for _, width in COLUMNS)])
        for item in drawing_list_items(LIST):
            if isinstance(item, Text) and item.text != "List of drawings":
                column = int(np.searchsorted(edges, item.at[0])) - 1
                self.assertLess(item.at[0] + text_width(item.text, item.size, item.bold), edges[column + 1])

    def test_issues_have_columns_with_date_purpose_and_revision(self):
        issued = DrawingList(
            (30.0, 277.0), tuple((*row, "P01", "") for row in ROWS),
            (("2026-03-02", "Comment"), ("2026-03-16", "Tender")),
        )  # fmt: skip
        box, lettered = list_box(issued), [i for i in drawing_list_items(issued) if isinstance(i, Text)]
        self.assertGreater(box.width, list_box(LIST).width)
        self.assertLessEqual({"2026-03-02", "Comment", "Tender", "P01"}, {item.text for item in lettered})
        self.assertTrue(all(box.x < i.at[0] < box.right and box.y < i.at[1] < box.top for i in lettered))

    def test_it_stays_within_the_frame_when_issues_are_added(self):
        sheet = Sheet(Paper.of("A3"), drawing_list=DrawingList((300.0, 200.0), ROWS))
        (box,) = compose(sheet).tables
        self.assertAlmostEqual(box.right, sheet.blank.frame.right)
        self.assertEqual((box.width, box.top), (list_box(LIST).width, 200.0))

    def test_it_is_reported_where_it_lies(self):
        self.assertEqual(compose(Sheet(Paper.of("A3"), drawing_list=LIST)).tables, (list_box(LIST),))
        self.assertEqual(compose(Sheet(Paper.of("A3"))).tables, ())


class ScaleBarTests(TestCase):
    def items(self, scale, style="bar", **given):
        viewport = Viewport(
            "v", "k", Box(50, 100, 200, 100), scale, (0, 0), "1", "Plan", title=style, **given
        )
        return list(drawing_title_items(viewport, (0.0, 1.0)))

    def test_a_bar_is_as_long_on_paper_as_its_scale_says(self):
        for scale in (*LADDER, *FEET_LADDER):
            lengths, _ = bar_lengths(scale)
            bars = [i for i in self.items(scale) if isinstance(i, Path) and i.closed]
            long = max(x for b in bars for x, _ in b.points) - min(x for b in bars for x, _ in b.points)
            self.assertAlmostEqual(long, lengths[-1] * float(scale.ratio), places=9)
            self.assertTrue(15 < long < 60 or scale.ratio >= 1, (str(scale), long))

    def test_a_bar_is_lettered_in_the_unit_of_its_scale(self):
        for text, words in (("1:100", "4 m"), ("1:5", "20 cm"), ('1/4" = 1\'-0"', "8 ft")):
            self.assertIn(words, [i.text for i in self.items(Scale.parse(text)) if isinstance(i, Text)])

    def test_what_has_no_scale_has_no_bar(self):
        items = self.items(Scale(Fraction(1, 100)), to_scale=False)
        self.assertFalse([i for i in items if isinstance(i, Fill)])
        self.assertIn("Not to scale", [i.text for i in items if isinstance(i, Text)])

    def test_a_north_point_only_where_it_is_wanted_and_no_title_where_none_is(self):
        scale = LADDER[11]
        self.assertIn("N", [i.text for i in self.items(scale, "north") if isinstance(i, Text)])
        self.assertNotIn("N", [i.text for i in self.items(scale, "bar") if isinstance(i, Text)])
        self.assertEqual(self.items(scale, "none"), [])
        sheet = Sheet(
            Paper.of("A3"),
            viewports=(replace(Viewport("v", "", Box(50, 100, 20, 20), scale, (0, 0)), name="W"),),
        )
        self.assertIn("W", [i.text for i in compose(sheet).items if isinstance(i, Text)])
