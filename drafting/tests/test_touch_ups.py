"""Touch-ups: they do what they say to the lines that they choose and to no other, find these again when the
building has been changed, and say so where they cannot."""

from dataclasses import replace
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from drafting.annotation.anchors import Anchor
from drafting.annotation.corners import Corners
from drafting.errors import ViewError
from drafting.geometry.boxes import Box
from drafting.geometry.polylines import Polylines
from drafting.render.compose import drawing_of
from drafting.render.placed import PlacedDrawing
from drafting.sheets.scale import Scale
from drafting.sheets.viewport import Viewport
from drafting.styles.pen_table import CutStyle, StrokeChange
from drafting.styles.redrawn import OWN, Redrawn, divided
from drafting.tests.scenes import box, cylinder, drawn
from drafting.tests.test_anchors import LONG, WHOLE, wall
from drafting.touchup.choices import (
    AlikeChoice,
    AreaChoice,
    ExtensionChoice,
    InsideChoice,
    RoundChoice,
    StretchChoice,
)
from drafting.touchup.drawing import TouchedDrawing
from drafting.touchup.touch_up import TouchUp, TouchUpChange, dump_touch_up, parse_touch_up

HIDE = TouchUpChange(hidden=True)
#: 1:1, with u = v = 0 in the middle and more room than any scene needs.
WINDOW = Viewport("v", "k", Box(-1e5, -1e5, 2e5, 2e5), Scale.parse("1:1"), (0.0, 0.0))


def touched(*meshes, view="plan:0", materials=()):
    linework = drawn(meshes, view, materials)
    return TouchedDrawing(linework, Corners(linework).of, view.partition(":")[0])


def stretch(drawing, a, b, change=HIDE, element=0):
    """A touch-up of what the first element draws between two places."""
    name = drawing.linework.elements[element]
    made = TouchUp(StretchChoice(name, Anchor(a, name), Anchor(b, name)), change)
    return made.attached(drawing)


def groups(drawing, *touch_ups):
    """What is drawn with touch-ups: layer, pen and lines."""
    found = [each.redrawn(drawing) for each in touch_ups]
    item = replace(drawing_of(WINDOW), redrawn=tuple(each for each in found if each))
    return list(PlacedDrawing(item, drawing.linework).line_groups())


def length(drawing, *touch_ups, keep=lambda pen: True):
    """The length of all that is drawn with touch-ups, mm."""
    return sum(
        float(np.hypot(*np.diff(line, axis=0).T).sum())
        for _, pen, lines in groups(drawing, *touch_ups)
        if keep(pen)
        for line in lines
    )


class DividedTests(TestCase):
    LINES = Polylines.of([[(0, 0), (10, 0), (10, 10)], [(0, 5), (8, 5)], [(3, 3), (4, 4)]])

    @given(st.floats(0, 2), st.floats(0, 2), st.floats(0, 2), st.floats(0, 2))
    def test_pieces_add_up_to_the_line_and_the_later_goes_over_the_earlier(self, a, b, c, d):
        first, second = (min(a, b), max(a, b)), (min(c, d), max(c, d))
        by, pieces = divided(self.LINES, [Redrawn(parts=((0, *first),)), Redrawn(parts=((0, *second),))])
        lengths = dict.fromkeys((OWN, 0, 1), 0.0)
        for piece in pieces:
            self.assertEqual(piece.line, 0)
            lengths[piece.by] += float(np.hypot(*np.diff(piece.points, axis=0).T).sum())
        self.assertAlmostEqual(sum(lengths.values()), 20.0, places=6)
        self.assertAlmostEqual(lengths[1], 10 * (second[1] - second[0]), places=6)
        overlap = max(min(first[1], second[1]) - max(first[0], second[0]), 0.0)
        self.assertAlmostEqual(lengths[0], 10 * (first[1] - first[0] - overlap), places=6)
        self.assertEqual(by[1:].tolist(), [OWN, OWN])

    def test_a_whole_line_over_a_part_leaves_no_piece(self):
        by, pieces = divided(self.LINES, [Redrawn(parts=((1, 0.2, 0.4),)), Redrawn(whole=((0, 1),))])
        self.assertEqual((by.tolist(), pieces), ([1, 1, OWN], []))

    def test_lines_that_are_not_there_are_let_be(self):
        by, pieces = divided(self.LINES, [Redrawn(whole=((2, 9),), parts=((7, 0.0, 1.0),))])
        self.assertEqual((by.tolist(), pieces), ([OWN, OWN, 0], []))


class ChangeTests(TestCase):
    """A wall of 4.00 x 0.30 m, cut: 8.60 m of lines."""

    def setUp(self):
        self.drawing = touched(wall(), materials=["Oak"])

    def test_hidden_from_corner_to_corner_the_other_lines_stay(self):
        face = stretch(self.drawing, (0.0, 0.0), (4000.0, 0.0))
        self.assertAlmostEqual(length(self.drawing), 8600.0, delta=0.1)
        self.assertAlmostEqual(length(self.drawing, face), 4600.0, delta=0.1)

    @given(st.integers(0, 39), st.integers(1, 40))
    def test_of_a_part_so_much_is_hidden(self, begin, more):
        a, b = begin * 100.0, min(begin + more, 40) * 100.0
        part = stretch(self.drawing, (a, 300.0), (b, 300.0))
        self.assertAlmostEqual(length(self.drawing, part), 8600.0 - (b - a), delta=0.1)

    def test_another_pen_or_role_is_that_of_the_chosen_part_alone(self):
        wide = stretch(self.drawing, (0.0, 0.0), (1000.0, 0.0), TouchUpChange(stroke=StrokeChange(width=1.4)))
        thin = stretch(self.drawing, (0.0, 0.0), (1000.0, 0.0), TouchUpChange(role="seam"))
        drawn_wide = length(self.drawing, wide, keep=lambda pen: pen.width == 1.4)
        self.assertAlmostEqual(drawn_wide, 1000.0, delta=0.1)
        seam = drawing_of(WINDOW).pens["seam"]
        self.assertAlmostEqual(length(self.drawing, thin, keep=lambda p: p == seam), 1000.0, delta=0.1)
        self.assertAlmostEqual(length(self.drawing, wide, thin), 8600.0, delta=0.1)

    def test_what_is_cut_is_left_out_or_filled_otherwise(self):
        name = self.drawing.linework.elements[0]
        styles = (CutStyle("oak", "#112233"),)

        def fills(change, material="Oak"):
            redrawn = TouchUp(AreaChoice(name, material), change, "plan").redrawn(self.drawing)
            item = replace(drawing_of(WINDOW), cuts=styles, redrawn=(redrawn,) if redrawn else ())
            return [style.fill for style, _ in PlacedDrawing(item, self.drawing.linework).cut_areas()]

        self.assertEqual(fills(TouchUpChange(cut=CutStyle(fill="#445566"))), ["#445566"])
        self.assertEqual(fills(HIDE), [])
        self.assertEqual(fills(HIDE, material="Pine"), ["#112233"])

    def test_a_line_goes_on_to_where_it_meets_another(self):
        across = box((6000, -1000, 0), (6200, 1000, 2600))
        drawing = touched(wall(), across)
        wall_name, other = drawing.linework.elements
        made = TouchUp(
            ExtensionChoice(
                wall_name,
                Anchor((0.0, 0.0), wall_name), Anchor((4000.0, 0.0), wall_name),
                Anchor((6000.0, -1000.0), other), Anchor((6000.0, 1000.0), other),
            )
        ).attached(drawing)  # fmt: skip
        self.assertAlmostEqual(length(drawing, made) - length(drawing), 2000.0, delta=0.1)
        moved = touched(wall(), box((7000, -1000, 0), (7200, 1000, 2600)))
        self.assertAlmostEqual(length(moved, made) - length(moved), 3000.0, delta=0.1)
        # One that the line never meets, and one behind it.
        for placed in (box((-900, -1000, 0), (-700, 1000, 2600)), box((0, 900, 0), (9000, 1100, 2600))):
            self.assertIsNone(made.redrawn(touched(wall(), placed)))


class AlikeTests(TestCase):
    def setUp(self):
        self.drawing = touched(wall(), wall(y=2000.0, length=1000.0), materials=["Oak", "Pine"])

    def left(self, **alike):
        return length(self.drawing, TouchUp(AlikeChoice(**alike), HIDE, "plan"))

    def test_all_lines_that_fulfil_all_that_is_said(self):
        first, second = self.drawing.linework.elements
        layer = self.drawing.linework.layers[0]
        self.assertAlmostEqual(length(self.drawing), 11200.0, delta=0.2)
        self.assertAlmostEqual(self.left(element=second), 8600.0, delta=0.2)
        self.assertAlmostEqual(self.left(layer=layer), 0.0)
        self.assertAlmostEqual(self.left(role="cut"), 0.0)
        self.assertAlmostEqual(self.left(role="edge"), 11200.0, delta=0.2)
        self.assertAlmostEqual(self.left(element=first, shorter=8000.0), 11200.0, delta=0.2)
        self.assertAlmostEqual(self.left(shorter=3000.0), 8600.0, delta=0.2)
        self.assertAlmostEqual(self.left(made_of="Pine"), 8600.0, delta=0.2)
        self.assertAlmostEqual(self.left(made_of="Oak", shorter=3000.0), 11200.0, delta=0.2)

    def test_of_a_class_that_is_not_there_nothing_is_found(self):
        self.assertIsNone(TouchUp(AlikeChoice(ifc_class="IfcBeam"), HIDE, "plan").redrawn(self.drawing))


class OutlineTests(TestCase):
    def test_an_element_keeps_its_outline_alone(self):
        """A wall with an opening, seen from the south: the opening goes, the outline stays."""
        drawing = touched(wall(openings=[(1200, 2100)]), view="elevation:south")
        name = drawing.linework.elements[0]
        simple = TouchUp(InsideChoice(name), HIDE).attached(drawing)
        self.assertGreater(length(drawing), 13_200.0 + 1000.0)
        self.assertAlmostEqual(length(drawing, simple), 2 * (4000.0 + 2600.0), delta=0.5)

    def test_what_encloses_nothing_is_let_be(self):
        drawing = touched(wall())
        self.assertIsNone(TouchUp(InsideChoice("nobody"), HIDE).attached(drawing).redrawn(drawing))
        self.assertIsNone(
            TouchUp(InsideChoice(drawing.linework.elements[0]), HIDE).attached(drawing).redrawn(drawing)
        )


class FoundAgainTests(TestCase):
    """What is hidden before the building changes is hidden after it, as long as it is there."""

    def kept(self, before, after, a, b, hidden):
        made = stretch(before, a, b)
        self.assertIsNotNone(made.redrawn(after))
        self.assertAlmostEqual(length(after) - length(after, made), hidden, delta=0.2)

    @settings(max_examples=25, deadline=None)
    @given(WHOLE, WHOLE)
    def test_moved(self, dx, dy):
        before = touched(wall(openings=[(1200, 2100)]))
        self.kept(before, touched(wall(dx, dy, openings=[(1200, 2100)])), (0, 0), (1200, 0), 1200.0)

    @settings(max_examples=25, deadline=None)
    @given(LONG)
    def test_stretched(self, more):
        before, after = touched(wall()), touched(wall(length=4000.0 + more))
        self.kept(before, after, (0, 300), (4000, 300), 4000.0 + more)

    @settings(max_examples=15, deadline=None)
    @given(st.integers(3, 14).map(lambda k: k * 50.0))
    def test_an_opening_that_moves_takes_its_jamb_along(self, by):
        before = touched(wall(openings=[(1200, 2100)]))
        after = touched(wall(openings=[(1200 + by, 2100 + by)]))
        self.kept(before, after, (1200, 0), (1200, 300), 300.0)

    def test_split_or_covered_so_much_is_hidden_as_is_seen(self):
        """Seen from the south something now stands before the middle of the wall's upper edge."""
        before = touched(wall(), view="elevation:south")
        after = touched(wall(), box((1000, -500, 0), (2000, -200, 3000)), view="elevation:south")
        self.kept(before, after, (0, 2600), (4000, 2600), 3000.0)

    def test_deleted_or_closed_it_is_told(self):
        before = touched(wall(openings=[(1200, 2100)]))
        jamb = stretch(before, (1200, 0), (1200, 300))
        self.assertIsNone(jamb.redrawn(touched(wall())))
        self.assertIsNone(jamb.redrawn(touched(box((9000, 9000, 0), (9500, 9500, 3000)), view="roof")))

    def test_in_another_kind_of_view_it_is_lost_and_draws_nothing_wrong(self):
        before, after = touched(wall()), touched(wall(), view="elevation:south")
        made = stretch(before, (0, 300), (4000, 300))
        self.assertIsNone(made.redrawn(after))
        self.assertEqual(length(after, made), length(after))

    @settings(max_examples=15, deadline=None)
    @given(WHOLE, WHOLE)
    def test_a_circle_follows_its_centre(self, dx, dy):
        points, faces = cylinder(500.0, 2600.0, 36)
        before = touched((points, faces))
        name = before.linework.elements[0]
        made = TouchUp(RoundChoice(name, Anchor((0.0, 0.0), name), 500.0), HIDE).attached(before)
        after = touched((points + np.array([dx, dy, 0.0]), faces))
        self.assertGreater(length(after), 3000.0)
        self.assertAlmostEqual(length(after, made), 0.0)


class PlainDataTests(TestCase):
    def test_it_is_kept_as_plain_data(self):
        made = stretch(touched(wall()), (0.0, 0.0), (4000.0, 0.0))
        self.assertEqual(parse_touch_up(dump_touch_up(made)), made)

    def test_what_means_nothing_is_refused(self):
        for given_, says in (
            ({"choice": {"kind": "alike"}, "change": {"hidden": True}}, "alike"),
            ({"choice": {"kind": "inside", "element": "w"}, "change": {}}, "changes nothing"),
            ({"choice": {"kind": "area", "element": "w"}, "change": {"role": "cut"}}, "changes nothing"),
            ({"choice": {"kind": "stretch", "element": "w"}, "change": {"hidden": True}}, "start"),
            ({"choice": {"kind": "round", "element": "w", "centre": {"at": [0, 0]}, "radius": -1}}, "radius"),
            ({"choice": {"kind": "dotted"}}, "choice"),
        ):
            with self.subTest(says), self.assertRaises(ViewError) as refused:
                parse_touch_up(given_)
            self.assertIn(says, str(refused.exception))
