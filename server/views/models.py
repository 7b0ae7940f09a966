"""Views, and the linework that was drawn for them."""

from __future__ import annotations

import uuid

from django.db import models

from server.buildings.models import ModelVersion
from server.config.versioned import VersionedModel
from server.projects.models import Project

#: How a drawing stands to the model's newest version; undrawn where there is none yet, held where it is kept at an
#: older one on purpose.
STATES = ("undrawn", "fresh", "behind", "held")


class Linework(models.Model):
    """A drawing kept under the key of all that it hangs on: model version, view and engine."""

    key = models.CharField(primary_key=True, max_length=64)
    file = models.CharField(max_length=64)
    extents = models.JSONField(null=True)
    notes = models.JSONField(default=list)
    lines = models.PositiveIntegerField()
    #: The axes that it is measured along, in model mm: `right`, `up`, `origin`.
    axes = models.JSONField(default=dict)


class Subset(VersionedModel):
    """A named group of elements, by their ids, that views can be limited to."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    project = models.ForeignKey(Project, models.CASCADE, related_name="subsets")
    name = models.CharField(max_length=200)
    elements = models.JSONField()

    class Meta:
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name


class NamedTreatment(VersionedModel):
    """A treatment of lines that is kept by name, to be given to other views: the core's Treatment."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    project = models.ForeignKey(Project, models.CASCADE, related_name="treatments")
    name = models.CharField(max_length=200)
    treatment = models.JSONField()

    class Meta:
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name


class View(VersionedModel):
    """A saved look at the model. `spec` is the core's ViewSpec; `linework` the newest drawing of it that there is."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    project = models.ForeignKey(Project, models.CASCADE, related_name="views")
    name = models.CharField(max_length=200)
    spec = models.JSONField()
    position = models.PositiveIntegerField(default=0)
    subset = models.ForeignKey(Subset, models.SET_NULL, null=True, blank=True, related_name="views")
    held = models.BooleanField(default=False)
    linework = models.ForeignKey(Linework, models.PROTECT, null=True, related_name="views", editable=False)
    drawn_from = models.ForeignKey(ModelVersion, models.SET_NULL, null=True, editable=False)

    class Meta:
        ordering = ["position", "name"]

    def __str__(self) -> str:
        return self.name
