"""Dimensions: true lengths whatever the scale and turn, their figures, and where they lie on paper."""

import math
from dataclasses import replace
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from drafting.annotation.anchors import Anchor
from drafting.annotation.dimensions import STYLES, Dimension, changes, measured
from drafting.annotation.piece import Location
from drafting.annotation.pieces import PlacedPiece, attached, dump_piece, parse_piece
from drafting.annotation.spot_levels import SpotLevel
from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.geometry.regions import Rectangle
from drafting.render.annotation_items import piece_boxes, piece_items
from drafting.render.backends.extents import bounds_of
from drafting.render.items import Fill, Path, Text
from drafting.sheets.scale import Scale
from drafting.sheets.viewport import Viewport
from drafting.styles.lengths import feet_and_inches
from drafting.views.axonometric import Axonometric
from drafting.views.detail import Detail
from drafting.views.elevation import Elevation
from drafting.views.perspective import Perspective
from drafting.views.plan import Plan

PLACES = st.tuples(st.integers(-30_000, 30_000), st.integers(-30_000, 30_000))


def chain(*places, **given):
    return Dimension(tuple(Anchor((float(u), float(v))) for u, v in places), **given)


def viewport(scale="1:100", turn=0.0):
    return Viewport("v", "", Box(100, 100, 200, 150), Scale.parse(scale), (5000.0, 3000.0), turn=turn)


def placed(piece, scale="1:100", turn=0.0, zero=0.0):
    return PlacedPiece("p", piece, piece.locate(lambda element: None), viewport(scale, turn), zero)


def texts(items):
    return [item.text for item in items if isinstance(item, Text)]


class MeasuredTests(TestCase):
    @given(PLACES, PLACES, st.floats(0, 360), st.sampled_from(["1:20", "1:100", '1/4"=1\'-0"']))
    def test_a_length_is_the_buildings_at_any_scale_and_turn(self, a, b, turn, scale):
        dimension = chain(a, b)
        lengths = measured(dimension, [a, b]).lengths
        if math.dist(a, b) < 1:
            return
        self.assertAlmostEqual(lengths[0].measure, math.dist(a, b), places=6)
        (figure,) = texts(piece_items(placed(dimension, scale, turn)))
        self.assertEqual(figure, str(round(math.dist(a, b))))

    @given(st.lists(PLACES, min_size=2, max_size=12))
    def test_the_lengths_of_a_chain_add_up_to_what_it_spans(self, places):
        lengths = measured(chain(*places, measures="horizontal"), places).lengths
        us = [u for u, _ in places]
        self.assertAlmostEqual(sum(x.measure for x in lengths), max(us) - min(us))

    def test_a_point_added_in_between_splits_a_length(self):
        lengths = measured(chain((0, 0), (5000, 0), (2000, 300), measures="horizontal"), [
            (0, 0), (5000, 0), (2000, 300),
        ]).lengths  # fmt: skip
        self.assertEqual([(x.first, x.last, x.measure) for x in lengths], [(0, 2, 2000.0), (2, 1, 3000.0)])

    def test_what_has_changed_is_told_length_by_length(self):
        dimension = chain((0, 0), (2000, 0), (5000, 0), measures="horizontal")
        self.assertEqual(changes(dimension, [(0, 0), (2000, 0), (5000, 0)]), [])
        self.assertEqual(changes(dimension, [(0, 0), (2300, 0), (5300, 0)]), [(2000.0, 2300.0)])
        # What only moves as a whole keeps its lengths.
        self.assertEqual(changes(dimension, [(70, 9), (2070, 9), (5070, 9)]), [])


class FigureTests(TestCase):
    def test_figures_in_each_unit(self):
        for style, wanted in (
            ("millimetres", "4205"), ("centimetres", "420.5"), ("metres", "4.20"), ("feet", "13'-9 1/2\""),
        ):  # fmt: skip
            with self.subTest(style):
                self.assertEqual(STYLES[style].words(4204.6 if style == "metres" else 4205.0), wanted)

    @given(st.integers(0, 12 * 8 * 100))
    def test_feet_and_inches_are_read_as_the_length_that_they_are_of(self, eighths):
        text = feet_and_inches(eighths * 25.4 / 8, 8)
        feet, _, inches = text.rstrip('"').partition("'-")
        whole, _, part = inches.partition(" ")
        over, _, under = (part or "0/1").partition("/")
        self.assertEqual(int(feet) * 96 + int(whole) * 8 + 8 * int(over) // int(under), eighths)
        self.assertLess(int(whole), 12)

    def test_what_is_typed_over_is_seen_in_its_place(self):
        dimension = chain((0, 0), (900, 0), (2000, 0), measures="horizontal", overrides=("", "to suit"))
        self.assertEqual(texts(piece_items(placed(dimension))), ["900", "to suit"])


class DrawnTests(TestCase):
    def test_the_line_lies_at_its_offset_and_the_strokes_on_its_ends(self):
        dimension = chain((4000, 3000), (7000, 3000), measures="horizontal", offset=12.0)
        items = piece_items(placed(dimension))
        line = next(i for i in items if isinstance(i, Path) and len({y for _, y in i.points}) == 1)
        self.assertEqual([tuple(round(x, 6) for x in p) for p in line.points], [(190, 187), (220, 187)])
        strokes = [i for i in items if isinstance(i, Path) and i.pen.width == 0.5]
        middles = sorted(round(sum(x for x, _ in s.points) / 2, 6) for s in strokes)
        self.assertEqual(middles, [190.0, 220.0])

    def test_on_paper_it_is_as_large_at_every_scale(self):
        sizes = set()
        for scale in ("1:50", "1:100", "1:500"):
            items = piece_items(placed(chain((0, 0), (9000, 0), offset=10.0), scale))
            sizes |= {(item.size, item.turn) for item in items if isinstance(item, Text)}
        self.assertEqual(sizes, {(2.5, 0.0)})

    def test_figures_read_from_the_bottom_or_from_the_right(self):
        across, up = ((0, 0), (3000, 0)), ((0, 0), (0, 3000))
        for places, turn, wanted in (
            (across, 0.0, 0.0), (across[::-1], 0.0, 0.0), (up, 0.0, 90.0), (up[::-1], 0.0, 90.0),
            (across, 180.0, 0.0), (across, 135.0, -45.0),
        ):  # fmt: skip
            with self.subTest(places=places, turn=turn):
                text = next(i for i in piece_items(placed(chain(*places), turn=turn)) if isinstance(i, Text))
                self.assertAlmostEqual(text.turn, wanted, places=6)

    def test_no_figure_of_a_chain_lies_over_another(self):
        steps = [0, 150, 300, 500, 620, 900, 4000, 4100, 4150]
        items = piece_items(placed(chain(*((u, 0) for u in steps), measures="horizontal")))
        boxes = [bounds_of(item) for item in items if isinstance(item, Text)]
        self.assertEqual(len(boxes), len(steps) - 1)
        for k, a in enumerate(boxes):
            self.assertFalse(any(a.meets(b) for b in boxes[k + 1 :]), texts(items)[k])

    @given(st.lists(st.integers(0, 90), min_size=2, max_size=8, unique=True), st.booleans())
    def test_from_a_base_every_length_begins_at_the_first_point(self, places, left):
        points = [(100 * at, 0) for at in places]
        offset = 12.0 if left else -12.0
        items = piece_items(placed(chain(*points, measures="horizontal", arrangement="base", offset=offset)))
        wanted = sorted(abs(100 * (at - places[0])) for at in places[1:])
        self.assertEqual(texts(items), [str(length) for length in wanted])
        # Each on a line of its own, the longest furthest out.
        heights = [item.at[1] for item in items if isinstance(item, Text)]
        steps = np.diff(heights)
        np.testing.assert_allclose(steps, np.full(len(steps), 8.0 if left else -8.0), atol=1e-9)

    def test_the_whole_stands_outside_of_its_parts(self):
        whole = chain((0, 0), (3000, 0), (4000, 0), measures="horizontal", arrangement="overall", offset=12.0)
        items = piece_items(placed(whole))
        self.assertEqual(texts(items), ["3000", "1000", "4000"])
        low, high = (
            next(i.at[1] for i in items if isinstance(i, Text) and i.text == t) for t in ("3000", "4000")
        )
        self.assertAlmostEqual(high - low, 8.0)
        typed = replace(whole, overrides=("", "", "as built"))
        self.assertEqual(texts(piece_items(placed(typed)))[-1], "as built")

    def test_it_is_taken_hold_of_by_its_line_and_not_by_what_it_measures(self):
        piece = placed(chain((4000, 3000), (7000, 3000), measures="horizontal", offset=30.0))
        (box,) = piece_boxes([(piece, piece_items(piece))])
        self.assertGreater(box.box.y, 180 + 20)
        self.assertEqual((box.text, box.standing, box.viewport), ("3000", "followed", "v"))
        self.assertEqual(box.at, ((4000.0, 3000.0), (7000.0, 3000.0)))

    def test_what_measures_nothing_any_more_can_still_be_taken_hold_of(self):
        dimension = chain((0, 0), (3000, 0))
        piece = PlacedPiece(
            "p", dimension, Location(((0, 0), (0, 0)), "changed", "3000 is now 0"), viewport()
        )
        self.assertEqual(piece_items(piece), [])
        (box,) = piece_boxes([(piece, [])])
        self.assertEqual(box.standing, "changed")

    def test_a_level_has_the_height_above_the_buildings_zero(self):
        for level, wanted in (
            (SpotLevel(Anchor((0.0, 2900.0))), "+2.950"), (SpotLevel(Anchor((0.0, -50.0))), "±0.000"),
            (SpotLevel(Anchor((0.0, 2900.0)), feet=True), "+9'-8 1/4\""),
        ):  # fmt: skip
            items = piece_items(placed(level, zero=50.0))
            self.assertEqual(texts(items), [wanted])
            self.assertTrue(any(isinstance(item, Fill) for item in items))


class RefusedTests(TestCase):
    def refused(self, piece, view, **given):
        with self.assertRaises(SheetError) as caught:
            piece.check(view, **given)
        return str(caught.exception)

    def test_nothing_is_measured_where_lengths_are_foreshortened(self):
        two = chain((0, 0), (1000, 0))
        perspective = Perspective((0.0, 0.0, 1500.0), (9000.0, 0.0, 0.0))
        for view in (Axonometric("ne"), perspective):
            self.assertIn("foreshortened", self.refused(two, view))
        two.check(Plan("Ground"))
        part = Rectangle((0.0, 0.0), (1000.0, 1000.0))
        self.assertIn("foreshortened", self.refused(two, Detail(Axonometric("ne"), part)))
        two.check(Detail(Plan("Ground"), part))
        two.check(Elevation("south"))

    def test_nothing_is_measured_on_the_bare_sheet(self):
        self.assertIn("viewport", self.refused(chain((0, 0), (1000, 0)), None))

    def test_a_dimension_of_nothing_is_refused(self):
        self.assertIn("apart", self.refused(chain((5, 5), (5, 5)), Plan("Ground")))
        self.assertIn("apart", self.refused(chain((5, 5), (5, 900), measures="horizontal"), Plan("Ground")))

    def test_levels_are_given_where_heights_are_seen(self):
        self.assertIn("heights", self.refused(SpotLevel(Anchor((0.0, 0.0))), Plan("Ground"), upright=False))

    def test_a_piece_as_plain_data_is_the_same_piece(self):
        for piece in (chain((0, 0), (1000, 0), offset=-3.5), SpotLevel(Anchor((1.0, 2.0)))):
            self.assertEqual(parse_piece(dump_piece(piece)), piece)
        with self.assertRaises(SheetError):
            parse_piece({"kind": "dimension", "points": [{"at": [0, 0]}]})
        with self.assertRaises(SheetError):
            parse_piece({"kind": "dimension", "points": [{"at": [0, float("nan")]}, {"at": [1, 1]}]})

    def test_an_anchor_to_an_element_that_is_not_drawn_becomes_a_bare_point(self):
        two = Dimension((Anchor((0.0, 0.0), "gone"), Anchor((1000.0, 0.0))))
        self.assertEqual(attached(two, lambda element: None), chain((0, 0), (1000, 0)))
