"""The Views station: the standard set, a section drawn on a plan, settings, and a second version of the
building."""

from __future__ import annotations

import re
import tempfile
from pathlib import Path

from django.contrib.auth import get_user_model
from playwright.sync_api import expect

from demo.building import write_observatory
from e2e.office import FIRST, PreparedOffice
from server.views.models import View


class ViewsStationTests(PreparedOffice):
    def setUp(self) -> None:
        super().setUp()
        self.open("model")

    def station(self, name: str) -> None:
        self.page.get_by_role("navigation", name="Stations").get_by_role("link", name=name).click()

    def card(self, name: str):
        return self.page.get_by_role("button", name=re.compile(f"^Open {re.escape(name)} "))

    def test_the_whole_standard_set_is_made_in_one_action_and_taken_back_in_one(self):
        page = self.page
        self.station("Views")
        expect(self.card("West elevation")).to_contain_text("Up to date", timeout=FIRST)
        page.get_by_role("button", name="Make the standard views").click()
        expect(
            page.get_by_role("region", name="Axonometrics").get_by_role("button", name="Open")
        ).to_have_count(4)
        expect(self.card("Axonometric from the north-east")).to_contain_text("Up to date")
        page.get_by_role("button", name="Make the standard views").click()
        expect(page.get_by_text("are all there already")).to_be_visible()
        page.keyboard.press("Control+z")
        expect(page.get_by_role("region", name="Axonometrics")).to_have_count(0)
        page.keyboard.press("Control+Shift+z")
        expect(
            page.get_by_role("region", name="Axonometrics").get_by_role("button", name="Open")
        ).to_have_count(4)

    def test_a_section_is_made_by_drawing_its_line_and_worked_on(self):
        page = self.page
        self.station("Views")
        expect(self.card("Plan, Ground floor")).to_contain_text("Up to date", timeout=FIRST)
        page.get_by_role("button", name="New view").click()
        page.get_by_role("menuitem", name="Section, by drawing").click()
        drawing = page.get_by_role("img", name="Draw on Plan, Ground floor")
        box = drawing.bounding_box()
        for x, y in ((0.3, 0.5), (0.5, 0.5), (0.5, 0.62), (0.72, 0.62)):
            page.mouse.move(box["x"] + box["width"] * x, box["y"] + box["height"] * y)
            page.mouse.down()
            page.mouse.up()
        expect(drawing.locator("svg")).to_have_attribute("data-points", "4")
        page.get_by_role("button", name="Make section").click()
        expect(page.get_by_role("img", name="Drawing of Section")).to_be_visible()
        ledge = page.get_by_role("region", name="Ledge: view")
        expect(ledge.get_by_text("Up to date")).to_be_visible()
        self.assertEqual(page.locator("[data-handle='the line']").count(), 1)

        # Its settings: each is drawn at once, and can be taken back.
        ledge.get_by_label("Depth").fill("4000")
        ledge.get_by_label("Depth").press("Enter")
        expect(page.locator("[data-handle='the depth']")).to_have_count(1)
        page.get_by_role("combobox", name="Hidden lines").click()
        page.get_by_role("option", name="Yes").click()
        expect(page.get_by_role("combobox", name="Hidden lines")).to_have_text("Yes")
        page.mouse.click(640, 20)
        page.keyboard.press("Control+z")
        expect(page.get_by_role("combobox", name="Hidden lines")).to_have_text("No")
        ledge.get_by_role("button", name="Everything").click()
        furniture = page.get_by_role("group", name="Layers").get_by_role("checkbox", name="Furniture")
        furniture.click()
        expect(furniture).not_to_be_checked()
        page.keyboard.press("Escape")
        expect(ledge.get_by_role("button", name="1 hidden")).to_be_visible()

        ledge.get_by_role("button", name="Delete").click()
        expect(page.get_by_role("dialog")).to_contain_text("It is placed nowhere")
        page.get_by_role("button", name="Delete view").click()
        expect(page.get_by_role("button", name="New view")).to_be_visible()
        expect(self.card("Section")).to_have_count(0)
        expect(page.get_by_title("Undo: delete Section")).to_be_attached()
        page.keyboard.press("Control+z")
        expect(self.card("Section")).to_be_visible()

    def test_a_second_version_makes_views_out_of_date_until_all_are_updated(self):
        page = self.page
        self.station("Views")
        expect(self.card("West elevation")).to_contain_text("Up to date", timeout=FIRST)
        self.card("Roof plan").click()
        page.get_by_role("button", name="Hold").click()
        expect(page.get_by_role("button", name="Release")).to_be_visible()

        self.station("Model")
        with tempfile.TemporaryDirectory() as folder:
            second = Path(folder) / "observatory-b.ifc"
            write_observatory(str(second), revised=True)
            page.get_by_label("Building file").set_input_files(second)
            versions = page.get_by_role("region", name="Versions")
            expect(versions.get_by_text("2 · observatory-b.ifc")).to_be_visible(timeout=FIRST)
        changes = page.get_by_role("region", name="What changed")
        for words in ("Map chest", "Deck bench", "Partition 1", "South wall"):
            expect(changes.get_by_text(words, exact=True)).to_be_visible()

        self.station("Views")
        expect(self.card("South elevation")).to_contain_text("Out of date")
        expect(self.card("Roof plan")).to_contain_text("Held")
        page.get_by_role("button", name="Update 7").click()
        for name in ("South elevation", "Plan, Ground floor", "West elevation"):
            expect(self.card(name)).to_contain_text("Up to date")
        expect(self.card("Roof plan")).to_contain_text("Held")

        # Back to the first version: what was drawn from it is there still, and up to date at once.
        self.station("Model")
        versions.get_by_role("button", name="Restore version 1").click()
        expect(versions.get_by_text("version 1 restored")).to_be_visible()
        self.station("Views")
        expect(self.card("South elevation")).to_contain_text("Up to date")

    def test_a_plan_is_made_for_a_storey_and_several_are_changed_together(self):
        page = self.page
        self.station("Views")
        expect(self.card("West elevation")).to_contain_text("Up to date", timeout=FIRST)
        page.get_by_role("button", name="New view").click()
        page.get_by_role("menuitem", name="Plan of Upper floor").click()
        expect(page.get_by_role("region", name="Ledge: view")).to_be_visible()
        self.station("Views")
        plans = page.get_by_role("region", name="Plans")
        for box in plans.get_by_role("checkbox", name="Choose Plan, ").all():
            box.check()
        together = page.get_by_role("region", name="Ledge: chosen views")
        self.fill("Cut above floor", "1500")
        expect(together.get_by_role("textbox", name="Cut above floor")).to_have_value("1500")
        self.saved()
        cuts = {view.spec["cut"] for view in View.objects.filter(spec__kind="plan")}
        self.assertEqual(cuts, {1500})
        page.keyboard.press("Control+z")
        self.saved()
        self.assertNotIn(1500, {view.spec.get("cut") for view in View.objects.filter(spec__kind="plan")})
        # What can be done to one is offered where it is.
        self.card("Roof plan").click(button="right")
        page.get_by_role("menuitem", name="Delete…").click()
        expect(page.get_by_role("dialog", name="Delete “Roof plan”?")).to_be_visible()

    def test_two_people_in_one_project_see_each_others_changes(self):
        page = self.page
        get_user_model().objects.create_user("odd", password="samphire-89")
        page.goto(self.live_server_url)
        page.get_by_role("button", name="Share Bird observatory").click()
        page.get_by_label("Sign-in name").fill("odd")
        page.get_by_role("dialog").get_by_role("button", name="Share", exact=True).click()
        expect(page.get_by_role("button", name="No longer share with odd")).to_be_visible()
        page.get_by_role("button", name="Done").click()
        page.get_by_role("link", name="Bird observatory").click()
        self.station("Views")
        expect(self.card("Roof plan")).to_contain_text("Up to date", timeout=FIRST)

        context = self.browser.new_context(viewport={"width": 1280, "height": 800})
        self.addCleanup(context.close)
        other = context.new_page()
        other.goto(self.live_server_url)
        other.get_by_label("Name").fill("odd")
        other.get_by_label("Password").fill("samphire-89")
        other.get_by_role("button", name="Sign in").click()
        other.get_by_role("link", name="Bird observatory").click()
        other.get_by_role("navigation", name="Stations").get_by_role("link", name="Views").click()
        other.get_by_role("button", name="Open Roof plan").click()
        name = other.get_by_role("region", name="Ledge: view").get_by_label("Name")
        name.fill("Roof from above")
        name.press("Enter")
        expect(self.card("Roof from above")).to_be_visible()


class Building3DTests(PreparedOffice):
    in_3d = True

    def setUp(self) -> None:
        super().setUp()
        self.open("model")

    def test_the_building_is_picked_measured_and_a_look_at_it_saved(self):
        page = self.page
        canvas = page.get_by_role("application", name="The building.")
        save = page.get_by_role("button", name="Save as a view")
        expect(save).to_be_enabled()
        box = canvas.bounding_box()
        middle = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2

        def click(dx: float, dy: float) -> None:
            page.mouse.click(middle[0] + dx * box["height"], middle[1] + dy * box["height"])

        click(0, 0)
        picked = page.get_by_role("region", name="Picked element")
        expect(picked).to_contain_text("Ifc")
        name = picked.inner_text().split("\n")[0]
        picked.get_by_role("button", name="Hide").click()
        click(0, 0)
        expect(picked).not_to_contain_text(name)
        page.get_by_role("textbox", name="Name of the new subset").fill("Without it")
        page.get_by_role("button", name="Save", exact=True).click()
        expect(
            page.get_by_role("region", name="Subsets").get_by_role("button", name="Without it", exact=True)
        ).to_be_visible()
        page.get_by_role("button", name="Show all").click()

        # From above the ground is a rectangle of 30 by 20 m that fills the picture but for a margin.
        page.get_by_role("combobox", name="Direction").click()
        page.get_by_role("option", name="From above").click()
        page.get_by_role("button", name="Measure").click()
        half = max(10.0, 15.0 * box["height"] / box["width"]) * 1.06
        west, south = -7.5 / half + 0.006, 5.0 / half - 0.006
        click(west, -south)
        click(west, south)
        expect(page.get_by_role("status", name="Measured")).to_contain_text("20000")

        page.get_by_role("button", name="Perspective").click()
        save.click()
        expect(page.get_by_role("img", name="Drawing of Perspective")).to_be_visible()
        ledge = page.get_by_role("region", name="Ledge: view")
        expect(ledge.get_by_text("Up to date")).to_be_visible(timeout=FIRST)
        page.get_by_role("combobox", name="Subset").click()
        page.get_by_role("option", name="Without it").click()
        expect(page.get_by_role("combobox", name="Subset")).to_have_text("Without it")

        # Eye and target are figures as well; what is no point is told.
        self.fill("Eye", "9000, -30000, 1600")
        self.saved()
        self.assertEqual(View.objects.get(spec__kind="perspective").spec["eye"], [9000, -30000, 1600])
        self.fill("Eye", "over there")
        expect(page.get_by_text("Give three figures")).to_be_visible()

        # By keys: from the south-east a quarter of the way round to the north-east, and ten degrees higher.
        self.open("model")
        expect(save).to_be_enabled()
        for key, times in (("ArrowRight", 9), ("ArrowUp", 2)):
            for _ in range(times):
                canvas.press(key)
        save.click()
        self.shows("Bearing", 90, 0.2)
        self.shows("Altitude", 39.5, 0.2)

    def test_what_is_hidden_in_3d_is_hidden_in_the_view_that_is_saved_from_there(self):
        page = self.page
        canvas = page.get_by_role("application", name="The building.")
        expect(page.get_by_role("button", name="Save as a view")).to_be_enabled()
        box = canvas.bounding_box()
        page.mouse.click(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2, button="right")
        page.get_by_role("menuitem", name="Hide ").click()
        page.get_by_role("group", name="Parts").get_by_role("checkbox", name="Lookout").click()
        page.get_by_role("button", name="Save as a view").click()
        expect(page.get_by_role("region", name="Ledge: view")).to_be_visible()
        shown = View.objects.get(spec__kind="axonometric").spec["shown"]
        self.assertEqual((shown["without_storeys"], len(shown["without"])), (["Lookout"], 1))
