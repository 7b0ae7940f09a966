"""Long work: stopped, crashed, too slow, lost, and still nobody else is harmed."""

import os
import shutil
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest import TestCase, mock

from drafting.errors import DraftingError
from server.buildings.models import ImportJob
from server.jobs import runner
from server.jobs.child import Cancelled, ChildProcess, ChildProcessFailed, ChildProcessLost
from server.jobs.models import Job
from server.jobs.workers import reconcile
from server.projects.models import Project
from server.tests.api_case import ApiCase


class ChildProcessTests(TestCase):
    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        cls.folder = Path(cls.enterClassContext(TemporaryDirectory()))
        cls.child = ChildProcess(8 << 30, lambda: cls.folder)
        cls.addClassCleanup(cls.child.kill)

    def run_there(self, function, *arguments, wanted=lambda: True, time_limit=60.0, stall_limit=60.0):
        self.progress = []

        def note(stage, share):
            self.progress.append((stage, share))

        return self.child.run(
            f"server.tests.child_work:{function}", arguments, note, wanted, time_limit, stall_limit
        )

    def test_work_tells_how_far_it_is_and_returns_what_it_made(self):
        self.assertEqual(self.run_there("greet", "tern"), "Good morning, tern")
        self.assertEqual(self.progress, [("Greeting", 0.5)])

    def test_what_the_core_refuses_is_passed_on_in_its_words(self):
        with self.assertRaisesRegex(DraftingError, "No such gull."):
            self.run_there("refuse")

    def test_after_a_crash_the_next_work_is_done(self):
        with self.assertRaisesRegex(ChildProcessFailed, "crashed"):
            self.run_there("crash")
        self.assertEqual(self.run_there("greet", "dunlin"), "Good morning, dunlin")

    def test_whatever_takes_its_place_is_a_copy_of_one_that_has_loaded_all_it_needs(self):
        first, origin = self.run_there("relations")
        self.child.kill()
        second, of_second = self.run_there("relations")
        self.assertNotEqual(first, second)
        self.assertEqual(origin, of_second)
        self.assertNotEqual(origin, os.getpid())

    def test_what_stalls_is_stopped(self):
        with self.assertRaisesRegex(ChildProcessFailed, "longer than is allowed"):
            self.run_there("stall", stall_limit=0.2)

    def test_what_is_no_longer_wanted_is_stopped(self):
        with self.assertRaises(Cancelled):
            self.run_there("stall", wanted=lambda: False)

    def test_what_is_cancelled_leaves_nothing_unpacked(self):
        with self.assertRaises(Cancelled):
            self.run_there("unpack_and_stall", wanted=lambda: not self.progress)
        ((folder, _),) = self.progress
        self.assertTrue(Path(folder).is_relative_to(self.folder))
        self.assertEqual(list(self.folder.iterdir()), [])

    def test_what_needs_a_place_has_one_also_when_that_was_put_away(self):
        for place in self.folder.iterdir():
            shutil.rmtree(place)
        self.assertTrue(self.run_there("unpack"))

    def test_what_takes_too_much_memory_is_stopped(self):
        with self.assertRaisesRegex(ChildProcessFailed, "more memory"):
            self.run_there("hoard")


class JobTests(ApiCase):
    def test_what_a_killed_process_was_at_is_tried_once_more_and_no_more(self):
        job, _ = self.waiting_read()
        lost = ChildProcessLost("What worked on this crashed.")
        for answers, wanted in (([lost, "made"], "made"), ([lost, lost], None)):
            with mock.patch.object(runner, "the_child") as child:
                child.return_value.run.side_effect = answers
                with self.assertLogs("server.jobs.runner", "WARNING"):
                    if wanted:
                        self.assertEqual(runner.Work(job).run("sheets:plot_sheets"), wanted)
                    else:
                        with self.assertRaises(ChildProcessLost):
                            runner.Work(job).run("sheets:plot_sheets")
                self.assertEqual(child.return_value.run.call_count, 2)

    def waiting_read(self):
        """A file that has been taken in and not yet been read."""
        project = Project.objects.get(pk=self.make_project())
        waiting = waiting_file(self.data)
        job = Job.objects.create(project=project, kind="read", about="a.ifc")
        ImportJob.objects.create(job=job, file_name="a.ifc", file_size=1, waiting=waiting.name)
        return job, waiting

    def test_a_job_cancelled_before_it_began_never_runs_and_leaves_no_file(self):
        job, waiting = self.waiting_read()
        answer = self.call("post", f"jobs/{job.pk}/cancel/")
        self.assertEqual(answer["state"], "cancelled")
        self.assertFalse(waiting.exists())
        runner.run(job)
        job.refresh_from_db()
        self.assertEqual(job.state, "cancelled")

    def test_a_job_that_has_ended_cannot_be_cancelled(self):
        project = self.project_with_model()
        job = self.call("get", f"jobs/?project={project}")[-1]
        self.assertEqual(self.call("post", f"jobs/{job['id']}/cancel/")["state"], "done")

    def test_a_job_that_a_stopped_worker_left_is_ended_and_tidied_up(self):
        job, waiting = self.waiting_read()
        Job.objects.filter(pk=job.pk).update(state="running")
        reconcile()
        job.refresh_from_db()
        self.assertEqual((job.state, job.message), ("failed", "Dunefold was stopped meanwhile. Try again."))
        self.assertFalse(waiting.exists())


def waiting_file(data: Path) -> Path:
    path = data / "files" / "making" / "waiting.ifc"
    path.parent.mkdir(parents=True)
    path.write_bytes(b"x")
    return path
