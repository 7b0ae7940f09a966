"""Revisions are counted on as an office counts them, by purpose, and no revision comes twice."""

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from drafting.errors import SheetError
from drafting.sheets.revision_schemes import LETTERS, SCHEMES, RevisionScheme, Series


class RevisionSchemeTests(TestCase):
    def test_the_next_is_counted_on_in_the_series_of_the_purpose(self):
        scheme = SCHEMES["P01, C01"]
        self.assertEqual(scheme.next_revision([]), "P01")
        self.assertEqual(scheme.next_revision(["P01", "P02"], "comment"), "P03")
        self.assertEqual(scheme.next_revision(["P01", "P02"], "Construction"), "C01")
        self.assertEqual(scheme.next_revision(["P01", "C01", "P02"], "construction"), "C02")

    def test_letters_leave_out_those_that_are_taken_for_figures(self):
        scheme, found = SCHEMES["A, B, C"], []
        for _ in range(30):
            found.append(scheme.next_revision(found))
        self.assertNotIn("I", found)
        self.assertNotIn("O", found)
        self.assertEqual(found[22:26], ["Y", "Z", "AA", "AB"])

    def test_what_belongs_to_no_series_is_left_out_of_account(self):
        self.assertEqual(SCHEMES["1, 2, 3"].next_revision(["P07", "draft", "2"]), "3")

    def test_two_series_that_count_alike_are_refused(self):
        with self.assertRaisesRegex(SheetError, "prefix"):
            RevisionScheme((Series("P"), Series("P", purposes=("Record",))))

    @given(st.builds(Series, st.sampled_from(["", "P", "C", "T"]), st.sampled_from(["figures", "letters"]),
                     st.integers(1, 4)), st.integers(1, 100_000))  # fmt: skip
    def test_a_revision_is_found_again_at_its_place(self, series, place):
        revision = series.revision_at(place)
        self.assertEqual(series.place_of(revision), place)
        if series.counting == "letters":
            self.assertLessEqual(set(revision.removeprefix(series.prefix)), set(LETTERS))
