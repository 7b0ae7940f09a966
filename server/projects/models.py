"""Projects: one building job each."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.db import models
from django.db.models import Q

from drafting.sheets.words import language_of
from server.common.models import UuidModel, VersionedModel


class Project(VersionedModel):
    """One building job, and what every title block says of it."""

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, models.CASCADE, related_name="projects", editable=False
    )
    #: Others who work in it, each in a role; only the owner shares and deletes it.
    members = models.ManyToManyField(
        settings.AUTH_USER_MODEL, through="Membership", related_name="shared_projects", editable=False
    )
    name = models.CharField(max_length=200)
    number = models.CharField(max_length=40, blank=True)
    client = models.CharField(max_length=200, blank=True)
    site = models.CharField(max_length=200, blank=True)
    practice = models.CharField(max_length=200, blank=True)
    department = models.CharField(max_length=200, blank=True)
    reference = models.CharField(max_length=200, blank=True)
    language = models.CharField(max_length=40, blank=True)
    #: The unit that the figures of its building files are in, where they say it wrongly; blank for what they
    #: say.
    model_unit = models.CharField(max_length=2, blank=True, editable=False)
    archived = models.BooleanField(default=False)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["created"]

    def __str__(self) -> str:
        return self.name

    @property
    def title_language(self) -> str:
        """In which language its views are named when they are made: in its own, else as its owner prefers."""
        own = language_of(self.language)
        if own:
            return own
        preferences = getattr(self.owner, "preferences", None)
        return preferences.titles if preferences else "en"

    @classmethod
    def of(cls, user: Any) -> models.QuerySet[Project]:
        """The projects that somebody works in: their own, and those that are shared with them."""
        return cls.objects.filter(Q(owner=user) | Q(members=user)).distinct()


class Membership(models.Model):
    """Somebody who works in another's project."""

    class Role(models.TextChoices):
        """What they do there: change it; check and sign it; look at it."""

        DRAFTER = "drafter"
        CHECKER = "checker"
        READER = "reader"

    project = models.ForeignKey(Project, models.CASCADE, related_name="memberships")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="+")
    role = models.CharField(max_length=8, choices=Role.choices, default=Role.DRAFTER)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["project", "user"], name="one_role_in_a_project")]

    def __str__(self) -> str:
        return f"{self.user}, {self.role}"


class Invitation(UuidModel):
    """A link by which one person comes into a project. What is kept is the hash of its secret."""

    project = models.ForeignKey(Project, models.CASCADE, related_name="invitations")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="+")
    digest = models.CharField(max_length=64, unique=True)
    role = models.CharField(max_length=8, choices=Membership.Role.choices, default=Membership.Role.DRAFTER)
    made = models.DateTimeField(auto_now_add=True)
    until = models.DateTimeField()
    used_by = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")
    used = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-made"]

    def __str__(self) -> str:
        return f"to {self.project} until {self.until:%Y-%m-%d}"


class NamedRow(VersionedModel):
    """A row that a project keeps by name, to be given to others of its rows. Those that are built in belong
    to no project, are found by their key, and cannot be changed."""

    project = models.ForeignKey(Project, models.CASCADE, null=True, related_name="+")
    name = models.CharField(max_length=100)
    key = models.CharField(max_length=40, blank=True, editable=False)

    class Meta:
        abstract = True
        ordering = ["project", "name", "id"]

    def __str__(self) -> str:
        return self.name

    @property
    def built_in(self) -> bool:
        return self.project_id is None
