"""Title blocks, templates and numbers, as a drafter works on them."""

from __future__ import annotations

import re

import numpy as np
from playwright.sync_api import expect

from drafting.tests.pdf_reading import strokes, text
from drafting.views.section import Section
from drafting.views.spec import dump_view
from e2e.office import SheetsOffice
from server.sheets.models import Sheet, Template
from server.views.drawings import order_drawing
from server.views.models import View

LOGO = (
    b'<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9">'
    b'<rect width="9" height="9" fill="#9c3f24"/></svg>'
)


class TitleBlockTests(SheetsOffice):
    def type_into_field(self, field: str, value: str) -> None:
        """Click a field of the title block and type into it."""
        self.page.get_by_role("button", name=f"Field: {field}").click()
        editor = self.page.get_by_role("dialog", name=field).get_by_role("textbox")
        editor.fill(value)
        editor.press("Enter")
        self.page.keyboard.press("Escape")
        expect(self.page.get_by_role("dialog", name=field)).to_have_count(0)
        self.saved()

    def test_the_projects_name_is_changed_once_and_stands_on_all_sheets(self):
        page = self.page
        self.add_sheets("Elevations", "Sections")
        page.get_by_role("button", name="Project…").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Project", exact=True).fill("Vogelwarte Žďár")
        dialog.get_by_label("Picture file").set_input_files(
            {"name": "logo.svg", "mimeType": "image/svg+xml", "buffer": LOGO}
        )
        expect(dialog.get_by_role("combobox", name="Logo")).to_have_text("logo.svg")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog).to_have_count(0)
        made = self.plotted("Plot set")
        for number in range(3):
            self.assertIn("Vogelwarte Žďár", text(made, number))

    def test_a_field_overridden_on_one_sheet_shows_it_and_says_again_what_it_said(self):
        page = self.page
        self.add_sheets("Elevations")
        self.open_sheet("A-01")
        self.type_into_field("Title", "Ground floor")
        self.type_into_field("Client", "Sandwick Trust")
        expect(page.get_by_role("button", name="Field: Client, overridden on this sheet")).to_be_visible()
        made = self.plotted("Plot set")
        self.assertIn("Sandwick Trust", text(made, 0))
        self.assertNotIn("Sandwick Trust", text(made, 1))
        self.assertEqual(Sheet.objects.get(number="A-01").title, "Ground floor")
        page.get_by_role("button", name="1 overridden").click()
        fields = page.get_by_role("dialog", name="Fields of this sheet")
        fields.get_by_role("button", name="Restore").click()
        expect(fields.get_by_role("textbox", name="Client")).to_have_value("")
        page.keyboard.press("Escape")
        expect(page.get_by_role("button", name="Field: Client", exact=True)).to_be_visible()

    def test_revisions_stand_in_the_table_and_the_newest_in_the_title_block(self):
        page = self.page
        page.get_by_role("button", name="No revision yet").click()
        table = page.get_by_role("dialog", name="Revisions of this sheet")
        table.get_by_role("button", name="Add revision P01").click()
        table.get_by_role("button", name="Add revision P02").click()
        row = table.get_by_role("group", name="Revision P02")
        for label, value in (("Description", "Ramp lowered"), ("Date", "2026-03-16")):
            row.get_by_role("textbox", name=label).fill(value)
            row.get_by_role("textbox", name=label).press("Enter")
        page.keyboard.press("Escape")
        expect(page.get_by_role("button", name="Revision P02")).to_be_visible()
        self.saved()
        words = text(self.plotted())
        self.assertIn("Ramp lowered", words)
        self.assertEqual(words.count("P02"), 2)  # in the table, and as the revision of the sheet
        self.assertEqual(words.count("2026-03-16"), 2)

    def test_a_template_is_made_ones_own_and_a_change_to_it_reaches_all_its_sheets(self):
        page = self.page
        self.add_sheets("Elevations", "Sections")
        self.open_sheet("A-03")
        self.choose("Template", "Right strip")
        self.saved()
        self.open_sheet("A-01")
        page.get_by_role("button", name="Edit the template").click()
        ledge = page.get_by_role("region", name="Ledge: template")
        expect(ledge.get_by_text("On A-01, A-02: a change reaches them all.")).to_be_visible()
        ledge.get_by_role("button", name="Text").click()
        part = page.get_by_role("region", name="Ledge: part of a template")
        for label, value in (
            ("Text", "Not for construction"),
            ("Left", "30"),
            ("Bottom", "14"),
            ("Width", "90"),
        ):
            self.fill(label, value)
            self.saved()
        self.choose("Height", "5 mm")
        # A line is drawn across the sheet, and keeps to the left on every paper.
        page.keyboard.press("Escape")
        ledge.get_by_role("button", name="Line", exact=True).click()
        expect(part.get_by_role("textbox", name="Width")).to_have_value("60")
        for label, value in (("Left", "30"), ("Bottom", "12"), ("Width", "77")):
            self.fill(label, value)
            self.saved()
        self.choose("Across", "Left side")
        self.saved()
        frame = page.get_by_role("button", name="Part: line")
        before = frame.bounding_box()
        page.keyboard.press("Escape")
        self.drag(frame, 0, -60)
        self.saved()
        expect(page.get_by_title("Undo: move a part")).to_be_attached()
        page.keyboard.press("Control+z")
        expect(page.get_by_text("Undone: move a part")).to_be_visible()
        self.eventually(lambda: abs(frame.bounding_box()["y"] - before["y"]) < 1)
        page.get_by_role("button", name="Done").click()
        made = self.plotted("Plot set")
        for number, there in ((0, True), (1, True), (2, False)):
            self.assertEqual("Not for construction" in text(made, number), there)
            lines = [s.points for s in strokes(made, number) if len(s.points) == 2]
            found = [
                p
                for p in lines
                if np.allclose(np.sort(p[:, 0]), (30, 107), atol=0.01) and np.allclose(p[:, 1], 12, atol=0.01)
            ]
            self.assertEqual(bool(found), there)
        self.assertEqual(Template.objects.get(project__isnull=False).name, "Corner block, copy")

    def test_what_no_template_can_have_is_refused_and_nothing_is_lost(self):
        page = self.page
        page.get_by_role("button", name="Edit the template").click()
        self.fill("Clear bottom", "260")
        expect(page.get_by_text("leaves no room for drawings on the A3 sheet")).to_be_visible()
        expect(page.get_by_role("textbox", name="Clear bottom")).to_have_value("68")
        page.get_by_role("button", name="Picture", exact=True).click()
        field = page.get_by_role("combobox", name="Picture")
        expect(field).to_have_text("The office's logo")
        script = LOGO.replace(b"<rect", b"<script>go()</script><rect")
        page.get_by_label("Picture file").set_input_files(
            {"name": "odd.svg", "mimeType": "image/svg+xml", "buffer": script}
        )
        expect(page.get_by_text("“odd.svg” has a script")).to_be_visible()
        expect(field).to_have_text("The office's logo")

    def test_numbers_follow_the_pattern_and_gaps_are_reported(self):
        page = self.page
        page.get_by_role("button", name="Project…").click()
        page.get_by_label("Numbers of sheets").fill("{discipline}-{type}{n:02}")
        page.get_by_role("button", name="Save").click()
        expect(page.get_by_role("textbox", name="Discipline")).to_have_value("A")
        self.fill("Type", "1")
        self.fill_number("A-101")
        self.add_sheets("Upper floor", "Lookout")
        register = page.get_by_role("navigation", name="Register")
        for number in ("A-102", "A-103"):
            expect(register.get_by_role("button", name=f"Sheet {number}")).to_be_visible()
        self.open_sheet("A-102")
        self.more("Delete sheet")
        expect(register.get_by_text("no A-102")).to_be_visible()
        self.open_sheet("A-101")
        self.more("Renumber from here on")
        expect(register.get_by_role("button", name="Sheet A-102 Lookout")).to_be_visible()
        expect(register.get_by_text("no A-102")).to_have_count(0)
        field = page.get_by_role("textbox", name="Number", exact=True)
        field.fill("")
        field.press("Enter")
        expect(page.get_by_text("A sheet has a number. Type one, such as A-07.")).to_be_visible()
        expect(field).to_have_value("A-101")

    def test_titles_and_marks_are_moved_by_hand_and_a_mark_that_points_nowhere_is_reported(self):
        page = self.page
        self.saved()
        project = Sheet.objects.get().project
        spec = dump_view(Section(((-9500.0, 3300.0), (17500.0, 3300.0))))
        order_drawing(View.objects.create(project=project, name="Section", spec=spec, position=90))
        self.place_by_key("Plan, Ground floor")
        pixels = self.pixels("Plan, Ground floor")
        title = page.get_by_role("img", name="Drawing title of Plan, Ground floor")
        self.drag(title, 30 * pixels, -5 * pixels)
        row = self.row("Plan, Ground floor")
        np.testing.assert_allclose(row.title_offset, (30, 5), atol=1)
        expect(
            page.get_by_role("button", name="Mark of South elevation, which is not placed yet")
        ).to_have_count(1)
        mark = page.get_by_role("button", name="Mark of Section, which is not placed yet")
        expect(mark).to_have_count(2)
        # A section's mark goes along its line only, which grows with it; the view stays as it is.
        self.drag(mark.nth(1), -12 * pixels, 40 * pixels)
        expect(page.get_by_title("Undo: move a mark")).to_be_attached()
        self.saved()
        page.keyboard.press("Escape")
        page.get_by_role("button", name="Plot sheet").click()
        expect(page.get_by_text("A-01: “Section” is marked here but is placed nowhere.")).to_be_visible()
        expect(page.get_by_role("img", name="Page 1")).to_have_attribute("data-painted", "yes")
        page.get_by_role("button", name="Close").click()
        view = View.objects.get(name="Section")
        self.assertEqual(view.spec["line"], spec["line"])
        moved = self.row("Plan, Ground floor").mark_offsets[str(view.pk)]
        self.assertAlmostEqual(moved[1][0], -12, delta=1)
        title.dblclick()
        self.assertEqual(self.row("Plan, Ground floor").title_offset, [0, 0])
        self.assertTrue(re.match(r"A-\d", Sheet.objects.get().number))
