"""Where a view comes to lie on a sheet, and at which scale."""

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.sheets.paper import Paper
from drafting.sheets.placing import free_spaces, place_view
from drafting.sheets.scale import Scale
from drafting.sheets.template import Blank
from drafting.sheets.template_presets import STANDARD

A3 = Blank(Paper.of("A3"), STANDARD)
boxes = st.builds(Box, st.floats(0, 400), st.floats(0, 280), st.floats(2, 200), st.floats(2, 200))


class PlacingTests(TestCase):
    def test_a_view_is_placed_whole_at_the_largest_scale_that_fits(self):
        placed, free = place_view((0, 0, 20_000, 10_000), A3), A3.free
        self.assertEqual(str(placed.scale), "1:75")
        self.assertEqual(placed.centre, (10_000, 5_000))
        self.assertGreaterEqual(placed.box.width * 75, 20_000)
        self.assertTrue(free.x <= placed.box.x and placed.box.right <= free.right and placed.box.y >= free.y)

    def test_a_view_placed_at_the_edge_is_kept_within_the_free_area(self):
        placed = place_view((0, 0, 10_000, 10_000), A3, at=(419, 296))
        self.assertEqual((placed.box.right, placed.box.top), (400, 277))

    def test_a_scale_at_which_the_drawing_does_not_fit_is_refused_with_one_that_does(self):
        with self.assertRaisesRegex(SheetError, r"1:1 .* does not fit A3\. Take 1:75"):
            place_view((0, 0, 20_000, 10_000), A3, scale=Scale.parse("1:1"))

    @given(st.lists(boxes, max_size=6))
    def test_every_space_is_free_and_within_the_sheets_own(self, taken):
        free = A3.free
        spaces = free_spaces(A3, taken)
        for space in spaces:
            self.assertTrue(
                Box(free.x - 1e-9, free.y - 1e-9, free.width + 2e-9, free.height + 2e-9).holds(space)
            )
            self.assertFalse(any(space.meets(box) for box in taken))
        areas = [s.width * s.height for s in spaces]
        self.assertEqual(areas, sorted(areas, reverse=True))

    def test_beside_one_drawing_the_next_takes_what_is_left(self):
        free = A3.free
        left = Box(free.x, free.y, free.width / 2, free.height)
        placed = place_view((0, 0, 10_000, 10_000), A3, taken=[left])
        self.assertFalse(placed.box.meets(left))
        self.assertEqual(str(placed.scale), "1:75")
        self.assertEqual(
            str(place_view((0, 0, 10_000, 10_000), A3, at=(300, 150), taken=[left]).scale), "1:75"
        )

    def test_let_go_on_another_drawing_it_has_the_whole_area(self):
        free = A3.free
        self.assertEqual(
            str(place_view((0, 0, 30_000, 10_000), A3, at=free.middle, taken=[free]).scale), "1:100"
        )
