"""The Model station and what views show on demand, as they are used."""

import tempfile
from pathlib import Path

from playwright.sync_api import expect

from drafting.tests.ifc_files import write_turned_ifc
from e2e.office import FIRST, Office
from server.projects.models import Project
from server.views.models import View


class ModelStationTests(Office):
    def setUp(self) -> None:
        super().setUp()
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.file = write_turned_ifc(Path(folder.name) / "turned.ifc", 20.0)

    def test_a_turned_building_stands_straight_and_its_axes_can_be_changed(self):
        page = self.page
        self.add_project("House on a slope")
        self.import_model(self.file)
        stands = page.get_by_role("region", name="Where it stands")
        expect(stands).to_contain_text("Axes turned by20.00°")
        # Along its own axes the wall is as long and as thick as it is.
        expect(page.get_by_text("5.00 × 0.20 × 2.50 m")).to_be_visible()

        stands.get_by_role("button", name="Change axes…").click()
        dialog = page.get_by_role("dialog")
        field = dialog.get_by_label("Turn from the file’s x axis")
        field.fill("nowhere")
        expect(dialog.get_by_role("button", name="Change", exact=True)).to_be_disabled()
        field.fill("0")
        dialog.get_by_role("button", name="Change", exact=True).click()
        expect(page.get_by_text("4.77 × 1.90 × 2.50 m")).to_be_visible()
        expect(stands).to_contain_text("Axes turned by0°")

        stands.get_by_role("button", name="Change axes…").click()
        page.get_by_role("dialog").get_by_role("button", name="Find from walls and placement").click()
        expect(page.get_by_text("5.00 × 0.20 × 2.50 m")).to_be_visible()
        expect(page.get_by_role("region", name="Versions")).to_contain_text("3 · turned.ifc")

    def test_a_building_without_terrain_is_given_level_ground(self):
        page = self.page
        self.add_project("House on nothing")
        self.import_model(self.file)
        stands = page.get_by_role("region", name="Where it stands")
        expect(stands).to_contain_text("Groundnot given")
        stands.get_by_role("button", name="Ground level…").click()
        field = page.get_by_role("dialog").get_by_label("Level of the ground (m), blank for none")
        field.fill("low")
        expect(page.get_by_role("dialog").get_by_role("button", name="Change", exact=True)).to_be_disabled()
        field.fill("2.85")
        page.get_by_role("dialog").get_by_role("button", name="Change", exact=True).click()
        expect(stands).to_contain_text("Groundlevel, at 2.850 m")
        expect(page.get_by_role("region", name="Versions")).to_contain_text("2 · turned.ifc")

    def test_lines_on_demand_are_chosen_for_a_view(self):
        page = self.page
        self.add_project("House on a slope")
        self.import_model(self.file)
        page.get_by_role("navigation", name="Stations").get_by_role("link", name="Views").click()
        page.get_by_text("Plan, Deck").first.click()
        ledge = page.get_by_role("region", name="Ledge: view")
        ledge.get_by_role("button", name="More…").click()
        lines = page.get_by_role("dialog", name="More lines")
        self.tick(lines.get_by_role("checkbox", name="Outline of what is above the cut"))
        lines.get_by_label("Contours of the terrain every").fill("0.5")
        page.keyboard.press("Enter")
        page.keyboard.press("Escape")
        expect(ledge.get_by_role("button", name="2 more")).to_be_visible()
        expect(page.get_by_text("Up to date").first).to_be_visible(timeout=FIRST)
        self.eventually(lambda: self.settings_of("Plan, Deck").get("outline_above") is True)
        page.keyboard.press("Control+z")
        expect(ledge.get_by_role("button", name="1 more")).to_be_visible()

    def settings_of(self, name):
        view = View.objects.get(project=Project.objects.get(), name=name)
        return view.spec.get("line_settings", {})
