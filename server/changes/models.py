"""Changes that have been made, so that one that is sent twice is made once."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from django.conf import settings
from django.core.serializers.json import DjangoJSONEncoder
from django.db import models
from django.utils import timezone

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
