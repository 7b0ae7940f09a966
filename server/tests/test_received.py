"""Drawings from others: brought in, drawn from their own file, placed, dimensioned, brought in anew."""

import io

import ezdxf
from django.core.files.uploadedfile import SimpleUploadedFile

from server.tests.api_case import ApiCase
from server.views.models import ReceivedFile


def survey(width=30.0, unit=6, extra=()):
    doc = ezdxf.new("R2010", units=unit)
    space = doc.modelspace()
    corners = [(100.0, 200.0), (100.0 + width, 200.0), (100.0 + width, 220.0), (100.0, 220.0)]
    kerb = space.add_lwpolyline(corners, close=True, dxfattribs={"layer": "Boundary"})
    kerb.dxf.handle = "ABC"
    space.add_line((105.0, 205.0), (110.0, 205.0), dxfattribs={"layer": "Hedges"})
    for points in extra:
        space.add_lwpolyline(points)
    out = io.StringIO()
    doc.write(out)
    return out.getvalue().encode()


class ReceivedCase(ApiCase):
    def setUp(self):
        super().setUp()
        self.project = self.make_project()

    def upload(self, content=None, name="survey.dxf", status=202):
        upload = SimpleUploadedFile(name, survey() if content is None else content)
        body = {"project": self.project, "upload": upload}
        job = self.call("post", "received-files/", body, status, format="multipart")
        return self.call("get", f"jobs/{job['id']}/")

    def file(self):
        return self.call("get", f"received-files/?project={self.project}")[0]

    def view_of(self, file, status=201, **given):
        spec = {"kind": "received", "file": file["file"], "name": file["name"], "mm": 1000.0,
                "origin": file["facts"]["low"], **given}  # fmt: skip
        return self.call("post", "views/", {"project": self.project, "name": "Survey", "spec": spec}, status)

    def view(self, made):
        return self.call("get", f"views/{made['id']}/")


class ReceivedTests(ReceivedCase):
    def test_it_becomes_a_view_without_any_model_and_is_drawn_in_real_mm(self):
        job = self.upload()
        self.assertEqual(job["state"], "done", job["message"])
        file = self.file()
        self.assertEqual(
            (file["job"], file["facts"]["mm"], file["facts"]["size"]), (job["id"], 1000.0, [30.0, 20.0])
        )
        self.assertEqual(file["facts"]["layers"], {"Boundary": 1, "Hedges": 1})
        view = self.view(self.view_of(file))
        self.assertEqual((view["state"], view["drawn_from"]), ("up_to_date", None))
        self.assertEqual(view["extents"], [0.0, 0.0, 30_000.0, 20_000.0])

    def test_another_unit_or_layer_is_another_drawing(self):
        self.upload()
        made = self.view(self.view_of(self.file()))
        spec = {**made["spec"], "mm": 1.0, "shown": {"without_layers": ["Boundary"]}}
        self.call("patch", f"views/{made['id']}/", {"spec": spec, "version": made["version"]})
        self.assertEqual(self.view(made)["extents"], [5.0, 5.0, 10.0, 5.0])

    def test_it_is_placed_dimensioned_and_plotted_and_a_newer_file_tells_what_has_changed(self):
        self.upload()
        made = self.view(self.view_of(self.file()))
        sheet = self.call("post", "sheets/", {"project": self.project}, 201)["id"]
        body = {"sheet": sheet, "view": made["id"], "scale": "1:200", "at": [200, 200]}
        viewport = self.call("post", "viewports/", body, 201)
        points = [{"at": at, "element": "ABC"} for at in ([0.0, 0.0], [30_000.0, 0.0])]
        spec = {"kind": "dimension", "points": points, "measures": "horizontal"}
        home = {"project": self.project, "sheet": sheet, "viewport": viewport["id"]}
        self.call("post", "annotations/", {**home, "spec": spec}, 201)

        def piece():
            return self.call("get", f"sheets/{sheet}/display/")["pieces"][0]

        self.assertEqual((piece()["text"], piece()["standing"]), ("30000", "followed"))
        plot, _ = self.plotted(self.project)
        self.assertEqual(plot["job"]["state"], "done")
        self.upload(survey(width=32.5), name="survey 2.dxf")
        newer = self.file()
        to = {**made["spec"], "file": newer["file"], "name": newer["name"]}
        self.call("patch", f"views/{made['id']}/", {"spec": to, "version": self.view(made)["version"]})
        self.assertEqual((piece()["standing"], piece()["words"]), ("changed", "30000 is now 32500"))

    def test_no_marks_of_the_building_stand_on_it(self):
        self.assertEqual(self.import_model(self.project)["state"], "done")
        self.upload()
        made = self.view_of(self.file())
        sheet = self.call("post", "sheets/", {"project": self.project}, 201)["id"]
        body = {"sheet": sheet, "view": made["id"], "scale": "1:200", "at": [200, 200]}
        viewport = self.call("post", "viewports/", body, 201)["id"]
        items = self.call("get", f"sheets/{sheet}/display/")["items"]
        layers = {item.get("layer") for item in items if item.get("viewport") == viewport}
        self.assertEqual(layers & {"Marks", "Levels", "Grid", "Rooms"}, set())

    def test_a_new_model_version_leaves_it_as_it_is(self):
        self.import_model(self.project)
        self.upload()
        made = self.view(self.view_of(self.file()))
        self.import_model(self.project, self.ifc(length=6000.0))
        self.call("post", "views/bring-up-to-date/", {"project": self.project}, 202)
        after = self.view(made)
        self.assertEqual((after["state"], after["linework"]), ("up_to_date", made["linework"]))


class RefusedTests(ReceivedCase):
    def test_what_cannot_be_read_fails_with_its_name_and_nothing_is_kept(self):
        for content, name in ((b"no drawing", "a.dxf"), (b"%PDF-1.4", "a.pdf"), (b"x", "a.doc")):
            job = self.upload(content, name)
            self.assertEqual(job["state"], "failed")
            self.assertIn(name, job["message"])
        self.assertEqual((ReceivedFile.objects.count(), self.files_kept()), (0, []))

    def test_a_file_of_another_project_is_shown_in_none(self):
        self.upload()
        file = self.file()
        self.project = self.make_project("Other")
        self.assertIn("not among the files", self.view_of(file, 400)["detail"])
        self.view_of({**file, "file": "../secret"}, 400)
        self.assertIn("not among", self.view_of({**file, "file": "f" * 64}, 400)["detail"])

    def test_it_follows_no_model(self):
        self.upload()
        made = self.view(self.view_of(self.file()))
        self.call("patch", f"views/{made['id']}/", {"held": True, "version": made["version"]}, 400)
        self.call("post", f"views/{made['id']}/draw/", None, 204)
