"""What no drafter sends, and what is answered: a refusal in words, and nothing is stored."""

from __future__ import annotations

import json

from django.test import SimpleTestCase

from drafting.annotation.pieces import AnyPiece
from drafting.annotation.shapes import Shape
from drafting.views.spec import AnyView
from server.annotations.serializers import AnnotationSerializer, SymbolOfShapesSerializer
from server.sheets.models import Sheet
from server.tests.api_case import ApiCase
from server.views.serializers import ViewSerializer

HALF = "\ud83d"
LONG = 10**400


class BorderTests(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.client.raise_request_exception = False
        self.project = self.make_project()
        self.sheet = self.call("post", "sheets/", {"project": self.project}, 201)["id"]

    def status(self, method: str, path: str, body: object = None) -> int:
        text = body if isinstance(body, str) else json.dumps(body)
        return getattr(self.client, method)(f"/api/{path}", text, content_type="application/json").status_code

    def test_what_is_no_id_is_not_found_or_refused(self) -> None:
        for path in (
            "sheets/abc/", "model-versions/99999999999999999999999999/", "model-versions/-1/",
            "plots/abc/file/",
            "linework/%00/", "pictures/abc/pixels/",
        ):  # fmt: skip
            with self.subTest(path):
                self.assertEqual(self.client.get(f"/api/{path}").status_code, 404)
        for path in (
            "sheets/?project=abc",
            "registers/?project=%ff",
            "templates/?project=%00",
            "ladder/?project=z",
        ):
            with self.subTest(path):
                self.assertEqual(self.client.get(f"/api/{path}").status_code, 400)

    def test_figures_and_letters_that_cannot_be_are_refused_and_the_row_stays(self) -> None:
        for change in (
            {"position": 2**70}, {"position": -1}, {"title": HALF}, {"title": "a\x00b"},
            {"guides": {"x": [LONG]}},
            {"revisions": [{"revision": HALF}]}, {"overrides": {HALF: "x"}}, {"overrides": {"client": HALF}},
            {"drawing_list": {"x": LONG, "y": 1}}, {"paper": "9" * 5000}, {"number": "A" * 90},
        ):  # fmt: skip
            with self.subTest(ascii(change)[:60]):
                self.assertEqual(self.status("patch", f"sheets/{self.sheet}/", {**change, "version": 1}), 400)
        self.assertEqual(Sheet.objects.get().version, 1)

    def test_rows_of_every_kind_are_checked_alike(self) -> None:
        base = {"project": self.project, "name": "x"}
        for path, body in (
            ("templates/", {**base, "name": HALF, "spec": {"parts": []}}),
            ("pen-tables/", {**base, "spec": {"roles": {"cut": None}}}),
            ("pen-tables/", {**base, "spec": {"roles": {"cut": {"width": LONG}}}}),
            ("pen-tables/", {**base, "spec": {"cuts": [{"match": HALF}]}}),
            ("line-settings/", {**base, "settings": {"far": LONG}}),
            ("subsets/", {**base, "elements": [HALF]}),
            ("views/", {"project": self.project, "spec": {"kind": "plan", "storey": HALF}}),
            ("views/change-settings/", {"views": ["x"]}),
            ("plots/", {"project": self.project, "sheets": [HALF]}),
            ("changes/", {"steps": [{"rows": "sheets", "id": self.sheet, "version": 2**80, "row": {}}]}),
        ):
            with self.subTest(path):
                self.assertEqual(self.status("post", path, body), 400)

    def test_what_is_nested_without_end_is_refused_before_and_after_signing_in(self) -> None:
        deep = "[" * 100_000 + "]" * 100_000
        self.assertEqual(self.status("post", "projects/", deep), 400)
        self.client.logout()
        self.assertEqual(self.status("post", "session/", deep), 400)

    def test_a_number_of_many_figures_takes_no_longer_than_another(self) -> None:
        for number in ("A-20261125", "A-" + "9" * 30):
            self.call("post", "sheets/", {"project": self.project, "number": number}, 201)
        self.assertTrue(self.call("get", f"sheets/number-warnings/?project={self.project}"))


class ShapeTests(SimpleTestCase):
    def test_what_validates_a_shape_is_made_once_for_all_requests(self) -> None:
        for serializer, field, shape in (
            (AnnotationSerializer, "spec", AnyPiece),
            (ViewSerializer, "spec", AnyView),
            (SymbolOfShapesSerializer, "shapes", Shape),
        ):
            with self.subTest(serializer.__name__):
                copied = serializer().fields[field]
                self.assertIs(getattr(copied, "child", copied).shape, shape)
