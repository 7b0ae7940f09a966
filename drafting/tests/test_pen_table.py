"""Pen tables: what ships reads apart, and nothing that no pen can be is taken."""

from dataclasses import replace
from unittest import TestCase

from drafting.errors import SheetError
from drafting.linework.model import ROLES
from drafting.render.compose import compose
from drafting.render.page import whole_page
from drafting.schema import dump
from drafting.styles.pen_presets import CONSTRUCTION, PEN_TABLE_PRESETS
from drafting.styles.pen_table import PenChanges, Stroke, StrokeChange, parse_pen_table
from drafting.styles.pens import WIDTHS, PenChange, screened
from drafting.tests.outputs import write_pdf
from drafting.tests.pdf_reading import strokes
from drafting.tests.test_plotting_sheets import SHEET, WALL


def seen(table, tables=None, viewports=SHEET.viewports):
    """Widths and colours of what is drawn through each viewport, from the file."""
    display = compose(replace(SHEET, viewports=viewports), table, tables or {})
    found = strokes(write_pdf([whole_page(display)], lambda _: WALL))
    return [(round(s.width, 3), s.colour) for s in found if s.layer == WALL.lines[0].layer]


class PresetTests(TestCase):
    def test_cut_profile_edge_and_far_read_apart_in_every_table(self):
        for name, table in PEN_TABLE_PRESETS.values():
            with self.subTest(name):
                cut, profile, edge, far = (table.roles[role] for role in ("cut", "profile", "edge", "far"))
                self.assertGreaterEqual(cut.width / profile.width, 1.4)
                self.assertGreaterEqual(profile.width / edge.width, 1.4)
                self.assertTrue(far.width < edge.width or far.screen < edge.screen)
                self.assertTrue({stroke.width for stroke in table.roles.values()} <= set(WIDTHS))

    def test_what_is_hidden_or_overhead_is_dashed(self):
        for _, table in PEN_TABLE_PRESETS.values():
            self.assertEqual({table.roles[r].pattern for r in ("hidden", "overhead")}, {"dashed"})

    def test_every_material_finds_a_row(self):
        for _, table in PEN_TABLE_PRESETS.values():
            self.assertTrue(table.cuts[-1].matches("whatever there is"))


class PlainDataTests(TestCase):
    def test_a_table_comes_back_as_it_was_written(self):
        for table in (
            *(table for _, table in PEN_TABLE_PRESETS.values()),
            replace(CONSTRUCTION, layers={"Furniture": StrokeChange(0.13, screen=50)}),
        ):
            self.assertEqual(parse_pen_table(dump(table)), table)

    def test_what_is_left_out_is_as_usual(self):
        table = parse_pen_table({"roles": {"cut": {"width": 1.0}}})
        self.assertEqual(table.roles["cut"], Stroke(1.0))
        self.assertEqual(set(table.roles), set(ROLES))

    def test_what_no_pen_can_be_is_refused_and_named(self):
        for given, why in (
            ({"roles": {"outline": {}}}, "outline"),
            ({"roles": {"cut": {"width": 0}}}, "cut width: give a number of at least 0.05, not “0”"),
            ({"roles": {"cut": {"width": True}}}, "“True”"),
            ({"roles": {"cut": {"colour": "red"}}}, "“red”"),
            ({"roles": {"cut": {"pattern": "wavy"}}}, "“wavy” is none of"),
            ({"layers": {"Walls": {"screen": 33}}}, "“33”"),
            ({"layers": {"Walls": {"cap": "round"}}}, "Walls cap"),
            ({"cuts": [{"hatch": "bricks"}]}, "“bricks” is none of"),
            ({"cuts": [{"match": "stone", "spacing": 0.01}]}, "cuts 0 spacing"),
            ({"cuts": [{"opacity": 5}]}, "opacity"),
            ({"cuts": [{}] * 61}, "at most 60"),
            ({"nibs": {}}, "nibs"),
        ):
            with self.subTest(given), self.assertRaisesRegex(SheetError, why):
                parse_pen_table(given)


class OnPaperTests(TestCase):
    def test_a_sheet_has_its_table_and_a_viewport_another(self):
        wide = parse_pen_table({"roles": {"profile": {"width": 1.4}}})
        one, two = SHEET.viewports
        found = seen(CONSTRUCTION, {"wide": wide}, (one, replace(two, pen_table="wide")))
        self.assertEqual([width for width, _ in found], [0.35, 1.4])

    def test_a_layer_goes_before_its_role_and_a_viewport_before_both(self):
        layer = WALL.lines[0].layer
        table = replace(CONSTRUCTION, layers={layer: StrokeChange(width=0.7)})
        one = replace(SHEET.viewports[0], pens=PenChanges(layers={layer: PenChange(1.0)}))
        self.assertEqual({width for width, _ in seen(table)}, {0.7})
        self.assertEqual({width for width, _ in seen(table, viewports=(one,))}, {1.0})

    def test_screening_leaves_a_share_of_the_colour(self):
        self.assertEqual(screened("#000000", 50), "#808080")
        table = parse_pen_table({"roles": {"profile": {"colour": "#000000", "screen": 20}}})
        for _, colour in seen(table):
            for part in colour:
                self.assertAlmostEqual(part, 0.8, delta=0.002)
