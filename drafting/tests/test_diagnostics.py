"""What looks wrong about a building, and units put right."""

import tempfile
from dataclasses import replace
from pathlib import Path
from unittest import TestCase

import numpy as np

from drafting.building.diagnostics import warnings_about
from drafting.building.model import BuildUp
from drafting.building.reading import read_building
from drafting.building.rooms import Room
from drafting.building.units import in_unit
from drafting.errors import BuildingFileError
from drafting.tests.ifc_files import write_ifc
from drafting.tests.scenes import box, building

HOUSE = [box((k * 3000, 0, 0), (k * 3000 + 3000, 300, 3000)) for k in range(4)]


class WarningsTests(TestCase):
    def test_nothing_is_wrong_with_a_house(self):
        self.assertEqual(warnings_about(building(HOUSE)), [])

    def test_a_size_that_no_building_has_names_the_unit_that_would_explain_it(self):
        small = replace(building([(p / 1000, f) for p, f in HOUSE]), unit="millimetre")
        (sentence,) = warnings_about(small)
        self.assertIn("0.012 m long", sentence)
        self.assertIn("metres", sentence)
        large = replace(building([(p * 1000, f) for p, f in HOUSE]), unit="metre")
        self.assertIn("millimetres", warnings_about(large)[0])

    def test_a_stray_element_is_named_with_how_far_it_stands(self):
        stray = box((9e6, 0, 0), (9e6 + 500, 500, 500))
        sentence = warnings_about(building([*HOUSE, stray]))
        self.assertTrue(any("“wall 4” is up to 8,99" in line for line in sentence), sentence)

    def test_open_elements_are_named_and_many_are_counted(self):
        points, faces = HOUSE[0]
        opened = [(points + np.array([k * 4000, 0, 0]), faces[:-2]) for k in range(5)]
        (sentence,) = warnings_about(building(opened))
        self.assertIn("“wall 0”, “wall 1”, “wall 2” and 2 more are not closed solids", sentence)
        (sentence,) = warnings_about(building([*HOUSE, opened[4]]))
        self.assertIn("“wall 4” is not a closed solid", sentence)

    def test_elements_in_no_storey_are_named(self):
        house = building(HOUSE)
        unplaced = tuple(replace(e, storey=-1) if e.id == "e2" else e for e in house.elements)
        (sentence,) = warnings_about(replace(house, elements=unplaced, unplaced=frozenset({"e2"})))
        self.assertIn("“wall 2” is in no storey", sentence)

    def test_a_room_that_is_not_as_large_as_the_file_says_is_named(self):
        def room(name, area, quantity):
            return Room(name, "", name, 0.0, 2500.0, area * 1e6, quantity, (0.0, 0.0), 1000.0)

        rooms = (room("Hall", 14.2, 12.0), room("Study", 10.0, 10.05), room("Loft", 9.0, None))
        (sentence,) = warnings_about(replace(building(HOUSE), rooms=rooms))
        self.assertIn("12.00 m² for the room “Hall”, and its outline has 14.20.", sentence)
        many = (*rooms, room("Bath", 6.0, 5.0))
        self.assertIn("14.20, and 1 more differ", warnings_about(replace(building(HOUSE), rooms=many))[0])

    def test_a_file_without_storeys_says_what_that_means(self):
        self.assertIn("no plans", warnings_about(replace(building(HOUSE), storeys=()))[0])


class UnitTests(TestCase):
    def test_a_wrong_unit_is_put_right_everywhere(self):
        build_up = BuildUp((0.0, 1.0, 0.0), 10.0, ((0, 120.0), (0, 180.0)))
        house = replace(building(HOUSE), unit="millimetre", build_ups={0: build_up})
        metres = in_unit(house, "m")
        np.testing.assert_allclose(metres.bounds[1], house.bounds[1] * 1000)
        self.assertEqual(metres.build_ups[0].layers, ((0, 120_000.0), (0, 180_000.0)))
        self.assertEqual(
            (metres.unit, metres.storeys[0].elevation), ("metre", house.storeys[0].elevation * 1000)
        )
        self.assertIs(in_unit(house, "mm"), house)

    def test_an_ifc_file_whose_unit_is_wrong_is_read_in_the_one_that_is_given(self):
        with tempfile.TemporaryDirectory() as folder:
            path = write_ifc(Path(folder) / "house.ifc", unit="metre")
            right, wrong = read_building(path), read_building(path, unit="ft")
        np.testing.assert_allclose(wrong.bounds[1] / right.bounds[1], 0.3048)
        self.assertAlmostEqual(wrong.storeys[0].elevation, 3000 * 0.3048)

    def test_a_unit_that_is_not_known_cannot_be_corrected(self):
        with self.assertRaisesRegex(BuildingFileError, "furlong"):
            in_unit(replace(building(HOUSE), unit="furlong"), "m")
