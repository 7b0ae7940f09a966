"""Scales: exact, as they are written, metric and in feet and inches."""

from fractions import Fraction
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from drafting.errors import ScaleError
from drafting.sheets.scale import FEET_LADDER, LADDER, Scale, largest_that_fits


class ScaleTests(TestCase):
    def test_a_scale_is_exact(self):
        self.assertEqual(Scale.parse("1:33 1/3").ratio, Fraction(3, 100))
        self.assertEqual(Scale.parse("1:12.5").ratio, Fraction(2, 25))
        self.assertEqual(Scale.parse(" 2 : 1 ").ratio, 2)

    def test_a_scale_is_written_as_it_is_read(self):
        for scale in (*LADDER, *FEET_LADDER):
            self.assertEqual((Scale.parse(str(scale)), Scale.parse(str(scale)).feet), (scale, scale.feet))

    @given(st.fractions(Fraction(1, 90_000), 90, max_denominator=90_000))
    def test_every_scale_is_written_so_that_it_can_be_read(self, ratio):
        self.assertEqual(Scale.parse(str(Scale(ratio))).ratio, ratio)

    @given(st.fractions(Fraction(1, 90_000), 90, max_denominator=90_000))
    def test_every_scale_in_feet_and_inches_is_written_so_that_it_can_be_read(self, ratio):
        self.assertEqual(Scale.parse(str(Scale(ratio, feet=True))).ratio, ratio)

    def test_feet_and_inches_are_written_as_the_trade_does(self):
        for text, ratio, written in (
            ("1/4\"=1'", Fraction(1, 48), '1/4" = 1\'-0"'),
            ("1/4″ = 1′-0″", Fraction(1, 48), '1/4" = 1\'-0"'),
            ('1 1/2" = 1\'-0"', Fraction(1, 8), '1 1/2" = 1\'-0"'),
            ("1\" = 20'", Fraction(1, 240), '1" = 20\'-0"'),
            ('1" = 1\'-6"', Fraction(1, 18), '2/3" = 1\'-0"'),
            ('12" = 1\'-0"', Fraction(1), '12" = 1\'-0"'),
        ):
            with self.subTest(text):
                scale = Scale.parse(text)
                self.assertEqual((scale.ratio, str(scale)), (ratio, written))

    def test_what_is_no_scale_is_refused_by_name(self):
        for text in (
            "0:50",
            "1:0",
            "-1:50",
            "1:-50",
            "half",
            "",
            "1",
            "1:50:2",
            "1:nan",
            "1:5e3",
            "1/0",
            '1/4" =',
            "= 1'",
            '1/4" = 1:50',
        ):
            with self.subTest(text), self.assertRaises(ScaleError) as caught:
                Scale.parse(text)
            self.assertIn(f"“{text}”", str(caught.exception))

    def test_what_no_drawing_can_have_is_refused(self):
        for text in ("1:100001", "101:1"):
            with self.assertRaisesRegex(ScaleError, text):
                Scale.parse(text)

    def test_the_largest_that_fits(self):
        self.assertEqual(str(largest_that_fits(20_000, 10_000, 200, 100)), "1:100")
        self.assertEqual(str(largest_that_fits(20_001, 10_000, 200, 100)), "1:200")
        self.assertEqual(str(largest_that_fits(1e9, 1e9, 200, 100)), "1:5000")
