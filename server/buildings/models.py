"""The model of a project: each time its file is brought in anew it makes a version."""

from __future__ import annotations

from django.conf import settings
from django.db import models

from server.projects.models import Project


class ModelVersion(models.Model):
    """A building file that was read. `building` is the hash of what was kept of it for drawing."""

    project = models.ForeignKey(Project, models.CASCADE, related_name="model_versions")
    number = models.PositiveIntegerField()
    file_name = models.CharField(max_length=250)
    file_size = models.PositiveBigIntegerField()
    source = models.CharField(max_length=64)
    building = models.CharField(max_length=64)
    #: The hash of what is sent to be looked at in 3D; blank for a version that was read before there was such a thing.
    solid = models.CharField(max_length=64, blank=True)
    facts = models.JSONField()
    #: What changed since the version before, as the core's `compare_models` tells it; null for the first.
    changes = models.JSONField(null=True)
    #: The number of the older version that was taken again with this one.
    taken_from = models.PositiveIntegerField(null=True)
    created = models.DateTimeField(auto_now_add=True)
    created_by = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True)

    class Meta:
        ordering = ["-number"]
        constraints = [models.UniqueConstraint(fields=["project", "number"], name="one_version_of_a_number")]

    def __str__(self) -> str:
        return f"{self.file_name}, version {self.number}"


def newest_version(project: Project) -> ModelVersion | None:
    """The version that drawings are to follow."""
    return ModelVersion.objects.filter(project=project).first()
