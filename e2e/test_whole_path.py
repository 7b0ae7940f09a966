"""From signing in to a PDF that measures true, as a drafter goes."""

from __future__ import annotations

import re
import tempfile
from pathlib import Path

import numpy as np
from playwright.sync_api import expect

from demo.building import write_observatory
from drafting.tests.pdf_reading import page_sizes, strokes, text
from e2e.office import FIRST, Office, SheetsOffice


def building_file(test: Office) -> Path:
    """The demo building in a folder that goes with the test."""
    folder = tempfile.TemporaryDirectory()
    test.addCleanup(folder.cleanup)
    file = Path(folder.name) / "observatory.ifc"
    write_observatory(str(file))
    return file


class WholePathTests(Office):
    def setUp(self) -> None:
        super().setUp()
        self.file = building_file(self)

    def test_from_a_building_file_to_a_pdf_that_measures_true(self):
        page = self.page
        self.add_project("Bird observatory")
        self.import_model(self.file)
        expect(page.get_by_role("rowheader", name="Lookout")).to_be_visible()

        self.open_sheets()
        page.get_by_role("button", name="Add the first sheet").click()
        expect(page.get_by_text("Nothing is placed on this sheet")).to_be_visible()
        self.pull_out_views()
        self.drag_card("Plan, Ground floor", (0.35, 0.4))
        self.choose_scale("1:200")
        self.pull_out_views()
        self.drag_card("South elevation", (0.72, 0.4))
        self.choose_scale("1:250")

        # Crop the elevation: the frame is smaller, the scale is what it was.
        width = self.figure("Width")
        self.drag(page.locator('[data-handle="right side"]'), -30, 0)
        self.eventually(lambda: self.figure("Width") < width - 5)
        expect(page.get_by_role("combobox", name="True scale")).to_have_value("1:250")

        # Move it, and move what is seen in it.
        left = self.figure("Left")
        self.drag(self.viewport("South elevation"), 0, 20)
        self.shows("Left", left)
        page.get_by_role("button", name="Move contents").click()
        self.drag(self.viewport("South elevation"), 12, 0)
        self.shows("Left", left)
        page.keyboard.press("Escape")
        page.keyboard.press("Escape")

        self.fill("Title", "Plan and elevation")
        self.fill("Drawn by", "I. M.")
        expect(
            page.get_by_role("navigation", name="Register").get_by_text("Plan and elevation")
        ).to_be_visible()

        page.get_by_role("button", name="Plot sheet").click()
        expect(page.get_by_role("img", name="Page 1")).to_have_attribute("data-painted", "yes")
        with page.expect_download() as download:
            page.get_by_role("link", name="Download PDF").click()
        self.assertEqual(download.value.suggested_filename, "Bird observatory A-01.pdf")
        pdf = Path(download.value.path()).read_bytes()
        self.check_on_paper(pdf)

    def check_on_paper(self, pdf: bytes) -> None:
        np.testing.assert_allclose(page_sizes(pdf), [(420, 297)], atol=0.01)
        self.assertTrue(pdf.startswith(b"%PDF-"))
        words = text(pdf)
        for wanted in ("Plan and elevation", "I. M.", "1:200", "1:250", "As shown", "South elevation"):
            self.assertIn(wanted, words)
        # The bunkhouse is 12 m long: its cut north wall in the plan, its eaves gutter of 12.6 m in the
        # elevation.
        lengths = [abs(x) for s in strokes(pdf) for x in np.diff(s.points, axis=0)[:, 0]]
        for real, scale in ((12_000, 200), (12_600, 250)):
            nearest = min(lengths, key=lambda x: abs(x - real / scale))
            self.assertAlmostEqual(nearest, real / scale, delta=0.01)

    def test_a_file_that_cannot_be_read_is_told_and_the_next_one_is_read(self):
        whole = self.file.read_bytes()
        self.add_project("Second thoughts")
        broken = self.file.with_name("broken.ifc")
        broken.write_bytes(whole[: len(whole) // 2])
        self.page.get_by_label("Building file").set_input_files(broken)
        expect(self.page.get_by_text("“broken.ifc” is cut off")).to_be_visible(timeout=FIRST)
        self.import_model(self.file)
        expect(self.page.get_by_text(re.compile("is cut off"))).to_have_count(0)

    def test_a_file_in_another_unit_than_it_says_is_asked_about_before_it_is_used(self):
        page = self.page
        self.add_project("Small hut")
        hut = self.file.with_name("hut.obj")
        corners = "".join(f"v {x} {y} {z}\n" for z in (0, 3) for y in (0, 6) for x in (0, 9))
        hut.write_text(f"o hut\n{corners}f 1 3 4 2\nf 5 6 8 7\nf 1 2 6 5\nf 3 7 8 4\nf 1 5 7 3\nf 2 4 8 6\n")
        page.get_by_role("combobox", name="Unit of the file").click()
        page.get_by_role("option", name="Millimetres").click()
        page.get_by_label("Building file").set_input_files(hut)
        page.get_by_role("button", name="No: read as metres, 9 × 6 × 3 m").click(timeout=FIRST)
        expect(page.get_by_text("Overall size")).to_be_visible(timeout=FIRST)
        expect(page.get_by_text("Is that right?")).to_have_count(0)

    def test_signing_out_shows_nothing_more_and_wrong_words_do_not_let_in(self):
        page = self.page
        self.add_project("Private")
        page.get_by_role("button", name="Sign out").click()
        expect(page.get_by_role("button", name="Sign in")).to_be_visible()
        expect(page.get_by_text("Private")).to_have_count(0)
        page.get_by_label("Name").fill("ines")
        page.get_by_label("Password").fill("guess")
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_text("Wrong name or password")).to_be_visible()


class OneSheetTests(SheetsOffice):
    def test_what_was_done_is_taken_back_and_done_again_and_lasts(self):
        page = self.page
        self.place_by_key("Roof plan")
        viewport = self.viewport("Roof plan")
        expect(viewport).to_be_focused()
        left = self.figure("Left")
        page.keyboard.press("ArrowRight")
        page.keyboard.press("Shift+ArrowRight")
        self.shows("Left", left + 1.1)
        scale = page.get_by_role("combobox", name="True scale")
        before = scale.input_value()
        page.keyboard.press("PageDown")
        expect(scale).not_to_have_value(before)
        page.keyboard.press("Control+z")
        expect(scale).to_have_value(before)
        page.keyboard.press("Delete")
        expect(viewport).to_have_count(0)
        page.keyboard.press("Control+z")
        expect(viewport).to_be_visible()
        page.keyboard.press("Control+Shift+z")
        expect(viewport).to_have_count(0)
        page.get_by_role("button", name="Undo").click()
        expect(viewport).to_be_visible()
        page.reload()
        expect(viewport).to_be_visible()
        viewport.click()
        self.shows("Left", left + 1.1)

    def test_a_new_version_makes_a_drawing_out_of_date_and_one_click_updates_it(self):
        page = self.page
        self.place_by_key("Roof plan")
        expect(self.viewport("Roof plan")).to_be_visible()
        ledge = page.get_by_role("region", name="Ledge: viewport")
        expect(ledge.get_by_text("Up to date")).to_be_visible()

        page.get_by_role("navigation", name="Stations").get_by_role("link", name="Model").click()
        file = building_file(self)
        file.write_bytes(file.read_bytes().replace(b"'Weather mast'", b"'Wind vane'"))
        page.get_by_label("Building file").set_input_files(file)
        expect(page.get_by_text("2 · observatory.ifc")).to_be_visible()

        self.open_sheets()
        expect(page.get_by_role("navigation", name="Register").get_by_text("Out of date")).to_be_visible()
        self.viewport("Roof plan").click()
        ledge.get_by_role("button", name="Update").click()
        expect(ledge.get_by_text("Up to date")).to_be_visible()
        expect(page.get_by_role("navigation", name="Register").get_by_text("Out of date")).to_have_count(0)

    def test_the_wheel_zooms_the_board_and_no_drawing(self):
        page = self.page
        self.pull_out_views()
        viewport = self.drag_card("West elevation", (0.5, 0.4))
        scale = page.get_by_role("combobox", name="True scale")
        before, wide = scale.input_value(), viewport.bounding_box()["width"]
        figures = [self.figure(label) for label in ("Left", "Bottom", "Width", "Height")]
        box = viewport.bounding_box()
        page.mouse.move(box["x"] + 5, box["y"] + 5)
        page.mouse.wheel(0, -400)
        page.wait_for_function(
            "w => document.querySelector('#board [role=button]').clientWidth > w * 1.2", arg=wide
        )
        self.assertEqual(scale.input_value(), before)
        self.assertEqual([self.figure(label) for label in ("Left", "Bottom", "Width", "Height")], figures)
