"""Tags say what their door or window is, stand beside it, and keep clear of each other."""

from itertools import combinations
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from drafting.annotation.anchors import Anchor
from drafting.annotation.corners import Corners
from drafting.annotation.pieces import PlacedPiece, dump_piece, parse_piece
from drafting.annotation.tags import Tag, label_size, tag_lines, tags_for
from drafting.building.element_data import ElementData
from drafting.building.openings import Opening
from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.render.annotation_items import piece_boxes, piece_items
from drafting.render.items import Text
from drafting.sheets.scale import Scale
from drafting.sheets.viewport import Viewport
from drafting.tests.scenes import box, drawn

DOOR = Opening("0", "D3", True, "Ground", 900.0, 2100.0)
#: Eight things in a row that stand close to each other, seen from above.
ROW = drawn([box((x, 0, 0), (x + 900, 300, 2100)) for x in range(0, 9600, 1200)], "roof")
CORNERS = Corners(ROW)
OPENINGS = [Opening(name, f"D{k}", True, "", 900.0, 2100.0) for k, name in enumerate(ROW.elements)]


WINDOW = Box(40, 100, 260, 120)
NO_LINES = np.empty((0, 2))
LIKE = Tag(Anchor((0.0, 0.0)))


def seen(scale="1:50", turn=0.0, box=WINDOW):
    return Viewport("v", "k", box, Scale.parse(scale), (4650.0, 150.0), "1", "Plan", turn=turn)


def labels(openings, like=LIKE):
    return {opening.id: tag_lines(like, opening) for opening in openings}


class TagTests(TestCase):
    def test_it_says_number_or_size_or_what_is_typed_over(self):
        at = Anchor((0.0, 0.0), "0")
        self.assertEqual(tag_lines(Tag(at), DOOR), ("D3",))
        self.assertEqual(tag_lines(Tag(at, shows="size"), DOOR), ("900 × 2100",))
        self.assertEqual(tag_lines(Tag(at, shows="both"), DOOR), ("D3", "900 × 2100"))
        self.assertEqual(tag_lines(Tag(at, shows="size", feet=True), DOOR), ("2'-11 3/8\" × 6'-10 5/8\"",))
        self.assertEqual(tag_lines(Tag(at, override="new"), DOOR), ("new",))
        self.assertEqual(tag_lines(Tag(at), None), ("–",))

    def test_of_any_element_it_says_what_its_file_says(self):
        wall = ElementData("w", "Wall 1", "IfcWall", "Ground", "Walls", "Brick", "", (4000.0, 300.0, 2600.0),
                           {"Pset_WallCommon.FireRating": "REI 60"})  # fmt: skip
        at = Anchor((0.0, 0.0), "w")

        def said(source):
            return tag_lines(Tag(at, shows="value", source=source), None, wall)

        sources = ("Pset_WallCommon.FireRating", "Material", "Thickness", "Nothing")
        self.assertEqual([said(source)[0] for source in sources], ["REI 60", "Brick", "300", "–"])

    @given(st.sampled_from(["1:20", "1:50", "1:100", "1:200"]), st.sampled_from(["number", "both"]),
           st.sampled_from([0.0, 30.0, 90.0]))  # fmt: skip
    def test_tags_keep_clear_of_each_other_and_of_what_is_there(self, scale, shows, turn):
        viewport, taken = seen(scale, turn), [Box(100, 150, 60, 8)]
        like = Tag(Anchor((0.0, 0.0)), shows=shows)
        tags = list(tags_for(labels(OPENINGS, like), CORNERS.of, viewport, taken, NO_LINES, like))
        boxes = []
        for tag in tags:
            x, y = viewport.to_paper(*tag.at.at)
            opening = next(o for o in OPENINGS if o.id == tag.at.element)
            wide, high = label_size(tag_lines(tag, opening))
            boxes.append(Box(x + tag.offset[0] - wide / 2 + 0.01, y + tag.offset[1] - high / 2 + 0.01,
                             wide - 0.02, high - 0.02))  # fmt: skip
        crowded = scale == "1:200" and shows == "both"
        if not crowded:
            self.assertFalse(any(a.meets(b) for a, b in combinations([*boxes, *taken], 2)))
        self.assertTrue(all(viewport.box.holds(each) for each in boxes))

    def test_only_what_is_seen_within_the_outline_is_tagged_and_each_once(self):
        tags = list(tags_for(labels(OPENINGS), CORNERS.of, seen(), [], NO_LINES, LIKE))
        self.assertEqual([tag.at.element for tag in tags], [o.id for o in OPENINGS])
        part = seen(box=Box(100, 100, 60, 60))
        self.assertEqual(len(list(tags_for(labels(OPENINGS), CORNERS.of, part, [], NO_LINES, LIKE))), 2)
        gone = [Opening("gone", "D9", True, "", 1.0, 1.0)]
        self.assertEqual(list(tags_for(labels(gone), CORNERS.of, seen(), [], NO_LINES, LIKE)), [])

    def test_it_keeps_off_lines_where_it_can(self):
        (free, *_) = tags_for(labels(OPENINGS[:1]), CORNERS.of, seen(), [], NO_LINES, LIKE)
        x, y = seen().to_paper(*free.at.at)
        middle = np.array([[x + free.offset[0], y + free.offset[1]]])
        (other, *_) = tags_for(labels(OPENINGS[:1]), CORNERS.of, seen(), [], middle, LIKE)
        self.assertNotEqual(other.offset, free.offset)

    def test_it_follows_its_door_and_is_lost_with_it(self):
        (tag, *_) = tags_for(labels(OPENINGS), CORNERS.of, seen(), [], NO_LINES, LIKE)
        self.assertEqual(parse_piece(dump_piece(tag)), tag)
        moved = Corners(drawn([box((500, 0, 0), (1400, 300, 2100))], "roof"))
        first = moved.of(tag.at.element)
        location = tag.locate(lambda element: first)
        self.assertEqual(location.standing, "followed")
        self.assertAlmostEqual(location.at[0][0] - tag.at.at[0], 500.0, delta=1.0)
        self.assertEqual(tag.locate(lambda element: None).standing, "lost")
        # It is the label of all of its door, whatever becomes of a corner of that.
        other = Corners(drawn([box((0, 0, 0), (700, 300, 2100))], "elevation:south")).of(tag.at.element)
        self.assertEqual(tag.locate(lambda element: other).standing, "followed")

    def test_it_is_drawn_with_its_words_and_refused_on_the_bare_sheet(self):
        tag = Tag(Anchor((0.0, 0.0)), (0.0, 6.0), "both")
        placed = PlacedPiece("t", tag, tag.locate(lambda e: None), seen(), label=tag_lines(tag, DOOR))
        items = piece_items(placed)
        self.assertEqual([i.text for i in items if isinstance(i, Text)], ["D3", "900 × 2100"])
        self.assertEqual(piece_boxes([(placed, items)])[0].text, "D3 900 × 2100")
        with self.assertRaisesRegex(SheetError, "label of an element"):
            tag.check(None)
