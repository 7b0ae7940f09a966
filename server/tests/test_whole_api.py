"""Whatever is sent to any address of the API, it answers: calls made up from its own schema, with ids that
are there and others."""

from __future__ import annotations

import json
from copy import deepcopy
from typing import Any
from urllib.parse import urlencode

import schemathesis
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import transaction
from drf_spectacular.generators import SchemaGenerator
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis import strategies as st
from rest_framework.test import APIClient
from schemathesis.core import NOT_SET

from server.tests.api_case import ApiCase

#: So often each operation is called. The same calls are made in every run.
CALLS = 4
BOUNDED = settings(
    max_examples=CALLS,
    derandomize=True,
    database=None,
    deadline=None,
    phases=[Phase.generate],
    suppress_health_check=list(HealthCheck),
)


class WholeApiTests(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.project = self.project_with_model()
        sheet = self.call("post", "sheets/", {"project": self.project}, 201)["id"]
        view = self.view_named(self.project, "South elevation")["id"]
        self.call("post", "viewports/", {"sheet": sheet, "view": view}, 201)
        self.plotted(self.project)
        self.browser = APIClient(raise_request_exception=False)
        self.schema = json.loads(json.dumps(SchemaGenerator().get_schema(public=True), default=str))

    def test_no_call_that_its_schema_allows_brings_the_server_to_a_fault(self) -> None:
        whole = schemathesis.openapi.from_dict(self.schema)
        operations = [found.ok() for found in whole.get_all_operations()]
        self.assertGreater(len(operations), 100)
        for operation in operations:
            with self.subTest(operation.label):
                self.try_out(operation)

    def try_out(self, operation: Any) -> None:
        there = self.ids_at(operation.path)

        @BOUNDED
        @given(case=operation.as_strategy(), data=st.data())
        def call(case: Any, data: st.DataObject) -> None:
            for name in case.path_parameters or {}:
                if there and data.draw(st.booleans()):
                    case.path_parameters[name] = data.draw(st.sampled_from(there))
            if "project" in (case.query or {}) and data.draw(st.booleans()):
                case.query["project"] = self.project
            if isinstance(case.body, dict) and "project" in case.body and data.draw(st.booleans()):
                case.body["project"] = self.project
            with transaction.atomic():
                status = self.answered(case)
                transaction.set_rollback(True)
            self.assertNotIn(status, range(500, 507), case.as_curl_command())

        call()

    def ids_at(self, path: str) -> list[str]:
        """Ids of rows of the project that are listed where an address begins."""
        listed = path.split("{")[0]
        if listed == path or listed not in self.schema["paths"]:
            return []
        answer = self.client.get(listed, {"project": self.project})
        self.assertIn(answer.status_code, (200, 400, 405), listed)
        rows = answer.json()
        return [str(row["id"]) for row in rows if "id" in row] if isinstance(rows, list) else []

    def answered(self, case: Any) -> int:
        """With which status a call is answered by a browser that is signed in."""
        client = self.browser
        client.cookies = deepcopy(self.client.cookies)
        query = {name: value for name, value in (case.query or {}).items() if value is not None}
        address = f"{case.formatted_path}?{urlencode(query, doseq=True)}"
        if case.body is NOT_SET:
            response = client.generic(case.method, address)
        elif case.media_type == "multipart/form-data" and isinstance(case.body, dict):
            parts = {name: _part(name, value) for name, value in case.body.items() if value is not None}
            response = getattr(client, case.method.lower())(address, parts, format="multipart")
        else:
            sent = json.dumps(case.body, default=str).encode()
            response = client.generic(case.method, address, sent, content_type="application/json")
        return int(response.status_code)


def _part(name: str, value: Any) -> Any:
    """A part of a form as a browser sends it."""
    if isinstance(value, bytes):
        return SimpleUploadedFile(name, value)
    return value if isinstance(value, str) else json.dumps(value, default=str)
