"""Pen tables through the API: made one's own, given to a project, a sheet or a viewport."""

from __future__ import annotations

import uuid
from typing import Any

from drafting.styles.pen_presets import PEN_TABLE_PRESETS
from server.tests.api_case import ApiCase


class PenTests(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.project = self.project_with_model()
        self.sheet = self.call("post", "sheets/", {"project": self.project}, 201)
        view = self.view_named(self.project, "South elevation")["id"]
        self.viewport = self.call("post", "viewports/", {"sheet": self.sheet["id"], "view": view}, 201)

    def make(self, width: float, status: int = 201) -> Any:
        spec = {"roles": {"profile": {"width": width, "screen": 50}}}
        return self.call(
            "post", "pen-tables/", {"project": self.project, "name": "Ours", "spec": spec}, status
        )

    def give(self, kind: str, row: Any, table: str | None, status: int = 200) -> Any:
        now = self.call("get", f"{kind}/{row['id']}/")
        return self.call(
            "patch", f"{kind}/{row['id']}/", {"pen_table": table, "version": now["version"]}, status
        )

    def register(self) -> Any:
        return self.call("get", f"registers/?project={self.project}")[0]

    def profile(self) -> Any:
        display = self.call("get", f"sheets/{self.sheet['id']}/display/")
        return next(item for item in display["items"] if item["type"] == "drawing")["pens"]["profile"]

    def test_what_is_built_in_is_reported_with_patterns_and_hatches(self) -> None:
        listed = self.call("get", f"pen-tables/?project={self.project}")
        self.assertEqual({t["name"] for t in listed}, {name for name, _ in PEN_TABLE_PRESETS.values()})
        self.assertTrue(all(t["built_in"] for t in listed))
        parts = self.call("get", "pen-parts/")
        self.assertIn({"name": "dashed", "lengths": (12.0, 3.0)}, parts["patterns"])
        self.assertIn("diagonal", [hatch["name"] for hatch in parts["hatches"]])

    def test_a_viewport_goes_before_its_sheet_and_that_before_the_register(self) -> None:
        tables = [self.make(width)["id"] for width in (1.0, 1.4, 2.0)]
        self.assertEqual(self.profile()["width"], 0.35)
        for kind, row, table, width in (
            ("registers", self.register(), tables[0], 1.0),
            ("sheets", self.sheet, tables[1], 1.4),
            ("viewports", self.viewport, tables[2], 2.0),
            ("viewports", self.viewport, None, 1.4),
        ):
            self.give(kind, row, table)
            self.assertEqual(self.profile()["width"], width)

    def test_a_change_of_a_table_reaches_what_is_drawn_with_it(self) -> None:
        made = self.make(1.0)
        self.give("sheets", self.sheet, made["id"])
        self.assertEqual(self.profile()["screen"], 50)
        change = {"spec": {"roles": {"profile": {"width": 0.7}}}, "version": made["version"]}
        changed = self.call("patch", f"pen-tables/{made['id']}/", change)
        self.assertEqual(self.profile()["width"], 0.7)
        self.assertEqual(changed["spec"]["roles"]["cut"]["width"], 0.5)

    def test_what_no_pen_can_be_and_what_is_not_there_is_refused(self) -> None:
        self.assertIn("at most 2", self.make(9.0, 400)["detail"])
        for kind, row in (
            ("sheets", self.sheet),
            ("viewports", self.viewport),
            ("registers", self.register()),
        ):
            self.assertIn("pen table", self.give(kind, row, str(uuid.uuid4()), 400)["detail"].lower())

    def test_a_table_that_is_drawn_with_is_not_deleted(self) -> None:
        made = self.make(1.0)
        self.give("viewports", self.viewport, made["id"])
        answer = self.call("delete", f"pen-tables/{made['id']}/", status=400)
        self.assertIn("a viewport on A-01", answer["detail"])
        self.give("viewports", self.viewport, None)
        self.call("delete", f"pen-tables/{made['id']}/", status=204)
