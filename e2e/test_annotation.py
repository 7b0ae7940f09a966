"""Writing and measuring on sheets, as a drafter does with mouse and keys, and what a new model version does
to it."""

from __future__ import annotations

import re
from pathlib import Path

from playwright.sync_api import expect

from drafting.tests.pdf_reading import text
from e2e.office import PLAN, PlanOffice
from server.annotations.models import Annotation
from server.sheets.models import Sheet

#: The jambs of the window in the south wall that is widened in the second version; u, mm.
LEFT, RIGHT, WIDENED = 5400.0, 7200.0, 7800.0


class AnnotationTests(PlanOffice):
    def dimension(self, *points: tuple[float, float], line: tuple[float, float]) -> None:
        status = self.page.get_by_role("region", name="Ledge: annotate").get_by_role("status")
        self.page.keyboard.press("d")
        expect(status).to_contain_text("first point")
        for k, point in enumerate(points):
            self.click(*point)
            expect(status).to_contain_text("second point" if k == 0 else "dimension line lies")
        self.click(*line)
        expect(status).to_contain_text("further points")

    def test_a_dimension_is_true_on_two_sheets_and_says_what_a_new_version_changes(self):
        page = self.page
        self.place_plan()
        page.keyboard.press("d")
        self.choose("Belongs to", "In the view, on every sheet")
        page.get_by_role("button", name="Done").click()
        self.dimension((LEFT, 0), (RIGHT, 0), line=((LEFT + RIGHT) / 2, -1200))
        made = self.piece("Dimension: 1800")
        expect(made).to_be_visible()
        # A chain is one piece: a further click adds to it.
        self.click(12_000, 0)
        expect(self.piece("Dimension: 1800 4800")).to_be_visible()
        page.keyboard.press("Escape")
        page.keyboard.press("Escape")
        expect(page.get_by_role("region", name="Ledge: sheet")).to_be_visible()
        self.saved()
        self.assertEqual([p["ends"] != [] for p in Annotation.objects.get().spec["points"]], [True] * 3)

        page.keyboard.press("Control+z")
        expect(self.piece("Dimension: 1800 4800")).to_have_count(0)
        page.reload()
        expect(made).to_be_visible()
        self.add_sheets("At another scale")
        self.open_sheet("A-02")
        expect(page.get_by_text("Nothing is placed on this sheet")).to_be_visible()
        self.place_by_key(PLAN)
        self.choose_scale("1:200")
        self.saved()
        expect(made).to_be_visible()
        page.keyboard.press("Escape")
        file = self.plotted("Plot set")
        self.assertEqual(["1800" in text(file, page) for page in (0, 1)], [True, True])

        self.next_version()
        changed = self.piece("Dimension: 2400, changed")
        expect(changed).to_be_visible()
        page.get_by_role("button", name="1 to put right").click()
        expect(page.get_by_text("1800 is now 2400")).to_be_visible()
        page.get_by_role("button", name="Accept").click()
        expect(changed).to_have_count(0)
        page.keyboard.press("Escape")
        expect(self.piece("Dimension: 2400")).to_be_visible()
        page.keyboard.press("Control+z")
        expect(changed).to_be_visible()

    def test_the_outer_walls_are_dimensioned_in_one_action_and_again_without_doubling(self):
        page = self.page
        self.place_plan()
        for time in ("first", "second"):
            with self.subTest(time):
                self.viewport(PLAN).click(position={"x": 8, "y": 8})
                self.more("Dimension the outer walls…")
                page.get_by_role("button", name="Dimension", exact=True).last.click()
                expect(self.piece(re.compile("^Dimension: .*900 1500"))).to_be_visible()
                self.saved()
                self.assertEqual(Annotation.objects.count(), 6)
                page.keyboard.press("Escape")
        words = text(self.plotted())
        for figure in ("12000", "4200", "19200", "7000"):
            self.assertIn(figure, words)
        page.keyboard.press("Control+z")
        page.keyboard.press("Control+z")
        expect(self.piece(re.compile("^Dimension:"))).to_have_count(0)
        self.saved()
        self.assertEqual(Annotation.objects.count(), 0)

    def test_a_note_with_a_leader_is_written_moved_and_deleted(self):
        page = self.page
        self.place_plan()
        page.keyboard.press("t")
        expect(page.get_by_text("Click what the note speaks of.")).to_be_visible()
        self.click(0, 7000)
        expect(page.get_by_text("Click where the words begin.")).to_be_visible()
        self.click(-2500, 9200)
        field = page.get_by_role("textbox", name="Words of the note")
        expect(field).to_be_focused()
        page.keyboard.type("Larch boards\n- oiled twice")
        page.keyboard.press("Escape")
        note = self.piece("Note: Larch boards – oiled twice")
        expect(note).to_be_visible()
        self.saved()
        before = Annotation.objects.get().spec["offset"]
        self.drag(note, 20, 0)
        expect(page.get_by_title("Undo: move a note")).to_be_attached()
        self.saved()
        self.assertGreater(Annotation.objects.get().spec["offset"][0], before[0])
        self.choose("Belongs to", f"The view {PLAN}")
        self.saved()
        self.assertEqual(Annotation.objects.get().view.name, PLAN)
        page.keyboard.press("Escape")
        self.assertIn("Larch boards", text(self.plotted()))
        note.click()
        page.keyboard.press("Delete")
        expect(note).to_have_count(0)
        page.keyboard.press("Control+z")
        expect(note).to_be_visible()

    def test_a_note_on_the_sheet_is_pasted_in_its_place_on_another(self):
        page = self.page
        self.add_sheets("Second")
        board = self.board.bounding_box()
        page.get_by_role("group", name="Annotate").get_by_role("button", name="Note").click()
        expect(page.get_by_text("Click what the note speaks of.")).to_be_visible()
        page.mouse.click(board["x"] + board["width"] / 2, board["y"] + board["height"] / 3)
        expect(page.get_by_role("textbox", name="Words of the note")).to_be_focused()
        page.keyboard.type("For comment")
        page.keyboard.press("Escape")
        note = self.piece("Note: For comment")
        note.click()
        page.keyboard.press("Control+c")
        self.open_sheet("A-01")
        expect(note).to_have_count(0)
        page.keyboard.press("Control+v")
        expect(note).to_be_visible()
        self.saved()
        places = [piece.spec["at"]["at"] for piece in Annotation.objects.all()]
        self.assertEqual((len(places), places[0]), (2, places[1]))
        self.assertEqual({piece.sheet for piece in Annotation.objects.all()}, set(Sheet.objects.all()))

    def test_levels_are_read_off_an_elevation_and_refused_on_a_plan(self):
        page = self.page
        self.place_plan()
        page.keyboard.press("l")
        expect(page.get_by_text("Click a point of an elevation or a section.")).to_be_visible()
        self.click(0, 0)
        expect(page.get_by_text("A spot level is given in elevations and sections")).to_be_visible()
        page.get_by_role("button", name="Close").click()
        expect(self.piece(re.compile("^Spot level"))).to_have_count(0)
        page.keyboard.press("Escape")
        page.keyboard.press("Escape")

        self.place_by_key("South elevation")
        frame = self.viewport("South elevation")
        expect(frame).to_be_focused()
        page.keyboard.press("Escape")
        row, box = self.row("South elevation"), frame.bounding_box()
        pixels = box["width"] / row.width * float(row.scale.ratio)
        page.keyboard.press("l")
        expect(page.get_by_text("Click a point of an elevation or a section.")).to_be_visible()
        page.mouse.click(
            box["x"] + box["width"] / 2 + (1000 - row.centre_u) * pixels,
            box["y"] + box["height"] / 2 - (3000 - row.centre_v) * pixels,
        )
        level = self.piece(re.compile(r"^Spot level: \+[23]\.\d{3}$"))
        expect(level).to_be_visible()
        page.keyboard.press("Escape")
        # Attached again it stays in its drawing: a place of another would be taken for one of its own.
        level.click()
        page.get_by_role("button", name="Attach again").click()
        expect(page.get_by_text("Click what it is to be attached to: point 1.")).to_be_visible()
        plan = self.viewport(PLAN).bounding_box()
        page.mouse.click(plan["x"] + plan["width"] / 2, plan["y"] + plan["height"] / 2)
        expect(page.get_by_text("It belongs to another drawing.")).to_be_visible()

    def test_a_schedule_of_doors_is_placed_and_had_as_a_file(self):
        page = self.page
        board = self.board.bounding_box()
        page.keyboard.press("s")
        expect(page.get_by_text("Click where its upper left corner is to lie.")).to_be_visible()
        page.mouse.click(board["x"] + board["width"] / 2, board["y"] + board["height"] / 4)
        expect(self.piece("Schedule: Rooms")).to_be_visible()
        self.choose("Lists", "Doors")
        expect(self.piece("Schedule: Doors")).to_be_visible()
        self.choose("Of the storey", "Upper floor")
        self.saved()
        with page.expect_download() as download:
            page.get_by_role("link", name="CSV").click()
        lines = Path(download.value.path()).read_text(encoding="utf-8-sig").splitlines()
        self.assertEqual(lines[0], "Number,Storey,Width,Height")
        self.assertTrue(all("Upper floor" in line for line in lines[1:]), lines)
        page.keyboard.press("Escape")
        words = text(self.plotted())
        self.assertIn(f"{len(lines) - 1} in all", words)

    def test_a_schedule_follows_the_building(self):
        page = self.page
        self.place_plan()
        board = self.board.bounding_box()
        page.keyboard.press("s")
        expect(page.get_by_text("Click where its upper left corner is to lie.")).to_be_visible()
        page.mouse.click(board["x"] + board["width"] * 0.7, board["y"] + board["height"] / 4)
        self.choose("Lists", "Windows")
        expect(self.piece("Schedule: Windows")).to_be_visible()
        self.saved()
        page.keyboard.press("Escape")
        before = text(self.plotted())
        # The window beside the deck is made wider.
        self.next_version()
        expect(self.piece("Schedule: Windows")).to_be_visible()
        after = text(self.plotted())
        counts = [[words.count(width) for words in (before, after)] for width in ("1800", "2400")]
        self.assertEqual([now - then for then, now in counts], [-1, 1])

    def test_doors_and_windows_are_tagged_in_one_action_and_one_by_hand(self):
        page = self.page
        self.place_plan()
        frame = self.viewport(PLAN)
        frame.click(position={"x": 8, "y": 8})
        page.get_by_role("button", name="More…").click()
        page.get_by_role("menuitem", name="Tag elements…").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Window", exact=True).uncheck()
        dialog.get_by_role("button", name="Tag", exact=True).click()
        tags = self.piece(re.compile("^Tag: "))
        expect(tags.first).to_be_visible()
        self.saved()
        count = Annotation.objects.count()
        expect(tags).to_have_count(count)
        # Again it adds only what is missing; one undo takes all of them back.
        tags.first.click()
        page.keyboard.press("Delete")
        expect(tags).to_have_count(count - 1)
        frame.click(position={"x": 8, "y": 8})
        page.get_by_role("button", name="More…").click()
        page.get_by_role("menuitem", name="Tag elements…").click()
        dialog.get_by_label("Window", exact=True).uncheck()
        dialog.get_by_role("button", name="Tag", exact=True).click()
        expect(tags).to_have_count(count)
        for _ in range(3):
            page.get_by_role("button", name="Undo").click()
        expect(tags).to_have_count(0)
        page.get_by_role("button", name="Redo").click()
        expect(tags).to_have_count(count)
        tags.first.click()
        self.choose("Shows", "Number and size")
        self.saved()
        self.assertIn("both", [piece.spec["shows"] for piece in Annotation.objects.all()])
        page.keyboard.press("Escape")
        self.assertIn("×", text(self.plotted()))
