"""Rows that a project keeps by name, to be given to others of its rows: templates, pen tables, plot settings."""

from __future__ import annotations

import uuid

from django.db import models

from server.config.versioned import VersionedModel
from server.projects.models import Project


class NamedRow(VersionedModel):
    """A row with a name."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    project = models.ForeignKey(Project, models.CASCADE, related_name="+")
    name = models.CharField(max_length=100)

    class Meta:
        abstract = True
        ordering = ["name", "id"]

    def __str__(self) -> str:
        return self.name
