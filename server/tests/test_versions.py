"""Versions of the model, and how views follow them or are held."""

import gzip

from django.contrib.auth import get_user_model

from drafting.linework.codec import decode
from server.tests.api_case import ApiCase


class VersionTests(ApiCase):
    def setUp(self):
        super().setUp()
        self.project = self.project_with_model()

    def versions(self):
        return self.call("get", f"model-versions/?project={self.project}")

    def states(self):
        return {v["name"]: v["state"] for v in self.call("get", f"views/?project={self.project}")}

    def hold(self, name, held=True):
        view = self.view_named(self.project, name)
        self.call("patch", f"views/{view['id']}/", {"held": held, "version": view["version"]})

    def test_a_new_version_tells_what_changed_and_views_fall_behind(self):
        self.assertIsNone(self.versions()[0]["changes"])
        self.import_model(self.project, self.ifc(length=7500.0))
        newest = self.versions()[0]
        self.assertEqual([x["name"] for x in newest["changes"]["reshaped"]], ["Wall"])
        self.assertEqual(newest["changes"]["reshaped"][0]["class"], "IfcWall")
        self.assertEqual(set(self.states().values()), {"out_of_date"})

    def test_all_views_are_brought_up_to_date_in_one_go_but_those_that_are_held(self):
        self.hold("Roof plan")
        self.import_model(self.project, self.ifc(length=7500.0))
        self.call("post", "views/bring-up-to-date/", {"project": self.project}, 202)
        states = self.states()
        self.assertEqual(states.pop("Roof plan"), "held")
        self.assertEqual(set(states.values()), {"up_to_date"})
        self.assertEqual(self.view_named(self.project, "Roof plan")["drawn_from"], 1)
        self.assertEqual(self.view_named(self.project, "South elevation")["drawn_from"], 2)

    def test_a_held_view_that_is_changed_is_drawn_from_its_own_version(self):
        self.hold("South elevation")
        before = self.view_named(self.project, "South elevation")
        self.import_model(self.project, self.ifc(length=7500.0))
        spec = {**before["spec"], "line_settings": {"hidden": True}}
        self.call("patch", f"views/{before['id']}/", {"spec": spec, "version": before["version"]})
        after = self.view_named(self.project, "South elevation")
        self.assertNotEqual(after["linework"], before["linework"])
        self.assertEqual((after["drawn_from"], after["extents"]), (1, before["extents"]))

    def test_a_held_view_that_is_deleted_and_taken_back_is_held_at_its_version(self):
        self.hold("South elevation")
        before = self.view_named(self.project, "South elevation")
        self.import_model(self.project, self.ifc(length=7500.0))
        self.call("delete", f"views/{before['id']}/", status=204)
        row = {key: before[key] for key in ("id", "project", "name", "spec", "held", "drawn_from")}
        self.call("post", "views/", row, 201)
        after = self.view_named(self.project, "South elevation")
        same = ("state", "drawn_from", "linework", "extents")
        self.assertEqual([after[key] for key in same], [before[key] for key in same])

    def test_views_that_are_named_by_themselves_have_each_a_name_and_share_their_drawing(self):
        body = {"project": self.project, "spec": {"kind": "section", "line": [[0, 1000], [5000, 1000]]}}
        made = [self.call("post", "views/", body, 201) for _ in range(3)]
        self.assertEqual([v["name"] for v in made], ["Section", "Section 2", "Section 3"])
        drawn = [
            job["subject"]
            for job in self.call("get", f"jobs/?project={self.project}")
            if job["kind"] == "draw"
        ]
        self.assertEqual(drawn[:1], [made[0]["wanted"]])
        self.assertEqual({v["wanted"] for v in made}, {made[0]["wanted"]})

    def test_a_view_that_is_let_go_follows_again(self):
        self.hold("South elevation")
        self.import_model(self.project, self.ifc(length=7500.0))
        self.hold("South elevation", held=False)
        view = self.view_named(self.project, "South elevation")
        self.assertEqual((view["state"], view["drawn_from"]), ("up_to_date", 2))

    def test_going_back_makes_the_older_version_the_newest_and_loses_nothing(self):
        self.import_model(self.project, self.ifc(length=7500.0))
        first = self.versions()[1]
        restored = self.call("post", f"model-versions/{first['id']}/restore/", status=201)
        self.assertEqual((restored["number"], restored["restored_from"]), (3, 1))
        self.assertEqual([v["number"] for v in self.versions()], [3, 2, 1])
        self.call("post", "views/bring-up-to-date/", {"project": self.project}, 202)
        self.assertEqual(set(self.states().values()), {"up_to_date"})
        self.assertIn(
            "use already",
            self.call("post", f"model-versions/{first['id']}/restore/", status=400)["detail"],
        )

    def test_a_version_is_sent_for_3d_once_and_only_to_its_owner(self):
        version = self.versions()[0]["id"]
        response = self.client.get(f"/api/model-versions/{version}/solid/")
        self.assertEqual(gzip.decompress(response.getvalue())[:4], b"DFS1")
        self.assertIn("immutable", response["Cache-Control"])
        again = self.client.get(
            f"/api/model-versions/{version}/solid/", headers={"If-None-Match": response["ETag"]}
        )
        self.assertEqual(again.status_code, 304)
        self.client.force_login(get_user_model().objects.create_user("odd", password="samphire-89"))
        self.assertEqual(self.client.get(f"/api/model-versions/{version}/solid/").status_code, 404)


class ManyViewsTests(ApiCase):
    def test_the_standard_set_is_made_in_one_action_and_nothing_twice(self):
        project = self.project_with_model()
        before = len(self.call("get", f"views/?project={project}"))
        made = self.call("post", "views/standard/", {"project": project}, 201)
        self.assertEqual([v["spec"]["kind"] for v in made], ["axonometric"] * 4)
        views = self.call("get", f"views/?project={project}")
        self.assertEqual(len(views), before + 4)
        self.assertEqual({v["state"] for v in views}, {"up_to_date"})
        self.assertEqual(self.call("post", "views/standard/", {"project": project}, 201), [])

    def test_without_a_model_it_says_what_to_do(self):
        project = self.make_project()
        for path in ("views/standard/", "views/bring-up-to-date/"):
            self.assertIn(
                "Import a building file", self.call("post", path, {"project": project}, 400)["detail"]
            )

    def test_settings_of_several_views_change_together_and_leave_the_rest_alone(self):
        project = self.project_with_model()
        views = [self.view_named(project, f"{side} elevation") for side in ("South", "North")]
        one = {**views[0]["spec"], "line_settings": {"seams": True}}
        self.call("patch", f"views/{views[0]['id']}/", {"spec": one, "version": views[0]["version"]})
        given = {"views": [v["id"] for v in views], "line_settings": {"far": 5000}}
        changed = {v["name"]: v for v in self.call("post", "views/change-settings/", given)}
        now = {name: view["spec"]["line_settings"] for name, view in changed.items()}
        self.assertEqual(
            {name: (s["seams"], s["far"]) for name, s in now.items()},
            {"South elevation": (True, 5000), "North elevation": (False, 5000)},
        )

    def test_a_setting_that_does_not_suit_one_of_them_changes_none(self):
        project = self.project_with_model()
        plan, roof = self.view_named(project, "Plan, Deck"), self.view_named(project, "Roof plan")
        given = {"views": [plan["id"], roof["id"]], "line_settings": {"overhead": True}}
        self.assertIn("plan", self.call("post", "views/change-settings/", given, 400)["detail"])
        self.assertEqual(self.view_named(project, "Plan, Deck")["spec"], plan["spec"])

    def test_views_of_somebody_else_are_not_there(self):
        project = self.project_with_model()
        view = self.view_named(project, "Roof plan")
        self.client.force_login(get_user_model().objects.create_user("odd", password="samphire-89"))
        given = {"views": [view["id"]], "line_settings": {"far": 5000}}
        self.call("post", "views/change-settings/", given, 404)
        self.call("post", "views/standard/", {"project": project}, 400)


class SubsetTests(ApiCase):
    def setUp(self):
        super().setUp()
        self.project = self.project_with_model()
        path = self.view_named(self.project, "South elevation")["linework"]
        self.wall = decode(self.client.get(f"/api/linework/{path}/").getvalue()).lines[0].element

    def limit(self, elements):
        body = {"project": self.project, "name": "Walls to check", "elements": elements}
        subset = self.call("post", "subsets/", body, 201)
        view = self.view_named(self.project, "South elevation")
        self.call("patch", f"views/{view['id']}/", {"subset": subset["id"], "version": view["version"]})
        return subset

    def test_a_view_is_limited_to_its_subset_and_follows_it(self):
        subset = self.limit([self.wall])
        self.assertTrue(self.view_named(self.project, "South elevation")["extents"])
        change = {"elements": ["another"], "version": subset["version"]}
        self.call("patch", f"subsets/{subset['id']}/", change)
        view = self.view_named(self.project, "South elevation")
        self.assertIsNone(view["extents"])
        self.assertIn("Everything is hidden", view["notes"][0])
        self.assertEqual(view["spec"]["shown"]["only"], [])

    def test_a_view_whose_subset_is_deleted_shows_everything_again(self):
        before = self.view_named(self.project, "South elevation")["linework"]
        subset = self.limit(["another"])
        self.call("delete", f"subsets/{subset['id']}/", status=204)
        view = self.view_named(self.project, "South elevation")
        self.assertEqual((view["subset"], view["linework"]), (None, before))

    def test_an_empty_subset_and_one_of_another_project_are_refused(self):
        body = {"project": self.project, "name": "None", "elements": []}
        self.call("post", "subsets/", body, 400)
        other = self.make_project("Boat shed")
        subset = self.call("post", "subsets/", {"project": other, "name": "x", "elements": ["a"]}, 201)
        view = self.view_named(self.project, "South elevation")
        change = {"subset": subset["id"], "version": view["version"]}
        self.assertIn(
            "no such subset in this project", str(self.call("patch", f"views/{view['id']}/", change, 400))
        )

    def test_line_settings_are_kept_by_name_and_a_wrong_one_is_not(self):
        body = {"project": self.project, "name": "Bones", "settings": {"hidden": True, "crease": 35}}
        made = self.call("post", "line-settings/", body, 201)
        self.assertLessEqual({"hidden": True, "crease": 35}.items(), made["settings"].items())
        self.assertEqual(
            [t["name"] for t in self.call("get", f"line-settings/?project={self.project}")], ["Bones"]
        )
        wrong = {**body, "settings": {"crease": 400}}
        self.assertIn("crease", self.call("post", "line-settings/", wrong, 400)["detail"])
