"""Paper, its frame and its title block."""

from itertools import pairwise
from unittest import TestCase

from drafting.errors import PaperError
from drafting.sheets.paper import SIZES, Paper


class PaperTests(TestCase):
    def test_each_size_is_half_of_the_one_before(self):
        sizes = [Paper.of(name) for name in ("A0", "A1", "A2", "A3", "A4")]
        for large, small in pairwise(sizes):
            self.assertAlmostEqual(large.width / 2, small.height, delta=0.5)
            self.assertEqual(large.height, small.width)

    def test_portrait_stands(self):
        self.assertEqual(Paper.of("a3", "portrait"), Paper("A3", 297, 420))

    def test_what_is_no_paper_is_refused_by_name(self):
        with self.assertRaisesRegex(PaperError, "A9"):
            Paper.of("A9")
        with self.assertRaisesRegex(PaperError, "diagonal"):
            Paper.of("A3", "diagonal")

    def test_sizes_in_inches_are_whole_or_half_inches(self):
        for name, sides in SIZES.items():
            if name.startswith(("ANSI", "Arch")):
                self.assertTrue(all(round(2 * side / 25.4, 9).is_integer() for side in sides), name)
        self.assertEqual(Paper.of("arch d"), Paper("Arch D", 914.4, 609.6))

    def test_a_size_of_ones_own_is_written_in_mm(self):
        self.assertEqual(Paper.of("500 x 700"), Paper("700 x 500", 700, 500))
        self.assertEqual(Paper.of("700.5×500 mm", "portrait"), Paper("700.5 x 500", 500, 700.5))
        for name in ("20 x 30", "9000 x 500", "0 x 0"):
            with self.assertRaisesRegex(PaperError, "cannot be made"):
                Paper.of(name)
