"""Changes that have been made, so that one that is sent twice is made once."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from django.conf import settings
from django.core.serializers.json import DjangoJSONEncoder
from django.db import models
from django.utils import timezone

from server.projects.models import Project

#: Nobody sends a change again after so long.
KEPT = timedelta(days=7)


class MadeChange(models.Model):
    """A change by the id that its sender gave it, and what was answered."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE)
    change = models.UUIDField()
    answer = models.JSONField(encoder=DjangoJSONEncoder)
    made = models.DateTimeField(auto_now_add=True, db_index=True)

    class Meta:
        # Another's change may have the same id, and is another change.
        constraints = [models.UniqueConstraint(fields=["user", "change"], name="one_change_of_an_id")]

    def __str__(self) -> str:
        return str(self.change)

    @classmethod
    def remember(cls, change: Any, user: Any, answer: Any) -> None:
        cls.objects.filter(made__lt=timezone.now() - KEPT).delete()
        cls.objects.create(change=change, user=user, answer=answer)


class HistoryEntry(models.Model):
    """Something that was done: by whom, when, in words, and the rows that it changed.

    Attributes:
        rows: of each, its kind and id, what of it was before and after (null where it was not there, or is
            not any more), and the sheets and views that it belongs to.
    """

    project = models.ForeignKey(Project, models.CASCADE, related_name="history")
    by = models.CharField(max_length=150)
    what = models.CharField(max_length=200)
    at = models.DateTimeField(auto_now_add=True, db_index=True)
    rows = models.JSONField(encoder=DjangoJSONEncoder)

    class Meta:
        ordering = ["-pk"]
        verbose_name_plural = "history"

    def __str__(self) -> str:
        return self.what


class HistorySubject(models.Model):
    """A sheet or a view that something was done to."""

    entry = models.ForeignKey(HistoryEntry, models.CASCADE, related_name="subjects")
    subject = models.UUIDField(db_index=True)

    def __str__(self) -> str:
        return str(self.subject)
