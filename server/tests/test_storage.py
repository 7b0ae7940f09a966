"""Files are kept whole, once, under the hash of what is in them."""

import hashlib
import shutil
import tempfile
from pathlib import Path

from django.test import SimpleTestCase, override_settings

from server.common import storage


class StorageTests(SimpleTestCase):
    def setUp(self):
        folder = Path(tempfile.mkdtemp())
        self.addCleanup(shutil.rmtree, folder)
        changed = override_settings(DATA=folder)
        changed.enable()
        self.addCleanup(changed.disable)

    def unfinished(self):
        return list(storage.temporary_folder().iterdir())

    def test_a_file_lies_under_its_hash_and_nothing_unfinished_is_left(self):
        digest = storage.store(storage.write_chunks([b"sand", b"piper"]))
        self.assertEqual(digest, hashlib.sha256(b"sandpiper").hexdigest())
        self.assertEqual(storage.path_of(digest).read_bytes(), b"sandpiper")
        self.assertEqual(self.unfinished(), [])

    def test_the_same_contents_are_kept_once(self):
        one, two = (storage.store(storage.write_chunks([b"knot"])) for _ in range(2))
        self.assertEqual(one, two)
        self.assertEqual(len([p for p in storage.folder().rglob("*") if p.is_file()]), 1)

    def test_nothing_is_left_of_a_file_that_breaks_off(self):
        def broken():
            yield b"half a"
            raise ConnectionResetError

        with self.assertRaises(ConnectionResetError):
            storage.write_chunks(broken())
        self.assertEqual(self.unfinished(), [])
