"""Marks, levels and grid stand outside of the building where its ends are seen, and clear of each other."""

import math
from dataclasses import replace
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from drafting.geometry.boxes import Box
from drafting.render.backends.extents import bounds_of
from drafting.render.items import Path, Text
from drafting.render.mark_items import THICK_PEN, level_items, mark_items
from drafting.sheets.grid_marks import GRID_BUBBLE, grid_in
from drafting.sheets.level_marks import levels_in
from drafting.sheets.marked_view import AROUND, MarkedView
from drafting.sheets.reference_marks import BUBBLE, Subject, marks_in
from drafting.sheets.scale import Scale
from drafting.sheets.viewport import Viewport
from drafting.views.notation import parse_view

#: A house of 100 x 60 mm on paper in the middle of a viewport that shows little more than it.
HOUSE = Box(150, 95, 100, 60)
PLAN = MarkedView(
    Viewport("v", "k", Box(145, 90, 110, 70), Scale.parse("1:100"), (0.0, 0.0)),
    "plan",
    parse_view("plan:0"),
    (1.0, 0.0, 0.0),
    (0.0, 1.0, 0.0),
    (0.0, 0.0, 0.0),
    HOUSE,
)
SOUTH = replace(PLAN, view="south", spec=parse_view("elevation:south"), up=(0.0, 0.0, 1.0))
ALONG = Subject("a", parse_view("section:-5200,100,5200,100"), (0.0, -1.0, 0.0))
SIDES = [
    Subject(side, parse_view(f"elevation:{side}"), toward)
    for side, toward in (
        ("east", (1.0, 0.0, 0.0)), ("west", (-1.0, 0.0, 0.0)),
        ("north", (0.0, 1.0, 0.0)), ("south", (0.0, -1.0, 0.0)),
    )
]  # fmt: skip
GRID = [("1", (-5000.0, -4000.0), (-5000.0, 4000.0)), ("A", (-6000.0, 100.0), (6000.0, 100.0))]


def away(box, at):
    """How far a point lies from a box, mm."""
    dx = max(box.x - at[0], 0, at[0] - box.right)
    dy = max(box.y - at[1], 0, at[1] - box.top)
    return math.hypot(dx, dy)


class OutsideTests(TestCase):
    def test_marks_stand_beyond_the_building_also_where_the_crop_is_tight(self):
        for mark in marks_in(PLAN, [ALONG, *SIDES]):
            for bubble in mark.bubbles:
                self.assertGreaterEqual(away(HOUSE, bubble), BUBBLE + AROUND - 1e-6, mark.subject)

    def test_where_the_foot_is_cropped_through_a_section_is_marked_above_alone(self):
        across = replace(ALONG, spec=parse_view("section:100,-5200,100,5200"), toward=(1.0, 0.0, 0.0))
        for foot, ends in ((HOUSE.y, 2), (HOUSE.y - 20, 1)):
            house = replace(HOUSE, y=foot, height=HOUSE.top - foot)
            (mark,) = marks_in(replace(SOUTH, building=house), [across])
            self.assertEqual(len(mark.bubbles), ends, foot)
            self.assertGreaterEqual(away(house, mark.bubbles[0]), BUBBLE, foot)
            thick = [item for item in mark_items([mark], "v") if getattr(item, "pen", "") == THICK_PEN]
            self.assertEqual(len(thick), ends)

    @given(st.lists(st.tuples(st.floats(100, 300), st.floats(50, 200)), max_size=4))
    def test_they_stand_clear_of_what_is_dimensioned_wherever_that_is(self, corners):
        taken = tuple(Box(x, y, 60, 8) for x, y in corners)
        for mark in marks_in(replace(PLAN, taken=taken), [ALONG, *SIDES]):
            for bubble in mark.bubbles:
                for box in (HOUSE, *taken):
                    self.assertGreaterEqual(away(box, bubble), BUBBLE, mark.subject)

    def test_where_the_crop_cuts_the_building_off_they_stay_within_it(self):
        cut = replace(PLAN, building=Box(100, 50, 200, 150))
        for mark in marks_in(cut, [ALONG, *SIDES]):
            for x, y in mark.bubbles:
                self.assertTrue(145 + BUBBLE <= x <= 255 - BUBBLE and 90 + BUBBLE <= y <= 160 - BUBBLE)

    def test_a_sections_bubble_stands_clear_of_those_of_the_grid(self):
        bubbles = [mark.bubble for mark in grid_in(PLAN, GRID)]
        (mark,) = marks_in(PLAN, [ALONG], bubbles)
        for bubble in mark.bubbles:
            self.assertTrue(all(math.dist(bubble, other) >= BUBBLE + GRID_BUBBLE for other in bubbles))

    def test_grid_bubbles_stand_beyond_the_building_and_its_dimensions(self):
        taken = (Box(150, 60, 100, 20),)
        for mark in grid_in(replace(PLAN, taken=taken), GRID):
            for box in (HOUSE, *taken):
                self.assertGreaterEqual(away(box, mark.bubble), GRID_BUBBLE)


class LevelTests(TestCase):
    def boxes(self, levels):
        return [bounds_of(item) for item in level_items(levels, "v") if isinstance(item, Text)]

    def test_lines_and_words_lie_beside_the_building(self):
        levels = levels_in(SOUTH, [("Ground floor", 0.0), ("First floor of the annexe", 2000.0)])
        for level in levels:
            self.assertLessEqual(level.left + level.reach, HOUSE.x - AROUND + 1e-9)
            self.assertGreaterEqual(level.right - level.reach, HOUSE.right + AROUND - 1e-9)
        for box in self.boxes(levels):
            self.assertFalse(box.meets(HOUSE))

    def test_each_line_has_its_height_beside_it(self):
        levels = levels_in(SOUTH, [(f"Level {k}", 190.0 * k) for k in range(5)])
        items = list(level_items(levels, "v"))
        lines = [item.points for item in items if isinstance(item, Path) and not item.closed]
        heights = [bounds_of(item) for item in items if isinstance(item, Text)]
        self.assertEqual(len(lines), len(levels))
        for (left, y), (right, _) in lines:
            self.assertTrue(any(left <= box.x and box.right <= right and box.y > y for box in heights))

    def test_no_name_is_cut_short(self):
        name = "Mezzanine over the boat store and its workshop"
        levels = levels_in(SOUTH, [(name, 0.0)])
        self.assertIn(name, [item.text for item in level_items(levels, "v") if isinstance(item, Text)])

    @given(st.lists(st.integers(-3000, 3000), min_size=2, max_size=6, unique=True))
    def test_however_near_two_levels_are_their_words_do_not_lie_over_each_other(self, heights):
        heights = [h for k, h in enumerate(sorted(heights)) if k == 0 or h - sorted(heights)[k - 1] >= 190]
        levels = levels_in(SOUTH, [(f"Level {k}", float(h)) for k, h in enumerate(heights)])
        boxes = self.boxes(levels)
        for k, box in enumerate(boxes):
            self.assertFalse(any(box.meets(other) for other in boxes[k + 1 :]))
