"""Free tables: their sums, merged cells, lines, files; and how tables go on beside themselves."""

import io
from itertools import combinations
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st
from openpyxl import Workbook

from drafting.annotation.anchors import Anchor
from drafting.annotation.styles import TextStyle, table_in_style
from drafting.annotation.table_files import read_table
from drafting.annotation.tables import FreeTable, Merged, Table, figure_of, free_table, sum_of
from drafting.errors import SheetError
from drafting.geometry.boxes import union
from drafting.render.backends.extents import bounds_of
from drafting.render.items import Path, Text
from drafting.render.table_items import table_items
from drafting.views.plan import Plan


def table(*rows, **given_):
    return FreeTable(Anchor((0.0, 0.0)), tuple(tuple(row) for row in rows), **given_)


def texts(made, corner=(20.0, 280.0)):
    return [item for item in table_items(made, corner) if isinstance(item, Text)]


class CellTests(TestCase):
    @given(st.lists(st.integers(-10_000, 10_000), min_size=1, max_size=20))
    def test_a_sum_is_that_of_the_figures_above_it(self, figures):
        made = free_table(table(["Area"], *([str(figure)] for figure in figures), ["=sum"]))
        self.assertEqual(made.rows[-1], (str(sum(figures)),))

    def test_sums_begin_anew_below_a_sum_and_leave_words_out(self):
        made = free_table(
            table(["a", "b"], ["2", "x"], ["3", "1.5"], ["=SUM", "=sum"], ["4", ""], ["=sum", ""])
        )
        self.assertEqual([row[0] for row in made.rows], ["2", "3", "5", "4", "4"])
        self.assertEqual(made.rows[2][1], "1.5")
        self.assertEqual(
            (sum_of(["1.50", "2"]), figure_of("12 mm"), figure_of("1 200")), ("3.50", None, 1200.0)
        )

    def test_columns_of_figures_stand_to_the_right(self):
        self.assertEqual(free_table(table(["a", "b"], ["oak", "2"], ["ash", ""])).figures, frozenset((1,)))

    def test_one_that_is_uneven_or_merged_twice_over_is_refused(self):
        table(["a"]).check(None)
        wrong = (
            table(["a", "b"], ["c"]),
            table(["a", "b"], ["c", "d"], merged=(Merged(0, 0, 1, 2), Merged(0, 1, 2, 1))),
            table(["a", "b"], merged=(Merged(0, 1, 1, 2),)),
        )
        for made in wrong:
            with self.assertRaises(SheetError):
                made.check(None)
        with self.assertRaises(SheetError):
            table(["a"]).check(Plan("Ground"))


class DrawnTests(TestCase):
    def test_merged_cells_have_their_words_once_and_no_line_runs_through_them(self):
        made = free_table(table(["a", "b", "c"], ["one", "two", "3"], ["4", "5", "6"], header=False,
                                merged=(Merged(1, 0, 1, 2),)))  # fmt: skip
        words = [item.text for item in texts(made)]
        self.assertNotIn("two", words)
        self.assertIn("one", words)
        items = list(table_items(made, (0.0, 100.0)))
        whole = bounds_of(items[-1])
        upright = [i for i in items[:-1] if isinstance(i, Path) and i.points[0][0] == i.points[1][0]]
        first = min({line.points[0][0] for line in upright})
        runs = sorted(
            tuple(sorted((a[1], b[1]))) for a, b in (i.points for i in upright if i.points[0][0] == first)
        )
        height = whole.height / 3
        self.assertEqual(len(runs), 2)
        self.assertAlmostEqual(sum(high - low for low, high in runs), 2 * height)

    @given(st.integers(1, 12), st.integers(1, 40))
    def test_split_it_stands_in_columns_side_by_side_and_loses_no_row(self, split, count):
        rows = tuple((f"D{k:02}", "oak") for k in range(count))
        made = Table("Doors", ("Number", "Kind"), rows, split=split)
        found = texts(made)
        self.assertEqual(sum(item.text == "oak" for item in found), count)
        parts = -(-count // split)
        self.assertEqual(sum(item.text == "Kind" for item in found), parts)
        for one, other in combinations([bounds_of(item) for item in found], 2):
            self.assertFalse(one.meets(other))

    def test_words_longer_than_a_told_width_are_broken_and_the_row_is_higher(self):
        long = "Vapour barrier taped to the frame, and to the floor with a mastic"
        made = Table("", ("Number", "Text"), (("1", long), ("2", "Short")), widths=(0.0, 40.0))
        found = texts(made)
        self.assertGreater(len(found), 5)
        self.assertEqual(" ".join(item.text for item in found[3:-2]), long)
        (one,) = [item for item in found if item.text == "1"]
        (two,) = [item for item in found if item.text == "2"]
        self.assertGreater(one.at[1] - two.at[1], 10.0)

    @given(st.sampled_from([1.8, 2.5, 3.5, 5.0]), st.booleans())
    def test_in_a_text_style_rows_and_columns_have_room_for_its_words(self, size, bold):
        cells = (("Fitting", "Count"), ("Mirror over the basin", "12"), ("Rail", "3"))
        plain = free_table(FreeTable(Anchor((0.0, 0.0)), cells, "Fittings", named="s"))
        styles = {"s": TextStyle(size, bold, "#9c3f24")}
        items = list(table_items(table_in_style(plain, "s", styles), (0.0, 100.0)))
        words = [item for item in items if isinstance(item, Text)]
        body = [item for item in words if item.text in ("Mirror over the basin", "12", "Rail", "3")]
        self.assertEqual({(t.size, t.bold, t.colour) for t in body}, {(size, bold, "#9c3f24")})
        boxes = [bounds_of(item) for item in words]
        self.assertFalse(any(a.meets(b) for a, b in combinations(boxes, 2)))
        whole = union(bounds_of(item) for item in items if not isinstance(item, Text))
        self.assertTrue(all(whole.holds(box) for box in boxes))
        # A style that is there no more leaves the usual.
        self.assertEqual(table_in_style(plain, "gone", styles), plain)

    def test_without_borders_nothing_is_ruled(self):
        made = free_table(table(["a", "b"], ["c", "d"], borders="none"))
        self.assertFalse([i for i in table_items(made, (0.0, 0.0)) if isinstance(i, Path)])


class FileTests(TestCase):
    def test_a_csv_is_read_in_any_usual_encoding_and_with_any_separator(self):
        words = "Räume;Fläche\nKüche;12,5\n"
        for data in (
            words.encode(),
            words.encode("utf-8-sig"),
            words.encode("utf-16"),
            words.encode("cp1252"),
        ):
            self.assertEqual(read_table(data, "a.csv"), [["Räume", "Fläche"], ["Küche", "12,5"]])
        self.assertEqual(read_table(b'a,"b, c"\nd\n', "a.csv"), [["a", "b, c"], ["d", ""]])
        self.assertEqual(read_table(b"a\tb\n\n\n", "a.txt"), [["a", "b"]])

    def test_a_workbook_is_read_with_its_values(self):
        book = Workbook()
        book.active.append(["Door", "Width", None])
        book.active.append(["D1", 926.5, True])
        out = io.BytesIO()
        book.save(out)
        self.assertEqual(
            read_table(out.getvalue(), "doors.xlsx"), [["Door", "Width", ""], ["D1", "926.5", "Yes"]]
        )

    @given(st.integers(0, 10_000), st.integers(1, 255))
    def test_a_damaged_workbook_is_read_or_refused_with_its_name(self, at, by):
        book = Workbook()
        book.active.append(["Door", "Width"])
        out = io.BytesIO()
        book.save(out)
        data = bytearray(out.getvalue())
        data[4 + at % (len(data) - 4)] ^= by
        try:
            read_table(bytes(data), "doors.xlsx")
        except SheetError as error:
            self.assertIn("doors.xlsx", str(error))

    def test_what_is_none_or_too_large_is_refused_with_its_name(self):
        for data, words in ((b"", "no cells"), (b"\0\1\2", "neither"), (b"PK\3\4 broken", "workbook"),
                            (b"a\n" * 5000, "5000 rows"), (b"x" * 6_000_000, "6 MB")):  # fmt: skip
            with self.assertRaisesRegex(SheetError, words):
                read_table(data, "doors.csv")
