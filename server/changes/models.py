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

    id = models.UUIDField(primary_key=True)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE)
    answer = models.JSONField(encoder=DjangoJSONEncoder)
    made = models.DateTimeField(auto_now_add=True, db_index=True)

    @classmethod
    def remember(cls, pk: Any, user: Any, answer: Any) -> None:
        cls.objects.filter(made__lt=timezone.now() - KEPT).delete()
        cls.objects.create(pk=pk, user=user, answer=answer)
