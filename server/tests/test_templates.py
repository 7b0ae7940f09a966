"""Templates, pictures, fields and numbers through the API."""

from __future__ import annotations

import uuid
from typing import Any
from unittest.mock import patch

from django.core.files.uploadedfile import SimpleUploadedFile

from drafting.sheets.template_presets import TEMPLATE_PRESETS
from drafting.tests.test_picture import LOGO, picture_file
from server.jobs.apart import run_apart
from server.sheets.models import Register, Sheet, Template
from server.tests.api_case import ApiCase

TEXT = {"kind": "text", "x0": -60, "y0": 5, "x1": 0, "y1": 15, "words": "Preliminary"}


class TemplateTests(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.project = self.make_project()
        self.sheet = self.call("post", "sheets/", {"project": self.project, "title": "Ground floor"}, 201)

    def make(self, *parts: dict[str, Any], status: int = 201, **spec: Any) -> Any:
        body = {"project": self.project, "name": "Own", "spec": {"parts": list(parts), **spec}}
        return self.call("post", "templates/", body, status)

    def register(self) -> Any:
        return self.call("get", f"registers/?project={self.project}")[0]

    def words(self, sheet: str | None = None) -> list[str]:
        display = self.call("get", f"sheets/{sheet or self.sheet['id']}/display/")
        return [item["text"] for item in display["items"] if item["type"] == "text"]

    def change(self, kind: str, row: Any, **changes: Any) -> Any:
        return self.call(
            "patch",
            f"{kind}/{row['id']}/",
            {**changes, "version": row["version"]},
            changes.pop("status", 200),
        )

    def test_what_ships_is_reported_with_the_fields_there_are(self):
        listed = self.call("get", f"templates/?project={self.project}")
        self.assertEqual({t["name"] for t in listed}, {name for name, _ in TEMPLATE_PRESETS.values()})
        fields = self.call("get", "fields/")
        self.assertIn({"key": "scale", "caption": "Scale", "of": "derived"}, fields)

    def test_a_sheet_takes_a_template_and_follows_every_change_of_it(self):
        made = self.make(TEXT)
        self.change("sheets", self.sheet, template=made["id"])
        self.assertIn("Preliminary", self.words())
        self.change("templates", made, spec={"parts": [{**TEXT, "words": "For construction"}]})
        self.assertIn("For construction", self.words())
        self.assertNotIn("Preliminary", self.words())

    def test_a_template_decides_which_part_of_a_sheet_is_free(self):
        before = self.sheet["free_area"]
        after = self.change("sheets", self.sheet, template=self.preset(Template, "strip-right"))["free_area"]
        self.assertLess(after[2], before[2])
        self.assertGreater(after[3], before[3])

    def test_what_a_sheet_cannot_have_is_refused_and_changes_nothing(self):
        high = self.make({**TEXT, "y0": 200, "y1": 210})
        self.change("sheets", self.sheet, template=high["id"])
        sheet = self.call("get", f"sheets/{self.sheet['id']}/")
        for changes, why in (
            ({"paper": "A4"}, "the text “Preliminary” of the template “Own” would lie off the paper"),
            ({"template": str(uuid.uuid4())}, "emplate"),
            ({"number": ""}, "A sheet has a number"),
            ({"title": "t" * 300}, "at most 200 letters"),
            ({"overrides": {"mood": "x"}}, "no field mood"),
        ):
            with self.subTest(why):
                body = {**changes, "version": sheet["version"]}
                self.assertIn(why, str(self.call("patch", f"sheets/{sheet['id']}/", body, 400)))
        body = {"spec": {"parts": [{**TEXT, "y0": 290, "y1": 300}]}, "version": high["version"]}
        self.assertIn(
            "on the A3 sheet".lower(), str(self.call("patch", f"templates/{high['id']}/", body, 400)).lower()
        )
        self.assertEqual(self.call("get", f"sheets/{sheet['id']}/"), sheet)
        self.assertIn(
            "is the template of A-01", str(self.call("delete", f"templates/{high['id']}/", status=400))
        )

    def test_anothers_template_is_as_good_as_none(self):
        elsewhere = self.make_project("Other")
        other = self.call("post", "templates/", {"project": elsewhere, "name": "Other", "spec": {}}, 201)
        body = {"template": other["id"], "version": self.sheet["version"]}
        self.call("patch", f"sheets/{self.sheet['id']}/", body, 400)

    def test_fields_say_what_is_derived_and_what_is_overridden(self):
        revisions = [{"revision": "P01", "date": "2026-03-02"}, {"revision": "P02", "date": "2026-03-16"}]
        self.change("sheets", self.sheet, revisions=revisions, overrides={"practice": "Another office"})
        derived = self.call("get", f"sheets/{self.sheet['id']}/field-values/")["derived"]
        self.assertEqual(
            (derived["revision"], derived["date"], derived["practice"]),
            ("P02", "2026-03-16", "Reed and Rope"),
        )
        self.assertEqual(derived["file_name"], "A-01-P02")
        words = self.words()
        self.assertIn("Another office", words)
        self.assertNotIn("Reed and Rope", words)

    def test_a_picture_that_brings_its_reader_down_or_takes_too_long_harms_nobody(self):
        def stalling(function, *given):
            return run_apart("server.tests.child_work:stall")

        with patch("server.sheets.templates.run_apart", stalling), patch("server.jobs.apart.TIME_LIMIT", 0.3):
            file = SimpleUploadedFile("logo.svg", LOGO)
            answer = self.call(
                "post", "pictures/", {"project": self.project, "file": file}, 422, format="multipart"
            )
        self.assertIn("longer than is allowed", answer["detail"])
        self.assertEqual(self.call("get", f"pictures/?project={self.project}"), [])
        file = SimpleUploadedFile("logo.svg", LOGO)
        self.call("post", "pictures/", {"project": self.project, "file": file}, 201, format="multipart")

    def test_a_logo_stands_on_every_sheet_and_one_with_a_script_on_none(self):
        file = SimpleUploadedFile("logo.svg", LOGO)
        logo = self.call(
            "post", "pictures/", {"project": self.project, "file": file}, 201, format="multipart"
        )
        self.change("registers", self.register(), logo=logo["id"])
        fills = [
            i for i in self.call("get", f"sheets/{self.sheet['id']}/display/")["items"] if i["type"] == "fill"
        ]
        self.assertIn("#9c3f24", {fill["colour"] for fill in fills})
        script = SimpleUploadedFile("logo.svg", LOGO.replace(b"<g", b"<script/><g"))
        refused = self.call(
            "post", "pictures/", {"project": self.project, "file": script}, 400, format="multipart"
        )
        self.assertIn("a script", str(refused))
        large = SimpleUploadedFile("large.png", b"\0" * 11_000_000)
        refused = self.call(
            "post", "pictures/", {"project": self.project, "file": large}, 400, format="multipart"
        )
        self.assertIn("at most 10 MB", str(refused))

    def test_pixels_reach_the_board_and_the_plot(self):
        file = SimpleUploadedFile("photo.png", picture_file("PNG"))
        picture = self.call(
            "post", "pictures/", {"project": self.project, "file": file}, 201, format="multipart"
        )
        part = {"kind": "image", "x0": -60, "y0": 5, "x1": 0, "y1": 45, "picture": picture["id"]}
        made = self.make(part)
        self.change("sheets", self.sheet, template=made["id"])
        image = next(
            i
            for i in self.call("get", f"sheets/{self.sheet['id']}/display/")["items"]
            if i["type"] == "image"
        )
        self.assertEqual(image["picture"], picture["id"])
        pixels = self.client.get(f"/api/pictures/{picture['id']}/pixels/")
        self.assertTrue(b"".join(pixels.streaming_content).startswith(b"\x89PNG"))
        self.assertIn("left out", " ".join(self.plotted(self.project, form="dxf")[0]["notes"]))
        _, pdf = self.plotted(self.project)
        self.assertIn(b"/Subtype /Image", pdf)

    def test_numbers_follow_the_pattern_of_the_register(self):
        register = self.register()
        body = {"number_pattern": "A", "version": register["version"]}
        refused = self.call("patch", f"registers/{register['id']}/", body, 400)
        self.assertIn("needs one running number", str(refused))
        self.change("registers", register, number_pattern="{discipline}-{type}{n:02}")
        made = [
            self.call("post", "sheets/", {"project": self.project, "sheet_type": kind}, 201)["number"]
            for kind in ("1", "1", "2")
        ]
        self.assertEqual(made, ["A-101", "A-102", "A-201"])
        Sheet.objects.filter(number="A-102").update(number="A-104")
        second = Sheet.objects.get(number="A-101")
        warnings = self.call("get", f"sheets/number-warnings/?project={self.project}")
        self.assertEqual([w["message"] for w in warnings], ["no A-102 to A-103"])
        numbers = self.call("get", f"sheets/{second.pk}/numbers/")
        self.assertEqual([n["number"] for n in numbers], ["A-101", "A-102", "A-201"])
        self.assertEqual(
            Register.objects.get(project=self.project).number_pattern, "{discipline}-{type}{n:02}"
        )
