"""What plans say of stairs and ramps: where they begin, how many risers, how steep."""

import json
import math
import tempfile
from dataclasses import asdict, replace
from pathlib import Path
from unittest import TestCase

import ifcopenshell
import numpy as np

from drafting.building.climbs import Climb, Steps, climb_from
from drafting.building.reading import read_building
from drafting.building.store import load_building, save_building
from drafting.building.units import in_unit
from drafting.geometry.boxes import Box
from drafting.linework.climbs import climbs_of
from drafting.render.climb_items import climb_items
from drafting.render.items import Text
from drafting.sheets.climb_tags import climb_tags_in, climb_text
from drafting.sheets.marked_view import MarkedView
from drafting.sheets.scale import Scale
from drafting.sheets.viewport import Viewport
from drafting.styles.lettering import text_width
from drafting.tests.ifc_files import write_ifc
from drafting.tests.scenes import building, prism
from drafting.tests.test_plan_symbols import stair
from drafting.views.elevation import Elevation
from drafting.views.line_settings import LineSettings
from drafting.views.plan import Plan

STOREYS = (("Ground", 0.0), ("Upper", 2900.0))
FLIGHT = Climb("s", (2000.0, 1500.0), (1.0, 0.0), 1000.0, 0.0, 2900.0, Steps(17, 170.6, 280.0))


def seen(spec=None, turn=0.0):
    viewport = Viewport("1", "", Box(100, 100, 60, 40), Scale.parse("1:100"), (2000, 1500), turn=turn)
    return MarkedView(viewport, "v", spec or Plan("Ground"), (1, 0, 0), (0, 1, 0), (0, 0, 0))


class MeasuredTests(TestCase):
    def test_a_flight_is_measured_on_its_treads(self):
        made = stair(steps=12, rise=175.0, going=265.0)
        (climb,) = climbs_of(made)
        self.assertEqual(climb.steps, Steps(None, 175.0, 265.0))
        np.testing.assert_allclose((climb.floor, climb.top), (0.0, 12 * 175.0), atol=0.1)
        self.assertAlmostEqual(float(np.hypot(*climb.way)), 1.0)

    def test_what_the_file_says_of_its_steps_is_believed(self):
        made = replace(stair(steps=12, rise=175.0), steps={0: Steps(13, None, 250.0)})
        (climb,) = climbs_of(made)
        self.assertEqual(climb.steps, Steps(13, 175.0, 250.0))

    def test_a_ramp_has_the_slope_of_its_surface_and_its_foot_at_the_lower_end(self):
        wedge = prism([(0, 0), (6000, 0), (6000, 500)], 0, 1200)
        made = building([wedge])
        ramp = replace(made, elements=(replace(made.elements[0], ifc_class="IfcRamp"),))
        (climb,) = climbs_of(ramp)
        self.assertAlmostEqual(climb.slope, 1 / 12, places=4)
        np.testing.assert_allclose(climb.foot, (0.0, 600.0), atol=1)
        np.testing.assert_allclose(climb.way, (1.0, 0.0), atol=1e-6)

    def test_what_cannot_be_climbed_has_none(self):
        self.assertEqual(climbs_of(building([prism([(0, 0), (900, 0), (900, 900), (0, 900)], 0, 100)])), [])
        single = stair(steps=1)
        self.assertEqual(climbs_of(single), [])


class TagTests(TestCase):
    def test_words_stand_in_the_plan_that_a_flight_begins_in(self):
        upper = replace(FLIGHT, id="u", floor=2900.0)
        self.assertEqual([t.element for t in climb_tags_in(seen(), [FLIGHT, upper], STOREYS, False)], ["s"])
        on_upper = climb_tags_in(seen(Plan("Upper")), [FLIGHT, upper], STOREYS, False)
        self.assertEqual([t.element for t in on_upper], ["u"])
        modelled = Plan("Ground", line_settings=LineSettings(stairs=False))
        for spec in (Elevation("south"), Plan("Loft"), modelled):
            self.assertEqual(climb_tags_in(seen(spec), [FLIGHT], STOREYS, False), [])
        # A ramp from the ground up to the lowest floor begins below it.
        ramp = replace(FLIGHT, id="r", floor=-620.0)
        self.assertEqual([t.element for t in climb_tags_in(seen(), [ramp], STOREYS, False)], ["r"])
        self.assertEqual(climb_tags_in(seen(Plan("Upper")), [ramp], STOREYS, False), [])
        away = replace(FLIGHT, foot=(9000.0, 1500.0))
        self.assertEqual(climb_tags_in(seen(), [away], STOREYS, False), [])

    def test_they_say_what_is_known(self):
        for steps, in_feet, text in (
            (Steps(17, 170.6, 280.0), False, "17 × 171/280"),
            (Steps(17, 177.8, 279.4), True, '17 × 7" / 11"'),
            (Steps(17, None, 280.0), False, "17 risers"),
            (Steps(None, 170.6, 280.0), False, "171/280"),
            (Steps(), False, ""),
        ):
            with self.subTest(text):
                self.assertEqual(climb_text(replace(FLIGHT, steps=steps), in_feet), text)
        self.assertEqual(climb_tags_in(seen(), [replace(FLIGHT, steps=Steps())], STOREYS, False), [])

    def test_they_stand_on_the_lower_end_beside_the_walking_line_and_can_be_read(self):
        for angle in range(0, 360, 30):
            way = (math.cos(math.radians(angle)), math.sin(math.radians(angle)))
            with self.subTest(angle=angle):
                (tag,) = climb_tags_in(seen(), [replace(FLIGHT, way=way)], STOREYS, False)
                ground, words = climb_items([tag], "v")
                self.assertIsInstance(words, Text)
                self.assertTrue(-90.0 < words.turn <= 90.0)
                off = np.array(ground.rings[0]) - tag.foot
                along, across = off @ way, off @ (-way[1], way[0])
                self.assertGreater(along.min(), 0.5)
                self.assertLess(along.max(), text_width(words.text, words.size) + 2.5)
                # All of it on one side of the line, within the flight of 10 mm.
                self.assertGreater(np.abs(across).min(), 0.3)
                self.assertLess(np.abs(across).max(), 5.0)
                self.assertEqual(len(set(np.sign(across))), 1)


class FileTests(TestCase):
    def test_risers_are_read_in_the_words_of_both_schemas_kept_and_scaled(self):
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "house.ifc"
            for schema, attribute in (("IFC2X3", "NumberOfRiser"), ("IFC4", "NumberOfRisers")):
                with self.subTest(schema):
                    made = write_ifc(path, schema, unit="metre", extra="IfcStairFlight")
                    file = ifcopenshell.open(str(made))
                    (flight,) = file.by_type("IfcStairFlight")
                    setattr(flight, attribute, 16)
                    flight.RiserHeight, flight.TreadLength = 0.18, 0.27
                    file.write(str(path))
                    made = read_building(path)
                    (steps,) = made.steps.values()
                    self.assertEqual(steps.risers, 16)
                    np.testing.assert_allclose((steps.rise, steps.going), (180.0, 270.0))
                    kept = path.with_suffix(".npz")
                    save_building(made, kept)
                    self.assertEqual(load_building(kept).steps, made.steps)
                    (scaled,) = in_unit(made, "mm").steps.values()
                    self.assertAlmostEqual(scaled.rise, 0.18)

    def test_a_climb_outlasts_being_made_plain(self):
        plain = json.loads(json.dumps(asdict(FLIGHT)))
        self.assertEqual(climb_from(plain), FLIGHT)
