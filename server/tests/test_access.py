"""Nothing without signing in, and nothing of anybody else's."""

from django.contrib.auth import get_user_model
from rest_framework.test import APIClient

from server.tests.api_case import ApiCase

COLLECTIONS = ("projects", "model-versions", "views", "sheets", "viewports", "jobs")


class AccessTests(ApiCase):
    def test_nothing_is_read_or_written_without_signing_in(self):
        anybody = APIClient()
        for path in (*(f"{c}/" for c in COLLECTIONS), "schema/", "ladder/", "templates/", "linework/abc/"):
            with self.subTest(path):
                self.assertEqual(anybody.get(f"/api/{path}").status_code, 403)
        self.assertEqual(anybody.post("/api/projects/", {"name": "x"}).status_code, 403)

    def test_a_project_of_somebody_else_is_as_good_as_none(self):
        project = self.project_with_model()
        sheet = self.call("post", "sheets/", {"project": project}, 201)["id"]
        view = self.view_named(project, "South elevation")
        viewport = self.call("post", "viewports/", {"sheet": sheet, "view": view["id"]}, 201)["id"]
        plot = self.call("post", "plots/", {"project": project}, 202)["id"]

        other = APIClient()
        other.force_login(get_user_model().objects.create_user("odd", password="samphire-89"))
        paths = (
            f"projects/{project}/",
            f"sheets/{sheet}/",
            f"sheets/{sheet}/display/",
            f"views/{view['id']}/",
            f"viewports/{viewport}/",
            f"jobs/{plot}/",
            f"plots/{plot}/file/",
            f"linework/{view['linework']}/",
        )
        for path in paths:
            with self.subTest(path):
                self.assertEqual(other.get(f"/api/{path}").status_code, 404)
                self.assertIn(other.delete(f"/api/{path}").status_code, (404, 405))
        for collection in COLLECTIONS:
            self.assertEqual(other.get(f"/api/{collection}/").json(), [])
        for path, body in (
            ("sheets/", {"project": project}),
            ("plots/", {"project": project}),
            ("views/", {"project": project, "spec": {"kind": "roof"}}),
            ("viewports/", {"sheet": sheet, "view": view["id"]}),
        ):
            with self.subTest(path):
                self.assertEqual(other.post(f"/api/{path}", body, format="json").status_code, 400)

    def test_rows_are_listed_by_project_and_what_is_no_id_is_refused(self):
        one, two = self.make_project("One"), self.make_project("Two")
        self.call("post", "sheets/", {"project": one}, 201)
        self.assertEqual(len(self.call("get", f"sheets/?project={one}")), 1)
        self.assertEqual(self.call("get", f"sheets/?project={two}"), [])
        for collection in COLLECTIONS[1:]:
            self.assertIn("“abc”", self.call("get", f"{collection}/?project=abc", status=400)["detail"])

    def test_signing_in_and_out(self):
        client = APIClient()
        self.assertEqual(client.get("/api/session/").json()["username"], "")
        wrong = client.post("/api/session/", {"username": "ines", "password": "sand"}, format="json")
        self.assertEqual(
            (wrong.status_code, wrong.json()["detail"]),
            (400, "Wrong name or password. Try again."),
        )
        client.post("/api/session/", {"username": "ines", "password": "samphire-88"}, format="json")
        self.assertEqual(client.get("/api/session/").json()["username"], "ines")
        client.delete("/api/session/")
        self.assertEqual(client.get("/api/projects/").status_code, 403)

    def test_every_page_is_the_one_page_and_an_unknown_api_path_is_not(self):
        self.assertContains(self.client.get("/projects/x/sheets"), '<div id="root">')
        self.assertEqual(self.client.get("/api/nothing/").status_code, 404)
