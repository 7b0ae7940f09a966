"""Checking a set: when it is fresh, what is found, waived, and which rules are on."""

import uuid

from drafting.checks.rules import all_rules
from server.tests.api_case import ApiCase


class ChecksTests(ApiCase):
    def setUp(self):
        super().setUp()
        self.project = self.project_with_model()
        self.sheet = self.call("post", "sheets/", {"project": self.project}, 201)

    def check(self):
        self.call("post", "checks/", {"project": self.project}, 202)
        return self.checks()

    def checks(self):
        return self.call("get", f"checks/?project={self.project}")

    def rules(self, checks):
        return {each["rule"] for each in checks["findings"]}

    def test_a_set_is_fresh_until_something_of_it_is_changed(self):
        self.assertFalse(self.checks()["fresh"])
        checks = self.check()
        self.assertTrue(checks["fresh"])
        self.assertIn("no-title", self.rules(checks))
        path = f"sheets/{self.sheet['id']}/"
        self.call("patch", path, {"title": "Ground floor", "version": self.sheet["version"]})
        self.assertFalse(self.checks()["fresh"])
        self.assertNotIn("no-title", self.rules(self.check()))

    def test_a_new_model_version_makes_it_stale_and_what_is_behind_is_found(self):
        view = self.view_named(self.project, "South elevation")["id"]
        self.call("post", "viewports/", {"sheet": self.sheet["id"], "view": view}, 201)
        self.assertNotIn("drawings-behind", self.rules(self.check()))
        self.import_model(self.project, self.ifc(length=5600.0))
        self.assertFalse(self.checks()["fresh"])
        found = [f for f in self.check()["findings"] if f["rule"] == "drawings-behind"]
        self.assertEqual([(f["view"], f["fix"]) for f in found], [(view, "draw")])

    def test_a_finding_is_let_stand_with_a_reason_and_a_name(self):
        finding = next(f for f in self.check()["findings"] if f["rule"] == "no-title")
        waiver = {"project": self.project, "finding": finding["key"], "words": finding["words"]}
        self.assertIn("why", self.call("post", "waivers/", {**waiver, "reason": " "}, 400)["detail"].lower())
        made = self.call("post", "waivers/", {**waiver, "reason": "A cover sheet has none"}, 201)
        self.assertEqual(made["by"], "ines")
        self.assertIn("already", self.call("post", "waivers/", {**waiver, "reason": "Again"}, 400)["detail"])
        # It is the same finding when the set is checked again.
        again = next(f for f in self.check()["findings"] if f["rule"] == "no-title")
        self.assertEqual(again["key"], finding["key"])
        self.call("delete", f"waivers/{made['id']}/", status=204)

    def test_a_project_chooses_its_rules(self):
        self.check()
        row = self.call("get", f"check-rules/?project={self.project}")[0]
        path = f"check-rules/{row['id']}/"
        choices = {"no-title": "off", "views-unplaced": "error"}
        self.call("patch", path, {"choices": choices, "version": row["version"]})
        checks = self.check()
        self.assertNotIn("no-title", self.rules(checks))
        severities = {f["severity"] for f in checks["findings"] if f["rule"] == "views-unplaced"}
        self.assertEqual(severities, {"error"})
        wrong = {"choices": {"no such rule": "off"}, "version": row["version"] + 1}
        self.assertIn("no such rule", self.call("patch", path, wrong, 400)["detail"])

    def test_rules_have_names_and_others_projects_are_not_checked(self):
        names = {rule["key"] for rule in self.call("get", "rules/")}
        self.assertEqual(names, {rule.key for rule in all_rules()})
        self.call("post", "checks/", {"project": str(uuid.uuid4())}, 400)
        self.call("get", f"checks/?project={uuid.uuid4()}", status=400)

    def test_two_who_ask_at_once_are_answered_by_one_check(self):
        from server.checks.services import order_check
        from server.jobs.models import Job
        from server.projects.models import Project

        project = Project.objects.get(pk=self.project)
        self.assertEqual(order_check(project).pk, order_check(project).pk)
        self.assertEqual(Job.objects.filter(kind=Job.Kind.CHECK).count(), 1)

    def test_limits_are_set_within_bounds_and_found_by(self):
        self.assertNotIn("too-small", self.rules(self.check()))
        (rules,) = self.call("get", f"check-rules/?project={self.project}")
        path = f"check-rules/{rules['id']}/"
        for limits, words in (
            ({"too-small.text": 99}, "from 0.5 to 10"), ({"too-small.pens": 1}, "no limit"),
        ):  # fmt: skip
            given = {"limits": limits, "version": rules["version"]}
            self.assertIn(words, self.call("patch", path, given, 400)["detail"])
        self.call("patch", path, {"limits": {"too-small.text": 9.0}, "version": rules["version"]})
        self.assertFalse(self.checks()["fresh"])
        self.assertIn("too-small", self.rules(self.check()))
