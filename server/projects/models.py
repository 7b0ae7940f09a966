"""Projects: one building job each."""

from __future__ import annotations

import uuid

from django.conf import settings
from django.contrib.auth.models import AbstractBaseUser
from django.db import models
from django.db.models import Q

from drafting.sheets import numbering
from server.config.versioned import VersionedModel


class Project(VersionedModel):
    """One building job: its model, views and sheets, and what every title block says of it."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="projects", editable=False)
    #: Others who work in it as the owner does; only the owner shares and deletes it.
    members = models.ManyToManyField(settings.AUTH_USER_MODEL, related_name="shared_projects", editable=False)
    name = models.CharField(max_length=200)
    number = models.CharField(max_length=40, blank=True)
    client = models.CharField(max_length=200, blank=True)
    site = models.CharField(max_length=200, blank=True)
    #: The unit that the figures of its building files are in, where they say it wrongly; blank for what they say.
    model_unit = models.CharField(max_length=2, blank=True)
    practice = models.CharField(max_length=200, blank=True)
    #: Scales that were typed and stand on no ladder, kept to be chosen again.
    own_scales = models.JSONField(default=list, editable=False)
    department = models.CharField(max_length=200, blank=True)
    reference = models.CharField(max_length=200, blank=True)
    language = models.CharField(max_length=40, blank=True)
    #: How its sheets are numbered: the core's Pattern.
    number_pattern = models.CharField(max_length=40, default=numbering.STANDARD)
    #: Shown by every template that has a place for a logo.
    logo = models.ForeignKey("templates.Picture", models.SET_NULL, null=True, blank=True, related_name="+")
    #: What its sheets are drawn with: a shipped pen table by its key, or one of its own by its id.
    pen_table = models.CharField(max_length=36, default="construction")
    archived = models.BooleanField(default=False)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["created"]

    def __str__(self) -> str:
        return self.name

    @classmethod
    def of(cls, user: AbstractBaseUser) -> models.QuerySet[Project]:
        """The projects that somebody works in: their own, and those that are shared with them."""
        return cls.objects.filter(Q(owner=user) | Q(members=user)).distinct()
