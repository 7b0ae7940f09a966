"""What nothing needs any more is put away, and nothing else."""

from __future__ import annotations

import os
from unittest import mock

from server.common import storage
from server.common.pruning import GRACE, prune
from server.projects.models import Project
from server.tests.api_case import ApiCase
from server.views.models import Linework, View


class PruningTests(ApiCase):
    def age(self) -> None:
        """Let all files be older than the grace."""
        for path in self.files_kept():
            before = path.stat().st_mtime - GRACE.total_seconds() - 60
            os.utime(path, (before, before))

    def test_what_is_needed_stays_however_old(self) -> None:
        project = self.project_with_model()
        self.call("post", "sheets/", {"project": project}, 201)
        self.plotted(project)
        before = sorted(self.files_kept())
        self.age()
        prune()
        self.assertEqual(sorted(self.files_kept()), before)
        self.assertEqual(self.view_named(project, "South elevation")["state"], "up_to_date")

    def test_files_of_a_deleted_project_go_after_the_grace_and_not_before(self) -> None:
        self.project_with_model()
        Project.objects.all().delete()
        prune()
        self.assertTrue(self.files_kept())
        self.age()
        prune()
        self.assertEqual((self.files_kept(), Linework.objects.count()), ([], 0))

    def test_a_drawing_that_only_a_viewport_has_stays(self) -> None:
        project = self.project_with_model()
        sheet = self.call("post", "sheets/", {"project": project}, 201)["id"]
        view = self.view_named(project, "South elevation")["id"]
        body = {"sheet": sheet, "view": view, "shown": {"without_classes": ["IfcWall"]}}
        self.call("post", "viewports/", body, 201)
        (viewport,) = self.call("get", f"viewports/?project={project}")
        self.assertFalse(View.objects.filter(linework=viewport["linework"]).exists())
        self.age()
        prune()
        self.assertTrue(storage.path_of(Linework.objects.get(pk=viewport["linework"]).file).exists())

    def test_a_file_that_waits_to_be_read_stays(self) -> None:
        project = self.make_project()
        with mock.patch("server.jobs.runner.run"):
            self.import_model(project)
        (waiting,) = self.files_kept()
        self.age()
        prune()
        self.assertEqual(self.files_kept(), [waiting])
