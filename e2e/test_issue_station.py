"""At the Issue station: plot settings, the pages of the very file, and prints; pens, from the table to the
paper."""

from __future__ import annotations

import io
import re
from pathlib import Path
from typing import Any

import ezdxf
import numpy as np
import pypdfium2
from django.contrib.auth import get_user_model
from PIL import Image
from playwright.sync_api import expect

from drafting.tests.pdf_reading import page_labels, page_sizes, strokes, text
from e2e.office import SheetsOffice
from server.plots.models import Print
from server.sheets.models import Sheet
from server.styles.models import PlotSettings

#: The bunkhouse's wall is so long in the south elevation's eaves gutter; mm.
GUTTER = 12_600


class IssueTests(SheetsOffice):
    def setUp(self) -> None:
        super().setUp()
        self.place_by_key("South elevation")
        expect(self.viewport("South elevation")).to_be_visible()
        self.choose_scale("1:200")
        self.page.keyboard.press("Escape")
        self.page.keyboard.press("Escape")
        self.saved()

    @property
    def plots(self) -> Any:
        return self.page.get_by_role("region", name="Ledge: plot settings")

    def to_issue(self) -> None:
        self.saved()
        self.page.get_by_role("navigation", name="Stations").get_by_role("link", name="Issue").click()
        expect(self.plots).to_be_visible()

    def own_settings(self, like: str) -> None:
        self.choose("For all of these sheets", like)
        self.plots.get_by_role("button", name="Make a copy").click()
        expect(self.plots.get_by_role("textbox", name="Name")).to_have_value(f"{like}, copy")

    def preview(self) -> None:
        self.plots.get_by_role("button", name="Preview").click()
        expect(self.page.get_by_role("img", name="Page 1")).to_have_attribute("data-painted", "yes")

    def downloaded(self, name: str) -> tuple[str, bytes]:
        with self.page.expect_download() as download:
            self.page.get_by_role("link", name=name).click()
        return download.value.suggested_filename, Path(download.value.path()).read_bytes()

    def printed(self) -> bytes:
        """What came out of the device last."""
        look = self.page.get_by_role("link", name="Look at the print").first
        expect(look).to_be_visible()
        return self.page.request.get(self.live_server_url + look.get_attribute("href")).body()

    def gutter(self, pdf: bytes, page: int = 0) -> float:
        """The length of the gutter on paper, mm."""
        spans = [float(np.ptp(s.points[:, 0])) for s in strokes(pdf, page) if s.layer == "Roof"]
        return max(spans)

    def test_from_plot_settings_to_preview_to_a_downloaded_set_and_a_print_in_the_outbox(self):
        page = self.page
        self.add_sheets("Second", "Third")
        self.to_issue()
        self.own_settings("Office printer, A3")
        self.fill("Name", "Half size, black")
        self.choose("Size", "Per cent")
        self.fill("%", "50")
        self.preview()
        expect(page.get_by_role("img", name="Unprintable margins").first).to_be_visible()
        expect(page.get_by_text("A-01: Lettering is as small as")).to_be_visible()
        name, pdf = self.downloaded("Download PDF")
        self.assertEqual(name, "Bird observatory.pdf")
        self.assertEqual(page_labels(pdf), ["A-01", "A-02", "A-03"])
        np.testing.assert_allclose(page_sizes(pdf), [(420, 297)] * 3, atol=0.01)
        self.assertAlmostEqual(self.gutter(pdf), GUTTER / 200 / 2, delta=0.01)
        self.assertIn("1:200 at A3, printed at 50 %, 1:400", text(pdf))
        self.assertEqual({s.colour for s in strokes(pdf)}, {(0.0, 0.0, 0.0)})

        # One sheet is left out, and the rest goes to the printer.
        page.get_by_role("checkbox", name="Plot A-02 Second").click()
        expect(page.get_by_text("Sheets or settings have changed since")).to_be_visible()
        expect(self.plots.get_by_role("button", name="Send to the device")).to_be_disabled()
        page.get_by_role("button", name="Preview again").click()
        self.plots.get_by_role("button", name="Send to the device").click()
        sent = page.get_by_role("group", name="Print of 2 sheets")
        expect(sent.get_by_text("printed", exact=True)).to_be_visible()
        self.assertEqual(page_labels(self.printed()), ["A-01", "A-03"])
        expect(page.get_by_role("group", name="Office printer").get_by_text("48 × A3")).to_be_visible()

    def test_what_lies_in_a_margin_is_marked_listed_and_not_in_the_print(self):
        page = self.page
        self.to_issue()
        self.own_settings("Roll plotter, full size")
        self.preview()
        notes = page.get_by_label("Before it leaves")
        expect(notes.get_by_text("Border: cut off at the left and right")).to_be_visible()
        expect(page.get_by_title("Border: not printed whole")).to_be_attached()
        self.plots.get_by_role("button", name="Send to the device").click()
        picture = pypdfium2.PdfDocument(self.printed())[0].render(scale=2).to_pil().convert("L")
        margin = int(16.5 / 25.4 * 144)
        self.assertEqual(np.asarray(picture)[:, :margin].min(), 255)

    def test_a_device_that_is_off_or_out_of_paper_keeps_what_was_sent(self):
        page = self.page
        get_user_model().objects.filter(username="ines").update(is_staff=True)
        page.reload()
        self.to_issue()
        self.choose("For all of these sheets", "Office printer, A3")
        office = page.get_by_role("group", name="Office printer")
        office.get_by_role("button", name="Switch off").click()
        expect(office.get_by_text("off", exact=True)).to_be_visible()
        self.plots.get_by_role("button", name="Send to the device").click()
        sent = page.get_by_role("group", name="Print of A-01")
        expect(sent.get_by_text("The office printer is off. Switch it on.")).to_be_visible()
        office.get_by_role("button", name="Remove paper").click()
        office.get_by_role("button", name="Switch on").click()
        expect(sent.get_by_text("There is no A3 paper left. Load the office printer.")).to_be_visible()
        office.get_by_role("button", name="Load paper").click()
        expect(sent.get_by_text("printed", exact=True)).to_be_visible()
        office.get_by_role("button", name="Switch off").click()
        self.plots.get_by_role("button", name="Send to the device").click()
        second = page.get_by_role("group", name="Print of A-01").first
        second.get_by_role("button", name="Cancel").click()
        expect(second.get_by_text("cancelled", exact=True)).to_be_visible()
        self.assertEqual(Print.objects.filter(state="printed").count(), 1)

    def test_what_does_not_go_together_is_said_at_once_beside_its_sheet(self):
        page = self.page
        self.page.get_by_role("combobox", name="Size, or mm x mm").fill("A1")
        self.page.get_by_role("combobox", name="Size, or mm x mm").press("Enter")
        self.to_issue()
        self.own_settings("Office printer, A3")
        self.page.get_by_role("combobox", name="Paper").fill("As the sheet")
        self.page.get_by_role("combobox", name="Paper").press("Enter")
        expect(page.get_by_text("The ratio of two papers needs a paper to plot onto.")).to_be_visible()
        expect(self.plots.get_by_role("button", name="Preview")).to_be_disabled()
        self.choose("Size", "Full size, 1:1")
        expect(page.get_by_text("The office printer holds A3 and A4, and no A1")).to_be_visible()
        self.choose("Device", "Roll plotter")
        expect(self.plots.get_by_role("button", name="Preview")).to_be_enabled()
        # Undone step by step, the settings are what they were.
        for _ in range(2):
            page.get_by_role("button", name="Undo").click()
        self.saved()
        self.assertEqual(PlotSettings.objects.get(project__isnull=False).spec["device"], "office")

    def test_settings_are_given_to_sheets_and_lists_are_kept(self):
        page = self.page
        self.add_sheets("Second", "Third")
        self.to_issue()
        self.own_settings("Check print, A3 to fit")
        page.get_by_role("checkbox", name="Plot A-01").click()
        self.plots.get_by_role("button", name="Apply to 2").click()
        page.get_by_role("button", name="Save…").click()
        page.get_by_role("textbox", name="Name of the list").fill("For the builder")
        page.get_by_role("textbox", name="Name of the list").press("Enter")
        expect(page.get_by_role("combobox", name="List")).to_have_text("For the builder")
        self.choose("List", "All sheets")
        self.choose("For all of these sheets", "Each sheet’s own")
        expect(page.get_by_text("3 of 3")).to_be_visible()
        self.preview()
        _, pdf = self.downloaded("Download PDF")
        self.assertEqual(["printed at" in text(pdf, k) for k in range(3)], [False, True, True])
        self.choose("List", "For the builder")
        expect(page.get_by_role("checkbox", name="Plot A-01")).not_to_be_checked()
        self.assertEqual(Sheet.objects.exclude(plot_settings__key="file").count(), 2)

    def test_a_dxf_is_made_and_taken_away(self):
        self.to_issue()
        self.choose("File", "DXF")
        self.plots.get_by_role("button", name="Make DXF").click()
        name, dxf = self.downloaded("Download DXF")
        self.assertEqual(name, "Bird observatory A-01.dxf")
        doc = ezdxf.read(io.StringIO(dxf.decode()))
        self.assertFalse(doc.audit().has_errors)
        scales = [1 / v.get_scale() for v in doc.layouts.get("A-01").query("VIEWPORT") if v.dxf.id != 1]
        np.testing.assert_allclose(scales, [200])


class PenTests(SheetsOffice):
    def setUp(self) -> None:
        super().setUp()
        self.place_by_key("Plan, Ground floor")
        expect(self.viewport("Plan, Ground floor")).to_be_visible()
        self.page.keyboard.press("Escape")
        self.saved()

    def widths(self) -> set[float]:
        return {round(s.width, 2) for s in strokes(self.plotted()) if s.layer == "Walls"}

    def test_a_pen_table_is_made_ones_own_and_a_change_to_it_comes_on_paper(self):
        page = self.page
        self.assertIn(0.5, self.widths())
        page.get_by_role("button", name="Pens…").click()
        page.get_by_role("button", name="Make a copy").click()
        page.get_by_role("button", name="Draw the set with it").click()
        expect(page.get_by_role("button", name="Pen table Construction, copy")).to_contain_text(
            "the whole set"
        )
        self.choose("Width of cut", "1.00 mm")
        page.get_by_label("Colour of cut").fill("#9c3f24")
        page.get_by_role("tab", name="What is cut").click()
        self.choose("Hatch of insulation|wool", "none")
        page.get_by_role("button", name="Close").click()
        self.saved()
        lines = strokes(self.plotted())
        cut = [s for s in lines if s.layer == "Walls" and abs(s.width - 1.0) < 0.001]
        self.assertTrue(cut)
        np.testing.assert_allclose(cut[0].colour, [0x9C / 255, 0x3F / 255, 0x24 / 255], atol=0.001)
        # Every change of the table can be undone.
        for _ in range(3):
            page.get_by_role("button", name="Undo").click()
        self.saved()
        self.assertIn(0.5, self.widths())

    def test_a_viewport_has_a_table_of_its_own_and_the_board_can_have_working_colours(self):
        page = self.page
        self.viewport("Plan, Ground floor").click()
        self.ledge.get_by_role("button", name="Sheet’s pens").click()
        self.choose("Drawn with the pen table", "Presentation")
        page.keyboard.press("Escape")
        expect(self.ledge.get_by_role("button", name="Presentation")).to_be_visible()
        page.keyboard.press("Escape")
        self.saved()
        self.assertIn(0.7, self.widths())
        working = page.get_by_role("button", name="Working colours")
        working.click()
        expect(working).to_have_attribute("aria-pressed", "true")
        # The marks of what is not placed yet have a little of it too.
        coloured = self.rust_on_board()
        page.keyboard.press("w")
        expect(working).to_have_attribute("aria-pressed", "false")
        self.assertGreater(coloured, 200 + 4 * self.rust_on_board())

    def rust_on_board(self) -> int:
        """How many pixels within the viewport have the working colour of what is cut."""
        expect(self.board).to_have_attribute("data-painted", "yes")
        self.page.wait_for_timeout(400)
        pixels = np.asarray(self.picture_of("Plan, Ground floor")).astype(int)
        return int((np.abs(pixels - [0x9C, 0x3F, 0x24]).max(axis=2) < 24).sum())

    def dark_share(self, name: str) -> float:
        return float((np.asarray(self.picture_of(name).convert("L")) < 128).mean())

    def picture_of(self, name: str) -> Image.Image:
        box = self.viewport(name).bounding_box()
        inside = {
            "x": box["x"] + 4,
            "y": box["y"] + 4,
            "width": box["width"] - 8,
            "height": box["height"] - 8,
        }
        return Image.open(io.BytesIO(self.page.screenshot(clip=inside))).convert("RGB")

    def test_the_board_shows_what_is_plotted(self):
        # The walls are there, and the marks that come with the display list.
        self.eventually(lambda: self.dark_share("Plan, Ground floor") > 0.02)
        expect(self.board).to_have_attribute("data-painted", "yes")
        row, shown = self.row("Plan, Ground floor"), self.picture_of("Plan, Ground floor")
        scale = (shown.width + 8) / row.width
        pdf = pypdfium2.PdfDocument(self.plotted())[0]
        page = pdf.render(scale=scale * 25.4 / 72).to_pil().convert("L")
        height = page.height / scale
        left, top = row.x * scale + 4, (height - row.y - row.height) * scale + 4
        plotted = page.crop((round(left), round(top), round(left) + shown.width, round(top) + shown.height))
        # Compared coarsely: fine lines are softened by each in its own way.
        size = (shown.width // 6, shown.height // 6)
        board, paper = (
            np.asarray(p.convert("L").resize(size, Image.BOX)).astype(float) for p in (shown, plotted)
        )
        self.assertGreater(np.corrcoef(board.ravel(), paper.ravel())[0, 1], 0.9)
        self.assertTrue(re.match(r"A-\d", Sheet.objects.get().number))
