"""Two people in one project."""

import uuid

from django.contrib.auth import get_user_model
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone
from rest_framework.test import APIClient

from server.accounts.services import make_token
from server.projects.invitations import MAX_OPEN
from server.projects.models import Invitation
from server.tests.api_case import ApiCase


class TwoPeople(ApiCase):
    def setUp(self):
        super().setUp()
        self.project = self.project_with_model()
        self.odd = get_user_model().objects.create_user("odd", password="samphire-89")
        self.ines_client, self.odd_client = self.client, APIClient()
        self.odd_client.force_login(self.odd)

    def share(self):
        return self.call("post", f"projects/{self.project}/share/", {"username": "odd"})


class SharingTests(TwoPeople):
    def test_a_shared_project_is_seen_and_worked_in_by_both(self):
        self.assertEqual(self.share()["members"], ["odd"])
        view = self.view_named(self.project, "Roof plan")
        self.client = self.odd_client
        self.assertFalse(self.call("get", f"projects/{self.project}/")["own"])
        # Whatever else is asked for, each is told of their own.
        self.assertEqual([p["own"] for p in self.call("get", f"projects/?project={self.project}")], [False])
        self.call("patch", f"views/{view['id']}/", {"name": "Roof", "version": view["version"]})
        self.assertEqual(self.client.get(f"/api/linework/{view['linework']}/").status_code, 200)
        self.call("post", "sheets/", {"project": self.project}, 201)
        self.client = self.ines_client
        self.assertEqual(self.view_named(self.project, "Roof")["id"], view["id"])
        self.assertEqual(len(self.call("get", f"sheets/?project={self.project}")), 1)

    def test_a_clash_is_reported_with_what_the_other_has_made_of_it(self):
        self.share()
        view = self.view_named(self.project, "Roof plan")
        self.client = self.odd_client
        self.call("patch", f"views/{view['id']}/", {"name": "Roof", "version": view["version"]})
        self.client = self.ines_client
        refused = self.call("patch", f"views/{view['id']}/", {"name": "Top", "version": view["version"]}, 409)
        self.assertEqual(refused["current"]["name"], "Roof")

    def test_only_the_owner_shares_and_deletes(self):
        self.share()
        self.client = self.odd_client
        self.call("post", f"projects/{self.project}/share/", {"username": "ines"}, 403)
        self.call("delete", f"projects/{self.project}/", status=403)

    def test_who_is_taken_out_sees_it_no_longer(self):
        self.share()
        self.call("post", f"projects/{self.project}/unshare/", {"username": "odd"})
        self.client = self.odd_client
        self.call("get", f"projects/{self.project}/", status=404)
        self.assertEqual(self.call("get", f"views/?project={self.project}"), [])

    def test_a_name_that_nobody_has_is_reported(self):
        for name in ("nobody", "ines"):
            sentence = self.call("post", f"projects/{self.project}/share/", {"username": name}, 400)["detail"]
            self.assertIn(f"“{name}”", sentence)


class InvitationTests(ApiCase):
    def setUp(self):
        super().setUp()
        self.project = self.make_project()
        self.ines_client = self.client

    def invited(self):
        self.client = self.ines_client
        return self.call("post", f"projects/{self.project}/invite/", status=201)["secret"]

    def test_somebody_new_comes_in_by_a_link_once(self):
        secret = self.invited()
        self.client = APIClient()
        told = self.call("get", f"invited/{secret}/")
        self.assertEqual((told["project"], told["by"]), ("Quay house", "ines"))
        taken = self.call(
            "post", f"invited/{secret}/", {"username": "ines", "password": "marram-grass-41"}, 400
        )
        self.assertIn("already exists", str(taken))
        self.call("post", f"invited/{secret}/", {"username": "mira", "password": "password"}, 400)
        self.assertFalse(get_user_model().objects.filter(username="mira").exists())
        said = {"username": "mira", "password": "marram-grass-41"}
        self.assertEqual(self.call("post", f"invited/{secret}/", said)["project"], self.project)
        self.assertEqual(self.call("get", "session/")["username"], "mira")
        self.assertEqual([p["name"] for p in self.call("get", "projects/")], ["Quay house"])
        self.client = APIClient()
        self.call("get", f"invited/{secret}/", status=404)
        self.call("post", f"invited/{secret}/", {**said, "username": "other"}, 404)

    def test_who_is_signed_in_joins_and_the_owner_stays_the_owner(self):
        odd = get_user_model().objects.create_user("odd", password="samphire-89")
        secret = self.invited()
        self.client = APIClient()
        self.client.force_login(odd)
        self.call("post", f"invited/{secret}/")
        self.assertFalse(self.call("get", f"projects/{self.project}/")["own"])
        secret = self.invited()
        self.call("post", f"invited/{secret}/")
        self.assertEqual(self.call("get", f"projects/{self.project}/")["members"], ["odd"])

    def test_an_invitation_is_withdrawn_and_ends_and_only_the_owner_invites(self):
        secret = self.invited()
        (row,) = self.call("get", f"projects/{self.project}/invitations/")
        self.assertNotIn("secret", row)
        self.call("delete", f"invitations/{row['id']}/", status=204)
        self.call("get", f"invited/{secret}/", status=404)
        secret = self.invited()
        Invitation.objects.update(until=timezone.now())
        self.call("get", f"invited/{secret}/", status=404)
        self.assertEqual(self.call("get", f"projects/{self.project}/invitations/"), [])

        odd = get_user_model().objects.create_user("odd", password="samphire-89")
        self.call("post", f"projects/{self.project}/share/", {"username": "odd"})
        secret = self.invited()
        (row,) = self.call("get", f"projects/{self.project}/invitations/")
        self.client = APIClient()
        self.client.force_login(odd)
        self.call("post", f"projects/{self.project}/invite/", status=403)
        self.call("delete", f"invitations/{row['id']}/", status=404)

    def test_open_invitations_are_bounded(self):
        for _ in range(MAX_OPEN):
            self.invited()
        self.call("post", f"projects/{self.project}/invite/", status=400)


class RoleTests(ApiCase):
    """What drafters, checkers and readers may do in another's project, and who is named where one may not."""

    def setUp(self):
        super().setUp()
        self.project = self.project_with_model()
        self.sheet = self.call("post", "sheets/", {"project": self.project, "title": "Plan"}, 201)
        self.view = self.view_named(self.project, "Roof plan")
        self.clients = {"ines": self.client}
        for name, role in (("dag", "drafter"), ("cleo", "checker"), ("rui", "reader")):
            user = get_user_model().objects.create_user(name, password="samphire-89")
            self.clients[name] = APIClient()
            self.clients[name].force_login(user)
            self.call("post", f"projects/{self.project}/share/", {"username": name, "role": role})

    def by(self, name, method, path, body=None, status=200):
        self.client = self.clients[name]
        return self.call(method, path, body, status)

    def change(self, name, status=200, **values):
        version = self.by("ines", "get", f"sheets/{self.sheet['id']}/")["version"]
        return self.by(name, "patch", f"sheets/{self.sheet['id']}/", {**values, "version": version}, status)

    def batch(self, name, status=200, **values):
        version = self.by("ines", "get", f"sheets/{self.sheet['id']}/")["version"]
        step = {"rows": "sheets", "id": self.sheet["id"], "version": version, "row": values}
        return self.by(name, "post", "changes/", {"steps": [step], "what": "x"}, status)

    def test_each_sees_their_role_and_that_of_the_others(self):
        told = self.by("cleo", "get", f"projects/{self.project}/")
        self.assertEqual(told["role"], "checker")
        self.assertEqual(told["roles"], {"dag": "drafter", "cleo": "checker", "rui": "reader"})
        self.assertEqual(self.by("ines", "get", f"projects/{self.project}/")["role"], "owner")
        self.by("ines", "post", f"projects/{self.project}/share/", {"username": "rui", "role": "drafter"})
        self.assertEqual(self.by("rui", "get", f"projects/{self.project}/")["role"], "drafter")
        self.by("ines", "post", f"projects/{self.project}/share/", {"username": "rui", "role": "king"}, 400)

    def test_all_look_and_plot(self):
        for name in self.clients:
            self.assertEqual(len(self.by(name, "get", f"sheets/?project={self.project}")), 1)
            self.by(name, "post", "plots/", {"project": self.project}, 202)
            self.by(name, "post", "checks/", {"project": self.project}, 202)

    def test_only_those_who_draw_change_the_set_one_by_one_or_in_a_batch(self):
        for way in (self.change, self.batch):
            way("dag", title="Ground floor")
            for name in ("cleo", "rui"):
                refused = way(name, 403, title="Mine")["detail"]
                self.assertIn("cannot change it. ines, dag can.", refused)
        self.assertEqual(self.by("ines", "get", f"sheets/{self.sheet['id']}/")["title"], "Ground floor")

    def test_whatever_changes_a_project_asks_for_a_role(self):
        given = {"project": self.project}
        for path, body in (
            ("sheets/", given), ("views/standard/", given), ("recipients/", {**given, "spec": {"name": "x"}}),
            (f"views/{self.view['id']}/draw/", None),
            ("views/change-settings/", {"views": [self.view["id"]], "line_settings": {"hidden": True}}),
             ("views/bring-up-to-date/", given),
            (f"sheets/{self.sheet['id']}/arrange/", {"views": [self.view["id"]]}),
            ("issues/", {**given, "name": "x", "date": "2031-01-01", "sheets": [], "recipients": []}),
            ("reviews/", {**given, "name": "x", "until": "2099-01-01T00:00:00Z"}),
        ):  # fmt: skip
            self.assertIn("reader of", self.by("rui", "post", path, body, 403)["detail"], path)
        self.assertEqual(len(self.by("rui", "get", f"sheets/?project={self.project}")), 1)
        self.by("rui", "delete", f"sheets/{self.sheet['id']}/", status=403)
        self.by("dag", "post", f"projects/{self.project}/share/", {"username": "rui"}, 403)

    def test_only_those_who_check_sign(self):
        for way, day in ((self.change, "2031-05-04"), (self.batch, "2031-05-05")):
            way("cleo", checker="Cleo", checked_on=day)
            way("ines", approver="Ines", approved_on=day)
            refused = way("dag", 403, checker="Dag")["detail"]
            self.assertIn("cannot sign its sheets as checked or approved. ines, cleo can.", refused)
            # Nor beside something that one may change.
            way("dag", 403, title="x", approver="Dag")
            way("cleo", 403, title="x", checker="Cleo R.")
        told = self.by("ines", "get", f"sheets/{self.sheet['id']}/")
        self.assertEqual((told["checker"], told["approver"]), ("Cleo", "Ines"))

    def test_checkers_let_findings_stand_and_readers_do_not(self):
        waiver = {"project": self.project, "finding": "f1", "words": "x", "reason": "It is meant so."}
        self.by("rui", "post", "waivers/", waiver, 403)
        self.by("cleo", "post", "waivers/", waiver, 201)

    def test_an_invitation_is_to_a_role(self):
        told = self.by("ines", "post", f"projects/{self.project}/invite/", {"role": "checker"}, 201)
        self.client = APIClient()
        self.call("post", f"invited/{told['secret']}/", {"username": "nils", "password": "samphire-89-x"})
        self.assertEqual(self.call("get", f"projects/{self.project}/")["role"], "checker")


class SignatureTests(TwoPeople):
    """Nobody who may not sign makes a sheet that says it was checked."""

    def setUp(self):
        super().setUp()
        self.share()

    def test_a_drafter_makes_no_sheet_that_is_signed(self):
        self.client = self.odd_client
        for signed in ({"approver": "Ines"}, {"checker": "Ines", "checked_on": "2031-05-04"}):
            self.call("post", "sheets/", {"project": self.project, **signed}, 403)
        sheet = self.call("post", "sheets/", {"project": self.project}, 201)
        steps = [
            {"rows": "sheets", "id": sheet["id"], "version": 1, "row": None},
            {
                "rows": "sheets",
                "id": sheet["id"],
                "version": 0,
                "row": {"project": self.project, "number": "A-01", "approver": "Ines"},
            },
        ]
        self.call("post", "changes/", {"what": "forge", "steps": steps}, 403)
        self.assertEqual(self.call("get", f"sheets/{sheet['id']}/")["approver"], "")

    def test_a_deletion_of_a_signed_sheet_is_undone_by_whoever_made_it(self):
        signed = {"project": self.project, "approver": "Ines", "approved_on": "2031-05-04"}
        sheet = self.call("post", "sheets/", signed, 201)
        self.client = self.odd_client
        gone = {"rows": "sheets", "id": sheet["id"], "version": 1, "row": None}
        self.call("post", "changes/", {"what": "delete", "steps": [gone]})
        row = {**signed, "number": sheet["number"]}
        again = {"rows": "sheets", "id": sheet["id"], "version": 0, "row": row}
        forged = {**again, "row": {**row, "approver": "Odd"}}
        self.call("post", "changes/", {"what": "forge", "steps": [forged]}, 403)
        self.call("post", "changes/", {"what": "undo", "steps": [again]})
        self.assertEqual(self.call("get", f"sheets/{sheet['id']}/")["approver"], "Ines")

    def test_changes_of_two_projects_are_refused_together(self):
        other = self.call("post", "projects/", {"name": "Other"}, 201)["id"]
        steps = [
            {
                "rows": "sheets",
                "id": str(uuid.uuid4()),
                "version": 0,
                "row": {"project": project, "title": "x"},
            }
            for project in (self.project, other)
        ]
        self.client = self.ines_client
        said = self.call("post", "changes/", {"what": "add", "steps": steps}, 400)["detail"]
        self.assertIn("two projects", said)
        self.assertEqual(self.call("get", f"sheets/?project={self.project}"), [])

    def test_a_role_is_asked_of_the_database_once_for_a_batch(self):
        self.client = self.odd_client

        def asked(count):
            steps = [
                {"rows": "sheets", "id": str(uuid.uuid4()), "version": 0, "row": {"project": self.project}}
                for _ in range(count)
            ]
            with CaptureQueriesContext(connection) as found:
                self.call("post", "changes/", {"what": "add", "steps": steps})
            return sum('FROM "projects_membership"' in each["sql"] for each in found)

        self.assertEqual(asked(12), asked(2))

    def test_a_token_that_may_only_read_takes_no_invitation(self):
        made = self.call("post", f"projects/{self.project}/invite/", {"role": "reader"}, 201)
        mira = get_user_model().objects.create_user("mira", password="samphire-90")
        _, token = make_token(mira, "reads", "read")
        program = APIClient(HTTP_AUTHORIZATION=f"Bearer {token}")
        answer = program.post(f"/api/invited/{made['secret']}/", {}, format="json")
        self.assertEqual(answer.status_code, 403)
        self.assertFalse(Invitation.objects.exclude(used_by=None).exists())
