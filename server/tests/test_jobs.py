"""Long work: stopped, crashed, too slow, lost, and still nobody else is harmed."""

from pathlib import Path
from unittest import TestCase

from drafting.errors import DraftingError
from server.jobs import services
from server.jobs.hand import Cancelled, Hand, HandError
from server.jobs.models import Job
from server.projects.models import Project
from server.tests.api_case import ApiCase


class HandTests(TestCase):
    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        cls.hand = Hand(memory_limit=8 << 30)
        cls.addClassCleanup(cls.hand.drop)

    def run_there(self, function, *arguments, wanted=lambda: True, time_limit=60.0, stall_limit=60.0):
        self.told = []

        def tell(stage, share):
            self.told.append((stage, share))

        return self.hand.run(f"server.tests.hand_work:{function}", arguments, tell, wanted, time_limit, stall_limit)

    def test_work_tells_how_far_it_is_and_returns_what_it_made(self):
        self.assertEqual(self.run_there("greet", "tern"), "Good morning, tern")
        self.assertEqual(self.told, [("Greeting", 0.5)])

    def test_what_the_core_refuses_is_passed_on_in_its_words(self):
        with self.assertRaisesRegex(DraftingError, "No such gull."):
            self.run_there("refuse")

    def test_after_a_crash_the_next_work_is_done(self):
        with self.assertRaisesRegex(HandError, "crashed"):
            self.run_there("crash")
        self.assertEqual(self.run_there("greet", "dunlin"), "Good morning, dunlin")

    def test_what_stalls_is_stopped(self):
        with self.assertRaisesRegex(HandError, "longer than is allowed"):
            self.run_there("stall", stall_limit=0.2)

    def test_what_is_no_longer_wanted_is_stopped(self):
        with self.assertRaises(Cancelled):
            self.run_there("stall", wanted=lambda: False)

    def test_what_takes_too_much_memory_is_stopped(self):
        with self.assertRaisesRegex(HandError, "more memory"):
            self.run_there("hoard")


class JobTests(ApiCase):
    def waiting_read(self):
        """A file that has been taken in and not yet been read."""
        project = Project.objects.get(pk=self.make_project())
        waiting = waiting_file(self.data)
        order = {"file_name": "a.ifc", "file_size": 1, "waiting": waiting.name, "user": self.user.pk}
        return Job.objects.create(project=project, kind="read", about="a.ifc", order=order), waiting

    def test_a_job_cancelled_before_it_began_never_runs_and_leaves_no_file(self):
        job, waiting = self.waiting_read()
        answer = self.call("post", f"jobs/{job.pk}/cancel/")
        self.assertEqual(answer["state"], "cancelled")
        self.assertFalse(waiting.exists())
        services.run(job)
        job.refresh_from_db()
        self.assertEqual(job.state, "cancelled")

    def test_a_job_that_has_ended_cannot_be_cancelled(self):
        project = self.project_with_model()
        job = self.call("get", f"jobs/?project={project}")[-1]
        self.assertEqual(self.call("post", f"jobs/{job['id']}/cancel/")["state"], "done")

    def test_a_job_that_a_stopped_worker_left_is_ended_and_tidied_up(self):
        job, waiting = self.waiting_read()
        Job.objects.filter(pk=job.pk).update(state="running")
        services.end_lost_jobs()
        job.refresh_from_db()
        self.assertEqual((job.state, job.message), ("failed", "Dunefold was stopped meanwhile. Try again."))
        self.assertFalse(waiting.exists())


def waiting_file(data: Path) -> Path:
    path = data / "files" / "making" / "waiting.ifc"
    path.parent.mkdir(parents=True)
    path.write_bytes(b"x")
    return path
