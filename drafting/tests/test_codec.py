"""A stored drawing opens as it was written, and what is no drawing is refused."""

import gzip
from unittest import TestCase

import numpy as np

from drafting.linework.codec import decode, encode
from drafting.linework.model import Linework
from drafting.tests.scenes import box, drawn

SCENE = [box((0, 0, 0), (6000, 800, 2600)), box((2000, 3000, 0), (2400, 3400, 9000))]


class CodecTests(TestCase):
    def test_lines_regions_and_names_come_back(self):
        for view in ("plan:0", "axonometric:ne", "perspective:-9000,-8000,3000,0,0,0"):
            with self.subTest(view):
                linework = drawn(SCENE, view, hidden=True)
                read = decode(encode(linework))
                self.assertEqual([(x.role, x.element, x.layer, x.band) for x in read.lines],
                                 [(x.role, x.element, x.layer, x.band) for x in linework.lines])  # fmt: skip
                for one, other in zip(read.lines, linework.lines, strict=True):
                    np.testing.assert_allclose(one.points[:, :2], other.points[:, :2], atol=5.1e-5)
                    np.testing.assert_allclose(one.points[:, 2], other.points[:, 2], atol=1e-3)
                self.assertEqual([(r.element, r.material, len(r.rings)) for r in read.regions],
                                 [(r.element, r.material,
                                 len(r.rings)) for r in linework.regions])  # fmt: skip
                self.assertEqual(read.notes, linework.notes)
                np.testing.assert_allclose(read.extents, linework.extents, atol=5.1e-5)

    def test_the_same_drawing_gives_the_same_bytes(self):
        self.assertEqual(encode(drawn(SCENE, "roof")), encode(drawn(SCENE, "roof")))

    def test_an_empty_drawing_is_stored_too(self):
        read = decode(encode(Linework(drawn(SCENE, "roof").camera, notes=("Nothing.",))))
        self.assertEqual((read.lines, read.regions, read.extents, read.notes), ((), (), None, ("Nothing.",)))

    def test_one_from_before_materials_were_kept_is_read(self):
        """What was issued is kept as it was, and made again from that."""
        linework = drawn(SCENE, "plan:0")
        self.assertEqual(decode(encode(linework)).made_of, linework.made_of)
        raw = gzip.decompress(encode(linework))
        old = raw.replace(b'"made_of":', b'"made_by":')
        self.assertEqual(decode(gzip.compress(old)).made_of, ())

    def test_what_is_no_drawing_is_refused(self):
        with self.assertRaisesRegex(ValueError, "no linework"):
            decode(gzip.compress(b"something else"))

    def test_groups_hold_every_line_once(self):
        linework = drawn(SCENE, "plan:0", hidden=True)
        which = np.concatenate(list(linework.groups.values()))
        self.assertEqual(sorted(which.tolist()), list(range(len(linework.lines))))
        for (role, layer), some in linework.groups.items():
            self.assertEqual(
                {(linework.lines[k].role, linework.lines[k].layer) for k in some}, {(role, layer)}
            )
