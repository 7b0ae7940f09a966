"""The page of the stations: the first answers come with it, for nobody else than who may have them."""

from __future__ import annotations

import json
import re
from typing import Any
from unittest.mock import patch

from django.contrib.auth import get_user_model
from django.http import HttpResponse
from django.test import override_settings
from rest_framework.test import APIClient

from server.config import page
from server.tests.api_case import ApiCase

#: As the built page has it.
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "OPTIONS": {
            "loaders": [
                (
                    "django.template.loaders.locmem.Loader",
                    {"index.html": '<p>{{ answers|json_script:"answers" }}</p>'},
                )
            ]
        },
    }
]


@override_settings(TEMPLATES=TEMPLATES)
class PageTests(ApiCase):
    def answers(self, response: HttpResponse) -> dict[str, Any]:
        self.assertEqual(response.status_code, 200)
        found = re.search(r'<script id="answers"[^>]*>(.*)</script>', response.content.decode())
        assert found
        return json.loads(found[1])

    def test_what_a_page_asks_first_comes_with_it_as_the_api_answers_it(self):
        project = self.make_project("Quay </script> house")
        self.call("post", "sheets/", {"project": project, "number": "A-01", "paper": "A1"}, 201)
        path = f"/projects/{project}/sheets"
        answers = self.answers(self.client.get(path))
        self.assertEqual(list(answers), page.first_asked(path))
        for address, answer in answers.items():
            self.assertEqual(answer, json.loads(self.client.get(address).content), address)
        self.assertEqual(
            [sheet["number"] for sheet in answers[page.first_asked(path)[-1]]["sheets"]], ["A-01"]
        )
        listed = self.answers(self.client.get("/"))["/api/projects/"]
        self.assertEqual([row["name"] for row in listed], ["Quay </script> house"])

    def test_it_is_kept_by_no_browser(self):
        self.assertIn("no-store", self.client.get("/").headers["Cache-Control"])

    def test_nobody_is_given_what_is_not_theirs(self):
        path = f"/projects/{self.make_project()}/sheets"
        somebody = APIClient()
        self.assertEqual(self.answers(somebody.get(path))["/api/session/"]["username"], "")
        self.assertEqual(list(self.answers(somebody.get(path))), ["/api/session/"])
        somebody.force_login(get_user_model().objects.create_user("odd", password="samphire-88"))
        account = ["/api/session/", "/api/account/preferences/"]
        self.assertEqual(list(self.answers(somebody.get(path))), account)
        for strange in ("none", "a.b", "%3Fx", "6F1C2A9E"):
            self.assertEqual(list(self.answers(self.client.get(f"/projects/{strange}/sheets"))), account)
        # Who comes to review has no account here, whoever else is signed in.
        self.assertEqual(self.answers(self.client.get("/review/abc")), {})

    def test_a_long_answer_is_left_to_be_asked_for(self):
        path = f"/projects/{self.make_project()}/views"
        with patch.object(page, "MAX_ANSWER", 100):
            answers = self.answers(self.client.get(path))
        self.assertEqual(list(answers), ["/api/session/"])

    def test_an_answer_that_fails_takes_nothing_else_with_it(self):
        path = f"/projects/{self.make_project()}/sheets"
        with (
            patch("server.changes.viewsets.json_of_several", side_effect=RuntimeError),
            self.assertLogs("server.common.problems", "ERROR"),
        ):
            answers = self.answers(self.client.get(path))
        self.assertEqual(list(answers), page.first_asked(path)[:-1])
