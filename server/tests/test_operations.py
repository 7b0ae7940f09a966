"""What the installation tells of itself, and to whom."""

from __future__ import annotations

import json
import logging
from datetime import timedelta
from unittest import mock

from django.db import DatabaseError
from django.utils import timezone

from server.common.requests import RequestFilter
from server.jobs.models import Job, Worker
from server.operations import state
from server.projects.models import Project
from server.tests.api_case import ApiCase


class HealthTests(ApiCase):
    def ready(self):
        response = self.client.get("/health/ready")
        return response.status_code, response.json()

    def worker(self):
        return Worker.objects.create(host="elsewhere", pid=1, seen=timezone.now())

    def test_it_is_alive_without_any_other_part(self):
        with mock.patch("server.operations.state.parts", side_effect=AssertionError):
            self.assertEqual(self.client.get("/health/live").json(), {"alive": True})

    def test_it_is_ready_where_database_disk_queue_and_workers_are(self):
        self.assertEqual(self.ready()[0], 503)
        self.assertFalse(self.ready()[1]["workers"]["works"])
        self.worker()
        status, told = self.ready()
        self.assertEqual((status, told["ready"]), (200, True))
        with mock.patch("server.operations.state.has_room", return_value=False):
            self.assertFalse(self.ready()[1]["disk"]["works"])

    def test_work_that_nobody_does_is_told(self):
        self.worker()
        project = Project.objects.create(owner=self.user, name="Kiln")
        job = Job.objects.create(project=project, kind=Job.Kind.DRAW, about="Plan")
        self.assertTrue(self.ready()[1]["queue"]["works"])
        Job.objects.filter(pk=job.pk).update(created=timezone.now() - 2 * state.LONG)
        self.assertFalse(self.ready()[1]["queue"]["works"])
        Job.objects.create(project=project, kind=Job.Kind.DRAW, about="Roof", state=Job.State.RUNNING)
        self.assertTrue(self.ready()[1]["queue"]["works"])
        self.assertGreater(state.LONG, timedelta(minutes=1))

    def test_a_database_that_does_not_answer_is_told_and_nothing_else_is_asked(self):
        with mock.patch("server.operations.state.connection.cursor", side_effect=DatabaseError):
            status, told = self.ready()
        self.assertEqual((status, sorted(told)), (503, ["database", "ready"]))


class MetricsTests(ApiCase):
    def test_figures_and_the_state_are_for_administrators_alone(self):
        self.assertEqual(self.client.get("/metrics").status_code, 403)
        self.assertEqual(self.client.get("/admin/state/").status_code, 302)
        self.user.is_staff = True
        self.user.save()
        Worker.objects.create(host="drawing-room", pid=7, seen=timezone.now())
        told = self.client.get("/metrics").content.decode()
        self.assertIn("dunefold_workers 1.0", told)
        self.assertIn("django_http_requests_total_by_method_total", told)
        page = self.client.get("/admin/state/")
        self.assertContains(page, "drawing-room")
        self.assertContains(page, "Pages listening")


class RequestTests(ApiCase):
    def test_every_answer_has_an_id_which_is_in_the_log_with_who_and_how_long(self):
        with self.assertLogs("server.requests") as logged:
            answer = self.client.get("/api/projects/")
        name = answer.headers["X-Request-Id"]
        self.assertEqual(len(name), 12)
        record = logged.records[0]
        self.assertEqual((record.path, record.status, record.user), ("/api/projects/", 200, "ines"))
        self.assertGreaterEqual(record.milliseconds, 0)
        # A proxy's is kept, unless it could be anything.
        kept = self.client.get("/api/session/", headers={"X-Request-Id": "edge-1234abcd"})
        self.assertEqual(kept.headers["X-Request-Id"], "edge-1234abcd")
        odd = self.client.get("/api/session/", headers={"X-Request-Id": '"}{"level": "x"'})
        self.assertNotIn('"', odd.headers["X-Request-Id"])

    def test_a_fault_is_told_by_the_id_of_its_request(self):
        with (
            mock.patch("server.projects.models.Project.of", side_effect=RuntimeError("secret")),
            self.assertLogs("server.common.problems", logging.ERROR) as logged,
        ):
            answer = self.client.get("/api/projects/")
        self.assertIn(answer.headers["X-Request-Id"], answer.json()["detail"])
        self.assertIn(answer.headers["X-Request-Id"], logged.output[0])

    def test_a_line_of_the_log_is_json(self):
        from pythonjsonlogger.json import JsonFormatter

        formatter = JsonFormatter("{asctime}{levelname}{message}{request_id}", style="{")
        record = logging.makeLogRecord({"msg": "a\nb", "levelname": "INFO", "user": "ines"})
        RequestFilter().filter(record)
        line = formatter.format(record)
        self.assertNotIn("\n", line)
        self.assertEqual({"message": "a\nb", "user": "ines"}.items() - json.loads(line).items(), set())

    def test_what_is_nowhere_is_not_found(self):
        for path in ("/nowhere", "/health/other", "/api/nowhere/", "/wp-login.php"):
            self.assertEqual(self.client.get(path).status_code, 404, path)
        for path in ("/", "/projects/7/sheets", "/invited/abc"):
            self.assertEqual(self.client.get(path).status_code, 200, path)


class SecretTests(ApiCase):
    def test_the_secrets_of_links_stand_in_no_log(self):
        secret = "s" * 43
        for path in ("/api/reviewed/{}/", "/delivered/{}/archive/", "/invited/{}/", "/api/invited/{}/"):
            asked = path.format(secret)
            record = logging.LogRecord("django", logging.WARNING, "", 0, "Not Found: %s", (asked,), None)
            RequestFilter().filter(record)
            self.assertEqual(record.getMessage(), f"Not Found: {path.format('…')}")
        with self.assertLogs("server.requests") as log:
            self.client.get(f"/api/reviewed/{secret}/comments/")
        self.assertNotIn(secret, "".join(log.output))
        self.assertEqual(log.records[0].path, "/api/reviewed/…/comments/")
