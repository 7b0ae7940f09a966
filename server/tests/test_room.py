"""A project takes no more of the disk than it may."""

from __future__ import annotations

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import override_settings

from server.common.pruning import size_of_all
from server.projects.models import Project
from server.tests.api_case import ApiCase


class RoomTests(ApiCase):
    def add_table(self, project: str, status: int, size: int = 2000) -> str:
        upload = SimpleUploadedFile("doors.csv", b"a,b\n" + size * b"x")
        body = {"project": project, "upload": upload}
        answer = self.call("post", "table-files/", body, status, format="multipart")
        return str(answer.get("detail", ""))

    def test_a_file_that_a_project_has_no_room_for_is_refused_and_nothing_is_kept_of_it(self) -> None:
        full, other = self.make_project("Full"), self.make_project("Other")
        self.add_table(full, 201)
        files = self.files_kept()
        with override_settings(PROJECT_LIMIT=3000):
            self.assertIn("no room for “doors.csv”", self.add_table(full, 413))
            self.assertEqual(self.files_kept(), files)
            self.add_table(other, 201)
            body = {"project": full, "file": SimpleUploadedFile("house.ifc", self.ifc())}
            self.call("post", "model-versions/", body, 413, format="multipart")
        self.add_table(full, 201)

    def test_each_file_of_a_project_counts_once_however_often_it_is_named(self) -> None:
        project = self.project_with_model()
        sheet = self.call("post", "sheets/", {"project": project}, 201)["id"]
        before = size_of_all(project)
        self.assertGreater(before, 0)
        self.plotted(project)
        with_plot = size_of_all(project)
        self.assertGreater(with_plot, before)
        self.assertEqual(size_of_all(self.make_project("Empty")), 0)
        self.call("delete", f"sheets/{sheet}/?version=1", status=204)
        self.assertEqual(size_of_all(project), with_plot)
        Project.objects.all().delete()
        self.assertEqual(size_of_all(project), 0)
