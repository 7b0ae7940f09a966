"""Two people in one project."""

from django.contrib.auth import get_user_model
from rest_framework.test import APIClient

from server.tests.api_case import ApiCase


class SharingTests(ApiCase):
    def setUp(self):
        super().setUp()
        self.project = self.project_with_model()
        self.odd = get_user_model().objects.create_user("odd", password="samphire-89")
        self.ines_client, self.odd_client = self.client, APIClient()
        self.odd_client.force_login(self.odd)

    def share(self):
        return self.call("post", f"projects/{self.project}/share/", {"username": "odd"})

    def test_a_shared_project_is_seen_and_worked_in_by_both(self):
        self.assertEqual(self.share()["members"], ["odd"])
        view = self.view_named(self.project, "Roof plan")
        self.client = self.odd_client
        self.assertFalse(self.call("get", f"projects/{self.project}/")["own"])
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
