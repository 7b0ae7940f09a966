"""Faults of the server's own: a full disk, a busy database, what nobody foresaw. Nothing is lost, and nobody
sees its inside."""

import contextlib
import errno
import re
import sqlite3
import tempfile
import threading
import time
from dataclasses import replace
from pathlib import Path
from unittest import TestCase
from unittest.mock import patch

from django.contrib.auth import get_user_model
from django.db import IntegrityError, OperationalError, connection, connections, transaction
from django.db.backends.sqlite3.base import DatabaseWrapper as DjangoWrapper
from django.test import override_settings

from server.common.space import is_out_of_space
from server.common.sqlite.base import DatabaseWrapper
from server.jobs import runner
from server.jobs.child import ChildProcessLost, UnexpectedError
from server.jobs.models import Job
from server.projects.models import Project
from server.tests.api_case import ApiCase
from server.tests.committed_case import CommittedCase


def refused(code):
    cause = sqlite3.OperationalError("database or disk is full")
    cause.sqlite_errorcode = code
    error = OperationalError("database or disk is full")
    error.__cause__ = cause
    return error


class FaultTests(ApiCase):
    def setUp(self):
        super().setUp()
        self.client.raise_request_exception = False

    def failing(self, error, status):
        project = self.make_project()
        with patch("server.projects.rows.RowKind.create", side_effect=error):
            return self.call("post", "sheets/", {"project": project, "title": "Plan"}, status)

    def test_a_full_or_read_only_disk_is_named_whatever_reports_it(self):
        for error in (
            OSError(errno.ENOSPC, "No space left on device"),
            OSError(errno.EROFS, "Read-only file system"),
            refused(sqlite3.SQLITE_FULL),
            refused(sqlite3.SQLITE_READONLY),
            refused(sqlite3.SQLITE_IOERR_WRITE),
        ):
            self.assertIn("disk of the server is full", self.failing(error, 507)["detail"])

    def test_others_who_write_for_too_long_are_waited_for(self):
        self.assertIn("tried again", self.failing(refused(sqlite3.SQLITE_BUSY), 503)["detail"])

    def test_what_nobody_foresaw_has_a_reference_and_its_details_are_in_the_log(self):
        with self.assertLogs("server", "ERROR") as log:
            answer = self.failing(ValueError("operands could not be broadcast together"), 500)
        (reference,) = re.findall(r"reference (\w{8})", answer["detail"])
        self.assertNotIn("broadcast", answer["detail"])
        self.assertIn(reference, log.output[0])
        self.assertIn("broadcast", log.output[0])

    def test_while_the_disk_is_all_but_full_reading_and_deleting_go_on(self):
        project = self.make_project()
        sheet = self.call("post", "sheets/", {"project": project, "title": "Plan"}, 201)
        with override_settings(DISK_RESERVE=1 << 62):
            answer = self.client.post("/api/sheets/", {"project": project, "title": "Roof"})
            self.assertEqual(answer.status_code, 507)
            self.assertIn("make room", answer.json()["detail"])
            self.assertEqual(len(self.call("get", f"sheets/?project={project}")), 1)
            step = {"rows": "sheets", "id": sheet["id"], "version": sheet["version"]}
            renamed = {"steps": [{**step, "row": {"title": "Roof"}}]}
            self.assertIn("make room", self.call("post", "changes/", renamed, 507)["detail"])
            deleted = {"steps": [{**step, "row": None}]}
            self.assertEqual(self.call("post", "changes/", deleted)["rows"], [None])
        sheet = self.call("post", "sheets/", {"project": project, "title": "Plan"}, 201)
        with override_settings(DISK_RESERVE=1 << 62):
            self.call("delete", f"sheets/{sheet['id']}/", status=204)

    def test_what_two_people_make_at_once_is_told_to_the_second(self):
        project = self.make_project()
        twice = IntegrityError("UNIQUE constraint failed: sheets_register.project_id")
        with patch("server.sheets.viewsets.services.numbers_from", side_effect=twice):
            sheet = self.call("post", "sheets/", {"project": project}, 201)["id"]
            said = self.call("get", f"sheets/{sheet}/numbers/", status=409)["detail"]
        self.assertIn("Somebody else", said)

    def test_an_export_whose_process_is_lost_is_told_in_a_sentence(self):
        project = self.make_project()
        lost = ChildProcessLost("What worked on this crashed.")
        for where, path in (("issues", "issue-register/"), ("reviews", "comment-summary/")):
            with patch(f"server.{where}.viewsets.run_apart", side_effect=lost):
                said = self.call("get", f"{path}?project={project}", status=422)["detail"]
            self.assertIn("crashed", said)

    def test_a_job_that_fails_unforeseen_tells_its_reference_and_logs_the_rest(self):
        project = Project.objects.get(pk=self.make_project())
        job = Job.objects.create(project=project, kind="draw", about="Plan")
        kind = replace(runner._kinds["draw"], do=lambda job, work: self.fault())
        with patch.object(runner, "_kinds", {"draw": kind}), self.assertLogs("server", "ERROR") as log:
            runner.run(job)
        job.refresh_from_db()
        self.assertEqual(job.state, "failed")
        self.assertNotIn("pickle", job.message)
        (reference,) = re.findall(r"reference (\w{8})", job.message)
        self.assertIn(reference, log.output[0])
        self.assertIn("cannot pickle", log.output[0])

    def fault(self):
        raise UnexpectedError("Traceback: cannot pickle")

    def test_the_data_folder_is_nobody_elses(self):
        from server.config import settings

        self.assertEqual(settings.DATA.stat().st_mode & 0o077, 0)


class ReadOnlyDiskTests(TestCase):
    def test_what_is_there_is_read_and_nothing_is_written(self):
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "kept.sqlite3"
            with contextlib.closing(sqlite3.connect(path)) as made:
                made.executescript("PRAGMA journal_mode=WAL; CREATE TABLE t(x); INSERT INTO t VALUES (7);")
            given = {**connections["default"].settings_dict, "NAME": str(path)}
            opened = DjangoWrapper.get_new_connection

            def unwritable(wrapper, params):
                if "uri" in params and params["uri"] and "?" in str(params["database"]):
                    return opened(wrapper, params)
                raise sqlite3.OperationalError("unable to open database file")

            with (
                patch.object(DjangoWrapper, "get_new_connection", unwritable),
                patch("server.common.sqlite.base.os.access", return_value=False),
            ):
                wrapper = DatabaseWrapper(given, "kept")
                with contextlib.closing(wrapper), wrapper.cursor() as cursor:
                    self.assertEqual(cursor.execute("SELECT x FROM t").fetchone(), (7,))
                    with self.assertRaises(OperationalError) as refused_write:
                        cursor.execute("INSERT INTO t VALUES (8)")
            self.assertTrue(is_out_of_space(refused_write.exception))


class TurnTests(CommittedCase):
    def test_many_who_write_at_once_come_by_turn_even_if_the_database_waits_for_nobody(self):
        user = get_user_model().objects.create_user("ines")
        faults = []

        def write(number):
            try:
                with connection.cursor() as cursor:
                    cursor.execute("PRAGMA busy_timeout=0")
                with transaction.atomic():
                    Project.objects.create(owner=user, name=f"House {number}")
                    time.sleep(0.02)
                    # What fails is taken back, and lets the next one in.
                    if number % 3 == 0:
                        raise ValueError
            except OperationalError as error:
                faults.append(error)
            except ValueError:
                pass
            finally:
                connection.close()

        threads = [threading.Thread(target=write, args=(number,)) for number in range(12)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join(20)
        self.assertEqual((faults, Project.objects.count()), ([], 8))
