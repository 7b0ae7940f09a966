"""Composing sheets, as a drafter does with mouse and keys."""

from __future__ import annotations

import re
from itertools import pairwise
from urllib.parse import urlsplit

import numpy as np
from playwright.sync_api import Request, expect

from drafting.tests.pdf_reading import strokes, text
from drafting.views.section import Section
from drafting.views.spec import dump_view
from e2e.office import FIRST, SheetsOffice
from server.config.page import first_asked
from server.sheets.models import Sheet, Viewport
from server.views.drawings import order_drawing
from server.views.models import View


class SheetsStationTests(SheetsOffice):
    def test_scales_metric_imperial_and_ones_own(self):
        page = self.page
        self.place_by_key("South elevation")
        box = self.viewport("South elevation")
        expect(box).to_be_visible()
        for scale, ratio in (("1:75", 75), ('1/8" = 1\'-0"', 96), ("1:133 1/3", 400 / 3)):
            self.choose_scale(scale)
            row = self.row("South elevation")
            self.assertAlmostEqual(1 / float(row.scale.ratio), ratio)
        page.get_by_role("combobox", name="True scale").click()
        own = page.get_by_role("listbox").get_by_role("option", name="1:133 1/3")
        expect(own).to_be_visible()
        page.keyboard.press("Escape")
        box.focus()
        page.keyboard.press("PageUp")
        expect(page.get_by_role("combobox", name="True scale")).to_have_value("1:100")
        field = page.get_by_role("combobox", name="True scale")
        field.fill("large")
        field.press("Enter")
        expect(page.get_by_text("“large” is not a scale")).to_be_visible()
        expect(field).to_have_value("1:100")
        page.get_by_role("button", name="Close").click()
        self.choose_scale('1/8" = 1\'-0"')
        self.saved()
        page.keyboard.press("Escape")
        self.assertIn('1/8" = 1\'-0"', text(self.plotted()))

    def test_reach_in_turn_and_pin(self):
        page = self.page
        self.place_by_key("South elevation")
        frame = self.viewport("South elevation")
        expect(frame).to_be_focused()
        before = self.row("South elevation")
        page.keyboard.press("Enter")
        self.drag(frame, 30, 0)
        page.keyboard.press("ArrowUp")
        after = self.row("South elevation")
        self.assertEqual((after.x, after.y, after.scale), (before.x, before.y, before.scale))
        self.assertLess(after.centre_u, before.centre_u)
        self.assertAlmostEqual(before.centre_v - after.centre_v, 1 / float(before.scale.ratio), delta=0.01)
        self.fill("Turn", "15")
        self.assertEqual(self.row("South elevation").turn, 15)
        self.fill("Turn", "0")
        self.choose("Centre on", "Upper floor")
        self.assertNotEqual(self.row("South elevation").centre_v, after.centre_v)
        frame.focus()
        page.keyboard.press("Escape")
        page.keyboard.press("i")
        expect(frame.get_by_text("pinned")).to_be_visible()
        held = self.row("South elevation")
        self.drag(frame, 40, 25)
        page.keyboard.press("ArrowLeft")
        now = self.row("South elevation")
        self.assertEqual((now.x, now.y, now.centre_u), (held.x, held.y, held.centre_u))
        page.keyboard.press("i")
        expect(frame.get_by_text("pinned")).to_have_count(0)
        page.keyboard.press("ArrowLeft")
        self.assertEqual(self.row("South elevation").x, held.x - 1)

    def zero(self, name: str) -> float:
        """Where u = 0 lies on the sheet; mm."""
        row = self.row(name)
        return row.x + row.width / 2 - row.centre_u * float(row.scale.ratio)

    def test_a_plan_that_is_dragged_over_an_elevation_agrees_with_it_on_paper(self):
        page = self.page
        for name, at in (("South elevation", (0.4, 0.62)), ("Plan, Ground floor", (0.62, 0.27))):
            self.pull_out_views()
            self.drag_card(name, at)
            self.choose_scale("1:200")
        misfit = self.zero("South elevation") - self.zero("Plan, Ground floor")
        self.assertGreater(abs(misfit), 1)
        page.get_by_role("button", name="Fit crop").click()
        pixels = self.pixels("Plan, Ground floor")
        box = self.viewport("Plan, Ground floor").bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        page.mouse.move(x, y)
        page.mouse.down()
        page.mouse.move(x + misfit * pixels / 2, y)
        page.mouse.move(x + misfit * pixels + 4, y, steps=3)
        expect(page.get_by_text("aligned with South elevation")).to_be_visible()
        page.mouse.up()
        self.assertAlmostEqual(self.zero("South elevation"), self.zero("Plan, Ground floor"), places=6)
        page.keyboard.press("Escape")
        pieces = [ends for stroke in strokes(self.plotted()) for ends in pairwise(stroke.points)]
        ends = [
            [min(a[0], b[0]) for a, b in pieces if np.allclose(np.abs(b - a), (length / 200, 0), atol=0.005)]
            for length in (12_000, 12_600)
        ]
        # The cut long wall of the plan and the gutter of the elevation begin above each other.
        self.assertLess(min(abs(a - b) for a in ends[0] for b in ends[1]), 0.01)

    def test_a_projected_set_is_laid_out_and_taken_back_in_one_step(self):
        page = self.page
        self.pull_out_views()
        for name in ("South elevation", "East elevation", "Plan, Ground floor"):
            card = page.get_by_role("button", name=f"Place {name}")
            expect(card).to_have_attribute("aria-disabled", "false", timeout=FIRST)
            card.click()
        page.get_by_role("button", name="Third angle").click()
        expect(page.get_by_role("region", name="Ledge: several viewports")).to_be_visible()
        self.assertAlmostEqual(self.zero("South elevation"), self.zero("Plan, Ground floor"), places=6)
        south, east, plan = map(self.row, ("South elevation", "East elevation", "Plan, Ground floor"))
        self.assertEqual(len({south.scale, east.scale, plan.scale}), 1)
        self.assertGreater(plan.y, south.y + south.height)
        self.assertGreater(east.x, south.x + south.width)
        page.keyboard.press("Control+z")
        expect(page.get_by_text("Nothing is placed on this sheet")).to_be_visible()
        self.saved()
        self.assertEqual(Viewport.objects.count(), 0)
        page.keyboard.press("Control+Shift+z")
        expect(self.viewport("East elevation")).to_be_visible()

        # All that a box across the paper meets is chosen, and moves together.
        page.keyboard.press("Escape")
        a, b = (
            self.viewport("Plan, Ground floor").bounding_box(),
            self.viewport("East elevation").bounding_box(),
        )
        page.mouse.move(a["x"] - 8, a["y"] - 8)
        page.mouse.down()
        page.mouse.move(b["x"] + b["width"] - 10, b["y"] + b["height"] - 10, steps=4)
        page.mouse.up()
        ledge = page.get_by_role("region", name="Ledge: several viewports")
        expect(ledge.get_by_role("group", name="3 viewports")).to_be_visible()
        page.keyboard.press("ArrowUp")
        moved = [self.row(v.view.name).y - v.y for v in (south, east, plan)]
        np.testing.assert_allclose(moved, 1)
        ledge.get_by_role("button", name="Bottoms").click()
        self.saved()
        self.assertEqual(len(set(Viewport.objects.values_list("y", flat=True))), 1)

    def test_round_and_many_cornered_viewports(self):
        page = self.page
        self.place_by_key("South elevation")
        expect(self.viewport("South elevation")).to_be_visible()
        before = self.row("South elevation")
        self.choose("Shape", "Circle")
        circle = self.row("South elevation")
        self.assertEqual((circle.shape, circle.width), ("circle", circle.height))
        self.drag(page.locator('[data-handle="right side"]'), -30, 0)
        smaller = self.row("South elevation")
        self.assertEqual(smaller.width, smaller.height)
        self.assertLess(smaller.width, circle.width)
        self.choose("Shape", "Draw it…")
        board = self.board.bounding_box()
        for dx, dy in ((0.3, 0.2), (0.7, 0.25), (0.6, 0.6), (0.35, 0.55)):
            page.mouse.click(board["x"] + board["width"] * dx, board["y"] + board["height"] * dy)
        page.keyboard.press("Enter")
        expect(page.get_by_role("combobox", name="Shape")).to_have_text("Polygon")
        self.assertEqual(len(self.row("South elevation").corners), 4)
        self.drag(page.locator('[data-handle="corner 1"]'), -20, -10)
        polygon = self.row("South elevation")
        self.assertEqual((polygon.shape, polygon.scale), ("polygon", before.scale))
        page.get_by_role("button", name="Frame", exact=True).click()
        self.saved()
        page.keyboard.press("Escape")
        (frame,) = (s for s in strokes(self.plotted()) if s.layer == "Viewport outlines")
        wanted = [(polygon.x + x, polygon.y + y) for x, y in polygon.corners]
        np.testing.assert_allclose(frame.points[:4], wanted, atol=0.01)

    def test_the_same_view_beside_itself_with_less_in_it(self):
        page = self.page
        self.place_by_key("Plan, Ground floor")
        expect(self.viewport("Plan, Ground floor")).to_be_focused()
        self.choose_scale("1:200")
        self.more("Duplicate (Ctrl + D)")
        expect(self.viewport("Plan, Ground floor")).to_have_count(2)
        self.ledge.get_by_role("button", name="Everything").click()
        page.get_by_role("group", name="Layers").get_by_role("checkbox", name="Furniture").click()
        page.keyboard.press("Escape")
        expect(self.ledge.get_by_role("group", name="Shown (changed)")).to_be_visible()
        self.saved()
        expect(self.ledge.get_by_text("Up to date")).to_be_visible()

        def drawings() -> list[str | None]:
            rows = Viewport.objects.select_related("linework", "view__linework").order_by("position")
            return [v.linework.key if v.linework else None for v in rows]

        for _ in range(100):
            if len(set(drawings())) == 2:
                break
            page.wait_for_timeout(200)
        self.assertEqual(len(set(drawings())), 2)
        self.ledge.get_by_role("button", name="Sheet’s pens").click()
        page.get_by_role("combobox", name="Width of cut").click()
        page.get_by_role("option", name="1.00 mm").click()
        page.keyboard.press("Escape")
        expect(self.ledge.get_by_role("button", name="1 pen changed")).to_be_visible()
        self.saved()
        page.locator("#board").press("Escape")
        widths = {round(s.width, 2) for s in strokes(self.plotted())}
        self.assertTrue({0.5, 1.0} <= widths)
        self.viewport("Plan, Ground floor").nth(1).click()
        self.ledge.get_by_role("button", name="More…").click()
        page.get_by_role("menuitem", name="Show as in its view").click()
        expect(self.ledge.get_by_role("button", name="Sheet’s pens")).to_be_visible()
        self.saved()
        self.assertEqual(len(set(drawings())), 1)

    def test_copies_go_to_other_sheets_and_what_was_done_is_undone_after_a_reload(self):
        page = self.page
        self.add_sheets("Sections", "Details")
        register = self.register
        expect(register.get_by_role("button", name="Sheet A-03 Details")).to_be_visible()
        self.open_sheet("A-01")
        self.place_by_key("Roof plan")
        expect(self.viewport("Roof plan")).to_be_focused()
        page.keyboard.press("Control+c")
        self.open_sheet("A-02")
        expect(page.get_by_text("Nothing is placed on this sheet")).to_be_visible()
        page.keyboard.press("Control+v")
        expect(self.viewport("Roof plan")).to_be_visible()
        self.more("Copy to sheets…")
        page.get_by_role("checkbox", name="A-03 Details").click()
        page.get_by_role("button", name="Place", exact=True).click()
        self.saved()
        rows = Viewport.objects.filter(view__name="Roof plan")
        self.assertEqual(len(set(rows.values_list("x", "y", "scale_real"))), 1)
        self.assertEqual(rows.count(), 3)

        # A sheet is moved up the register by keys, and the page is left: all of it can still be taken back.
        register.get_by_role("button", name="Sheet A-02 Sections").press("Alt+ArrowUp")
        expect(page.get_by_title("Undo: move A-02 in the register")).to_be_attached()
        self.saved()
        self.assertEqual([s.number for s in Sheet.objects.all()], ["A-02", "A-01", "A-03"])
        asked: list[str] = []

        def note(request: Request) -> None:
            asked.append(request.url.removeprefix(self.live_server_url))

        page.on("request", note)
        page.reload()
        expect(self.viewport("Roof plan")).to_be_visible()
        page.remove_listener("request", note)
        # What a page begins with came with it.
        self.assertEqual(set(asked) & set(first_asked(urlsplit(page.url).path)), set())
        for command in ("move A-02 in the register", "place on 1 sheet"):
            page.get_by_role("button", name="Undo").click()
            expect(page.get_by_text(f"Undone: {command}")).to_be_visible()
        self.saved()
        self.assertEqual(
            ([s.number for s in Sheet.objects.all()], rows.count()), (["A-01", "A-02", "A-03"], 2)
        )
        page.get_by_role("button", name="Redo").click()
        expect(page.get_by_text("Redone: place on 1 sheet")).to_be_visible()
        # Undone from another page, it is said where, and can be shown.
        page.get_by_role("navigation", name="Stations").get_by_role("link", name="Check").click()
        page.keyboard.press("Control+z")
        expect(page.get_by_text(re.compile("Undone: place on 1 sheet on sheet A-0"))).to_be_visible()
        page.get_by_role("button", name="Show", exact=True).click()
        expect(page).to_have_url(re.compile("/sheets/"))
        page.get_by_role("button", name="Redo").click()
        expect(page.get_by_text(re.compile("Redone: place on 1 sheet on sheet A-0"))).to_be_visible()
        self.saved()
        self.assertEqual(rows.count(), 3)

    def test_guides_are_pulled_out_of_the_rulers_and_hold_what_comes_near(self):
        page = self.page
        self.place_by_key("Roof plan")
        frame = self.viewport("Roof plan")
        expect(frame).to_be_focused()
        self.choose_scale("1:250")
        page.get_by_role("button", name="Fit crop").click()
        self.fill("Left", "140")
        pixels = self.pixels("Roof plan")
        ruler = page.locator('[data-ruler="left"]').bounding_box()
        y = ruler["y"] + ruler["height"] / 2
        page.mouse.move(ruler["x"] + 8, y)
        page.mouse.down()
        page.mouse.move(frame.bounding_box()["x"] - 20 * pixels, y, steps=4)
        page.mouse.up()
        self.saved()
        (guide,) = Sheet.objects.get().guides["x"]
        self.assertAlmostEqual(guide, 120, delta=1)
        self.drag(frame, (guide - 140) * pixels + 3, 40)
        self.assertAlmostEqual(self.row("Roof plan").x, guide, places=6)
        # With Alt nothing holds it.
        page.keyboard.down("Alt")
        self.drag(frame, 3, 0)
        page.keyboard.up("Alt")
        self.assertAlmostEqual(self.row("Roof plan").x, guide + 3 / pixels, delta=0.5 / pixels)
        self.assertNotAlmostEqual(self.row("Roof plan").x, guide, places=3)
        page.keyboard.press("Control+z")
        page.keyboard.press("Control+z")
        page.keyboard.press("Control+z")
        self.saved()
        self.assertEqual(Sheet.objects.get().guides, {})

    def test_an_outline_is_drawn_and_a_view_seen_through_it_and_an_element_left_out(self):
        page = self.page
        expect(page.get_by_role("button", name="More…")).to_be_visible()
        self.more("Draw an outline for a view")
        expect(page.get_by_role("menu")).to_have_count(0)
        board = self.board.bounding_box()
        for dx, dy in ((0.3, 0.2), (0.8, 0.2), (0.8, 0.6), (0.3, 0.6)):
            page.mouse.click(board["x"] + board["width"] * dx, board["y"] + board["height"] * dy)
            page.wait_for_timeout(50)
        page.keyboard.press("Enter")
        page.get_by_role("dialog").get_by_role("button", name="South elevation").click()
        frame = self.viewport("South elevation")
        expect(frame).to_be_focused()
        before = self.row("South elevation")
        self.assertEqual((before.shape, len(before.corners)), ("polygon", 4))

        # Reached in, a double click brings the element under it to the middle; then it can be left out.
        box = frame.bounding_box()
        middle = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        page.mouse.dblclick(*middle)
        expect(page.get_by_role("button", name="Done")).to_be_visible()
        leave = page.get_by_role("button", name="Hide it")
        for dy in range(-60, 61, 6):
            page.mouse.dblclick(middle[0], middle[1] + dy)
            page.wait_for_timeout(150)
            if leave.count():
                break
        leave.click()
        expect(self.ledge.get_by_role("group", name="Shown (changed)")).to_be_visible()
        row = self.row("South elevation")
        self.assertEqual(len(row.shown["without"]), 1)
        self.assertNotEqual((row.centre_u, row.centre_v), (before.centre_u, before.centre_v))

    def test_a_sections_mark_says_where_it_stands_and_follows_when_its_sheet_is_renumbered(self):
        page = self.page
        self.saved()
        project = Sheet.objects.get().project
        spec = dump_view(Section(((-9500.0, 3300.0), (17500.0, 3300.0))))
        order_drawing(View.objects.create(project=project, name="Section", spec=spec, position=90))
        self.place_by_key("Plan, Ground floor")
        expect(
            page.get_by_role("button", name=re.compile("Mark of .*, which is not placed yet")).first
        ).to_be_attached()
        self.add_sheets("Elevations", "Roof", "Details", "Sections")
        register = self.register
        self.open_sheet("A-05")
        expect(page.get_by_text("Nothing is placed on this sheet")).to_be_visible()
        self.place_by_key("Section")
        expect(self.viewport("Section")).to_be_visible()
        self.fill_number("S-12")
        self.open_sheet("A-01")
        mark = page.get_by_role("button", name="Mark: go to Section on S-12").first
        expect(mark).to_be_visible()
        self.assertEqual(text(self.plotted()).count("S-12"), 2)
        mark.click()
        expect(self.ledge).to_be_visible()
        expect(register.locator("[aria-current=page]")).to_contain_text("S-12")

    def test_a_plan_names_its_rooms_and_shows_doors_open_until_they_are_switched_off(self):
        page = self.page
        self.place_by_key("Plan, Ground floor")
        expect(self.viewport("Plan, Ground floor")).to_be_focused()
        page.keyboard.press("Escape")
        words = text(self.plotted())
        for wanted in ("Common room", "0.2", "34.0 m²"):
            self.assertIn(wanted, words)
        self.viewport("Plan, Ground floor").click()
        self.ledge.get_by_role("button", name="Rooms", exact=True).click()
        self.saved()
        page.keyboard.press("Escape")
        self.assertNotIn("Common room", text(self.plotted()))

        self.open("views")
        page.get_by_role("button", name="Open Plan, Ground floor").click()
        before = View.objects.get(name="Plan, Ground floor").wanted
        self.choose("Doors and stairs", "As modelled")
        expect(page.get_by_title("Undo: doors and stairs of Plan, Ground floor")).to_be_attached()
        self.saved()
        expect(page.get_by_role("region", name="Ledge: view").get_by_text("Up to date")).to_be_visible()
        changed = View.objects.get(name="Plan, Ground floor")
        self.assertNotEqual(changed.wanted, before)
        self.assertFalse(changed.spec["line_settings"]["doors"])

    def test_the_list_of_drawings_is_right_after_a_reorder_and_a_renumbering(self):
        page = self.page
        self.add_sheets("Elevations", "Sections")
        register = self.register
        self.open_sheet("A-01")
        self.more("Place the list of drawings")
        table = page.get_by_role("img", name="List of drawings")
        expect(table).to_be_visible()
        self.saved()
        before = Sheet.objects.get(number="A-01").drawing_list["x"]
        self.drag(table, 40, 30)
        expect(page.get_by_title("Undo: move the list of drawings")).to_be_attached()
        self.saved()
        self.assertGreater(Sheet.objects.get(number="A-01").drawing_list["x"], before + 5)
        register.get_by_role("button", name="Sheet A-03 Sections").press("Alt+ArrowUp")
        self.saved()
        words = text(self.plotted())
        self.assertLess(words.index("Sections"), words.index("Elevations"))
        self.open_sheet("A-03")
        self.fill_number("A-02")
        expect(page.get_by_text("A-02 is the number of another sheet")).to_be_visible()
        self.open_sheet("A-01")
        self.more("Renumber from here on")
        expect(register.get_by_role("button", name="Sheet A-02 Sections")).to_be_visible()
        self.saved()
        self.assertEqual([s.number for s in Sheet.objects.all()], ["A-01", "A-02", "A-03"])

    def test_without_a_connection_work_goes_on_and_is_saved_when_it_is_back(self):
        page = self.page
        self.place_by_key("Roof plan")
        expect(self.viewport("Roof plan")).to_be_focused()
        before = self.row("Roof plan")
        page.context.set_offline(True)
        for _ in range(3):
            page.keyboard.press("ArrowRight")
        expect(page.get_by_role("status").filter(has_text="No connection")).to_be_visible()
        self.shows("Left", round(before.x + 3, 2))
        page.context.set_offline(False)
        expect(page.get_by_role("status").filter(has_text="No connection")).to_have_count(0)
        self.assertAlmostEqual(self.row("Roof plan").x, before.x + 3)

    def test_paper_of_another_size_keeps_contents_by_the_title_block(self):
        page = self.page
        self.place_by_key("Roof plan")
        expect(self.viewport("Roof plan")).to_be_focused()
        before = self.row("Roof plan")
        page.keyboard.press("Escape")
        size = page.get_by_role("combobox", name="Size, or mm x mm")
        for paper, width in (("A2", 594), ("Arch C", 609.6), ("200 x 150", 200)):
            size.fill(paper)
            size.press("Enter")
            expect(page.get_by_title("Undo: paper of A-01")).to_be_attached()
            self.saved()
            self.assertAlmostEqual(self.row("Roof plan").x, before.x + width - 420, places=6)
        page.get_by_role("button", name="1 off paper").click()
        expect(self.ledge).to_be_visible()
