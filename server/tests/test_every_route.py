"""Every route of the API against those who have no business there: nobody, a stranger, and a token that may
only read. A route that is not known here is one that nobody has thought about, and fails."""

from __future__ import annotations

import re
import uuid
from typing import Any

from django.contrib.auth import get_user_model
from drf_spectacular.generators import EndpointEnumerator
from rest_framework.test import APIClient

from server.accounts.services import make_token
from server.projects.models import Project
from server.tests.api_case import ApiCase

#: What whoever comes may ask for, without an account: signing in, and what a link leads to.
FOR_ALL = re.compile(r"^/api/(session|invited/\{secret\}|reviewed/\{secret\})/")
#: What concerns whoever asks, or is the same for all who are signed in; what is built in stands beside what a
#: project has of its own.
OF_NO_PROJECT = re.compile(
    r"^/api/(account/preferences|account/signed-in|device-kinds|devices|fields|issue-choices|pen-parts|"
    r"pen-tables|plot-settings|rules|schema|symbols|templates)/"
)
#: Answers by which somebody learns nothing and does nothing.
REFUSED = {400, 401, 403, 404, 405, 415}
SAFE = {"GET", "HEAD", "OPTIONS"}


class EveryRouteTests(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.project = self.project_with_model()
        sheet = self.call("post", "sheets/", {"project": self.project}, 201)["id"]
        view = self.view_named(self.project, "South elevation")["id"]
        self.call("post", "viewports/", {"sheet": sheet, "view": view}, 201)
        self.call("post", "recipients/", {"project": self.project, "spec": {"name": "Anna"}}, 201)
        self.call("post", "plots/", {"project": self.project}, 202)
        self.routes = [
            (path, method, callback.cls)
            for path, _, method, callback in EndpointEnumerator().get_api_endpoints()
            if path != "/api/docs/"  # a page that shows the schema
        ]
        self.assertGreater(len(self.routes), 150)

    def filled(self, path: str, view: Any) -> str:
        """A route with the id of something of the project in it, where there is any; else with one that
        nothing has."""
        rows = getattr(view, "rows", None)
        row = rows().first() if callable(rows) else None
        own = str(row.pk) if row is not None else str(uuid.uuid4())

        def value(match: re.Match[str]) -> str:
            name = match[1]
            if name in ("id", "job", "pk"):
                return own
            return "7" if name in ("level", "row", "column", "entry") else "x" * 32

        return re.sub(r"\{(\w+)\}", value, path)

    def answers(
        self, client: APIClient, *, only: set[str] | None = None, but: re.Pattern[str]
    ) -> dict[str, int]:
        """How each route is answered that is asked with nothing in it, by its method and path."""
        found = {}
        for path, method, view in self.routes:
            if but.match(path) or (only is not None and method not in only):
                continue
            asked = self.filled(path, view)
            if method in SAFE and "{" not in path:
                asked += f"?project={self.project}"
            body = {} if method not in SAFE else None
            response = getattr(client, method.lower())(asked, body, format="json")
            found[f"{method} {path}"] = response.status_code
        return found

    def test_nobody_gets_anything_without_signing_in(self) -> None:
        found = self.answers(APIClient(), but=FOR_ALL)
        self.assertEqual({route: code for route, code in found.items() if code not in (401, 403)}, {})

    def test_a_token_that_may_only_read_changes_nothing_whatever_it_asks(self) -> None:
        _, token = make_token(self.user, "reads", "read")
        program = APIClient(HTTP_AUTHORIZATION=f"Bearer {token}")
        found = self.answers(program, only={"POST", "PATCH", "PUT", "DELETE"}, but=FOR_ALL)
        # What is the account's own is asked for by a browser that is signed in, and by no token at all.
        self.assertEqual({route: code for route, code in found.items() if code not in (401, 403)}, {})

    maxDiff = None

    def test_a_stranger_learns_nothing_of_a_project_and_does_nothing_in_it(self) -> None:
        stranger = APIClient()
        stranger.force_login(get_user_model().objects.create_user("odd", password="samphire-89"))
        before = list(Project.objects.values())
        found = {}
        for path, method, view in self.routes:
            if FOR_ALL.match(path):
                continue
            asked = self.filled(path, view)
            if method in SAFE and "{" not in path:
                asked += f"?project={self.project}"
            body = {"project": self.project} if method not in SAFE else None
            response = getattr(stranger, method.lower())(asked, body, format="json")
            said = b"" if response.streaming else response.content
            tells = said != b"[]" and (not OF_NO_PROJECT.match(path) or self.project.encode() in said)
            if response.status_code not in REFUSED and (response.streaming or tells):
                found[f"{method} {path}"] = (response.status_code, response.content[:200])
        self.assertEqual(found, {})
        self.assertEqual(list(Project.objects.values()), before)

    def test_a_link_that_is_none_leads_nowhere_whatever_is_asked_of_it(self) -> None:
        found = {}
        for path, method, view in self.routes:
            if "{secret}" in path:
                asked, body = self.filled(path, view), {} if method not in SAFE else None
                found[f"{method} {path}"] = getattr(APIClient(), method.lower())(asked, body).status_code
        self.assertGreater(len(found), 5)
        self.assertEqual({route: code for route, code in found.items() if code not in (400, 404)}, {})
