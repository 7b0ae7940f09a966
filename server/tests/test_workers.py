"""The queue: nothing is lost between a job and its place in it, and no worker's end leaves a job behind."""

import os
import socket
import subprocess
import sys
import tempfile
import time
from datetime import timedelta
from pathlib import Path

from django.conf import settings
from django.contrib.auth import get_user_model
from django.db import transaction
from django.test import TestCase, override_settings
from django.utils import timezone
from django_tasks_db.models import DBTaskResult

from server.jobs import services
from server.jobs.models import Job, Worker
from server.jobs.tasks import LONG, SHORT
from server.jobs.workers import SILENCE, UNQUEUED, Heart, any_alive, reconcile
from server.projects.models import Project
from server.tests.api_case import ApiCase

QUEUE = {"default": {"BACKEND": "django_tasks_db.DatabaseBackend", "QUEUES": [SHORT, LONG]}}


class Interrupted(Exception):
    pass


@override_settings(TASKS=QUEUE)
class QueueTests(TestCase):
    def setUp(self):
        user = get_user_model().objects.create_user("ines")
        self.project = Project.objects.create(owner=user, name="Quay house")

    def order(self, project=None, **given):
        return services.start(project or self.project, Job.Kind.DRAW, "Plan", **given)

    def queued(self):
        return [row.args_kwargs["args"][0] for row in DBTaskResult.objects.ready()]

    def old(self, job):
        Job.objects.filter(pk=job.pk).update(created=timezone.now() - 2 * UNQUEUED)

    def test_a_job_and_its_place_in_the_queue_are_there_together_or_not_at_all(self):
        with self.assertRaises(Interrupted), transaction.atomic():
            self.order()
            raise Interrupted
        self.assertEqual((Job.objects.count(), self.queued()), (0, []))
        job = self.order()
        self.assertEqual(self.queued(), [str(job.pk)])

    def test_a_waiting_job_that_lost_its_place_gets_it_back_once(self):
        job = self.order()
        DBTaskResult.objects.all().delete()
        reconcile()
        self.assertEqual(self.queued(), [])  # it may just have been taken by a worker
        self.old(job)
        reconcile()
        reconcile()
        self.assertEqual(self.queued(), [str(job.pk)])

    def test_long_jobs_have_a_queue_of_their_own(self):
        self.order()
        self.order(long=True)
        self.assertEqual(
            sorted(DBTaskResult.objects.values_list("queue_name", flat=True)), sorted([SHORT, LONG])
        )

    def test_a_project_with_many_jobs_does_not_hold_up_one_with_few(self):
        other = Project.objects.create(owner=self.project.owner, name="Lighthouse")
        many = [self.order() for _ in range(5)]
        (one,) = [self.order(other)]
        self.assertEqual(self.queued()[:3], [str(many[0].pk), str(one.pk), str(many[1].pk)])

    def test_the_job_of_a_worker_that_is_gone_ends_and_that_of_a_living_one_goes_on(self):
        gone = subprocess.Popen([sys.executable, "-c", "pass"])
        gone.wait()
        dead = Worker.objects.create(host=socket.gethostname(), pid=gone.pid, seen=timezone.now())
        heart = Heart()
        lost, going = self.order(), self.order()
        Job.objects.filter(pk=lost.pk).update(state="running", worker=dead)
        Job.objects.filter(pk=going.pk).update(state="running", worker=heart.worker)
        self.assertTrue(any_alive())
        reconcile()
        lost.refresh_from_db()
        going.refresh_from_db()
        self.assertEqual((lost.state, going.state), ("failed", "running"))
        self.assertIn("Try again", lost.message)
        # Between two jobs a worker has none: what it left half-written, on a full disk, is lost too.
        reconcile(heart.worker)
        going.refresh_from_db()
        self.assertEqual(going.state, "failed")
        heart.stop()
        self.assertFalse(any_alive())

    def test_a_worker_of_another_machine_is_lost_when_it_falls_silent(self):
        worker = Worker.objects.create(host="elsewhere", pid=os.getpid(), seen=timezone.now())
        self.assertTrue(any_alive())
        Worker.objects.filter(pk=worker.pk).update(seen=timezone.now() - SILENCE - timedelta(seconds=1))
        self.assertFalse(any_alive())


class PausedTests(ApiCase):
    def test_what_waits_says_that_no_worker_is_there(self):
        project = Project.objects.get(pk=self.make_project())
        Job.objects.create(project=project, kind="draw", about="Plan")
        (job,) = self.call("get", f"jobs/?project={project.pk}")
        self.assertTrue(job["paused"])
        Worker.objects.create(host=socket.gethostname(), pid=os.getpid(), seen=timezone.now())
        (job,) = self.call("get", f"jobs/?project={project.pk}")
        self.assertFalse(job["paused"])


class ChildOfAWorkerTests(TestCase):
    def test_a_child_at_work_ends_with_its_parent(self):
        self.folder = self.enterContext(tempfile.TemporaryDirectory())
        code = (
            "from pathlib import Path\n"
            "from server.jobs.child import ChildProcess\n"
            f"child = ChildProcess(1 << 33, lambda: Path({self.folder!r}), warm=False)\n"
            "child.start()\n"
            "print(child._process.pid, flush=True)\n"
            "child.run('server.tests.child_work:stall', (), print, lambda: True, 60, 60)\n"
        )
        parent = subprocess.Popen(
            [sys.executable, "-c", code], stdout=subprocess.PIPE, text=True, cwd=settings.ROOT
        )
        pid = int(parent.stdout.readline())
        parent.kill()
        parent.communicate()
        for _ in range(200):
            if not is_running(pid):
                return
            time.sleep(0.05)
        self.fail("The child goes on.")


def is_running(pid):
    try:
        return Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()[0] != "Z"
    except FileNotFoundError:
        return False
