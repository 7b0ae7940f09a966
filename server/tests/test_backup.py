"""Backup and restore: one moment of everything, verified, and put in place on another machine."""

import contextlib
import shutil
import sqlite3
import tarfile
import tempfile
from datetime import datetime
from io import StringIO
from pathlib import Path
from unittest import mock

from django.contrib.auth import get_user_model
from django.core.management import CommandError, call_command
from django.db import connection
from django.test import override_settings
from django.utils import timezone

from server.buildings.models import ModelVersion
from server.common import backup_folder, storage
from server.common.backup import BackupError, check_data, read_backup, restore, write_backup
from server.projects.models import Project
from server.tests.committed_case import CommittedCase


class BackupTests(CommittedCase):
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

    def test_a_folder_of_backups_copies_what_is_new_and_restores_any_moment(self):
        folder = self.folder / "backups"
        first = self.add(folder, "2031-05-04")
        self.assertEqual((first.files, first.wrong), (2, []))
        more = storage.store(storage.write_chunks([b"another building"]))
        ModelVersion.objects.create(
            project=self.project, number=2, file_size=1, building=more, source=more, facts={}
        )
        with mock.patch.object(backup_folder, "_copy", wraps=backup_folder._copy) as copied:
            self.add(folder, "2031-05-05")
        self.assertEqual([call.args[2] for call in copied.call_args_list], [more])
        for moment, count in (("2031-05-04", 1), ("", 2)):
            database, there = self.elsewhere()
            with there:
                restore(backup_folder.reader(folder, moment), database)
                self.assertEqual(storage.path_of(self.digest).read_bytes(), b"a building")
                self.assertEqual(storage.path_of(more).exists(), count == 2)
            with contextlib.closing(sqlite3.connect(database)) as made:
                rows = made.execute("SELECT count(*) FROM buildings_modelversion").fetchone()
            self.assertEqual(rows, (count,))
        with self.assertRaisesRegex(BackupError, "no backup of 2030"):
            backup_folder.reader(folder, "2030")

    def test_old_backups_go_with_the_files_that_no_other_names(self):
        folder = self.folder / "backups"
        self.add(folder, "2031-05-04")
        ModelVersion.objects.all().delete()
        for day in (5, 6, 7):
            self.add(folder, f"2031-05-0{day}", keep=2)
        self.assertEqual([name[:10] for name in backup_folder.moments(folder)], ["2031-05-06", "2031-05-07"])
        self.assertEqual([path for path in (folder / "files").rglob("*") if path.is_file()], [])

    def test_a_damaged_backup_in_a_folder_is_named_and_changes_nothing(self):
        folder = self.folder / "backups"
        self.add(folder, "2031-05-04")
        (folder / f"files/{self.digest[:2]}/{self.digest}").write_bytes(b"something else")
        database, there = self.elsewhere()
        with there, self.assertRaisesRegex(BackupError, "missing or damaged"):
            restore(backup_folder.reader(folder), database)
        self.assertEqual(list(database.parent.iterdir()), [])

    def test_a_backup_that_fails_leaves_the_others_and_two_are_never_made_at_once(self):
        folder = self.folder / "backups"
        self.add(folder, "2031-05-04")
        storage.path_of(self.digest).unlink()
        with self.assertRaisesRegex(BackupError, "is missing"):
            self.add(folder, "2031-05-05")
        self.assertEqual(len(backup_folder.moments(folder)), 1)
        self.assertEqual(list(folder.glob("*.part")), [])
        (folder / backup_folder.LOCK).touch()
        with self.assertRaisesRegex(BackupError, "Another backup is being made"):
            self.add(folder, "2031-05-06")

    def test_a_night_has_one_backup_and_a_fault_of_it_stops_no_work(self):
        folder = self.folder / "backups"
        with override_settings(BACKUP_FOLDER=folder, BACKUP_HOUR=2, BACKUPS_KEPT=3):
            for moment in ("2031-05-04T01:30", "2031-05-04T02:10", "2031-05-04T03:10", "2031-05-05T02:10"):
                with self.at(moment):
                    backup_folder.back_up_nightly()
            names = [name[:10] for name in backup_folder.moments(folder)]
            self.assertEqual(names, ["2031-05-04", "2031-05-05"])
            storage.path_of(self.digest).unlink()
            with self.at("2031-05-06T02:10"), self.assertLogs(backup_folder.log, "ERROR"):
                backup_folder.back_up_nightly()
        with override_settings(BACKUP_FOLDER=None):
            backup_folder.back_up_nightly()

    def at(self, moment):
        when = timezone.make_aware(datetime.fromisoformat(moment))
        return mock.patch.object(backup_folder.timezone, "localtime", return_value=when)

    def add(self, folder, day, keep=0):
        with self.at(f"{day}T02:00"):
            return backup_folder.back_up_into(folder, keep)

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
