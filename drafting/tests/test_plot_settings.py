"""Plot settings: what goes together, and how a sheet comes to lie on its paper."""

import math
from dataclasses import replace
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from drafting.errors import DraftingError, SheetError
from drafting.geometry.boxes import Box
from drafting.plotting.colours import treatment
from drafting.plotting.devices import BY_KEY, Device
from drafting.plotting.pages import page_for
from drafting.plotting.print_warnings import cut_off, print_warnings
from drafting.plotting.reduction import reduction_text
from drafting.plotting.settings import (
    PLOT_PRESETS,
    PlotSettings,
    conflicts,
    parse_plot_settings,
    ratio_between,
)
from drafting.render.compose import compose
from drafting.render.page import Page
from drafting.schema import dump
from drafting.sheets.paper import Paper
from drafting.sheets.scale import Scale
from drafting.sheets.sheet import Sheet
from drafting.styles.pen_table import parse_pen_table
from drafting.tests.outputs import write_pdf
from drafting.tests.pdf_reading import areas, page_sizes, strokes, text
from drafting.tests.test_plotting_sheets import SHEET, WALL, linework

A0 = replace(SHEET, paper=Paper.of("A0"), viewports=SHEET.viewports[:1])
BY_PAPER = PlotSettings(paper="A3", reduction="paper")


def page(settings: PlotSettings, sheet: Sheet = SHEET) -> Page:
    return page_for(sheet, compose(sheet), settings)


def pdf(settings: PlotSettings, sheet: Sheet = SHEET) -> bytes:
    return write_pdf([page(settings, sheet)], linework)


def noted(made: Page, device: Device, names: dict[str, str]) -> list[str]:
    return print_warnings(made, device, cut_off(made, device, names))


def wall_lengths(data: bytes) -> list[float]:
    """The lengths of the walls that are drawn, mm on paper."""
    return [float(np.ptp(s.points[:, 0])) for s in strokes(data) if s.layer == WALL.lines[0].layer]


class PlainDataTests(TestCase):
    def test_settings_come_back_as_they_were_written(self):
        for settings in (
            *(settings for _, settings in PLOT_PRESETS.values()),
            PlotSettings(area="window", window=(1.0, 2.0, 30.0, 40.0), kept=("#9c3f24",)),
        ):
            self.assertEqual(parse_plot_settings(dump(settings)), settings)

    def test_what_no_settings_can_have_is_refused_and_named(self):
        for odd, why in (
            ({"device": "easel"}, "“easel”"),
            ({"paper": "A9"}, "“A9”"),
            ({"reduction": "half"}, "‘half’|“half”"),
            ({"percent": 0}, "at least 1"),
            ({"percent": "50"}, "“50”"),
            ({"kept": ["red"]}, "“red”"),
            ({"window": [0, 0, 10, 0.1]}, "1 mm"),
            ({"window": [0, 0, 10]}, "window"),
            ({"resolution": 299}, "“299”"),
            ({"widths": 1}, "true or false"),
            ({"nib": 1}, "nib"),
        ):
            with self.subTest(odd), self.assertRaisesRegex(DraftingError, why):
                parse_plot_settings(odd)


class ConflictTests(TestCase):
    def test_what_ships_goes_together_for_an_a1_sheet(self):
        for _, settings in PLOT_PRESETS.values():
            self.assertEqual(conflicts(settings, Paper.of("A1")), [])

    def test_what_cannot_go_together_is_said_with_its_remedy(self):
        for settings, why in (
            (PlotSettings(device="office"), "holds A3 and A4, and no A1"),
            (PlotSettings(device="roll", paper="1200 x 1000"), "roll of 914.4 mm"),
            (PlotSettings(area="window"), "Give its place and size"),
            (PlotSettings(colours="chosen"), "Choose one"),
            (PlotSettings(reduction="paper"), "needs a paper"),
            (PlotSettings(paper="A3", reduction="paper", area="drawings"), "for whole sheets"),
            (PlotSettings(reduction="fit", place="offset"), "centred"),
            (PlotSettings(paper="A0", resolution=600), "Choose 300 or less"),
        ):
            with self.subTest(settings):
                (sentence,) = conflicts(settings, Paper.of("A1"))
                self.assertIn(why, sentence)
                with self.assertRaises(SheetError):
                    page(settings, replace(SHEET, paper=Paper.of("A1")))


class ReductionTests(TestCase):
    def test_from_one_a_size_to_another_it_is_the_root_of_two(self):
        for a, b, wanted in (
            ("A1", "A2", 0.7071),
            ("A1", "A3", 0.5),
            ("A0", "A3", 0.3536),
            ("A3", "A3", 1.0),
        ):
            self.assertAlmostEqual(ratio_between(Paper.of(a), Paper.of(b)), wanted, places=4)
        self.assertAlmostEqual(ratio_between(Paper.of("ANSI D"), Paper.of("ANSI B")), 0.5)

    def test_a0_onto_a3_measures_35_36_per_cent_in_the_file(self):
        data = pdf(BY_PAPER, A0)
        np.testing.assert_allclose(page_sizes(data), [(420, 297)], atol=0.01)
        (length,) = wall_lengths(data)
        self.assertAlmostEqual(length, 7250 / 50 * 0.35355339, delta=0.01)
        widths = {round(s.width, 4) for s in strokes(data) if s.layer == WALL.lines[0].layer}
        self.assertEqual(widths, {round(0.35 * 0.35355339, 4)})

    def test_a_reduced_print_says_so_on_the_paper(self):
        self.assertIn("1:50 at A0, printed at 35.4 %, about 1:141", text(pdf(BY_PAPER, A0)))
        self.assertEqual(reduction_text(SHEET, 0.5), "1:50, 1:100 at A3, printed at 50 %, 1:100, 1:200")
        one, two = SHEET.viewports
        many = [replace(one, scale=Scale.parse(f"1:{n}")) for n in (10, 20, 50, 100)]
        self.assertEqual(
            reduction_text(replace(SHEET, viewports=tuple(many)), 0.5),
            "Scales as shown at A3, printed at 50 %",
        )
        flat = replace(SHEET, viewports=(replace(two, to_scale=False),))
        self.assertEqual(reduction_text(flat, 0.7071), "A3, printed at 70.7 %")

    def test_a_sheet_at_its_own_size_says_nothing_of_it(self):
        self.assertNotIn("printed at", text(pdf(PLOT_PRESETS["file"][1])))

    @given(
        st.sampled_from(["A0", "A1", "A2", "A3", "ANSI E", "700 x 500"]),
        st.sampled_from(["office", "roll", "file"]),
    )
    def test_what_fits_lies_within_what_the_device_prints(self, name, device):
        sheet = replace(SHEET, paper=Paper.of(name), viewports=())
        made = page(PlotSettings(device=device, paper="A3", reduction="fit"), sheet)
        printable = BY_KEY[device].printable(Paper.of("A3"))
        lies = made.on_paper(Box(0, 0, sheet.paper.width, sheet.paper.height))
        self.assertTrue(
            Box(
                printable.x - 1e-6, printable.y - 1e-6, printable.width + 2e-6, printable.height + 2e-6
            ).holds(lies)
        )
        self.assertTrue(
            math.isclose(lies.width, printable.width) or math.isclose(lies.height, printable.height)
        )


class AreaTests(TestCase):
    def test_a_window_is_all_that_is_plotted_and_lies_in_the_middle(self):
        settings = PlotSettings(area="window", window=(40.0, 200.0, 160.0, 60.0), paper="A4")
        made = page(settings)
        np.testing.assert_allclose((made.window.x, made.window.y), ((297 - 160) / 2, (210 - 60) / 2))
        self.assertAlmostEqual(wall_lengths(pdf(settings))[0], 145.0, places=3)

    def test_an_offset_is_measured_from_what_the_device_prints(self):
        window = (40.0, 200.0, 160.0, 60.0)
        made = page(
            PlotSettings(device="office", area="window", window=window, place="offset", offset=(3.0, 4.0))
        )
        self.assertEqual((made.window.x, made.window.y), (8.0, 9.0))

    def test_the_extents_of_the_drawings_hold_viewports_and_their_titles(self):
        made = page(PlotSettings(area="drawings", reduction="fit", paper="A3"))
        self.assertGreater(made.scale, 1.2)
        with self.assertRaisesRegex(SheetError, "no drawing"):
            page(PlotSettings(area="drawings"), replace(SHEET, viewports=()))

    def test_a_percentage_scales_lines_and_their_widths(self):
        np.testing.assert_allclose(
            wall_lengths(pdf(PlotSettings(reduction="percent", percent=50.0))), [72.5, 36.25], atol=1e-3
        )


class InkTests(TestCase):
    def test_all_black_leaves_no_colour_and_keeps_the_widths(self):
        full, black = pdf(PlotSettings()), pdf(PlotSettings(colours="black"))
        self.assertEqual({s.colour for s in strokes(black)}, {(0.0, 0.0, 0.0)})
        self.assertEqual([s.width for s in strokes(full)], [s.width for s in strokes(black)])
        for area in areas(black):
            self.assertEqual(len(set(area.colour)), 1)

    def test_grey_keeps_how_light_a_colour_is(self):
        for stroke in strokes(pdf(PlotSettings(colours="grey"))):
            self.assertEqual(len(set(stroke.colour)), 1)
            self.assertAlmostEqual(stroke.colour[0], 0.12, delta=0.03)

    def test_a_chosen_colour_is_kept_and_all_else_black(self):
        table = parse_pen_table({"roles": {"profile": {"colour": "#9c3f24"}, "edge": {"colour": "#2d5c66"}}})
        drawing = compose(SHEET, table).restyled(treatment("chosen", ["#9c3f24"])).items[0]
        self.assertEqual(
            (drawing.pens["profile"].colour, drawing.pens["edge"].colour), ("#9c3f24", "#000000")
        )

    def test_without_widths_every_line_is_the_narrowest_on_paper_however_reduced(self):
        data = pdf(replace(BY_PAPER, widths=False), A0)
        for stroke in strokes(data):
            self.assertAlmostEqual(stroke.width, 0.13, delta=0.001)


class NoteTests(TestCase):
    def test_what_lies_in_a_margin_is_named_with_its_side(self):
        device = BY_KEY["roll"]
        made = page(PlotSettings(device="roll"))
        self.assertEqual([lost.what for lost in cut_off(made, device, {})], ["Border", "Title block"])
        self.assertEqual(
            noted(made, device, {}),
            [
                "Border: cut off at the left and right margins of the roll plotter.",
                "Title block: cut off at the right margin of the roll plotter.",
            ],
        )

    def test_a_viewport_that_is_cut_off_is_called_by_its_name(self):
        low = replace(SHEET.viewports[0], box=Box(40, 1, 160, 60), title="none")
        made = page(PlotSettings(device="office"), replace(SHEET, viewports=(low,)))
        notes = noted(made, BY_KEY["office"], {"one": "Wall, large"})
        self.assertIn("Wall, large: cut off at the bottom margin of the office printer.", notes)

    def test_a_file_cuts_nothing_off(self):
        self.assertEqual(noted(page(PlotSettings()), BY_KEY["file"], {}), [])

    def test_small_lettering_and_narrow_lines_are_reported_after_reduction_only(self):
        notes = " ".join(noted(page(BY_PAPER, A0), BY_KEY["file"], {}))
        self.assertIn("under 1.8 mm", notes)
        self.assertIn("Lines are as narrow as 0.046 mm", notes)
