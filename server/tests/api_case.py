"""What the API tests share: a project with a model, whose jobs are done as soon as they are ordered."""

from __future__ import annotations

import shutil
import tempfile
from pathlib import Path
from typing import Any

from django.contrib.auth import get_user_model
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import transaction
from django.test import TestCase, override_settings
from django_tasks.backends.immediate import ImmediateBackend
from rest_framework.test import APIClient

from drafting.tests.ifc_files import write_ifc
from server.projects.models import NamedRow
from server.projects.presets import preset_id
from server.tests.snapshots import once


class AfterCommit(ImmediateBackend):
    """Does a task once the transaction that orders it holds, as a worker would."""

    def enqueue(self, *given: Any) -> Any:
        transaction.on_commit(lambda: super(AfterCommit, self).enqueue(*given))


AT_ONCE = {"default": {"BACKEND": "server.tests.api_case.AfterCommit", "QUEUES": []}}


class ApiCase(TestCase):
    """Signed in as Ines; data in a folder of its own."""

    def setUp(self) -> None:
        self.data = Path(tempfile.mkdtemp())
        self.addCleanup(shutil.rmtree, self.data)
        # Files of the web are looked up when they are asked for, and not all of them for each client.
        changed = override_settings(DATA=self.data, TASKS=AT_ONCE, WHITENOISE_AUTOREFRESH=True)
        changed.enable()
        self.addCleanup(changed.disable)
        self.user = get_user_model().objects.create_user("ines", password="samphire-88")
        self.client: APIClient = APIClient()
        self.client.force_login(self.user)

    def call(self, method: str, path: str, body: Any = None, status: int = 200, **extra: Any) -> Any:
        """Ask the API, do the jobs that this orders, and return the answer's body."""
        with self.captureOnCommitCallbacks(execute=True):
            response = getattr(self.client, method)(f"/api/{path}", body, **extra)
        self.assertEqual(response.status_code, status, getattr(response, "data", ""))
        return response.data

    def make_project(self, name: str = "Quay house") -> str:
        return self.call("post", "projects/", {"name": name, "practice": "Reed and Rope"}, 201)["id"]

    def ifc(self, **given: Any) -> bytes:
        return write_ifc(self.data / "house.ifc", **given).read_bytes()

    def import_model(
        self,
        project: str,
        content: bytes | None = None,
        status: int = 202,
        name: str = "house.ifc",
        **given: str,
    ) -> Any:
        """Upload a file, and what is given with it, and return its job as it ended."""
        file = SimpleUploadedFile(name, self.ifc() if content is None else content)
        job = self.call(
            "post", "model-versions/", {"project": project, "file": file, **given}, status, format="multipart"
        )
        return self.call("get", f"jobs/{job['id']}/") if status == 202 else job

    def project_with_model(self) -> str:
        def made() -> str:
            project = self.make_project()
            self.assertEqual(self.import_model(project)["state"], "done")
            return project

        project: str = once("project with a model", made)
        return project

    def view_named(self, project: str, name: str) -> Any:
        return next(v for v in self.call("get", f"views/?project={project}") if v["name"] == name)

    def preset(self, model: type[NamedRow], key: str) -> str:
        """The id of a row that is built in."""
        return str(preset_id(model, key))

    def plotted(self, project: str, **given: Any) -> tuple[Any, bytes]:
        """What is to be known of a plot that has succeeded, and its file."""
        plot = self.call("post", "plots/", {"project": project, **given}, 202)
        plot = next(p for p in self.call("get", f"plots/?project={project}") if p["id"] == plot["id"])
        job = self.call("get", f"jobs/{plot['job']['id']}/")
        self.assertEqual(job["state"], "done", job["message"])
        return plot, b"".join(self.client.get(f"/api/plots/{plot['id']}/file/").streaming_content)

    def files_kept(self) -> list[Path]:
        return [p for p in (self.data / "files").rglob("*") if p.is_file()]
