"""Checking a set: from a finding to its place, to its fix, and letting one stand."""

from __future__ import annotations

import json
import re
from pathlib import Path
from typing import Any

from playwright.sync_api import expect

from e2e.office import SheetsOffice
from server.checks.models import CheckRules, Waiver
from server.sheets.models import Sheet, Template
from server.views.models import View


class CheckStationTests(SheetsOffice):
    def setUp(self) -> None:
        super().setUp()
        self.place_by_key("South elevation")
        expect(self.viewport("South elevation")).to_be_focused()
        self.saved()
        Sheet.objects.update(overrides={"scale": "various"}, version=5)

    def finding(self, words: str) -> Any:
        return self.page.get_by_role("option", name=re.compile(words))

    def checked(self) -> None:
        expect(self.page.get_by_text("Checked as it is now")).to_be_visible()

    def test_a_finding_leads_to_its_sheet_and_what_is_put_right_is_found_no_more(self):
        page = self.page
        self.open("check")
        self.checked()
        untitled = self.finding("It has no title")
        expect(untitled).to_be_visible()
        self.finding("“Scale” is typed over").click()
        expect(page.locator("[data-at]")).to_be_visible()
        page.get_by_role("button", name="Restore").click()
        expect(self.finding("“Scale” is typed over")).to_have_count(0)
        self.assertEqual(Sheet.objects.get().overrides, {})

        untitled.click()
        page.get_by_role("button", name="Show on the sheet").click()
        expect(page.get_by_role("region", name="Ledge: sheet")).to_be_visible()
        self.fill("Title", "South side")
        self.saved()
        page.get_by_role("navigation", name="Stations").get_by_role("link", name="Check").click()
        expect(untitled).to_have_count(0)
        self.checked()
        # And back again: what was put right can be undone.
        page.get_by_role("button", name="Undo").click()
        expect(untitled).to_be_visible()

    def test_a_fault_of_one_station_is_said_there_and_leaves_the_others(self):
        page = self.page
        page.route("**/api/checks/?*", lambda route: route.fulfill(json={"findings": 7}))
        self.open("check")
        expect(page.get_by_text("Something went wrong on this page")).to_be_visible()
        page.unroute("**/api/checks/?*")
        page.get_by_role("navigation", name="Stations").get_by_role("link", name="Views").click()
        expect(page.get_by_text("South elevation").first).to_be_visible()
        page.reload()
        self.open("check")
        self.checked()

    def test_a_finding_is_let_stand_with_a_reason_and_rules_are_chosen(self):
        page = self.page
        self.open("check")
        self.checked()
        self.finding("It has no title").click()
        page.get_by_role("textbox", name="Reason").fill("A cover sheet has none")
        page.get_by_role("button", name="Let stand", exact=True).click()
        expect(self.finding("It has no title")).to_have_count(0)
        page.get_by_role("button", name="Let stand 1").click()
        expect(page.get_by_text("Let stand by ines: A cover sheet has none")).to_be_visible()
        self.saved()
        self.assertEqual(Waiver.objects.get().by.username, "ines")
        self.finding("It has no title").click()
        page.get_by_role("button", name="Raise it again").click()
        expect(page.get_by_role("button", name="Let stand 0")).to_be_visible()

        expect(self.finding("is placed nowhere. Place it, or delete").first).to_be_visible()
        page.get_by_role("button", name="Rules…").click()
        page.get_by_role("combobox", name="Views on no sheet").click()
        page.get_by_role("option", name="Off").click()
        self.fill("Lettering at least", "2.2")
        with page.expect_download() as download:
            page.get_by_role("button", name="Save as a file").click()
        kept = json.loads(Path(download.value.path()).read_text())
        self.assertEqual(kept, {"rules": {"views-unplaced": "off"}, "limits": {"too-small.text": 2.2}})
        page.get_by_role("button", name="Close").click()
        expect(self.finding("is placed nowhere. Place it, or delete")).to_have_count(0)
        self.saved()
        self.assertEqual(CheckRules.objects.get().choices, {"views-unplaced": "off"})

    def test_what_is_damaged_is_named_and_got_out_of_the_way(self):
        page = self.page
        sheet = Sheet.objects.get()
        spec = sheet.template.spec
        ours = Template.objects.create(project=sheet.project, name="Ours", spec=spec)
        View.objects.filter(name="North elevation").update(spec=[])
        Sheet.objects.update(template=ours)
        Template.objects.filter(pk=ours.pk).update(spec={"x": 1})
        self.open("sheets")
        expect(page.get_by_text("The template “Ours” cannot be read.")).to_be_visible()
        self.choose("Template", "Corner block")
        expect(self.viewport("South elevation")).to_be_visible()

        page.get_by_role("button", name="2 unreadable").click()
        damaged = page.get_by_role("dialog", name="Unreadable data")
        expect(damaged.get_by_role("listitem")).to_have_text(
            [re.compile("View “North"), re.compile("“Ours”")]
        )
        damaged.get_by_role("button", name="Delete view “North elevation”").click()
        expect(damaged.get_by_role("listitem")).to_have_count(1)
        damaged.get_by_role("button", name="Delete template “Ours”").click()
        expect(damaged).to_have_count(0)
        self.assertFalse(View.objects.filter(name="North elevation").exists())
