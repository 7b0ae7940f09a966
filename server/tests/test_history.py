"""What was done to a sheet, by whom, in words; and going back to what it was."""

import uuid

from django.contrib.auth import get_user_model

from server.changes.history import MAX_ENTRIES
from server.changes.models import HistoryEntry
from server.sheets.models import Sheet, Viewport
from server.tests.api_case import ApiCase


class HistoryTests(ApiCase):
    def setUp(self):
        super().setUp()
        self.project = self.project_with_model()
        self.sheet = self.call("post", "sheets/", {"project": self.project, "title": "Plan"}, 201)["id"]
        self.view = self.view_named(self.project, "South elevation")["id"]

    def change(self, what, *steps):
        self.call("post", "changes/", {"what": what, "steps": list(steps)})

    def step(self, rows, pk, row):
        kinds = {"sheets": Sheet, "viewports": Viewport}
        there = kinds[rows].objects.filter(pk=pk).first()
        return {"rows": rows, "id": pk, "version": there.version if there else 0, "row": row}

    def retitled(self, title):
        self.change(f"title of {title}", self.step("sheets", self.sheet, {"title": title}))

    def history(self, subject=None):
        return self.call("get", f"history/?subject={subject or self.sheet}")

    def go_back(self, entry, status=200):
        return self.call("get", f"history/{entry}/back/?subject={self.sheet}", status=status)

    def make(self, steps):
        versions = [self.step(s["rows"], str(s["id"]), s["after"]) for s in steps]
        self.change("go back", *versions)

    def test_it_says_what_was_done_by_whom_the_newest_first(self):
        self.retitled("Ground floor")
        sheet = self.call("get", f"sheets/{self.sheet}/")
        self.call("patch", f"sheets/{self.sheet}/", {"title": "Upper floor", "version": sheet["version"]})
        told = [(entry["what"], entry["by"]) for entry in self.history()]
        self.assertEqual(
            told, [("change a sheet", "ines"), ("title of Ground floor", "ines"), ("add a sheet", "ines")]
        )

    def test_a_write_that_changes_nothing_and_one_that_fails_are_no_history(self):
        before = len(self.history())
        self.retitled("Plan")
        stale = {"rows": "sheets", "id": self.sheet, "version": 99, "row": {"title": "Other"}}
        self.call("post", "changes/", {"what": "stale", "steps": [stale]}, 409)
        self.assertEqual(len(self.history()), before)

    def test_what_stands_on_a_sheet_is_of_its_history_and_of_its_views(self):
        viewport = self.call("post", "viewports/", {"sheet": self.sheet, "view": self.view}, 201)["id"]
        self.change("move a viewport", self.step("viewports", viewport, {"x": 61.0}))
        self.assertEqual(self.history()[0]["what"], "move a viewport")
        self.assertEqual(self.history(self.view)[0]["what"], "move a viewport")
        self.assertEqual(self.history(uuid.uuid4()), [])

    def test_going_back_restores_fields_and_what_was_deleted_and_removes_what_was_added(self):
        kept = self.call("post", "viewports/", {"sheet": self.sheet, "view": self.view}, 201)
        then = self.history()[0]["id"]
        self.retitled("Ground floor")
        self.change("move", self.step("viewports", kept["id"], {"x": 61.0, "framed": True}))
        added = self.call("post", "viewports/", {"sheet": self.sheet, "view": self.view}, 201)["id"]
        self.change("delete", self.step("viewports", kept["id"], None))
        steps = self.go_back(then)
        self.assertEqual(
            {(s["rows"], str(s["id"]), s["before"] is None, s["after"] is None) for s in steps},
            {
                ("sheets", self.sheet, False, False),
                ("viewports", added, False, True),
                ("viewports", kept["id"], True, False),
            },
        )
        self.make(steps)
        self.assertEqual(Sheet.objects.get().title, "Plan")
        back = Viewport.objects.get()
        self.assertEqual((str(back.pk), back.x, back.framed), (kept["id"], kept["x"], False))
        # Going back is a change like any other, and can be gone back from.
        self.assertEqual(self.history()[0]["what"], "go back")
        self.make(self.go_back(self.history()[1]["id"]))
        self.assertEqual(Sheet.objects.get().title, "Ground floor")
        self.assertEqual([str(v.pk) for v in Viewport.objects.all()], [added])

    def test_going_to_what_it_is_already_says_so(self):
        self.assertIn("nothing to go back to", self.go_back(self.history()[0]["id"], 400)["detail"])

    def test_it_is_bounded_and_of_ones_own_projects(self):
        for number in range(MAX_ENTRIES + 5):
            self.retitled(f"Plan {number}")
        self.assertEqual(len(self.history()), MAX_ENTRIES)
        entry = HistoryEntry.objects.first().pk
        self.client.force_login(get_user_model().objects.create_user("olaf", password="x"))
        self.assertEqual(self.history(), [])
        self.go_back(entry, 404)
        self.call("get", "history/?subject=x", status=400)
