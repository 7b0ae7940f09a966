"""Templates on every paper: where their parts lie, what their fields say, and that nothing runs over its
box."""

from dataclasses import replace
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.render.compose import compose
from drafting.render.items import Fill, Path, Text
from drafting.render.template_items import ROW, template_items
from drafting.schema import dump
from drafting.sheets.fields import FIELDS, Revision
from drafting.sheets.paper import SIZES, Paper
from drafting.sheets.sheet import Sheet
from drafting.sheets.template import Blank, Part, TemplateSpec, check_blank, parse_template
from drafting.sheets.template_presets import STANDARD, TEMPLATE_PRESETS
from drafting.styles.lettering import LEADING, fit_lines, text_width

PAPERS = [Paper.of(name, way) for name in SIZES for way in ("landscape", "portrait")]
A3 = Paper.of("A3")
#: What ISO 7200 asks for or allows in a title block, in the words of FIELDS.
ISO_7200 = {
    "practice", "number", "revision", "date", "sheet_of", "language", "title", "supplementary_title",
    "department",
    "reference", "approver", "creator", "document_type", "status", "paper",
}  # fmt: skip


def texts_of(sheet):
    return [item.text for item in template_items(sheet) if isinstance(item, Text)]


class BlankTests(TestCase):
    def test_the_frame_leaves_room_for_filing(self):
        self.assertEqual(Blank(A3, STANDARD).frame, Box(20, 10, 390, 277))

    def test_the_title_block_stands_at_the_lower_right_of_every_frame(self):
        for paper in PAPERS:
            blank = Blank(paper, STANDARD)
            boxes = [blank.box_of(part) for part in STANDARD.parts]
            self.assertAlmostEqual(max(b.right for b in boxes), blank.frame.right)
            self.assertAlmostEqual(min(b.y for b in boxes), blank.frame.y)
            self.assertGreaterEqual(min(b.x for b in boxes), blank.frame.x - 1e-9)

    def test_every_shipped_template_fits_every_paper(self):
        for name, template in TEMPLATE_PRESETS.values():
            for paper in [*PAPERS, Paper.of("160 x 140")]:
                with self.subTest(name, paper=paper):
                    check_blank(Blank(paper, template), name)

    def test_parts_are_narrowed_only_where_they_would_stand_in_each_others_way(self):
        words = Part("text", -380, 4, -290, 12, words="Preliminary")
        for y, shrink in ((2.0, 1.0), (8.0, 390 / 467)):
            line = Part("line", 10, y, 87, y, across="left", width=0.25)
            self.assertAlmostEqual(Blank(A3, TemplateSpec(parts=(words, line))).shrink, shrink)

    def test_drawings_are_kept_clear_of_what_a_template_keeps(self):
        for key in ("block", "strip-right", "strip-bottom"):
            blank = Blank(Paper.of("A2"), TEMPLATE_PRESETS[key][1])
            for part in blank.template.parts:
                if part.across != "both" or part.up != "both":
                    self.assertFalse(blank.free.meets(blank.box_of(part)), (key, part))

    @given(st.floats(-200, 200), st.floats(-100, 100), st.sampled_from(PAPERS), st.sampled_from(PAPERS))
    def test_a_part_keeps_its_distance_from_its_sides_whatever_the_paper(self, x, y, one, other):
        part = Part("line", x, y, x + 5, y + 5, across="middle", up="top")
        ends = []
        for paper in (one, other):
            blank = Blank(paper, TemplateSpec(parts=(part,)))
            x0, y0, _, _ = blank.ends_of(part)
            ends.append((x0 - blank.frame.middle[0], y0 - blank.frame.top))
        np.testing.assert_allclose(ends[0], ends[1], atol=1e-9)

    def test_a_part_that_keeps_to_both_sides_grows_with_the_paper(self):
        part = Part("rectangle", 5, 0, -5, 10, across="both")
        widths = [Blank(p, TemplateSpec(parts=(part,))).box_of(part).width for p in (A3, Paper.of("A1"))]
        self.assertEqual(widths, [380, 801])

    def test_what_would_be_cut_off_is_refused_by_name(self):
        far = TemplateSpec(parts=(Part("field", -500, 0, -400, 10, field="title", words="Title"),))
        high = TemplateSpec(parts=(Part("text", -50, 300, 0, 310, words="For comment"),))
        for template, why in (
            (high, "the text “For comment”"),
            (replace(STANDARD, kept=(0.0, 250.0, 0.0, 0.0)), "no room"),
        ):
            with self.subTest(why), self.assertRaisesRegex(SheetError, why):
                check_blank(Blank(A3, template), "Own")
        # What is too wide is made narrower with all that keeps to that side.
        check_blank(Blank(A3, far), "Own")


class TemplateDataTests(TestCase):
    def test_shipped_templates_come_back_from_their_data(self):
        for _, template in TEMPLATE_PRESETS.values():
            self.assertEqual(parse_template(dump(template)), template)

    def test_what_no_template_has_is_refused_by_name(self):
        field = {"kind": "field", "x0": 0, "y0": 0, "x1": 10, "y1": 5, "field": "title"}
        for part, why in (
            ({**field, "kind": "stamp"}, "“stamp” is none of"),
            ({**field, "field": "mood"}, "“mood” is no field"),
            ({**field, "x1": 0}, "has no size"),
            ({**field, "x0": "left"}, "x0: give a number"),
            ({**field, "size": 900}, "size: give a number of at most 50"),
            ({**field, "colour": "red"}, "colour such as"),
            ({**field, "across": "up"}, "across: “up” is none of"),
            ({**field, "words": "w" * 501}, "at most 500"),
            ({**field, "angle": 3}, "angle: there is no such thing"),
            ({"kind": "line"}, "x0: it is missing"),
            ("line", "parts 0"),
        ):
            with self.subTest(why), self.assertRaisesRegex(SheetError, why):
                parse_template({"parts": [part]})
        for given_, why in (
            ({"margins": [1, 2]}, "margins"),
            ({"frame": 9}, "frame: give a number of at most 2"),
            ({"parts": [field] * 301}, "at most 300"),
        ):
            with self.subTest(why), self.assertRaisesRegex(SheetError, why):
                parse_template(given_)


class FieldTests(TestCase):
    def test_the_set_of_iso_7200_is_covered(self):
        self.assertLessEqual(ISO_7200, set(FIELDS))

    def test_a_template_shows_what_its_fields_say(self):
        sheet = Sheet(
            A3, {"project": "Bjørnøya šķūnis", "number": "A-01", "project_number": "2607"}, place=(2, 5),
            revisions=(Revision("P01", "2026-03-02", "First", "I. M."),
            Revision("P02", "2026-03-16", "Ramp", "I. M.")),
        )  # fmt: skip
        words = texts_of(sheet)
        for text in ("Bjørnøya šķūnis", "A-01", "2 of 5", "A3", "P02", "2026-03-16", "Ramp", "First", "–"):
            self.assertIn(text, words)
        self.assertEqual(sheet.field_values["file_name"], "2607-A-01-P02")

    def test_what_is_typed_over_is_shown_and_reported(self):
        sheet = Sheet(
            A3, {"client": "Ternhaven Bird Society"}, overrides={"client": "Sandwick", "scale": "1:1"}
        )
        self.assertIn("Sandwick", texts_of(sheet))
        self.assertNotIn("Ternhaven Bird Society", texts_of(sheet))
        self.assertEqual({f.field for f in compose(sheet).fields if f.overridden}, {"client", "scale"})
        self.assertEqual(sheet.derived_values["client"], "Ternhaven Bird Society")

    def test_the_newest_revisions_stay_where_there_is_no_room_for_all(self):
        revisions = tuple(Revision(f"P{n:02}", "2026-03-16", f"Change {n}", "") for n in range(1, 9))
        words = texts_of(Sheet(A3, revisions=revisions))
        self.assertEqual([w for w in words if w.startswith("Change")], ["Change 6", "Change 7", "Change 8"])

    def test_a_revision_table_between_two_sides_that_meet_is_left_out(self):
        part = Part("revisions", 0, 150, -50, -120, across="both", up="both")
        self.assertEqual(list(template_items(Sheet(A3, template=TemplateSpec(parts=(part,))))), [])
        self.assertLess(Blank(A3, TemplateSpec(parts=(part,))).box_of(part).height, 2 * ROW)


class LetteringInBoxesTests(TestCase):
    def test_no_value_runs_over_its_box_on_any_template(self):
        long = dict.fromkeys(FIELDS, "Wide words of an endless title " * 12)
        one = dict.fromkeys(FIELDS, "Wortungetüm" * 30)
        revisions = (Revision("P01", "2026-03-16", "Wide words of an endless revision " * 12, "I. M."),)
        for name, template in TEMPLATE_PRESETS.values():
            for paper in (A3, Paper.of("A4"), Paper.of("A4", "portrait"), Paper.of("150 x 140")):
                for fields in (long, one):
                    with self.subTest(name, paper=paper):
                        self.keeps_within(
                            Sheet(paper, fields, template=template, revisions=revisions, overrides=fields)
                        )

    def keeps_within(self, sheet):
        boxes = [sheet.blank.box_of(p) for p in sheet.template.parts if p.kind in ("field", "revisions")]
        texts = [item for item in template_items(sheet) if isinstance(item, Text)]
        self.assertTrue(texts)
        for item in texts:
            wide = text_width(item.text, item.size, item.bold)
            left = item.at[0] - {"start": 0, "middle": wide / 2, "end": wide}[item.anchor]
            words = Box(left, item.at[1], wide, item.size)
            self.assertTrue(
                any(Box(b.x, b.y, b.width + 1e-6, b.height + 1e-6).holds(words) for b in boxes), item
            )

    @given(st.text("abc dé", min_size=1, max_size=80), st.floats(5, 80), st.floats(4, 30), st.integers(1, 4))
    def test_words_set_in_a_room_keep_within_it(self, words, width, height, lines):
        broken, size = fit_lines(words, 3.5, (width, height), lines)
        self.assertLessEqual(len(broken), lines)
        self.assertLessEqual(size + (len(broken) - 1) * size * LEADING, max(height, size) + 1e-6)
        for line in broken:
            self.assertTrue(text_width(line, size) <= width or line == "…")

    def test_words_are_broken_before_they_shrink_and_shrunk_before_they_are_shortened(self):
        words = "Ground floor and upper floor"
        half = text_width(words, 3.5) * 0.6
        self.assertEqual(fit_lines(words, 3.5, (half, 20), 2), (["Ground floor and", "upper floor"], 3.5))
        one, size = fit_lines(words, 3.5, (half * 1.2, 20), 1)
        self.assertEqual(one, [words])
        self.assertLess(size, 3.5)
        shortened, size = fit_lines(words, 3.5, (12, 20), 1)
        self.assertTrue(shortened[0].endswith("…"))
        self.assertEqual(size, 1.8)


class PartTests(TestCase):
    def drawn(self, *parts, **given_):
        return list(template_items(Sheet(A3, template=TemplateSpec(parts=parts), **given_)))

    def test_lines_rectangles_and_text_are_drawn_as_they_are_styled(self):
        line = Part("line", -100, 0, -100, 20, width=0.35, colour="#9c3f24")
        area = Part("rectangle", 0, -30, 40, 0, across="left", up="top", fill="#eeeeee", width=0.25)
        text = Part("text", -40, 5, 0, 15, words="Preliminary", size=5, bold=True, align="right")
        stroke, fill, outline, lettering = self.drawn(line, area, text)
        self.assertEqual((stroke.pen.width, stroke.pen.colour), (0.35, "#9c3f24"))
        np.testing.assert_allclose(stroke.points, [(310, 10), (310, 30)])
        self.assertEqual(fill.colour, "#eeeeee")
        np.testing.assert_allclose(outline.points[0], (20, 257))
        self.assertEqual((lettering.text, lettering.anchor, lettering.at[0]), ("Preliminary", "end", 410))
        self.assertIsInstance(fill, Fill)
        self.assertIsInstance(outline, Path)
