"""What sheets are plotted with, what was chosen to be plotted together, and what devices have printed."""

from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models

from drafting.plot.devices import BY_KEY, Device
from drafting.plot.plot_settings import PlotSettings as CorePlotSettings
from server.jobs.models import Job
from server.projects.models import Project
from server.projects.named import NamedRow


class PlotSettings(NamedRow):
    """Plot settings of a project's own; those that ship are the core's data, and no rows."""

    #: The core's PlotSettings as plain data, but for the name.
    spec = models.JSONField()

    class Meta(NamedRow.Meta):
        verbose_name = "set of plot settings"

    @property
    def as_core(self) -> CorePlotSettings:
        return CorePlotSettings.from_dict({**self.spec, "name": self.name})


class SheetList(NamedRow):
    """Sheets that are plotted together, by their ids; they come in register order."""

    sheets = models.JSONField(default=list)

    class Meta(NamedRow.Meta):
        verbose_name = "list of sheets"


class DeviceState(models.Model):
    """What a stand-in of a device has at the moment: whether it is on, and the paper that lies in it."""

    key = models.CharField(primary_key=True, max_length=20)
    online = models.BooleanField(default=True)
    #: Sheets by their size, or mm of a roll.
    paper = models.JSONField()

    @property
    def device(self) -> Device:
        return BY_KEY[self.key]


class Print(models.Model):
    """Sheets that were sent to a device. `file` is what came out of it."""

    class State(models.TextChoices):
        MAKING = "making"
        QUEUED = "queued"
        PRINTED = "printed"
        CANCELLED = "cancelled"
        FAILED = "failed"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    project = models.ForeignKey(Project, models.CASCADE, related_name="prints")
    sent_by = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, editable=False)
    device = models.CharField(max_length=20)
    about = models.CharField(max_length=250)
    job = models.OneToOneField(Job, models.SET_NULL, null=True, related_name="print")
    state = models.CharField(max_length=10, choices=State.choices, default=State.MAKING)
    #: Why it waits or failed, in a sentence with its remedy.
    says = models.TextField(blank=True)
    #: Width and height of each page, mm, and how many of them have come out.
    pages = models.JSONField(default=list)
    printed = models.PositiveIntegerField(default=0)
    file = models.CharField(max_length=64, blank=True)
    file_name = models.CharField(max_length=130, blank=True)
    created = models.DateTimeField(auto_now_add=True)
    finished = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-created"]
