"""Issuing: revisions, recipients, the record that stays, and what has changed since."""

from __future__ import annotations

import io
import re
import tempfile
from pathlib import Path
from typing import Any

import ezdxf
import openpyxl
from django.core.files.uploadedfile import SimpleUploadedFile
from playwright.sync_api import expect

from demo.building import write_observatory
from drafting.issuing.recipients import Recipient as CoreRecipient
from drafting.schema import dump
from drafting.tests.pdf_reading import layers, page_sizes, text
from e2e.office import FIRST, PreparedOffice
from server.annotations.models import Annotation
from server.buildings.services import import_model
from server.issues.issuing import order_issue
from server.issues.models import Issue, Recipient
from server.sheets.models import Sheet, Viewport
from server.sheets.viewports import viewport_service
from server.views.drawings import order_all_out_of_date
from server.views.models import View

VIEWS = ("Plan, Ground floor", "South elevation", "Roof plan")


class IssuingTests(PreparedOffice):
    def furnish(self) -> None:
        super().furnish()
        for k, name in enumerate(VIEWS):
            sheet = Sheet.objects.create(
                project=self.project, number=f"A-0{k + 1}", title=name, position=k, paper="A2", creator="I",
                drawn_on="2026-05-04",
            )  # fmt: skip
            view = View.objects.get(project=self.project, name=name)
            viewport_service.create({"sheet": sheet, "view": view})

    def saved(self) -> None:
        self.page.wait_for_function("() => !sessionStorage.getItem('dunefold.unsaved')")

    def fill(self, label: str, value: str) -> None:
        field = self.page.get_by_role("textbox", name=label, exact=True)
        field.fill(value)
        field.press("Enter")

    def add_recipient(self, name: str) -> Any:
        page = self.page
        page.get_by_role("textbox", name="Name of a recipient").fill(name)
        page.get_by_role("button", name="Add recipient").click()
        fields = page.get_by_role("complementary", name=f"Recipient {name}")
        expect(fields).to_be_visible()
        return fields

    def downloaded(self, link: Any) -> bytes:
        with self.page.expect_download() as download:
            link.click()
        return Path(download.value.path()).read_bytes()

    def issue_before(self) -> None:
        """The set as it was issued, and the building's second version after that."""
        Sheet.objects.update(revisions=[{"revision": "P01"}])
        anna = Recipient.objects.create(project=self.project, spec=dump(CoreRecipient("Anna")))
        given = {"name": "First issue", "purpose": "Comment", "date": "2026-05-04", "reason": "A first look"}
        user = self.project.owner
        order_issue(self.project, user, given, list(Sheet.objects.all()), [anna])
        self.all_done()
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "observatory-b.ifc"
            write_observatory(str(file), revised=True)
            import_model(self.project, SimpleUploadedFile(file.name, file.read_bytes()), user)
        self.all_done()
        order_all_out_of_date(self.project)
        self.all_done()

    def test_revisions_are_raised_and_two_recipients_get_what_they_need(self):
        page = self.page
        self.open("issue/send")
        page.get_by_role("button", name="Raise revisions…").click()
        dialog = page.get_by_role("dialog")
        expect(dialog.get_by_text("not issued yet")).to_have_count(3)
        self.fill("Description", "For comment")
        self.fill("Initials", "I. M.")
        dialog.get_by_role("button", name="Raise 3 sheets").click()
        expect(dialog).to_have_count(0)
        self.saved()
        raised = [s.revisions[-1] for s in Sheet.objects.all()]
        self.assertEqual([(r["revision"], r["initials"]) for r in raised], [("P01", "I. M.")] * 3)
        # In one step, which can be undone and redone.
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_text("no revision yet")).to_have_count(3)
        page.get_by_role("button", name="Redo").click()
        expect(page.get_by_text("revision P01")).to_have_count(3)

        anna = self.add_recipient("Anna Voss")
        anna.get_by_role("button", name="Roof", exact=True).click()
        anna.get_by_role("button", name="Annotation").click()
        bo = self.add_recipient("Bo Lind")
        bo.get_by_role("button", name="DXF").click()
        bo.get_by_role("button", name="PDF").click()
        bo.get_by_role("button", name="All sheets in one file").click()
        names = bo.get_by_role("textbox", name="Names of files")
        names.fill("../{number}")
        names.press("Enter")
        expect(page.get_by_text("would be a path")).to_be_visible()
        names.fill("{number} {revision}")
        names.press("Enter")
        self.saved()

        ledge = page.get_by_role("region", name="Ledge: issue")
        name = ledge.get_by_role("textbox", name="Name")
        name.fill("First issue")
        name.press("Enter")
        reason = ledge.get_by_role("textbox", name="Why it is issued all the same")
        expect(ledge.get_by_role("status")).not_to_contain_text("Being checked", timeout=FIRST)
        if reason.count():
            reason.fill("A first look")
            reason.press("Enter")
        ledge.get_by_role("button", name="Issue 3 sheets to 2 recipients").click()
        page.get_by_role("link", name="Show it in the register").click(timeout=FIRST)

        table = page.get_by_role("table", name="Drawing register")
        expect(table.get_by_role("cell", name="P01 Comment")).to_have_count(3)
        record = page.get_by_role("complementary", name="Issue First issue")
        pdf = self.downloaded(record.get_by_role("link", name="First issue.pdf"))
        self.assertEqual(len(page_sizes(pdf)), 3)
        self.assertIn("Walls", " ".join(layers(pdf)))
        self.assertNotIn("Roof", " ".join(layers(pdf)))
        dxf = self.downloaded(record.get_by_role("link", name="A-02 P01.dxf"))
        read = ezdxf.read(io.StringIO(dxf.decode()))
        self.assertFalse(read.audit().has_errors)
        self.assertTrue(any(layer.dxf.name.startswith("Roof") for layer in read.layers))
        said = text(self.downloaded(record.get_by_role("link", name="Transmittal").first))
        for words in ("Anna Voss", "First issue", "A-03", "P01"):
            self.assertIn(words, said)
        book = openpyxl.load_workbook(
            io.BytesIO(self.downloaded(page.get_by_role("link", name="Download XLSX")))
        )
        self.assertEqual(book.active["D4"].value, "P01")

        record.get_by_role("button", name="Make again").first.click()
        expect(record.get_by_text("the same to the byte")).to_be_visible(timeout=FIRST)
        # There is nothing on the screen to alter it with; and who asks the server is refused.
        refused = page.evaluate(
            """async (id) => {
              const token = /csrftoken=([^;]+)/.exec(document.cookie)[1];
              const headers = {"X-CSRFToken": token, "Content-Type": "application/json"};
              const answers = [];
              for (const [method, body] of [["PATCH", '{"name": "Other"}'], ["DELETE", undefined]])
                answers.push(await (await fetch(`/api/issues/${id}/`, {method, headers, body})).json());
              return answers.map((a) => a.detail);
            }""",
            str(Issue.objects.get().pk),
        )
        self.assertTrue(all("kept as it was" in words for words in refused), refused)

    def test_what_changed_since_the_issue_is_compared_and_clouded(self):
        page = self.page
        self.issue_before()
        self.open("issue/register")
        page.get_by_role("link", name="Compare A-01 with now").click()
        found = page.get_by_role("complementary", name="Differences")
        expect(found.get_by_role("status")).to_contain_text("differences", timeout=FIRST)
        expect(page.get_by_role("img", name="A-01 now over A-01 P01 of 2026-05-04")).to_be_visible()
        drawn = found.get_by_role("button", name="what is drawn differs")
        drawn.first.click()
        expect(page.locator("[data-difference]")).to_be_visible()
        page.get_by_role("button", name="Side by side").click()
        expect(page.get_by_role("img", name="A-01 now", exact=True)).to_be_visible()
        page.get_by_role("button", name="Swept across").click()
        slider = page.get_by_role("slider", name="Line between the two states")
        slider.press("ArrowRight")
        expect(slider).to_have_attribute("aria-valuenow", "52")
        pdf = self.downloaded(page.get_by_role("link", name="Download PDF"))
        self.assertIn("only in A-01 now", text(pdf))

        page.get_by_role("button", name="Draw clouds on A-01").click()
        self.saved()
        count = Annotation.objects.count()
        self.assertGreater(count, drawn.count() - 1)
        sheet = Sheet.objects.get(number="A-01")
        self.open(f"sheets/{sheet.pk}")
        clouds = page.get_by_role("button", name=re.compile("^Cloud: P01"))
        expect(clouds).to_have_count(count)
        clouds.first.click()
        page.get_by_role("button", name="Keep it").click()
        self.saved()
        # With the next revision those that are not kept are gone; undo brings them back.
        self.open("issue/send")
        page.get_by_role("button", name="Raise revisions…").click()
        dialog = page.get_by_role("dialog")
        expect(dialog.get_by_text("being compared")).to_have_count(0, timeout=FIRST)
        expect(dialog.get_by_text("differs from P01").first).to_be_visible()
        dialog.get_by_role("button", name=re.compile("^Raise ")).last.click()
        expect(dialog).to_have_count(0)
        self.saved()
        self.assertEqual(Annotation.objects.count(), 1)
        self.assertEqual(Sheet.objects.get(number="A-01").revision, "P02")
        page.get_by_role("button", name="Undo").click()
        self.saved()
        self.eventually(lambda: Annotation.objects.count() == count)

    def test_a_cloud_is_drawn_by_hand_and_a_sheet_goes_back_to_what_it_was(self):
        page = self.page
        sheet = Sheet.objects.get(number="A-01")
        self.open(f"sheets/{sheet.pk}")
        board = page.locator("#board")
        expect(page.get_by_role("button", name=": Plan, Ground floor,")).to_be_visible()
        self.fill("Title", "Ground floor")
        self.saved()
        board.press("c")
        box = board.bounding_box()
        for share in (0.45, 0.55):
            page.mouse.click(box["x"] + box["width"] * share, box["y"] + box["height"] * share)
        expect(page.get_by_role("region", name="Ledge: cloud")).to_be_visible()
        self.saved()
        page.keyboard.press("Escape")
        page.get_by_role("button", name="More…").click()
        page.get_by_role("menuitem", name="History…").click()
        dialog = page.get_by_role("dialog")
        expect(dialog.get_by_role("listitem")).to_have_count(2)
        expect(dialog.get_by_text("Add a cloud")).to_be_visible()
        dialog.get_by_role("button", name=re.compile("Go back to .*: .*[Tt]itle")).click()
        expect(dialog.get_by_role("listitem")).to_have_count(3)
        dialog.get_by_role("button", name="Close").click()
        self.assertFalse(Annotation.objects.exists())
        self.assertEqual(Sheet.objects.get(number="A-01").title, "Ground floor")
        page.get_by_role("button", name="Undo").click()
        expect(page.locator("[data-piece]").and_(page.get_by_role("button", name="Cloud"))).to_be_visible()
        self.assertEqual(Viewport.objects.count(), len(VIEWS))
