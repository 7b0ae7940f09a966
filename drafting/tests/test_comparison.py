"""What changed between two versions of a building."""

from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from drafting.building.comparison import changes_between
from drafting.tests.scenes import box, building
from drafting.views.plan import Plan
from drafting.views.standard import missing_from, plain_set, standard_set

WALL, DOOR, STEP = (
    box((0, 0, 0), (6000, 300, 3000)),
    box((1000, 0, 0), (1900, 50, 2100)),
    box((0, -900, 0), (900, 0, 150)),
)


class ComparingTests(TestCase):
    def test_two_readings_of_one_building_do_not_differ(self):
        changes = changes_between(building([WALL, DOOR]), building([WALL, DOOR]))
        self.assertEqual(changes.as_dict(), {"added": [], "removed": [], "moved": [], "reshaped": []})

    def test_what_moved_is_kept_apart_from_what_was_reshaped(self):
        moved = DOOR[0] + [250, 0, 0], DOOR[1]
        wider = box((0, 0, 0), (6500, 300, 3000))
        changes = changes_between(building([WALL, DOOR]), building([wider, moved]))
        self.assertEqual((changes.moved, changes.reshaped), (("e1",), ("e0",)))

    def test_elements_come_and_go_by_their_ids(self):
        self.assertEqual(changes_between(building([WALL]), building([WALL, STEP])).added, ("e1",))
        self.assertEqual(changes_between(building([WALL, STEP]), building([WALL])).removed, ("e1",))

    @settings(max_examples=30, deadline=None)
    @given(st.integers(0, 2**32 - 1))
    def test_rounding_and_the_order_of_corners_are_no_change(self, seed):
        chance = np.random.default_rng(seed)
        points, faces = WALL
        order = chance.permutation(len(points))
        place = np.argsort(order)
        shaken = points[order] + chance.uniform(-0.2, 0.2, points.shape)
        changes = changes_between(building([WALL]), building([(shaken, place[faces].astype(np.int32))]))
        self.assertEqual((changes.moved, changes.reshaped), ((), ()))

    def test_a_turned_element_is_reshaped(self):
        turned = DOOR[0][:, [1, 0, 2]], DOOR[1][:, ::-1].copy()
        self.assertEqual(changes_between(building([DOOR]), building([turned])).reshaped, ("e0",))


class StandardTests(TestCase):
    def test_the_standard_set_has_every_storey_the_roof_four_sides_and_four_corners(self):
        titles = [view.title for view in standard_set(["Ground", "Attic"])]
        self.assertEqual(len(titles), 2 + 1 + 4 + 4)
        self.assertEqual(titles[:3], ["Plan, Ground", "Plan, Attic", "Roof plan"])
        self.assertEqual(len(set(titles)), len(titles))

    def test_what_is_there_is_not_made_again_even_if_it_was_changed(self):
        there = [Plan(storey="Ground", cut=1000), *plain_set(["Attic"])]
        missing = missing_from(standard_set(["Ground", "Attic"]), there)
        self.assertEqual([view.kind for view in missing], ["axonometric"] * 4)
        self.assertEqual(missing_from(missing, missing), [])
