"""Jobs: long work, its progress and its end."""

from __future__ import annotations

from typing import ClassVar

from django.db import models

from server.common.models import UuidModel
from server.projects.models import Project


class Worker(UuidModel):
    """A process that does jobs. It writes now and then that it is alive, and deletes its row when it ends.

    Attributes:
        host, pid: where it runs, by which another process of that machine knows at once that it is gone.
    """

    host = models.CharField(max_length=255)
    pid = models.PositiveIntegerField()
    started = models.DateTimeField(auto_now_add=True)
    seen = models.DateTimeField()

    class Meta:
        ordering = ["started"]

    def __str__(self) -> str:
        return f"worker {self.pid} on {self.host}"


class Job(UuidModel):
    """A piece of long work. What it is to do is a row of the app whose kind of work it is."""

    class Kind(models.TextChoices):
        READ = "read"
        DRAW = "draw"
        PLOT = "plot"
        CHECK = "check"
        ISSUE = "issue"
        REMAKE = "remake"
        COMPARE = "compare"
        RECEIVE = "receive"
        SHADE = "shade"
        REVIEW = "review"
        COMMENTS = "comments"
        PICTURE = "picture"
        SCAN = "scan"

    class State(models.TextChoices):
        WAITING = "waiting"
        RUNNING = "running"
        DONE = "done"
        FAILED = "failed"
        CANCELLED = "cancelled"

    #: States in which it may still come to something.
    ACTIVE: ClassVar = (State.WAITING, State.RUNNING)

    project = models.ForeignKey(Project, models.CASCADE, related_name="jobs")
    kind = models.CharField(max_length=8, choices=Kind.choices)
    state = models.CharField(max_length=10, choices=State.choices, default=State.WAITING)
    about = models.CharField(max_length=250, help_text="What the work is about, in words.")
    subject = models.CharField(
        max_length=64, blank=True, db_index=True, help_text="What it makes, such as the key of a drawing."
    )
    stage = models.CharField(max_length=100, blank=True)
    share = models.FloatField(default=0.0, help_text="The share of the present stage that is done, 0 to 1.")
    message = models.TextField(blank=True, help_text="Why the work failed, in one sentence.")
    long = models.BooleanField(default=False, help_text="Whether short work is not to wait for it.")
    worker = models.ForeignKey(Worker, models.SET_NULL, null=True, blank=True, related_name="jobs")
    cancel_wanted = models.BooleanField(default=False)
    created = models.DateTimeField(auto_now_add=True)
    finished = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-created"]

    def __str__(self) -> str:
        return f"{self.kind} {self.about}"

    @property
    def ended(self) -> bool:
        return self.state not in self.ACTIVE
