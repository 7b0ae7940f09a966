"""Records of every version that was ever written are read for ever. Each lies in `golden/` as that version
wrote it, named by it: none is ever made again, and a new version adds its own."""

from __future__ import annotations

import gzip
import json
import re
from dataclasses import replace
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest import TestCase
from unittest.mock import patch

import numpy as np

from drafting.building import store
from drafting.errors import BuildingFileError, DraftingError, SheetError
from drafting.issuing import frozen
from drafting.linework import codec
from drafting.tests.scenes import box, building
from drafting.tests.test_issued_files import SHEET
from drafting.tests.test_issued_files import frozen as frozen_sheet
from drafting.versions import KeptForm

GOLDEN = Path(__file__).parent / "golden"


def versions_of(kind: str) -> dict[int, Path]:
    return {int(path.name.rpartition("-")[2]): path for path in GOLDEN.glob(f"{kind}-*")}


class GoldenTests(TestCase):
    def test_there_is_one_of_each_version_that_is_written_today(self):
        linework = int(re.fullmatch(rb"DFL(\d+)", codec.MAGIC)[1])
        for kind, newest in (
            ("sheet", frozen.FORM.newest),
            ("building", store.FORM.newest),
            ("linework", linework),
        ):
            with self.subTest(kind):
                self.assertEqual(max(versions_of(kind)), newest)

    def test_a_sheet_of_any_version_is_what_it_was(self):
        for version, path in versions_of("sheet").items():
            with self.subTest(version):
                sheet = frozen.thaw(path.read_bytes())
                self.assertEqual(sheet.field_values["title"], SHEET.fields["title"])
                self.assertEqual([r.revision for r in sheet.revisions], ["P01"])
                (drawing,) = sheet.display.drawings
                self.assertEqual((drawing.linework, drawing.ratio), ("cut", 0.02))
                words = [getattr(item, "text", "") for item in sheet.display.items]
                self.assertIn("Oak boards", words)

    def test_a_building_of_any_version_is_what_it_was(self):
        wanted = building([box((0, 0, 0), (6000, 800, 2600))], ("brick",))
        for version, path in versions_of("building").items():
            with self.subTest(version):
                found = store.load_building(path)
                self.assertEqual((found.elements, found.materials), (wanted.elements, wanted.materials))
                np.testing.assert_array_equal(found.vertices, wanted.vertices)

    def test_linework_of_any_version_is_what_it_was(self):
        for version, path in versions_of("linework").items():
            with self.subTest(version):
                found = codec.decode(path.read_bytes())
                self.assertEqual((len(found.lines), len(found.packed_regions)), (2, 2))
                self.assertEqual(found.extents, (0.0, 0.0, 9000.0, 800.0))
                self.assertEqual((found.layers, found.materials), (("Walls",), ("stone",)))


class VersionTests(TestCase):
    def test_what_a_newer_version_wrote_is_refused_in_words(self):
        given = json.loads(gzip.decompress(frozen.frozen_bytes(frozen_sheet())))
        newer = gzip.compress(json.dumps({**given, "version": 9, "weight": 3}).encode())
        with self.assertRaisesRegex(SheetError, "newer Dunefold"):
            frozen.thaw(newer)
        with TemporaryDirectory() as folder:
            path = Path(folder) / "building"
            with patch.object(store, "FORM", replace(store.FORM, newest=9)):
                store.save_building(building([box((0, 0, 0), (1, 1, 1))]), path)
            with self.assertRaisesRegex(BuildingFileError, "Update Dunefold"):
                store.load_building(path)

    def test_a_field_that_was_renamed_does_not_close_the_past(self):
        """A sheet of a version in which the title block's values had another name is read by one step."""
        given = json.loads(gzip.decompress(frozen.frozen_bytes(frozen_sheet())))
        given["values"] = given.pop("field_values")
        renamed = replace(
            frozen.FORM,
            newest=2,
            steps={
                1: lambda old: {
                    "field_values": old["values"],
                    **{k: v for k, v in old.items() if k != "values"},
                }
            },
        )
        with patch.object(frozen, "FORM", renamed):
            self.assertEqual(frozen.thaw(gzip.compress(json.dumps(given).encode())), frozen_sheet())

    def test_one_that_nobody_reads_any_more_says_so(self):
        form = KeptForm("note", 3, {2: dict}, DraftingError)
        with self.assertRaisesRegex(DraftingError, "not read any more"):
            form.brought_up({}, 1)
