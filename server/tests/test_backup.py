"""Backup and restore: one moment of everything, verified, and put in place on another machine."""

import contextlib
import shutil
import sqlite3
import tarfile
import tempfile
from io import StringIO
from pathlib import Path

from django.contrib.auth import get_user_model
from django.core.management import CommandError, call_command
from django.db import connection
from django.test import TransactionTestCase, override_settings

from server.buildings.models import ModelVersion
from server.common import storage
from server.common.backup import BackupError, check_data, read_backup, restore, write_backup
from server.projects.models import Project


class BackupTests(TransactionTestCase):
    def setUp(self):
        self.folder = Path(tempfile.mkdtemp())
        self.addCleanup(shutil.rmtree, self.folder)
        self.data, self.file = self.folder / "data", self.folder / "kept.tar"
        self.data.mkdir()
        changed = override_settings(DATA=self.data)
        changed.enable()
        self.addCleanup(changed.disable)
        self.user = get_user_model().objects.create_user("ines")
        self.project = Project.objects.create(owner=self.user, name="Quay house")
        self.digest = storage.store(storage.write_chunks([b"a building"]))
        ModelVersion.objects.create(
            project=self.project, number=1, file_size=1, building=self.digest, source=self.digest, facts={}
        )

    def elsewhere(self):
        """The database and the settings of another machine, with nothing on it."""
        place = Path(tempfile.mkdtemp(dir=self.folder))
        return place / "dunefold.sqlite3", override_settings(DATA=place)

    def test_what_was_backed_up_is_there_on_another_machine(self):
        found = write_backup(self.file)
        self.assertEqual((found.files, found.wrong), (2, []))
        database, there = self.elsewhere()
        with there:
            restore(self.file, database)
            self.assertEqual(storage.path_of(self.digest).read_bytes(), b"a building")
        with contextlib.closing(sqlite3.connect(database)) as made:
            self.assertEqual(made.execute("SELECT name FROM projects_project").fetchall(), [("Quay house",)])

    def test_it_is_one_moment_and_leaves_out_what_no_row_needs(self):
        storage.store(storage.write_chunks([b"needed by nobody"]))
        write_backup(self.file)
        Project.objects.create(owner=self.user, name="Later")
        with tarfile.open(self.file) as archive:
            names = archive.getnames()
            archive.extract("database.sqlite3", self.folder, filter="data")
        self.assertEqual(len([name for name in names if name.startswith("files/")]), 1)
        self.assertFalse(any("secret" in name for name in names))
        with contextlib.closing(sqlite3.connect(self.folder / "database.sqlite3")) as made:
            self.assertEqual(made.execute("SELECT count(*) FROM projects_project").fetchone(), (1,))

    def test_a_damaged_or_cut_off_archive_is_refused_and_changes_nothing(self):
        write_backup(self.file)
        whole = self.file.read_bytes()
        at = whole.index(b"a building")
        damaged, cut = self.folder / "damaged.tar", self.folder / "cut.tar"
        damaged.write_bytes(whole[:at] + b"A" + whole[at + 1 :])
        cut.write_bytes(whole[: len(whole) // 2])
        self.assertIn("is damaged", read_backup(damaged).wrong[0])
        for file in (damaged, cut):
            database, there = self.elsewhere()
            with there, self.assertRaises(BackupError):
                restore(file, database)
            self.assertEqual(list(database.parent.iterdir()), [])

    def test_nothing_is_restored_over_data_that_are_there(self):
        write_backup(self.file)
        with self.assertRaisesRegex(BackupError, "data in .* already"):
            restore(self.file)

    def test_a_backup_of_damaged_data_is_none(self):
        storage.path_of(self.digest).write_bytes(b"something else")
        with self.assertRaisesRegex(BackupError, "is damaged"):
            write_backup(self.file)
        storage.path_of(self.digest).unlink()
        with self.assertRaisesRegex(BackupError, "is missing"):
            write_backup(self.file)
        self.assertFalse(self.file.exists() or self.file.with_name("kept.tar.part").exists())

    def test_the_check_names_what_is_missing_damaged_or_refers_to_nothing(self):
        self.assertEqual((check_data().files, check_data().wrong), (1, []))
        storage.path_of(self.digest).write_bytes(b"something else")
        self.assertIn("is damaged", check_data().wrong[0])
        storage.path_of(self.digest).unlink()
        with self.assertRaises(CommandError), contextlib.redirect_stderr(StringIO()):
            call_command("check_data", stderr=StringIO())
        with connection.cursor() as cursor:
            cursor.execute("PRAGMA foreign_keys = OFF")
            cursor.execute("DELETE FROM projects_project")
            cursor.execute("PRAGMA foreign_keys = ON")
        self.assertTrue(any("refers to one" in sentence for sentence in check_data().wrong))
        ModelVersion.objects.all().delete()
