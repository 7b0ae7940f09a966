"""What rows have in common: an id that their maker may choose, and a version that grows with every change."""

from __future__ import annotations

import uuid

from django.db import models


class UuidModel(models.Model):
    """A row whose id its maker may choose, so that what was deleted comes back under its own."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)

    class Meta:
        abstract = True


class VersionedModel(UuidModel):
    """A row that several people may change: a write that was made from an older version is refused."""

    version = models.PositiveIntegerField(default=1, editable=False)

    class Meta:
        abstract = True
