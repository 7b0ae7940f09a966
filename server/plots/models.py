"""What sheets were plotted to, what was chosen to be plotted together, and what devices have printed."""

from __future__ import annotations

from django.conf import settings
from django.db import models

from drafting.plotting.devices import BY_KEY, Device
from server.common.models import UuidModel, VersionedModel
from server.jobs.models import Job
from server.projects.models import Project
from server.sheets.models import Sheet
from server.styles.models import PlotSettings


class SheetList(VersionedModel):
    """Sheets that are plotted together; they come in register order."""

    project = models.ForeignKey(Project, models.CASCADE, related_name="sheet_lists")
    name = models.CharField(max_length=100)
    sheets = models.ManyToManyField(Sheet, related_name="lists", blank=True)

    class Meta:
        ordering = ["name", "id"]
        verbose_name = "list of sheets"

    def __str__(self) -> str:
        return self.name


class Plot(models.Model):
    """A file that sheets are plotted to, and once its job is done, what is to be known of it.

    Attributes:
        settings: for all sheets; null where each has its own.
        notes: what to look at before the file leaves the office.
        pages: what is to be known of each page.
        file: the hash of what was made.
    """

    job = models.OneToOneField(Job, models.CASCADE, primary_key=True, related_name="plot")
    sheets = models.ManyToManyField(Sheet, related_name="+")
    settings = models.ForeignKey(PlotSettings, models.SET_NULL, null=True, related_name="+")
    form = models.CharField(max_length=8)
    file_name = models.CharField(max_length=140)
    notes = models.JSONField(default=list)
    pages = models.JSONField(default=list)
    file = models.CharField(max_length=64, blank=True)

    class Meta:
        ordering = ["-job__created"]

    def __str__(self) -> str:
        return self.file_name


class DeviceState(models.Model):
    """What a stand-in of a device has at the moment: whether it is on, and the paper that lies in it."""

    key = models.CharField(primary_key=True, max_length=20)
    online = models.BooleanField(default=True)
    #: Sheets by their size, or mm of a roll.
    paper = models.JSONField()

    def __str__(self) -> str:
        return self.device.name

    @property
    def device(self) -> Device:
        return BY_KEY[self.key]


class Print(UuidModel):
    """Sheets that were sent to a device. `file` is what came out of it."""

    class State(models.TextChoices):
        MAKING = "making"
        QUEUED = "queued"
        PRINTED = "printed"
        CANCELLED = "cancelled"
        FAILED = "failed"

    project = models.ForeignKey(Project, models.CASCADE, related_name="prints")
    sent_by = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, editable=False)
    device = models.CharField(max_length=20)
    about = models.CharField(max_length=250)
    plot = models.OneToOneField(Plot, models.SET_NULL, null=True, related_name="print")
    state = models.CharField(max_length=10, choices=State.choices, default=State.MAKING)
    #: Why it waits or failed, in a sentence with its remedy.
    message = models.TextField(blank=True)
    #: Width and height of each page, mm, and how many of them have come out.
    pages = models.JSONField(default=list)
    printed = models.PositiveIntegerField(default=0)
    file = models.CharField(max_length=64, blank=True)
    file_name = models.CharField(max_length=140, blank=True)
    created = models.DateTimeField(auto_now_add=True)
    finished = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-created"]

    def __str__(self) -> str:
        return f"{self.about} on {self.device}"
