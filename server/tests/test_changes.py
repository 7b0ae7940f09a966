"""Several rows changed at once: all of them, or none."""

import uuid

from django.contrib.auth import get_user_model
from django.db import connection
from django.test.utils import CaptureQueriesContext

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
        body = [
            {"rows": rows, "id": str(pk), "version": version, "row": row} for rows, pk, version, row in steps
        ]
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
        self.assertEqual(
            (made[0]["number"], made[1]["scale"], made[2]["x"]), ("A-02", self.placed["scale"], 44.0)
        )
        self.assertEqual(self.make(("viewports", copy, 1, None), ("sheets", sheet, 1, None)), [None, None])
        self.assertEqual((Sheet.objects.count(), Viewport.objects.count()), (1, 1))

    def test_rows_of_several_kinds_come_in_one_answer_as_their_own_lists_have_them(self):
        kinds = {"sheets": "sheets", "viewports": "viewports", "pen_tables": "pen-tables",
                 "registers": "registers", "comments": "comments"}  # fmt: skip
        asked = "&".join(f"kinds={kind}" for kind in kinds)
        together = self.call("get", f"rows/?project={self.project}&{asked}")
        for kind, path in kinds.items():
            self.assertEqual(together[kind], self.call("get", f"{path}/?project={self.project}"), kind)
        self.assertEqual((len(together["viewports"]), len(together["registers"])), (1, 1))

    def test_rows_are_told_to_those_who_work_in_the_project_alone(self):
        asked = f"rows/?project={self.project}&kinds=sheets"
        self.assertIn("ghosts", str(self.call("get", f"{asked}&kinds=ghosts", status=400)))
        self.client.force_login(get_user_model().objects.create_user("stranger"))
        self.call("get", asked, status=400)
        self.assertEqual(self.call("get", f"sheets/?project={self.project}"), [])

    def test_a_viewport_that_is_moved_asks_little_of_the_database(self):
        self.make(("viewports", self.placed["id"], 1, {"x": 44.0}))
        with CaptureQueriesContext(connection) as asked:
            self.make(("viewports", self.placed["id"], 2, {"x": 45.0}))
        reads = [each["sql"] for each in asked if each["sql"].startswith("SELECT")]
        writes = [each["sql"] for each in asked if each["sql"].startswith(("UPDATE", "INSERT"))]
        # Who asks, the row as one sees it, under the lock, and as it is sent; and what project it is of.
        self.assertLessEqual(len(reads), 6)
        # The row, and what is kept of it in the history.
        self.assertEqual(len(writes), 3)

    def test_a_pin_holds_what_is_sent_in_one_change_with_others(self):
        self.make(("viewports", self.placed["id"], 1, {"pinned": True}))
        answer = self.make(("viewports", self.placed["id"], 2, {"x": 44.0}), status=400)
        self.assertIn("pinned", answer["detail"])
        self.make(("viewports", self.placed["id"], 2, {"x": 44.0, "pinned": False}))

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
        self.assertEqual(
            (Viewport.objects.count(), Viewport.objects.get(pk=self.placed["id"]).version), (2, 2)
        )
        # One that failed can be sent again under its name.
        wrong = {"change": str(uuid.uuid4()), "steps": [{**steps[1], "version": 2, "row": {"width": -1}}]}
        for _ in range(2):
            self.call("post", "changes/", wrong, 400)

    def test_a_clash_names_the_row_as_it_is_and_changes_nothing(self):
        self.make(("viewports", self.placed["id"], 1, {"y": 77.0}))
        steps = (("sheets", self.sheet, 1, {"title": "No"}), ("viewports", self.placed["id"], 1, {"x": 44.0}))
        current = self.make(*steps, status=409)["current"]
        self.assertEqual(
            (current["rows"], current["row"]["y"], current["row"]["version"]), ("viewports", 77.0, 2)
        )
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
        self.assertEqual(self.call("get", f"views/{self.view}/")["state"], "up_to_date")

    def test_nobody_changes_what_is_not_theirs(self):
        Project.objects.update(owner=self.somebody_else())
        self.make(("viewports", self.placed["id"], 1, {"x": 44.0}), status=409)
        self.make(("viewports", uuid.uuid4(), 0, self.copy_of(self.placed)), status=400)
        self.assertEqual(self.make(("sheets", self.sheet, 1, None)), [None])
        self.assertEqual((Sheet.objects.count(), Viewport.objects.count()), (1, 1))

    def somebody_else(self):
        return type(self.user).objects.create_user("odd", password="samphire-89")

    def test_a_deletion_from_an_older_version_is_refused_and_deletes_nothing(self):
        self.make(("viewports", self.placed["id"], 1, {"y": 77.0}))
        current = self.make(("viewports", self.placed["id"], 1, None), status=409)["current"]
        self.assertEqual(current["row"]["version"], 2)
        path = f"viewports/{self.placed['id']}/"
        self.call("delete", f"{path}?version=1", status=409)
        self.call("delete", f"{path}?version=2", status=204)

    def test_each_of_many_sheets_that_are_made_at_once_is_a_question_to_the_database(self):
        def asked(count):
            """How often the database is asked while so many are made."""
            with CaptureQueriesContext(connection) as captured:
                self.make(*(("sheets", uuid.uuid4(), 0, {"project": self.project}) for _ in range(count)))
            return len(captured)

        few, many = asked(5), asked(25)
        self.assertEqual(many - few, 20)
        numbers = [sheet.number for sheet in Sheet.objects.filter(project=self.project).order_by("position")]
        self.assertEqual(numbers[-30:], [f"A-{n:02}" for n in range(len(numbers) - 29, len(numbers) + 1)])

    def test_numbers_change_places_in_one_change_and_none_is_there_twice(self):
        other = self.call("post", "sheets/", {"project": self.project}, 201)["id"]
        self.make(("sheets", self.sheet, 1, {"number": "A-02"}), ("sheets", other, 1, {"number": "A-01"}))
        self.assertEqual([s.number for s in Sheet.objects.order_by("number")], ["A-01", "A-02"])
        refused = self.make(("sheets", self.sheet, 2, {"number": "A-01"}), status=400)
        self.assertIn("A-01 is the number of another sheet", refused["detail"])

    def test_a_number_is_free_again_as_soon_as_its_sheet_has_another(self):
        first, second = ({"project": self.project, "number": number} for number in ("A-07", "A-01"))
        made = self.make(
            ("sheets", uuid.uuid4(), 0, first),
            ("sheets", self.sheet, 1, {"number": "A-09"}),
            ("sheets", uuid.uuid4(), 0, second),
        )
        self.assertEqual([row["number"] for row in made], ["A-07", "A-09", "A-01"])
        for number in ("A-09", "A-07"):
            refused = self.make(("sheets", uuid.uuid4(), 0, {**first, "number": number}), status=400)
            self.assertIn(f"{number} is the number of another sheet", refused["detail"])
        twice = [("sheets", uuid.uuid4(), 0, {**first, "number": "A-20"}) for _ in range(2)]
        self.assertIn("A-20 is the number of another sheet", self.make(*twice, status=400)["detail"])

    def test_an_id_is_one_rows_alone(self):
        new = {"project": self.project}
        for pk in (self.sheet, uuid.uuid4()):
            steps = [("sheets", pk, 0, new)] * (1 if pk == self.sheet else 2)
            self.assertIn("with this id already", self.make(*steps, status=400)["detail"])
        self.make(("sheets", self.sheet, 1, None), ("sheets", self.sheet, 0, new))
        self.assertEqual([str(sheet.pk) for sheet in Sheet.objects.all()], [self.sheet])

    def test_the_id_of_a_change_is_its_senders_own(self):
        name = str(uuid.uuid4())
        steps = [{"rows": "sheets", "id": self.sheet, "version": 1, "row": {"title": "Quay"}}]
        self.call("post", "changes/", {"change": name, "steps": steps})
        self.client.force_login(self.somebody_else())
        project = self.make_project("Boat shed")
        steps = [{"rows": "sheets", "id": str(uuid.uuid4()), "version": 0, "row": {"project": project}}]
        (made,) = self.call("post", "changes/", {"change": name, "steps": steps})["rows"]
        self.assertEqual(str(made["project"]), project)

    def test_a_row_never_moves_to_another_project_nor_refers_into_one(self):
        elsewhere = self.make_project("Boat shed")
        template = {"project": elsewhere, "name": "Ours", "spec": {"parts": []}}
        theirs = self.call("post", "templates/", template, 201)["id"]
        refused = self.make(("sheets", self.sheet, 1, {"template": theirs}), status=400)
        self.assertIn("no such template in this project", refused["detail"])
        refused = self.make(("sheets", self.sheet, 1, {"project": elsewhere}), status=400)
        self.assertIn("stays in its project", refused["detail"])

    def test_what_is_built_in_is_neither_changed_nor_deleted(self):
        for rows in ("templates", "pen-tables", "plot-settings"):
            with self.subTest(rows):
                row = next(r for r in self.call("get", f"{rows}/") if r["built_in"])
                change = {"name": "Mine", "version": row["version"]}
                for method, body in (("patch", change), ("delete", None)):
                    refused = self.call(method, f"{rows}/{row['id']}/", body, 400)
                    self.assertIn("is built in and cannot be changed", refused["detail"])
