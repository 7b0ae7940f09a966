"""Shapes, measures, numbered notes, symbols, tables and drawings from others, as a drafter uses them with
mouse and keys."""

from __future__ import annotations

import io
import re
import tempfile
from pathlib import Path
from typing import Any

import ezdxf
from playwright.sync_api import expect

from drafting.tests.pdf_reading import text
from e2e.office import PLAN, PlanOffice
from server.annotations.models import Annotation
from server.sheets.models import Sheet, Viewport
from server.views.models import View


def survey(width: float = 30.0) -> bytes:
    """A site of 30 x 20 m in a file that says no unit, with a hedge on a layer of its own."""
    doc = ezdxf.new("R2010", units=0)
    space = doc.modelspace()
    corners = [(500.0, 800.0), (500.0 + width, 800.0), (500.0 + width, 820.0), (500.0, 820.0)]
    space.add_lwpolyline(corners, close=True, dxfattribs={"layer": "Boundary"}).dxf.handle = "ABC"
    space.add_line((510.0, 805.0), (520.0, 805.0), dxfattribs={"layer": "Hedges"})
    out = io.StringIO()
    doc.write(out)
    return out.getvalue().encode()


class DrawingTools(PlanOffice):
    def spec(self, kind: str) -> Any:
        self.saved()
        return Annotation.objects.filter(spec__kind=kind).last().spec

    def press(self, key: str, says: str) -> None:
        self.page.keyboard.press(key)
        expect(self.page.get_by_role("region", name="Ledge: annotate").get_by_role("status")).to_contain_text(
            says
        )

    def expect_words(self, words: str) -> None:
        expect(self.page.get_by_role("region", name="Ledge: annotate").get_by_role("status")).to_contain_text(
            words
        )

    def put_away(self) -> None:
        self.page.get_by_role("button", name="Done").click()

    def on_paper(self, x: float, y: float) -> tuple[float, float]:
        """Where a place of the board is, as shares of its size."""
        board = self.board.bounding_box()
        return board["x"] + board["width"] * x, board["y"] + board["height"] * y

    def test_a_numbered_note_stands_as_its_number_and_a_schedule_says_what_it_means(self) -> None:
        page = self.page
        self.place_plan()
        self.press("n", "what the note speaks of")
        page.get_by_role("button", name="List…").click()
        words = page.get_by_label("Words of a new note")
        for written in ("Larch boards, 24 mm", "Gravel strip, 300 mm wide"):
            words.fill(written)
            words.press("Enter")
            expect(
                page.get_by_role("dialog").get_by_role("textbox", name=re.compile("Words of note")).last
            ).to_have_value(written)
        page.get_by_role("dialog").get_by_role("button", name="Done").click()
        self.choose("Note of the list", "1  Larch boards, 24 mm")
        for place in (0.0, 7000.0):
            self.click(0, place)
            self.expect_words("where the number stands")
            self.click(-2500, place + 900)
            self.expect_words("what the note speaks of")
        self.put_away()
        marks = self.piece("Numbered note: 1")
        expect(marks).to_have_count(2)
        self.press("s", "upper left corner")
        page.mouse.click(*self.on_paper(0.62, 0.15))
        self.choose("Lists", "Numbered notes here")
        expect(self.piece("Schedule: Notes")).to_be_visible()
        self.saved()
        page.keyboard.press("Escape")
        file = text(self.plotted())
        self.assertIn("Larch boards, 24 mm", file)
        self.assertNotIn("Gravel strip", file)
        # Renumbered in the list, it is renumbered on the drawing.
        marks.first.click()
        page.keyboard.press("n")
        page.get_by_role("button", name="List…").click()
        number = page.get_by_label("Number of note 1")
        number.fill("A7")
        number.press("Enter")
        page.get_by_role("dialog").get_by_role("button", name="Done").click()
        self.put_away()
        expect(self.piece("Numbered note: A7")).to_have_count(2)
        page.keyboard.press("Control+z")
        expect(marks).to_have_count(2)

    def test_shapes_are_drawn_given_corners_changed_and_their_look_given_to_others(self) -> None:
        page = self.page
        self.place_plan()
        self.press("f", "where the line begins")
        self.choose("Form", "Rectangle")
        self.choose("Fill", "Sand")
        page.mouse.click(*self.on_paper(0.64, 0.2))
        self.expect_words("opposite corner")
        page.mouse.click(*self.on_paper(0.74, 0.3))
        self.expect_words("Click a corner")
        self.choose("Form", "Line")
        self.choose("Fill", "No fill")
        for x, y in ((0.64, 0.5), (0.7, 0.5), (0.7, 0.6)):
            page.mouse.click(*self.on_paper(x, y))
        page.keyboard.press("Enter")
        expect(self.piece("Shape")).to_have_count(2)
        self.put_away()
        self.saved()
        line = self.spec("shape")
        self.assertEqual((line["form"], len(line["points"]), line["closed"]), ("line", 3, False))
        # A corner is dragged, another is added, and one is taken away.
        page.mouse.click(*self.on_paper(0.67, 0.5))
        self.piece("Shape").last.click()
        self.drag(page.get_by_role("button", name="Point 3", exact=True), 40, 30)
        self.eventually(lambda: self.spec("shape")["points"][2] != line["points"][2])
        self.drag(page.get_by_role("button", name="Add a point after point 1"), 0, -25)
        self.eventually(lambda: len(self.spec("shape")["points"]) == 4)
        page.get_by_role("button", name="Point 2", exact=True).click(modifiers=["Shift"])
        self.eventually(lambda: len(self.spec("shape")["points"]) == 3)
        # The look of the rectangle is given to the line, once that is closed.
        page.get_by_role("button", name="Close", exact=True).click()
        self.piece("Shape").first.click()
        page.get_by_role("button", name="Copy style").click()
        self.piece("Shape").last.click()
        page.get_by_role("button", name="Apply style").click()
        self.eventually(lambda: self.spec("shape")["fill"] == "#e8e4da")
        # Offset, it stands beside the one that it was made from.
        self.more("Offset…")
        page.get_by_label(re.compile("How far beside")).fill("4")
        page.get_by_role("dialog").get_by_role("button", name="Offset").click()
        expect(self.piece("Shape")).to_have_count(3)
        page.keyboard.press("Control+z")
        expect(self.piece("Shape")).to_have_count(2)

    def test_an_area_and_an_angle_are_measured_and_a_chain_runs_along_a_line(self) -> None:
        page = self.page
        self.place_plan()
        self.press("m", "corner of the angle")
        self.choose("Measures", "An area")
        for corner in ((0, 0), (12_000, 0), (12_000, 7000), (0, 7000), (0, 0)):
            self.click(*corner)
        expect(self.piece("Measure: 84.0 m²")).to_be_visible()
        self.choose("Measures", "An angle")
        for corner in ((0, 0), (12_000, 0), (0, 7000)):
            self.click(*corner)
        self.expect_words("where the figure stands")
        self.click(1500, 1500)
        expect(self.piece("Measure: 90°")).to_be_visible()
        self.press("d", "first point")
        self.choose("Measures", "All along a line")
        self.expect_words("line across the plan begins")
        self.click(-800, 5000)
        self.expect_words("where the line ends")
        self.click(12_800, 5000)
        chain = self.piece(re.compile("^Dimension: "))
        expect(chain).to_be_visible()
        self.put_away()
        self.assertGreater(len(self.spec("dimension")["points"]), 3)
        # A figure is dragged to where it reads better, and goes back.
        chain.click(position={"x": 4, "y": 4})
        self.drag(page.get_by_role("button", name="Figure 1"), 12, -14)
        self.eventually(lambda: any(any(shift) for shift in self.spec("dimension")["shifts"]))
        page.get_by_role("button", name="Figures back").click()
        self.eventually(lambda: self.spec("dimension")["shifts"] == [])
        self.assertIn("84.0 m²", text(self.plotted_from_sheet()))

    def test_lengths_are_measured_from_one_point_and_levels_stand_beside_an_elevation(self) -> None:
        page = self.page
        self.place_plan()
        self.press("d", "first point")
        self.choose("Lengths", "From the first point")
        self.click(0, 0)
        self.click(12_000, 0)
        self.click(6000, -1500)
        self.expect_words("further points")
        expect(self.piece("Dimension: 12000")).to_be_visible()
        self.click(4800, 0)
        expect(self.piece(re.compile(r"^Dimension: 4\d\d\d 12000$"))).to_be_visible()
        # The next piece can be attached to what this one is attached to.
        page.keyboard.press("Enter")
        page.mouse.move(*self.at(0, 0))
        expect(page.locator("[data-snap]")).to_be_attached()
        self.put_away()

        self.place_by_key("South elevation")
        expect(self.viewport("South elevation")).to_be_focused()
        self.choose_scale("1:200")
        levels = self.piece(re.compile("^Spot level: "))
        self.set_levels("On the left")
        expect(levels.first).to_be_visible()
        count = levels.count()
        self.assertGreater(count, 3)
        # Done again they are the same ones, and each time is one step to take back.
        self.viewport("South elevation").click()
        self.set_levels("On the left")
        expect(levels).to_have_count(count)
        page.get_by_role("button", name="Undo").click()
        page.get_by_role("button", name="Undo").click()
        expect(levels).to_have_count(0)

    def set_levels(self, side: str) -> None:
        self.more("Set levels…")
        self.choose("Side", side)
        with self.page.expect_response("**/api/annotations/levels/"):
            self.page.get_by_role("button", name="Set levels").click()
        expect(self.page.get_by_title("Undo: set levels")).to_be_attached()
        self.saved()

    def test_a_line_is_trimmed_at_another(self) -> None:
        page = self.page
        self.press("f", "where the line begins")
        for (ax, ay), (bx, by) in (((0.3, 0.4), (0.6, 0.4)), ((0.45, 0.3), (0.45, 0.5))):
            page.mouse.click(*self.on_paper(ax, ay))
            self.expect_words("Click")
            page.mouse.click(*self.on_paper(bx, by))
            page.keyboard.press("Enter")
            self.saved()
        self.put_away()
        shapes = self.piece("Shape")
        expect(shapes).to_have_count(2)
        whole = Annotation.objects.order_by("position").first().spec["points"]
        shapes.first.click(position={"x": 6, "y": 3})
        shapes.last.click(position={"x": 3, "y": 6}, modifiers=["Shift"])
        self.more("Trim at the others")
        self.expect_words("part that is to go")
        page.mouse.click(*self.on_paper(0.55, 0.4))

        def line() -> Any:
            return Annotation.objects.order_by("position").first().spec["points"]

        self.eventually(lambda: line() != whole)
        middle = (whole[0]["at"][0] + whole[1]["at"][0]) / 2
        self.assertEqual(line()[0], whole[0])
        self.assertAlmostEqual(line()[1]["at"][0], middle, delta=1.5)
        page.keyboard.press("Control+z")
        self.eventually(lambda: line() == whole)

    def plotted_from_sheet(self) -> bytes:
        self.page.keyboard.press("Escape")
        return self.plotted()

    def test_symbols_are_chosen_from_the_library_placed_and_counted(self) -> None:
        page = self.page
        self.place_plan()
        self.press("y", "where it is to stand")
        page.get_by_role("button", name="Library…").click()
        page.get_by_role("option", name="Socket outlet", exact=True).click()
        page.get_by_role("button", name="Use this one").click()
        for u in (2000, 5000, 8000):
            self.click(u, 5200)
        expect(self.piece("Symbol: Socket outlet")).to_have_count(3)
        self.put_away()
        self.piece("Symbol: Socket outlet").first.click()
        self.fill("Turned (°)", "90")
        self.eventually(
            lambda: 90.0 in [p.spec["turn"] for p in Annotation.objects.filter(spec__kind="symbol")]
        )
        self.press("s", "upper left corner")
        page.mouse.click(*self.on_paper(0.64, 0.15))
        self.choose("Lists", "Symbols of the set")
        self.saved()
        file = text(self.plotted_from_sheet())
        self.assertIn("Socket outlet", file)

    def test_a_table_is_typed_taken_from_a_file_and_says_when_that_is_newer(self) -> None:
        page = self.page
        self.press("b", "upper left corner")
        page.mouse.click(*self.on_paper(0.4, 0.3))
        page.get_by_role("button", name="Cells…").click()
        for (row, column), words in {(2, 1): "Hooks", (2, 2): "12", (3, 2): "=sum"}.items():
            page.get_by_label(f"Row {row}, column {column}").fill(words)
        page.get_by_role("dialog").get_by_role("button", name="Save").click()
        self.fill("Heading", "Fittings")
        expect(self.piece("Table: Fittings")).to_be_visible()
        for content, wanted in ((b"Door,Colour\nD1,green\n", "green"), (b"Door,Colour\nD1,blue\n", "blue")):
            page.get_by_label("File of the table").set_input_files(
                {"name": "doors.csv", "mimeType": "text/csv", "buffer": content}
            )
            self.eventually(lambda wanted=wanted: wanted in str(self.spec("table")["cells"]))
        # Somebody brings the file in elsewhere: the table says so, and takes it.
        page.keyboard.press("Control+z")
        expect(self.piece("Table: Fittings, changed")).to_be_visible()
        page.get_by_role("button", name="Accept").click()
        self.eventually(lambda: "blue" in str(self.spec("table")["cells"]))
        expect(self.piece("Table: Fittings, changed")).to_have_count(0)

    def test_notes_are_grouped_pasted_on_three_sheets_and_reworded_over_the_whole_set(self) -> None:
        page = self.page
        self.add_sheets("Second", "Third", "Fourth")
        for y in (0.25, 0.4):
            page.keyboard.press("t")
            page.mouse.click(*self.on_paper(0.4, y))
            expect(page.get_by_role("textbox", name="Words of the note")).to_be_focused()
            page.keyboard.type("Oak, oiled")
            page.keyboard.press("Escape")
            self.saved()
        page.mouse.move(*self.on_paper(0.3, 0.15))
        page.mouse.down()
        page.mouse.move(*self.on_paper(0.5, 0.4))
        page.mouse.move(*self.on_paper(0.62, 0.55))
        page.mouse.up()
        expect(page.get_by_text("2 pieces of annotation")).to_be_visible()
        page.keyboard.press("Control+g")
        self.saved()
        self.assertEqual(len({p.group for p in Annotation.objects.all()}), 1)
        page.keyboard.press("Escape")
        self.piece("Note: Oak, oiled").first.click()
        expect(page.get_by_text("2 pieces of annotation")).to_be_visible()
        page.get_by_role("button", name="Copy to sheets…").click()
        for number in ("A-01", "A-03", "A-04"):
            page.get_by_role("checkbox", name=re.compile(number)).check()
        page.get_by_role("dialog").get_by_role("button", name=re.compile("Copy|Place")).click()
        self.saved()
        self.assertEqual(Annotation.objects.count(), 8)
        places = {tuple(p.spec["at"]["at"]) for p in Annotation.objects.all()}
        self.assertEqual((len(places), len({p.sheet_id for p in Annotation.objects.all()})), (2, 4))
        page.keyboard.press("Control+f")
        page.get_by_label("Find", exact=True).fill("oak")
        expect(page.get_by_text("In 8 pieces")).to_be_visible()
        page.get_by_label("Replace by").fill("Larch")
        page.get_by_role("button", name="Replace all").click()
        expect(page.get_by_text("Replaced in 8 places")).to_be_visible()
        page.get_by_role("dialog").get_by_role("button", name="Close").click()
        self.saved()
        self.assertEqual({p.spec["text"] for p in Annotation.objects.all()}, {"Larch, oiled"})
        page.reload()
        expect(self.piece("Note: Larch, oiled").first).to_be_visible()
        page.keyboard.press("Control+z")
        self.eventually(lambda: {p.spec["text"] for p in Annotation.objects.all()} == {"Oak, oiled"})

    def test_a_surveyors_drawing_is_checked_placed_measured_and_brought_in_anew(self) -> None:
        page = self.page
        self.open("views")
        self.upload(survey(), "survey.dxf")
        expect(page.get_by_role("img", name="Drawing of survey")).to_be_visible()
        view = View.objects.get(name="survey")
        self.assertEqual(view.spec["mm"], 1000.0)
        # Two points that are known to be 30 m apart, which the file has as 15 m.
        page.get_by_role("button", name="Pick two points").click()
        self.eventually(lambda: View.objects.get(pk=view.pk).linework is not None)
        page.reload()
        page.get_by_role("button", name="Pick two points").click()
        box = page.get_by_role("img", name="Drawing of survey").bounding_box()
        u0, v0, u1, v1 = View.objects.get(pk=view.pk).linework.extents
        scale = min((box["width"] - 72) / (u1 - u0), (box["height"] - 72) / (v1 - v0))
        middle = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        for u in (u0, u1):
            page.mouse.click(middle[0] + (u - (u0 + u1) / 2) * scale, middle[1] + (v1 - v0) / 2 * scale)
        expect(page.get_by_text("They are 30000.0 mm apart here.")).to_be_visible()
        self.fill("Truly (mm)", "60000")
        self.eventually(lambda: View.objects.get(pk=view.pk).spec["mm"] == 2000.0)
        page.keyboard.press("Control+z")
        self.eventually(lambda: View.objects.get(pk=view.pk).spec["mm"] == 1000.0)
        page.get_by_role("button", name="Everything").click()
        self.tick(page.get_by_role("checkbox", name=re.compile("Hedges")), on=False)
        page.keyboard.press("Escape")
        self.eventually(lambda: View.objects.get(pk=view.pk).spec["shown"]["without_layers"] == ["Hedges"])

        self.open("sheets")
        self.place_by_key("survey")
        self.choose_scale("1:200")
        page.keyboard.press("Escape")
        self.frame = self.viewport("survey").bounding_box(), self.row("survey")
        page.keyboard.press("d")
        self.click(0, 0)
        self.expect_words("second point")
        self.click(30_000, 0)
        self.expect_words("dimension line lies")
        self.click(15_000, -3000)
        expect(self.piece("Dimension: 30000")).to_be_visible()
        self.put_away()
        self.saved()
        self.open(f"views/{view.pk}")
        self.upload(survey(32.5), "survey, second.dxf")
        self.eventually(lambda: View.objects.get(pk=view.pk).spec["name"] == "survey, second.dxf")
        self.open("sheets")
        expect(self.piece("Dimension: 32500, changed")).to_be_visible()

    def upload(self, content: bytes, name: str) -> None:
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / name
            path.write_bytes(content)
            self.page.get_by_label("File of a drawing from others").set_input_files(path)
            self.eventually(lambda: View.objects.filter(spec__name=name).exists())

    def test_a_drawing_is_lined_up_under_a_plan_by_two_points(self) -> None:
        page = self.page
        self.place_plan()
        pixels = self.frame[0]["width"] / self.frame[1].width
        self.viewport(PLAN).click(position={"x": 8, "y": 8})
        page.keyboard.press("Control+d")
        self.saved()
        first, second = Viewport.objects.order_by("position")
        self.assertEqual(Sheet.objects.count(), 1)
        self.assertNotEqual((first.x, first.y), (second.x, second.y))
        self.more("Line up by two points")

        def at(viewport: Viewport, u: float, v: float) -> tuple[float, float]:
            x, y = self.at(u, v)
            return x + (viewport.x - first.x) * pixels, y - (viewport.y - first.y) * pixels

        for k, (u, v) in enumerate(((0.0, 0.0), (12_000.0, 7000.0))):
            page.mouse.click(*at(second, u, v))
            self.expect_words("in the other drawing")
            page.mouse.click(*at(first, u, v))
            if k == 0:
                self.expect_words("second point of this drawing")
        self.eventually(lambda: self.lies_over(first, Viewport.objects.get(pk=second.pk)))

    def lies_over(self, first: Viewport, second: Viewport) -> bool:
        ratio = float(first.scale.ratio)
        du = (second.centre_u - first.centre_u) * ratio - (second.x - first.x)
        dv = (second.centre_v - first.centre_v) * ratio - (second.y - first.y)
        return abs(du) < 0.2 and abs(dv) < 0.2 and second.turn == 0
