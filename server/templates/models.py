"""An office's own templates, and the pictures on them."""

from __future__ import annotations

import uuid

from django.db import models

from drafting.sheets.picture import Picture as CorePicture
from drafting.sheets.template import Template as CoreTemplate
from server.config import storage
from server.config.versioned import VersionedModel
from server.projects.models import Project


class Template(VersionedModel):
    """A template of a project's own; those that ship are the core's data, and no rows."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    project = models.ForeignKey(Project, models.CASCADE, related_name="templates")
    name = models.CharField(max_length=100)
    #: The core's Template as plain data, but for its name.
    spec = models.JSONField()

    class Meta:
        ordering = ["name", "id"]

    def __str__(self) -> str:
        return self.name

    @property
    def as_core(self) -> CoreTemplate:
        return CoreTemplate.from_dict({**self.spec, "name": self.name})


class Picture(models.Model):
    """A picture that templates may show. Its file holds what the core made of it."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    project = models.ForeignKey(Project, models.CASCADE, related_name="pictures")
    name = models.CharField(max_length=200)
    form = models.CharField(max_length=8)
    width = models.FloatField()
    height = models.FloatField()
    file = models.CharField(max_length=64)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["created"]

    @property
    def as_core(self) -> CorePicture:
        """With its outlines; the pixels of the others stay in their file."""
        data = storage.path_of(self.file).read_bytes() if self.form == "vector" else b""
        return CorePicture.from_bytes(self.form, self.width, self.height, data, str(self.pk))
