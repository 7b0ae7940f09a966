"""A review: asked for at the drafter's screen, commented on a small touch screen by somebody without an
account, answered, withdrawn; and what comes in files."""

from __future__ import annotations

import io
import re
import tempfile
from pathlib import Path
from typing import Any

import pypdf
from PIL import Image
from playwright.sync_api import Page, expect
from pypdf.annotations import Text as Note

from drafting.tests.pdf_reading import text
from e2e.office import FIRST, PreparedOffice
from server.reviews.models import Comment, Review, Scan
from server.sheets.models import Sheet, Viewport
from server.sheets.viewports import viewport_service
from server.views.models import View

TELEPHONE = {"viewport": {"width": 390, "height": 844}, "has_touch": True, "device_scale_factor": 2}


class ReviewTests(PreparedOffice):
    def furnish(self) -> None:
        super().furnish()
        for k, name in enumerate(("Plan, Ground floor", "South elevation")):
            sheet = Sheet.objects.create(
                project=self.project, number=f"A-0{k + 1}", title=name, position=k, paper="A3", creator="I",
                drawn_on="2026-05-04",
            )  # fmt: skip
            view = View.objects.get(project=self.project, name=name)
            viewport_service.create({"sheet": sheet, "view": view})

    def page_of_reviews(self) -> Page:
        self.page.goto(f"{self.live_server_url}/projects/{self.project.pk}/issue/review")
        return self.page

    def asked(self, people: str = "Oda Brand", word: str = "") -> str:
        """Ask for a review at the screen; the address that somebody is sent."""
        page = self.page_of_reviews()
        page.get_by_role("button", name="Ask for a review…").click()
        page.get_by_role("textbox", name="People, one in each line").fill(people)
        page.get_by_role("textbox", name="What they should look at").fill("Please look at the windows.")
        page.get_by_role("textbox", name="Word to know").fill(word)
        page.get_by_role("button", name="Ask for the review").click()
        field = page.get_by_role("textbox", name=f"Link for {people}")
        expect(field).to_have_value(re.compile("/review/.{30,}"))
        address = field.input_value()
        page.get_by_role("button", name="Done").click()
        expect(page.get_by_role("complementary", name="Review 1")).to_contain_text("Open.", timeout=FIRST)
        return address

    def visitor(self, address: str, **device: Any) -> Page:
        """Somebody else's browser, at an address."""
        context = self.browser.new_context(**{**TELEPHONE, "bypass_csp": True, **device})
        context.set_default_timeout(40_000)
        self.addCleanup(context.close)
        page = context.new_page()
        page.on("pageerror", lambda error: self.problems.append(str(error)))
        page.goto(address)
        return page

    def sheet_of(self, page: Page) -> Any:
        sheet = page.get_by_role("application")
        expect(sheet.locator("img").first).to_be_visible()
        page.wait_for_function("() => [...document.images].every((i) => i.complete && i.naturalWidth)")
        return sheet

    def tap(self, page: Page, across: float, down: float) -> None:
        """Tap on the sheet, at shares of its picture's width and height."""
        box = self.sheet_of(page).locator("img").first.bounding_box()
        assert box
        whole = page.evaluate("""() => [...document.images].reduce((b, i) => {
            const r = i.getBoundingClientRect();
            return [Math.max(b[0], r.right), Math.max(b[1], r.bottom)];
        }, [0, 0])""")
        x, y = box["x"] + across * (whole[0] - box["x"]), box["y"] + down * (whole[1] - box["y"])
        page.touchscreen.tap(x, y)

    def test_somebody_without_an_account_comments_by_touch_and_is_answered(self) -> None:
        address = self.asked()
        oda = self.visitor(address)
        self.sheet_of(oda)
        self.axe(oda, "the page of a review on a telephone")
        oda.get_by_role("button", name="Point", exact=True).tap()
        self.tap(oda, 0.4, 0.4)
        self.axe(oda, "a new comment")
        oda.get_by_role("textbox", name="Comment").fill("Is this wide enough?")
        oda.get_by_role("button", name="Send", exact=True).tap()
        expect(oda.get_by_role("article", name="Comment 1")).to_contain_text("Oda Brand")
        self.axe(oda, "a comment")
        comment = Comment.objects.get()
        self.assertTrue(comment.viewport)
        # The drafter is told at once, finds it on the board, and says that it is done.
        page = self.page
        row = page.get_by_role("table", name="Comments").get_by_role("row").filter(has_text="wide enough")
        expect(row).to_be_visible(timeout=15_000)
        row.click()
        page.get_by_role("button", name="Show on the sheet").click()
        card = page.get_by_role("region", name="Comment 1")
        expect(card).to_contain_text("Is this wide enough?")
        pin = page.get_by_role("button", name="Comment 1 by Oda Brand")
        expect(pin).to_be_visible()
        card.get_by_role("textbox", name="Answer").fill("Yes: 1.20 m.")
        card.get_by_role("checkbox", name="With pictures of before and now").check()
        card.get_by_role("button", name="Mark as done").click()
        expect(card.get_by_text("Done", exact=True).first).to_be_visible()
        expect(card.get_by_role("figure")).to_have_count(2, timeout=FIRST)
        page.get_by_role("button", name="Hide comments").click()
        expect(pin).to_have_count(0)
        # Oda sees the answer, and what was changed.
        thread = oda.get_by_role("article", name="Comment 1")
        expect(thread).to_contain_text("Yes: 1.20 m.", timeout=30_000)
        expect(thread).to_contain_text("Done")
        expect(thread.get_by_role("figure")).to_have_count(2, timeout=30_000)
        # What is answered again is open again.
        oda.get_by_role("textbox", name="Answer").fill("The crates are 1.30 m.")
        oda.get_by_role("button", name="Send answer").tap()
        expect(thread).to_contain_text("Open")

    def test_a_word_is_asked_for_and_a_link_that_is_withdrawn_ends(self) -> None:
        address = self.asked(word="cormorant")
        oda = self.visitor(address)
        expect(oda.get_by_text("asks for a review")).to_be_visible()
        self.axe(oda, "the word of a review")
        oda.get_by_role("textbox", name="Word").fill("gull")
        oda.get_by_role("button", name="Look at the sheets").tap()
        expect(oda.get_by_role("alert")).to_contain_text("not the word")
        oda.get_by_role("textbox", name="Word").fill("cormorant")
        oda.get_by_role("button", name="Look at the sheets").tap()
        self.sheet_of(oda)
        page = self.page_of_reviews()
        page.get_by_role("button", name="Withdraw").click()
        expect(page.get_by_role("complementary", name="Review 1")).to_contain_text("Withdrawn")
        oda.reload()
        expect(oda.get_by_text("This review has ended")).to_be_visible()
        page.get_by_role("button", name="Open again").click()
        expect(page.get_by_role("complementary", name="Review 1")).to_contain_text("Open.")
        oda.reload()
        self.sheet_of(oda)
        nobody = self.visitor(address[:-4] + "xxxx")
        expect(nobody.get_by_text("no review behind this link")).to_be_visible()

    def test_a_comment_is_drawn_with_the_mouse_moved_about_by_keys_and_kept_over_a_reload(self) -> None:
        address = self.asked()
        oda = self.visitor(address, viewport={"width": 1280, "height": 800}, has_touch=False)
        sheet = self.sheet_of(oda)
        self.axe(oda, "the page of a review")
        box = sheet.bounding_box()
        x, y = box["x"], box["y"]
        oda.get_by_role("button", name="Cloud", exact=True).click()
        oda.mouse.move(x + 300, y + 200)
        oda.mouse.down()
        oda.mouse.move(x + 420, y + 300, steps=4)
        oda.mouse.up()
        oda.get_by_role("button", name="Arrow", exact=True).click()
        oda.mouse.move(x + 500, y + 400)
        oda.mouse.down()
        oda.mouse.move(x + 410, y + 310, steps=4)
        oda.mouse.up()
        expect(oda.get_by_text("2 marks on the sheet")).to_be_visible()
        oda.get_by_role("textbox", name="Comment").fill("Not finished yet")
        oda.reload()
        expect(oda.get_by_role("textbox", name="Comment")).to_have_value("Not finished yet")
        expect(oda.get_by_text("2 marks on the sheet")).to_be_visible()
        oda.get_by_role("textbox", name="Comment").press("Control+Enter")
        pin = oda.get_by_role("button", name="Comment 1 by Oda Brand")
        expect(pin).to_be_visible()
        before = pin.bounding_box()
        sheet.focus()
        for key in ("+", "ArrowRight"):
            oda.keyboard.press(key)
        expect.set_options(timeout=40_000)
        self.eventually_so(lambda: pin.bounding_box() != before)
        oda.keyboard.press("0")
        self.eventually_so(lambda: pin.bounding_box() == before)
        self.assertEqual([m["kind"] for m in Comment.objects.get().marks], ["cloud", "arrow"])
        # The other sheet has none of it.
        oda.get_by_role("combobox", name="Sheet").click()
        oda.get_by_role("option", name=re.compile("A-02")).click()
        expect(pin).to_have_count(0)
        expect(oda.get_by_text("Nothing was said of this sheet yet")).to_be_visible()

    def test_a_scan_is_laid_by_three_points_and_undone(self) -> None:
        page = self.page
        sheet = Sheet.objects.get(number="A-01")
        page.goto(f"{self.live_server_url}/projects/{self.project.pk}/sheets/{sheet.pk}")
        scan = io.BytesIO()
        Image.new("L", (600, 420), 235).save(scan, "PNG")
        with page.expect_file_chooser() as chooser:
            page.get_by_role("button", name="More…").last.click()
            page.get_by_role("menuitem", name="Lay a scan under it…").click()
        chooser.value.set_files({"name": "print.png", "mimeType": "image/png", "buffer": scan.getvalue()})
        scans = page.get_by_role("region", name="Scans under this sheet")
        expect(scans).to_contain_text("No frame was found on it", timeout=FIRST)
        picture = page.get_by_role("img", name="Scan print.png")
        before = Scan.objects.get().placement
        scans.get_by_role("button", name="By three points").click()
        box = picture.bounding_box()
        assert box
        for k, (across, up) in enumerate(((0.3, 0.3), (0.7, 0.35), (0.5, 0.7))):
            expect(page.get_by_text(f"({k + 1} of 3)")).to_be_visible()
            x, y = box["x"] + across * box["width"], box["y"] + up * box["height"]
            page.mouse.click(x, y)
            expect(page.get_by_text("Click where that belongs")).to_be_visible()
            page.mouse.click(x + 20, y)
        self.eventually_so(lambda: Scan.objects.get().placement != before)
        now = picture.bounding_box()
        assert now
        self.assertAlmostEqual(now["x"] - box["x"], 20, delta=1.5)
        self.assertAlmostEqual(now["width"], box["width"], delta=2)
        page.get_by_role("button", name="Undo").click()
        self.eventually_so(lambda: Scan.objects.get().placement == before)
        scans.get_by_role("button", name="Delete scan print.png").click()
        expect(scans).to_have_count(0)

    def test_a_commented_pdf_is_dropped_in_once_and_all_goes_out_as_lists(self) -> None:
        self.asked()
        page = self.page
        sheet, mm = Sheet.objects.get(number="A-01"), 72 / 25.4
        viewport = Viewport.objects.get(sheet=sheet)
        at = viewport.x + viewport.width / 2, viewport.y + viewport.height / 2
        with page.expect_download() as download:
            page.get_by_role("complementary", name="Review 1").get_by_role("link", name="Save as PDF").click()
        writer = pypdf.PdfWriter(clone_from=io.BytesIO(Path(download.value.path()).read_bytes()))
        note = Note(rect=(at[0] * mm, at[1] * mm - 20, at[0] * mm + 20, at[1] * mm), text="Said in a reader")
        writer.add_annotation(0, note)
        with tempfile.TemporaryDirectory() as folder:
            commented = Path(folder) / "commented.pdf"
            writer.write(commented)
            for words in ("1 new comment", "0 new comments, 1 known already"):
                page.get_by_label("File with comments").set_input_files(commented)
                expect(page.get_by_role("alert")).to_contain_text(words, timeout=FIRST)
            Path(folder, "x.pdf").write_bytes(b"nothing")
            page.get_by_label("File with comments").set_input_files(Path(folder, "x.pdf"))
            expect(page.get_by_role("alert")).to_contain_text("damaged, or no PDF", timeout=FIRST)
        expect(page.get_by_role("table", name="Comments")).to_contain_text("Said in a reader")
        with page.expect_download() as download:
            page.get_by_role("link", name="PDF", exact=True).click()
        self.assertIn("Said in a reader", text(Path(download.value.path()).read_bytes()))
        with page.expect_download() as download:
            page.get_by_role("link", name="BCF", exact=True).click()
        self.assertTrue(download.value.suggested_filename.endswith(".bcf"))
        self.assertEqual(Review.objects.count(), 1)
