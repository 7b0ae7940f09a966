"""Clouds: about what they are meant to be about, of whole arcs, with the revision beside them."""

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st
from shapely import Polygon
from shapely.geometry import box as rectangle

from drafting.annotation.anchors import Anchor
from drafting.annotation.clouds import ARC, MIN_SIDE, Cloud, cloud_box, cloud_ring
from drafting.annotation.pieces import PlacedPiece, dump_piece, parse_piece
from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.render.annotation_items import piece_boxes, piece_items
from drafting.render.items import Text
from drafting.sheets.scale import Scale
from drafting.sheets.viewport import Viewport

CLOUD = Cloud(Anchor((0.0, 0.0)), Anchor((2000.0, 1000.0)), "P02")
VIEWPORT = Viewport("v", "k", Box(100, 100, 200, 100), Scale.parse("1:50"), (0.0, 0.0), "1", "Plan")

places = st.floats(-500, 500)


class CloudTests(TestCase):
    @given(places, places, places, places)
    def test_its_ring_holds_both_corners_and_crosses_itself_nowhere(self, x0, y0, x1, y1):
        box = cloud_box((x0, y0), (x1, y1))
        self.assertGreaterEqual(min(box.width, box.height), MIN_SIDE - 1e-9)
        ring = Polygon(cloud_ring(box))
        self.assertTrue(ring.is_valid)
        inner = rectangle(box.x, box.y, box.right, box.top)
        self.assertAlmostEqual(ring.intersection(inner).area, inner.area, places=5)
        self.assertTrue(inner.buffer(ARC / 2 + 1e-6).covers(ring))

    def test_it_follows_its_viewport_and_says_its_revision(self):
        placed = PlacedPiece("c", CLOUD, CLOUD.locate(lambda e: None), VIEWPORT)
        items = piece_items(placed)
        self.assertEqual([i.text for i in items if isinstance(i, Text)], ["P02"])
        ring = Polygon(items[0].points)
        self.assertTrue(ring.covers(rectangle(200, 150, 240, 170)))
        (held,) = piece_boxes([(placed, items)])
        self.assertEqual((held.kind, held.text, len(held.points)), ("cloud", "P02", 2))

    def test_it_comes_back_from_plain_data_and_one_about_nothing_is_refused(self):
        self.assertEqual(parse_piece(dump_piece(CLOUD)), CLOUD)
        CLOUD.check(None)
        with self.assertRaisesRegex(SheetError, "one place"):
            Cloud(Anchor((1.0, 1.0)), Anchor((1.0, 1.0))).check(None)
