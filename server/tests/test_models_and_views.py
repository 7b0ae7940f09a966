"""Importing a building, and the views that are drawn from it."""

from unittest import mock

from django.test import override_settings

from drafting.linework.codec import decode
from drafting.tests.ifc_files import write_ifc
from server.buildings.models import ModelVersion
from server.common import storage
from server.jobs.child import Cancelled
from server.jobs.models import Job
from server.tests.api_case import ApiCase
from server.views import drawings
from server.views.models import Linework, View


class ImportTests(ApiCase):
    def test_a_file_becomes_a_version_with_its_facts_and_its_plain_views(self):
        project = self.project_with_model()
        (version,) = self.call("get", f"model-versions/?project={project}")
        self.assertEqual(
            (version["number"], version["file_name"], version["created_by"]), (1, "house.ifc", "ines")
        )
        self.assertEqual(version["facts"]["storeys"], [{"name": "Deck", "elevation": 3000.0}])
        self.assertEqual(version["facts"]["size"], [5000.0, 200.0, 2500.0])
        views = self.call("get", f"views/?project={project}")
        self.assertEqual([v["name"] for v in views],
        ["Plan, Deck", "Roof plan", "North elevation", "South elevation",
                                                      "East elevation", "West elevation"])  # fmt: skip
        self.assertEqual({v["state"] for v in views}, {"up_to_date"})

    def test_a_new_file_makes_a_new_version_and_leaves_the_drawings_behind(self):
        project = self.project_with_model()
        self.import_model(project, self.ifc(unit="metre", extra="IfcSlab"))
        self.assertEqual(
            [v["number"] for v in self.call("get", f"model-versions/?project={project}")], [2, 1]
        )
        view = self.view_named(project, "South elevation")
        self.assertEqual(view["state"], "out_of_date")
        self.assertTrue(view["linework"])
        self.call("post", f"views/{view['id']}/draw/", status=202)
        now = self.view_named(project, "South elevation")
        self.assertEqual(now["state"], "up_to_date")
        self.assertNotEqual(now["linework"], view["linework"])

    def test_an_unlikely_size_is_asked_about_before_it_becomes_a_version(self):
        project = self.make_project()
        cube = b"".join(
            b"v %d %d %d\n" % (x * 9, y * 6, z * 3) for x in (0, 1) for y in (0, 1) for z in (0, 1)
        )
        cube += b"f 1 2 4 3\nf 5 7 8 6\nf 1 5 6 2\nf 3 4 8 7\nf 1 3 7 5\nf 2 6 8 4\n"
        path = f"size-questions/?project={project}"
        self.assertEqual(self.import_model(project, cube, name="hut.obj", unit="mm")["state"], "done")
        self.assertEqual(self.call("get", f"model-versions/?project={project}"), [])
        (question,) = self.call("get", path)
        self.assertEqual(question["file_name"], "hut.obj")
        self.assertEqual(max(question["size"]), 9.0)
        self.assertEqual(question["units"][0]["unit"], "m")

        # As metres it is a hut; and a later file that is as small again, by the same figures, is asked about.
        self.call("post", f"size-questions/{question['job']}/answer/", {"use": True, "unit": "m"}, 202)
        (version,) = self.call("get", f"model-versions/?project={project}")
        self.assertEqual(max(version["facts"]["size"]), 9000.0)
        self.assertEqual(self.call("get", path), [])
        self.import_model(project, cube, name="hut.obj", unit="ft")
        (question,) = self.call("get", path)
        self.assertEqual([u["unit"] for u in question["units"]], ["m"])

        # Whoever is sure has it as it is; who is not has nothing changed, and no file left behind.
        self.call("post", f"size-questions/{question['job']}/answer/", {"use": True}, 202)
        self.assertEqual(len(self.call("get", f"model-versions/?project={project}")), 2)
        self.import_model(project, cube, name="hut.obj", unit="mm")
        (question,) = self.call("get", path)
        self.call("post", f"size-questions/{question['job']}/answer/", {"use": False}, 204)
        self.assertEqual(len(self.call("get", f"model-versions/?project={project}")), 2)
        self.assertEqual(list(storage.temporary_folder().iterdir()), [])
        self.call("post", f"size-questions/{question['job']}/answer/", {"use": True}, 404)

    def test_a_question_goes_when_another_file_is_imported(self):
        project = self.project_with_model()
        self.import_model(project, self.ifc(unit="metre"), unit="in")
        self.assertEqual(len(self.call("get", f"size-questions/?project={project}")), 1)
        self.import_model(project, self.ifc(), unit="")
        self.assertEqual(self.call("get", f"size-questions/?project={project}"), [])

    def test_a_file_that_cannot_be_used_leaves_the_project_as_it_was(self):
        project = self.project_with_model()
        before = sorted(self.files_kept())
        whole = self.ifc()
        for content, why in (
            (b"", "is empty"),
            (whole[: len(whole) // 2], "is cut off"),
            (b"a,b,c\n1,2,3", "is not an IFC file"),
            (write_ifc(self.data / "bare.ifc", boxes=False).read_bytes(), "no element with a shape"),
        ):
            with self.subTest(why):
                job = self.import_model(project, content)
                self.assertEqual(job["state"], "failed")
                self.assertIn(why, job["message"])
                self.assertIn("house.ifc", job["message"])
        self.assertEqual(ModelVersion.objects.count(), 1)
        self.assertEqual(sorted(self.files_kept()), before)

    @override_settings(MODEL_FILE_LIMIT=1000)
    def test_a_file_over_the_limit_is_refused_with_the_limit(self):
        project = self.make_project()
        answer = self.import_model(project, b"x" * 1500, status=400)
        self.assertIn("the limit is 0.000954 MB", answer["detail"])
        self.assertEqual(Job.objects.count(), 0)
        self.assertFalse((self.data / "files").exists() and self.files_kept())

    @override_settings(JOB_TIME_LIMIT=-1.0)
    def test_a_file_that_takes_too_long_ends_its_task_and_nothing_else(self):
        project = self.make_project()
        job = self.import_model(project)
        self.assertEqual(job["state"], "failed")
        self.assertIn("longer than is allowed", job["message"])
        self.assertEqual(self.files_kept(), [])
        with override_settings(JOB_TIME_LIMIT=600):
            self.assertEqual(self.import_model(project)["state"], "done")

    def test_an_obj_file_makes_a_version_and_tells_what_it_took_for_granted(self):
        corners = "".join(f"v {x} {y} {z}\n" for z in (0, 3) for y in (0, 4) for x in (0, 5))
        obj = f"o hut\n{corners}f 1 3 4 2\nf 5 6 8 7\nf 1 2 6 5\nf 3 7 8 4\nf 1 5 7 3\nf 2 4 8 6\n"
        project = self.make_project()
        self.assertEqual(self.import_model(project, obj.encode(), name="hut.obj")["state"], "done")
        (version,) = self.call("get", f"model-versions/?project={project}")
        self.assertEqual(version["facts"]["size"], [5000, 4000, 3000])
        self.assertTrue(any("metres are assumed" in sentence for sentence in version["facts"]["warnings"]))
        self.assertEqual(self.view_named(project, "South elevation")["extents"], [0, 0, 5000, 3000])

    def test_a_corrected_unit_is_remembered_for_the_next_version(self):
        project = self.make_project()
        self.import_model(project, self.ifc(unit="metre"), unit="ft")
        self.assertEqual(self.call("get", f"projects/{project}/")["model_unit"], "ft")
        self.import_model(project, self.ifc(unit="metre"))
        sizes = [v["facts"]["size"][0] for v in self.call("get", f"model-versions/?project={project}")]
        self.assertEqual(sizes, [1524, 1524])
        # All sides as large as metres are in feet: that one of the two is wrong is noticed.
        self.import_model(project, self.ifc(unit="metre"), unit="")
        (question,) = self.call("get", f"size-questions/?project={project}")
        self.call("post", f"size-questions/{question['job']}/answer/", {"use": True}, 202)
        self.assertEqual(self.call("get", f"model-versions/?project={project}")[0]["facts"]["size"][0], 5000)


class ViewTests(ApiCase):
    def test_a_view_is_made_named_and_drawn(self):
        project = self.project_with_model()
        spec = {"kind": "section", "line": [[2000, -1000], [2000, 1000]], "depth": 4000}
        made = self.call("post", "views/", {"project": project, "spec": spec}, 201)
        view = self.call("get", f"views/{made['id']}/")
        self.assertEqual((view["name"], view["state"]), ("Section", "up_to_date"))
        self.assertLessEqual(spec.items(), view["spec"].items())

    def test_line_settings_and_choice_are_kept_with_a_view_and_its_drawing_follows_them(self):
        project = self.project_with_model()
        spec = {"kind": "elevation", "side": "south", "line_settings": {"hidden": True}}
        view = self.call("post", "views/", {"project": project, "spec": spec}, 201)
        first = self.call("get", f"views/{view['id']}/")
        self.assertTrue(first["spec"]["line_settings"]["hidden"])
        spec = {"kind": "elevation", "side": "south", "shown": {"without_layers": ["Layer of Wall"]}}
        self.call("patch", f"views/{view['id']}/", {"spec": spec, "version": first["version"]})
        second = self.call("get", f"views/{view['id']}/")
        self.assertNotEqual(first["linework"], second["linework"])
        self.assertEqual(second["notes"], ["Everything is hidden in this view."])

    def test_a_perspective_and_a_detail_are_drawn_and_a_perspective_is_not_to_scale_on_its_sheet(self):
        project = self.project_with_model()
        sheet = self.call("post", "sheets/", {"project": project}, 201)["id"]
        elevation = {"kind": "elevation", "side": "south"}
        for spec, words in (
            ({"kind": "perspective", "eye": [-9000, -9000, 6000], "target": [1000, 0, 3000]}, True),
            (
                {
                    "kind": "detail",
                    "of": elevation,
                    "region": {"shape": "rectangle", "corner": [0, 3000], "opposite": [2000, 5000]},
                },
                False,
            ),
        ):
            view = self.call("post", "views/", {"project": project, "spec": spec}, 201)
            viewport = self.call("post", "viewports/", {"sheet": sheet, "view": view["id"]}, 201)
            items = self.call("get", f"sheets/{sheet}/display/")["items"]
            title = [x["text"] for x in items if x["type"] == "text" and x["viewport"] == viewport["id"]]
            self.assertEqual("Not to scale" in title, words)

    def test_a_view_that_is_none_is_refused_by_name(self):
        project = self.project_with_model()
        for spec, why in (
            ({"kind": "elevation", "side": "up"}, "“up”"),
            ({"kind": "plan"}, "storey"),
            ({"kind": "plan", "storey": "Deck", "cut": -3}, "“-3”"),
            ({"kind": "carving"}, "carving"),
            ({"kind": "roof", "line_settings": {"crease": 200}}, "crease"),
            ({"kind": "section", "line": [[0, 0], [1000, 0], [1500, 900], [3000, 900]]}, "right angles"),
            ({"kind": "perspective", "eye": [0, 0, 0]}, "target"),
        ):
            with self.subTest(spec):
                self.assertIn(
                    why, self.call("post", "views/", {"project": project, "spec": spec}, 400)["detail"]
                )

    def test_a_plan_of_a_storey_that_is_not_there_says_so_and_stays_undrawn(self):
        project = self.project_with_model()
        view = self.call(
            "post", "views/", {"project": project, "spec": {"kind": "plan", "storey": "Attic"}}, 201
        )
        self.assertEqual(self.call("get", f"views/{view['id']}/")["state"], "undrawn")
        job = self.call("get", f"jobs/?project={project}")[0]
        self.assertEqual(job["state"], "failed")
        self.assertIn("“Attic”", job["message"])

    def test_linework_is_sent_whole_and_once(self):
        project = self.project_with_model()
        key = self.view_named(project, "South elevation")["linework"]
        response = self.client.get(f"/api/linework/{key}/")
        drawing = decode(response.getvalue())
        self.assertEqual({line.role for line in drawing.lines}, {"profile"})
        self.assertIn("immutable", response["Cache-Control"])
        again = self.client.get(f"/api/linework/{key}/", headers={"If-None-Match": response["ETag"]})
        self.assertEqual(again.status_code, 304)

    def test_what_was_drawn_once_is_not_drawn_again(self):
        project = self.project_with_model()
        count = Linework.objects.count()
        with mock.patch("server.jobs.runner.Work.run", side_effect=AssertionError("drawn again")):
            self.call(
                "post", "views/", {"project": project, "spec": {"kind": "elevation", "side": "south"}}, 201
            )
            sheet = self.call("post", "sheets/", {"project": project}, 201)["id"]
            view = self.view_named(project, "South elevation")
            viewport = self.call("post", "viewports/", {"sheet": sheet, "view": view["id"]}, 201)
            for change in ({"scale": "1:20"}, {"x": 40.0, "width": 55.0}, {"centre_u": 10.0}):
                now = self.call("get", f"viewports/{viewport['id']}/")
                self.call("patch", f"viewports/{viewport['id']}/", {**change, "version": now["version"]})
            self.call("get", f"sheets/{sheet}/display/")
        self.assertEqual(Linework.objects.count(), count)
        self.assertFalse(Job.objects.filter(state="failed").exists())

    def test_a_view_changed_while_it_was_drawn_keeps_no_stale_drawing(self):
        project = self.project_with_model()
        view = View.objects.get(name="South elevation")
        with self.captureOnCommitCallbacks(execute=True):
            drawings.order_drawing(view)
            View.objects.filter(pk=view.pk).update(spec={"kind": "elevation", "side": "west"}, linework=None)
        self.assertEqual(self.view_named(project, "South elevation")["state"], "undrawn")

    def test_a_view_whose_drawing_was_cancelled_stays_out_of_date(self):
        project = self.project_with_model()
        view = self.view_named(project, "South elevation")
        spec = {**view["spec"], "line_settings": {"hidden": True}}
        with mock.patch("server.jobs.runner.Work.run", side_effect=Cancelled):
            self.call("patch", f"views/{view['id']}/", {"spec": spec, "version": view["version"]})
        now = self.view_named(project, "South elevation")
        self.assertEqual((now["state"], now["linework"]), ("out_of_date", view["linework"]))
        # What it was drawn from once is found again as soon as it is asked for.
        change = {"spec": view["spec"], "version": now["version"]}
        self.call("patch", f"views/{view['id']}/", change)
        self.assertEqual(self.view_named(project, "South elevation")["state"], "up_to_date")

    def test_every_fault_of_a_view_is_reported_by_its_field(self):
        project = self.project_with_model()
        spec = {"kind": "plan", "storey": "Deck", "cut": -3, "depth": "deep"}
        fields = self.call("post", "views/", {"project": project, "spec": spec}, 400)["fields"]
        self.assertEqual(set(fields), {"spec.cut", "spec.depth"})

    def test_without_a_model_nothing_is_drawn_and_that_is_said(self):
        project = self.make_project()
        view = self.call("post", "views/", {"project": project, "spec": {"kind": "roof"}}, 201)
        answer = self.call("post", f"views/{view['id']}/draw/", status=400)
        self.assertIn("Import a building file first", answer["detail"])
