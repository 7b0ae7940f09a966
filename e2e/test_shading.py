"""What a drafter makes of a viewport for a client: light and shade under its lines."""

from __future__ import annotations

import io
import re
from typing import Any

import pikepdf
from PIL import Image
from playwright.sync_api import expect

from drafting.tests.pdf_reading import areas, strokes, text
from e2e.office import SheetsOffice
from server.sheets.models import Sheet, Viewport
from server.styles.models import PlotSettings


def pixels_of(pdf: bytes) -> list[tuple[int, int]]:
    with pikepdf.open(io.BytesIO(pdf)) as opened:
        return [(int(image.Width), int(image.Height)) for image in opened.pages[0].images.values()]


class ShadingTests(SheetsOffice):
    def appearance(self, field: str, option: str) -> None:
        self.choose(field, option)
        self.saved()

    def appearance_of_an_elevation(self) -> Any:
        """The panel of a viewport that was just placed."""
        self.place_by_key("South elevation")
        expect(self.viewport("South elevation")).to_be_focused()
        self.saved()
        self.page.get_by_role("button", name="Lines only", exact=True).click()
        return self.page.get_by_role("dialog", name="Appearance of this viewport")

    def shaded(self) -> Viewport:
        """The viewport, once the picture that it asks for is there."""

        def there() -> bool:
            row = Viewport.objects.select_related("shaded").get()
            return row.shaded is not None and row.shaded.key == row.wanted_picture

        self.eventually(there)
        return Viewport.objects.get()

    def colour_at(self, x: float, y: float) -> Any:
        """Red, green, blue of the board at a share of the viewport's width and height."""
        box = self.viewport("South elevation").bounding_box()
        board = self.board.bounding_box()
        at = [box["x"] - board["x"] + box["width"] * x, box["y"] - board["y"] + box["height"] * y]
        return self.page.evaluate(
            "([x, y]) => [...document.querySelector('canvas:has(+ #board)').getContext('2d')"
            ".getImageData(x * devicePixelRatio, y * devicePixelRatio, 1, 1).data.slice(0, 3)]",
            at,
        )

    def test_an_elevation_is_given_light_and_a_sky_and_is_plotted_at_two_resolutions(self) -> None:
        page = self.page
        panel = self.appearance_of_an_elevation()
        self.appearance("Show", "Lines over a shaded picture")
        self.appearance("Light", "The sun")
        hour = panel.get_by_role("textbox", name="Solar hour")
        hour.fill("10")
        hour.press("Enter")
        self.appearance("Background", "Sky")
        expect(panel.get_by_role("button", name="Textures")).to_have_attribute("aria-pressed", "true")
        expect(panel.get_by_text("The picture is being made…")).to_have_count(0)
        row = self.shaded()
        self.assertEqual((row.appearance["light"]["hour"], row.appearance["background"]), (10, "sky"))
        panel.get_by_role("button", name=re.compile("^Close")).click()
        # The sky is blue above the roof, and at once there again after undo and redo.
        self.eventually(lambda: self.colour_at(0.98, 0.02)[2] > self.colour_at(0.98, 0.02)[0] + 20)
        page.get_by_role("button", name="Undo").click()
        self.eventually(lambda: self.colour_at(0.98, 0.02) == [255, 255, 255])
        page.get_by_role("button", name="Redo").click()
        self.eventually(lambda: self.colour_at(0.98, 0.02)[2] > self.colour_at(0.98, 0.02)[0] + 20)

        page.keyboard.press("Escape")
        for resolution in (100, 72):
            self.plot_at(resolution)
            row.refresh_from_db()
            made = self.plotted()
            self.assertTrue(strokes(made))
            self.assertEqual(
                pixels_of(made), [tuple(round(side * resolution / 25.4) for side in (row.width, row.height))]
            )

    def test_textures_are_left_out_and_a_picture_is_set_behind(self) -> None:
        page = self.page
        panel = self.appearance_of_an_elevation()
        self.appearance("Show", "Shaded picture only")
        textured = self.shaded().shaded.file
        textures = panel.get_by_role("button", name="Textures")
        expect(textures).to_have_attribute("aria-pressed", "true")
        textures.click()
        self.saved()
        self.assertNotEqual(self.shaded().shaded.file, textured)

        self.appearance("Background", "Picture")
        stream = io.BytesIO()
        Image.new("RGB", (60, 20), (200, 30, 30)).save(stream, "PNG")
        panel.get_by_label("Picture file").set_input_files(
            {"name": "evening.png", "mimeType": "image/png", "buffer": stream.getvalue()}
        )
        expect(panel.get_by_role("combobox", name="Picture behind")).to_contain_text("evening.png")
        self.saved()
        self.shaded()
        panel.get_by_role("button", name=re.compile("^Close")).click()
        self.eventually(lambda: self.colour_at(0.98, 0.02) == [200, 30, 30])
        page.get_by_role("button", name="Undo").click()
        self.eventually(lambda: self.colour_at(0.98, 0.02) == [255, 255, 255])

    def test_a_sun_study_sets_a_view_beside_itself_in_one_step(self) -> None:
        page = self.page
        self.place_by_key("South elevation")
        self.choose_scale("1:500")
        page.get_by_role("button", name="Fit crop").click()
        self.saved()
        self.more("Sun study…")
        dialog = page.get_by_role("dialog", name="Sun study")
        hours = dialog.get_by_role("textbox", name="Hours")
        hours.fill("9, 25")
        hours.press("Tab")
        expect(dialog.get_by_role("button", name="Set", exact=True)).to_be_disabled()
        hours.fill("9, 15:30")
        hours.press("Tab")
        dialog.get_by_role("button", name="Set 2 beside each other").click()
        expect(self.viewport("South elevation")).to_have_count(2)
        self.saved()
        rows = list(Viewport.objects.order_by("x"))
        self.assertEqual([row.appearance["light"]["hour"] for row in rows], [9, 15.5])
        self.assertGreater(rows[1].x, rows[0].x + rows[0].width)
        page.locator("#board").press("Escape")
        words = text(self.plotted())
        self.assertIn("1:500, sun of 21 June, 9:00", words)
        self.assertIn("1:500, sun of 21 June, 15:30", words)
        page.get_by_role("button", name="Undo").click()
        expect(self.viewport("South elevation")).to_have_count(1)

    def test_several_viewports_are_given_the_same_light_at_once(self) -> None:
        page = self.page
        for name in ("South elevation", "North elevation"):
            self.place_by_key(name)
            expect(self.viewport(name)).to_be_focused()
            self.saved()
        page.locator("#board").press("Control+a")
        page.get_by_role("button", name="Lines only", exact=True).click()
        expect(page.get_by_role("dialog", name="Appearance of these viewports")).to_be_visible()
        self.choose("Show", "Lines over flat colours")
        self.saved()
        shows = [row.appearance["show"] for row in Viewport.objects.all()]
        self.assertEqual(shows, ["colours", "colours"])
        self.eventually(lambda: not Viewport.objects.filter(shaded=None).exists())
        page.get_by_role("button", name="Undo").click()
        self.saved()
        self.eventually(lambda: [row.appearance for row in Viewport.objects.all()] == [None, None])

    def test_shadow_as_areas_is_chosen_for_the_view_and_plotted_as_vectors(self) -> None:
        page = self.page
        self.appearance_of_an_elevation()
        self.appearance("Chosen for", "The view, wherever it stands")
        self.appearance("Shadow as areas", "Cast and own")
        self.eventually(lambda: Viewport.objects.exclude(traced=None).count() == 1)
        row = Viewport.objects.select_related("view").get()
        self.assertEqual((row.appearance, row.view.appearance["areas"]["of"]), (None, "both"))
        page.keyboard.press("Escape")
        self.add_sheets("The same again")
        self.place_by_key("South elevation")
        expect(self.viewport("South elevation")).to_be_focused()
        self.eventually(lambda: Viewport.objects.exclude(traced=None).count() == 2)
        page.locator("#board").press("Escape")
        expect(page.get_by_role("region", name="Ledge: sheet")).to_be_visible()
        grey = tuple(round(part / 255, 2) for part in (0x6B, 0x73, 0x78))
        plotted = self.plotted()
        filled = [area for area in areas(plotted) if tuple(round(c, 2) for c in area.colour) == grey]
        self.assertGreater(len(filled), 3)
        self.assertEqual(pixels_of(plotted), [])

    def plot_at(self, resolution: int) -> None:
        """Give the sheet plot settings of so many pixels an inch."""
        name, spec = f"{resolution} an inch", {"resolution": resolution}
        settings = PlotSettings.objects.create(project=self.project, name=name, spec=spec)
        Sheet.objects.update(plot_settings=settings)
        self.open("sheets")
        expect(self.viewport("South elevation")).to_be_visible()
