"""Several rows changed at once: all of them, or none."""

import uuid

from server.projects.models import Project
from server.sheets.models import Sheet, Viewport
from server.tests.api_case import ApiCase


class ChangesTests(ApiCase):
    def setUp(self):
        super().setUp()
        self.project = self.project_with_model()
        self.view = self.view_named(self.project, "South elevation")["id"]
        self.sheet = self.call("post", "sheets/", {"project": self.project}, 201)["id"]
        self.placed = self.call("post", "viewports/", {"sheet": self.sheet, "view": self.view}, 201)

    def make(self, *steps, status=200):
        body = [{"rows": rows, "id": str(pk), "version": version, "row": row} for rows, pk, version, row in steps]
        answer = self.call("post", "changes/", {"steps": body}, status)
        return answer["rows"] if status == 200 else answer

    def copy_of(self, viewport, **given):
        return {k: v for k, v in {**viewport, **given}.items() if k not in ("id", "version")}

    def test_rows_are_made_changed_and_deleted_in_one_go(self):
        sheet, copy = uuid.uuid4(), uuid.uuid4()
        made = self.make(
            ("sheets", sheet, 0, {"project": self.project, "title": "Copy"}),
            ("viewports", copy, 0, self.copy_of(self.placed, sheet=str(sheet))),
            ("viewports", self.placed["id"], 1, {"x": 44.0}),
        )
        self.assertEqual([row["version"] for row in made], [1, 1, 2])
        self.assertEqual((made[0]["number"], made[1]["scale"], made[2]["x"]), ("A-02", self.placed["scale"], 44.0))
        self.assertEqual(self.make(("viewports", copy, 1, None), ("sheets", sheet, 1, None)), [None, None])
        self.assertEqual((Sheet.objects.count(), Viewport.objects.count()), (1, 1))

    def test_one_that_cannot_be_made_makes_none(self):
        answer = self.make(
            ("viewports", self.placed["id"], 1, {"x": 44.0}),
            ("viewports", uuid.uuid4(), 0, self.copy_of(self.placed, width=-3)),
            status=400,
        )
        self.assertIn("too small", answer["detail"])
        self.assertEqual(Viewport.objects.get().x, self.placed["x"])

    def test_a_change_that_is_sent_twice_is_made_once(self):
        copy, name = str(uuid.uuid4()), str(uuid.uuid4())
        steps = [
            {"rows": "viewports", "id": copy, "version": 0, "row": self.copy_of(self.placed)},
            {"rows": "viewports", "id": self.placed["id"], "version": 1, "row": {"x": 44.0}},
        ]
        first, again = (self.call("post", "changes/", {"change": name, "steps": steps}) for _ in range(2))
        self.assertEqual([r["version"] for r in again["rows"]], [r["version"] for r in first["rows"]])
        self.assertEqual((Viewport.objects.count(), Viewport.objects.get(pk=self.placed["id"]).version), (2, 2))
        # One that failed can be sent again under its name.
        wrong = {"change": str(uuid.uuid4()), "steps": [{**steps[1], "row": {"width": -1}}]}
        for _ in range(2):
            self.call("post", "changes/", wrong, 400)

    def test_a_clash_names_the_row_as_it_is_and_changes_nothing(self):
        self.make(("viewports", self.placed["id"], 1, {"y": 77.0}))
        steps = (("sheets", self.sheet, 1, {"title": "No"}), ("viewports", self.placed["id"], 1, {"x": 44.0}))
        current = self.make(*steps, status=409)["current"]
        self.assertEqual((current["rows"], current["row"]["y"], current["row"]["version"]), ("viewports", 77.0, 2))
        self.assertEqual(Sheet.objects.get().title, "")

    def test_what_somebody_deleted_cannot_be_changed_but_may_be_deleted_again(self):
        Viewport.objects.all().delete()
        current = self.make(("viewports", self.placed["id"], 1, {"x": 44.0}), status=409)["current"]
        self.assertIsNone(current["row"])
        self.assertEqual(self.make(("viewports", self.placed["id"], 1, None)), [None])

    def test_a_view_that_is_made_is_drawn_and_one_that_comes_back_brings_its_viewports(self):
        view = self.call("get", f"views/{self.view}/")
        self.make(("viewports", self.placed["id"], 1, None), ("views", self.view, 1, None))
        made = self.make(("views", self.view, 0, view), ("viewports", self.placed["id"], 0, self.placed))
        self.assertEqual(made[1]["id"], self.placed["id"])
        self.assertEqual(self.call("get", f"views/{self.view}/")["state"], "fresh")

    def test_nobody_changes_what_is_not_theirs(self):
        Project.objects.update(owner=self.somebody_else())
        self.make(("viewports", self.placed["id"], 1, {"x": 44.0}), status=409)
        self.make(("viewports", uuid.uuid4(), 0, self.copy_of(self.placed)), status=400)
        self.assertEqual(self.make(("sheets", self.sheet, 1, None)), [None])
        self.assertEqual((Sheet.objects.count(), Viewport.objects.count()), (1, 1))

    def somebody_else(self):
        return type(self.user).objects.create_user("odd", password="samphire-89")
