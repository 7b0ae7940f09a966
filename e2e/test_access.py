"""Every page for those who hear it, use keys alone, or have a small screen; and what is found by its name."""

from __future__ import annotations

from typing import Any

from playwright.sync_api import Page, expect

from e2e.office import SheetsOffice

STATIONS = ("Model", "Views", "Sheets", "Check", "Issue")


class AccessTests(SheetsOffice):
    def setUp(self) -> None:
        super().setUp()
        # The page lets no script in that is not its own.
        context = self.browser.new_context(viewport={"width": 1280, "height": 800}, bypass_csp=True)
        self.addCleanup(context.close)
        self.other = context.new_page()

    def to(self, page: Page, station: str) -> None:
        page.get_by_role("navigation", name="Stations").get_by_role("link", name=station).click()
        page.wait_for_load_state("networkidle")

    def test_no_page_dialog_or_menu_stands_in_anybodys_way(self) -> None:
        page = self.other
        page.goto(self.live_server_url)
        expect(page.get_by_role("button", name="Sign in")).to_be_visible()
        self.axe(page, "signing in")
        self.sign_in(page)
        self.axe(page, "projects")
        page.get_by_role("link", name="Bird observatory").click()
        for station in STATIONS:
            self.to(page, station)
            self.axe(page, station)
        for tab in ("Issue to recipients", "Register", "Compare", "Review"):
            page.get_by_role("link", name=tab).or_(page.get_by_role("tab", name=tab)).first.click()
            page.wait_for_load_state("networkidle")
            self.axe(page, tab)
        self.to(page, "Sheets")
        page.get_by_role("button", name="Views", exact=True).click()
        expect(page.get_by_role("button", name="Place South elevation")).to_be_visible()
        self.axe(page, "the cards of the views")
        page.get_by_role("button", name="Place South elevation").press("Enter")
        expect(page.get_by_role("region", name="Ledge: viewport")).to_be_visible()
        self.axe(page, "a viewport")
        page.keyboard.press("Control+k")
        expect(page.get_by_role("dialog", name="Go to")).to_be_visible()
        self.axe(page, "going to something")
        page.keyboard.press("Escape")
        for key in "dmtngsbfyu":
            page.keyboard.press("Escape")
            page.keyboard.press(key)
            expect(page.get_by_role("region", name="Ledge: annotate")).to_be_visible()
            self.axe(page, f"annotating: {key}")
        page.get_by_role("button", name="Done").click()
        page.keyboard.press("?")
        expect(page.get_by_role("dialog")).to_be_visible()
        self.axe(page, "shortcuts")
        page.keyboard.press("Escape")
        page.get_by_role("button", name="Guide").click()
        guide = page.get_by_role("dialog", name="Guide")
        expect(guide.get_by_role("heading", name="First steps")).to_be_visible()
        self.axe(page, "the guide")
        guide.get_by_role("searchbox").fill("hold view")
        expect(guide.get_by_role("article", name="Hold a view")).to_contain_text("Release")

    def test_enlarged_to_twice_its_size_a_station_is_scrolled_and_nothing_is_out_of_reach(self) -> None:
        """A browser that enlarges to 200 % has half the room."""
        page = self.page
        page.set_viewport_size({"width": 640, "height": 400})
        for station, button in (("Sheets", "Plot set"), ("Check", "Rules…"), ("Model", "Choose a file")):
            self.to(page, station)
            reached = page.get_by_role("button", name=button, exact=True)
            reached.focus()
            expect(reached).to_be_in_viewport(ratio=1)

    def test_a_password_is_changed_a_token_made_and_another_browser_signed_out(self) -> None:
        page, other = self.page, self.other
        self.sign_in(other)
        page.get_by_role("button", name="ines", exact=True).click()
        account = page.get_by_role("dialog", name="Account of ines")
        there = account.get_by_role("button", name="Sign out ")
        expect(there).to_have_count(1)
        there.click()
        expect(there).to_have_count(0)
        other.reload()
        expect(other.get_by_role("button", name="Sign in")).to_be_visible()

        account.get_by_label("Name of a new token").fill("Nightly plots")
        account.get_by_role("button", name="Make", exact=True).click()
        token = account.get_by_role("status").locator("code").inner_text()
        answer = page.request.get(
            f"{self.live_server_url}/api/projects/",
            headers={"Authorization": f"Bearer {token}", "Cookie": ""},
        )
        self.assertEqual([project["name"] for project in answer.json()], ["Bird observatory"])
        account.get_by_role("button", name="Revoke Nightly plots").click()
        expect(account.get_by_role("button", name="Revoke Nightly plots")).to_have_count(0)

        account.get_by_label("Old password").fill("samphire-88")
        for wanted, says in (("short", "12 characters"), ("long-winded-tern", "The password is changed")):
            account.get_by_label("New password").fill(wanted)
            account.get_by_role("button", name="Change").click()
            expect(page.get_by_text(says).last).to_be_visible()
        page.reload()
        expect(page.get_by_role("group", name="Board")).to_be_visible()

    def test_on_a_small_screen_everything_can_be_reached(self) -> None:
        page = self.page
        page.set_viewport_size({"width": 1024, "height": 700})
        wide = "() => document.documentElement.scrollWidth"
        for station in STATIONS:
            self.to(page, station)
            self.assertLessEqual(page.evaluate(wide), 1024, station)
        self.to(page, "Sheets")
        self.place_by_key("South elevation")
        expect(self.viewport("South elevation")).to_be_focused()
        self.inside(self.ledge.get_by_role("button", name="Delete", exact=True))
        self.inside(self.ledge.get_by_role("button", name="More…"))
        grid = self.ledge.get_by_role("button", name="Grid", exact=True)
        grid.click()
        expect(grid).to_have_attribute("aria-pressed", "false")
        # Nothing of the ledge goes out of sight once the viewport differs from its view.
        self.ledge.get_by_role("button", name="Everything").click()
        page.get_by_role("group", name="Layers").get_by_role("checkbox", name="Furniture").click()
        page.keyboard.press("Escape")
        self.ledge.get_by_role("button", name="Sheet’s pens").click()
        page.get_by_role("combobox", name="Width of cut").click()
        page.get_by_role("option", name="1.00 mm").click()
        page.keyboard.press("Escape")
        expect(self.ledge.get_by_role("button", name="1 pen changed")).to_be_visible()
        for width in (1024, 1280):
            page.set_viewport_size({"width": width, "height": 700})
            hidden = self.ledge.evaluate("(ledge) => ledge.scrollWidth - ledge.clientWidth")
            self.assertLessEqual(hidden, 3, width)

    def inside(self, locator: Any) -> None:
        box = locator.bounding_box()
        self.assertLessEqual(box["x"] + box["width"], 1024)

    def test_anything_is_gone_to_by_a_part_of_its_name(self) -> None:
        page = self.page
        self.add_sheets("Elevations", "Details of the deck")
        page.keyboard.press("Control+k")
        field = page.get_by_role("combobox", name="Go to a sheet, view, station or command")
        expect(field).to_be_focused()
        field.fill("deck det")
        field.press("Enter")
        expect(self.register.locator("[aria-current=page]")).to_contain_text("Details of the deck")
        page.keyboard.press("Control+k")
        field.fill("view south")
        field.press("Enter")
        expect(page.get_by_role("region", name="Ledge: view")).to_be_visible()
        expect(page.get_by_role("textbox", name="Name")).to_have_value("South elevation")
        page.keyboard.press("Control+k")
        field.fill("sheets")
        field.press("Enter")
        expect(page.get_by_role("group", name="Board")).to_be_visible()
        page.keyboard.press("Control+k")
        field.fill("several")
        field.press("Enter")
        expect(page.get_by_role("textbox", name="Titles")).to_be_visible()

    def test_the_register_is_found_in_shown_as_lines_and_does_things_to_a_sheet(self) -> None:
        page = self.page
        self.add_sheets("Elevations", "Roof", "Frame")
        self.open_sheet("A-04")
        self.fill_number("S-01")
        rows = self.register.locator("[data-sheet]")
        expect(self.register.get_by_role("group", name="Series S")).to_contain_text("Frame")
        self.register.get_by_role("button", name="As lines").click()
        self.assertLess(rows.first.bounding_box()["height"], 34)
        self.register.get_by_role("button", name="Series A").click()
        expect(rows).to_have_count(1)
        find = self.register.get_by_role("searchbox", name="Find a sheet")
        find.fill("roof a")
        expect(rows).to_have_count(1)
        find.press("Enter")
        expect(self.register.locator("[aria-current=page]")).to_contain_text("A-03")
        find.press("Escape")
        self.register.get_by_role("button", name="Series A").click()
        rows.nth(1).click(button="right")
        page.get_by_role("menuitem", name="Duplicate without viewports").click()
        expect(rows).to_have_count(5)
        rows.nth(1).click(button="right")
        page.get_by_role("menuitem", name="Delete sheet").click()
        expect(rows).to_have_count(4)
        page.get_by_role("button", name="Undo").click()
        expect(rows).to_have_count(5)
        page.reload()
        self.assertLess(rows.first.bounding_box()["height"], 34)

    def test_what_is_under_the_pointer_is_done_to_by_a_right_click(self) -> None:
        page = self.page
        self.place_by_key("South elevation")
        frame = self.viewport("South elevation")
        expect(frame).to_be_focused()
        page.keyboard.press("Escape")
        frame.click(button="right", position={"x": 20, "y": 20})
        page.get_by_role("menuitem", name="Duplicate").click()
        expect(frame).to_have_count(2)
        frame.last.click(button="right", position={"x": 20, "y": 20})
        page.get_by_role("menuitem", name="Delete").click()
        expect(frame).to_have_count(1)
        board = self.board.bounding_box()
        at = board["x"] + board["width"] - 30, board["y"] + 30
        page.mouse.click(*at, button="right")
        expect(page.get_by_role("menuitem", name="Paste")).to_have_count(0)
        page.get_by_role("menuitem", name="Shortcuts").click()
        expect(page.get_by_role("dialog")).to_contain_text("Right click")
