"""Jobs: long work, its progress and its end."""

from __future__ import annotations

import uuid

from django.db import models

from server.projects.models import Project


class Job(models.Model):
    """A piece of long work. What it needs to know is in `order`, and what it made in `result`."""

    class Kind(models.TextChoices):
        READ = "read"
        DRAW = "draw"
        PLOT = "plot"

    class State(models.TextChoices):
        WAITING = "waiting"
        RUNNING = "running"
        DONE = "done"
        FAILED = "failed"
        CANCELLED = "cancelled"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    project = models.ForeignKey(Project, models.CASCADE, related_name="jobs")
    kind = models.CharField(max_length=8, choices=Kind.choices)
    state = models.CharField(max_length=10, choices=State.choices, default=State.WAITING)
    about = models.CharField(max_length=250, help_text="What the work is about, in words.")
    order = models.JSONField(default=dict)
    stage = models.CharField(max_length=100, blank=True)
    share = models.FloatField(default=0.0, help_text="The share of the present stage that is done, 0 to 1.")
    message = models.TextField(blank=True, help_text="Why the work failed, in one sentence.")
    notes = models.JSONField(default=list, help_text="What to look at before the file that was made leaves the office.")
    pages = models.JSONField(default=list, help_text="What is to be known of each page that a plot made.")
    cancel_wanted = models.BooleanField(default=False)
    result = models.CharField(max_length=64, blank=True, help_text="Hash of the file that the work made.")
    created = models.DateTimeField(auto_now_add=True)
    finished = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-created"]

    @property
    def ended(self) -> bool:
        return self.state in (self.State.DONE, self.State.FAILED, self.State.CANCELLED)
