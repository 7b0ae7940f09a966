"""Doors that stand open in plans and stairs that are broken off, against what can be worked out by hand."""

import tempfile
from dataclasses import replace
from pathlib import Path
from unittest import TestCase

import numpy as np
import shapely

from drafting.building.doors import OPERATIONS, REVOLVING, SWINGING, Door
from drafting.building.store import load_building, save_building
from drafting.building.units import in_unit
from drafting.linework.engine import draw
from drafting.tests.scenes import box, building, lines_of
from drafting.views.line_settings import LineSettings
from drafting.views.plan import Plan

PLAN = Plan("Ground")
BARE = Plan("Ground", line_settings=LineSettings(doors=False, stairs=False))


def wall_with_door(operation="SINGLE_SWING_LEFT", into=1.0):
    """A wall along x from 0 to 3000, 200 thick, with a door of 1000 from 1000 on: jambs of 50 x 120, and a
    leaf of 40."""
    y = 40.0
    jambs = [box((x, y, 0), (x + 50, y + 120, 2100)) for x in (1000, 1950)]
    leaf = box((1050, y + 40, 0), (1950, y + 80, 2100))
    points = np.concatenate([p for p, _ in (*jambs, leaf)])
    faces = np.concatenate([f + 8 * k for k, (_, f) in enumerate((*jambs, leaf))])
    made = building([
        box((0, 0, 0), (1000, 200, 2500)), box((2000, 0, 0), (3000, 200, 2500)), (points, faces),
    ])  # fmt: skip
    if into > 0:
        opening = Door((1000.0, y + 120, 0.0), (1.0, 0, 0), (0, 1.0, 0), 1000.0, 2100.0, 120.0, operation)
    else:
        opening = Door((2000.0, y, 0.0), (-1.0, 0, 0), (0, -1.0, 0), 1000.0, 2100.0, 120.0, operation)
    return replace(made, doors={2: opening})


def symbol(made, view=PLAN):
    return lines_of(draw(made, view), role="symbol")


class DoorTests(TestCase):
    def test_a_leaf_stands_open_at_its_hinge_and_its_arc_ends_at_the_other_jamb(self):
        lines = symbol(wall_with_door())
        # Between the jambs are 900 mm; the hinge is at the left as one looks the way it opens, on that face.
        np.testing.assert_allclose(lines.bounds, (1050, 160, 1950, 1060), atol=0.01)
        arc = [shapely.Point(1050 + 900 * np.cos(a), 160 + 900 * np.sin(a)) for a in np.linspace(0, 1.57, 9)]
        self.assertLess(max(lines.distance(point) for point in arc), 1.0)
        self.assertLess(lines.distance(shapely.Point(1070, 1060)), 0.01)

    def test_left_and_right_are_as_one_goes_through_the_way_it_opens(self):
        for operation, into, hinge in (
            ("SINGLE_SWING_LEFT", 1.0, 1050), ("SINGLE_SWING_RIGHT", 1.0, 1950),
            ("SINGLE_SWING_LEFT", -1.0, 1950), ("SINGLE_SWING_RIGHT", -1.0, 1050),
        ):  # fmt: skip
            with self.subTest(operation, into=into):
                lines = symbol(wall_with_door(operation, into))
                far = 1060 if into > 0 else -860
                self.assertLess(lines.distance(shapely.Point(hinge, far)), 0.01)

    def test_the_modelled_leaf_gives_way_and_the_jambs_are_cut_as_before(self):
        made = wall_with_door()
        parts = [np.concatenate(r.rings) for r in draw(made, PLAN).regions if r.element == "e2"]
        self.assertEqual(
            sorted(np.ptp(part, axis=0).round().tolist() for part in parts), [[50, 120], [50, 120]]
        )
        leaf = shapely.LineString([(1100, 80), (1900, 80)])
        self.assertGreater(lines_of(draw(made, BARE), element="e2").intersection(leaf).length, 700)
        self.assertEqual(lines_of(draw(made, PLAN), element="e2").intersection(leaf).length, 0)

    def test_every_operation_of_the_standard_has_a_symbol_about_its_opening(self):
        for operation in sorted(OPERATIONS):
            with self.subTest(operation):
                low_x, low_y, high_x, high_y = symbol(wall_with_door(operation)).bounds
                self.assertGreater(high_x - low_x, 400)
                self.assertTrue(low_x >= 500 and high_x <= 2500 and low_y > -900 and high_y < 1100)
                both = operation == REVOLVING or any(side < 0 for *_, side in SWINGING.get(operation, ()))
                self.assertEqual(low_y < -300, both)

    def test_a_door_above_or_below_the_cut_has_no_symbol(self):
        made = wall_with_door()
        self.assertTrue(symbol(made, Plan("Ground", cut=2300.0)).is_empty)
        self.assertFalse(symbol(made, Plan("Ground", cut=2000.0)).is_empty)

    def test_what_is_known_of_a_door_is_kept_and_follows_the_unit(self):
        made = replace(wall_with_door(), unit="millimetre")
        with tempfile.TemporaryDirectory() as folder:
            save_building(made, Path(folder) / "kept.npz")
            self.assertEqual(load_building(Path(folder) / "kept.npz").doors, made.doors)
        opening = in_unit(made, "cm").doors[2]
        self.assertEqual((opening.width, opening.corner[0], opening.along), (10_000.0, 10_000.0, (1.0, 0, 0)))


def stair(steps=10, rise=180.0, going=250.0, kind="IfcStairFlight"):
    """A flight 1000 wide that goes up along x from 0, as solid steps."""
    meshes = [box((k * going, 0, 0), ((k + 1) * going, 1000, (k + 1) * rise)) for k in range(steps)]
    points = np.concatenate([p for p, _ in meshes])
    faces = np.concatenate([f + 8 * k for k, (_, f) in enumerate(meshes)])
    made = building([(points, faces), box((-500, -500, -100), (3000, 1500, 0))])
    flight, floor = made.elements
    return replace(made, elements=(replace(flight, ifc_class=kind), floor))


class StairTests(TestCase):
    def test_a_flight_below_the_cut_has_a_line_from_its_foot_to_its_head(self):
        lines = symbol(stair(steps=6))
        low, _, high, _ = lines.bounds
        # The dot is about the first riser, at 0; the arrow ends over the middle of the last tread.
        self.assertAlmostEqual(low, -50, delta=0.5)
        self.assertAlmostEqual(high, 5.5 * 250, delta=0.5)
        self.assertEqual(lines.intersection(shapely.LineString([(300, 0), (300, 1000)])).y, 500)

    def test_a_flight_through_the_cut_is_broken_off_there_and_goes_on_dashed(self):
        linework = draw(stair(), PLAN)
        # The seventh tread, at 1260, is the first above the cut at 1200; its riser is at 1500.
        self.assertEqual([r for r in linework.regions if r.element == "e0"], [])
        self.assertLessEqual(lines_of(linework, role="edge", element="e0").bounds[2], 1500)
        above = lines_of(linework, role="overhead")
        self.assertAlmostEqual(above.bounds[0], 1500, delta=0.5)
        self.assertGreater(above.bounds[2], 2200)
        head = lines_of(linework, role="symbol").intersection(shapely.box(-100, 400, 5000, 600))
        self.assertLess(head.bounds[2], 1500)
        self.assertTrue([r for r in draw(stair(), BARE).regions if r.element == "e0"])

    def test_what_a_floor_lies_over_has_no_line(self):
        made = stair(steps=6)
        covered = building([box((-500, -500, 1100), (3000, 1500, 1150))])
        joined = replace(
            made,
            elements=(*made.elements, replace(covered.elements[0], id="slab")),
            vertices=np.concatenate([made.vertices, covered.vertices]),
            triangles=np.concatenate([made.triangles, covered.triangles + len(made.vertices)]),
            triangle_element=np.concatenate([made.triangle_element, covered.triangle_element + 2]),
            triangle_material=np.concatenate([made.triangle_material, covered.triangle_material]),
        )
        self.assertTrue(symbol(joined).is_empty)

    def test_an_arrow_goes_up_a_ramp(self):
        points, faces = box((0, 0, 0), (4000, 1000, 100))
        points[points[:, 2] == 100, 2] += points[points[:, 2] == 100, 0] * 0.08
        made = building([(points, faces), box((-500, -500, -100), (6000, 1500, -10))])
        made = replace(made, elements=(replace(made.elements[0], ifc_class="IfcRamp"), made.elements[1]))
        lines = symbol(made)
        low, _, high, _ = lines.bounds
        self.assertTrue(0 <= low < 100 and 3850 < high <= 4000)
        self.assertGreater(lines.intersection(shapely.box(3700, 0, 4000, 1000)).bounds[3], 540)
