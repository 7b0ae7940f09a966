"""Numbers of sheets after a pattern: counted on in each series, with gaps and doubles reported."""

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from drafting.errors import SheetError
from drafting.sheets.numbering import STANDARD, Numbered, Numbering, Pattern, number_warnings, numbers_from

SERIES = Pattern("{discipline}-{type}{n:02}")
PLAIN = Pattern(STANDARD)


def sheets(*numbers):
    return [Numbered(n, "A", n[2] if n.startswith("A-") else "") for n in numbers]


class NumberingTests(TestCase):
    def test_a_pattern_says_discipline_type_and_running_number(self):
        self.assertEqual(SERIES.number(Numbered("", "S", "2"), 7), "S-207")
        self.assertEqual(Pattern("{n}").number(Numbered(""), 12), "12")

    @given(st.sampled_from(["", "A", "ARC", "A.1"]), st.sampled_from(["", "1", "D"]), st.integers(1, 999))
    def test_a_number_after_a_pattern_is_read_back(self, discipline, kind, n):
        numbered = Numbered("", discipline, kind)
        number = SERIES.number(numbered, n)
        self.assertEqual(SERIES.running(Numbered(number, discipline, kind)), n)
        self.assertIsNone(SERIES.running(Numbered(number + " old", discipline, kind)))

    def test_what_is_no_pattern_is_refused(self):
        for text, why in (("A-01", "running number"), ("{n}{n}", "one running"), ("{n} {storey}",
        "no pattern"),
                          ("{n", "running"), ("{n} }", "no pattern"),
                          ("{n}" + "x" * 60, "at most 40")):  # fmt: skip
            with self.subTest(text), self.assertRaisesRegex(SheetError, why):
                Pattern(text)

    def test_each_series_is_counted_on_by_itself(self):
        there = sheets("A-101", "A-102", "A-201")
        self.assertEqual(Numbering(SERIES, there).next(Numbered("", "A", "1")), "A-103")
        self.assertEqual(Numbering(SERIES, there).next(Numbered("", "A", "3")), "A-301")
        self.assertEqual(Numbering(PLAIN, []).next(Numbered("")), "A-01")
        self.assertEqual(Numbering(PLAIN, sheets("X 09b")).next(Numbered("")), "X 10b")
        self.assertEqual(Numbering(PLAIN, sheets("Cover")).next(Numbered("")), "A-01")

    def test_renumbering_counts_on_from_the_first_of_each_series(self):
        self.assertEqual(
            numbers_from(SERIES, sheets("A-103", "A-201", "A-109", "A-205")),
            ["A-103", "A-201", "A-104", "A-202"],
        )

    def test_a_number_of_ones_own_is_counted_on_from_its_figures(self):
        self.assertEqual(
            numbers_from(PLAIN, sheets("X 098b", "A-02", "A-03")), ["X 098b", "X 099b", "X 100b"]
        )
        with self.assertRaisesRegex(SheetError, "“Cover” has no figure"):
            numbers_from(PLAIN, sheets("Cover", "A-01"))

    def test_doubles_and_gaps_are_reported_where_they_are(self):
        self.assertEqual(number_warnings(PLAIN, sheets("A-01", "A-02", "A-02", "A-04", "A-07", "Cover")),
                         ["", "number twice", "number twice", "no A-03", "no A-05 to A-06", ""])  # fmt: skip
        self.assertEqual(
            number_warnings(SERIES, sheets("A-101", "A-102", "A-201", "A-203")), ["", "", "", "no A-202"]
        )
        # A set may begin anywhere.
        self.assertEqual(number_warnings(PLAIN, sheets("A-11", "A-12")), ["", ""])

    def test_a_number_like_a_date_is_a_large_gap_and_no_long_work(self):
        there = sheets("A-01", "A-20261125", "A-9" + "0" * 30)
        self.assertEqual(
            number_warnings(PLAIN, there), ["", "no A-02 to A-20261124", f"no A-20261126 to A-8{'9' * 30}"]
        )
        self.assertEqual(Numbering(PLAIN, sheets("A-20261125")).next(Numbered("")), "A-20261126")
