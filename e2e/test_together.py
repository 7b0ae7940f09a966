"""Two people in one project at once, and a connection that goes."""

from __future__ import annotations

import re

from django.contrib.auth import get_user_model
from playwright.sync_api import expect

from e2e.office import PlanOffice

#: What is told as it happens is there long before anybody looks at the lists again; milliseconds.
AT_ONCE = 6_000


class TogetherTests(PlanOffice):
    def test_a_colleague_is_seen_with_what_they_hold_and_what_they_change(self):
        self.place_plan()
        self.saved()
        users = get_user_model().objects
        self.project.members.add(users.create_user("jonas", password="samphire-88"))
        context = self.browser.new_context(viewport={"width": 1280, "height": 800})
        self.addCleanup(context.close)
        other = context.new_page()
        self.sign_in(other, "jonas")
        other.goto(self.page.url)
        expect(self.page.get_by_role("button", name="jonas, on sheet A-01")).to_be_visible()
        expect(other.get_by_role("button", name="ines, on sheet A-01")).to_be_visible()

        # What one takes hold of is outlined for the other.
        other.get_by_role("button", name="Viewport 1: Plan, Ground floor").focus()
        expect(self.page.get_by_role("img", name="Held by jonas")).to_be_visible()
        other.keyboard.press("Escape")
        expect(self.page.get_by_role("img", name="Held by jonas")).to_have_count(0)

        title = other.get_by_role("textbox", name="Title", exact=True)
        title.fill("Plan of the ground floor")
        title.press("Enter")
        register = self.page.get_by_role("navigation", name="Register")
        expect(register.get_by_text("Plan of the ground floor")).to_be_visible(timeout=AT_ONCE)

        context.close()
        expect(self.page.get_by_role("button", name="jonas, on sheet A-01")).to_have_count(0, timeout=AT_ONCE)

    def test_a_reader_looks_and_a_checker_signs_and_each_is_told_who_may_do_the_rest(self):
        people = get_user_model().objects
        pages = {}
        for name, role in (("rui", "reader"), ("cleo", "checker")):
            user = people.create_user(name, password="samphire-88")
            self.project.members.add(user, through_defaults={"role": role})
            context = self.browser.new_context(viewport={"width": 1280, "height": 800})
            self.addCleanup(context.close)
            pages[name] = context.new_page()
            self.sign_in(pages[name], name)
            pages[name].goto(self.page.url)
        before = self.project.sheets.get().title
        for name, role in (("rui", "Reader"), ("cleo", "Checker")):
            page = pages[name]
            expect(page.get_by_role("note")).to_have_text(role)
            title = page.get_by_role("textbox", name="Title", exact=True)
            title.fill("Mine")
            title.press("Enter")
            expect(page.get_by_role("alert")).to_contain_text("cannot change it. ines can.")
            expect(title).to_have_value(before)
        page = pages["cleo"]
        page.get_by_role("button", name="More…").last.click()
        page.get_by_role("menuitem", name="Sign as checked").click()
        self.eventually_so(lambda: self.project.sheets.get().checker == "cleo")
        pages["rui"].get_by_role("button", name="More…").last.click()
        expect(pages["rui"].get_by_role("menuitem", name="Sign as checked")).to_have_count(0)

    def test_a_connection_that_goes_is_told_at_once_and_what_was_done_is_saved_later(self):
        self.page.context.set_offline(True)
        expect(self.page.get_by_text("No connection to the server")).to_be_visible(timeout=AT_ONCE)
        self.fill("Title", "Written on the train")
        kept = self.page.get_by_text("1 change kept and saved when it is back")
        expect(kept).to_be_visible(timeout=AT_ONCE)
        self.page.context.set_offline(False)
        expect(self.page.get_by_text("No connection")).to_have_count(0)
        self.saved()
        self.assertEqual(self.project.sheets.get().title, "Written on the train")


class SeveralSheetsTests(PlanOffice):
    def test_several_sheets_are_changed_and_deleted_together_in_one_step_each(self):
        page = self.page
        self.add_sheets("Sections", "Details", "Roof")
        self.open_sheet("A-01")
        row = self.register.get_by_role("button", name="Sheet A-03 Details")
        row.click(modifiers=["Shift"])
        chosen = page.get_by_role("region", name="Chosen sheets")
        expect(chosen.get_by_text("3 sheets chosen")).to_be_visible()
        chosen.get_by_role("button", name="Change…").click()
        dialog = page.get_by_role("dialog", name="Change 3 sheets")
        dialog.get_by_role("textbox", name="Status").fill("For comment")
        dialog.get_by_role("button", name="Change", exact=True).click()
        self.saved()
        statuses = [sheet.status for sheet in self.project.sheets.all()]
        self.assertEqual(statuses, ["For comment"] * 3 + [""])

        self.register.get_by_role("button", name="Sheet A-01").click(modifiers=["Control"])
        expect(chosen.get_by_text("2 sheets chosen")).to_be_visible()
        chosen.get_by_role("button", name="Delete").click()
        expect(row).to_have_count(0)
        page.get_by_role("button", name="Undo").click()
        expect(row).to_be_visible()
        self.saved()
        self.assertEqual(self.project.sheets.count(), 4)


class InvitationTests(PlanOffice):
    def test_somebody_without_an_account_comes_in_by_a_link_and_reads_dates_as_they_like(self):
        page = self.page
        page.goto(self.live_server_url)
        page.get_by_role("button", name="Share Bird observatory").click()
        page.get_by_role("button", name="Invite by a link").click()
        link = page.get_by_label("Link, good for one person")
        expect(link).to_have_value(re.compile("/invited/"))
        context = self.browser.new_context(viewport={"width": 1280, "height": 800})
        self.addCleanup(context.close)
        other = context.new_page()
        other.goto(link.input_value())
        expect(other.get_by_text("ines invites you to work on “Bird observatory”")).to_be_visible()
        other.get_by_label("Name").fill("mira")
        other.get_by_label("Password").fill("marram-grass-41")
        other.get_by_role("button", name="Join").click()
        expect(other.get_by_role("navigation", name="Register")).to_be_visible()

        other.get_by_role("button", name="mira", exact=True).click()
        other.get_by_role("combobox", name="Dates").click()
        other.get_by_role("option", name="18.03.2026").click()
        other.get_by_role("combobox", name="Lengths of the building").click()
        other.get_by_role("option", name="Feet and inches").click()
        other.get_by_role("button", name="Close", exact=True).click()
        other.get_by_role("navigation", name="Stations").get_by_role("link", name="Model").click()
        expect(other.get_by_text(re.compile(r"98' 5 1/8\""))).to_be_visible()
        expect(other.get_by_text(re.compile(r"\d\d\.\d\d\.\d{4} \d\d:\d\d")).first).to_be_visible()
        # What is on the screen already is told anew.
        other.get_by_role("button", name="mira", exact=True).click()
        other.get_by_role("combobox", name="Lengths of the building").press("Enter")
        other.get_by_role("option", name="Metres", exact=True).click()
        expect(other.get_by_text(re.compile(r"98' 5 1/8\""))).to_have_count(0)

        # The link was good once.
        other.goto(link.input_value())
        expect(other.get_by_text("This invitation has ended, was used, or was withdrawn")).to_be_visible()
