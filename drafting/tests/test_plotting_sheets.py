"""What is on paper: measured in the files, not in the code."""

import io
from dataclasses import replace
from unittest import TestCase
from xml.etree import ElementTree

import numpy as np
import pikepdf

from drafting.annotation.anchors import Anchor
from drafting.annotation.notes import Note
from drafting.annotation.pieces import PlacedPiece
from drafting.geometry.boxes import Box
from drafting.render.backend import Sources
from drafting.render.backends.recorder import Recorder
from drafting.render.compose import compose
from drafting.render.items import Drawing, Text, Worded
from drafting.render.page import whole_page
from drafting.sheets.paper import Paper
from drafting.sheets.scale import Scale
from drafting.sheets.sheet import Sheet
from drafting.sheets.viewport import Viewport
from drafting.styles.lettering import fit, text_width
from drafting.styles.pen_table import DEFAULT_STROKES, PenChanges
from drafting.styles.pens import WIDTHS, PenChange
from drafting.tests.outputs import recorded, within_clips, write_pdf, write_svg
from drafting.tests.pdf_reading import page_sizes, strokes, text
from drafting.tests.scenes import box, drawn

#: A wall of a known length, and a smaller one behind it that only a part of the viewport shows.
WALL = drawn([box((0, 0, 0), (7250, 300, 2600))], "elevation:south")
SHEET = Sheet(
    Paper.of("A3"),
    {"project": "Bjørnøya šķūnis", "title": "Wall", "number": "A-01", "creator": "I. M."},
    (
        Viewport("one", "wall", Box(40, 200, 160, 60), Scale.parse("1:50"), (3625, 1300), "1", "Wall, large"),
        Viewport(
            "two", "wall", Box(220, 200, 90, 40), Scale.parse("1:100"), (3625, 1300), "2", "Wall, small"
        ),
    ),
    place=(1, 3),
)
PAGE = whole_page(compose(SHEET), "Wall", "A-01")


def linework(_key):
    return WALL


class PdfTests(TestCase):
    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        cls.pdf = write_pdf([PAGE], linework, "Set")

    def test_a_known_length_measures_true_in_two_scales_on_one_sheet(self):
        outlines = [
            s
            for s in strokes(self.pdf)
            if len(s.points) == 5 and abs(s.width - DEFAULT_STROKES["profile"].width) < 0.001
        ]
        sizes = sorted(np.ptp(s.points, axis=0).tolist() for s in outlines)
        wanted = [[7250 / 100, 2600 / 100], [7250 / 50, 2600 / 50]]
        found = [w for w in wanted if any(np.allclose(w, s, atol=0.01) for s in sizes)]
        self.assertEqual(found, wanted)

    def test_the_wall_lies_in_the_middle_of_its_frame(self):
        wall = next(
            s for s in strokes(self.pdf) if np.allclose(np.ptp(s.points, axis=0), [145, 52], atol=0.01)
        )
        np.testing.assert_allclose(wall.points.min(axis=0), [120 - 72.5, 230 - 26], atol=0.01)

    def test_every_line_has_the_width_of_a_pen(self):
        for stroke in strokes(self.pdf):
            self.assertLess(min(abs(stroke.width - width) for width in WIDTHS), 0.001)

    def test_the_page_has_the_size_of_its_paper(self):
        np.testing.assert_allclose(page_sizes(self.pdf), [(420, 297)], atol=0.01)

    def test_text_is_text_with_its_accents(self):
        found = text(self.pdf)
        for words in (
            "Bjørnøya šķūnis",
            "Wall, large",
            "1:50",
            "1:100",
            "As shown",
            "A-01",
            "1 of 3",
            "Drawn by",
        ):
            self.assertIn(words, found)

    def test_the_lettering_is_embedded_and_only_what_is_used_of_it(self):
        with pikepdf.open(io.BytesIO(self.pdf)) as pdf:
            fonts = pdf.pages[0].Resources.Font.values()
            files = [f.FontDescriptor.FontFile2 for f in fonts]
            self.assertEqual(len(files), 2)
            self.assertTrue(all(len(file.read_bytes()) < 60_000 for file in files))

    def test_the_same_sheets_give_the_same_bytes(self):
        self.assertEqual(write_pdf([PAGE], linework, "Set"), self.pdf)

    def test_each_sheet_is_a_page_of_its_own_size_named_in_the_outline(self):
        tall = replace(SHEET, paper=Paper.of("A2", "portrait"), viewports=())
        pdf = write_pdf([PAGE, whole_page(compose(tall), "Tall", "A-02")], linework)
        np.testing.assert_allclose(page_sizes(pdf), [(420, 297), (420, 594)], atol=0.01)
        with pikepdf.open(io.BytesIO(pdf)) as opened, opened.open_outline() as outline:
            self.assertEqual([item.title for item in outline.root], ["A-01 Wall", "A-02 Tall"])


class DisplayListTests(TestCase):
    def test_a_viewport_clips_and_what_lies_wholly_outside_is_left_out(self):
        away = replace(SHEET.viewports[0], centre=(100_000.0, 0.0))
        calls = recorded(compose(replace(SHEET, viewports=(away,))), linework)
        self.assertEqual(within_clips(calls), [[]])

    def test_the_clip_is_the_frame(self):
        drawing = next(i for i in compose(SHEET).items if isinstance(i, Drawing))
        self.assertEqual(drawing.clip, ((40, 200), (200, 200), (200, 260), (40, 260)))

    def test_a_turned_drawing_keeps_its_lengths_and_stands_on_end(self):
        turned = replace(
            SHEET, viewports=(replace(SHEET.viewports[0], turn=90.0, box=Box(40, 100, 60, 160)),)
        )
        lines = strokes(write_pdf([whole_page(compose(turned))], linework))
        wall = next(
            s for s in lines if len(s.points) == 5 and s.width < 0.36
            and np.ptp(s.points, axis=0).max() > 100 and np.ptp(s.points, axis=0).max() < 150
        )  # fmt: skip
        np.testing.assert_allclose(np.ptp(wall.points, axis=0), [52, 145], atol=0.01)

    def test_a_frame_is_on_paper_only_where_it_is_to_be_plotted(self):
        def frames(viewport):
            sheet = replace(SHEET, viewports=(viewport,))
            return [
                s
                for s in strokes(write_pdf([whole_page(compose(sheet))], linework))
                if abs(s.width - 0.25) < 1e-3
            ]

        one = SHEET.viewports[0]
        self.assertEqual(frames(one), [])
        (frame,) = frames(replace(one, framed=True))
        np.testing.assert_allclose(np.ptp(frame.points, axis=0), [160, 60], atol=0.01)
        (circle,) = frames(replace(one, framed=True, shape="circle", box=Box(40, 200, 60, 60)))
        radii = np.linalg.norm(circle.points - [70, 230], axis=1)
        np.testing.assert_allclose(radii, 30, atol=0.01)

    def test_pens_changed_for_a_viewport_are_on_paper_in_it_alone(self):
        one, two = SHEET.viewports
        pens = PenChanges(roles={"profile": PenChange(1.0, "#9c3f24")})
        pdf = write_pdf(
            [whole_page(compose(replace(SHEET, viewports=(replace(one, pens=pens), two))))], linework
        )
        widths = {
            round(s.width, 3) for s in strokes(pdf) if len(s.points) == 5 and np.ptp(s.points, axis=0)[1] < 53
        }
        self.assertTrue({1.0, 0.35} <= widths)
        layer = PenChanges(layers={WALL.lines[0].layer: PenChange(0.13)})
        calls = recorded(compose(replace(SHEET, viewports=(replace(one, pens=layer),))), linework)
        drawn_ = [call for clip in within_clips(calls) for call in clip]
        self.assertEqual({call.arguments[1].width for call in drawn_}, {0.13})

    def test_an_opaque_viewport_hides_what_lies_under_it(self):
        over = replace(SHEET.viewports[0], opaque=True)
        ground = within_clips(recorded(compose(replace(SHEET, viewports=(over,))), linework))[0][0]
        rings, colour, _ = ground.arguments
        self.assertEqual(
            (ground.name, colour, rings[0].tolist()), ("fill", "#ffffff", [list(p) for p in over.outline])
        )

    def test_it_hides_the_title_and_the_annotation_of_what_is_below_as_well(self):
        one, two = SHEET.viewports
        note = Note(Anchor((0.0, 0.0)), "Below", (4.0, 4.0))
        placed = PlacedPiece("n", note, note.locate(lambda element: None), one)
        for opaque in (False, True):
            sheet = replace(SHEET, viewports=(one, replace(two, opaque=opaque)))
            items = compose(sheet, pieces=[placed]).items
            over = next(k for k, i in enumerate(items) if isinstance(i, Drawing) and i.viewport == two.id)
            title = next(k for k, i in enumerate(items) if isinstance(i, Text) and i.text == one.name)
            words = next(k for k, i in enumerate(items) if isinstance(i, Worded))
            self.assertEqual((title < over, words < over), (opaque, opaque))

    def test_what_was_recorded_and_is_replayed_gives_the_very_file(self):
        recorder = Recorder(Sources(linework))
        PAGE.draw(recorder)

        class Replayed:
            number, name, width, height, date, draw = (
                PAGE.number,
                PAGE.name,
                PAGE.width,
                PAGE.height,
                PAGE.date,
                recorder.replay,
            )

        self.assertEqual(write_pdf([Replayed], linework), write_pdf([PAGE], linework))

    def test_a_scale_changes_no_pen(self):
        one, two = (i for i in compose(SHEET).items if isinstance(i, Drawing))
        self.assertEqual(one.pens, two.pens)
        self.assertEqual(one.ratio, 2 * two.ratio)

    def test_the_cut_is_drawn_wider_than_the_profile_and_that_wider_than_edges(self):
        self.assertGreater(DEFAULT_STROKES["cut"].width, DEFAULT_STROKES["profile"].width)
        self.assertGreater(DEFAULT_STROKES["profile"].width, DEFAULT_STROKES["edge"].width)

    def test_lettering_shrinks_before_it_is_shortened(self):
        self.assertEqual(fit("Plan", 5, 100), ("Plan", 5))
        words, size = fit("A rather long title", 5, text_width("A rather long title", 4))
        self.assertEqual(words, "A rather long title")
        self.assertAlmostEqual(size, 4)
        self.assertTrue(fit("A rather long title", 5, 10)[0].endswith("…"))


class SvgTests(TestCase):
    def test_the_drawing_is_in_millimetres_and_measures_true(self):
        svg = ElementTree.fromstring(write_svg(whole_page(compose(SHEET), "Wall & <wall>"), linework))
        self.assertEqual((svg.get("width"), svg.get("viewBox")), ("420mm", "0 0 420 297"))
        name = "{http://www.w3.org/2000/svg}"
        paths = [
            p
            for g in svg.iter(f"{name}g")
            if g.get("clip-path")
            for p in g.iter(f"{name}path")
            if p.get("stroke")
        ]
        spans = []
        for path in paths:
            xs = [float(pair.split()[0]) for pair in path.get("d").strip("MZ").split("L")]
            spans.append(max(xs) - min(xs))
        np.testing.assert_allclose(spans, [145, 72.5], atol=0.001)
        self.assertEqual({p.get("stroke-width") for p in paths}, {str(DEFAULT_STROKES["profile"].width)})
        self.assertIn("Wall, large", [t.text for t in svg.iter(f"{name}text")])
