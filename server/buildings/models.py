"""The model of a project: each time its file is imported anew it makes a version."""

from __future__ import annotations

from django.conf import settings
from django.db import models

from drafting.building.axes import Axes, axes_from
from server.jobs.models import Job
from server.projects.models import Project


class ModelVersion(models.Model):
    """A building file that was read. `building` is the hash of what was stored of it for drawing."""

    project = models.ForeignKey(Project, models.CASCADE, related_name="model_versions")
    number = models.PositiveIntegerField()
    file_name = models.CharField(max_length=250)
    file_size = models.PositiveBigIntegerField()
    source = models.CharField(max_length=64)
    building = models.CharField(max_length=64)
    #: The hash of what is sent to be looked at in 3D.
    solid = models.CharField(max_length=64)
    #: The hash of what the file says of its elements, for schedules and tags.
    data = models.CharField(max_length=64)
    facts = models.JSONField()
    #: What changed since the version before, as the core's `compare_models` tells it; null for the first.
    changes = models.JSONField(null=True)
    #: The number of the older version that was restored with this one.
    restored_from = models.PositiveIntegerField(null=True)
    created = models.DateTimeField(auto_now_add=True)
    created_by = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True)

    class Meta:
        ordering = ["-number"]
        constraints = [models.UniqueConstraint(fields=["project", "number"], name="one_version_of_a_number")]

    def __str__(self) -> str:
        return f"{self.file_name}, version {self.number}"

    @property
    def axes(self) -> Axes:
        """Where the building's own axes lie in those of its file."""
        return axes_from(self.facts.get("axes")) or Axes()

    @property
    def storeys(self) -> list[str]:
        """The names of its storeys, lowest first."""
        return [storey["name"] for storey in self.facts["storeys"]]


class ImportJob(models.Model):
    """A file that is to be read. `waiting` is the name of the temporary file that holds it, blank where it is
    the file of a version that is there, to be read again."""

    job = models.OneToOneField(Job, models.CASCADE, primary_key=True, related_name="import_job")
    file_name = models.CharField(max_length=250)
    file_size = models.PositiveBigIntegerField()
    waiting = models.CharField(max_length=80, blank=True)
    again = models.ForeignKey(ModelVersion, models.CASCADE, null=True, related_name="+")
    unit = models.CharField(max_length=2, blank=True)
    #: Which axis of the file points up; blank for what the file says.
    up = models.CharField(max_length=1, blank=True)
    #: The core's Axes of the building; null to find them.
    axes = models.JSONField(null=True)
    #: The level of the ground where the file has no terrain, mm; null for none.
    ground = models.FloatField(null=True)
    imported_by = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True)
    #: What is to be answered before it becomes a version, as the core's SizeQuestion; null for nothing.
    asks = models.JSONField(null=True)
    #: Whether its size is right, whatever it is.
    sure = models.BooleanField(default=False)


def newest_version(project: Project) -> ModelVersion | None:
    """The version that drawings are to follow."""
    return ModelVersion.objects.filter(project=project).first()
