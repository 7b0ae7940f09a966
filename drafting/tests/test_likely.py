"""Which sizes of buildings are asked about before they are used."""

from __future__ import annotations

import unittest

from hypothesis import given
from hypothesis import strategies as st

from drafting.building.likely import unlikely_size
from drafting.building.units import UNIT_NAMES, UNITS

HOUSE = (9_400.0, 26_400.0, 8_200.0)


class LikelySizeTests(unittest.TestCase):
    def test_a_house_is_not_asked_about_and_a_house_in_metres_read_as_millimetres_is(self):
        self.assertIsNone(unlikely_size(HOUSE, "metre"))
        question = unlikely_size([side / 1000 for side in HOUSE], "millimetre")
        self.assertEqual(question.units[0][0], "m")
        for side, wanted in zip(question.units[0][1], HOUSE, strict=True):
            self.assertAlmostEqual(side, wanted)

    def test_a_bench_a_tower_and_a_site_are_buildings_to_draw(self):
        for size in [(1_800.0, 500.0, 900.0), (60e3, 60e3, 400e3), (2.4e6, 1.8e6, 90e3)]:
            self.assertIsNone(unlikely_size(size, "metre"))

    def test_a_version_that_differs_from_the_last_by_a_unit_is_asked_about_and_a_new_wing_is_not(self):
        in_feet = [side * 0.3048 for side in HOUSE]
        question = unlikely_size(in_feet, "foot", HOUSE)
        self.assertEqual([unit for unit, _ in question.units], ["m"])
        self.assertIsNone(unlikely_size((9_400.0, 86_000.0, 8_200.0), "metre", HOUSE))

    def test_a_unit_that_is_not_known_leaves_only_yes_or_no(self):
        self.assertEqual(unlikely_size((3.0, 4.0, 2.0), "parsec").units, ())

    @given(st.sampled_from(sorted(UNITS)), st.sampled_from(sorted(UNITS)), st.floats(0.2, 5.0))
    def test_whichever_unit_was_mistaken_is_offered_first(self, true: str, assumed: str, by: float):
        before = [side * by for side in HOUSE]
        read = [side * UNITS[assumed] / UNITS[true] for side in before]
        question = unlikely_size(read, UNIT_NAMES[assumed], before)
        if true == assumed:
            self.assertIsNone(question)
        else:
            self.assertEqual(question.units[0][0], true)
