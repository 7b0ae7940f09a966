"""Comments in a PDF: written as standard annotations, read back at their places, whoever has written them."""

import io
import math
import tempfile
from pathlib import Path
from unittest import TestCase

import pikepdf
import pypdf
from pypdf import annotations as notes

from drafting.errors import SheetError
from drafting.issuing.frozen import FrozenSheet
from drafting.render.backend import Sources
from drafting.render.backends import FORMATS
from drafting.render.display_list import DisplayList
from drafting.render.items import Path as Line
from drafting.render.items import Text
from drafting.render.page import FileInfo, whole_page
from drafting.review.comments import WrittenAnswer, WrittenComment
from drafting.review.marks import (
    AreaMark,
    ArrowMark,
    CloudMark,
    LengthMark,
    LineMark,
    PointMark,
    TextMark,
    place_of,
)
from drafting.review.pdf_reading import MAX_ANNOTATIONS, read_pdf
from drafting.review.pdf_writing import write_comments
from drafting.styles.pens import INK, Pen

MM = 72 / 25.4
WIDTH, HEIGHT = 420.0, 297.0
SOURCES = Sources({}.__getitem__)


def a_sheet(number="A-01", title="Ground floor", revision="P01"):
    """A sheet with lettering all over it, some of it in the middle of its place, some upright."""
    words = [f"{title}, room {k} of {number}" for k in range(12)]
    texts = [
        Text((30.0 + 90 * (k % 4), 40.0 + 75 * (k // 4)), word, 2.5, INK, anchor=("start", "middle")[k % 2])
        for k, word in enumerate(words)
    ]
    texts += [
        Text((400.0, 30.0), f"Revision {revision}", 3.5, INK, anchor="end"),
        Text((15.0, 100.0), f"Upright {number}", 2.5, INK, turn=90.0),
        Text((200.0, 20.0), number, 5.0, INK),
    ]
    frame = Line(((10.0, 10.0), (410.0, 10.0), (410.0, 287.0), (10.0, 287.0)), Pen(0.5), closed=True)
    fields = {"number": number, "title": title, "revision": revision}
    display = DisplayList(WIDTH, HEIGHT, (frame, *texts))
    return FrozenSheet("A3", WIDTH, HEIGHT, fields, "2031-05-04", (), {}, display)


def plotted(*sheets):
    return FORMATS["pdf"].write([whole_page(sheet.display) for sheet in sheets], SOURCES, FileInfo())


class PdfCase(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.file = Path(folder.name) / "commented.pdf"

    def read(self, data, *sheets):
        self.file.write_bytes(data)
        return read_pdf(self.file, sheets)

    def assert_near(self, places, wanted, within=0.5):
        for place, point in zip(places, wanted, strict=True):
            self.assertLess(math.dist(place, point), within, (place, point))


def box(x, y, width, height, mm=MM):
    return x * mm, y * mm, (x + width) * mm, (y + height) * mm


def quad(x, y, width, height, mm):
    left, foot, right, top = box(x, y, width, height, mm)
    return pypdf.generic.ArrayObject(
        pypdf.generic.FloatObject(v) for v in (left, top, right, top, left, foot, right, foot)
    )


def commented(data, by=1.0):
    """Each kind of annotation of an independent library, on a first page that is `by` as large."""
    mm = MM * by
    writer = pypdf.PdfWriter(clone_from=io.BytesIO(data))
    line = notes.Line(
        rect=box(50, 50, 40, 30, mm), p1=(50 * mm, 50 * mm), p2=(90 * mm, 80 * mm), text="See here"
    )
    line[pypdf.generic.NameObject("/LE")] = pypdf.generic.ArrayObject(
        [pypdf.generic.NameObject("/None"), pypdf.generic.NameObject("/OpenArrow")]
    )
    made = [
        notes.Text(rect=box(100, 100, 7, 7, mm), text="A note"),
        notes.FreeText(text="Words on the sheet", rect=box(120, 60, 50, 12, mm)),
        line,
        notes.PolyLine(vertices=[(200 * mm, 90 * mm), (230 * mm, 95 * mm), (240 * mm, 120 * mm)]),
        notes.Rectangle(rect=box(150, 150, 60, 20, mm)),
        notes.Ellipse(rect=box(250, 150, 40, 40, mm)),
        notes.Polygon(vertices=[(300 * mm, 60 * mm), (340 * mm, 60 * mm), (320 * mm, 90 * mm)]),
        notes.Highlight(rect=box(60, 200, 30, 5, mm), quad_points=quad(60, 200, 30, 5, mm)),
    ]
    for k, each in enumerate(made):
        if "/Vertices" in each:  # which the library rounds to whole points
            corners = {3: [(200, 90), (230, 95), (240, 120)], 6: [(300, 60), (340, 60), (320, 90)]}[k]
            exact = (pypdf.generic.FloatObject(v * mm) for corner in corners for v in corner)
            each[pypdf.generic.NameObject("/Vertices")] = pypdf.generic.ArrayObject(exact)
        each[pypdf.generic.NameObject("/T")] = pypdf.generic.TextStringObject("Oda Brand")
        each[pypdf.generic.NameObject("/NM")] = pypdf.generic.TextStringObject(f"mark-{k}")
        each[pypdf.generic.NameObject("/M")] = pypdf.generic.TextStringObject("D:20310504102030+02'00'")
        writer.add_annotation(page_number=0, annotation=each)
    out = io.BytesIO()
    writer.write(out)
    return out.getvalue()


#: Where each of these lies, paper mm, and what it is.
COMMENTED = [
    (PointMark, (100, 107)), (TextMark, (120, 72)), (ArrowMark, (90, 80)), (LineMark, (200, 90)),
    (AreaMark, (150, 150)), (AreaMark, (290, 170)), (AreaMark, (300, 60)), (AreaMark, (60, 200)),
]  # fmt: skip


class ReadingTests(PdfCase):
    def assert_commented(self, found):
        comments = found.comments
        self.assertEqual([type(c.marks[0]) for c in comments], [kind for kind, _ in COMMENTED])
        self.assert_near([place_of(c.marks) for c in comments], [at for _, at in COMMENTED])
        self.assertEqual({(c.author, c.made) for c in comments}, {("Oda Brand", "2031-05-04T10:20:30+02:00")})
        self.assertEqual([c.text for c in comments][:3], ["A note", "Words on the sheet", "See here"])

    def test_every_kind_of_an_independent_library_lies_where_it_was_drawn(self):
        sheet = a_sheet()
        (found,) = self.read(commented(plotted(sheet)), a_sheet("A-02", "Roof"), sheet).sheets
        self.assertEqual(found.sheet, 1)
        self.assert_commented(found)
        self.assertTrue(found.comments[-1].marks[0].filled)

    def test_a_page_that_was_reduced_or_turned_is_read_alike(self):
        sheet = a_sheet()
        for by, turn in ((0.5, 0), (1.0, 90), (0.71, 270)):
            writer = pypdf.PdfWriter(clone_from=io.BytesIO(plotted(sheet)))
            writer.pages[0].scale_by(by)
            writer.pages[0].rotate(turn)
            out = io.BytesIO()
            writer.write(out)
            (found,) = self.read(commented(out.getvalue(), by), sheet).sheets
            self.assert_commented(found)

    def test_a_page_printed_onto_other_paper_is_known_by_its_lettering(self):
        # The sheet turned by a quarter and at 60 % in the middle of a larger page, then commented there.
        sheet = a_sheet()
        source = pypdf.PdfReader(io.BytesIO(plotted(sheet))).pages[0]
        writer = pypdf.PdfWriter()
        page = writer.add_blank_page(900, 1200)
        page.merge_transformed_page(source, pypdf.Transformation().rotate(90).scale(0.6).translate(700, 200))
        at = 700 - 0.6 * 80 * MM, 200 + 0.6 * 150 * MM  # where the sheet's (150, 80) has come to
        writer.add_annotation(0, notes.Text(rect=(at[0], at[1] - 20, at[0] + 20, at[1]), text="Here"))
        out = io.BytesIO()
        writer.write(out)
        (found,) = self.read(out.getvalue(), sheet).sheets
        self.assert_near([place_of(found.comments[0].marks)], [(150, 80)])

    def test_the_revision_is_known_by_its_lettering(self):
        old, new = a_sheet(revision="P01"), a_sheet(revision="P02")
        for k, sheet in enumerate((old, new)):
            (found,) = self.read(commented(plotted(sheet)), old, new).sheets
            self.assertEqual(found.sheet, k)

    def test_a_cloud_a_measured_line_a_stamp_and_struck_words(self):
        sheet = a_sheet()
        pdf = pikepdf.open(io.BytesIO(plotted(sheet)))
        Name, Array = pikepdf.Name, pikepdf.Array
        rect = list(box(50, 60, 40, 20))

        def annotation(kind, **more):
            given = {"Type": Name.Annot, "Subtype": Name(f"/{kind}"), "Rect": Array(rect), **more}
            return pdf.make_indirect(pikepdf.Dictionary(**given))

        corners = [v * MM for v in (50, 60, 90, 60, 90, 80, 50, 80)]
        pdf.pages[0].Annots = Array([
            annotation("Polygon", Vertices=Array(corners), BE=pikepdf.Dictionary(S=Name.C, I=2)),
            annotation("Line", L=Array([v * MM for v in (50, 60, 90, 60)]), IT=Name.LineDimension),
            annotation("Stamp", Name=Name.Approved),
            annotation("StrikeOut", QuadPoints=Array([v * MM for v in (50, 80, 90, 80, 50, 60, 90, 60)])),
            annotation("Ink", InkList=Array([Array(corners[:4]), Array(corners[4:])])),
            annotation("Square", BE=pikepdf.Dictionary(S=Name.C, I=1), RD=Array([MM] * 4)),
        ])  # fmt: skip
        out = io.BytesIO()
        pdf.save(out)
        (found,) = self.read(out.getvalue(), sheet).sheets
        cloud, length, stamp, struck, ink, square = found.comments
        self.assertIsInstance(cloud.marks[0], CloudMark)
        self.assert_near(length.marks[0].points, [(50, 60), (90, 60)])
        self.assertIsInstance(length.marks[0], LengthMark)
        self.assertEqual((stamp.text, struck.text), ("Stamp: Approved", "Struck out."))
        self.assert_near(sorted(struck.marks[0].points), [(50, 70), (90, 70)])
        self.assertEqual(len(ink.marks), 2)
        self.assert_near([square.marks[0].points[0]], [(51, 61)])

    def test_answers_are_with_what_they_answer_and_windows_and_links_are_none(self):
        sheet = a_sheet()
        pdf = pikepdf.open(io.BytesIO(plotted(sheet)))
        rect = pikepdf.Array(list(box(50, 60, 6, 6)))

        def note(text, kind="/Text", **more):
            given = {"Subtype": pikepdf.Name(kind), "Rect": rect, "Contents": text, **more}
            return pdf.make_indirect(pikepdf.Dictionary(**given))

        first = note("Too low", T="Oda")
        answer = note("It is 900", T="Kim", IRT=first)
        to_that = note("Then it is right", T="Oda", IRT=answer)
        lost = note("To nothing", IRT=note("not on the page"))
        window, link = note("", "/Popup", Parent=first), note("x", "/Link")
        pdf.pages[0].Annots = pikepdf.Array([to_that, first, window, answer, lost, link])
        out = io.BytesIO()
        pdf.save(out)
        (found,) = self.read(out.getvalue(), sheet).sheets
        (comment,) = found.comments
        self.assertEqual(comment.text, "Too low")
        self.assertEqual(
            sorted((a.author, a.text) for a in comment.answers),
            [("Kim", "It is 900"), ("Oda", "Then it is right")],
        )

    def test_what_cannot_be_read_is_said(self):
        sheet = a_sheet()
        whole = plotted(sheet)
        locked = pypdf.PdfWriter(clone_from=io.BytesIO(whole))
        locked.encrypt("secret")
        out = io.BytesIO()
        locked.write(out)
        with self.assertRaisesRegex(SheetError, "locked with a password"):
            self.read(out.getvalue(), sheet)
        with self.assertRaisesRegex(SheetError, "damaged, or no PDF"):
            self.read(b"not a pdf", sheet)
        other = [whole_page(a_sheet("B-07", "Somewhere else").display)]
        for title, words in (
            ("", "No page of this PDF"),
            ("Quay house", "calls itself “Quay house”, and no page"),
        ):
            pdf = FORMATS["pdf"].write(other, SOURCES, FileInfo(title))
            with self.assertRaisesRegex(SheetError, words):
                self.read(commented(pdf), sheet)
        both = self.read(commented(plotted(sheet, a_sheet("B-07", "Elsewhere"))), sheet)
        self.assertEqual((len(both.sheets), both.notes), (1, ()))
        self.assertEqual(self.read(whole, sheet).sheets, ())

    def test_odd_annotations_harm_nothing(self):
        sheet = a_sheet()
        pdf = pikepdf.open(io.BytesIO(plotted(sheet)))
        rect = pikepdf.Array(list(box(50, 60, 6, 6)))
        odd = [
            {"Subtype": "/Line", "Rect": rect, "L": [1, 2]},
            {"Subtype": "/Ink", "Rect": rect, "InkList": 5},
            {"Subtype": "/Text", "Rect": [1, 2]},
            {"Subtype": "/Polygon", "Rect": rect, "Vertices": []},
            {"Subtype": "/Hologram", "Rect": rect},
            {"Rect": rect},
            {
                "Subtype": "/Text",
                "Rect": rect,
                "Contents": "A" * 9_000,
                "T": "\x00\x07x" * 99,
                "M": "D:2031",
            },
        ]
        made = []
        for each in odd:
            given = {key: pikepdf.Name(v) if str(v).startswith("/") else v for key, v in each.items()}
            made.append(pdf.make_indirect(pikepdf.Dictionary(**given)))
        made[-1][pikepdf.Name.IRT] = made[-1]  # in answer to itself
        good = pikepdf.Dictionary(Subtype=pikepdf.Name.Text, Rect=rect, Contents="Good")
        pdf.pages[0].Annots = pikepdf.Array([*made, good, 7, pikepdf.Name.Odd])
        out = io.BytesIO()
        pdf.save(out)
        found = self.read(out.getvalue(), sheet)
        self.assertEqual([c.text for c in found.sheets[0].comments], ["Good"])
        self.assertTrue(any("could not be read" in note for note in found.notes))

    def test_very_many_annotations_are_cut_off_and_that_is_said(self):
        sheet = a_sheet()
        pdf = pikepdf.open(io.BytesIO(plotted(sheet)))
        one = pikepdf.Dictionary(
            Subtype=pikepdf.Name.Text, Rect=pikepdf.Array(list(box(50, 60, 6, 6))), Contents="Again"
        )
        pdf.pages[0].Annots = pikepdf.Array([one] * (MAX_ANNOTATIONS + 5))
        out = io.BytesIO()
        pdf.save(out)
        found = self.read(out.getvalue(), sheet)
        self.assertIn(f"More than {MAX_ANNOTATIONS} annotations: the rest was left out.", found.notes)


class WritingTests(PdfCase):
    MARKS = (
        PointMark((100.0, 107.0)), TextMark((120.0, 72.0)), ArrowMark((50.0, 50.0), (90.0, 80.0)),
        LineMark(((200.0, 90.0), (230.0, 95.0), (240.0, 120.0))),
        CloudMark(((150.0, 150.0), (210.0, 150.0), (210.0, 170.0), (150.0, 170.0))),
        AreaMark(((250.0, 150.0), (290.0, 150.0), (270.0, 190.0)), filled=True),
        LengthMark((300.0, 60.0), (340.0, 60.0)),
    )  # fmt: skip

    def written(self, *comments, sheet=None):
        self.file.write_bytes(plotted(sheet or a_sheet()))
        return write_comments(self.file, [list(comments)])

    def test_what_is_written_is_read_again(self):
        said = [
            WrittenComment(f"key-{k}", "Oda Brand", "2031-05-04T10:20:30+02:00", f"Comment {k} (äö)", (mark,),
                        (WrittenAnswer(f"answer-{k}", "Kim", "2031-05-05T08:00:00+00:00", "Yes"),), k + 1)
            for k, mark in enumerate(self.MARKS)
        ]  # fmt: skip
        (found,) = self.read(self.written(*said), a_sheet()).sheets
        for before, after in zip(said, found.comments, strict=True):
            self.assertEqual(
                (before.key, before.author, before.made, before.text, before.answers),
                (after.key, after.author, after.made, after.text, after.answers),
            )
            self.assertEqual(type(before.marks[0]), type(after.marks[0]))
            self.assert_near(after.marks[0].points, before.marks[0].points, within=0.01)

    def test_marks_of_one_comment_stay_one(self):
        said = WrittenComment("one", "Oda", "", "All of it", self.MARKS, number=1)
        (found,) = self.read(self.written(said), a_sheet()).sheets
        (comment,) = found.comments
        self.assertEqual([type(mark) for mark in comment.marks], [type(mark) for mark in self.MARKS])

    def test_an_independent_library_finds_standard_annotations(self):
        when = "2031-05-04T10:20:30+02:00"
        said = [
            WrittenComment(f"k{k}", "Oda", when, "x", (mark,), number=k, state="done")
            for k, mark in enumerate(self.MARKS)
        ]
        page = pypdf.PdfReader(io.BytesIO(self.written(*said))).pages[0]
        found = [each.get_object() for each in page["/Annots"]]
        own = [each for each in found if "/IRT" not in each]
        kinds = ["/Text", "/FreeText", "/Line", "/Ink", "/Polygon", "/Polygon", "/Line"]
        self.assertEqual([each["/Subtype"] for each in own], kinds)
        self.assertTrue(all("/AP" in each for each in own[1:]))
        states = [each["/State"] for each in found if "/StateModel" in each]
        self.assertEqual(states, ["Completed"] * len(said))
        self.assertEqual(own[0]["/CreationDate"], "D:20310504102030+02'00'")
