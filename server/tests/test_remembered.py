"""Who a request comes from is read once, and again when anything was written."""

import threading

from django.conf import settings
from django.contrib.auth import get_user_model
from django.contrib.sessions.models import Session
from django.db import connection
from django.test import Client
from django.test.utils import CaptureQueriesContext

from server.accounts.remembered import Users
from server.projects.models import Project
from server.sheets.models import Sheet
from server.tests.committed_case import CommittedCase


def elsewhere(work):
    """Do something as another process would: with another connection."""

    def run():
        work()
        connection.close()

    other = threading.Thread(target=run)
    other.start()
    other.join(10)


class RememberedTests(CommittedCase):
    def setUp(self):
        self.user = get_user_model().objects.create_user("ines", password="samphire-88")
        self.here = Client()
        self.here.force_login(self.user, backend=settings.AUTHENTICATION_BACKENDS[-1])

    def name(self):
        return self.here.get("/api/session/").json()["username"]

    def test_nobody_is_asked_for_twice_while_nothing_is_written(self):
        self.name()
        with CaptureQueriesContext(connection) as asked:
            self.assertEqual(self.name(), "ines")
        self.assertEqual([q["sql"] for q in asked if "session" in q["sql"] or "auth_user" in q["sql"]], [])

    def test_a_session_that_is_ended_elsewhere_is_ended_at_once(self):
        self.assertEqual(self.name(), "ines")
        elsewhere(lambda: Session.objects.all().delete())
        self.assertFalse(self.name())

    def test_who_may_not_sign_in_any_more_is_out_at_once(self):
        self.assertEqual(self.name(), "ines")
        elsewhere(lambda: get_user_model().objects.update(is_active=False))
        self.assertFalse(self.name())

    def test_a_session_that_runs_out_is_over_though_nothing_was_written(self):
        session = self.here.session
        session.set_expiry(1)
        session.save()
        self.assertEqual(self.name(), "ines")
        threading.Event().wait(1.1)
        self.assertFalse(self.name())

    def test_what_a_request_does_to_its_user_is_not_seen_by_others(self):
        one, other = Users().get_user(self.user.pk), Users().get_user(self.user.pk)
        one.first_name = "Ines"
        self.assertEqual((other.first_name, Users().get_user(self.user.pk).first_name), ("", ""))

    def test_who_is_taken_out_of_a_project_sees_its_sheets_no_longer(self):
        owner = get_user_model().objects.create_user("per")
        project = Project.objects.create(owner=owner, name="Kiln")
        sheet = Sheet.objects.create(project=project, number="A-01", title="Plan", position=0, paper="A3")
        project.members.add(self.user)
        shown = f"/api/sheets/{sheet.pk}/display/"
        self.assertEqual([self.here.get(shown).status_code for _ in range(2)], [200, 200])
        elsewhere(lambda: project.members.clear())
        self.assertEqual(self.here.get(shown).status_code, 404)
        self.assertEqual(self.here.get("/api/sheets/none/display/").status_code, 404)
