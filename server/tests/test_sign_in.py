"""Signing in: guessing is slowed down for the one who guesses alone; cookies and headers."""

import os
import subprocess
import sys

from django.conf import settings
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.test import override_settings
from rest_framework.test import APIClient

from server.tests.api_case import ApiCase


@override_settings(AXES_FAILURE_LIMIT=3)
class GuessingTests(ApiCase):
    def form(self, password, address="10.0.0.1", name="ines"):
        body = {"username": name, "password": password}
        return APIClient(REMOTE_ADDR=address).post("/api/session/", body)

    def test_after_a_few_guesses_the_right_password_helps_no_more(self):
        for k in range(3):
            self.assertIn(self.form(f"guess-{k}").status_code, (400, 429))
        refused = self.form("samphire-88")
        self.assertEqual(refused.status_code, 429)
        self.assertIn("quarter of an hour", refused.json()["detail"])

    def test_who_guesses_locks_out_neither_an_office_nor_the_account_elsewhere(self):
        for k in range(4):
            self.form(f"guess-{k}")
        self.assertEqual(self.form("samphire-88", address="10.0.0.2").status_code, 200)
        self.assertEqual(self.form("nobody", name="somebody").status_code, 400)

    def test_a_password_has_twelve_characters(self):
        validate_password("samphire-8812")
        with self.assertRaisesRegex(ValidationError, "12 characters"):
            validate_password("samphire-88")


class FromThisSiteTests(ApiCase):
    def test_a_form_on_another_site_signs_nobody_in(self):
        given = {"username": "ines", "password": "samphire-88"}
        made = self.call("post", f"projects/{self.make_project()}/invite/", {"role": "reader"}, 201)
        account = {"username": "mira", "password": "samphire-8812"}
        for path, body in (("session/", given), (f"invited/{made['secret']}/", account)):
            browser = APIClient(enforce_csrf_checks=True)
            self.assertEqual(browser.post(f"/api/{path}", body).status_code, 403)
            self.assertNotIn("sessionid", browser.cookies)
            browser.get("/")
            headers = {"X-CSRFToken": browser.cookies["csrftoken"].value}
            self.assertEqual(browser.post(f"/api/{path}", body, headers=headers).status_code, 200)


class HeaderTests(ApiCase):
    def test_no_script_runs_that_is_no_file_of_ours_and_no_answer_is_stored(self):
        page = self.client.get("/projects")
        policy = page.headers["Content-Security-Policy"]
        self.assertIn("default-src 'self'", policy)
        self.assertNotIn("script-src", policy)
        self.assertEqual(self.client.get("/api/projects/").headers["Cache-Control"], "no-store")

    def test_behind_a_proxy_with_tls_the_deployment_check_has_nothing_to_say(self):
        environment = {
            **os.environ,
            "DUNEFOLD_ORIGINS": "https://drawings.example",
            "DUNEFOLD_HOSTS": "drawings.example",
            "DUNEFOLD_DATA": str(self.data),
        }
        run = subprocess.run(
            [sys.executable, "manage.py", "check", "--deploy", "--fail-level", "WARNING"],
            cwd=settings.ROOT,
            env=environment,
            capture_output=True,
            text=True,
        )
        self.assertEqual(run.returncode, 0, run.stderr)
        self.assertIn("no issues", run.stdout)
        code = "from server.config.settings import SESSION_COOKIE_SECURE as secure; print(secure)"
        secure = subprocess.run(
            [sys.executable, "-c", code], cwd=settings.ROOT, env=environment, capture_output=True, text=True
        )
        self.assertEqual(secure.stdout.strip(), "True")
