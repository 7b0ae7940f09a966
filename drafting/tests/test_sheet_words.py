"""What sheets say by themselves, in the language of their project."""

from dataclasses import replace
from unittest import TestCase

from drafting.geometry.boxes import Box
from drafting.render.compose import compose
from drafting.render.drawing_list import COLUMNS as LISTED
from drafting.render.items import Text
from drafting.render.template_items import CAPTION, PADDING
from drafting.render.template_items import COLUMNS as REVISED
from drafting.shading.appearance import Appearance, Light
from drafting.sheets.fields import FIELDS
from drafting.sheets.paper import Paper
from drafting.sheets.scale import Scale
from drafting.sheets.sheet import DrawingList, Sheet
from drafting.sheets.template import Part, TemplateSpec
from drafting.sheets.template_presets import TEMPLATE_PRESETS
from drafting.sheets.viewport import Viewport
from drafting.sheets.words import words_in
from drafting.styles.lettering import text_width

GERMAN = words_in("de")


def lettered(sheet: Sheet) -> set[str]:
    return {item.text for item in compose(sheet).items if isinstance(item, Text)}


class SheetWordsTests(TestCase):
    def test_every_caption_that_sheets_have_by_themselves_is_in_german(self):
        for caption in [
            *(field.caption for field in FIELDS.values()),
            *(name for name, _ in (*LISTED, *REVISED)),
        ]:
            self.assertIn(caption, GERMAN.captions)

    def test_a_title_block_is_worded_in_the_language_of_its_project(self):
        table = DrawingList((30.0, 277.0), (("A-01", "Ground floor", "A3", "1:100", ""),))
        sheet = Sheet(Paper.of("A1"), {"language": "de"}, place=(2, 7), drawing_list=table)
        self.assertLessEqual(
            {"Blattnummer", "Bauherr", "2 von 7", "Änderung", "Planliste", "Maßstab"}, lettered(sheet)
        )
        self.assertLessEqual(
            {"Sheet number", "Client", "2 of 7", "Description", "List of drawings", "Scale"},
            lettered(replace(sheet, fields={"language": "Elvish"})),
        )

    def test_no_german_caption_is_shortened_in_a_built_in_title_block(self):
        for _, spec in TEMPLATE_PRESETS.values():
            blank = Sheet(Paper.of("A3"), template=spec).blank
            for part in spec.parts:
                if part.words:
                    width = text_width(GERMAN.caption(part.words), CAPTION)
                    self.assertLess(0.7 * width, blank.box_of(part).width - 2 * PADDING, part.words)

    def test_a_caption_that_an_office_worded_itself_stays(self):
        own = Part("field", -60, 0, 0, 10, field="client", words="Our client")
        sheet = Sheet(Paper.of("A3"), {"language": "de"}, template=TemplateSpec(parts=(own,)))
        self.assertIn("Our client", lettered(sheet))

    def test_drawing_titles_say_what_has_no_scale_and_when_the_sun_shone(self):
        sun = Appearance("shaded", light=Light("sun", 3, 1, 9.5))
        placed = Viewport(
            "v", "", Box(0, 0, 50, 50), Scale.parse("1:100"), (0.0, 0.0), appearance=sun, words=GERMAN
        )
        self.assertEqual(placed.subtitle, "1:100, Sonne vom 1. März, 9:30")
        self.assertEqual(replace(placed, to_scale=False).scale_text, "Ohne Maßstab")
        other = replace(placed, scale=Scale.parse("1:50"))
        sheet = Sheet(Paper.of("A3"), {"language": "Deutsch"}, (placed, other))
        self.assertEqual(sheet.field_values["scale"], "Wie angegeben")
