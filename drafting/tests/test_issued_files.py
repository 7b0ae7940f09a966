"""What a recipient gets: named as they wish, without what they do not want, and the same to the byte for
ever."""

import io
from dataclasses import replace
from unittest import TestCase

import openpyxl

from drafting.annotation.anchors import Anchor
from drafting.annotation.notes import Note
from drafting.annotation.pieces import PlacedPiece
from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.issuing.file_names import check_pattern, named, names_for
from drafting.issuing.frozen import fingerprint, freeze, frozen_bytes, thaw
from drafting.issuing.package import package
from drafting.issuing.recipients import Recipient
from drafting.issuing.register import (
    IssueRegister,
    RegisterIssue,
    RegisterSheet,
    register_pages,
    register_xlsx,
)
from drafting.issuing.transmittal import SentFile, SentSheet, Transmittal, transmittal_pages
from drafting.plotting.settings import PlotSettings
from drafting.progress import silent
from drafting.render.backend import Sources
from drafting.render.compose import compose
from drafting.sheets.fields import Revision
from drafting.sheets.paper import Paper
from drafting.sheets.scale import Scale
from drafting.sheets.sheet import DrawingList, Sheet
from drafting.sheets.viewport import Viewport
from drafting.styles.pen_table import CutStyle, PenTableSpec
from drafting.tests.outputs import write_pdf
from drafting.tests.pdf_reading import page_sizes, strokes, text
from drafting.tests.scenes import box, drawn

CUT = drawn([box((0, 0, 0), (6000, 800, 2600)), box((7000, 0, 0), (9000, 800, 2600))], "plan:0")
PENS = PenTableSpec(cuts=(CutStyle(fill="#336699"),))
PLAN = Viewport("plan", "cut", Box(40, 120, 200, 80), Scale.parse("1:50"), (4500, 400), "1", "Plan")
SHEET = Sheet(
    Paper.of("A3"),
    {"number": "A-01", "title": "Plan", "project": "Barn", "purpose": "Comment"},
    (PLAN,),
    revisions=(Revision("P01", "2026-05-04", "First"),),
    plot_date="2026-05-04",
)
NOTE = Note(Anchor((4500.0, 400.0)), "Oak boards")
WITH_NOTE = PlacedPiece("n", NOTE, NOTE.locate(lambda element: None), PLAN)
SOURCES = Sources(lambda key: CUT)
ANNA = Recipient("Anna")


def frozen(sheet=SHEET, pieces=(WITH_NOTE,)):
    return freeze(sheet, compose(sheet, PENS, pieces=pieces))


def sent(recipient, sheets=None):
    sheets = sheets or [frozen()]
    settings = [PlotSettings()] * len(sheets)
    return package(sheets, settings, recipient, SOURCES, ("Second issue", "Office"), silent)


class FileNameTests(TestCase):
    def test_a_pattern_is_filled_and_leaves_no_gaps(self):
        values = {"number": "A-01", "title": "Plan: ground", "revision": "P02"}
        self.assertEqual(named("{number}_{revision}_{title}", values), "A-01_P02_Plan_ ground")
        self.assertEqual(named("{number}_{status}_{title}", values), "A-01_Plan_ ground")

    def test_paths_unknown_words_and_patterns_that_name_nothing_are_refused(self):
        for pattern, words in (
            ("../{number}", "path"), ("a/{number}", "path"), ("C:{number}", "path"), (".{number}", "path"),
            ("{sheet}", "nothing that"), ("{number", "brace"), ("drawing", "alike"), ("", "alike"),
        ):  # fmt: skip
            with self.subTest(pattern), self.assertRaisesRegex(SheetError, words):
                check_pattern(pattern)

    def test_two_equal_names_are_refused_and_both_sheets_named(self):
        sheets = [{"number": "A-01", "title": "Plan"}, {"number": "A-02", "title": "PLAN"}]
        with self.assertRaisesRegex(SheetError, "A-01 and A-02"):
            names_for("{title}", sheets)
        self.assertEqual(names_for("{number} {title}", sheets), ["A-01 Plan", "A-02 PLAN"])


class FrozenTests(TestCase):
    def test_a_frozen_sheet_comes_back_as_it_was(self):
        made = frozen()
        self.assertEqual(thaw(frozen_bytes(made)), made)
        self.assertEqual(frozen_bytes(thaw(frozen_bytes(made))), frozen_bytes(made))
        self.assertEqual((made.number, made.revision, made.linework_keys), ("A-01", "P01", {"cut"}))

    def test_what_is_plotted_of_a_record_is_the_same_to_the_byte(self):
        recipient = replace(ANNA, forms=("pdf", "dxf", "svg", "png"))
        first, again = sent(recipient), sent(recipient, [thaw(frozen_bytes(frozen()))])
        self.assertEqual([(f.name, f.data) for f in first], [(f.name, f.data) for f in again])

    def test_a_damaged_record_says_so(self):
        with self.assertRaisesRegex(SheetError, "damaged"):
            thaw(frozen_bytes(frozen())[:-20])

    def test_a_fingerprint_changes_with_the_drawing_and_not_with_revision_or_day(self):
        def of(sheet, pieces=(WITH_NOTE,)):
            return fingerprint(sheet, compose(sheet, PENS, pieces=pieces))

        listed = DrawingList((200.0, 100.0), (("A-01", "Plan", "A3", "1:50", "P01"),))
        raised = DrawingList((200.0, 100.0), (("A-01", "Plan", "A3", "1:50", "P02"),))
        other_day = replace(SHEET, revisions=(*SHEET.revisions, Revision("P02")), plot_date="2026-06-01")
        self.assertEqual(of(other_day), of(SHEET))
        self.assertEqual(of(replace(SHEET, drawing_list=listed)), of(replace(SHEET, drawing_list=raised)))
        moved = replace(PLAN, box=Box(41, 120, 200, 80))
        for changed in (
            of(replace(SHEET, viewports=(moved,))),
            of(replace(SHEET, fields={**SHEET.fields, "title": "Plans"})),
            of(SHEET, ()),
        ):
            self.assertNotEqual(changed, of(SHEET))


class PackageTests(TestCase):
    def test_each_sheet_is_a_file_or_all_are_one(self):
        sheets = [frozen(), frozen(replace(SHEET, fields={**SHEET.fields, "number": "A-02"}))]
        one = sent(replace(ANNA, forms=("pdf", "svg")), sheets)
        self.assertEqual(
            [f.name for f in one], ["Second issue.pdf", "A-01_P01_Plan.svg", "A-02_P01_Plan.svg"]
        )
        self.assertEqual(len(page_sizes(one[0].data)), 2)
        each = sent(replace(ANNA, one_file=False), sheets)
        self.assertEqual([f.name for f in each], ["A-01_P01_Plan.pdf", "A-02_P01_Plan.pdf"])

    def test_annotation_is_left_out_where_it_is_not_wanted(self):
        self.assertIn("Oak boards", text(sent(ANNA)[0].data))
        self.assertNotIn("Oak boards", text(sent(replace(ANNA, annotation=False))[0].data))

    def test_fills_and_layers_are_left_out_where_they_are_not_wanted(self):
        def drawn_in(recipient):
            data = sent(recipient)[0].data
            return sum(abs(s.width - 0.5) < 1e-3 or abs(s.width - 0.7) < 1e-3 for s in strokes(data)), data

        (layer,) = set(CUT.layers)
        with_all, with_none = drawn_in(ANNA)[0], drawn_in(replace(ANNA, layers_off=(layer,)))[0]
        self.assertGreater(with_all, with_none)
        svg = replace(ANNA, forms=("svg",))
        self.assertIn(b"#336699", sent(svg)[0].data)
        self.assertNotIn(b"#336699", sent(replace(svg, fills=False))[0].data)
        self.assertNotIn(b"#336699", sent(replace(svg, layers_off=(layer,)))[0].data)

    def test_sheets_are_reduced_and_in_black_for_those_who_wish_it(self):
        (file,) = sent(replace(ANNA, onto="A4", colours="black", forms=("svg",)))
        self.assertIn(b'width="297mm"', file.data)
        self.assertNotIn(b"#336699", file.data)

    def test_a_recipient_without_formats_or_address_is_refused_by_name(self):
        for given, words in (
            ({"forms": ()}, "Anna is sent nothing"),
            ({"delivery": "mail"}, "Anna has no mail address"),
            ({"file_names": "plot"}, "alike"),
            ({"onto": "A17"}, "A17"),
        ):
            with self.subTest(given), self.assertRaisesRegex(Exception, words):
                replace(ANNA, **given)

    def test_what_cannot_be_plotted_names_the_recipient(self):
        same = [frozen(), frozen(replace(SHEET, fields={**SHEET.fields, "number": "A-02"}))]
        with self.assertRaisesRegex(SheetError, r"^Anna: .*A-01 and A-02"):
            sent(replace(ANNA, file_names="{title}"), same)


class PaperTests(TestCase):
    def pdf(self, pages):
        return write_pdf(pages, lambda key: CUT)

    def test_a_transmittal_says_what_went_to_whom_and_with_which_checksum(self):
        sheets = tuple(SentSheet(f"A-{k:03}", "Plan " * 12, "P01", "A1", "1:50") for k in range(300))
        files = (SentFile("A-001.pdf", 48_300, "ab" * 32),)
        about = Transmittal(
            "Second issue", "Tender", "2026-05-04", "Barn", "2608", "Reed and Rope", "Anna Voss", "By mail",
            "ines", sheets, files, "One thing was let stand.",
        )  # fmt: skip
        data = self.pdf(transmittal_pages(about))
        found = " ".join(" ".join(text(data, k) for k in range(len(page_sizes(data)))).split())
        for words in (
            "Second issue",
            "Anna Voss",
            "Tender",
            "A-000",
            "A-299",
            "ab" * 32,
            "47 KB",
            "let stand",
        ):
            self.assertIn(words, found)
        # Titles run on to a second line and are not cut short, and rows go on over pages.
        self.assertNotIn("…", found)
        self.assertGreater(len(page_sizes(data)), 5)

    def test_the_register_has_every_sheet_by_every_issue(self):
        issues = tuple(RegisterIssue(f"Issue {k}", f"2026-05-{k:02}", "Tender") for k in range(1, 21))
        rows = (
            RegisterSheet("A-01", "Plan", "P20", tuple(f"P{k:02}" for k in range(1, 21))),
            RegisterSheet("A-02", "=Section", "", ("A", *([""] * 19))),
        )
        register = IssueRegister("2608 Barn", "2026-06-01", issues, rows)
        found = text(self.pdf(register_pages(register)))
        for words in ("2026-05-01 Issue 1", "2026-05-20 Issue 20", "P07", "P20", "Section"):
            self.assertIn(words, found)
        page = openpyxl.load_workbook(io.BytesIO(register_xlsx(register))).active
        self.assertEqual([c.value for c in page[1]][:4], ["Number", "Title", "Now", "Issue 1"])
        self.assertEqual((page["D4"].value, page["W4"].value, page["B5"].value), ("P01", "P20", "=Section"))
        self.assertEqual(page["B5"].data_type, "s")
